package app

import (
	"context"
	"io"
	"math"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/format/pdf"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// FoldPanel is a rigid panel with the faces on its two sides, which it may show
// a part of.
type FoldPanel struct {
	Ring    geom.Path   `json:"ring"` // on the sheet, as seen from outside
	Outside card.FaceID `json:"outside,omitempty"`
	Inside  card.FaceID `json:"inside,omitempty"`
}

// FoldView is how the base of a card folds.
type FoldView struct {
	Base   card.Base   `json:"base"`
	Panels []FoldPanel `json:"panels"`
	// Frames are the motions of every panel, from flat to closed: a rotation's
	// row and its shift, three times.
	Frames  [][][12]float64 `json:"frames"`
	Verdict fold.Verdict    `json:"verdict"`
	// Eye is how it is looked at when it is folded.
	Eye    fold.Eye `json:"eye"`
	Layers int      `json:"layers"`
	// Edge is the closed card seen along its main folds, from Front backward.
	Edge []fold.Layer `json:"edge"`
	// Bent are pieces that fold with the base, cut up by the panels they lie on.
	Bent map[string][]fold.Piece `json:"bent"`
	// Homes are the panels that items are on, -1 for none.
	Homes    map[string]int  `json:"homes"`
	Measures []fold.Measure  `json:"measures"`
	Limit    string          `json:"limit"`
	Sending  fold.Sending    `json:"sending"`
	Tied     *Tied           `json:"tied,omitempty"`
	Findings []check.Finding `json:"findings"`
	// Waiting are faces that the base does not have, with how many items wait
	// on them.
	Waiting map[card.FaceID]int `json:"waiting,omitempty"`
}

// Fold folds the base of a card and looks at what lies on it. It returns ErrNotFound for a
// card that is not on the table and a *Damaged for one that cannot be read.
func (cs *cards) Fold(ctx context.Context, id string) (FoldView, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return FoldView{}, err
	}
	c, s := o.rev.Card, o.scene
	o.Unlock()
	study := fold.StudyOf(c.Base)
	v := FoldView{Base: c.Base, Verdict: study.Verdict, Eye: fold.EyeOf(c.Base), Layers: study.Layers, Edge: study.Edge(), Bent: check.Bent(c, s), Homes: s.Homes(c), Findings: check.Run(check.TheFolding, check.Input{Card: c, Scene: &s})}
	v.Measures, v.Limit = fold.Measures(c.Base)
	v.Sending = sendingOf(c, &s)
	if v.Tied, err = cs.tied(ctx, id, c, &s); err != nil {
		return FoldView{}, err
	}
	if v.Measures == nil {
		v.Measures = []fold.Measure{}
	}
	for i, p := range study.Panels {
		fp := FoldPanel{Ring: p.Ring}
		fp.Outside, fp.Inside = study.FacesOn(i)
		v.Panels = append(v.Panels, fp)
	}
	for _, p := range study.Poses {
		frame := make([][12]float64, len(p.Panels))
		for i, m := range p.Panels {
			frame[i] = m.Rows()
			for k := range frame[i] {
				frame[i][k] = math.Round(frame[i][k]*1e6) / 1e6
			}
		}
		v.Frames = append(v.Frames, frame)
	}
	for _, f := range c.Faces {
		if study.Net.Face(f.ID).ID == "" {
			if v.Waiting == nil {
				v.Waiting = map[card.FaceID]int{}
			}
			v.Waiting[f.ID] = len(f.Items)
		}
	}
	return v, nil
}

// Directions are the directions for cutting and folding a card's base by hand, with the net
// they are for, rounded as a whole to 1/parts in or to 0.1 mm. It returns ErrNotFound for a
// card that is not on the table and a *Damaged for one that cannot be read.
func (cs *cards) Directions(ctx context.Context, id string, u measure.Unit, parts int) (title string, n fold.Net, d fold.Directions, err error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return "", n, d, err
	}
	title, base := o.rev.Card.Title, o.rev.Card.Base
	o.Unlock()
	n = fold.Rounded(base, u, parts)
	return title, n, fold.DirectionsOf(n, u, parts), nil
}

// WriteDirections writes them as PDF. It returns ErrNotFound for a card that is not on the
// table and a *Damaged for one that cannot be read.
func (cs *cards) WriteDirections(ctx context.Context, w io.Writer, id string, u measure.Unit, parts int) error {
	title, n, d, err := cs.Directions(ctx, id, u, parts)
	if err != nil {
		return err
	}
	return pdf.WriteDirections(w, title, n, d, u)
}

// Package check looks at a card for what would spoil paper: each finding says
// where, why and what would be right.
package check

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// Weight is how much a finding matters.
type Weight string

// A note can be left, a caution should be looked at, a stop spoils the card.
const (
	Note    Weight = "note"
	Caution Weight = "caution"
	Stop    Weight = "stop"
)

// Finding is one result of the check.
type Finding struct {
	Weight Weight      `json:"weight"`
	Face   card.FaceID `json:"face"`
	Item   string      `json:"item,omitempty"` // "" for the base itself
	Why    string      `json:"why"`
	// By is how far, mm, where it is a matter of distance.
	By   float64 `json:"by"`
	Mend *Mend   `json:"mend,omitempty"`
}

// Mend is a change that mends a finding: one of its fields is set.
type Mend struct {
	Says string  `json:"says"` // for a button
	Move *Move   `json:"move,omitempty"`
	Free string  `json:"free,omitempty"` // the item to be glued at its middle only
	Room float64 `json:"room,omitempty"` // for the base's fold, mm
}

// Move is an item moved on its face.
type Move struct {
	ID string  `json:"id"`
	DX float64 `json:"dx"`
	DY float64 `json:"dy"`
}

// small is what nobody sees, mm.
const small = .2

// Folding looks at what lies on the faces while the base folds: pieces that
// stick out when the card is closed, that are glued across a fold or a cut or
// run into a panel on the way, what cannot be seen, and folds without the room
// that what lies between the leaves needs.
func Folding(c card.Card, s scene.Scene) []Finding {
	l := look{card: c, scene: &s, study: fold.StudyOf(c.Base), out: []Finding{}}
	homes := s.Homes(c)
	for i := range s.Faces {
		f := &s.Faces[i]
		held := map[string]bool{} // by an earlier finding, with what lies on it
		for j := range f.Items {
			it := &f.Items[j]
			panel := homes[it.ID]
			if held[it.On] && it.On != "" || panel < 0 {
				held[it.ID] = true // beside the base: the sheets tell
				continue
			}
			held[it.ID] = l.item(f, it, panel)
		}
	}
	l.room()
	return l.out
}

type look struct {
	card  card.Card
	scene *scene.Scene
	study *fold.Study
	out   []Finding
}

func (l *look) find(w Weight, f *scene.Face, it *scene.Item, by float64, mend *Mend, why string, args ...any) {
	l.out = append(l.out, Finding{w, f.ID, it.ID, fmt.Sprintf("“%s” ", it.Name) + fmt.Sprintf(why, args...), by, mend})
}

// item looks at one item. held says that it holds the base, so that nothing
// more can be told of what lies on it.
func (l *look) item(f *scene.Face, it *scene.Item, panel int) (held bool) {
	onSheet := it.Outline.Transform(it.At).Transform(f.OnSheet)
	_, doc := l.card.Find(it.ID)
	if it.Piece {
		if it.On == "" && l.glued(f, it, doc, onSheet) {
			return true
		}
		if by, side, d := sticksOut(l.study, panel, onSheet); by > small {
			var mend *Mend
			if m := inwards(l.study, panel, f, it.ID, d); m != nil {
				mend = &Mend{Says: "Move it in", Move: m}
			}
			l.find(Stop, f, it, by, mend, "sticks out by %s at the %s when the card is closed.", say(by), side)
		}
		if c := l.study.Meets(panel, onSheet); c != nil {
			back, _ := f.OnSheet.Inverse()
			at := back.Apply(l.study.Panels[panel].Middle)
			if onBase := l.study.PanelAt(c.At); onBase >= 0 {
				at = back.Apply(c.At)
			}
			l.find(Stop, f, it, 0, nil, "runs into another panel when the card is %.0f° open, %s from the left and %s from the top. Make it smaller or move it.",
				180*(1-c.Closing), say(at.X), say(at.Y))
		}
	}
	// A background lies on every panel of its face, and a slot is nothing yet.
	thing := it.Role == "" && it.Slot == "" && !doc.Background && !onSheet.Empty()
	if thing && l.study.Seen(panel, f.Side, onSheet) < .1 {
		l.find(Caution, f, it, 0, nil, "is hidden when the card is open: another panel is in front of it.")
	}
	return false
}

// glued looks at a piece that reaches over folds and cuts.
func (l *look) glued(f *scene.Face, it *scene.Item, doc *card.Item, onSheet geom.Path) (held bool) {
	line, length := crossed(l.study, onSheet, func(fold.Line) bool { return true })
	if length == 0 {
		return false
	}
	// A fold that closes on the piece pushes it away.
	against, hard := crossed(l.study, onSheet, func(n fold.Line) bool {
		r := n.Role
		if f.Side == fold.Inside {
			r = fold.Flipped(r)
		}
		return r == fold.Valley
	})
	switch {
	case doc.Made.Free && hard > 0:
		l.find(Stop, f, it, hard, nil, "reaches over a %s that closes on it, over %s. Move it, or cut it there.", roleOn(f, against), say(hard))
		return true
	case doc.Made.Free:
		return false
	case thin(doc) && line.Role != fold.Cut:
		l.find(Note, f, it, length, nil, "runs across a %s. Thin paper folds with the base: score it there too.", roleOn(f, line))
		return true
	}
	var mend *Mend
	if hard == 0 {
		mend = &Mend{Says: "Glue only its middle", Free: it.ID}
	}
	l.find(Stop, f, it, length, mend, "is glued across a %s, over %s. It would hold the fold open, or tear.", roleOn(f, line), say(length))
	return true
}

// Bent are the pieces of thin paper that fold with the base, each cut up by the
// panels it lies on, in the item's own coordinates.
func Bent(c card.Card, s scene.Scene) map[string][]fold.Piece {
	study := fold.StudyOf(c.Base)
	out := map[string][]fold.Piece{}
	for i := range s.Faces {
		f := &s.Faces[i]
		for j := range f.Items {
			it := &f.Items[j]
			_, doc := c.Find(it.ID)
			if !it.Piece || it.On != "" || doc.Made.Free || !thin(doc) {
				continue
			}
			at := it.At.Then(f.OnSheet)
			back, ok := at.Inverse()
			if !ok {
				continue
			}
			if parts := study.Parted(it.Outline.Transform(at)); len(parts) > 1 {
				for k := range parts {
					parts[k].Path = parts[k].Path.Transform(back)
				}
				out[it.ID] = parts
			}
		}
	}
	return out
}

// roleOn is a line's role as seen from a face.
func roleOn(f *scene.Face, n fold.Line) string {
	if f.Side == fold.Inside {
		return fold.RoleName(fold.Flipped(n.Role))
	}
	return fold.RoleName(n.Role)
}

// room compares what lies between the leaves of each fold with the room that the fold has.
func (l *look) room() {
	heap := scene.Closed(l.card, l.scene)
	stock, _ := card.StockByID(l.card.Base.Stock)
	last := l.study.Poses[len(l.study.Poses)-1]
	need, facing := 0.0, false
	for j, h := range l.study.Hinges {
		if n := l.study.Net.Lines[h.Line]; n.Main && math.Abs(last.Angles[j]) > 1.5 {
			a, b := h.A, h.B
			if n.Stop != 0 { // a stub between two scores: the leaves are beyond it
				a, b = l.study.Leaves(h)
			}
			if a < 0 || b < 0 {
				continue
			}
			if v, faces := heap.Between(a, b); v > need {
				need, facing = v, faces
			}
		}
	}
	need = math.Round(need*20) / 20
	has := fold.Room(l.card.Base)
	// A fold that is always one score bears a piece on foam, not two that face each other.
	if has < 0 && (need <= 1.2 || !facing && need <= oneFoam) || has >= 0 && (need <= 1.2 || need <= has+.3) {
		return
	}
	f := Finding{Caution, card.Front, "", fmt.Sprintf("What lies between the leaves is %s thick where it is thickest, and the fold is one score of card %s thick: it would spring open. Lay it flatter, or so that pieces do not face each other.", say(need), say(stock.Thickness)), need, nil}
	if has >= 0 {
		f.Why = fmt.Sprintf("What lies between the leaves is %s thick where it is thickest, the fold has room for %s: it would spring open. Score it twice, that far apart.", say(need), say(has))
		f.By, f.Mend = need-has, &Mend{Says: "Give the fold room", Room: need}
	}
	l.out = append(l.out, f)
}

// oneFoam is what one piece raised on foam takes at most that a single score still closes
// on, mm.
const oneFoam = 3.0

// thin reports whether a piece is of paper that folds by hand, such as a liner.
func thin(it *card.Item) bool {
	stock, ok := card.StockByID(it.Made.Stock)
	return ok && stock.Weight <= 135 && it.Made.Lift == 0
}

func say(mm float64) string { return measure.FormatBoth(mm) }

// crossed is the fold or cut, of those that count, that runs longest through a
// piece, and how much of it does.
func crossed(study *fold.Study, piece geom.Path, counts func(fold.Line) bool) (line fold.Line, length float64) {
	for _, l := range study.Net.Lines {
		if l.Role == fold.Perforation || !counts(l) {
			continue
		}
		var b geom.Builder
		in, _ := geom.CutStrokes(b.Move(l.From).Line(l.To).Path(), geom.NonZero, piece)
		// What only runs along its edge does not cross it.
		sum := 0.0
		for _, cs := range in.Curves() {
			for _, c := range cs {
				if n, ok := piece.Nearest(c.At(.5)); ok && n.Distance > small {
					sum += c.Length()
				}
			}
		}
		if sum > length && sum > 1 {
			line, length = l, sum
		}
	}
	return line, length
}

// sticksOut is how far a piece reaches over the closed card, on which side as
// seen from Front, and the step that would bring it in, in Front's coordinates.
func sticksOut(study *fold.Study, panel int, piece geom.Path) (by float64, side string, step geom.Point) {
	closed := study.Closed(panel, piece)
	over := geom.Difference(geom.NonZero, closed, study.Cover)
	for _, cs := range over.Curves() {
		for _, c := range cs {
			for _, k := range []float64{0, .5} {
				if n, ok := study.Cover.Nearest(c.At(k)); ok && n.Distance > by && !study.Cover.Covers(c.At(k), geom.NonZero) {
					by = n.Distance
				}
			}
		}
	}
	if by <= small {
		return 0, "", step
	}
	b, cover := closed.Bounds(), study.Cover.Bounds()
	far := 0.0
	for _, e := range []struct {
		name string
		by   float64
		step geom.Point
	}{
		{"left", cover.X - b.X, geom.Pt(1, 0)}, {"right", b.Right() - cover.Right(), geom.Pt(-1, 0)},
		{"top", cover.Y - b.Y, geom.Pt(0, 1)}, {"bottom", b.Bottom() - cover.Bottom(), geom.Pt(0, -1)},
	} {
		if e.by > small {
			step = step.Add(e.step.Mul(e.by))
		}
		if e.by > far {
			side, far = e.name, e.by
		}
	}
	if side == "" {
		side = "edge"
	}
	return by, side, step
}

// inwards turns a step on the closed card into a move on the item's face; none
// where the piece is larger than the card.
func inwards(study *fold.Study, panel int, f *scene.Face, id string, step geom.Point) *Move {
	if step == (geom.Point{}) {
		return nil
	}
	// Where the face's axes point on the closed card.
	axis := func(p geom.Point) geom.Point {
		var b geom.Builder
		at := study.Closed(panel, b.Move(geom.Pt(0, 0)).Line(p).Path().Transform(f.OnSheet)).Curves()[0][0]
		return at.P[0].Sub(at.From)
	}
	x, y := axis(geom.Pt(1, 0)), axis(geom.Pt(0, 1))
	dx, dy := step.Dot(x), step.Dot(y)
	if math.Hypot(dx, dy) < small {
		return nil
	}
	return &Move{id, math.Round(dx*1e4) / 1e4, math.Round(dy*1e4) / 1e4}
}

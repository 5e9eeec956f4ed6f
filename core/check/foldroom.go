package check

import (
	"fmt"
	"maps"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
)

// oneFoam is what one piece raised on foam takes at most that a single score still closes
// on, mm.
const oneFoam = 3.0

// foldRoom compares what lies between the leaves of each fold with the room that the fold has.
func foldRoom(in *Input) []Finding {
	need, facing := in.betweenLeaves()
	has := fold.Room(in.Card.Base)
	// A fold that is always one score bears a piece on foam, not two that face each other.
	if has < 0 && (need <= 1.2 || !facing && need <= oneFoam) || has >= 0 && (need <= 1.2 || need <= has+enough) {
		return nil
	}
	stock, _ := card.StockByID(in.Card.Base.Stock)
	f := Finding{Weight: Caution, Face: card.Front, By: need, Why: fmt.Sprintf("What lies between the leaves is %s thick where it is thickest, and the fold is one score of card %s thick: it would spring open. Lay it flatter, or so that pieces do not face each other.", say(need), say(stock.Thickness))}
	if has >= 0 {
		f.Why = fmt.Sprintf("What lies between the leaves is %s thick where it is thickest, the fold has room for %s: it would spring open. Score it twice, that far apart.", say(need), say(has))
		f.By, f.Mends = need-has, in.giveRoom(need)
	}
	return []Finding{f}
}

// enough is how much thicker than the fold's room what lies between its leaves may be, mm.
const enough = .3

// betweenLeaves is how thick what lies between the leaves of a fold is at most, mm, and whether pieces face
// each other there.
func (in *Input) betweenLeaves() (need float64, facing bool) {
	study := in.study()
	heap := scene.Closed(in.Card, in.Scene)
	last := study.Poses[len(study.Poses)-1]
	for j, h := range study.Hinges {
		n := study.Net.Lines[h.Line]
		if !n.Main || math.Abs(last.Angles[j]) <= 1.5 {
			continue
		}
		a, b := h.A, h.B
		if n.Stop != 0 { // a stub between two scores: the leaves are beyond it
			a, b = study.Leaves(h)
		}
		if a < 0 || b < 0 {
			continue
		}
		if v, faces := heap.Between(a, b); v > need {
			need, facing = v, faces
		}
	}
	return math.Round(need*20) / 20, facing
}

// giveRoom is what makes a fold wide enough. Leaves that are farther apart can meet with others, so that more
// room is needed than there was before; where that has no end there is no such mend.
func (in *Input) giveRoom(need float64) []Mend {
	const tries = 4
	base := in.Card.Base
	for range tries {
		base.Measures = maps.Clone(base.Measures)
		if base.Measures == nil {
			base.Measures = map[string]float64{}
		}
		base.Measures["room"] = need
		c, err := card.Apply(in.Card, fold.SetBase{Base: base})
		if err != nil {
			return nil
		}
		s, err := scene.Of(c)
		if err != nil {
			return nil
		}
		after := Input{Card: c, Scene: &s}
		now, _ := after.betweenLeaves()
		if now <= need+enough {
			return []Mend{{Says: "Give the fold room", Do: []Step{{"setBase", fold.SetBase{Base: base}}}}}
		}
		need = now
	}
	return nil
}

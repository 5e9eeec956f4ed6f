package check

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// leastHold is the share of a piece that has to have paper below it.
const leastHold = .4

// onNothing finds pieces of which little lies on paper: over an opening of what carries them.
func onNothing(in *Input) (out []Finding) {
	items := in.onPanels().items
	for i := range items {
		p := &items[i]
		if !p.item.Piece || p.doc.Mat != nil {
			continue
		}
		whole := p.item.Outline.Transform(p.item.At)
		below := in.Scene.Net.Outline().Transform(back(p.face))
		name := p.face.Name
		if p.item.On != "" {
			for j := range p.face.Items {
				if on := &p.face.Items[j]; on.ID == p.item.On {
					below, name = on.Outline.Transform(on.At), "“"+on.Name+"”"
				}
			}
		}
		area := whole.Area()
		if area <= 0 {
			continue
		}
		held := geom.Intersection(geom.NonZero, whole, below).Area() / area
		if held >= leastHold {
			continue
		}
		weight := Caution
		if held < .1 {
			weight = Stop
		}
		out = append(out, of(weight, p.face, p.item, 0, nil, "lies on paper with %.0f %% of itself only; below the rest of it %s has an opening or ends.", 100*held, name))
	}
	return out
}

// leastOpening is how much of an opening lies under glue before that is told, mm².
const leastOpening = 20.0

// glueThrough finds pieces that are glued flat over an opening of the base.
func glueThrough(in *Input) (out []Finding) {
	var holes []geom.Path
	for _, r := range in.Scene.Net.Outline().Rings() {
		if r.Area() < 0 {
			holes = append(holes, r.Reverse())
		}
	}
	if len(holes) == 0 {
		return nil
	}
	open := geom.Join(holes...)
	items := in.onPanels().items
	for i := range items {
		p := &items[i]
		if !p.item.Piece || p.item.On != "" || p.item.Lift > 0 || p.doc.Made.Free {
			continue
		}
		over := geom.Intersection(geom.NonZero, p.item.Outline.Transform(p.item.At).Transform(p.face.OnSheet), open)
		if math.Abs(over.Area()) < leastOpening {
			continue
		}
		at := over.Transform(back(p.face)).Bounds()
		found := of(Caution, p.face, p.item, 0, nil, "covers an opening of the base: leave its back without glue there.")
		found.At = &at
		out = append(out, found)
	}
	return out
}

// leans finds raised pieces on raised pieces that reach so far over these that their middle has no
// foam below it.
func leans(in *Input) (out []Finding) {
	items := in.onPanels().items
	for i := range items {
		p := &items[i]
		if !p.item.Piece || p.item.Lift == 0 || p.item.On == "" {
			continue
		}
		for j := range p.face.Items {
			on := &p.face.Items[j]
			if on.ID != p.item.On || on.Lift == 0 {
				continue
			}
			middle := centroid(p.item.Outline.Transform(p.item.At))
			carrier := on.Outline.Transform(on.At)
			if carrier.Covers(middle, geom.NonZero) {
				continue
			}
			made := p.doc.Made
			made.Lift = 0
			out = append(out, of(Caution, p.face, p.item, 0, []Mend{{Says: "Glue it flat", Do: []Step{{"setMade", card.SetMade{IDs: []string{p.item.ID}, Made: made}}}}},
				"stands on foam on “%s”, which is raised itself, and its middle lies beside that: it would lean.", on.Name))
		}
	}
	return out
}

// centroid is the centre of area of an outline. (Bourke, "Calculating the area and centroid of a
// polygon", 1988.)
func centroid(p geom.Path) geom.Point {
	var sum geom.Point
	area := 0.0
	for _, l := range p.Flatten(.1) {
		for i, a := range l.Points {
			b := l.Points[(i+1)%len(l.Points)]
			k := a.Cross(b)
			area += k / 2
			sum = sum.Add(a.Add(b).Mul(k / 6))
		}
	}
	if area == 0 {
		return p.Bounds().Centre()
	}
	return sum.Mul(1 / area)
}

// leastInsert is how far in an insert lies at least, mm.
const leastInsert = 1.0

// insertLarge finds an insert that is as large as its card.
func insertLarge(in *Input) []Finding {
	leaf := in.Card.Leaf
	if leaf == nil || leaf.Less >= leastInsert-1e-9 {
		return nil
	}
	smaller := *leaf
	smaller.Less = 3
	return []Finding{{Weight: Caution, Face: card.InsideFirst, By: leastInsert - leaf.Less, Why: "The insert lies in from the edges by " + say(leaf.Less) + " only: it would show when the card is closed.",
		Mends: []Mend{{Says: "Make it 3 mm smaller all round", Do: []Step{{"setInsert", card.SetInsert{Insert: &smaller}}}}}}}
}

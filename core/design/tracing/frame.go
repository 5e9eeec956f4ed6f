package tracing

import (
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// FrameOpenings makes a frame of a picture with holes: each becomes an opening that waits for a
// photo under it, larger than the hole by Tuck, mm. Edge is the outline of what there is of the
// picture, in pixels. A frame that is cut gets windows; one that is printed is printed over the
// photos. Frame and openings are a group.
type FrameOpenings struct {
	ID   string      `json:"id"`
	Edge *card.Drawn `json:"edge"`
	Tuck float64     `json:"tuck"`
}

// UsualTuck is how far photos reach under the frame that they are seen through, mm, until a person
// says otherwise.
const UsualTuck = .4

// leastOpening is the area of the smallest hole that is an opening, mm².
const leastOpening = 20

// Label implements card.Command.
func (FrameOpenings) Label() string { return "Find the openings of a frame" }

// Apply implements card.Command.
func (k FrameOpenings) Apply(c card.Card) (card.Card, error) {
	f, it := c.Find(k.ID)
	if it == nil || it.Photo == nil {
		return c, card.Refuse("id", "A frame is a picture with holes.")
	}
	if math.IsNaN(k.Tuck) || k.Tuck < 0 || k.Tuck > 20 {
		return c, card.Refuse("tuck", "Photos reach between 0 and 20 mm (¾ in) under a frame.")
	}
	edge, err := traced(k.Edge, it.Name)
	if err != nil {
		return c, err
	}
	holes := holesOf(edge.Transform(scene.OnPhoto(it)))
	if len(holes) == 0 {
		return c, card.Refuse("edge", "“%s” has no hole that a photo could be seen through. Take its plain ground out first.", it.Name)
	}
	ids := []string{k.ID}
	c, err = card.Change(c, func(c *card.Card) error {
		f := c.Face(f.ID)
		frame := f.Item(k.ID)
		made := card.Made{As: card.Printed}
		if frame.IsPiece() {
			made = card.Made{As: card.Cut, Stock: card.First().Photo, Bleed: card.UsualBleed}
		}
		at, on, group := frame.Place, frame.On, frame.Group
		if frame.IsPiece() {
			if err := scene.CutRound(frame, k.Edge, nil); err != nil {
				return err
			}
		}
		place := slices.IndexFunc(f.Items, func(o card.Item) bool { return o.ID == k.ID })
		for n, h := range holes {
			h = geom.Offset(h, k.Tuck, geom.RoundCorner)
			box := h.Bounds()
			mid := box.Centre()
			own := at
			p := at.Map().Apply(mid)
			own.X, own.Y = card.Tidy(p.X), card.Tidy(p.Y)
			slot := card.Item{ID: fmt.Sprintf("i%d", c.NextID), Name: fmt.Sprintf("Opening %d", n+1), Kind: card.Slot, On: on, Group: group, Place: own, Made: card.Made{As: card.Printed},
				Form: &card.Form{Outline: card.Free, Width: card.Tidy(box.W), Height: card.Tidy(box.H), Path: card.NewDrawn(h.Transform(geom.Shift(-mid.X, -mid.Y)))},
				Slot: &card.Waits{Takes: card.TakesPhoto, Made: made}}
			c.NextID++
			ids = append(ids, slot.ID)
			f.Items = slices.Insert(f.Items, place+n, slot)
		}
		return nil
	})
	if err != nil {
		return c, err
	}
	return card.Apply(c, card.GroupItems{IDs: ids, Name: it.Name})
}

// holesOf are the holes of an outline that are large enough to see a photo through, filled, from top
// left to bottom right.
func holesOf(p geom.Path) (out []geom.Path) {
	for _, part := range stencil.Parts(p) {
		for _, r := range part.Rings() {
			if a := r.Area(); a < -leastOpening {
				out = append(out, geom.Union(geom.NonZero, r.Reverse()))
			}
		}
	}
	slices.SortStableFunc(out, func(a, b geom.Path) int {
		x, y := a.Bounds().Centre(), b.Bounds().Centre()
		if d := y.Y - x.Y; math.Abs(d) > 5 {
			return int(math.Copysign(1, -d))
		}
		return int(math.Copysign(1, x.X-y.X))
	})
	return out
}

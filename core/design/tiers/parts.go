package tiers

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// leastTier is the smallest width and height of a tier, mm.
const leastTier = 4

// part is a tier above the lowest: its form, where that lies on the lowest, in the coordinates of that,
// and whether it lies on the lowest rather than on the part before.
type part struct {
	form   card.Form
	mid    geom.Point
	onBase bool
}

// parts are the tiers above the lowest. The error is a *card.Refusal for tiers that there is no room for.
func parts(base *card.Item, t card.Tiers) ([]part, error) {
	switch t.Rule {
	case card.Strips:
		return cells(base, t, 1)
	case card.Grid:
		return cells(base, t, t.Rows)
	}
	var out []part
	for n := 2; n <= t.Count; n++ {
		p, err := smaller(base, t, n)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

// smaller is the nth tier of those that lie on each other: smaller by a step on each side, nearer to where
// all draw together, and turned where they are fanned.
func smaller(base *card.Item, t card.Tiers, n int) (part, error) {
	k := float64(n-1) * t.Step
	f := base.Photo.Form()
	f.Width, f.Height = card.Tidy(f.Width-2*k), card.Tidy(f.Height-2*k)
	if math.Min(f.Width, f.Height) < leastTier {
		return part{}, card.Refuse("step", "Tier %d would be smaller than %d mm (5/32 in): take fewer tiers, or a smaller step.", n, leastTier)
	}
	f.Radius = card.Tidy(math.Max(0, f.Radius-k))
	if f.Corner != card.Square && f.Radius == 0 && f.Corner != "" {
		f.Corner = card.Square
	}
	mid := geom.Pt(k*(2*t.X-1), k*(2*t.Y-1))
	if t.Rule != card.Fanned || t.Turn == 0 {
		return part{form: f, mid: mid}, nil
	}
	turned := card.OutlineOf(f).Transform(geom.Turn(t.Turn * float64(n-1) * math.Pi / 180).Then(geom.Shift(mid.X, mid.Y)))
	whole := card.OutlineOf(base.Photo.Form())
	if out := geom.Difference(geom.NonZero, turned, whole); out.Area() > 1e-6 {
		return part{}, card.Refuse("turn", "Tier %d, turned, would reach past the lowest: take a larger step, or turn them less.", n)
	}
	return formed(turned, false), nil
}

// formed is a part of an outline that lies on the lowest tier.
func formed(outline geom.Path, onBase bool) part {
	b := outline.Bounds()
	c := b.Centre()
	return part{card.Form{Outline: card.Free, Width: card.Tidy(b.W), Height: card.Tidy(b.H), Path: card.NewDrawn(outline.Transform(geom.Shift(-c.X, -c.Y)))}, c, onBase}
}

// cells are pieces side by side, in rows, with gaps between and round them; where the picture has a form
// of its own they end at it.
func cells(base *card.Item, t card.Tiers, rows int) ([]part, error) {
	w := (base.Photo.Width - float64(t.Count+1)*t.Step) / float64(t.Count)
	h := (base.Photo.Height - float64(rows+1)*t.Step) / float64(rows)
	if math.Min(w, h) < leastTier {
		return nil, card.Refuse("step", "The pieces would be smaller than %d mm (5/32 in): take fewer, or a smaller gap.", leastTier)
	}
	plain := base.Photo.Opening == nil || base.Photo.Opening.Outline == card.Rectangle && base.Photo.Opening.Corner == card.Square
	within := geom.Offset(card.OutlineOf(base.Photo.Form()), -t.Step, geom.MitreCorner)
	var out []part
	for j := range rows {
		for i := range t.Count {
			x := -base.Photo.Width/2 + t.Step + float64(i)*(w+t.Step)
			y := -base.Photo.Height/2 + t.Step + float64(j)*(h+t.Step)
			cell := geom.Rect{X: x, Y: y, W: w, H: h}
			if plain {
				out = append(out, part{card.Form{Outline: card.Rectangle, Corner: card.Square, Width: card.Tidy(w), Height: card.Tidy(h)}, cell.Centre(), true})
				continue
			}
			path := geom.Intersection(geom.NonZero, geom.RectPath(cell), within)
			if b := path.Bounds(); math.Min(b.W, b.H) < leastTier {
				return nil, card.Refuse("count", "Some of the pieces would lie outside the form of “%s”: take fewer.", base.Name)
			}
			out = append(out, formed(path, true))
		}
	}
	return out, nil
}

// of is the part as the nth tier of a picture whose lowest is base: with the picture where it is on that.
func (p part) of(base *card.Item, t card.Tiers, n int) card.Item {
	one := base.Clone()
	one.ID, one.Bridges, one.Edging = "", nil, nil
	one.Name, one.Tier, one.Made.Lift = fmt.Sprintf("%s, tier %d", base.Name, n), n, t.Foam
	if p.onBase {
		one.Name = fmt.Sprintf("%s, part %d", base.Name, n-1)
	}
	one.Photo.Width, one.Photo.Height = p.form.Width, p.form.Height
	if one.Photo.Opening = nil; p.form.Outline != card.Rectangle || p.form.Corner != card.Square && p.form.Corner != "" {
		form := p.form
		one.Photo.Opening = &form
	}
	at := base.Place.Map().Apply(p.mid)
	one.Place.X, one.Place.Y = card.Tidy(at.X), card.Tidy(at.Y)
	register(&one, base, p.mid)
	return one
}

// register shows in a piece, whose middle lies at a place of the lowest tier, the picture as it lies there.
func register(it, base *card.Item, mid geom.Point) {
	box := scene.Seen(*base.Photo, base.Bleeds()).Box
	box.X, box.Y = box.X-mid.X, box.Y-mid.Y
	scene.KeepPicture(it, box)
}

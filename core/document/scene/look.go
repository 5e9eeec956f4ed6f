package scene

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// Wash is an ink that a look adds: a region in one colour, in the item's
// coordinates.
type Wash struct {
	Path    geom.Path `json:"path"`
	Colour  string    `json:"colour"`
	Opacity float64   `json:"opacity"`
	// Blur is the standard deviation of its softness, mm.
	Blur float64 `json:"blur,omitempty"`
	// Inside keeps it within the item's outline and its bleed.
	Inside bool `json:"inside,omitempty"`
}

// Reflection is an item's reflection: At maps the item to it, in the item's
// coordinates, and it fades from Opacity at From to nothing at To.
type Reflection struct {
	At      geom.Affine `json:"at"`
	From    geom.Point  `json:"from"`
	To      geom.Point  `json:"to"`
	Opacity float64     `json:"opacity"`
}

// Picture is a picture in the item's coordinates.
type Picture struct {
	ID string `json:"id"`
	// PixelWidth and PixelHeight are its size.
	PixelWidth  int       `json:"pixelWidth"`
	PixelHeight int       `json:"pixelHeight"`
	Box         geom.Rect `json:"box"`
	// Least is the size of the box without zoom.
	Least geom.Point `json:"least"`
	// Cover is what the box covers however it is shifted; nil where the whole picture is
	// seen.
	Cover *geom.Rect `json:"cover,omitempty"`
	// PPI is how many of its pixels there are to the printed inch.
	PPI float64 `json:"ppi"`
	// Prints is how that prints.
	Prints Sharpness `json:"prints"`
}

// Sharpness is how a picture prints in its size.
type Sharpness string

// The ways in which a picture prints, from 220 and from 140 pixels to the inch, and below.
const (
	Sharp  Sharpness = "sharp"
	Soft   Sharpness = "soft"
	Coarse Sharpness = "coarse"
)

func sharpness(ppi float64) Sharpness {
	switch {
	case ppi >= 220:
		return Sharp
	case ppi >= 140:
		return Soft
	}
	return Coarse
}

// Seen is a picture as it is seen through its opening, about the middle of it. One that fills
// covers the opening and its bleed, however it is shifted. Lengths are mm.
func Seen(p card.Print, bleed float64) *Picture {
	box := geom.Centred(p.Width, p.Height).Grow(bleed)
	pw, ph := p.Pixels()
	ratio := float64(pw) / float64(ph)
	w, h := box.W, box.W/ratio
	if (h < box.H) != p.Fit {
		w, h = box.H*ratio, box.H
	}
	least := geom.Pt(w, h)
	zoom := max(p.Zoom, 1)
	w, h = w*zoom, h*zoom
	x, y := p.ShiftX*p.Width, p.ShiftY*p.Height
	var cover *geom.Rect
	if !p.Fit {
		cover = &box
		sx, sy := (w-box.W)/2, (h-box.H)/2
		x, y = min(max(x, -sx), sx), min(max(y, -sy), sy)
	}
	ppi := math.Round(float64(pw) / w * 25.4)
	return &Picture{p.Ref(), pw, ph, geom.Rect{X: x - w/2, Y: y - h/2, W: w, H: h}, least, cover, ppi, sharpness(ppi)}
}

// shadeUp and shadeDown are the lights of a raised edge.
const (
	shadeUp   = "#fffdf4"
	shadeDown = "#3a2a18"
)

// dress works out what the look of the item adds.
func (it *Item) dress(doc *card.Item) {
	if it.GroundPaper != "" && it.Piece {
		if back, ok := it.At.Inverse(); ok {
			m := geom.Turn(it.Turn * math.Pi / 180).Then(back)
			it.GroundAt = &m
		}
	}
	if doc.Fill.Paper != "" {
		m := doc.Fill.Pattern()
		it.PatternAt = &m
	}
	l := doc.Look
	if l == nil || it.Outline.Empty() {
		return
	}
	it.Clear, it.Tint = l.Clear, l.Tint
	// A shadow falls the same way however the item is turned.
	back, _ := it.At.Inverse()
	within := func(v geom.Point) geom.Point { return back.Apply(v).Sub(back.Apply(geom.Point{})) }
	if s := l.Shadow; s != nil {
		d := within(geom.Turn(s.Angle * math.Pi / 180).Apply(geom.Pt(s.Distance, 0)))
		from := it.Outline
		if s.Spread > 0 {
			from = geom.Offset(from, s.Spread, geom.RoundCorner)
		}
		it.Under = append(it.Under, Wash{Path: from.Transform(geom.Shift(d.X, d.Y)), Colour: s.Colour, Opacity: s.Opacity, Blur: s.Blur})
	}
	if e := l.Line; e != nil && e.Outside {
		// The inner half of a line of twice its width is covered by the item.
		ring := geom.Offset(it.Outline, e.Width, geom.RoundCorner)
		if e.Dashed {
			ring = lined(it.Outline, e, 2*e.Width)
		}
		it.Under = append(it.Under, Wash{Path: ring, Colour: e.Colour, Opacity: 1})
	}
	if r := l.Raised; r != nil {
		for _, side := range []struct {
			to     float64
			colour string
		}{{1, shadeUp}, {-1, shadeDown}} {
			// What is in the outline and not in the outline moved away from the light.
			d := within(geom.Pt(side.to, side.to).Mul(r.Width / math.Sqrt2))
			edge := geom.Difference(geom.NonZero, it.Outline, it.Outline.Transform(geom.Shift(d.X, d.Y)))
			it.Over = append(it.Over, Wash{Path: edge, Colour: side.colour, Opacity: r.Strength, Blur: r.Width / 3, Inside: true})
		}
	}
	if e := l.Line; e != nil && !e.Outside {
		// What lies outside a piece is cut away.
		it.Over = append(it.Over, Wash{Path: lined(it.Outline, e, e.Width), Colour: e.Colour, Opacity: 1, Inside: it.Piece})
	}
	if r := l.Reflection; r != nil {
		foot := it.Outline.Bounds().Bottom() + r.Gap/2
		it.Reflection = &Reflection{
			At:      geom.Affine{A: 1, D: -1, F: 2 * foot},
			From:    geom.Pt(0, foot+r.Gap/2),
			To:      geom.Pt(0, foot+r.Gap/2+r.Length*it.Outline.Bounds().H),
			Opacity: r.Opacity,
		}
	}
}

// lined is a line of a width along an outline, dashed where it is meant to be.
func lined(along geom.Path, e *card.InkLine, width float64) geom.Path {
	if e.Dashed {
		along = geom.Dash(along, []float64{3 * e.Width, 2 * e.Width}, 0)
	}
	return geom.Stroke(along, width, geom.RoundCorner, geom.ButtCap)
}

// Beneath is what is printed below the ink of an item: nothing else of it is left.
func (it *Item) Beneath() Item {
	out := *it
	out.Fill, out.Picture, out.Parts, out.Rest, out.Over, out.Reflection, out.PatternAt = card.Fill{}, nil, nil, nil, nil, nil, nil
	return out
}

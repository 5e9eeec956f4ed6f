// Package cutout tells what of a picture stays and what goes, and takes the rest away: a plain
// ground by its colour, a subject by strokes on it and beside it, or what lies within a line. Edges
// are soft where they are in the picture, and free of the colour of what was behind them. Places
// are in shares of the width and the height of the picture, radii in shares of its width.
package cutout

import (
	"context"
	"image"
	"math"

	"golang.org/x/image/vector"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/pixels"
)

// Stroke is a line that is drawn with a round brush.
type Stroke struct {
	At     []geom.Point
	Radius float64
}

// Ground is a plain ground that goes: where it was clicked, how far colours may be from those
// there, 0 to 1, and whether what does not touch the places goes too.
type Ground struct {
	At         []geom.Point
	Tolerance  float64
	Everywhere bool
}

// Subject is what stays, by strokes on what stays and what goes, or a line roughly round it.
type Subject struct {
	Stays, Goes []Stroke
	Round       []geom.Point
}

// Paint is a stroke that paints in, or out, at the end; soft ones fade from their middle.
type Paint struct {
	Stroke
	In, Soft bool
}

// Spec says what stays: by one of Ground, Subject and Within, a line; then how its edge is.
type Spec struct {
	Ground  *Ground
	Subject *Subject
	Within  []geom.Point
	Paint   []Paint
	// Softness is the standard deviation by which the edge is blurred, and Out by how much it lies
	// farther out, both in shares of the width.
	Softness, Out float64
	// Clean is how much of the colour of what was behind is taken out of the edge, 0 to 1.
	Clean float64
	// Rest leaves what would go, with a hole where the other is.
	Rest bool
}

// workSide is the longer side, in pixels, of the copy of a picture in which it is told what stays;
// its edge is then taken from the picture itself.
const workSide = 1200

// matte says of a copy of a picture what stays, and what its edge is made of.
type matte struct {
	depth pixels.Plane    // how far within what stays a pixel is, in its pixels; less than 0 outside
	band  float64         // how far from the edge pixels may be of both
	fore  [3]pixels.Plane // the colours of what stays, and of what goes; half as large, as are the next two
	back  [3]pixels.Plane
	trust pixels.Plane // how far the colours tell how much of a pixel stays, 0 to 1
	noise pixels.Plane // by how much colours of one side are off, of the way to the other
	open  pixels.Plane // where pixels may be of both, 0 to 1
	plain []bool       // pixels of a plain ground, all of which are known to go; nil for none
}

// Apply makes what goes transparent, in place. It returns the error of the context, and the
// picture is spoilt then.
func Apply(ctx context.Context, img *image.NRGBA, s Spec) error {
	m, alpha, err := s.mask(ctx, img)
	if err != nil {
		return err
	}
	return m.take(ctx, img, alpha, s.Clean)
}

// Mask is how much of each pixel stays, 0 to 1. It returns the error of the context.
func Mask(ctx context.Context, img *image.NRGBA, s Spec) (pixels.Plane, error) {
	_, alpha, err := s.mask(ctx, img)
	return alpha, err
}

func (s Spec) mask(ctx context.Context, img *image.NRGBA) (*matte, pixels.Plane, error) {
	m, err := s.matteOf(ctx, img)
	if err != nil {
		return nil, pixels.Plane{}, err
	}
	alpha, err := m.alpha(ctx, img)
	if err != nil {
		return nil, alpha, err
	}
	if err := s.edge(ctx, alpha); err != nil {
		return nil, alpha, err
	}
	s.paint(alpha)
	if s.Rest {
		for i, a := range alpha.V {
			alpha.V[i] = 1 - a
		}
		m.fore, m.back = m.back, m.fore
	}
	return m, alpha, nil
}

// matteOf tells what stays in a copy of the picture that is not larger than need be.
func (s Spec) matteOf(ctx context.Context, img *image.NRGBA) (*matte, error) {
	work := shrunk(img, workSide)
	switch {
	case s.Ground != nil:
		return s.Ground.matte(ctx, work)
	case s.Subject != nil:
		return s.Subject.matte(ctx, work)
	}
	w, h := work.Rect.Dx(), work.Rect.Dy()
	inside := polygon(w, h, s.Within)
	m, err := newMatte(ctx, work, func(i int) bool { return inside.Pix[i] >= 128 }, nil, lineBand)
	if err != nil {
		return nil, err
	}
	return m, m.colours(ctx, work, lineBand, lineBand)
}

// lineBand is how far from a line that was drawn pixels may be of both sides, in pixels of the
// copy.
const lineBand = 2

// polygon is the mask of what lies within a line.
func polygon(w, h int, line []geom.Point) *image.Alpha {
	out := image.NewAlpha(image.Rect(0, 0, w, h))
	if len(line) < 3 {
		return out
	}
	r := vector.NewRasterizer(w, h)
	for i, p := range line {
		x, y := float32(p.X*float64(w)), float32(p.Y*float64(h))
		if i == 0 {
			r.MoveTo(x, y)
		} else {
			r.LineTo(x, y)
		}
	}
	r.ClosePath()
	r.Draw(out, out.Rect, image.Opaque, image.Point{})
	return out
}

// edge moves and blurs the edge of a mask.
func (s Spec) edge(ctx context.Context, alpha pixels.Plane) error {
	if r := int(math.Round(math.Abs(s.Out) * float64(alpha.W))); r > 0 {
		if err := alpha.Spread(ctx, r, s.Out > 0); err != nil {
			return err
		}
	}
	return alpha.Blur(ctx, s.Softness*float64(alpha.W))
}

// paint paints strokes in and out.
func (s Spec) paint(alpha pixels.Plane) {
	for _, p := range s.Paint {
		p.Cover(alpha.W, alpha.H, p.Soft, func(i int, k float64) {
			if p.In {
				alpha.V[i] = max(alpha.V[i], float32(k))
			} else {
				alpha.V[i] = min(alpha.V[i], float32(1-k))
			}
		})
	}
}

// Cover visits the pixels of a picture of a size that a stroke reaches, with how much of each it
// covers, 0 to 1; a soft one fades from its middle.
func (s Stroke) Cover(w, h int, soft bool, visit func(i int, k float64)) {
	s.each(w, h, func(i int, d, r float64) {
		k := min(max(r-d+.5, 0), 1)
		if soft {
			t := min(d/r, 1)
			k = (1 - t*t) * (1 - t*t)
		}
		visit(i, k)
	})
}

// each visits the pixels of a picture of a size that a stroke reaches, with how far they are from
// its line and how far it reaches, in pixels.
func (s Stroke) each(w, h int, visit func(i int, d, r float64)) {
	r := max(s.Radius*float64(w), .5)
	at := func(p geom.Point) geom.Point { return geom.Pt(p.X*float64(w), p.Y*float64(h)) }
	// Each pixel once, with the nearest part of the line.
	near := map[int]float64{}
	for k := range s.At {
		a := at(s.At[k])
		b := a
		if k > 0 {
			b = at(s.At[k-1])
		} else if len(s.At) > 1 {
			continue
		}
		x0, x1 := int(max(min(a.X, b.X)-r-1, 0)), int(min(max(a.X, b.X)+r+1, float64(w-1)))
		y0, y1 := int(max(min(a.Y, b.Y)-r-1, 0)), int(min(max(a.Y, b.Y)+r+1, float64(h-1)))
		d := b.Sub(a)
		l := d.Dot(d)
		for y := y0; y <= y1; y++ {
			for x := x0; x <= x1; x++ {
				p := geom.Pt(float64(x)+.5, float64(y)+.5)
				t := 0.0
				if l > 0 {
					t = min(max(p.Sub(a).Dot(d)/l, 0), 1)
				}
				away := p.Sub(a.Lerp(b, t)).Len()
				if was, ok := near[y*w+x]; away <= r+.5 && (!ok || away < was) {
					near[y*w+x] = away
				}
			}
		}
	}
	for i, d := range near {
		visit(i, d, r)
	}
}

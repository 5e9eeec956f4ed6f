// Package reshape turns pictures and sets right what was seen askew. Places are shares of the
// width and the height of the picture.
package reshape

import (
	"context"
	"image"
	"math"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/pixels"
)

// Lean turns a picture clockwise by degrees about its middle, in its own size, and makes it as
// much larger as is needed for no corner to be empty. It returns the error of the context.
func Lean(ctx context.Context, img *image.NRGBA, degrees float64) (*image.NRGBA, error) {
	w, h := float64(img.Rect.Dx()), float64(img.Rect.Dy())
	sin, cos := math.Sincos(degrees * math.Pi / 180)
	k := 1 / Grown(w, h, degrees)
	return pixels.Resampled(ctx, img, img.Rect.Dx(), img.Rect.Dy(), func(x, y float64) (u, v float64) {
		x, y = (x-w/2)*k, (y-h/2)*k
		return w/2 + cos*x + sin*y, h/2 - sin*x + cos*y
	})
}

// Grown is how much larger a picture has to be so that it covers its own rectangle when it is
// turned by degrees about the middle.
func Grown(w, h, degrees float64) float64 {
	sin, cos := math.Sincos(math.Abs(degrees) * math.Pi / 180)
	return cos + sin*max(w/h, h/w)
}

// Corners are where the corners of something upright are in a picture: top left, top right,
// bottom right, bottom left.
type Corners [4]geom.Point

// Sound reports whether corners go round clockwise, bulge outward and enclose something.
func (c Corners) Sound() bool {
	for i := range c {
		a, b := c[(i+1)%4].Sub(c[i]), c[(i+2)%4].Sub(c[(i+1)%4])
		if !(a.Cross(b) > 1e-4) {
			return false
		}
	}
	return true
}

// Size is how many pixels the rectangle has that corners of a picture of a size become: the means
// of opposite sides.
func (c Corners) Size(w, h int) (int, int) {
	at := func(i int) geom.Point { return geom.Pt(c[i].X*float64(w), c[i].Y*float64(h)) }
	side := func(i, j int) float64 { return at(i).Sub(at(j)).Len() }
	n := func(a, b float64) int { return max(int(math.Round((a+b)/2)), 1) }
	return n(side(0, 1), side(3, 2)), n(side(0, 3), side(1, 2))
}

// Square is the picture within corners as a rectangle (Heckbert, Fundamentals of texture mapping
// and image warping, 1989). They are to be sound. It returns the error of the context.
func (c Corners) Square(ctx context.Context, img *image.NRGBA) (*image.NRGBA, error) {
	iw, ih := img.Rect.Dx(), img.Rect.Dy()
	w, h := c.Size(iw, ih)
	m := c.fromUnit()
	return pixels.Resampled(ctx, img, w, h, func(x, y float64) (u, v float64) {
		u, v = m.apply(x/float64(w), y/float64(h))
		return u * float64(iw), v * float64(ih)
	})
}

// projective is a map of the plane that keeps lines.
type projective [8]float64

func (m projective) apply(x, y float64) (u, v float64) {
	k := m[6]*x + m[7]*y + 1
	return (m[0]*x + m[1]*y + m[2]) / k, (m[3]*x + m[4]*y + m[5]) / k
}

// fromUnit takes the unit square to the corners.
func (c Corners) fromUnit() projective {
	d1, d2 := c[1].Sub(c[2]), c[3].Sub(c[2])
	s := c[0].Sub(c[1]).Add(c[2]).Sub(c[3])
	det := d1.Cross(d2)
	g, h := s.Cross(d2)/det, d1.Cross(s)/det
	return projective{
		c[1].X - c[0].X + g*c[1].X, c[3].X - c[0].X + h*c[3].X, c[0].X,
		c[1].Y - c[0].Y + g*c[1].Y, c[3].Y - c[0].Y + h*c[3].Y, c[0].Y,
		g, h,
	}
}

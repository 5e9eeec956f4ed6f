package reshape_test

import (
	"image"
	"image/color"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/reshape"
)

// waves is a picture of smooth waves in pixels of a size, by places in shares of it.
func waves(w, h int, at func(u, v float64) (float64, float64)) *image.NRGBA {
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			u, v := at((float64(x)+.5)/float64(w), (float64(y)+.5)/float64(h))
			img.SetNRGBA(x, y, color.NRGBA{wave(u), wave(v), wave(u + v), 255})
		}
	}
	return img
}

func wave(v float64) uint8 { return uint8(128 + 100*math.Sin(9*v)) }

func plain(u, v float64) (float64, float64) { return u, v }

// furthest is by how much two pictures differ at most.
func furthest(t *testing.T, a, b *image.NRGBA) (most int) {
	t.Helper()
	require.Equal(t, a.Rect, b.Rect)
	for i := range a.Pix {
		d := int(a.Pix[i]) - int(b.Pix[i])
		most = max(most, d, -d)
	}
	return most
}

// A picture that leans is what the same picture drawn so would be, and no corner is empty.
func TestALeaningPictureIsTurnedAboutItsMiddle(t *testing.T) {
	const w, h = 300.0, 200.0
	for _, degrees := range []float64{-17, -2.5, 0, 4, 30} {
		got, err := reshape.Lean(t.Context(), waves(w, h, plain), degrees)
		require.NoError(t, err)
		sin, cos := math.Sincos(degrees * math.Pi / 180)
		k := 1 / (math.Abs(cos) + math.Abs(sin)*w/h)
		want := waves(w, h, func(u, v float64) (float64, float64) {
			x, y := (u-.5)*w*k, (v-.5)*h*k
			u, v = .5+(cos*x+sin*y)/w, .5+(-sin*x+cos*y)/h
			for _, s := range []float64{u, v} {
				assert.True(t, s > -1e-9 && s < 1+1e-9, degrees)
			}
			return u, v
		})
		assert.LessOrEqual(t, furthest(t, got, want), 2, degrees)
	}
}

// What was painted on a rectangle and seen askew is seen straight again.
func TestCornersBecomeARectangle(t *testing.T) {
	c := reshape.Corners{geom.Pt(.2, .1), geom.Pt(.9, .2), geom.Pt(.8, .95), geom.Pt(.1, .7)}
	require.True(t, c.Sound())
	w, h := c.Size(600, 400)
	// What lies where in the picture follows from solving the projective equations for it.
	inverse := func(p geom.Point) geom.Point {
		q := geom.Pt(.5, .5)
		for range 12 {
			at := project(c, q)
			const e = 1e-6
			dx, dy := project(c, q.Add(geom.Pt(e, 0))).Sub(at).Mul(1/e), project(c, q.Add(geom.Pt(0, e))).Sub(at).Mul(1/e)
			d, det := p.Sub(at), dx.Cross(dy)
			q = q.Add(geom.Pt(d.Cross(dy)/det, dx.Cross(d)/det))
		}
		return q
	}
	seen := waves(600, 400, func(u, v float64) (float64, float64) {
		q := inverse(geom.Pt(u, v))
		return q.X, q.Y
	})
	got, err := c.Square(t.Context(), seen)
	require.NoError(t, err)
	assert.LessOrEqual(t, furthest(t, got, waves(w, h, plain)), 4)

	whole := reshape.Corners{geom.Pt(0, 0), geom.Pt(1, 0), geom.Pt(1, 1), geom.Pt(0, 1)}
	same, err := whole.Square(t.Context(), seen)
	require.NoError(t, err)
	assert.Equal(t, 0, furthest(t, seen, same))
	for _, c := range []reshape.Corners{
		{}, {geom.Pt(0, 0), geom.Pt(0, 1), geom.Pt(1, 1), geom.Pt(1, 0)}, {geom.Pt(0, 0), geom.Pt(1, 1), geom.Pt(1, 0), geom.Pt(0, 1)},
		{geom.Pt(0, 0), geom.Pt(1, 0), geom.Pt(.2, .2), geom.Pt(0, 1)}, {geom.Pt(math.NaN(), 0), geom.Pt(1, 0), geom.Pt(1, 1), geom.Pt(0, 1)},
	} {
		assert.False(t, c.Sound(), "%v", c)
	}
}

// project is where a place of the unit square is within corners: the bilinear blend of them in
// homogeneous coordinates that takes the square to them.
func project(c reshape.Corners, q geom.Point) geom.Point {
	type h3 = [3]float64
	cross := func(a, b h3) h3 {
		return h3{a[1]*b[2] - a[2]*b[1], a[2]*b[0] - a[0]*b[2], a[0]*b[1] - a[1]*b[0]}
	}
	dot := func(a, b h3) float64 { return a[0]*b[0] + a[1]*b[1] + a[2]*b[2] }
	p := func(i int) h3 { return h3{c[i].X, c[i].Y, 1} }
	// Weights of the corners for which p0 + k2 p2 = k1 p1 + k3 p3 in homogeneous coordinates.
	k1 := dot(p(0), cross(p(2), p(3))) / dot(p(1), cross(p(2), p(3)))
	k3 := dot(p(0), cross(p(1), p(2))) / dot(p(3), cross(p(1), p(2)))
	k2 := -dot(p(0), cross(p(1), p(3))) / dot(p(2), cross(p(1), p(3)))
	var out h3
	for i := range out {
		out[i] = p(0)[i]*(1-q.X)*(1-q.Y) + k1*p(1)[i]*q.X*(1-q.Y) + k2*p(2)[i]*q.X*q.Y + k3*p(3)[i]*(1-q.X)*q.Y
	}
	return geom.Pt(out[0]/out[2], out[1]/out[2])
}

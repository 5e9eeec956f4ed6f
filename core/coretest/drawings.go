package coretest

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// RandomPath is an outline or an open line with every kind of curve, within
// 20 to 180 mm.
func RandomPath(r *rand.Rand) geom.Path {
	pt := func() geom.Point { return geom.Pt(20+r.Float64()*160, 20+r.Float64()*160) }
	if r.IntN(4) == 0 {
		c := geom.Pt(100, 100)
		return geom.EllipsePath(geom.Rect{X: c.X, Y: c.Y, W: 5 + r.Float64()*70, H: 5 + r.Float64()*70})
	}
	var b geom.Builder
	b.Move(pt())
	for range 2 + r.IntN(4) {
		switch r.IntN(3) {
		case 0:
			b.Line(pt())
		case 1:
			b.Quad(pt(), pt())
		default:
			b.Cubic(pt(), pt(), pt())
		}
	}
	if r.IntN(2) == 0 {
		b.Close()
	}
	return b.Path()
}

// SameDrawing checks that two drawings have the same shapes in the same order,
// within tol millimetres.
func SameDrawing(t *testing.T, want, got exchange.Drawing, tol float64) {
	t.Helper()
	find := func(s exchange.Shape) *exchange.Shape {
		for i := range got.Shapes {
			g := &got.Shapes[i]
			if g.Role == s.Role && g.Name == s.Name && (s.Role != "" || g.Fill == s.Fill && g.Stroke == s.Stroke && g.Rule == s.Rule) &&
				math.Abs(g.Path.Length()-s.Path.Length()) < 50*tol+1e-4*s.Path.Length() {
				return g
			}
		}
		return nil
	}
	for _, s := range want.Shapes {
		g := find(s)
		require.NotNil(t, g, "%+v", s)
		nearPath(t, s.Path, g.Path, tol)
		require.Equal(t, s.Path.Closed(), g.Path.Closed())
		if s.Role == "" && s.Stroke != "" {
			assert.InDelta(t, s.Width, g.Width, 1e-4)
		}
	}
}

// NearDrawing checks that two drawings have their lines in the same places,
// within tol millimetres.
func NearDrawing(t *testing.T, want, got exchange.Drawing, tol float64) {
	t.Helper()
	nearPath(t, all(want), all(got), tol)
}

func all(d exchange.Drawing) geom.Path {
	ps := make([]geom.Path, len(d.Shapes))
	for i, s := range d.Shapes {
		ps[i] = s.Path
	}
	return geom.Join(ps...)
}

// nearPath checks that every place of either path is near the other.
func nearPath(t *testing.T, a, b geom.Path, tol float64) {
	t.Helper()
	for _, way := range [][2]geom.Path{{a, b}, {b, a}} {
		for _, ring := range way[0].Curves() {
			for i, c := range ring {
				if len(ring) > 60 && i%(len(ring)/60+1) != 0 {
					continue
				}
				for _, k := range []float64{0, .27, .61} {
					n, ok := way[1].Nearest(c.At(k))
					require.True(t, ok)
					require.LessOrEqual(t, n.Distance, tol+1e-9, "%v", c.At(k))
				}
			}
		}
	}
}

// SoundDrawing checks what every drawing that was read must be, whatever file
// it came from.
func SoundDrawing(t *testing.T, d exchange.Drawing) {
	t.Helper()
	b := d.Bounds()
	for _, v := range []float64{d.Width, d.Height, b.X, b.Y, b.W, b.H} {
		require.False(t, math.IsNaN(v) || math.IsInf(v, 0), "%v", b)
	}
	for _, s := range d.Shapes {
		require.False(t, s.Path.Empty())
		if s.Path.Len() < 200 {
			_, err := geom.ParsePath(s.Path.Data(6))
			require.NoError(t, err)
		}
	}
}

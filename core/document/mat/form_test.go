package mat_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/shape"
)

// A mat that is wider below is so by just that, whatever it lies under; above and at the sides it shows
// as it would.
func TestAMatIsWiderBelow(t *testing.T) {
	for _, o := range append([]card.Outline{card.Rectangle}, "scallop", "tag", "banner", card.Ellipse) {
		f := card.Form{Outline: o, Width: 60, Height: 40, Corner: card.Round, Radius: 5}
		of := card.OutlineOf(f)
		for _, corner := range []card.Corner{card.Square, card.Round, card.Bevel} {
			even := mat.Outline(of, &f, []card.Border{{Width: 3, Corner: corner}})
			uneven := mat.Outline(of, &f, []card.Border{{Width: 3, Corner: corner, Below: 8}})
			b, was := uneven.Bounds(), even.Bounds()
			assert.InDelta(t, was.W, b.W, 1e-6, o)
			assert.InDelta(t, was.Y, b.Y, 1e-6, o)
			assert.InDelta(t, was.H+8, b.H, 1e-6, o)
			if o == card.Rectangle {
				continue // its corners keep their size
			}
			assert.Less(t, geom.Difference(geom.NonZero, even, uneven).Area(), 1e-3, "%s %s", o, corner)
			// What is swept is what some shift between covers.
			r := rand.New(rand.NewPCG(3, 3))
			for range 400 {
				q := geom.Pt(b.X+r.Float64()*b.W, b.Y+r.Float64()*b.H)
				near, _ := uneven.Nearest(q)
				if near.Distance < .05 {
					continue
				}
				covered := false
				for k := range 161 {
					covered = covered || even.Covers(q.Sub(geom.Pt(0, float64(k)/20)), geom.NonZero)
				}
				assert.Equal(t, covered, uneven.Covers(q, geom.NonZero), "%s %v", o, q)
			}
		}
	}
	two := card.Form{Outline: card.Rectangle, Width: 60, Height: 40, Corner: card.Square}
	m := mat.Outline(card.OutlineOf(two), &two, []card.Border{{Width: 2, Corner: card.Square, Below: 6}, {Width: 1, Corner: card.Square}})
	assert.InDelta(t, 66*52, m.Area(), 1e-9)
	assert.InDelta(t, -23, m.Bounds().Y, 1e-9)
}

// A mat of a form of its own shows by its width wherever it is narrowest, and no smaller one of that
// form would; a circle under a square is that round it.
func TestAMatHasAFormOfItsOwn(t *testing.T) {
	square := card.Form{Outline: card.Rectangle, Width: 40, Height: 40, Corner: card.Square}
	disc := mat.Outline(card.OutlineOf(square), &square, []card.Border{{Width: 3, Form: "circle"}})
	assert.InDelta(t, 2*(20*1.41421356+3), disc.Bounds().W, .02)
	under := []card.Outline{card.Rectangle, card.Ellipse, "banner"}
	for i, ready := range shape.All() {
		for _, o := range under[i%3 : i%3+1] {
			f := card.Form{Outline: o, Width: 50, Height: 30, Corner: card.Square}
			of := card.OutlineOf(f)
			m := mat.Outline(of, &f, []card.Border{{Width: 2, Corner: card.Round, Form: ready.ID}})
			near := 1e9
			for _, l := range of.Flatten(.05) {
				for _, q := range l.Points {
					assert.True(t, m.Covers(q, geom.NonZero), "%s under %s", ready.ID, o)
					n, _ := m.Nearest(q)
					near = min(near, n.Distance)
				}
			}
			assert.GreaterOrEqual(t, near, 1.98, "%s under %s", ready.ID, o)
		}
	}
	// A frame keeps its margin under what lies on it, which a mat below it is whole under again.
	frame := mat.Outline(card.OutlineOf(square), &square, []card.Border{{Width: 3, Corner: card.Square, Hollow: 5}})
	assert.InDelta(t, 46*46-30*30, frame.Area(), 1e-6)
	below := mat.Outline(card.OutlineOf(square), &square, []card.Border{{Width: 3, Corner: card.Square, Hollow: 5}, {Width: 1, Corner: card.Square}})
	assert.InDelta(t, 48*48, below.Area(), 1e-6)
	small := mat.Outline(card.OutlineOf(square), &square, []card.Border{{Width: 3, Corner: card.Square, Hollow: 21}})
	assert.InDelta(t, 46*46, small.Area(), 1e-6, "nothing is left to be taken out")

	moved := mat.Outline(card.OutlineOf(square), &square, []card.Border{{Width: 3, Form: "circle", DX: 5, DY: -2}, {Width: 2, Corner: card.Round}})
	assert.InDelta(t, 5, moved.Bounds().Centre().X, 1e-3)
	assert.InDelta(t, -2, moved.Bounds().Centre().Y, 1e-3)
	assert.InDelta(t, disc.Bounds().W+4, moved.Bounds().W, .01)
}

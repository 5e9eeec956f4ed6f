package shape

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

func TestOutlinesFillExactlyTheirSize(t *testing.T) {
	for _, r := range ready {
		for _, size := range [][2]float64{{82.55, 34.9}, {20, 60}, {5, 5}, {.5, .5}, {300, 6}} {
			p, ok := Outline(r.Outline, size[0], size[1], r.Corner, 3)
			require.True(t, ok, r.ID)
			b := p.Bounds()
			require.InDelta(t, size[0], b.W, 1e-6, "%s %v", r.ID, size)
			require.InDelta(t, size[1], b.H, 1e-6, "%s %v", r.ID, size)
			assert.InDelta(t, 0, b.Centre().X, 1e-6, r.ID)
			for i, ring := range p.Rings() {
				assert.Equal(t, i == 0, ring.Area() > 0, "%s: the outer ring runs clockwise, a hole the other way", r.ID)
			}
		}
	}
}

func TestTheCatalogueOfShapes(t *testing.T) {
	seen := map[string]bool{}
	for _, r := range All() {
		assert.False(t, seen[r.ID] || seen[r.Name], "%s is there once", r.ID)
		seen[r.ID], seen[r.Name] = true, true
		b := r.Preview.Bounds()
		assert.True(t, b.X >= 0 && b.Y >= 0 && b.Right() <= PreviewWidth && b.Bottom() <= PreviewHeight, "the preview of %s lies in its box: %+v", r.ID, b)
		assert.Greater(t, b.W*b.H, 300.0, "the preview of %s can be seen", r.ID)
		got, ok := ByID(r.ID)
		assert.True(t, ok)
		assert.Equal(t, r.Name, got.Name)
		assert.Contains(t, IDs(), r.Outline)
	}
	_, ok := ByID("cloud")
	assert.False(t, ok)
	for _, id := range []ID{Free, "cloud"} {
		_, ok = Outline(id, 10, 10, "", 0)
		assert.False(t, ok, id)
	}
	assert.Equal(t, Free, IDs()[len(IDs())-1])
}

// In every size an outline is one that a blade can follow: it does not cross itself, its
// holes lie within it, and it is as high above its middle as below unless it has a foot.
func TestOutlinesDoNotCrossThemselves(t *testing.T) {
	r := rand.New(rand.NewPCG(71, 72))
	for range 150 {
		w, h := math.Exp(r.Float64()*5-.5), math.Exp(r.Float64()*5-.5)
		for _, e := range ready {
			p, _ := Outline(e.Outline, w, h, e.Corner, r.Float64()*20)
			rings := p.Rings()
			if len(rings) == 1 {
				// What crosses itself covers something twice, or the wrong way round.
				require.InDelta(t, geom.Union(geom.NonZero, p).Area(), p.Area(), 1e-5*w*h, "%s of %g × %g crosses itself", e.ID, w, h)
			}
			for _, hole := range rings[1:] {
				require.InDelta(t, 0, geom.Difference(geom.NonZero, hole.Reverse(), rings[0]).Area(), 1e-9, "%s of %g × %g", e.ID, w, h)
			}
			if e.upright {
				continue
			}
			upside := geom.Xor(geom.NonZero, p, p.Transform(geom.Scale(1, -1)).Reverse())
			require.InDelta(t, 0, upside.Area(), 1e-5*max(w*h, 1), "%s of %g × %g is not even", e.ID, w, h)
		}
	}
}

package shape

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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

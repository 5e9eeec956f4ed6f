package scene

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// Whatever the base and however far it is closed, what is drawn last at a place is what lies nearest to the
// eye there, by the depths of all panels that are seen at that place.
func TestWhatIsDrawnLastIsNearest(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 19))
	places, parted := 0, 0
	for _, k := range fold.Kinds() {
		c, err := fold.New("Order", card.Base{Kind: k.ID, Width: 120, Height: 140, Stock: "cream-300"})
		if err != nil {
			continue // it is made of a drawing
		}
		s, err := Of(c)
		require.NoError(t, err)
		study := fold.StudyOf(c.Base)
		for _, closed := range []float64{.02, .2, .35, .5, .62, .75, .88, .97} {
			v := viewOf(c.Base)
			v.closed = closed
			panels := s.standingPanels(c, study, v)
			var all []part
			for _, group := range inOrder(panels) {
				all = append(all, group...)
			}
			parted += len(all) - len(panels)
			var box geom.Rect
			for _, p := range panels {
				box = box.Union(study.Panels[p.number].Ring.Transform(p.at).Bounds())
			}
			for range 300 {
				q := geom.Pt(box.X+r.Float64()*box.W, box.Y+r.Float64()*box.H)
				// How near a panel is at the place; ok is false where it is not, or only just.
				depth := func(p *standingPanel) (z float64, ok bool) {
					back, _ := p.at.Inverse()
					on := back.Apply(q)
					ring := study.Panels[p.number].Ring
					if n, _ := ring.Nearest(on); n.Distance < 1 || !ring.Covers(on, geom.NonZero) {
						return 0, false
					}
					return p.place.at.Z + on.X*p.place.x.Z + on.Y*p.place.y.Z, true
				}
				nearest, seen := 0.0, false
				for _, p := range panels {
					if z, ok := depth(p); ok && (!seen || z > nearest) {
						nearest, seen = z, true
					}
				}
				if !seen {
					continue
				}
				last, drawn := 0.0, false
				for _, p := range all {
					z, ok := depth(p.of)
					back, _ := p.of.at.Inverse()
					for _, h := range p.within {
						ok = ok && h.of(back.Apply(q)) >= 0
					}
					if ok {
						last, drawn = z, true
					}
				}
				places++
				require.True(t, drawn, "%s closed %.2f: something is drawn at %v", k.ID, closed, q)
				assert.InDelta(t, nearest, last, .6, "%s closed %.2f at %v", k.ID, closed, q)
			}
		}
	}
	assert.Greater(t, places, 10000)
	assert.Positive(t, parted, "some panels reach through others' planes")
}

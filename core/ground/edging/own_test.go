package edging

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// house is a gable with a window; leaning lets its right wall begin lower than its left one.
func house(leaning float64) geom.Path {
	var b geom.Builder
	b.Move(geom.Pt(-10, 8)).Line(geom.Pt(-10, -2)).Line(geom.Pt(0, -8)).Line(geom.Pt(10, -2+leaning)).Line(geom.Pt(10, 8)).Close()
	return geom.Difference(geom.NonZero, b.Path(), geom.EllipsePath(geom.Rect{X: -2, Y: -3, W: 4, H: 4}))
}

// A motif of one's own runs round outlines as those that ship do: one piece, its holes, its depth.
func TestAnOutlineBecomesAMotif(t *testing.T) {
	defer Know(nil)
	Know([]Own{
		{ID: "own-house", Name: "Houses", Outline: house(0)},
		{ID: "own-disc", Name: "Discs", Outline: geom.EllipsePath(geom.Centred(12, 9))},
		{ID: "own-bad", Name: "Leaning", Outline: house(4)},
	})
	require.Equal(t, "own-house", All()[0].ID, "one's own come first")
	_, ok := ByID("own-bad")
	assert.False(t, ok, "what is no motif is none")
	r := rand.New(rand.NewPCG(6, 18))
	for _, id := range []string{"own-house", "own-disc"} {
		m := named(t, id)
		assert.False(t, m.Preview.Empty())
		for i, of := range outlines(10, r) {
			s := Edging{Motif: id, Depth: 3 + r.Float64()*2}
			out, count := Run(of, s)
			require.Positive(t, count)
			outer, holes := rings(out)
			_, had := rings(of)
			per := 0
			if id == "own-house" {
				per = 1
			}
			assert.Equal(t, 1, outer, "%s round %d", id, i)
			assert.Equal(t, had+per*count, holes, "%s round %d", id, i)
			assert.Less(t, geom.Difference(geom.NonZero, of, out).Area(), 1e-4)
			far := 0.0
			for _, l := range out.Flatten(.05) {
				for _, q := range l.Points {
					if near, _ := of.Nearest(q); !of.Covers(q, geom.NonZero) {
						far = max(far, near.Distance)
					}
				}
			}
			assert.InDelta(t, s.Depth, far, .01*s.Depth+.01, "%s round %d", id, i)
		}
	}
	// Its profile is that of the outline: the gable of the house, the upper half of the disc.
	bar := geom.RectPath(geom.Centred(100, 20))
	out, n := Run(bar, Edging{Motif: "own-house", Depth: 8, Side: Top})
	one := 100 / float64(n)
	gable := one*8*(10./16) + one*8*(6./16)/2 - math.Pi/16*4*4*(8./16)*(one/20)*4
	assert.InDelta(t, 100*20+float64(n)*gable, out.Area(), 1)
}

func TestOutlinesThatAreNoMotifsSayWhy(t *testing.T) {
	two := geom.Join(geom.RectPath(geom.Centred(4, 4)), geom.RectPath(geom.Rect{X: 10, Y: 0, W: 4, H: 4}))
	for want, of := range map[string]geom.Path{
		"its left end lies 25 % of its height above its right end": house(4),
		"it has 2 parts": two,
		"it has no area": {},
	} {
		_, err := OfOutline("own", "A", of)
		assert.ErrorContains(t, err, want)
	}
	_, err := OfOutline("own", "A", house(.2))
	assert.NoError(t, err, "what is hardly off is evened")
}

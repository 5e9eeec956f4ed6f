package edging

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// outlines are rectangles, ellipses, stars, blobs of cubics and rings with a hole, of many sizes.
func outlines(n int, r *rand.Rand) (out []geom.Path) {
	for i := range n {
		w, h := 30+r.Float64()*90, 20+r.Float64()*70
		box := geom.Centred(w, h)
		switch i % 6 {
		case 0:
			out = append(out, geom.RectPath(box))
		case 1:
			out = append(out, geom.EllipsePath(geom.Centred(w, w)))
		case 2:
			out = append(out, geom.EllipsePath(box))
		case 3:
			out = append(out, geom.RoundRectPath(box, 4+r.Float64()*5))
		case 4:
			// A blob: a closed chain of smooth cubics.
			k := 5 + r.IntN(4)
			at := make([]geom.Point, k)
			for j := range at {
				a := 2 * math.Pi * float64(j) / float64(k)
				rad := 25 + r.Float64()*14
				at[j] = geom.Pt(rad*math.Cos(a), rad*math.Sin(a))
			}
			var b geom.Builder
			b.Move(at[0])
			for j := range at {
				p, q := at[j], at[(j+1)%k]
				t0, t1 := q.Sub(at[(j+k-1)%k]).Mul(1./6), at[(j+2)%k].Sub(p).Mul(1./6)
				b.Cubic(p.Add(t0), q.Sub(t1), q)
			}
			out = append(out, b.Close().Path())
		case 5:
			out = append(out, geom.Difference(geom.NonZero, geom.RectPath(box), geom.EllipsePath(geom.Centred(w/3, h/3))))
		}
	}
	return out
}

func rings(p geom.Path) (outer, holes int) {
	for _, r := range p.Rings() {
		if r.Area() > 0 {
			outer++
		} else {
			holes++
		}
	}
	return outer, holes
}

// Whatever motif runs round whatever outline: it is one piece with the holes that are meant, of whole
// repeats, holds all of what it runs round, and reaches its depth and no farther.
func TestEveryMotifRunsRoundEveryOutline(t *testing.T) {
	r := rand.New(rand.NewPCG(18, 4))
	n := 18
	if os.Getenv("SOAK") != "" {
		n = 200
	}
	for i, of := range outlines(n, r) {
		for _, m := range All() {
			s := Edging{Motif: m.ID, Depth: 2 + r.Float64()*4, Seed: uint64(i)}
			name := fmt.Sprintf("%s round %d, %.2f deep", m.ID, i, s.Depth)
			out, count := Run(of, s)
			require.Positive(t, count, name)
			outer, holes := rings(out)
			_, had := rings(of)
			per := 0
			if m.holes != nil {
				per = len(m.holes())
			}
			assert.Equal(t, 1, outer, name)
			assert.Equal(t, had+per*count, holes, name)
			assert.Less(t, geom.Difference(geom.NonZero, of, out).Area(), 1e-4, name)
			far := 0.0
			for _, l := range out.Flatten(.05) {
				for _, q := range l.Points {
					if of.Covers(q, geom.NonZero) {
						continue
					}
					near, _ := of.Nearest(q)
					far = max(far, near.Distance)
				}
			}
			assert.InDelta(t, s.Depth, far, .01*s.Depth+.01, name)
			// Clean: united with itself nothing changes.
			assert.InDelta(t, out.Area(), geom.Union(geom.NonZero, out).Area(), 1e-6, name)
		}
	}
}

// Repeats are counted and even: a square of four sides has as many on each, and a count that is asked
// for is had.
func TestRepeatsAreWholeAndEven(t *testing.T) {
	square := geom.RectPath(geom.Centred(80, 80))
	out, n := Run(square, Edging{Motif: "pinking", Depth: 3, Length: 7.5})
	assert.Equal(t, 4*11, n)
	// Each tooth of the upper side has its tip in the middle of a repeat.
	tips := 0
	for _, l := range out.Flatten(.01) {
		for _, q := range l.Points {
			if math.Abs(q.Y+43) < 1e-6 {
				tips++
				at := (q.X + 40) / (80. / 11)
				assert.InDelta(t, .5, at-math.Floor(at), 1e-6)
			}
		}
	}
	assert.Equal(t, 11, tips)
	disc := geom.EllipsePath(geom.Centred(60, 60))
	for _, want := range []int{1, 7, 40, 200} {
		_, n := Run(disc, Edging{Motif: "scallop", Depth: 1, Count: want})
		assert.Equal(t, want, n)
	}
	_, n = Run(disc, Edging{Motif: "scallop", Depth: 1, Length: .01})
	assert.LessOrEqual(t, n, Most+1)
}

// One side is that one alone; inward the motif is cut out, and of a band the middle is taken.
func TestSidesInwardAndOpen(t *testing.T) {
	box := geom.RectPath(geom.Centred(60, 40))
	for side, grows := range map[Side]geom.Rect{Top: {X: -30, Y: -24, W: 60, H: 44}, Right: {X: -30, Y: -20, W: 64, H: 40}, Bottom: {X: -30, Y: -20, W: 60, H: 44}, Left: {X: -34, Y: -20, W: 64, H: 40}} {
		out, _ := Run(box, Edging{Motif: "wave", Depth: 4, Side: side})
		b := out.Bounds()
		assert.InDelta(t, grows.X, b.X, .01, side)
		assert.InDelta(t, grows.Y, b.Y, .01, side)
		assert.InDelta(t, grows.W, b.W, .01, side)
		assert.InDelta(t, grows.H, b.H, .01, side)
	}
	disc := geom.EllipsePath(geom.Centred(60, 60))
	out, _ := Run(disc, Edging{Motif: "scallop", Depth: 3, Side: Top})
	b := out.Bounds()
	assert.InDelta(t, 30, b.Bottom(), .01)
	assert.InDelta(t, -33, b.Y, .25, "a tip is near the top")

	for _, of := range []geom.Path{box, disc} {
		in, _ := Run(of, Edging{Motif: "scallop", Depth: 3, Inward: true})
		assert.Less(t, geom.Difference(geom.NonZero, in, of).Area(), 1e-4)
		assert.Less(t, in.Area(), of.Area()-50)
		assert.Less(t, geom.Difference(geom.NonZero, geom.Offset(of, -3.01, geom.MitreCorner), in).Area(), .02)
		band, _ := Run(of, Edging{Motif: "pinking", Depth: 3, Open: 5})
		outer, holes := rings(band)
		assert.Equal(t, [2]int{1, 1}, [2]int{outer, holes})
		assert.False(t, band.Covers(geom.Pt(0, 0), geom.NonZero))
		assert.True(t, band.Covers(geom.Pt(0, -of.Bounds().H/2+4.9), geom.NonZero))
	}
}

// At corners the motif ends, is carried on to the mitre, turned through, or has a round piece between.
func TestCornersAreAsChosen(t *testing.T) {
	box := geom.RectPath(geom.Centred(60, 40))
	reach := func(c Corner) float64 {
		out, _ := Run(box, Edging{Motif: "arcade", Depth: 4, Corner: c})
		outer, _ := rings(out)
		assert.Equal(t, 1, outer, c)
		far := 0.0
		for _, l := range out.Flatten(.01) {
			for _, q := range l.Points {
				if q.X > 30.01 && q.Y < -20.01 {
					far = max(far, q.Sub(geom.Pt(30, -20)).Len())
				}
			}
		}
		return far
	}
	assert.InDelta(t, 0, reach(Gap), 1e-6)
	assert.InDelta(t, 4*math.Sqrt2, reach(Mitre), .01, "flat motifs meet in a sharp corner")
	assert.InDelta(t, 4, reach(Piece), .02)
	turned, _ := Run(box, Edging{Motif: "wave", Depth: 4, Corner: Turn})
	assert.Less(t, geom.Difference(geom.NonZero, box, turned).Area(), 1e-4)
	mitred, _ := Run(box, Edging{Motif: "pinking", Depth: 4, Corner: Mitre})
	assert.InDelta(t, mitred.Area(), mitred.Transform(geom.Scale(-1, 1)).Reverse().Area(), 1e-6)
}

func TestTornEdgesFollowFromTheirSeed(t *testing.T) {
	of := geom.RectPath(geom.Centred(60, 40))
	a, _ := Run(of, Edging{Motif: "deckle", Depth: 3, Seed: 1})
	b, _ := Run(of, Edging{Motif: "deckle", Depth: 3, Seed: 2})
	assert.NotEqual(t, a.String(), b.String())
	assert.Equal(t, a.String(), along(of, Edging{Motif: "deckle", Depth: 3, Seed: 1}, named(t, "deckle")).path.String())
	none, n := Run(of, Edging{Motif: "none", Depth: 3})
	assert.Equal(t, of, none)
	assert.Zero(t, n)
}

func BenchmarkEdging200(b *testing.B) {
	of := geom.EllipsePath(geom.Centred(200, 140))
	for i := range b.N {
		require.Equal(b, 200, along(of, Edging{Motif: "scallop", Depth: 2, Count: 200, Seed: uint64(i)}, named(b, "scallop")).count)
	}
}

func named(t testing.TB, id string) Motif {
	t.Helper()
	m, ok := ByID(id)
	require.True(t, ok)
	return m
}

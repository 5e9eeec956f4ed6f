package geom

import (
	"context"
	"encoding/json"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func combination(t *testing.T, op Operation, in ...Operand) Combination {
	t.Helper()
	c, err := Combine(t.Context(), op, in...)
	require.NoError(t, err)
	return c
}

// Each operand keeps its own rule: what is covered follows from the winding numbers of
// each by itself.
func TestOperandsKeepTheirRules(t *testing.T) {
	r := rand.New(rand.NewPCG(91, 92))
	for range cases(5000, 150) {
		in := []Operand{
			{scribble(r, 4+r.IntN(12)), FillRule(r.IntN(3))},
			{scribble(r, 4+r.IntN(12)), FillRule(r.IntN(3))},
			{randomCurved(r), FillRule(r.IntN(3))},
		}
		op := Operation(r.IntN(4))
		got := combination(t, op, in...)
		requireClean(t, got.Path, in[0].Path.String())
		for range 20 {
			q := somewhere(r, 120)
			n, clear := 0, true
			for _, o := range in {
				if o.Path.Covers(q, o.Rule) {
					n++
				}
				near, _ := o.Path.Nearest(q)
				clear = clear && near.Distance > 1e-3
			}
			if clear {
				want := op.in(n, len(in), in[0].Path.Covers(q, in[0].Rule))
				require.Equal(t, want, got.Path.Covers(q, NonZero), "%d of rules %v at %v\n%s\n%s\n%s", op, in, q, in[0].Path, in[1].Path, in[2].Path)
			}
		}
	}
}

// The rings of a combination are nested as they lie, and each of its curves is a piece of
// a curve of the operand that it names.
func TestRingsKnowWhatIsAroundThemAndWhereTheyCameFrom(t *testing.T) {
	r := rand.New(rand.NewPCG(93, 94))
	for range cases(3000, 120) {
		in := make([]Operand, 2+r.IntN(4))
		for i := range in {
			in[i] = Operand{Path: randomCurved(r)}
			if r.IntN(2) == 0 {
				c, lo := somewhere(r, 50), 3+20*r.Float64()
				in[i].Path = Join(star(r, c, 5+r.IntN(12), lo+5, lo+20), star(r, c, 5+r.IntN(12), lo, lo+4).Reverse())
			}
		}
		got := combination(t, Operation(r.IntN(4)), in...)
		all := make([]Path, len(got.Rings))
		for i, ring := range got.Rings {
			all[i] = ring.Path
			require.Len(t, ring.From, len(ring.Path.Curves()[0]))
			for k, c := range ring.Path.Curves()[0] {
				of := in[ring.From[k]].Path
				n, ok := of.Nearest(c.At(.5))
				require.True(t, ok && n.Distance < 1e-5, "%v from the outline that it came from", n.Distance)
			}
			// What is around it, by counting.
			at := ring.Path.Curves()[0][0].At(.5)
			depth, parent, least := 0, -1, math.Inf(1)
			for j, other := range got.Rings {
				if j != i && other.Path.Winding(at) != 0 {
					if n, _ := other.Path.Nearest(at); n.Distance < 1e-6 {
						depth = -1
						break // they touch here
					}
					depth++
					if a := math.Abs(other.Path.Area()); a < least {
						parent, least = j, a
					}
				}
			}
			if depth < 0 {
				continue
			}
			require.Equal(t, depth%2 == 1, ring.Hole)
			require.Equal(t, parent, ring.Parent, "ring %d of %s", i, got.Path)
		}
		assert.Equal(t, Join(all...), got.Path)
	}
}

func TestACombinationOfFramesIsATree(t *testing.T) {
	frame := func(r float64) Path {
		return Join(RectPath(Rect{-r, -r, 2 * r, 2 * r}), RectPath(Rect{-r + 1, -r + 1, 2*r - 2, 2*r - 2}).Reverse())
	}
	c := combination(t, Unite, Operand{Path: frame(10)}, Operand{Path: frame(7)}, Operand{Path: RectPath(Rect{-2, -2, 4, 4})}, Operand{Path: RectPath(Rect{20, 0, 3, 3})})
	require.Len(t, c.Rings, 6)
	parents := []int{-1, 0, 1, 2, 3, -1}
	for i, r := range c.Rings {
		assert.Equal(t, parents[i], r.Parent, i)
		assert.Equal(t, i == 1 || i == 3, r.Hole, i)
	}
	assert.Equal(t, []int{3, 3, 3, 3}, c.Rings[5].From)
	empty := combination(t, Subtract, Operand{Path: frame(5)}, Operand{Path: RectPath(Rect{-9, -9, 18, 18})})
	assert.True(t, empty.Path.Empty())
	assert.Empty(t, empty.Rings)
	_, err := Combine(t.Context(), Unite, Operand{Path: mustPath("M0 0L1 0L1 1Z").Transform(Scale(math.NaN(), 1))})
	assert.ErrorIs(t, err, ErrNoNumber)
}

func TestLongWorkEndsWithItsContext(t *testing.T) {
	r := rand.New(rand.NewPCG(95, 96))
	long := scribble(r, 2500) // some million crossings
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err := Combine(ctx, Unite, Operand{Path: long})
	require.ErrorIs(t, err, context.Canceled)
	_, err = OffsetWith(ctx, long, 1, OffsetOptions{})
	require.ErrorIs(t, err, context.Canceled)
	ctx, cancel = context.WithCancel(t.Context())
	done := make(chan error)
	go func() {
		_, err := OffsetWith(ctx, long, 1, OffsetOptions{})
		done <- err
	}()
	cancel()
	require.ErrorIs(t, <-done, context.Canceled)
	// What was cut short leaves nothing behind for what comes next.
	assert.InDelta(t, 7, Union(NonZero, RectPath(Rect{0, 0, 2, 2}), RectPath(Rect{1, 1, 2, 2})).Area(), 1e-9)
}

func TestOptionsOfAnOffset(t *testing.T) {
	needle := mustPath("M0 0L50 1L0 2Z")
	reach := func(limit float64) float64 {
		p, err := OffsetWith(t.Context(), needle, 1, OffsetOptions{Corner: MitreCorner, MitreLimit: limit})
		require.NoError(t, err)
		return p.Bounds().Right()
	}
	assert.InDelta(t, 50+10, reach(10), 1e-6)
	assert.InDelta(t, 50+math.Sqrt(50*50+1), reach(1000), 1e-6, "as far as both sides meet")

	twice := Join(RectPath(Rect{0, 0, 10, 10}), RectPath(Rect{2, 2, 6, 6}))
	grown := func(rule FillRule) float64 {
		p, err := OffsetWith(t.Context(), twice, 1, OffsetOptions{Corner: MitreCorner, Rule: rule})
		require.NoError(t, err)
		return p.Area()
	}
	assert.InDelta(t, 144, grown(NonZero), 1e-9)
	assert.InDelta(t, 144-16, grown(EvenOdd), 1e-9)
	assert.InDelta(t, 144, grown(Positive), 1e-9)
	back, err := OffsetWith(t.Context(), RectPath(Rect{0, 0, 10, 10}).Reverse(), 1, OffsetOptions{Rule: Positive})
	require.NoError(t, err)
	assert.True(t, back.Empty(), "nothing is run round clockwise")

	curve := Fit(polar(90, func(_ int, a float64) float64 { return 20 + 4*math.Sin(5*a) }).Flatten(.01)[0], .005, .5)
	was := math.MaxInt
	for _, tol := range []float64{1e-5, 1e-3, .1} {
		p, err := OffsetWith(t.Context(), curve, 2, OffsetOptions{Tolerance: tol})
		require.NoError(t, err)
		assert.Less(t, p.Len(), was, "a coarser one has fewer curves")
		was = p.Len()
		worst := 0.0
		eachCurve(p, func(c Curve) {
			for k := range 9 {
				worst = max(worst, math.Abs(away(curve, c.At(float64(k)/8))-2))
			}
		})
		assert.Less(t, worst, 1.5*tol+1e-5)
	}
	flat, err := OffsetWith(t.Context(), twice, 0, OffsetOptions{Rule: EvenOdd})
	require.NoError(t, err)
	assert.InDelta(t, 64, flat.Area(), 1e-9)
}

// What lies beside a stroke is near it and on its side.
func TestWhatLiesBesideAStroke(t *testing.T) {
	line := mustPath("M0 0L10 0L10 10")
	assert.InDelta(t, 40+math.Pi, Beside(line, 2, RoundCorner).Area(), 1e-6, "outside the corner")
	assert.InDelta(t, 40+4, Beside(line, 2, MitreCorner).Area(), 1e-6)
	assert.InDelta(t, 40-4, Beside(line, -2, RoundCorner).Area(), 1e-6, "within the corner")
	assert.True(t, Beside(line, 0, RoundCorner).Empty())
	assert.True(t, Beside(Path{}, 1, RoundCorner).Empty())
	circle := EllipsePath(Rect{-10, -10, 20, 20})
	assert.InDelta(t, math.Pi*(144-100), Beside(circle, 2, RoundCorner).Area(), 1e-4)
	assert.InDelta(t, math.Pi*(100-64), Beside(circle, -2, RoundCorner).Area(), 1e-4)

	r := rand.New(rand.NewPCG(97, 98))
	for range cases(4000, 120) {
		n := 2 + r.IntN(8)
		var b Builder
		b.Move(somewhere(r, 40))
		for range n {
			if r.IntN(2) == 0 {
				b.Line(somewhere(r, 40))
			} else {
				b.Cubic(somewhere(r, 40), somewhere(r, 40), somewhere(r, 40))
			}
		}
		p := b.Path()
		d := .2 + 4*r.Float64()
		left, right := Beside(p, d, RoundCorner), Beside(p, -d, RoundCorner)
		for range 20 {
			q := somewhere(r, 60)
			near, _ := p.Nearest(q)
			if math.Abs(near.Distance-d) < .02 || near.Distance < .02 {
				continue
			}
			if near.Distance > d {
				require.False(t, left.Covers(q, NonZero) || right.Covers(q, NonZero), "%v away of %s", near.Distance, p)
				continue
			}
			c := p.Curves()[0][near.Curve]
			if near.T < 1e-6 || near.T > 1-1e-6 || c.Curvature(near.T)*d > .5 || c.Curvature(near.T)*d < -.5 {
				continue // at corners either side may have it, or none
			}
			side := c.Tangent(near.T).Cross(q.Sub(near.Point)) < 0 // left on screen
			require.True(t, side && left.Covers(q, NonZero) || !side && right.Covers(q, NonZero), "%v at %v, left %v, of %s", d, q, side, p)
		}
	}
}

func TestHowPathsLieToEachOther(t *testing.T) {
	a, b := RectPath(Rect{0, 0, 10, 10}), RectPath(Rect{13, 14, 10, 10})
	gap, ok := Distance(a, b)
	require.True(t, ok)
	assert.InDelta(t, 5, gap.Distance, 1e-9)
	assert.InDelta(t, 0, gap.A.Sub(Pt(10, 10)).Len()+gap.B.Sub(Pt(13, 14)).Len(), 1e-9)
	gap, _ = Distance(a, RectPath(Rect{2, 3, 1, 1}))
	assert.InDelta(t, 2, gap.Distance, 1e-9, "one within the other")
	gap, _ = Distance(a, RectPath(Rect{5, 5, 10, 10}))
	assert.Zero(t, gap.Distance)
	_, ok = Distance(a, Path{})
	assert.False(t, ok)

	r := rand.New(rand.NewPCG(99, 100))
	for range cases(3000, 60) {
		p, q := randomCurved(r), randomCurved(r).Transform(Shift(40, 30))
		gap, ok := Distance(p, q)
		require.True(t, ok)
		least := math.Inf(1)
		for _, l := range p.Flatten(.01) {
			for _, s := range l.Points {
				n, _ := q.Nearest(s)
				least = min(least, n.Distance)
			}
		}
		require.LessOrEqual(t, gap.Distance, least+1e-6)
		na, _ := p.Nearest(gap.A)
		nb, _ := q.Nearest(gap.B)
		require.Less(t, max(na.Distance, nb.Distance), 1e-6, "both ends of the gap are on the outlines")
		require.InDelta(t, gap.Distance, gap.A.Sub(gap.B).Len(), 1e-9)
		if Overlaps := !Intersection(NonZero, p, q).Empty(); Overlaps && gap.Distance > 0 {
			require.True(t, Contains(NonZero, Union(NonZero, p), q) || Contains(NonZero, Union(NonZero, q), p) || len(Union(NonZero, p, q).Rings()) > 1)
		}
	}

	assert.True(t, Contains(NonZero, a, RectPath(Rect{0, 0, 10, 3})))
	assert.False(t, Contains(NonZero, a, RectPath(Rect{0, 0, 10.001, 3})))
	beside := RectPath(Rect{10, 4, 5, 5})
	assert.True(t, Touches(NonZero, a, beside, 1e-6))
	assert.False(t, Touches(NonZero, a, beside.Transform(Shift(.01, 0)), 1e-6))
	assert.False(t, Touches(NonZero, a, beside.Transform(Shift(-.01, 0)), 1e-6), "they overlap")
	assert.False(t, Touches(NonZero, a, Path{}, 1))
}

// A path goes through JSON as exactly as outlines are combined.
func TestPathsGoThroughJSON(t *testing.T) {
	r := rand.New(rand.NewPCG(101, 102))
	for range cases(2000, 100) {
		p := randomCurved(r)
		if r.IntN(2) == 0 {
			p = Offset(p.Transform(Scale(1, .5+r.Float64())), 4*r.Float64()-2, RoundCorner) // of many arcs
		}
		raw, err := json.Marshal(map[string]Path{"p": p})
		require.NoError(t, err)
		var back map[string]Path
		require.NoError(t, json.Unmarshal(raw, &back))
		worst := 0.0
		for _, c := range slices.Concat(p.Curves()...) {
			for _, k := range []float64{0, .3, .8} {
				n, _ := back["p"].Nearest(c.At(k))
				worst = max(worst, n.Distance)
			}
		}
		require.Less(t, worst, 3e-6)
		require.InDelta(t, p.Length(), back["p"].Length(), 1e-4)
		once := back["p"].Data(6)
		again, err := ParsePath(once)
		require.NoError(t, err)
		require.Equal(t, once, again.Data(6), "what was written once is written alike again")
	}
	var p Path
	assert.ErrorContains(t, json.Unmarshal([]byte(`7`), &p), "string")
	assert.Error(t, json.Unmarshal([]byte(`"M0 0L"`), &p))
	assert.ErrorIs(t, json.Unmarshal([]byte(`"M0 0L20000 0Z"`), &p), ErrFar)
	_, err := json.Marshal(RectPath(Rect{0, 0, math.Inf(1), 1}))
	assert.ErrorIs(t, err, ErrNoNumber)
}

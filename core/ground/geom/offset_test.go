package geom

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestConvexOutlinesGrowByTheBook(t *testing.T) {
	r := rand.New(rand.NewPCG(51, 52))
	for range cases(20000, 500) {
		d := .1 + r.Float64()*8
		p := star(r, somewhere(r, 50), 3+r.IntN(20), 20, 20)
		if r.IntN(3) == 0 {
			w, h := 5+r.Float64()*40, 5+r.Float64()*40
			p = EllipsePath(Rect{0, 0, w, h}).Transform(Turn(r.Float64()))
		}
		got := Offset(p, d, RoundCorner)
		want := p.Area() + p.Length()*d + math.Pi*d*d
		require.InDelta(t, want, got.Area(), .002*got.Length(), "%v of %s", d, p)
		require.Len(t, got.Rings(), 1)
		if p.segs[1].Op == LineTo {
			require.InEpsilon(t, want, got.Area(), 1e-6)
			require.LessOrEqual(t, got.Len(), 2*p.Len())
		}
	}
}

// away is how far a place lies from what a path covers: negative inside.
func away(p Path, q Point) float64 {
	n, ok := p.Nearest(q)
	if !ok {
		return math.Inf(1)
	}
	if p.Winding(q) != 0 {
		return -n.Distance
	}
	return n.Distance
}

// The outline of an offset is everywhere as far from the outline it came from
// as it should be, and it covers what is nearer and nothing else.
func TestOffsetsKeepTheirDistance(t *testing.T) {
	for name, kind := range kinds {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(53, uint64(len(name))))
			for range cases(2500, 25) {
				p := kind(r)
				requireDistance(t, r, p, (r.Float64()-.5)*[]float64{1, 6, 30}[r.IntN(3)])
			}
		})
	}
}

func TestOutThenInHoldsTheOriginal(t *testing.T) {
	r := rand.New(rand.NewPCG(55, 56))
	for range cases(20000, 200) {
		p := Union(NonZero, star(r, Pt(0, 0), 3+r.IntN(25), 8, 40), star(r, Pt(10, 0), 5, 3, 20))
		d := .2 + 6*r.Float64()
		back := Offset(Offset(p, d, Corner(r.IntN(2))), -d, RoundCorner) // round or mitred
		lost := Difference(NonZero, p, back)
		require.LessOrEqual(t, lost.Area(), .005*p.Length(), "%v of %s", d, p)
		there := Offset(Offset(p, -d, RoundCorner), d, RoundCorner)
		more := Difference(NonZero, there, p)
		require.LessOrEqual(t, more.Area(), .005*p.Length(), "%v of %s", d, p)
	}
}

func TestCornersAreRoundMitredOrBevelled(t *testing.T) {
	square := RectPath(Rect{0, 0, 10, 10})
	assert.InDelta(t, 196, Offset(square, 2, MitreCorner).Area(), 1e-9)
	assert.Equal(t, "M-2 -2L12 -2L12 12L-2 12Z", Offset(square, 2, MitreCorner).String())
	assert.InDelta(t, 196-8, Offset(square, 2, BevelCorner).Area(), 1e-6)
	assert.InDelta(t, 180+4*math.Pi, Offset(square, 2, RoundCorner).Area(), 1e-6)
	assert.Equal(t, "M2 2L8 2L8 8L2 8Z", Offset(square, -2, RoundCorner).String())
	// A needle's mitre would reach far: it is cut off.
	needle := mustPath("M0 0L50 1L0 2Z")
	assert.InDelta(t, 54, Offset(needle, 1, MitreCorner).Bounds().Right(), 1e-6)
}

func TestRingsVanishAndMerge(t *testing.T) {
	frame := Join(RectPath(Rect{0, 0, 40, 40}), RectPath(Rect{10, 10, 20, 20}).Reverse())
	assert.Len(t, Offset(frame, 9.9, RoundCorner).Rings(), 2)
	assert.Len(t, Offset(frame, 10.1, RoundCorner).Rings(), 1, "the hole is filled")
	assert.Len(t, Offset(frame, -5.1, RoundCorner).Rings(), 4, "the sides vanish before the corners")
	assert.True(t, Offset(frame, -5.9, RoundCorner).Empty(), "nothing is left of the frame")
	assert.InDelta(t, 30.2*30.2-400-80*4.9-math.Pi*4.9*4.9, Offset(frame, -4.9, RoundCorner).Area(), 1e-3)
	two := Join(EllipsePath(Rect{0, 0, 10, 10}), EllipsePath(Rect{12, 0, 10, 10}))
	assert.Len(t, Offset(two, .9, RoundCorner).Rings(), 2)
	assert.Len(t, Offset(two, 1.1, RoundCorner).Rings(), 1)
	dumbbell := Union(NonZero, RectPath(Rect{0, 0, 10, 10}), RectPath(Rect{20, 0, 10, 10}), RectPath(Rect{9, 4, 12, 2}))
	assert.Len(t, Offset(dumbbell, -1.1, RoundCorner).Rings(), 2, "a neck parts")
	assert.True(t, Offset(EllipsePath(Rect{0, 0, 10, 10}), -5, RoundCorner).Empty())
	assert.Equal(t, 3, Offset(EllipsePath(Rect{0, 0, 10, 10}), 5, RoundCorner).Len(), "a circle stays one arc")
	assert.True(t, Offset(Path{}, 3, RoundCorner).Empty())
}

// A curve that all but comes to a stand turns there within next to no way, which
// is where an offset has most to follow.
func TestStrokesRoundNearCusps(t *testing.T) {
	r := rand.New(rand.NewPCG(61, 62))
	for range cases(20000, 300) {
		to := Pt(4+16*r.Float64(), 4*r.NormFloat64())
		off := math.Pow(10, -4*r.Float64())
		near := func(p Point) Point { return p.Add(Pt(off*r.NormFloat64(), off*r.NormFloat64())) }
		k := 1 + .4*r.Float64()
		var b Builder
		p := b.Move(Point{}).Cubic(near(to.Mul(k)), near(to.Mul(1-k)), to).Path()
		w := .2 + 5*r.Float64()
		got := Stroke(p, w, RoundCorner, RoundCap)
		require.True(t, p.Bounds().Grow(w/2+.01).Contains(got.Bounds(), 0), "%g round %s reaches %v", w, p, got.Bounds())
		for range 15 {
			q := Pt(-4+28*r.Float64(), 8*r.NormFloat64())
			n, _ := p.Nearest(q)
			if math.Abs(n.Distance-w/2) > .01 {
				require.Equal(t, n.Distance < w/2, got.Winding(q) != 0, "%v at %v of %s", w, q, p)
			}
		}
	}
	p := mustPath("M0 0C5.0433 .6304 -1.2608 0 3.7825 0")
	assert.InDelta(t, 4.754, Stroke(p, 1, RoundCorner, RoundCap).Area(), .002)
}

func TestStrokesCoverWhatThePenTouches(t *testing.T) {
	r := rand.New(rand.NewPCG(57, 58))
	for range cases(20000, 200) {
		p := randomCurved(r)
		if r.IntN(2) == 0 {
			p = mustPath(p.String()[:len(p.String())-1]) // open
		}
		w := .5 + 10*r.Float64()
		got := Stroke(p, w, RoundCorner, RoundCap)
		for range 20 {
			q := somewhere(r, 220)
			n, _ := p.Nearest(q)
			if math.Abs(n.Distance-w/2) < .01 {
				continue
			}
			require.Equal(t, n.Distance < w/2, got.Winding(q) != 0, "%v at %v of %s", w, q, p)
		}
	}
	line := mustPath("M0 0L10 0")
	assert.InDelta(t, 20, Stroke(line, 2, RoundCorner, ButtCap).Area(), 1e-6)
	assert.InDelta(t, 24, Stroke(line, 2, RoundCorner, SquareCap).Area(), 1e-6)
	assert.InDelta(t, 20+math.Pi, Stroke(line, 2, RoundCorner, RoundCap).Area(), 1e-6)
	square := RectPath(Rect{0, 0, 10, 10})
	assert.InDelta(t, 144-64, Stroke(square, 2, MitreCorner, ButtCap).Area(), 1e-6)
	assert.InDelta(t, 144-64-2, Stroke(square, 2, BevelCorner, ButtCap).Area(), 1e-6)
	assert.InDelta(t, 140+math.Pi-64, Stroke(square, 2, RoundCorner, ButtCap).Area(), 1e-6)
	assert.InDelta(t, math.Pi*36, Stroke(EllipsePath(Rect{-1, -1, 2, 2}), 10, RoundCorner, ButtCap).Area(), 1e-3, "a pen wider than the ring fills it")
	assert.InDelta(t, math.Pi, Stroke(mustPath("M3 3L3 3"), 2, RoundCorner, RoundCap).Area(), 1e-6)
	assert.True(t, Stroke(line, 0, RoundCorner, RoundCap).Empty())
}

func TestDashesHaveTheirLengths(t *testing.T) {
	assert.Equal(t, "M0 0L2 0M3 0L5 0M6 0L8 0M9 0L10 0", Dash(mustPath("M0 0L10 0"), []float64{2, 1}, 0).String())
	assert.Equal(t, "M0 0L0.5 0M2.5 0L4.5 0M6.5 0L8.5 0", Dash(mustPath("M0 0L10 0"), []float64{2}, 1.5).String())
	// Round a corner a dash goes on, and where a ring ends it runs into the first.
	assert.Equal(t, "M0 2L0 0L6 0M8 0L10 0L10 6M10 8L10 10L4 10M2 10L0 10L0 4", Dash(RectPath(Rect{0, 0, 10, 10}), []float64{8, 2}, 2).String())
	ring := EllipsePath(Rect{-10, -10, 20, 20})
	d := Dash(ring, []float64{3, 2}, 1)
	sum := 0.0
	for i, s := range d.Rings() {
		sum += s.Length()
		if i > 0 && i < len(d.Rings())-1 {
			assert.InDelta(t, 3, s.Length(), 1e-6)
		}
	}
	assert.InDelta(t, 20*math.Pi*.6, sum, 1.5)
	assert.Equal(t, ring, Dash(ring, nil, 0))
	assert.Equal(t, ring, Dash(ring, []float64{0, 0}, 0))
	assert.Equal(t, ring, Dash(ring, []float64{-1, 2}, 0))
}

func BenchmarkOffset(b *testing.B) {
	r := rand.New(rand.NewPCG(59, 60))
	// A letter-like outline: 260 points along smooth curves.
	var letter Builder
	for i := range 260 {
		a := float64(i) * 2 * math.Pi / 260
		s, c := math.Sincos(a)
		rad := 10 + 3*math.Sin(3*a) + math.Sin(7*a)
		if i == 0 {
			letter.Move(Pt(c*rad, s*rad))
		} else {
			letter.Line(Pt(c*rad, s*rad))
		}
	}
	l := letter.Close().Path()
	var wavy Builder
	wavy.Move(Pt(56, 0))
	for i := 1; i < 5000; i++ {
		s, c := math.Sincos(float64(i) * 2 * math.Pi / 5000)
		rad := 50 + 5*math.Cos(9*math.Atan2(s, c)) + math.Cos(40*math.Atan2(s, c)) + .002*r.Float64()
		wavy.Line(Pt(c*rad, s*rad))
	}
	long := wavy.Close().Path()
	b.Run("letter", func(b *testing.B) {
		for b.Loop() {
			Offset(l, .5, RoundCorner)
		}
	})
	b.Run("5000 points", func(b *testing.B) {
		for b.Loop() {
			Offset(long, 1, RoundCorner)
		}
	})
	b.Run("curved letter", func(b *testing.B) {
		c := Fit(l.Flatten(.01)[0], .01, .5)
		for b.Loop() {
			Offset(c, .5, RoundCorner)
		}
	})
}

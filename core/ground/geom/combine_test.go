package geom

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// soak makes the long run of the properties: make soak.
var soak = os.Getenv("SOAK") != ""

// cases is how many random cases to try: all when soaking, else a share.
func cases(all, share int) int {
	if soak {
		return all
	}
	return share
}

// The kinds of outlines that are combined at random.
var kinds = map[string]func(r *rand.Rand) Path{
	"stars":    func(r *rand.Rand) Path { return star(r, somewhere(r, 60), 3+r.IntN(40), 5, 40) },
	"circles":  randomEllipses,
	"curves":   randomCurved,
	"crossing": func(r *rand.Rand) Path { return scribble(r, 3+r.IntN(20)) },
	"grid":     func(r *rand.Rand) Path { return gridCells(r, Identity) },
	"turned":   func(r *rand.Rand) Path { return gridCells(r, Turn(.3)) },
	"holes": func(r *rand.Rand) Path {
		c := somewhere(r, 40)
		hole := star(r, c, 3+r.IntN(9), 3, 10)
		if r.IntN(2) == 0 {
			hole = hole.Reverse()
		}
		return Join(star(r, c, 5+r.IntN(20), 20, 45), hole)
	},
	"overlapping": func(r *rand.Rand) Path {
		ps := make([]Path, 2+r.IntN(4))
		for i := range ps {
			ps[i] = star(r, somewhere(r, 30), 3+r.IntN(10), 5, 30)
			if r.IntN(3) == 0 {
				ps[i] = ps[i].Reverse()
			}
		}
		return Join(ps...)
	},
	"slivers": func(r *rand.Rand) Path {
		a, b := somewhere(r, 50), somewhere(r, 50)
		n := Pt(a.Y-b.Y, b.X-a.X).Mul(1e-6 / a.Sub(b).Len())
		var bl Builder
		bl.Move(a).Line(b).Line(b.Add(n)).Line(a.Add(n.Mul(r.Float64()))).Close()
		return Join(bl.Path(), star(r, a, 7, 10, 30))
	},
}

func somewhere(r *rand.Rand, span float64) Point {
	return Pt((r.Float64()-.5)*span, (r.Float64()-.5)*span)
}

func star(r *rand.Rand, c Point, n int, lo, hi float64) Path {
	var b Builder
	at := r.Float64()
	for i := range n {
		s, co := math.Sincos((float64(i) + at) * 2 * math.Pi / float64(n))
		p := c.Add(Pt(co, s).Mul(lo + (hi-lo)*r.Float64()))
		if i == 0 {
			b.Move(p)
		} else {
			b.Line(p)
		}
	}
	return b.Close().Path()
}

func scribble(r *rand.Rand, n int) Path {
	var b Builder
	b.Move(somewhere(r, 100))
	for range n {
		b.Line(somewhere(r, 100))
	}
	return b.Close().Path()
}

func randomEllipses(r *rand.Rand) Path {
	ps := make([]Path, 1+r.IntN(3))
	for i := range ps {
		c := somewhere(r, 50)
		if r.IntN(3) == 0 { // on a lattice, so that they touch and coincide
			c = Pt(math.Round(c.X/10)*10, math.Round(c.Y/10)*10)
		}
		w, h := 10*float64(1+r.IntN(4)), 10*float64(1+r.IntN(4))
		ps[i] = EllipsePath(Rect{c.X - w/2, c.Y - h/2, w, h})
		if r.IntN(4) == 0 {
			ps[i] = ps[i].Transform(Turn(r.Float64()))
		}
		if r.IntN(3) == 0 {
			ps[i] = ps[i].Reverse()
		}
	}
	return Join(ps...)
}

// gridCells are rectangles on a coarse grid, which share edges and corners.
func gridCells(r *rand.Rand, m Affine) Path {
	ps := make([]Path, 1+r.IntN(12))
	for i := range ps {
		ps[i] = RectPath(Rect{float64(r.IntN(8)*10 - 40), float64(r.IntN(8)*10 - 40), float64(1+r.IntN(4)) * 10, float64(1+r.IntN(4)) * 10})
		if r.IntN(3) == 0 {
			ps[i] = ps[i].Reverse()
		}
	}
	return Join(ps...).Transform(m)
}

// eachKind runs a property on pairs of random outlines, of one kind and mixed.
func eachKind(t *testing.T, n int, f func(t *testing.T, r *rand.Rand, rule FillRule, a, b Path)) {
	names := make([]string, 0, len(kinds))
	for name := range kinds {
		names = append(names, name)
	}
	for _, name := range names {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(31, uint64(len(name))*uint64(name[0])))
			all := []func(r *rand.Rand) Path{kinds["stars"], kinds["circles"], kinds["grid"], kinds["curves"]}
			for i := range n {
				a, b := kinds[name](r), kinds[name](r)
				if i%4 == 3 {
					b = all[r.IntN(len(all))](r)
				}
				f(t, r, []FillRule{NonZero, EvenOdd}[i%2], a, b)
			}
		})
	}
}

// places describes a case so that it can be run again.
func places(rule FillRule, a, b Path) string { return fmt.Sprintf("rule %d\nA %s\nB %s", rule, a, b) }

func TestAreasAddUp(t *testing.T) {
	eachKind(t, cases(20000, 300), func(t *testing.T, _ *rand.Rand, rule FillRule, a, b Path) {
		u, x := Union(rule, a, b), Intersection(rule, a, b)
		sa, sb := Union(rule, a), Union(rule, b)
		scale := max(1, sa.Area()+sb.Area())
		require.InDelta(t, sa.Area()+sb.Area(), u.Area()+x.Area(), 1e-7*scale+slimArea(a, b), places(rule, a, b))
		require.InDelta(t, u.Area()-x.Area(), Xor(rule, a, b).Area(), 1e-7*scale+slimArea(a, b), places(rule, a, b))
		require.InDelta(t, sa.Area()-x.Area(), Difference(rule, a, b).Area(), 1e-7*scale+slimArea(a, b), places(rule, a, b))
	})
}

// slimArea is what rings that are left out for their slimness may cover.
func slimArea(ps ...Path) float64 {
	sum := 0.0
	for _, p := range ps {
		sum += p.Length()
	}
	return sum * 2e-6
}

func TestWhatIsCutApartGoesTogetherAgain(t *testing.T) {
	eachKind(t, cases(20000, 200), func(t *testing.T, _ *rand.Rand, rule FillRule, a, b Path) {
		whole := Union(rule, a)
		same := func(p Path, what string) {
			t.Helper()
			d := Xor(NonZero, whole, p)
			require.LessOrEqual(t, d.Area(), 1e-7*max(1, whole.Area())+slimArea(a, b), "%s\n%s", what, places(rule, a, b))
		}
		same(Union(rule, a, a), "A∪A")
		same(Union(NonZero, Difference(rule, a, b), Intersection(rule, a, b)), "(A-B)∪(A∩B)")
		parts := Divide(rule, a, b)
		var mine []Path
		total := 0.0
		for _, p := range parts {
			total += p.Path.Area()
			require.NotEmpty(t, p.Cover)
			if p.Cover[0] == 0 {
				mine = append(mine, p.Path)
			}
		}
		same(Union(NonZero, mine...), "parts of A")
		require.InDelta(t, Union(rule, a, b).Area(), total, 1e-7*max(1, total)+slimArea(a, b))
	})
}

func TestPlacesAgreeWithTheWindingOfWhatCameIn(t *testing.T) {
	eachKind(t, cases(20000, 150), func(t *testing.T, r *rand.Rand, rule FillRule, a, b Path) {
		u, x, d := Union(rule, a, b), Intersection(rule, a, b), Difference(rule, a, b)
		for range 12 {
			q := somewhere(r, 120)
			if n, ok := Join(a, b).Nearest(q); ok && n.Distance < 1e-5 {
				continue
			}
			inA, inB := rule.covers(int32(a.Winding(q))), rule.covers(int32(b.Winding(q)))
			for name, c := range map[string]struct {
				p    Path
				want bool
			}{"union": {u, inA || inB}, "intersection": {x, inA && inB}, "difference": {d, inA && !inB}} {
				w := c.p.Winding(q)
				require.Equal(t, map[bool]int{true: 1, false: 0}[c.want], w, "%s at %v\n%s\n= %s", name, q, places(rule, a, b), c.p)
			}
		}
	})
}

func TestResultsAreClean(t *testing.T) {
	eachKind(t, cases(20000, 150), func(t *testing.T, _ *rand.Rand, rule FillRule, a, b Path) {
		for _, p := range []Path{Union(rule, a, b), Xor(rule, a, b)} {
			requireClean(t, p, places(rule, a, b))
			again := Union(rule, p)
			// Where two curves of it pass within a grid's unit or two of each other, rounding
			// may join or part rings there, at the cost of a crossing; what they cover stays.
			require.LessOrEqual(t, again.Len(), p.Len()+4, "what is clean stays as it is\n%s", places(rule, a, b))
			require.LessOrEqual(t, Xor(NonZero, p, again).Area(), 1e-9*max(1, p.Area())+slimArea(p), "%s", places(rule, a, b))
		}
	})
}

// requireClean checks that no two pieces of a result cross and that outer
// rings and holes have their direction.
func requireClean(t *testing.T, p Path, about string) {
	t.Helper()
	const tol = 1e-5
	type side struct {
		a, b Point
		ring int
	}
	var sides []side
	for i, l := range p.Flatten(tol) {
		for j, q := range l.Points {
			sides = append(sides, side{q, l.Points[(j+1)%len(l.Points)], i})
		}
	}
	boxes := make([]span, len(sides))
	for i, s := range sides {
		const k = 1e6
		boxes[i] = span{int32(min(s.a.X, s.b.X) * k), int32(min(s.a.Y, s.b.Y) * k), int32(max(s.a.X, s.b.X) * k), int32(max(s.a.Y, s.b.Y) * k), int32(i), false}
	}
	off := func(s side, q Point) float64 {
		v := s.b.Sub(s.a)
		return v.Cross(q.Sub(s.a)) / max(v.Len(), 1e-12)
	}
	eachPair(boxes, func(i, j int32) {
		s, u := sides[i], sides[j]
		a, b, c, d := off(s, u.a), off(s, u.b), off(u, s.a), off(u, s.b)
		const deep = 3 * tol
		if a*b < 0 && c*d < 0 && min(math.Abs(a), math.Abs(b), math.Abs(c), math.Abs(d)) > deep {
			require.Fail(t, "edges cross", "%v and %v\n%s\n= %s", s, u, about, p)
		}
	})
	holes := true
	for i, ring := range p.Rings() {
		if i == 0 {
			require.Positive(t, ring.Area(), "an outer ring comes first\n%s", about)
		}
		holes = holes && ring.Closed()
	}
	require.True(t, holes)
}

func TestManyShapesAtOnce(t *testing.T) {
	r := rand.New(rand.NewPCG(41, 42))
	for range cases(400, 12) {
		n := 2 + r.IntN(399)
		shapes := make([]Path, n)
		for i := range shapes {
			c := somewhere(r, 200)
			switch r.IntN(3) {
			case 0:
				shapes[i] = star(r, c, 3+r.IntN(12), 2, 12)
			case 1:
				shapes[i] = EllipsePath(Rect{c.X, c.Y, 5 + r.Float64()*15, 5 + r.Float64()*15})
			default:
				shapes[i] = RectPath(Rect{math.Round(c.X/5) * 5, math.Round(c.Y/5) * 5, 10, 15})
			}
		}
		u := Union(NonZero, shapes...)
		requireClean(t, u, "many")
		total, cover := 0.0, make([]float64, n)
		for _, p := range Divide(NonZero, shapes...) {
			total += p.Path.Area()
			for _, k := range p.Cover {
				cover[k] += p.Path.Area()
			}
		}
		require.InDelta(t, u.Area(), total, 1e-6*total)
		for i, p := range shapes {
			require.InDelta(t, p.Area(), cover[i], 1e-3, "parts make up shape %d", i)
		}
	}
}

func nodes(p Path) (n, curved int) {
	eachCurve(p, func(c Curve) {
		n++
		if c.Op != LineTo {
			curved++
		}
	})
	return n, curved
}

func TestCurvesSurvive(t *testing.T) {
	a, b := EllipsePath(Rect{-20, -10, 20, 20}), EllipsePath(Rect{-10, -10, 20, 20})
	u := Union(NonZero, a, b)
	n, curved := nodes(u)
	assert.Equal(t, n, curved, "arcs stay arcs")
	assert.LessOrEqual(t, n, 4, u.String())
	h := math.Sqrt(75)
	for _, want := range []Point{{-5, h}, {-5, -h}} {
		near, _ := u.Nearest(want)
		assert.InDelta(t, 0, near.Distance, 1e-6)
	}
	// A lens of two circles has the area of the book.
	lens := 2*100*math.Acos(.5) - 5*math.Sqrt(300)
	assert.InDelta(t, lens, Intersection(NonZero, a, b).Area(), 1e-4)
	assert.InDelta(t, 200*math.Pi-lens, u.Area(), 1e-4)

	r := rand.New(rand.NewPCG(43, 44))
	for range cases(20000, 60) {
		a, b := randomCurved(r), randomCurved(r)
		before, _ := nodes(Join(a, b))
		arr := arrange([]input{{path: a}, {path: b}})
		meets := map[ipoint]map[int32]bool{}
		for _, s := range arr.segs {
			for _, p := range []ipoint{s.a, s.b} {
				if meets[p] == nil {
					meets[p] = map[int32]bool{}
				}
				meets[p][s.strand] = true
			}
		}
		crossings := 0
		for _, m := range meets {
			if len(m) > 1 {
				crossings++
			}
		}
		for _, p := range []Path{Union(NonZero, a, b), Intersection(NonZero, a, b)} {
			after, _ := nodes(p)
			require.LessOrEqual(t, after, before+4*crossings, places(NonZero, a, b))
			// Every piece lies on a curve that came in.
			eachCurve(p, func(c Curve) {
				for _, k := range []float64{.2, .5, .8} {
					near, _ := Join(a, b).Nearest(c.At(k))
					require.InDelta(t, 0, near.Distance, 1e-5, "%s\n%s", places(NonZero, a, b), p)
				}
			})
		}
	}
}

func TestWhatIsNotCutComesOutAsItWentIn(t *testing.T) {
	for _, p := range []Path{
		EllipsePath(Rect{0.1, 0.2, 33.3, 44.4}), RoundRectPath(Rect{1. / 3, 2. / 3, 50, 40}, 7.77),
		RectPath(Rect{math.Pi, math.E, 10, 10}),
	} {
		same := Union(NonZero, p, p)
		points := map[Point]int{}
		pico := func(p Point) Point { return Pt(math.Round(p.X*1e7), math.Round(p.Y*1e7)) }
		eachCurve(p, func(c Curve) {
			if c.Length() > 1e-9 {
				points[pico(c.From)] += int(c.Op)
			}
		})
		eachCurve(same, func(c Curve) { points[pico(c.From)] -= int(c.Op) })
		for q, n := range points {
			assert.Zero(t, n, "%v in %s", q, same)
		}
		assert.InEpsilon(t, p.Area(), same.Area(), 1e-12)
	}
}

func TestRingsAndHolesAreOrdered(t *testing.T) {
	outer, hole, island := RectPath(Rect{0, 0, 100, 100}), RectPath(Rect{10, 10, 80, 80}), RectPath(Rect{20, 20, 60, 60})
	aside := RectPath(Rect{-50, 0, 20, 20})
	p := Xor(NonZero, island, outer, aside, hole)
	var areas []float64
	for _, r := range p.Rings() {
		areas = append(areas, r.Area())
	}
	assert.Equal(t, []float64{400, 10000, -6400, 3600}, areas)
	// Squares that touch in a corner stay two; a hole that touches its ring is a ring of its own.
	two := Union(NonZero, RectPath(Rect{0, 0, 10, 10}), RectPath(Rect{10, 10, 10, 10}))
	assert.Len(t, two.Rings(), 2)
	touching := Difference(NonZero, RectPath(Rect{0, 0, 20, 20}), mustPath("M0 0L10 5L5 10Z"))
	require.Len(t, touching.Rings(), 2)
	assert.InDelta(t, 400-37.5, touching.Area(), 1e-9)
	// Shared edges vanish, and the nodes on them.
	assert.Equal(t, "M0 0L20 0L20 10L0 10Z", Union(NonZero, RectPath(Rect{0, 0, 10, 10}), RectPath(Rect{10, 0, 10, 10})).String())
	assert.True(t, Union(NonZero).Empty())
	assert.True(t, Intersection(NonZero).Empty())
	assert.True(t, Union(NonZero, Path{}, mustPath("M5 5"), mustPath("M1 1L2 2Z"), mustPath("M0 0L0 0Z")).Empty())
	assert.InDelta(t, 50, Union(NonZero, mustPath("M0 0L10 0L10 10")).Area(), 1e-9, "open rings count as closed")
}

func TestPartsTellWhatCoversThem(t *testing.T) {
	parts := Divide(NonZero, RectPath(Rect{0, 10, 30, 10}), RectPath(Rect{10, 0, 10, 30}))
	var got []string
	for _, p := range parts {
		got = append(got, fmt.Sprint(p.Cover, p.Path.Area()))
	}
	assert.Equal(t, []string{"[0] 100", "[1] 100", "[0 1] 100", "[1] 100", "[0] 100"}, got)
}

func mustPath(d string) Path {
	p, err := ParsePath(d)
	if err != nil {
		panic(err)
	}
	return p
}

func TestStrokesAreCutByARegion(t *testing.T) {
	in, out := CutStrokes(mustPath("M-20 0L20 0M-20 30L20 30M-3 0L3 1"), NonZero, EllipsePath(Rect{-10, -10, 20, 20}))
	assert.Equal(t, "M-10 0L10 0M-3 0L3 1", in.String())
	assert.Equal(t, "M-20 0L-10 0M10 0L20 0M-20 30L20 30", out.String())
	// A closed ring is opened where it leaves; a curve stays a curve.
	in, out = CutStrokes(EllipsePath(Rect{-10, -10, 20, 20}), NonZero, RectPath(Rect{0, -20, 20, 40}))
	assert.Equal(t, "M0 -10A10 10 0 0 1 10 0A10 10 0 0 1 0 10", in.String())
	assert.InDelta(t, 10*math.Pi, out.Length(), 1e-6)
	in, out = CutStrokes(RectPath(Rect{2, 2, 3, 3}), NonZero, RectPath(Rect{0, 0, 10, 10}))
	assert.Equal(t, "M2 2L5 2L5 5L2 5Z", in.String())
	assert.True(t, out.Empty())
	r := rand.New(rand.NewPCG(45, 46))
	for range cases(20000, 100) {
		stroke, area := randomCurved(r), randomCurved(r)
		in, out := CutStrokes(stroke, EvenOdd, area)
		require.InEpsilon(t, stroke.Length(), in.Length()+out.Length(), 1e-6)
		for p, want := range map[*Path]bool{&in: true, &out: false} {
			eachCurve(*p, func(c Curve) {
				q := c.At(.37)
				if n, _ := area.Nearest(q); n.Distance > 1e-5 {
					require.Equal(t, want, area.Winding(q)&1 == 1, places(EvenOdd, stroke, area))
				}
			})
		}
	}
}

func starOf(n int, c Point, lo, hi float64, seed uint64) Path {
	return star(rand.New(rand.NewPCG(seed, 1)), c, n, lo, hi)
}

// The outlines that combining is timed on. Results say how many segments the
// arrangement had, since crossings are what costs.
func BenchmarkUnion(b *testing.B) {
	r := rand.New(rand.NewPCG(47, 48))
	spiky := func(n int, c Point) Path {
		var bl Builder
		for i := range n {
			s, co := math.Sincos(float64(i) * 2 * math.Pi / float64(n))
			p := c.Add(Pt(co, s).Mul(50 - 10*float64(i%2)))
			if i == 0 {
				bl.Move(p)
			} else {
				bl.Line(p)
			}
		}
		return bl.Close().Path()
	}
	many := make([]Path, 400)
	for i := range many {
		many[i] = star(r, somewhere(r, 180), 64, 9.99, 10)
	}
	circles := make([]Path, 100)
	for i := range circles {
		c := somewhere(r, 100)
		circles[i] = EllipsePath(Rect{c.X, c.Y, 15, 15})
	}
	for _, c := range []struct {
		name  string
		paths []Path
	}{
		{"200-point outlines", []Path{starOf(200, Pt(0, 0), 47, 50, 1), starOf(200, Pt(15, 5), 47, 50, 2)}},
		{"1000-point spiky stars", []Path{spiky(1000, Pt(0, 0)), spiky(1000, Pt(15, 5))}},
		{"20000-point outlines", []Path{starOf(20000, Pt(0, 0), 49.9, 50, 3), starOf(20000, Pt(15, 5), 49.9, 50, 4)}},
		{"400 64-gons", many},
		{"100 circles", circles},
		{"two circles", circles[:2]},
	} {
		b.Run(c.name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				Union(NonZero, c.paths...)
			}
			b.ReportMetric(float64(len(arrange(inputs(c.paths)).segs)), "segments")
		})
	}
}

// The chord of an arc catches no corner that lies near it and far from the arc.
func TestAnArcIsNotTakenForItsChord(t *testing.T) {
	p := mustPath("M-12.846463203 -3.973876953A15 15 0 0 1 .909632683 .281382561L-9.553364891 -2.955202067Z")
	assert.InDelta(t, 17.899224, Union(NonZero, p).Area(), 1e-4)
	assert.InDelta(t, 17.899224, Union(NonZero, p.Reverse()).Area(), 1e-4)
}

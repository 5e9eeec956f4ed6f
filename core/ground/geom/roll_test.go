package geom

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
)

// bay is a 40 mm square with a bay of n chords of a half round cut into its upper side.
func bay(n int, r float64) Path {
	var b Builder
	b.Move(Pt(0, 0)).Line(Pt(20-r, 0))
	for i := 1; i <= n; i++ {
		s, c := math.Sincos(math.Pi * (1 - float64(i)/float64(n)))
		b.Line(Pt(20+r*c, r*s))
	}
	return b.Line(Pt(40, 0)).Line(Pt(40, 40)).Line(Pt(0, 40)).Close().Path()
}

func polygon(ps []Point) Path {
	var b Builder
	b.Move(ps[0])
	for _, p := range ps[1:] {
		b.Line(p)
	}
	return b.Close().Path()
}

// polar is a ring of n corners whose distance from the middle is a function of the angle.
func polar(n int, at func(i int, a float64) float64) Path {
	ps := make([]Point, n)
	for i := range ps {
		a := 2 * math.Pi * float64(i) / float64(n)
		ps[i] = Pt(math.Cos(a), math.Sin(a)).Mul(at(i, a))
	}
	return polygon(ps)
}

func noisy(r *rand.Rand, n int, noise float64) Path {
	return polar(n, func(_ int, a float64) float64 { return 40 + 10*math.Sin(3*a) + noise*(2*r.Float64()-1) })
}

// wall is a curved strip that is all but closed to a ring, of many chords.
func wall(n int, radius, thick, gap float64) Path {
	var outer, inner []Point
	for i := range n + 1 {
		s, c := math.Sincos(gap + (2*math.Pi-2*gap)*float64(i)/float64(n))
		outer = append(outer, Pt(c, s).Mul(radius+thick))
		inner = append([]Point{Pt(c, s).Mul(radius)}, inner...)
	}
	return polygon(append(outer, inner...))
}

// spiral is a thin strip that winds inward.
func spiral(n int, thick float64) Path {
	var out, in []Point
	for i := range n {
		a := 5 * math.Pi * float64(i) / float64(n)
		s, c := math.Sincos(a)
		rad := 20 - a
		out = append(out, Pt(c, s).Mul(rad))
		in = append([]Point{Pt(c, s).Mul(rad - thick)}, in...)
	}
	return polygon(append(out, in...))
}

// dented are outlines of many short sides with dents of every width.
var dented = map[string]func(r *rand.Rand) Path{
	"bays": func(r *rand.Rand) Path { return bay(3+r.IntN(120), .5+10*r.Float64()) },
	"noise": func(r *rand.Rand) Path {
		return noisy(r, 60+r.IntN(300), math.Pow(10, -3+3*r.Float64()))
	},
	"combs": func(r *rand.Rand) Path {
		deep := 1 + 10*r.Float64()
		return polar(4*(8+r.IntN(40)), func(i int, _ float64) float64 { return 30 - deep*float64(i/2%2) + .2*r.Float64() })
	},
	"caves": func(r *rand.Rand) Path {
		w := wall(20+r.IntN(100), 3+5*r.Float64(), 2+6*r.Float64(), .02+r.Float64())
		return Union(NonZero, w, star(r, Pt(-14, 0), 3+r.IntN(6), 2, 8))
	},
	"walls": func(r *rand.Rand) Path {
		return wall(10+r.IntN(150), 2+20*r.Float64(), math.Pow(10, -3+3*r.Float64()), .02+.5*r.Float64())
	},
	"spirals": func(r *rand.Rand) Path { return spiral(40+r.IntN(200), .05+2*r.Float64()) },
	"tongues": func(r *rand.Rand) Path {
		// Into a bay reaches a tongue from the other side of the square.
		w := .2 + 8*r.Float64()
		tongue := polar(30+r.IntN(60), func(int, float64) float64 { return w / 2 * (.9 + .1*r.Float64()) }).Transform(Shift(20, 9))
		return Union(NonZero, bay(40+r.IntN(60), 10), tongue, RectPath(Rect{19.9, 8, .2, 4}))
	},
	"frames": func(r *rand.Rand) Path {
		hole := noisy(r, 40+r.IntN(200), .5*r.Float64()).Transform(Scale(.5, .5)).Reverse()
		return Join(noisy(r, 40+r.IntN(200), .5*r.Float64()), hole)
	},
	"random walks": func(r *rand.Rand) Path {
		at := 25.0
		return polar(40+r.IntN(200), func(int, float64) float64 {
			at = min(max(at+2*r.NormFloat64(), 5), 45)
			return at
		})
	},
}

// What a rolling disc cannot touch may be left out: an offset keeps its distance from
// outlines of many dents all the same, and covers what it should.
func TestOffsetsOfDentsKeepTheirDistance(t *testing.T) {
	for name, kind := range dented {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(71, uint64(len(name))))
			for range cases(1500, 15) {
				p := kind(r)
				d := math.Pow(10, -1.5+2.6*r.Float64())
				if r.IntN(2) == 0 {
					d = -d
				}
				requireDistance(t, r, p, d)
			}
		})
	}
}

// requireDistance checks that the outline of an offset of what p covers is as far from that
// as it should be, and that it covers what is nearer and nothing else.
func requireDistance(t *testing.T, r *rand.Rand, p Path, d float64) {
	t.Helper()
	clean := Union(NonZero, p)
	got := Offset(p, d, RoundCorner)
	eachCurve(got, func(c Curve) {
		for _, k := range []float64{0, .5} {
			require.InDelta(t, d, away(clean, c.At(k)), .005, "%v of %s\n= %s", d, clean, got)
		}
	})
	box := clean.Bounds().Grow(1.2 * max(d, 1))
	for range 40 {
		q := Pt(box.X+box.W*r.Float64(), box.Y+box.H*r.Float64())
		if a := away(clean, q); math.Abs(a-d) > .01 {
			require.Equal(t, a < d, got.Winding(q) != 0, "%v at %v, %v away, of %s\n= %s", d, q, a, clean, got)
		}
	}
	requireClean(t, got, clean.String())
}

// A bay grown by its own radius is the worst there is: the offsets of all its chords meet
// in one place. By a little less, and by a little more, they nearly do.
func TestABayGrownByItsOwnRadius(t *testing.T) {
	r := rand.New(rand.NewPCG(73, 74))
	for _, n := range []int{2, 7, 16, 31, 64, 257, 1024} {
		for _, more := range []float64{0, 1e-12, -1e-12, 1e-9, -1e-9, 1e-6, -1e-6, 1e-4, -1e-4, .01, -.01, 1} {
			p := bay(n, 5)
			requireDistance(t, r, p, 5+more)
			// The same bay as a hill of the other side: the paper about it shrinks.
			frame := Join(RectPath(Rect{-20, -20, 80, 80}), p.Reverse())
			requireDistance(t, r, frame, -5-more)
		}
	}
}

// Mitred and bevelled corners leave out the chords of a bay too, and nothing else.
func TestMitredBaysAreThoseOfFewChords(t *testing.T) {
	for _, corner := range []Corner{MitreCorner, BevelCorner} {
		for _, n := range []int{16, 40, 300} {
			p := bay(n, 5)
			got := Offset(p, 5.01, corner)
			round := Offset(p, 5.01, RoundCorner)
			// They differ at the corners of the square and where the bay opens alone.
			extra := Xor(NonZero, got, round)
			for _, ring := range extra.Rings() {
				c := ring.Bounds().Centre()
				corner := math.Inf(1)
				for _, q := range []Point{{0, 0}, {40, 0}, {0, 40}, {40, 40}, {15, 0}, {25, 0}} {
					corner = min(corner, q.Sub(c).Len())
				}
				require.Less(t, corner, 9.0, "%d chords, %s", n, ring)
				if corner < 9 && c.Y > 0 && c.Y < 35 && c.X > 5 && c.X < 35 {
					require.Less(t, ring.Area(), 1e-3, "in the bay: %s", ring)
				}
			}
		}
	}
}

// How many curves an offset's raw outline has follows from what is left to be seen.
func TestRawOffsetsOfNoiseAreShort(t *testing.T) {
	r := rand.New(rand.NewPCG(75, 76))
	for _, c := range []struct {
		n     int
		noise float64
		d     float64
	}{{5000, .0075, 1}, {5000, .015, 3}, {20000, .0075, 1}, {5000, .015, -3}} {
		p := noisy(r, c.n, c.noise)
		raw := rawOffset(p, c.d, OffsetOptions{}, false)
		got := Offset(p, c.d, RoundCorner)
		require.Less(t, raw.Len(), got.Len()*11/10+50, fmt.Sprint(c))
	}
}

func BenchmarkOffsetOfDents(b *testing.B) {
	r := rand.New(rand.NewPCG(77, 78))
	for _, c := range []struct {
		name string
		path Path
		d    float64
	}{
		{"bay of 128", bay(128, 5), 5},
		{"bay of 256", bay(256, 5), 5},
		{"5000 with 7.5 µm", noisy(r, 5000, .0075), 1},
		{"5000 with 15 µm", noisy(r, 5000, .015), 3},
		{"20000 with 7.5 µm", noisy(r, 20000, .0075), 1},
		{"million with 1 µm", noisy(r, 1_000_000, .001), 1},
	} {
		b.Run(c.name, func(b *testing.B) {
			for b.Loop() {
				Offset(c.path, c.d, RoundCorner)
			}
		})
	}
}

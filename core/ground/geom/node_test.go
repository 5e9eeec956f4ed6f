package geom

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
)

// touch reports whether two segments have a place in common that is not an end of both; the very same two
// do not.
func touch(s, u seg) bool {
	if s.a == u.a && s.b == u.b || s.a == u.b && s.b == u.a {
		return false
	}
	within := func(p ipoint, o seg) bool {
		v := o.b.sub(o.a)
		k := p.sub(o.a).dot(v)
		return side(o.a, o.b, p) == 0 && k > 0 && k < v.dot(v)
	}
	if within(s.a, u) || within(s.b, u) || within(u.a, s) || within(u.b, s) {
		return true
	}
	a, b, c, d := side(s.a, s.b, u.a), side(s.a, s.b, u.b), side(u.a, u.b, s.a), side(u.a, u.b, s.b)
	return (a > 0 && b < 0 || a < 0 && b > 0) && (c > 0 && d < 0 || c < 0 && d > 0)
}

// tangled are segments that cross closely, on a grid of some coarseness: spiky stars, short loose segments,
// fans, and bundles that run nearly alongside each other.
func tangled(r *rand.Rand, kind int, size int32) (segs []seg) {
	near := func(p ipoint, by int32) ipoint {
		return ipoint{p.x + r.Int32N(2*by+1) - by, p.y + r.Int32N(2*by+1) - by}
	}
	add := func(a, b ipoint) {
		if a != b {
			segs = append(segs, seg{a: a, b: b, t1: 1, strand: int32(len(segs))})
		}
	}
	switch kind {
	case 0:
		for range 2 {
			c, spikes := near(ipoint{}, size/5), 20+r.IntN(20)
			place := func(i int) ipoint {
				sin, cos := math.Sincos(float64(i) * math.Pi / float64(spikes))
				far := float64(size) * (1 - .25*float64(i%2))
				return ipoint{c.x + int32(far*cos), c.y + int32(far*sin)}
			}
			for i := range 2 * spikes {
				add(place(i), place(i+1))
			}
		}
	case 1:
		for range 30 + r.IntN(40) {
			a := near(ipoint{}, size)
			add(a, near(a, size/4))
		}
	case 2:
		for range 4 {
			c := near(ipoint{}, size)
			for range 4 + r.IntN(6) {
				add(c, near(c, size/2))
			}
		}
	default:
		for range 6 {
			a, b := near(ipoint{}, size), near(ipoint{}, size)
			for range 1 + r.IntN(4) {
				add(near(a, 9), near(b, 9))
			}
		}
	}
	return segs
}

// However close segments cross, and however coarse the grid is that their places are rounded to, none meets
// another but at its ends afterwards.
func TestCutSegmentsMeetAtTheirEndsOnly(t *testing.T) {
	r := rand.New(rand.NewPCG(61, 62))
	stop, cuts := &ending{ctx: context.Background()}, 0
	for n := range cases(40000, 300) {
		size := int32([]int{60, 200, 1000, 30_000, 1 << 22}[r.IntN(5)])
		segs := tangled(r, n%4, size)
		var m meets
		before := len(segs)
		out, _ := node(segs, stop, &m)
		cuts += max(0, len(out)-before)
		for i, s := range out {
			require.NotEqual(t, s.a, s.b, "no piece is without length")
			for _, u := range out[:i] {
				require.False(t, touch(s, u), "case %d at size %d: %v and %v", n, size, s, u)
			}
		}
	}
	require.Greater(t, cuts, 1000, "segments are cut")
}

// Where only pieces of segments that were near each other are compared in the second round, the same comes out
// as where all are: of the same tangles, with a coarse one beside them,
// with ends near others, and with slim spikes.
func TestWhatIsNotComparedAgainMeetsNowhere(t *testing.T) {
	r := rand.New(rand.NewPCG(63, 64))
	stop := &ending{ctx: context.Background()}
	for n := range cases(200_000, 3000) {
		var segs []seg
		// Enough for the meets not to be counted, at sizes where crossings just fit between each other.
		size := int32(math.Exp2(11 + 11*r.Float64()))
		for range 3 {
			segs = append(segs, tangled(r, n%4, size)...)
		}
		switch r.IntN(4) {
		case 0: // a small tangle beside it
			shift := ipoint{2 * size, r.Int32N(size)}
			for _, s := range tangled(r, r.IntN(4), 40+r.Int32N(400)) {
				segs = append(segs, seg{s.a.add(shift), s.b.add(shift), 0, 1, 0})
			}
		case 1: // some end about as far from others as crossings are rounded
			for range 60 {
				s := segs[r.IntN(len(segs))]
				v, k := s.b.sub(s.a).float(), r.Float64()
				p := s.a.float().Add(v.Mul(k)).Add(Pt(-v.Y, v.X).Mul((1.5 + 2*r.Float64()) / v.Len()))
				at, far := round(p), round(p.Add(Pt(-v.Y, v.X).Mul(.1*r.Float64())))
				if at != far {
					segs = append(segs, seg{at, far, 0, 1, 0})
				}
			}
		case 2: // slim spikes, with one leg cut where the other is about as far as crossings are rounded
			for range 20 {
				tip := ipoint{3*size + r.Int32N(2*size), r.Int32N(size)}
				long, wide := 60+r.Int32N(400), 8+r.Int32N(20)
				a, b := tip.add(ipoint{long, r.Int32N(9)}), tip.add(ipoint{long, 9 + wide})
				k := (2 + 2*r.Float64()) / float64(wide) * float64(long)
				at := tip.add(ipoint{int32(k), int32(k * float64(a.y-tip.y) / float64(long))})
				segs = append(segs, seg{tip, a, 0, 1, 0}, seg{b, tip, 0, 1, 0},
					seg{at.add(ipoint{r.Int32N(9) - 4, 1}), at.add(ipoint{r.Int32N(9) - 4, -40}), 0, 1, 0})
			}
		}
		again := slices.Clone(segs)
		var m, all meets
		out, _ := node(segs, stop, &m)
		want, _ := nodeBy(again, stop, &all, true)
		require.Equal(t, want, out, "case %d at size %d", n, size)
	}
}

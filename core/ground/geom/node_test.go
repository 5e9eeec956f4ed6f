package geom

import (
	"context"
	"math"
	"math/rand/v2"
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

// However close segments cross, and however coarse the grid is that their places are rounded to, none meets
// another but at its ends afterwards: of spiky stars, short loose segments, fans, and bundles that run nearly
// alongside each other.
func TestCutSegmentsMeetAtTheirEndsOnly(t *testing.T) {
	r := rand.New(rand.NewPCG(61, 62))
	stop, cuts := &ending{ctx: context.Background()}, 0
	for n := range cases(40000, 300) {
		size := int32([]int{60, 200, 1000, 30_000, 1 << 22}[r.IntN(5)])
		near := func(p ipoint, by int32) ipoint {
			return ipoint{p.x + r.Int32N(2*by+1) - by, p.y + r.Int32N(2*by+1) - by}
		}
		var segs []seg
		add := func(a, b ipoint) {
			if a != b {
				segs = append(segs, seg{a: a, b: b, t1: 1, strand: int32(len(segs))})
			}
		}
		switch n % 4 {
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

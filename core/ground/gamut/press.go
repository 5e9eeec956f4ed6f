package gamut

import (
	"math"

	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/ground/light"
)

// Gain is by how much of the paper more than meant a printer covers with cyan, magenta, yellow and
// black where half of it is to be covered, from -maxGain to maxGain; less in lighter and darker
// tones.
type Gain [4]float64

// maxGain is the largest gain by which more ink still covers more.
const maxGain = .25

// Laid is what all colours come out as on a paper when a printer with a gain lays them down: the
// nearest that prints is separated into inks, and what their areas, with their gains, show is seen
// relative to the paper and its black. A paper that is not known is Matt.
func Laid(p Paper, gain Gain) *light.Table {
	s, ok := solids[p]
	if !ok {
		p, s = Matt, solids[Matt]
	}
	g, over := On(p), s.overprints()
	return light.TableOf(func(r, gr, b float64) (float64, float64, float64) {
		c, _ := g.nearest(colorful.Color{R: r, G: gr, B: b})
		l, ca, cb := c.Lab()
		want := lab{100 * l, 100 * ca, 100 * cb}
		cmy, k := over.separate(raised(xyzOf(s.absolute(want))), blackFor(want))
		for i := range cmy {
			cmy[i] = grown(cmy[i], gain[i])
		}
		out := s.relative(labOf(over.shown(over.mixed(cmy, grown(k, gain[3])))))
		shown := colorful.Lab(out[0]/100, out[1]/100, out[2]/100).Clamped()
		return shown.R, shown.G, shown.B
	})
}

// grown is an area with its gain: a parabola that is zero at nothing and at all.
func grown(area, gain float64) float64 {
	return area + 4*min(max(gain, -maxGain), maxGain)*area*(1-area)
}

// blackFor is how much of a colour is laid down in black: the darker and the greyer, the more.
func blackFor(c lab) float64 {
	dark := min(max(1-c[0]/70, 0), 1)
	grey := min(max(1-math.Hypot(c[1], c[2])/60, 0), 1)
	return math.Pow(dark, 1.5) * (.35 + .65*grey)
}

// separate finds the areas of cyan, magenta and yellow that give, with an area of black, what is
// wanted, to the power of 1/spread (Newton's method, held to what can be covered). Where they cannot,
// other areas of black are tried, and what comes nearest is taken.
func (o *overprints) separate(want [3]float64, black float64) (cmy [3]float64, k float64) {
	least := math.Inf(1)
	for _, try := range []float64{black, black * .6, black * .3, 0, black*.6 + .4, 1} {
		at, off := o.solve(want, try)
		if off < least {
			cmy, k, least = at, try, off
		}
		if off < 1e-4 {
			break
		}
	}
	return cmy, k
}

func (o *overprints) solve(want [3]float64, k float64) (at [3]float64, off float64) {
	at = [3]float64{.3, .3, .3}
	const h = 1e-4
	for range 12 {
		is := o.mixed(at, k)
		var rows [3][4]float64
		for i := range 3 {
			to := at
			to[i] += h
			moved := o.mixed(to, k)
			for c := range 3 {
				rows[c][i] = (moved[c] - is[c]) / h
			}
		}
		for c := range 3 {
			rows[c][3] = want[c] - is[c]
		}
		step, ok := solve3(rows)
		if !ok {
			break
		}
		was := at
		for i := range at {
			at[i] = min(max(at[i]+step[i], 0), 1)
		}
		if math.Abs(at[0]-was[0])+math.Abs(at[1]-was[1])+math.Abs(at[2]-was[2]) < 1e-6 {
			break
		}
	}
	for c, v := range o.mixed(at, k) {
		off += (v - want[c]) * (v - want[c])
	}
	return at, math.Sqrt(off)
}

// solve3 solves three equations, each three factors and a sum, by Cramer's rule; ok is false where
// they do not tell.
func solve3(m [3][4]float64) (x [3]float64, ok bool) {
	det := func(a, b, c int) float64 {
		return m[0][a]*(m[1][b]*m[2][c]-m[1][c]*m[2][b]) - m[0][b]*(m[1][a]*m[2][c]-m[1][c]*m[2][a]) + m[0][c]*(m[1][a]*m[2][b]-m[1][b]*m[2][a])
	}
	d := det(0, 1, 2)
	if math.Abs(d) < 1e-12 {
		return x, false
	}
	return [3]float64{det(3, 1, 2) / d, det(0, 3, 2) / d, det(0, 1, 3) / d}, true
}

package cutout

import (
	"math"
)

// rgb is a colour, 0 to 255 a channel.
type rgb = [3]float64

// component is a Gaussian of a mixture.
type component struct {
	weight  float64
	mean    rgb
	inverse [6]float64 // of the covariance: xx, xy, xz, yy, yz, zz
	log     float64    // of weight over the square root of the determinant
}

// mixture says how likely colours are (Rother, Kolmogorov and Blake, GrabCut, 2004).
type mixture []component

// most components of a mixture, and how many colours there are to one at least.
const (
	components = 5
	perOne     = 12
)

// mixtureOf fits a mixture to colours: groups by Lloyd's algorithm, the first the mean of all,
// each further one begun with the colour farthest from those before it.
func mixtureOf(colours []rgb) mixture {
	if len(colours) == 0 {
		return nil
	}
	if len(colours) > 6000 { // enough to tell
		step := len(colours)/6000 + 1
		var few []rgb
		for i := 0; i < len(colours); i += step {
			few = append(few, colours[i])
		}
		colours = few
	}
	k := min(components, len(colours)/perOne+1)
	means := []rgb{mean(colours)}
	for len(means) < k {
		best, which := 0.0, -1
		for i, c := range colours {
			_, d := nearest(means, c)
			if d > best {
				best, which = d, i
			}
		}
		if which < 0 {
			break
		}
		means = append(means, colours[which])
	}
	groups := make([][]rgb, len(means))
	for range 6 {
		for i := range groups {
			groups[i] = groups[i][:0]
		}
		for _, c := range colours {
			i, _ := nearest(means, c)
			groups[i] = append(groups[i], c)
		}
		for i, g := range groups {
			if len(g) > 0 {
				means[i] = mean(g)
			}
		}
	}
	var out mixture
	for _, g := range groups {
		if len(g) > 0 {
			out = append(out, componentOf(g, float64(len(g))/float64(len(colours))))
		}
	}
	return out
}

func mean(of []rgb) (m rgb) {
	for _, c := range of {
		for k := range m {
			m[k] += c[k] / float64(len(of))
		}
	}
	return m
}

// nearest is the nearest of some colours, and the square of how far it is.
func nearest(of []rgb, c rgb) (which int, d float64) {
	d = math.Inf(1)
	for i, m := range of {
		x, y, z := c[0]-m[0], c[1]-m[1], c[2]-m[2]
		if e := x*x + y*y + z*z; e < d {
			which, d = i, e
		}
	}
	return which, d
}

// leastSpread is the variance that every component has at least: cameras have some noise.
const leastSpread = 16

func componentOf(g []rgb, weight float64) component {
	m := mean(g)
	var s [6]float64
	for _, c := range g {
		x, y, z := c[0]-m[0], c[1]-m[1], c[2]-m[2]
		for i, v := range [6]float64{x * x, x * y, x * z, y * y, y * z, z * z} {
			s[i] += v / float64(len(g))
		}
	}
	s[0], s[3], s[5] = s[0]+leastSpread, s[3]+leastSpread, s[5]+leastSpread
	// The inverse of a symmetric matrix by its cofactors.
	xx, xy, xz, yy, yz, zz := s[0], s[1], s[2], s[3], s[4], s[5]
	a, b, c := yy*zz-yz*yz, xz*yz-xy*zz, xy*yz-xz*yy
	det := xx*a + xy*b + xz*c
	return component{weight, m, [6]float64{a / det, b / det, c / det, (xx*zz - xz*xz) / det, (xy*xz - xx*yz) / det, (xx*yy - xy*xy) / det}, math.Log(weight) - .5*math.Log(det)}
}

// unlikely is minus the logarithm of how likely a colour is.
func (m mixture) unlikely(c rgb) float64 {
	best := math.Inf(1)
	for i := range m {
		g := &m[i]
		x, y, z := c[0]-g.mean[0], c[1]-g.mean[1], c[2]-g.mean[2]
		q := g.inverse
		d := q[0]*x*x + q[3]*y*y + q[5]*z*z + 2*(q[1]*x*y+q[2]*x*z+q[4]*y*z)
		best = min(best, .5*d-g.log)
	}
	return best
}

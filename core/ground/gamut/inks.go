package gamut

import (
	"math"

	"github.com/lucasb-eyer/go-colorful"
)

// lab is a colour in CIELAB, L* 0 to 100, a* and b*, relative to the white that it is seen under.
type lab = [3]float64

// inks are the colours of a paper and of solid inks on it: paper, cyan, magenta, yellow, and red,
// green and blue of two of them; black.
type inks struct{ paper, c, m, y, r, g, b, k lab }

// Paper is a kind of paper.
type Paper string

// Photo is a coated paper for photos, Matt an uncoated card.
const (
	Photo Paper = "photo"
	Matt  Paper = "matt"
)

var solids = map[Paper]inks{
	Photo: {paper: lab{95, 0, -2}, c: lab{55, -37, -50}, m: lab{48, 74, -3}, y: lab{91, -5, 93}, r: lab{47, 68, 48}, g: lab{50, -68, 33}, b: lab{24, 17, -46}, k: lab{16, 0, 0}},
	Matt:  {paper: lab{95, 0, -2}, c: lab{60, -26, -44}, m: lab{56, 61, -1}, y: lab{89, -4, 78}, r: lab{54, 55, 26}, g: lab{54, -44, 14}, b: lab{38, 8, -31}, k: lab{31, 1, 1}},
}

// spread is the exponent of Yule and Nielsen: 1 is none, 2 all light.
const spread = 1.8

// overprints are the sixteen ways in which four solid inks lie on each other, as XYZ to the power of
// 1/spread, in which areas add up: bits of the index are cyan, magenta, yellow and black.
type overprints [16][3]float64

func (s inks) overprints() (out overprints) {
	var xyz [8][3]float64
	for i, l := range []lab{s.paper, s.c, s.m, s.b, s.y, s.g, s.r, s.k} {
		xyz[i] = xyzOf(l)
	}
	black := xyzOf(s.k)
	for i := range out {
		for c := range 3 {
			v := xyz[i%8][c]
			if i >= 8 { // as dark as black on paper
				v *= black[c] / xyz[0][c]
			}
			out[i][c] = math.Pow(max(v, 0), 1/spread)
		}
	}
	return out
}

// mixed is what areas of inks give together (Demichel), to the power of 1/spread.
func (o *overprints) mixed(cmy [3]float64, k float64) (out [3]float64) {
	for i, c := range o {
		a := 1.0
		for bit, v := range [4]float64{cmy[0], cmy[1], cmy[2], k} {
			if i>>bit&1 == 1 {
				a *= v
			} else {
				a *= 1 - v
			}
		}
		for n := range out {
			out[n] += a * c[n]
		}
	}
	return out
}

// shown is the XYZ of what is to the power of 1/spread, and raised the other way.
func (o *overprints) shown(c [3]float64) [3]float64 {
	return [3]float64{math.Pow(max(c[0], 0), spread), math.Pow(max(c[1], 0), spread), math.Pow(max(c[2], 0), spread)}
}

func raised(c [3]float64) [3]float64 {
	return [3]float64{math.Pow(max(c[0], 0), 1/spread), math.Pow(max(c[1], 0), 1/spread), math.Pow(max(c[2], 0), 1/spread)}
}

// relative takes the white of the paper to white and its black to black, as eyes do.
func (s inks) relative(c lab) lab {
	l := (c[0] - s.k[0]) / (s.paper[0] - s.k[0]) * 100
	a, b := s.tint(l)
	return lab{l, c[1] - a, c[2] - b}
}

// absolute is the colour that relative takes to another.
func (s inks) absolute(c lab) lab {
	a, b := s.tint(c[0])
	return lab{s.k[0] + c[0]/100*(s.paper[0]-s.k[0]), c[1] + a, c[2] + b}
}

// tint is that of the paper, as far as the paper is seen at a relative lightness, and that of the
// black.
func (s inks) tint(l float64) (a, b float64) {
	t := min(max(l/100, 0), 1)
	return s.paper[1]*t + s.k[1]*(1-t), s.paper[2]*t + s.k[2]*(1-t)
}

// xyzOf and labOf are CIELAB to XYZ and back, with white at 1.
func xyzOf(c lab) [3]float64 {
	x, y, z := colorful.LabToXyz(c[0]/100, c[1]/100, c[2]/100)
	return [3]float64{x, y, z}
}

func labOf(c [3]float64) lab {
	l, a, b := colorful.XyzToLab(c[0], c[1], c[2])
	return lab{100 * l, 100 * a, 100 * b}
}

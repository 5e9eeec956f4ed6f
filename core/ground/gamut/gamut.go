// Package gamut tells which colours a printer can lay down on a paper, and what becomes of the
// others. Solid inks and their overprints are those of ISO 12647-2:2004 (paper types 1 and 4); what
// lies between follows from the areas that they cover (Neugebauer, 1937; Demichel) with the spread
// of light in paper (Yule and Nielsen, 1951).
package gamut

import (
	"math"
	"sync"

	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/ground/light"
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

// Gamut is what can be printed on a paper: by lightness and hue, the strongest chroma. Whites and
// blacks are taken relative to those of the paper.
type Gamut struct {
	most  [lights][hues]float64
	table func() *light.Table
}

// The gamut is told at so many lightnesses and hues.
const (
	lights = 51
	hues   = 72
)

var (
	made  = map[Paper]*Gamut{}
	mutex sync.Mutex
)

// On is the gamut of a paper; one that is not known is Matt.
func On(p Paper) *Gamut {
	mutex.Lock()
	defer mutex.Unlock()
	if _, ok := solids[p]; !ok {
		p = Matt
	}
	if made[p] == nil {
		made[p] = of(solids[p])
	}
	return made[p]
}

// of samples what two inks and black give, which are the strongest colours of every hue: a third ink
// only greys them.
func of(s inks) *Gamut {
	g := &Gamut{}
	var xyz [16][3]float64
	for i, l := range []lab{s.paper, s.c, s.m, s.b, s.y, s.g, s.r, s.k} {
		xyz[i] = xyzOf(l)
	}
	for i := range 8 { // with black over it, as dark as black on paper
		for c := range 3 {
			xyz[8+i][c] = xyz[i][c] * xyzOf(s.k)[c] / xyz[0][c]
		}
	}
	const n = 14
	for pair := range 3 {
		for i := range n + 1 {
			for j := range n + 1 {
				for k := range n + 1 {
					var cmy [3]float64
					cmy[pair], cmy[(pair+1)%3] = float64(i)/n, float64(j)/n
					g.note(s.relative(labOf(mixed(xyz, cmy, float64(k)/n))))
				}
			}
		}
	}
	g.smooth()
	g.table = sync.OnceValue(func() *light.Table {
		return light.TableOf(func(r, gr, b float64) (float64, float64, float64) {
			c, _ := g.nearest(colorful.Color{R: r, G: gr, B: b})
			return c.R, c.G, c.B
		})
	})
	return g
}

// mixed is what areas of inks give together: bits of the index of a colour are cyan, magenta and
// yellow, and black.
func mixed(xyz [16][3]float64, cmy [3]float64, k float64) (out [3]float64) {
	for i, c := range xyz {
		a := 1.0
		for bit, v := range [4]float64{cmy[0], cmy[1], cmy[2], k} {
			if i>>bit&1 == 1 {
				a *= v
			} else {
				a *= 1 - v
			}
		}
		for n := range out {
			out[n] += a * math.Pow(max(c[n], 0), 1/spread)
		}
	}
	for n := range out {
		out[n] = math.Pow(out[n], spread)
	}
	return out
}

// relative takes the white of the paper to white and its black to black, as eyes do.
func (s inks) relative(c lab) lab {
	l := (c[0] - s.k[0]) / (s.paper[0] - s.k[0]) * 100
	// The tint of the paper goes as far as the paper is seen.
	t := min(max(l/100, 0), 1)
	return lab{l, c[1] - s.paper[1]*t, c[2] - s.paper[2]*t}
}

// note takes a colour that can be printed into account.
func (g *Gamut) note(c lab) {
	if c[0] < 0 || c[0] > 100 {
		return
	}
	at := &g.most[int(c[0]/100*(lights-1)+.5)][hueOf(c)]
	*at = max(*at, math.Hypot(c[1], c[2]))
}

func hueOf(c lab) int {
	h := math.Atan2(c[2], c[1]) / (2 * math.Pi) * hues
	return (int(math.Floor(h+.5)) + hues) % hues
}

// smooth fills hues and lightnesses that no sample fell on with the means of those beside them.
func (g *Gamut) smooth() {
	for range 6 {
		was := g.most
		for l := range lights {
			for h := range hues {
				sum, n := 0.0, 0.0
				for _, d := range [4][2]int{{-1, 0}, {1, 0}, {0, -1}, {0, 1}} {
					u, v := l+d[0], (h+d[1]+hues)%hues
					if u >= 0 && u < lights {
						sum, n = sum+was[u][v], n+1
					}
				}
				if m := sum / n; m > was[l][h] {
					g.most[l][h] = m
				}
			}
		}
	}
	for h := range hues {
		g.most[0][h], g.most[lights-1][h] = 0, 0
	}
}

// chroma is the strongest of a lightness and a hue, radians.
func (g *Gamut) chroma(l, hue float64) float64 {
	y := min(max(l, 0), 100) / 100 * (lights - 1)
	x := math.Mod(hue/(2*math.Pi)*hues+hues, hues)
	l0, h0 := min(int(y), lights-2), int(x)%hues
	u, v := y-float64(l0), x-math.Floor(x)
	h1 := (h0 + 1) % hues
	return (g.most[l0][h0]*(1-v)+g.most[l0][h1]*v)*(1-u) + (g.most[l0+1][h0]*(1-v)+g.most[l0+1][h1]*v)*u
}

// Prints is what becomes of an sRGB colour on the paper, and how far that is off (CIEDE2000): the
// colour itself where it can be printed; else the nearest one of its hue that can.
func (g *Gamut) Prints(r, gr, b uint8) (pr, pg, pb uint8, off float64) {
	c, off := g.nearest(colorful.Color{R: float64(r) / 255, G: float64(gr) / 255, B: float64(b) / 255})
	pr, pg, pb = c.Clamped().RGB255()
	return pr, pg, pb, off
}

// Table is what becomes of all colours.
func (g *Gamut) Table() *light.Table { return g.table() }

func (g *Gamut) nearest(c colorful.Color) (colorful.Color, float64) {
	l, a, b := c.Lab()
	l, a, b = 100*l, 100*a, 100*b
	own, hue := math.Hypot(a, b), math.Atan2(b, a)
	if own <= g.chroma(l, hue)+.5 {
		return c, 0
	}
	at := func(l, chroma float64) colorful.Color {
		return colorful.Lab(l/100, chroma*math.Cos(hue)/100, chroma*math.Sin(hue)/100)
	}
	off := func(l float64) float64 {
		return 100 * c.DistanceCIEDE2000(at(l, min(own, g.chroma(l, hue))))
	}
	// The edge of the gamut is searched along lightness, first roughly, then finely.
	best, least := l, math.Inf(1)
	for k := range 26 {
		if d := off(float64(k) * 4); d < least {
			best, least = float64(k)*4, d
		}
	}
	for step := 2.0; step > .1; step /= 2 {
		for _, to := range []float64{best - step, best + step} {
			if to >= 0 && to <= 100 {
				if d := off(to); d < least {
					best, least = to, d
				}
			}
		}
	}
	return at(best, min(own, g.chroma(best, hue))), least
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

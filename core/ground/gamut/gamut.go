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

// Gamut is what can be printed on a paper: by lightness and hue, the strongest chroma. Whites and
// blacks are taken relative to those of the paper.
type Gamut struct {
	most  [lights][hues]float64
	lays  func(colorful.Color) colorful.Color // by a profile; nil for the nearest that prints
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
	over := s.overprints()
	const n = 14
	for pair := range 3 {
		for i := range n + 1 {
			for j := range n + 1 {
				for k := range n + 1 {
					var cmy [3]float64
					cmy[pair], cmy[(pair+1)%3] = float64(i)/n, float64(j)/n
					g.note(s.relative(labOf(over.shown(over.mixed(cmy, float64(k)/n)))))
				}
			}
		}
	}
	g.finish()
	return g
}

// finish fills what no sample fell on, and makes the table ready.
func (g *Gamut) finish() {
	g.smooth()
	g.table = sync.OnceValue(func() *light.Table {
		return light.TableOf(func(r, gr, b float64) (float64, float64, float64) {
			c := colorful.Color{R: r, G: gr, B: b}
			to, _ := g.nearest(c)
			if g.lays != nil && to != c {
				to = g.lays(c)
			}
			return to.R, to.G, to.B
		})
	})
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
	c, off := g.nearest(rgb(r, gr, b))
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

package cutout

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"sync"

	"golang.org/x/image/vector"

	"sectilis/core/ground/geom"
)

// composite is a picture made of a subject of which it is known how much of each pixel it covers,
// over a ground.
type composite struct {
	name   string
	soft   bool // fur, hair, glass
	img    *image.NRGBA
	alpha  []float64
	colour func(i int) rgb // of the subject
	ground func(i int) rgb
	inside []geom.Point // a stroke on the subject, in shares
	w, h   int
}

const sceneW, sceneH = 640, 480

// scenes are fruits, leaves, fur, hair and glass over plain or patterned grounds, fifteen of each.
var scenes = sync.OnceValue(func() (out []composite) {
	r := rand.New(rand.NewPCG(30, 17))
	for i := range 30 {
		kind := []string{"fruit", "leaves", "fur", "hair", "glass"}[i%5]
		plain := i < 15
		c := composite{name: kind, soft: kind == "fur" || kind == "hair" || kind == "glass", w: sceneW, h: sceneH}
		c.alpha = make([]float64, sceneW*sceneH)
		at := geom.Pt(250+140*r.Float64(), 200+80*r.Float64())
		size := 90 + 50*r.Float64()
		c.inside = []geom.Point{{X: (at.X - size*.45) / sceneW, Y: at.Y / sceneH}, {X: at.X / sceneW, Y: (at.Y + size*.2) / sceneH}, {X: (at.X + size*.45) / sceneW, Y: at.Y / sceneH}}
		mask := image.NewAlpha(image.Rect(0, 0, sceneW, sceneH))
		draw := func(p geom.Path) { fill(mask, p) }
		blob(r, at, size, kind == "leaves", draw)
		switch kind {
		case "fur", "hair":
			n, length, wide := 3000, .14, 1.3
			if kind == "hair" {
				n, length, wide = 700, .45, .9
			}
			for range n {
				a := 2 * math.Pi * r.Float64()
				from := at.Add(geom.Pt(math.Cos(a), math.Sin(a)).Mul(size * (.82 + .12*r.Float64())))
				b := a + .7*(r.Float64()-.5)
				to := from.Add(geom.Pt(math.Cos(b), math.Sin(b)).Mul(size * length * (.4 + r.Float64())))
				draw(hair(from, to, wide))
			}
		}
		for k, v := range mask.Pix {
			c.alpha[k] = float64(v) / 255
		}
		if kind == "glass" {
			c.alpha = blurred(c.alpha, 5)
		}
		hue := 360 * r.Float64()
		// Every third is on a ground of a colour that is like its own.
		other := hue + 140 + 80*r.Float64()
		if i%3 == 2 {
			other = hue + 38
		}
		c.colour = shaded(r, hue, .5, false)
		c.ground = shaded(r, other, .75, plain)
		c.img = image.NewNRGBA(image.Rect(0, 0, sceneW, sceneH))
		for k, a := range c.alpha {
			f, b := c.colour(k), c.ground(k)
			for ch := range 3 {
				c.img.Pix[4*k+ch] = uint8(min(max(f[ch]*a+b[ch]*(1-a)+1.2*r.NormFloat64(), 0), 255))
			}
			c.img.Pix[4*k+3] = 255
		}
		out = append(out, c)
	}
	return out
})

// shaded is a colour that becomes lighter across, with marks of its own unless it is plain.
func shaded(r *rand.Rand, hue, light float64, plain bool) func(i int) rgb {
	base := ofHue(hue, light)
	var spots [14][4]float64
	for i := range spots {
		spots[i] = [4]float64{sceneW * r.Float64(), sceneH * r.Float64(), 8 + 22*r.Float64(), .7 + .5*r.Float64()}
	}
	return func(i int) rgb {
		if plain {
			return base
		}
		x, y := float64(i%sceneW), float64(i/sceneW)
		k := .85 + .3*y/sceneH + .04*math.Sin(x/9)*math.Sin(y/13)
		for _, s := range spots {
			if math.Hypot(x-s[0], y-s[1]) < s[2] {
				k *= s[3]
			}
		}
		return rgb{min(base[0]*k, 255), min(base[1]*k, 255), min(base[2]*k, 255)}
	}
}

func ofHue(hue, light float64) rgb {
	f := func(off float64) float64 {
		return 255 * (light + .28*math.Cos((hue+off)*math.Pi/180))
	}
	return rgb{min(f(0), 255), min(f(-120), 255), min(f(120), 255)}
}

// blob draws a round form with a few waves, or several pointed leaves.
func blob(r *rand.Rand, at geom.Point, size float64, leaves bool, draw func(geom.Path)) {
	if leaves {
		for k := range 7 {
			a := 2*math.Pi*float64(k)/7 + r.Float64()*.4
			tip := at.Add(geom.Pt(math.Cos(a), math.Sin(a)).Mul(size * 1.15))
			side := geom.Pt(-math.Sin(a), math.Cos(a)).Mul(size * .34)
			mid := at.Lerp(tip, .45)
			var b geom.Builder
			draw(b.Move(at).Quad(mid.Add(side), tip).Quad(mid.Sub(side), at).Close().Path())
		}
	}
	var b geom.Builder
	n := 180
	p1, p2 := 6.28*r.Float64(), 6.28*r.Float64()
	for i := range n {
		a := 2 * math.Pi * float64(i) / float64(n)
		rad := size * (1 + .06*math.Sin(3*a+p1) + .03*math.Sin(7*a+p2))
		if leaves {
			rad *= .55
		}
		p := at.Add(geom.Pt(rad*math.Cos(a), rad*math.Sin(a)))
		if i == 0 {
			b.Move(p)
		} else {
			b.Line(p)
		}
	}
	draw(b.Close().Path())
}

// hair is a line that runs to a point.
func hair(from, to geom.Point, wide float64) geom.Path {
	d := to.Sub(from)
	side := geom.Pt(-d.Y, d.X).Mul(wide / 2 / max(d.Len(), 1e-6))
	var b geom.Builder
	return b.Move(from.Add(side)).Line(to).Line(from.Sub(side)).Close().Path()
}

func fill(to *image.Alpha, p geom.Path) {
	box := p.Bounds().Grow(2)
	x0, y0 := max(int(box.X), 0), max(int(box.Y), 0)
	x1, y1 := min(int(box.Right())+1, sceneW), min(int(box.Bottom())+1, sceneH)
	if x1 <= x0 || y1 <= y0 {
		return
	}
	r := vector.NewRasterizer(x1-x0, y1-y0)
	for _, l := range p.Flatten(.05) {
		for i, q := range l.Points {
			if i == 0 {
				r.MoveTo(float32(q.X)-float32(x0), float32(q.Y)-float32(y0))
			} else {
				r.LineTo(float32(q.X)-float32(x0), float32(q.Y)-float32(y0))
			}
		}
		r.ClosePath()
	}
	r.Draw(to, image.Rect(x0, y0, x1, y1), image.NewUniform(color.Opaque), image.Point{})
}

// blurred is values after means of a few pixels, three times.
func blurred(v []float64, r int) []float64 {
	for range 3 {
		for _, way := range [][2]int{{1, sceneW}, {sceneW, 1}} {
			out := make([]float64, len(v))
			for i := range v {
				sum, n := 0.0, 0.0
				for k := -r; k <= r; k++ {
					j := i + k*way[0]
					if j >= 0 && j < len(v) && (way[0] != 1 || j/sceneW == i/sceneW) {
						sum, n = sum+v[j], n+1
					}
				}
				out[i] = sum / n
			}
			v = out
		}
	}
	return v
}

package shape

import (
	"math"

	"sectilis/core/ground/geom"
)

// half is an outline through the points of its right half, mirrored to the left: cubics from the
// middle of its top to that of its foot, six numbers each.
func half(w, h, top float64, cubics ...float64) geom.Path {
	var b geom.Builder
	b.Move(geom.Pt(0, top))
	for i := 0; i < len(cubics); i += 6 {
		b.Cubic(geom.Pt(cubics[i], cubics[i+1]), geom.Pt(cubics[i+2], cubics[i+3]), geom.Pt(cubics[i+4], cubics[i+5]))
	}
	for i := len(cubics) - 6; i >= 0; i -= 6 {
		to := geom.Pt(0, top)
		if i > 0 {
			to = geom.Pt(-cubics[i-2], cubics[i-1])
		}
		b.Cubic(geom.Pt(-cubics[i+2], cubics[i+3]), geom.Pt(-cubics[i], cubics[i+1]), to)
	}
	return fitted(b.Close().Path(), w, h)
}

func heart(w, h float64) geom.Path {
	return half(w, h, .25, .08, -.05, .5, -.12, .5, .3, .5, .6, .15, .8, 0, 1)
}

func drop(w, h float64) geom.Path {
	return half(w, h, 0, .1, .25, .5, .45, .5, .75, .5, .93, .28, 1.05, 0, 1.05)
}

func egg(w, h float64) geom.Path { return half(w, h, 0, .3, 0, .5, .4, .5, .65, .5, .86, .28, 1, 0, 1) }

// star has five points.
func star(w, h float64) geom.Path {
	var xy []float64
	for i := range 10 {
		a, r := -math.Pi/2+float64(i)*math.Pi/5, 1.
		if i%2 == 1 {
			r = .45
		}
		xy = append(xy, r*math.Cos(a), r*math.Sin(a))
	}
	return fitted(ring(xy...), w, h)
}

// arch is round at its top.
func arch(w, h float64) geom.Path {
	l, t := -w/2, -h/2
	r := min(w/2, h*.9)
	var p geom.Builder
	p.Move(geom.Pt(l, -t)).Line(geom.Pt(l, t+r))
	p.Arc(geom.Pt(0, t+r), w/2, r, math.Pi, 2*math.Pi)
	return p.Line(geom.Pt(-l, -t)).Close().Path()
}

// lancet runs to a point at its top.
func lancet(w, h float64) geom.Path {
	l, t := -w/2, -h/2
	s := min(w*.9, h*.9)
	var p geom.Builder
	p.Move(geom.Pt(l, -t)).Line(geom.Pt(l, t+s)).Cubic(geom.Pt(l, t+s*.5), geom.Pt(l*.45, t+s*.16), geom.Pt(0, t)).
		Cubic(geom.Pt(-l*.45, t+s*.16), geom.Pt(-l, t+s*.5), geom.Pt(-l, t+s)).Line(geom.Pt(-l, -t))
	return p.Close().Path()
}

// house has a gable.
func house(w, h float64) geom.Path {
	l, t := -w/2, -h/2
	d := min(w*.4, h*.5)
	return ring(l, t+d, 0, t, -l, t+d, -l, -t, l, -t)
}

func shield(w, h float64) geom.Path {
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l, t)).Line(geom.Pt(-l, t+h*.45)).
		Cubic(geom.Pt(-l, t+h*.74), geom.Pt(-l*.4, t+h*.9), geom.Pt(0, -t)).
		Cubic(geom.Pt(l*.4, t+h*.9), geom.Pt(l, t+h*.74), geom.Pt(l, t+h*.45))
	return p.Close().Path()
}

// tail is how far a label for speech points down.
func tail(w, h float64) float64 { return min(h*.28, w*.3, 10) }

func spoken(body geom.Path, w, h float64) geom.Path {
	mid := -tail(w, h) / 2
	return geom.Union(geom.NonZero, body, ring(w*.04, mid, -w*.3, h/2, -w*.24, mid))
}

// speech and bubble are labels for what somebody says, square and round.
func speech(w, h float64) geom.Path {
	box := geom.Rect{X: -w / 2, Y: -h / 2, W: w, H: h - tail(w, h)}
	return spoken(geom.RoundRectPath(box, min(box.W, box.H)*.18), w, h)
}

func bubble(w, h float64) geom.Path {
	return spoken(geom.EllipsePath(geom.Rect{X: -w / 2, Y: -h / 2, W: w, H: h - tail(w, h)}), w, h)
}

// dome is half an ellipse.
func dome(w, h float64) geom.Path {
	var p geom.Builder
	p.Move(geom.Pt(-w/2, h/2))
	p.Arc(geom.Pt(0, h/2), w/2, h, math.Pi, 2*math.Pi)
	return p.Close().Path()
}

func triangle(w, h float64) geom.Path { return ring(0, -h/2, w/2, h/2, -w/2, h/2) }

// bookmark has a notch in its foot.
func bookmark(w, h float64) geom.Path {
	l, t := -w/2, -h/2
	return ring(l, t, -l, t, -l, -t, 0, -t-min(w*.4, h*.25), l, -t)
}

// divider has a tab at its top.
func divider(w, h float64) geom.Path {
	l, t := -w/2, -h/2
	d := min(h*.2, w*.2, 8)
	return ring(l, t+d, l+w*.08, t+d, l+w*.12, t, l+w*.38, t, l+w*.42, t+d, -l, t+d, -l, -t, l, -t)
}

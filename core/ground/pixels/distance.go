package pixels

import (
	"context"
	"math"
)

// Distance is how far the middle of each pixel is from the middle of the nearest one for which of
// is true, in pixels; as far as can be where there is none (Felzenszwalb and Huttenlocher, Distance
// transforms of sampled functions, 2012). It returns the error of the context.
func Distance(ctx context.Context, w, h int, of func(i int) bool) (Plane, error) {
	out := NewPlane(w, h)
	const far = 1e12
	for i := range out.V {
		if !of(i) {
			out.V[i] = far
		}
	}
	err := Rows(ctx, w, func(x0, x1 int) {
		x := 0
		column := envelope(h, func(k int) *float32 { return &out.V[k*w+x] })
		for x = x0; x < x1; x++ {
			column()
		}
	})
	if err != nil {
		return out, err
	}
	return out, Rows(ctx, h, func(y0, y1 int) {
		y := 0
		row := envelope(w, func(k int) *float32 { return &out.V[y*w+k] })
		for y = y0; y < y1; y++ {
			row()
			for x := range w {
				out.V[y*w+x] = float32(math.Sqrt(float64(out.V[y*w+x])))
			}
		}
	})
}

// envelope makes, each time it is called, of the n values of a line the least of all parabolas that
// stand on them.
func envelope(n int, at func(k int) *float32) func() {
	f, hull, from := make([]float64, n), make([]int, n), make([]float64, n+1)
	return func() {
		for k := range f {
			f[k] = float64(*at(k))
		}
		top := 0
		hull[0], from[0], from[1] = 0, math.Inf(-1), math.Inf(1)
		for q := 1; q < n; {
			p := hull[top]
			s := (f[q] + float64(q*q) - f[p] - float64(p*p)) / float64(2*(q-p))
			if s <= from[top] {
				top--
				continue
			}
			top++
			hull[top], from[top], from[top+1] = q, s, math.Inf(1)
			q++
		}
		k := 0
		for q := range n {
			for from[k+1] < float64(q) {
				k++
			}
			d := float64(q - hull[k])
			*at(q) = float32(d*d + f[hull[k]])
		}
	}
}

// Sample is a value between the pixels' middles, in a line between four of them; past the edge the
// last one is repeated.
func (p Plane) Sample(x, y float64) float32 {
	x, y = min(max(x-.5, 0), float64(p.W-1)), min(max(y-.5, 0), float64(p.H-1))
	x0, y0 := int(x), int(y)
	x1, y1 := min(x0+1, p.W-1), min(y0+1, p.H-1)
	u, v := float32(x-float64(x0)), float32(y-float64(y0))
	a, b := p.V[y0*p.W+x0], p.V[y0*p.W+x1]
	c, d := p.V[y1*p.W+x0], p.V[y1*p.W+x1]
	return (a*(1-u)+b*u)*(1-v) + (c*(1-u)+d*u)*v
}

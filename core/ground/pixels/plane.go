package pixels

import (
	"context"
	"image"
	"math"
)

// Plane is one value for each pixel.
type Plane struct {
	W, H int
	V    []float32
}

// NewPlane is one of zeros.
func NewPlane(w, h int) Plane { return Plane{w, h, make([]float32, w*h)} }

// PlaneOf is what a function says of the pixels of a picture: red, green, blue and alpha. It
// returns the error of the context.
func PlaneOf(ctx context.Context, img *image.NRGBA, of func(p []uint8) float32) (Plane, error) {
	out := NewPlane(img.Rect.Dx(), img.Rect.Dy())
	err := Rows(ctx, out.H, func(from, to int) {
		for y := from; y < to; y++ {
			row, to := img.Pix[y*img.Stride:], out.V[y*out.W:]
			for x := range out.W {
				to[x] = of(row[4*x : 4*x+4])
			}
		}
	})
	return out, err
}

// Light is the luminance of an sRGB pixel as it is seen, 0 to 255 (ITU-R BT.601).
func Light(p []uint8) float32 {
	return .299*float32(p[0]) + .587*float32(p[1]) + .114*float32(p[2])
}

// Mean makes each value the mean of the square about it that reaches r pixels to each side; past
// the edge the last value is repeated. It returns the error of the context.
func (p Plane) Mean(ctx context.Context, r int) error {
	if r < 1 {
		return ctx.Err()
	}
	k := 1 / float32(2*r+1)
	err := Rows(ctx, p.H, func(from, to int) {
		line := make([]float32, p.W)
		for y := from; y < to; y++ {
			row := p.V[y*p.W : (y+1)*p.W]
			copy(line, row)
			sum := float64(0)
			for i := -r; i <= r; i++ {
				sum += float64(line[min(max(i, 0), p.W-1)])
			}
			for x := range row {
				row[x] = float32(sum) * k
				sum += float64(line[min(x+r+1, p.W-1)]) - float64(line[max(x-r, 0)])
			}
		}
	})
	if err != nil {
		return err
	}
	// Columns, some side by side, since their values lie so.
	const wide = 32
	return Rows(ctx, (p.W+wide-1)/wide, func(from, to int) {
		lines := make([]float32, wide*p.H)
		for block := from; block < to; block++ {
			x0, x1 := block*wide, min((block+1)*wide, p.W)
			n := x1 - x0
			var sum [wide]float64
			for y := range p.H {
				copy(lines[y*n:(y+1)*n], p.V[y*p.W+x0:y*p.W+x1])
			}
			for i := -r; i <= r; i++ {
				for c, v := range lines[min(max(i, 0), p.H-1)*n:][:n] {
					sum[c] += float64(v)
				}
			}
			for y := range p.H {
				in, out := lines[min(y+r+1, p.H-1)*n:][:n], lines[max(y-r, 0)*n:][:n]
				row := p.V[y*p.W+x0 : y*p.W+x1]
				for c := range row {
					row[c] = float32(sum[c]) * k
					sum[c] += float64(in[c]) - float64(out[c])
				}
			}
		}
	})
}

// Blur is about what a Gaussian of a standard deviation in pixels does: three means one after
// the other (Kovesi, Fast almost-Gaussian filtering, 2010). It returns the error of the context.
func (p Plane) Blur(ctx context.Context, sigma float64) error {
	if sigma <= .2 {
		return ctx.Err()
	}
	const passes = 3
	ideal := math.Sqrt(12*sigma*sigma/passes + 1)
	small := int(ideal)
	if small%2 == 0 {
		small--
	}
	s := float64(small)
	first := int(math.Round((12*sigma*sigma - passes*s*s - 4*passes*s - 3*passes) / (-4*s - 4)))
	for i := range passes {
		r := small / 2
		if i >= first {
			r++
		}
		if err := p.Mean(ctx, r); err != nil {
			return err
		}
	}
	return nil
}

// Guided smooths p where a guide is smooth and keeps its edges: at each place the line through
// the values in the square about it that fits p by the guide, the means of all lines there. r is
// in pixels, eps the variance of the guide below which it counts as smooth (He, Sun and Tang,
// Guided image filtering, 2010). It returns the error of the context.
func (p Plane) Guided(ctx context.Context, guide Plane, r int, eps float32) error {
	ip, ii, mean := NewPlane(p.W, p.H), NewPlane(p.W, p.H), NewPlane(p.W, p.H)
	for i, v := range p.V {
		g := guide.V[i]
		ip.V[i], ii.V[i], mean.V[i] = g*v, g*g, g
	}
	for _, q := range []Plane{p, ip, ii, mean} {
		if err := q.Mean(ctx, r); err != nil {
			return err
		}
	}
	for i := range p.V {
		a := (ip.V[i] - mean.V[i]*p.V[i]) / (max(ii.V[i]-mean.V[i]*mean.V[i], 0) + eps)
		ip.V[i], p.V[i] = a, p.V[i]-a*mean.V[i]
	}
	for _, q := range []Plane{ip, p} {
		if err := q.Mean(ctx, r); err != nil {
			return err
		}
	}
	for i := range p.V {
		p.V[i] += ip.V[i] * guide.V[i]
	}
	return nil
}

// Spread makes each value the largest, or else the smallest, of the octagon about it that reaches r
// pixels. It returns the error of the context.
func (p Plane) Spread(ctx context.Context, r int, largest bool) error {
	pick := func(a, b float32) float32 {
		if (a > b) == largest {
			return a
		}
		return b
	}
	was := make([]float32, len(p.V))
	// A cross and a square in turn grow to an octagon.
	for step := range r {
		copy(was, p.V)
		square := step%5 == 1 || step%5 == 3
		err := Rows(ctx, p.H, func(from, to int) {
			for y := from; y < to; y++ {
				up, down := max(y-1, 0)*p.W, min(y+1, p.H-1)*p.W
				for x := range p.W {
					left, right := max(x-1, 0), min(x+1, p.W-1)
					v := pick(pick(was[y*p.W+left], was[y*p.W+right]), pick(was[up+x], was[down+x]))
					if square {
						v = pick(v, pick(pick(was[up+left], was[up+right]), pick(was[down+left], was[down+right])))
					}
					p.V[y*p.W+x] = pick(was[y*p.W+x], v)
				}
			}
		})
		if err != nil {
			return err
		}
	}
	return nil
}

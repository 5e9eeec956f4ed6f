package infill

import (
	"context"
	"image"
	"math"
	"math/rand/v2"

	"sectilis/core/ground/pixels"
)

// passes is how often a match is propagated and sought at random, from either end in turn.
const passes = 4

// match finds, for each patch that touches the hole, one without any that it is most like.
func (l *level) match(ctx context.Context, r *rand.Rand) error {
	for _, i := range l.todo {
		l.far[i] = l.apart(int(i), int(l.from[i]), math.MaxFloat32)
	}
	for pass := range passes {
		if err := ctx.Err(); err != nil {
			return err
		}
		for k := range l.todo {
			i := int(l.todo[k])
			step := 1
			if pass%2 == 1 {
				i, step = int(l.todo[len(l.todo)-1-k]), -1
			}
			x, y := i%l.w, i/l.w
			// The neighbour's match, shifted by as much.
			if u := x - step; u >= 0 && u < l.w {
				l.try(i, i-step, step)
			}
			if v := y - step; v >= 0 && v < l.h {
				l.try(i, i-step*l.w, step*l.w)
			}
			for span := max(l.w, l.h); span >= 1; span /= 2 {
				j := int(l.from[i])
				u, v := j%l.w+r.IntN(2*span+1)-span, j/l.w+r.IntN(2*span+1)-span
				if u >= 0 && v >= 0 && u < l.w && v < l.h {
					l.better(i, v*l.w+u)
				}
			}
		}
	}
	return nil
}

// try takes over the match of a neighbour that touches the hole too.
func (l *level) try(i, neighbour, by int) {
	if l.far[neighbour] == 0 && l.from[neighbour] == 0 {
		return
	}
	if j := int(l.from[neighbour]) + by; j >= 0 && j < len(l.c) {
		l.better(i, j)
	}
}

func (l *level) better(i, j int) {
	if !l.clear[j] {
		return
	}
	if d := l.apart(i, j, l.far[i]); d < l.far[i] {
		l.from[i], l.far[i] = int32(j), d
	}
}

// apart is how different two patches are: the mean of the squares of what pixels differ by. It
// stops where that is more than most.
func (l *level) apart(i, j int, most float32) float32 {
	x, y := i%l.w, i/l.w
	u0, u1 := max(-reach, -x), min(reach, l.w-1-x)
	v0, v1 := max(-reach, -y), min(reach, l.h-1-y)
	n := float32((u1 - u0 + 1) * (v1 - v0 + 1))
	limit, sum := most*n, float32(0)
	for v := v0; v <= v1; v++ {
		a, b := l.c[i+v*l.w+u0:i+v*l.w+u1+1], l.c[j+v*l.w+u0:j+v*l.w+u1+1]
		for k := range a {
			r, g, bl := a[k][0]-b[k][0], a[k][1]-b[k][1], a[k][2]-b[k][2]
			sum += r*r + g*g + bl*bl
		}
		if sum > limit {
			return math.MaxFloat32
		}
	}
	return sum / n
}

// vote gives each pixel of the hole the mean of what the patches over it say, alike ones the most.
func (l *level) vote() {
	sums := make([][4]float32, len(l.c))
	for _, i := range l.todo {
		j := int(l.from[i])
		if !l.clear[j] {
			continue
		}
		// What lies near the edge of the hole is the surest.
		weight := float32(math.Exp(-float64(min(l.far[i], 4e4))/600) * math.Pow(1.3, -float64(l.deep.V[i])))
		x, y := int(i)%l.w, int(i)/l.w
		for v := max(-reach, -y); v <= min(reach, l.h-1-y); v++ {
			for u := max(-reach, -x); u <= min(reach, l.w-1-x); u++ {
				to := int(i) + v*l.w + u
				if !l.hole[to] {
					continue
				}
				from := l.c[j+v*l.w+u]
				s := &sums[to]
				k := weight + 1e-9
				s[0], s[1], s[2], s[3] = s[0]+k*from[0], s[1]+k*from[1], s[2]+k*from[2], s[3]+k
			}
		}
	}
	for i, s := range sums {
		if l.hole[i] && s[3] > 0 {
			l.c[i] = [3]float32{s[0] / s[3], s[1] / s[3], s[2] / s[3]}
		}
	}
}

// take fills the hole with the pixels themselves that lie where the patches of a smaller copy say:
// of those about each pixel, as near as they are to it.
func (l *level) take(small *level) {
	kx, ky := float64(l.w)/float64(small.w), float64(l.h)/float64(small.h)
	for i := range l.c {
		if !l.hole[i] {
			continue
		}
		x, y := i%l.w, i/l.w
		sx, sy := (float64(x)+.5)/kx-.5, (float64(y)+.5)/ky-.5
		var sum [4]float64
		for v := int(math.Floor(sy)); v <= int(math.Floor(sy))+1; v++ {
			for u := int(math.Floor(sx)); u <= int(math.Floor(sx))+1; u++ {
				if u < 0 || v < 0 || u >= small.w || v >= small.h {
					continue
				}
				j := int(small.from[v*small.w+u])
				if !small.clear[j] {
					continue
				}
				fx := x + int(math.Round(float64(j%small.w-u)*kx))
				fy := y + int(math.Round(float64(j/small.w-v)*ky))
				if fx < 0 || fy < 0 || fx >= l.w || fy >= l.h || l.hole[fy*l.w+fx] {
					continue
				}
				// The nearest patch alone, nearly, so that fine marks stay fine.
				k := math.Pow(max((1-math.Abs(sx-float64(u)))*(1-math.Abs(sy-float64(v))), 1e-4), 3)
				c := l.c[fy*l.w+fx]
				sum[0], sum[1], sum[2], sum[3] = sum[0]+k*float64(c[0]), sum[1]+k*float64(c[1]), sum[2]+k*float64(c[2]), sum[3]+k
			}
		}
		if sum[3] > 0 {
			l.c[i] = [3]float32{float32(sum[0] / sum[3]), float32(sum[1] / sum[3]), float32(sum[2] / sum[3])}
		} else {
			q := small.c[min(max(int(sy+.5), 0), small.h-1)*small.w+min(max(int(sx+.5), 0), small.w-1)]
			l.c[i] = q
		}
	}
}

// put writes the hole into the picture.
func (l *level) put(img *image.NRGBA, roi image.Rectangle) {
	for i, is := range l.hole {
		if is {
			p := img.Pix[img.PixOffset(roi.Min.X+i%l.w, roi.Min.Y+i/l.w):]
			for c := range 3 {
				p[c] = pixels.Byte(float64(l.c[i][c]))
			}
			p[3] = 255
		}
	}
}

// Package pixels goes over pictures by rows, side by side, and takes samples between pixels.
package pixels

import (
	"context"
	"image"
	"math"
	"runtime"
	"sync"
)

// Most is the largest number of pixels of a picture that is worked on.
const Most = 80_000_000

// bandRows is how many rows are worked on at once before it is asked whether somebody waits
// still.
const bandRows = 32

// Rows calls a function for all rows from 0 up to, without, n, band by band, several at the same
// time. It returns the error of the context, and then not all rows are done.
func Rows(ctx context.Context, n int, do func(from, to int)) error {
	var next int
	var mu sync.Mutex
	take := func() (from, to int) {
		mu.Lock()
		defer mu.Unlock()
		from = next
		next = min(n, from+bandRows)
		return from, next
	}
	var all sync.WaitGroup
	for range min(runtime.GOMAXPROCS(0), (n+bandRows-1)/bandRows) {
		all.Go(func() {
			for from, to := take(); from < to && ctx.Err() == nil; from, to = take() {
				do(from, to)
			}
		})
	}
	all.Wait()
	return ctx.Err()
}

// At is the pixel at a place, cubic between pixels (Catmull and Rom, 1974), their colours weighed
// by how opaque they are: 0 to 255, not multiplied by alpha. A pixel's middle is at half; past
// the edge the last one is repeated.
func At(img *image.NRGBA, x, y float64) (r, g, b, a float64) {
	x, y = x-.5, y-.5
	x0, y0 := int(math.Floor(x)), int(math.Floor(y))
	wx, wy := weights(x-float64(x0)), weights(y-float64(y0))
	w, h := img.Rect.Dx(), img.Rect.Dy()
	for j, v := range wy {
		row := img.Pix[min(max(y0-1+j, 0), h-1)*img.Stride:]
		for i, u := range wx {
			p := row[4*min(max(x0-1+i, 0), w-1):]
			k := u * v * float64(p[3])
			a += k
			r, g, b = r+k*float64(p[0]), g+k*float64(p[1]), b+k*float64(p[2])
		}
	}
	if a <= 0 {
		return 0, 0, 0, 0
	}
	return r / a, g / a, b / a, a
}

// weights are those of the four pixels about a place t of the way from the second to the third.
func weights(t float64) [4]float64 {
	return [4]float64{
		((-.5*t+1)*t - .5) * t,
		(1.5*t-2.5)*t*t + 1,
		((-1.5*t+2)*t + .5) * t,
		(.5*t - .5) * t * t,
	}
}

// Byte rounds a value to 0 to 255.
func Byte(v float64) uint8 { return uint8(min(max(v, 0), 255) + .5) }

// Resampled is a picture of a size whose pixels are those of another where from says; a pixel's
// middle is at half. Past the edge the last pixel is repeated. It returns the error of the context.
func Resampled(ctx context.Context, img *image.NRGBA, w, h int, from func(x, y float64) (u, v float64)) (*image.NRGBA, error) {
	out := image.NewNRGBA(image.Rect(0, 0, w, h))
	err := Rows(ctx, h, func(y0, y1 int) {
		for y := y0; y < y1; y++ {
			row := out.Pix[y*out.Stride:]
			for x := range w {
				u, v := from(float64(x)+.5, float64(y)+.5)
				r, g, b, a := At(img, u, v)
				p := row[4*x:]
				p[0], p[1], p[2], p[3] = Byte(r), Byte(g), Byte(b), Byte(a)
			}
		}
	})
	return out, err
}

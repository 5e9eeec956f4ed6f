package testpage

import (
	"image"
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// spot is a dark square in a picture: its middle and how many pixels it covers.
type spot struct {
	at   geom.Point
	area float64
}

// mostSpots is how many squares a picture may have before it is taken for something else.
const mostSpots = 60

// squares finds what is dark, connected and as compact as a square, by its moments, whichever way
// it is turned.
func squares(img *image.NRGBA) (out []spot) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	light := make([]uint8, w*h)
	var counts [256]int
	for y := range h {
		for x := range w {
			p := img.Pix[y*img.Stride+4*x:]
			v := uint8((54*int(p[0]) + 183*int(p[1]) + 19*int(p[2])) >> 8)
			light[y*w+x] = v
			counts[v]++
		}
	}
	paper, below := 255, 0
	for ; paper > 0 && below < w*h/10; paper-- { // a tenth of the picture is lighter
		below += counts[paper]
	}
	dark := uint8(float64(paper) * .5)
	var stack []int32
	for from, v := range light {
		if v >= dark {
			continue
		}
		light[from] = 255
		stack = append(stack[:0], int32(from))
		var n, sx, sy, xx, yy, xy float64
		for len(stack) > 0 {
			i := int(stack[len(stack)-1])
			stack = stack[:len(stack)-1]
			x, y := float64(i%w), float64(i/w)
			n, sx, sy, xx, yy, xy = n+1, sx+x, sy+y, xx+x*x, yy+y*y, xy+x*y
			for _, to := range [4]int{i - 1, i + 1, i - w, i + w} {
				if to < 0 || to >= w*h || to == i-1 && i%w == 0 || to == i+1 && to%w == 0 || light[to] >= dark {
					continue
				}
				light[to] = 255
				stack = append(stack, int32(to))
			}
		}
		if n < 12 || n > float64(w*h)/60 {
			continue
		}
		mx, my := sx/n, sy/n
		cxx, cyy, cxy := xx/n-mx*mx+1./12, yy/n-my*my+1./12, xy/n-mx*my
		mean, apart := (cxx+cyy)/2, math.Hypot((cxx-cyy)/2, cxy)
		// Of a square both are a twelfth of its area.
		if fill := n * n / (144 * (mean*mean - apart*apart)); (mean-apart)/(mean+apart) < .5 || fill < .8 || fill > 1.25 {
			continue
		}
		out = append(out, spot{geom.Pt(mx+.5, my+.5), n})
	}
	if len(out) > mostSpots { // the largest
		slices.SortFunc(out, func(a, b spot) int { return int(b.area - a.area) })
		out = out[:mostSpots]
	}
	return out
}

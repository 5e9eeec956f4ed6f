package trace

import (
	"fmt"
	"image"
	"math"
	"runtime"
	"sync"
	"sync/atomic"

	"github.com/lucasb-eyer/go-colorful"
)

// RGB is a colour of 0 to 255 each.
type RGB [3]uint8

// String is the colour as #rrggbb.
func (c RGB) String() string { return fmt.Sprintf("#%02x%02x%02x", c[0], c[1], c[2]) }

// on is the colour of a pixel on white paper.
func on(p []uint8) RGB {
	if p[3] == 255 {
		return RGB{p[0], p[1], p[2]}
	}
	a := int(p[3])
	var out RGB
	for i := range out {
		out[i] = uint8((int(p[i])*a + 255*(255-a) + 127) / 255)
	}
	return out
}

// ByTransparency covers what is not transparent.
func ByTransparency(img *image.NRGBA) *Field {
	f := NewField(img.Rect.Dx(), img.Rect.Dy())
	for y := range f.H {
		row, from := f.Row(y), img.Pix[y*img.Stride:]
		for x := range row {
			row[x] = from[4*x+3]
		}
	}
	return f
}

// luma is the brightness of a colour, 0 to 255 (ITU-R BT.709).
func luma(c RGB) int { return (2126*int(c[0]) + 7152*int(c[1]) + 722*int(c[2])) / 10000 }

// ByDarkness covers what is darker than a level of 0 to 255.
func ByDarkness(img *image.NRGBA, level int) *Field {
	return cover(img, func(p []uint8) bool { return luma(on(p)) < level })
}

// Level is the brightness that parts the dark from the bright in a picture: the variances on
// both sides of it are least (Otsu, A threshold selection method from gray-level histograms,
// 1979).
func Level(img *image.NRGBA) int {
	var mu sync.Mutex
	var count [256]float64
	byRows(img.Rect.Dy(), func(y int) {
		var own [256]int
		from := img.Pix[y*img.Stride:]
		for x := range img.Rect.Dx() {
			own[luma(on(from[4*x:4*x+4]))]++
		}
		mu.Lock()
		defer mu.Unlock()
		for v, n := range own {
			count[v] += float64(n)
		}
	})
	all, sum := 0., 0.
	for v, n := range count {
		all += n
		sum += n * float64(v)
	}
	best, at, last := -1., 128, 128
	below, part := 0., 0.
	for v, n := range count {
		below += n
		part += n * float64(v)
		if below == 0 || below == all {
			continue
		}
		d := part/below - (sum-part)/(all-below)
		switch between := below * (all - below) * d * d; {
		case between > best*(1+1e-12):
			best, at, last = between, v+1, v+1
		case between >= best*(1-1e-12):
			last = v + 1 // no pixel is as bright: anywhere up to here is as good
		}
	}
	return (at + last) / 2
}

// ByColours covers what is within a tolerance of one of the colours: the distance is that of
// Oklab, in hundredths (Ottosson, A perceptual color space for image processing, 2020).
func ByColours(img *image.NRGBA, colours []RGB, tolerance float64) *Field {
	near := newNearness(colours)
	return cover(img, func(p []uint8) bool {
		if p[3] < half {
			return false
		}
		_, off := near.of(on(p))
		return off <= tolerance
	})
}

// Layers are the fields of the colours, each of what is nearest to it. With under, each reaches
// under those after it as well, so that nothing shows between them.
func Layers(img *image.NRGBA, colours []RGB, under bool) []*Field {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	label := make([]int8, w*h)
	near := newNearness(colours)
	byRows(h, func(y int) {
		for x := range w {
			p := img.Pix[y*img.Stride+4*x:]
			label[y*w+x] = -1
			if p[3] >= half {
				at, _ := near.of(on(p))
				label[y*w+x] = int8(at)
			}
		}
	})
	label = unmixed(img, label, w, h)
	out := make([]*Field, len(colours))
	for k := range out {
		mask := make([]bool, len(label))
		for i, l := range label {
			mask[i] = int(l) == k || under && int(l) > k
		}
		out[k] = covered(img, mask)
	}
	return out
}

// unmixed gives pixels at the border of two colours, whose mixture may be nearest to a third,
// the label of the colour among those about them that is nearest to theirs.
func unmixed(img *image.NRGBA, label []int8, w, h int) []int8 {
	even := make([]bool, len(label)) // whose neighbours all have the same label
	byRows(h, func(y int) {
		for x := range w {
			even[y*w+x] = alike(label, w, h, x, y)
		}
	})
	out := append([]int8(nil), label...)
	byRows(h, func(y int) {
		for x := range w {
			if at := y*w + x; !even[at] && label[at] >= 0 {
				out[at] = likest(img, label, even, x, y)
			}
		}
	})
	return out
}

// alike reports whether a pixel and all that touch it have the same label.
func alike(label []int8, w, h, x, y int) bool {
	lo, hi := max(0, x-1), min(w, x+2)
	for j := max(0, y-1); j <= min(h-1, y+1); j++ {
		for _, l := range label[j*w+lo : j*w+hi] {
			if l != label[y*w+x] {
				return false
			}
		}
	}
	return true
}

// likest is the label of the even pixel within two of a pixel whose colour is nearest to its own;
// the label that it has where there is none.
func likest(img *image.NRGBA, label []int8, even []bool, x, y int) int8 {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	own := on(img.Pix[y*img.Stride+4*x:])
	best, at := math.MaxInt, label[y*w+x]
	for j := max(0, y-2); j <= min(h-1, y+2); j++ {
		for i := max(0, x-2); i <= min(w-1, x+2); i++ {
			if !even[j*w+i] || label[j*w+i] < 0 {
				continue
			}
			d := 0
			for c, v := range on(img.Pix[j*img.Stride+4*i:]) {
				d += (int(v) - int(own[c])) * (int(v) - int(own[c]))
			}
			if d < best {
				best, at = d, label[j*w+i]
			}
		}
	}
	return at
}

// cover is the field of the pixels that are inside.
func cover(img *image.NRGBA, inside func(p []uint8) bool) *Field {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	mask := make([]bool, w*h)
	byRows(h, func(y int) {
		row, from := mask[y*w:(y+1)*w], img.Pix[y*img.Stride:]
		for x := range row {
			row[x] = inside(from[4*x : 4*x+4])
		}
	})
	return covered(img, mask)
}

// byRows does something for every row of a picture, on all processors.
func byRows(h int, do func(y int)) {
	const band = 64
	var wg sync.WaitGroup
	var next atomic.Int64
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			for y := int(next.Add(band)) - band; y < h; y = int(next.Add(band)) - band {
				for j := y; j < min(h, y+band); j++ {
					do(j)
				}
			}
		})
	}
	wg.Wait()
}

// covered is the field of a mask. How much of a pixel at its border is covered follows from
// where its colour stands between those inside and outside nearby, so that the edge runs where
// it did before it was softened, whatever part of the softness the mask took.
func covered(img *image.NRGBA, mask []bool) *Field {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	f := NewField(w, h)
	border := make([]bool, len(mask)) // of pixels that a neighbour differs from
	byRows(h, func(y int) {
		row, field := mask[y*w:(y+1)*w], f.Row(y)
		above, below := row, row
		if y > 0 {
			above = mask[(y-1)*w : y*w]
		}
		if y+1 < h {
			below = mask[(y+1)*w : (y+2)*w]
		}
		last := row[0]
		for x, m := range row {
			if m {
				field[x] = 255
			}
			if m != last {
				border[y*w+x-1], border[y*w+x] = true, true
			} else if m != above[x] || m != below[x] {
				border[y*w+x] = true
			}
			last = m
		}
	})
	byRows(h, func(y int) {
		row := f.Row(y)
		for x := range row {
			if beside(border, w, h, x, y) {
				if c, ok := share(img, mask, border, x, y); ok {
					row[x] = c
				}
			}
		}
	})
	return f
}

// beside reports whether a pixel or one that touches it is at the border.
func beside(border []bool, w, h, x, y int) bool {
	lo, hi := max(0, x-1), min(w, x+2)
	for j := max(0, y-1); j <= min(h-1, y+1); j++ {
		for _, b := range border[j*w+lo : j*w+hi] {
			if b {
				return true
			}
		}
	}
	return false
}

// share is how much of a pixel is covered, 0 to 255, by its colour against the mean colours of
// what is inside and outside about it and not at the border; ok is false where there is nothing
// of one of them, or they are the same.
func share(img *image.NRGBA, mask, border []bool, x, y int) (c uint8, ok bool) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	var sum [2][4]float64
	var n [2]float64
	const about = 3
	for j := max(0, y-about); j <= min(h-1, y+about); j++ {
		for i := max(0, x-about); i <= min(w-1, x+about); i++ {
			at := j*w + i
			if border[at] {
				continue
			}
			side := 0
			if mask[at] {
				side = 1
			}
			p := img.Pix[j*img.Stride+4*i:]
			for k, v := range colourOf(p) {
				sum[side][k] += v
			}
			n[side]++
		}
	}
	if n[0] == 0 || n[1] == 0 {
		return 0, false
	}
	own := colourOf(img.Pix[y*img.Stride+4*x:])
	dot, length := 0., 0.
	for k := range own {
		outside, inside := sum[0][k]/n[0], sum[1][k]/n[1]
		dot += (own[k] - outside) * (inside - outside)
		length += (inside - outside) * (inside - outside)
	}
	if length < 64 {
		return 0, false
	}
	return uint8(min(max(dot/length, 0), 1)*255 + .5), true
}

// colourOf is the colour of a pixel on white, and how opaque it is.
func colourOf(p []uint8) [4]float64 {
	c := on(p)
	return [4]float64{float64(c[0]), float64(c[1]), float64(c[2]), float64(p[3])}
}

// nearness finds the nearest of some colours, kept for every colour of 5 bits a channel.
type nearness struct {
	known [1 << 15]struct {
		at  int8
		off float32
	}
}

func newNearness(colours []RGB) *nearness {
	n := &nearness{}
	shades := make([][3]float64, len(colours))
	for k, c := range colours {
		shades[k] = oklab(c)
	}
	for i := range n.known {
		own := oklab(RGB{widen(i >> 10 & 31), widen(i >> 5 & 31), widen(i & 31)})
		at, d := closest(shades, own)
		n.known[i].at, n.known[i].off = int8(at), float32(d*100)
	}
	return n
}

// rgbOf is a colour of Oklab, or the nearest that sRGB has.
func rgbOf(c [3]float64) RGB {
	r, g, b := colorful.OkLab(c[0], c[1], c[2]).Clamped().RGB255()
	return RGB{r, g, b}
}

func oklab(c RGB) [3]float64 {
	l, a, b := colorful.Color{R: float64(c[0]) / 255, G: float64(c[1]) / 255, B: float64(c[2]) / 255}.OkLab()
	return [3]float64{l, a, b}
}

// widen is the middle of what a channel of 5 bits stands for, of 8 bits.
func widen(v int) uint8 { return uint8(v<<3 + 4) }

func (n *nearness) of(c RGB) (at int, off float64) {
	k := &n.known[int(c[0]>>3)<<10|int(c[1]>>3)<<5|int(c[2]>>3)]
	return int(k.at), float64(k.off)
}

package picture

import (
	"cmp"
	"fmt"
	"image"
	"math"
	"slices"
)

// pixels are the opaque pixels of a small copy of the picture.
func pixels(img image.Image) [][3]float64 {
	small := Scale(img, 96)
	b := small.Bounds()
	var out [][3]float64
	for y := b.Min.Y; y < b.Max.Y; y++ {
		for x := b.Min.X; x < b.Max.X; x++ {
			r, g, bl, a := small.At(x, y).RGBA()
			if a > 0x8000 {
				out = append(out, [3]float64{float64(r) / float64(a) * 255, float64(g) / float64(a) * 255, float64(bl) / float64(a) * 255})
			}
		}
	}
	return out
}

// rgb is a colour of 0 to 255 each.
type rgb = [3]float64

// Palette is n colours, #rrggbb, that stand for a picture, the most frequent
// first: median cut (Heckbert 1982) by the box with the largest spread, then a
// few steps of Lloyd's algorithm. There are fewer when the picture has fewer.
func Palette(img image.Image, n int) []string {
	all := pixels(img)
	if len(all) == 0 {
		return nil
	}
	boxes := medianCut(all, n)
	means := make([]rgb, len(boxes))
	for i, box := range boxes {
		means[i] = mean(box)
	}
	var counts []int
	for range 6 {
		counts = settle(means, all)
	}
	order := make([]int, len(means))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(i, j int) int { return cmp.Compare(counts[j], counts[i]) })
	var out []string
	for _, i := range order {
		c := fmt.Sprintf("#%02x%02x%02x", int(means[i][0]+.5), int(means[i][1]+.5), int(means[i][2]+.5))
		if counts[i] > 0 && !slices.Contains(out, c) {
			out = append(out, c)
		}
	}
	return out
}

// medianCut parts colours into at most n boxes, each time the one whose colours differ most,
// weighed by how many there are, at its median along the axis on which they differ.
func medianCut(all []rgb, n int) [][]rgb {
	boxes := [][]rgb{all}
	for len(boxes) < n {
		most, which, axis := 0., -1, 0
		for i, box := range boxes {
			for a := range 3 {
				if d := spread(box, a); d > 8 && d*math.Sqrt(float64(len(box))) > most {
					most, which, axis = d*math.Sqrt(float64(len(box))), i, a
				}
			}
		}
		if which < 0 {
			break
		}
		box := boxes[which]
		slices.SortFunc(box, func(p, q rgb) int { return cmp.Compare(p[axis], q[axis]) })
		m := len(box) / 2
		boxes[which] = box[:m]
		boxes = append(boxes, box[m:])
	}
	return boxes
}

// spread is how far the colours of a box differ along an axis.
func spread(box []rgb, axis int) float64 {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, p := range box {
		lo, hi = min(lo, p[axis]), max(hi, p[axis])
	}
	return hi - lo
}

// settle is a step of Lloyd's algorithm: each mean becomes that of the colours nearest to
// it. It returns how many those are.
func settle(means, all []rgb) (counts []int) {
	sums := make([]rgb, len(means))
	counts = make([]int, len(means))
	for _, p := range all {
		at := nearest(means, p)
		counts[at]++
		for a := range 3 {
			sums[at][a] += p[a]
		}
	}
	for i := range means {
		for a := range 3 {
			if counts[i] > 0 {
				means[i][a] = sums[i][a] / float64(counts[i])
			}
		}
	}
	return counts
}

func nearest(means []rgb, p rgb) int {
	best, at := math.Inf(1), 0
	for i, m := range means {
		d := (p[0]-m[0])*(p[0]-m[0]) + (p[1]-m[1])*(p[1]-m[1]) + (p[2]-m[2])*(p[2]-m[2])
		if d < best {
			best, at = d, i
		}
	}
	return at
}

func mean(box []rgb) (m rgb) {
	for _, p := range box {
		for a := range 3 {
			m[a] += p[a] / float64(len(box))
		}
	}
	return m
}

// Detail is the middle of what there is to see in a picture, in shares of its
// width and height: the mean place of its edges, weighed by the square of their
// strength (the luminance gradient of a small copy) so that a plain ground does
// not pull it away. A picture without edges has its middle in its middle.
func Detail(img image.Image) (x, y float64) {
	small := Scale(img, 64)
	b := small.Bounds()
	at := func(x, y int) float64 {
		r, g, bl, a := small.At(b.Min.X+x, b.Min.Y+y).RGBA()
		return (.2126*float64(r) + .7152*float64(g) + .0722*float64(bl) + float64(a)) / 65535
	}
	var sum float64
	for j := 1; j+1 < b.Dy(); j++ {
		for i := 1; i+1 < b.Dx(); i++ {
			gx, gy := at(i+1, j)-at(i-1, j), at(i, j+1)-at(i, j-1)
			w := gx*gx + gy*gy
			x += w * (float64(i) + .5)
			y += w * (float64(j) + .5)
			sum += w
		}
	}
	if sum < 1e-6 {
		return .5, .5
	}
	return x / sum / float64(b.Dx()), y / sum / float64(b.Dy())
}

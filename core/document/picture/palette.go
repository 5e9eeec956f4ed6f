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

// Palette is n colours, #rrggbb, that stand for a picture, the most frequent
// first: median cut (Heckbert 1982) by the box with the largest spread, then a
// few steps of Lloyd's algorithm. There are fewer when the picture has fewer.
func Palette(img image.Image, n int) []string {
	all := pixels(img)
	if len(all) == 0 {
		return nil
	}
	boxes := [][][3]float64{all}
	for len(boxes) < n {
		// The box whose colours differ most, weighed by how many there are.
		most, which, axis := 0., -1, 0
		for i, box := range boxes {
			for a := range 3 {
				lo, hi := math.Inf(1), math.Inf(-1)
				for _, p := range box {
					lo, hi = min(lo, p[a]), max(hi, p[a])
				}
				if s := (hi - lo) * math.Sqrt(float64(len(box))); s > most && hi-lo > 8 {
					most, which, axis = s, i, a
				}
			}
		}
		if which < 0 {
			break
		}
		box := boxes[which]
		slices.SortFunc(box, func(p, q [3]float64) int { return cmp.Compare(p[axis], q[axis]) })
		m := len(box) / 2
		boxes[which] = box[:m]
		boxes = append(boxes, box[m:])
	}
	means := make([][3]float64, len(boxes))
	for i, box := range boxes {
		means[i] = mean(box)
	}
	var counts []int
	for range 6 {
		sums := make([][3]float64, len(means))
		counts = make([]int, len(means))
		for _, p := range all {
			best, at := math.Inf(1), 0
			for i, m := range means {
				d := (p[0]-m[0])*(p[0]-m[0]) + (p[1]-m[1])*(p[1]-m[1]) + (p[2]-m[2])*(p[2]-m[2])
				if d < best {
					best, at = d, i
				}
			}
			counts[at]++
			for a := range 3 {
				sums[at][a] += p[a]
			}
		}
		for i := range means {
			if counts[i] > 0 {
				for a := range 3 {
					means[i][a] = sums[i][a] / float64(counts[i])
				}
			}
		}
	}
	order := make([]int, len(means))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(i, j int) int { return counts[j] - counts[i] })
	var out []string
	for _, i := range order {
		c := fmt.Sprintf("#%02x%02x%02x", int(means[i][0]+.5), int(means[i][1]+.5), int(means[i][2]+.5))
		if counts[i] > 0 && !slices.Contains(out, c) {
			out = append(out, c)
		}
	}
	return out
}

func mean(box [][3]float64) (m [3]float64) {
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

package trace

import (
	"cmp"
	"image"
	"math"
	"slices"
	"sync"
)

// shade is a group of alike colours: their mean in Oklab, and how many pixels have it.
type shade struct {
	at    [3]float64
	count float64
}

// Colours are at most n colours that stand for a picture, the most frequent first. Pixels that
// differ from those beside them, as where two colours are mixed at an edge, count only where
// there are no others. The first is the most frequent, each further one the one that is farthest
// from those before it, weighed by how frequent it is; then Lloyd's algorithm.
func Colours(img *image.NRGBA, n int) []RGB {
	all := shades(img)
	if len(all) == 0 {
		return nil
	}
	slices.SortFunc(all, func(a, b shade) int { return cmp.Compare(b.count, a.count) })
	means := [][3]float64{all[0].at}
	for len(means) < n {
		best, which := 0., -1
		for i, s := range all {
			_, d := closest(means, s.at)
			if d > apartShades && d*math.Sqrt(s.count) > best {
				best, which = d*math.Sqrt(s.count), i
			}
		}
		if which < 0 {
			break
		}
		means = append(means, all[which].at)
	}
	counts := make([]float64, len(means))
	for range 8 {
		sums := make([][3]float64, len(means))
		clear(counts)
		for _, s := range all {
			at, _ := closest(means, s.at)
			counts[at] += s.count
			for k, v := range s.at {
				sums[at][k] += v * s.count
			}
		}
		for i := range means {
			for k := range means[i] {
				if counts[i] > 0 {
					means[i][k] = sums[i][k] / counts[i]
				}
			}
		}
	}
	order := make([]int, len(means))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(i, j int) int { return cmp.Compare(counts[j], counts[i]) })
	var out []RGB
	for _, i := range order {
		if counts[i] > 0 {
			out = append(out, rgbOf(means[i]))
		}
	}
	return out
}

// apartShades is how far colours are apart in Oklab, at least, to be two.
const apartShades = .05

// shades are the colours of the even parts of a picture, or of all of it, by 5 bits a channel.
func shades(img *image.NRGBA) []shade {
	type tally struct{ n, r, g, b float64 }
	even, whole := make([]tally, 1<<15), make([]tally, 1<<15)
	var mu sync.Mutex
	w, h := img.Rect.Dx(), img.Rect.Dy()
	step := max(1, int(math.Sqrt(float64(w*h)/1e6)))
	byRows(h/step, func(y int) {
		row := img.Pix[y*step*img.Stride:]
		below := img.Pix[min(y*step+1, h-1)*img.Stride:]
		mu.Lock()
		defer mu.Unlock()
		for x := 0; x < w; x += step {
			p := row[4*x : 4*x+4]
			if p[3] < half {
				continue
			}
			c := on(p)
			bin := int(c[0]>>3)<<10 | int(c[1]>>3)<<5 | int(c[2]>>3)
			next := 4 * min(x+1, w-1)
			of := []*tally{&whole[bin]}
			if same(p, row[next:next+4]) && same(p, below[4*x:4*x+4]) {
				of = append(of, &even[bin])
			}
			for _, t := range of {
				t.n, t.r, t.g, t.b = t.n+1, t.r+float64(c[0]), t.g+float64(c[1]), t.b+float64(c[2])
			}
		}
	})
	total := 0.
	for _, t := range even {
		total += t.n
	}
	from := even
	if total < float64(w*h/step/step)/20 {
		from = whole
	}
	var out []shade
	for _, t := range from {
		if t.n > 0 {
			out = append(out, shade{oklab(RGB{uint8(t.r/t.n + .5), uint8(t.g/t.n + .5), uint8(t.b/t.n + .5)}), t.n})
		}
	}
	return out
}

// same reports whether two pixels are alike but for noise.
func same(p, q []uint8) bool {
	for i := range 4 {
		if d := int(p[i]) - int(q[i]); d > 12 || d < -12 {
			return false
		}
	}
	return true
}

// closest is the nearest of some colours in Oklab, and how far it is.
func closest(means [][3]float64, c [3]float64) (at int, d float64) {
	d = math.Inf(1)
	for i, m := range means {
		if e := math.Hypot(math.Hypot(m[0]-c[0], m[1]-c[1]), m[2]-c[2]); e < d {
			at, d = i, e
		}
	}
	return at, d
}

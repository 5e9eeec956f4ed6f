package pattern

import "image"

// Seams tells where a picture does not go on when it is laid beside itself: across, from its right edge
// to its left one, and down. That is so where the two edges differ half as much again, on average, as
// any two rows of pixels side by side within it.
func Seams(img image.Image) (across, down bool) {
	b := img.Bounds()
	column := func(x, y int) (uint32, uint32, uint32) {
		r, g, bl, _ := img.At(b.Min.X+x, b.Min.Y+y).RGBA()
		return r, g, bl
	}
	row := func(y, x int) (uint32, uint32, uint32) { return column(x, y) }
	return seam(b.Dx(), b.Dy(), column), seam(b.Dy(), b.Dx(), row)
}

// slack is how much two edges may differ in any case, as a mean of 16-bit channels.
const slack = 4 << 8

// seam compares the last of n rows of pixels, each of length long, with the first.
func seam(n, long int, at func(i, j int) (r, g, b uint32)) bool {
	if n < 3 {
		return false
	}
	differ := func(i, k int) (sum float64) {
		for j := range long {
			r, g, b := at(i, j)
			r2, g2, b2 := at(k, j)
			sum += apart(r, r2) + apart(g, g2) + apart(b, b2)
		}
		return sum / float64(3*long)
	}
	most := 0.0
	for i := range n - 1 {
		most = max(most, differ(i, i+1))
	}
	return differ(n-1, 0) > 1.5*most+slack
}

func apart(a, b uint32) float64 {
	if a < b {
		a, b = b, a
	}
	return float64(a - b)
}

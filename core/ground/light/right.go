package light

import (
	"image"
	"math"

	"sectilis/core/ground/pixels"
)

// Right is what sets a picture right: the greys that become black and white, the exponent of
// those between, and how much stronger red and blue become in linear light. Its zero value does
// nothing; Black and White are 0 to 1 as sRGB has them.
type Right struct {
	Black, White float64 // White 0 is 1
	Gamma        float64 // 0 is 1
	Red, Blue    float64 // 0 is 1
}

// How far a picture is set right at most, and how much of a cast is taken off.
const (
	mostBlack, leastWhite = .12, .78
	mostGamma             = 1.25
	mostCast, castShare   = 1.18, .7
	clipped               = .004 // of the pixels, at either end
	leastRange            = .3
)

// RightOf finds what sets a picture right, conservatively: levels so that few pixels are black
// and white, the middle brought toward the middle, and the cast of nearly grey pixels taken off
// in part, weighed toward light ones (Finlayson and Trezzi, Shades of gray, 2004).
func RightOf(img *image.NRGBA) Right {
	var counts [256]float64
	var sum [3]float64
	n, grey := 0.0, 0.0
	for i := 0; i+3 < len(img.Pix); i += 4 {
		p := img.Pix[i : i+4]
		if p[3] < 128 {
			continue
		}
		counts[int(pixels.Light(p)+.5)]++
		n++
		lo, hi := min(p[0], p[1], p[2]), max(p[0], p[1], p[2])
		if hi < 30 || hi > 250 || float64(hi-lo) > .3*float64(hi) {
			continue
		}
		grey++
		for c := range 3 {
			sum[c] += math.Pow(linear(float64(p[c])/255), 6)
		}
	}
	if n == 0 {
		return Right{}
	}
	at := func(share float64) float64 {
		before := 0.0
		for v, k := range counts {
			if before += k; before > share*n {
				return float64(v) / 255
			}
		}
		return 1
	}
	var r Right
	if at(1-clipped)-at(clipped) < leastRange { // all of one brightness, and meant so
		return r
	}
	black, white := min(at(clipped), mostBlack), max(at(1-clipped), leastWhite)
	if black > .01 {
		r.Black = round(black)
	}
	if white < .99 {
		r.White = round(white)
	}
	middle := (min(max(at(.5), black+.01), white-.01) - black) / (white - black)
	if middle < .38 || middle > .62 {
		goal := min(max(middle, .38), .62)
		r.Gamma = round(min(max(math.Log(goal)/math.Log(middle), 1/mostGamma), mostGamma))
	}
	if grey > .02*n {
		mean := each(sum, func(v float64) float64 { return math.Pow(v/grey, 1./6) })
		gain := func(v float64) float64 {
			return min(max(math.Pow(mean[1]/v, castShare), 1/mostCast), mostCast)
		}
		if red, blue := gain(mean[0]), gain(mean[2]); math.Abs(red-1) > .015 || math.Abs(blue-1) > .015 {
			r.Red, r.Blue = round(red), round(blue)
		}
	}
	return r
}

// round keeps three places, which are enough and read well.
func round(v float64) float64 { return math.Round(v*1000) / 1000 }

func or1(v float64) float64 {
	if v == 0 {
		return 1
	}
	return v
}

// Table is what it does to colours; nil where it does nothing.
func (r Right) Table() *Table {
	if r == (Right{}) {
		return nil
	}
	white, gamma := or1(r.White), or1(r.Gamma)
	curve := func(v float64) float64 {
		return math.Pow(min(max((v-r.Black)/(white-r.Black), 0), 1), gamma)
	}
	return tableOf(func(c colour) colour {
		return toned(balanced(c, colour{or1(r.Red), 1, or1(r.Blue)}), curve)
	})
}

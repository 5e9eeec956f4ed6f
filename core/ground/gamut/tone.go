package gamut

import (
	"image"
	"math"
)

// knots are the tones that a correction is told at, evenly from black to bare paper.
const knots = 17

// Tone is what is sent to a printer so that tones come out as wanted: of red, green and blue, 0 to
// 255, at tones that lie evenly from 0 to 255. The zero value sends them as they are.
type Tone [3][knots]float64

// asItIs is a curve that changes nothing.
func asItIs() (out [knots]float64) {
	for i := range out {
		out[i] = 255 * float64(i) / (knots - 1)
	}
	return out
}

// Sound reports whether curves rise from black to bare paper, as those do that were measured.
func (t Tone) Sound() bool {
	for _, c := range t {
		for i, v := range c {
			if !(v >= 0 && v <= 255) || i > 0 && v < c[i-1] {
				return false
			}
		}
	}
	return true
}

// At is what is sent of a channel, 0 to 2, for a tone, 0 to 255.
func (t Tone) At(channel int, tone float64) float64 {
	if t == (Tone{}) {
		return tone
	}
	at := min(max(tone/255*(knots-1), 0), knots-1)
	i := min(int(at), knots-2)
	return t[channel][i] + (at-float64(i))*(t[channel][i+1]-t[channel][i])
}

// Apply corrects a page in place.
func (t Tone) Apply(img *image.RGBA) {
	if t == (Tone{}) {
		return
	}
	var to [3][256]uint8
	for c := range to {
		for v := range 256 {
			to[c][v] = uint8(math.Round(t.At(c, float64(v))))
		}
	}
	for i := 0; i+3 < len(img.Pix); i += 4 {
		p := img.Pix[i : i+4 : i+4]
		p[0], p[1], p[2] = to[0][p[0]], to[1][p[1]], to[2][p[2]]
	}
}

// Corrected is the correction by which greys come out as wanted, after a page on which tones, rising
// and 0 to 255, were printed with the correction t and came out as others, told from black, 0, to
// bare paper, 255.
func (t Tone) Corrected(printed []float64, came [3][]float64) (out Tone) {
	for c := range out {
		rising := risen(came[c])
		for i, want := range asItIs() {
			out[c][i] = t.At(c, wanted(printed, rising, want))
		}
		out[c][0], out[c][knots-1] = 0, 255
		copy(out[c][:], risen(out[c][:]))
	}
	return out
}

// wanted is the tone that has to be printed for another to come out.
func wanted(printed, came []float64, want float64) float64 {
	for i := 1; i < len(came); i++ {
		if want <= came[i] {
			if came[i] <= came[i-1] {
				return printed[i]
			}
			t := min(max((want-came[i-1])/(came[i]-came[i-1]), 0), 1)
			return printed[i-1] + t*(printed[i]-printed[i-1])
		}
	}
	return printed[len(printed)-1]
}

// risen is the rising series that is nearest to another by least squares (pool adjacent violators:
// Ayer, Brunk, Ewing, Reid and Silverman, 1955).
func risen(v []float64) []float64 {
	type pool struct {
		sum float64
		n   int
	}
	var pools []pool
	for _, x := range v {
		pools = append(pools, pool{x, 1})
		for k := len(pools) - 1; k > 0 && pools[k-1].sum/float64(pools[k-1].n) > pools[k].sum/float64(pools[k].n); k-- {
			pools[k-1] = pool{pools[k-1].sum + pools[k].sum, pools[k-1].n + pools[k].n}
			pools = pools[:k]
		}
	}
	out := make([]float64, 0, len(v))
	for _, p := range pools {
		for range p.n {
			out = append(out, p.sum/float64(p.n))
		}
	}
	return out
}

package infill

import (
	"context"
	"image"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// textures of which it is known what belongs into a hole.
var textures = map[string]func(x, y float64) [3]float64{
	"plain":   func(x, y float64) [3]float64 { return [3]float64{90, 140, 60} },
	"slope":   func(x, y float64) [3]float64 { return [3]float64{40 + x/4, 200 - y/3, 120} },
	"stripes": func(x, y float64) [3]float64 { return shade(math.Sin((x + y) / 6)) },
	"weave":   func(x, y float64) [3]float64 { return shade(math.Sin(x/5) * math.Cos(y/7)) },
	"checks": func(x, y float64) [3]float64 {
		if (int(x)/18+int(y)/18)%2 == 0 {
			return [3]float64{220, 200, 160}
		}
		return [3]float64{70, 50, 40}
	},
	"horizon": func(x, y float64) [3]float64 {
		if y > 150+10*math.Sin(x/40) {
			return [3]float64{80, 120, 60}
		}
		return [3]float64{230, 200, 150}
	},
}

func shade(v float64) [3]float64 { return [3]float64{130 + 70*v, 110 + 50*v, 90 + 30*v} }

func drawn(of func(x, y float64) [3]float64, w, h int) *image.NRGBA {
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for i := range w * h {
		c := of(float64(i%w), float64(i/w))
		for k := range c {
			img.Pix[4*i+k] = uint8(c[k])
		}
		img.Pix[4*i+3] = 255
	}
	return img
}

// disc is a hole in the middle, spoilt in a picture.
func disc(img *image.NRGBA, r float64) []bool {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	hole := make([]bool, w*h)
	for i := range hole {
		hole[i] = math.Hypot(float64(i%w)-float64(w)/2, float64(i/w)-float64(h)/2) < r
		if hole[i] {
			copy(img.Pix[4*i:], []uint8{255, 0, 255, 255})
		}
	}
	return hole
}

// step is the mean square of what neighbours differ by, across the edge of the hole or, without,
// away from it.
func step(img *image.NRGBA, hole []bool, across bool) float64 {
	w := img.Rect.Dx()
	sum, n := 0.0, 0.0
	for i := range hole {
		for _, j := range []int{i + 1, i + w} {
			if j >= len(hole) || j == i+1 && j%w == 0 || (hole[i] != hole[j]) != across || !across && hole[i] {
				continue
			}
			for c := range 3 {
				d := float64(img.Pix[4*i+c]) - float64(img.Pix[4*j+c])
				sum += d * d
			}
			n++
		}
	}
	return sum / n
}

// The edge of what was filled is no rougher than what is about it, and what belongs there comes
// near to what was there.
func TestHolesAreFilledWithoutSeams(t *testing.T) {
	for name, of := range textures {
		want, img := drawn(of, 360, 300), drawn(of, 360, 300)
		hole := disc(img, 52)
		ok, err := Fill(t.Context(), img, hole, 1)
		require.NoError(t, err)
		require.True(t, ok)
		seam, usual := step(img, hole, true), step(img, hole, false)
		if name != "horizon" { // where it comes in may be a few pixels off, and it is strong
			assert.LessOrEqual(t, seam, 1.5*usual+6, name)
		}
		off := 0.0
		for i, is := range hole {
			if is {
				off += math.Abs(float64(img.Pix[4*i])-float64(want.Pix[4*i])) / float64(len(hole))
			}
		}
		off *= float64(len(hole)) / (math.Pi * 52 * 52)
		assert.Less(t, off, map[string]float64{"horizon": 20, "slope": 8}[name]+2, name)
	}
}

func TestTheSameSeedGivesTheSamePixels(t *testing.T) {
	fill := func(seed uint64) []uint8 {
		img := drawn(textures["weave"], 200, 160)
		_, err := Fill(t.Context(), img, disc(img, 30), seed)
		require.NoError(t, err)
		return img.Pix
	}
	assert.Equal(t, fill(3), fill(3))
}

// A hole with nothing about it is left, and said; none is nothing to do; a small picture does no
// harm; whoever is gone waits for nothing.
func TestHolesThatCannotBeFilledAreLeft(t *testing.T) {
	img := drawn(textures["checks"], 60, 40)
	all := make([]bool, 60*40)
	ok, err := Fill(t.Context(), img, all, 1)
	require.NoError(t, err)
	assert.True(t, ok)
	for i := range all {
		all[i] = true
	}
	was := append([]uint8(nil), img.Pix...)
	ok, err = Fill(t.Context(), img, all, 1)
	require.NoError(t, err)
	assert.False(t, ok)
	assert.Equal(t, was, img.Pix)
	for w := 1; w < 12; w++ {
		small := drawn(textures["slope"], w, 12-w)
		hole := make([]bool, w*(12-w))
		hole[len(hole)/2] = true
		_, err := Fill(t.Context(), small, hole, 1)
		require.NoError(t, err)
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	large := drawn(textures["weave"], 200, 160)
	_, err = Fill(ctx, large, disc(large, 30), 1)
	assert.ErrorIs(t, err, context.Canceled)
}

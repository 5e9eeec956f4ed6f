package gamut

import (
	"image"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A printer with any smooth curve prints greys as wanted once it was measured; measured again with
// the correction on, the correction stays.
func TestMeasuredTonesComeOutAsWanted(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 6))
	for range 50 {
		bend := [3]float64{r.Float64()*.5 - .25, r.Float64()*.5 - .25, r.Float64()*.5 - .25}
		prints := func(c int, v float64) float64 { return 255 * grown(v/255, bend[c]) }
		measure := func(tone Tone) (printed []float64, came [3][]float64) {
			for i := range 12 {
				v := 255 * float64(i) / 11
				printed = append(printed, v)
				for c := range came {
					came[c] = append(came[c], prints(c, tone.At(c, v))+r.NormFloat64()*.3)
				}
			}
			return printed, came
		}
		tone := Tone{}.Corrected(measure(Tone{}))
		again := tone.Corrected(measure(tone))
		for c := range 3 {
			for v := 0.0; v <= 255; v += 5 {
				assert.InDelta(t, v, prints(c, tone.At(c, v)), 5, "%v at %v", bend, v)
				assert.InDelta(t, v, prints(c, again.At(c, v)), 5, "%v at %v", bend, v)
			}
			assert.Zero(t, tone.At(c, 0))
			assert.Equal(t, 255.0, tone.At(c, 255))
		}
		assert.True(t, tone.Sound())
	}
}

func TestTonesRiseWhateverIsMeasured(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 7))
	for range 300 {
		var printed []float64
		var came [3][]float64
		for i := range 12 {
			printed = append(printed, 255*float64(i)/11)
			for c := range came {
				came[c] = append(came[c], r.Float64()*300-20)
			}
		}
		assert.True(t, Tone{}.Corrected(printed, came).Sound())
	}
	assert.False(t, Tone{{0, 255, 3}}.Sound())
	assert.False(t, Tone{{math.NaN()}}.Sound())
	v := risen([]float64{3, 1, 2, 5, 4})
	assert.Equal(t, []float64{2, 2, 2, 4.5, 4.5}, v)
}

func TestNoCorrectionChangesNoPixel(t *testing.T) {
	img := image.NewRGBA(image.Rect(0, 0, 16, 16))
	for i := range img.Pix {
		img.Pix[i] = uint8(i)
	}
	was := append([]uint8(nil), img.Pix...)
	Tone{}.Apply(img)
	assert.Equal(t, was, img.Pix)
	same := Tone{asItIs(), asItIs(), asItIs()}
	same.Apply(img)
	assert.Equal(t, was, img.Pix)
	darker := Tone{}.Corrected([]float64{0, 100, 255}, [3][]float64{{0, 150, 255}, {0, 100, 255}, {0, 100, 255}})
	darker.Apply(img)
	assert.Less(t, img.Pix[4*40], was[4*40])
	assert.Equal(t, was[4*40+1], img.Pix[4*40+1])
}

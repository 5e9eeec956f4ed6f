package pixels

import (
	"context"
	"image"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAllRowsAreDoneOnce(t *testing.T) {
	for _, n := range []int{0, 1, 31, 32, 33, 500} {
		done := make([]int, n)
		require.NoError(t, Rows(t.Context(), n, func(from, to int) {
			for i := from; i < to; i++ {
				done[i]++
			}
		}))
		for _, k := range done {
			require.Equal(t, 1, k)
		}
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	assert.ErrorIs(t, Rows(ctx, 100, func(int, int) { t.Error("nobody waits") }), context.Canceled)
}

func random(w, h int, seed uint64) Plane {
	r := rand.New(rand.NewPCG(seed, seed))
	p := NewPlane(w, h)
	for i := range p.V {
		p.V[i] = r.Float32() * 255
	}
	return p
}

func (p Plane) at(x, y int) float64 {
	return float64(p.V[min(max(y, 0), p.H-1)*p.W+min(max(x, 0), p.W-1)])
}

// Means are those of all values of the square, counted one by one.
func TestMeansAreThoseOfTheSquare(t *testing.T) {
	for _, size := range [][3]int{{1, 1, 3}, {40, 7, 2}, {9, 70, 11}, {33, 33, 1}} {
		was := random(size[0], size[1], 3)
		got := Plane{was.W, was.H, append([]float32(nil), was.V...)}
		require.NoError(t, got.Mean(t.Context(), size[2]))
		// The mean of rows first, then of columns: with repeated edges it is the same.
		for y := range was.H {
			for x := range was.W {
				sum, n := 0.0, 0.0
				for v := -size[2]; v <= size[2]; v++ {
					for u := -size[2]; u <= size[2]; u++ {
						sum, n = sum+was.at(x+u, y+v), n+1
					}
				}
				require.InDelta(t, sum/n, got.at(x, y), .01)
			}
		}
	}
}

// A blurred step is the integral of a Gaussian.
func TestABlurIsNearlyAGaussian(t *testing.T) {
	for _, sigma := range []float64{1, 2.5, 8} {
		p := NewPlane(160, 3)
		for i := range p.V {
			if i%160 >= 80 {
				p.V[i] = 1
			}
		}
		require.NoError(t, p.Blur(t.Context(), sigma))
		for x := range 160 {
			want := .5 + .5*math.Erf((float64(x)+.5-80)/sigma/math.Sqrt2)
			assert.InDelta(t, want, p.at(x, 1), max(.025, .07/sigma), "sigma %v at %d", sigma, x)
		}
	}
}

// Distances are the least of those to all places, one by one.
func TestDistancesAreTheLeast(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 9))
	for range 40 {
		w, h := 1+r.IntN(24), 1+r.IntN(24)
		is := make([]bool, w*h)
		for range 1 + r.IntN(6) {
			is[r.IntN(len(is))] = true
		}
		got, err := Distance(t.Context(), w, h, func(i int) bool { return is[i] })
		require.NoError(t, err)
		for i := range is {
			best := math.Inf(1)
			for j, k := range is {
				if k {
					best = min(best, math.Hypot(float64(i%w-j%w), float64(i/w-j/w)))
				}
			}
			require.InDelta(t, best, float64(got.V[i]), 1e-4)
		}
	}
}

// A guide's edge stays in what is smoothed by it, and noise where the guide is flat goes.
func TestWhatIsGuidedKeepsTheEdgeOfItsGuide(t *testing.T) {
	guide, noisy := NewPlane(100, 40), random(100, 40, 5)
	for i := range guide.V {
		noisy.V[i] /= 8
		if i%100 >= 50 {
			guide.V[i], noisy.V[i] = 200, noisy.V[i]+200
		}
	}
	require.NoError(t, noisy.Guided(t.Context(), guide, 4, 100))
	for x := 8; x < 92; x++ {
		want := 16.0
		if x >= 50 {
			want = 216
		}
		assert.InDelta(t, want, noisy.at(x, 20), 6, x)
	}
}

// The largest within reach is found, and the smallest; the reach is that of an octagon.
func TestValuesSpread(t *testing.T) {
	for _, r := range []int{1, 4, 9} {
		p := NewPlane(41, 41)
		p.V[20*41+20] = 1
		require.NoError(t, p.Spread(t.Context(), r, true))
		for i, v := range p.V {
			d := math.Hypot(float64(i%41-20), float64(i/41-20))
			if d <= .9*float64(r)-1 {
				assert.Equal(t, float32(1), v)
			} else if d > 1.1*float64(r)+.5 {
				assert.Zero(t, v)
			}
		}
		require.NoError(t, p.Spread(t.Context(), r, false))
		sum := float32(0)
		for _, v := range p.V {
			sum += v
		}
		assert.LessOrEqual(t, sum, float32(9), "it is small again")
	}
}

// Between pixels lie values of a smooth picture; what is transparent lends no colour.
func TestSamplesLieBetweenPixels(t *testing.T) {
	img := image.NewNRGBA(image.Rect(0, 0, 40, 30))
	for i := range 40 * 30 {
		copy(img.Pix[4*i:], []uint8{uint8(100 + 2*(i%40)), uint8(80 + 3*(i/40)), 9, 255})
	}
	for _, p := range [][2]float64{{10, 10}, {12.3, 7.9}, {20.5, 20.5}} {
		r, g, b, a := At(img, p[0], p[1])
		assert.InDelta(t, 100+2*(p[0]-.5), r, 1e-6)
		assert.InDelta(t, 80+3*(p[1]-.5), g, 1e-6)
		assert.InDelta(t, 9, b, 1e-6)
		assert.InDelta(t, 255, a, 1e-6)
	}
	for i := range 40 * 30 {
		if i%40 >= 20 {
			copy(img.Pix[4*i:], []uint8{255, 255, 255, 0})
		}
	}
	r, _, _, a := At(img, 19.9, 10)
	assert.InDelta(t, 138, r, 4, "not white")
	assert.Less(t, a, 200.0)
	same, err := Resampled(t.Context(), img, 40, 30, func(x, y float64) (float64, float64) { return x, y })
	require.NoError(t, err)
	for i := range img.Pix {
		if img.Pix[i|3] > 0 {
			require.Equal(t, img.Pix[i], same.Pix[i])
		}
	}
}

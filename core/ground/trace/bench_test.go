package trace

import (
	"context"
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// silhouette is a picture of side pixels square with one ragged outline and some holes.
func silhouette(side int) *Field {
	rnd := rand.New(rand.NewPCG(7, 7))
	var b geom.Builder
	s := float64(side)
	blob := func(cx, cy, r float64, waves int, back bool) {
		amp, phase := make([]float64, waves), make([]float64, waves)
		for i := range amp {
			amp[i], phase[i] = rnd.Float64()*.6/float64(i+3), rnd.Float64()*2*math.Pi
		}
		for k := range 2000 {
			a := 2 * math.Pi * float64(k) / 2000
			if back {
				a = -a
			}
			q := r
			for i := range amp {
				q += r * amp[i] * math.Sin(float64(i+2)*a+phase[i])
			}
			p := geom.Pt(cx+q*math.Cos(a), cy+q*math.Sin(a))
			if k == 0 {
				b.Move(p)
			} else {
				b.Line(p)
			}
		}
		b.Close()
	}
	blob(s/2, s/2, s*.36, 24, false)
	blob(s*.4, s*.45, s*.05, 4, true)
	blob(s*.6, s*.45, s*.05, 4, true)
	return render(b.Path(), side, side, 3, rnd)
}

func benchmarkSilhouette(b *testing.B, side int) {
	f := silhouette(side)
	img := image.NewNRGBA(image.Rect(0, 0, side, side))
	for y := range side {
		for x, v := range f.Row(y) {
			img.SetNRGBA(x, y, color.NRGBA{60, 90, 40, v})
		}
	}
	ways := map[string]func() *Field{
		"transparency": func() *Field { return ByTransparency(img) },
		"darkness":     func() *Field { return ByDarkness(img, Level(img)) },
		"colour":       func() *Field { return ByColours(img, []RGB{{60, 90, 40}}, 10) },
	}
	for name, field := range ways {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				res, err := Trace(context.Background(), field(), Options{Speck: 9})
				require.NoError(b, err)
				b.ReportMetric(float64(res.Nodes), "nodes")
			}
		})
	}
}

func BenchmarkSilhouette1Megapixel(b *testing.B)   { benchmarkSilhouette(b, 1000) }
func BenchmarkSilhouette12Megapixels(b *testing.B) { benchmarkSilhouette(b, 3464) }

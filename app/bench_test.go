package app_test

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/kovidgoyal/imaging"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/document/edits"
	"sectilis/core/document/picture"
	"sectilis/core/ground/geom"
	"sectilis/store"
)

// large is a JPEG of 12 megapixels.
func large(b *testing.B) []byte {
	b.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 4000, 3000))
	for y := range 3000 {
		for x := range 4000 {
			img.SetRGBA(x, y, color.RGBA{uint8(x / 16), uint8(y / 12), uint8(x * y >> 12), 255})
		}
	}
	var raw bytes.Buffer
	require.NoError(b, jpeg.Encode(&raw, img, nil))
	return raw.Bytes()
}

// onStore is the use cases over a new store.
func onStore(b *testing.B) *app.App {
	b.Helper()
	s, err := store.Open(b.Context(), filepath.Join(b.TempDir(), "a.db"))
	require.NoError(b, err)
	a := app.New(app.Config{Store: s})
	b.Cleanup(func() { a.Close(); _ = s.Close() })
	return a
}

// BenchmarkBringIn takes a photo: read, kept, and its previews made.
func BenchmarkBringIn(b *testing.B) {
	raw := large(b)
	a := onStore(b)
	for b.Loop() {
		_, err := a.BringIn(b.Context(), "big.jpg", raw)
		require.NoError(b, err)
	}
}

// light is an edit of light; each i is another.
func light(i int) []card.Edit {
	return []card.Edit{{Light: &card.Light{Brightness: float64(i%97) + .01*float64(i%89), Warmth: 20, Saturation: 10}}}
}

// BenchmarkSlide is what a slider of light shows of a photo, each time at another value; of
// twenty, nineteen are there within p95-ms.
func BenchmarkSlide(b *testing.B) {
	a := onStore(b)
	p, err := a.BringIn(b.Context(), "big.jpg", large(b))
	require.NoError(b, err)
	var all []time.Duration
	show := func(i int) {
		at := time.Now()
		_, _, err := a.TryEdits(b.Context(), p.ID, light(i), 900)
		require.NoError(b, err)
		all = append(all, time.Since(at))
	}
	show(0)
	all = nil
	for i := 1; b.Loop(); i++ {
		show(i)
	}
	slices.Sort(all)
	b.ReportMetric(float64(all[len(all)*19/20].Microseconds())/1000, "p95-ms")
}

// BenchmarkThreeForPrint is three photos in full, read and changed.
func BenchmarkThreeForPrint(b *testing.B) {
	raw := large(b)
	for b.Loop() {
		for i := range 3 {
			img, _, err := picture.Decode("big.jpg", raw)
			require.NoError(b, err)
			_, err = edits.Apply(b.Context(), imaging.AsNRGBA(img), light(i))
			require.NoError(b, err)
		}
	}
}

// subject is a JPEG of 12 megapixels of a disc on a patterned ground.
func subject(b *testing.B) []byte {
	b.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 4000, 3000))
	for y := range 3000 {
		for x := range 4000 {
			k := uint8(20 + 14*math.Sin(float64(x)/31)*math.Cos(float64(y)/40))
			c := color.RGBA{70 + k, 110 + k, 50 + k, 255}
			if math.Hypot(float64(x)-2000, float64(y)-1500) < 800 {
				c = color.RGBA{200 + k, 110 + k, 20 + k/2, 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	var raw bytes.Buffer
	require.NoError(b, jpeg.Encode(&raw, img, nil))
	return raw.Bytes()
}

// BenchmarkSubject is what a stroke more shows of a subject in a photo of 12 megapixels, as it is
// seen while strokes are drawn.
func BenchmarkSubject(b *testing.B) {
	a := onStore(b)
	p, err := a.BringIn(b.Context(), "big.jpg", subject(b))
	require.NoError(b, err)
	stroke := func(x, y float64) card.Brushed {
		return card.Brushed{Points: []geom.Point{{X: x, Y: y}, {X: x + .08, Y: y}}, Radius: .01}
	}
	s := card.Subject{Stays: []card.Brushed{stroke(.5, .5)}, Goes: []card.Brushed{stroke(.1, .1)}}
	for i := 0; b.Loop(); i++ {
		s.Goes = append(s.Goes[:1:1], stroke(.05+.001*float64(i%200), .9))
		_, _, err := a.TryEdits(b.Context(), p.ID, []card.Edit{{CutOut: &card.CutOut{Subject: &s}}}, 900)
		require.NoError(b, err)
	}
}

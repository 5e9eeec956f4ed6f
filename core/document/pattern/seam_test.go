package pattern

import (
	"image"
	"image/color"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/ground/geom"
)

// waves goes on at both pairs of edges when its periods divide its size.
func waves(w, h int, px, py float64) image.Image {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			v := 128 + 60*math.Sin(2*math.Pi*float64(x)/px) + 50*math.Cos(2*math.Pi*float64(y)/py)
			img.Set(x, y, color.RGBA{uint8(v), uint8(200 - v/2), 90, 255})
		}
	}
	return img
}

func TestSeamsAreFound(t *testing.T) {
	for name, c := range map[string]struct {
		img          image.Image
		across, down bool
	}{
		"none":   {waves(120, 90, 40, 30), false, false},
		"across": {waves(130, 90, 40, 30), true, false},
		"down":   {waves(120, 97, 40, 30), false, true},
		"both":   {waves(130, 97, 40, 30), true, true},
		"plain":  {waves(2, 2, 1, 1), false, false},
	} {
		across, down := Seams(c.img)
		assert.Equal(t, [2]bool{c.across, c.down}, [2]bool{across, down}, name)
	}
	// A check's edges differ as much as any of its squares do.
	check := image.NewGray(image.Rect(0, 0, 40, 40))
	for y := range 40 {
		for x := range 40 {
			if (x/10+y/10)%2 == 0 {
				check.SetGray(x, y, color.Gray{220})
			}
		}
	}
	across, down := Seams(check)
	assert.False(t, across || down)
}

func point(p [2]float64) geom.Point { return geom.Pt(p[0], p[1]) }

func TestMirroredTilesMeetAtTheirEdges(t *testing.T) {
	p := Paper{Width: 30, Height: 20, Mirrored: true}
	w, h, tiles := p.Repeat()
	assert.Equal(t, [2]float64{60, 40}, [2]float64{w, h})
	assert.Len(t, tiles, 4)
	// Whichever two tiles share an edge show the same part of the picture on both sides of it.
	covered := 0.0
	for _, a := range tiles {
		covered += math.Abs(a.Det())
		for _, b := range tiles {
			for k := range 11 {
				for _, edge := range [][2]float64{{0, float64(k) / 10}, {1, float64(k) / 10}, {float64(k) / 10, 0}, {float64(k) / 10, 1}} {
					at := a.Apply(point(edge))
					back, _ := b.Inverse()
					if q := back.Apply(at); q.X > -1e-9 && q.X < 1+1e-9 && q.Y > -1e-9 && q.Y < 1+1e-9 {
						assert.InDelta(t, 0, q.Sub(point(edge)).Len(), 1e-9)
					}
				}
			}
		}
	}
	assert.InDelta(t, w*h, covered, 1e-9)
}

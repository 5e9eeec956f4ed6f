package app

import (
	"context"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"io"
	"math"

	"github.com/kovidgoyal/imaging/apng"

	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
)

// How a card is seen to open: from nearly closed to wide open and back, in so many frames there.
const (
	shutAt     = .97
	wideAt     = .3
	openFrames = 13
	frameLong  = 90  // ms
	restLong   = 900 // ms, at both ends
)

// ground is what a card is shown on.
var ground = color.RGBA{0xff, 0xfd, 0xf9, 0xff}

// opening paints a card at some openings, all at one size and place, with the longer side of what they take
// in pixels. It returns ErrNotFound for a card that is not on the table and the error of the context.
func (u *supplies) opening(ctx context.Context, id string, side int, closed []float64) ([]*image.RGBA, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return nil, err
	}
	c, s := o.rev.Card, o.scene
	o.Unlock()
	inks := make([][]scene.Ink, len(closed))
	var box geom.Rect
	for i, k := range closed {
		var b geom.Rect
		inks[i], b = s.StandingAt(c, k)
		box = box.Union(b)
	}
	box = box.Grow(.04 * math.Max(box.W, box.H))
	pictures := u.small(ctx)
	out := make([]*image.RGBA, len(closed))
	for i := range closed {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		canvas := raster.New(box.W, box.H, float64(side)/math.Max(box.W, box.H), ground, pictures)
		if err := canvas.Paint(scene.Transform(inks[i], geom.Shift(-box.X, -box.Y))); err != nil {
			return nil, fmt.Errorf("draw card: %w", err)
		}
		out[i] = canvas.Image()
	}
	return out, nil
}

// eased is a share of a way that begins and ends gently.
func eased(t float64) float64 { return (1 - math.Cos(math.Pi*t)) / 2 }

// WriteFolding writes a card as it opens and closes as an animated PNG. It returns what opening does, and
// the error of w.
func (u *supplies) WriteFolding(ctx context.Context, w io.Writer, id string, side int) error {
	closed := make([]float64, openFrames)
	for i := range closed {
		closed[i] = shutAt + (wideAt-shutAt)*eased(float64(i)/(openFrames-1))
	}
	images, err := u.opening(ctx, id, side, closed)
	if err != nil {
		return err
	}
	var film apng.APNG
	for i := range 2 * (openFrames - 1) {
		k := i
		if k >= openFrames {
			k = 2*(openFrames-1) - i
		}
		long := uint16(frameLong)
		if k == 0 || k == openFrames-1 {
			long = restLong
		}
		film.Frames = append(film.Frames, apng.Frame{Image: images[k], DelayNumerator: long, DelayDenominator: 1000})
	}
	return apng.Encode(w, film)
}

// WriteStills writes a card at five openings side by side as a PNG, each with the longer side in pixels. It
// returns what opening does, and the error of w.
func (u *supplies) WriteStills(ctx context.Context, w io.Writer, id string, side int) error {
	closed := make([]float64, 5)
	for i := range closed {
		closed[i] = shutAt + (wideAt-shutAt)*float64(i)/4
	}
	images, err := u.opening(ctx, id, side, closed)
	if err != nil {
		return err
	}
	b := images[0].Bounds()
	row := image.NewRGBA(image.Rect(0, 0, b.Dx()*len(images), b.Dy()))
	for i, img := range images {
		draw.Draw(row, b.Add(image.Pt(i*b.Dx(), 0)), img, b.Min, draw.Src)
	}
	return png.Encode(w, row)
}

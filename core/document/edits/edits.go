// Package edits does to pictures what a card says is done to them.
package edits

import (
	"bytes"
	"context"
	"image"
	"strconv"

	"sectilis/core/document/card"
	"sectilis/core/ground/cutout"
	"sectilis/core/ground/light"
	"sectilis/core/ground/pixels"
	"sectilis/core/ground/reshape"
)

// Apply is a picture after edits; the picture that it is given may be changed. Edits say what they
// say in shares of the picture, so that a small copy shows what the large one becomes. It returns
// the error of the context, and that of card.SizeAfter before anything is done.
func Apply(ctx context.Context, img *image.NRGBA, all []card.Edit) (*image.NRGBA, error) {
	if _, _, err := card.SizeAfter(all, img.Rect.Dx(), img.Rect.Dy()); err != nil {
		return nil, err
	}
	var err error
	for _, e := range all {
		if img, err = apply(ctx, img, e); err != nil {
			return nil, err
		}
	}
	return img, nil
}

func apply(ctx context.Context, img *image.NRGBA, e card.Edit) (*image.NRGBA, error) {
	if e.Of != nil {
		return img, inPart(ctx, img, e)
	}
	w, h := float64(img.Rect.Dx()), float64(img.Rect.Dy())
	switch {
	case e.Light != nil:
		if err := through(ctx, img, settings(*e.Light).Table()); err != nil {
			return nil, err
		}
		return img, detail(*e.Light).Apply(ctx, img)
	case e.Right != nil:
		return img, through(ctx, img, light.Right(*e.Right).Table())
	case e.Tone != nil:
		return img, through(ctx, img, light.OneColour(rgb(e.Tone.Colour), e.Tone.Amount/100))
	case e.Lean != nil:
		return reshape.Lean(ctx, img, e.Lean.Degrees)
	case e.Corners != nil:
		return reshape.Corners(e.Corners.At).Square(ctx, img)
	case e.Eyes != nil:
		var all []light.Eye
		for _, o := range *e.Eyes {
			all = append(all, light.Eye{X: o.X * w, Y: o.Y * h, Radius: o.Radius * w})
		}
		light.Darken(img, all)
	case e.CutOut != nil:
		return img, cutout.Apply(ctx, img, spec(*e.CutOut))
	case e.Filled != nil:
		return img, fill(ctx, img, *e.Filled)
	case e.Copied != nil:
		copyOver(img, *e.Copied)
	case e.Wider != nil:
		return wider(ctx, img, *e.Wider)
	}
	return img, ctx.Err()
}

// inPart does an edit to part of a picture, in place, as far as each pixel is of that.
func inPart(ctx context.Context, img *image.NRGBA, e card.Edit) error {
	part, err := cutout.Mask(ctx, img, spec(*e.Of))
	if err != nil {
		return err
	}
	e.Of = nil
	whole, err := apply(ctx, &image.NRGBA{Pix: bytes.Clone(img.Pix), Stride: img.Stride, Rect: img.Rect}, e)
	if err != nil {
		return err
	}
	return pixels.Rows(ctx, part.H, func(from, to int) {
		for i := from * part.W; i < to*part.W; i++ {
			k := float64(part.V[i])
			for c := 4 * i; c < 4*i+4; c++ {
				img.Pix[c] = pixels.Byte(float64(img.Pix[c]) + (float64(whole.Pix[c])-float64(img.Pix[c]))*k)
			}
		}
	})
}

// through takes the colours of a picture through a table, nil being none.
func through(ctx context.Context, img *image.NRGBA, t *light.Table) error {
	if t == nil {
		return nil
	}
	return t.Apply(ctx, img)
}

func settings(l card.Light) light.Settings {
	return light.Settings{
		Brightness: l.Brightness / 100, Contrast: l.Contrast / 100, Highlights: l.Highlights / 100, Shadows: l.Shadows / 100,
		Saturation: l.Saturation / 100, Lively: l.Lively / 100, Warmth: l.Warmth / 100, Tint: l.Tint / 100,
	}
}

func detail(l card.Light) light.Detail {
	return light.Detail{Sharpness: l.Sharpness / 100, Softness: l.Softness / 100, Smooth: l.Smooth / 100}
}

// spec is how a cut of a card is made.
func spec(k card.CutOut) cutout.Spec {
	out := cutout.Spec{Within: k.Within, Softness: k.Softness, Out: k.Out, Clean: 1 - k.Keep/100, Rest: k.Rest}
	if g := k.Ground; g != nil {
		out.Ground = &cutout.Ground{At: g.At, Tolerance: g.Tolerance / 100, Everywhere: g.Everywhere}
	}
	if s := k.Subject; s != nil {
		out.Subject = &cutout.Subject{Stays: brushed(s.Stays), Goes: brushed(s.Goes), Round: s.Round}
	}
	for _, p := range k.Paint {
		out.Paint = append(out.Paint, cutout.Paint{Stroke: stroke(p.Brushed), In: p.In, Soft: p.Soft})
	}
	return out
}

func stroke(b card.Brushed) cutout.Stroke { return cutout.Stroke{At: b.Points, Radius: b.Radius} }

func brushed(all []card.Brushed) (out []cutout.Stroke) {
	for _, b := range all {
		out = append(out, stroke(b))
	}
	return out
}

// rgb reads a colour of a card, #rrggbb.
func rgb(s string) [3]uint8 {
	v, _ := strconv.ParseUint(s[min(1, len(s)):], 16, 32) // the card has checked it
	return [3]uint8{uint8(v >> 16), uint8(v >> 8), uint8(v)}
}

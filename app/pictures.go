package app

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"sectilis/core/card"
	"sectilis/core/format/raster"
	"sectilis/core/picture"
)

// Sides are the sizes of previews, in pixels on the longer side, growing.
var Sides = []int{256, 800, 1600}

// BringIn takes a picture. The error is a *picture.Error for bytes that are no
// picture. The same bytes brought in again are the same picture.
func (a *App) BringIn(ctx context.Context, name string, raw []byte) (Picture, error) {
	img, info, err := picture.Decode(name, raw)
	if err != nil {
		return Picture{}, err
	}
	sum := sha256.Sum256(raw)
	p := Picture{ID: hex.EncodeToString(sum[:]), Name: tidyName(name), Type: info.Type, Width: info.Width, Height: info.Height, Bytes: len(raw)}
	if err := a.store.AddPicture(ctx, p, raw, a.now()); err != nil {
		return Picture{}, fmt.Errorf("keep picture: %w", err)
	}
	// Previews are made while the picture is decoded anyway, each smaller one
	// from the one before.
	for _, side := range slices.Backward(Sides) {
		img = picture.Scale(img, side)
		if _, _, err := a.addPreview(ctx, p.ID, img, side); err != nil {
			return Picture{}, err
		}
	}
	return p, nil
}

// tidyName is the file's name without its ending, fit to name an item.
func tidyName(name string) string {
	if i := strings.LastIndexByte(name, '.'); i > 0 {
		name = name[:i]
	}
	name = strings.Map(func(r rune) rune {
		if r < ' ' {
			return -1
		}
		return r
	}, strings.ReplaceAll(name, "_", " "))
	if !utf8.ValidString(name) || strings.TrimSpace(name) == "" {
		return "Photo"
	}
	if r := []rune(name); len(r) > 80 {
		name = string(r[:80])
	}
	return strings.TrimSpace(name)
}

func (a *App) addPreview(ctx context.Context, id string, img image.Image, side int) (string, []byte, error) {
	raw, kind, err := picture.Preview(picture.Scale(img, side))
	if err != nil {
		return "", nil, fmt.Errorf("make preview: %w", err)
	}
	return kind, raw, a.store.AddPreview(ctx, id, side, kind, raw)
}

// Pictures lists what was brought in, newest first.
func (a *App) Pictures(ctx context.Context) ([]Picture, error) { return a.store.Pictures(ctx) }

// PicturePreview returns a preview of one of the Sides, made when first asked.
func (a *App) PicturePreview(ctx context.Context, id string, side int) (kind string, raw []byte, err error) {
	kind, raw, err = a.store.Preview(ctx, id, side)
	if !errors.Is(err, ErrNotFound) {
		return kind, raw, err
	}
	img, err := a.decoded(ctx, id)
	if err != nil {
		return "", nil, err
	}
	return a.addPreview(ctx, id, img, side)
}

func (a *App) decoded(ctx context.Context, id string) (image.Image, error) {
	p, raw, err := a.store.Picture(ctx, id)
	if err != nil {
		return nil, err
	}
	img, _, err := picture.Decode("", raw)
	if err != nil {
		return nil, fmt.Errorf("picture %s: %w", p.Name, err)
	}
	return img, nil
}

type thumbnail struct {
	revision int64
	raw      []byte
}

// thumbSide is the longer side of a card's picture on the table, in pixels.
const thumbSide = 360

// Thumbnail is a PNG of the front of the card.
func (a *App) Thumbnail(ctx context.Context, id string) ([]byte, error) {
	o, err := a.load(ctx, id)
	if err != nil {
		return nil, err
	}
	rev, s := o.rev, o.scene
	o.Unlock()
	a.mu.Lock()
	kept, ok := a.thumb[id]
	a.mu.Unlock()
	if ok && kept.revision == rev.Number {
		return kept.raw, nil
	}
	f := s.Face(card.Front)
	canvas := raster.New(f.Width, f.Height, thumbSide/math.Max(f.Width, f.Height), color.White, func(id string) (image.Image, error) {
		_, raw, err := a.PicturePreview(ctx, id, Sides[0])
		if err != nil {
			return nil, err
		}
		img, _, err := picture.Decode("", raw)
		return img, err
	})
	if err := canvas.Paint(s.Look(f, rev.Card.Base)); err != nil {
		return nil, fmt.Errorf("draw card: %w", err)
	}
	var b bytes.Buffer
	if err := png.Encode(&b, canvas.Image()); err != nil {
		return nil, fmt.Errorf("draw card: %w", err)
	}
	a.mu.Lock()
	a.thumb[id] = thumbnail{rev.Number, b.Bytes()}
	a.mu.Unlock()
	return b.Bytes(), nil
}

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
	"runtime/debug"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/kovidgoyal/imaging"

	"sectilis/core/document/card"
	"sectilis/core/document/edits"
	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
)

// Picture is a picture that was brought in.
type Picture struct {
	ID     string `json:"id"` // SHA-256 of its bytes, in hex
	Name   string `json:"name"`
	Type   string `json:"type"`
	Width  int    `json:"width"` // upright, in pixels
	Height int    `json:"height"`
	Bytes  int    `json:"bytes"`
	// Clear says that parts of it are transparent.
	Clear bool `json:"clear,omitempty"`
}

// Sides are the sizes of previews, in pixels on the longer side, growing.
var Sides = []int{256, 800, 1600}

// BringIn takes a picture. The error is a *picture.Error for bytes that are no
// picture. The same bytes brought in again are the same picture.
func (u *supplies) BringIn(ctx context.Context, name string, raw []byte) (Picture, error) {
	img, info, release, err := u.decode(ctx, name, raw)
	if err != nil {
		return Picture{}, err
	}
	defer release()
	sum := sha256.Sum256(raw)
	p := Picture{ID: hex.EncodeToString(sum[:]), Name: tidyName(name), Type: info.Type, Width: info.Width, Height: info.Height, Bytes: len(raw)}
	if err := u.store.AddPicture(ctx, p, raw, u.now()); err != nil {
		return Picture{}, fmt.Errorf("keep picture: %w", err)
	}
	// Previews are made while the picture is decoded anyway, each smaller one
	// from the one before.
	for _, side := range slices.Backward(Sides) {
		img = picture.Scale(img, side)
		kind, _, err := u.addPreview(ctx, p.ID, img, side)
		if err != nil {
			return Picture{}, err
		}
		p.Clear = kind == "image/png"
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

func (u *supplies) addPreview(ctx context.Context, id string, img image.Image, side int) (string, []byte, error) {
	raw, kind, err := picture.Preview(picture.Scale(img, side))
	if err != nil {
		return "", nil, fmt.Errorf("make preview: %w", err)
	}
	return kind, raw, u.store.AddPreview(ctx, id, side, kind, raw)
}

// Pictures lists what was brought in, newest first. It fails when the store does.
func (u *supplies) Pictures(ctx context.Context) ([]Picture, error) { return u.store.Pictures(ctx) }

// PicturePreview returns a preview of one of the Sides, made when first asked. It returns
// ErrNotFound for a picture or a size that there is none of.
func (u *supplies) PicturePreview(ctx context.Context, id string, side int) (kind string, raw []byte, err error) {
	kind, raw, err = u.store.Preview(ctx, id, side)
	if !errors.Is(err, ErrNotFound) {
		return kind, raw, err
	}
	if ok, err := u.store.HasPicture(ctx, id); err != nil {
		return "", nil, err
	} else if !ok {
		p, err := u.editedPreview(ctx, id, side)
		return p.kind, p.raw, err
	}
	img, release, err := u.decoded(ctx, id)
	if err != nil {
		return "", nil, err
	}
	defer release()
	return u.addPreview(ctx, id, img, side)
}

// decode reads a picture. One that takes much memory waits until no other such is being
// worked on; release lets the next one go on and gives the memory back, and is to be called
// when the picture is not needed any more.
func (u *supplies) decode(ctx context.Context, name string, raw []byte) (img image.Image, info picture.Info, release func(), err error) {
	if info, err = picture.Inspect(name, raw); err != nil {
		return nil, info, nil, err
	}
	release = func() {}
	if info.Decoded > picture.Large {
		select {
		case u.large <- struct{}{}:
		case <-ctx.Done():
			return nil, info, nil, ctx.Err()
		}
		release = func() {
			<-u.large
			debug.FreeOSMemory()
		}
	}
	if img, info, err = picture.Decode(name, raw); err != nil {
		release()
		return nil, info, nil, err
	}
	return img, info, release, nil
}

// decoded is a picture for painting, as it was brought in or after edits; see decode. It returns
// ErrNotFound for one that is not there.
func (u *supplies) decoded(ctx context.Context, ref string) (img image.Image, release func(), err error) {
	of, err := u.origin(ctx, ref)
	if err != nil {
		return nil, nil, err
	}
	p, raw, err := u.store.Picture(ctx, of.Picture)
	if err != nil {
		return nil, nil, err
	}
	img, _, release, err = u.decode(ctx, "", raw)
	if err != nil {
		return nil, nil, fmt.Errorf("picture %s: %w", p.Name, err)
	}
	if len(of.Edits) == 0 {
		return img, release, nil
	}
	if img, err = edits.Apply(ctx, imaging.AsNRGBA(img), of.Edits); err != nil {
		release()
		return nil, nil, err
	}
	return img, release, nil
}

type thumbnail struct {
	revision int64
	stocks   string // names what was known of them
	raw      []byte
}

// thumbSide is the longer side of a card's picture on the table, in pixels.
const thumbSide = 360

// Thumbnail is a PNG of the card as it stands on the table, on no ground. It returns
// ErrNotFound for a card that is not on the table and a *Damaged for one that cannot be read.
func (u *supplies) Thumbnail(ctx context.Context, id string) ([]byte, error) {
	stocks := u.cards.shelves()
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return nil, err
	}
	rev, s := o.rev, o.scene
	o.Unlock()
	if kept, ok := u.thumb.Get(id); ok && kept.revision == rev.Number && kept.stocks == stocks {
		return kept.raw, nil
	}
	inks, box := s.Standing(rev.Card)
	raw, err := u.paintOn(ctx, color.Transparent, box.Grow(.5), thumbSide, inks)
	if err != nil {
		return nil, err
	}
	u.thumb.Put(id, thumbnail{rev.Number, stocks, raw})
	return raw, nil
}

// paint paints inks that lie in a box as a PNG with the longer side in pixels.
func (u *supplies) paint(ctx context.Context, box geom.Rect, side float64, inks []scene.Ink) ([]byte, error) {
	return u.paintOn(ctx, color.White, box, side, inks)
}

// paintOn is paint on a ground of a colour.
func (u *supplies) paintOn(ctx context.Context, ground color.Color, box geom.Rect, side float64, inks []scene.Ink) ([]byte, error) {
	canvas := raster.New(box.W, box.H, side/math.Max(box.W, box.H), ground, func(id string) (image.Image, error) {
		_, raw, err := u.PicturePreview(ctx, id, Sides[0])
		if err != nil {
			return nil, err
		}
		img, _, err := picture.Decode("", raw)
		return img, err
	})
	if err := canvas.Paint(scene.Transform(inks, geom.Shift(-box.X, -box.Y))); err != nil {
		return nil, fmt.Errorf("draw card: %w", err)
	}
	var b bytes.Buffer
	if err := png.Encode(&b, canvas.Image()); err != nil {
		return nil, fmt.Errorf("draw card: %w", err)
	}
	return b.Bytes(), nil
}

// lookSide is the longer side, in pixels, of what is laid on the folded card.
const lookSide = 640

// FaceLook is what one sees of a face without the pieces on it, or of one piece alone, in the
// box of its bounds, as a PNG. It returns ErrNotFound for a card, a face or a piece that is
// not there.
func (u *supplies) FaceLook(ctx context.Context, id string, face card.FaceID, piece string) ([]byte, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return nil, err
	}
	s, base := o.scene, o.rev.Card.Base
	o.Unlock()
	f := s.Face(face)
	if f == nil {
		return nil, ErrNotFound
	}
	if piece == "" {
		stock, _ := card.StockByID(base.Stock)
		return u.paint(ctx, geom.Rect{W: f.Width, H: f.Height}, lookSide, f.BaseSeen(stock))
	}
	for i := range f.Items {
		it := &f.Items[i]
		if it.ID != piece || !it.Piece {
			continue
		}
		return u.paint(ctx, it.Bounds, lookSide, f.PieceSeen(it))
	}
	return nil, ErrNotFound
}

// PictureFacts are what is seen of a picture.
type PictureFacts struct {
	// Palette are five colours of the picture or fewer, the most frequent first.
	Palette []string `json:"palette"`
	// DetailX and DetailY are the middle of what there is to see, in shares.
	DetailX float64 `json:"detailX"`
	DetailY float64 `json:"detailY"`
}

// Facts looks at a picture. It returns ErrNotFound for a picture that is not there.
func (u *supplies) Facts(ctx context.Context, id string) (PictureFacts, error) {
	_, raw, err := u.PicturePreview(ctx, id, Sides[0])
	if err != nil {
		return PictureFacts{}, err
	}
	img, _, err := picture.Decode("", raw)
	if err != nil {
		return PictureFacts{}, fmt.Errorf("look at picture: %w", err)
	}
	f := PictureFacts{Palette: picture.Palette(img, 5)}
	f.DetailX, f.DetailY = picture.Detail(img)
	return f, nil
}

// ColourAt is the colour that is seen at a place of a face, #rrggbb: the mean over half a
// millimetre, as the eye takes it. It returns ErrNotFound for a card or a face that is not
// there.
func (u *supplies) ColourAt(ctx context.Context, id string, face card.FaceID, at geom.Point) (string, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return "", err
	}
	s, base := o.scene, o.rev.Card.Base
	o.Unlock()
	f := s.Face(face)
	if f == nil {
		return "", ErrNotFound
	}
	if !(geom.Rect{W: f.Width, H: f.Height}).Has(at) {
		return "", &card.Refusal{Field: "at", Why: "Point at a place on the face to pick its colour."}
	}
	const spot = .5
	raw, err := u.paint(ctx, geom.Rect{X: at.X - spot/2, Y: at.Y - spot/2, W: spot, H: spot}, 4, s.Look(f, base))
	if err != nil {
		return "", err
	}
	img, err := png.Decode(bytes.NewReader(raw))
	if err != nil {
		return "", fmt.Errorf("look at a place: %w", err)
	}
	var sum [3]uint32
	b := img.Bounds()
	for y := b.Min.Y; y < b.Max.Y; y++ {
		for x := b.Min.X; x < b.Max.X; x++ {
			r, g, bl, _ := img.At(x, y).RGBA()
			sum[0], sum[1], sum[2] = sum[0]+r>>8, sum[1]+g>>8, sum[2]+bl>>8
		}
	}
	n := uint32(b.Dx() * b.Dy())
	return fmt.Sprintf("#%02x%02x%02x", sum[0]/n, sum[1]/n, sum[2]/n), nil
}

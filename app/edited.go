package app

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/jpeg"

	"github.com/kovidgoyal/imaging"

	"sectilis/core/document/card"
	"sectilis/core/document/edits"
	"sectilis/core/document/picture"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/cutout"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/light"
)

// EditStore keeps what is done to pictures, by the name of what comes of it (card.Print.Ref).
type EditStore interface {
	AddEdits(ctx context.Context, id, picture string, edits []byte) error
	// Edits returns ErrNotFound for a name that was never added.
	Edits(ctx context.Context, id string) (picture string, edits []byte, err error)
}

// edited are pictures after edits, as large as previews, and what is known of the store: all
// bounded, by content.
type edited struct {
	small    *cache.Cache[string, *image.NRGBA] // never changed once kept
	previews *cache.Cache[string, preview]
	noted    *cache.Cache[string, bool] // names that the store has
	ways     *cache.Cache[string, *cutout.Ways]
}

// preview is an encoded picture.
type preview struct {
	kind string
	raw  []byte
}

func newEdited() *edited {
	return &edited{cache.New[string, *image.NRGBA](12), cache.New[string, preview](120), cache.New[string, bool](4096), cache.New[string, *cutout.Ways](4)}
}

// noteEdits keeps what is done to a photo under the name of what comes of it, before a card names
// that. It fails when the store does.
func (e *edited) note(ctx context.Context, store EditStore, p card.Print) error {
	ref := p.Ref()
	if _, ok := e.noted.Get(ref); ok || ref == p.Picture {
		return nil
	}
	raw, err := json.Marshal(p.Edits)
	if err != nil {
		return fmt.Errorf("keep edits: %w", err)
	}
	if err := store.AddEdits(ctx, ref, p.Picture, raw); err != nil {
		return err
	}
	e.noted.Put(ref, true)
	return nil
}

// origin is the picture that a name stands for and what is done to it: nothing for a picture that
// was brought in. It returns ErrNotFound for a name of neither.
func (u *supplies) origin(ctx context.Context, ref string) (card.Print, error) {
	ok, err := u.store.HasPicture(ctx, ref)
	if err != nil || ok {
		return card.Print{Picture: ref}, err
	}
	p, raw, err := u.store.Edits(ctx, ref)
	if err != nil {
		return card.Print{}, err
	}
	out := card.Print{Picture: p}
	if err := json.Unmarshal(raw, &out.Edits); err != nil {
		return card.Print{}, fmt.Errorf("edits of %.8s: %w", p, err)
	}
	return out, nil
}

// after is a picture of a side after edits. It is kept, with what it was after fewer edits, and
// is not to be changed. Its errors are those of PicturePreview.
func (u *supplies) after(ctx context.Context, p card.Print, side int) (*image.NRGBA, error) {
	key := fmt.Sprintf("%s@%d", p.Ref(), side)
	return u.edited.small.Of(key, func() (*image.NRGBA, error) {
		n := len(p.Edits)
		if n == 0 {
			_, raw, err := u.PicturePreview(ctx, p.Picture, Sides[len(Sides)-1])
			if err != nil {
				return nil, err
			}
			img, _, err := picture.Decode("", raw)
			if err != nil {
				return nil, err
			}
			return imaging.AsNRGBA(picture.Scale(img, side)), nil
		}
		before := p
		before.Edits = p.Edits[:n-1]
		img, err := u.after(ctx, before, side)
		if err != nil {
			return nil, err
		}
		own := &image.NRGBA{Pix: bytes.Clone(img.Pix), Stride: img.Stride, Rect: img.Rect}
		return edits.Apply(ctx, own, p.Edits[n-1:])
	})
}

// editedPreview is PicturePreview of a picture after edits.
func (u *supplies) editedPreview(ctx context.Context, ref string, side int) (preview, error) {
	return u.edited.previews.Of(fmt.Sprintf("%s@%d", ref, side), func() (preview, error) {
		p, err := u.origin(ctx, ref)
		if err != nil {
			return preview{}, err
		}
		return u.encoded(ctx, p, side)
	})
}

func (u *supplies) encoded(ctx context.Context, p card.Print, side int) (preview, error) {
	img, err := u.after(ctx, p, side)
	if err != nil {
		return preview{}, err
	}
	raw, kind, err := picture.Preview(img)
	if err != nil {
		return preview{}, fmt.Errorf("make preview: %w", err)
	}
	return preview{kind, raw}, nil
}

// TryEdits shows what a picture is after edits, on the longer side in pixels, and keeps nothing.
// It returns ErrNotFound for a picture that is not there and a *card.Refusal for edits that a
// card would not take.
func (u *supplies) TryEdits(ctx context.Context, id string, all []card.Edit, side int) (kind string, raw []byte, err error) {
	if err := card.CheckEdits(all); err != nil {
		return "", nil, err
	}
	p := card.Print{Picture: id, Edits: all}
	if len(all) == 0 {
		p.Edits = nil
	}
	side = min(max(side, 16), Sides[len(Sides)-1])
	if n := len(p.Edits); n > 0 && p.Edits[n-1].CutOut != nil {
		if err := u.leaves(ctx, p, side); err != nil {
			return "", nil, err
		}
	}
	out, err := u.encoded(ctx, p, side)
	return out.kind, out.raw, err
}

// leaves looks whether a cut takes all, or nothing. The error is a *card.Refusal that says what to
// change, or that of TryEdits.
func (u *supplies) leaves(ctx context.Context, p card.Print, side int) error {
	img, err := u.after(ctx, p, side)
	if err != nil {
		return err
	}
	some, all := false, true
	for i := 3; i < len(img.Pix); i += 4 {
		some = some || img.Pix[i] > 12
		all = all && img.Pix[i] > 243
	}
	switch {
	case !some:
		return card.Refuse("cutOut", "Nothing stays. Draw on what is to stay, or take a smaller tolerance.")
	case all:
		return card.Refuse("cutOut", "Nothing goes. Draw on what is to go, or take a larger tolerance.")
	}
	return nil
}

// RightOf finds what sets a picture right after edits; nil for what is right. Its errors are those
// of TryEdits.
func (u *supplies) RightOf(ctx context.Context, id string, all []card.Edit) (*card.Right, error) {
	if err := card.CheckEdits(all); err != nil {
		return nil, err
	}
	img, err := u.after(ctx, card.Print{Picture: id, Edits: all}, Sides[0])
	if err != nil {
		return nil, err
	}
	r := card.Right(light.RightOf(img))
	if r == (card.Right{}) {
		return nil, nil
	}
	return &r, nil
}

// WayAlong is a way between two places of a picture after edits that clings to its edges, in shares.
// Its errors are those of TryEdits.
func (u *supplies) WayAlong(ctx context.Context, id string, all []card.Edit, from, to geom.Point) ([]geom.Point, error) {
	if err := card.CheckEdits(all); err != nil {
		return nil, err
	}
	for _, v := range []float64{from.X, from.Y, to.X, to.Y} {
		if !(v >= 0 && v <= 1) {
			return nil, card.Refuse("from", "A way goes from a place in the photo to another.")
		}
	}
	p := card.Print{Picture: id, Edits: all}
	g, err := u.edited.ways.Of(p.Ref(), func() (*cutout.Ways, error) {
		img, err := u.after(ctx, p, Sides[1])
		if err != nil {
			return nil, err
		}
		return cutout.NewWays(img), nil
	})
	if err != nil {
		return nil, err
	}
	return g.Along(from, to), nil
}

// whole is the bytes of a picture for a file: as it came, or what it is after edits. Its errors
// are those of decoded.
func (u *supplies) whole(ctx context.Context, ref string) ([]byte, error) {
	_, raw, err := u.store.Picture(ctx, ref)
	if err != nil && !errors.Is(err, ErrNotFound) || err == nil && !picture.Profiled(raw) {
		return raw, err
	}
	img, release, err := u.decoded(ctx, ref)
	if err != nil {
		return nil, err
	}
	defer release()
	if !picture.Opaque(img) {
		raw, _, err := picture.Preview(img)
		return raw, err
	}
	var out bytes.Buffer
	if err := jpeg.Encode(&out, img, &jpeg.Options{Quality: 95}); err != nil {
		return nil, fmt.Errorf("write picture: %w", err)
	}
	return out.Bytes(), nil
}

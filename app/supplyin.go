package app

import (
	"archive/zip"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path"
	"slices"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
	"sectilis/core/document/picture"
	"sectilis/core/ground/edging"
)

// SuppliesIn is what came of a file of supplies: how many were brought in, and sentences about what was
// not. What was there already is not counted.
type SuppliesIn struct {
	Added int      `json:"added"`
	Notes []string `json:"notes"`
}

// ReadSupplies brings in the supplies of a file that WriteSupplies has written. What is there already
// stays as it is. It returns a *card.Refusal for a file that is none; what of it is not sound is told and
// left out.
func (u *supplies) ReadSupplies(ctx context.Context, r io.ReaderAt, size int64) (SuppliesIn, error) {
	out := SuppliesIn{Notes: []string{}}
	none := &card.Refusal{Field: "file", Why: "This is no file of supplies. Choose one that was kept with “All supplies as a file”."}
	z, err := zip.NewReader(r, size)
	if err != nil || len(z.File) > mostInSupplies {
		return out, none
	}
	raw, err := unpacked(z, supplyListName, mostSupplyList)
	if err != nil {
		return out, none
	}
	var l supplyList
	if err := json.Unmarshal(raw, &l); err != nil || l.Format != supplyFormat {
		return out, none
	}
	if l.Version > supplyVersion {
		return out, &card.Refusal{Field: "file", Why: "This file of supplies was written by a newer version. Bring that up to date first."}
	}
	in := &bringing{u: u, z: z, out: &out}
	for _, step := range []func(context.Context, supplyList) error{in.pictures, in.fonts, in.kept, in.arranged} {
		if err := step(ctx, l); err != nil {
			return out, err
		}
	}
	return out, in.notes(ctx, l)
}

// unpacked is a file of a ZIP. It fails for one that is not there, or is larger than it may be.
func unpacked(z *zip.Reader, name string, most int64) ([]byte, error) {
	f, err := z.Open(name)
	if err != nil {
		return nil, err
	}
	defer func() { _ = f.Close() }() // only read from
	raw, err := io.ReadAll(io.LimitReader(f, most+1))
	if err == nil && int64(len(raw)) > most {
		err = errors.New("it is too large")
	}
	return raw, err
}

// bringing is the work on one file of supplies.
type bringing struct {
	u   *supplies
	z   *zip.Reader
	out *SuppliesIn
}

// left tells of something that is not brought in. It returns what no person can mend: an error of the
// store, or of the context.
func (b *bringing) left(ctx context.Context, what string, err error) error {
	var refused *card.Refusal
	var broken *picture.Error
	var font *lettering.Error
	if ctx.Err() != nil || !errors.As(err, &refused) && !errors.As(err, &broken) && !errors.As(err, &font) {
		return err
	}
	b.out.Notes = append(b.out.Notes, fmt.Sprintf("“%s” was left out: %v", what, err))
	return nil
}

func (b *bringing) file(f listedFile) ([]byte, error) {
	raw, err := unpacked(b.z, f.File, mostSupplyFile)
	if err != nil {
		return nil, &card.Refusal{Field: "file", Why: "its file is missing, or damaged."}
	}
	return raw, nil
}

func (b *bringing) pictures(ctx context.Context, l supplyList) error {
	for _, f := range l.Pictures {
		has, err := b.u.store.HasPicture(ctx, f.ID)
		if err != nil {
			return err
		}
		if has {
			continue
		}
		raw, err := b.file(f)
		if err == nil {
			var p Picture
			if p, err = b.u.BringIn(ctx, f.Name+path.Ext(f.File), raw); err == nil && f.Hidden {
				err = b.u.store.HidePicture(ctx, p.ID, b.u.now())
			}
		}
		if err == nil {
			b.out.Added++
		} else if err := b.left(ctx, f.Name, err); err != nil {
			return err
		}
	}
	return nil
}

func (b *bringing) fonts(ctx context.Context, l supplyList) error {
	have, err := b.u.store.Fonts(ctx)
	if err != nil {
		return err
	}
	for _, f := range l.Fonts {
		if f.Hidden || slices.ContainsFunc(have, func(k KeptFont) bool { return k.ID == f.ID }) {
			continue
		}
		raw, err := b.file(f)
		if err == nil {
			_, err = b.u.BringInFont(ctx, f.Name, raw)
		}
		if err == nil {
			b.out.Added++
		} else if err := b.left(ctx, f.Name, err); err != nil {
			return err
		}
	}
	return nil
}

// kept brings in papers, motifs and stocks under their ids, so that what is made with them finds them.
func (b *bringing) kept(ctx context.Context, l supplyList) error {
	for _, p := range l.Papers {
		if _, known := pattern.ByID(p.ID); known || !strings.HasPrefix(p.ID, "own-") {
			continue
		}
		sound, err := b.u.sound(ctx, NewPaper{p.Name, p.Picture, p.Width, p.Height, p.Mirrored}, p.ID)
		if err == nil {
			sound.Hidden = p.Hidden
			err = b.u.changePapers(ctx, func(own []pattern.Paper) ([]pattern.Paper, error) { return append(own, sound), nil })
		}
		if err == nil {
			b.out.Added++
		} else if err := b.left(ctx, p.Name, err); err != nil {
			return err
		}
	}
	for _, m := range l.Motifs {
		if _, known := edging.ByID(m.ID); known || !strings.HasPrefix(m.ID, "own-") {
			continue
		}
		err := m.Outline.Check()
		if err == nil {
			_, err = edging.OfOutline(m.ID, m.Name, m.Outline)
		}
		if err != nil {
			b.out.Notes = append(b.out.Notes, fmt.Sprintf("“%s” was left out: %v.", m.Name, err))
			continue
		}
		if err := b.u.changeMotifs(ctx, func(own []edging.Own) ([]edging.Own, error) { return append(own, m), nil }); err != nil {
			return err
		}
		b.out.Added++
	}
	for _, s := range l.Stocks {
		if _, known := card.StockByID(s.ID); known || !s.Own || !strings.HasPrefix(s.ID, "own-") {
			continue
		}
		err := s.Check()
		if err == nil {
			err = b.u.cards.stocks.own.change(ctx, func(own []card.Stock) ([]card.Stock, error) { return append(own, s), nil })
		}
		if err == nil {
			b.out.Added++
			b.u.cards.stocksAreOthers()
		} else if err := b.left(ctx, s.Name, err); err != nil {
			return err
		}
	}
	return nil
}

// arranged brings in art and sketches.
func (b *bringing) arranged(ctx context.Context, l supplyList) error {
	have, err := b.u.store.AllArt(ctx)
	if err != nil {
		return err
	}
	for _, a := range l.Art {
		if slices.ContainsFunc(have, func(k Art) bool { return k.ID == a.ID }) {
			continue
		}
		f := a.Card.Face(card.Front)
		if f == nil {
			continue
		}
		if _, err := b.u.keepArt(ctx, a.Name, f.Items, f.Groups); err == nil {
			b.out.Added++
		} else if err := b.left(ctx, a.Name, err); err != nil {
			return err
		}
	}
	sketches, err := b.u.store.Sketches(ctx)
	if err != nil {
		return err
	}
	for _, k := range l.Sketches {
		if slices.ContainsFunc(sketches, func(o Sketch) bool { return o.ID == k.ID || o.Title == k.Title }) {
			continue
		}
		raw, err := json.Marshal(k.Card)
		if err == nil {
			k.Card, err = card.Parse(raw) // every part of it is looked at
		}
		if err == nil {
			_, err = b.u.AddSketch(ctx, NewSketch{Title: k.Title, Face: k.Face, Occasion: k.Occasion, Tags: k.Tags}, k.Card)
		}
		if err == nil {
			b.out.Added++
		} else if err := b.left(ctx, k.Title, err); err != nil {
			return err
		}
	}
	return nil
}

// notes takes up what was noted of supplies that nothing is noted of here.
func (b *bringing) notes(ctx context.Context, l supplyList) error {
	have, err := b.u.store.Supplies(ctx)
	if err != nil {
		return err
	}
	for _, n := range l.Notes {
		if slices.ContainsFunc(have, func(o Supply) bool { return o.Kind == n.Kind && o.ID == n.ID }) {
			continue
		}
		if err := b.u.NoteSupply(ctx, n); err != nil {
			if err := b.left(ctx, n.Name, err); err != nil {
				return err
			}
		}
	}
	return nil
}

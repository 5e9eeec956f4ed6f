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

// supplyList is supplies.json of a file of supplies: all that is no file of its own.
type supplyList struct {
	Format   string          `json:"format"`
	Version  int             `json:"version"`
	Pictures []listedFile    `json:"pictures"`
	Fonts    []listedFile    `json:"fonts"`
	Papers   []pattern.Paper `json:"papers"`
	Motifs   []edging.Own    `json:"motifs"`
	Stocks   []card.Stock    `json:"stocks"`
	Art      []listedArt     `json:"art"`
	Sketches []listedSketch  `json:"sketches"`
	Notes    []Supply        `json:"notes"`
}

// listedFile is a file of its own in a file of supplies. Hidden says that it is not in the tray by itself.
type listedFile struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	File   string `json:"file"`
	Hidden bool   `json:"hidden,omitempty"`
}

type listedArt struct {
	ID   string    `json:"id"`
	Name string    `json:"name"`
	Card card.Card `json:"card"`
}

type listedSketch struct {
	ID       string      `json:"id"`
	Title    string      `json:"title"`
	Face     card.FaceID `json:"face,omitempty"`
	Occasion string      `json:"occasion,omitempty"`
	Tags     []string    `json:"tags,omitempty"`
	Card     card.Card   `json:"card"`
}

// What a file of supplies is called in its list, and its bounds.
const (
	supplyFormat   = "supplies"
	supplyVersion  = 1
	supplyListName = "supplies.json"
	mostSupplyList = 256 << 20
	mostSupplyFile = 256 << 20
	mostInSupplies = 20_000
)

// endings are those of files of pictures, by their kind.
var endings = map[string]string{"image/jpeg": ".jpg", "image/png": ".png", "image/webp": ".webp"}

// WriteSupplies writes all supplies of a person's own as one ZIP. It fails when the store does, or w.
func (u *supplies) WriteSupplies(ctx context.Context, w io.Writer) error {
	l := supplyList{Format: supplyFormat, Version: supplyVersion}
	files := map[string][]byte{}
	pictures, err := u.store.Pictures(ctx)
	if err != nil {
		return err
	}
	shown := map[string]bool{}
	for _, p := range pictures {
		shown[p.ID] = true
	}
	z := zip.NewWriter(w)
	taken := map[string]bool{}
	take := func(id string) error {
		if id == "" || taken[id] {
			return nil
		}
		taken[id] = true
		p, raw, err := u.store.Picture(ctx, id)
		if err != nil {
			return err
		}
		f := listedFile{ID: id, Name: p.Name, File: "pictures/" + id + endings[p.Type], Hidden: !shown[id]}
		l.Pictures = append(l.Pictures, f)
		return add(z, f.File, raw)
	}
	for _, p := range pictures {
		if err := take(p.ID); err != nil {
			return err
		}
	}
	if err := u.listOwn(ctx, &l, take, files); err != nil {
		return err
	}
	for name, raw := range files {
		if err := add(z, name, raw); err != nil {
			return err
		}
	}
	raw, err := json.Marshal(l)
	if err != nil {
		return fmt.Errorf("write supplies: %w", err)
	}
	if err := add(z, supplyListName, raw); err != nil {
		return err
	}
	return z.Close()
}

// add puts a file into a ZIP.
func add(z *zip.Writer, name string, raw []byte) error {
	f, err := z.Create(name)
	if err != nil {
		return err
	}
	_, err = f.Write(raw)
	return err
}

// listOwn lists all that is no picture. take takes a picture that something is made with, files are those
// of fonts.
func (u *supplies) listOwn(ctx context.Context, l *supplyList, take func(id string) error, files map[string][]byte) error {
	fonts, err := u.store.Fonts(ctx)
	if err != nil {
		return err
	}
	for _, f := range fonts {
		name := "fonts/" + f.ID + path.Ext(f.File)
		l.Fonts = append(l.Fonts, listedFile{ID: f.ID, Name: f.File, File: name, Hidden: !f.Offered})
		files[name] = f.Raw
	}
	if l.Papers, err = keptList[pattern.Paper](ctx, u.cards.papers.store, keptPapers); err != nil {
		return err
	}
	for _, p := range l.Papers {
		if err := take(p.Picture); err != nil {
			return err
		}
	}
	if l.Motifs, err = keptList[edging.Own](ctx, u.cards.motifs.store, keptMotifs); err != nil {
		return err
	}
	if l.Stocks, err = keptList[card.Stock](ctx, u.cards.stocks.store, keptStocks); err != nil {
		return err
	}
	if l.Notes, err = u.store.Supplies(ctx); err != nil {
		return err
	}
	return u.listArranged(ctx, l, take)
}

// listArranged lists art and sketches. take takes a picture that they are made with.
func (u *supplies) listArranged(ctx context.Context, l *supplyList, take func(id string) error) error {
	of := func(c card.Card) error {
		for _, f := range c.Faces {
			for _, it := range f.Items {
				if it.Photo != nil {
					if err := take(it.Photo.Picture); err != nil {
						return err
					}
				}
			}
		}
		return nil
	}
	art, err := u.store.AllArt(ctx)
	if err != nil {
		return err
	}
	for _, a := range art {
		_, c, err := u.store.Art(ctx, a.ID)
		if err != nil {
			return err
		}
		if err := of(c); err != nil {
			return err
		}
		l.Art = append(l.Art, listedArt{a.ID, a.Name, c})
	}
	sketches, err := u.store.Sketches(ctx)
	if err != nil {
		return err
	}
	for _, k := range sketches {
		_, c, err := u.store.Sketch(ctx, k.ID)
		if err != nil {
			return err
		}
		if err := of(c); err != nil {
			return err
		}
		l.Sketches = append(l.Sketches, listedSketch{k.ID, k.Title, k.Face, k.Occasion, k.Tags, c})
	}
	return nil
}

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
			err = b.u.cards.stocks.change(ctx, func(own []card.Stock) ([]card.Stock, error) { return append(own, s), nil })
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

package app

import (
	"archive/zip"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"path"

	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
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
	if err := u.listFonts(ctx, &l, z); err != nil {
		return err
	}
	if err := u.listOwn(ctx, &l, take); err != nil {
		return err
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

// listFonts writes the fonts and lists them.
func (u *supplies) listFonts(ctx context.Context, l *supplyList, z *zip.Writer) error {
	fonts, err := u.store.Fonts(ctx)
	if err != nil {
		return err
	}
	for _, f := range fonts {
		name := "fonts/" + f.ID + path.Ext(f.File)
		l.Fonts = append(l.Fonts, listedFile{ID: f.ID, Name: f.File, File: name, Hidden: !f.Offered})
		if err := add(z, name, f.Raw); err != nil {
			return err
		}
	}
	return nil
}

// listOwn lists all that is no file of its own. take takes a picture that something is made with.
func (u *supplies) listOwn(ctx context.Context, l *supplyList, take func(id string) error) (err error) {
	if l.Papers, err = u.cards.papers.all(ctx); err != nil {
		return err
	}
	for _, p := range l.Papers {
		if err := take(p.Picture); err != nil {
			return err
		}
	}
	if l.Motifs, err = u.cards.motifs.all(ctx); err != nil {
		return err
	}
	if l.Stocks, err = u.cards.stocks.own.all(ctx); err != nil {
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

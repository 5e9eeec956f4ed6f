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
	"sectilis/core/ground/edging"
)

// What is in a file of a card beside its supplies, and how large it may be.
const (
	cardEntry    = "card.json"
	creditsEntry = "credits.txt"
	previewEntry = "preview.png"
	mostCard     = 64 << 20
)

// WriteCard writes a card with all that it is made with as one ZIP, to be handed on. Typefaces go along
// where their licence lets them. It returns ErrNotFound for a card that is not on the table, a *Damaged
// for one that cannot be read, and the error of w.
func (u *supplies) WriteCard(ctx context.Context, w io.Writer, id string) error {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return err
	}
	c := o.rev.Card
	o.Unlock()
	used := c.Uses()
	l := supplyList{Format: supplyFormat, Version: supplyVersion}
	z := zip.NewWriter(w)
	write := func(name string, v any) error {
		raw, err := json.Marshal(v)
		if err != nil {
			return fmt.Errorf("write %s: %w", name, err)
		}
		return add(z, name, raw)
	}
	if err := write(cardEntry, c); err != nil {
		return err
	}
	if err := u.usedPictures(ctx, used, &l, z); err != nil {
		return err
	}
	if err := u.usedFonts(ctx, used, &l, z); err != nil {
		return err
	}
	if err := u.usedOwn(ctx, used, &l); err != nil {
		return err
	}
	if err := write(supplyListName, l); err != nil {
		return err
	}
	credits, err := u.creditsOf(ctx, c)
	if err != nil {
		return err
	}
	if err := add(z, creditsEntry, []byte(credits.File(c.Title))); err != nil {
		return err
	}
	preview, err := u.Thumbnail(ctx, id)
	if err != nil {
		return err
	}
	if err := add(z, previewEntry, preview); err != nil {
		return err
	}
	return z.Close()
}

// usedPictures writes the pictures that a card, and papers on it, are made with.
func (u *supplies) usedPictures(ctx context.Context, used card.Uses, l *supplyList, z *zip.Writer) error {
	ids := slices.Clone(used.Pictures)
	for _, id := range used.Papers {
		if p, ok := pattern.ByID(id); ok && p.Picture != "" && !slices.Contains(ids, p.Picture) {
			ids = append(ids, p.Picture)
		}
	}
	shown, err := u.store.Pictures(ctx)
	if err != nil {
		return err
	}
	for _, id := range ids {
		p, raw, err := u.store.Picture(ctx, id)
		if errors.Is(err, ErrNotFound) {
			continue
		}
		if err != nil {
			return err
		}
		in := slices.ContainsFunc(shown, func(o Picture) bool { return o.ID == id })
		f := listedFile{ID: id, Name: p.Name, File: "pictures/" + id + endings[p.Type], Hidden: !in}
		l.Pictures = append(l.Pictures, f)
		if err := add(z, f.File, raw); err != nil {
			return err
		}
	}
	return nil
}

// usedFonts writes the typefaces of a person's own that a card is set in, where they may be handed on.
func (u *supplies) usedFonts(ctx context.Context, used card.Uses, l *supplyList, z *zip.Writer) error {
	fonts, err := u.store.Fonts(ctx)
	if err != nil {
		return err
	}
	for _, f := range fonts {
		face, _ := lettering.ByID(f.ID)
		if !slices.Contains(used.Fonts, f.ID) || face.Embedding == lettering.Restricted {
			continue
		}
		k := listedFile{ID: f.ID, Name: f.File, File: "fonts/" + f.ID + path.Ext(f.File)}
		l.Fonts = append(l.Fonts, k)
		if err := add(z, k.File, f.Raw); err != nil {
			return err
		}
	}
	return nil
}

// usedOwn lists papers, motifs and stocks of a person's own that a card is made with, and what is noted
// of its supplies.
func (u *supplies) usedOwn(ctx context.Context, used card.Uses, l *supplyList) error {
	papers, err := u.cards.papers.all(ctx)
	if err != nil {
		return err
	}
	l.Papers = kept(papers, func(p pattern.Paper) bool { return slices.Contains(used.Papers, p.ID) })
	motifs, err := u.cards.motifs.all(ctx)
	if err != nil {
		return err
	}
	l.Motifs = kept(motifs, func(m edging.Own) bool { return slices.Contains(used.Motifs, m.ID) })
	stocks, err := u.cards.stocks.own.all(ctx)
	if err != nil {
		return err
	}
	l.Stocks = kept(stocks, func(s card.Stock) bool { return slices.Contains(used.Stocks, s.ID) })
	notes, err := u.store.Supplies(ctx)
	if err != nil {
		return err
	}
	of := map[string][]string{"photo": used.Pictures, "paper": used.Papers, "shape": used.Shapes, "lettering": used.Fonts, "edging": used.Motifs, "art": used.Art}
	l.Notes = kept(notes, func(n Supply) bool { return slices.Contains(of[n.Kind], n.ID) })
	for i := range l.Notes { // what was liked and used here is no matter of who gets the card
		l.Notes[i].Favourite = false
	}
	return nil
}

// kept are those of a list that are wanted.
func kept[T any](all []T, want func(T) bool) (out []T) {
	for _, v := range all {
		if want(v) {
			out = append(out, v)
		}
	}
	return out
}

// File is what is told of a card's supplies in its file.
func (c Credits) File(title string) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n\n", title)
	if c.Text != "" {
		fmt.Fprintf(&b, "Credits\n%s\n\n", c.Text)
	}
	b.WriteString("Made with\n")
	for _, k := range c.All {
		says := map[Rights]string{Free: "free to use", PersonalUse: "for personal use only", CreditDue: "credit is due"}[k.Rights]
		if k.Ships {
			says = "ships with the program, free to use"
		}
		fmt.Fprintf(&b, "- %s (%s): %s", k.Name, k.Kind, says)
		if k.Line != "" {
			fmt.Fprintf(&b, ". %s", k.Line)
		}
		b.WriteString("\n")
	}
	return b.String()
}

// CardIn is a card that was brought in, and sentences about what did not come along.
type CardIn struct {
	ID    string   `json:"id"`
	Notes []string `json:"notes"`
}

// ReadCard puts a card on the table from a file that WriteCard has written, with the supplies that come
// along; what is there already stays as it is. It returns a *card.Refusal for a file that is none, or whose
// card cannot be read.
func (u *supplies) ReadCard(ctx context.Context, r io.ReaderAt, size int64) (CardIn, error) {
	none := &card.Refusal{Field: "file", Why: "This is no file of a card. Choose one that was kept with “The whole card, to hand on”."}
	z, err := zip.NewReader(r, size)
	if err != nil || len(z.File) > mostInSupplies {
		return CardIn{}, none
	}
	raw, err := unpacked(z, cardEntry, mostCard)
	if err != nil {
		return CardIn{}, none
	}
	var head struct {
		Schema int `json:"schema"`
	}
	switch {
	case json.Unmarshal(raw, &head) != nil || head.Schema < 1:
		return CardIn{}, none
	case head.Schema > card.Schema:
		return CardIn{}, &card.Refusal{Field: "file", Why: "This card was made by a newer version. Bring that up to date first."}
	}
	in, err := u.ReadSupplies(ctx, r, size)
	if err != nil {
		return CardIn{}, err
	}
	// Nothing is known of stocks and typefaces of one's own before these have been read once.
	if err := u.cards.ready(ctx); err != nil {
		return CardIn{}, err
	}
	var loose card.Card
	if err := json.Unmarshal(raw, &loose); err != nil {
		return CardIn{}, none
	}
	in.Notes = append(in.Notes, setAnew(&loose)...)
	if raw, err = json.Marshal(loose); err != nil {
		return CardIn{}, fmt.Errorf("read a card: %w", err)
	}
	c, err := card.Parse(raw) // every part of it is looked at
	if err != nil {
		return CardIn{}, &card.Refusal{Field: "file", Why: fmt.Sprintf("The card in this file cannot be taken: %v", err)}
	}
	id, err := u.cards.Create(ctx, c)
	return CardIn{id, in.Notes}, err
}

// setAnew sets words in the first typeface that ships where theirs is not at hand, and tells of it.
func setAnew(c *card.Card) (notes []string) {
	for _, id := range c.Uses().Fonts {
		if !lettering.Known(id) {
			notes = append(notes, "A font did not come along, and is not here: its words are set in another. Bring its file in and set them anew.")
		}
	}
	for _, f := range c.Faces {
		for i := range f.Items {
			if w := f.Items[i].Words; w != nil {
				*w = lettering.AtHand(*w)
			}
			if s := f.Items[i].Slot; s != nil && s.Words != nil {
				*s.Words = lettering.AtHand(*s.Words)
			}
		}
	}
	return notes
}

package app

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/csv"
	"fmt"
	"io"
	"maps"
	"slices"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/format/namelist"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// NameStage is how far the card for a name has come.
type NameStage string

// The stages of a name's card: not cut, on the sheet that is being cut, cut in part, cut, and not made.
const (
	NameWaits   NameStage = ""
	NameCutting NameStage = "cutting"
	NamePart    NameStage = "part"
	NameCut     NameStage = "cut"
	NameOut     NameStage = "out"
)

// NameState is what is known of the card for a row of the list.
type NameState struct {
	Row   string    `json:"row"`
	Stage NameStage `json:"stage"`
	// Short is what its card could say in place of the first column, with initials.
	Short string `json:"short"`
	// Wrong is what is found on this card and not on each.
	Wrong []check.NameFault `json:"wrong"`
}

// NamesView is what becomes of a list of names.
type NamesView struct {
	Revision int64       `json:"revision"`
	Rows     []NameState `json:"rows"`
	// Next is the first row whose card is not cut; "" for none.
	Next string `json:"next,omitempty"`
	// CanDiffer is what of the card can differ by name.
	CanDiffer []card.Differing `json:"canDiffer"`
	// Sheets is nil where one card is laid only.
	Sheets *NamesOnSheets `json:"sheets,omitempty"`
}

// NamesOnSheets is what the cards for all names take. Apart is how many sheets they would take if each were
// laid by itself, Seconds how long they are cut.
type NamesOnSheets struct {
	Cards   int     `json:"cards"`
	Pieces  int     `json:"pieces"`
	Sheets  int     `json:"sheets"`
	Apart   int     `json:"apart"`
	Unlaid  int     `json:"unlaid"`
	Seconds float64 `json:"seconds"`
}

// copies are the cards that are made for rows of the list of a card, with the card itself; rows says which.
func (cs *cards) copies(ctx context.Context, id string, rows func(*card.Card) []card.NameRow) (rev Revision, base scene.Scene, out []sheet.Copy, err error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return rev, base, nil, err
	}
	rev, base = o.rev, o.scene
	known, scenes := maps.Clone(o.made), o.scenes
	o.Unlock()
	fresh := map[string]scene.Scene{}
	for _, r := range rows(&rev.Card) {
		if err := ctx.Err(); err != nil {
			return rev, base, nil, err
		}
		c, ok := rev.Card.ForName(r.ID)
		if !ok {
			return rev, base, nil, ErrNotFound
		}
		s, ok := known[r.ID]
		if !ok {
			if s, err = scene.After(c, rev.Card, base); err != nil {
				return rev, base, nil, err
			}
			fresh[r.ID] = s
		}
		out = append(out, copyFor(rev.Card, r.ID, c, s))
	}
	if len(fresh) > 0 {
		o.keep(scenes, fresh)
	}
	return rev, base, out, nil
}

// copyFor is the card that is made for a row.
func copyFor(c card.Card, row string, made card.Card, s scene.Scene) sheet.Copy {
	r := c.Names.Row(row)
	h := sha256.Sum256(fmt.Appendf(nil, "%q", c.Saying(r)))
	return sheet.Copy{Row: row, Name: r.Name(), Says: fmt.Sprintf("%x", h[:12]), Card: made, Scene: s}
}

// keep remembers scenes of rows for as long as the card has the scene that they were made of.
func (o *opened) keep(scenes int, made map[string]scene.Scene) {
	o.Lock()
	defer o.Unlock()
	if o.scenes != scenes {
		return
	}
	if o.made == nil {
		o.made = map[string]scene.Scene{}
	}
	maps.Copy(o.made, made)
}

// toLay are the copies of a card that are laid on sheets: one for each name, or as many as are alike.
func (cs *cards) toLay(ctx context.Context, id string) (rev Revision, base scene.Scene, out []sheet.Copy, err error) {
	rev, base, out, err = cs.copies(ctx, id, func(c *card.Card) []card.NameRow {
		if c.EachLaid() {
			return c.Names.Made()
		}
		return nil
	})
	if err == nil && len(out) == 0 {
		out = sheet.Repeated(rev.Card, base, rev.Card.CardsLaid())
	}
	return rev, base, out, err
}

// laid are the copies of a card that would be laid on sheets. It fails when a scene cannot be made, or the
// context ends.
func laid(ctx context.Context, c card.Card, base scene.Scene) ([]sheet.Copy, error) {
	if !c.EachLaid() {
		return sheet.Repeated(c, base, c.CardsLaid()), nil
	}
	var out []sheet.Copy
	for _, r := range c.Names.Made() {
		made, _ := c.ForName(r.ID)
		s, err := scene.After(made, c, base)
		if err = cmp.Or(err, ctx.Err()); err != nil {
			return nil, err
		}
		out = append(out, copyFor(c, r.ID, made, s))
	}
	return out, nil
}

// allMade are the rows of a card's list that a card is made for.
func allMade(c *card.Card) []card.NameRow { return c.Names.Made() }

// Names is what becomes of the names of a card. It returns ErrNotFound for a card that is not on the table
// or has no list, and a *Damaged for one that cannot be read.
func (p *production) Names(ctx context.Context, id string, opt sheet.Options) (NamesView, error) {
	rev, _, copies, err := p.cards.copies(ctx, id, allMade)
	if err != nil {
		return NamesView{}, err
	}
	n := rev.Card.Names
	if n == nil {
		return NamesView{}, ErrNotFound
	}
	v := NamesView{Revision: rev.Number, Rows: []NameState{}, CanDiffer: rev.Card.CanDiffer()}
	faults := check.NameFaults(rev.Card, copies)
	stages := map[string]NameStage{}
	if rev.Card.EachLaid() {
		l, err := p.Layout(ctx, id, opt)
		if err != nil {
			return NamesView{}, err
		}
		cut, err := p.outcomes.cutOf(ctx, id)
		if err != nil {
			return NamesView{}, err
		}
		stages = nameStages(l, cut)
		on, err := p.paper(ctx, opt)
		if err != nil {
			return NamesView{}, err
		}
		by := p.nester(ctx)
		alone := sheet.LayCopies(rev.Card, copies[:1], on, by.answer)
		if by.err != nil {
			return NamesView{}, by.err
		}
		v.Sheets = &NamesOnSheets{Cards: len(copies), Sheets: len(l.Sheets), Apart: len(alone.Sheets) * len(copies), Unlaid: len(l.Unlaid), Seconds: l.Seconds}
		for _, sh := range l.Sheets {
			v.Sheets.Pieces += len(sh.Pieces)
		}
	}
	for _, r := range n.Rows {
		s := NameState{Row: r.ID, Stage: stages[r.ID], Short: card.Shorter(n.Says(&r, n.Columns[0])), Wrong: faults[r.ID]}
		if s.Wrong == nil {
			s.Wrong = []check.NameFault{}
		}
		if r.Out {
			s.Stage = NameOut
		} else if v.Next == "" && s.Stage != NameCut && s.Stage != NameCutting {
			v.Next = r.ID
		}
		v.Rows = append(v.Rows, s)
	}
	return v, nil
}

// Meanings are what the cells of a column of a card's list seem to stand for: stocks or pictures that are
// called so. It returns ErrNotFound for a card that is not on the table or has no such column, and fails when
// the store does.
func (u *supplies) Meanings(ctx context.Context, id string, what card.DifferBy, column string) ([]card.ByValue, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return nil, err
	}
	n := o.rev.Card.Names
	o.Unlock()
	if n == nil || !slices.Contains(n.Columns, column) {
		return nil, ErrNotFound
	}
	var all []card.Called
	switch what {
	case card.StockByName:
		for _, s := range card.Stocks() {
			all = append(all, card.Called{Name: s.Name, ByValue: card.ByValue{Means: s.ID}})
		}
	case card.PhotoByName:
		pictures, err := u.Pictures(ctx)
		if err != nil {
			return nil, err
		}
		for _, p := range pictures {
			all = append(all, card.Called{Name: p.Name, ByValue: card.ByValue{Means: p.ID, PixelWidth: p.Width, PixelHeight: p.Height}})
		}
	}
	return n.Meanings(column, all), nil
}

// nameStages tells how far the card of each row has come, by the sheets that its pieces are on and by what
// has been cut before.
func nameStages(l LayoutView, cut []cutPiece) map[string]NameStage {
	was := map[cutPiece]bool{}
	for _, k := range cut {
		was[k] = true
	}
	type count struct {
		of, done int
		now      bool
	}
	rows := map[string]*count{}
	for _, sh := range l.Sheets {
		if len(sh.Passes) == 0 {
			continue // a whole sheet that is only folded
		}
		for _, p := range sh.Pieces {
			c := rows[p.Row]
			if c == nil {
				c = &count{}
				rows[p.Row] = c
			}
			c.of++
			c.now = c.now || sh.State.State == RunCutting
			if sh.State.State == RunDone || was[cutPiece{p.ID, p.Says}] {
				c.done++
			}
		}
	}
	out := map[string]NameStage{}
	for row, c := range rows {
		switch {
		case c.now:
			out[row] = NameCutting
		case c.done == c.of:
			out[row] = NameCut
		case c.done > 0:
			out[row] = NamePart
		}
	}
	return out
}

// cutPiece is a piece of the card for a name that has been cut, and what that card said.
type cutPiece struct {
	Piece string `json:"piece"`
	Says  string `json:"says"`
}

// maxCutPieces is how many pieces of a card are known to be cut at most.
const maxCutPieces = 40 * card.MaxNames

func cutUnder(id string) string { return "cut for names of " + id }

// cutOf are the pieces of a card that have been cut for names. It fails when the store does.
func (o *outcomes) cutOf(ctx context.Context, id string) ([]cutPiece, error) {
	return keptList[cutPiece](ctx, o.store, cutUnder(id))
}

// noteCut notes the pieces of a sheet that are cut for names: they stay cut when sheets are laid anew.
func (o *outcomes) noteCut(ctx context.Context, id string, sh sheet.Sheet) error {
	var now []cutPiece
	for _, p := range sh.Pieces {
		if p.Says != "" {
			now = append(now, cutPiece{p.ID, p.Says})
		}
	}
	if len(now) == 0 {
		return nil
	}
	return changeList(context.WithoutCancel(ctx), o.lists, o.store, cutUnder(id), func(all []cutPiece) ([]cutPiece, error) {
		all = slices.DeleteFunc(all, func(k cutPiece) bool {
			return slices.ContainsFunc(now, func(n cutPiece) bool { return n.Piece == k.Piece })
		})
		all = append(all, now...)
		return all[max(0, len(all)-maxCutPieces):], nil
	})
}

// nameSide is the longer side, in pixels, of the picture of a card for a name.
const nameSide = 480

// NameFace is a face of the card that is made for a row, as a PNG. It returns ErrNotFound for a card, a
// row or a face that is not there.
func (u *supplies) NameFace(ctx context.Context, id, row string, face card.FaceID) ([]byte, error) {
	_, _, copies, err := u.cards.copies(ctx, id, func(*card.Card) []card.NameRow { return []card.NameRow{{ID: row}} })
	if err != nil {
		return nil, err
	}
	c := copies[0]
	f := c.Scene.Face(face)
	if f == nil {
		return nil, ErrNotFound
	}
	return u.paint(ctx, geom.Rect{W: f.Width, H: f.Height}, nameSide, c.Scene.Look(f, c.Card.Base))
}

// previewScale is how fine a sheet is seen on the screen, pixels to the millimetre.
const previewScale = 5

// SheetInk is what is printed on the front of a sheet, as a small PNG on white. It returns ErrNotFound
// when there is no such card or sheet.
func (p *production) SheetInk(ctx context.Context, id string, opt sheet.Options, number int) ([]byte, error) {
	sh, _, err := p.sheetByNumber(ctx, id, opt, number)
	if err != nil {
		return nil, err
	}
	var inks []scene.Ink
	for _, piece := range sh.Pieces {
		inks = append(inks, piece.Inks...)
	}
	box := geom.Rect{W: sh.Size.Width, H: sh.Size.Height}
	return p.supplies.paint(ctx, box, previewScale*max(box.W, box.H), inks)
}

// ReadNames reads a list of names from a file, in an encoding where its letters are not Unicode ("" finds
// it). It returns a *card.Refusal for what is none.
func (p *production) ReadNames(ctx context.Context, raw []byte, encoding string) (namelist.List, error) {
	if err := ctx.Err(); err != nil {
		return namelist.List{}, err
	}
	return namelist.Read(raw, encoding)
}

// NamesCSV writes the list of a card as text with commas (RFC 4180). It returns ErrNotFound for a card that
// is not on the table or has no list.
func (cs *cards) NamesCSV(ctx context.Context, id string) func(io.Writer) error {
	return func(w io.Writer) error {
		o, err := cs.load(ctx, id)
		if err != nil {
			return err
		}
		n := o.rev.Card.Names
		o.Unlock()
		if n == nil {
			return ErrNotFound
		}
		rows := [][]string{namelist.GuardedRow(n.Columns)}
		for _, r := range n.Rows {
			rows = append(rows, namelist.GuardedRow(r.Cells))
		}
		return csv.NewWriter(w).WriteAll(rows)
	}
}

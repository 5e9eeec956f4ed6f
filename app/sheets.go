package app

import (
	"context"
	"fmt"
	"io"
	"slices"
	"strings"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/format"
	"sectilis/core/format/pdf"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

// SheetView is a sheet with the passes of its run and where that stands.
type SheetView struct {
	sheet.Sheet
	Passes []cut.Pass `json:"passes"`
	State  RunState   `json:"state"`
	// Settings are those of its stock, Usual what they are if nobody changes them.
	Settings cut.Settings `json:"settings"`
	Usual    cut.Settings `json:"usual"`
	// Beyond says why the machine cannot take the sheet; it is empty if it can.
	Beyond string `json:"beyond,omitempty"`
	// Unregistered says that it is printed and cut, and has no marks to find its print by.
	Unregistered bool `json:"unregistered,omitempty"`
}

// LayoutView is every sheet of a card. Used is a share of the area of the sheets.
type LayoutView struct {
	Revision int64       `json:"revision"`
	Title    string      `json:"title"`
	Sheets   []SheetView `json:"sheets"`
	// Unlaid are the pieces that have no room; Findings are those of the checks that read the
	// sheets, which say why.
	Unlaid   []Unlaid        `json:"unlaid"`
	Findings []check.Finding `json:"findings"`
	// Offer is a setup by which all pieces have room, if by this one some have not.
	Offer *card.SheetSetup `json:"offer,omitempty"`
	Used  float64          `json:"used"`
	// Saved is what area of paper a search has saved over the first layout, mm².
	Saved float64 `json:"saved"`
	// Changed says that a sheet which is being cut is not among these as it was when its
	// run began.
	Changed string  `json:"changed,omitempty"`
	Inked   float64 `json:"inked"` // area printed, mm²
	// Cost is what its sheets cost, scraps left out, as far as prices are known.
	Cost    float64 `json:"cost,omitempty"`
	Seconds float64 `json:"seconds"` // of cutting
}

// Unlaid is a piece that is on no sheet.
type Unlaid struct {
	ID    string     `json:"id"`
	Name  string     `json:"name"`
	Stock card.Stock `json:"stock"`
}

// Layout lays the card on sheets. It returns ErrNotFound for a card that is not on the table
// and a *Damaged for one that cannot be read.
func (p *production) Layout(ctx context.Context, id string, opt sheet.Options) (LayoutView, error) {
	opt, err := p.paper(ctx, opt)
	if err != nil {
		return LayoutView{}, err
	}
	rev, s, copies, err := p.cards.toLay(ctx, id)
	if err != nil {
		return LayoutView{}, err
	}
	by := p.nester(ctx)
	l := sheet.LayCopies(rev.Card, copies, opt, by.answer)
	if by.err != nil {
		return LayoutView{}, by.err
	}
	v := LayoutView{Saved: by.saved, Revision: rev.Number, Title: rev.Card.Title, Sheets: []SheetView{}, Unlaid: []Unlaid{}, Used: l.Used,
		Findings: check.Run(check.TheSheets, check.Input{Card: rev.Card, Scene: &s, Layout: &l})}
	for _, p := range l.Problems {
		v.Unlaid = append(v.Unlaid, Unlaid{p.ID, p.Name, p.Stock})
	}
	var keys []string
	for _, sh := range l.Sheets {
		with, err := p.settings(ctx, sh.Stock)
		if err != nil {
			return LayoutView{}, err
		}
		keys = append(keys, runKey(id, sh, with))
		state, err := p.outcomes.runState(ctx, keys[len(keys)-1])
		if err != nil {
			return LayoutView{}, err
		}
		sv := SheetView{Sheet: sh, Settings: with, Usual: cut.SettingsOf(sh.Stock), Passes: cut.Plan(sh, p.machine.ofOnesOwn().within(with)), State: state, Beyond: opt.Beyond(sh.Size), Unregistered: sh.Unregistered()}
		for _, p := range sv.Passes {
			v.Seconds += p.Seconds
		}
		for _, p := range sh.Pieces {
			v.Inked += inked(p)
		}
		v.Sheets = append(v.Sheets, sv)
	}
	v.Cost = sheet.Cost(l.Sheets)
	v.Changed = p.outcomes.runs.changed(id, keys)
	if slices.ContainsFunc(l.Problems, func(p sheet.Problem) bool { return p.Offer == nil }) {
		v.Offer = sheet.Offer(rev.Card, copies, rev.Card.SheetsOf(), opt)
	}
	return v, nil
}

// Whole returns ErrMissing, with the names of what has no room on any sheet, if something
// has none: whoever takes the sheets out has to know.
func (p *production) Whole(ctx context.Context, id string, opt sheet.Options) error {
	l, err := p.Layout(ctx, id, opt)
	if err != nil || len(l.Unlaid) == 0 {
		return err
	}
	const most = 4
	var names []string
	for _, p := range l.Unlaid[:min(most, len(l.Unlaid))] {
		names = append(names, "“"+p.Name+"”")
	}
	list := strings.Join(names, ", ")
	if n := len(l.Unlaid) - most; n > 0 {
		list += fmt.Sprintf(" and %d more", n)
	}
	return &sentenceError{ErrMissing, list + " " + isOrAre(len(l.Unlaid)) + " on no sheet: there is no room on the paper. What goes out is without."}
}

func isOrAre(n int) string {
	if n == 1 {
		return "is"
	}
	return "are"
}

// SheetsOf returns how the sheets of a card are laid and marked. It returns ErrNotFound for a
// card that is not on the table and a *Damaged for one that cannot be read.
func (cs *cards) SheetsOf(ctx context.Context, id string) (card.SheetSetup, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return card.SheetSetup{}, err
	}
	defer o.Unlock()
	return o.rev.Card.SheetsOf(), nil
}

// inked is the printed area of a piece, mm²; what overlaps counts once by the
// largest region, the rest by its box.
func inked(p sheet.Piece) float64 {
	area := 0.0
	for _, side := range [][]scene.Ink{p.Inks, p.Reverse} {
		sum := 0.0
		for _, k := range side {
			b := k.Region.Bounds()
			sum += b.W * b.H
		}
		area += min(sum, p.Box.W*p.Box.H)
	}
	return area
}

// paper is the options checked, with what is on hand.
func (p *production) paper(ctx context.Context, opt sheet.Options) (sheet.Options, error) {
	var err error
	if opt.Scraps, err = p.Scraps(ctx); err != nil {
		return opt, err
	}
	if opt.OnHand, err = p.OnHand(ctx); err != nil {
		return opt, err
	}
	opt.Bed, opt.Blind = p.machine.mat()
	opt.Printer, err = p.PrinterReach(ctx)
	return opt, err
}

// sheetByNumber finds one sheet of a layout.
func (p *production) sheetByNumber(ctx context.Context, id string, opt sheet.Options, number int) (SheetView, LayoutView, error) {
	l, err := p.Layout(ctx, id, opt)
	if err != nil {
		return SheetView{}, l, err
	}
	for _, sh := range l.Sheets {
		if sh.Number == number {
			return sh, l, nil
		}
	}
	return SheetView{}, l, ErrNotFound
}

// PDFAs says what goes into a PDF beside the ink.
type PDFAs struct {
	Lines bool // the lines of every piece
	Spot  bool // and these in spot colours
}

// WritePDF writes the sheets as one PDF, or a single one when number > 0. It returns
// ErrNotFound when there is no such card or sheet, and a *card.Refusal for a setup by which
// nothing can be laid.
func (p *production) WritePDF(ctx context.Context, w io.Writer, id string, opt sheet.Options, number int, as PDFAs) error {
	l, err := p.Layout(ctx, id, opt)
	if err != nil {
		return err
	}
	var sheets []sheet.Sheet
	for _, sh := range l.Sheets {
		if number == 0 || sh.Number == number {
			sheets = append(sheets, sh.Sheet)
		}
	}
	if len(sheets) == 0 && number > 0 {
		return ErrNotFound
	}
	popt := pdf.Options{Title: l.Title, Lines: as.Lines, Spot: as.Spot}
	if pdf.Pages(sheets, popt) == 0 {
		return &card.Refusal{Field: "sheets", Why: "Nothing on these sheets is printed. Choose “with lines” to print their outlines."}
	}
	return pdf.Write(w, sheets, popt, func(id string) ([]byte, error) {
		return p.supplies.whole(ctx, id)
	})
}

// WriteSheet writes the lines of one sheet, or its run, in a format. It returns ErrNotFound
// when there is no such card or sheet, and a *card.Refusal for a setup by which nothing can be
// laid.
func (p *production) WriteSheet(ctx context.Context, w io.Writer, id string, opt sheet.Options, number int, as format.Format) error {
	sh, _, err := p.sheetByNumber(ctx, id, opt, number)
	if err != nil {
		return err
	}
	return as.WriteSheet(w, format.SheetFile{Sheet: sh.Sheet, Passes: sh.Passes})
}

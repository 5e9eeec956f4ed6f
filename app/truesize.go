package app

import (
	"context"
	"encoding/json"
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/measure"
	"sectilis/core/production/sheet"
	"sectilis/core/production/testpage"
)

// Correction is what a printer's pages are scaled by, across and down, so that they come
// out in true size.
type Correction struct {
	Across float64 `json:"across"`
	Down   float64 `json:"down"`
}

// TrueSize is a printer's correction, and how long the rulers of its test page are on a
// size of paper, across and down, mm.
type TrueSize struct {
	Correction
	Rulers [2]float64 `json:"rulers"`
}

// TrueSize tells what a test page has to measure, and what was measured. It fails when the
// store does.
func (p *production) TrueSize(ctx context.Context, size sheet.Size) (TrueSize, error) {
	w, h := testpage.Rulers(size.Width, size.Height)
	c, err := p.Correction(ctx)
	return TrueSize{c, [2]float64{w, h}}, err
}

// maxCorrection is how far off a printer may be, as a share; what is further off was
// printed “to fit”.
const maxCorrection = .03

func (p *production) correctionName() string { return "correction of " + printerName(p.printer) }

// printerName is what is kept of a printer under, also of the one outside that PDFs go to.
func printerName(p Printer) string {
	if p == nil {
		return "none"
	}
	return p.Name()
}

// Correction returns that of the printer; 1 across and down where none was measured. It fails
// when the store does.
func (p *production) Correction(ctx context.Context) (Correction, error) {
	c := Correction{1, 1}
	found, err := keptAs(ctx, p.store, p.correctionName(), &c)
	if err == nil && found {
		err = c.check()
	}
	return c, err
}

func (c Correction) check() error {
	for field, v := range map[string]float64{"across": c.Across, "down": c.Down} {
		if !(math.Abs(v-1) <= maxCorrection) {
			return card.Refuse(field, "A printer is off by up to 3 %%; more than that is a page that was fitted to its paper. Choose “actual size” at the printer and print the test page again.")
		}
	}
	return nil
}

// Measured corrects the printer by what the rulers of its test page measure, mm. It returns a
// *card.Refusal for measures that no printer is off by.
func (p *production) Measured(ctx context.Context, size sheet.Size, across, down float64) (Correction, error) {
	was, err := p.Correction(ctx)
	if err != nil {
		return was, err
	}
	w, h := testpage.Rulers(size.Width, size.Height)
	c := Correction{was.Across * w / across, was.Down * h / down}
	if !(across > 0 && down > 0) {
		return was, card.Refuse("across", "Measure both rulers of the test page, in inches or millimetres.")
	}
	if err := c.check(); err != nil {
		return was, err
	}
	return c, p.keepCorrection(ctx, c)
}

// AsItComes forgets the printer's correction. It fails when the store does.
func (p *production) AsItComes(ctx context.Context) error {
	return p.keepCorrection(ctx, Correction{1, 1})
}

func (p *production) keepCorrection(ctx context.Context, c Correction) error {
	raw, err := json.Marshal(c)
	if err != nil {
		return err
	}
	return p.store.Keep(ctx, p.correctionName(), raw)
}

// TestPage prints a page on a stock with a ruler across and one down and a colour row, to be
// measured, as a job. It returns ErrNotFound for a stock that is not there. Without a printer it
// refuses.
func (p *production) TestPage(ctx context.Context, size sheet.Size, stockID string) (Job, error) {
	stock, ok := card.StockByID(stockID)
	if !ok {
		return Job{}, ErrNotFound
	}
	if p.printer == nil {
		return Job{}, errNoPrinter
	}
	inks, err := testpage.Inks(size.Width, size.Height)
	if err != nil {
		return Job{}, err
	}
	return p.jobs.start(Job{Kind: PrintJob}, func(ctx context.Context, update func(func(*Job))) error {
		update(func(j *Job) { j.Note = "Printing the test page" })
		ref, err := p.printOne(ctx, "Test page", size, stock, inks)
		if err != nil {
			return err
		}
		w, h := testpage.Rulers(size.Width, size.Height)
		update(func(j *Job) {
			j.Note = fmt.Sprintf("Measure both rulers: they should be %s and %s long.", measure.FormatBoth(w), measure.FormatBoth(h))
			if ref != "" {
				j.Pictures = append(j.Pictures, "prints/"+ref)
			}
		})
		return nil
	}), nil
}

func (p *production) reachName() string { return "reach of " + printerName(p.printer) }

// PrinterReach is what the printer reaches, as it was noted; nil where nothing was. It fails when the store
// does.
func (p *production) PrinterReach(ctx context.Context) (*sheet.PrinterReach, error) {
	var r sheet.PrinterReach
	found, err := keptAs(ctx, p.store, p.reachName(), &r)
	if err != nil || !found || r.Check() != nil {
		return nil, err
	}
	return &r, nil
}

// KeepPrinterReach notes what the printer reaches. It returns a *card.Refusal for what no printer does.
func (p *production) KeepPrinterReach(ctx context.Context, r sheet.PrinterReach) error {
	if err := r.Check(); err != nil {
		return err
	}
	if r.Borderless == nil {
		r.Borderless = []string{}
	}
	raw, err := json.Marshal(r)
	if err != nil {
		return err
	}
	if err := p.store.Keep(ctx, p.reachName(), raw); err != nil {
		return err
	}
	p.cards.stocksAreOthers()
	return nil
}

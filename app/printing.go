package app

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/color"
	"io"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// printScale is the resolution of pages for a printer where no other is told: 300 dpi, in
// pixels per mm.
const printScale = 300 / 25.4

// errNoPrinter and errNoCutter are for a program started without the device.
var (
	errNoPrinter = errors.New("no printer is named; start the program with --printer")
	errNoCutter  = errors.New("no cutter is named; start the program with --cutter")
)

// Print sends every printed side of the sheets to the printer, as a job. It returns
// ErrNotFound when there is no such card or sheet, and a *card.Refusal for a setup by which
// nothing can be laid. Without a printer it refuses.
func (p *production) Print(ctx context.Context, id string, opt sheet.Options) (Job, error) {
	l, err := p.Layout(ctx, id, opt)
	if err != nil {
		return Job{}, err
	}
	type side struct {
		sh    SheetView
		inks  []scene.Ink
		title string
		back  bool
	}
	var sides []side
	for _, sh := range l.Sheets {
		if sh.Printed {
			sides = append(sides, side{sh, sh.Front(), fmt.Sprintf("%s, sheet %d", l.Title, sh.Number), false})
		}
		if sh.TwoSided {
			sides = append(sides, side{sh, sh.Sheet.Reverse(), fmt.Sprintf("%s, sheet %d, inside", l.Title, sh.Number), true})
		}
	}
	if len(sides) == 0 {
		return Job{}, &card.Refusal{Field: "sheets", Why: "Nothing on these sheets is printed."}
	}
	return p.jobs.start(Job{Kind: PrintJob, Card: id}, func(ctx context.Context, update func(func(*Job))) error {
		if p.printer == nil {
			return errNoPrinter
		}
		for i, s := range sides {
			update(func(j *Job) {
				j.Progress, j.Note = float64(i)/float64(len(sides)), fmt.Sprintf("Printing page %d of %d", i+1, len(sides))
			})
			ref, err := p.printOne(ctx, s.title, s.sh.Size, s.sh.Stock, s.inks)
			if err != nil {
				return err
			}
			if ref != "" {
				if !s.back {
					if err := p.outcomes.cameOut(ctx, key(id, s.sh.Sheet), ref); err != nil {
						return err
					}
				}
				update(func(j *Job) { j.Pictures = append(j.Pictures, "prints/"+ref) })
			}
		}
		update(func(j *Job) { j.Note = fmt.Sprintf("%d pages printed", len(sides)) })
		return nil
	}), nil
}

// printOne sends one page to the printer, made up for by how much that prints too large
// or too small, too dark or too light.
func (p *production) printOne(ctx context.Context, title string, size sheet.Size, stock card.Stock, inks []scene.Ink) (ref string, err error) {
	c, err := p.Correction(ctx)
	if err != nil {
		return "", err
	}
	if c.Across != 1 || c.Down != 1 {
		m := geom.Shift(-size.Width/2, -size.Height/2).Then(geom.Scale(c.Across, c.Down)).Then(geom.Shift(size.Width/2, size.Height/2))
		inks = scene.Transform(inks, m)
	}
	img, err := p.raster(ctx, size, inks, p.printScale)
	if err != nil {
		return "", err
	}
	if err := p.inks.ready(ctx); err != nil {
		return "", err
	}
	p.inks.of(stock.ID).Tone.Apply(img)
	var raw bytes.Buffer
	if err := raster.WritePNG(&raw, img, p.printScale); err != nil {
		return "", err
	}
	return p.printer.Print(ctx, Page{title, size.Width, size.Height, stock.Colour, stock.Paper(), raw.Bytes()})
}

// raster paints a page at a scale in pixels to the millimetre.
func (p *production) raster(ctx context.Context, size sheet.Size, inks []scene.Ink, perMM float64) (*image.RGBA, error) {
	canvas := raster.New(size.Width, size.Height, perMM, color.White, func(id string) (image.Image, error) {
		img, release, err := p.supplies.decoded(ctx, id)
		if err == nil {
			release() // decoding takes most; several may be on a page
		}
		return img, err
	})
	for _, k := range inks {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		if err := canvas.Paint([]scene.Ink{k}); err != nil {
			return nil, err
		}
	}
	return canvas.Image(), nil
}

// PageAs says how a page is written as a picture. DPI is points to the inch.
type PageAs struct {
	JPEG bool // else PNG
	Back bool // the other side
	DPI  float64
}

// WritePage writes one printed side of a sheet as a picture in true size. It returns
// ErrNotFound when there is no such card or sheet, and a *card.Refusal for a setup by which
// nothing can be laid.
func (p *production) WritePage(ctx context.Context, w io.Writer, id string, opt sheet.Options, number int, as PageAs) error {
	if !(as.DPI >= 150 && as.DPI <= 600) {
		return &card.Refusal{Field: "dpi", Why: "A page has from 150 to 600 pixels to the inch."}
	}
	sh, _, err := p.sheetByNumber(ctx, id, opt, number)
	if err != nil {
		return err
	}
	inks, printed := sh.Front(), sh.Printed
	if as.Back {
		inks, printed = sh.Sheet.Reverse(), sh.TwoSided
	}
	if !printed {
		return &card.Refusal{Field: "sheet", Why: fmt.Sprintf("Nothing is printed on that side of sheet %d.", number)}
	}
	img, err := p.raster(ctx, sh.Size, inks, as.DPI/25.4)
	if err != nil {
		return err
	}
	if as.JPEG {
		return raster.WriteJPEG(w, img, as.DPI/25.4)
	}
	return raster.WritePNG(w, img, as.DPI/25.4)
}

// Printed is a picture of a page that was printed. It returns ErrNotFound for a page that is
// not there.
func (p *production) Printed(ctx context.Context, ref string, small bool) ([]byte, error) {
	if p.printer == nil {
		return nil, ErrNotFound
	}
	return p.printer.Picture(ctx, ref, small)
}

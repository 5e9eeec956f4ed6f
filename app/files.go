package app

import (
	"archive/zip"
	"context"
	"fmt"
	"io"
	"strconv"
	"strings"

	"sectilis/core/check"
	"sectilis/core/format"
	"sectilis/core/format/pdf"
	"sectilis/core/ground/measure"
	"sectilis/core/production/sheet"
)

// WriteAll writes all sheets as one ZIP, for a stick or a print shop: the pages as one PDF and
// one of each sheet, its lines or its run in every format, and a list of what is on each.
// Nothing that is not printed has a page. It returns ErrNotFound when there is no such card or
// sheet, and a *card.Refusal for a setup by which nothing can be laid. What was written before
// an error is of no use.
func (p *production) WriteAll(ctx context.Context, w io.Writer, id string, opt sheet.Options, u measure.Unit) error {
	l, err := p.Layout(ctx, id, opt)
	if err != nil {
		return err
	}
	z := zip.NewWriter(w)
	add := func(name string, write func(io.Writer) error) {
		if err != nil {
			return
		}
		var f io.Writer
		if f, err = z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: p.now()}); err == nil {
			err = write(f)
		}
	}
	var sheets []sheet.Sheet
	for _, sh := range l.Sheets {
		sheets = append(sheets, sh.Sheet)
	}
	add("contents.txt", func(w io.Writer) error {
		_, err := io.WriteString(w, contents(l, u))
		return err
	})
	pages := func(name, title string, of ...sheet.Sheet) {
		if pdf.Pages(of, pdf.Options{}) == 0 {
			return
		}
		add(name, func(w io.Writer) error {
			return pdf.Write(w, of, pdf.Options{Title: title}, func(id string) ([]byte, error) {
				return p.supplies.whole(ctx, id)
			})
		})
	}
	pages("pages.pdf", l.Title, sheets...)
	for _, sh := range l.Sheets {
		name := fmt.Sprintf("sheet-%d", sh.Number)
		pages(name+".pdf", l.Title+", sheet "+strconv.Itoa(sh.Number), sh.Sheet)
		for _, f := range format.All() {
			add(name+f.Extensions[0], func(w io.Writer) error {
				return f.WriteSheet(w, format.SheetFile{Sheet: sh.Sheet, Passes: sh.Passes})
			})
		}
	}
	if err != nil {
		return err
	}
	return z.Close()
}

// contents is the list of what is on each sheet.
func contents(l LayoutView, u measure.Unit) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n", l.Title)
	for _, sh := range l.Sheets {
		printed := "not printed"
		switch {
		case sh.TwoSided:
			printed = "printed on both sides"
		case sh.Printed:
			printed = "printed on one side"
		}
		what := "Sheet"
		if sh.Of < 0 {
			what = "Scrap"
		}
		fmt.Fprintf(&b, "\n%s %d: %s, %s %s, %s\n", what, sh.Number, sh.Stock.Name, sh.Size.Name, measure.FormatSize(sh.Size.Width, sh.Size.Height, u), printed)
		for _, p := range sh.Pieces {
			box := p.Outline.Bounds() // without the bleed
			fmt.Fprintf(&b, "  %s, %s\n", p.Name, measure.FormatSize(box.W, box.H, u))
		}
	}
	for _, f := range l.Findings {
		if f.Weight == check.Stop {
			fmt.Fprintf(&b, "\nNot laid: %s\n", f.Why)
		} else {
			fmt.Fprintf(&b, "\n%s\n", f.Why)
		}
	}
	return b.String()
}

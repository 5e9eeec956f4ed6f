package pdf

import (
	"bytes"
	"fmt"
	"image/png"
	"io"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"sectilis/core/ground/measure"
	"sectilis/core/production/assembly"
)

// GuideAs is how a guide is laid out. PerPage is 1, 2 or 4 steps on a page.
type GuideAs struct {
	Title   string
	PerPage int
	Unit    measure.Unit
	// Picture is the picture of a step as a PNG; nil where it has none.
	Picture func(step string) ([]byte, error)
}

// guide is a guide in the making.
type guide struct {
	*fpdf.Fpdf
	text func(string) string
	as   GuideAs
}

// WriteGuide writes how a card is put together: what it takes, and its steps with their pictures. It returns
// the first error of a picture, and that of the writer.
func WriteGuide(w io.Writer, g assembly.Guide, as GuideAs) error {
	p := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: directionsWidth, Ht: directionsHeight}})
	p.SetAutoPageBreak(false, 0)
	p.SetTitle(as.Title, true)
	p.SetCreator("Sectilis", true)
	latin := p.UnicodeTranslatorFromDescriptor("")
	d := guide{p, func(s string) string { return latin(fractions.Replace(s)) }, as}
	const head, gap = 30.0, 6.0
	columns, rows := 1, as.PerPage
	if as.PerPage == 4 {
		columns, rows = 2, 2
	}
	wide := (directionsWidth - 2*directionsMargin - gap*float64(columns-1)) / float64(columns)
	high := (directionsHeight - 2*directionsMargin - head - gap*float64(rows-1)) / float64(rows)
	for i, s := range g.Steps {
		slot := i % as.PerPage
		if slot == 0 {
			p.AddPage()
			d.head(g)
		}
		x := directionsMargin + float64(slot%columns)*(wide+gap)
		y := directionsMargin + head + float64(slot/columns)*(high+gap)
		if err := d.step(i, s, x, y, wide, high); err != nil {
			return err
		}
	}
	d.byHand(g)
	if err := p.Output(w); err != nil {
		return fmt.Errorf("write PDF: %w", err)
	}
	return nil
}

// byHand writes how each piece is cut without a machine, on pages of their own.
func (d *guide) byHand(g assembly.Guide) {
	if len(g.Hand) == 0 {
		return
	}
	wide := directionsWidth - 2*directionsMargin
	page := func() {
		d.AddPage()
		d.SetXY(directionsMargin, directionsMargin)
		d.SetFont("Times", "B", 17)
		d.MultiCell(wide, 8, d.text("Without a machine"), "", "L", false)
		d.Ln(3)
	}
	page()
	for _, h := range g.Hand {
		if d.GetY() > directionsHeight-directionsMargin-18 {
			page()
		}
		d.SetX(directionsMargin)
		d.SetFont("Helvetica", "B", 10)
		d.MultiCell(wide, 5, d.text(fmt.Sprintf("%s, %s", short(h.Name, 60), h.Stock)), "", "L", false)
		d.SetX(directionsMargin)
		d.SetFont("Helvetica", "", 9.5)
		d.MultiCell(wide, 4.6, d.text(h.Says), "", "L", false)
		d.Ln(2)
	}
}

// head writes the title, what the card takes and the number of the page.
func (d *guide) head(g assembly.Guide) {
	d.SetTextColor(31, 43, 56)
	d.SetXY(directionsMargin, directionsMargin)
	d.SetFont("Times", "B", 17)
	d.CellFormat(directionsWidth-2*directionsMargin-20, 8, d.text(short(d.as.Title, 60)), "", 0, "L", false, 0, "")
	d.SetFont("Helvetica", "", 9)
	d.CellFormat(20, 8, fmt.Sprintf("%d", d.PageNo()), "", 1, "R", false, 0, "")
	d.SetX(directionsMargin)
	says := fmt.Sprintf("About %.0f minutes. It takes %s.", max(5, g.Minutes), strings.Join(g.Takes, ", "))
	d.MultiCell(directionsWidth-2*directionsMargin, 4.6, d.text(says), "", "L", false)
}

// short is a text of at most n letters.
func short(s string, n int) string {
	if r := []rune(s); len(r) > n {
		return string(r[:n-1]) + "..."
	}
	return s
}

// step writes one step into a part of the page, its picture above its words.
func (d *guide) step(n int, s assembly.Step, x, y, wide, high float64) error {
	d.SetDrawColor(216, 201, 175)
	d.SetLineWidth(.25)
	d.Rect(x, y, wide, high, "D")
	words := 42.0
	if d.as.PerPage == 1 {
		words = 60
	}
	if err := d.picture(s.ID, x+3, y+3, wide-6, high-words-6); err != nil {
		return err
	}
	d.SetXY(x+4, y+high-words)
	d.SetFont("Helvetica", "B", 11)
	d.MultiCell(wide-8, 5, d.text(short(fmt.Sprintf("%d  %s", n+1, s.Title), int(wide/2.1))), "", "L", false)
	d.SetX(x + 4)
	d.SetFont("Helvetica", "", 9)
	d.MultiCell(wide-8, 4.2, d.text(short(s.Does, int(wide*2.6))), "", "L", false)
	var told []string
	for _, m := range s.Measures {
		told = append(told, m.Name+" "+measure.FormatUnit(m.MM, d.as.Unit))
	}
	for _, t := range s.Desk {
		if t.Sheet > 0 && len(told) < 6 {
			told = append(told, fmt.Sprintf("%s from sheet %d", t.Name, t.Sheet))
		}
	}
	d.SetX(x + 4)
	d.SetTextColor(86, 99, 112)
	d.MultiCell(wide-8, 4.2, d.text(short(strings.Join(told, "; "), int(wide*1.8))), "", "L", false)
	d.SetTextColor(31, 43, 56)
	return nil
}

// picture lays the picture of a step into a part of the page, as large as fits.
func (d *guide) picture(id string, x, y, wide, high float64) error {
	raw, err := d.as.Picture(id)
	if err != nil || raw == nil {
		return err
	}
	size, err := png.DecodeConfig(bytes.NewReader(raw))
	if err != nil {
		return fmt.Errorf("read the picture of a step: %w", err)
	}
	k := min(wide/float64(size.Width), high/float64(size.Height))
	w, h := float64(size.Width)*k, float64(size.Height)*k
	d.RegisterImageOptionsReader(id, fpdf.ImageOptions{ImageType: "PNG"}, bytes.NewReader(raw))
	d.ImageOptions(id, x+(wide-w)/2, y+(high-h)/2, w, h, false, fpdf.ImageOptions{ImageType: "PNG"}, 0, "")
	return d.Error()
}

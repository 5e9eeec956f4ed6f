package pdf

import (
	"fmt"
	"io"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/assembly"
)

// GuideAs is how a guide is laid out. PerPage is 1, 2 or 4 steps on a page.
type GuideAs struct {
	Title   string
	PerPage int
	Unit    measure.Unit
	// Picture is the picture of a step by its place in the guide, and the room that it takes.
	Picture func(step int) ([]scene.Ink, geom.Rect)
	// Originals gives the photos in pictures.
	Originals Originals
}

// guide is a guide in the making.
type guide struct {
	*document
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
	doc := &document{Fpdf: p, originals: as.Originals, pictures: map[string]picture.Info{}, height: directionsHeight}
	d := guide{doc, func(s string) string { return latin(signs.Replace(measure.Plain(s))) }, as}
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
	if err := d.drawing(n, x+3, y+3, wide-6, high-words-6); err != nil {
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

// drawing draws the picture of a step into a part of the page, as large as fits.
func (d *guide) drawing(step int, x, y, wide, high float64) error {
	inks, box := d.as.Picture(step)
	if box.W <= 0 || box.H <= 0 {
		return nil
	}
	k := min(wide/box.W, high/box.H)
	c := box.Centre()
	at := geom.Shift(-c.X, -c.Y).Then(geom.Scale(k, k)).Then(geom.Shift(x+wide/2, y+high/2))
	return d.inks(scene.Transform(inks, at))
}

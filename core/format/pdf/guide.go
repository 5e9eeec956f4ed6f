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
	"sectilis/core/ground/wording"
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

// WriteGuide writes how a card is put together: what it takes, its steps with their pictures, and how it is
// cut without a machine. It returns
// the first error of a picture, and that of the writer.
func WriteGuide(w io.Writer, g assembly.Guide, as GuideAs) error {
	p := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: directionsWidth, Ht: directionsHeight}})
	p.SetAutoPageBreak(false, 0)
	p.SetTitle(as.Title, true)
	p.SetCreator("Sectilis", true)
	latin := p.UnicodeTranslatorFromDescriptor("")
	doc := &document{Fpdf: p, originals: as.Originals, pictures: map[string]picture.Info{}, height: directionsHeight}
	d := guide{doc, func(s string) string { return latin(signs.Replace(measure.Plain(s))) }, as}
	d.materials(g)
	const head, gap = 22.0, 6.0
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
			d.head()
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

// chapter begins a page with a heading.
func (d *guide) chapter(title string) {
	d.AddPage()
	d.SetTextColor(31, 43, 56)
	d.SetXY(directionsMargin, directionsMargin)
	d.SetFont("Times", "B", 17)
	d.MultiCell(directionsWidth-2*directionsMargin, 8, d.text(title), "", "L", false)
	d.Ln(3)
}

// entry writes a name and what is said of it, on a new page where there is no room; title heads that.
func (d *guide) entry(title, name, says string) {
	wide := directionsWidth - 2*directionsMargin
	d.SetFont("Helvetica", "", 9.5)
	if d.GetY()+5+4.6*d.lines(says, wide) > directionsHeight-directionsMargin {
		d.chapter(title)
	}
	d.SetX(directionsMargin)
	d.SetFont("Helvetica", "B", 10)
	d.MultiCell(wide, 5, d.text(name), "", "L", false)
	d.SetX(directionsMargin)
	d.SetFont("Helvetica", "", 9.5)
	d.MultiCell(wide, 4.6, d.text(says), "", "L", false)
	d.Ln(2)
}

// lines is how many lines a text takes in the font that is set.
func (d *guide) lines(text string, wide float64) float64 {
	return float64(len(d.SplitLines([]byte(d.text(text)), wide)))
}

// materials writes what the card takes, on a page before the steps.
func (d *guide) materials(g assembly.Guide) {
	title := short(d.as.Title, 60)
	d.chapter(title)
	d.SetFont("Helvetica", "", 10)
	d.SetX(directionsMargin)
	d.MultiCell(directionsWidth-2*directionsMargin, 5, d.text(fmt.Sprintf("%s, about %.0f minutes. Have these at hand:", wording.Counted(len(g.Steps), "step", "steps"), max(5, g.Minutes))), "", "L", false)
	d.Ln(4)
	for _, m := range g.Materials {
		d.entry(title, m.Name, m.Says)
	}
}

// byHand writes how each piece is cut without a machine, on pages of their own.
func (d *guide) byHand(g assembly.Guide) {
	const title = "Without a machine"
	if len(g.Hand) == 0 {
		return
	}
	d.chapter(title)
	for _, h := range g.Hand {
		d.entry(title, h.Name+", "+h.Stock, h.Says)
	}
}

// head writes the title and the number of the page.
func (d *guide) head() {
	d.SetTextColor(31, 43, 56)
	d.SetXY(directionsMargin, directionsMargin)
	d.SetFont("Times", "B", 17)
	d.CellFormat(directionsWidth-2*directionsMargin-20, 8, d.text(short(d.as.Title, 60)), "", 0, "L", false, 0, "")
	d.SetFont("Helvetica", "", 9)
	d.CellFormat(20, 8, fmt.Sprintf("%d", d.PageNo()), "", 1, "R", false, 0, "")
}

// short is a text of at most n letters.
func short(s string, n int) string {
	if r := []rune(s); len(r) > n {
		return string(r[:n-1]) + "..."
	}
	return s
}

// step writes one step into a part of the page: its words, and its picture as large as they leave room.
func (d *guide) step(n int, s assembly.Step, x, y, wide, high float64) error {
	d.SetDrawColor(216, 201, 175)
	d.SetLineWidth(.25)
	d.Rect(x, y, wide, high, "D")
	var told []string
	for _, m := range s.Measures {
		told = append(told, m.Name+" "+measure.FormatUnit(m.MM, d.as.Unit))
	}
	for _, t := range s.Desk {
		if t.Sheet > 0 {
			told = append(told, fmt.Sprintf("%s from sheet %d", t.Name, t.Sheet))
		}
	}
	title, facts := fmt.Sprintf("%d  %s", n+1, s.Title), strings.Join(told, "; ")
	d.SetFont("Helvetica", "", 9)
	// What is too long for half of the room goes on, in letters as small as that needs.
	size, line := 9.0, 4.2
	words := func() float64 { return 7 + line*(d.lines(s.Does, wide-8)+d.lines(facts, wide-8)) }
	for words() > .55*high && size > 5 {
		size, line = size-.5, line-.22
		d.SetFont("Helvetica", "", size)
	}
	room := words() + 3
	if err := d.drawing(n, x+3, y+3, wide-6, high-room-5); err != nil {
		return err
	}
	d.SetXY(x+4, y+high-room)
	d.SetTextColor(31, 43, 56)
	d.SetFont("Helvetica", "B", 11)
	for size := 11.0; size > 6 && d.GetStringWidth(d.text(title)) > wide-10; size -= .5 {
		d.SetFont("Helvetica", "B", size)
	}
	d.MultiCell(wide-8, 6, d.text(title), "", "L", false)
	d.SetX(x + 4)
	d.SetFont("Helvetica", "", size)
	d.MultiCell(wide-8, line, d.text(s.Does), "", "L", false)
	d.SetX(x + 4)
	d.SetTextColor(86, 99, 112)
	d.MultiCell(wide-8, line, d.text(facts), "", "L", false)
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

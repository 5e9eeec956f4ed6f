package pdf

import (
	"fmt"
	"io"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"sectilis/core/folding/fold"
	"sectilis/core/ground/measure"
)

// page of directions: A4's width and Letter's height, so that it prints on
// either.
const (
	directionsWidth  = 210.0
	directionsHeight = 279.4
	directionsMargin = 18.0
)

// signs are what stands for signs that the fonts which every reader has do not know.
var signs = strings.NewReplacer("×", "x", "−", "-", "–", "-", "’", "'", "“", "\"", "”", "\"")

// WriteDirections writes the directions for a base with a dimensioned drawing of its net, seen
// from inside. It returns the error of the writer.
func WriteDirections(w io.Writer, title string, n fold.Net, d fold.Directions, u measure.Unit) error {
	p := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: directionsWidth, Ht: directionsHeight}})
	p.SetMargins(directionsMargin, directionsMargin, directionsMargin)
	p.SetAutoPageBreak(true, directionsMargin)
	p.SetTitle(title, true)
	p.SetCreator("Sectilis", true)
	p.AddPage()
	latin := p.UnicodeTranslatorFromDescriptor("")
	text := func(s string) string { return latin(signs.Replace(measure.Plain(s))) }
	p.SetTextColor(31, 43, 56)
	p.SetFont("Times", "B", 18)
	p.MultiCell(0, 8, text(title), "", "L", false)
	p.SetFont("Helvetica", "", 10)
	p.MultiCell(0, 5, text("Directions for trimmer, knife and scoring board."), "", "L", false)
	p.Ln(4)
	drawNet(p, n, u, text)
	para := func(style string, size, gap float64, s string) {
		p.SetFont("Helvetica", style, size)
		p.MultiCell(0, size*.5, text(s), "", "L", false)
		p.Ln(gap)
	}
	step := 0
	head := func(s string) {
		step++
		para("B", 11, 1, fmt.Sprintf("%d  %s", step, s))
	}
	head(d.Sheet)
	for _, w := range d.Works {
		head(w.Lay)
		for _, l := range w.Lines {
			para("", 10, .6, "     "+l)
		}
		p.Ln(1)
	}
	for _, f := range d.Folds {
		head(f)
	}
	if err := p.Output(w); err != nil {
		return fmt.Errorf("write PDF: %w", err)
	}
	return nil
}

// drawNet draws the net at a size that leaves room for the words, with its
// lines in their dashes.
func drawNet(p *fpdf.Fpdf, n fold.Net, u measure.Unit, text func(string) string) {
	k := min((directionsWidth-2*directionsMargin-40)/n.Width, 95/n.Height)
	x, y := directionsMargin+20, p.GetY()+6
	p.SetDrawColor(31, 43, 56)
	p.SetLineWidth(.35)
	p.Rect(x, y, n.Width*k, n.Height*k, "D")
	for _, l := range fold.SeenFromInside(n) {
		switch l.Role {
		case fold.Mountain:
			p.SetDrawColor(164, 87, 43)
			p.SetDashPattern([]float64{4, 1, .8, 1}, 0)
		case fold.Valley:
			p.SetDrawColor(53, 101, 140)
			p.SetDashPattern([]float64{2, 1.2}, 0)
		default:
			p.SetDrawColor(31, 43, 56)
			p.SetDashPattern(nil, 0)
		}
		p.Line(x+l.From.X*k, y+l.From.Y*k, x+l.To.X*k, y+l.To.Y*k)
	}
	p.SetDashPattern(nil, 0)
	p.SetDrawColor(169, 176, 181)
	p.SetLineWidth(.2)
	p.SetFont("Helvetica", "", 8)
	p.Line(x, y-2.5, x+n.Width*k, y-2.5)
	p.Text(x+n.Width*k/2-6, y-3.5, text(measure.FormatUnit(n.Width, u)))
	p.Line(x-2.5, y, x-2.5, y+n.Height*k)
	p.Text(x-18, y+n.Height*k/2+1, text(measure.FormatUnit(n.Height, u)))
	ky := y + n.Height*k + 5
	p.Text(x, ky, text("solid: cut     dashes: valley     dash and dot: mountain     seen from inside"))
	p.SetXY(directionsMargin, ky+5)
}

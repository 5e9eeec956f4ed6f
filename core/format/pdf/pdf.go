// Package pdf writes sheets as PDF in true size: ink, registration marks and,
// if wished, the lines to cut and score.
package pdf

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"io"
	"math"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// Originals gives the bytes of the picture with the id, as brought in.
type Originals func(id string) ([]byte, error)

// Options say what goes onto the pages.
type Options struct {
	Title string
	// Lines adds the lines of every piece, and the sheets that have no ink.
	Lines bool
	// Spot draws the lines in spot colours, one for each role, as cutting tables know
	// them.
	Spot bool
}

// pt is the number of points in a millimetre.
const pt = 72 / 25.4

// Pages is how many pages Write will make of the sheets.
func Pages(sheets []sheet.Sheet, opt Options) int {
	n := 0
	for _, sh := range sheets {
		if sh.Printed || opt.Lines {
			n++
		}
		if sh.TwoSided {
			n++
		}
	}
	return n
}

// Write writes one page for each side of a sheet that has something on it. A
// second side follows its first, mirrored for a sheet turned over about its
// upright axis. It fails when a picture cannot be had or there is no page.
func Write(w io.Writer, sheets []sheet.Sheet, opt Options, originals Originals) error {
	if Pages(sheets, opt) == 0 {
		return fmt.Errorf("nothing on these sheets is printed")
	}
	size := sheets[0].Size
	d := &document{
		Fpdf:      fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: size.Width, Ht: size.Height}}),
		originals: originals, pictures: map[string]picture.Info{},
	}
	d.SetMargins(0, 0, 0)
	d.SetAutoPageBreak(false, 0)
	d.SetTitle(opt.Title, true)
	d.SetCreator("Sectilis", true)
	ink, marks, lines := d.AddLayer("Ink", true), d.AddLayer("Marks", true), 0
	if opt.Lines {
		lines = d.AddLayer("Lines", true)
	}
	if opt.Lines && opt.Spot {
		for _, s := range spots {
			d.AddSpotColor(s.name, s.c, s.m, s.y, s.k)
		}
	}
	for _, sh := range sheets {
		if sh.Printed || opt.Lines {
			d.page(sh, false)
			d.BeginLayer(ink)
			if err := d.inks(sh.Inked()); err != nil {
				return err
			}
			d.EndLayer()
			d.BeginLayer(marks)
			if err := d.inks(sh.Marked()); err != nil {
				return err
			}
			d.EndLayer()
			if opt.Lines {
				d.BeginLayer(lines)
				d.lines(sh, opt.Spot)
				d.EndLayer()
			}
		}
		if sh.TwoSided {
			d.page(sh, true)
			d.BeginLayer(ink)
			if err := d.inks(sh.Reverse()); err != nil {
				return err
			}
			d.EndLayer()
		}
	}
	if err := d.Output(w); err != nil {
		return fmt.Errorf("write PDF: %w", err)
	}
	return nil
}

type document struct {
	*fpdf.Fpdf
	originals Originals
	pictures  map[string]picture.Info
	height    float64 // of the page, mm
	patches   int
}

// page begins a page; its trim and bleed boxes are round the pieces and round what is
// cut away of them.
func (d *document) page(sh sheet.Sheet, back bool) {
	d.AddPageFormat("P", fpdf.SizeType{Wd: sh.Size.Width, Ht: sh.Size.Height})
	d.height = sh.Size.Height
	trim, bled := sh.Trim()
	for name, r := range map[string]geom.Rect{"trim": trim, "bleed": bled} {
		r = r.Intersect(geom.Rect{W: sh.Size.Width, H: sh.Size.Height})
		if back {
			r.X = sh.Size.Width - r.Right()
		}
		// From the foot of the page up, as PDF has it.
		d.SetPageBox(name, r.X, sh.Size.Height-r.Bottom(), r.W, r.H)
	}
}

// toPage maps sheet millimetres, y down, to page points, y up.
func (d *document) toPage() geom.Affine { return geom.Affine{A: pt, D: -pt, F: d.height * pt} }

func (d *document) inks(inks []scene.Ink) error {
	for _, k := range inks {
		if !k.Plain() {
			if err := d.patch(k); err != nil {
				return err
			}
			continue
		}
		d.RawWriteStr("q\n")
		if k.Clear > 0 {
			d.SetAlpha(1-k.Clear, "Normal")
		}
		for _, clip := range k.Clips {
			d.path(clip)
			d.RawWriteStr("W n\n")
		}
		switch {
		case k.Paper != nil:
			d.path(k.Region)
			d.RawWriteStr("W n\n")
			if err := d.paper(k); err != nil {
				return err
			}
		case k.Picture != "":
			d.path(k.Region)
			d.RawWriteStr("W n\n")
			if err := d.picture(k); err != nil {
				return err
			}
		default:
			d.fill(k.Region, k.Colour)
		}
		if k.Clear > 0 {
			d.SetAlpha(1, "Normal")
		}
		d.RawWriteStr("Q\n")
	}
	return nil
}

// patchResolution is how finely ink is painted that PDF would need shadings
// and soft masks for, in pixels per mm: 300 to the inch.
const patchResolution = 300 / 25.4

// patch paints one ink into a picture with a soft mask.
func (d *document) patch(k scene.Ink) error {
	box := k.Region.Bounds().Grow(3*k.Blur + .1)
	for _, c := range k.Clips {
		box = box.Intersect(c.Bounds())
	}
	if box.W <= 0 || box.H <= 0 {
		return nil
	}
	canvas := raster.New(box.W, box.H, patchResolution, color.Transparent, d.decoded)
	if err := canvas.Paint(scene.Transform([]scene.Ink{k}, geom.Shift(-box.X, -box.Y))); err != nil {
		return err
	}
	var buf bytes.Buffer
	if err := png.Encode(&buf, canvas.Image()); err != nil {
		return fmt.Errorf("encode a patch: %w", err)
	}
	name := fmt.Sprintf("patch%d", d.patches)
	d.patches++
	d.RegisterImageOptionsReader(name, fpdf.ImageOptions{ImageType: "PNG"}, &buf)
	// Whole pixels: the picture may be a fraction of one wider than its box.
	size := canvas.Image().Bounds()
	d.ImageOptions(name, box.X, box.Y, float64(size.Dx())/patchResolution, float64(size.Dy())/patchResolution, false, fpdf.ImageOptions{}, 0, "")
	return d.Error()
}

// decoded is the picture with the id for a patch.
func (d *document) decoded(id string) (image.Image, error) {
	raw, err := d.originals(id)
	if err != nil {
		return nil, err
	}
	img, _, err := picture.Decode("", raw)
	return img, err
}

func (d *document) fill(p geom.Path, colour string) {
	c := raster.Colour(colour)
	d.RawWriteStr(fmt.Sprintf("%.4f %.4f %.4f rg\n", float64(c.R)/255, float64(c.G)/255, float64(c.B)/255))
	d.path(p)
	d.RawWriteStr("f\n")
}

// path writes the construction operators of a path (ISO 32000-1, 8.5.2).
func (d *document) path(p geom.Path) {
	var b strings.Builder
	m := d.toPage()
	put := func(op string, pts ...geom.Point) {
		for _, q := range pts {
			q = m.Apply(q)
			fmt.Fprintf(&b, "%.4f %.4f ", q.X, q.Y)
		}
		b.WriteString(op + "\n")
	}
	p.Cubics(func(from geom.Point, s geom.Segment) {
		switch s.Op {
		case geom.MoveTo:
			put("m", s.P[0])
		case geom.LineTo:
			put("l", s.P[0])
		case geom.QuadTo:
			put("c", from.Lerp(s.P[0], 2./3), s.P[1].Lerp(s.P[0], 2./3), s.P[1])
		case geom.CubicTo:
			put("c", s.P[0], s.P[1], s.P[2])
		case geom.Close:
			put("h")
		}
	})
	d.RawWriteStr(b.String())
}

// overlap is how far tiles that show a picture lie over the next, mm, so that no hairline is left.
const overlap = .01

// paper repeats the tile over all that the region covers. It fails when a picture cannot be had.
func (d *document) paper(k scene.Ink) error {
	inv, ok := k.PaperAt.Inverse()
	if !ok {
		return nil
	}
	p := k.Paper
	if p.Ground != "" {
		d.fill(k.Region, p.Ground)
	}
	w, h, tiles := p.Repeat()
	box := k.Region.Bounds()
	own := geom.RectPath(box).Transform(inv).Bounds()
	for y := math.Floor(own.Y / h); y*h < own.Bottom(); y++ {
		for x := math.Floor(own.X / w); x*w < own.Right(); x++ {
			// Tiles are not clipped: what crosses an edge is in both tiles and
			// falls on itself, where a clip would leave a hairline.
			at := geom.Shift(x*w, y*h).Then(k.PaperAt)
			for _, m := range p.Marks {
				if m.Clear > 0 {
					d.SetAlpha((1-m.Clear)*(1-k.Clear), "Normal")
				}
				d.fill(m.Path.Transform(at), m.Colour)
				if m.Clear > 0 {
					d.SetAlpha(1-k.Clear, "Normal")
				}
			}
			if p.Picture == "" {
				continue
			}
			for _, t := range tiles {
				to := t.Then(at)
				if !geom.RectPath(geom.Rect{W: 1, H: 1}).Transform(to).Bounds().Overlaps(box) {
					continue
				}
				wider := geom.Scale(1+overlap/p.Width, 1+overlap/p.Height)
				d.RawWriteStr("q\n")
				if err := d.picture(scene.Ink{Picture: p.Picture, PictureAt: wider.Then(to)}); err != nil {
					return err
				}
				d.RawWriteStr("Q\n")
			}
		}
	}
	return nil
}

// picture draws the picture into its unit square. JPEGs go in as they are, so
// their orientation tag becomes part of the matrix; others are encoded anew as
// PNG, which PDF cannot take in all its forms.
func (d *document) picture(k scene.Ink) error {
	info, ok := d.pictures[k.Picture]
	if !ok {
		raw, err := d.originals(k.Picture)
		if err != nil {
			return fmt.Errorf("picture %.8s: %w", k.Picture, err)
		}
		if info, err = picture.Inspect("", raw); err != nil {
			return err
		}
		kind := "JPG"
		if info.Type != "image/jpeg" {
			img, _, err := picture.Decode("", raw)
			if err != nil {
				return err
			}
			var buf bytes.Buffer
			if err := png.Encode(&buf, img); err != nil {
				return fmt.Errorf("picture %.8s: %w", k.Picture, err)
			}
			raw, kind = buf.Bytes(), "PNG"
		}
		d.RegisterImageOptionsReader(k.Picture, fpdf.ImageOptions{ImageType: kind}, bytes.NewReader(raw))
		if err := d.Error(); err != nil {
			return fmt.Errorf("picture %.8s: %w", k.Picture, err)
		}
		d.pictures[k.Picture] = info
	}
	// PDF's unit square has its picture's foot at v = 0.
	m := geom.Affine{A: 1, D: -1, F: 1}.Then(turned[info.Turn]).Then(k.PictureAt).Then(d.toPage())
	d.RawWriteStr(fmt.Sprintf("%.6f %.6f %.6f %.6f %.6f %.6f cm\n", m.A, m.B, m.C, m.D, m.E, m.F))
	d.ImageOptions(k.Picture, 0, d.height-1/pt, 1/pt, 1/pt, false, fpdf.ImageOptions{}, 0, "")
	return d.Error()
}

// turned maps the unit square of the stored picture to the upright one, for
// each EXIF orientation.
var turned = map[int]geom.Affine{
	1: geom.Identity,
	2: {A: -1, D: 1, E: 1},
	3: {A: -1, D: -1, E: 1, F: 1},
	4: {A: 1, D: -1, F: 1},
	5: {B: 1, C: 1},
	6: {B: 1, C: -1, E: 1},
	7: {B: -1, C: -1, E: 1, F: 1},
	8: {B: -1, C: 1, F: 1},
}

// spots are the spot colours of lines, by role, and what they look like where there is
// no ink of their own: per cent of the process inks.
var spots = []struct {
	role       fold.Role
	name       string
	c, m, y, k byte
}{
	{fold.Cut, "Cut", 0, 0, 0, 100}, {fold.Mountain, "Mountain score", 0, 60, 80, 20}, {fold.Valley, "Valley score", 80, 40, 0, 20},
	{fold.Perforation, "Perforation", 0, 100, 0, 0}, {fold.Kiss, "Kiss cut", 100, 0, 0, 0}, {fold.Pen, "Pen", 60, 0, 80, 20},
}

// lines draws every line of the sheet thinly, dashed by its role; in spot colours whole.
func (d *document) lines(sh sheet.Sheet, spot bool) {
	for _, p := range sh.Pieces {
		for _, l := range p.Lines {
			d.RawWriteStr("q 0.5 w ")
			dash, colour := "[] 0 d", "0.12 0.17 0.22"
			switch l.Role {
			case fold.Mountain:
				dash, colour = "[14 3 2 3] 0 d", "0.64 0.34 0.17"
			case fold.Valley:
				dash, colour = "[7 4] 0 d", "0.21 0.40 0.55"
			}
			if spot {
				d.SetDrawSpotColor(spotOf(l.Role), 100)
			} else {
				d.RawWriteStr(dash + " " + colour + " RG\n")
			}
			d.path(l.Path)
			d.RawWriteStr("S\nQ\n")
		}
	}
}

func spotOf(r fold.Role) string {
	for _, s := range spots {
		if s.role == r {
			return s.name
		}
	}
	return spots[0].name
}

package svg

import (
	"encoding/base64"
	"fmt"
	"io"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Originals gives the bytes of the picture with the id, upright, in a format that browsers show.
type Originals func(id string) ([]byte, error)

// WriteInks draws a box, mm, of inks from the back forward. The file stands for itself: pictures are in it,
// each once. It returns the first error of originals, and that of the writer.
func WriteInks(w io.Writer, inks []scene.Ink, box geom.Rect, originals Originals) error {
	d := painting{ids: map[string]string{}, originals: originals}
	for _, k := range inks {
		if err := d.ink(k); err != nil {
			return err
		}
	}
	_, err := fmt.Fprintf(w, `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="%smm" height="%smm" viewBox="%s %s %s %s">
<defs>
%s</defs>
%s</svg>
`, num(box.W), num(box.H), signed(box.X), signed(box.Y), num(box.W), num(box.H), d.defs.String(), d.body.String())
	if err != nil {
		return fmt.Errorf("write SVG: %w", err)
	}
	return nil
}

// painting is a file of inks in the making.
type painting struct {
	defs, body strings.Builder
	// ids are the ids of definitions by what they define.
	ids       map[string]string
	originals Originals
}

// define writes a definition once and returns its id. with is the element with %s in place of its id.
func (d *painting) define(letter, with string) string {
	if id, ok := d.ids[with]; ok {
		return id
	}
	id := fmt.Sprintf("%s%d", letter, len(d.ids)+1)
	d.ids[with] = id
	d.defs.WriteString(strings.Replace(with, "%s", id, 1) + "\n")
	return id
}

func data(p geom.Path) string { return p.Data(3) }

func (d *painting) ink(k scene.Ink) error {
	if k.Laid != nil {
		return d.laid(k)
	}
	closing := 0
	group := func(name, value string) {
		fmt.Fprintf(&d.body, `<g %s="%s">`, name, value)
		closing++
	}
	for _, c := range k.Clips {
		group("clip-path", "url(#"+d.clip(c)+")")
	}
	if k.Fade != nil {
		group("mask", "url(#"+d.fade(k)+")")
	}
	if k.Clear > 0 {
		group("opacity", num(1-k.Clear))
	}
	if k.Blur > 0 {
		// The room of a filter is, unless it is told, a tenth more than what it is laid on.
		b := k.Region.Bounds().Grow(4 * k.Blur)
		group("filter", "url(#"+d.define("f", fmt.Sprintf(`<filter id="%%s" filterUnits="userSpaceOnUse" x="%s" y="%s" width="%s" height="%s"><feGaussianBlur stdDeviation="%s"/></filter>`,
			signed(b.X), signed(b.Y), num(b.W), num(b.H), num(k.Blur)))+")")
	}
	fill := k.Colour
	switch {
	case k.Picture != "":
		id, err := d.picture(k.Picture)
		if err != nil {
			return err
		}
		group("clip-path", "url(#"+d.clip(k.Region)+")")
		tint := ""
		if k.Tint != nil {
			tint = ` filter="url(#` + d.tint(*k.Tint) + `)"`
		}
		fmt.Fprintf(&d.body, `<use href="#%s" transform="%s"%s/>`, id, matrix(k.PictureAt), tint)
		fill = ""
	case k.Paper != nil:
		id, err := d.paper(k)
		if err != nil {
			return err
		}
		fill = "url(#" + id + ")"
	case k.Gradient != nil:
		fill = "url(#" + d.gradient(k) + ")"
	}
	if fill != "" {
		fmt.Fprintf(&d.body, `<path fill="%s" d="%s"/>`, fill, data(k.Region))
	}
	d.body.WriteString(strings.Repeat("</g>", closing) + "\n")
	return nil
}

// laid draws stock with what is printed on it (CSS Compositing and Blending, multiply).
func (d *painting) laid(k scene.Ink) error {
	inks := k.Laid
	k.Laid = nil
	d.body.WriteString(`<g style="isolation:isolate">`)
	if err := d.ink(k); err != nil {
		return err
	}
	for _, c := range k.Clips {
		fmt.Fprintf(&d.body, `<g clip-path="url(#%s)">`, d.clip(c))
	}
	d.body.WriteString(`<g style="mix-blend-mode:multiply">`)
	for _, ink := range inks {
		if err := d.ink(ink); err != nil {
			return err
		}
	}
	d.body.WriteString("</g></g>" + strings.Repeat("</g>", len(k.Clips)) + "\n")
	return nil
}

func (d *painting) clip(p geom.Path) string {
	return d.define("c", fmt.Sprintf(`<clipPath id="%%s"><path d="%s"/></clipPath>`, data(p)))
}

// picture is a picture in the unit square.
func (d *painting) picture(id string) (string, error) {
	if known, ok := d.ids["picture "+id]; ok {
		return known, nil
	}
	raw, err := d.originals(id)
	if err != nil {
		return "", fmt.Errorf("picture %.8s: %w", id, err)
	}
	name := d.define("p", fmt.Sprintf(`<image id="%%s" width="1" height="1" preserveAspectRatio="none" href="data:%s;base64,%s"/>`, mediaType(raw), base64.StdEncoding.EncodeToString(raw)))
	d.ids["picture "+id] = name
	return name, nil
}

// tint draws every colour toward one.
func (d *painting) tint(t card.Tint) string {
	c := rgb(t.Colour)
	left := num(1 - t.Strength)
	return d.define("f", fmt.Sprintf(`<filter id="%%s" color-interpolation-filters="sRGB"><feColorMatrix values="%s 0 0 0 %s 0 %s 0 0 %s 0 0 %s 0 %s 0 0 0 1 0"/></filter>`,
		left, num(c[0]/255*t.Strength), left, num(c[1]/255*t.Strength), left, num(c[2]/255*t.Strength)))
}

// paper is the stretch that repeats. What crosses its edge is in it at both edges.
func (d *painting) paper(k scene.Ink) (string, error) {
	w, h, tiles := k.Paper.Repeat()
	var b strings.Builder
	fmt.Fprintf(&b, `<pattern id="%%s" patternUnits="userSpaceOnUse" width="%s" height="%s" patternTransform="%s">`, num(w), num(h), matrix(k.PaperAt))
	if g := k.Paper.Ground; g != "" {
		fmt.Fprintf(&b, `<rect width="%s" height="%s" fill="%s"/>`, num(w), num(h), g)
	}
	for _, m := range k.Paper.Marks {
		fmt.Fprintf(&b, `<path fill="%s" fill-opacity="%s" d="%s"/>`, m.Colour, num(1-m.Clear), data(m.Path))
	}
	if p := k.Paper.Picture; p != "" {
		id, err := d.picture(p)
		if err != nil {
			return "", err
		}
		for _, t := range tiles {
			fmt.Fprintf(&b, `<use href="#%s" transform="%s"/>`, id, matrix(t))
		}
	}
	b.WriteString("</pattern>")
	return d.define("t", b.String()), nil
}

func (d *painting) gradient(k scene.Ink) string {
	g := k.Gradient
	var b strings.Builder
	writeGradient(&b, &exchange.Gradient{Radial: g.Kind == card.Radial, Stops: g.Stops,
		From: k.GradientAt.Apply(geom.Pt(g.FromX, g.FromY)), To: k.GradientAt.Apply(geom.Pt(g.ToX, g.ToY))}, "%s")
	return d.define("g", strings.TrimSuffix(b.String(), "\n"))
}

// fade is the mask of an ink that grows weaker along a way.
func (d *painting) fade(k scene.Ink) string {
	b := k.Region.Bounds().Grow(1)
	f := k.Fade
	var g strings.Builder
	writeGradient(&g, &exchange.Gradient{From: f.From, To: f.To, Stops: []card.Stop{{Colour: "#ffffff"}, {At: 1, Colour: "#ffffff", Clear: 1}}}, "%s")
	way := d.define("g", strings.TrimSuffix(g.String(), "\n"))
	room := fmt.Sprintf(`x="%s" y="%s" width="%s" height="%s"`, signed(b.X), signed(b.Y), num(b.W), num(b.H))
	return d.define("m", fmt.Sprintf(`<mask id="%%s" maskUnits="userSpaceOnUse" %s><rect %s fill="url(#%s)"/></mask>`, room, room, way))
}

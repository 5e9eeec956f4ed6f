// Package svg reads and writes drawings as SVG 1.1 in true millimetres.
package svg

import (
	"bytes"
	"encoding/base64"
	"encoding/xml"
	"fmt"
	"io"
	"strconv"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// dashes tell roles apart besides their colour, as on the screen.
var dashes = map[card.Role]string{
	card.RoleMountain: "5 1.2 .8 1.2", card.RoleValley: "2.4 1.4", card.RolePerforation: ".5 1", card.RoleGuide: "6 3",
}

// Write writes a drawing: what is filled or drawn first, in its order, then one named group
// for each line role that it has. It returns the error of the writer.
func Write(w io.Writer, d exchange.Drawing, title string) error {
	var b strings.Builder
	fmt.Fprintf(&b, `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="%smm" height="%smm" viewBox="0 0 %s %s">
<title>%s</title>
`, num(d.Width), num(d.Height), num(d.Width), num(d.Height), text(title))
	for _, p := range d.Pictures {
		fmt.Fprintf(&b, `<image width="1" height="1" preserveAspectRatio="none" transform="%s" href="data:%s;base64,%s"/>`+"\n",
			matrix(p.At), mediaType(p.Raw), base64.StdEncoding.EncodeToString(p.Raw))
	}
	for i, s := range d.Shapes {
		if s.Role == "" {
			writeShape(&b, s, fmt.Sprintf("ink%d", i+1))
		}
	}
	for _, role := range card.Roles() {
		open := false
		for _, s := range d.Shapes {
			if s.Role != role {
				continue
			}
			if !open {
				open = true
				fmt.Fprintf(&b, `<g id="%s" fill="none" stroke-width=".25" stroke="%s"`, role, exchange.RoleColour(role))
				if dash := dashes[role]; dash != "" {
					fmt.Fprintf(&b, ` stroke-dasharray="%s"`, dash)
				}
				b.WriteString(">\n")
			}
			fmt.Fprintf(&b, `<path d="%s">%s</path>`+"\n", s.Path, named(s.Name))
		}
		if open {
			b.WriteString("</g>\n")
		}
	}
	b.WriteString("</svg>\n")
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("write SVG: %w", err)
	}
	return nil
}

// writeShape writes what is filled or drawn. A stroke that no attributes tell is written as
// its outline.
func writeShape(b *strings.Builder, s exchange.Shape, id string) {
	if s.Line.Pen != nil {
		for i, p := range s.Parts() {
			writeShape(b, exchange.Shape{Name: s.Name, Path: p.Region, Fill: p.Colour, Faint: p.Faint, Gradient: p.Gradient}, fmt.Sprintf("%s-%d", id, i+1))
		}
		return
	}
	fill := s.Fill
	if fill == "" {
		fill = "none"
	}
	if s.Gradient != nil {
		writeGradient(b, s.Gradient, id)
		fill = "url(#" + id + ")"
	}
	fmt.Fprintf(b, `<path fill="%s"`, fill)
	set := func(name, value string, say bool) {
		if say {
			fmt.Fprintf(b, ` %s="%s"`, name, value)
		}
	}
	set("fill-rule", "evenodd", s.Rule == geom.EvenOdd)
	set("fill-opacity", num(1-s.Faint), s.Faint > 0 && s.Fill != "")
	if s.Stroke != "" {
		l := s.Line
		set("stroke", s.Stroke, true)
		set("stroke-width", num(s.Width), true)
		set("stroke-opacity", num(1-l.Faint), l.Faint > 0)
		set("stroke-linecap", map[geom.Cap]string{geom.RoundCap: "round", geom.SquareCap: "square"}[l.Cap], l.Cap != geom.ButtCap)
		set("stroke-linejoin", map[exchange.Join]string{exchange.RoundJoin: "round", exchange.BevelJoin: "bevel"}[l.Join], l.Join != exchange.MitreJoin)
		set("stroke-miterlimit", num(l.MitreLimit), l.MitreLimit > 0)
		dash := make([]string, len(l.Dashes))
		for i, v := range l.Dashes {
			dash[i] = num(v)
		}
		set("stroke-dasharray", strings.Join(dash, " "), len(dash) > 0)
		set("stroke-dashoffset", signed(l.Offset), l.Offset != 0)
		set("paint-order", "stroke", s.LineFirst)
	}
	fmt.Fprintf(b, ` d="%s">%s</path>`+"\n", s.Path, named(s.Name))
}

func writeGradient(b *strings.Builder, g *exchange.Gradient, id string) {
	kind := "linearGradient"
	if g.Radial {
		kind = "radialGradient"
		fmt.Fprintf(b, `<radialGradient id="%s" gradientUnits="userSpaceOnUse" cx="%s" cy="%s" r="%s">`,
			id, signed(g.From.X), signed(g.From.Y), num(g.To.Sub(g.From).Len()))
	} else {
		fmt.Fprintf(b, `<linearGradient id="%s" gradientUnits="userSpaceOnUse" x1="%s" y1="%s" x2="%s" y2="%s">`,
			id, signed(g.From.X), signed(g.From.Y), signed(g.To.X), signed(g.To.Y))
	}
	for _, s := range g.Stops {
		fmt.Fprintf(b, `<stop offset="%s" stop-color="%s"`, num(s.At), s.Colour)
		if s.Clear > 0 {
			fmt.Fprintf(b, ` stop-opacity="%s"`, num(1-s.Clear))
		}
		b.WriteString("/>")
	}
	fmt.Fprintf(b, "</%s>\n", kind)
}

// mediaType tells the pictures that this program takes apart.
func mediaType(raw []byte) string {
	switch {
	case bytes.HasPrefix(raw, []byte("\xff\xd8")):
		return "image/jpeg"
	case len(raw) > 12 && string(raw[8:12]) == "WEBP":
		return "image/webp"
	}
	return "image/png"
}

func named(name string) string {
	if name == "" {
		return ""
	}
	return "<title>" + text(name) + "</title>"
}

func num(v float64) string { return strconv.FormatFloat(float64(int64(v*1e5+.5))/1e5, 'f', -1, 64) }

// signed is num of what may be less than 0.
func signed(v float64) string {
	if v < 0 {
		return "-" + num(-v)
	}
	return num(v)
}

func matrix(m geom.Affine) string {
	return fmt.Sprintf("matrix(%g %g %g %g %g %g)", m.A, m.B, m.C, m.D, m.E, m.F)
}

func text(s string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(s)) // a strings.Builder does not fail
	return b.String()
}

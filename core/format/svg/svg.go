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

	"sectilis/core/card"
	"sectilis/core/drawing"
	"sectilis/core/geom"
)

// dashes tell roles apart besides their colour, as on the screen.
var dashes = map[card.Role]string{
	card.RoleMountain: "5 1.2 .8 1.2", card.RoleValley: "2.4 1.4", card.RolePerforation: ".5 1", card.RoleGuide: "6 3",
}

// Write writes a drawing: what is filled or drawn first, in its order, then one
// named group for each line role that it has.
func Write(w io.Writer, d drawing.Drawing, title string) error {
	var b strings.Builder
	fmt.Fprintf(&b, `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="%smm" height="%smm" viewBox="0 0 %s %s">
<title>%s</title>
`, num(d.Width), num(d.Height), num(d.Width), num(d.Height), text(title))
	for _, p := range d.Pictures {
		fmt.Fprintf(&b, `<image width="1" height="1" preserveAspectRatio="none" transform="%s" href="data:%s;base64,%s"/>`+"\n",
			matrix(p.At), mediaType(p.Raw), base64.StdEncoding.EncodeToString(p.Raw))
	}
	for _, s := range d.Shapes {
		if s.Role != "" {
			continue
		}
		fill, rule := s.Fill, ""
		if fill == "" {
			fill = "none"
		}
		if s.Rule == geom.EvenOdd {
			rule = ` fill-rule="evenodd"`
		}
		stroke := ""
		if s.Stroke != "" {
			stroke = fmt.Sprintf(` stroke="%s" stroke-width="%s"`, s.Stroke, num(s.Width))
		}
		b.WriteString(fmt.Sprintf(`<path fill="%s"%s%s d="%s">`, fill, rule, stroke, s.Path) + named(s.Name) + "</path>\n")
	}
	for _, role := range card.Roles() {
		open := false
		for _, s := range d.Shapes {
			if s.Role != role {
				continue
			}
			if !open {
				open = true
				fmt.Fprintf(&b, `<g id="%s" fill="none" stroke-width=".25" stroke="%s"`, role, drawing.RoleColour(role))
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

func matrix(m geom.Affine) string {
	return fmt.Sprintf("matrix(%g %g %g %g %g %g)", m.A, m.B, m.C, m.D, m.E, m.F)
}

func text(s string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(s)) // a strings.Builder does not fail
	return b.String()
}

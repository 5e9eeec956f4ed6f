// Package svg writes the lines of a sheet as SVG 1.1 in true millimetres, one
// named group for each line role.
package svg

import (
	"encoding/xml"
	"fmt"
	"io"
	"strings"

	"sectilis/core/fold"
	"sectilis/core/sheet"
)

// style tells roles apart by dash as well as by colour, as on the screen.
var style = []struct {
	role fold.Role
	pen  string
}{
	{fold.Mountain, `stroke="#a4572b" stroke-dasharray="5 1.2 .8 1.2"`},
	{fold.Valley, `stroke="#35658c" stroke-dasharray="2.4 1.4"`},
	{fold.Cut, `stroke="#1f2b38"`},
}

// Write writes the lines of the sheet. Every path carries the name of its piece.
func Write(w io.Writer, sh sheet.Sheet) error {
	var b strings.Builder
	fmt.Fprintf(&b, `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="0 0 %g %g">
<title>Sheet %d, %s</title>
`, sh.Size.Width, sh.Size.Height, sh.Size.Width, sh.Size.Height, sh.Number, text(sh.Stock.Name))
	for _, s := range style {
		fmt.Fprintf(&b, `<g id="%s" fill="none" stroke-width=".25" %s>`+"\n", s.role, s.pen)
		for _, p := range sh.Pieces {
			for _, l := range p.Lines {
				if l.Role == s.role {
					fmt.Fprintf(&b, `<path d="%s"><title>%s</title></path>`+"\n", l.Path, text(p.Name))
				}
			}
		}
		b.WriteString("</g>\n")
	}
	b.WriteString("</svg>\n")
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("write SVG: %w", err)
	}
	return nil
}

func text(s string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(s)) // a strings.Builder does not fail
	return b.String()
}

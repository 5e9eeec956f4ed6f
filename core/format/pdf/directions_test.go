package pdf_test

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/format/pdf"
	"sectilis/core/ground/measure"
)

// read is the text of a PDF as another program reads it, in single spaces.
func read(t *testing.T, raw []byte) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), "a.pdf")
	require.NoError(t, os.WriteFile(file, raw, 0o600))
	out, err := exec.Command("pdftotext", "-layout", file, "-").CombinedOutput()
	require.NoError(t, err, "poppler-utils: %s", out)
	return strings.Join(strings.Fields(string(out)), " ")
}

// plain writes what the PDF's fonts do not know as people type it.
var plain = strings.NewReplacer("½", "1/2", "¼", "1/4", "¾", "3/4", "⅛", "1/8", "⅜", "3/8", "⅝", "5/8", "⅞", "7/8", "×", "x", "−", "-", "–", "-", "’", "'", "“", "\"", "”", "\"")

// Every sentence of the directions stands in the PDF, in order, for every kind of base.
func TestDirectionsAreWrittenOut(t *testing.T) {
	for _, k := range fold.Kinds() {
		if k.Drawing {
			continue
		}
		base := card.Base{Kind: k.ID, Width: 114.3, Height: 158.75, Stock: "cream-300"}
		c, err := fold.New("Käse & Zwiebeln", base)
		if err != nil {
			// Some kinds have another shape.
			base.Height = 114.3
			c, err = fold.New("Käse & Zwiebeln", base)
		}
		require.NoError(t, err, k.ID)
		n := fold.Of(c.Base)
		for _, u := range []measure.Unit{measure.In, measure.MM} {
			d := fold.DirectionsOf(n, u, 32)
			var b bytes.Buffer
			require.NoError(t, pdf.WriteDirections(&b, c.Title, n, d, u))
			text := read(t, b.Bytes())
			assert.True(t, strings.HasPrefix(text, "Käse & Zwiebeln Directions for trimmer, knife and scoring board."), "%s: %.80s", k.ID, text)
			at := 0
			says := func(s string) {
				s = strings.Join(strings.Fields(plain.Replace(s)), " ")
				i := strings.Index(text[at:], s)
				if assert.GreaterOrEqual(t, i, 0, "%s in %s: %q is missing", k.ID, u, s) {
					at += i
				}
			}
			says(d.Sheet)
			for _, w := range d.Works {
				says(w.Lay)
				for _, l := range w.Lines {
					says(l)
				}
			}
			for _, f := range d.Folds {
				says(f)
			}
		}
	}
}

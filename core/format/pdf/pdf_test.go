package pdf_test

import (
	"bytes"
	"errors"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/scene"
	"sectilis/core/format/pdf"
	"sectilis/core/format/svg"
	"sectilis/core/production/sheet"
)

var mediaBox = regexp.MustCompile(`/MediaBox \[0 0 ([0-9.]+) ([0-9.]+)\]`)
var page = regexp.MustCompile(`/Type /Page\n`)

func sheets(t *testing.T, size int) ([]sheet.Sheet, pdf.Originals) {
	t.Helper()
	c := coretest.Card(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	raw, id := coretest.Photo(t, 300, 200)
	return sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[size]), nil).Sheets, func(got string) ([]byte, error) {
		if got != id {
			return nil, errors.New("not found")
		}
		return raw, nil
	}
}

func TestPagesAreInTrueSize(t *testing.T) {
	for i, size := range sheet.Sizes()[:2] {
		sh, originals := sheets(t, i)
		for _, lines := range []bool{false, true} {
			opt := pdf.Options{Title: "Käse", Lines: lines}
			var b bytes.Buffer
			require.NoError(t, pdf.Write(&b, sh, opt, originals))
			boxes := mediaBox.FindAllSubmatch(b.Bytes(), -1)
			require.NotEmpty(t, boxes)
			assert.Len(t, page.FindAll(b.Bytes(), -1), pdf.Pages(sh, opt))
			for _, m := range boxes {
				w, _ := strconv.ParseFloat(string(m[1]), 64)
				h, _ := strconv.ParseFloat(string(m[2]), 64)
				assert.InDelta(t, size.Width, w*25.4/72, .01)
				assert.InDelta(t, size.Height, h*25.4/72, .01)
			}
		}
		// Base on both sides, text, satin, label; with lines the brick mat too.
		assert.Equal(t, 5, pdf.Pages(sh, pdf.Options{}))
		assert.Equal(t, 6, pdf.Pages(sh, pdf.Options{Lines: true}))
	}
}

func TestThePhotoGoesInAsItIs(t *testing.T) {
	sh, originals := sheets(t, 0)
	raw, _ := coretest.Photo(t, 300, 200)
	var b bytes.Buffer
	require.NoError(t, pdf.Write(&b, sh, pdf.Options{}, originals))
	assert.True(t, bytes.Contains(b.Bytes(), raw))
	err := pdf.Write(&b, sh, pdf.Options{}, func(string) ([]byte, error) { return nil, errors.New("gone") })
	assert.ErrorContains(t, err, "gone")
	assert.Error(t, pdf.Write(&b, nil, pdf.Options{}, originals))
}

func TestLinesAreGroupedByRole(t *testing.T) {
	sh, _ := sheets(t, 0)
	sh[0].Pieces[0].Name = `Base <"&">`
	var b bytes.Buffer
	require.NoError(t, svg.Write(&b, sh[0].Drawing(), "Sheet 1"))
	text := b.String()
	assert.Contains(t, text, `width="215.9mm" height="279.4mm" viewBox="0 0 215.9 279.4"`)
	assert.Contains(t, text, `<g id="mountain"`)
	assert.Contains(t, text, `Base &lt;&#34;&amp;&#34;&gt;`)
	assert.Equal(t, 2, bytes.Count(b.Bytes(), []byte("<path")))
}

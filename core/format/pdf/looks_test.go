package pdf_test

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/format/pdf"
	"sectilis/core/format/raster"
	"sectilis/core/production/sheet"
)

// What PDF makes of every look is what Go paints: Debian's Poppler draws the one,
// and the mean difference of all pixels is small.
func TestLooksComeOutOfThePDFAsTheyArePainted(t *testing.T) {
	raw, id := coretest.Photo(t, 600, 400)
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: coretest.Looks(id, 600, 400)})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	sh := sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil).Sheets
	require.Len(t, sh, 1)
	dir := t.TempDir()
	var b bytes.Buffer
	require.NoError(t, pdf.Write(&b, sh, pdf.Options{Title: "Looks"}, func(string) ([]byte, error) { return raw, nil }))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "looks.pdf"), b.Bytes(), 0o600))
	const dpi = 100
	out, err := exec.Command("/usr/bin/pdftoppm", "-png", "-r", "100", "-singlefile", filepath.Join(dir, "looks.pdf"), filepath.Join(dir, "looks")).CombinedOutput()
	require.NoError(t, err, string(out))
	file, err := os.ReadFile(filepath.Join(dir, "looks.png"))
	require.NoError(t, err)
	got, err := png.Decode(bytes.NewReader(file))
	require.NoError(t, err)

	canvas := raster.New(sh[0].Size.Width, sh[0].Size.Height, dpi/25.4, color.White, func(string) (image.Image, error) {
		img, _, err := picture.Decode("", raw)
		return img, err
	})
	require.NoError(t, canvas.Paint(sh[0].Front()))
	want := canvas.Image()
	assert.InDelta(t, want.Bounds().Dx(), got.Bounds().Dx(), 1)
	sum, n, far, inked := 0, 0, 0, 0
	for y := 2; y < want.Bounds().Dy()-2; y++ {
		for x := 2; x < want.Bounds().Dx()-2; x++ {
			p, q := want.RGBAAt(x, y), color.RGBAModel.Convert(got.At(x, y)).(color.RGBA)
			if p == (color.RGBA{255, 255, 255, 255}) && p == q {
				continue
			}
			inked++
			d := 0
			for _, v := range []int{int(p.R) - int(q.R), int(p.G) - int(q.G), int(p.B) - int(q.B)} {
				d = max(d, v, -v)
			}
			sum, n = sum+d, n+1
			if d > 48 {
				far++
			}
		}
	}
	require.Greater(t, inked, 60000)
	assert.Less(t, float64(sum)/float64(n), 5.)
	assert.Less(t, float64(far)/float64(n), .03, "edges and nothing but edges")
}

package pdf_test

import (
	"bytes"
	"image"
	"image/color"
	_ "image/png" // what the renderer writes
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/format/pdf"
	"sectilis/core/format/raster"
	"sectilis/core/production/sheet"
)

var boxLine = regexp.MustCompile(`Page +(\d+) (\w+Box): +([\d.]+) +([\d.]+) +([\d.]+) +([\d.]+)`)

// What a renderer of its own makes of the pages is what is sent to the printer, in the
// same size; and it reads back where they are trimmed.
func TestPagesRenderAsTheyArePrinted(t *testing.T) {
	all, originals := sheets(t, 0)
	dir := t.TempDir()
	file := filepath.Join(dir, "pages.pdf")
	var b bytes.Buffer
	require.NoError(t, pdf.Write(&b, all, pdf.Options{Lines: false}, originals))
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	out, err := exec.Command("pdfinfo", "-box", "-l", "9", file).CombinedOutput()
	require.NoError(t, err, "poppler-utils: %s", out)
	boxes := map[string][]float64{}
	for _, m := range boxLine.FindAllStringSubmatch(string(out), -1) {
		for _, v := range m[3:] {
			f, err := strconv.ParseFloat(v, 64)
			require.NoError(t, err)
			boxes[m[1]+m[2]] = append(boxes[m[1]+m[2]], f*25.4/72)
		}
	}
	const dpi = 100
	out, err = exec.Command("pdftoppm", "-r", strconv.Itoa(dpi), "-png", file, filepath.Join(dir, "page")).CombinedOutput()
	require.NoError(t, err, "%s", out)
	n := 0
	check := func(sh sheet.Sheet, inks []scene.Ink, back bool) {
		n++
		k := strconv.Itoa(n)
		assert.InDelta(t, sh.Size.Width, boxes[k+"MediaBox"][2], .05)
		assert.InDelta(t, sh.Size.Height, boxes[k+"MediaBox"][3], .05)
		trim, bled := sh.Trim()
		for name, r := range map[string]struct{ x0, y0, x1, y1 float64 }{
			"TrimBox": {trim.X, trim.Y, trim.Right(), trim.Bottom()}, "BleedBox": {bled.X, bled.Y, bled.Right(), bled.Bottom()},
		} {
			if back {
				r.x0, r.x1 = sh.Size.Width-r.x1, sh.Size.Width-r.x0
			}
			for i, want := range []float64{r.x0, sh.Size.Height - r.y1, r.x1, sh.Size.Height - r.y0} {
				assert.InDelta(t, want, boxes[k+name][i], .05, "%s of page %s", name, k)
			}
		}
		f, err := os.Open(filepath.Join(dir, "page-"+k+".png"))
		require.NoError(t, err)
		defer func() { _ = f.Close() }()
		seen, _, err := image.Decode(f)
		require.NoError(t, err)
		canvas := raster.New(sh.Size.Width, sh.Size.Height, dpi/25.4, color.White, func(id string) (image.Image, error) {
			raw, err := originals(id)
			if err != nil {
				return nil, err
			}
			img, _, err := picture.Decode("", raw)
			return img, err
		})
		require.NoError(t, canvas.Paint(inks))
		ours := canvas.Image()
		assert.InDelta(t, ours.Bounds().Dx(), seen.Bounds().Dx(), 1)
		assert.InDelta(t, ours.Bounds().Dy(), seen.Bounds().Dy(), 1)
		sum, far, count := 0.0, 0.0, 0.0
		for y := range min(ours.Bounds().Dy(), seen.Bounds().Dy()) {
			for x := range min(ours.Bounds().Dx(), seen.Bounds().Dx()) {
				r, g, bl, _ := ours.At(x, y).RGBA()
				r2, g2, b2, _ := seen.At(x, y).RGBA()
				d := (math.Abs(float64(r)-float64(r2)) + math.Abs(float64(g)-float64(g2)) + math.Abs(float64(bl)-float64(b2))) / 3 / 257
				sum, count = sum+d, count+1
				if d > 64 {
					far++
				}
			}
		}
		assert.Less(t, sum/count, 1.0, "mean difference of 255 on page %s", k)
		assert.Less(t, far/count, .004, "pixels that differ much on page %s", k)
	}
	for _, sh := range all {
		if sh.Printed {
			check(sh, sh.Front(), false)
		}
		if sh.TwoSided {
			check(sh, sh.Reverse(), true)
		}
	}
	assert.Equal(t, 5, n)
}

func TestLinesComeInLayersAndSpotColours(t *testing.T) {
	all, originals := sheets(t, 0)
	var b bytes.Buffer
	require.NoError(t, pdf.Write(&b, all, pdf.Options{Lines: true, Spot: true}, originals))
	text := b.String()
	for _, want := range []string{"/OCG", "/Separation /Cut", "/Separation /Mountain#20score"} {
		assert.Contains(t, text, want)
	}
	assert.NotContains(t, text, "/Separation /Ink")
	b.Reset()
	require.NoError(t, pdf.Write(&b, all, pdf.Options{}, originals))
	assert.NotContains(t, b.String(), "/Separation")
}

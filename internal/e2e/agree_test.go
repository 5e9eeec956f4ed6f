package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	module "sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/picture"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// What the browser draws on the surface and what Go paints for the printer come
// from one scene; on every demo card they have to look the same.
func TestTheScreenAndThePrinterAgree(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	defer app.Stop()
	cards, err := app.App.Cards(t.Context(), "")
	require.NoError(t, err)
	for _, c := range cards {
		t.Run(c.Title, func(t *testing.T) { agree(t, app, c.ID, 500) })
	}
}

// Every look there is, on one face.
func TestLooksAgreeOnScreenAndPaper(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	defer app.Stop()
	pictures, err := app.App.Pictures(t.Context())
	require.NoError(t, err)
	p := pictures[0]
	c, err := card.New("Looks", card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: coretest.Looks(p.ID, p.Width, p.Height)})
	require.NoError(t, err)
	id, err := app.App.Create(t.Context(), c)
	require.NoError(t, err)
	agree(t, app, id, 300)
}

// Photos that are cut out, cropped, lit otherwise, turned and made wider are the same on the screen, as
// Go paints them, and on the page of the PDF, which Debian's Poppler draws.
func TestEditedPhotosAgreeOnScreenPaperAndPDF(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db")})
	require.NoError(t, err)
	defer app.Stop()
	img := image.NewNRGBA(image.Rect(0, 0, 900, 600))
	for y := range 600 {
		for x := range 900 {
			c := color.NRGBA{90, 140, uint8(60 + x/9), 255}
			if math.Hypot(float64(x)-420, float64(y)-310) < 190 {
				c = color.NRGBA{uint8(180 + y/12), 110, 30, 255}
			}
			img.SetNRGBA(x, y, c)
		}
	}
	var raw bytes.Buffer
	require.NoError(t, png.Encode(&raw, img))
	p, err := app.App.BringIn(t.Context(), "Plum.png", raw.Bytes())
	require.NoError(t, err)
	cut := &card.CutOut{Ground: &card.PlainGround{At: []geom.Point{{X: .02, Y: .02}}, Tolerance: 40}, Softness: .004}
	photo := func(x, y, turn float64, print card.Print) card.Item {
		print.Picture, print.PixelWidth, print.PixelHeight, print.Width = p.ID, p.Width, p.Height, 54
		return card.Item{Name: "Plum", Kind: card.Photo, Place: card.Place{X: x, Y: y, Turn: turn}, Made: card.Made{As: card.Printed}, Photo: &print}
	}
	c, err := card.New("Edited", card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{
		photo(32, 32, 0, card.Print{Height: 36, Edits: []card.Edit{{CutOut: cut}}}),
		photo(94, 38, 10, card.Print{Height: 54, Zoom: 1.4, ShiftX: .1, ShiftY: -.05, Edits: []card.Edit{{Light: &card.Light{Brightness: 30, Warmth: -40, Saturation: 20}}, {CutOut: cut}}}),
		photo(32, 88, 0, card.Print{Height: 50, Edits: []card.Edit{{Lean: &card.Lean{Degrees: 12}}, {Tone: &card.Tone{Colour: "#35658c", Amount: 100}}}}),
		photo(94, 98, -20, card.Print{Height: 40, Fit: true, Edits: []card.Edit{{Light: &card.Light{Contrast: -50, Highlights: -30}, Of: cut}, {Wider: &card.Wider{Left: .2, Top: .1}}}}),
		photo(60, 145, 5, card.Print{Height: 44, Opening: &card.Form{Outline: card.Ellipse, Width: 54, Height: 44}, Edits: []card.Edit{{Filled: &card.Filled{Of: cut}}}}),
	}})
	require.NoError(t, err)
	id, err := app.App.Create(t.Context(), c)
	require.NoError(t, err)
	agree(t, app, id, 300)

	opt := sheettest.Usual(sheet.Sizes()[0])
	l, err := app.App.Layout(t.Context(), id, opt)
	require.NoError(t, err)
	var file bytes.Buffer
	require.NoError(t, app.App.WritePDF(t.Context(), &file, id, opt, 0, module.PDFAs{}))
	at := filepath.Join(t.TempDir(), "page")
	require.NoError(t, os.WriteFile(at+".pdf", file.Bytes(), 0o600))
	const perMM = 4
	out, err := exec.Command("/usr/bin/pdftoppm", "-png", "-r", fmt.Sprint(perMM*25.4), "-singlefile", at+".pdf", at).CombinedOutput()
	require.NoError(t, err, string(out))
	rendered, err := os.ReadFile(at + ".png")
	require.NoError(t, err)
	page, err := png.Decode(bytes.NewReader(rendered))
	require.NoError(t, err)
	sh := l.Sheets[0]
	canvas := raster.New(sh.Size.Width, sh.Size.Height, perMM, color.White, previews(t, app))
	require.NoError(t, canvas.Paint(sh.Front()))
	alike(t, canvas.Image(), page, image.Point{}, perMM, geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-4), 1000)
}

// previews gives the pictures of a program as they are seen.
func previews(t *testing.T, app *testserver.Server) raster.Pictures {
	return func(id string) (image.Image, error) {
		_, preview, err := app.App.PicturePreview(t.Context(), id, 800)
		if err != nil {
			return nil, err
		}
		img, _, err := picture.Decode("", preview)
		return img, err
	}
}

// agree compares the front of a card as the browser shows it with what Go
// paints, wherever both are even; there have to be enough such places.
func agree(t *testing.T, app *testserver.Server, id string, enough int) {
	h := open(t, app.URL)
	h.must(h.Go("/cards/" + id + "/panels"))
	h.there("tab-shapes")
	h.wait(`document.fonts.status === 'loaded'`)
	_, err := browser.Eval[bool](h.Page, `(Promise.all([...document.querySelectorAll('[data-testid=surface] image')].map(i => { const m = new Image(); m.src = i.getAttribute('href'); return m.decode() })).then(() => requestAnimationFrame(() => requestAnimationFrame(() => (window.__drawn = true)))), true)`)
	h.must(err)
	h.wait(`window.__drawn === true`)
	r, err := browser.Eval[[3]float64](h.Page, `(() => { const r = document.querySelector('[data-testid=face-ground]').getBoundingClientRect(); return [r.x, r.y, r.width] })()`)
	h.must(err)
	raw, err := h.Shot()
	h.must(err)
	screen, err := png.Decode(bytes.NewReader(raw))
	require.NoError(t, err)

	v, err := app.App.Open(t.Context(), id)
	require.NoError(t, err)
	f := v.Scene.Face(card.Front)
	scale := r[2] / f.Width // pixels per mm
	canvas := raster.New(f.Width, f.Height, scale, color.White, previews(t, app))
	require.NoError(t, canvas.Paint(v.Scene.Look(f, v.Card.Base)))
	alike(t, canvas.Image(), screen, image.Pt(int(math.Round(r[0])), int(math.Round(r[1]))), scale, geom.Rect{W: f.Width, H: f.Height}.Grow(-4), enough)
}

// alike compares a picture with another, from a place of it, over a box in mm, wherever both are even.
func alike(t *testing.T, paper, screen image.Image, from image.Point, scale float64, box geom.Rect, enough int) {
	t.Helper()
	looked, differ := 0, 0
	for y := box.Y; y < box.Bottom(); y += 1.7 {
		for x := box.X; x < box.Right(); x += 1.7 {
			px, py := int(x*scale), int(y*scale)
			want, even := steady(paper, px, py)
			got, alike := steady(screen, px+from.X, py+from.Y)
			if !even || !alike {
				continue // an edge runs here, or a shadow
			}
			looked++
			if apart(want, got) > 24 {
				differ++
			}
		}
	}
	require.Greater(t, looked, enough, "enough places to compare")
	// The safe line, the handles' absence and shadows leave a few.
	assert.Less(t, float64(differ)/float64(looked), .02, "%d of %d places differ", differ, looked)
}

// steady is the colour at a place and whether its neighbourhood has it too.
func steady(img image.Image, x, y int) (color.RGBA, bool) {
	at := func(x, y int) color.RGBA { return color.RGBAModel.Convert(img.At(x, y)).(color.RGBA) }
	c := at(x, y)
	for _, d := range [][2]int{{-2, 0}, {2, 0}, {0, -2}, {0, 2}} {
		if apart(c, at(x+d[0], y+d[1])) > 8 {
			return c, false
		}
	}
	return c, true
}

func apart(a, b color.RGBA) int {
	d := 0
	for _, v := range []int{int(a.R) - int(b.R), int(a.G) - int(b.G), int(a.B) - int(b.B)} {
		d = max(d, v, -v)
	}
	return d
}

package e2e

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"math"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/picture"
	"sectilis/core/format/raster"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// What the browser draws on the surface and what Go paints for the printer come
// from one scene; on every demo card they have to look the same.
func TestTheScreenAndThePrinterAgree(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
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
	app, err := testserver.Start(t.Context(), testserver.Options{Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
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
	canvas := raster.New(f.Width, f.Height, scale, color.White, func(id string) (image.Image, error) {
		_, preview, err := app.App.PicturePreview(t.Context(), id, 800)
		if err != nil {
			return nil, err
		}
		img, _, err := picture.Decode("", preview)
		return img, err
	})
	require.NoError(t, canvas.Paint(v.Scene.Look(f, v.Card.Base)))
	paper := canvas.Image()

	looked, differ := 0, 0
	for y := 4.0; y < f.Height-4; y += 1.7 {
		for x := 4.0; x < f.Width-4; x += 1.7 {
			px, py := int(x*scale), int(y*scale)
			want, even := steady(paper, px, py)
			got, alike := steady(screen, px+int(math.Round(r[0])), py+int(math.Round(r[1])))
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

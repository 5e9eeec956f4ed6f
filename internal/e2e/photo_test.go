package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/opening"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/internal/browser"
)

// pumpkin is a picture of an orange disc on grass.
func pumpkin(t *testing.T) []byte {
	t.Helper()
	img := image.NewNRGBA(image.Rect(0, 0, 900, 600))
	for y := range 600 {
		for x := range 900 {
			k := uint8(14*math.Sin(float64(x)/7)*math.Cos(float64(y)/9) + 20)
			c := color.NRGBA{70 + k, 110 + k, 50 + k, 255}
			if math.Hypot(float64(x)-450, float64(y)-300) < 150 {
				c = color.NRGBA{200 + k, 110 + k, 20 + k/2, 255}
			}
			img.SetNRGBA(x, y, c)
		}
	}
	var raw bytes.Buffer
	require.NoError(t, png.Encode(&raw, img))
	return raw.Bytes()
}

// photographed is a card with a photo, i1, that is worked on by itself.
func photographed(t *testing.T) table {
	t.Helper()
	h := lay(t)
	raw := pumpkin(t)
	p, err := h.app.App.BringIn(t.Context(), "Lake.png", raw)
	require.NoError(t, err)
	item := card.Item{Name: "Lake", Kind: card.Photo, Place: card.Place{X: 2.5 * in, Y: 3 * in}, Made: card.Made{As: card.Cut, Stock: "satin-240"},
		Photo: &card.Print{Picture: p.ID, PixelWidth: p.Width, PixelHeight: p.Height, Width: 90, Height: 60}}
	_, err = h.app.App.Change(t.Context(), h.id, 1, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{item}}})
	require.NoError(t, err)
	h.click("layer-i1")
	h.click("photo-edit")
	h.there("photo-room")
	h.wait(`document.querySelector('[data-testid=edited]')?.complete`)
	return h
}

// slide sets a slider as a hand does.
func (h table) slide(id string, value float64) {
	h.Helper()
	_, err := browser.Eval[bool](h.Page, fmt.Sprintf(`(() => { const e = document.querySelector('[data-testid=%s]'); e.value = %v; e.dispatchEvent(new Event('input', {bubbles: true})); e.dispatchEvent(new Event('change', {bubbles: true})); return true })()`, id, value))
	h.must(err)
}

// A photo is made warmer, set right, made grey and straightened; every step can be seen, taken
// off and undone, and what was done shows on the face.
func TestAPhotoIsWorkedOnStepByStep(t *testing.T) {
	h := photographed(t)
	h.says("edit-strip", "As it came")
	shown := func() string {
		t.Helper()
		s, err := browser.Eval[string](h.Page, `document.querySelector('[data-testid=edited]').src`)
		h.must(err)
		return s
	}
	first := shown()
	h.slide("light-warmth", 40)
	assert.Equal(t, []card.Edit{{Light: &card.Light{Warmth: 40}}}, h.item(3, "i1").Photo.Edits)
	h.says("edit-0", "Warmth +40")
	h.wait(`document.querySelector('[data-testid=edited]').src !== '` + first + `'`)
	h.slide("light-contrast", 20)
	assert.Equal(t, []card.Edit{{Light: &card.Light{Warmth: 40, Contrast: 20}}}, h.item(4, "i1").Photo.Edits)
	h.says("edit-0", "Light and colour")

	h.click("tone-808080")
	assert.Len(t, h.item(5, "i1").Photo.Edits, 2)
	h.must(h.Put(browser.ID("look-name"), "Harvest"))
	h.click("keep-look")
	h.there("look-Harvest")
	h.says("edit-1", "Black and white")
	h.click("way-straighten")
	h.slide("lean", 2.5)
	require.Len(t, h.item(6, "i1").Photo.Edits, 3)
	assert.InDelta(t, 2.5, h.item(6, "i1").Photo.Edits[2].Lean.Degrees, 1e-9)
	// A line along what is level: two degrees more.
	x, y, err := h.Middle(browser.ID("photo-art"))
	h.must(err)
	h.must(h.Drag(x-100, y, x+100, y-7))
	assert.InDelta(t, 4.5, h.item(7, "i1").Photo.Edits[2].Lean.Degrees, .11)

	h.click("take-off-1")
	assert.Len(t, h.item(8, "i1").Photo.Edits, 2)
	h.keys("z", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	assert.Len(t, h.item(9, "i1").Photo.Edits, 3)

	// As it came while a key is held.
	h.must(h.Do(chromedp.KeyEvent("v")))
	h.click("split-verb")
	h.there("split")
	h.click("photo-done")
	h.there("surface")
	h.wait(`[...document.querySelectorAll('[data-testid=item-i1] image')].some(e => !e.getAttribute('href').includes('` + h.item(9, "i1").Photo.Picture + `'))`)
}

// The four corners of something seen askew are set with the pointer and with keys.
func TestAPhotoIsSquaredUp(t *testing.T) {
	h := photographed(t)
	h.click("way-straighten")
	h.click("corners")
	x, y, err := h.Middle(browser.ID("corner-0"))
	h.must(err)
	h.must(h.Drag(x, y, x+30, y+20))
	h.must(h.Do(chromedp.Focus(chromedp.CSS(browser.ID("corner-2")))))
	h.keys(kb.ArrowLeft + kb.ArrowLeft + kb.ArrowUp)
	h.click("square-up")
	it := h.item(3, "i1")
	require.Len(t, it.Photo.Edits, 1)
	at := it.Photo.Edits[0].Corners.At
	assert.Greater(t, at[0].X, .13)
	assert.InDelta(t, .87, at[2].X, 1e-3)
	assert.InDelta(t, .875, at[2].Y, 1e-3)
	w, hh := it.Photo.Pixels()
	assert.Less(t, w, it.Photo.PixelWidth)
	assert.Less(t, hh, it.Photo.PixelHeight)
	h.says("edit-0", "Squared up")
	h.keys(kb.Escape)
	h.there("surface")
}

// A subject is taken out by two strokes and laid on foam over its ground, with a border.
func TestASubjectIsCutOutAndLaidOverItsGround(t *testing.T) {
	h := photographed(t)
	h.click("way-cut")
	h.there("cut-marks")
	x, y, err := h.Middle(browser.ID("photo-art"))
	h.must(err)
	// The sun of the picture, and what is about it.
	h.must(h.Drag(x-20, y, x+20, y+6))
	assert.Len(t, h.item(3, "i1").Photo.Edits[0].CutOut.Subject.Stays, 1)
	h.there("cut-soft")
	h.must(h.Drag(x-300, y-180, x+300, y-182))
	s := h.item(4, "i1").Photo.Edits[0].CutOut.Subject
	assert.Len(t, s.Goes, 1, "the second stroke says what goes")
	h.says("edit-0", "Cut out")
	h.click("brush-out")
	h.slide("brush-size", 3)
	h.must(h.Drag(x+10, y, x+14, y))
	assert.Len(t, h.item(5, "i1").Photo.Edits[0].CutOut.Paint, 1)
	h.click("cut-back")
	assert.Empty(t, h.item(6, "i1").Photo.Edits[0].CutOut.Paint)
	h.click("seen-mask")
	h.wait(`getComputedStyle(document.querySelector('[data-testid=edited]')).filter === 'brightness(0) invert(1)'`)
	h.click("seen-black")
	h.click("cut-over")
	h.there("surface")
	ground, laid := h.item(7, "i1"), h.item(7, "i2")
	require.Len(t, ground.Photo.Edits, 1)
	assert.Equal(t, laid.Photo.Edits[0].CutOut, ground.Photo.Edits[0].Filled.Of, "the photo is filled in where it was")
	assert.Equal(t, "i1", laid.On)
	assert.InDelta(t, 2, laid.Made.Lift, 1e-9)
	assert.InDelta(t, in/16, laid.Photo.Rim.Width, 1e-6)
	h.says("layer-i2", "foam 2 mm")
}

// A photo is mended: a stroke is filled in, another copied over, an eye is clicked, and it is made
// wider; what is filled can be filled otherwise.
func TestAPhotoIsMended(t *testing.T) {
	h := photographed(t)
	h.click("way-mend")
	h.there("brush-layer")
	x, y, err := h.Middle(browser.ID("photo-art"))
	h.must(err)
	h.must(h.Drag(x-40, y, x+40, y))
	assert.Len(t, h.item(3, "i1").Photo.Edits[0].Filled.Strokes, 1)
	h.says("edit-0", "Filled in")
	h.click("fill-again")
	assert.Equal(t, uint64(1), h.item(4, "i1").Photo.Edits[0].Filled.Seed)
	h.segment("mend-by", "Copy")
	h.must(h.Do(chromedp.MouseClickXY(x-200, y-100)))
	h.there("mend-from")
	h.must(h.Drag(x+150, y+80, x+190, y+80))
	c := h.item(5, "i1").Photo.Edits[1].Copied
	assert.InDelta(t, .5-200./708, c.From.X, .02)
	assert.True(t, c.Soft)
	h.segment("mend-by", "Eyes")
	h.must(h.Do(chromedp.MouseClickXY(x, y)))
	assert.Len(t, *h.item(6, "i1").Photo.Edits[2].Eyes, 1)
	h.segment("mend-by", "Wider")
	h.slide("wider-left", 25)
	it := h.item(7, "i1")
	assert.InDelta(t, .25, it.Photo.Edits[3].Wider.Left, 1e-9)
	w, _ := it.Photo.Pixels()
	assert.Equal(t, 1125, w)
	h.says("edit-3", "Made wider")
	_, err = h.app.App.Change(t.Context(), h.id, 7, []card.Command{card.ResizeItems{IDs: []string{"i1"}, FX: 1.6, FY: 1.6, About: geom.Pt(2.5*in, 3*in)}})
	require.NoError(t, err)
	h.click("widen-face")
	it = h.item(9, "i1")
	assert.InDelta(t, 5*in, it.Photo.Width, 1e-6)
	assert.InDelta(t, 7*in, it.Photo.Height, 1e-6)
	assert.Len(t, it.Photo.Edits, 4)
}

// Words that cannot be read on what lies under them say so in the stack, a moment after.
func TestWordsThatAreHardToReadSaySo(t *testing.T) {
	h := headline(t)
	_, err := h.app.App.Change(t.Context(), h.id, 1, []card.Command{card.SetFill{IDs: []string{"i2"}, Fill: card.Fill{Colour: "#a8432a"}}})
	h.must(err)
	h.says("layer-i2", "is hard to read") // brick on moss
	h.click("layer-i2")
	h.wait(`[...document.querySelectorAll('[data-testid=mend]')].map(e => e.textContent.trim()).join() ===
		'Make it darker,Put a line round it,Put a soft shade behind it,Lay a band behind it'`)
	h.must(h.Click(`[data-testid=mend]:last-of-type`))
	h.wait(`!document.querySelector('[data-testid=mend]')`)
	assert.Equal(t, "#ffffff", h.item(3, "i3").Fill.Colour)
	h.click("undo")
	h.says("layer-i2", "is hard to read")
	_, err = h.app.App.Change(t.Context(), h.id, 4, []card.Command{card.SetFill{IDs: []string{"i2"}, Fill: card.Fill{Colour: "#fff6e0"}}})
	h.must(err)
	h.says("layer-i2", "printed on Label")
}

// A frame with two holes, transparent ones, gets an opening under each; photos fill them.
func TestAFrameWithTwoHolesIsFilledByTwoPhotos(t *testing.T) {
	h := lay(t)
	img := image.NewNRGBA(image.Rect(0, 0, 600, 400))
	for y := range 400 {
		for x := range 600 {
			hole := y > 80 && y < 320 && (x > 60 && x < 270 || x > 330 && x < 540)
			if !hole {
				img.SetNRGBA(x, y, color.NRGBA{120, 80, 50, 255})
			}
		}
	}
	var raw bytes.Buffer
	require.NoError(t, png.Encode(&raw, img))
	p, err := h.app.App.BringIn(t.Context(), "Frame.png", raw.Bytes())
	require.NoError(t, err)
	lake, err := h.app.App.BringIn(t.Context(), "Lake.png", pumpkin(t))
	require.NoError(t, err)
	item := card.Item{Name: "Frame", Kind: card.Photo, Place: card.Place{X: 2.5 * in, Y: 3 * in}, Made: card.Made{As: card.Printed},
		Photo: &card.Print{Picture: p.ID, PixelWidth: p.Width, PixelHeight: p.Height, Width: 90, Height: 60}}
	_, err = h.app.App.Change(t.Context(), h.id, 1, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{item}}})
	require.NoError(t, err)
	h.must(h.Go("/cards/" + h.id + "/panels"))
	h.click("layer-i1")
	h.click("frame-openings")
	f := h.front(3)
	require.Len(t, f.Items, 3)
	assert.Equal(t, card.Slot, f.Items[0].Kind)
	assert.InDelta(t, 90.*210/600+.8, f.Items[0].Form.Width, .35)
	for i, slot := range f.Items[:2] {
		_, err = h.app.App.Change(t.Context(), h.id, int64(3+i), []card.Command{opening.FillOpening{ID: slot.ID, Picture: lake.ID, PixelWidth: 900, PixelHeight: 600}})
		require.NoError(t, err)
	}
	f = h.front(5)
	assert.Equal(t, card.Photo, f.Items[1].Kind)
	assert.Equal(t, "i1", f.Items[2].ID, "the frame lies over them")
}

// A colour that prints dull shows so in the colours of the card, and is set right by one click; the
// face can be seen as it will print.
func TestAColourThatPrintsDullIsSetRight(t *testing.T) {
	h := headline(t)
	_, err := h.app.App.Change(t.Context(), h.id, 1, []card.Command{card.SetFill{IDs: []string{"i2"}, Fill: card.Fill{Colour: "#00ff40"}}})
	h.must(err)
	h.click("colour-00ff40")
	h.says("colour-dull", "is how it prints")
	h.click("colour-prints")
	prints := h.item(3, "i2").Fill.Colour
	assert.NotEqual(t, "#00ff40", prints)
	h.must(h.Do(chromedp.Focus(chromedp.CSS(browser.ID("surface")))))
	h.must(h.Do(chromedp.KeyEvent(",")))
	h.wait(`!document.querySelector('[data-testid=colour-dull]')`)
	png := h.fetch("/api/cards/" + h.id + "/faces/front/print.png")
	img, _, err := image.Decode(bytes.NewReader(png))
	require.NoError(t, err)
	assert.Equal(t, 1400, img.Bounds().Dy())
}

// A finished arrangement is trimmed by a disc over it: the photo ends there on the face and on the
// sheet, and nothing is lost.
func TestAnArrangementIsTrimmedByADisc(t *testing.T) {
	raw := pumpkin(t)
	disc := card.Item{Name: "Disc", Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: 3 * in}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Form: &card.Form{Outline: card.Ellipse, Width: 55, Height: 55}}
	h := lay(t)
	p, err := h.app.App.BringIn(t.Context(), "Lake.png", raw)
	require.NoError(t, err)
	photo := card.Item{Name: "Lake", Kind: card.Photo, Place: card.Place{X: 2.5 * in, Y: 3 * in}, Made: card.Made{As: card.Cut, Stock: "satin-240"},
		Photo: &card.Print{Picture: p.ID, PixelWidth: p.Width, PixelHeight: p.Height, Width: 90, Height: 60}}
	_, err = h.app.App.Change(t.Context(), h.id, 1, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{photo}}, card.PlaceItems{Face: card.Front, Items: []card.Item{disc}},
		card.GroupItems{IDs: []string{"i1", "i2"}}})
	require.NoError(t, err)
	h.must(h.Go("/cards/" + h.id + "/panels"))
	h.click("layer-i2")
	h.click("trim-group")
	assert.Equal(t, card.Trims, h.item(3, "i2").Made.As)
	h.says("layer-i2", "trims its group")
	h.wait(`!!document.querySelector('[data-testid=item-i1]').getAttribute('clip-path')`)
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.says("sheet-count", "sheets")
	h.must(h.Go("/cards/" + h.id + "/panels"))
	h.click("layer-i2")
	h.click("trim-none")
	assert.Equal(t, card.Printed, h.item(4, "i2").Made.As)
	h.wait(`!document.querySelector('[data-testid=item-i1]').getAttribute('clip-path')`)
}

// Light is changed in a painted part alone; painting on makes the part larger, and another part is
// another step.
func TestLightIsChangedInAPartOfAPhoto(t *testing.T) {
	h := photographed(t)
	h.segment("part-by", "Painted")
	h.there("brush-layer")
	x, y, err := h.Middle(browser.ID("photo-art"))
	h.must(err)
	h.must(h.Drag(x-60, y, x+60, y))
	assert.Len(t, h.item(3, "i1").Photo.Edits[0].Of.Paint, 1)
	h.slide("light-brightness", 50)
	e := h.item(4, "i1").Photo.Edits
	assert.InDelta(t, 50, e[0].Light.Brightness, 1e-9)
	assert.NotNil(t, e[0].Of)
	h.says("edit-0", "a part")
	h.must(h.Drag(x-60, y+80, x+60, y+80))
	assert.Len(t, h.item(5, "i1").Photo.Edits[0].Of.Paint, 2)
	h.click("part-rest")
	assert.True(t, h.item(6, "i1").Photo.Edits[0].Of.Rest)
	h.segment("part-by", "All of it")
	h.slide("light-contrast", 10)
	e = h.item(7, "i1").Photo.Edits
	require.Len(t, e, 2)
	assert.Nil(t, e[1].Of)
	assert.InDelta(t, 10, e[1].Light.Contrast, 1e-9)
}

// A line along the edge of what stays clings to it; closed, it cuts that out.
func TestALineThatClingsToAnEdgeCutsOut(t *testing.T) {
	h := photographed(t)
	h.click("way-cut")
	h.segment("cut-by", "Line")
	h.there("line-layer")
	x, y, err := h.Middle(browser.ID("photo-art"))
	h.must(err)
	const r = 118.0 // of the disc on the screen, about
	for _, a := range []float64{0, 90, 180, 270} {
		s, c := math.Sincos(a * math.Pi / 180)
		h.must(h.Do(chromedp.MouseClickXY(x+r*c, y+r*s)))
	}
	h.wait(`document.querySelectorAll('[data-testid=cut-marks] path').length >= 1`)
	h.keys(kb.Enter)
	k := h.item(3, "i1").Photo.Edits[0].CutOut
	require.Greater(t, len(k.Within), 60)
	for _, p := range k.Within {
		assert.InDelta(t, 150, math.Hypot(p.X*900-450, p.Y*600-300), 9)
	}
}

// A window mat with a cut bevel is laid over a photo, seen before; it follows when the photo grows.
func TestAWindowMatIsLaidOverAPhoto(t *testing.T) {
	h := photographed(t)
	h.click("photo-done")
	h.click("layer-i1")
	h.click("add-mat")
	h.segment("mat-over", "Over it, a window")
	h.put("window-overlap", "2 mm")
	h.put("window-width", "8 mm")
	h.segment("window-bevel-as", "Second mat")
	h.put("window-bevel", "1 mm")
	h.wait(`document.querySelectorAll('[data-testid=trial] path').length === 2`)
	h.click("lay-window")
	f := h.front(3)
	require.Len(t, f.Items, 3)
	outer := f.Items[2]
	assert.Equal(t, "Window mat", outer.Name)
	assert.InDelta(t, 1, outer.Window.Overlap, 1e-6)
	assert.InDelta(t, 90+16, outer.Form.Width, 1e-6)
	h.click("layer-i1")
	h.fill("width", "4 in")
	assert.InDelta(t, 4*in+16, h.front(4).Items[2].Form.Width, 1e-4)
	h.click("layer-" + outer.ID)
	h.fill("set-window-width", "12 mm")
	assert.InDelta(t, 4*in+24, h.front(5).Items[2].Form.Width, .02)
}

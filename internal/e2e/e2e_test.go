// Package e2e walks whole ways through the real app in a real browser.
package e2e

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"math"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

var tab context.Context // the browser that all tests share

func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "way")
	if err != nil {
		panic(err)
	}
	ctx, stop, err := browser.Start(context.Background(), dir)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	tab = ctx
	code := m.Run()
	stop()
	_ = os.RemoveAll(dir)
	os.Exit(code)
}

// hand is a page with steps that fail the test when they do not work.
type hand struct {
	*testing.T
	*browser.Page
}

func open(t *testing.T, url string) hand {
	t.Helper()
	p, done, err := browser.Open(tab, url)
	require.NoError(t, err)
	h := hand{t, p}
	t.Cleanup(func() {
		// The next program may answer at the same address, and knows nothing of this one's page.
		_, _ = browser.Eval[bool](p, "(localStorage.clear(), true)")
		done()
	})
	t.Cleanup(func() {
		assert.Empty(t, p.Console(), "the page writes nothing to the console")
		if dir := os.Getenv("SECTILIS_SHOTS"); dir != "" && t.Failed() {
			if raw, err := p.Shot(); err == nil {
				_ = os.WriteFile(filepath.Join(dir, t.Name()+".png"), raw, 0o600)
			}
		}
	})
	return h
}

func (h hand) must(err error) {
	h.Helper()
	require.NoError(h.T, err)
}

func (h hand) click(id string)      { h.Helper(); h.must(h.Click(browser.ID(id))) }
func (h hand) fill(id, text string) { h.Helper(); h.must(h.Fill(browser.ID(id), text)) }
func (h hand) put(id, text string)  { h.Helper(); h.must(h.Put(browser.ID(id), text)) }
func (h hand) says(id, text string) { h.Helper(); h.must(h.WaitText(browser.ID(id), text)) }
func (h hand) wait(expr string)     { h.Helper(); h.must(h.Wait(expr)) }
func (h hand) there(id string) {
	h.Helper()
	h.wait(fmt.Sprintf("!!document.querySelector('[data-testid=%q]')", id))
}
func (h hand) keys(k string, o ...chromedp.KeyOption) { h.Helper(); h.must(h.Keys(k, o...)) }

// choose picks an option of a select by its text.
func (h hand) choose(id, option string) {
	h.Helper()
	h.click(id)
	find := fmt.Sprintf(`[...document.querySelectorAll('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option')].find(e => e.textContent.includes(%q))`, option)
	h.wait("!!" + find)
	_, err := browser.Eval[bool](h.Page, "(document.querySelectorAll('[data-testid=chosen-option]').forEach(e => delete e.dataset.testid), "+find+".dataset.testid = 'chosen-option', true)")
	h.must(err)
	h.click("chosen-option")
}

// segment picks an option of a segmented control by its text.
func (h hand) segment(id, option string) {
	h.Helper()
	h.there(id)
	_, err := browser.Eval[bool](h.Page, fmt.Sprintf(`([...document.querySelectorAll('[data-testid=%q] .ant-segmented-item')].find(e => e.textContent.trim() === %q).click(), true)`, id, option))
	h.must(err)
}

// mishap lets something go wrong at the cutter.
func (h hand) mishap(name string) {
	h.Helper()
	h.click("mishaps")
	h.click("mishap-" + name)
}

// dragUp drags a supply onto the middle of the face, shifted by mm of the face.
func (h hand) dragUp(id string, dx, dy float64) {
	h.Helper()
	x0, y0, err := h.Middle(browser.ID(id))
	h.must(err)
	x1, y1, err := h.Middle(browser.ID("face-ground"))
	h.must(err)
	h.must(h.Drag(x0, y0, x1+dx, y1+dy))
}

func (h hand) fetch(path string) []byte {
	h.Helper()
	base, err := browser.Eval[string](h.Page, "location.origin")
	h.must(err)
	res, err := http.Get(base + path)
	h.must(err)
	defer func() { _ = res.Body.Close() }()
	require.Equal(h.T, 200, res.StatusCode, path)
	raw, err := io.ReadAll(res.Body)
	h.must(err)
	return raw
}

// photo writes a real JPEG file of 12 to the dozen: sky above, grass below.
func photo(t *testing.T) string {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 1500, 1000))
	for y := range 1000 {
		for x := range 1500 {
			img.Set(x, y, color.RGBA{uint8(120 + x%40), uint8(160 + y%50), uint8(230 - y/8), 255})
		}
	}
	path := filepath.Join(t.TempDir(), "Allotment gate.jpg")
	f, err := os.Create(path)
	require.NoError(t, err)
	require.NoError(t, jpeg.Encode(f, img, nil))
	require.NoError(t, f.Close())
	return path
}

// boxes reads the outlines that a blade cuts from HP-GL, as sizes in mm.
func boxes(t *testing.T, text string) (out [][2]float64) {
	t.Helper()
	tool := ""
	var x0, y0, x1, y1 float64
	flush := func() {
		if x1 > x0 {
			out = append(out, [2]float64{(x1 - x0) / 40, (y1 - y0) / 40})
		}
		x0, y0, x1, y1 = math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	}
	flush()
	for _, ins := range strings.FieldsFunc(text, func(r rune) bool { return r == ';' || r == '\n' }) {
		switch ins[:2] {
		case "SP":
			tool = ins[2:]
		case "PU", "PD":
			if ins[:2] == "PU" {
				flush()
			}
			var n []float64
			for _, s := range strings.Split(ins[2:], ",") {
				if v, err := strconv.ParseFloat(s, 64); err == nil && tool == "3" {
					n = append(n, v)
				}
			}
			for i := 0; i+1 < len(n); i += 2 {
				x0, x1 = min(x0, n[i]), max(x1, n[i])
				y0, y1 = min(y0, n[i+1]), max(y1, n[i+1])
			}
		}
	}
	flush()
	return out
}

func TestFromAnEmptyTableToACutSheet(t *testing.T) {
	data := filepath.Join(t.TempDir(), "cards.db")
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: data, Pace: 0})
	require.NoError(t, err)
	defer func() { app.Stop() }()
	h := open(t, app.URL)

	// A new card, its title, its base.
	h.must(h.Go("/"))
	h.says("card-count", "0 cards")
	h.click("new-card")
	h.there("net")
	h.click("title")
	h.fill("title-input", "Open gate day")
	h.says("title", "Open gate day")
	h.choose("closed", "A6, 4 ½ × 6 ¼ in")
	h.says("about", "4 ½ × 6 ¼ in side fold")
	h.fill("base-width", "0")
	h.wait(`[...document.querySelectorAll('.ant-message')].some(e => e.textContent.includes('closed card is between'))`)
	h.says("base-width", "4 ½ in")
	h.fill("base-height", "six")
	h.says("base-wrong", "cannot be read. Write a measure such as")
	h.fill("base-height", "6 1/4 + 1/4 - 1/4")
	h.wait(`!document.querySelector('[data-testid="base-wrong"]')`)
	h.choose("base-stock", "Kraft card 280 g")
	h.segment("unit", "mm")
	h.says("about", "114.3 × 158.8 mm")
	h.segment("unit", "in")

	// A photo of one's own, brought in and placed, to an exact size.
	h.click("to-panels")
	h.says("face-name", "Front")
	h.click("tab-photos")
	fake := filepath.Join(t.TempDir(), "words.jpg")
	require.NoError(t, os.WriteFile(fake, []byte("no picture at all"), 0o600))
	h.must(h.Upload(browser.ID("file-input"), photo(t), fake))
	h.says("refused", "is no picture that can be read here")
	h.wait(`document.querySelectorAll('.supply.photo').length === 1`)
	id, err := browser.Eval[string](h.Page, `document.querySelector('.supply.photo').dataset.testid`)
	h.must(err)
	h.dragUp(id, 0, -60)
	h.says("selected-name", "Allotment gate")
	h.fill("width", "3 1/4 - 1/4")
	h.says("width", "3 in")
	h.says("height", "2 in")
	h.fill("left", "3/4")
	h.says("left", "¾ in")

	// A mat under it.
	h.click("add-mat")
	h.put("new-mat-width", "1/8")
	h.segment("new-mat-corner", "Round")
	h.click("lay-mat")
	h.there("layer-i2")
	h.says("layer-i2", "Moss 216 g")

	// A label by keyboard, raised on foam, and words printed on it.
	h.click("tab-shapes")
	h.must(h.Do(chromedp.Focus(chromedp.CSS(browser.ID("supply-shape-scallop")))))
	h.keys("\r")
	h.says("selected-name", "Scalloped")
	h.fill("top", "4")
	h.says("top", "4 in")
	h.segment("made-as", "Cut piece")
	h.choose("piece-stock", "Cream card 216 g")
	h.choose("lift", "Foam 1 mm")
	h.says("layer-i3", "foam 1 mm")
	h.says("thickness", "1.7 mm thick")
	h.click("tab-lettering")
	h.dragUp("supply-lettering-lilita-one-400", 0, 92)
	h.there("words-editor")
	h.keys("Gate’s open")
	h.wait(`document.querySelector('[data-testid="words-editor"]').value === 'Gate’s open'`)
	h.keys("\r", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	h.says("layer-i4", "printed on Scalloped")
	h.says("edit-words", "Gate’s open")

	// Nudging, duplicating, removing, the stack by keys and by hand.
	before, err := h.Text(browser.ID("left"))
	h.must(err)
	h.keys("\u0303") // ArrowRight
	h.wait(fmt.Sprintf(`document.querySelector('[data-testid=left]').value !== %q`, before))
	h.click("layer-i3")
	h.click("duplicate")
	h.there("layer-i6")
	h.wait(`document.querySelector('[data-testid=layer-i5]').className.includes('sel')`)
	h.keys("\u007f") // Delete
	h.wait(`!document.querySelector('[data-testid=layer-i5]')`)
	h.there("layer-i6")
	h.click("undo")
	h.there("layer-i5")
	h.click("undo")
	h.wait(`!document.querySelector('[data-testid=layer-i6]')`)
	h.click("layer-i3")
	h.keys("[")
	h.wait(`[...document.querySelectorAll('.layer')].map(e => e.dataset.testid).join() === 'layer-i1,layer-i2,layer-i4,layer-i3,layer-base'`)
	x0, y0, err := h.Middle(browser.ID("layer-i3"))
	h.must(err)
	_, y1, err := h.Middle(browser.ID("layer-i1"))
	h.must(err)
	h.must(h.Drag(x0, y0, x0, y1-14))
	h.wait(`[...document.querySelectorAll('.layer')].map(e => e.dataset.testid).join() === 'layer-i4,layer-i3,layer-i1,layer-i2,layer-base'`)

	// Sheets: the files are in true size.
	h.click("station-sheets")
	h.says("sheet-count", "4 sheets")
	id, err = browser.Eval[string](h.Page, `location.pathname.split('/')[2]`)
	h.must(err)
	pdf := h.fetch("/api/cards/" + id + "/sheets.pdf?size=letter")
	box := regexp.MustCompile(`/MediaBox \[0 0 ([0-9.]+) ([0-9.]+)\]`).FindSubmatch(pdf)
	require.NotNil(t, box)
	for i, want := range []float64{215.9, 279.4} {
		pt, err := strconv.ParseFloat(string(box[i+1]), 64)
		require.NoError(t, err)
		assert.InDelta(t, want, pt*25.4/72, .05)
	}
	sizes := map[string][][2]float64{}
	for n := 1; n <= 4; n++ {
		sizes[fmt.Sprint(n)] = boxes(t, string(h.fetch(fmt.Sprintf("/api/cards/%s/sheets/%d/lines.hpgl", id, n))))
	}
	has := func(w, hgt float64) {
		t.Helper()
		for _, list := range sizes {
			for _, b := range list {
				// The holder runs a blade's offset ahead of the tip.
				if over := [2]float64{b[0] - w, b[1] - hgt}; min(over[0], over[1]) > -.03 && max(over[0], over[1]) < .53 {
					return
				}
			}
		}
		assert.Fail(t, "no such outline", "%g × %g in %v", w, hgt, sizes)
	}
	has(158.75, 228.6) // the base, lying on its side
	has(76.2, 50.8)    // the photo
	has(82.55, 57.15)  // its mat
	has(76.2, 2*25.4)  // the label

	// Cut the first sheet and look at what the cutter has made of it.
	h.click("station-machine")
	h.says("cutter", "ready")
	h.click("run-1")
	h.click("cut")
	h.says("headline", "Put the scoring tip into the holder")
	h.click("tool-in")
	h.says("headline", "Put the blade into the holder")
	h.click("tool-in")
	h.says("run-state-1", "done")
	h.there("result")
	h.wait(`document.querySelector('[data-testid=result]').naturalWidth > 100`)
	src, err := browser.Eval[string](h.Page, `new URL(document.querySelector('[data-testid=result]').src).pathname`)
	h.must(err)
	bed, err := png.Decode(bytes.NewReader(h.fetch(src)))
	require.NoError(t, err)
	dark, rust := 0, 0
	for y := range bed.Bounds().Dy() {
		for x := range bed.Bounds().Dx() {
			switch r, g, _, _ := bed.At(x, y).RGBA(); {
			case r>>8 == 0x1f && g>>8 == 0x2b:
				dark++
			case r>>8 == 0xa4 && g>>8 == 0x57:
				rust++
			}
		}
	}
	assert.Greater(t, dark, 2*(228+158)*4, "the outline of the base is cut")
	assert.Greater(t, rust, 150*4, "its fold is scored")

	// What is printed is cut where the print is.
	l, err := app.App.Layout(t.Context(), id, sheettest.Usual(sheet.Sizes()[0]))
	require.NoError(t, err)
	printed := 0
	for _, sh := range l.Sheets {
		if sh.Printed {
			printed = sh.Number
		}
	}
	require.Positive(t, printed)
	h.click(fmt.Sprint("run-", printed))
	h.click("cut")
	h.wait(fmt.Sprintf(`document.querySelector('.ant-message')?.textContent.includes('Print sheet %d first')`, printed))
	h.click("station-sheets")
	h.click("print")
	h.says("print-note", "printed")
	h.click("station-machine")
	h.click(fmt.Sprint("run-", printed))
	h.click("find")
	h.says("lies", "Marks agree within")
	h.click("test-cut")
	h.says("headline", "The test is cut")
	// The connection is lost on the way, and the run goes on where it was.
	h.mishap("lost")
	h.click("cut")
	h.says("headline", "The connection to the cutter was lost")
	h.click("show-result")
	h.there("result")
	h.click("go-on")
	h.says(fmt.Sprint("run-state-", printed), "done")
	h.says("apart", "mm, worst")
	h.click("show-apart")
	h.says("bed", "mm")
	// A cutter without a mat says so, and is ready again when it has one.
	h.mishap("noMat")
	h.says("cutter-why", "there is no cutting mat")
	h.mishap("none")
	h.says("cutter", "ready")

	// The program ends and starts again: undo goes on where it was.
	h.click("station-panels")
	h.there("layer-i4")
	app.Stop()
	app, err = testserver.Start(t.Context(), testserver.Options{Again: true, Data: data})
	require.NoError(t, err)
	again := open(t, app.URL)
	again.must(again.Go("/cards/" + id + "/panels"))
	again.there("layer-i4")
	again.click("undo")
	again.wait(`[...document.querySelectorAll('.layer')].map(e => e.dataset.testid).join() === 'layer-i1,layer-i2,layer-i4,layer-i3,layer-base'`)
	again.click("redo")
	again.wait(`[...document.querySelectorAll('.layer')].map(e => e.dataset.testid).join() === 'layer-i4,layer-i3,layer-i1,layer-i2,layer-base'`)
}

func TestTwoWindowsOnOneCard(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	defer app.Stop()
	cards, err := app.App.Cards(t.Context(), "plot 14 has moved")
	require.NoError(t, err)
	require.Len(t, cards, 1)
	path := "/cards/" + cards[0].ID + "/panels"
	a, b := open(t, app.URL), open(t, app.URL)
	for _, h := range []hand{a, b} {
		h.must(h.Go(path))
		h.there("layer-i2")
	}
	a.click("title")
	a.fill("title-input", "Plot 14 is back")
	b.says("title", "Plot 14 is back") // told by an event

	// Both change at once; whichever is stale catches up, and nothing is lost.
	a.click("layer-i2")
	b.click("layer-i4")
	for _, h := range []hand{a, b} {
		_, err := browser.Eval[bool](h.Page, `(document.querySelector('[data-testid=duplicate]').click(), true)`)
		require.NoError(t, err)
	}
	for _, h := range []hand{a, b} {
		h.wait(`document.querySelectorAll('.layer').length >= 6`)
	}
	na, err := browser.Eval[int](a.Page, `document.querySelectorAll('.layer').length`)
	require.NoError(t, err)
	b.wait(fmt.Sprintf(`document.querySelectorAll('.layer').length >= %d`, na))
	v, err := app.App.Open(t.Context(), cards[0].ID)
	require.NoError(t, err)
	for _, h := range []hand{a, b} {
		h.wait(fmt.Sprintf(`document.querySelectorAll('.layer').length === %d`, len(v.Card.Faces[0].Items)+1))
	}
}

// A window that was open while the program was away, and while another one
// changed the card, shows what is there once the program answers again.
func TestAWindowCatchesUpAfterTheProgramWasAway(t *testing.T) {
	data, addr := filepath.Join(t.TempDir(), "cards.db"), freeAddress(t)
	app, err := testserver.Start(t.Context(), testserver.Options{Data: data, Demo: true, Listen: addr})
	require.NoError(t, err)
	cards, err := app.App.Cards(t.Context(), "potting shed")
	require.NoError(t, err)
	h := open(t, app.URL)
	h.must(h.Go("/cards/" + cards[0].ID + "/panels"))
	h.there("layer-i1")
	app.Stop()
	h.wait(`document.body.textContent.includes('The program does not answer')`)
	// What is tried meanwhile is told, and nothing is shown that is not kept.
	h.click("layer-i1")
	h.click("remove")
	h.wait(`[...document.querySelectorAll('.ant-message')].some(e => e.textContent.includes('nothing that was saved is lost'))`)
	h.there("layer-i1")

	app, err = testserver.Start(t.Context(), testserver.Options{Data: data, Listen: addr})
	require.NoError(t, err)
	defer app.Stop()
	cmd, err := card.Decode(card.Commands, []byte(`{"do":"renameCard","title":"Seeds, seeds"}`))
	require.NoError(t, err)
	_, err = app.App.Change(t.Context(), cards[0].ID, 1, []card.Command{cmd})
	require.NoError(t, err)
	h.says("title", "Seeds, seeds")
	h.click("layer-i1")
	h.click("remove")
	h.wait(`!document.querySelector('[data-testid=layer-i1]')`)
}

func freeAddress(t *testing.T) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = l.Close() }()
	return l.Addr().String()
}

func TestTheTableOfCards(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	defer app.Stop()
	h := open(t, app.URL)
	h.must(h.Go("/"))
	cards, err := app.App.Cards(t.Context(), "")
	require.NoError(t, err)
	h.says("card-count", fmt.Sprintf("%d cards", len(cards)))
	h.wait(fmt.Sprintf(`[...document.querySelectorAll('[data-testid=card] img')].length === %d`, len(cards)))
	h.fill("find-card", "beekeeper")
	h.says("card-count", "1 card found")
	h.click("tile-more")
	h.click("tile-copy")
	h.says("card-count", "2 cards found")
	h.click("tile-more")
	h.click("tile-remove")
	h.says("card-count", "1 card found")
	h.click("put-back")
	h.says("card-count", "2 cards found")
	h.click("tile-more")
	h.click("tile-rename")
	h.fill("tile-title", "For the beekeeper")
	h.wait(`document.querySelector('[data-testid=card] b').textContent === 'For the beekeeper'`)

	// A cutter that is gone is said where it is missed.
	app.EndCutter()
	h.must(h.Click("[data-testid=card] a"))
	h.click("station-machine")
	h.says("cutter-why", "The cutter is not there: nothing answers at")
	h.wait(`document.querySelector('[data-testid=cut]').disabled`)
	h.click("station-panels")
	h.there("surface")
}

func TestTheKeyboardAloneIsEnough(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	defer app.Stop()
	cards, err := app.App.Cards(t.Context(), "potting shed")
	require.NoError(t, err)
	h := open(t, app.URL)
	h.must(h.Go("/cards/" + cards[0].ID + "/base"))
	h.there("net")
	ctrl := chromedp.KeyModifiers(chromedp.ModifierCtrl)
	layers := func(n int) {
		t.Helper()
		h.wait(fmt.Sprintf(`document.querySelectorAll('.layer').length === %d`, n+1))
	}
	const (
		right, down, del, esc = "\u0303", "\u0301", "\u007f", "\u001b"
	)
	h.keys("2")
	layers(7)
	h.keys("f") // to the next face, which is empty
	h.says("face-name", "Inside left")
	h.keys("/")
	h.wait(`document.activeElement.dataset.testid === 'tray-find'`)
	// The driver sends the key's letter after its focus has moved, as no
	// keyboard does; it is typed over.
	_, err = browser.Eval[bool](h.Page, `(document.activeElement.select(), true)`)
	h.must(err)
	h.keys("comb")
	h.wait(`document.querySelectorAll('.supply').length === 1`)
	h.keys("\t\t\t") // past the fold of the tray and what brings papers in, to the paper
	h.wait(`document.activeElement.dataset.testid === 'supply-paper-comb'`)
	h.keys("\r")
	layers(1)
	h.says("selected-name", "Comb")
	h.says("left", "¼ in")
	h.keys(right)
	h.says("left", "5/16 in")
	h.keys(right, chromedp.KeyModifiers(chromedp.ModifierShift))
	h.says("left", "13/16 in")
	h.keys(down, chromedp.KeyModifiers(chromedp.ModifierAlt))
	h.says("top", "9/32 in") // 1/4 and 1/64, to the nearest 1/32
	h.keys("c", ctrl)
	h.keys("v", ctrl)
	layers(2)
	h.keys("ff")
	h.says("face-name", "Back")
	h.keys("v", ctrl)
	layers(1)
	h.keys("d", ctrl)
	layers(2)
	h.keys("a", ctrl)
	h.says("selected-name", "2 items")
	h.keys(del)
	layers(0)
	h.keys("z", ctrl)
	layers(2)
	h.keys("z", ctrl)
	layers(1)
	h.keys("z", chromedp.KeyModifiers(chromedp.ModifierCtrl, chromedp.ModifierShift))
	layers(2)
	h.keys(esc)
	h.says("selected-name", "Back")
	h.keys("?")
	h.there("keys")
	h.keys(esc)
	h.wait(`!document.querySelector('.ant-modal-wrap')?.checkVisibility()`)
	h.keys("4")
	h.there("sheet-1")
	h.keys("5")
	h.there("bed")
}

func got[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

package e2e

import (
	"image"
	"image/color"
	"image/jpeg"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// counted is a hand whose actions are counted: a click, a drag, a typed field or a key is
// one, an option chosen from a list two.
type counted struct {
	hand
	app *testserver.Server
	n   int
	// wide is the width of the face that is worked on, mm.
	wide float64
}

// count opens an empty table.
func count(t *testing.T) *counted {
	t.Helper()
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db")})
	require.NoError(t, err)
	t.Cleanup(app.Stop)
	c := &counted{hand: open(t, app.URL), app: app}
	c.must(c.Go("/"))
	c.says("card-count", "0 cards")
	return c
}

func (c *counted) click(id string)          { c.Helper(); c.n++; c.hand.click(id) }
func (c *counted) fill(id, text string)     { c.Helper(); c.n++; c.hand.fill(id, text) }
func (c *counted) put(id, text string)      { c.Helper(); c.n++; c.hand.put(id, text) }
func (c *counted) choose(id, option string) { c.Helper(); c.n += 2; c.hand.choose(id, option) }
func (c *counted) key(k string, o ...chromedp.KeyOption) {
	c.Helper()
	c.n++
	c.keys(k, o...)
}
func (c *counted) double(id string) { c.Helper(); c.n++; c.must(c.DoubleClick(browser.ID(id))) }

// bring brings in photos of these names.
func (c *counted) bring(names ...string) {
	c.Helper()
	dir := c.TempDir()
	var files []string
	for i, name := range names {
		img := image.NewRGBA(image.Rect(0, 0, 600, 400))
		for p := range img.Pix {
			img.Pix[p] = uint8(40*i + 90 + p%60)
		}
		img.SetRGBA(0, 0, color.RGBA{uint8(i), 0, 0, 255})
		path := filepath.Join(dir, name+".jpg")
		f, err := os.Create(path)
		require.NoError(c, err)
		require.NoError(c, jpeg.Encode(f, img, nil))
		require.NoError(c, f.Close())
		files = append(files, path)
	}
	c.n++
	c.must(c.Upload(browser.ID("file-input"), files...))
	for _, name := range names {
		c.wait(`[...document.querySelectorAll('.supply.photo')].some(e => e.title === "` + name + `")`)
	}
}

// supply is the test id of a photo in the tray.
func (c *counted) supply(name string) string {
	c.Helper()
	id, err := browser.Eval[string](c.Page, `[...document.querySelectorAll('.supply.photo')].find(e => e.title === "`+name+`").dataset.testid`)
	c.must(err)
	return id
}

// at is where a place on the face, in mm, is in the window.
func (c *counted) at(x, y float64) (px, py float64) {
	c.Helper()
	r, err := browser.Eval[[3]float64](c.Page, `(() => { const r = document.querySelector('[data-testid=face-ground]').getBoundingClientRect(); return [r.x, r.y, r.width] })()`)
	c.must(err)
	return r[0] + x*r[2]/c.wide, r[1] + y*r[2]/c.wide
}

func (c *counted) point(x, y float64) {
	c.Helper()
	c.n++
	px, py := c.at(x, y)
	c.must(c.Do(chromedp.MouseClickXY(px, py)))
}

func (c *counted) drag(x0, y0, x1, y1 float64) {
	c.Helper()
	c.n++
	a, b := c.at(x0, y0)
	d, e := c.at(x1, y1)
	c.must(c.Drag(a, b, d, e))
}

// dragGrip drags a handle of what is selected by mm.
func (c *counted) dragGrip(name string, dx, dy float64) {
	c.Helper()
	c.n++
	x, y, err := c.Middle(browser.ID("grip-" + name))
	c.must(err)
	a, b := c.at(0, 0)
	d, e := c.at(dx, dy)
	c.must(c.Drag(x, y, x+d-a, y+e-b))
}

// card waits for a revision of the card that is open and returns it.
func (c *counted) card(revision int64) *card.Card {
	c.Helper()
	path, err := browser.Eval[string](c.Page, `location.pathname`)
	c.must(err)
	h := table{c.hand, c.app, strings.Split(path, "/")[2]}
	h.front(revision)
	v, err := c.app.App.Open(c.Context(), h.id)
	c.must(err)
	return &v.Card
}

// atMost tells how many actions it took, sections that were opened included, and fails when
// they are more than n.
func (c *counted) atMost(n int) {
	c.Helper()
	opened, err := browser.Eval[int](c.Page, `window.opened ?? 0`)
	c.must(err)
	c.n += opened
	c.Logf("%d actions", c.n)
	assert.LessOrEqual(c, c.n, n, "actions")
}

func TestAPhotoCardTakesFewActions(t *testing.T) {
	c := count(t)
	c.click("new-card")
	c.click("to-panels")
	c.click("tab-photos")
	c.bring("Lake")
	c.double(c.supply("Lake"))
	c.click("add-mat")
	c.click("lay-mat")
	c.click("tab-lettering")
	c.double("supply-lettering-pacifico-400")
	c.there("words-editor")
	c.key("By the lake")
	c.key(kb.Escape)
	c.fill("top", "5")
	c.click("station-sheets")
	c.says("sheet-count", "sheets")
	c.atMost(20)
}

func TestOnePaperOnFourFacesTakesFewActions(t *testing.T) {
	c := count(t)
	c.click("new-card")
	c.click("to-panels")
	c.there("surface")
	c.there("tab-shapes")
	c.double("supply-paper-comb")
	c.says("selected-name", "Comb")
	c.click("arrange")
	c.click("fit-to-all")
	for _, f := range c.card(3).Faces {
		require.Len(t, f.Items, 1, f.ID)
	}
	c.wide = c.card(3).Base.Width
	// Three banners, each longer than the one before, each below the one before.
	c.click("tab-shapes")
	c.click("supply-shape-banner")
	for i := range 3 {
		c.point(c.wide/2, 35+30*float64(i))
		c.card(int64(4 + i))
	}
	c.key(kb.Escape)
	rev := int64(6)
	for i := range 3 {
		c.point(c.wide/2, 35+30*float64(i))
		c.says("selected-name", "Banner")
		c.dragGrip("e", 3+4*float64(i), 0)
		rev++
		c.card(rev)
		if i == 0 {
			continue // it is the lowest already
		}
		c.key("[")
		rev++
		c.card(rev)
	}
	items := c.card(rev).Face(card.Front).Items
	require.Len(t, items, 4)
	c.atMost(54)
}

func TestFourPhotosInAnOpeningTakeFewActions(t *testing.T) {
	c := count(t)
	c.click("new-card")
	c.click("to-panels")
	c.click("tab-photos")
	c.bring("A", "B", "C", "D", "E")
	c.click("tab-shapes")
	c.double("supply-shape-rectangle")
	c.says("selected-name", "Rectangle")
	c.put("divide-rows", "2")
	c.click("divide-apply")
	c.there("awaiting")
	for i, name := range []string{"A", "B", "C", "D"} {
		c.click(c.supply(name))
		c.card(int64(4 + i))
	}
	items := c.card(7).Face(card.Front).Items
	c.wide = c.card(7).Base.Width
	// The first goes where the last is.
	c.double("item-" + items[0].ID)
	c.says("selected-name", items[0].Name)
	c.drag(items[0].Place.X, items[0].Place.Y, items[3].Place.X, items[3].Place.Y)
	now := c.card(8).Face(card.Front).Items
	assert.Equal(t, items[3].Photo.Picture, now[0].Photo.Picture)
	assert.Equal(t, items[0].Photo.Picture, now[3].Photo.Picture)
	// The second is replaced.
	c.point(items[1].Place.X, items[1].Place.Y)
	c.says("selected-name", items[1].Name)
	c.click("photo-replace")
	c.click(c.supply("E"))
	now = c.card(9).Face(card.Front).Items
	assert.Equal(t, "E", now[1].Name)
	c.atMost(73)
}

func TestPanelsOnEveryStepTakeFewActions(t *testing.T) {
	c := count(t)
	c.click("new-card")
	c.there("net")
	c.click("kind-stepCard")
	c.says("about", "step card")
	c.fill("base-width", "4 1/2")
	c.fill("base-height", "4 1/2")
	c.click("to-panels")
	c.there("surface")
	c.there("tab-shapes")
	c.wide = 114.3
	n := c.card(4)
	require.Equal(t, card.StepCard, n.Base.Kind)
	rev := int64(4)
	panels := func(face string, at ...[2]float64) {
		c.click("face-" + face)
		for _, p := range at {
			c.point(p[0], p[1])
			c.there("gap-size")
			c.click("gap-piece")
			rev++
			c.card(rev)
			c.wait(`!document.querySelector('[data-testid=gap-size]')`)
		}
	}
	c.click("tool-gap")
	panels("insideSecond", [2]float64{20, 10}, [2]float64{50, 10}, [2]float64{90, 10})
	panels("insideFirst", [2]float64{20, 95}, [2]float64{50, 95}, [2]float64{90, 95})
	c.click("station-sheets")
	c.says("sheet-count", "sheets")
	c.click("station-machine")
	for _, run := range []string{"1", "2"} {
		c.click("run-" + run)
		c.click("cut")
		for range 2 {
			if run == "1" {
				c.there("tool-in")
				c.click("tool-in")
			}
		}
		c.says("run-state-"+run, "done")
	}
	c.atMost(81)
}

func TestALabelWithWordsMatAndFoamTakesFewActions(t *testing.T) {
	c := count(t)
	c.click("new-card")
	c.click("to-panels")
	c.click("tab-shapes")
	c.double("supply-shape-tag")
	c.click("tab-lettering")
	c.double("supply-lettering-lilita-one-400")
	c.there("words-editor")
	c.key("For you")
	c.key(kb.Escape)
	c.says("edit-words", "For you")
	c.wide = c.card(4).Base.Width
	c.click("layer-i1")
	c.says("selected-name", "Tag")
	c.click("add-mat")
	c.click("lay-mat")
	c.choose("lift", "Foam 1 mm")
	items := c.card(6).Face(card.Front).Items
	require.Len(t, items, 3)
	c.atMost(19)
}

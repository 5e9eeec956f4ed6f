// Command shots makes the pictures of the docs from the demo data.
package main

import (
	"context"
	"errors"
	"fmt"
	"math"
	"os"
	"path/filepath"

	"sectilis/app"
	"sectilis/core/design/arrange"
	"sectilis/core/design/freehand"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

func main() {
	if len(os.Args) != 2 {
		fmt.Fprintln(os.Stderr, "usage: shots FOLDER")
		os.Exit(2)
	}
	if err := run(os.Args[1]); err != nil {
		fmt.Fprintln(os.Stderr, "shots:", err)
		os.Exit(1)
	}
}

func run(out string) error {
	dir, err := os.MkdirTemp("", "shots")
	if err != nil {
		return err
	}
	defer func() { _ = os.RemoveAll(dir) }() // a temporary folder
	ctx := context.Background()
	h, err := testserver.Start(ctx, testserver.Options{Data: filepath.Join(dir, "demo.db"), Demo: true, Pace: 5})
	if err != nil {
		return err
	}
	defer h.Stop()
	b, stop, err := browser.Start(ctx, filepath.Join(dir, "profile"))
	if err != nil {
		return err
	}
	defer stop()
	p, done, err := browser.Open(b, h.URL)
	if err != nil {
		return err
	}
	defer done()
	cards, err := h.App.Cards(ctx, "harvest supper")
	if err != nil {
		return err
	}
	supper := "/cards/" + cards[0].ID
	steps, err := h.App.Cards(ctx, "seed swap")
	if err != nil {
		return err
	}
	step := "/cards/" + steps[0].ID
	small, err := h.App.Cards(ctx, "open beds")
	if err != nil {
		return err
	}
	id := browser.ID
	if err := draw(h, steps[0].ID); err != nil {
		return err
	}
	carved, err := h.App.Duplicate(ctx, cards[0].ID)
	if err != nil {
		return err
	}
	if err := carve(h, carved); err != nil {
		return err
	}
	if err := shoot(p, out, view{"lettering", "/cards/" + carved + "/panels", `!!document.querySelector('[data-testid=surface] image')`, []string{id("parts-i5"), id("layer-i6"), id("tab-lettering")}, ""}); err != nil {
		return err
	}
	bird, item, err := perch(h)
	if err != nil {
		return err
	}
	if err := shoot(p, out, view{"trace", "/cards/" + bird + "/panels", `!!document.querySelector('[data-testid=surface] image')`,
		[]string{id("layer-" + item), id("trace")}, `!!document.querySelector('[data-testid=trace-outline]')`}); err != nil {
		return err
	}
	pumpkin, err := h.App.Duplicate(ctx, cards[0].ID)
	if err != nil {
		return err
	}
	photo, err := cutOut(h, pumpkin)
	if err != nil {
		return err
	}
	if err := shoot(p, out, view{"cutout", "/cards/" + pumpkin + "/panels", `!!document.querySelector('[data-testid=surface] image')`,
		[]string{id("layer-" + photo), id("photo-edit"), id("way-cut")}, `document.querySelectorAll('[data-testid=edit-strip] li img').length === 4 && document.querySelector('[data-testid=edited]')?.naturalWidth > 1000`}); err != nil {
		return err
	}
	for _, id := range []string{carved, bird, pumpkin} {
		if err := h.App.Remove(ctx, id); err != nil {
			return err
		}
	}
	shed, err := h.App.Cards(ctx, "potting shed")
	if err != nil {
		return err
	}
	bees, err := h.App.Cards(ctx, "beekeeper")
	if err != nil {
		return err
	}
	named, err := h.App.Cards(ctx, "come to supper")
	if err != nil {
		return err
	}
	if err := forNames(h, named[0].ID); err != nil {
		return err
	}
	faulty, err := h.App.Cards(ctx, "before paper is spoiled")
	if err != nil {
		return err
	}
	all, err := h.App.Cards(ctx, "")
	if err != nil {
		return err
	}
	table := fmt.Sprintf(`document.querySelectorAll('[data-testid=card]').length === %d`, len(all))
	for _, v := range []view{
		{"table", "/", table, nil, ""},
		{"base", step + "/base", `!!document.querySelector('[data-testid=net]') && Number(document.querySelector('[data-testid=folded-card] canvas')?.dataset.frames ?? 0) > 1`, nil, ""},
		{"panels", supper + "/panels", `!!document.querySelector('[data-testid=surface] image')`, []string{id("layer-i5")}, ""},
		{"outlines", supper + "/panels", `!!document.querySelector('[data-testid=surface] image')`, []string{id("layer-i6"), id("add-mat")},
			`!!document.querySelector('[data-testid=trial]')`},
		{"edges", "/cards/" + bees[0].ID + "/panels", `!!document.querySelector('[data-testid=surface] [data-item]')`,
			[]string{id("face-insideSecond"), id("layer-i7"), id("tab-edges")}, `!!document.querySelector('[data-testid=edging-motif]')`},
		{"tiers", "/cards/" + shed[0].ID + "/panels", `!!document.querySelector('[data-testid=surface] image')`,
			[]string{id("layer-i1"), id("tab-edges")}, `!!document.querySelector("[data-testid=tier-4]")`},
		{"cover", step + "/panels", `!!document.querySelector('[data-testid=surface] [data-item]')`, []string{id("face-insideFirst"), id("cover-verb")},
			`!!document.querySelector('[data-testid=cover-dialog]')?.checkVisibility()`},
		{"sketch", "/", table, []string{id("from-sketch"), id("sketch"), id("sketch-photo")},
			`!!document.querySelector('[data-testid=sketch-start]')`},
		{"drawing", step + "/panels", `!!document.querySelector('[data-testid=surface] [data-item]')`, []string{id("tool-draw")},
			`!!document.querySelector('[data-testid=draw-panel]')`},
		{"check", "/cards/" + faulty[0].ID + "/check", `document.querySelectorAll('[data-testid=slip]').length >= 10`, []string{"[data-check=sticksOut]"},
			`!!document.querySelector('[data-testid=do-mend]') && document.querySelector('[data-testid=station-check]').textContent.includes('stops') &&
				['front', 'insideSecond'].every(f => performance.getEntriesByType('resource').some(e => e.name.includes('/faces/' + f + '/print.png') && e.responseEnd > 0))`},
		{"assembly", supper + "/assembly", `document.querySelectorAll('[data-testid=step]').length === 10`, []string{"[data-step=lay-i5]"},
			`document.querySelector('[data-testid=step-picture]')?.naturalWidth > 0 && [...document.querySelectorAll('img')].every(i => i.complete)`},
		{"names", "/cards/" + named[0].ID + "/names", `document.querySelectorAll('[data-testid=name-card]').length > 12 && !!document.querySelector('[data-testid=on-sheets]')`,
			[]string{"[data-card=n3]"}, `document.querySelector('[data-testid=station-check]').textContent.includes('caution')`},
		{"sheets", supper + "/sheets", `!!document.querySelector('[data-testid=sheet-6]')`, nil, ""},
		{"closer", "/cards/" + small[0].ID + "/sheets", `!!document.querySelector('[data-testid=sheet-4]')`, []string{`[data-testid=sheet-3] figcaption`, id("lay-closer")},
			`!!document.querySelector('[data-testid=closer-note]')`},
		{"", supper + "/sheets", `!!document.querySelector('[data-testid=sheet-6]')`, []string{id("print")},
			`(document.querySelector('[data-testid=print-note]')?.textContent ?? '').includes('pages printed')`},
		{"result", supper + "/machine", `!!document.querySelector('[data-testid=run-6]')`, []string{id("run-6"), id("cut")},
			`document.querySelector('[data-testid=result]')?.naturalWidth > 100`},
		{"machine", supper + "/machine", `!!document.querySelector('[data-testid=run-6]')`, []string{id("run-6"), id("cut")},
			`/cutting [4-7]\d %/.test(document.querySelector('[data-testid=station-machine]').textContent)`},
	} {
		if err := shoot(p, out, v); err != nil {
			return err
		}
	}
	return nil
}

// forNames lays a card for each name on sheets, and lets one name be too long for its label.
func forNames(h *testserver.Server, id string) error {
	v, err := h.App.Open(context.Background(), id)
	if err != nil {
		return err
	}
	_, err = h.App.Change(context.Background(), id, v.Revision, []card.Command{card.LayNames{All: true}, card.SetCell{Row: "n3", Column: "Name", Text: "Bartholomew Quillfeather-Marchbanks with all the little Quillfeathers"}})
	return err
}

// view is a picture to make: what is clicked once the page waits for nothing more, and what is
// waited for then. One without a name is a step on the way.
type view struct {
	name, path, wait string
	clicks           []string
	then             string
}

// ready is when the fonts and pictures of a view are there.
const ready = `document.fonts.status === 'loaded' && [...document.querySelectorAll('img')].every(i => i.complete)`

func shoot(p *browser.Page, out string, v view) error {
	if err := p.Go(v.path); err != nil {
		return err
	}
	if err := p.Wait(v.wait + " && " + ready); err != nil {
		return fmt.Errorf("%s: %w", v.name, err)
	}
	for _, sel := range v.clicks {
		if err := p.Click(sel); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
	}
	// Pictures in drawings have no event to wait for here: fetch them once more.
	settle := `(window.__seen ??= Promise.all([...document.querySelectorAll('image')].map(i => fetch(i.getAttribute('href')))).then(() => new Promise(r => setTimeout(r, 400))).then(() => (window.__settled = true)), window.__settled === true)`
	if v.then != "" {
		settle = v.then
	}
	if err := p.Wait(settle); err != nil {
		return fmt.Errorf("%s: %w", v.name, err)
	}
	if v.name == "" {
		return nil
	}
	raw, err := p.Shot()
	if err != nil {
		return err
	}
	if err := os.MkdirAll(out, 0o755); err != nil {
		return err
	}
	if err := os.WriteFile(filepath.Join(out, v.name+".png"), raw, 0o644); err != nil {
		return err
	}
	return nil
}

// cutOut sets the photo of a card right, makes it warmer, and cuts a pumpkin out of it; it returns
// the photo.
func cutOut(h *testserver.Server, id string) (string, error) {
	ctx := context.Background()
	v, err := h.App.Open(ctx, id)
	if err != nil {
		return "", err
	}
	stroke := func(radius float64, at ...geom.Point) card.Brushed { return card.Brushed{Points: at, Radius: radius} }
	for _, f := range v.Card.Faces {
		for _, it := range f.Items {
			if it.Photo == nil {
				continue
			}
			edits := []card.Edit{
				{Right: &card.Right{Black: .05, White: .96}}, {Light: &card.Light{Warmth: 12}},
				{CutOut: &card.CutOut{Subject: &card.Subject{
					Stays: []card.Brushed{stroke(.012, geom.Pt(.32, .89), geom.Pt(.36, .91), geom.Pt(.41, .89)), stroke(.006, geom.Pt(.368, .805), geom.Pt(.362, .83))},
					Goes:  []card.Brushed{stroke(.014, geom.Pt(.1, .2), geom.Pt(.5, .3), geom.Pt(.9, .22)), stroke(.014, geom.Pt(.28, .78), geom.Pt(.285, .95)), stroke(.01, geom.Pt(.3, .985), geom.Pt(.45, .985)), stroke(.014, geom.Pt(.46, .78), geom.Pt(.46, .95))},
				}}},
			}
			_, err = h.App.Change(ctx, id, v.Revision, []card.Command{card.EditPhoto{IDs: []string{it.ID}, Edits: edits}})
			return it.ID, err
		}
	}
	return "", errors.New("the card has no photo")
}

// perch makes a card with the robin of the tray, and returns the ids of both.
func perch(h *testserver.Server) (id, item string, err error) {
	ctx := context.Background()
	pics, err := h.App.Pictures(ctx)
	if err != nil {
		return "", "", err
	}
	c, err := fold.New("A robin for Ada", card.Base{Kind: card.SideFold, Width: 127, Height: 127, Stock: "cream-300"})
	if err != nil {
		return "", "", err
	}
	for _, p := range pics {
		if p.Name != "Robin" {
			continue
		}
		t, err := h.App.Trace(ctx, p.ID, app.TraceAsk{By: app.ByTransparency, Smooth: 1, Speck: 100})
		if err != nil {
			return "", "", err
		}
		if c, err = card.Apply(c, arrange.PlaceSupply{Face: card.Front, Kind: arrange.PhotoSupply, ID: p.ID, Name: p.Name,
			PixelWidth: p.Width, PixelHeight: p.Height, Edge: card.NewDrawn(t.Outlines[0].Path)}); err != nil {
			return "", "", err
		}
	}
	id, err = h.App.Create(ctx, c)
	return id, "i1", err
}

// carve carves the words of a label out of it, on an arc and held by bridges.
func carve(h *testserver.Server, id string) error {
	ctx := context.Background()
	v, err := h.App.Open(ctx, id)
	if err != nil {
		return err
	}
	_, doc := v.Card.Find("i6")
	words := *doc.Words
	words.Font, words.Size, words.Spacing, words.Text = "alfa-slab-one-400", 8.5, .1, "Harvest Supper"
	words.Path = &card.TextPath{Bend: 30}
	_, label := v.Card.Find("i5")
	made := label.Made
	made.Islands = card.FirstBridges()
	made.Islands.Width = 1
	_, err = h.App.Change(ctx, id, v.Revision, []card.Command{
		card.NameItem{ID: "i6", Name: "Supper"}, card.SetWords{ID: "i6", Words: words},
		card.SetMade{IDs: []string{"i6"}, Made: card.Made{As: card.Carved}}, card.SetMade{IDs: []string{"i5"}, Made: made}})
	return err
}

// draw draws a few strokes by hand on the front of a card: seedlings under its
// title.
func draw(h *testserver.Server, id string) error {
	ctx := context.Background()
	v, err := h.App.Open(ctx, id)
	if err != nil {
		return err
	}
	var strokes []card.Command
	stroke := func(tip freehand.Tip, weight float64, colour string, x0, y0, x1, y1, bend float64) {
		k := freehand.DrawStroke{Face: card.Front, Tip: tip, Weight: weight, Colour: colour, Opacity: 1}
		for i := range 21 {
			t := float64(i) / 20
			k.Touches = append(k.Touches, freehand.Touch{X: x0 + (x1-x0)*t + bend*math.Sin(math.Pi*t), Y: y0 + (y1-y0)*t, Pressure: .3 + .5*math.Sin(math.Pi*t)})
		}
		strokes = append(strokes, k)
	}
	for i, x := range []float64{20, 95} {
		side := 1 - 2*float64(i)
		stroke(freehand.Pen, 1.6, "#587a4a", x, 84, x+2*side, 64, 3*side)
		stroke(freehand.Marker, 3, "#587a4a", x+2*side, 66, x+12*side, 60, 0)
		stroke(freehand.Marker, 3, "#587a4a", x+2*side, 66, x-7*side, 58, 0)
	}
	stroke(freehand.Chisel, 2.6, "#a8432a", 38, 108, 76, 108, 0)
	_, err = h.App.Change(ctx, id, v.Revision, strokes)
	return err
}

package e2e

import (
	"io"
	"net"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// inked is a card of a size with ink over its edges and a small printed piece.
func inked(t *testing.T, w, h float64) card.Card {
	t.Helper()
	c, err := card.New("Markers", card.Base{Kind: card.SideFold, Width: w, Height: h, Stock: "cream-300"})
	require.NoError(t, err)
	ground := card.Item{Name: "Ground", Kind: card.Shape, Place: card.Place{X: w / 2, Y: h / 2}, Made: card.Made{As: card.Printed},
		Fill: card.Fill{Colour: "#a8432a"}, Form: &card.Form{Outline: card.Rectangle, Width: w + 12, Height: h + 12, Corner: card.Square}}
	label := card.Item{Name: "Label", Kind: card.Shape, Place: card.Place{X: 40, Y: 40}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Fill: card.Fill{Colour: "#e2a42b"}, Form: &card.Form{Outline: card.Rectangle, Width: 20, Height: 15, Corner: card.Square}}
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{ground, label}}, card.PlaceItems{Face: card.Back, Items: []card.Item{ground}})
	require.NoError(t, err)
	return c
}

// What has no room is told in the header, asked about before anything goes out, and mended
// by what is offered; another card's sheets stay as they were.
func TestWhatIsMissingIsAskedAboutBeforeItGoesOut(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db")})
	require.NoError(t, err)
	defer app.Stop()
	id, err := app.App.Create(t.Context(), inked(t, 128, 190))
	require.NoError(t, err)
	other, err := app.App.Create(t.Context(), inked(t, 100, 120))
	require.NoError(t, err)
	h := open(t, app.URL)
	h.must(h.Go("/cards/" + id + "/sheets"))
	h.says("finding-noRoom", "no room on Letter beside the registration marks")
	h.says("station-sheets", "1 not laid")
	h.click("print")
	h.there("out-not-yet")
	h.click("out-not-yet")
	h.wait(`!document.querySelector('[data-testid=print-note]')`)
	h.click("print")
	h.click("out-without")
	h.says("print-note", "1 page")
	h.says("offer", "Lay all on A4")
	h.click("offer")
	h.wait(`!document.querySelector('[data-testid=finding-noRoom]')`)
	h.says("station-sheets", "2 sheets")
	setup, err := app.App.SheetsOf(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, []any{"a4", card.MarksForMachine}, []any{setup.Size, setup.Marks})
	setup, err = app.App.SheetsOf(t.Context(), other)
	require.NoError(t, err)
	assert.Equal(t, card.UsualSheets(), setup)
}

// A run goes on while a person is elsewhere and after the page is loaded anew: it is shown
// with its state, and can be held and stopped from there.
func TestARunIsHeldFromWhereverAPersonIs(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Pace: 3})
	require.NoError(t, err)
	defer app.Stop()
	c := inked(t, 100, 120)
	id, err := app.App.Create(t.Context(), c)
	require.NoError(t, err)
	h := open(t, app.URL)
	h.must(h.Go("/cards/" + id + "/sheets"))
	h.click("print")
	h.says("print-note", "printed")
	h.click("station-machine")
	h.click("run-1")
	h.click("cut")
	h.says("headline", "Put the scoring tip")
	h.click("tool-in")
	h.says("headline", "Put the blade")
	h.must(h.Go("/cards/" + id + "/panels")) // the page is loaded anew
	h.says("run-strip", "Sheet 1 waits for a tool")
	h.click("station-machine")
	h.click("tool-in")
	h.says("headline", "Cutting sheet 1")
	h.must(h.Go("/cards/" + id + "/base"))
	h.says("run-strip", "Sheet 1 is being cut")
	h.click("strip-pause")
	h.says("run-strip", "is paused")
	h.click("strip-on")
	h.says("run-strip", "is being cut")
	h.click("strip-stop")
	h.wait(`!document.querySelector('[data-testid=run-strip]')`)
	h.click("station-machine")
	h.says("run-state-1", "stopped")
}

// Of a cutter that tells nothing it is not known how far it came: the first path that is
// not cut is pointed at.
func TestAfterASilentCutterAPathIsPointedAt(t *testing.T) {
	place, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db")})
	require.NoError(t, err)
	defer place.Stop()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = l.Close() }()
	go func() {
		for {
			conn, err := l.Accept()
			if err != nil {
				return
			}
			go func() { _, _ = io.Copy(io.Discard, conn) }() // and not a word
		}
	}()
	require.NoError(t, place.App.UseCutter(t.Context(), app.OtherCutter{Address: l.Addr().String(), Width: 304.8, Height: 304.8}))
	id, err := place.App.Create(t.Context(), inked(t, 100, 120))
	require.NoError(t, err)
	h := open(t, place.URL)
	h.must(h.Go("/cards/" + id + "/machine"))
	h.click("run-1")
	h.click("cut")
	h.says("headline", "Put the scoring tip")
	h.click("tool-in")
	h.says("headline", "Put the blade")
	h.click("stop")
	h.says("headline", "point at the first path that is not cut")
	h.wait(`document.querySelector('[data-testid=go-on]').disabled`)
	// By keyboard, as by clicking on the line.
	_, err = browser.Eval[bool](h.Page, `(document.querySelector('[data-testid="path-1-0"]').focus(), true)`)
	h.must(err)
	h.keys("\r")
	h.says("headline", "It goes on with the path that you pointed at")
	h.wait(`!document.querySelector('[data-testid=go-on]').disabled`)
}

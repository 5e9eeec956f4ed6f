package app_test

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/core/design/drawnbase"
	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
)

// lay reads a drawing and lays it on the front of an empty card, its fills and lines printed.
func (f *fixture) lay(name, text string) (app.Incoming, []card.Item) {
	f.t.Helper()
	in, err := f.ReadDrawing(f.t.Context(), name, []byte(text))
	require.NoError(f.t, err)
	id, err := f.Create(f.t.Context(), coretest.Empty(f.t))
	require.NoError(f.t, err)
	uses := map[string]pathops.Use{}
	for _, k := range in.Lines {
		uses[k.Key] = pathops.AsPrinted
	}
	l := app.Laying{Drawing: in.ID, Face: card.Front, Lines: uses, Filled: pathops.AsPrinted}
	l.Middle.X, l.Middle.Y = 60, 80
	v, err := f.LayDrawing(f.t.Context(), id, 1, l)
	require.NoError(f.t, err)
	return in, v.Card.Face(card.Front).Items
}

// Words of a drawing are those that the same face gives as lettering.
func TestWordsOfADrawingAreSetInTheFacesAtHand(t *testing.T) {
	f := start(t)
	in, items := f.lay("Sign.svg", `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="40mm" viewBox="0 0 80 40">
		<text x="5" y="20" font-family="'Pacifico', cursive" font-size="9" fill="#a8432a">Plum Lane</text>
		<text x="5" y="35" font-family="Elsewhere" font-size="4">small print</text></svg>`)
	require.Len(t, items, 1)
	assert.Equal(t, "Plum Lane", items[0].Name)
	assert.Equal(t, "#a8432a", items[0].Fill.Colour)
	want, _, _, err := lettering.Line("pacifico-400", "Plum Lane", 9, 0)
	require.NoError(t, err)
	assert.InDelta(t, want.Area(), items[0].Form.Path.Path().Area(), 1e-3)
	assert.InDelta(t, want.Bounds().W, items[0].Form.Width, 1e-5)
	assert.Contains(t, strings.Join(in.Notes, "\n"), "“small print” was left out")
}

func TestADrawingOfTooManyPiecesSaysSo(t *testing.T) {
	var b strings.Builder
	const n = 60_000
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		fmt.Fprintf(&b, "%c%.5f %.5f", "ML"[min(i, 1)], 40+30*c, 40+30*s+.001*float64(i%2))
	}
	in, items := start(t).lay("Ring.svg", `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80"><path d="`+b.String()+`Z"/></svg>`)
	assert.Contains(t, strings.Join(in.Notes, "\n"), "60001 pieces")
	require.Len(t, items, 1)
	assert.Less(t, items[0].Form.Path.Path().Len(), card.MaxSegments)
	assert.InEpsilon(t, math.Pi*900, items[0].Form.Path.Path().Area(), 1e-3)
}

// The preview of a drawing is an SVG that is read as the drawing was.
func TestThePreviewShowsWhatComesIn(t *testing.T) {
	f := start(t)
	in, err := f.ReadDrawing(t.Context(), "Sky.svg", []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30">
		<linearGradient id="g"><stop stop-color="#35658c"/><stop offset="1" stop-color="#fff" stop-opacity=".2"/></linearGradient>
		<rect width="40" height="30" fill="url(#g)"/><path d="M5 5h30" stroke="#a8432a" stroke-width="2" stroke-dasharray="3 2" stroke-linecap="round"/></svg>`))
	require.NoError(t, err)
	assert.Equal(t, []any{1, 40., 30.}, []any{in.Filled, in.Width, in.Height})
	var b bytes.Buffer
	require.NoError(t, f.DrawingPreview(t.Context(), &b, in.ID))
	again, err := f.ReadDrawing(t.Context(), "Preview.svg", b.Bytes())
	require.NoError(t, err)
	assert.Equal(t, in.Filled, again.Filled)
	assert.Len(t, again.Lines, 1)
	assert.Contains(t, b.String(), `stop-opacity="0.2"`)
	assert.Contains(t, b.String(), `stroke-dasharray="3 2"`)
	require.ErrorIs(t, f.DrawingPreview(t.Context(), &b, "none"), app.ErrNotFound)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = f.ReadDrawing(ctx, "Late.svg", []byte(`<svg xmlns="http://www.w3.org/2000/svg">`+strings.Repeat(`<rect width="1" height="1"/>`, 20_000)+`</svg>`))
	require.ErrorIs(t, err, context.Canceled)
	for _, bad := range []string{"", "<svg", `<svg xmlns="http://www.w3.org/2000/svg"/>`, "hello"} {
		_, err = f.ReadDrawing(t.Context(), "Bad.svg", []byte(bad))
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal, bad)
	}
}

// The nets that a base is read from stand in files: an SVG with layers that say what lines are for, and a
// DXF that names no unit.
func TestABaseIsReadFromAFile(t *testing.T) {
	f := start(t)
	ask := func(in app.Incoming) app.BaseAsk {
		lines := map[string]pathops.Use{}
		for _, k := range in.Lines {
			lines[k.Key] = k.Likely
		}
		return app.BaseAsk{Ask: drawnbase.Ask{Lines: lines, Stock: "white-300", Name: "Not this"}}
	}
	in, err := f.ReadDrawing(t.Context(), "Gate.svg", []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="210mm" height="160mm" viewBox="0 0 210 160">
<g id="cut" fill="none" stroke="#000"><rect x="5" y="5" width="200" height="150"/></g><g id="valley" stroke="#00f"><path d="M55 5V155M155 5V155"/></g></svg>`))
	require.NoError(t, err)
	a := ask(in)
	a.InsideUp = true
	found, err := f.ReadBase(t.Context(), in.ID, a)
	require.NoError(t, err)
	require.NotNil(t, found.Base, "%v", found.Questions)
	assert.Equal(t, "Gate", found.Base.Drawn.Name, "it is called after its file")
	assert.InDelta(t, 100, found.Base.Width, 1e-6)
	assert.Len(t, found.Leaves, 3)
	assert.True(t, found.Folds, found.Why)
	id, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	v, err := f.Change(t.Context(), id, 1, []card.Command{arrange.SetBase{Base: *found.Base}})
	require.NoError(t, err)
	assert.Len(t, v.Scene.Net.Faces, 6)
	again, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, *found.Base, again.Card.Base, "kept as it was made")

	line := func(layer, x0, y0, x1, y1 string) string {
		return "0\nLINE\n8\n" + layer + "\n10\n" + x0 + "\n20\n" + y0 + "\n11\n" + x1 + "\n21\n" + y1 + "\n"
	}
	dxf := "0\nSECTION\n2\nENTITIES\n" + line("cut", "0", "0", "8", "0") + line("cut", "8", "0", "8", "5") + line("cut", "8", "5", "0", "5") + line("cut", "0", "5", "0", "0") +
		line("mountain", "4", "0", "4", "5") + "0\nENDSEC\n0\nEOF\n"
	in, err = f.ReadDrawing(t.Context(), "Card.dxf", []byte(dxf))
	require.NoError(t, err)
	require.Contains(t, in.Units, "in")
	a = ask(in)
	_, err = f.ReadBase(t.Context(), in.ID, a)
	require.ErrorContains(t, err, "between 1 in", "8 mm are no card")
	a.Unit = "in"
	found, err = f.ReadBase(t.Context(), in.ID, a)
	require.NoError(t, err)
	require.NotNil(t, found.Base, "%v", found.Questions)
	assert.InDelta(t, 4*25.4, found.Base.Width, 1e-6)
	assert.InDelta(t, 5*25.4, found.Base.Height, 1e-6)
	_, err = f.ReadBase(t.Context(), "none", a)
	require.ErrorContains(t, err, "not at hand any more")
}

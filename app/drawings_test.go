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

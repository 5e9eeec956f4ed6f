package cut_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

// Edges that pieces share are cut once, and still every edge of every piece is cut.
func TestSharedEdgesAreCutOnce(t *testing.T) {
	piece := func(name string, outline geom.Path) sheet.Piece {
		return sheet.Piece{ID: name, Name: name, Lines: []sheet.Line{{Role: fold.Cut, Path: outline}}}
	}
	box := func(x, y, w, h float64) geom.Path { return geom.RectPath(geom.Rect{X: x, Y: y, W: w, H: h}) }
	stock, _ := card.StockByID("moss-216")
	sh := sheet.Sheet{Stock: stock, Size: sheet.Sizes()[0], Pieces: []sheet.Piece{
		piece("a", box(10, 10, 40, 30)), piece("b", box(50, 10, 30, 30)), piece("c", box(10, 40, 55, 20)), piece("d", box(120, 120, 20, 20)),
	}}
	with := cut.SettingsOf(stock)
	with.Offset, with.Over, with.Rounds = 0, 0, 1
	length := func(sh sheet.Sheet) float64 {
		sum := 0.0
		for _, p := range cut.Plan(sh, with) {
			require.Equal(t, "Outlines", p.Name)
			sum += p.Length
		}
		return sum
	}
	twice := length(sh)
	sh.Shared = true
	assert.InDelta(t, twice-30-40-15, length(sh), 1e-6, "30 between a and b, 40 + 15 under them")
	for _, p := range sh.Pieces {
		outline := p.Lines[0].Path.Flatten(.01)[0]
		outline.Points = append(outline.Points, outline.Points[0])
		outline.Closed = false
		for at := 0.0; at < outline.Length(); at += .37 {
			q, least := outline.At(at), 1e9
			for _, pass := range cut.Plan(sh, with) {
				for _, l := range pass.Lines {
					if n, ok := l.Nearest(q); ok {
						least = min(least, n.Distance)
					}
				}
			}
			require.Less(t, least, .03, "%s at %v", p.Name, q)
		}
	}
}

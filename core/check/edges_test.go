package check_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// only are the findings of one check of the scene or the folding on a side fold with some items on Front.
func only(t *testing.T, id check.ID, items ...card.Item) (card.Card, []check.Finding) {
	t.Helper()
	c, err := fold.New("Edges", card.Base{Kind: card.SideFold, Width: 100, Height: 150, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: items})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	var out []check.Finding
	for _, what := range []check.Reads{check.TheScene, check.TheFolding} {
		for _, f := range check.Run(what, check.Input{Card: c, Scene: &s}) {
			if f.Check == id {
				out = append(out, f)
			}
		}
	}
	return c, out
}

func ink(x, y, w, h float64) card.Item {
	return card.Item{Name: "Ink", Kind: card.Shape, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"},
		Form: &card.Form{Outline: card.Rectangle, Width: w, Height: h, Corner: card.Square}}
}

// Ink that meets an outer edge has to run past it; at the fold it ends by itself, and what stays well
// within, or ends in a round, meets no edge.
func TestInkThatMeetsAnEdgeNeedsBleed(t *testing.T) {
	round := ink(70, 75, 60, 60)
	round.Form.Outline, round.Form.Corner = card.Ellipse, ""
	for name, c := range map[string]struct {
		it   card.Item
		side string
	}{
		"to the right edge":      {ink(80, 75, 40, 30), "right"},
		"just short of it":       {ink(79.6, 75, 40, 30), "right"},
		"a little past it":       {ink(80.3, 75, 40, 30), "right"},
		"to the top":             {ink(50, 20, 30, 40), "top"},
		"to the bottom":          {ink(50, 130, 30, 40), "bottom"},
		"past the right edge":    {ink(82, 75, 40, 30), ""},
		"to the fold":            {ink(20, 75, 40, 30), ""},
		"well within":            {ink(50, 75, 40, 30), ""},
		"2 mm short of the edge": {ink(78, 75, 40, 30), ""},
		"round":                  {round, ""},
		"a hair at the edge":     {ink(80, 75, 40, 6), ""},
	} {
		_, found := only(t, "noBleed", c.it)
		if c.side == "" {
			assert.Empty(t, found, name)
			continue
		}
		require.Len(t, found, 1, name)
		assert.Contains(t, found[0].Why, "the "+c.side+" edge", name)
		require.NotNil(t, found[0].At)
		edge := map[string]geom.Point{"right": geom.Pt(100, 75), "top": geom.Pt(50, 0), "bottom": geom.Pt(50, 150)}[c.side]
		assert.True(t, found[0].At.Grow(.5).Has(edge), "%s: %v", name, *found[0].At)
	}
	piece := ink(50, 75, 30, 30)
	piece.Made = card.Made{As: card.Cut, Stock: "text-120"}
	c, found := only(t, "noBleed", piece)
	require.Len(t, found, 1)
	c = mended(t, c, found[0])
	assert.InDelta(t, card.UsualBleed, c.Face(card.Front).Items[0].Made.Bleed, 1e-9)
	piece.Fill = card.Fill{}
	_, found = only(t, "noBleed", piece)
	assert.Empty(t, found, "bare stock needs no bleed")
}

// Words near an edge are moved within the safe line, as far as that takes and no farther; never onto a
// piece that would take them over.
func TestWordsNearAnEdgeAreMovedIn(t *testing.T) {
	words := func(x, y float64) card.Item {
		return card.Item{Name: "Words", Kind: card.Lettering, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#41505f"},
			Words: &card.Words{Text: "Plum", Font: "courier-prime-400", Size: 5, Leading: 1, Align: card.AlignCentre}}
	}
	for _, at := range []geom.Point{{X: 50, Y: 4}, {X: 50, Y: 146}, {X: 90.5, Y: 75}, {X: 9, Y: 75}, {X: 91, Y: 146}} {
		c, found := only(t, "nearEdge", words(at.X, at.Y))
		require.Len(t, found, 1, "%v", at)
		s, err := scene.Of(mended(t, c, found[0]))
		require.NoError(t, err)
		b, safe := s.Faces[0].Items[0].Bounds, s.Faces[0].Safe
		assert.True(t, safe.Contains(b, 1e-4), "%v: %v in %v", at, b, safe)
		touches := b.X-safe.X < 1e-4 || safe.Right()-b.Right() < 1e-4 || b.Y-safe.Y < 1e-4 || safe.Bottom()-b.Bottom() < 1e-4
		assert.True(t, touches, "%v: as little as will do", at)
	}
	_, found := only(t, "nearEdge", words(50, 4), square("Bar", 50, 12, 10))
	require.Len(t, found, 1)
	assert.Empty(t, found[0].Mends, "beneath the edge lies a piece")
	_, found = only(t, "nearEdge", words(50, 75))
	assert.Empty(t, found)
}

// Cut lines are told where they double one another, run along an edge, or run too near to it; lines that
// only meet or cross are not.
func TestLinesAreToldWhereTheyDouble(t *testing.T) {
	line := func(name, d string, role card.Role) card.Item {
		path, err := geom.ParsePath(d)
		require.NoError(t, err)
		b := path.Bounds()
		return card.Item{Name: name, Kind: card.Drawing, Place: card.Place{X: b.Centre().X, Y: b.Centre().Y}, Made: card.Made{As: card.Lined},
			Lines: &card.Lines{Role: role, Width: b.W, Height: b.H, Path: card.NewDrawn(path.Transform(geom.Shift(-b.Centre().X, -b.Centre().Y)))}}
	}
	long := line("Long", "M50 20V120", card.RoleCut)
	for name, c := range map[string]struct {
		more  card.Item
		finds check.ID
		says  string
	}{
		"the same line":        {line("Again", "M50 20V120", card.RoleCut), "doubledLines", "runs along “Long”"},
		"a part of it":         {line("Part", "M50 60V80", card.RoleValley), "doubledLines", "runs along “Long”"},
		"beside it by a hair":  {line("Hair", "M50.1 60V80", card.RoleCut), "doubledLines", "runs along “Long”"},
		"along the edge":       {line("Edge", "M100 60V80", card.RoleCut), "doubledLines", "along the edge"},
		"half a mm beside it":  {line("Near", "M50.5 60V80", card.RoleCut), "nearCuts", "closer to “Long”"},
		"half a mm in":         {line("Rim", "M99.5 60V80", card.RoleCut), "nearCuts", "closer to the edge"},
		"across it":            {line("Cross", "M30 70H70", card.RoleCut), "", ""},
		"from its end":         {line("Corner", "M50 120H80", card.RoleCut), "", ""},
		"on in the same way":   {line("On", "M50 120V140", card.RoleCut), "", ""},
		"far beside it":        {line("Far", "M60 60V80", card.RoleCut), "", ""},
		"a guide on it":        {line("Guide", "M50 60V80", card.RoleGuide), "", ""},
		"a pen line beside it": {line("Pen", "M50.1 60V80", card.RolePen), "", ""},
	} {
		for _, id := range []check.ID{"doubledLines", "nearCuts"} {
			_, found := only(t, id, long, c.more)
			if c.finds != id {
				assert.Empty(t, found, "%s, %s", name, id)
				continue
			}
			require.Len(t, found, 1, "%s, %s", name, id)
			assert.Equal(t, "i2", found[0].Item, name)
			assert.Contains(t, found[0].Why, c.says, name)
			require.NotNil(t, found[0].At, name)
			assert.True(t, found[0].At.Grow(1).Overlaps(geom.Rect{X: 49, Y: 20, W: 52, H: 62}), "%s: %v", name, *found[0].At)
		}
	}
}

// The line that is due is placed within the safe line of the back, set whole, and is found there however it
// is broken.
func TestCreditsArePlacedWell(t *testing.T) {
	photo := card.Item{Name: "Plum", Kind: card.Photo, Place: card.Place{X: 50, Y: 75}, Made: card.Made{As: card.Printed},
		Photo: &card.Print{Picture: strings.Repeat("d", 64), PixelWidth: 900, PixelHeight: 900, Width: 60, Height: 60}}
	for _, lines := range [][]string{{"By Ida"}, {"Photo by Ida Quince of Plum Lane", "Paper by Orla Fenn"}, {strings.Repeat("A long line of credit ", 5)}} {
		c, _ := only(t, "credits", photo)
		whole := &check.Whole{}
		for _, l := range lines {
			whole.Supplies = append(whole.Supplies, check.Supply{Kind: "photo", ID: strings.Repeat("d", 64), Name: "Plum", Line: l})
		}
		run := func(c card.Card) (out []check.Finding) {
			s, err := scene.Of(c)
			require.NoError(t, err)
			for _, what := range []check.Reads{check.TheScene, check.TheWhole} {
				out = append(out, check.Run(what, check.Input{Card: c, Scene: &s, Whole: whole})...)
			}
			return out
		}
		var due []check.Finding
		for _, f := range run(c) {
			if f.Check == "credits" {
				due = append(due, f)
			}
		}
		require.Len(t, due, 1, "%v", lines)
		c = mended(t, c, due[0])
		for _, f := range run(c) {
			assert.NotContains(t, []check.ID{"credits", "overfull", "runsOff", "nearEdge", "smallWords"}, f.Check, "%v: %s", lines, f.Why)
		}
	}
}

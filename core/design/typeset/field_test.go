package typeset_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/typeset"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// labelled is a card for some names, with the words i1, which say the name, on a label, i2, or on the base.
func labelled(t *testing.T, onLabel bool, outline string, names ...string) card.Card {
	t.Helper()
	c, err := fold.New("Labels", card.Base{Kind: card.SideFold, Width: 127, Height: 178, Stock: "cream-300"})
	require.NoError(t, err)
	words := card.Item{Name: "Name", Kind: card.Lettering, Place: card.Place{X: 60, Y: 81}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Words: &card.Words{Text: "Somebody", Font: "pacifico-400", Size: 9, Leading: 1.2, Align: card.AlignCentre}}
	label := card.Item{Name: "Label", Kind: card.Shape, Place: card.Place{X: 60, Y: 80}, Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: card.Outline(outline), Width: 90, Height: 36}}
	if outline == "rectangle" {
		label.Form.Corner = card.Square
	}
	steps := []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{words}}}
	if onLabel {
		steps = append(steps, card.PlaceItems{Face: card.Front, Items: []card.Item{label}}, card.PutOn{IDs: []string{"i1"}, On: "i2"})
	}
	list := card.SetNames{Columns: []string{"Name"}}
	for _, n := range names {
		list.Rows = append(list.Rows, []string{n})
	}
	c, err = card.Apply(c, append(steps, list, card.MakeField{ID: "i1", From: 0, To: 8, Column: "Name"}, typeset.FitNames{ID: "i1"})...)
	require.NoError(t, err)
	return c
}

// set is how the words of the card for a row lie on their face.
func set(t *testing.T, c card.Card, row string) (words scene.Item, label geom.Path) {
	t.Helper()
	made, ok := c.ForName(row)
	require.True(t, ok)
	s, err := scene.Of(made)
	require.NoError(t, err)
	f := s.Face(card.Front)
	if on := f.Item("i2"); on != nil {
		label = on.Outline.Transform(on.At)
	}
	return *f.Item("i1"), label
}

// Every name stays within its label, as large as has room, in two lines at most and no smaller than the
// least; a name that cannot is told, and another size or a line more for it alone makes it fit.
func TestTheLettersOfEachNameFitTheirLabel(t *testing.T) {
	for _, outline := range []string{"scallop", "ellipse", "rectangle", "tag"} {
		c := labelled(t, true, outline, "Jyngy", "Odalys Fernsby", "Wilhelmina Araminta Tock", "Maximilianus-Bartholomaeus-Quillfeather of the Seventh Allotment beside the Lane")
		_, it := c.Find("i1")
		box := *it.Words.Box
		sizes := map[string]float64{}
		for _, row := range []string{"n1", "n2", "n3"} {
			w, label := set(t, c, row)
			assert.Zero(t, w.Words.Over, "%s %s", outline, row)
			assert.Less(t, geom.Difference(geom.NonZero, geom.RectPath(w.Words.Block).Transform(w.At), label).Area(), 1e-3, "%s %s", outline, row)
			assert.Less(t, geom.Difference(geom.NonZero, w.Outline.Transform(w.At), label).Area(), 1e-3, "the ink of %s on its %s", row, outline)
			assert.GreaterOrEqual(t, w.Words.Size, box.Least-1e-9)
			sizes[row] = w.Words.Size
		}
		assert.Greater(t, sizes["n1"], sizes["n3"], outline)
		long, _ := set(t, c, "n4")
		assert.InDelta(t, box.Least, long.Words.Size, 1e-9)
		require.Positive(t, long.Words.Over, outline)
		c, err := card.Apply(c, card.SetRow{Row: "n4", Smaller: new(true), Lines: new(3)})
		require.NoError(t, err)
		long, _ = set(t, c, "n4")
		assert.Zero(t, long.Words.Over, outline)
		again, _ := set(t, c, "n1")
		assert.Equal(t, sizes["n1"], again.Words.Size, "the others stay")
	}
}

// Words on the base have as much room to the left as to the right, short of the safe line; where there is
// something else on the piece their height stays.
func TestTheRoomOfNamesLeavesWhatIsBesideThem(t *testing.T) {
	c := labelled(t, false, "", "Noor", "Odalys Fernsby of the Seventh Allotment")
	safe := scene.SafeArea(fold.Of(c.Base).Face(card.Front))
	for _, row := range []string{"n1", "n2"} {
		w, _ := set(t, c, row)
		assert.Zero(t, w.Words.Over)
		assert.LessOrEqual(t, w.Words.Size, 9+1e-9, "no larger than the words were")
		assert.True(t, safe.Contains(w.Bounds, 0), row)
		assert.InDelta(t, 2*14*25.4/72*1.2, w.Words.Block.H, 1e-5, "as high as two lines of the least size")
		assert.InDelta(t, 60, w.At.Apply(w.Words.Block.Centre()).X, 1e-6)
	}
	c = labelled(t, true, "rectangle", "Noor")
	dot := card.Item{Name: "Dot", Kind: card.Shape, Place: card.Place{X: 60, Y: 70}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"}, Form: &card.Form{Outline: card.Ellipse, Width: 5, Height: 5}}
	c, err := card.Apply(c, typeset.LayWords{ID: "i1", Lie: typeset.Straight}, card.PlaceItems{Face: card.Front, Items: []card.Item{dot}})
	require.NoError(t, err)
	before, _ := set(t, c, "n1")
	c, err = card.Apply(c, typeset.FitNames{ID: "i1"})
	require.NoError(t, err)
	_, it := c.Find("i1")
	assert.GreaterOrEqual(t, it.Words.Box.Height, before.Words.Block.H-1e-5)
	assert.Less(t, it.Words.Box.Height, max(before.Words.Block.H, before.Bounds.H)*1.4, "what is above and below is left free")
	assert.Greater(t, it.Words.Box.Width, 80.0)

	c, err = card.Apply(c, typeset.LayWords{ID: "i1", Lie: typeset.OnArc})
	require.NoError(t, err)
	refused(t, c, typeset.FitNames{ID: "i1"}, "Set it straight first")
}

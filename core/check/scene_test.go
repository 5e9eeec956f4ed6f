package check_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// told is what is said of lettering on Front, 5 × 7 in.
func told(t *testing.T, text string, size, x, y float64, more ...card.Command) string {
	t.Helper()
	c, err := card.New("Words", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, append([]card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "Words", Kind: card.Lettering, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Words: &card.Words{Text: text, Font: "courier-prime-400", Size: size, Leading: 1.2, Align: card.AlignCentre},
	}}}}, more...)...)
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	var out []string
	for _, f := range check.Run(check.TheScene, check.Input{Card: c, Scene: &s}) {
		assert.Equal(t, check.Caution, f.Weight)
		assert.Contains(t, check.IDs(), f.Check)
		out = append(out, f.Why)
	}
	return strings.Join(out, " ")
}

func TestWordsThatRunOffAreTold(t *testing.T) {
	assert.Empty(t, told(t, "Hello", 10, 63.5, 80))
	both := told(t, "Congratulations to all of you", 12, 63.5, 80)
	assert.Contains(t, both, "“Words” runs off Front by ")
	assert.Contains(t, both, " at the left and by ")
	assert.Contains(t, both, " at the right; what is beside it is cut off.")
	assert.Contains(t, told(t, "Hello", 10, 63.5, 0), "at the top")
	assert.Contains(t, told(t, "Hello", 10, 63.5, 177), "at the bottom")
	assert.NotContains(t, told(t, "Hello", 10, 63.5, 177), "left")

	// On a round piece it is the piece's own edge that counts, though the box would hold it.
	disc := card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "Disc", Kind: card.Shape, Place: card.Place{X: 63.5, Y: 80}, Made: card.Made{As: card.Cut, Stock: "white-216"},
		Form: &card.Form{Outline: card.Ellipse, Width: 40, Height: 40},
	}}}
	assert.Empty(t, told(t, "Hello", 8, 63.5, 80, disc, card.PutOn{IDs: []string{"i1"}, On: "i2"}))
	assert.Equal(t, "“Words” runs off “Disc”: what is beside its edge is cut off.",
		told(t, "Hello", 8, 63.5, 66, disc, card.PutOn{IDs: []string{"i1"}, On: "i2"}))
}

func TestLettersTooSmallToReadAreTold(t *testing.T) {
	assert.Equal(t, "“Words” has letters 3.4 pt (1.2 mm) high: below 6 pt they are hard to read.", told(t, "Small print", 1.2, 63.5, 80))
	assert.Empty(t, told(t, "Small print", 6*25.4/72, 63.5, 80), "6 pt are enough")
}

// one is the single finding about a card with one item on Front.
func one(t *testing.T, it card.Item) (card.Card, check.Finding) {
	t.Helper()
	c, err := card.New("Trial", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{it}})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	found := check.Run(check.TheScene, check.Input{Card: c, Scene: &s})
	if len(found) == 0 {
		return c, check.Finding{}
	}
	require.Len(t, found, 1)
	return c, found[0]
}

func TestPhotosWithTooFewPixelsAreFound(t *testing.T) {
	for _, trial := range []struct {
		pixels int
		weight check.Weight
		says   string
	}{{900, "", ""}, {866, "", ""}, {800, check.Note, "“Lake” prints a little soft, with 203 pixels to the inch."}, {400, check.Caution, "“Lake” prints coarse, with 102 pixels to the inch"}} {
		_, f := one(t, card.Item{Name: "Lake", Kind: card.Photo, Place: card.Place{X: 60, Y: 60}, Made: card.Made{As: card.Printed},
			Photo: &card.Print{Picture: strings.Repeat("a", 64), PixelWidth: trial.pixels, PixelHeight: trial.pixels, Width: 100, Height: 100}})
		assert.Equal(t, trial.weight, f.Weight, trial.pixels)
		assert.Contains(t, f.Why, trial.says)
	}
}

// A mend goes out as the command that it is, and the mend of small letters is the least
// size that is read.
func TestAMendIsACommand(t *testing.T) {
	c, f := one(t, card.Item{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 60}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Words: &card.Words{Text: "Small print", Font: "courier-prime-400", Size: 1, Leading: 1.2, Align: card.AlignCentre}})
	raw, err := json.Marshal(f)
	require.NoError(t, err)
	var out struct {
		Check string
		Mends []struct{ Do []json.RawMessage }
	}
	require.NoError(t, json.Unmarshal(raw, &out))
	assert.Equal(t, "smallWords", out.Check)
	require.Len(t, out.Mends, 1)
	require.Len(t, out.Mends[0].Do, 1)
	cmd, err := card.Decode(card.Commands, out.Mends[0].Do[0])
	require.NoError(t, err)
	c, err = card.Apply(c, cmd)
	require.NoError(t, err)
	assert.InDelta(t, 6*25.4/72, c.Face(card.Front).Items[0].Words.Size, 1e-6)
	s, err := scene.Of(c)
	require.NoError(t, err)
	assert.Empty(t, check.Run(check.TheScene, check.Input{Card: c, Scene: &s}))
}

func TestACardWithoutItemsHasNoFindings(t *testing.T) {
	c, err := card.New("Trial", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	for _, what := range []check.Reads{check.TheScene, check.TheFolding} {
		assert.Equal(t, []check.Finding{}, check.Run(what, check.Input{Card: c, Scene: &s}))
	}
}

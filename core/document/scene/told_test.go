package scene_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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
	for _, it := range s.Face(card.Front).Items {
		if it.Kind == card.Lettering {
			return it.Told
		}
	}
	t.Fatal("no lettering")
	return ""
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
		Name: "Disc", Kind: card.Shape, Place: card.Place{X: 63.5, Y: 80}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Ellipse, Width: 40, Height: 40},
	}}}
	assert.Empty(t, told(t, "Hello", 8, 63.5, 80, disc, card.PutOn{IDs: []string{"i1"}, On: "i2"}))
	assert.Equal(t, "“Words” runs off “Disc”: what is beside its edge is cut off.",
		told(t, "Hello", 8, 63.5, 66, disc, card.PutOn{IDs: []string{"i1"}, On: "i2"}))
}

func TestLettersTooSmallToReadAreTold(t *testing.T) {
	assert.Equal(t, "The letters of “Words” are 3.4 pt (1.2 mm) high: below 6 pt they are hard to read.", told(t, "Small print", 1.2, 63.5, 80))
	assert.Empty(t, told(t, "Small print", 6*25.4/72, 63.5, 80), "6 pt are enough")
}

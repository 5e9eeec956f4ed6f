package lettering

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/stencil"
)

// A bar makes one piece of letters that stand apart, in lines and round a circle; what touches
// none of it is told still.
func TestABarHoldsLettersTogether(t *testing.T) {
	w := words("HEM", "nunito-400")
	w.Size = 12
	pieces := func(w card.Words) int {
		s, err := Set(w)
		require.NoError(t, err)
		return len(stencil.Parts(s.Outline))
	}
	require.Equal(t, 3, pieces(w))
	loose, err := LooseOf(w)
	require.NoError(t, err)
	assert.Equal(t, []string{"HE", "EM"}, loose.Pairs)
	bare, err := Set(w)
	require.NoError(t, err)

	w.Bar = 1
	assert.Equal(t, 1, pieces(w))
	loose, err = LooseOf(w)
	require.NoError(t, err)
	assert.Empty(t, loose.Pairs)
	with, err := Set(w)
	require.NoError(t, err)
	assert.InDelta(t, bare.Carets[0].At.Y+.75, with.Outline.Bounds().Bottom(), 1e-6)
	assert.InDelta(t, with.Block.W, with.Outline.Bounds().W, 1e-6, "from the first letter to the last")

	w.Colours, w.ColourBy = []string{"#ff0000", "#00ff00"}, card.ByLetter
	inked, err := Set(w)
	require.NoError(t, err)
	assert.InDelta(t, with.Block.W, inked.Rest.Bounds().W, 1e-6, "the bar has the ink of the words")
	w.Colours, w.ColourBy = nil, ""

	w.Path = &card.TextPath{Radius: 20}
	assert.Equal(t, 1, pieces(w))
	round, err := Set(w)
	require.NoError(t, err)
	w.Bar = 0
	plain, err := Set(w)
	require.NoError(t, err)
	// Between two circles, less what of it the letters cover; all of it lies within.
	assert.Less(t, round.Outline.Area()-plain.Outline.Area(), with.Block.W*1)
	for _, l := range round.Outline.Flatten(.01) {
		for _, p := range l.Points {
			assert.Greater(t, math.Hypot(p.X, p.Y-20), 19.25-.01)
		}
	}

	w = words("a*e", "nunito-400")
	w.Size, w.Bar = 12, 1
	loose, err = LooseOf(w)
	require.NoError(t, err)
	assert.Equal(t, []string{"a*", "*e"}, loose.Pairs, "the star hangs above")
	w = words("HE\nM", "nunito-400")
	w.Bar = 1
	assert.Equal(t, 2, pieces(w))
}

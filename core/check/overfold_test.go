package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/check"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
)

// A background that ends at a fold is told, until the other side of the fold is printed so too; another
// colour beyond the fold is an end as well, and what lies there already is not printed over.
func TestABackgroundEndsAtAFold(t *testing.T) {
	c, err := fold.New("Ground", card.Base{Kind: card.SideFold, Width: 100, Height: 150, Stock: "cream-300"})
	require.NoError(t, err)
	red := card.Fill{Colour: "#a8432a"}
	ground := func(fill card.Fill, faces ...card.FaceID) {
		c, err = card.Apply(c, arrange.SetBackground{Faces: faces, Fill: fill})
		require.NoError(t, err)
	}
	found := func() (out []check.Finding) {
		s, err := scene.Of(c)
		require.NoError(t, err)
		for _, f := range check.Run(check.TheScene, check.Input{Card: c, Scene: &s}) {
			if f.Check == "overFold" {
				out = append(out, f)
			}
		}
		return out
	}
	ground(red, card.Front)
	told := found()
	require.Len(t, told, 1)
	assert.Equal(t, check.Note, told[0].Weight)
	assert.Contains(t, told[0].Why, "Back")
	assert.InDelta(t, 0, told[0].At.X+1, 1e-9, "the fold of Front is at its left")
	require.Len(t, told[0].Mends, 1)
	c = mended(t, c, told[0])
	assert.NotNil(t, c.Face(card.Back).Items)
	assert.Empty(t, found())
	ground(card.Fill{Colour: "#35658c"}, card.Back)
	told = found()
	assert.Len(t, told, 2, "each colour ends at the fold")
	for _, f := range told {
		assert.Empty(t, f.Mends)
	}
}

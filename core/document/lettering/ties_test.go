package lettering

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// Of every font, letters with dots and accents are one piece when they are tied, and nothing
// of them has gone.
func TestDotsAndAccentsAreTied(t *testing.T) {
	for _, f := range Fonts() {
		for _, r := range "ijäöÉñ!?%:÷" {
			w := words(string(r), f.ID)
			loose, err := Set(w)
			require.NoError(t, err)
			w.Tie = .6
			held, err := Set(w)
			require.NoError(t, err)
			require.Len(t, stencil.Parts(held.Outline), 1, "%c of %s", r, f.ID)
			require.Less(t, geom.Difference(geom.NonZero, loose.Outline, held.Outline).Area(), 1e-4)
			n := len(stencil.Parts(loose.Outline)) - 1
			if n == 0 {
				assert.InDelta(t, loose.Outline.Area(), held.Outline.Area(), 1e-6)
				continue
			}
			added := held.Outline.Area() - loose.Outline.Area()
			assert.Positive(t, added)
			assert.Less(t, added, float64(n)*.6*12, "%c of %s", r, f.ID)
		}
	}
	w := words("i", "nunito-400")
	w.Tie = .6
	s, err := Set(w)
	require.NoError(t, err)
	loose, err := LooseOf(w)
	require.NoError(t, err)
	assert.Empty(t, loose.Dots, "what is tied is not loose")
	assert.InDelta(t, 0, s.Block.Centre().Y, 1e-9)
}

// A script whose letters stand apart is joined up: no pair is left that does not touch, and no
// letter has moved farther than it had to.
func TestAScriptIsJoinedUp(t *testing.T) {
	for _, font := range []string{"pacifico-400", "dancing-script-700", "great-vibes-400"} {
		for _, spacing := range []float64{0, .12, .3} {
			w := words("lake lane\nham", font)
			w.Spacing, w.Align = spacing, card.AlignLeft
			loose, err := LooseOf(w)
			require.NoError(t, err)
			if spacing == .3 {
				assert.Len(t, loose.Pairs, 8, "%s: every pair within a word, none across words and lines", font)
				assert.Contains(t, loose.Pairs, "la")
				assert.NotContains(t, loose.Pairs, "el")
			}
			after, err := LooseOf(loose.Joined)
			require.NoError(t, err)
			require.Empty(t, after.Pairs, "%s, %v", font, spacing)
			is, err := Set(loose.Joined)
			require.NoError(t, err)
			was, err := Set(w)
			require.NoError(t, err)
			assert.LessOrEqual(t, is.Block.W, was.Block.W+1e-9)
			if len(loose.Pairs) == 0 {
				assert.Equal(t, w, loose.Joined)
			}
		}
	}
	_, err := LooseOf(card.Words{Text: "a", Font: "none", Size: 5, Leading: 1})
	assert.ErrorContains(t, err, "no font")
}

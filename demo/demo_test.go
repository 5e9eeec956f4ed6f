package demo_test

import (
	"io"
	"log/slog"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/card"
	"sectilis/core/check"
	"sectilis/core/fold"
	"sectilis/core/picture"
	"sectilis/core/sheet"
	"sectilis/demo"
	"sectilis/store"
)

// The demo is what people see first: its cards have to be ones that could be
// made. Words stay within the safe area and have all their letters, nothing
// hangs over or keeps a card from folding, everything fits on both sizes of paper.
func TestDemoCardsCouldBeMade(t *testing.T) {
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	defer func() { _ = s.Close() }()
	a := app.New(app.Config{Store: s, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
	defer a.Close()
	require.NoError(t, demo.Fill(t.Context(), a))
	cards, err := a.Cards(t.Context(), "")
	require.NoError(t, err)
	require.Len(t, cards, 5)
	pics, err := a.Pictures(t.Context())
	require.NoError(t, err)
	assert.Len(t, pics, 3)
	for _, c := range cards {
		v, err := a.Open(t.Context(), c.ID)
		require.NoError(t, err)
		for _, f := range v.Scene.Faces {
			for _, it := range f.Items {
				b := it.Bounds
				// What is glued to a gate may reach over the other.
				onGate := v.Card.Base.Kind == card.GateFold && (it.Piece || it.On != "")
				assert.True(t, onGate || b.X > -.1 && b.Y > -.1 && b.Right() < f.Width+.1 && b.Bottom() < f.Height+.1, "%s: %s hangs over", c.Title, it.Name)
				if it.Kind != card.Lettering {
					continue
				}
				assert.Empty(t, it.Missing, "%s: %s", c.Title, it.Name)
				assert.True(t, onGate || f.Safe.Contains(b, .1), "%s: %s lies too near the edge", c.Title, it.Name)
				if on := f.Carrier(&it); on != nil {
					assert.True(t, on.Bounds.Contains(b, .1), "%s: %s hangs over %s", c.Title, it.Name, on.Name)
				}
			}
		}
		assert.Empty(t, check.Folding(v.Card, v.Scene), c.Title)
		assert.True(t, fold.StudyOf(v.Card.Base).Verdict.Folds, c.Title)
		for _, size := range sheet.Sizes()[:2] {
			l, err := a.Layout(t.Context(), c.ID, sheet.Defaults(size))
			require.NoError(t, err)
			assert.Empty(t, l.Problems, "%s on %s", c.Title, size.Name)
		}
	}
}

func TestDemoPhotosAreTheSameEveryTime(t *testing.T) {
	first, err := demo.Photos()
	require.NoError(t, err)
	again, err := demo.Photos()
	require.NoError(t, err)
	require.Len(t, first, 3)
	for name, raw := range first {
		assert.Equal(t, raw, again[name], name)
		info, err := picture.Inspect(name, raw)
		require.NoError(t, err)
		assert.Equal(t, 1800, info.Width)
		assert.Equal(t, 1200, info.Height)
	}
}

// Package guidetest plays guides to putting cards together, for tests.
package guidetest

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/measure"
	"sectilis/core/production/assembly"
	"sectilis/core/production/sheet"
)

// Plays plays a guide as hands would: everything is there when it is needed, each piece is laid once on
// what it lies on, with all that it carries, and at the end the card is what it is in the scene.
func Plays(t *testing.T, c card.Card, s *scene.Scene, l *sheet.Layout, g assembly.Guide, name string, pictures bool) {
	t.Helper()
	done := map[string]int{}
	laid := map[string]string{} // of each piece, what it was laid on
	closed := false
	sheets := map[int]bool{}
	for _, sh := range l.Sheets {
		sheets[sh.Number] = true
	}
	for i, st := range g.Steps {
		require.NotContains(t, done, st.ID, "%s: each step once", name)
		require.False(t, closed && st.Kind != assembly.Send, "%s: nothing after it is closed but its envelope", name)
		assert.NotEmpty(t, st.Title+st.Does+st.Why, name)
		for _, n := range st.Needs {
			assert.Contains(t, done, n, "%s: %s comes before %s", name, n, st.ID)
		}
		for _, thing := range st.Desk {
			if thing.Sheet > 0 {
				assert.True(t, sheets[thing.Sheet], "%s: %s lies on sheet %d", name, thing.Name, thing.Sheet)
			}
			if thing.Made != "" {
				assert.Contains(t, done, thing.Made, name)
			}
		}
		closed = closed || st.Kind == assembly.Close
		done[st.ID] = i
		if st.Piece == "" {
			continue
		}
		f := s.Face(st.Face)
		at := slices.IndexFunc(f.Items, func(it scene.Item) bool { return it.ID == st.Piece })
		require.GreaterOrEqual(t, at, 0, "%s: %s is there", name, st.Piece)
		it := &f.Items[at]
		require.NotContains(t, laid, it.ID, "%s: %s is laid once", name, it.Name)
		assert.Equal(t, it.On, st.On, name)
		assert.Equal(t, it.Lift > 0, st.Kind == assembly.Raise, name)
		assert.InDelta(t, it.Lift, st.Foam, 1e-9, name)
		// What it is laid on has not been laid down itself: it is built up off the card.
		if st.On != "" {
			assert.NotContains(t, laid, st.On, "%s: %s is built up first", name, st.On)
		} else {
			assert.Contains(t, done, "cut", name)
		}
		laid[it.ID] = st.On
		if !pictures {
			continue
		}
		inks, box, ok := assembly.Picture(c, s, st, g.Steps[:i], measure.In)
		require.True(t, ok, name)
		assert.NotEmpty(t, inks, name)
		assert.Greater(t, min(box.W, box.H), 5.0, name)
	}
	for i := range s.Faces {
		for _, it := range s.Faces[i].Items {
			if it.Piece {
				on, ok := laid[it.ID]
				assert.True(t, ok, "%s: %s is laid", name, it.Name)
				assert.Equal(t, it.On, on, name)
				delete(laid, it.ID)
			}
		}
	}
	assert.Empty(t, laid, "%s: nothing else is laid", name)
}

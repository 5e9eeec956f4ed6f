package fold

import (
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
)

// BenchmarkStudy folds a base of a hundred panels and looks at it: the sweep, clashes,
// layers and the closed outline. Goal: 250 ms beside the sweep.
func BenchmarkStudy(b *testing.B) {
	c, err := New("Trial", card.Base{Kind: card.TopFold, Width: 300, Height: 100, Stock: "cream-216"})
	require.NoError(b, err)
	for k := range 49 {
		c, err = card.Apply(c, AddStrip{From: 3 + 6*float64(k), To: 7 + 6*float64(k), Up: 20 + float64(k%9), Out: 15 + float64(k%7)})
		require.NoError(b, err)
	}
	s := fold(c.Base, NewFolder(Of(c.Base)))
	require.Len(b, s.Panels, 100)
	require.Empty(b, s.Verdict.Why)
	for b.Loop() {
		fold(c.Base, NewFolder(Of(c.Base)))
	}
}

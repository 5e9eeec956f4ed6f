package store_test

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/store"
)

func BenchmarkCommit(b *testing.B) {
	s, err := store.Open(b.Context(), filepath.Join(b.TempDir(), "a.db"))
	require.NoError(b, err)
	defer func() { _ = s.Close() }()
	c := coretest.Card(b)
	require.NoError(b, s.Create(b.Context(), "a", c, "", at))
	n := int64(1)
	for b.Loop() {
		_, err := s.Commit(b.Context(), "a", n, c, "x", at)
		require.NoError(b, err)
		n++
	}
}

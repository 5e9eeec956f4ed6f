package standin

import (
	"io/fs"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestThePrinterKeepsTheLastSheets(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "new", "printed")
	tr, err := openPrinted(dir, 3, 1<<20)
	require.NoError(t, err)
	mine := filepath.Join(dir, "notes.png")
	require.NoError(t, os.WriteFile(mine, []byte("mine"), 0o644))
	var all []string
	for i := range 5 {
		ref, err := tr.put([]byte{byte(i)}, []byte{byte(10 + i)})
		require.NoError(t, err)
		// One a minute, whatever the clock of the file system tells apart.
		at := time.Date(2026, 11, 1, 8, i, 0, 0, time.UTC)
		require.NoError(t, os.Chtimes(filepath.Join(dir, ref+fullSheet), at, at))
		all = append(all, ref)
	}
	require.NoError(t, tr.clear())

	// Another printer finds what this one left.
	tr, err = openPrinted(dir, 3, 1<<20)
	require.NoError(t, err)
	for i, ref := range all {
		full, err := tr.get(ref, false)
		small, serr := tr.get(ref, true)
		if i < 2 {
			assert.ErrorIs(t, err, fs.ErrNotExist)
			assert.ErrorIs(t, serr, fs.ErrNotExist)
			continue
		}
		assert.Equal(t, []byte{byte(i)}, full)
		assert.Equal(t, []byte{byte(10 + i)}, small)
	}
	raw, err := os.ReadFile(mine)
	require.NoError(t, err)
	assert.Equal(t, "mine", string(raw), "what else lies there is left alone")

	for _, ref := range []string{"", "notes", "../tray", all[4] + "-small", "UPPERCASEUPPERCASEUPPERCASE"} {
		_, err := tr.get(ref, false)
		assert.ErrorIs(t, err, fs.ErrNotExist, ref)
	}
	_, err = openPrinted(mine, 3, 1<<20)
	assert.ErrorContains(t, err, "the directory for printed sheets")
}

// The oldest go when all take too much, the newest never.
func TestPrintedSheetsTakeNoMoreThanTheyMay(t *testing.T) {
	tr, err := openPrinted(t.TempDir(), 10, 100)
	require.NoError(t, err)
	var all []string
	put := func(size int) {
		ref, err := tr.put(make([]byte, size), nil)
		require.NoError(t, err)
		all = append(all, ref)
		// The clock of a disk may be coarse: each is as much newer as it was later.
		at := time.Unix(int64(1_790_000_000+len(all)), 0)
		require.NoError(t, tr.root.Chtimes(ref+fullSheet, at, at))
	}
	there := func() (out []int) {
		for i, ref := range all {
			if _, err := tr.get(ref, false); err == nil {
				out = append(out, i)
			}
		}
		return out
	}
	for range 4 {
		put(40)
	}
	assert.Equal(t, []int{2, 3}, there())
	put(500)
	assert.Equal(t, []int{4}, there())
}

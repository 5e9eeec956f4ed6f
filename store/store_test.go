package store_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/store"
)

var at = time.UnixMilli(1_790_000_000_000)

func open(t *testing.T, path string) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func title(t *testing.T, c card.Card, to string) card.Card {
	t.Helper()
	c, err := card.RenameCard{Title: to}.Apply(c)
	require.NoError(t, err)
	return c
}

func TestUndoAndRedoGoThroughEveryState(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s := open(t, path)
	c := coretest.Card(t)
	ctx := t.Context()
	require.NoError(t, s.Create(ctx, "a", c, "", at))
	for i, name := range []string{"one", "two", "three"} {
		rev, err := s.Commit(ctx, "a", int64(i+1), title(t, c, name), "Rename to "+name, at)
		require.NoError(t, err)
		assert.Equal(t, "Rename to "+name, rev.Undo)
	}
	walk := func(s *store.Store, n int64, f func(context.Context, string, int64, time.Time) (app.Revision, error)) app.Revision {
		rev, err := f(ctx, "a", n, at)
		require.NoError(t, err)
		require.Equal(t, n+1, rev.Number)
		return rev
	}
	rev := walk(s, 4, s.Undo)
	assert.Equal(t, "two", rev.Card.Title)
	assert.Equal(t, "Rename to three", rev.Redo)
	rev = walk(s, 5, s.Undo)
	assert.Equal(t, "one", rev.Card.Title)
	require.NoError(t, s.Close())

	s = open(t, path) // undo goes on after a restart
	rev = walk(s, 6, s.Undo)
	assert.Equal(t, c, rev.Card)
	assert.Empty(t, rev.Undo)
	_, err := s.Undo(ctx, "a", 7, at)
	assert.ErrorIs(t, err, app.ErrNothing)
	for i, want := range []string{"one", "two", "three"} {
		rev = walk(s, int64(7+i), s.Redo)
		assert.Equal(t, want, rev.Card.Title)
	}
	assert.Empty(t, rev.Redo)
	_, err = s.Redo(ctx, "a", 10, at)
	assert.ErrorIs(t, err, app.ErrNothing)

	walk(s, 10, s.Undo)
	rev, err = s.Commit(ctx, "a", 11, title(t, c, "else"), "Rename to else", at)
	require.NoError(t, err)
	assert.Empty(t, rev.Redo, "a new change ends the way forward")
	rev = walk(s, 12, s.Undo)
	assert.Equal(t, "two", rev.Card.Title)
}

func TestStaleAndMissingAreToldApart(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	c := coretest.Card(t)
	ctx := t.Context()
	require.NoError(t, s.Create(ctx, "a", c, "", at))
	_, err := s.Commit(ctx, "a", 1, c, "x", at)
	require.NoError(t, err)
	_, err = s.Commit(ctx, "a", 1, c, "x", at)
	assert.ErrorIs(t, err, app.ErrStale)
	_, err = s.Commit(ctx, "b", 1, c, "x", at)
	assert.ErrorIs(t, err, app.ErrNotFound)
	require.NoError(t, s.Remove(ctx, "a", at))
	_, err = s.Head(ctx, "a")
	assert.ErrorIs(t, err, app.ErrNotFound)
	assert.ErrorIs(t, s.Remove(ctx, "a", at), app.ErrNotFound)
	require.NoError(t, s.Restore(ctx, "a"))
	rev, err := s.Head(ctx, "a")
	require.NoError(t, err)
	assert.Equal(t, int64(2), rev.Number)
}

func TestCardsAreFoundByTitleAndWords(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	c := coretest.Card(t)
	ctx := t.Context()
	require.NoError(t, s.Create(ctx, "a", title(t, c, "Plum % day"), "", at))
	require.NoError(t, s.Create(ctx, "b", title(t, coretest.Empty(t), "Second"), "", at.Add(time.Hour)))
	for find, want := range map[string]int{"": 2, "PLUM": 1, "%": 1, "harvest": 1, "second ": 1, "nothing": 0} {
		got, err := s.Cards(ctx, find)
		require.NoError(t, err)
		assert.Len(t, got, want, find)
	}
	all, _ := s.Cards(ctx, "")
	assert.Equal(t, "b", all[0].ID, "newest first")
	assert.Equal(t, 127.0, all[1].Width)
}

func TestPicturesAreKeptAsTheyAre(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a b?#.db"))
	ctx := t.Context()
	raw, id := coretest.Photo(t, 30, 20)
	p := app.Picture{ID: id, Name: "x", Type: "image/jpeg", Width: 30, Height: 20, Bytes: len(raw)}
	require.NoError(t, s.AddPicture(ctx, p, raw, at))
	require.NoError(t, s.AddPicture(ctx, p, raw, at.Add(1)), "the same again is the same")
	got, bytes, err := s.Picture(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, p, got)
	assert.Equal(t, raw, bytes)
	all, err := s.Pictures(ctx)
	require.NoError(t, err)
	assert.Equal(t, []app.Picture{p}, all)
	_, _, err = s.Preview(ctx, id, 256)
	assert.ErrorIs(t, err, app.ErrNotFound)
	require.NoError(t, s.AddPreview(ctx, id, 256, "image/png", []byte{1}))
	kind, _, err := s.Preview(ctx, id, 256)
	require.NoError(t, err)
	assert.Equal(t, "image/png", kind)
	_, _, err = s.Picture(ctx, "no")
	assert.ErrorIs(t, err, app.ErrNotFound)
	ok, err := s.HasPicture(ctx, "no")
	require.NoError(t, err)
	assert.False(t, ok)
}

func TestFilesThatCannotBeUsedAreRefused(t *testing.T) {
	dir := t.TempDir()
	_, err := store.Open(t.Context(), dir)
	assert.ErrorContains(t, err, "cannot be written")
	file := filepath.Join(dir, "file")
	require.NoError(t, os.WriteFile(file, []byte("no database, only words, and more words than a page header"), 0o600))
	_, err = store.Open(t.Context(), file)
	assert.ErrorContains(t, err, file+" is not a file of cards")
	_, err = store.Open(t.Context(), filepath.Join(file, "under.db"))
	assert.ErrorContains(t, err, "cannot be made")

	newer := filepath.Join(dir, "newer.db")
	s := open(t, newer)
	require.NoError(t, s.SetVersionForTest(t.Context(), 99))
	require.NoError(t, s.Close())
	_, err = store.Open(t.Context(), newer)
	assert.ErrorContains(t, err, "made by a newer version of Sectilis (tables 99, this one knows 10)")
}

// A child process writes revisions as fast as it can and says each one that
// was acknowledged; it is killed in the middle, and all of them are there.
func TestAcknowledgedRevisionsSurviveAKill(t *testing.T) {
	if path := os.Getenv("SECTILIS_WRITE_UNTIL_KILLED"); path != "" {
		s, err := store.Open(context.Background(), path)
		if err != nil {
			panic(err)
		}
		c := coretest.Card(t)
		for n := int64(1); ; n++ {
			rev, err := s.Commit(context.Background(), "a", n, title(t, c, fmt.Sprint("Change ", n+1)), "x", at)
			if err != nil {
				panic(err)
			}
			fmt.Println("ack", rev.Number)
		}
	}
	for round := range 5 {
		path := filepath.Join(t.TempDir(), "a.db")
		s := open(t, path)
		require.NoError(t, s.Create(t.Context(), "a", coretest.Card(t), "", at))
		require.NoError(t, s.Close())

		child := exec.Command(os.Args[0], "-test.run", "TestAcknowledgedRevisionsSurviveAKill")
		child.Env = append(os.Environ(), "SECTILIS_WRITE_UNTIL_KILLED="+path)
		out, err := child.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, child.Start())
		last := int64(0)
		lines := bufio.NewScanner(out)
		for lines.Scan() {
			if n, ok := strings.CutPrefix(lines.Text(), "ack "); ok {
				last, err = strconv.ParseInt(n, 10, 64)
				require.NoError(t, err)
			}
			if last == int64(5+13*round) {
				require.NoError(t, child.Process.Kill())
			}
		}
		_ = child.Wait() // it was killed

		require.Positive(t, last)
		s = open(t, path)
		rev, err := s.Head(t.Context(), "a")
		require.NoError(t, err)
		require.GreaterOrEqual(t, rev.Number, last)
		for n := rev.Number; n > 1; n-- {
			require.Equal(t, fmt.Sprint("Change ", n), rev.Card.Title)
			if n > 2 {
				rev.Card = stateOf(t, s, n-1)
			}
		}
		require.NoError(t, s.Close())
	}
}

func stateOf(t *testing.T, s *store.Store, n int64) card.Card {
	t.Helper()
	c, err := s.RevisionForTest(t.Context(), "a", n)
	require.NoError(t, err)
	raw, err := json.Marshal(c)
	require.NoError(t, err)
	c, err = card.Parse(raw)
	require.NoError(t, err)
	return c
}

func TestTheLastResultsAreKept(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	ctx := t.Context()
	_, err := s.Result(ctx, "r0")
	assert.ErrorIs(t, err, app.ErrNotFound)
	for i := range 70 {
		require.NoError(t, s.KeepResult(ctx, fmt.Sprint("r", i), []byte{byte(i)}, at.Add(time.Duration(i)*time.Minute)))
	}
	require.NoError(t, s.KeepResult(ctx, "r69", []byte("again"), at.Add(2*time.Hour)))
	for name, want := range map[string][]byte{"r9": nil, "r10": {10}, "r69": []byte("again")} {
		raw, err := s.Result(ctx, name)
		if want == nil {
			assert.ErrorIs(t, err, app.ErrNotFound, name)
			continue
		}
		require.NoError(t, err)
		assert.Equal(t, want, raw)
	}
}

func TestOneProgramHasAFileAtATime(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s := open(t, path)
	_, err := store.Open(t.Context(), path)
	require.ErrorContains(t, err, "open in another Sectilis already")
	require.NoError(t, s.Close())
	again, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	require.NoError(t, again.Close())
}

func TestAFileThatIsDamagedIsSaidToBe(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s := open(t, path)
	require.NoError(t, s.Create(t.Context(), "a", coretest.Card(t), "", at))
	require.NoError(t, s.Close())
	raw, err := os.ReadFile(path)
	require.NoError(t, err)
	for name, bad := range map[string][]byte{
		"not a file of cards": []byte(strings.Repeat("a shopping list\n", 400)),
		"damaged or cut off":  raw[:len(raw)/3/4096*4096],
	} {
		require.NoError(t, os.WriteFile(path, bad, 0o600))
		_, err := store.Open(t.Context(), path)
		require.ErrorContains(t, err, name)
		now, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.Equal(t, bad, now, "it is left as it was")
	}
}

// A newest state that cannot be read does not hide the card: the last one that can is
// offered, and taken up as a state of its own.
func TestADamagedStateOffersTheLastReadableOne(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	c := coretest.Card(t)
	require.NoError(t, s.Create(ctx, "a", c, "", at))
	for i, name := range []string{"one", "two", "three"} {
		_, err := s.Commit(ctx, "a", int64(i+1), title(t, c, name), "Rename", at)
		require.NoError(t, err)
	}
	require.NoError(t, s.DamageForTest(ctx, "a", 4))
	require.NoError(t, s.DamageForTest(ctx, "a", 3))
	_, err := s.Head(ctx, "a")
	var damaged *app.Damaged
	require.ErrorAs(t, err, &damaged)
	assert.Equal(t, int64(2), damaged.Last)
	rev, err := s.Recover(ctx, "a", at)
	require.NoError(t, err)
	assert.Equal(t, []any{int64(5), "one"}, []any{rev.Number, rev.Card.Title})
	rev, err = s.Head(ctx, "a")
	require.NoError(t, err)
	assert.Equal(t, "one", rev.Card.Title)
	rev, err = s.Undo(ctx, "a", 5, at)
	require.NoError(t, err)
	assert.Equal(t, c.Title, rev.Card.Title)

	require.NoError(t, s.Create(ctx, "b", c, "", at))
	require.NoError(t, s.DamageForTest(ctx, "b", 1))
	_, err = s.Head(ctx, "b")
	require.ErrorAs(t, err, &damaged)
	assert.Zero(t, damaged.Last)
	_, err = s.Recover(ctx, "b", at)
	assert.ErrorIs(t, err, app.ErrNotFound)
}

// On a full disk nothing is changed and that is said; with room again it goes on.
func TestAFullDiskIsSaidAndGoesOn(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	c := coretest.Card(t)
	require.NoError(t, s.Create(ctx, "a", c, "", at))
	require.NoError(t, s.FillForTest(ctx, true))
	raw := make([]byte, 3<<20)
	require.ErrorIs(t, s.AddPicture(ctx, app.Picture{ID: "p", Type: "image/png"}, raw, at), app.ErrFull)
	n := int64(1)
	var err error
	for range 400 { // until there is no page left
		if _, err = s.Commit(ctx, "a", n, title(t, c, fmt.Sprint("Title ", n)), "Rename", at); err != nil {
			break
		}
		n++
	}
	require.ErrorIs(t, err, app.ErrFull)
	rev, err := s.Head(ctx, "a")
	require.NoError(t, err)
	assert.Equal(t, n, rev.Number)
	require.NoError(t, s.FillForTest(ctx, false))
	_, err = s.Commit(ctx, "a", n, title(t, c, "On"), "Rename", at)
	require.NoError(t, err)
}

// What is larger than can be read is not written.
func TestACardIsNotWrittenLargerThanItCanBeRead(t *testing.T) {
	ctx := t.Context()
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	c := coretest.Card(t)
	require.NoError(t, s.Create(ctx, "a", c, "", at))
	was := store.BoundForTest(len(mustJSON(t, c)))
	defer store.BoundForTest(was)
	rev, err := s.Head(ctx, "a")
	require.NoError(t, err)
	_, err = s.Commit(ctx, "a", 1, title(t, c, strings.Repeat("long ", 20)), "Rename", at)
	var refusal *card.Refusal
	require.ErrorAs(t, err, &refusal)
	assert.Contains(t, refusal.Why, "Nothing was changed")
	now, err := s.Head(ctx, "a")
	require.NoError(t, err)
	assert.Equal(t, rev.Number, now.Number)
}

func mustJSON(t *testing.T, v any) []byte {
	t.Helper()
	raw, err := json.Marshal(v)
	require.NoError(t, err)
	return raw
}

package app_test

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/format/dxf"
	"sectilis/core/format/hpgl"
	"sectilis/core/format/svg"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/sheet"
)

// unzipped are the files of a ZIP by name.
func unzipped(t *testing.T, raw []byte) map[string][]byte {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	out := map[string][]byte{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		out[f.Name], err = io.ReadAll(r)
		require.NoError(t, err)
	}
	return out
}

// extent is the box round all that a drawing shows.
func extent(d exchange.Drawing) geom.Rect {
	var box geom.Rect
	for i, s := range d.Shapes {
		if b := s.Path.Bounds(); i == 0 {
			box = b
		} else {
			box = box.Union(b)
		}
	}
	return box
}

// Every file of a sheet, read back, shows the same lines in true size.
func TestAllFilesOfASheetAgree(t *testing.T) {
	f := start(t)
	id := f.card()
	var raw bytes.Buffer
	require.NoError(t, f.WriteAll(t.Context(), &raw, id, letter(), measure.In))
	files := unzipped(t, raw.Bytes())
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	want := 2 // the list, and all pages
	for _, sh := range l.Sheets {
		name := fmt.Sprintf("sheet-%d", sh.Number)
		var box geom.Rect
		for i, p := range sh.Pieces {
			if b := p.Outline.Bounds(); i == 0 {
				box = b
			} else {
				box = box.Union(b)
			}
		}
		for suffix, read := range map[string]func([]byte) (exchange.Drawing, error){
			".svg": func(b []byte) (exchange.Drawing, error) { return svg.Read(t.Context(), b, nil) }, ".dxf": func(b []byte) (exchange.Drawing, error) { return dxf.Read(t.Context(), b, "") },
			".hpgl": func(b []byte) (exchange.Drawing, error) { return hpgl.Read(t.Context(), b) },
		} {
			d, err := read(files[name+suffix])
			require.NoError(t, err, name+suffix)
			if suffix == ".hpgl" { // strokes in the waste turn the blade
				d.Shapes = slices.DeleteFunc(d.Shapes, func(s exchange.Shape) bool { b := s.Path.Bounds(); return max(b.W, b.H) < 3 })
			}
			got := extent(d)
			// A blade starts a little beside its line and cuts beyond its end.
			within := map[string]float64{".svg": .01, ".dxf": .01, ".hpgl": 1}[suffix]
			assert.InDelta(t, box.W, got.W, within, name+suffix)
			assert.InDelta(t, box.H, got.H, within, name+suffix)
			want++
		}
		assert.Equal(t, sh.Printed, strings.HasPrefix(string(files[name+".pdf"]), "%PDF-"))
		if sh.Printed {
			want++
		}
		for _, p := range sh.Pieces {
			assert.Contains(t, string(files["contents.txt"]), "  "+p.Name+", ")
		}
	}
	assert.Len(t, files, want)
	assert.Less(t, len(files["sheet-1.pdf"]), len(files["pages.pdf"]))
}

func TestTheListSaysWhatIsNotLaid(t *testing.T) {
	f := start(t)
	id := f.card()
	small, _ := sheet.SizeByID("a5")
	var raw bytes.Buffer
	require.NoError(t, f.WriteAll(t.Context(), &raw, id, sheettest.Usual(small), measure.MM))
	list := string(unzipped(t, raw.Bytes())["contents.txt"])
	assert.Contains(t, list, "A5 148 × 210 mm")
	assert.Contains(t, list, "Not laid: “Base” is 10 × 7 in (254 × 177.8 mm)")
	assert.ErrorIs(t, f.WriteAll(t.Context(), io.Discard, "nobody", letter(), measure.MM), app.ErrNotFound)
}

// flags puts a card with n banners of moss card on the table.
func (f *fixture) flags(n int) string {
	f.t.Helper()
	c, err := card.New("Flags", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(f.t, err)
	for k := range n {
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: fmt.Sprint("Flag ", k), Kind: card.Shape, Place: card.Place{X: 60, Y: 60}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
			Form: &card.Form{Outline: []card.Outline{"flag", card.Ellipse}[k%2], Width: 30 + 2*float64(k), Height: 20 + float64(k)},
		}}})
		require.NoError(f.t, err)
	}
	id, err := f.Create(f.t.Context(), c)
	require.NoError(f.t, err)
	return id
}

func TestACloserLayoutIsKept(t *testing.T) {
	f := start(t)
	_, err := f.LayCloser(t.Context(), f.card(), letter())
	var r *card.Refusal
	require.ErrorAs(t, err, &r, "every sheet has one piece")
	assert.Contains(t, r.Why, "nothing to lay closer")

	id := f.flags(24)
	first, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	assert.Zero(t, first.Saved)
	j, err := f.LayCloser(t.Context(), id, letter())
	require.NoError(t, err)
	require.Eventually(t, func() bool {
		now, err := f.Job(j.ID)
		return err == nil && now.Progress > .12
	}, time.Minute, time.Millisecond)
	require.NoError(t, f.StopJob(j.ID))
	require.Eventually(t, func() bool {
		j, err = f.Job(j.ID)
		return err == nil && j.State != app.Running
	}, time.Minute, time.Millisecond)
	assert.Contains(t, j.Note, "less paper")

	closer, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	assert.Greater(t, closer.Saved, 1.0, "what was found is kept when it is stopped")
	again := f.again()
	kept, err := again.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	assert.Equal(t, closer.Sheets, kept.Sheets, "after a restart, too")
	assert.InDelta(t, closer.Saved, kept.Saved, 1e-9)

	// Another paper is another problem.
	a4, _ := sheet.SizeByID("a4")
	other, err := f.Layout(t.Context(), id, sheettest.Usual(a4))
	require.NoError(t, err)
	assert.Zero(t, other.Saved)
}

package demo_test

import (
	"io"
	"log/slog"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/check"
	"sectilis/core/coretest"
	"sectilis/core/coretest/guidetest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/picture"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/assembly"
	"sectilis/core/production/nest"
	"sectilis/core/production/sheet"
	"sectilis/demo"
	"sectilis/store"
)

// filled is an app with the demo's cards.
func filled(t *testing.T) *app.App {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	a := app.New(app.Config{Store: s, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
	t.Cleanup(func() {
		a.Close()
		_ = s.Close()
	})
	require.NoError(t, demo.Fill(t.Context(), a))
	return a
}

// The demo is what people see first: its cards have to be ones that could be
// made. Words stay within the safe area and have all their letters, nothing
// hangs over or keeps a card from folding, everything fits on both sizes of paper.
func TestDemoCardsCouldBeMade(t *testing.T) {
	a := filled(t)
	cards, err := a.Cards(t.Context(), "")
	require.NoError(t, err)
	require.Len(t, cards, 11)
	pics, err := a.Pictures(t.Context())
	require.NoError(t, err)
	assert.Len(t, pics, 5)
	for _, c := range cards {
		v, err := a.Open(t.Context(), c.ID)
		require.NoError(t, err)
		if slices.Contains(faulty, c.Title) {
			continue
		}
		for _, f := range v.Findings {
			assert.Equal(t, check.Note, f.Weight, "%s: %s", c.Title, f.Why)
		}
		for _, f := range v.Scene.Faces {
			for _, it := range f.Items {
				b := it.Bounds
				// What is glued to a gate may reach over the other.
				onGate := v.Card.Base.Kind == card.GateFold && (it.Piece || it.On != "")
				// A panel that stands up may belong to two faces.
				_, doc := v.Card.Find(it.ID)
				// Ink that is to meet the edge runs past it.
				bleeds := !it.Piece && it.On == "" && it.Kind == card.Paper
				assert.True(t, onGate || bleeds || doc.Cover != nil || b.X > -.1 && b.Y > -.1 && b.Right() < f.Width+.1 && b.Bottom() < f.Height+.1, "%s: %s hangs over", c.Title, it.Name)
				if it.Kind != card.Lettering {
					continue
				}
				assert.Empty(t, it.Words.Missing, "%s: %s", c.Title, it.Name)
				assert.True(t, onGate || f.Safe.Contains(b, .1), "%s: %s lies too near the edge", c.Title, it.Name)
				if on := f.Carrier(&it); on != nil {
					assert.True(t, on.Bounds.Contains(b, .1), "%s: %s hangs over %s", c.Title, it.Name, on.Name)
				}
			}
		}
		assert.Empty(t, check.Run(check.TheFolding, check.Input{Card: v.Card, Scene: &v.Scene}), c.Title)
		assert.True(t, fold.StudyOf(v.Card.Base).Verdict.Folds, c.Title)
		laid := sheet.Lay(v.Card, v.Scene, sheettest.Usual(sheet.Sizes()[0]), nil)
		guidetest.Plays(t, v.Card, &v.Scene, &laid, assembly.Of(v.Card, &v.Scene, &laid, measure.In), c.Title, true)
		for _, size := range sheet.Sizes()[:2] {
			l, err := a.Layout(t.Context(), c.ID, sheettest.Usual(size))
			require.NoError(t, err)
			assert.Empty(t, l.Unlaid, "%s on %s", c.Title, size.Name)
		}
	}
}

// faulty are the cards that have what a check finds.
var faulty = []string{"Before paper is spoiled", "Before the blade goes down", "Before the ink is spent", "Before the glue dries"}

// What a check finds is on a card of the demo, but for supplies that are not there any more: that
// takes a spoilt store.
func TestEveryCheckHasACardThatShowsIt(t *testing.T) {
	a := filled(t)
	found := map[check.ID][]string{}
	for _, title := range faulty {
		cards, err := a.Cards(t.Context(), title)
		require.NoError(t, err)
		require.Len(t, cards, 1, title)
		id := cards[0].ID
		v, err := a.Open(t.Context(), id)
		require.NoError(t, err)
		whole, err := a.Check(t.Context(), id)
		require.NoError(t, err)
		printed, err := a.Prints(t.Context(), id)
		require.NoError(t, err)
		setup, err := a.SheetsOf(t.Context(), id)
		require.NoError(t, err)
		opt, err := sheet.OptionsOf(setup)
		require.NoError(t, err)
		laid, err := a.Layout(t.Context(), id, opt)
		require.NoError(t, err)
		here := map[check.ID]bool{}
		for _, f := range slices.Concat(v.Findings, whole.Findings, printed.Findings, laid.Findings) {
			if !here[f.Check] {
				found[f.Check] = append(found[f.Check], title)
			}
			here[f.Check] = true
		}
		assert.GreaterOrEqual(t, len(here), 5, title)
	}
	for _, c := range check.All() {
		if c.ID != "missing" {
			assert.NotEmpty(t, found[c.ID], "%s is on no card", c.ID)
		}
	}
}

// The bunting, letters, discs and labels of the demo take less paper than their boxes
// would in rows.
func TestDemoPiecesAreLaidCloserThanInRows(t *testing.T) {
	a := filled(t)
	cards, err := a.Cards(t.Context(), "Open beds")
	require.NoError(t, err)
	require.Len(t, cards, 1)
	v, err := a.Open(t.Context(), cards[0].ID)
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[0])
	opt.Marking, opt.Turning = sheet.Unmarked, nest.Freely
	var taken, inRows float64
	for _, p := range sheet.Lay(v.Card, v.Scene, opt, nil).Nested {
		if len(p.Parts) < 2 {
			continue
		}
		s := nest.New(p)
		s.Improve(1500)
		width := p.Sheets[0].Width - 2*p.Sheets[0].Margin
		var boxes []geom.Rect
		for _, part := range p.Parts {
			boxes = append(boxes, part.Outline.Bounds())
		}
		taken += s.Best().Area/(width+p.Between) - p.Between
		inRows += coretest.Rows(boxes, width, p.Between)
	}
	assert.Less(t, taken/inRows, .85)
	t.Logf("%.3f of the rows", taken/inRows)
}

// The stamp typeface is a font as the program reads it: its letters have their squares, small ones look
// like capitals, and its file does not allow embedding.
func TestTheStampTypefaceIsAFont(t *testing.T) {
	faces, err := lettering.Read("Stamp.ttf", demo.StampFont())
	require.NoError(t, err)
	require.Len(t, faces, 1)
	assert.Equal(t, "Plum Lane Stamp", faces[0].Font.Name)
	assert.Equal(t, lettering.Restricted, faces[0].Font.Embedding)
	assert.NotEmpty(t, faces[0].Font.Licence)
	f, err := lettering.Add(faces[0], false)
	require.NoError(t, err)
	set := func(text string) geom.Path {
		s, err := lettering.Set(card.Words{Text: text, Font: f.ID, Size: 10, Leading: 1, Align: card.AlignLeft})
		require.NoError(t, err)
		assert.Empty(t, s.Missing, text)
		return s.Outline
	}
	for text, squares := range map[string]float64{"I": 7, "T": 11, "OO": 32, "L I": 18} {
		assert.InDelta(t, squares, set(text).Area(), 1e-6, "%s, of squares of 1 mm", text)
	}
	assert.InDelta(t, 0, geom.Xor(geom.NonZero, set("Supper"), set("SUPPER")).Area(), 1e-9)
}

func TestDemoPhotosAreTheSameEveryTime(t *testing.T) {
	first, err := demo.Photos()
	require.NoError(t, err)
	again, err := demo.Photos()
	require.NoError(t, err)
	require.Len(t, first, 5)
	for name, raw := range first {
		assert.Equal(t, raw, again[name], name)
		info, err := picture.Inspect(name, raw)
		require.NoError(t, err)
		want := [2]int{1800, 1200}
		switch name {
		case "Robin.png":
			want = [2]int{1400, 1400}
		case "Poster.png":
			want = [2]int{600, 400}
		}
		assert.Equal(t, want, [2]int{info.Width, info.Height}, name)
	}
}

package lettering

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

func words(text, font string) card.Words {
	return card.Words{Text: text, Font: font, Size: 10, Leading: 1.2, Align: card.AlignCentre}
}

func TestEveryFontSetsTheAlphabet(t *testing.T) {
	require.Len(t, Fonts(), 13)
	for _, f := range Fonts() {
		s, err := Set(words("Plum Lane 1926 & friends", f.ID))
		require.NoError(t, err)
		assert.Empty(t, s.Missing, f.Name)
		assert.Greater(t, s.Outline.Len(), 100, f.Name)
		b := s.Outline.Bounds()
		assert.InDelta(t, 0, b.Centre().X, 6, f.Name)
		assert.Greater(t, b.W, 40.0, f.Name)
		assert.InDelta(t, s.Block.Centre().Y, 0, 1e-9)
		assert.NotEmpty(t, File(f.ID))
		assert.Greater(t, f.Ascent, .5, f.Name)
	}
	assert.Nil(t, File("../fonts"))
}

func TestNoBreakSpaceIsASpaceAndMissingLettersAreNamed(t *testing.T) {
	for _, f := range Fonts() {
		plain, err := Set(words("a b", f.ID))
		require.NoError(t, err)
		hard, err := Set(words("a\u00a0b", f.ID))
		require.NoError(t, err)
		assert.Empty(t, hard.Missing)
		assert.InDelta(t, plain.Block.W, hard.Block.W, 1.5, f.Name)
	}
	s, err := Set(words("漢a漢", "nunito-400"))
	require.NoError(t, err)
	assert.Equal(t, "漢", s.Missing)
	_, err = Set(words("a", "no-such"))
	assert.ErrorContains(t, err, "no-such")
}

func TestLinesSpacingAndAlignment(t *testing.T) {
	w := words("one\ntwo longer", "nunito-400")
	centre, _ := Set(w)
	assert.InDelta(t, 24, centre.Block.H, 1e-9, "two lines of 1.2 times 10 mm")
	w.Align = card.AlignLeft
	left, _ := Set(w)
	assert.InDelta(t, 0, left.Block.X, 1e-9)
	w.Align = card.AlignRight
	right, _ := Set(w)
	assert.InDelta(t, 0, right.Block.Right(), 1e-9)
	w.Spacing = .1
	wide, _ := Set(w)
	assert.InDelta(t, right.Block.W+9, wide.Block.W, 1e-6, "nine gaps of 1 mm in “two longer”")
	kern, _ := Set(words("AV", "playfair-display-400"))
	a, _ := Set(words("A", "playfair-display-400"))
	v, _ := Set(words("V", "playfair-display-400"))
	assert.Less(t, kern.Block.W, a.Block.W+v.Block.W-.2, "A and V are kerned")
}

func FuzzSet(f *testing.F) {
	f.Add("Harvest Supper", 3)
	f.Add("ﬁ\u200d\u0301\n\t", 0)
	f.Fuzz(func(t *testing.T, text string, n int) {
		if len(text) > 200 {
			return
		}
		fs := Fonts()
		if _, err := Set(words(text, fs[((n%len(fs))+len(fs))%len(fs)].ID)); err != nil {
			t.Fatal(err)
		}
	})
}

func BenchmarkSet(b *testing.B) {
	for b.Loop() {
		set(words("Harvest Supper\nPlum Lane Allotments", "pacifico-400"))
	}
}

// A blade follows the outline, so no letter may lie across another.
func TestScriptIsOneOutline(t *testing.T) {
	s, err := Set(words("minimum", "great-vibes-400"))
	require.NoError(t, err)
	outer := 0
	for _, r := range s.Outline.Rings() {
		if r.Area() > 0 {
			outer++
		}
	}
	// The dots of the i are apart from the rest.
	assert.LessOrEqual(t, outer, 4)
	s, err = Set(words("minimum", "nunito-400"))
	require.NoError(t, err)
	assert.Len(t, s.Outline.Rings(), 9, "seven letters, two with a dot")
	tight := words("mmm", "nunito-400")
	tight.Spacing = -.15
	s, err = Set(tight)
	require.NoError(t, err)
	assert.Positive(t, s.Outline.Rings()[0].Area())
	assert.Len(t, geom.Union(geom.NonZero, s.Outline).Rings(), len(s.Outline.Rings()))
}

func TestALineOfWordsStandsOnItsBaseline(t *testing.T) {
	for _, f := range Fonts() {
		outline, advance, missing, err := Line(f.ID, "Hxn", 10, 0)
		require.NoError(t, err)
		assert.Empty(t, missing)
		b := outline.Bounds()
		assert.InDelta(t, 0, b.Bottom(), 2.5, "%s stands on it", f.ID)
		assert.Less(t, b.Y, -4.0, f.ID)
		assert.InDelta(t, advance, b.Right(), 4, f.ID)
		_, wide, _, err := Line(f.ID, "Hxn", 10, 2)
		require.NoError(t, err)
		assert.InDelta(t, advance+4, wide, 1e-6, "spacing lies between the letters")
	}
	_, _, missing, err := Line("nunito-400", "a\u4e2da\u4e2d", 10, 0)
	require.NoError(t, err)
	assert.Equal(t, "\u4e2d", missing, "told once")
	_, _, _, err = Line("none", "a", 10, 0)
	assert.ErrorContains(t, err, "no font")
}

func TestFontsGoByTheirFamilies(t *testing.T) {
	for name, want := range map[string]string{"Pacifico": "pacifico-400", "NUNITO": "nunito-400", "zilla slab": "zilla-slab-600", "Serif": "", "": ""} {
		id, ok := Named(name, false)
		assert.Equal(t, want, id, name)
		assert.Equal(t, want != "", ok, name)
	}
	_, ok := Named("Nunito", true)
	assert.False(t, ok, "there is no bold one")
	id, _ := Named("Fredoka", true)
	assert.Equal(t, "fredoka-700", id)
}

// Thick faces and joined scripts are known by their outlines, whatever they are called.
func TestFacesAreMeasured(t *testing.T) {
	joined := map[string]bool{"pacifico-400": true, "great-vibes-400": true, "dancing-script-700": true}
	stems := map[string]float64{}
	for _, f := range Fonts() {
		assert.Equal(t, joined[f.ID], f.Joined, f.ID)
		stems[f.ID] = f.Stem
	}
	for _, thick := range []string{"alfa-slab-one-400", "lilita-one-400", "fredoka-700"} {
		for _, thin := range []string{"nunito-400", "courier-prime-400", "great-vibes-400", "amatic-sc-700"} {
			assert.Greater(t, stems[thick], 1.2*stems[thin], "%s and %s", thick, thin)
		}
	}
	// The stem of an l is the width of its box.
	l, _, _, err := Line("lilita-one-400", "l", 1, 0)
	require.NoError(t, err)
	assert.InDelta(t, l.Bounds().W, stems["lilita-one-400"], .02)
}

// Each feature that people can choose stands for one of OpenType, and a face offers those that
// its tables have.
func TestFeaturesStandForThoseOfFonts(t *testing.T) {
	for _, f := range card.Features() {
		require.NotEmpty(t, tags[f], f)
	}
	assert.Len(t, tags, len(card.Features()))
	for _, f := range Fonts() {
		l := library()[f.ID]
		for _, offered := range f.Features {
			w := words("office 1/2 fjord", f.ID)
			w.Features = []card.Feature{offered}
			_, err := Set(w)
			require.NoError(t, err)
		}
		l.Lock()
		n := len(l.alternates('a'))
		l.Unlock()
		for alternate := range n + 2 { // one more than there are is the usual form
			w := words("a", f.ID)
			w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Alternate: alternate}}}
			s, err := Set(w)
			require.NoError(t, err)
			assert.Empty(t, s.Missing)
		}
	}
	off := words("fi", "zilla-slab-600")
	with, err := Set(off)
	require.NoError(t, err)
	off.Features = []card.Feature{card.NoLigatures}
	without, err := Set(off)
	require.NoError(t, err)
	assert.Len(t, with.Carets, 3)
	assert.Len(t, without.Carets, 3, "a ligature has a caret within")
}

// Of words whose typeface is gone the plain one is taken, and numbers of other forms of its letters with it;
// runs in a typeface that is there keep theirs.
func TestWordsAreSetInWhatIsAtHand(t *testing.T) {
	w := card.Words{Text: "Plum jam", Font: "gone", Size: 8, Leading: 1, Runs: []card.Run{
		{From: 0, To: 1, Style: card.Style{Alternate: 2}},
		{From: 1, To: 2, Style: card.Style{Font: "pacifico-400", Alternate: 3}},
		{From: 2, To: 3, Style: card.Style{Font: "gone too", Alternate: 4}}}}
	at := AtHand(w)
	assert.Equal(t, Plain(), at.Font)
	assert.Equal(t, []card.Style{{}, {Font: "pacifico-400", Alternate: 3}, {Font: Plain()}}, []card.Style{at.Runs[0].Style, at.Runs[1].Style, at.Runs[2].Style})
	assert.Equal(t, "gone too", w.Runs[2].Font, "what was given is as it was")
	w.Font, w.Runs = "pacifico-400", w.Runs[:2]
	assert.Equal(t, w, AtHand(w), "nothing is gone")
}

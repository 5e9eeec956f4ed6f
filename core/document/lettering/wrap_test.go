package lettering

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

func boxed(text string, width, height float64) card.Words {
	w := words(text, "nunito-400")
	w.Size, w.Align = 5, card.AlignLeft
	w.Box = &card.TextBox{Width: width, Height: height}
	return w
}

// linesOf are the lines of words as text.
func linesOf(w card.Words, size float64) []string {
	s := newShaper(w)
	var out []string
	for _, l := range s.lines(w.Box.Width / size) {
		out = append(out, string(s.text[l.from:l.to]))
	}
	return out
}

const invitation = "Come and pick plums with us on Saturday, bring a basket, an apron and somebody who likes jam. There will be soup at noon."

// Random boxes: every character is in one line, none is wider than the box unless it is one
// word, and no line could have taken the first word of the next.
func TestParagraphsFillTheirLines(t *testing.T) {
	rng := rand.New(rand.NewPCG(2, 6))
	for range 60 {
		w := boxed(invitation, 12+rng.Float64()*90, 0)
		w.Spacing = float64(rng.IntN(3)) / 50
		w.Font = Fonts()[rng.IntN(13)].ID
		lines := linesOf(w, w.Size)
		require.Equal(t, invitation, strings.Join(lines, ""))
		wide := func(text string) float64 {
			v := w
			v.Box, v.Text = nil, strings.TrimRight(text, " ")
			s, err := Set(v)
			require.NoError(t, err)
			return s.Block.W
		}
		for i, l := range lines {
			if strings.Contains(strings.TrimSpace(l), " ") {
				require.LessOrEqual(t, wide(l), w.Box.Width+.05, l)
			}
			if i+1 < len(lines) {
				next := strings.SplitAfter(lines[i+1], " ")[0]
				require.Greater(t, wide(l+next), w.Box.Width-.05, "%q has room for %q", l, next)
			}
		}
		s, err := Set(w)
		require.NoError(t, err)
		assert.Equal(t, w.Box.Width, s.Block.W)
		assert.InDelta(t, float64(len(lines))*w.Leading*w.Size, s.Block.H, 1e-9)
	}
}

func TestJustifiedLinesReachBothEdges(t *testing.T) {
	w := boxed(invitation+"\nAll are welcome", 50, 0)
	w.Align = card.AlignJustify
	s := newShaper(w)
	lines := s.lines(10)
	for i := range lines {
		bare := lines[i].advance
		s.justify(&lines[i], 10)
		end := lines[i].clusters[len(lines[i].clusters)-1].right
		if lines[i].wrapped {
			assert.InDelta(t, 10, end, 1e-9)
		} else {
			assert.InDelta(t, bare, end, 1e-9, "the last line of a paragraph stays")
		}
	}
	assert.False(t, lines[len(lines)-1].wrapped)
	set, err := Set(w)
	require.NoError(t, err)
	assert.Zero(t, set.Over)
}

func TestWordsBreakAtSoftHyphensByChoiceAlone(t *testing.T) {
	w := boxed("Apfel\u00adbaum\u00adgarten", 17, 0)
	assert.Len(t, linesOf(w, w.Size), 1)
	s, err := Set(w)
	require.NoError(t, err)
	assert.Positive(t, s.Over, "it is longer than its box, and says so")
	assert.Empty(t, s.Missing)
	w.Box.Hyphenate = true
	assert.Equal(t, []string{"Apfel\u00ad", "baum\u00ad", "garten"}, linesOf(w, w.Size))
	broken, err := Set(w)
	require.NoError(t, err)
	assert.Zero(t, broken.Over)
	plain := words("Apfelbaumgarten", "nunito-400")
	plain.Size = 5
	whole, err := Set(plain)
	require.NoError(t, err)
	assert.InDelta(t, 2*hyphenArea(t, 5), broken.Outline.Area()-whole.Outline.Area(), .35, "each break has a hyphen")
}

// hyphenArea is the area of a hyphen of a size.
func hyphenArea(t *testing.T, size float64) float64 {
	t.Helper()
	outline, _, _, err := Line("nunito-400", "-", size, 0)
	require.NoError(t, err)
	return outline.Area()
}

// As large as fits: the words have room at that size and not at one a hundredth larger.
func TestLettersAreAsLargeAsFits(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 7))
	for range 40 {
		w := boxed(invitation[:10+rng.IntN(len(invitation)-10)], 20+rng.Float64()*80, 10+rng.Float64()*60)
		w.Box.Fit, w.Box.Unwrapped = true, rng.IntN(2) == 0
		w.Font = Fonts()[rng.IntN(13)].ID
		s, err := Set(w)
		require.NoError(t, err)
		require.Zero(t, s.Over)
		require.Equal(t, geom.Centred(w.Box.Width, w.Box.Height), s.Block)
		w.Box.Fit, w.Size = false, s.Size
		at, err := Set(w)
		require.NoError(t, err)
		require.Less(t, at.Over, 1e-6)
		w.Size = s.Size * 1.01
		larger, err := Set(w)
		require.NoError(t, err)
		require.Positive(t, larger.Over, "%q in %v at %v", w.Text, *w.Box, s.Size)
	}
}

// Letters that fit are held to a number of lines and to a least size; what has no room so is larger than
// its box by the lines that are too many, or by what is too wide.
func TestLettersThatFitAreHeldToLinesAndToALeastSize(t *testing.T) {
	w := boxed("Bartholomew Quillfeather", 40, 40)
	w.Box.Fit = true
	size := func(lines int, least float64) (float64, float64) {
		w.Box.Lines, w.Box.Least = lines, least
		s, err := Set(w)
		require.NoError(t, err)
		return s.Size, s.Over
	}
	free, over := size(0, 0)
	require.Zero(t, over)
	one, over := size(1, 0)
	require.Zero(t, over)
	two, over := size(2, 0)
	require.Zero(t, over)
	assert.Less(t, one, two)
	assert.InDelta(t, free, two, 1e-9, "two words take two lines")
	w.Box.Most = two / 2
	half, over := size(2, 0)
	assert.InDelta(t, two/2, half, 1e-9)
	require.Zero(t, over)
	w.Box.Most = 0
	held, over := size(1, one*1.2)
	assert.InDelta(t, one*1.2, held, 1e-9)
	assert.InDelta(t, held*w.Leading, over, 1e-9, "one line is too many")
	held, over = size(2, two*1.1)
	assert.InDelta(t, two*1.1, held, 1e-9)
	assert.Positive(t, over)
	_, over = size(2, two*.9)
	assert.Zero(t, over)
}

func TestWordsThatAreTooManyForTheirBoxSaySo(t *testing.T) {
	w := boxed(invitation, 30, 12)
	s, err := Set(w)
	require.NoError(t, err)
	n := len(linesOf(w, w.Size))
	assert.InDelta(t, float64(n)*6-12, s.Over, 1e-9)
	assert.Greater(t, s.Outline.Bounds().H, 20.0, "and all of them are seen")
	w = boxed("Mississippi", 10, 0)
	s, err = Set(w)
	require.NoError(t, err)
	assert.InDelta(t, s.Carets[11].At.X-s.Carets[0].At.X-10, s.Over, 1e-9)
}

func TestSingleLettersAreSetOtherwise(t *testing.T) {
	w := words("H2O", "nunito-400")
	w.Align = card.AlignLeft
	plain, err := Set(w)
	require.NoError(t, err)
	w.Runs = []card.Run{{From: 1, To: 2, Style: card.Style{Stand: card.LoweredLetters}}}
	low, err := Set(w)
	require.NoError(t, err)
	two := func(s Setting) float64 { return s.Carets[2].At.X - s.Carets[1].At.X }
	assert.InDelta(t, .6*two(plain), two(low), .05)
	assert.Greater(t, low.Outline.Bounds().Bottom(), plain.Outline.Bounds().Bottom()+1)

	w = words("AVE", "playfair-display-400")
	w.Align = card.AlignLeft
	plain, _ = Set(w)
	w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Kern: .07}}}
	apart, err := Set(w)
	require.NoError(t, err)
	for i := range plain.Carets {
		by := .7
		if i == 0 {
			by = 0
		}
		assert.InDelta(t, plain.Carets[i].At.X+by, apart.Carets[i].At.X, 1e-9, "the pair is still kerned by its font")
	}
	w.Runs[0].Style = card.Style{Font: "alfa-slab-one-400", Scale: 2}
	big, err := Set(w)
	require.NoError(t, err)
	assert.Greater(t, big.Outline.Bounds().H, 1.8*plain.Outline.Bounds().H)
	w.Runs[0].Font = "none"
	_, err = Set(w)
	assert.ErrorContains(t, err, "there is no font “none”")
}

// Inks of letters part what is covered without rest or overlap, but where letters overlap.
func TestLettersHaveInksOfTheirOwn(t *testing.T) {
	w := words("Plum Lane\nJam", "alfa-slab-one-400")
	for by, want := range map[card.ColourBy]int{card.ByLine: 2, card.ByWord: 3, card.ByLetter: 3} {
		w.Colours, w.ColourBy = []string{"#aa0000", "#00aa00", "#0000aa"}, by
		w.Runs = nil
		s, err := Set(w)
		require.NoError(t, err)
		require.Len(t, s.Parts, want, by)
		assert.True(t, s.Rest.Empty())
		sum := 0.0
		for _, p := range s.Parts {
			sum += p.Outline.Area()
		}
		assert.InDelta(t, s.Outline.Area(), sum, 1e-3, by)
	}
	// The third of P l u, m L a, n e J, a m is u, a and J.
	w.Colours, w.ColourBy = []string{"#aa0000", "#00aa00", "#0000aa"}, card.ByLetter
	s, err := Set(w)
	require.NoError(t, err)
	third := 0.0
	for _, r := range "uaJ" {
		outline, _, _, err := Line(w.Font, string(r), w.Size, 0)
		require.NoError(t, err)
		third += outline.Area()
	}
	assert.InDelta(t, third, s.Parts[2].Outline.Area(), 1e-3)

	w.Colours, w.ColourBy = nil, ""
	w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Colour: "#123456"}}}
	s, err = Set(w)
	require.NoError(t, err)
	require.Len(t, s.Parts, 1)
	assert.InDelta(t, s.Outline.Area(), s.Rest.Area()+s.Parts[0].Outline.Area(), 1e-3)
}

// Letters that run from right to left are seen in their order, numbers within them in theirs;
// the direction of a paragraph follows from its first letter.
func TestRunsOfBothDirectionsAreSeenInTheirOrder(t *testing.T) {
	for _, k := range []struct{ text, seen string }{
		{"abc", "abc"},
		{"אבג", "<אבג"},
		{"ab אבג cd", "ab |<אבג| cd"},
		{"אב ab גד", "<גד | ab |<אב"},
		{"ab אב 12 גד ef", "ab |<גד |12|<אב | ef"},
		{"אב 12 גד", "<גד |12|<אב "},
		{"12 ab", "12 ab"},
	} {
		text := []rune(k.text)
		var seen []string
		for _, d := range directions(text, paragraphBackward(text, 0)) {
			s := string(text[d.from:d.to])
			if d.backward {
				s = "<" + s
			}
			seen = append(seen, s)
		}
		is := strings.Join(seen, "|")
		assert.Equal(t, strings.ReplaceAll(k.seen, " ", ""), strings.ReplaceAll(is, " ", ""), k.text)
	}
	assert.False(t, paragraphBackward([]rune("ab\nאב"), 1))
	assert.True(t, paragraphBackward([]rune("ab\nאב"), 4))
}

// Carets stand in the order of the letters, at both ends of every line; a ligature is divided.
func TestCaretsStandBetweenLetters(t *testing.T) {
	for _, f := range Fonts() {
		w := words("office file\nfjord", f.ID)
		s, err := Set(w)
		require.NoError(t, err)
		require.Len(t, s.Carets, 18)
		for i := 1; i < 18; i++ {
			if i != 12 {
				require.Greater(t, s.Carets[i].At.X, s.Carets[i-1].At.X, "%s, %d", f.ID, i)
			}
		}
		assert.InDelta(t, w.Leading*w.Size, s.Carets[12].At.Y-s.Carets[0].At.Y, 1e-9)
		assert.InDelta(t, -f.Ascent*w.Size, s.Carets[0].Up.Y, 1e-9)
	}
}

func FuzzSetInABox(f *testing.F) {
	f.Add("Harvest\u00ad Supper אבג 12", 30.0, 10.0, 3, 5)
	f.Add("\n\n a\u0301 \u200d\ufe0f", 5.0, 0.0, 0, 1)
	f.Fuzz(func(t *testing.T, text string, width, height float64, n, to int) {
		if len(text) > 120 || !(width >= 1 && width <= 1000) || height != 0 && !(height >= 1 && height <= 1000) {
			return
		}
		w := boxed(text, width, height)
		w.Align = []card.Align{card.AlignLeft, card.AlignJustify, card.AlignRight}[n&1]
		w.Box.Fit, w.Box.Hyphenate = height > 0 && n&2 != 0, n&4 != 0
		w.Colours, w.ColourBy = []string{"#112233", "#332211"}, card.ByLetter
		if runes := len([]rune(text)); to > 0 && to <= runes {
			w.Runs = []card.Run{{From: 0, To: to, Style: card.Style{Scale: 1.5, Kern: .1}}}
		}
		s, err := Set(w)
		if err != nil {
			t.Fatal(err)
		}
		if len(s.Carets) != len([]rune(text))+1 || s.Outline.Check() != nil {
			t.Fatalf("%d carets for %q", len(s.Carets), text)
		}
	})
}

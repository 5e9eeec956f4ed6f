package card_test

import (
	"encoding/json"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
)

// lettered is a card with one lettering, i1.
func lettered(t *testing.T, text string) card.Card {
	t.Helper()
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 80},
		Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Words: &card.Words{Text: text, Font: "nunito-400", Size: 9, Leading: 1.2, Align: card.AlignCentre}}}})
	require.NoError(t, err)
	return c
}

func wordsOf(c card.Card) card.Words {
	_, it := c.Find("i1")
	return *it.Words
}

// Random styles of random stretches give every character what it would have had if each had
// a style of its own; runs stay sorted, apart and as few as there can be.
func TestLettersHaveTheStyleThatWasGivenToThem(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 8))
	for range 200 {
		text := []rune("Plum Läne 1926 – friends")
		c := lettered(t, string(text))
		want := make([]card.Style, len(text))
		for range 1 + rng.IntN(8) {
			from := rng.IntN(len(text))
			k := card.StyleLetters{ID: "i1", From: from, To: from + 1 + rng.IntN(len(text)-from)}
			last := k.To - 1
			switch rng.IntN(5) {
			case 0:
				k.Scale = new([]float64{.5, 1, 2}[rng.IntN(3)])
			case 1:
				k.Colour = new([]string{"", "#a8432a", "#587a4a"}[rng.IntN(3)])
			case 2:
				k.Kern = new(float64(rng.IntN(3)) / 100)
			case 3:
				k.Stand = new([]card.Stand{card.OnBaseline, card.RaisedLetters}[rng.IntN(2)])
			case 4:
				k.Features = new([][]card.Feature{nil, {card.Swashes}}[rng.IntN(2)])
			}
			for i := k.From; i < k.To; i++ {
				if k.Scale != nil {
					want[i].Scale = *k.Scale
					if *k.Scale == 1 {
						want[i].Scale = 0
					}
				}
				if k.Colour != nil {
					want[i].Colour = *k.Colour
				}
				if k.Stand != nil {
					want[i].Stand = *k.Stand
				}
				if k.Features != nil {
					want[i].Features = *k.Features
				}
			}
			if k.Kern != nil {
				want[last].Kern = *k.Kern
			}
			var err error
			c, err = card.Apply(c, k)
			require.NoError(t, err)
		}
		w := wordsOf(c)
		for i := range text {
			require.Equal(t, want[i], w.StyleAt(i), "%d of %+v", i, w.Runs)
		}
		for i, r := range w.Runs {
			require.Less(t, r.From, r.To)
			require.NotEqual(t, card.Style{}, r.Style)
			if i > 0 && w.Runs[i-1].To == r.From && r.Kern == 0 {
				require.NotEqual(t, w.Runs[i-1].Style, r.Style, "neighbours that are alike are one")
			}
		}
		raw, err := json.Marshal(c)
		require.NoError(t, err)
		back, err := card.Parse(raw)
		require.NoError(t, err)
		require.Equal(t, c, back)
	}
}

// What was typed before, within and after a stretch with a style of its own leaves each letter
// that stays with its style.
func TestStylesStayWithTheirLettersWhenTheTextChanges(t *testing.T) {
	for _, k := range []struct{ is, coloured string }{
		{"one TWO three", "TWO"},
		{"one more TWO three", "TWO"},
		{"one TWO or three", "TWO"},
		{"one TWENTY three", "TWENTY"},
		{"one TO three", "TO"},
		{"TWO three", "TWO"},
		{"one TWO", "TWO"},
		{"one T", "T"},
		{"one three", ""},
		{"other", ""},
		{"one TWO\nthree", "TWO"},
	} {
		c := lettered(t, "one TWO three")
		c, err := card.Apply(c, card.StyleLetters{ID: "i1", From: 4, To: 7, Colour: new("#a8432a")})
		require.NoError(t, err)
		before := wordsOf(c)
		d, err := card.Apply(c, card.SetText{ID: "i1", Text: k.is})
		require.NoError(t, err)
		w := wordsOf(d)
		var coloured []rune
		for i, r := range []rune(k.is) {
			if w.StyleAt(i).Colour != "" {
				coloured = append(coloured, r)
			}
		}
		assert.Equal(t, k.coloured, string(coloured), k.is)
		assert.Equal(t, before, wordsOf(c), "the card before is as it was")
	}
}

// Any edit of any text leaves runs within it, and leaves the style of what is the same at its
// ends.
func TestRunsStaySoundWhateverIsTyped(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 2))
	letters := []rune("ab cé漢")
	some := func() []rune {
		out := make([]rune, 1+rng.IntN(12))
		for i := range out {
			out[i] = letters[rng.IntN(len(letters))]
		}
		out[0] = 'a'
		return out
	}
	for range 3000 {
		was := some()
		w := card.Words{Text: string(was)}
		for at := rng.IntN(4); at < len(was); {
			to := min(len(was), at+1+rng.IntN(4))
			w.Runs = append(w.Runs, card.Run{From: at, To: to, Style: card.Style{Scale: 2 + float64(rng.IntN(2))}})
			at = to + rng.IntN(3)
		}
		// A stretch is replaced by another.
		from := rng.IntN(len(was) + 1)
		to := from + rng.IntN(len(was)-from+1)
		put := some()[:rng.IntN(2)]
		is := slices.Concat(was[:from], put, was[to:])
		v := w.WithText(string(is))
		at := 0
		for _, r := range v.Runs {
			require.GreaterOrEqual(t, r.From, at)
			require.Greater(t, r.To, r.From)
			require.LessOrEqual(t, r.To, len(is))
			at = r.To
		}
		head := 0
		for head < min(len(was), len(is)) && was[head] == is[head] {
			head++
		}
		for i := range head {
			require.Equal(t, w.StyleAt(i), v.StyleAt(i), "%q %v to %q %v", string(was), w.Runs, string(is), v.Runs)
		}
		for i := 1; i <= min(len(was), len(is))-head && was[len(was)-i] == is[len(is)-i]; i++ {
			require.Equal(t, w.StyleAt(len(was)-i), v.StyleAt(len(is)-i), "%q %v to %q %v", string(was), w.Runs, string(is), v.Runs)
		}
	}
}

// Words grow with all that they are set by; those in a box are made wider without it.
func TestWordsAreResized(t *testing.T) {
	set := func(change func(*card.Words)) card.Card {
		c := lettered(t, "Plum Lane")
		w := wordsOf(c)
		change(&w)
		c, err := card.Apply(c, card.SetWords{ID: "i1", Words: w})
		require.NoError(t, err)
		return c
	}
	twice := func(c card.Card) card.Words {
		c, err := card.Apply(c, card.ResizeItems{IDs: []string{"i1"}, FX: 2, FY: 2})
		require.NoError(t, err)
		return wordsOf(c)
	}
	w := twice(set(func(w *card.Words) { w.Path = &card.TextPath{Radius: 30, Away: 2} }))
	assert.InDelta(t, 18, w.Size, 1e-9)
	assert.InDelta(t, 60, w.Path.Radius, 1e-9)
	assert.InDelta(t, 4, w.Path.Away, 1e-9)
	line := coretest.Path(t, "M-10 0C-5 -8 5 -8 10 0")
	w = twice(set(func(w *card.Words) { w.Path = &card.TextPath{Line: card.NewDrawn(line)} }))
	assert.InDelta(t, 2*line.Length(), w.Path.Line.Path().Length(), 1e-4)

	boxed := set(func(w *card.Words) { w.Box = &card.TextBox{Width: 30, Height: 20} })
	c, err := card.Apply(boxed, card.ResizeItems{IDs: []string{"i1"}, FX: 1.5, FY: 1})
	require.NoError(t, err)
	w = wordsOf(c)
	assert.InDelta(t, 45, w.Box.Width, 1e-9)
	assert.InDelta(t, 20, w.Box.Height, 1e-9)
	assert.InDelta(t, 9, w.Size, 1e-9, "the letters stay")
	refused(t, set(func(*card.Words) {}), card.ResizeItems{IDs: []string{"i1"}, FX: 1.5, FY: 1}, "size", "keeps its proportions")
	refused(t, boxed, card.StyleLetters{ID: "i1", From: 3, To: 30}, "from", "There are 9 letters")
}

// Every ink of words counts as one of the card, and is changed with the others.
func TestInksOfLettersAreColoursOfTheCard(t *testing.T) {
	c := lettered(t, "Plum")
	w := wordsOf(c)
	w.Colours, w.ColourBy = []string{"#112233", "#445566"}, card.ByLetter
	w.Runs = []card.Run{{From: 1, To: 2, Style: card.Style{Colour: "#778899"}}}
	c, err := card.Apply(c, card.SetWords{ID: "i1", Words: w})
	require.NoError(t, err)
	_, it := c.Find("i1")
	assert.Equal(t, []string{"#35658c", "#112233", "#445566", "#778899"}, it.Colours())
	d, err := card.Apply(c, card.Recolour{From: []string{"#445566"}, To: "#000000"})
	require.NoError(t, err)
	assert.Equal(t, []string{"#112233", "#000000"}, wordsOf(d).Colours)
	assert.Equal(t, []string{"#112233", "#445566"}, wordsOf(c).Colours, "the card before is as it was")
}

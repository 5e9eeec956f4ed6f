package app_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
	"sectilis/core/ground/edging"
)

// handed is a card made with a paper, a stock, a motif, a font and a picture of a person's own, and its file.
func handed(t *testing.T) (*fixture, app.View, []byte) {
	t.Helper()
	f, id, a := stocked(t)
	fonts, err := f.BringInFont(t.Context(), "Own.woff", lettering.File("amatic-sc-700"))
	require.NoError(t, err)
	stock := card.AllStocks()[len(card.AllStocks())-1]
	require.True(t, stock.Own)
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	v, err = f.LayArt(t.Context(), id, v.Revision, app.LaidArt{Art: a.ID, Face: card.Back})
	require.NoError(t, err)
	_, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Patch", Kind: card.Paper, Place: card.Place{X: 40, Y: 40}, Made: card.Made{As: card.Cut, Stock: stock.ID}, Fill: card.Fill{Paper: pattern.Papers()[0].ID},
			Form: &card.Form{Outline: card.Rectangle, Width: 30, Height: 20, Corner: card.Square}, Edging: &edging.Edging{Motif: edging.All()[0].ID, Depth: 3}},
		{Name: "Hello", Kind: card.Lettering, Place: card.Place{X: 40, Y: 80}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#41505f"},
			Words: &card.Words{Text: "Hello", Font: fonts[0].ID, Size: 8, Leading: 1, Align: card.AlignLeft}},
	}}})
	require.NoError(t, err)
	require.NoError(t, f.NoteSupply(t.Context(), app.Supply{Kind: "paper", ID: pattern.Papers()[0].ID, Rights: app.PersonalUse, Favourite: true}))
	require.NoError(t, f.NoteSupply(t.Context(), app.Supply{Kind: "lettering", ID: fonts[0].ID, Rights: app.CreditDue, Credit: "Lettering by Ida Quince"}))
	v, err = f.Open(t.Context(), id)
	require.NoError(t, err)
	var file bytes.Buffer
	require.NoError(t, f.WriteCard(t.Context(), &file, id))
	return f, v, file.Bytes()
}

// forgotten is another program, which knows nothing of the supplies of the first.
func forgotten(t *testing.T) *fixture {
	t.Helper()
	pattern.Know(nil)
	edging.Know(nil)
	card.KnowStocks(nil)
	return start(t)
}

// A card that is handed on comes to another table as it is, with all that it is made with, once.
func TestACardIsHandedOnWithAllItIsMadeWith(t *testing.T) {
	f, v, raw := handed(t)
	credits, err := f.Credits(t.Context(), v.ID)
	require.NoError(t, err)
	assert.Equal(t, "by me\nLettering by Ida Quince", credits.Text)
	assert.Equal(t, []string{"Wall"}, credits.Personal)
	made := map[string]app.Credit{}
	for _, k := range credits.All {
		made[k.Kind+" "+k.Name] = k
	}
	assert.Equal(t, "by me", made["art Noted"].Line)
	assert.Equal(t, app.PersonalUse, made["paper Wall"].Rights)
	assert.True(t, made["paper Leaf drift"].Ships)
	assert.False(t, made["edging Ovals"].Ships)

	other := forgotten(t)
	in, err := other.ReadCard(t.Context(), bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	assert.Empty(t, in.Notes)
	got, err := other.Open(t.Context(), in.ID)
	require.NoError(t, err)
	assert.Equal(t, v.Card, got.Card)
	assert.Equal(t, v.Scene.Thickness, got.Scene.Thickness, "its stocks came along")
	notes, err := other.Supplies(t.Context())
	require.NoError(t, err)
	for _, n := range notes {
		assert.False(t, n.Favourite, n.Name)
	}
	there, err := other.Credits(t.Context(), in.ID)
	require.NoError(t, err)
	assert.Equal(t, credits.Personal, there.Personal)
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	fonts := 0
	for _, f := range z.File {
		if strings.HasPrefix(f.Name, "fonts/") {
			fonts++
		}
	}
	assert.Equal(t, 1, fonts)
	again, err := other.ReadCard(t.Context(), bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	assert.NotEqual(t, in.ID, again.ID, "it is another card of the same")
	stocks, err := other.Stocks(t.Context())
	require.NoError(t, err)
	own := 0
	for _, s := range stocks {
		if s.Own && strings.HasPrefix(s.ID, "own-") {
			own++
		}
	}
	assert.Equal(t, 1, own)

	text, err := z.Open("credits.txt")
	require.NoError(t, err)
	said, err := io.ReadAll(text)
	require.NoError(t, err)
	assert.Contains(t, string(said), "Credits\nby me\nLettering by Ida Quince\n")
	assert.Contains(t, string(said), "- Wall (paper): for personal use only")
}

func TestSpoiltFilesOfCardsAreToldOf(t *testing.T) {
	_, _, raw := handed(t)
	doc := func(change func(c map[string]any)) []byte {
		return rezipped(t, raw, func(name string, was []byte) []byte {
			if name != "card.json" {
				return was
			}
			var c map[string]any
			require.NoError(t, json.Unmarshal(was, &c))
			change(c)
			now, err := json.Marshal(c)
			require.NoError(t, err)
			return now
		})
	}
	leave := func(prefix string) []byte {
		return rezipped(t, raw, func(n string, was []byte) []byte {
			return map[bool][]byte{true: nil, false: was}[strings.HasPrefix(n, prefix)]
		})
	}
	for name, c := range map[string]struct {
		raw         []byte
		says, notes string
	}{
		"no ZIP":        {[]byte("words"), "no file of a card", ""},
		"no card":       {leave("card.json"), "no file of a card", ""},
		"no supplies":   {leave("supplies.json"), "no file of supplies", ""},
		"a newer one":   {doc(func(c map[string]any) { c["schema"] = 9 }), "newer version", ""},
		"a spoilt card": {doc(func(c map[string]any) { c["title"] = "" }), "cannot be taken", ""},
		"no pictures":   {leave("pictures/"), "is not there", ""},
		"no font": {rezipped(t, raw, func(n string, was []byte) []byte {
			if n != "card.json" {
				return was
			}
			return bytes.ReplaceAll(was, []byte(`"font":"own-`), []byte(`"font":"own-gone`))
		}), "", "set in another"},
		"an unknown stock": {doc(func(c map[string]any) { c["base"].(map[string]any)["stock"] = "own-none" }), "There is no stock", ""},
	} {
		other := forgotten(t)
		in, err := other.ReadCard(t.Context(), bytes.NewReader(c.raw), int64(len(c.raw)))
		cards, listed := other.Cards(t.Context(), "")
		require.NoError(t, listed)
		if c.says != "" {
			var refused *card.Refusal
			require.ErrorAs(t, err, &refused, name)
			assert.Contains(t, refused.Why, c.says, name)
			assert.Empty(t, cards, name)
			continue
		}
		require.NoError(t, err, name)
		assert.Contains(t, strings.Join(in.Notes, "\n"), c.notes, name)
		assert.Len(t, cards, 1, name)
	}
}

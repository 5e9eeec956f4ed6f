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
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/ground/edging"
)

// stocked is a program with something of each kind of supply, and the card that they are on.
func stocked(t *testing.T) (*fixture, string, app.Art) {
	t.Helper()
	f := start(t)
	id := f.card()
	raw, _ := coretest.Photo(t, 80, 50)
	in, err := f.ReadPaper(t.Context(), "Wall.jpg", raw)
	require.NoError(t, err)
	_, err = f.AddPaper(t.Context(), app.NewPaper{Name: "Wall", Picture: in.Picture, Width: 40, Height: 25, Mirrored: true})
	require.NoError(t, err)
	_, err = f.AddStock(t.Context(), felt())
	require.NoError(t, err)
	_, err = f.MakeMotif(t.Context(), id, app.NewMotif{Face: card.Back, Item: "i6", Name: "Ovals"})
	require.NoError(t, err)
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	var all []string
	for _, it := range v.Card.Face(card.Front).Items {
		all = append(all, it.ID)
	}
	a, err := f.KeepArt(t.Context(), id, app.KeptThings{Face: card.Front, IDs: all, Name: "The front"})
	require.NoError(t, err)
	_, err = f.KeepSketch(t.Context(), id, app.NewSketch{Title: "Start", Face: card.Front})
	require.NoError(t, err)
	require.NoError(t, f.NoteSupply(t.Context(), app.Supply{Kind: "art", ID: a.ID, Name: "Noted", Tags: []string{"red"}, Rights: app.CreditDue, Credit: "by me"}))
	return f, id, a
}

// All supplies go out as one file and come in at another program, once: pictures, papers, motifs, stocks,
// art and sketches, with what was noted of them.
func TestSuppliesGoOutAndComeIn(t *testing.T) {
	f, _, a := stocked(t)
	paper, motif := pattern.Papers()[0], edging.All()[0]
	var file bytes.Buffer
	require.NoError(t, f.WriteSupplies(t.Context(), &file))
	raw := file.Bytes()

	pattern.Know(nil)
	edging.Know(nil)
	card.KnowStocks(nil)
	other := start(t)
	in, err := other.ReadSupplies(t.Context(), bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	assert.Empty(t, in.Notes)
	assert.Equal(t, 2+1+1+1+1+1, in.Added, "two pictures and one of each other kind")
	got, ok := pattern.ByID(paper.ID)
	require.True(t, ok)
	assert.Equal(t, paper, got)
	_, ok = edging.ByID(motif.ID)
	assert.True(t, ok)
	stocks, err := other.Stocks(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "Grey felt", stocks[len(stocks)-1].Name)
	art, err := other.AllArt(t.Context())
	require.NoError(t, err)
	assert.Equal(t, a.ID, art[0].ID)
	id, err := other.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	_, err = other.LayArt(t.Context(), id, 1, app.LaidArt{Art: a.ID, Face: card.Front})
	require.NoError(t, err, "with its pictures")
	notes, err := other.Supplies(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "by me", notes[0].Credit)
	again, err := other.ReadSupplies(t.Context(), bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	assert.Equal(t, app.SuppliesIn{Notes: []string{}}, again, "what is there stays as it is")
}

// rezipped is a ZIP with some of its files changed; nil takes one out.
func rezipped(t *testing.T, raw []byte, change func(name string, raw []byte) []byte) []byte {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		was, err := io.ReadAll(r)
		require.NoError(t, err)
		if now := change(f.Name, was); now != nil {
			out, err := w.Create(f.Name)
			require.NoError(t, err)
			_, err = out.Write(now)
			require.NoError(t, err)
		}
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

func TestSpoiltFilesOfSuppliesAreToldOf(t *testing.T) {
	f, _, _ := stocked(t)
	var file bytes.Buffer
	require.NoError(t, f.WriteSupplies(t.Context(), &file))
	raw := file.Bytes()
	list := func(change func(l map[string]any)) []byte {
		return rezipped(t, raw, func(name string, was []byte) []byte {
			if name != "supplies.json" {
				return was
			}
			var l map[string]any
			require.NoError(t, json.Unmarshal(was, &l))
			change(l)
			now, err := json.Marshal(l)
			require.NoError(t, err)
			return now
		})
	}
	first := func(l map[string]any, kind string) map[string]any { return l[kind].([]any)[0].(map[string]any) }
	for name, c := range map[string]struct {
		raw   []byte
		says  string
		notes string
	}{
		"no ZIP":      {[]byte("words"), "no file of supplies", ""},
		"cut off":     {raw[:len(raw)/2], "no file of supplies", ""},
		"another ZIP": {rezipped(t, raw, func(n string, was []byte) []byte { return map[bool][]byte{true: nil, false: was}[n == "supplies.json"] }), "no file of supplies", ""},
		"a newer one": {list(func(l map[string]any) { l["version"] = 9 }), "newer version", ""},
		"no pictures": {rezipped(t, raw, func(n string, was []byte) []byte {
			return map[bool][]byte{true: nil, false: was}[strings.HasPrefix(n, "pictures/")]
		}), "", "its file is missing"},
		"broken pictures": {rezipped(t, raw, func(n string, was []byte) []byte {
			return map[bool][]byte{true: was[:20], false: was}[strings.HasPrefix(n, "pictures/")]
		}), "", "damaged"},
		"a huge paper":   {list(func(l map[string]any) { first(l, "papers")["width"] = 1e9 }), "", "between 2 mm"},
		"a spoilt motif": {list(func(l map[string]any) { first(l, "motifs")["outline"] = "M0 0L10 0" }), "", "“Ovals” was left out"},
		"a spoilt stock": {list(func(l map[string]any) { first(l, "stocks")["thickness"] = -1 }), "", "“Grey felt” was left out"},
	} {
		pattern.Know(nil)
		edging.Know(nil)
		card.KnowStocks(nil)
		other := start(t)
		in, err := other.ReadSupplies(t.Context(), bytes.NewReader(c.raw), int64(len(c.raw)))
		if c.says != "" {
			var refused *card.Refusal
			require.ErrorAs(t, err, &refused, name)
			assert.Contains(t, refused.Why, c.says, name)
			continue
		}
		require.NoError(t, err, name)
		assert.Contains(t, strings.Join(in.Notes, "\n"), c.notes, name)
	}
}

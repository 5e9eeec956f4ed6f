package card_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// framed is a card with photos of some sizes side by side, i1 and on, turned alike.
func framed(t *testing.T, turn float64, sizes ...[2]float64) (card.Card, []string) {
	t.Helper()
	c, err := card.New("Framed", card.Base{Kind: card.SideFold, Width: 200, Height: 200, Stock: "cream-300"})
	require.NoError(t, err)
	var items []card.Item
	var ids []string
	at := geom.Turn(turn * 3.141592653589793 / 180)
	x := 0.0
	for i, s := range sizes {
		p := at.Apply(geom.Pt(x+s[0]/2, 0)).Add(geom.Pt(50, 90))
		x += s[0] + 6
		items = append(items, card.Item{Name: "Photo", Kind: card.Photo, Place: card.Place{X: p.X, Y: p.Y, Turn: turn}, Made: card.Made{As: card.Cut, Stock: "satin-240"},
			Photo: &card.Print{Picture: digest, PixelWidth: 600, PixelHeight: 400, Width: s[0], Height: s[1]}})
		ids = append(ids, "i"+string(rune('1'+i)))
	}
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: items})
	require.NoError(t, err)
	return c, ids
}

const digest = "00112233445566778899aabbccddeeff00112233445566778899aabbccddeeff"

// windowOf is the window mat of a name, and its outline on the face.
func windowOf(t *testing.T, c card.Card, name string) (card.Item, geom.Path) {
	t.Helper()
	f := c.Face(card.Front)
	i := slices.IndexFunc(f.Items, func(it card.Item) bool { return it.Name == name })
	require.GreaterOrEqual(t, i, 0, name)
	return f.Items[i], card.OutlineOf(*f.Items[i].Form).Transform(f.Items[i].Place.Map())
}

// shows tells that a mat covers just the edge of each thing, so far in, and reaches so far past them all.
func shows(t *testing.T, c card.Card, ids []string, mat geom.Path, overlap float64) {
	t.Helper()
	for _, id := range ids {
		_, it := c.Find(id)
		own := card.OutlineOf(it.Photo.Form()).Transform(it.Place.Map())
		covered := geom.Intersection(geom.NonZero, own, mat).Area()
		w, h := it.Photo.Width, it.Photo.Height
		assert.InDelta(t, w*h-(w-2*overlap)*(h-2*overlap), covered, 1e-3, "what is covered of %s", id)
	}
}

func TestAWindowMatFollowsItsPhotos(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 18))
	for range 20 {
		turn := float64(r.IntN(3)) * 17
		overlap, width := .5+2*r.Float64(), 3+9*r.Float64()
		c, ids := framed(t, turn, [2]float64{30 + 20*r.Float64(), 40}, [2]float64{25, 20 + 30*r.Float64()})
		c, err := card.Apply(c, card.AddWindow{Window: card.Window{Of: ids, Overlap: overlap, Width: width, Below: 4, Corner: card.Square}, Stock: "moss-216"})
		require.NoError(t, err)
		it, mat := windowOf(t, c, "Window mat")
		assert.InDelta(t, turn, it.Place.Turn, 1e-9)
		shows(t, c, ids, mat, overlap)
		rings := mat.Rings()
		require.Len(t, rings, 3, "two openings")

		// It follows when one is moved and another grows.
		c, err = card.Apply(c, card.MoveItems{IDs: ids[:1], DX: -3, DY: 5}, card.ResizeItems{IDs: ids[1:], FX: 1.2, FY: 1.2, About: geom.Pt(90, 100)})
		require.NoError(t, err)
		_, mat = windowOf(t, c, "Window mat")
		shows(t, c, ids, mat, overlap)

		// Moved itself, it takes them along.
		_, was := c.Find(ids[0])
		x := was.Place.X
		c, err = card.Apply(c, card.MoveItems{IDs: []string{it.ID}, DX: 2})
		require.NoError(t, err)
		_, now := c.Find(ids[0])
		assert.InDelta(t, x+2, now.Place.X, 1e-9)
		_, mat = windowOf(t, c, "Window mat")
		shows(t, c, ids, mat, overlap)

		c, err = card.Apply(c, card.SetWindow{ID: it.ID, Window: card.Window{Overlap: 1, Width: 2, Corner: card.Round}})
		require.NoError(t, err)
		_, mat = windowOf(t, c, "Window mat")
		shows(t, c, ids, mat, 1)

		// One of the photos goes: its opening goes too. The last goes: the mat stays as it was.
		c, err = card.Apply(c, card.RemoveItems{IDs: ids[:1]})
		require.NoError(t, err)
		one, mat := windowOf(t, c, "Window mat")
		assert.Len(t, mat.Rings(), 2)
		require.NotNil(t, one.Window)
		c, err = card.Apply(c, card.RemoveItems{IDs: ids[1:]})
		require.NoError(t, err)
		left, same := windowOf(t, c, "Window mat")
		assert.Nil(t, left.Window)
		assert.InDelta(t, mat.Area(), same.Area(), 1e-9)
	}
}

func TestBevelsOfWindows(t *testing.T) {
	c, ids := framed(t, 0, [2]float64{40, 30})
	w := card.Window{Of: ids, Overlap: 2, Width: 10, Corner: card.Square}
	cut, err := card.Apply(c, card.AddWindow{Window: w, Stock: "moss-216", As: card.CutBevel, Bevel: 1.5, Second: "white-216"})
	require.NoError(t, err)
	inner, below := windowOf(t, cut, "Window mat, inner")
	outer, above := windowOf(t, cut, "Window mat")
	assert.Equal(t, inner.ID, outer.On)
	assert.Equal(t, "white-216", inner.Made.Stock)
	shows(t, cut, ids, below, 2)
	shows(t, cut, ids, above, .5)
	assert.Equal(t, below.Bounds(), above.Bounds(), "one outer edge")

	printed, err := card.Apply(c, card.AddWindow{Window: w, Stock: "moss-216", As: card.PrintedBevel, Bevel: 1, Colour: "#fffdf9"})
	require.NoError(t, err)
	mat, _ := windowOf(t, printed, "Window mat")
	edge, ring := windowOf(t, printed, "Bevel")
	assert.Equal(t, mat.ID, edge.On)
	assert.InDelta(t, 38*28-36*26, ring.Area(), 1e-3, "a millimetre round the opening")
	printed, err = card.Apply(printed, card.SetWindow{ID: mat.ID, Window: card.Window{Overlap: 4, Width: 10, Corner: card.Square}})
	require.NoError(t, err)
	_, ring = windowOf(t, printed, "Bevel")
	assert.InDelta(t, 34*24-32*22, ring.Area(), 1e-3, "it follows")
}

func TestWindowsThatCannotBe(t *testing.T) {
	c, ids := framed(t, 0, [2]float64{40, 30})
	for field, k := range map[string]card.Command{
		"overlap": card.AddWindow{Window: card.Window{Of: ids, Overlap: 16, Width: 5, Corner: card.Square}, Stock: "moss-216"},
		"width":   card.AddWindow{Window: card.Window{Of: ids, Width: 500, Corner: card.Square}, Stock: "moss-216"},
		"corner":  card.AddWindow{Window: card.Window{Of: ids, Width: 5}, Stock: "moss-216"},
		"bevel":   card.AddWindow{Window: card.Window{Of: ids, Width: 5, Corner: card.Square}, Stock: "moss-216", As: card.PrintedBevel, Bevel: 90, Colour: "#ffffff"},
		"id":      card.SetWindow{ID: ids[0], Window: card.Window{Width: 5, Corner: card.Square}},
	} {
		_, err := card.Apply(c, k)
		var refused *card.Refusal
		require.ErrorAs(t, err, &refused, field)
		assert.Equal(t, field, refused.Field)
	}
}

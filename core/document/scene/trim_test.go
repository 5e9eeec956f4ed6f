package scene_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// arranged is a group of a cut square, i1, a printed one with a shadow, i2, and a disc over both, i3,
// beside another square, i4, in no group.
func arranged(t *testing.T) card.Card {
	t.Helper()
	shape := func(name string, o card.Outline, x float64, size float64, made card.Made) card.Item {
		it := card.Item{Name: name, Kind: card.Shape, Place: card.Place{X: x, Y: 60}, Made: made, Fill: card.Fill{Colour: "#35658c"}, Form: &card.Form{Outline: o, Width: size, Height: size}}
		if o == card.Rectangle {
			it.Form.Corner = card.Square
		}
		return it
	}
	soft := shape("Ink", card.Rectangle, 70, 30, card.Made{As: card.Printed})
	soft.Look = &card.Look{Shadow: &card.Shadow{Distance: 2, Blur: 1, Opacity: .5, Colour: "#000000"}}
	c, err := card.Apply(coretest.Empty(t),
		card.PlaceItems{Face: card.Front, Items: []card.Item{shape("Piece", card.Rectangle, 50, 30, card.Made{As: card.Cut, Stock: "moss-216", Bleed: 1})}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{soft}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{shape("Disc", card.Ellipse, 60, 40, card.Made{As: card.Printed})}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{shape("Other", card.Rectangle, 100, 20, card.Made{As: card.Cut, Stock: "moss-216"})}},
		card.GroupItems{IDs: []string{"i1", "i2", "i3"}}, card.SetMade{IDs: []string{"i3"}, Made: card.Made{As: card.Trims}})
	require.NoError(t, err)
	return c
}

func byID(t *testing.T, s scene.Scene, id string) *scene.Item {
	t.Helper()
	for i := range s.Faces[0].Items {
		if it := &s.Faces[0].Items[i]; it.ID == id {
			return it
		}
	}
	t.Fatal(id)
	return nil
}

func apart(a, b geom.Path) float64 {
	return geom.Difference(geom.NonZero, a, b).Area() + geom.Difference(geom.NonZero, b, a).Area()
}

// All in a group ends at the outline that trims it: pieces with theirs, ink and shadow where they are
// drawn; what trims is neither cut nor printed, and what is in no group stays.
func TestAGroupIsTrimmedByAnOutlineOverIt(t *testing.T) {
	c := arranged(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	f := &s.Faces[0]
	piece, ink, disc, other := byID(t, s, "i1"), byID(t, s, "i2"), byID(t, s, "i3"), byID(t, s, "i4")
	edge := disc.Outline.Transform(disc.At)
	square := geom.RectPath(geom.Rect{X: 35, Y: 45, W: 30, H: 30})
	assert.Less(t, apart(geom.Intersection(geom.NonZero, square, edge), piece.Outline.Transform(piece.At)), 1e-3)
	assert.InDelta(t, 30, piece.Box.W, 1e-9, "its frame is that of all of it")
	assert.InDelta(t, 400, other.Outline.Area(), 1e-6)
	assert.Nil(t, other.Clip)

	inks := f.PieceInks(ink)
	require.NotEmpty(t, inks)
	for _, k := range f.BaseInks() {
		ends := false
		for _, clip := range k.Clips {
			ends = ends || apart(clip, edge) < 1e-3
		}
		assert.True(t, ends, "every ink ends at the disc")
		assert.NotEqual(t, "Disc", k.Colour)
	}
	for _, k := range f.PieceInks(piece) {
		for _, clip := range k.Clips {
			assert.Less(t, geom.Difference(geom.NonZero, clip, geom.Offset(edge, 1, geom.RoundCorner)).Area(), 450.0)
		}
	}

	// It moves with its group; when it goes, all is there again.
	moved, err := card.Apply(c, card.MoveItems{IDs: []string{"i1", "i2", "i3"}, DX: 5, DY: -4})
	require.NoError(t, err)
	again, err := scene.After(moved, c, s)
	require.NoError(t, err)
	assert.Less(t, apart(piece.Outline, byID(t, again, "i1").Outline), 1e-3)
	aside, err := card.Apply(c, card.MoveItems{IDs: []string{"i3"}, DX: 10})
	require.NoError(t, err)
	again, err = scene.After(aside, c, s)
	require.NoError(t, err)
	assert.Greater(t, apart(piece.Outline, byID(t, again, "i1").Outline), 20.0)
	whole, err := card.Apply(c, card.SetMade{IDs: []string{"i3"}, Made: card.Made{As: card.Printed}})
	require.NoError(t, err)
	again, err = scene.After(whole, c, s)
	require.NoError(t, err)
	assert.InDelta(t, 900, byID(t, again, "i1").Outline.Area(), 1e-6)

	loose, err := card.Apply(c, card.UngroupItems{IDs: []string{"i1", "i2", "i3"}})
	require.NoError(t, err)
	_, it := loose.Find("i3")
	assert.Equal(t, card.Printed, it.Made.As, "in no group it trims nothing")
	_, err = card.Apply(c, card.SetMade{IDs: []string{"i4"}, Made: card.Made{As: card.Trims}})
	assert.ErrorContains(t, err, "in no group")
}

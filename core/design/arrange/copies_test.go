package arrange_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// panels is a gate fold with a panel on its first face that keeps 5 mm from the left and the right
// edge and 3 and 6 mm from the upper and the lower one, i1, on a mat, with a spot on it.
func panels(t *testing.T) (card.Card, []card.FaceID) {
	t.Helper()
	c, err := card.Apply(coretest.Empty(t), fold.SetBase{Base: card.Base{Kind: card.GateFold, Width: 114.3, Height: 114.3, Stock: "cream-300"}})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	f := s.Faces[0]
	c, err = card.Apply(c, card.PlaceItems{Face: f.ID, Items: []card.Item{
		{Name: "Panel", Kind: card.Paper, Place: card.Place{X: f.Width / 2, Y: 3 + (f.Height-9)/2}, Made: card.Made{As: card.Cut, Stock: "text-120", Bleed: 1}, Fill: card.Fill{Paper: "comb"},
			Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: f.Width - 10, Height: f.Height - 9}},
	}}, card.PlaceItems{Face: f.ID, Items: []card.Item{
		{Name: "Spot", Kind: card.Shape, Place: card.Place{X: f.Width / 2, Y: f.Height / 2}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
			Form: &card.Form{Outline: card.Ellipse, Width: 6, Height: 6}},
	}}, card.AddMat{IDs: []string{"i1"}, Width: 1.5, Corner: card.Square, Stock: "moss-216"})
	require.NoError(t, err)
	var others []card.FaceID
	for _, f := range s.Faces[1:] {
		others = append(others, f.ID)
	}
	return c, others
}

func TestCopiesOnOtherFacesLieInTheSamePlace(t *testing.T) {
	c, others := panels(t)
	got, err := card.Apply(c, arrange.CopyToFaces{IDs: []string{"i1"}, Faces: append(others, c.Faces[0].ID)})
	require.NoError(t, err)
	assert.Equal(t, c.Faces[0].Items, got.Faces[0].Items, "the originals stay")
	for _, id := range others {
		items := got.Face(id).Items
		require.Len(t, items, 3, id)
		assert.Equal(t, c.Faces[0].Items[1].Place, items[1].Place)
	}
}

func TestCopiesFitTheirFacesWithTheMarginsOfTheOriginal(t *testing.T) {
	c, others := panels(t)
	got, err := card.Apply(c, arrange.CopyToFaces{IDs: []string{"i1"}, Faces: others, Fit: true})
	require.NoError(t, err)
	s, err := scene.Of(got)
	require.NoError(t, err)
	sizes := map[float64]bool{}
	for _, id := range others {
		f := s.Face(id)
		require.Len(t, f.Items, 3, id)
		mat, panel, spot := f.Items[0], f.Items[1], f.Items[2]
		require.Equal(t, card.Mat, mat.Kind)
		assert.InDelta(t, 5, panel.Bounds.X, 1e-3, id)
		assert.InDelta(t, 5, f.Width-panel.Bounds.Right(), 1e-3, id)
		assert.InDelta(t, 3, panel.Bounds.Y, 1e-3, id)
		assert.InDelta(t, 6, f.Height-panel.Bounds.Bottom(), 1e-3, id)
		assert.InDelta(t, panel.Bounds.W+3, mat.Bounds.W, 1e-3, "its mat is as wide as before")
		assert.InDelta(t, 6, spot.Bounds.W, 1e-3, "what it carries keeps its size")
		assert.Equal(t, panel.ID, spot.On)
		assert.True(t, panel.Bounds.Contains(spot.Bounds, 1e-6))
		sizes[math.Round(panel.Bounds.W)] = true
	}
	assert.Greater(t, len(sizes), 1, "the faces are of different sizes")
}

func TestCopiesThatCannotBeMadeAreRefusedAsAWhole(t *testing.T) {
	c, others := panels(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	var large, small scene.Face
	for _, f := range s.Faces {
		if large.Width < f.Width {
			large = f
		}
		if small.Width == 0 || f.Width < small.Width {
			small = f
		}
	}
	// Its left margin alone is wider than the small face.
	wide, err := card.Apply(c, card.PlaceItems{Face: large.ID, Items: []card.Item{{Name: "Dot", Kind: card.Shape,
		Place: card.Place{X: large.Width - 3, Y: 20}, Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: card.Ellipse, Width: 4, Height: 4}}}})
	require.NoError(t, err)
	for _, k := range []arrange.CopyToFaces{
		{IDs: []string{"i1"}},
		{IDs: []string{"i1"}, Faces: []card.FaceID{"nowhere"}},
		{IDs: []string{"i99"}, Faces: others},
		{IDs: []string{"i4"}, Faces: []card.FaceID{small.ID}, Fit: true},
	} {
		_, err := card.Apply(wide, k)
		var r *card.Refusal
		assert.ErrorAs(t, err, &r, "%+v", k)
	}
}

// A panel that lies on its side is as wide as it looks, and one that stands aslant stays
// between the margins with its proportions.
func TestTurnedCopiesFitToo(t *testing.T) {
	c, others := panels(t)
	for turn, exact := range map[float64]bool{90: true, 25: false} {
		turned, err := card.Apply(c, card.TurnItems{IDs: []string{"i1"}, Degrees: turn, About: geom.Pt(c.Faces[0].Items[1].Place.X, c.Faces[0].Items[1].Place.Y)})
		require.NoError(t, err)
		was, err := scene.Of(turned)
		require.NoError(t, err)
		from := was.Faces[0]
		panel := from.Items[1].Bounds
		got, err := card.Apply(turned, arrange.CopyToFaces{IDs: []string{"i1"}, Faces: others, Fit: true})
		require.NoError(t, err)
		s, err := scene.Of(got)
		require.NoError(t, err)
		for _, id := range others {
			f := s.Face(id)
			want := geom.Rect{X: panel.X, Y: panel.Y, W: panel.W + f.Width - from.Width, H: panel.H + f.Height - from.Height}
			b := f.Items[1].Bounds
			assert.True(t, want.Contains(b, 1e-3), "%g°, %s: %v in %v", turn, id, b, want)
			if exact {
				assert.InDelta(t, want.W, b.W, 1e-3, id)
				assert.InDelta(t, want.H, b.H, 1e-3, id)
			}
		}
	}
}

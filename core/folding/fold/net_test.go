package fold

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

func TestFacesLieWhereThePaperPutsThem(t *testing.T) {
	for _, kind := range []card.BaseKind{card.SideFold, card.TopFold} {
		n := Of(card.Base{Kind: kind, Width: 100, Height: 140, Stock: "cream-300"})
		require.Len(t, n.Faces, 4)
		require.InDelta(t, 2*100*140, n.Outline().Area(), 1e-9)
		box := func(id card.FaceID) geom.Rect {
			return geom.RectPath(geom.Rect{W: 100, H: 140}).Transform(n.Face(id).OnSheet).Bounds()
		}
		assert.Equal(t, box(card.Front), box(card.InsideFirst), "the first inside face is the reverse of Front")
		assert.Equal(t, box(card.Back), box(card.InsideSecond))
		assert.False(t, box(card.Front).Overlaps(box(card.Back)))
		for _, f := range n.Faces {
			assert.Equal(t, f.Side == Inside, f.OnSheet.Det() < 0, "looking through the paper mirrors")
			assert.Greater(t, f.OnMap.Det(), 0.0, "a face is read from its own side")
			require.Len(t, n.Neighbours(f.ID), 1)
			folds := n.FoldsOn(f.ID)
			require.Len(t, folds, 1)
			want := Mountain
			if f.Side == Inside {
				want = Valley
			}
			assert.Equal(t, want, folds[0].Role)
		}
	}
}

func TestTheFoldIsWhereTheCardOpens(t *testing.T) {
	side := Of(card.Base{Kind: card.SideFold, Width: 100, Height: 140})
	assert.Equal(t, geom.Pt(0, 0), side.FoldsOn(card.Front)[0].From, "at the left of Front")
	assert.InDelta(t, 100, side.FoldsOn(card.InsideFirst)[0].From.X, 1e-9, "at the right of Inside left")
	assert.Equal(t, "Inside left", side.Face(card.InsideFirst).Name)
	top := Of(card.Base{Kind: card.TopFold, Width: 140, Height: 100})
	for _, id := range []card.FaceID{card.Front, card.Back} {
		for _, p := range []geom.Point{top.FoldsOn(id)[0].From, top.FoldsOn(id)[0].To} {
			assert.InDelta(t, 0, p.Y, 1e-9, "the fold runs along the top of %s", id)
		}
	}
	assert.InDelta(t, 100, top.FoldsOn(card.InsideFirst)[0].From.Y, 1e-9, "below Inside top")
	assert.Equal(t, side, Of(card.Base{Kind: "spiral", Width: 100, Height: 140}), "what is not known has the net of a side fold")
}

func TestKindsAreNamedWithinASentence(t *testing.T) {
	lower := map[card.BaseKind]string{}
	for _, k := range Kinds() {
		lower[k.ID] = k.Lower
	}
	assert.Equal(t, "top fold", lower[card.TopFold])
	assert.Equal(t, "tri-fold", lower[card.TriFold])
	assert.Equal(t, "Z-fold", lower[card.ZFold])
	assert.Equal(t, "V-fold", lower[card.VFold])
}

package arrange_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

func smaller(t *testing.T, c card.Card, w, h float64) card.Card {
	t.Helper()
	b := c.Base
	b.Width, b.Height = w, h
	got, err := card.Apply(c, arrange.SetBase{Base: b})
	require.NoError(t, err)
	return got
}

func TestWhatLayWithinAFaceFollowsIt(t *testing.T) {
	shape := func(name string, x, y, w, h float64, o card.Outline) card.Item {
		return card.Item{Name: name, Kind: card.Shape, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
			Form: &card.Form{Outline: o, Width: w, Height: h}}
	}
	panel := shape("Panel", 63.5, 88.9, 117, 167.8, card.Rectangle) // 5 mm all round
	panel.Form.Corner = card.Square
	c, err := card.Apply(coretest.Empty(t), // 127 × 177.8
		card.PlaceItems{Face: card.Front, Items: []card.Item{panel}},
		card.AddMat{IDs: []string{"i1"}, Width: 2, Corner: card.Square, Stock: "cream-300"},
	)
	require.NoError(t, err)
	got := boxes(t, smaller(t, c, 80, 120))
	assert.InDelta(t, 70, got["i1"].W, 1e-3, "the panel keeps its margins")
	assert.InDelta(t, 110, got["i1"].H, 1e-3)
	assert.InDelta(t, 5, got["i1"].X, 1e-3)
	assert.InDelta(t, 74, got["i2"].W, 1e-3, "and its mat its width")

	c, err = card.Apply(coretest.Empty(t),
		card.PlaceItems{Face: card.Front, Items: []card.Item{shape("Sign", 63.5, 165, 30, 10, card.Ellipse), shape("Sun", 20, 20, 20, 20, card.Ellipse),
			shape("Ribbon", 120, 60, 30, 10, "tag"), shape("Wheel", 60, 90, 100, 100, card.Ellipse)}},
		card.LockItems{IDs: []string{"i1"}, Locked: true})
	require.NoError(t, err)
	got = boxes(t, smaller(t, c, 80, 120))
	assert.InDelta(t, 110, got["i1"].Y, 1e-3, "the sign is kept at the lower edge, though it is locked")
	assert.InDelta(t, 48.5, got["i1"].X, 1e-3)
	assert.Equal(t, boxes(t, c)["i2"], got["i2"], "what fits stays")
	assert.Equal(t, boxes(t, c)["i3"], got["i3"], "what was meant to reach over the edge stays")
	assert.InDelta(t, got["i4"].W, got["i4"].H, 1e-3, "a circle stays one")
	assert.True(t, (geom.Rect{W: 80, H: 120}).Contains(got["i4"], 1e-3))
	small := smaller(t, c, 80, 120)
	_, sign := small.Find("i1")
	assert.True(t, sign.Locked)
	// A larger card leaves all as it is.
	large := smaller(t, c, 200, 300)
	for id, b := range boxes(t, c) {
		assert.Equal(t, b, boxes(t, large)[id])
	}
}

func TestAGroupFollowsAsOne(t *testing.T) {
	c, err := card.Apply(tags(t), card.GroupItems{IDs: five})
	require.NoError(t, err)
	was := boxes(t, c)
	got := boxes(t, smaller(t, c, 60, 177.8))
	k := got["i1"].W / was["i1"].W
	assert.Less(t, k, 1.)
	for _, id := range five[1:] {
		assert.InDelta(t, (was[id].X-was["i1"].X)*k, got[id].X-got["i1"].X, .01, id)
		assert.InDelta(t, (was[id].Y-was["i1"].Y)*k, got[id].Y-got["i1"].Y, .01, id)
	}
}

// Whatever the sizes, what lay within its face lies within it again, and the same size
// again changes nothing more.
func TestNothingThatLayWithinLeavesItsFace(t *testing.T) {
	rnd := rand.New(rand.NewPCG(12, 4))
	for range 150 {
		c := tags(t)
		for _, id := range five {
			next, err := card.Apply(c, card.TurnItems{IDs: []string{id}, Degrees: rnd.Float64() * 300})
			require.NoError(t, err)
			c = next
		}
		s, err := scene.Of(c)
		require.NoError(t, err)
		face := geom.Rect{W: s.Face(card.Front).Width, H: s.Face(card.Front).Height}
		w, h := 30+rnd.Float64()*120, 30+rnd.Float64()*160
		now := smaller(t, c, w, h)
		room := geom.Rect{W: w, H: h}
		for id, b := range boxes(t, c) {
			if face.Contains(b, .05) && (w < face.W || h < face.H) {
				assert.True(t, room.Contains(boxes(t, now)[id], .06), "%s in %v: %v", id, room, boxes(t, now)[id])
			}
		}
		assert.Equal(t, now.Faces, smaller(t, now, w, h).Faces)
	}
}

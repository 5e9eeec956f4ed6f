package scene_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// eachStanding calls f with an empty card of every kind of base that needs no drawing.
func eachStanding(t *testing.T, f func(k fold.Kind, c card.Card, s *scene.Scene)) {
	t.Helper()
	for _, k := range fold.Kinds() {
		if k.Drawing {
			continue
		}
		c, err := fold.New("Standing", card.Base{Kind: k.ID, Width: 120, Height: 140, Stock: "cream-300"})
		require.NoError(t, err)
		s, err := scene.Of(c)
		require.NoError(t, err)
		f(k, c, &s)
	}
}

// The picture of every kind of base is a card: its paper is seen, nothing is degenerate, and
// what is printed on Front is there.
func TestEveryKindOfBaseStands(t *testing.T) {
	eachStanding(t, func(k fold.Kind, c card.Card, s *scene.Scene) {
		inks, box := s.Standing(c)
		require.NotEmpty(t, inks, k.ID)
		assert.Greater(t, box.W, 40., k.ID)
		assert.Greater(t, box.H, 40., k.ID)
		paper := 0.0
		for _, ink := range inks {
			require.NoError(t, ink.Region.Check())
			if ink.Colour == "#fff6e0" {
				paper += ink.Region.Area()
			}
		}
		assert.NotZero(t, paper, "the paper of a %s is seen", k.ID)
	})
}

// A banner on the left gate reaches over the right one, and is whole.
func TestWhatReachesOverAGateIsWhole(t *testing.T) {
	c, err := fold.New("Gate", card.Base{Kind: card.GateFold, Width: 120, Height: 150, Stock: "white-300"})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	front := s.Faces[0]
	c, err = card.Apply(c, card.PlaceItems{Face: front.ID, Items: []card.Item{{
		Name: "Banner", Kind: card.Shape, Place: card.Place{X: front.Width - 5, Y: -8}, Made: card.Made{As: card.Cut, Stock: "brick-216", Free: true},
		Form: &card.Form{Outline: card.Rectangle, Width: 100, Height: 20, Corner: card.Square},
	}}})
	require.NoError(t, err)
	s, err = scene.Of(c)
	require.NoError(t, err)
	ground := s.Faces[0].Items[0].Ground
	inks, box := s.Standing(c)
	at := -1
	for i, ink := range inks {
		if ink.Colour == ground {
			require.Equal(t, -1, at, "once")
			at = i
		}
	}
	require.GreaterOrEqual(t, at, 0, "the banner is there")
	assert.True(t, box.Contains(inks[at].Region.Bounds(), 1e-6), "and whole in the picture")
	for _, ink := range inks[at+1:] {
		if ink.Clear == 0 && ink.Colour != "" && ink.Colour != "#3a2a18" {
			assert.Less(t, geom.Intersection(geom.NonZero, ink.Region, inks[at].Region).Area(), .01, "nothing lies over it")
		}
	}
}

// The way of closing begins at a corner of the card as it stands, ends where that lies when it is closed, and
// is the longest of all corners' ways.
func TestTheWayOfClosing(t *testing.T) {
	eachStanding(t, func(k fold.Kind, c card.Card, s *scene.Scene) {
		way := s.ClosingWay(c)
		if k.ID == card.Flat {
			assert.True(t, way.Empty(), "a flat card is not closed")
			return
		}
		require.False(t, way.Empty(), k.ID)
		_, box := s.Standing(c)
		_, shut := s.StandingAt(c, 1)
		from, to := way.Curves()[0][0].From, geom.Point{}
		for _, e := range way.Curves()[0] {
			to = e.End()
		}
		assert.True(t, box.Grow(1e-6).Has(from), "%s begins at the card as it stands", k.ID)
		assert.True(t, shut.Grow(1).Has(to), "%s ends at the closed card", k.ID)
		assert.Greater(t, way.Length(), 5., k.ID)
	})
}

package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

func TestALookIsCopiedAsFarAsItFits(t *testing.T) {
	shadow := card.Shadow{Distance: 1.2, Angle: 60, Blur: .9, Opacity: .35, Colour: "#3a2a18"}
	look := card.Look{Clear: .2, Shadow: &shadow, Line: &card.InkLine{Colour: "#1f2b38", Width: .5}}
	c := do(t, lone(t, 3), card.SetLook{IDs: []string{"i1"}, Look: look}, card.SetFill{IDs: []string{"i1"}, Fill: card.Fill{Colour: "#a8432a"}})
	c = do(t, c, card.SetMade{IDs: []string{"i3"}, Made: card.Made{As: card.Cut, Stock: "white-216"}}, card.PasteLook{From: "i1", IDs: []string{"i2", "i3"}})
	_, printed := c.Find("i2")
	assert.Equal(t, &look, printed.Look)
	assert.Equal(t, "#a8432a", printed.Fill.Colour)
	_, piece := c.Find("i3")
	assert.Nil(t, piece.Look.Shadow, "a cut piece throws its own")
	assert.Zero(t, piece.Look.Clear)
	assert.NotNil(t, piece.Look.Line)
	cut := do(t, c, card.SetMade{IDs: []string{"i1"}, Made: card.Made{As: card.Cut, Stock: "white-216"}})
	_, now := cut.Find("i1")
	assert.Nil(t, now.Look.Shadow, "so does what becomes one")
	refused(t, c, card.SetLook{IDs: []string{"i3"}, Look: look}, "look", "throws its own shadow")
	outside := card.Look{Line: &card.InkLine{Colour: "#1f2b38", Width: .5, Outside: true}}
	refused(t, c, card.SetLook{IDs: []string{"i3"}, Look: outside}, "look", "ends at its edge")
	c = do(t, c, card.SetLook{IDs: []string{"i1"}, Look: outside}, card.PasteLook{From: "i1", IDs: []string{"i3"}})
	_, piece = c.Find("i3")
	assert.False(t, piece.Look.Line.Outside)
	_, printed = c.Find("i1")
	assert.True(t, printed.Look.Line.Outside)
	refused(t, c, card.SetLook{IDs: []string{"i1"}, Look: card.Look{Tint: &card.Tint{Colour: "#a8432a", Strength: .5}}}, "tint", "no picture")
	refused(t, c, card.SetLook{IDs: []string{"i1"}, Look: card.Look{Clear: 1.5}}, "opacity", "between 5 and 100 %")
	refused(t, c, card.SetFill{IDs: []string{"i1"}, Fill: card.Fill{Gradient: &card.Gradient{Kind: card.Linear, ToX: 1, Stops: []card.Stop{{At: .5, Colour: "#a8432a"}, {At: .2, Colour: "#a8432a"}}}}}, "gradient", "follow each other")
}

func TestAColourIsChangedEverywhere(t *testing.T) {
	c := coretest.Card(t)
	c = do(t, c, card.SetFill{IDs: []string{"i6"}, Fill: card.Fill{Gradient: &card.Gradient{Kind: card.Radial, ToX: 1, Stops: []card.Stop{{Colour: "#a8432a"}, {At: 1, Colour: "#a8442b"}}}}})
	s, err := scene.Of(c)
	require.NoError(t, err)
	assert.Equal(t, []scene.ColourUse{{Colour: "#a8432a", Count: 2}, {Colour: "#1f2b38", Count: 1}, {Colour: "#a8442b", Count: 1, Twin: "#a8432a"}}, s.Colours)
	one := do(t, c, card.Recolour{From: []string{"#a8432a", "#a8442b"}, To: "#35658c"})
	s, err = scene.Of(one)
	require.NoError(t, err)
	assert.Equal(t, []scene.ColourUse{{Colour: "#35658c", Count: 2}, {Colour: "#1f2b38", Count: 1}}, s.Colours)
	some := do(t, c, card.Recolour{From: []string{"#a8432a"}, To: "#35658c", IDs: []string{"i5"}})
	_, seal := some.Find("i6")
	assert.Equal(t, "#a8432a", seal.Fill.Gradient.Stops[0].Colour, "only where it was asked for")
	refused(t, c, card.Recolour{From: []string{"#000000"}, To: "#35658c"}, "from", "Nothing has that colour")
}

package pathops_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// boat is a turned label, i1, with the carved words “Boat”, i2, turned otherwise, bridged.
func boat(t *testing.T) card.Card {
	t.Helper()
	c, err := card.Apply(coretest.Empty(t),
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Label", Kind: card.Shape, Place: card.Place{X: 60, Y: 60, Turn: 25}, Made: card.Made{As: card.Cut, Stock: "moss-216", Islands: card.FirstBridges()},
			Form: &card.Form{Outline: card.Rectangle, Width: 90, Height: 40, Corner: card.Square}}}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 60, Turn: 10}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
			Words: &card.Words{Text: "Boat", Font: "zilla-slab-600", Size: 16, Leading: 1.2, Align: card.AlignCentre}}}},
		card.SetMade{IDs: []string{"i2"}, Made: card.Made{As: card.Carved}})
	require.NoError(t, err)
	return c
}

func label(t *testing.T, c card.Card) scene.Item {
	t.Helper()
	f, it := c.Find("i1")
	p, err := scene.Resolve(f, it)
	require.NoError(t, err)
	return p
}

func change(t *testing.T, c card.Card, k ...card.Command) card.Card {
	t.Helper()
	c, err := card.Apply(c, k...)
	require.NoError(t, err)
	return c
}

// ways are where bridges leave, about the middle of their island, on the face, so that it does
// not matter where the letters stand.
func ways(p scene.Item) (out []geom.Point) {
	for _, b := range p.Bridges {
		ring := b.Ring.Transform(p.At)
		out = append(out, p.At.Apply(b.From).Sub(ring.Bounds().Centre()))
	}
	return out
}

func TestABridgeIsMovedAndTheOthersOfItsMiddleStay(t *testing.T) {
	c := boat(t)
	was := label(t, c)
	require.Len(t, was.Bridges, 8)
	// To the other end of its ring from the bridges that it has.
	first := was.Bridges[0]
	length := first.Ring.Length()
	to, _, _ := first.Ring.PointAt(.5 * length)
	moved := label(t, change(t, c, pathops.MoveBridge{ID: "i1", Bridge: 0, To: was.At.Apply(to)}))
	require.Len(t, moved.Bridges, 8)
	assert.Empty(t, moved.Islands)
	assert.Less(t, moved.Bridges[0].From.Sub(to).Len(), .01)
	assert.True(t, moved.Bridges[0].Placed)
	for i := 1; i < 8; i++ {
		assert.Less(t, moved.Bridges[i].From.Sub(was.Bridges[i].From).Len(), .01, i)
	}
	c = change(t, c, pathops.MoveBridge{ID: "i1", Bridge: 5, To: geom.Pt(0, 0)})
	c = change(t, c, pathops.MoveBridge{ID: "i1", Bridge: 5, To: geom.Pt(200, 0)})
	_, words := c.Find("i2")
	assert.Len(t, words.Bridges, 2, "what was noted of the middle before is not there any more")
}

// Words that are written on, set larger, moved or laid on another piece keep their bridges where
// they are on each letter.
func TestBridgesStayWithTheirLetters(t *testing.T) {
	c := boat(t)
	for i := range label(t, c).Bridges {
		p := label(t, c)
		ring := p.Bridges[i].Ring
		for share := .13 + .2*float64(i%2); share < 1; share += .04 {
			to, _, _ := ring.PointAt(share * ring.Length())
			moved, err := card.Apply(c, pathops.MoveBridge{ID: "i1", Bridge: i, To: p.At.Apply(to)})
			if err == nil {
				c = moved
				break
			}
			assert.ErrorContains(t, err, "paper that stays", "towards the other middle of B")
		}
	}
	want := ways(label(t, c))
	require.Len(t, want, 8)
	has := func(c card.Card, k float64, want []geom.Point) {
		t.Helper()
		got := ways(label(t, c))
		for _, w := range want {
			near := false
			for _, g := range got {
				near = near || g.Sub(w.Mul(k)).Len() < .05
			}
			assert.True(t, near, "%v in %v", w, got)
		}
		assert.Empty(t, label(t, c).Islands)
	}
	has(change(t, c, card.SetText{ID: "i2", Text: "Boat go"}, card.SetText{ID: "i2", Text: "A Boat go"}), 1, want)
	has(change(t, c, card.SetText{ID: "i2", Text: "Boat\nday"}), 1, want)
	has(change(t, c, card.MoveItems{IDs: []string{"i2"}, DX: 4, DY: -3}), 1, want)
	_, doc := c.Find("i2")
	words := *doc.Words
	words.Size = 12
	has(change(t, c, card.SetWords{ID: "i2", Words: words}), .75, want)

	// Only what is left of the letters keeps its bridges.
	c = change(t, c, card.SetText{ID: "i2", Text: "at"})
	_, doc = c.Find("i2")
	assert.Len(t, doc.Bridges, 2)
	assert.Len(t, label(t, c).Bridges, 2)
	c = change(t, c, pathops.FreeBridges{ID: "i1"})
	for _, b := range label(t, c).Bridges {
		assert.False(t, b.Placed)
	}
}

func TestBridgesAreAddedAndTakenAwayButForTheLast(t *testing.T) {
	c := boat(t)
	p := label(t, c)
	ring := p.Bridges[0].Ring
	to, _, _ := ring.PointAt(.5 * ring.Length())
	c = change(t, c, pathops.AddBridge{ID: "i1", To: p.At.Apply(to)})
	assert.Len(t, label(t, c).Bridges, 9)
	for range 2 {
		c = change(t, c, pathops.DropBridge{ID: "i1", Bridge: 0})
	}
	assert.Len(t, label(t, c).Bridges, 7)
	_, err := card.Apply(c, pathops.DropBridge{ID: "i1", Bridge: 0})
	assert.ErrorContains(t, err, "only bridge")
	_, err = card.Apply(c, pathops.MoveBridge{ID: "i1", Bridge: 7})
	assert.ErrorContains(t, err, "has 7 bridges")
	_, err = card.Apply(c, pathops.MoveBridge{ID: "i2", Bridge: 0})
	assert.ErrorContains(t, err, "no cut piece")
	_, err = card.Apply(change(t, c, card.SetText{ID: "i2", Text: "T"}), pathops.AddBridge{ID: "i1"})
	assert.ErrorContains(t, err, "no middle")
}

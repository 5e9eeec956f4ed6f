package card_test

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// An outline is in memory what it is when the document is read back, to the last bit: what
// follows from it does not change with that.
func TestADrawnOutlineIsTheSameWhenReadBack(t *testing.T) {
	r := rand.New(rand.NewPCG(231, 232))
	for range 300 {
		p := coretest.RandomPath(r).Transform(geom.Turn(r.Float64()).Then(geom.Scale(1/3., 1/7.)))
		if p.Closed() && r.IntN(2) == 0 {
			p = geom.Offset(p, r.Float64(), geom.RoundCorner)
		}
		d := card.NewDrawn(p)
		raw, err := json.Marshal(d)
		require.NoError(t, err)
		var back card.Drawn
		require.NoError(t, json.Unmarshal(raw, &back))
		require.Equal(t, d.Path().Digest(), back.Path().Digest(), "%s", raw)
		require.Equal(t, d.Box(), back.Box())
		again, err := json.Marshal(&back)
		require.NoError(t, err)
		require.Equal(t, string(raw), string(again))
		// And it is where it was drawn, to a nanometre or so.
		for _, cs := range p.Curves() {
			for _, c := range cs {
				near, ok := d.Path().Nearest(c.At(.4))
				require.True(t, ok && near.Distance < 5e-6, "%v", near.Distance)
			}
		}
	}
}

func TestAnOutlineThatCannotBeWrittenIsRefused(t *testing.T) {
	for name, p := range map[string]geom.Path{
		"no number":    geom.RectPath(geom.Rect{W: math.NaN(), H: 10}),
		"without end":  geom.RectPath(geom.Rect{W: math.Inf(1), H: 10}),
		"far away":     geom.RectPath(geom.Rect{W: 20_000, H: 10}),
		"without size": geom.RectPath(geom.Rect{}),
	} {
		it := card.Item{Name: "Odd", Kind: card.Shape, Made: card.Made{As: card.Printed}, Place: card.Place{X: 50, Y: 50},
			Form: &card.Form{Outline: card.Free, Width: 10, Height: 10, Path: card.NewDrawn(p)}}
		_, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{it}})
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal, name)
		assert.Contains(t, refusal.Why, "“Odd”", name)
	}
	for _, raw := range []string{`7`, `"M0"`, `"L1 1"`, `{}`} {
		var d card.Drawn
		assert.Error(t, json.Unmarshal([]byte(raw), &d), raw)
	}
}

package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
)

// What a person has measured takes the place of what ships, where that was; her own stocks follow, and
// hidden ones are known and not offered.
func TestStocksOfOnesOwnStandBesideThoseThatShip(t *testing.T) {
	before := card.Stocks()
	defer card.KnowStocks(nil)
	moss, ok := card.StockByID("moss-216")
	require.True(t, ok)
	moss.Thickness, moss.Hidden = .3, true
	card.KnowStocks([]card.Stock{{ID: "own-1", Name: "Felt", Colour: "#8a8f94", Thickness: 3}, moss})

	all := card.AllStocks()
	require.Len(t, all, len(before)+1)
	assert.Equal(t, moss, all[5])
	assert.True(t, all[len(all)-1].Own)
	assert.NotContains(t, card.Stocks(), moss)
	is, ok := card.StockByID("moss-216")
	assert.True(t, ok)
	assert.InDelta(t, .3, is.Thickness, 1e-9)
	as, ok := card.AsShipped("moss-216")
	assert.True(t, ok)
	assert.InDelta(t, .28, as.Thickness, 1e-9)
	_, ok = card.AsShipped("own-1")
	assert.False(t, ok)
	for _, s := range all {
		assert.NoError(t, s.Check(), s.ID)
	}
	card.KnowStocks(nil)
	assert.Equal(t, before, card.Stocks())
	_, ok = card.StockByID("own-1")
	assert.False(t, ok)
}

// The least width of a part follows from the thickness until a person says otherwise.
func TestWhatAStockBears(t *testing.T) {
	last := 0.0
	for _, thick := range []float64{.05, .1, .2, .28, .4, 3} {
		bears := card.Stock{Thickness: thick}.Bears()
		assert.GreaterOrEqual(t, bears, last)
		last = bears
	}
	assert.InDelta(t, 1.2, card.Stock{Thickness: .28}.Bears(), 1e-9)
	assert.InDelta(t, .5, card.Stock{Thickness: 3, Least: .5}.Bears(), 1e-9)
}

package server_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/production/sheet"
	"sectilis/server"
)

// Stocks and sizes of one's own come and go over the protocol; the catalogue has them, under another name
// for its state, and what is wrong is told with the field.
func TestStocksOverTheProtocol(t *testing.T) {
	c, _ := start(t)
	t.Cleanup(func() { card.KnowStocks(nil); sheet.KnowSizes(nil) })
	var before, after server.Catalogue
	require.Equal(t, 200, c.call("GET", "/api/catalogue", "", &before))
	var made card.Stock
	require.Equal(t, http.StatusCreated, c.call("POST", "/api/stocks", `{"id":"mine","name":"Felt","colour":"#8a8f94","weight":0,"thickness":1,"pile":{"sheets":4,"together":12}}`, &made))
	assert.InDelta(t, 3, made.Thickness, 1e-9)
	assert.NotEqual(t, "mine", made.ID, "its id is not the client's to choose")
	require.Equal(t, http.StatusNoContent, c.call("PUT", "/api/stocks/"+made.ID, `{"id":"other","name":"Thick felt","colour":"#8a8f94","weight":0,"thickness":4,"hidden":true}`, nil))
	require.Equal(t, http.StatusNoContent, c.call("PUT", "/api/sizes", `[{"id":"","name":"Strip","width":300,"height":100}]`, nil))
	require.Equal(t, 200, c.call("GET", "/api/catalogue", "", &after))
	require.Len(t, after.Stocks, len(before.Stocks)+1)
	last := after.Stocks[len(after.Stocks)-1]
	assert.Equal(t, "Thick felt", last.Name)
	assert.True(t, last.Hidden)
	assert.NotEqual(t, before.StocksAre, after.StocksAre)
	assert.Equal(t, sheet.Size{ID: "own-100x300", Name: "Strip", Width: 100, Height: 300, Own: true}, after.Sizes[len(after.Sizes)-1])

	var all []app.StockView
	require.Equal(t, 200, c.call("GET", "/api/stocks", "", &all))
	assert.Len(t, all, len(after.Stocks))
	for path, body := range map[string]string{"/api/stocks/" + made.ID: `{"id":"","name":"","colour":"#8a8f94","weight":0,"thickness":4}`, "/api/sizes": `[{"id":"","name":"A4 again","width":210,"height":297}]`} {
		var p server.Problem
		require.Equal(t, http.StatusUnprocessableEntity, c.call("PUT", path, body, &p), path)
		assert.NotEmpty(t, p.Field)
	}
	assert.Equal(t, http.StatusNotFound, c.call("PUT", "/api/stocks/gold", `{"id":"","name":"Gold","colour":"#8a8f94","weight":0,"thickness":4}`, &server.Problem{}))
	assert.Equal(t, http.StatusNotFound, c.call("DELETE", "/api/stocks/"+made.ID, "", &server.Problem{}))
}

package server_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/internal/testserver"
)

// BenchmarkChange is a command's round trip over HTTP, from the request to the
// whole answer, on a card with 100 items, half of them lettering. The goal is
// under 30 ms.
func BenchmarkChange(b *testing.B) {
	h, err := testserver.Start(b.Context(), testserver.Options{Data: filepath.Join(b.TempDir(), "a.db")})
	require.NoError(b, err)
	defer h.Stop()
	c := coretest.Empty(b)
	for i := range 50 {
		place := card.Place{X: float64(10 + i%10*11), Y: float64(20 + i/10*28)}
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{
			{Name: "Tag", Kind: card.Shape, Place: place, Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: "scallop", Width: 10, Height: 20}},
			{Name: "Words", Kind: card.Lettering, Place: place, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"},
				Words: &card.Words{Text: fmt.Sprint("Plot ", i), Font: "pacifico-400", Size: 3, Leading: 1.2, Align: card.AlignCentre}},
		}})
		require.NoError(b, err)
	}
	id, err := h.App.Create(b.Context(), c)
	require.NoError(b, err)
	n := int64(1)
	for b.Loop() {
		body := fmt.Sprintf(`{"base":%d,"commands":[{"do":"moveItems","ids":["i1"],"dx":%d,"dy":0}]}`, n, n%2*2-1)
		res, err := http.Post(h.URL+"/api/cards/"+id+"/changes", "application/json", strings.NewReader(body))
		require.NoError(b, err)
		var v struct {
			Revision int64 `json:"revision"`
		}
		require.NoError(b, json.NewDecoder(res.Body).Decode(&v))
		require.NoError(b, res.Body.Close())
		n = v.Revision
	}
}

package server_test

import (
	"net/http"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/production/sheet"
	"sectilis/server"
)

// docs/api.md names every route there is, and no other.
func TestTheAPIIsWrittenDown(t *testing.T) {
	raw, err := os.ReadFile("../docs/api.md")
	require.NoError(t, err)
	var written []string
	for _, m := range regexp.MustCompile("(?m)^\\| `((?:GET|POST|PUT|DELETE) \\S+)` \\|").FindAllStringSubmatch(string(raw), -1) {
		written = append(written, m[1])
	}
	var there []string
	for _, r := range server.Handler(server.Config{}).(*gin.Engine).Routes() {
		if path, ok := strings.CutPrefix(r.Path, "/api"); ok {
			there = append(there, r.Method+" "+path)
		}
	}
	slices.Sort(written)
	slices.Sort(there)
	assert.Equal(t, there, written)
}

func TestWhatIsOnHandOfAStock(t *testing.T) {
	c, _ := start(t)
	var all []sheet.OnHand
	require.Equal(t, http.StatusOK, c.call("GET", "/api/onhand", "", &all))
	assert.Empty(t, all)
	moss := sheet.OnHand{Stock: "moss-216", Sizes: []string{"a5", "letter"}, Direction: sheet.GrainShort}
	require.Equal(t, http.StatusNoContent, c.call("PUT", "/api/stocks/moss-216/onhand", `{"stock":"gold","sizes":["a5","letter"],"direction":"grainShort"}`, nil), "the path says which stock")
	require.Equal(t, http.StatusNoContent, c.call("PUT", "/api/stocks/satin-240/onhand", `{"stock":"","sizes":[],"borderless":true}`, nil))
	require.Equal(t, http.StatusOK, c.call("GET", "/api/onhand", "", &all))
	assert.Equal(t, []sheet.OnHand{moss, {Stock: "satin-240", Sizes: []string{}, Borderless: true}}, all)

	for path, body := range map[string]string{
		"gold": `{"stock":"","sizes":[]}`, "moss-216": `{"stock":"","sizes":["a9"]}`, "brick-216": `{"stock":"","sizes":["a4","a4"]}`, "white-216": `{"stock":"","sizes":[],"direction":"up"}`,
	} {
		assert.Equal(t, http.StatusUnprocessableEntity, c.call("PUT", "/api/stocks/"+path+"/onhand", body, nil), body)
	}
	// What is as usual is not noted.
	require.Equal(t, http.StatusNoContent, c.call("PUT", "/api/stocks/moss-216/onhand", `{"stock":"","sizes":[]}`, nil))
	require.Equal(t, http.StatusOK, c.call("GET", "/api/onhand", "", &all))
	require.Len(t, all, 1)
	assert.Equal(t, "satin-240", all[0].Stock)
}

func TestPaperThatCannotBeIsRefused(t *testing.T) {
	c, _ := start(t)
	var made struct{ ID string }
	require.Equal(t, http.StatusCreated, c.call("POST", "/api/cards", `{"title":"A","base":{"kind":"sideFold","width":127,"height":177.8,"stock":"cream-300"}}`, &made))
	ask := func(query string) int { return c.call("GET", "/api/cards/"+made.ID+"/sheets?"+query, "", nil) }
	for _, ok := range []string{"", "size=a3&lie=landscape&turning=freely&marks=hand&share=1", "margin=0&between=50"} {
		assert.Equal(t, http.StatusOK, ask(ok), ok)
	}
	for _, bad := range []string{"margin=NaN", "margin=-1", "margin=50.1", "margin=1e400", "margin=wide", "between=2.9", "between=Inf", "between=%00", "margin=5&between=-Inf", "size=papyrus", "turning=upside", "marks=all", "lie=askew"} {
		assert.Equal(t, http.StatusUnprocessableEntity, ask(bad), bad)
	}
}

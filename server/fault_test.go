package server_test

import (
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"maps"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/card"
	"sectilis/core/coretest"
	"sectilis/core/cut"
	"sectilis/server"
	"sectilis/store"
)

// bodies are what each request sends; requests that are not named send nothing.
var bodies = map[string]string{
	"POST /measures":                      `{"text":"1 in","unit":"in"}`,
	"POST /typesettings":                  `{"text":"x","font":"pacifico-400","size":5,"leading":1,"spacing":0,"align":"left"}`,
	"POST /cards":                         letter,
	"POST /cards/:id/changes":             fmt.Sprintf(shape, 2),
	"POST /cards/:id/trials":              fmt.Sprintf(shape, 2),
	"POST /cards/:id/undo":                `{"base":2}`,
	"POST /cards/:id/redo":                `{"base":2}`,
	"POST /cards/:id/faces/:face/gaps":    `{"at":{"x":20,"y":20}}`,
	"POST /cards/:id/faces/:face/colours": `{"at":{"x":20,"y":20}}`,
	"POST /cards/:id/drawings":            `{"base":2,"drawing":"d1","face":"front","middle":{"x":20,"y":20},"lines":{},"filled":{}}`,
	"PUT /printer/correction":             `{"across":100,"down":100}`,
	"PUT /scraps":                         `[]`,
	"PUT /stocks/:stock/onhand":           `{"stock":"","sizes":["a5"]}`,
	"PUT /supplies/:kind/:id":             `{"kind":"paper","id":"comb","favourite":true}`,
	"POST /cards/:id/sketches":            `{"title":"T","face":"front","slots":[],"tags":[]}`,
	"POST /sketches/:id/cards":            `{"title":"T"}`,
	"PUT /cutter/named":                   `{"address":""}`,
}

// needless are the requests that the store has no part in.
var needless = []string{"/catalogue", "/papers/", "/measures", "/typesettings", "/events", "/drawings", "/jobs", "/prints/", "/cutter", "/printer/tests"}

// Whatever is asked of a program whose store has failed, the answer says that something went
// wrong: never that nothing is there, never success, and nothing of the inside.
func TestAFailedStoreIsToldOnEveryWay(t *testing.T) {
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "a.db"))
	require.NoError(t, err)
	quiet := slog.New(slog.NewTextHandler(io.Discard, nil))
	on := func() http.Handler {
		a := app.New(app.Config{Store: s, Log: quiet})
		t.Cleanup(a.Close)
		return server.Handler(server.Config{App: a, Log: quiet})
	}
	ask := func(h http.Handler, method, path, body string) *httptest.ResponseRecorder {
		w := httptest.NewRecorder()
		r := httptest.NewRequest(method, "http://127.0.0.1"+path, strings.NewReader(body)).WithContext(t.Context())
		h.ServeHTTP(w, r)
		return w
	}
	sound := on()
	w := ask(sound, "POST", "/api/cards", letter)
	require.Equal(t, 201, w.Code)
	id := strings.Split(w.Body.String(), `"`)[3]
	require.Equal(t, 200, ask(sound, "POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1)).Code)
	_, picture := coretest.Photo(t, 30, 20)
	settings, err := json.Marshal(cut.SettingsOf(card.Stocks()[0]))
	require.NoError(t, err)
	sent := maps.Clone(bodies)
	sent["PUT /stocks/:stock/settings"] = string(settings)

	require.NoError(t, s.Close())
	// Nothing is remembered from before.
	broken := on()
	fill := strings.NewReplacer(":id", id, ":face", "front", ":item", "i1", ":n", "1", ":stock", "moss-216", ":kind", "paper", ":ref", "x", ":what", "pause")
	checked := 0
	for _, r := range broken.(*gin.Engine).Routes() {
		path, ok := strings.CutPrefix(r.Path, "/api")
		if !ok {
			continue
		}
		skip := false
		for _, n := range needless {
			skip = skip || strings.HasPrefix(path, n)
		}
		if skip || r.Method == "POST" && path == "/pictures" {
			continue
		}
		way := r.Method + " " + path
		path = strings.Replace(path, "/pictures/:id", "/pictures/"+picture, 1)
		path = strings.Replace(path, ":face/:file", "front/outlines.svg", 1)
		path = strings.Replace(path, "/runs/:file", "/runs/abcdefabcdefabcdefabcdef.png", 1)
		w := ask(broken, r.Method, "/api"+fill.Replace(path)+"?side=256", sent[way])
		checked++
		if way == "POST /cards/:id/drawings" || strings.HasSuffix(way, "/loads") || strings.HasSuffix(way, "/finds") || strings.HasSuffix(way, "/tests") {
			assert.GreaterOrEqual(t, w.Code, 400, way) // refused before the store is asked
			continue
		}
		assert.Equal(t, http.StatusInternalServerError, w.Code, "%s: %s", way, w.Body)
		assert.Contains(t, w.Body.String(), "Something went wrong inside", way)
		assert.NotContains(t, w.Body.String(), "sql", way)
	}
	assert.Greater(t, checked, 35)
}

func TestSizesThatFitAreAnswered(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	var fits []struct {
		Area string  `json:"area"`
		Name string  `json:"name"`
		Less float64 `json:"less"`
	}
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/items/i1/fits", "", &fits))
	require.NotEmpty(t, fits)
	assert.Equal(t, "face", fits[0].Area)
	assert.Equal(t, "Front", fits[0].Name)
	var p server.Problem
	require.Equal(t, 404, c.call("GET", "/api/cards/"+id+"/items/i9/fits", "", &p))
	require.Equal(t, 404, c.call("GET", "/api/cards/none/items/i1/fits", "", &p))

	var v doc
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", `{"base":2,"commands":[{"do":"fitTo","id":"i1","area":"face","less":6.35}]}`, nil))
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id, "", &v))
	_, it := v.Card.Find("i1")
	assert.InDelta(t, 127-12.7, it.Form.Width, 1e-6)
	require.Equal(t, 422, c.call("POST", "/api/cards/"+id+"/changes", `{"base":3,"commands":[{"do":"fitTo","id":"i1","area":"moon","less":0}]}`, &p))
	assert.Contains(t, p.Detail, "cannot be made that large")
}

package server_test

import (
	"bytes"
	"database/sql"
	"encoding/json"
	"fmt"
	"image/png"
	"io"
	"log/slog"
	"maps"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/production/cut"
	"sectilis/server"
	"sectilis/store"
)

// bodies are what each request sends; requests that are not named send nothing.
var bodies = map[string]string{
	"POST /measures":                      `{"text":"1 in","unit":"in"}`,
	"POST /pictures/:id/traces":           `{"by":"darkness"}`,
	"POST /pictures/:id/edited":           `{"edits":[{"lean":{"degrees":2}}]}`,
	"POST /pictures/:id/ways":             `{"edits":[],"from":{"x":0.1,"y":0.1},"to":{"x":0.5,"y":0.5}}`,
	"POST /pictures/:id/right":            `{"edits":[]}`,
	"POST /typesettings":                  `{"words":{"text":"x","font":"pacifico-400","size":5,"leading":1,"spacing":0,"align":"left"}}`,
	"POST /cards":                         letter,
	"POST /cards/:id/changes":             fmt.Sprintf(shape, 2),
	"POST /cards/:id/trials":              fmt.Sprintf(shape, 2),
	"POST /cards/:id/trials/sheets":       fmt.Sprintf(shape, 2),
	"POST /cards/:id/undo":                `{"base":2}`,
	"POST /cards/:id/redo":                `{"base":2}`,
	"POST /cards/:id/faces/:face/gaps":    `{"at":{"x":20,"y":20}}`,
	"POST /cards/:id/faces/:face/colours": `{"at":{"x":20,"y":20}}`,
	"POST /cards/:id/drawings":            `{"base":2,"drawing":"d1","face":"front","middle":{"x":20,"y":20},"lines":{},"filled":{}}`,
	"PUT /printer/correction":             `{"across":100,"down":100}`,
	"PUT /printer/reach":                  `{"margin":4,"borderless":["a4"]}`,
	"PUT /scraps":                         `[]`,
	"PUT /photolooks":                     `{"name":"Old","edits":[{"tone":{"colour":"#704214","amount":60}}]}`,
	"POST /cards/:id/cuts":                `{"from":{"x":0,"y":5},"to":{"x":50,"y":5}}`,
	"PUT /cards/:id/assembly/:step/done":  `{"done":true}`,
	"PUT /posts":                          `[{"name":"Letter","width":240,"height":160,"thick":5,"weight":50}]`,
	"PUT /sizes":                          `[{"id":"","name":"Strip","width":100,"height":300}]`,
	"POST /stocks":                        `{"id":"","name":"Felt","colour":"#8a8f94","weight":0,"thickness":3}`,
	"PUT /stocks/:stock":                  `{"id":"","name":"Felt","colour":"#8a8f94","weight":0,"thickness":3}`,
	"PUT /stocks/:stock/onhand":           `{"stock":"","sizes":["a5"]}`,
	"PUT /supplies/:kind/:id":             `{"kind":"paper","id":"comb","favourite":true}`,
	"POST /cards/:id/motifs":              `{"face":"front","item":"i1","name":"M"}`,
	"POST /papers":                        `{"name":"Felt","picture":"none","width":20,"height":20}`,
	"POST /cards/:id/art":                 `{"base":1,"art":"none","face":"front"}`,
	"POST /cards/:id/art/kept":            `{"face":"front","ids":["i1"],"name":"T"}`,
	"POST /cards/:id/sketches":            `{"title":"T","face":"front","slots":[],"tags":[]}`,
	"POST /sketches/:id/cards":            `{"title":"T"}`,
	"PUT /cutter/named":                   `{"address":""}`,
}

// needless are the requests that the store has no part in.
var needless = []string{"/papers/", "/measures", "/typesettings", "/events", "/drawings", "/lists", "/jobs", "/prints/", "/cutter", "/printer/tests"}

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
	fill := strings.NewReplacer(":id", id, ":face", "front", ":item", "i1", ":n", "1", ":stock", "moss-216", ":kind", "paper", ":ref", "x", ":what", "pause", ":name", "Garage", ":step", "cut")
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
		if skip || r.Method == "POST" && slices.Contains([]string{"/pictures", "/fonts", "/art", "/papers/files", "/supplies", "/cards/files", "/stocks/:stock/profile", "/stocks/:stock/tones"}, path) {
			continue
		}
		way := r.Method + " " + path
		path = strings.Replace(path, "/pictures/:id", "/pictures/"+picture, 1)
		path = strings.Replace(path, "/assembly/:file", "/assembly/cut.svg", 1)
		path = strings.Replace(path, ":row/:file", "n1/front.png", 1)
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

// What has no room on the sheets is named before anything goes out without it.
func TestWhatIsOnNoSheetIsNamedBeforeSheetsGoOut(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	big := func(name string) string {
		return fmt.Sprintf(`{"id":"","name":%q,"kind":"shape","place":{"x":60,"y":60,"turn":0},"made":{"as":"cut","stock":"moss-216"},"fill":{},
			"form":{"outline":"rectangle","corner":"square","width":400,"height":30}}`, name)
	}
	rev := 1
	put := func(names ...string) {
		var items []string
		for _, n := range names {
			items = append(items, big(n))
		}
		body := fmt.Sprintf(`{"base":%d,"commands":[{"do":"placeItems","face":"front","items":[%s]}]}`, rev, strings.Join(items, ","))
		require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", body, nil))
		rev++
	}
	outs := []string{"sheets.pdf", "sheets.zip", "sheets/1/lines.svg", "sheets/1/lines.hpgl"}
	var p server.Problem
	inked := strings.Replace(shape, `"fill":{}`, `"fill":{"colour":"#35658c"}`, 1)
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(inked, rev), nil))
	rev++
	put("Ribbon")
	for _, out := range outs {
		require.Equal(t, 409, c.call("GET", "/api/cards/"+id+"/"+out+"?size=letter", "", &p), out)
		assert.Equal(t, "urn:sectilis:missing", p.Type)
		assert.Equal(t, "“Ribbon” is on no sheet: there is no room on the paper. What goes out is without.", p.Detail)
		require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/"+out+"?size=letter&without=1", "", nil), out)
	}
	put("A", "B", "C", "D", "E")
	require.Equal(t, 409, c.call("GET", "/api/cards/"+id+"/sheets.pdf?size=letter", "", &p))
	assert.Contains(t, p.Detail, " and 2 more are on no sheet")
	require.Equal(t, 409, c.call("POST", "/api/cards/"+id+"/prints?size=letter", "", &p))
}

func TestLooksAndOutlinesOfAFace(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	face := "/api/cards/" + id + "/faces/front/"
	size := func(path string) (w, h int) {
		raw, _ := c.get(path)
		cfg, err := png.DecodeConfig(bytes.NewReader(raw))
		require.NoError(t, err)
		return cfg.Width, cfg.Height
	}
	w, h := size(face + "look.png")
	assert.Equal(t, 640, max(w, h))
	assert.InDelta(t, 127/177.8, float64(w)/float64(h), .01)
	w, h = size(face + "look.png?piece=i1")
	assert.InDelta(t, 50./30, float64(w)/float64(h), .01, "the piece alone")
	for _, path := range []string{"look.png?piece=i7", "look.gif", "outlines.doc"} {
		assert.Equal(t, 404, c.call("GET", face+path, "", &server.Problem{}), path)
	}
	assert.Equal(t, 404, c.call("GET", "/api/cards/"+id+"/faces/cellar/look.png", "", &server.Problem{}))
	for _, kind := range []string{"svg", "dxf", "hpgl"} {
		raw, _ := c.get(face + "outlines." + kind + "?items=i1")
		assert.NotEmpty(t, raw, kind)
	}
}

// A state that cannot be read is said to be there, and the one before it can be taken up.
func TestACardWhoseNewestStateIsSpoiltIsTakenUpFromTheOneBefore(t *testing.T) {
	data := filepath.Join(t.TempDir(), "a.db")
	s, err := store.Open(t.Context(), data)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	quiet := slog.New(slog.NewTextHandler(io.Discard, nil))
	serve := func() *client {
		a := app.New(app.Config{Store: s, Log: quiet})
		t.Cleanup(a.Close)
		h := httptest.NewServer(server.Handler(server.Config{App: a, Log: quiet}))
		t.Cleanup(h.Close)
		return &client{t, h.URL}
	}
	c := serve()
	id := c.create()
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	db, err := sql.Open("sqlite", data)
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	spoil := func(number int) {
		_, err := db.Exec(`UPDATE revisions SET doc = x'7b7b' WHERE number = ?`, number)
		require.NoError(t, err)
	}
	spoil(2)
	c = serve()
	var p server.Problem
	require.Equal(t, 422, c.call("GET", "/api/cards/"+id, "", &p))
	assert.Equal(t, "urn:sectilis:damaged", p.Type)
	assert.Contains(t, p.Detail, "The last one that can be read is of ")
	var v doc
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/recovery", "", &v))
	assert.EqualValues(t, 3, v.Revision)
	assert.Empty(t, v.Card.Face("front").Items)
	for n := 1; n <= 3; n++ {
		spoil(n)
	}
	c = serve()
	require.Equal(t, 422, c.call("GET", "/api/cards/"+id, "", &p))
	assert.Equal(t, "urn:sectilis:lost", p.Type)
	require.Equal(t, 404, c.call("POST", "/api/cards/"+id+"/recovery", "", &p))
}

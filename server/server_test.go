package server_test

import (
	"archive/zip"
	"bytes"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"io"
	"mime"
	"mime/multipart"
	"net/http"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/internal/testserver"
	"sectilis/server"
)

type client struct {
	*testing.T
	url string
}

func start(t *testing.T) (*client, *testserver.Server) {
	t.Helper()
	h, err := testserver.Start(t.Context(), testserver.Options{Data: filepath.Join(t.TempDir(), "a.db"), PrintScale: 150 / 25.4})
	require.NoError(t, err)
	t.Cleanup(h.Stop)
	return &client{t, h.URL}, h
}

// call sends a request and decodes the answer into v, if there is one.
func (c *client) call(method, path, body string, v any) int {
	c.Helper()
	req, err := http.NewRequest(method, c.url+path, strings.NewReader(body))
	require.NoError(c, err)
	return c.do(req, v)
}

func (c *client) do(req *http.Request, v any) int {
	c.Helper()
	res, err := http.DefaultClient.Do(req)
	require.NoError(c, err)
	defer func() { _ = res.Body.Close() }()
	raw, err := io.ReadAll(res.Body)
	require.NoError(c, err)
	if v != nil && res.StatusCode < 300 {
		require.NoError(c, json.Unmarshal(raw, v), string(raw))
	}
	if res.StatusCode >= 400 {
		require.Equal(c, "application/problem+json", res.Header.Get("Content-Type"))
		if p, ok := v.(*server.Problem); ok {
			require.NoError(c, json.Unmarshal(raw, p))
		}
	}
	return res.StatusCode
}

// doc is the part of a view that the document is in.
type doc struct {
	Revision int64     `json:"revision"`
	Card     card.Card `json:"card"`
}

const letter = `{"title":"A card","base":{"kind":"sideFold","width":127,"height":177.8,"stock":"cream-300"}}`

const shape = `{"base":%d,"commands":[{"do":"placeItems","face":"front","items":[{"id":"","name":"Label","kind":"shape","place":{"x":60,"y":60,"turn":0},
	"made":{"as":"cut","stock":"moss-216"},"fill":{},"form":{"outline":"rectangle","corner":"square","width":50,"height":30}}]}]}`

func (c *client) create() string {
	c.Helper()
	var ref server.CardRef
	require.Equal(c, 201, c.call("POST", "/api/cards", letter, &ref))
	return ref.ID
}

func (c *client) upload(name string, raw []byte, v any) int {
	return c.send("/api/pictures", name, raw, v)
}

func (c *client) send(path, name string, raw []byte, v any) int {
	c.Helper()
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	part, err := w.CreateFormFile("file", name)
	require.NoError(c, err)
	_, err = part.Write(raw)
	require.NoError(c, err)
	require.NoError(c, w.Close())
	req, err := http.NewRequest("POST", c.url+path, &b)
	require.NoError(c, err)
	req.Header.Set("Content-Type", w.FormDataContentType())
	return c.do(req, v)
}

func TestAChangeAnswersWithWhatChanged(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	var v doc
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id, "", &v))
	assert.Len(t, v.Card.Faces, 4)
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))

	var raw struct {
		Revision int64    `json:"revision"`
		Made     []string `json:"made"`
		Undo     string   `json:"undo"`
		Scene    struct {
			Faces []struct {
				ID    string `json:"id"`
				Items []struct {
					Outline string
				}
			} `json:"faces"`
		} `json:"scene"`
		Order []struct{ All, Seen []string }
	}
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", strings.Replace(fmt.Sprintf(shape, 2), `"x":60`, `"x":110`, 1), &raw))
	assert.Equal(t, int64(3), raw.Revision)
	assert.Equal(t, []string{"i2"}, raw.Made)
	assert.Equal(t, "Place shape", raw.Undo)
	require.Len(t, raw.Scene.Faces, 1, "only the face that changed")
	assert.Equal(t, "front", raw.Scene.Faces[0].ID)
	assert.Equal(t, "M-25 -15L25 -15L25 15L-25 15Z", raw.Scene.Faces[0].Items[0].Outline)
	assert.Len(t, raw.Scene.Faces[0].Items, 1, "and of what did not change only the id")
	assert.Equal(t, []string{"i1", "i2"}, raw.Order[0].Seen)

	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/undo", `{"base":3}`, nil))
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/undo", `{"base":4}`, nil))
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/redo", `{"base":5}`, nil))
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id, "", &v))
	assert.Len(t, v.Card.Faces[0].Items, 1)
}

func TestBadInputSaysWhatIsWrongAndChangesNothing(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	path := "/api/cards/" + id
	for _, bad := range []struct {
		method, path, body string
		status             int
		kind, field        string
	}{
		{"POST", "/api/cards", `{"title":"x","base":{"kind":"sideFold","width":0,"height":177.8,"stock":"cream-300"}}`, 422, "refused", "width"},
		{"POST", "/api/cards", `{"title":"x","base":{"kind":"sideFold","width":127,"height":-3,"stock":"cream-300"}}`, 422, "refused", "height"},
		{"POST", "/api/cards", `{"title":`, 400, "malformed", "body"},
		{"POST", "/api/cards", `{"title":"x","colour":"red"}`, 400, "malformed", "body"},
		{"POST", "/api/cards", `{} {}`, 400, "malformed", "body"},
		{"GET", "/api/cards/nobody", "", 404, "not-found", "id"},
		{"DELETE", "/api/cards/nobody", "", 404, "not-found", "id"},
		{"POST", "/api/cards/nobody/restore", "", 404, "not-found", "id"},
		{"POST", "/api/cards/nobody/copies", "", 404, "not-found", "id"},
		{"POST", path + "/changes", fmt.Sprintf(shape, 7), 409, "stale", "base"},
		{"POST", path + "/changes", `{"base":1,"commands":[]}`, 422, "refused", "commands"},
		{"POST", path + "/changes", `{"base":1,"commands":[{"do":"explode"}]}`, 422, "refused", "do"},
		{"POST", path + "/changes", `{"base":1,"commands":[{"do":"moveItems","ids":["i9"],"dx":1,"dy":0}]}`, 422, "refused", "ids"},
		{"POST", path + "/changes", `{"base":1,"commands":[{"do":"renameCard","title":"ok"},{"do":"renameCard","title":""}]}`, 422, "refused", "title"},
		{"POST", path + "/changes", strings.Replace(fmt.Sprintf(shape, 1), `"fill":{}`, `"fill":{"paper":"none-such"}`, 1), 422, "refused", "paper"},
		{"POST", path + "/changes", strings.Replace(fmt.Sprintf(shape, 1), "moss-216", "gold-leaf", 1), 422, "refused", "stock"},
		{"POST", path + "/changes", `{"base":1,"commands":[{"do":"placeItems","face":"front","items":[{"id":"","name":"W","kind":"lettering","place":{"x":1,"y":1,"turn":0},
			"made":{"as":"printed"},"fill":{"colour":"#000000"},"words":{"text":"x","font":"no-font","size":5,"leading":1,"spacing":0,"align":"left"}}]}]}`, 422, "refused", "font"},
		{"POST", path + "/changes", `{"base":1,"commands":[{"do":"placeItems","face":"front","items":[{"id":"","name":"P","kind":"photo","place":{"x":1,"y":1,"turn":0},
			"made":{"as":"printed"},"fill":{},"photo":{"picture":"` + strings.Repeat("ab", 32) + `","pixelWidth":5,"pixelHeight":5,"width":5,"height":5}}]}]}`, 422, "refused", "picture"},
		{"POST", path + "/undo", `{"base":1}`, 409, "nothing", ""},
		{"POST", path + "/redo", `{"base":1}`, 409, "nothing", ""},
		{"POST", "/api/measures", `{"text":"three","unit":"in"}`, 422, "measure", "text"},
		{"POST", "/api/measures", `{"text":"3","unit":"ell"}`, 422, "refused", "unit"},
		{"POST", "/api/typesettings", `{"words":{"text":"x","font":"no-font","size":5,"leading":1,"spacing":0,"align":"left"}}`, 422, "refused", "font"},
		{"GET", path + "/sheets?margin=-1", "", 422, "refused", "margin"},
		{"GET", path + "/sheets?between=wide", "", 422, "refused", "between"},
		{"GET", path + "/sheets?between=1", "", 422, "refused", "between"},
		{"GET", path + "/sheets.pdf", "", 422, "refused", "sheets"},
		{"GET", path + "/sheets/9/lines.svg", "", 404, "not-found", "id"},
		{"GET", path + "/sheets/x/lines.hpgl", "", 404, "not-found", "id"},
		{"POST", path + "/sheets/9/runs", "", 404, "not-found", "id"},
		{"GET", "/api/jobs/none", "", 404, "not-found", "id"},
		{"GET", "/api/runs/none.png", "", 404, "not-found", "id"},
		{"GET", "/api/prints/p77", "", 404, "not-found", "id"},
		{"GET", "/api/papers/none.svg", "", 404, "not-found", "id"},
		{"GET", "/fonts/none.woff", "", 404, "not-found", "id"},
		{"GET", "/api/nothing", "", 404, "not-found", ""},
		{"GET", "/api/pictures/none/preview?side=256", "", 404, "not-found", "id"},
		{"GET", "/api/pictures/none/preview?side=5", "", 422, "refused", "side"},
		{"POST", "/api/pictures", "no form", 422, "refused", "file"},
		{"POST", "/api/fonts", "no form", 422, "refused", "file"},
		{"DELETE", "/api/fonts/pacifico-400", "", 404, "not-found", "id"},
		{"DELETE", "/api/fonts/own-none", "", 404, "not-found", "id"},
		{"POST", "/api/pictures/none/traces", `{"by":"darkness"}`, 404, "not-found", "id"},
		{"POST", "/api/pictures/none/edited?side=64", `{"edits":[{"lean":{"degrees":2}}]}`, 404, "not-found", "id"},
		{"POST", "/api/pictures/none/edited", `{"edits":[]}`, 422, "refused", "side"},
		{"POST", "/api/pictures/none/edited?side=64", `{"edits":[{"lean":{"degrees":80}}]}`, 422, "refused", "degrees"},
		{"POST", "/api/pictures/none/edited?side=64", `{"edits":[{}]}`, 422, "refused", "edits"},
		{"POST", "/api/pictures/none/right", `{"edits":[{"tone":{"colour":"red","amount":3}}]}`, 422, "refused", "colour"},
		{"POST", "/api/pictures/none/ways", `{"edits":[],"from":{"x":0,"y":0},"to":{"x":7,"y":0}}`, 422, "refused", "from"},
		{"POST", "/api/pictures/none/ways", `{"edits":[],"from":{"x":0,"y":0},"to":{"x":1,"y":0}}`, 404, "not-found", "id"},
		{"PUT", "/api/photolooks", `{"name":" ","edits":[]}`, 422, "refused", "name"},
		{"PUT", "/api/photolooks", `{"name":"Old","edits":[{"lean":{"degrees":2}}]}`, 422, "refused", "edits"},
		{"POST", "/api/pictures/none/traces", `{"by":"guessing"}`, 422, "refused", "by"},
		{"POST", "/api/pictures/none/traces", `{"by":"layers","count":99}`, 422, "refused", "count"},
		{"GET", path + "/items/i9/points", "", 404, "not-found", "id"},
		{"GET", path + "/items/i9/forms", "", 404, "not-found", "id"},
	} {
		var p server.Problem
		require.Equal(t, bad.status, c.call(bad.method, bad.path, bad.body, &p), "%s %s %s", bad.method, bad.path, bad.body)
		assert.Equal(t, "urn:sectilis:"+bad.kind, p.Type, bad.path)
		assert.Equal(t, bad.field, p.Field, "%s %s", bad.path, bad.body)
		assert.Greater(t, len(p.Detail), 20, "a sentence for the person")
	}
	var p server.Problem
	require.Equal(t, 422, c.upload("notes.png", []byte("only words"), &p))
	assert.Contains(t, p.Detail, "“notes.png” is no picture")
	jpg, _ := coretest.Photo(t, 30, 20)
	require.Equal(t, 422, c.upload("plum.png", jpg, &p))
	assert.Contains(t, p.Detail, "called a PNG but holds a JPEG")
	require.Equal(t, 413, c.upload("big.jpg", make([]byte, 66<<20), &p))
	assert.Contains(t, p.Detail, "64 MB")

	var v doc
	require.Equal(t, 200, c.call("GET", path, "", &v))
	assert.Equal(t, int64(1), v.Revision)
	assert.Equal(t, "A card", v.Card.Title)
	var list []app.Picture
	require.Equal(t, 200, c.call("GET", "/api/pictures", "", &list))
	assert.Empty(t, list)
}

func TestOtherSitesCannotReachIn(t *testing.T) {
	c, _ := start(t)
	for _, host := range []string{"LOCALHOST", "localhost.", "Localhost:7400"} { // as DNS takes names
		req, err := http.NewRequest("GET", c.url+"/api/cards", nil)
		require.NoError(t, err)
		req.Host = host
		assert.Equal(t, 200, c.do(req, nil), host)
	}
	for name, set := range map[string]func(*http.Request){
		"host":   func(r *http.Request) { r.Host = "evil.example" },
		"origin": func(r *http.Request) { r.Header.Set("Origin", "http://evil.example") },
		"site":   func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", "cross-site") },
	} {
		req, err := http.NewRequest("POST", c.url+"/api/cards", strings.NewReader(letter))
		require.NoError(t, err)
		set(req)
		status := c.do(req, nil)
		assert.Contains(t, []int{403, 421}, status, name)
	}
	res, err := http.Get(c.url + "/")
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	assert.Contains(t, res.Header.Get("Content-Security-Policy"), "default-src 'self'")
	assert.Equal(t, "nosniff", res.Header.Get("X-Content-Type-Options"))
}

func TestTwoWritersLoseNothing(t *testing.T) {
	c, h := start(t)
	id := c.create()
	const each = 12
	var wait sync.WaitGroup
	for range 3 {
		wait.Go(func() {
			for done := 0; done < each; {
				v, err := h.App.Open(t.Context(), id)
				if !assert.NoError(t, err) {
					return
				}
				cmd, err := card.Decode(card.Commands, []byte(shapeCommand))
				if !assert.NoError(t, err) {
					return
				}
				_, err = h.App.Change(t.Context(), id, v.Revision, []card.Command{cmd})
				if err == nil {
					done++
				} else if !assert.ErrorIs(t, err, app.ErrStale) {
					return
				}
			}
		})
	}
	wait.Wait()
	v, err := h.App.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, int64(1+3*each), v.Revision)
	assert.Len(t, v.Card.Faces[0].Items, 3*each)
}

const shapeCommand = `{"do":"placeItems","face":"front","items":[{"name":"S","kind":"shape","place":{"x":60,"y":60,"turn":0},
	"made":{"as":"printed"},"fill":{"colour":"#587a4a"},"form":{"outline":"ellipse","width":5,"height":5}}]}`

func TestEventsTellOfChangesAndRuns(t *testing.T) {
	c, h := start(t)
	id := c.create()
	res, err := http.Get(c.url + "/api/events")
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	require.Equal(t, "text/event-stream", res.Header.Get("Content-Type"))
	buf := make([]byte, 4096)
	n, err := res.Body.Read(buf)
	require.NoError(t, err)
	require.Contains(t, string(buf[:n]), "event:hello")

	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	var job app.Job
	require.Equal(t, 202, c.call("POST", "/api/cards/"+id+"/sheets/1/runs", "", &job))
	heard, asked := "", 0
	for !strings.Contains(heard, `"state":"done"`) {
		n, err := res.Body.Read(buf)
		require.NoError(t, err)
		heard += string(buf[:n])
		if n := strings.Count(heard, `"needs":`); n > asked {
			asked = n
			require.Equal(t, 204, c.call("POST", "/api/jobs/"+job.ID+"/resume", "", nil), "the tool is in")
		}
	}
	assert.Contains(t, heard, `event:card`)
	assert.Contains(t, heard, `"revision":2`)
	assert.Contains(t, heard, `event:job`)

	require.Equal(t, 200, c.call("GET", "/api/jobs/"+job.ID, "", &job))
	require.Len(t, job.Pictures, 1)
	var l struct {
		Sheets []struct {
			State struct{ State string }
		}
	}
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/sheets", "", &l))
	assert.Equal(t, "done", l.Sheets[0].State.State)
	png, err := http.Get(c.url + "/api/" + job.Pictures[0])
	require.NoError(t, err)
	defer func() { _ = png.Body.Close() }()
	assert.Equal(t, "image/png", png.Header.Get("Content-Type"))

	h.EndCutter()
	require.Eventually(t, func() bool {
		var p server.Problem
		return c.call("POST", "/api/cards/"+id+"/sheets/1/runs", "", &p) == 422 && strings.Contains(p.Detail, "nothing answers at")
	}, 20*time.Second, 10*time.Millisecond, "a cutter that is gone is said")
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id, "", nil), "and the rest works")
}

func TestPrintingGoesToThePrinter(t *testing.T) {
	c, h := start(t)
	jpg, pic := coretest.Photo(t, 300, 200)
	var p app.Picture
	require.Equal(t, 201, c.upload("red_and_green.jpg", jpg, &p))
	assert.Equal(t, app.Picture{ID: pic, Name: "red and green", Type: "image/jpeg", Width: 300, Height: 200, Bytes: len(jpg)}, p)
	id, err := h.App.Create(t.Context(), coretest.Card(t))
	require.NoError(t, err)
	var job app.Job
	require.Equal(t, 202, c.call("POST", "/api/cards/"+id+"/prints", "", &job))
	require.Eventually(t, func() bool {
		require.Equal(t, 200, c.call("GET", "/api/jobs/"+job.ID, "", &job))
		return job.State != app.Running
	}, 10*time.Minute, 20*time.Millisecond)
	require.Equal(t, app.Done, job.State, job.Note)
	assert.Len(t, job.Pictures, 5, "base on both sides, leaf paper, photo, label")
	res, err := http.Get(c.url + "/api/" + job.Pictures[0])
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	assert.Equal(t, 200, res.StatusCode)

	require.Equal(t, 202, c.call("POST", "/api/cards/"+id+"/prints", "", &job))
	require.Equal(t, 202, c.call("DELETE", "/api/jobs/"+job.ID, "", nil))
	require.Eventually(t, func() bool {
		require.Equal(t, 200, c.call("GET", "/api/jobs/"+job.ID, "", &job))
		return job.State == app.Stopped
	}, 10*time.Minute, 10*time.Millisecond)
}

func TestTheTableOfCards(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	var ref server.CardRef
	require.Equal(t, 201, c.call("POST", "/api/cards/"+id+"/copies", "", &ref))
	var list []app.Summary
	require.Equal(t, 200, c.call("GET", "/api/cards?find=copy", "", &list))
	require.Len(t, list, 1)
	assert.Equal(t, "A card, copy", list[0].Title)
	require.Equal(t, 204, c.call("DELETE", "/api/cards/"+ref.ID, "", nil))
	require.Equal(t, 200, c.call("GET", "/api/cards", "", &list))
	assert.Len(t, list, 1)
	require.Equal(t, 404, c.call("GET", "/api/cards/"+ref.ID, "", nil))
	require.Equal(t, 204, c.call("POST", "/api/cards/"+ref.ID+"/restore", "", nil))
	require.Equal(t, 200, c.call("GET", "/api/cards/"+ref.ID, "", nil))
	res, err := http.Get(c.url + "/api/cards/" + id + "/standing.png")
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	assert.Equal(t, "image/png", res.Header.Get("Content-Type"))
}

func TestDrawingsComeInAndGoOut(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	pixels, _ := coretest.Photo(t, 60, 40)
	drawing := `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><text>Hi</text>
		<rect width="60" height="40" fill="#587a4a"/><circle cx="30" cy="20" r="10" fill="#e2a42b"/><g id="valley"><path d="M0 30H60" stroke="#35658c" fill="none"/></g>
		<image x="5" y="5" width="6" height="4" href="data:image/jpeg;base64,` + base64.StdEncoding.EncodeToString(pixels) + `"/></svg>`
	var in app.Incoming
	require.Equal(t, 201, c.send("/api/drawings", "Plums.svg", []byte(drawing), &in))
	assert.Equal(t, "Plums", in.Name)
	assert.InDelta(t, 60, in.Width, 1e-9)
	assert.Equal(t, [2]int{2, 1}, [2]int{in.Filled, in.Pictures})
	require.Len(t, in.Lines, 1)
	assert.Contains(t, in.Notes[0], "“Hi”")
	assert.Equal(t, 200, c.call("GET", "/api/drawings/"+in.ID+"/preview.svg", "", nil))

	lay := func(base int, more string) string {
		key, err := json.Marshal(in.Lines[0].Key)
		require.NoError(t, err)
		return fmt.Sprintf(`{"base":%d,"drawing":%q,"face":"front","middle":{"x":60,"y":80},"filled":"printed","lines":{%s:"valley"}%s}`, base, in.ID, key, more)
	}
	var v doc
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/drawings", lay(1, ""), &v))
	var kinds []string
	for _, it := range v.Card.Faces[0].Items {
		kinds = append(kinds, string(it.Kind))
	}
	assert.Equal(t, []string{"photo", "shape", "shape", "drawing"}, kinds)
	assert.Equal(t, 409, c.call("POST", "/api/cards/"+id+"/drawings", lay(1, ""), nil))
	assert.Equal(t, 400, c.call("POST", "/api/cards/"+id+"/drawings", lay(2, `,"size":2`), nil))
	var p server.Problem
	require.Equal(t, 422, c.call("POST", "/api/cards/"+id+"/drawings", strings.Replace(lay(2, ""), in.ID, "gone", 1), &p))
	assert.Contains(t, p.Detail, "Choose its file once more")

	for format, want := range map[string]string{"svg": `<g id="valley"`, "dxf": "AC1009", "hpgl": "SP5;"} {
		res, err := http.Get(c.url + "/api/cards/" + id + "/faces/front/outlines." + format)
		require.NoError(t, err)
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.Equal(t, 200, res.StatusCode, format)
		assert.Contains(t, string(raw), want)
		// What goes out comes in again.
		require.Equal(t, 201, c.send("/api/drawings", "again."+format, raw, &in), format)
		assert.InDelta(t, 127, in.Width, .05, format)
	}
	assert.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/faces/front/outlines.svg?items=i2", "", nil))
	assert.Equal(t, 422, c.call("GET", "/api/cards/"+id+"/faces/front/outlines.svg?items=i1", "", nil), "a photo has no outline")
	assert.Equal(t, 404, c.call("GET", "/api/cards/"+id+"/faces/front/outlines.pdf", "", nil))
	assert.Equal(t, 404, c.call("GET", "/api/cards/"+id+"/faces/lid/outlines.svg", "", nil))

	for name, text := range map[string]string{"a.svg": "<svg><script/></svg>", "a.dxf": "0\nEOF", "a.plt": "Q", "a.txt": "hello", "b.svg": "<svg/>"} {
		require.Equal(t, 422, c.send("/api/drawings", name, []byte(text), &p), name)
		assert.Equal(t, "file", p.Field)
		assert.NotEmpty(t, p.Detail)
	}
}

func TestAllSheetsGoOutAsOneFile(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	res, err := http.Get(c.url + "/api/cards/" + id + "/sheets.zip?size=letter&unit=mm&lie=landscape")
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	_, named, err := mime.ParseMediaType(res.Header.Get("Content-Disposition"))
	require.NoError(t, err)
	assert.Equal(t, "A card, sheets.zip", named["filename"])
	raw, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	var names []string
	for _, f := range z.File {
		names = append(names, f.Name)
		r, err := f.Open()
		require.NoError(t, err)
		text, err := io.ReadAll(r)
		require.NoError(t, err)
		switch f.Name {
		case "contents.txt":
			assert.Contains(t, string(text), "Letter 279.4 × 215.9 mm", "lying on its side")
			assert.Contains(t, string(text), "Base, ")
		case "sheet-1.hpgl":
			assert.True(t, strings.HasPrefix(string(text), "IN;"))
		default:
			assert.NotEmpty(t, text)
		}
	}
	assert.Subset(t, names, []string{"contents.txt", "sheet-1.svg", "sheet-1.dxf", "sheet-1.hpgl"})
}

package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image/jpeg"
	"image/png"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
	"sectilis/server"
)

// get is the body of an answer that is no problem.
func (c *client) get(path string) ([]byte, http.Header) {
	c.Helper()
	res, err := http.Get(c.url + path)
	require.NoError(c, err)
	defer func() { _ = res.Body.Close() }()
	var b bytes.Buffer
	_, err = b.ReadFrom(res.Body)
	require.NoError(c, err)
	require.Equal(c, 200, res.StatusCode, "%s: %.300s", path, b.String())
	return b.Bytes(), res.Header
}

// ends waits for a job's end; tools that it asks for are put in.
func (c *client) ends(j app.Job) app.Job {
	c.Helper()
	require.Eventually(c, func() bool {
		require.Equal(c, 200, c.call("GET", "/api/jobs/"+j.ID, "", &j))
		if j.Needs > 0 {
			c.call("POST", "/api/jobs/"+j.ID+"/resume", "", nil)
		}
		return j.State != app.Running
	}, 10*time.Minute, 20*time.Millisecond)
	return j
}

// job starts what a route starts and waits for its end.
func (c *client) job(path string) app.Job {
	c.Helper()
	var j app.Job
	require.Equal(c, 202, c.call("POST", path, "", &j), path)
	return c.ends(j)
}

// The whole work of a card through the API alone: printed, put on the mat, found, tried,
// broken off by a mishap, gone on with, its result looked at.
func TestACardIsPrintedAndCutThroughTheAPI(t *testing.T) {
	c, h := start(t)
	jpg, _ := coretest.Photo(t, 300, 200)
	require.Equal(t, 201, c.upload("gate.jpg", jpg, nil))
	id, err := h.App.Create(t.Context(), coretest.Card(t))
	require.NoError(t, err)
	at := "/api/cards/" + id + "/sheets"
	require.Equal(t, app.Done, c.job("/api/cards/"+id+"/prints").State)

	var l app.LayoutView
	require.Equal(t, 200, c.call("GET", at, "", &l))
	n := 0
	for _, sh := range l.Sheets {
		if len(sh.Marks) > 0 {
			n = sh.Number
		}
	}
	require.NotZero(t, n)
	sheetN := fmt.Sprintf("%s/%d", at, n)
	state := func() app.RunState {
		require.Equal(t, 200, c.call("GET", at, "", &l))
		return l.Sheets[n-1].State
	}

	require.Equal(t, app.Done, c.job(sheetN+"/loads").State)
	assert.Equal(t, app.RunLoaded, state().State)
	require.Equal(t, app.Done, c.job(sheetN+"/finds").State)
	assert.Equal(t, app.RunFound, state().State)
	require.NotNil(t, state().Lies)
	require.Equal(t, app.Done, c.job(sheetN+"/tests").State)
	assert.Equal(t, 1, state().Tests)

	require.Equal(t, 204, c.call("PUT", "/api/cutter/mishap", `{"lost":30}`, nil))
	broken := c.job(sheetN + "/runs")
	assert.Equal(t, app.Failed, broken.State)
	assert.Contains(t, broken.Note, "connection to the cutter was lost")
	assert.Equal(t, app.RunFailed, state().State)
	var jobs []app.Job
	require.Equal(t, 200, c.call("GET", "/api/jobs", "", &jobs))
	assert.NotEmpty(t, jobs)
	var p server.Problem
	require.Equal(t, 422, c.call("POST", sheetN+"/runs?goOn=1&pass=x&path=1", "", &p))
	assert.Contains(t, p.Detail, "A path is named by the numbers")
	gone := c.job(sheetN + "/runs?goOn=1")
	require.Equal(t, app.Done, gone.State, gone.Note)
	done := state()
	assert.Equal(t, app.RunDone, done.State)
	assert.Len(t, done.Apart, len(l.Sheets[n-1].Pieces))
	raw, _ := c.get("/api/" + done.Picture)
	_, err = png.DecodeConfig(bytes.NewReader(raw))
	require.NoError(t, err)

	// While it is cut nothing else may touch the machine.
	var j app.Job
	require.Equal(t, 202, c.call("POST", sheetN+"/runs", "", &j))
	require.Equal(t, 409, c.call("DELETE", "/api/cutter/mat", "", &p))
	assert.NotEmpty(t, p.Detail)
	assert.Equal(t, app.Done, c.ends(j).State)
	require.Equal(t, 204, c.call("DELETE", "/api/cutter/mat", "", nil))
	var s app.CutterState
	require.Equal(t, 200, c.call("GET", "/api/cutter", "", &s))
	assert.False(t, s.Loaded)
	require.Equal(t, 404, c.call("POST", "/api/jobs/"+j.ID+"/backwards", "", nil))
	require.Equal(t, 404, c.call("GET", "/api/runs/nothing.png", "", nil))
	require.Equal(t, 404, c.call("POST", at+"/99/runs", "", nil))
}

func TestHowThingsAreCutAndKept(t *testing.T) {
	c, h := start(t)
	id, err := h.App.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	settings := func(rounds int) string {
		with := cut.SettingsOf(card.Stocks()[0])
		with.Rounds = rounds
		raw, err := json.Marshal(with)
		require.NoError(t, err)
		return string(raw)
	}
	var p server.Problem
	require.Equal(t, 204, c.call("PUT", "/api/stocks/moss-216/settings", settings(2), nil))
	require.Equal(t, 422, c.call("PUT", "/api/stocks/moss-216/settings", settings(-2), &p))
	assert.True(t, strings.HasSuffix(p.Detail, "."), p.Detail)
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	var l app.LayoutView
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/sheets", "", &l))
	found := false
	for _, sh := range l.Sheets {
		if sh.Stock.ID == "moss-216" {
			found = true
			assert.Equal(t, 2, sh.Settings.Rounds)
			assert.Equal(t, 1, sh.Usual.Rounds)
		}
	}
	assert.True(t, found)

	require.Equal(t, 204, c.call("PUT", "/api/scraps", `[{"stock":"moss-216","width":100,"height":80}]`, nil))
	var scraps []sheet.Scrap
	require.Equal(t, 200, c.call("GET", "/api/scraps", "", &scraps))
	require.Len(t, scraps, 1)
	require.Equal(t, 422, c.call("PUT", "/api/scraps", `[{"stock":"moss-216","width":-1,"height":80}]`, &p))

	require.Equal(t, 200, c.call("GET", "/api/cutter/named", "", nil))
	require.Equal(t, 422, c.call("PUT", "/api/cutter/named", `{"address":"two words","width":300,"height":300}`, &p))
	assert.True(t, strings.HasSuffix(p.Detail, "."), p.Detail)
	require.Equal(t, 204, c.call("PUT", "/api/cutter/named", `{"address":"127.0.0.1:9","width":300,"height":300}`, nil))
	var s app.CutterState
	require.Equal(t, 200, c.call("GET", "/api/cutter", "", &s))
	assert.Equal(t, app.CutterAway, s.State)

	require.Equal(t, 422, c.call("POST", "/api/cards/"+id+"/sheets/closer", "", &p), "one piece lies as close as it can")
	assert.True(t, strings.HasSuffix(p.Detail, "."), p.Detail)
}

func TestThePrinterIsMeasuredAndPagesAreWritten(t *testing.T) {
	c, h := start(t)
	jpg, _ := coretest.Photo(t, 300, 200)
	var pic app.Picture
	require.Equal(t, 201, c.upload("gate.jpg", jpg, &pic))
	id, err := h.App.Create(t.Context(), coretest.Card(t))
	require.NoError(t, err)

	var size app.TrueSize
	require.Equal(t, 200, c.call("GET", "/api/printer/correction?size=letter", "", &size))
	assert.Equal(t, app.Correction{Across: 1, Down: 1}, size.Correction)
	require.Equal(t, app.Done, c.job("/api/printer/tests?size=letter").State)
	body := fmt.Sprintf(`{"across":%g,"down":%g}`, size.Rulers[0]*.998, size.Rulers[1]*1.001)
	require.Equal(t, 200, c.call("PUT", "/api/printer/correction?size=letter", body, &size))
	assert.InDelta(t, 1/.998, size.Across, 1e-6)
	assert.InDelta(t, 1/1.001, size.Down, 1e-6)
	var p server.Problem
	require.Equal(t, 422, c.call("PUT", "/api/printer/correction?size=letter", `{"across":1,"down":1}`, &p))
	require.Equal(t, 204, c.call("DELETE", "/api/printer/correction", "", nil))
	require.Equal(t, 200, c.call("GET", "/api/printer/correction?size=letter", "", &size))
	assert.Equal(t, app.Correction{Across: 1, Down: 1}, size.Correction)

	var l app.LayoutView
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/sheets", "", &l))
	n := 0
	for _, sh := range l.Sheets {
		if sh.Printed {
			n = sh.Number
		}
	}
	page := fmt.Sprintf("/api/cards/%s/sheets/%d/page", id, n)
	raw, _ := c.get(page + ".png?dpi=150")
	cfg, err := png.DecodeConfig(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.InDelta(t, l.Sheets[n-1].Size.Width/25.4*150, cfg.Width, 1)
	raw, head := c.get(page + ".jpg?dpi=150")
	_, err = jpeg.DecodeConfig(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Contains(t, head.Get("Content-Disposition"), "attachment")
	for query, want := range map[string]int{"?dpi=x": 422, "?dpi=1e9": 422, "?margin=x": 422, "?size=nothing": 422} {
		require.Equal(t, want, c.call("GET", page+".png"+query, "", &p), query)
	}
	raw, _ = c.get("/api/cards/" + id + "/sheets.pdf?lines=1")
	assert.True(t, bytes.HasPrefix(raw, []byte("%PDF")))
	raw, _ = c.get("/api/cards/" + id + "/standing.png")
	_, err = png.DecodeConfig(bytes.NewReader(raw))
	require.NoError(t, err)

	var facts struct{ Colours []string }
	require.Equal(t, 200, c.call("GET", "/api/pictures/"+pic.ID+"/facts", "", &facts))
	require.Equal(t, 404, c.call("GET", "/api/pictures/none/facts", "", nil))
	var seen struct{ Colour string }
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/faces/front/colours", `{"at":{"x":63.5,"y":145}}`, &seen))
	assert.Regexp(t, "^#[0-9a-f]{6}$", seen.Colour)
}

func TestFoldingAndDirectionsThroughTheAPI(t *testing.T) {
	c, h := start(t)
	id, err := h.App.Create(t.Context(), coretest.Card(t))
	if err != nil { // its picture is not there
		id = c.create()
	}
	var v app.FoldView
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/fold", "", &v))
	assert.Len(t, v.Panels, 2)
	assert.NotEmpty(t, v.Frames)
	assert.True(t, v.Verdict.Folds)
	for _, unit := range []string{"in", "in&parts=64", "mm"} {
		var d struct {
			Sentences []string `json:"sentences"`
			Steps     []any    `json:"steps"`
		}
		require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/directions?unit="+unit, "", &d))
	}
	raw, _ := c.get("/api/cards/" + id + "/directions.pdf?unit=mm")
	assert.True(t, bytes.HasPrefix(raw, []byte("%PDF")))

	// A trial answers as the change would, and changes nothing.
	var tried, is doc
	rename := `{"base":1,"commands":[{"do":"renameCard","title":"Tried"}]}`
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/trials", rename, &tried))
	assert.Equal(t, "Tried", tried.Card.Title)
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id, "", &is))
	assert.NotEqual(t, "Tried", is.Card.Title)
	assert.Equal(t, int64(1), is.Revision)
	require.Equal(t, 409, c.call("POST", "/api/cards/"+id+"/trials", `{"base":7,"commands":[{"do":"renameCard","title":"Late"}]}`, nil))
	require.Equal(t, 422, c.call("POST", "/api/cards/"+id+"/trials", `{"base":1,"commands":[{"do":"renameCard","title":""}]}`, nil))

	var cat struct {
		Stocks []card.Stock `json:"stocks"`
		Sizes  []any        `json:"sizes"`
	}
	require.Equal(t, 200, c.call("GET", "/api/catalogue", "", &cat))
	assert.NotEmpty(t, cat.Stocks)
	for _, path := range []string{"/fold", "/directions", "/directions.pdf", "/standing.png", "/sheets"} {
		require.Equal(t, 404, c.call("GET", "/api/cards/none"+path, "", nil), path)
	}
}

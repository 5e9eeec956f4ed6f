package server_test

import (
	"fmt"
	"io"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/points"
	"sectilis/core/design/tracing"
	"sectilis/core/document/lettering"
	"sectilis/server"
)

// A font comes in, is in the catalogue and served to the browser as a file of its own.
func TestFontsGoInAndOut(t *testing.T) {
	c, _ := start(t)
	var faces []lettering.Font
	require.Equal(t, 201, c.send("/api/fonts", "Sign.woff", lettering.File("alfa-slab-one-400"), &faces))
	require.Len(t, faces, 1)
	var all server.Catalogue
	offered := func() bool {
		require.Equal(t, 200, c.call("GET", "/api/catalogue", "", &all))
		for _, f := range all.Fonts {
			if f.ID == faces[0].ID {
				return true
			}
		}
		return false
	}
	assert.True(t, offered())
	res, err := http.Get(c.url + "/fonts/" + faces[0].ID + ".woff")
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	raw, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	assert.Equal(t, "font/sfnt", res.Header.Get("Content-Type"))
	again, err := lettering.Read("x", raw)
	require.NoError(t, err)
	assert.Equal(t, faces[0].ID, again[0].ID, "what is served is what is set")
	require.Equal(t, 204, c.call("DELETE", "/api/fonts/"+faces[0].ID, "", nil))
	assert.False(t, offered())

	var p server.Problem
	require.Equal(t, 422, c.send("/api/fonts", "Sign.ttf", []byte("a sign, and no font"), &p))
	assert.Equal(t, "urn:sectilis:font", p.Type)
	assert.Contains(t, p.Detail, "“Sign.ttf” is no font")
}

// The points and the plain forms of an outline are asked for by its item.
func TestOutlinesAreTakenApart(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	path := "/api/cards/" + id
	require.Equal(t, 200, c.call("POST", path+"/changes", fmt.Sprintf(shape, 1), nil))
	var pts points.Points
	require.Equal(t, 200, c.call("GET", path+"/items/i1/points", "", &pts))
	require.Len(t, pts.Rings, 1)
	assert.Len(t, pts.Rings[0].Nodes, 4)
	var p server.Problem
	require.Equal(t, 422, c.call("GET", path+"/items/i1/forms", "", &p))
	assert.Contains(t, p.Detail, "no drawn outline")
	move := `{"base":2,"commands":[{"do":"movePoints","id":"i1","points":[{"ring":0,"node":1}],"dx":0.4,"dy":-0.3}]}`
	require.Equal(t, 200, c.call("POST", path+"/changes", move, nil))
	var forms []tracing.PlainForm
	require.Equal(t, 200, c.call("GET", path+"/items/i1/forms", "", &forms))
	require.NotEmpty(t, forms)
	assert.Equal(t, "rectangle", string(forms[0].Kind))
	assert.Less(t, forms[0].Worst, .5)
	require.Equal(t, 422, c.call("POST", path+"/changes", `{"base":3,"commands":[{"do":"movePoints","id":"i1","points":[{"ring":4,"node":1}],"dx":1,"dy":1}]}`, &p))
	assert.Contains(t, p.Detail, "not there any more")
}

// The outlines of a picture are asked for many times at once, and of two pictures in turn.
func TestPicturesAreTracedAtOnce(t *testing.T) {
	c, _ := start(t)
	var ids []string
	for _, w := range []int{300, 200} {
		raw, id := coretest.Photo(t, w, 120)
		require.Equal(t, 201, c.upload("p.jpg", raw, nil))
		ids = append(ids, id)
	}
	done := make(chan int)
	for n := range 12 {
		go func() {
			done <- c.call("POST", "/api/pictures/"+ids[n%2]+"/traces", `{"by":"layers","count":2,"under":true,"smooth":1}`, nil)
		}()
	}
	for range 12 {
		assert.Equal(t, 200, <-done)
	}
}

package server_test

import (
	"encoding/xml"
	"fmt"
	"io"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/server"
)

// What is asked of a card as a whole is answered, and refused in a sentence where it cannot be.
func TestACardAsAWholeIsAnswered(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	var checked struct {
		Revision int64 `json:"revision"`
		Findings []struct {
			Check string `json:"check"`
		} `json:"findings"`
		Post string `json:"post"`
	}
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/check", "", &checked))
	assert.Equal(t, int64(2), checked.Revision)
	assert.NotNil(t, checked.Findings)
	assert.NotEmpty(t, checked.Post)
	var cut struct {
		Strips []struct{} `json:"strips"`
	}
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/cuts", `{"from":{"x":0,"y":20},"to":{"x":90,"y":20}}`, &cut))
	assert.NotEmpty(t, cut.Strips)
	var p server.Problem
	require.Equal(t, 422, c.call("POST", "/api/cards/"+id+"/cuts", `{"from":{"x":0,"y":1e9},"to":{"x":90,"y":20}}`, &p))
	assert.Contains(t, p.Detail, "off the card")
	require.Equal(t, 404, c.call("GET", "/api/cards/none/check", "", &p))
	require.Equal(t, 422, c.call("PUT", "/api/posts", `[{"name":"","width":1,"height":1,"thick":1,"weight":1}]`, &p))
	require.Equal(t, 422, c.call("GET", "/api/cards/"+id+"/assembly.pdf?per=3", "", &p))
	assert.Contains(t, p.Detail, "1, 2 or 4")
	for _, bad := range []string{"side=9", "side=9000", "side=x"} {
		require.Equal(t, 422, c.call("GET", "/api/cards/"+id+"/folding.png?"+bad, "", &p), bad)
		require.Equal(t, 422, c.call("GET", "/api/cards/"+id+"/assembly/cut.svg?"+bad, "", &p), bad)
	}
	require.Equal(t, 404, c.call("GET", "/api/cards/"+id+"/assembly/none.svg", "", &p))
	require.Equal(t, 404, c.call("GET", "/api/cards/"+id+"/assembly/cut.gif", "", &p))
	require.Equal(t, 422, c.call("POST", "/api/drawings/none/base", `{"lines":{},"filled":"cut","insideUp":false,"meet":0.3,"answers":{},"leaves":[],"stock":"white-300","name":""}`, &p))
	assert.Contains(t, p.Detail, "not at hand any more")
}

// A step is ticked off over the protocol, and its picture is a drawing.
func TestAStepIsTickedOff(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	var v struct {
		Steps []struct {
			ID string `json:"id"`
		} `json:"steps"`
		Done []string `json:"done"`
	}
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/assembly", "", &v))
	require.NotEmpty(t, v.Steps)
	step := v.Steps[0].ID
	require.Equal(t, 204, c.call("PUT", "/api/cards/"+id+"/assembly/"+step+"/done", `{"done":true}`, nil))
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/assembly", "", &v))
	assert.Equal(t, []string{step}, v.Done)
	raw := c.file("/api/cards/"+id+"/assembly/"+step+".svg?side=240", "image/svg+xml")
	require.NoError(t, xml.Unmarshal(raw, new(struct{})))
	assert.Contains(t, string(raw), `<svg xmlns="http://www.w3.org/2000/svg" width="`)
}

// A card goes out as a file under its name and comes in as another card; what is no such file is refused.
func TestAFileOfACardComesIn(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	raw := c.file("/api/cards/"+id+"/file", "application/zip")
	var in struct {
		ID string `json:"id"`
	}
	require.Equal(t, 201, c.send("/api/cards/files", "Card.sectilis", raw, &in))
	assert.NotEqual(t, id, in.ID, "it is another card")
	for name, bad := range map[string][]byte{"words": []byte("no card"), "cut off": raw[:len(raw)/2], "empty": {}} {
		var p server.Problem
		assert.Equal(t, 422, c.send("/api/cards/files", "Card.sectilis", bad, &p), name)
		assert.Contains(t, p.Detail, "no file of a card", name)
	}
}

// file is what is answered at a path, which has a media type.
func (c *client) file(path, kind string) []byte {
	c.Helper()
	res, err := http.Get(c.url + path)
	require.NoError(c, err)
	defer func() { _ = res.Body.Close() }()
	require.Equal(c, 200, res.StatusCode, path)
	assert.Equal(c, kind, res.Header.Get("Content-Type"))
	raw, err := io.ReadAll(res.Body)
	require.NoError(c, err)
	return raw
}

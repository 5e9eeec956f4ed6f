package server_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/server"
)

func TestSketchesAreKeptStartedFromAndTakenAway(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	raw, _ := coretest.Photo(t, 90, 60)
	var pic app.Picture
	require.Equal(t, 201, c.upload("bee.jpg", raw, &pic))
	photo := `{"base":1,"commands":[{"do":"placeItems","face":"front","items":[{"id":"","name":"Bee","kind":"photo","place":{"x":60,"y":60,"turn":0},
		"made":{"as":"printed"},"fill":{},"photo":{"picture":"%s","pixelWidth":90,"pixelHeight":60,"width":60,"height":40}}]}]}`
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(photo, pic.ID), nil))

	var k app.Sketch
	require.Equal(t, 201, c.call("POST", "/api/cards/"+id+"/sketches", `{"title":"One bee","slots":["i1"],"occasion":"spring"}`, &k))
	assert.Equal(t, 1, k.Photos)
	var all []app.Sketch
	require.Equal(t, 200, c.call("GET", "/api/sketches", "", &all))
	require.Len(t, all, 1)
	assert.Equal(t, 200, c.call("GET", "/api/sketches/"+k.ID+"/front.png", "", nil))
	var ref server.CardRef
	require.Equal(t, 201, c.call("POST", "/api/sketches/"+k.ID+"/cards", fmt.Sprintf(`{"title":"Again","pictures":[%q]}`, pic.ID), &ref))
	var v doc
	require.Equal(t, 200, c.call("GET", "/api/cards/"+ref.ID, "", &v))
	require.NotNil(t, v.Card.Faces[0].Items[0].Photo)

	var p server.Problem
	assert.Equal(t, 422, c.call("POST", "/api/cards/"+id+"/sketches", `{"title":" ","slots":[]}`, &p))
	assert.Equal(t, "title", p.Field)
	assert.Equal(t, 422, c.call("DELETE", "/api/pictures/"+pic.ID, "", &p))
	assert.Contains(t, p.Detail, "“Again” and “A card”")
	assert.Equal(t, 404, c.call("POST", "/api/sketches/none/cards", `{"title":"","pictures":[]}`, &p))
	assert.Equal(t, 404, c.call("GET", "/api/sketches/none/front.png", "", &p))
	assert.Equal(t, 204, c.call("DELETE", "/api/sketches/"+k.ID, "", nil))
	assert.Equal(t, 404, c.call("DELETE", "/api/sketches/"+k.ID, "", &p))
}

func TestSuppliesAreNoted(t *testing.T) {
	c, _ := start(t)
	assert.Equal(t, 204, c.call("PUT", "/api/supplies/paper/leaf-drift", `{"kind":"","id":"","tags":["Green"],"favourite":true}`, nil))
	assert.Equal(t, 204, c.call("POST", "/api/supplies/shape/tag/uses", "", nil))
	var all []app.Supply
	require.Equal(t, 200, c.call("GET", "/api/supplies", "", &all))
	require.Len(t, all, 2)
	assert.Equal(t, []string{"green"}, all[0].Tags)
	var p server.Problem
	assert.Equal(t, 422, c.call("PUT", "/api/supplies/paper/leaf-drift", `{"kind":"","id":"","rights":"credit"}`, &p))
	assert.Equal(t, "credit", p.Field)
	assert.Equal(t, 400, c.call("PUT", "/api/supplies/paper/leaf-drift", `{"colour":"green"}`, &p))
}

func TestGapsAndColoursAreTold(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(shape, 1), nil))
	var gap arrange.Gap
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/faces/front/gaps", `{"at":{"x":60,"y":120}}`, &gap))
	assert.InDelta(t, 127, gap.Rect.W, 1e-3)
	assert.InDelta(t, 177.8-75, gap.Rect.H, 1e-3)
	var seen server.ColourSeen
	require.Equal(t, 200, c.call("POST", "/api/cards/"+id+"/faces/front/colours", `{"at":{"x":60,"y":60}}`, &seen))
	assert.Equal(t, "#587a4a", seen.Colour)
	var p server.Problem
	assert.Equal(t, 422, c.call("POST", "/api/cards/"+id+"/faces/front/gaps", `{"at":{"x":900,"y":0}}`, &p))
	assert.Contains(t, p.Detail, "no gap here")
	assert.Equal(t, 422, c.call("POST", "/api/cards/"+id+"/faces/front/colours", `{"at":{"x":-5,"y":0}}`, &p))
	assert.Equal(t, 404, c.call("POST", "/api/cards/"+id+"/faces/roof/gaps", `{"at":{"x":1,"y":1}}`, &p))
}

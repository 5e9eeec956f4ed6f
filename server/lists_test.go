package server_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/server"
)

// A list is read, brought in as it was meant, and what becomes of its names is asked for.
func TestAListOfNamesIsReadAndBroughtIn(t *testing.T) {
	c, _ := start(t)
	id := c.create()
	var read server.ListRead
	require.Equal(t, 200, c.send("/api/lists", "members.csv", []byte("Name;Plot\nNoor Haldane;2\nIda Quince;5\n"), &read))
	assert.True(t, read.Headings)
	assert.Equal(t, "members.csv", read.Headed.From)
	assert.Equal(t, []string{"Name", "Plot"}, read.Headed.Columns)
	assert.Len(t, read.Plain.Rows, 3)
	read = server.ListRead{}
	require.Equal(t, 200, c.send("/api/lists?pasted=1", "list.csv", []byte("Noor\nIda"), &read))
	assert.Empty(t, read.Headed.From)
	var p server.Problem
	assert.Equal(t, 422, c.send("/api/lists", "poster.png", []byte("\x89PNG\x00"), &p))
	assert.Equal(t, "file", p.Field)

	assert.Equal(t, 404, c.call("GET", "/api/cards/"+id+"/names", "", &p), "no list yet")
	raw, err := json.Marshal(read.Plain)
	require.NoError(t, err)
	change := func(base int, command string) int {
		return c.call("POST", "/api/cards/"+id+"/changes", fmt.Sprintf(`{"base":%d,"commands":[%s]}`, base, command), nil)
	}
	require.Equal(t, 200, change(1, `{"do":"setNames",`+string(raw[1:])))
	var v app.NamesView
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/names", "", &v))
	require.Len(t, v.Rows, 2)
	assert.Nil(t, v.Sheets)
	require.Equal(t, 200, change(2, `{"do":"layNames","all":true}`))
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/names", "", &v))
	require.NotNil(t, v.Sheets)
	assert.Equal(t, 2, v.Sheets.Cards)
	assert.Equal(t, 422, change(3, `{"do":"setNames","columns":["A","A"],"rows":[["1","2"]]}`))

	var means []card.ByValue
	require.Equal(t, 200, c.call("GET", "/api/cards/"+id+"/meanings?what=stock&column=Name", "", &means))
	assert.Empty(t, means, "nobody is called as a stock is")
	for path, want := range map[string]int{"/meanings?what=photo&column=Age": 404, "/names/n1/front.png": 200, "/names/n1/front.svg": 404, "/names/n9/front.png": 404, "/names/n1/lid.png": 404,
		"/names.csv": 200, "/sheets/1/ink.png": 200, "/sheets/99/ink.png": 404, "/names?size=none": 422} {
		assert.Equal(t, want, c.call("GET", "/api/cards/"+id+path, "", nil), path)
	}
}

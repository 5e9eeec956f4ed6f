package demo_test

import (
	"encoding/xml"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/ground/measure"
)

// drawnAs is the structure of a picture: its size in whole mm, how many photos, papers and clips it defines,
// and what is painted, in order, with how many in a row are painted alike.
func drawnAs(t *testing.T, raw []byte) string {
	t.Helper()
	var size string
	defined := map[string]int{}
	var painted []string
	times := 0
	put := func(what string) {
		if n := len(painted); n > 0 && strings.TrimSuffix(painted[n-1], fmt.Sprintf("*%d", times)) == what {
			times++
			painted[n-1] = fmt.Sprintf("%s*%d", what, times)
			return
		}
		painted, times = append(painted, what), 1
	}
	d := xml.NewDecoder(strings.NewReader(string(raw)))
	inDefs := false
	for {
		tok, err := d.Token()
		if err != nil {
			require.ErrorContains(t, err, "EOF")
			break
		}
		if e, ok := tok.(xml.EndElement); ok && e.Name.Local == "defs" {
			inDefs = false
		}
		e, ok := tok.(xml.StartElement)
		if !ok {
			continue
		}
		at := map[string]string{}
		for _, a := range e.Attr {
			at[a.Name.Local] = a.Value
		}
		switch name := e.Name.Local; {
		case name == "svg":
			var x, y, w, h float64
			_, err := fmt.Sscan(at["viewBox"], &x, &y, &w, &h)
			require.NoError(t, err)
			size = fmt.Sprintf("%.0f×%.0f", w, h)
		case name == "defs":
			inDefs = true
		case inDefs:
			if at["id"] != "" {
				defined[name]++
			}
		case name == "use":
			put("photo")
		case name == "path" && strings.HasPrefix(at["fill"], "url"):
			put("paper")
		case name == "path":
			put(at["fill"])
		}
	}
	return fmt.Sprintf("%s, %d photos, %d papers, %d clips: %s", size, defined["image"], defined["pattern"], defined["clipPath"], strings.Join(painted, " "))
}

// The pictures of the demo's steps are built as they were: testdata/steps.txt has the structure of each.
// After a change that was looked at, GOLDEN=1 writes it anew.
func TestStepsAreDrawnAsBefore(t *testing.T) {
	a := filled(t)
	cards, err := a.Cards(t.Context(), "")
	require.NoError(t, err)
	slices.SortFunc(cards, func(a, b app.Summary) int { return strings.Compare(a.Title, b.Title) })
	var b strings.Builder
	for _, c := range cards {
		v, err := a.Assembly(t.Context(), c.ID, measure.In)
		require.NoError(t, err)
		for _, s := range v.Steps {
			raw, err := a.StepPicture(t.Context(), c.ID, s.ID, measure.In, 200)
			require.NoError(t, err)
			fmt.Fprintf(&b, "%s, %s: %s\n", c.Title, s.Title, drawnAs(t, raw))
		}
	}
	const golden = "testdata/steps.txt"
	if os.Getenv("GOLDEN") != "" {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(golden, []byte(b.String()), 0o600))
	}
	want, err := os.ReadFile(golden)
	require.NoError(t, err)
	assert.Equal(t, strings.Split(string(want), "\n"), strings.Split(b.String(), "\n"))
}

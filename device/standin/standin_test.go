package standin

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"math"
	"net"
	"net/http"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// feed gives instructions to a cutter that takes no time.
func feed(c *Cutter, conn net.Conn, instructions ...string) {
	j := &job{c: c, conn: conn, ctx: context.Background()}
	for _, text := range instructions {
		if len(text) < 2 {
			continue
		}
		if n := numbers(text[2:]); text[:2] == "SP" && len(n) > 0 {
			c.held = int(n[0]) // whoever stands by has put it in
		}
		j.do(text)
	}
}

func sink(t testing.TB) net.Conn {
	t.Helper()
	a, b := net.Pipe()
	t.Cleanup(func() { _, _ = a.Close(), b.Close() })
	go func() {
		buf := make([]byte, 256)
		for {
			if _, err := b.Read(buf); err != nil {
				return
			}
		}
	}()
	return a
}

func TestStrokesBeginWhereTheToolGoesDown(t *testing.T) {
	c := NewCutter(0, 1)
	feed(c, sink(t), "IN", "SP1", "PU400,400", "PD800,400", "PD800,800,400,800", "PU0,0", "SP2", "PD40,0", "VS20", "XX1,2", "PU")
	require.Len(t, c.strokes, 2, "a PD that goes on is the same stroke")
	assert.Equal(t, []geom.Point{{X: 10, Y: bed - 10}, {X: 20, Y: bed - 10}, {X: 20, Y: bed - 20}, {X: 10, Y: bed - 20}}, c.strokes[0].points)
	assert.Equal(t, 1, c.strokes[0].tool)
	assert.Equal(t, 2, c.strokes[1].tool)
	feed(c, sink(t), "IN")
	assert.Len(t, c.strokes, 2, "what is cut is cut")
}

func TestABladeTrailsItsHolder(t *testing.T) {
	c := NewCutter(0, 1)
	feed(c, sink(t), "IN", "SP3", "PU400,400", "PD800,400,800,800", "PU")
	require.Len(t, c.strokes, 1)
	way := c.strokes[0].points
	assert.InDelta(t, 10-trail, way[0].X, 1e-9)
	near := math.Inf(1) // to the corner that the holder turned at
	for _, p := range way {
		near = min(near, p.Sub(geom.Pt(20, bed-10)).Len())
	}
	assert.Greater(t, near, .08, "the corner is cut off")
	assert.InDelta(t, bed-20+trail, way[len(way)-1].Y, 1e-3)
	assert.InDelta(t, math.Pi/2, c.heading, 1e-3)
}

func TestTheToolStaysOnTheBed(t *testing.T) {
	c := NewCutter(0, 1)
	feed(c, sink(t), "SP3", "PD999999,-999999")
	assert.Equal(t, geom.Pt(bed, 0), c.at)
	raw, err := c.Picture()
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, 1219, img.Bounds().Dx())
}

func TestADropEndsAMovementAtOnce(t *testing.T) {
	c := NewCutter(1e-6, 1) // a movement would take days
	j := &job{c: c, conn: sink(t), ctx: t.Context()}
	j.dropped()
	assert.True(t, j.do("PD4000,4000"))
	assert.Less(t, c.at.Len(), 1.0)
	assert.Equal(t, "stopped", c.state())
}

func FuzzInstructions(f *testing.F) {
	f.Add("IN;PA;SP3;PU10,10;PD20,20,30,30;OA;PU;SP0")
	f.Add("PD;PD1;PD1,;SP-4;SP9999999999;OA1,2")
	f.Fuzz(func(t *testing.T, text string) {
		if len(text) > 400 {
			return
		}
		c := NewCutter(0, 1)
		start := 0
		conn := sink(t)
		for i := range len(text) {
			if text[i] == ';' {
				feed(c, conn, text[start:i])
				start = i + 1
			}
		}
		for _, s := range c.strokes {
			for _, p := range s.points {
				if !(p.X >= -trail && p.X <= bed+trail && p.Y >= -trail && p.Y <= bed+trail) {
					t.Fatalf("%v is off the bed", p)
				}
			}
		}
	})
}

// While the cutter cuts, its sheet is not taken away, nor another put on the mat; and what
// was set to go wrong meanwhile does not end the program.
func TestTheSheetStaysWhileItIsCut(t *testing.T) {
	c := NewCutter(0, 1)
	c.busy = true
	srv := httptest.NewServer(c.camera())
	defer srv.Close()
	page := image.NewGray(image.Rect(0, 0, 100, 100))
	var raw bytes.Buffer
	require.NoError(t, png.Encode(&raw, page))
	for method, path := range map[string]string{http.MethodDelete: "/mat", http.MethodPost: "/mat?width=100"} {
		req, err := http.NewRequestWithContext(t.Context(), method, srv.URL+path, bytes.NewReader(raw.Bytes()))
		require.NoError(t, err)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.Equal(t, http.StatusConflict, res.StatusCode)
	}
}

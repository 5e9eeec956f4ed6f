package device_test

import (
	"bytes"
	"context"
	"image"
	"image/color"
	"image/png"
	"io"
	"log/slog"
	"net"
	"net/http/httptest"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/format/hpgl"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/device"
	"sectilis/device/standin"
)

const (
	waitFor = 20 * time.Second
	tick    = 5 * time.Millisecond
)

// start runs a cutter stand-in and returns a driver for it.
func start(t *testing.T, pace float64) (*device.Cutter, context.CancelFunc) {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	listen := func() net.Listener {
		l, err := net.Listen("tcp", "127.0.0.1:0")
		require.NoError(t, err)
		return l
	}
	jobs, camera := listen(), listen()
	ended := make(chan error, 1)
	go func() {
		ended <- standin.NewCutter(pace, 1).Serve(ctx, jobs, camera, slog.New(slog.NewTextHandler(io.Discard, nil)))
	}()
	t.Cleanup(func() { cancel(); assert.NoError(t, <-ended) })
	return &device.Cutter{Addr: jobs.Addr().String(), Camera: "http://" + camera.Addr().String()}, cancel
}

func plan() []hpgl.Step {
	square := geom.RectPath(geom.Rect{X: 20, Y: 20, W: 100, H: 60}).Flatten(.01)
	score := []geom.Polyline{{Points: []geom.Point{{X: 70, Y: 20}, {X: 70, Y: 80}}}}
	return hpgl.Steps([]cut.Pass{{Tool: cut.ScoringTip, Paths: score}, {Tool: cut.Blade, Paths: square}}, 304.8)
}

// quick is plan for a machine that is given no time.
func quick() []hpgl.Step {
	steps := plan()
	for i := range steps {
		steps[i].Seconds = 0
	}
	return steps
}

func TestTheCutterCutsWhatItIsSent(t *testing.T) {
	c, _ := start(t, 0)
	assert.Equal(t, app.CutterState{Name: "Bench cutter", Ready: true, State: "ready", Bed: [2]float64{304.8, 304.8}, Corner: [2]float64{6, 6}, Eye: true, Hand: true, Tool: 3}, c.State(t.Context()))
	var steps []int
	go func() {
		assert.Eventually(t, func() bool { return c.State(t.Context()).State == "wants tool" }, waitFor, tick)
		assert.NoError(t, c.Fit(t.Context(), 2))
		assert.Eventually(t, func() bool { return c.State(t.Context()).State == "wants tool" }, waitFor, tick)
		assert.NoError(t, c.Fit(t.Context(), 3))
	}()
	require.NoError(t, c.Run(t.Context(), plan(), func(i int) error { steps = append(steps, i); return nil }))
	assert.Len(t, steps, len(plan()))
	raw, err := c.Picture(t.Context())
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	at := func(x, y float64) color.RGBA { // mm from the upper left corner of the bed
		return color.RGBAModel.Convert(img.At(int(x*4), int(y*4))).(color.RGBA)
	}
	assert.Equal(t, raster.Colour("#1f2b38"), at(20, 50), "cut")
	assert.Equal(t, raster.Colour("#1f2b38"), at(100, 80), "cut")
	assert.Equal(t, raster.Colour("#a4572b"), at(70, 50), "scored")
	assert.NotEqual(t, raster.Colour("#1f2b38"), at(150, 50))
}

func TestStoppingLiftsTheToolAndFreesTheCutter(t *testing.T) {
	c, _ := start(t, 1)
	require.NoError(t, c.Fit(t.Context(), 2))
	ctx, cancel := context.WithCancel(t.Context())
	err := c.Run(ctx, plan(), func(i int) error {
		if i == 1 {
			assert.ErrorContains(t, c.Run(t.Context(), plan(), noted), "another sheet")
			cancel()
		}
		return nil
	})
	assert.ErrorIs(t, err, context.Canceled)
	assert.Eventually(t, func() bool { return c.State(t.Context()).Ready }, waitFor, tick)
}

func TestACutterThatIsGoneIsSaid(t *testing.T) {
	c, cancel := start(t, 0)
	cancel()
	assert.Eventually(t, func() bool { return c.State(t.Context()).State == "away" }, waitFor, tick)
	assert.Contains(t, c.State(t.Context()).Why, "nothing answers at")
	assert.Error(t, c.Run(t.Context(), plan(), noted))
}

func TestThePrinterLaysPagesDownAlmostStraight(t *testing.T) {
	printer, err := standin.NewPrinter(7, t.TempDir())
	require.NoError(t, err)
	srv := httptest.NewServer(printer.Handler())
	defer srv.Close()
	p := device.Printer{URL: srv.URL}
	page := image.NewGray(image.Rect(0, 0, 600, 800))
	for y := range 800 {
		for x := range 600 {
			page.SetGray(x, y, color.Gray{255})
			if x > 250 && x < 350 && y > 350 && y < 450 {
				page.SetGray(x, y, color.Gray{0})
			}
		}
	}
	var raw bytes.Buffer
	require.NoError(t, png.Encode(&raw, page))
	ref, err := p.Print(t.Context(), app.Page{Title: "x", Width: 60, Height: 80, PNG: raw.Bytes()})
	require.NoError(t, err)
	printed, err := p.Picture(t.Context(), ref, false)
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(printed))
	require.NoError(t, err)
	assert.InDelta(t, 60*600/25.4, img.Bounds().Dx(), 1, "kept at 600 to the inch")
	sum, sx := 0.0, 0.0
	scale := 600 / float64(img.Bounds().Dx())
	for y := range img.Bounds().Dy() {
		for x := range img.Bounds().Dx() {
			r, _, _, _ := img.At(x, y).RGBA()
			k := (1 - float64(r)/65535) * scale * scale
			sum += k
			sx += k * float64(x) * scale
		}
	}
	little, err := p.Picture(t.Context(), ref, true)
	require.NoError(t, err)
	assert.Less(t, len(little), len(printed))
	assert.InDelta(t, 99*99, sum, 250, "stretched by no more than a little")
	assert.InDelta(t, 300, sx/sum, 20, "shifted by no more than 1.5 mm and a turn")
	assert.NotEqual(t, 300.0, sx/sum)

	_, err = p.Print(t.Context(), app.Page{Width: 60, Height: 80, PNG: []byte("no page")})
	assert.ErrorContains(t, err, "400")
	_, err = p.Picture(t.Context(), "../etc", false)
	assert.ErrorIs(t, err, app.ErrNotFound)
	_, err = p.Picture(t.Context(), "p99", false)
	assert.ErrorIs(t, err, app.ErrNotFound)
	srv.Close()
	_, err = p.Print(t.Context(), app.Page{Width: 60, Height: 80, PNG: raw.Bytes()})
	assert.ErrorContains(t, err, "save the PDF instead")
}

// A printer that is away is said to be away; what it does not have is not there.
func TestAPrinterThatIsAwayIsSaid(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	gone := "http://" + l.Addr().String()
	require.NoError(t, l.Close())
	_, err = device.Printer{URL: gone}.Picture(t.Context(), "abc", false)
	var away *app.AwayError
	require.ErrorAs(t, err, &away)
	assert.Contains(t, away.Why, "does not answer")
	_, err = device.Printer{URL: gone}.Picture(t.Context(), "../x", false)
	assert.ErrorIs(t, err, app.ErrNotFound)
}

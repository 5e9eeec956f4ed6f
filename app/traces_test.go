package app_test

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
)

// drawn is a PNG of 4,400 by 440 pixels at most: a dark disc and a red square on a ground.
func drawn(t *testing.T, w, h int, ground color.NRGBA) []byte {
	t.Helper()
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := ground
			if math.Hypot(float64(x)+.5-110, float64(y)+.5-100) < 60 {
				c = color.NRGBA{40, 40, 44, 255}
			}
			if x >= 200 && x < 280 && y >= 60 && y < 140 {
				c = color.NRGBA{200, 30, 40, 255}
			}
			img.SetNRGBA(x, y, c)
		}
	}
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, img))
	return b.Bytes()
}

func TestPicturesAreTraced(t *testing.T) {
	f := start(t)
	white := color.NRGBA{255, 255, 255, 255}
	opaque, err := f.BringIn(t.Context(), "art.png", drawn(t, 320, 200, white))
	require.NoError(t, err)
	clear, err := f.BringIn(t.Context(), "clear.png", drawn(t, 320, 200, color.NRGBA{}))
	require.NoError(t, err)
	assert.False(t, opaque.Clear)
	assert.True(t, clear.Clear)
	all, err := f.Pictures(t.Context())
	require.NoError(t, err)
	for _, p := range all {
		assert.Equal(t, p.ID == clear.ID, p.Clear)
	}
	trace := func(id string, ask app.TraceAsk) app.Traced {
		t.Helper()
		got, err := f.Trace(t.Context(), id, ask)
		require.NoError(t, err)
		return got
	}
	const disc, square = math.Pi * 3600, 6400.
	both := trace(clear.ID, app.TraceAsk{By: app.ByTransparency})
	require.Len(t, both.Outlines, 1)
	assert.Equal(t, 2, both.Outlines[0].Parts)
	assert.InDelta(t, disc+square, both.Outlines[0].Path.Area(), 60)
	dark := trace(opaque.ID, app.TraceAsk{By: app.ByDarkness, Level: 60})
	assert.InDelta(t, disc, dark.Outlines[0].Path.Area(), 40)
	assert.Positive(t, trace(opaque.ID, app.TraceAsk{By: app.ByDarkness}).Level)
	red := trace(opaque.ID, app.TraceAsk{By: app.ByColours, Colours: []string{"#c81e28"}, Tolerance: 8})
	assert.InDelta(t, square, red.Outlines[0].Path.Area(), 20)
	assert.Equal(t, "#c81e28", red.Outlines[0].Colour)
	layers := trace(opaque.ID, app.TraceAsk{By: app.ByLayers, Count: 3, Under: true})
	require.Len(t, layers.Outlines, 3)
	assert.InDelta(t, 320*200, layers.Outlines[0].Path.Area(), 1, "paper lies under all")
	assert.InDelta(t, disc+square, layers.Outlines[1].Path.Area(), 60)

	// What was found is told where it is nothing, or everything.
	says := func(id string, ask app.TraceAsk, part string) {
		t.Helper()
		assert.Contains(t, trace(id, ask).Says, part)
	}
	assert.Empty(t, both.Says)
	says(opaque.ID, app.TraceAsk{By: app.ByTransparency}, "Nothing of the picture is transparent")
	says(opaque.ID, app.TraceAsk{By: app.ByDarkness, Level: 1}, "Raise the limit")
	says(opaque.ID, app.TraceAsk{By: app.ByColours, Colours: []string{"#00ff00"}, Tolerance: 3}, "allow more tolerance")
	says(opaque.ID, app.TraceAsk{By: app.ByColours, Colours: []string{"#808080"}, Tolerance: 100}, "Allow less")
	says(clear.ID, app.TraceAsk{By: app.ByTransparency, Speck: 1e6}, "smaller than what is left out")

	// Of a large picture outlines are in its own pixels too.
	large, err := f.BringIn(t.Context(), "large.png", drawn(t, 4400, 200, white))
	require.NoError(t, err)
	got := trace(large.ID, app.TraceAsk{By: app.ByColours, Colours: []string{"#c81e28"}, Tolerance: 8})
	assert.InDelta(t, square, got.Outlines[0].Path.Area(), 80)
	assert.InDelta(t, 200, got.Outlines[0].Path.Bounds().X, .5)

	var refusal *card.Refusal
	for _, bad := range []app.TraceAsk{{}, {By: app.ByLayers, Count: 1}, {By: app.ByColours}, {By: app.ByColours, Colours: []string{"red"}},
		{By: app.ByDarkness, Level: 300}, {By: app.ByDarkness, Smooth: math.NaN()}, {By: app.ByDarkness, Speck: -1}} {
		_, err := f.Trace(t.Context(), opaque.ID, bad)
		require.ErrorAs(t, err, &refusal, "%+v", bad)
	}
	_, err = f.Trace(t.Context(), "gone", app.TraceAsk{By: app.ByDarkness})
	assert.ErrorIs(t, err, app.ErrNotFound)
}

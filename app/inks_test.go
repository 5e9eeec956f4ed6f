package app_test

import (
	"bytes"
	"fmt"
	"image/png"
	"io"
	"log/slog"
	"testing"

	"github.com/kovidgoyal/imaging"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/coretest/profiletest"
	"sectilis/core/document/card"
	"sectilis/core/ground/gamut"
	"sectilis/core/production/sheet"
)

// laid is the test page as a printer with a gain lays it down, as PNG.
func (f *fixture) laid(stock string, gain gamut.Gain) []byte {
	f.t.Helper()
	j, err := f.TestPage(f.t.Context(), sheet.Sizes()[0], stock)
	require.NoError(f.t, err)
	f.press.goOn <- nil
	f.until(j.ID, app.Done)
	page := f.press.pages[len(f.press.pages)-1]
	img, err := png.Decode(bytes.NewReader(page.PNG))
	require.NoError(f.t, err)
	out, inks := imaging.AsNRGBA(img), gamut.Laid(page.Kind, gain)
	for i := 0; i < len(out.Pix); i += 4 {
		p := out.Pix[i : i+3 : i+3]
		p[0], p[1], p[2] = inks.Colour(p[0], p[1], p[2])
	}
	var raw bytes.Buffer
	require.NoError(f.t, png.Encode(&raw, out))
	return raw.Bytes()
}

// A printer whose inks cover too much is corrected by its test page, on the stock that it was
// printed on, and is off by less then; after a restart too.
func TestTonesAreCorrectedByTheTestPage(t *testing.T) {
	f := start(t)
	gain := gamut.Gain{.09, -.05, .07, .06}
	require.NoError(t, f.MeasureColours(t.Context(), "satin-240", "scan.png", f.laid("satin-240", gain)))
	first := got(f.Inks(t.Context()))
	require.Len(t, first, 1)
	assert.Equal(t, "satin-240", first[0].Stock)
	assert.True(t, first[0].Toned)
	assert.Greater(t, first[0].Off, 3.0)

	again := f.again()
	assert.Equal(t, first, got(again.Inks(t.Context())))
	require.NoError(t, f.MeasureColours(t.Context(), "satin-240", "scan.png", f.laid("satin-240", gain)))
	second := got(f.Inks(t.Context()))
	assert.Less(t, second[0].Off, first[0].Off*.7)
	// Other stocks come as they did.
	require.NoError(t, f.MeasureColours(t.Context(), "white-216", "scan.png", f.laid("white-216", gamut.Gain{})))
	assert.Less(t, got(f.Inks(t.Context()))[0].Off, 2.0)

	require.NoError(t, f.AsTonesCome(t.Context(), "satin-240"))
	require.NoError(t, f.AsTonesCome(t.Context(), "white-216"))
	assert.Empty(t, got(f.Inks(t.Context())))
}

func TestWhatShowsNoRowChangesNothing(t *testing.T) {
	f := start(t)
	raw, _ := coretest.Photo(t, 300, 200)
	assert.ErrorContains(t, f.MeasureColours(t.Context(), "white-216", "gate.jpg", raw), "No colour row")
	assert.Error(t, f.MeasureColours(t.Context(), "white-216", "notes.txt", []byte("none")))
	assert.ErrorIs(t, f.MeasureColours(t.Context(), "gold", "scan.png", f.laid("white-216", gamut.Gain{})), app.ErrNotFound)
	assert.ErrorIs(t, f.MeasurePrinted(t.Context(), "white-216", "gone"), app.ErrNotFound)
	assert.Empty(t, got(f.Inks(t.Context())))
}

// By a profile of her own printer other colours come out dull: in the colours of the card, in what is
// found, and in how a face will print.
func TestAProfileTellsWhatComesOutDull(t *testing.T) {
	f := start(t)
	id := f.card()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	dull := func(v app.View) (n int) {
		for _, c := range v.Scene.Colours {
			if c.Prints != "" {
				n++
			}
		}
		return n
	}
	found := func(v app.View) (n int) {
		for _, x := range v.Findings {
			if x.Check == "dull" {
				n++
			}
		}
		return n
	}
	photos := func() (n int) {
		p, err := f.Prints(t.Context(), id)
		require.NoError(t, err)
		for _, x := range p.Findings {
			if x.Check == "dullPhoto" {
				n++
			}
		}
		return n
	}
	before, told := dull(v), found(v)
	assert.Zero(t, photos())
	face := got(f.FacePrint(t.Context(), id, "front"))
	for _, s := range card.Stocks() {
		require.NoError(t, f.BringInProfile(t.Context(), s.ID, "mine.icc", profiletest.Pale()))
	}
	v, err = f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Greater(t, dull(v), before)
	assert.Greater(t, found(v), told)
	assert.NotEqual(t, face, got(f.FacePrint(t.Context(), id, "front")))
	assert.Positive(t, photos())
	assert.Equal(t, app.InkView{Stock: "cream-300", Profile: "Corner printer"}, got(f.Inks(t.Context()))[0])

	b, err := f.again().Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, v.Scene.Colours, b.Scene.Colours)

	for _, s := range card.Stocks() {
		require.NoError(t, f.WithoutProfile(t.Context(), s.ID))
	}
	v, err = f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, before, dull(v))
	assert.Equal(t, face, got(f.FacePrint(t.Context(), id, "front")))
	var refused *card.Refusal
	assert.ErrorAs(t, f.BringInProfile(t.Context(), "white-216", "x.icc", []byte("no")), &refused)
	assert.ErrorIs(t, f.BringInProfile(t.Context(), "gold", "x.icc", profiletest.Pale()), app.ErrNotFound)
}

// A store that fails is not one in which nothing is kept.
func TestInksThatCannotBeReadAreToldOf(t *testing.T) {
	f := start(t)
	s := &faulty{Store: f.store}
	a := app.New(app.Config{Store: s, Printer: f.press, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
	t.Cleanup(a.Close)
	s.fail("kept")
	_, err := a.Inks(t.Context())
	assert.ErrorIs(t, err, errDisk)
	_, err = a.Open(t.Context(), f.card())
	assert.ErrorIs(t, err, errDisk)
	assert.ErrorIs(t, a.BringInProfile(t.Context(), "white-216", "x.icc", profiletest.Pale()), errDisk)
	s.fail()
	assert.Empty(t, got(a.Inks(t.Context())))
}

// A face is shown as it prints wherever a piece lies on it, and however it is turned: its words come out
// duller, bare paper stays as it is.
func TestAFaceIsSeenAsItPrintsOnEveryPiece(t *testing.T) {
	f := start(t)
	c, err := card.New("Trial", card.Base{Kind: card.SideFold, Width: 120, Height: 168, Stock: "cream-300"})
	require.NoError(t, err)
	square := func(name string, x, y, size float64, made card.Made, fill card.Fill) card.Command {
		return card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: name, Kind: card.Shape, Place: card.Place{X: x, Y: y, Turn: 20}, Made: made, Fill: fill,
			Form: &card.Form{Outline: card.Rectangle, Width: size, Height: size, Corner: card.Square}}}}
	}
	glow, ink := card.Fill{Colour: "#00ff40"}, card.Made{As: card.Printed}
	c, err = card.Apply(c, square("Plate", 80, 120, 50, card.Made{As: card.Cut, Stock: "moss-216"}, card.Fill{}), square("On the plate", 80, 120, 20, ink, glow), square("On the base", 30, 30, 20, ink, glow))
	require.NoError(t, err)
	id, err := f.Create(t.Context(), c)
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(got(f.FacePrint(t.Context(), id, card.Front))))
	require.NoError(t, err)
	perMM := float64(img.Bounds().Dy()) / 168
	at := func(x, y float64) string {
		r, g, b, _ := img.At(int(x*perMM), int(y*perMM)).RGBA()
		return fmt.Sprintf("#%02x%02x%02x", r>>8, g>>8, b>>8)
	}
	dull := at(30, 30)
	assert.NotEqual(t, "#00ff40", dull)
	plate := at(80, 120)
	assert.NotEqual(t, dull, plate, "what moss card gives back is less than cream card does")
	var on, base [3]int
	_, err = fmt.Sscanf(plate+dull, "#%02x%02x%02x#%02x%02x%02x", &on[0], &on[1], &on[2], &base[0], &base[1], &base[2])
	require.NoError(t, err)
	for i, moss := range []int{0x58, 0x7a, 0x4a} {
		assert.InDelta(t, float64(base[i])*float64(moss)/float64([]int{0xff, 0xf6, 0xe0}[i]), on[i], 2)
	}
	assert.Equal(t, "#587a4a", at(80, 102), "the bare plate")
	assert.Equal(t, "#fff6e0", at(10, 160), "the bare base")
}

package app_test

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/design/opening"
	"sectilis/core/design/tiers"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// telling is a picture each of whose pixels tells its place: red grows to the right, green downward.
func telling(t *testing.T, w, h int) []byte {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			img.Set(x, y, color.RGBA{uint8(255 * x / (w - 1)), uint8(255 * y / (h - 1)), 128, 255})
		}
	}
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, img))
	return b.Bytes()
}

// seenOn are the pages of a card's sheets, painted and as Poppler draws their PDF, 150 pixels to the inch.
func (f *fixture) seenOn(id string, number int) (pages map[string]image.Image) {
	f.t.Helper()
	pages = map[string]image.Image{}
	var b bytes.Buffer
	require.NoError(f.t, f.WritePage(f.t.Context(), &b, id, letter(), number, app.PageAs{DPI: 150}))
	img, err := png.Decode(&b)
	require.NoError(f.t, err)
	pages["painted"] = img
	b.Reset()
	require.NoError(f.t, f.WritePDF(f.t.Context(), &b, id, letter(), number, app.PDFAs{}))
	dir := f.t.TempDir()
	file := filepath.Join(dir, "sheet.pdf")
	require.NoError(f.t, os.WriteFile(file, b.Bytes(), 0o600))
	out, err := exec.Command("/usr/bin/pdftoppm", "-png", "-r", "150", "-singlefile", file, filepath.Join(dir, "sheet")).CombinedOutput()
	require.NoError(f.t, err, string(out))
	raw, err := os.ReadFile(filepath.Join(dir, "sheet.png"))
	require.NoError(f.t, err)
	pages["PDF"], err = png.Decode(bytes.NewReader(raw))
	require.NoError(f.t, err)
	return pages
}

// inkAt is the colour of a page at a place, mm, between the pixels about it.
func inkAt(page image.Image, p geom.Point) (out [3]float64) {
	const k = 150 / 25.4
	x, y := p.X*k-.5, p.Y*k-.5
	for _, d := range [][2]float64{{0, 0}, {1, 0}, {0, 1}, {1, 1}} {
		ix, iy := math.Floor(x)+d[0], math.Floor(y)+d[1]
		share := (1 - math.Abs(x-ix)) * (1 - math.Abs(y-iy))
		r, g, b, _ := page.At(int(ix), int(iy)).RGBA()
		for i, v := range []uint32{r, g, b} {
			out[i] += share * float64(v>>8)
		}
	}
	return out
}

// inks compares the pages of all pieces that are asked for with what their ink ought to be at places of
// their face, away from their edges and from where but says.
func (f *fixture) inks(id string, pieces []string, clear float64, but func(at geom.Point) bool, want func(at geom.Point) [3]float64) {
	t := f.t
	t.Helper()
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(18, 3))
	found := 0
	for _, sh := range l.Sheets {
		var pages map[string]image.Image
		for _, p := range sh.Pieces {
			asked := false
			for _, k := range pieces {
				asked = asked || k == p.ID
			}
			if !asked {
				continue
			}
			found++
			if pages == nil {
				pages = f.seenOn(id, sh.Number)
			}
			back, ok := p.At.Inverse()
			require.True(t, ok)
			box := p.Outline.Bounds()
			off := map[string]float64{} // on average: a shift would show here first
			for looked := 0; looked < 150; {
				at := geom.Pt(box.X+r.Float64()*box.W, box.Y+r.Float64()*box.H)
				near, _ := p.Outline.Nearest(at)
				if !p.Outline.Covers(at, geom.NonZero) || near.Distance < clear || but != nil && but(back.Apply(at)) {
					continue
				}
				looked++
				expect := want(back.Apply(at))
				for how, page := range pages {
					got := inkAt(page, at)
					for i := range got {
						off[how] += (got[i] - expect[i]) / 450
						require.InDelta(t, expect[i], got[i], 4, fmt.Sprintf("%s, %s, at %.1f, %.1f", p.Name, how, at.X, at.Y))
					}
				}
			}
			for how, by := range off {
				assert.Less(t, math.Abs(by), .6, "%s, %s", p.Name, how)
			}
		}
	}
	assert.Equal(t, len(pieces), found)
}

// Every tier of a tiered picture shows, on its sheet, the one picture where it lies on the card: pixel by
// pixel, painted and in the PDF.
func TestTiersShowTheOnePictureOnTheirSheets(t *testing.T) {
	f := start(t)
	raw := telling(t, 900, 700)
	p, err := f.BringIn(t.Context(), "Place.png", raw)
	require.NoError(t, err)
	id, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	v, err := f.Change(t.Context(), id, 1, []card.Command{
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Place", Kind: card.Photo, Place: card.Place{X: 63, Y: 85, Turn: 12}, Made: card.Made{As: card.Cut, Stock: "satin-240", Bleed: 1},
			Photo: &card.Print{Picture: p.ID, PixelWidth: p.Width, PixelHeight: p.Height, Width: 80, Height: 70}}}},
		opening.CropPhoto{ID: "i1", Zoom: 1.4, ShiftX: .1, ShiftY: -.05},
		tiers.MakeTiers{ID: "i1", Tiers: card.Tiers{Count: 4, Step: 7, X: .4, Y: .6, Foam: 1, Edge: 1, EdgeColour: "#ffffff"}},
	})
	require.NoError(t, err)
	face := v.Scene.Face(card.Front)
	var base scene.Item
	var pieces []string
	for _, it := range face.Items {
		pieces = append(pieces, it.ID)
		if it.ID == "i1" {
			base = it
		}
	}
	require.Len(t, pieces, 4)
	back, _ := base.At.Inverse()
	box := base.Picture.Box
	f.inks(id, pieces, 1.4, nil, func(at geom.Point) [3]float64 {
		q := back.Apply(at)
		u, w := (q.X-box.X)/box.W, (q.Y-box.Y)/box.H
		return [3]float64{255 * u, 255 * w, 128}
	})
}

// A paper of one's own lies at its true size, turned and shifted as it is said to be, on screen's places,
// on the painted sheet and in the PDF; mirrored ones meet at their edges.
func TestAPaperOfOnesOwnLiesInItsTrueSize(t *testing.T) {
	for _, mirrored := range []bool{false, true} {
		f := start(t)
		in, err := f.ReadPaper(t.Context(), "Place.png", telling(t, 360, 240))
		require.NoError(t, err)
		assert.True(t, in.Across && in.Down, "its edges do not meet")
		assert.False(t, in.Said)
		assert.InDelta(t, 360/300.*25.4, in.Width, 1e-9)
		pics, err := f.Pictures(t.Context())
		require.NoError(t, err)
		assert.Empty(t, pics, "it waits among the papers")
		paper, err := f.AddPaper(t.Context(), app.NewPaper{Name: "Place", Picture: in.Picture, Width: 36, Height: 24, Mirrored: mirrored})
		require.NoError(t, err)
		id, err := f.Create(t.Context(), coretest.Empty(t))
		require.NoError(t, err)
		fill := card.Fill{Paper: paper.ID, Scale: 1.25, Turn: 20, ShiftX: 3, ShiftY: -2}
		_, err = f.Change(t.Context(), id, 1, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Panel", Kind: card.Paper, Place: card.Place{X: 60, Y: 90},
			Made: card.Made{As: card.Cut, Stock: "white-216", Bleed: 1}, Fill: fill, Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 95, Height: 120}}}}})
		require.NoError(t, err)
		back, _ := fill.Pattern().Then(geom.Shift(60, 90)).Inverse()
		seam := func(at geom.Point) bool { // near a seam colours mix
			q := back.Apply(at)
			x, y := q.X/36-math.Floor(q.X/36), q.Y/24-math.Floor(q.Y/24)
			return min(x, 1-x) < .02 || min(y, 1-y) < .02
		}
		f.inks(id, []string{"i1"}, .5, seam, func(at geom.Point) [3]float64 {
			q := back.Apply(at)
			u, w := q.X/36, q.Y/24
			i, j := math.Floor(u), math.Floor(w)
			u, w = u-i, w-j
			if mirrored && int(i)%2 != 0 {
				u = 1 - u
			}
			if mirrored && int(j)%2 != 0 {
				w = 1 - w
			}
			return [3]float64{255 * u, 255 * w, 128}
		})
	}
}

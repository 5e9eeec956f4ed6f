package app_test

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/document/picture"
)

// A paper of one's own may be changed and taken out of the tray: cards that are printed with it go on, after
// a restart too.
func TestPapersOfOnesOwnAreKept(t *testing.T) {
	f := start(t)
	raw, _ := coretest.Photo(t, 60, 40)
	in, err := f.ReadPaper(t.Context(), "Old wall.jpg", raw)
	require.NoError(t, err)
	assert.Equal(t, "Old wall", in.Name)
	assert.False(t, in.Across)
	assert.True(t, in.Down, "green above red")
	p, err := f.AddPaper(t.Context(), app.NewPaper{Name: " Old wall ", Picture: in.Picture, Width: 30, Height: 20})
	require.NoError(t, err)
	assert.Equal(t, "Old wall", p.Name)
	assert.NotEmpty(t, p.Ground)
	assert.Equal(t, p.ID, pattern.Papers()[0].ID, "one's own come first")

	id, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	_, err = f.Change(t.Context(), id, 1, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Panel", Kind: card.Paper, Place: card.Place{X: 60, Y: 90},
		Made: card.Made{As: card.Cut, Stock: "white-216"}, Fill: card.Fill{Paper: p.ID}, Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 50, Height: 50}}}}})
	require.NoError(t, err)
	before := f.StocksAre()
	require.NoError(t, f.ChangePaper(t.Context(), p.ID, app.NewPaper{Name: "Older wall", Width: 45, Height: 30, Mirrored: true}))
	assert.NotEqual(t, before, f.StocksAre(), "pictures of it are others")
	now, _ := pattern.ByID(p.ID)
	assert.Equal(t, pattern.Paper{ID: p.ID, Name: "Older wall", Ground: p.Ground, Width: 45, Height: 30, Picture: in.Picture, PixelWidth: 60, Mirrored: true, Own: true}, now)
	svg, err := f.PaperPicture(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Equal(t, 4, strings.Count(svg, "<image"))

	require.NoError(t, f.RemovePaper(t.Context(), p.ID))
	assert.NotEqual(t, p.ID, pattern.Papers()[0].ID)
	pattern.Know(nil)
	v, err := f.again().Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, p.ID, v.Card.Face(card.Front).Items[0].Fill.Paper)
	_, ok := pattern.ByID(p.ID)
	assert.True(t, ok, "it is known still")

	require.ErrorIs(t, f.RemovePaper(t.Context(), "comb"), app.ErrNotFound, "those that ship stay")
	require.ErrorIs(t, f.ChangePaper(t.Context(), "own-none", app.NewPaper{}), app.ErrNotFound)
	for field, n := range map[string]app.NewPaper{
		"name":    {Picture: in.Picture, Width: 30, Height: 20},
		"width":   {Name: "A", Picture: in.Picture, Width: 1, Height: 20},
		"picture": {Name: "A", Picture: "none", Width: 30, Height: 20},
	} {
		_, err := f.AddPaper(t.Context(), n)
		var refused *card.Refusal
		require.ErrorAs(t, err, &refused)
		assert.Equal(t, field, refused.Field)
	}
}

// A drawing is painted as a tile of its page: what it lacks lets through what lies below.
func TestADrawingBecomesAPaper(t *testing.T) {
	f := start(t)
	in, err := f.ReadPaper(t.Context(), "Dots.svg", []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10">
		<circle cx="5" cy="5" r="2" fill="#a8432a"/><circle cx="0" cy="5" r="2" fill="#587a4a"/><circle cx="20" cy="5" r="2" fill="#587a4a"/></svg>`))
	require.NoError(t, err)
	assert.Equal(t, [2]float64{20, 10}, [2]float64{in.Width, in.Height})
	assert.True(t, in.Said)
	assert.False(t, in.Across || in.Down)
	p, err := f.AddPaper(t.Context(), app.NewPaper{Name: in.Name, Picture: in.Picture, Width: in.Width, Height: in.Height})
	require.NoError(t, err)
	assert.Empty(t, p.Ground, "it is seen through")
	// A picture in it is below its shapes.
	var half bytes.Buffer
	two := image.NewNRGBA(image.Rect(0, 0, 2, 1))
	two.Set(0, 0, color.NRGBA{168, 67, 42, 255})
	two.Set(1, 0, color.NRGBA{53, 101, 140, 255})
	require.NoError(t, png.Encode(&half, two))
	in, err = f.ReadPaper(t.Context(), "Halves.svg", fmt.Appendf(nil, `<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10">
		<image width="20" height="10" preserveAspectRatio="none" href="data:image/png;base64,%s"/><rect x="9" y="4" width="2" height="2" fill="#e2a42b"/></svg>`, base64.StdEncoding.EncodeToString(half.Bytes())))
	require.NoError(t, err)
	_, raw, err := f.PicturePreview(t.Context(), in.Picture, 800)
	require.NoError(t, err)
	img, _, err := picture.Decode("", raw)
	require.NoError(t, err)
	b := img.Bounds()
	for at, want := range map[[2]float64]color.NRGBA{{.1, .5}: {168, 67, 42, 255}, {.9, .5}: {53, 101, 140, 255}, {.5, .5}: {226, 164, 43, 255}} {
		r, g, bl, _ := img.At(b.Min.X+int(at[0]*float64(b.Dx())), b.Min.Y+int(at[1]*float64(b.Dy()))).RGBA()
		assert.InDeltaSlice(t, []float64{float64(want.R), float64(want.G), float64(want.B)}, []float64{float64(r >> 8), float64(g >> 8), float64(bl >> 8)}, 4, "%v", at)
	}
	// Pictures that are small as files and enormous when they are decoded.
	var vast bytes.Buffer
	require.NoError(t, png.Encode(&vast, image.NewPaletted(image.Rect(0, 0, 9900, 8000), color.Palette{color.White})))
	one := fmt.Sprintf(`<image width="20" height="10" href="data:image/png;base64,%s"/>`, base64.StdEncoding.EncodeToString(vast.Bytes()))
	_, err = f.ReadPaper(t.Context(), "Vast.svg", []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10">`+strings.Repeat(one, 8)+`</svg>`))
	assert.ErrorContains(t, err, "MB together")
	for name, raw := range map[string]string{
		"none.txt":   "no paper at all",
		"broken.svg": `<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10"><image width="20" height="10" href="data:image/png;base64,AAAA"/></svg>`,
		"far.svg":    `<svg xmlns="http://www.w3.org/2000/svg" width="4000mm" height="10mm" viewBox="0 0 4000 10"><rect width="9" height="9"/></svg>`,
	} {
		_, err := f.ReadPaper(t.Context(), name, []byte(raw))
		require.Error(t, err, name)
		assert.NotContains(t, err.Error(), "EOF")
	}
}

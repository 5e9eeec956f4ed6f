// Package coretest makes the card that tests of core look at.
package coretest

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"image"
	"image/color"
	"image/jpeg"
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// Photo is a small JPEG, red above and green below, with its digest.
func Photo(t testing.TB, w, h int) (raw []byte, id string) {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.RGBA{200, 30, 30, 255}
			if y > h/2 {
				c = color.RGBA{30, 160, 30, 255}
			}
			img.Set(x, y, c)
		}
	}
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, &jpeg.Options{Quality: 95}))
	sum := sha256.Sum256(b.Bytes())
	return b.Bytes(), hex.EncodeToString(sum[:])
}

// Empty is a 5 × 7 in side fold with nothing on it.
func Empty(t testing.TB) card.Card {
	t.Helper()
	c, err := card.New("Test card", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	return c
}

// Card is a 5 × 7 in side fold. On Front, upward: i1 a leaf paper piece that
// covers most of it; i2 a photo piece on i1 with i3 its mat; i4 a tag piece
// on the base at the bottom, raised; i5 words printed on i4. On Back: i6 a
// printed ellipse. Inside left: i7 words.
func Card(t testing.TB) card.Card {
	t.Helper()
	_, id := Photo(t, 300, 200)
	words := func(text string) *card.Words {
		return &card.Words{Text: text, Font: "pacifico-400", Size: 9, Leading: 1.3, Align: card.AlignCentre}
	}
	c, err := card.Apply(Empty(t),
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Leaf paper", Kind: card.Paper, Place: card.Place{X: 63.5, Y: 60},
			Made: card.Made{As: card.Cut, Stock: "text-120", Bleed: 2}, Fill: card.Fill{Paper: "leaf-drift"},
			Form: &card.Form{Outline: card.Rectangle, Width: 110, Height: 100, Corner: card.Square}}}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Photo", Kind: card.Photo, Place: card.Place{X: 63.5, Y: 60},
			Made: card.Made{As: card.Printed}, Photo: &card.Print{Picture: id, PixelWidth: 300, PixelHeight: 200, Width: 80, Height: 60}}}},
		card.AddMat{IDs: []string{"i2"}, Width: 4, Corner: card.Round, Stock: "brick-216"},
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Label", Kind: card.Shape, Place: card.Place{X: 63.5, Y: 145},
			Made: card.Made{As: card.Cut, Stock: "cream-216", Lift: 1},
			Form: &card.Form{Outline: "tag", Width: 90, Height: 30}}}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Sentiment", Kind: card.Lettering, Place: card.Place{X: 63.5, Y: 145},
			Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"}, Words: words("Harvest Supper")}}},
		card.PlaceItems{Face: card.Back, Items: []card.Item{{Name: "Seal", Kind: card.Shape, Place: card.Place{X: 63.5, Y: 150},
			Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"},
			Form: &card.Form{Outline: card.Ellipse, Width: 20, Height: 20}}}},
		card.PlaceItems{Face: card.InsideFirst, Items: []card.Item{{Name: "Greeting", Kind: card.Lettering, Place: card.Place{X: 63.5, Y: 80},
			Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#1f2b38"}, Words: words("Come\nand eat")}}},
	)
	require.NoError(t, err)
	return c
}

// Path reads SVG path data, mm.
func Path(t testing.TB, data string) geom.Path {
	t.Helper()
	p, err := geom.ParsePath(data)
	require.NoError(t, err)
	return p
}

package edits_test

import (
	"context"
	"encoding/json"
	"image"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/kovidgoyal/imaging"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/edits"
	"sectilis/core/ground/geom"
)

// photo is a smooth picture of many colours, with a step in it.
func photo(w, h int) *image.NRGBA {
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			u, v := (float64(x)+.5)/float64(w), (float64(y)+.5)/float64(h)
			p := img.Pix[img.PixOffset(x, y):]
			p[0], p[1], p[2], p[3] = uint8(40+180*u), uint8(60+120*v), uint8(128+90*math.Sin(7*u*v)), 255
			if u > .5 {
				p[2] /= 2
			}
		}
	}
	return img
}

// all is an edit of every kind.
var all = []card.Edit{
	{Right: &card.Right{Black: .05, White: .9, Gamma: 1.1, Red: 1.05, Blue: .95}},
	{Light: &card.Light{Brightness: 20, Contrast: 15, Highlights: -30, Shadows: 25, Saturation: 10, Lively: 20, Warmth: 12, Tint: -4, Sharpness: 30, Softness: 40, Smooth: 20}},
	{Lean: &card.Lean{Degrees: 3}},
	{Corners: &card.Corners{At: [4]geom.Point{{X: .1, Y: .05}, {X: .95, Y: .1}, {X: .9, Y: .9}, {X: .05, Y: .95}}}},
	{Eyes: &[]card.RedEye{{X: .3, Y: .4, Radius: .05}}},
	{Tone: &card.Tone{Colour: "#704214", Amount: 60}},
	{CutOut: &card.CutOut{Ground: &card.PlainGround{At: []geom.Point{{X: .1, Y: .1}}, Tolerance: 30}, Softness: .004}},
	{CutOut: &card.CutOut{Within: []geom.Point{{X: .2, Y: .2}, {X: .8, Y: .3}, {X: .5, Y: .9}}, Paint: []card.Painted{{Brushed: card.Brushed{Points: []geom.Point{{X: .5, Y: .5}}, Radius: .05}}}, Out: .01}},
	{Copied: &card.Copied{Brushed: card.Brushed{Points: []geom.Point{{X: .3, Y: .3}, {X: .4, Y: .35}}, Radius: .05}, From: geom.Point{X: .7, Y: .6}, Soft: true}},
	{Filled: &card.Filled{Strokes: []card.Brushed{{Points: []geom.Point{{X: .2, Y: .6}}, Radius: .04}}}},
	{Wider: &card.Wider{Left: .1, Top: .05}},
	{Light: &card.Light{Brightness: 40}, Of: &card.CutOut{Paint: []card.Painted{{Brushed: card.Brushed{Points: []geom.Point{{X: .3, Y: .3}, {X: .6, Y: .4}}, Radius: .1}, In: true, Soft: true}}}},
}

// A small copy after edits is the large one after edits made small: what is seen is what is
// printed.
func TestAPreviewShowsWhatIsPrinted(t *testing.T) {
	for i := range all {
		one := all[i : i+1]
		large, err := edits.Apply(t.Context(), photo(1200, 900), one)
		require.NoError(t, err)
		small, err := edits.Apply(t.Context(), photo(300, 225), one)
		require.NoError(t, err)
		print := card.Print{Picture: "x", PixelWidth: 1200, PixelHeight: 900, Edits: one}
		w, h := print.Pixels()
		assert.Equal(t, image.Pt(w, h), large.Rect.Size(), "the document knows the size")
		shrunk := imaging.AsNRGBA(imaging.Resize(large, small.Rect.Dx(), small.Rect.Dy(), imaging.Box))
		sum, n := 0.0, 0.0
		seen := func(img *image.NRGBA, k int) float64 { // as it is on black
			return float64(img.Pix[k]) * float64(img.Pix[k|3]) / 255
		}
		for k := range small.Pix {
			sum, n = sum+math.Abs(seen(small, k)-seen(shrunk, k)), n+1
		}
		most := 1.2
		if one[0].Filled != nil || one[0].Wider != nil {
			most = 3 // which patches are taken is another matter in every size
		}
		assert.Less(t, sum/n, most, "edit %d", i)
	}
}

// What is done to a part leaves the rest as it is, and fades where the part does.
func TestAPartOfAPhotoIsChanged(t *testing.T) {
	was := photo(400, 300)
	stroke := card.Brushed{Points: []geom.Point{{X: .25, Y: .5}}, Radius: .1}
	part := card.CutOut{Paint: []card.Painted{{Brushed: stroke, In: true, Soft: true}}}
	of := func(rest bool) *image.NRGBA {
		part.Rest = rest
		got, err := edits.Apply(t.Context(), photo(400, 300), []card.Edit{{Tone: &card.Tone{Colour: "#808080", Amount: 100}, Of: &part}})
		require.NoError(t, err)
		return got
	}
	grey := func(img *image.NRGBA, x, y int) bool {
		c := img.NRGBAAt(x, y)
		return max(c.R, c.G, c.B)-min(c.R, c.G, c.B) < 5
	}
	got := of(false)
	assert.True(t, grey(got, 100, 150))
	assert.False(t, grey(got, 130, 150), "it fades")
	assert.Equal(t, was.NRGBAAt(145, 150), got.NRGBAAt(145, 150))
	assert.Equal(t, was.NRGBAAt(300, 50), got.NRGBAAt(300, 50))
	got = of(true)
	assert.Equal(t, was.NRGBAAt(100, 150), got.NRGBAAt(100, 150))
	assert.True(t, grey(got, 300, 50))
	assert.Error(t, card.CheckEdits([]card.Edit{{Lean: &card.Lean{Degrees: 2}, Of: &part}}))
}

func TestEditsThatDoNothingChangeNothing(t *testing.T) {
	was := photo(80, 60)
	got, err := edits.Apply(t.Context(), photo(80, 60), []card.Edit{{Light: &card.Light{}}, {Right: &card.Right{}}, {Tone: &card.Tone{Colour: "#808080"}}, {Lean: &card.Lean{}}, {Eyes: &[]card.RedEye{}}})
	require.NoError(t, err)
	assert.Equal(t, was, got)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	for i := range all {
		_, err := edits.Apply(ctx, photo(80, 60), all[i:i+1])
		assert.ErrorIs(t, err, context.Canceled, "edit %d", i)
	}
}

// Edits of any values that a card takes give a picture, of the size that the card says.
func TestAnyEditsThatACardTakesCanBeDone(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 8))
	both := func() float64 { return 200*r.Float64() - 100 }
	more := func() float64 { return 100 * r.Float64() }
	done := 0
	for range 150 {
		e := []card.Edit{
			{Light: &card.Light{Brightness: both(), Contrast: both(), Highlights: both(), Shadows: both(), Saturation: both(), Lively: both(), Warmth: both(), Tint: both(), Sharpness: more(), Softness: more(), Smooth: more()}},
			{Right: &card.Right{Black: .5 * r.Float64(), White: .5 + .5*r.Float64(), Gamma: .25 + r.Float64(), Red: .25 + r.Float64(), Blue: .25 + r.Float64()}},
			{Lean: &card.Lean{Degrees: .45 * both()}},
			{Corners: &card.Corners{At: [4]geom.Point{{X: r.Float64(), Y: r.Float64()}, {X: r.Float64(), Y: r.Float64()}, {X: r.Float64(), Y: r.Float64()}, {X: r.Float64(), Y: r.Float64()}}}},
			{Eyes: &[]card.RedEye{{X: r.Float64(), Y: r.Float64(), Radius: .3 * r.Float64()}}},
		}
		r.Shuffle(len(e), func(i, j int) { e[i], e[j] = e[j], e[i] })
		e = e[:1+r.IntN(2)]
		if card.CheckEdits(e) != nil {
			continue
		}
		w, h := 1+r.IntN(40), 1+r.IntN(40)
		got, err := edits.Apply(t.Context(), photo(w, h), e)
		require.NoError(t, err)
		w, h = card.Print{PixelWidth: w, PixelHeight: h, Edits: e}.Pixels()
		require.Equal(t, image.Pt(w, h), got.Rect.Size())
		done++
	}
	assert.Greater(t, done, 60)
}

// Edits for any photo are those that have one of the parts that are named so.
// However often a picture is made wider, it stays one that can be worked on.
func TestEndlesslyWiderIsRefused(t *testing.T) {
	wide := card.Edit{Wider: &card.Wider{Left: 1, Top: 1, Right: 1, Bottom: 1}}
	all := make([]card.Edit, 60)
	for i := range all {
		all[i] = wide
	}
	_, err := edits.Apply(t.Context(), image.NewNRGBA(image.Rect(0, 0, 300, 200)), all)
	assert.ErrorContains(t, err, "at most 80 million")
	w, h, err := card.SizeAfter(all[:2], 300, 200)
	require.NoError(t, err)
	assert.Equal(t, [2]int{2700, 1800}, [2]int{w, h})
	_, _, err = card.SizeAfter(all[:1], 4000, 3000)
	assert.ErrorContains(t, err, "108 million")
	large := card.Print{PixelWidth: 4000, PixelHeight: 3000, Edits: all}
	w, h = large.Pixels()
	assert.Equal(t, [2]int{4000, 3000}, [2]int{w, h})
}

func TestEditsForAnyPhotoAreNamed(t *testing.T) {
	for _, e := range all {
		raw, err := json.Marshal(e)
		require.NoError(t, err)
		named := false
		for _, n := range card.EditsForAny() {
			named = named || strings.HasPrefix(string(raw), `{"`+n+`"`)
		}
		assert.Equal(t, named && e.Of == nil, e.ForAny(), "%s", raw)
	}
}

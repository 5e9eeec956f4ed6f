package scene_test

import (
	"math"
	"math/rand/v2"
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

func disc(t *testing.T, place card.Place, look card.Look) scene.Item {
	t.Helper()
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Disc", Kind: card.Shape, Place: place,
		Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"}, Look: &look, Form: &card.Form{Outline: "tag", Width: 20, Height: 12}}}})
	require.NoError(t, err)
	return resolve(t, c).Faces[0].Items[0]
}

func TestAShadowFallsTheSameWayHoweverItsItemIsTurned(t *testing.T) {
	for _, place := range []card.Place{{X: 50, Y: 50}, {X: 50, Y: 50, Turn: 130}, {X: 50, Y: 50, Turn: -77, Mirrored: true}} {
		it := disc(t, place, card.Look{Shadow: &card.Shadow{Distance: 5, Angle: 60, Blur: 1, Opacity: .5, Colour: "#3a2a18"}})
		require.Len(t, it.Under, 1)
		d := it.Under[0].Path.Transform(it.At).Bounds().Centre().Sub(it.Bounds.Centre())
		assert.InDelta(t, 2.5, d.X, 1e-6)
		assert.InDelta(t, 5*math.Sin(math.Pi/3), d.Y, 1e-6)
	}
}

func TestWhatALookAddsStaysWhereItBelongs(t *testing.T) {
	it := disc(t, card.Place{X: 50, Y: 50}, card.Look{Line: &card.InkLine{Colour: "#1f2b38", Width: 2}, Raised: &card.Raised{Width: 2, Strength: .5},
		Reflection: &card.Reflection{Gap: 3, Length: .5, Opacity: .4}})
	require.Len(t, it.Over, 3)
	for _, w := range it.Over[:2] {
		assert.True(t, w.Inside)
		assert.True(t, it.Box.Contains(w.Path.Bounds(), 1e-6), "an edge is shaded within it")
	}
	line := it.Over[2].Path.Bounds()
	assert.InDelta(t, it.Box.H+2, line.H, 1e-3, "half the line is outside")
	again := it.Outline.Transform(it.Reflection.At).Bounds()
	assert.InDelta(t, it.Box.Bottom()+3, again.Y, 1e-9)
	assert.InDelta(t, it.Box.H/2, it.Reflection.To.Y-it.Reflection.From.Y, 1e-9)
}

// A line outside is a ring below the item's own ink, however it is dashed, and a shadow reaches as far
// beyond its item as is said; of both is all that an item leaves without its ink.
func TestWhatLiesOutsideLiesBelow(t *testing.T) {
	line := &card.InkLine{Colour: "#ffffff", Width: 2, Outside: true}
	look := card.Look{Line: line, Shadow: &card.Shadow{Spread: 3, Opacity: 1, Colour: "#000000"}}
	it := disc(t, card.Place{X: 50, Y: 50, Turn: 30}, look)
	require.Len(t, it.Under, 2)
	assert.Empty(t, it.Over)
	assert.InDelta(t, it.Box.H+6, it.Under[0].Path.Bounds().H, 1e-2)
	assert.InDelta(t, it.Box.H+4, it.Under[1].Path.Bounds().H, 1e-2)
	line.Dashed = true
	dashed := disc(t, card.Place{X: 50, Y: 50, Turn: 30}, look).Under[1].Path
	assert.InDelta(t, it.Box.H+4, dashed.Bounds().H, 1e-2)
	assert.Less(t, dashed.Area(), .8*it.Under[1].Path.Area())

	left := it.Beneath()
	assert.Equal(t, it.Under, left.Under)
	assert.Equal(t, card.Fill{}, left.Fill)
}

// A scene that was carried on from the one before is the scene made anew.
func TestASceneCarriedOnIsTheSceneMadeAnew(t *testing.T) {
	rnd := rand.New(rand.NewPCG(2, 7))
	c := coretest.Card(t)
	s := resolve(t, c)
	ids := []string{"i1", "i2", "i4", "i5"}
	for range 150 {
		id := ids[rnd.IntN(len(ids))]
		k := []card.Command{
			card.MoveItems{IDs: []string{id}, DX: rnd.Float64()*8 - 4, DY: rnd.Float64()*8 - 4},
			card.TurnItems{IDs: []string{id}, Degrees: rnd.Float64() * 20},
			arrange.MirrorItems{IDs: []string{id}},
			card.HideItems{IDs: []string{id}, Hidden: rnd.IntN(2) == 0},
			card.SetMat{ID: "i3", Width: 1 + 6*rnd.Float64(), Corner: card.Round},
			card.StepInStack{ID: id, Up: rnd.IntN(2) == 0},
			card.SetLook{IDs: []string{"i6"}, Look: card.Look{Clear: rnd.Float64() * .5}},
			card.NameItem{ID: id, Name: "Other"},
		}[rnd.IntN(8)]
		next, err := card.Apply(c, k)
		if err != nil {
			continue // such as a step beyond the top
		}
		on, err := scene.After(next, c, s)
		require.NoError(t, err)
		anew := resolve(t, next)
		require.True(t, reflect.DeepEqual(anew, on), "%T", k)
		c, s = next, on
	}
}

// However a picture is shifted and zoomed, what it has to cover is covered; one that is seen
// whole has nothing to cover.
func TestAPictureCoversItsOpeningHoweverItIsShifted(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 9))
	for range 500 {
		p := card.Print{PixelWidth: 1 + rng.IntN(6000), PixelHeight: 1 + rng.IntN(6000), Width: 5 + rng.Float64()*200, Height: 5 + rng.Float64()*200,
			Zoom: rng.Float64() * 6, ShiftX: rng.NormFloat64() * 3, ShiftY: rng.NormFloat64() * 3, Fit: rng.IntN(4) == 0}
		bleed := float64(rng.IntN(2)) * 3.2
		seen := scene.Seen(p, bleed)
		if p.Fit {
			require.Nil(t, seen.Cover)
			continue
		}
		require.Equal(t, geom.Centred(p.Width, p.Height).Grow(bleed), *seen.Cover)
		require.True(t, seen.Box.Contains(*seen.Cover, 1e-9), "%+v: %+v", p, seen)
		require.InEpsilon(t, float64(p.PixelWidth)/float64(p.PixelHeight), seen.Box.W/seen.Box.H, 1e-9, "never stretched")
		require.InEpsilon(t, seen.Least.X*max(1, p.Zoom), seen.Box.W, 1e-9)
	}
}

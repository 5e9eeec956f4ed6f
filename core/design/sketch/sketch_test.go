package sketch_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/sketch"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

func TestACardBecomesASketchAndACardAgain(t *testing.T) {
	c := coretest.Card(t)
	doc, err := sketch.Of(c, "", []string{"i2", "i5", "i7"})
	require.NoError(t, err)
	_, slot := doc.Find("i2")
	assert.Equal(t, card.Slot, slot.Kind)
	assert.Equal(t, card.Made{As: card.Printed}, slot.Made, "nothing of it is cut before it is filled")
	s, err := scene.Of(doc)
	require.NoError(t, err)
	before, err := scene.Of(c)
	require.NoError(t, err)
	assert.Equal(t, before.Face(card.Front).Items[1].Bounds, s.Face(card.Front).Items[1].Bounds, "the mat stays")
	assert.Len(t, s.Look(s.Face(card.Front), doc.Base), 5, "neither the photo nor the words are seen")

	_, id := coretest.Photo(t, 300, 200)
	_, tall := coretest.Photo(t, 60, 90)
	back, err := sketch.Fill(doc, []sketch.Picture{{ID: tall, Name: "Tall", Width: 60, Height: 90, DetailX: .5, DetailY: .1}, {ID: id, Name: "Wide", Width: 300, Height: 200, DetailX: .5, DetailY: .5}})
	require.NoError(t, err)
	_, photo := back.Find("i2")
	require.NotNil(t, photo.Photo)
	assert.Equal(t, id, photo.Photo.Picture, "the one that suits the slot")
	assert.Equal(t, "Wide", photo.Name)
	_, was := c.Find("i2")
	assert.Equal(t, was.Made, photo.Made)

	said, err := card.Apply(back, sketch.FillWords{ID: "i5", Text: "A far longer greeting"})
	require.NoError(t, err)
	s, err = scene.Of(said)
	require.NoError(t, err)
	old, now := before.Face(card.Front).Items[4].Bounds, s.Face(card.Front).Items[4].Bounds
	assert.InDelta(t, old.W, now.W, .05, "as large as fits")
	assert.LessOrEqual(t, now.H, old.H+.05)
	assert.InDelta(t, old.Centre().X, now.Centre().X, .05)
	assert.InDelta(t, old.Centre().Y, now.Centre().Y, .05)
	_, err = card.Apply(doc, sketch.FillWords{ID: "i2", Text: "No"})
	assert.ErrorContains(t, err, "waits for no words")
	_, err = sketch.Of(c, "", []string{"i4"})
	assert.ErrorContains(t, err, "neither a photo nor words")
}

func TestASketchOfAFaceHasNothingElse(t *testing.T) {
	doc, err := sketch.Of(coretest.Card(t), card.Front, []string{"i7"})
	require.NoError(t, err)
	assert.Empty(t, doc.Face(card.Back).Items)
	assert.Empty(t, doc.Face(card.InsideFirst).Items)
	assert.Len(t, doc.Face(card.Front).Items, 5)
	_, err = sketch.Of(coretest.Card(t), card.InsideSecond, nil)
	assert.ErrorContains(t, err, "nothing on this face")
}

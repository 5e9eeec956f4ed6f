package opening_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/opening"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/shape"
)

func refused(t *testing.T, c card.Card, k card.Command, field, why string) {
	t.Helper()
	_, err := card.Apply(c, k)
	var r *card.Refusal
	require.ErrorAs(t, err, &r, "%+v", k)
	assert.Equal(t, field, r.Field)
	assert.Contains(t, r.Why, why)
}

// print is the photo of the card.
func print(c card.Card) card.Print {
	_, it := c.Find("i1")
	return *it.Photo
}

// Every outline of the catalogue can be an opening: of the photo's size, while the picture
// stays as it is.
func TestEveryShapeCanBeAnOpening(t *testing.T) {
	c := do(t, photo(t), opening.CropPhoto{ID: "i1", Zoom: 1.5, ShiftX: .1})
	for _, r := range shape.All() {
		d := do(t, c, opening.SetOpening{IDs: []string{"i1"}, Outline: r.Outline, Corner: r.Corner, Radius: r.Radius})
		p := print(d)
		if r.Outline == card.Rectangle && r.Corner == card.Square {
			assert.Nil(t, p.Opening, "a plain rectangle is no opening of its own")
		} else {
			require.NotNil(t, p.Opening, r.ID)
			assert.Equal(t, r.Outline, p.Opening.Outline)
			assert.Equal(t, r.Corner, p.Opening.Corner)
		}
		box := card.OutlineOf(p.Form()).Bounds()
		assert.InDelta(t, 60, box.W, 1e-6, r.ID)
		assert.InDelta(t, 40, box.H, 1e-6, r.ID)
		assert.Equal(t, 1.5, p.Zoom)
		assert.Equal(t, .1, p.ShiftX)
		// It grows and shrinks about the picture, and comes back to where it was.
		grown := do(t, d, opening.GrowOpening{IDs: []string{"i1"}, By: 2, Corner: card.Round})
		x0, y0, w0, h0 := seen(t, d, "i1")
		x1, y1, w1, h1 := seen(t, grown, "i1")
		for _, v := range [][2]float64{{x0, x1}, {y0, y1}, {w0, w1}, {h0, h1}} {
			assert.InDelta(t, v[0], v[1], 1e-4, "%s: the picture stays where it is", r.ID)
		}
		area := func(c card.Card) float64 { p := print(c); return card.OutlineOf(p.Form()).Area() }
		length := card.OutlineOf(p.Form()).Length()
		assert.Greater(t, area(grown), area(d)+length, r.ID)
		assert.Less(t, area(grown), area(d)+2*2*length, r.ID)
	}
}

func TestOpeningsThatCannotBeAreRefused(t *testing.T) {
	c := photo(t)
	one := []string{"i1"}
	refused(t, c, opening.SetOpening{IDs: one, Outline: card.Free}, "outline", "crop the photo to the shape")
	refused(t, c, opening.SetOpening{IDs: one, Outline: "cloud"}, "outline", "no outline")
	refused(t, c, opening.SetOpening{IDs: []string{"i2"}, Outline: "tag"}, "id", "photo")
	for _, by := range []float64{0, 151, -151, math.NaN()} {
		refused(t, c, opening.GrowOpening{IDs: one, By: by}, "by", "up to 150 mm")
	}
	refused(t, c, opening.GrowOpening{IDs: one, By: -25, Corner: card.Round}, "by", "Nothing would be left")
	refused(t, c, opening.GrowOpening{IDs: []string{"i2"}, By: 1, Corner: card.Round}, "id", "photo")
	refused(t, c, opening.CropPhoto{ID: "i2", Zoom: 2}, "id", "photo")
	refused(t, c, opening.SwapPictures{A: "i1", B: "i2"}, "a", "Pictures are swapped")
	refused(t, c, opening.FillOpening{ID: "i2", Picture: "x", PixelWidth: 1, PixelHeight: 1}, "picture", "digest")
	refused(t, c, opening.DivideOpening{ID: "i1", Columns: 1, Rows: 1, Gap: 2}, "columns", "")
}

// However an opening is divided, its cells lie within it, apart by the gap, equal in size,
// and together they are the opening less the gaps.
func TestCellsAreTheOpeningLessItsGaps(t *testing.T) {
	r := rand.New(rand.NewPCG(61, 62))
	for range 60 {
		columns, rows, gap := 1+r.IntN(4), 1+r.IntN(4), float64(r.IntN(40))/10
		if columns*rows < 2 {
			continue
		}
		c := photo(t)
		round := r.IntN(2) == 0
		if round {
			c = do(t, c, opening.SetOpening{IDs: []string{"i1"}, Outline: card.Ellipse})
		}
		was := print(c)
		whole := card.OutlineOf(was.Form()).Transform(geom.Shift(60, 50))
		d, err := card.Apply(c, opening.DivideOpening{ID: "i1", Columns: columns, Rows: rows, Gap: gap})
		require.NoError(t, err, "%d × %d, %v", columns, rows, gap)
		area, cells := 0.0, []geom.Path{}
		for _, it := range d.Face(card.Front).Items {
			if it.Name == "Round" {
				continue
			}
			form := it.Form
			if it.Photo != nil {
				f := it.Photo.Form()
				form = &f
			}
			require.NotNil(t, form, it.Name)
			p := card.OutlineOf(*form).Transform(it.Place.Map())
			assert.InDelta(t, 0, geom.Difference(geom.NonZero, p, whole).Area(), 1e-2, "a cell lies within the opening")
			for _, o := range cells {
				assert.InDelta(t, 0, geom.Intersection(geom.NonZero, p, o).Area(), 1e-6, "cells do not overlap")
				if gap > 0 {
					n, _ := geom.Distance(p, o)
					assert.GreaterOrEqual(t, n.Distance, gap-1e-3)
				}
			}
			cells = append(cells, p)
			area += p.Area()
		}
		if !round {
			require.Len(t, cells, columns*rows)
			w, h := (60 - gap*float64(columns-1)), (40 - gap*float64(rows-1))
			assert.InDelta(t, w*h, area, 1e-3)
			for _, p := range cells {
				assert.InDelta(t, w*h/float64(columns*rows), p.Area(), 1e-3)
			}
		}
	}
}

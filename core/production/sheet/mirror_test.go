package sheet_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

// lefty is an outline without any symmetry.
func lefty(t *testing.T) *card.Drawn {
	t.Helper()
	p, err := geom.ParsePath("M0 0L30 0L30 6L12 10L8 24L0 24Z")
	require.NoError(t, err)
	return card.NewDrawn(p)
}

// A piece is moved and turned on its way to the sheet, never mirrored: its outline and
// its ink are congruent to those on the face, whichever way round the item lies.
func TestPiecesAreNeverMirroredOnTheirWayToTheSheet(t *testing.T) {
	for seed := range uint64(12) {
		r := rand.New(rand.NewPCG(seed, 131))
		c := coretest.Empty(t)
		for k := range 4 {
			place := card.Place{X: 30 + 20*float64(k), Y: 40 + 60*r.Float64(), Turn: 360 * r.Float64(), Mirrored: k%2 == 0}
			var err error
			c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{
				Name: "Bracket", Kind: card.Shape, Place: place, Made: card.Made{As: card.Cut, Stock: "moss-216"},
				Fill: card.Fill{Colour: "#a8432a"}, Form: &card.Form{Outline: card.Free, Path: lefty(t), Width: 30, Height: 24},
			}}})
			require.NoError(t, err)
			if k == 0 {
				on := c.Face(card.Front).Items[0]
				dot := card.Item{Name: "Dot", Kind: card.Shape, On: on.ID, Place: card.Place{X: place.X + 3, Y: place.Y + 2}, Made: card.Made{As: card.Printed},
					Fill: card.Fill{Colour: "#1f2b38"}, Form: &card.Form{Outline: card.Ellipse, Width: 4, Height: 3}}
				c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{dot}})
				require.NoError(t, err)
			}
		}
		s, err := scene.Of(c)
		require.NoError(t, err)
		opt := sheettest.Usual(sheet.Sizes()[0])
		opt.Turning = 2
		l := sheet.Lay(c, s, opt, nil)
		f := s.Face(card.Front)
		seen := 0
		for _, sh := range l.Sheets {
			for _, p := range sh.Pieces {
				require.InDelta(t, 1, p.At.Det(), 1e-9, "%s is turned and shifted", p.Name)
				for i := range f.Items {
					it := &f.Items[i]
					if it.ID != p.ID {
						continue
					}
					seen++
					onFace := it.Outline.Transform(it.At).Transform(p.At)
					apart := geom.Xor(geom.EvenOdd, onFace, cutOut(p)).Area()
					assert.Less(t, apart, 1e-3, "seed %d: the cut is that of the face, turned", seed)
					inks := scene.Transform(f.PieceInks(it), p.At)
					require.Len(t, p.Inks, len(inks))
					for k := range inks {
						assert.Less(t, geom.Xor(geom.EvenOdd, inks[k].Region, p.Inks[k].Region).Area(), 1e-3)
					}
					assert.Less(t, math.Abs(cutLength(sh, p)-onFace.Length()), .05)
				}
			}
		}
		require.Equal(t, 4, seen, "seed %d", seed)
	}
}

// cutLength is how much of the plan of a sheet runs along the outline of a piece, mm.
func cutLength(sh sheet.Sheet, p sheet.Piece) (sum float64) {
	with := cut.SettingsOf(sh.Stock)
	with.Offset, with.Over, with.Rounds = 0, 0, 1
	for _, pass := range cut.Plan(sh, with) {
		for _, l := range pass.Paths {
			on := true
			for _, q := range l.Points {
				n, ok := cutOut(p).Nearest(q)
				on = on && ok && n.Distance < .05
			}
			if on {
				sum += l.Length()
			}
		}
	}
	return sum
}

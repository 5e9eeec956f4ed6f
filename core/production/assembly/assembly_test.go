package assembly_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/guidetest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/assembly"
	"sectilis/core/production/sheet"
)

func block(name, on, stock string, x, y, w, h, lift float64) card.Item {
	return card.Item{Name: name, Kind: card.Shape, On: on, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Cut, Stock: stock, Lift: lift},
		Form: &card.Form{Outline: card.Rectangle, Width: w, Height: h, Corner: card.Square}}
}

func guide(t *testing.T, c card.Card) (assembly.Guide, scene.Scene, sheet.Layout) {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	l := sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil)
	return assembly.Of(c, &s, &l, measure.In), s, l
}

// plays plays the guide of a card as hands would.
func plays(t *testing.T, c card.Card, name string, pictures bool) {
	t.Helper()
	g, s, l := guide(t, c)
	guidetest.Plays(t, c, &s, &l, g, name, pictures)
	again, _, _ := guide(t, c)
	assert.Equal(t, g, again, "%s: the same card gives the same steps", name)
}

func TestACardIsPutTogetherStepByStep(t *testing.T) {
	c, err := fold.New("Steps", card.Base{Kind: card.SideFold, Width: 127, Height: 178, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c,
		card.PlaceItems{Face: card.Front, Items: []card.Item{block("Mat", "", "moss-216", 63, 80, 100, 120, 0)}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{block("Paper", "i1", "text-120", 63, 80, 94, 114, 0)}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{block("Label", "i2", "cream-216", 60, 110, 60, 30, 1)}},
		card.PlaceItems{Face: card.InsideSecond, Items: []card.Item{block("Note", "", "honey-216", 60, 80, 50, 30, 0)}},
		card.SetInsert{Insert: &card.Insert{Stock: "text-120", Less: 3}})
	require.NoError(t, err)
	g, _, _ := guide(t, c)
	var titles []string
	for _, s := range g.Steps {
		titles = append(titles, s.Title)
	}
	at := func(title string) int {
		i := slices.Index(titles, title)
		require.GreaterOrEqual(t, i, 0, "%s in %v", title, titles)
		return i
	}
	assert.Less(t, at("Raise “Label” on foam"), at("Glue “Paper” on “Mat”"), "built up from above")
	assert.Less(t, at("Glue “Paper” on “Mat”"), at("Glue “Mat” on Front"))
	assert.Less(t, at("Fold the base"), at("Glue “Mat” on Front"))
	assert.Equal(t, []string{"Close and press", "Put it in its envelope"}, titles[len(titles)-2:])
	assert.Less(t, at("Glue “Note” on Inside right"), at("Close and press"))
	paper := g.Steps[at("Glue “Paper” on “Mat”")]
	require.Len(t, paper.Measures, 1)
	assert.Equal(t, "Mat shows all round", paper.Measures[0].Name)
	assert.InDelta(t, 3, paper.Measures[0].MM, 1e-9)
	label := g.Steps[at("Raise “Label” on foam")]
	assert.Equal(t, "From its left edge", label.Measures[0].Name)
	assert.InDelta(t, 14, label.Measures[0].MM, 1e-6)
	assert.Equal(t, 4, label.Pads)
	require.Len(t, g.Hand, 6, "the base, four pieces and the insert")
	hand := map[string]string{}
	for _, k := range g.Hand {
		hand[k.Name] = k.Says
	}
	assert.Equal(t, "With the trimmer: 2 ⅜ in (60 mm) × 1 3/16 in (30 mm).", hand["Label"])
	assert.Contains(t, hand["Base"], "At 5 in: score from edge to edge (valley).")
	assert.Contains(t, g.Takes, "4 pads of foam, 1 mm")
	plays(t, c, "by hand", true)
}

// Whatever a person changes of a guide, each step comes after what it needs.
func TestChangedGuidesStayInOrder(t *testing.T) {
	rng := rand.New(rand.NewPCG(19, 4))
	c, err := fold.New("Steps", card.Base{Kind: card.SideFold, Width: 127, Height: 178, Stock: "cream-300"})
	require.NoError(t, err)
	for i := range 8 {
		on := ""
		if i%3 > 0 {
			on = fmt.Sprintf("i%d", i)
		}
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{block("Bit", on, "moss-216", 63, 80, 90-9*float64(i), 80, float64(i%2))}})
		require.NoError(t, err)
	}
	plain, _, _ := guide(t, c)
	ids := []string{card.AtStart, "gone"}
	for _, s := range plain.Steps {
		ids = append(ids, s.ID)
	}
	any := func() string { return ids[rng.IntN(len(ids))] }
	for n := range 300 {
		changed := c
		for range 1 + rng.IntN(5) {
			k := card.StepChange{ID: any()}
			switch rng.IntN(5) {
			case 0:
				k.After = any()
			case 1:
				k.Out = true
			case 2:
				k.Into = any()
			case 3:
				k.Title, k.Does = "Another title", "In other words."
			default:
				k = card.StepChange{Own: true, Title: "Have tea", After: any()}
			}
			if next, err := card.Apply(changed, card.ChangeStep{Step: k}); err == nil {
				changed = next
			}
		}
		g, _, _ := guide(t, changed)
		done := map[string]bool{}
		for _, s := range g.Steps {
			require.False(t, done[s.ID], "case %d: %s once", n, s.ID)
			for _, need := range s.Needs {
				require.True(t, done[need], "case %d: %s before %s in %v", n, need, s.ID, changed.Steps)
			}
			done[s.ID] = true
			for _, with := range s.With {
				done[with] = true
			}
		}
		for _, s := range plain.Steps {
			out := slices.ContainsFunc(g.Out, func(l assembly.Left) bool { return l.ID == s.ID })
			assert.True(t, done[s.ID] != out, "case %d: %s is there, or left out", n, s.ID)
		}
	}
	// A change that leaves nothing changed is forgotten, and a step of one's own goes.
	c, err = card.Apply(c, card.ChangeStep{Step: card.StepChange{Own: true, Title: "Have tea"}})
	require.NoError(t, err)
	own := c.Steps[0].ID
	c, err = card.Apply(c, card.ChangeStep{Step: card.StepChange{ID: "cut", Out: true}}, card.ChangeStep{Step: card.StepChange{ID: "cut"}}, card.ChangeStep{Step: card.StepChange{ID: own, Own: true, Title: "Have tea", Out: true}})
	require.NoError(t, err)
	assert.Empty(t, c.Steps)
	_, err = card.Apply(c, card.ChangeStep{Step: card.StepChange{Own: true}})
	assert.ErrorContains(t, err, "Say what is done")
}

func TestGeneratedCardsAreBuiltInOrder(t *testing.T) {
	rng := rand.New(rand.NewPCG(19, 200))
	var kinds []card.BaseKind
	for _, k := range fold.Kinds() {
		if !k.Drawing {
			kinds = append(kinds, k.ID)
		}
	}
	for n := range 200 {
		c, err := fold.New("Built", card.Base{Kind: kinds[n%len(kinds)], Width: 110, Height: 140, Stock: "cream-300"})
		require.NoError(t, err)
		for _, f := range fold.Of(c.Base).Faces {
			for range rng.IntN(5) {
				on := ""
				if have := c.Face(f.ID).Items; len(have) > 0 && rng.IntN(3) > 0 {
					on = have[rng.IntN(len(have))].ID
				}
				c, err = card.Apply(c, card.PlaceItems{Face: f.ID, Items: []card.Item{block(fmt.Sprintf("Bit %d", c.NextID), on, []string{"moss-216", "text-120"}[rng.IntN(2)],
					f.Width*(.3+.4*rng.Float64()), f.Height*(.3+.4*rng.Float64()), 6+30*rng.Float64(), 6+30*rng.Float64(), card.Foam[rng.IntN(4)])}})
				require.NoError(t, err)
			}
		}
		plays(t, c, fmt.Sprintf("card %d, a %s", n, c.Base.Kind), n%10 == 0)
	}
}

// Foam lies under its piece, a little in from the edge, and apart.
func TestPadsLieUnderTheirPiece(t *testing.T) {
	rng := rand.New(rand.NewPCG(19, 3))
	for range 100 {
		c, err := fold.New("Pads", card.Base{Kind: card.SideFold, Width: 200, Height: 200, Stock: "cream-300"})
		require.NoError(t, err)
		it := block("Piece", "", "moss-216", 100, 100, 15+150*rng.Float64(), 15+150*rng.Float64(), 1)
		it.Form.Outline, it.Form.Corner = []card.Outline{"ellipse", "heart", "star", "banner"}[rng.IntN(4)], ""
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{it}})
		require.NoError(t, err)
		s, err := scene.Of(c)
		require.NoError(t, err)
		piece := &s.Face(card.Front).Items[0]
		pads := assembly.Pads(piece)
		require.NotEmpty(t, pads)
		for i, p := range pads {
			over := geom.Difference(geom.NonZero, geom.RectPath(p), piece.Outline.Transform(piece.At))
			assert.Less(t, over.Area(), .3*p.W*p.H, "%s", piece.Name)
			for _, o := range pads[:i] {
				assert.False(t, p.Grow(-.1).Overlaps(o), "pads lie apart")
			}
		}
	}
}

package assembly_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/assembly"
)

func kindsOf(g assembly.Guide) (out []assembly.Kind) {
	for _, s := range g.Steps {
		out = append(out, s.Kind)
	}
	return out
}

// Each kind of base ends as its own glue and folds ask for.
func TestTheGuideEndsAsTheBaseAsks(t *testing.T) {
	for kind, want := range map[card.BaseKind][]assembly.Kind{
		card.SideFold: {assembly.Cut, assembly.Fold, assembly.Close, assembly.Send},
		card.Flat:     {assembly.Cut, assembly.Close},
		card.Pocket:   {assembly.Cut, assembly.Fold, assembly.Tabs, assembly.Close, assembly.Send},
		card.Envelope: {assembly.Cut, assembly.Fold, assembly.Tabs, assembly.Close},
		card.Easel:    {assembly.Cut, assembly.Fold, assembly.Tabs, assembly.Close, assembly.Send},
		card.StepCard: {assembly.Cut, assembly.Fold, assembly.Close, assembly.Send},
	} {
		c, err := fold.New("Kind", card.Base{Kind: kind, Width: 76, Height: 90, Stock: "cream-300"})
		require.NoError(t, err)
		g, _, _ := guide(t, c)
		assert.Equal(t, want, kindsOf(g), kind)
		last := g.Steps[len(g.Steps)-1]
		assert.Equal(t, kind == card.Flat, last.Title == "Press it", "%s: %s", kind, last.Title)
		if at := slices.IndexFunc(g.Steps, func(s assembly.Step) bool { return s.Kind == assembly.Fold }); at >= 0 {
			assert.Contains(t, g.Steps[at].Does, "Fold", kind)
			assert.Contains(t, g.Takes, "bone folder")
		}
		assert.Greater(t, g.Minutes, 3.0)
	}
}

// What the card takes is told in full: every sheet once, every pad, the envelope, and the tools that its
// lines and steps ask for; lengths are in the unit that is asked for.
func TestWhatACardTakesIsToldInFull(t *testing.T) {
	c, err := fold.New("Takes", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	for i, stock := range []string{"moss-216", "moss-216", "honey-216"} {
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: "Plate", Kind: card.Shape, Place: card.Place{X: 60, Y: 40 + 50*float64(i)}, Made: card.Made{As: card.Cut, Stock: stock, Lift: float64(i)},
			Form: &card.Form{Outline: card.Rectangle, Width: 100, Height: 40, Corner: card.Square}}}})
		require.NoError(t, err)
	}
	g, s, l := guide(t, c)
	says := map[string]string{}
	for _, m := range g.Materials {
		assert.Empty(t, says[m.Name], "%s once", m.Name)
		says[m.Name] = m.Says
	}
	assert.Equal(t, "1 sheet, Letter", says["Moss card 216 g"])
	assert.Contains(t, says, "Honey card 216 g")
	pads := 0
	for _, st := range g.Steps {
		if st.Foam == 1 {
			pads += st.Pads
		}
	}
	assert.True(t, strings.HasPrefix(says["Foam, 1 mm"], fmt.Sprintf("%d pads", pads)), says["Foam, 1 mm"])
	assert.Equal(t, "for 1 step", says["Glue that dries flat"])
	assert.Contains(t, says["A7 envelope"], " in")
	for _, tool := range []string{"Scoring tip", "Cutting machine with a blade", "Bone folder"} {
		assert.Contains(t, says, tool)
	}
	assert.NotContains(t, says, "Perforating blade")
	metric := assembly.Of(c, &s, &l, measure.MM)
	at := slices.IndexFunc(metric.Steps, func(s assembly.Step) bool { return s.Kind == assembly.Fold })
	assert.Contains(t, metric.Steps[at].Does, "127 mm")
	assert.Contains(t, g.Steps[at].Does, "5 in")
}

// An insert is printed, cut and glued in after the fold, by its margin.
func TestAnInsertIsGluedIn(t *testing.T) {
	c, err := fold.New("Insert", card.Base{Kind: card.SideFold, Width: 110, Height: 140, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.SetInsert{Insert: &card.Insert{Stock: "text-120", Less: 4}})
	require.NoError(t, err)
	g, s, _ := guide(t, c)
	at := slices.IndexFunc(g.Steps, func(s assembly.Step) bool { return s.Kind == assembly.Leaf })
	require.GreaterOrEqual(t, at, 0)
	assert.Equal(t, []assembly.Measure{{Name: "In from every edge", MM: 4}}, g.Steps[at].Measures)
	assert.Subset(t, g.Steps[at].Needs, []string{"cut", "fold"})
	inks, box, ok := assembly.Picture(c, &s, g.Steps[at], g.Steps[:at], measure.In)
	assert.True(t, ok)
	assert.NotEmpty(t, inks)
	assert.Greater(t, min(box.W, box.H), 100.0)
}

// What is printed is printed first, page by page; sheets are drawn with what is on them.
func TestWhatIsPrintedIsPrintedFirst(t *testing.T) {
	c, err := fold.New("Printed", card.Base{Kind: card.SideFold, Width: 110, Height: 140, Stock: "cream-300"})
	require.NoError(t, err)
	paper := block("Paper", "", "text-120", 55, 70, 80, 100, 0)
	paper.Fill, paper.Made.Bleed = card.Fill{Paper: "leaf-drift"}, 1
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{paper}})
	require.NoError(t, err)
	g, _, l := guide(t, c)
	assert.Equal(t, assembly.Print, g.Steps[0].Kind)
	assert.Contains(t, g.Steps[1].Needs, "print")
	printed := 0
	for _, sh := range l.Sheets {
		if sh.Printed {
			printed++
		}
	}
	assert.Len(t, g.Steps[0].Desk, printed)
	whole, box := assembly.SheetsPicture(l.Sheets, true)
	some, _ := assembly.SheetsPicture(l.Sheets, false)
	assert.Greater(t, len(whole), len(some), "cut, the outlines are drawn too")
	assert.GreaterOrEqual(t, box.W, l.Sheets[0].Size.Width)
	for _, k := range g.Hand {
		if k.Name == "Paper" {
			assert.Contains(t, k.Says, "along its printed edge")
		}
	}
}

// A piece that is no rectangle is cut by a template, one whose corners are square by its measures, however
// it is turned.
func TestPiecesAreCutByHandByTheirForm(t *testing.T) {
	c, err := fold.New("Hand", card.Base{Kind: card.SideFold, Width: 150, Height: 150, Stock: "cream-300"})
	require.NoError(t, err)
	heart := block("Heart", "", "moss-216", 40, 40, 40, 40, 0)
	heart.Form.Outline, heart.Form.Corner = "heart", ""
	turned := block("Turned", "", "moss-216", 100, 100, 50, 20, 0)
	turned.Place.Turn = 30
	round := block("Round", "", "moss-216", 100, 40, 40, 40, 0)
	round.Form.Corner, round.Form.Radius = card.Round, 5
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{heart, turned, round}})
	require.NoError(t, err)
	g, _, _ := guide(t, c)
	for _, k := range g.Hand {
		switch k.Name {
		case "Heart", "Round":
			assert.Contains(t, k.Says, "as a template", k.Name)
		case "Turned":
			assert.InDelta(t, 50, k.Width, 1e-6)
			assert.InDelta(t, 20, k.Height, 1e-6)
			assert.True(t, strings.HasPrefix(k.Says, "With the trimmer"), k.Says)
		}
	}
}

// The picture of a step shows what is there by then and nothing that comes later, and the piece above where
// it goes.
func TestAPictureShowsWhatIsThereByThen(t *testing.T) {
	c, err := fold.New("Picture", card.Base{Kind: card.SideFold, Width: 120, Height: 150, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{block("One", "", "moss-216", 40, 40, 50, 40, 0), block("Two", "", "honey-216", 80, 110, 50, 40, 2)}})
	require.NoError(t, err)
	g, s, _ := guide(t, c)
	colours := func(id string) map[string]bool {
		at := slices.IndexFunc(g.Steps, func(k assembly.Step) bool { return k.ID == id })
		inks, _, ok := assembly.Picture(c, &s, g.Steps[at], g.Steps[:at], measure.In)
		require.True(t, ok)
		out := map[string]bool{}
		for _, k := range inks {
			out[k.Colour] = true
		}
		return out
	}
	moss, _ := card.StockByID("moss-216")
	honey, _ := card.StockByID("honey-216")
	first, second := "lay-i1", "lay-i2"
	if slices.IndexFunc(g.Steps, func(k assembly.Step) bool { return k.ID == second }) < slices.IndexFunc(g.Steps, func(k assembly.Step) bool { return k.ID == first }) {
		first, second, moss, honey = second, first, honey, moss
	}
	assert.True(t, colours(first)[moss.Colour])
	assert.False(t, colours(first)[honey.Colour], "it comes later")
	assert.True(t, colours(second)[moss.Colour])
	assert.True(t, colours(second)[honey.Colour])
	assert.True(t, colours("lay-i2")["#ffffff"], "foam is white")

	at := slices.IndexFunc(g.Steps, func(k assembly.Step) bool { return k.ID == "lay-i1" })
	inks, box, _ := assembly.Picture(c, &s, g.Steps[at], nil, measure.In)
	lowest := geom.Rect{}
	for _, k := range inks {
		if k.Colour == moss.Colour || k.Colour == honey.Colour {
			lowest = lowest.Union(k.Region.Bounds())
		}
	}
	assert.Less(t, lowest.Y, box.Y+box.H/2, "the piece stands above")
}

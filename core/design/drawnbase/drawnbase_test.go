package drawnbase_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/drawnbase"
	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

func path(t *testing.T, d string) geom.Path {
	t.Helper()
	p, err := geom.ParsePath(d)
	require.NoError(t, err)
	return p
}

// drawing has a layer for each role, with the paths of that role.
func drawing(layers map[card.Role][]geom.Path) exchange.Drawing {
	var d exchange.Drawing
	for _, role := range card.Roles() {
		for _, p := range layers[role] {
			d.Shapes = append(d.Shapes, exchange.Shape{Layer: string(role), Role: role, Stroke: "#000000", Width: .2, Path: p})
		}
	}
	return d
}

// asked says of each layer that it is for its role.
func asked(d exchange.Drawing) drawnbase.Ask {
	ask := drawnbase.Ask{Lines: map[string]pathops.Use{}, Stock: card.First().Piece, Name: "Drawing", Answers: map[string]drawnbase.Answer{}}
	for _, s := range d.Shapes {
		ask.Lines[pathops.LineKey(s)] = pathops.Use(s.Role)
	}
	return ask
}

func line(a, b geom.Point) geom.Path {
	var g geom.Builder
	return g.Move(a).Line(b).Path()
}

// loose are the lines of a net as a file may hold them: in any order and direction, ends off by some
// hundredths of a millimetre, the edge in pieces, all of it somewhere else on the page.
func loose(n fold.Net, rng *rand.Rand, off float64) exchange.Drawing {
	layers := map[card.Role][]geom.Path{}
	jitter := func(p geom.Point) geom.Point {
		return geom.Pt(p.X+35+off*(rng.Float64()*2-1), p.Y+20+off*(rng.Float64()*2-1))
	}
	add := func(role card.Role, a, b geom.Point) {
		if rng.IntN(2) == 0 {
			a, b = b, a
		}
		layers[role] = append(layers[role], line(jitter(a), jitter(b)))
	}
	for _, curves := range n.Outline().Curves() {
		for _, c := range curves {
			if c.Op == geom.LineTo {
				add(card.RoleCut, c.From, c.End())
				continue
			}
			layers[card.RoleCut] = append(layers[card.RoleCut], geom.FromCurves([]geom.Curve{c}, false).Transform(geom.Shift(35, 20)))
		}
	}
	for _, l := range n.Lines {
		add(l.Role, l.From, l.To)
	}
	for _, paths := range layers {
		rng.Shuffle(len(paths), func(i, j int) { paths[i], paths[j] = paths[j], paths[i] })
	}
	return drawing(layers)
}

// Every kind of the catalogue, drawn as loose lines, becomes a base that folds as the kind does.
func TestTheNetsOfAllKindsComeBackAsBases(t *testing.T) {
	rng := rand.New(rand.NewPCG(18, 1))
	for _, k := range fold.Kinds() {
		for _, size := range [][2]float64{{107.95, 139.7}, {127, 177.8}, {210, 99}} {
			was := card.Base{Kind: k.ID, Width: size[0], Height: size[1], Stock: card.First().Piece}
			if k.Drawing || fold.Check(was) != nil {
				continue
			}
			study := fold.StudyOf(was)
			for _, insideUp := range []bool{false, true} {
				name := fmt.Sprintf("%s %v inside %v", k.ID, size, insideUp)
				net := study.Net
				if insideUp {
					net.Lines, net.Edge = fold.SeenFromInside(net), turnedOver(net)
				}
				d := loose(net, rng, .03)
				ask := asked(d)
				ask.InsideUp = insideUp
				found, err := drawnbase.Read(d, ask)
				require.NoError(t, err, name)
				require.Empty(t, found.Questions, name)
				require.NotNil(t, found.Base, name)
				assert.Equal(t, study.Verdict.Folds, found.Folds || net.Stands, "%s: %v", name, found.Why)
				assert.Len(t, found.Panels, len(study.Panels), name)
				if study.Verdict.Flat && !study.Net.Stands {
					closed := study.Cover.Bounds()
					assert.InDelta(t, closed.W, found.Base.Width, .2, name)
					assert.InDelta(t, closed.H, found.Base.Height, .2, name)
				}
				c, err := fold.New("A card", *found.Base)
				assert.NoError(t, err, name)
				assert.Greater(t, fold.Of(c.Base).Outline().Area(), 0.0, name)
			}
		}
	}
}

// turnedOver is the edge of a net with its inside up.
func turnedOver(n fold.Net) geom.Path {
	if n.Edge.Empty() {
		return n.Edge
	}
	over := geom.Affine{A: -1, D: 1, E: n.Width}
	for _, l := range n.Lines {
		if l.Main {
			if l.From.X != l.To.X {
				over = geom.Affine{A: 1, D: -1, F: n.Height}
			}
			break
		}
	}
	return n.Edge.Transform(over)
}

// A side fold of 200 × 150 with something unclear in it.
func sideFold(t *testing.T, more map[card.Role][]string) exchange.Drawing {
	layers := map[card.Role][]geom.Path{
		card.RoleCut:    {path(t, "M10 10H210V160H10Z")},
		card.RoleValley: {path(t, "M110 10V160")},
	}
	for role, list := range more {
		for _, d := range list {
			layers[role] = append(layers[role], path(t, d))
		}
	}
	return drawing(layers)
}

func TestWhatIsUnclearIsAsked(t *testing.T) {
	for _, c := range []struct {
		name    string
		d       exchange.Drawing
		at      geom.Point
		says    string
		options []drawnbase.Answer
		panels  map[drawnbase.Answer]int // how many there are after an answer
	}{
		{"an open outline", drawing(map[card.Role][]geom.Path{card.RoleCut: {path(t, "M10 15V160H210V10H15")}, card.RoleValley: {path(t, "M110 10V160")}}),
			geom.Pt(12.5, 12.5), "its ends are 9/32 in (7.1 mm) apart", []drawnbase.Answer{drawnbase.CloseIt, drawnbase.TakeBox}, map[drawnbase.Answer]int{drawnbase.CloseIt: 2, drawnbase.TakeBox: 2}},
		{"no cut at all", drawing(map[card.Role][]geom.Path{card.RoleValley: {path(t, "M10 10H210V160H10Z"), path(t, "M110 10V160")}}),
			geom.Pt(110, 85), "No cut goes round", []drawnbase.Answer{drawnbase.TakeBox}, map[drawnbase.Answer]int{drawnbase.TakeBox: 2}},
		{"a score that ends short", sideFold(t, map[card.Role][]string{card.RoleMountain: {"M10 60H106"}}),
			geom.Pt(106, 60), "4 mm) short", []drawnbase.Answer{drawnbase.Lengthen, drawnbase.Perforate, drawnbase.LeaveLine},
			map[drawnbase.Answer]int{drawnbase.Lengthen: 3, drawnbase.Perforate: 2, drawnbase.LeaveLine: 2}},
		{"a slit", sideFold(t, map[card.Role][]string{card.RoleCut: {"M150 10V40"}}),
			geom.Pt(150, 40), "short of what it would meet", []drawnbase.Answer{drawnbase.Lengthen, drawnbase.AsSlit, drawnbase.LeaveLine},
			map[drawnbase.Answer]int{drawnbase.Lengthen: 3, drawnbase.AsSlit: 2, drawnbase.LeaveLine: 2}},
		{"a curved score", sideFold(t, map[card.Role][]string{card.RoleMountain: {"M10 60Q60 70 110 60"}}),
			geom.Pt(60, 65), "is curved, by", []drawnbase.Answer{drawnbase.Straighten, drawnbase.Perforate, drawnbase.LeaveLine},
			map[drawnbase.Answer]int{drawnbase.Straighten: 3, drawnbase.Perforate: 2, drawnbase.LeaveLine: 2}},
	} {
		ask := asked(c.d)
		found, err := drawnbase.Read(c.d, ask)
		require.NoError(t, err, c.name)
		require.Len(t, found.Questions, 1, c.name)
		q := found.Questions[0]
		assert.InDelta(t, 0, q.At.Sub(c.at).Len(), .1, "%s: %v", c.name, q.At)
		assert.Contains(t, q.Says, c.says, c.name)
		assert.Equal(t, c.options, q.Options, c.name)
		assert.Empty(t, q.Answer, c.name)
		assert.Nil(t, found.Base, c.name)
		for answer, panels := range c.panels {
			ask.Answers[q.ID] = answer
			found, err = drawnbase.Read(c.d, ask)
			require.NoError(t, err, "%s, %s", c.name, answer)
			assert.Equal(t, answer, found.Questions[0].Answer, c.name)
			assert.Len(t, found.Panels, panels, "%s, %s", c.name, answer)
			if assert.NotNil(t, found.Base, "%s, %s", c.name, answer) && panels == 2 {
				assert.True(t, found.Folds, "%s, %s: %v", c.name, answer, found.Why)
			}
		}
	}
}

func TestADrawingIsUnderstood(t *testing.T) {
	d := sideFold(t, map[card.Role][]string{
		card.RoleCut:         {"M130 30H150V50H130Z", "M137 37H143V43H137Z", "M170 120C175 100 195 100 200 120", "M300 10V60", "M10 10V80"},
		card.RoleMountain:    {"M170 120H200"},
		card.RolePerforation: {"M30 10V160"},
		card.RolePen:         {"M20 20H40"},
	})
	found, err := drawnbase.Read(d, asked(d))
	require.NoError(t, err)
	require.Empty(t, found.Questions)
	require.NotNil(t, found.Base)
	assert.True(t, found.Folds, found.Why)
	assert.ElementsMatch(t, []string{"Lines that are printed or drawn are no part of a base. Lay them on a face afterwards.", "Lines outside the sheet are left out.", "What lies within a hole falls out with it."}, found.Notes)
	assert.InDelta(t, 200*150-20*20, found.Edge.Area(), 1e-6, "the window is a hole")
	assert.Len(t, found.Panels, 3, "two leaves and a flap with a round edge")
	assert.InDelta(t, 100, found.Base.Width, 1e-6)
	assert.InDelta(t, 150, found.Base.Height, 1e-6)
	require.Len(t, found.Leaves, 2)
	assert.Equal(t, []string{"Front", "Inside left", "Back", "Inside right"}, []string{found.Leaves[0].Outside, found.Leaves[0].Inside, found.Leaves[1].Outside, found.Leaves[1].Inside})
	assert.Greater(t, found.Leaves[0].At.X, 110.0, "seen from outside, Front is at the right")

	net := fold.StudyOf(*found.Base).Net
	curved := 0
	for _, l := range net.Lines {
		if l.On {
			curved++
		}
	}
	assert.Greater(t, curved, 8, "the curved cut is chords that go on")

	// Seen from inside, the same drawing has Front at the left, and its roles are those of the other side.
	ask := asked(d)
	ask.InsideUp = true
	inside, err := drawnbase.Read(d, ask)
	require.NoError(t, err)
	assert.Less(t, inside.Leaves[0].At.X, 110.0)
	for i, l := range inside.Base.Drawn.Lines {
		assert.Equal(t, fold.Flipped(found.Base.Drawn.Lines[i].Role), l.Role)
	}

	// Leaves by a person's own choice and names, one turned.
	ask.InsideUp = false
	ask.Leaves = []drawnbase.Leaf{{At: geom.Pt(60, 90), Outside: "Cover", Inside: "Within", OutsideTurn: 90}}
	own, err := drawnbase.Read(d, ask)
	require.NoError(t, err)
	c, err := fold.New("A card", *own.Base)
	require.NoError(t, err)
	face := fold.StudyOf(c.Base).Net.Face(card.Front)
	assert.Equal(t, "Cover", face.Name)
	assert.InDelta(t, 150, face.Width, 1e-6)
	assert.InDelta(t, 100, face.Height, 1e-6)
	assert.InDelta(t, 0, face.OnSheet.Apply(geom.Pt(0, 0)).Sub(geom.Pt(100, 0)).Len(), 1e-6, "its upper left is at the right of the sheet's leaf")

	ask.Leaves = []drawnbase.Leaf{{At: geom.Pt(-60, 90), Outside: "Cover", Inside: "Within"}}
	own, err = drawnbase.Read(d, ask)
	require.NoError(t, err)
	assert.Equal(t, found.Leaves, own.Leaves, "one that lies on no panel is forgotten")
}

func TestADrawnBaseFollowsItsSize(t *testing.T) {
	d := sideFold(t, map[card.Role][]string{card.RoleMountain: {"M110 60H210"}})
	found, err := drawnbase.Read(d, asked(d))
	require.NoError(t, err)
	b := *found.Base
	b.Width, b.Height = b.Width*2, b.Height*1.5
	require.NoError(t, fold.Check(b))
	net := fold.StudyOf(b).Net
	assert.InDelta(t, 400, net.Width, 1e-6)
	assert.InDelta(t, 225, net.Height, 1e-6)

	slanted := sideFold(t, map[card.Role][]string{card.RoleMountain: {"M110 60L210 90"}})
	found, err = drawnbase.Read(slanted, asked(slanted))
	require.NoError(t, err)
	b = *found.Base
	b.Width *= 2
	assert.ErrorContains(t, fold.Check(b), "keeps its proportions")
	b.Height *= 2
	assert.NoError(t, fold.Check(b))
}

func TestDrawingsThatAreNoBase(t *testing.T) {
	for name, c := range map[string]struct {
		d    exchange.Drawing
		says string
	}{
		"too small":  {drawing(map[card.Role][]geom.Path{card.RoleCut: {path(t, "M0 0H20V20H0Z")}}), "between 1 in (25 mm)"},
		"too large":  {drawing(map[card.Role][]geom.Path{card.RoleCut: {path(t, "M0 0H2000V200H0Z")}}), "Choose another unit"},
		"one line":   {drawing(map[card.Role][]geom.Path{card.RoleValley: {path(t, "M110 10V170")}}), "no sheet is so narrow"},
		"only a pen": {drawing(map[card.Role][]geom.Path{card.RolePen: {path(t, "M0 0H200V200H0Z")}}), "No line of the drawing is a cut or a score"},
	} {
		_, err := drawnbase.Read(c.d, asked(c.d))
		assert.ErrorContains(t, err, c.says, name)
	}
	many := map[card.Role][]geom.Path{card.RoleCut: {path(t, "M0 0H160V120H0Z")}}
	rng := rand.New(rand.NewPCG(18, 3))
	for range 60 {
		many[card.RoleValley] = append(many[card.RoleValley], line(geom.Pt(0, rng.Float64()*120), geom.Pt(160, rng.Float64()*120)))
	}
	_, err := drawnbase.Read(drawing(many), asked(drawing(many)))
	assert.ErrorContains(t, err, "a base has at most 400")
}

// Whatever lines there are, reading them ends, and what comes of it is a base that can be kept or an
// answer that says why not.
func TestRandomLinesAreReadOrRefused(t *testing.T) {
	rng := rand.New(rand.NewPCG(18, 7))
	roles := []card.Role{card.RoleCut, card.RoleCut, card.RoleMountain, card.RoleValley, card.RolePerforation, card.RoleKiss}
	made := 0
	for i := range 120 {
		layers := map[card.Role][]geom.Path{}
		if i%2 == 0 { // else nothing goes round the sheet
			layers[card.RoleCut] = []geom.Path{path(t, "M0 0H160V120H0Z")}
		}
		at := func() geom.Point { return geom.Pt(float64(rng.IntN(17)*10), float64(rng.IntN(13)*10)) }
		for range rng.IntN(12) {
			role := roles[rng.IntN(len(roles))]
			var b geom.Builder
			b.Move(at())
			for range 1 + rng.IntN(3) {
				if role == card.RoleCut && rng.IntN(3) == 0 {
					b.Quad(at(), at())
				} else {
					b.Line(at())
				}
			}
			if rng.IntN(6) == 0 {
				b.Close()
			}
			layers[role] = append(layers[role], b.Path())
		}
		d := drawing(layers)
		ask := asked(d)
		for range 5 { // until all is answered
			found, err := drawnbase.Read(d, ask)
			if err != nil {
				break
			}
			if found.Base != nil {
				_, err := fold.New("A card", *found.Base)
				require.NoError(t, err)
				made++
				break
			}
			require.NotEmpty(t, found.Questions)
			for _, q := range found.Questions {
				ask.Answers[q.ID] = q.Options[rng.IntN(len(q.Options))]
			}
		}
	}
	assert.Greater(t, made, 20)
}

package fold

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

func base(kind card.BaseKind, w, h float64, measures map[string]float64) card.Base {
	return card.Base{Kind: kind, Width: w, Height: h, Stock: "cream-300", Measures: measures}
}

// folded is a sweep of a net, which has to fold.
func folded(t *testing.T, n Net) (*Folder, []Pose) {
	t.Helper()
	f := NewFolder(n)
	require.Empty(t, f.Faults)
	poses := f.Sweep(60)
	v := f.Judge(poses)
	require.True(t, v.Folds, "%v", v.Why)
	require.Less(t, v.Gap, 1e-6)
	return f, poses
}

func TestEveryKindFoldsAtThreeSizes(t *testing.T) {
	for _, k := range Kinds() {
		if k.Drawing {
			continue // it needs a drawing
		}
		for _, size := range [][2]float64{{107.95, 139.7}, {127, 177.8}, {210, 99}} {
			b := base(k.ID, size[0], size[1], nil)
			require.NoError(t, Check(b), "%s %v", k.ID, size)
			f, poses := folded(t, Of(b))
			v := f.Judge(poses)
			assert.True(t, v.Flat, "%s %v: %v", k.ID, size, v.Why)
			// Closed it covers its closed size and no more.
			box := closedBox(f, poses[60])
			wide := size[0]
			if k.ID == card.Shaped {
				wide *= .88 // what lies left of the fold is cut away
			}
			assert.InDelta(t, wide, box.W, 1e-6, "%s %v", k.ID, size)
			assert.InDelta(t, size[1], box.H, 1e-6, "%s %v", k.ID, size)
			// Every panel is as large folded as flat, and nothing lies flat half open but what should.
			for i, m := range poses[30].Panels {
				p := f.Panels[i].Ring.Curves()[0]
				for _, c := range p {
					a, b := m.Apply(Flat(c.From)), m.Apply(Flat(c.End()))
					require.InDelta(t, c.Length(), a.Sub(b).Len(), 1e-9)
				}
			}
		}
	}
}

func closedBox(f *Folder, p Pose) geom.Rect {
	lo, hi := V3{math.Inf(1), math.Inf(1), 0}, V3{math.Inf(-1), math.Inf(-1), 0}
	for i, m := range p.Panels {
		for _, c := range f.Panels[i].Ring.Curves()[0] {
			q := m.Apply(Flat(c.From))
			lo, hi = V3{min(lo.X, q.X), min(lo.Y, q.Y), 0}, V3{max(hi.X, q.X), max(hi.Y, q.Y), 0}
		}
	}
	return geom.Rect{X: lo.X, Y: lo.Y, W: hi.X - lo.X, H: hi.Y - lo.Y}
}

// offPlane is how far a place on one panel is from the plane of another.
func offPlane(f *Folder, p Pose, plane int, place geom.Point, on int) float64 {
	q := p.Panels[on].Apply(Flat(place))
	n := p.Panels[plane].turn(V3{Z: 1})
	return math.Abs(q.Sub(p.Panels[plane].Apply(Flat(f.Panels[plane].Middle))).Dot(n))
}

func TestABoxStandsWhereItShould(t *testing.T) {
	const up, out = 60., 35.
	n := Of(base(card.PopupBox, 110, 140, map[string]float64{"up": up, "out": out, "wide": 50}))
	f, poses := folded(t, n)
	ridge := geom.Pt(55, 140+up-out)
	standing, lying := f.PanelAt(geom.Pt(5, 200)), f.PanelAt(geom.Pt(5, 50))
	side := f.PanelAt(geom.Pt(55, 140+up-out/2))
	half := poses[30]
	assert.InDelta(t, .5, half.Closing, 1e-12)
	assert.InDelta(t, up, offPlane(f, half, lying, ridge, side), 1e-6, "its edge is as high as the strip is up")
	assert.InDelta(t, out, offPlane(f, half, standing, ridge, side), 1e-6, "and as deep as it is out")
	// Everything about it turns as far as the main fold does.
	for i := range f.Hinges {
		assert.InDelta(t, math.Pi/2, math.Abs(half.Angles[i]), 1e-9)
	}
}

func TestStepsMeetAtEveryOpening(t *testing.T) {
	for _, n := range []float64{1, 2, 3, 5, 7} {
		f, poses := folded(t, Of(base(card.StepCard, 114.3, 114.3, map[string]float64{"steps": n})))
		assert.Len(t, f.Panels, 2+2*int(n))
		for _, p := range poses {
			require.Less(t, p.Gap, 1e-6)
		}
	}
	down := Of(base(card.StepCard, 114.3, 114.3, map[string]float64{"steps": 4, "place": 1}))
	f, _ := folded(t, down)
	assert.Len(t, f.Panels, 10)
	// The card of the picture in the design.
	const in = 25.4
	b := base(card.StepCard, 4.5*in, 4.5*in, map[string]float64{"middleUp": 2.75 * in, "middleOut": .75 * in, "sideUp": 1.25 * in, "sideOut": 1.25 * in, "middleWidth": 1.75 * in, "margin": .5 * in})
	n := Of(b)
	var xs []float64
	for _, l := range n.Lines {
		if l.Role == Cut {
			xs = append(xs, l.From.X/in)
		}
	}
	assert.InDeltaSlice(t, []float64{.5, 1.375, 3.125, 4}, xs, 1e-9)
	folded(t, n)
}

// The dihedral angles of a flat-foldable vertex of four folds: those across are
// equal, and the tangents of half the angles keep their ratio (Huffman,
// "Curvature and creases", 1976).
func TestAVStandsByItsFormula(t *testing.T) {
	for _, angles := range [][2]float64{{40, 40}, {30, 30}, {60, 60}, {45, 35}, {30, 50}} {
		f, poses := folded(t, Of(base(card.VFold, 140, 140, map[string]float64{"angle": angles[0], "angle2": angles[1], "long": 60, "apex": 30})))
		a1, a2 := angles[0]*math.Pi/180, angles[1]*math.Pi/180
		by := map[int]int{} // hinge by its place
		for i, h := range f.Hinges {
			switch {
			case f.main[i]:
				if h.From.X < 30 || h.To.X < 30 {
					by[0] = i
				}
			case h.Role == Valley:
				by[2] = i
			case max(h.From.Y, h.To.Y) > 140+1e-6:
				by[1] = i
			default:
				by[3] = i
			}
		}
		ratio := 0.0
		for _, p := range poses[5:55] {
			assert.InDelta(t, math.Abs(p.Angles[by[0]]), math.Abs(p.Angles[by[2]]), 1e-6, "the ridge turns as the main fold")
			assert.InDelta(t, p.Angles[by[1]], p.Angles[by[3]], 1e-6, "both slanting folds turn alike")
			r := math.Tan(math.Abs(p.Angles[by[1]])/2) / math.Tan(math.Abs(p.Angles[by[0]])/2)
			if ratio != 0 {
				assert.InDelta(t, ratio, r, 1e-5)
			}
			ratio = r
		}
		// Around the point lie the angles π-a1, a2, a1, π-a2 between the folds.
		want := math.Abs(math.Sin((math.Pi-a1-a2)/2) / math.Sin((math.Pi-a1+a2)/2))
		got := min(ratio, 1/ratio)
		assert.InDelta(t, min(want, 1/want), got, 1e-4, "%v", angles)
	}
}

func TestATriFoldClosesToItsLeaf(t *testing.T) {
	f, poses := folded(t, Of(base(card.TriFold, 100, 150, nil)))
	require.Len(t, f.Panels, 3)
	// The tucked leaf goes first.
	half := poses[30]
	turned := 0
	for i := range f.Hinges {
		if math.Abs(half.Angles[i]) > 3.14 {
			turned++
		}
	}
	assert.Equal(t, 1, turned)
	assert.InDelta(t, 100, closedBox(f, poses[60]).W, 1e-9)
}

// Strips whose ups and outs add up fold flat and close inside; with one ridge
// off by a millimetre they never pass.
func TestStripsFoldOnlyWhereTheyAddUp(t *testing.T) {
	r := rand.New(rand.NewPCG(91, 92))
	for range 120 {
		b := base(card.TopFold, 100+r.Float64()*100, 100+r.Float64()*80, nil)
		p := onTopFold(b)
		x := 3.0
		for x < b.Width-20 {
			w := 6 + r.Float64()*20
			if x+w > b.Width-3 {
				break
			}
			up := 5 + r.Float64()*(b.Height-20)*.6
			out := 5 + r.Float64()*(b.Height-up-12)
			p.strip(x, x+w, up, out)
			x += w + 4 + r.Float64()*20
		}
		n := p.net()
		f, poses := folded(t, n)
		v := f.Judge(poses)
		require.True(t, v.Flat, "%v", v.Why)
		box := closedBox(f, poses[60])
		require.LessOrEqual(t, box.H, b.Height+1e-6)
		require.LessOrEqual(t, box.W, b.Width+1e-6)

		// The first ridge of the net, moved by a millimetre.
		off := n
		off.Lines = append([]Line(nil), n.Lines...)
		for i, l := range off.Lines {
			if l.Role == Valley {
				off.Lines[i].From.Y++
				off.Lines[i].To.Y++
				break
			}
		}
		g := NewFolder(off)
		verdict := g.Judge(g.Sweep(60))
		// Its panels pull apart, or it closes with the strip standing up.
		require.False(t, verdict.Folds && verdict.Flat)
		require.Regexp(t, "pull apart|does not lie flat|other way", verdict.Why[0])
	}
}

// Gates that are too wide run into each other; those of the catalogue do not.
func TestPanelsThatPassThroughEachOtherAreFound(t *testing.T) {
	wide := leaves(func(b card.Base, _ func(string) float64) []leafOf {
		return []leafOf{{75, "Left gate", "", Mountain, 0, 0}, {100, "Back", "", Mountain, 0, 0}, {70, "Right gate", "", "", 0, 0}}
	})(base(card.GateFold, 100, 120, nil), nil)
	f := NewFolder(wide)
	c := f.Clash(f.Sweep(60))
	require.NotNil(t, c)
	assert.Greater(t, c.Closing, .5)
	for _, k := range Kinds() {
		s := StudyOf(base(k.ID, 127, 127, nil))
		assert.Nil(t, s.Clash(s.Poses), "%s", k.ID)
	}
	// A strip within a strip whose ridge would come through the leaf in front.
	stacked := StudyOf(base(card.PopupBox, 120, 150, map[string]float64{"stacked": 1}))
	assert.True(t, stacked.Verdict.Folds, "%v", stacked.Verdict.Why)
}

// From Front's eye backward, leaf by leaf.
func TestLeavesLieInOrder(t *testing.T) {
	order := func(b card.Base) []card.FaceID {
		s := StudyOf(b)
		require.True(t, s.Verdict.Folds, "%v", s.Verdict.Why)
		var out []card.FaceID
		for _, i := range s.Order {
			for _, f := range s.Net.Faces {
				back, _ := f.OnSheet.Inverse()
				if f.Side == Outside && (geom.Rect{W: f.Width, H: f.Height}).Has(back.Apply(s.Panels[i].Middle)) {
					out = append(out, f.ID)
				}
			}
		}
		return out
	}
	out3, _ := card.LeafFaces(2)
	out4, _ := card.LeafFaces(3)
	assert.Equal(t, []card.FaceID{card.Front, card.Back}, order(base(card.SideFold, 100, 140, nil)))
	assert.Equal(t, []card.FaceID{card.Front, out3, card.Back}, order(base(card.TriFold, 100, 140, nil)), "the tucked leaf lies between")
	assert.Equal(t, []card.FaceID{card.Front, card.Back, out3, out4}, order(base(card.Accordion, 100, 140, nil)))
	for _, k := range Kinds() {
		assert.Len(t, StudyOf(base(k.ID, 130, 130, nil)).Order, len(StudyOf(base(k.ID, 130, 130, nil)).Panels), "%s", k.ID)
	}
}

func TestWhatIsWrongWithLinesIsNamed(t *testing.T) {
	n := Of(base(card.TopFold, 100, 100, nil))
	n.Lines = append(n.Lines,
		Line{Role: Cut, From: geom.Pt(20, 20), To: geom.Pt(40, 20)},
		Line{Role: Valley, From: geom.Pt(0, 100), To: geom.Pt(50, 100)},
		Line{Role: Perforation, From: geom.Pt(10, 30), To: geom.Pt(20, 30)})
	f := NewFolder(n)
	require.Len(t, f.Faults, 2)
	assert.Equal(t, 1, f.Faults[0].Line)
	assert.Contains(t, f.Faults[0].Why, "cut ends in nowhere")
	assert.Contains(t, f.Faults[1].Why, "valley score lies on a mountain score")
	assert.False(t, f.Judge(f.Sweep(10)).Folds)
	assert.Equal(t, -1, f.PanelAt(geom.Pt(-5, 5)))
}

func TestMeasuresHaveLimits(t *testing.T) {
	for why, b := range map[string]card.Base{
		"no kind of base":          base("scroll", 100, 100, nil),
		"no measure “wings”":       base(card.TopFold, 100, 100, map[string]float64{"wings": 2}),
		"“Leaves” is between 2":    base(card.Accordion, 100, 100, map[string]float64{"leaves": 12}),
		"“Steps” is between":       base(card.StepCard, 100, 100, map[string]float64{"steps": 2.5}),
		"or it shows when closed":  base(card.StepCard, 100, 100, map[string]float64{"middleUp": 80, "middleOut": 30}),
		"Now it is":                base(card.PopupBox, 100, 100, map[string]float64{"up": 60, "out": 45}),
		"“Left gate” is between":   base(card.GateFold, 100, 100, map[string]float64{"gate": 99}),
		"The V stays inside":       base(card.VFold, 100, 40, map[string]float64{"long": 48, "angle": 70, "angle2": 70}),
		"“Tucked leaf shorter by”": base(card.TriFold, 100, 100, map[string]float64{"tuck": -1}),
	} {
		err := Check(b)
		var r *card.Refusal
		require.ErrorAs(t, err, &r, why)
		assert.ErrorContains(t, err, why)
	}
}

func BenchmarkSweep(b *testing.B) {
	p := onTopFold(base(card.TopFold, 1000, 300, nil))
	for i := range 49 {
		x := 5 + float64(i)*20
		p.strip(x, x+15, 40+float64(i), 30+float64(i%7))
	}
	n := p.net()
	f := NewFolder(n)
	b.ReportMetric(float64(len(f.Panels)), "panels")
	for b.Loop() {
		f.Sweep(60)
	}
	b.Run("with division", func(b *testing.B) {
		for b.Loop() {
			NewFolder(n).Sweep(60)
		}
	})
}

// Two scores stand the leaves of a closed card as far apart as the room asked
// for, and the card is as large as ever.
func TestAFoldWithRoomHoldsTheLeavesApart(t *testing.T) {
	for _, kind := range []card.BaseKind{card.SideFold, card.TopFold} {
		for _, room := range []float64{0, .5, .8, 4, 15} {
			b := base(kind, 100, 140, map[string]float64{"room": room})
			s := StudyOf(b)
			require.True(t, s.Verdict.Folds && s.Verdict.Flat, "%v", s.Verdict.Why)
			apart := room
			if room < leastRoom {
				apart = 0
			}
			assert.Equal(t, apart, Room(b))
			closed := s.Poses[len(s.Poses)-1]
			front := s.Net.Face(card.Front)
			p := front.OnSheet.Apply(geom.Pt(50, 70))
			assert.InDelta(t, apart, math.Abs(closed.Panels[s.PanelAt(p)].Apply(Flat(p)).Z), 1e-9, "%s %v", kind, room)
			assert.InDelta(t, 100, s.Cover.Bounds().W, 1e-9)
			assert.InDelta(t, 140, s.Cover.Bounds().H, 1e-9)
			assert.Equal(t, 2, s.Layers)
		}
	}
	c, err := New("Trial", base(card.SideFold, 100, 140, map[string]float64{"room": 4}))
	require.NoError(t, err)
	_, err = card.Apply(c, AddStrip{From: 20, To: 60, Up: 20, Out: 20})
	assert.ErrorContains(t, err, "Set the room at the fold to 0 first")
}

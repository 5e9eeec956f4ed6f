package arrange_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

func parse(t *testing.T, d string) geom.Path {
	t.Helper()
	p, err := geom.ParsePath(d)
	require.NoError(t, err)
	return p
}

func TestTheGapOfKnownRooms(t *testing.T) {
	for name, c := range map[string]struct {
		region string
		at     geom.Point
		want   geom.Rect
		circle float64
	}{
		"a box":             {"M0 0H40V30H0z", geom.Pt(5, 5), geom.Rect{W: 40, H: 30}, 15},
		"an L, in its leg":  {"M0 0H10V20H30V30H0z", geom.Pt(5, 2), geom.Rect{W: 10, H: 30}, 5},
		"an L, in its foot": {"M0 0H10V20H30V30H0z", geom.Pt(25, 25), geom.Rect{Y: 20, W: 30, H: 10}, 5},
		"beside a hole":     {"M0 0H40V40H0zM10 10V30H20V10z", geom.Pt(30, 20), geom.Rect{X: 20, W: 20, H: 40}, 10 + 0},
		// The largest rectangle in a triangle is half of it.
		"a triangle": {"M0 0L40 0L20 30z", geom.Pt(20, 5), geom.Rect{X: 10, W: 20, H: 15}, 600 / ((40 + 2*math.Hypot(20, 30)) / 2)},
		// And in a circle it is the square.
		"a circle": {"M20 0A20 20 0 0 1 -20 0A20 20 0 0 1 20 0z", geom.Pt(3, -4), geom.Rect{X: -20 / math.Sqrt2, Y: -20 / math.Sqrt2, W: 20 * math.Sqrt2, H: 20 * math.Sqrt2}, 20},
	} {
		gap, ok := arrange.Room(parse(t, c.region), c.at)
		require.True(t, ok, name)
		assert.InDelta(t, c.want.W*c.want.H, gap.Rect.W*gap.Rect.H, .15, name)
		assert.InDelta(t, c.want.X, gap.Rect.X, .3, name)
		assert.InDelta(t, c.want.Y, gap.Rect.Y, .3, name)
		assert.InDelta(t, c.circle, gap.Radius, .01, name)
	}
	_, ok := arrange.Room(parse(t, "M0 0H40V30H0z"), geom.Pt(50, 5))
	assert.False(t, ok)
}

func TestTheGapEndsAtLines(t *testing.T) {
	box := geom.RectPath(geom.Rect{W: 40, H: 30})
	gap, ok := arrange.Room(box, geom.Pt(5, 5), parse(t, "M25 -5V40"), parse(t, "M25 8H60"))
	require.True(t, ok)
	assert.Equal(t, geom.Rect{W: 25, H: 30}, gap.Rect)
	assert.InDelta(t, 12.5, gap.Radius, 1e-3)
	gap, ok = arrange.Room(box, geom.Pt(30, 20), parse(t, "M25 -5V40"), parse(t, "M25 8H60"))
	require.True(t, ok)
	assert.Equal(t, geom.Rect{X: 25, Y: 8, W: 15, H: 22}, gap.Rect)
	// A line that ends inside is gone round.
	gap, ok = arrange.Room(box, geom.Pt(5, 20), parse(t, "M20 0V10"))
	require.True(t, ok)
	assert.Equal(t, geom.Rect{Y: 10, W: 40, H: 20}, gap.Rect)
	// A ring that is cut bounds what lies in it.
	gap, ok = arrange.Room(box, geom.Pt(10, 10), parse(t, "M5 5H20V18H5z"))
	require.True(t, ok)
	assert.Equal(t, geom.Rect{X: 5, Y: 5, W: 15, H: 13}, gap.Rect)
	// And a slanted line is as good as an edge.
	slanted, ok := arrange.Room(box, geom.Pt(3, 25), parse(t, "M0 0L40 30"))
	require.True(t, ok)
	edge, _ := arrange.Room(parse(t, "M0 0L40 30H0z"), geom.Pt(3, 25))
	assert.InDelta(t, edge.Rect.W*edge.Rect.H, slanted.Rect.W*slanted.Rect.H, .02)
	assert.InDelta(t, edge.Radius, slanted.Radius, 1e-3)
}

func TestTheGapMindsCutsAndFoldsAndNoGuides(t *testing.T) {
	line := func(role card.Role, y float64) card.Item {
		return card.Item{Name: "Line", Kind: card.Drawing, Place: card.Place{X: 63.5, Y: y}, Made: card.Made{As: card.Lined},
			Lines: &card.Lines{Role: role, Path: card.NewDrawn(parse(t, "M-80 0H80")), Width: 160, Height: 0}}
	}
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{line(card.RoleCut, 40), line(card.RoleGuide, 90), line(card.RoleValley, 120)}})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	gap, ok := arrange.GapAt(s.Face(card.Front), geom.Pt(60, 80))
	require.True(t, ok)
	assert.InDelta(t, 40, gap.Rect.Y, 1e-6)
	assert.InDelta(t, 120, gap.Rect.Bottom(), 1e-6)

	// On a background, which has bleed, the room ends where the face does.
	inked, err := card.Apply(c, arrange.SetBackground{Faces: []card.FaceID{card.Front}, Fill: card.Fill{Colour: "#587a4a"}})
	require.NoError(t, err)
	si, err := scene.Of(inked)
	require.NoError(t, err)
	on, ok := arrange.GapAt(si.Face(card.Front), geom.Pt(60, 80))
	require.True(t, ok)
	assert.Equal(t, gap, on)

	// A fold of the base that crosses a face ends the room, too.
	f := *s.Face(card.Front)
	f.Folds = append(f.Folds, fold.Line{Role: fold.Valley, From: geom.Pt(30, 0), To: geom.Pt(30, f.Height)})
	gap, ok = arrange.GapAt(&f, geom.Pt(60, 80))
	require.True(t, ok)
	assert.InDelta(t, 30, gap.Rect.X, 1e-6)
}

// Among boxes, every largest rectangle ends at the sides of four of them, so all
// can be tried.
func TestTheGapAmongBoxesIsTheLargest(t *testing.T) {
	rnd := rand.New(rand.NewPCG(5, 17))
	for range 150 {
		room := geom.Rect{W: 100, H: 80}
		var boxes []geom.Rect
		xs, ys := []float64{0, 100}, []float64{0, 80}
		var paths []geom.Path
		for range 1 + rnd.IntN(8) {
			b := geom.Rect{X: rnd.Float64() * 90, Y: rnd.Float64() * 70, W: 2 + rnd.Float64()*25, H: 2 + rnd.Float64()*25}
			boxes = append(boxes, b)
			xs, ys = append(xs, b.X, b.Right()), append(ys, b.Y, b.Bottom())
			paths = append(paths, geom.RectPath(b))
		}
		p := geom.Pt(rnd.Float64()*100, rnd.Float64()*80)
		free := geom.Difference(geom.NonZero, geom.RectPath(room), paths...)
		gap, ok := arrange.Room(free, p)
		if !ok {
			continue
		}
		best := 0.
		for _, x0 := range xs {
			for _, x1 := range xs {
				for _, y0 := range ys {
					for _, y1 := range ys {
						r := geom.Rect{X: x0, Y: y0, W: x1 - x0, H: y1 - y0}
						if r.W <= 0 || r.H <= 0 || !r.Has(p) || !room.Contains(r, 1e-9) || r.W*r.H <= best {
							continue
						}
						clear := true
						for _, b := range boxes {
							clear = clear && !b.Grow(-1e-6).Overlaps(r)
						}
						if clear {
							best = r.W * r.H
						}
					}
				}
			}
		}
		require.InEpsilon(t, best, gap.Rect.W*gap.Rect.H, 1e-4, "%v about %v gives %v", boxes, p, gap.Rect)
		require.True(t, gap.Rect.Has(p))
	}
}

// Whatever the outlines, nothing lies within what was measured.
func TestTheGapTouchesNothing(t *testing.T) {
	rnd := rand.New(rand.NewPCG(3, 4))
	for range 60 {
		var paths []geom.Path
		for range 1 + rnd.IntN(6) {
			c := geom.Pt(rnd.Float64()*100, rnd.Float64()*80)
			var b geom.Builder
			for i := range 7 {
				q := c.Add(geom.Turn(float64(i) * 2 * math.Pi / 7).Apply(geom.Pt(4+rnd.Float64()*16, 0)))
				if i == 0 {
					b.Move(q)
				} else {
					b.Line(q)
				}
			}
			paths = append(paths, b.Close().Path())
		}
		free := geom.Difference(geom.NonZero, geom.RectPath(geom.Rect{W: 100, H: 80}), paths...)
		gap, ok := arrange.Room(free, geom.Pt(rnd.Float64()*100, rnd.Float64()*80))
		if !ok {
			continue
		}
		inner := geom.RectPath(gap.Rect.Grow(-.01))
		assert.InDelta(t, inner.Area(), geom.Intersection(geom.NonZero, inner, free).Area(), 1e-6)
		// No rectangle a little larger on all sides fits about the same middle.
		for range 300 {
			q := gap.Centre.Add(geom.Turn(rnd.Float64() * 2 * math.Pi).Apply(geom.Pt((gap.Radius-.01)*math.Sqrt(rnd.Float64()), 0)))
			require.NotZero(t, free.Winding(q), "the circle lies inside")
		}
	}
}

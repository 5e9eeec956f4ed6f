package cut_test

import (
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

// follow is where the tip of a trailing blade goes under its holder, by small steps:
// a check of its own on what the plan works out.
func follow(l geom.Polyline, offset, from float64) []geom.Point {
	at := l.Points[0]
	s, c := math.Sincos(from)
	tip := at.Sub(geom.Pt(offset*c, offset*s))
	out := []geom.Point{tip}
	for _, p := range l.Points[1:] {
		n := max(1, int(p.Sub(at).Len()/.01))
		for k := 1; k <= n; k++ {
			h := at.Lerp(p, float64(k)/float64(n))
			v := h.Sub(tip)
			tip = h.Sub(v.Mul(offset / v.Len()))
			out = append(out, tip)
		}
		at = p
	}
	return out
}

// off is how far a cut strays from an outline, and how far the outline is from it.
func off(cut []geom.Point, outline geom.Path) (stray, missed float64) {
	for _, p := range cut {
		n, _ := outline.Nearest(p)
		stray = max(stray, n.Point.Sub(p).Len())
	}
	for _, l := range outline.Flatten(.01) {
		for _, p := range l.Points {
			least := math.Inf(1)
			for _, q := range cut {
				least = min(least, p.Sub(q).Len())
			}
			missed = max(missed, least)
		}
	}
	return stray, missed
}

func TestTheTipRunsAlongTheLine(t *testing.T) {
	const offset = .25
	set, err := lettering.Set(card.Words{Text: "Sup", Font: "great-vibes-400", Size: 24, Leading: 1, Align: card.AlignCentre})
	require.NoError(t, err)
	for name, outline := range map[string]geom.Path{
		"square":  geom.RectPath(geom.Rect{X: 20, Y: 20, W: 40, H: 40}),
		"star":    star(5, 25, 10),
		"scallop": card.OutlineOf(card.Form{Outline: "scallop", Width: 50, Height: 30}),
		"letters": geom.Union(geom.NonZero, set.Outline),
	} {
		plain := 0.0
		for _, ring := range outline.Rings() {
			l := ring.Flatten(.01)[0]
			path, end := cut.Holder(l, offset, .5, 1.1, 1)
			stray, missed := off(follow(path, offset, 1.1), ring)
			assert.LessOrEqual(t, stray, .05, "%s: the cut leaves the line", name)
			assert.LessOrEqual(t, missed, .05, "%s: the line is not cut", name)
			assert.InDelta(t, 0, math.Remainder(end-math.Atan2(l.Points[1].Y-l.Points[0].Y, l.Points[1].X-l.Points[0].X), 2*math.Pi), .7, "it points along the start")
			closed := geom.Polyline{Points: append(append([]geom.Point(nil), l.Points...), l.Points[0])}
			stray, missed = off(follow(closed, offset, 1.1), ring)
			plain = max(plain, stray, missed)
		}
		assert.Greater(t, plain, .2, "%s: without it corners are lost", name)
	}
}

func star(n int, outer, inner float64) geom.Path {
	var b geom.Builder
	for i := range 2 * n {
		r := outer
		if i%2 == 1 {
			r = inner
		}
		s, c := math.Sincos(float64(i) * math.Pi / float64(n))
		if p := geom.Pt(60+r*c, 60+r*s); i == 0 {
			b.Move(p)
		} else {
			b.Line(p)
		}
	}
	return b.Close().Path()
}

// between is the way between lines in their order.
func between(lines []geom.Polyline) float64 {
	sum, at := 0.0, geom.Pt(0, 279)
	for _, l := range lines {
		sum += l.Points[0].Sub(at).Len()
		at = l.Points[len(l.Points)-1]
		if l.Closed {
			at = l.Points[0]
		}
	}
	return sum
}

func scattered(r *rand.Rand, n int) []geom.Polyline {
	out := make([]geom.Polyline, n)
	for i := range out {
		x, y := 200*r.Float64(), 270*r.Float64()
		if i%4 == 0 {
			out[i] = geom.Polyline{Points: []geom.Point{{X: x, Y: y}, {X: x + 20*r.Float64(), Y: y + 20*r.Float64()}}}
			continue
		}
		out[i] = geom.EllipsePath(geom.Rect{X: x, Y: y, W: 2 + 9*r.Float64(), H: 2 + 9*r.Float64()}).Flatten(.05)[0]
	}
	return out
}

func TestTheWayBetweenLinesIsShort(t *testing.T) {
	seeds := uint64(5)
	if os.Getenv("SOAK") != "" {
		seeds = 50
	}
	for seed := range seeds {
		r := rand.New(rand.NewPCG(seed, 81))
		lines := scattered(r, 200)
		got, _ := cut.Order(lines, geom.Pt(0, 279), nil)
		require.Len(t, got, len(lines))
		was, is := between(lines), between(got)
		assert.Less(t, is, .75*was)
		// The best of many orders from other beginnings is hardly better.
		best := is
		for range 6 {
			r.Shuffle(len(lines), func(i, j int) { lines[i], lines[j] = lines[j], lines[i] })
			other, _ := cut.Order(lines, geom.Pt(200*r.Float64(), 270*r.Float64()), nil)
			best = min(best, between(other))
		}
		assert.LessOrEqual(t, is, 1.08*best, "seed %d", seed)
		lengths := func(all []geom.Polyline) (sum float64) {
			for _, l := range all {
				sum += l.Length()
			}
			return sum
		}
		assert.InDelta(t, lengths(lines), lengths(got), 1e-6, "nothing is lost and nothing added")
	}
}

func TestWhatLiesInsideComesFirst(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 82))
	lines := scattered(r, 60)
	before := make([][]int, 60)
	for i := range before {
		for range r.IntN(3) {
			if i > 0 {
				before[i] = append(before[i], r.IntN(i))
			}
		}
	}
	number := map[float64]int{}
	for i, l := range lines {
		number[l.Length()] = i
	}
	done := map[int]bool{}
	ordered, _ := cut.Order(lines, geom.Point{}, before)
	for _, l := range ordered {
		k := -1
		for length, i := range number {
			if math.Abs(length-l.Length()) < 1e-9 {
				k = i
			}
		}
		for _, b := range before[k] {
			require.True(t, done[b], "%d before %d", b, k)
		}
		done[k] = true
	}
	assert.Len(t, done, 60)
}

func BenchmarkOrder(b *testing.B) {
	lines := scattered(rand.New(rand.NewPCG(1, 83)), 500)
	for b.Loop() {
		cut.Order(lines, geom.Point{}, nil)
	}
}

func TestScoresComeFirstAndHolesBeforeOutlines(t *testing.T) {
	c := coretest.Card(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	for _, sh := range sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil).Sheets {
		passes := cut.Plan(sh, cut.SettingsOf(sh.Stock))
		names := []string{}
		for _, p := range passes {
			names = append(names, p.Name)
			assert.Greater(t, p.Seconds, 0.0)
		}
		switch sh.Stock.ID {
		case "cream-300":
			assert.Equal(t, []string{"Score", "Outlines"}, names)
			assert.Equal(t, cut.ScoringTip, passes[0].Tool)
			assert.InDelta(t, 177.8, passes[0].Length, 1e-6, "the fold")
			// Twice round, half a millimetre over, and the swings at eight corners.
			assert.InDelta(t, 4*(254+177.8)+.5, passes[1].Length, 9*.25*3.15)
		case "cream-216":
			assert.Equal(t, []string{"Inside cuts", "Outlines"}, names, "the tag's hole first")
			assert.Less(t, passes[0].Length, passes[1].Length)
		default:
			assert.Equal(t, []string{"Outlines"}, names)
		}
	}
}

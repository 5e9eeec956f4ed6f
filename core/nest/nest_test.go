package nest

import (
	"cmp"
	"encoding/json"
	"math/rand/v2"
	"os"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/card"
	"sectilis/core/geom"
	"sectilis/core/lettering"
)

const width, height, between = 203.2, 266.7, 3.0

// guillotine cuts a sheet at random into n boxes and takes the room between them
// off each.
func guillotine(r *rand.Rand, n int) []Part {
	all := []geom.Rect{{W: width, H: height}}
	for len(all) < n {
		// The largest of a few is cut, so that no piece is a splinter.
		k := r.IntN(len(all))
		for range 3 {
			if j := r.IntN(len(all)); all[j].W*all[j].H > all[k].W*all[k].H {
				k = j
			}
		}
		c, share := all[k], .25+.5*r.Float64()
		a, b := c, c
		if c.W > c.H {
			a.W = c.W * share
			b.X, b.W = c.X+a.W, c.W-a.W
		} else {
			a.H = c.H * share
			b.Y, b.H = c.Y+a.H, c.H-a.H
		}
		if min(a.W, a.H, b.W, b.H) < 12 {
			continue
		}
		all[k] = a
		all = append(all, b)
	}
	out := make([]Part, n)
	for i, c := range all {
		out[i] = Part{Outline: geom.RectPath(geom.Rect{W: c.W - between, H: c.H - between}), Turning: Quarters}
	}
	return out
}

// sound checks that nothing is lost, overlaps or leaves its sheet.
func sound(t *testing.T, p Problem, a Answer, exact float64) {
	t.Helper()
	require.Len(t, a.Places, len(p.Parts))
	regions := make([]geom.Path, len(p.Parts))
	for i, pl := range a.Places {
		if pl.Sheet < 0 {
			continue
		}
		sh := p.Sheets[a.Sheets[pl.Sheet]]
		regions[i] = p.Parts[i].Outline.Transform(pl.At)
		inner := geom.Rect{W: sh.Width, H: sh.Height}.Grow(-sh.Margin)
		require.True(t, inner.Contains(regions[i].Bounds(), 1e-6), "part %d leaves its sheet: %v", i, regions[i].Bounds())
		assert.InDelta(t, 1, pl.At.A*pl.At.D-pl.At.B*pl.At.C, 1e-9, "neither stretched nor mirrored")
		grown := geom.Offset(regions[i], p.Between-exact, geom.RoundCorner)
		for _, k := range sh.Keep {
			require.Less(t, geom.Intersection(geom.NonZero, grown, geom.RectPath(k)).Area(), 1e-9, "part %d is near what is kept clear", i)
		}
		for j := range i {
			if a.Places[j].Sheet != pl.Sheet || !grown.Bounds().Overlaps(regions[j].Bounds()) {
				continue
			}
			require.Less(t, geom.Intersection(geom.NonZero, grown, regions[j]).Area(), 1e-9, "parts %d and %d are nearer than %g", i, j, p.Between-exact)
		}
	}
}

func TestBoxesCutFromASheetGoBackOntoIt(t *testing.T) {
	for seed := range uint64(cases(8, 200)) {
		r := rand.New(rand.NewPCG(seed, 71))
		n := 20 + r.IntN(41)
		p := Problem{Parts: guillotine(r, n), Between: between, Seed: seed, Sheets: []Sheet{{Width: width, Height: height * 2}}}
		s := New(p)
		steps := 0
		for ; s.best.Area/width > 1.06*height && steps < 400_000; steps += 2000 {
			s.Improve(2000)
		}
		assert.LessOrEqual(t, s.best.Area/width, 1.06*height, "%d boxes of seed %d", n, seed)
		sound(t, p, s.Best(), .01)
	}
}

// cases is how many of a kind are tried: a few, or with SOAK set all.
func cases(few, all int) int {
	if os.Getenv("SOAK") != "" {
		return all
	}
	return few
}

// flag, letter and scallop are outlines as people cut them.
func flag(w, h float64) geom.Path {
	var b geom.Builder
	return b.Move(geom.Pt(0, 0)).Line(geom.Pt(w, 0)).Line(geom.Pt(w-h*.45, h/2)).Line(geom.Pt(w, h)).Line(geom.Pt(0, h)).Close().Path()
}

func scallop(w, h float64) geom.Path {
	parts := []geom.Path{geom.RectPath(geom.Rect{W: w, H: h})}
	for _, side := range []float64{0, h} {
		n := max(2, int(w/5))
		for i := range n {
			d := w / float64(n)
			parts = append(parts, geom.EllipsePath(geom.Rect{X: float64(i) * d, Y: side - d/2, W: d, H: d}))
		}
	}
	return geom.Union(geom.NonZero, parts...)
}

func letter(t *testing.T, ch string, size float64) geom.Path {
	set, err := lettering.Set(card.Words{Text: ch, Font: "alfa-slab-one-400", Size: size, Leading: 1, Align: card.AlignCentre})
	require.NoError(t, err)
	return set.Outline
}

// assorted is a set of labels, letters, flags and circles.
func assorted(t *testing.T, r *rand.Rand, n int, turning Turning, rings bool) []Part {
	out := make([]Part, n)
	for i := range out {
		size := 14 + 40*r.Float64()
		var o geom.Path
		switch r.IntN(5) {
		case 0:
			o = scallop(size*1.4, size*.7)
		case 1:
			o = letter(t, string(rune('A'+r.IntN(26))), size*.8)
		case 2:
			o = flag(size*1.5, size*.55)
		case 3:
			o = geom.EllipsePath(geom.Rect{W: size, H: size})
		default:
			if !rings {
				o = letter(t, string(rune('A'+r.IntN(26))), size*.8)
				break
			}
			// In the hole of a ring something may lie.
			o = geom.Join(geom.EllipsePath(geom.Rect{W: size, H: size}), geom.EllipsePath(geom.Rect{X: 3, Y: 3, W: size - 6, H: size - 6}).Reverse())
		}
		out[i] = Part{Outline: o, Turning: turning}
	}
	return out
}

// rows is how boxes are laid in rows: the longest first, each in the first row with
// room, the flatter way round if it fits ("first fit decreasing height": Coffman,
// Garey, Johnson and Tarjan, 1980).
func rows(parts []Part) float64 {
	boxes := make([]geom.Rect, len(parts))
	for i, p := range parts {
		b := p.Outline.Bounds()
		boxes[i] = geom.Rect{W: max(b.W, b.H), H: min(b.W, b.H)}
	}
	slices.SortStableFunc(boxes, func(a, b geom.Rect) int { return cmp.Compare(b.W, a.W) })
	type row struct{ x, h float64 }
	var all []row
	for _, b := range boxes {
		k := slices.IndexFunc(all, func(r row) bool { return b.H <= r.h && r.x+b.W <= width })
		if k < 0 {
			all = append(all, row{0, b.H})
			k = len(all) - 1
		}
		all[k].x += b.W + between
	}
	sum := -between
	for _, r := range all {
		sum += r.h + between
	}
	return sum
}

func TestOutlinesTakeLessThanTheirBoxesInRows(t *testing.T) {
	total := 0.0
	for seed := range uint64(cases(5, 20)) {
		r := rand.New(rand.NewPCG(seed, 72))
		p := Problem{Parts: assorted(t, r, 24+r.IntN(30), Freely, false), Between: between, Seed: seed, Sheets: []Sheet{{Width: width, Height: 2000}}}
		s := New(p)
		s.Improve(200)
		sound(t, p, s.Best(), .01)
		share := s.Best().Area / width / rows(p.Parts)
		total += share
		assert.Less(t, share, .95, "seed %d, %d parts", seed, len(p.Parts))
	}
	assert.LessOrEqual(t, total/float64(cases(5, 20)), .85, "a sixth less over all sets")
}

// A long part that fits a sheet aslant alone is laid aslant, however many there are.
func TestWhatFitsAslantIsLaidAslant(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 79))
	p := Problem{Parts: assorted(t, r, 50, Freely, false), Between: between, Sheets: []Sheet{{Width: width, Height: height, Margin: 6}}}
	aslant := geom.RectPath(geom.Rect{W: height + 20, H: 4})
	p.Parts = append(p.Parts, Part{Outline: aslant, Turning: Freely})
	a := New(p).Best()
	require.GreaterOrEqual(t, a.Places[50].Sheet, 0)
	sound(t, p, a, .01)
}

func TestRandomSetsKeepTheirDistance(t *testing.T) {
	for seed := range uint64(cases(40, 1000)) {
		r := rand.New(rand.NewPCG(seed, 73))
		p := Problem{
			Parts: assorted(t, r, 3+r.IntN(14), Turning(r.IntN(3)), true), Between: 1 + 4*r.Float64(), Seed: seed,
			Sheets: []Sheet{{Width: 127, Height: 76, Count: 1, Margin: 2}, {
				Width: 120 + 90*r.Float64(), Height: 150 + 100*r.Float64(), Margin: 6 * r.Float64(),
				Keep: []geom.Rect{{X: 6, Y: 6, W: 9, H: 9}, {X: 100, Y: 120, W: 12, H: 8}},
			}},
		}
		s := New(p)
		s.Improve(2)
		a := s.Best()
		sound(t, p, a, .01)
		for i, pl := range a.Places {
			require.GreaterOrEqual(t, pl.Sheet, 0, "part %d of seed %d has room", i, seed)
		}
		// What was laid stays when it is fixed, and the rest goes round it.
		i := r.IntN(len(p.Parts))
		p.Parts[i].Fixed = &a.Places[i]
		b := New(p).Best()
		sound(t, p, b, .011)
		assert.Equal(t, a.Places[i].At, b.Places[i].At)
	}
}

func TestTheSameProblemHasTheSameAnswer(t *testing.T) {
	p := Problem{Parts: assorted(t, rand.New(rand.NewPCG(5, 74)), 20, Quarters, true), Between: between, Seed: 3, Sheets: []Sheet{{Width: width, Height: height, Margin: 6}}}
	a, b := New(p), New(p)
	a.Improve(6)
	b.Improve(2)
	b.Improve(4)
	assert.Equal(t, a.Best(), b.Best())
	raw, err := json.Marshal(a.Best())
	require.NoError(t, err)
	var back Answer
	require.NoError(t, json.Unmarshal(raw, &back))
	assert.Equal(t, a.Best(), back, "it can be kept")
	p.Seed = 4
	assert.LessOrEqual(t, a.Best().Area, New(p).Best().Area)
}

func TestWhatHasNoRoomIsSaid(t *testing.T) {
	p := Problem{
		Parts:   []Part{{Outline: geom.RectPath(geom.Rect{W: 300, H: 20})}, {Outline: geom.EllipsePath(geom.Rect{W: 40, H: 40})}, {Outline: geom.RectPath(geom.Rect{W: 30, H: 30})}},
		Between: between, Sheets: []Sheet{{Width: width, Height: height}},
	}
	a := New(p).Best()
	assert.Equal(t, -1, a.Places[0].Sheet)
	assert.Equal(t, 0, a.Places[1].Sheet)
	assert.Equal(t, 0, a.Places[2].Sheet)
	assert.Len(t, a.Sheets, 1)
	assert.Empty(t, New(Problem{Sheets: p.Sheets}).Best().Places)
}

// BenchmarkFirst is the first answer for 100 parts (the goal is half a second), and
// how near what is found in two seconds is to what is found in ten.
func BenchmarkFirst(b *testing.B) {
	for _, turning := range []Turning{Quarters, Freely} {
		b.Run([]string{"", "quarters", "freely"}[turning], func(b *testing.B) {
			p := Problem{Parts: assorted(&testing.T{}, rand.New(rand.NewPCG(9, 75)), 100, turning, true), Between: between, Sheets: []Sheet{{Width: width, Height: height, Margin: 6}}}
			var two, ten float64
			for b.Loop() {
				start := time.Now()
				s := New(p)
				b.ReportMetric(time.Since(start).Seconds(), "first-s")
				for time.Since(start) < 10*time.Second {
					s.Improve(1)
					if time.Since(start) < 2*time.Second {
						two = s.Best().Area
					}
				}
				ten = s.Best().Area
			}
			b.ReportMetric(100*(two/ten-1), "%at2s")
			b.ReportMetric(0, "ns/op")
		})
	}
}

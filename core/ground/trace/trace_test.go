package trace

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/shape"
)

// picture is a test picture: an outline that is known, about the origin, mm.
type picture struct {
	name string
	path geom.Path
}

// pictures are the twelve test pictures.
func pictures(t testing.TB) []picture {
	var out []picture
	ready := func(name string, id shape.ID, w, h float64, corner shape.Corner, r float64) {
		p, ok := shape.Outline(id, w, h, corner, r)
		require.True(t, ok, name)
		out = append(out, picture{name, p})
	}
	drawn := func(name, data string) { out = append(out, picture{name, coretest.Path(t, data)}) }
	// round is an ellipse about a place, in four quarters, clockwise or the other way.
	round := func(x, y, a, b float64, way int) string {
		at := func(dx, dy float64) string { return fmt.Sprintf("%g %g", x+dx, y+dy) }
		arc := fmt.Sprintf("A%g %g 0 0 %d ", a, b, way)
		if way == 0 {
			b = -b
		}
		return "M" + at(a, 0) + arc + at(0, b) + arc + at(-a, 0) + arc + at(0, -b) + arc + at(a, 0) + "Z"
	}
	// polar is a polygon by the radii of its corners, evenly turned.
	polar := func(n int, r func(i int) float64) string {
		data := ""
		for i := range n {
			a := 2*math.Pi*float64(i)/float64(n) - math.Pi/2
			data += fmt.Sprintf("%c%.5f %.5f", "ML"[min(i, 1)], r(i)*math.Cos(a), r(i)*math.Sin(a))
		}
		return data + "Z"
	}
	drawn("circle", round(0, 0, 20, 20, 1))
	drawn("ellipse", round(0, 0, 30, 16, 1))
	ready("rectangle", shape.Rectangle, 50, 30, shape.Square, 0)
	ready("rounded", shape.Rectangle, 50, 36, shape.Round, 6)
	drawn("tag", "M-30 -6L-22 -14H30V14H-22L-30 6Z"+round(-24, 0, 3.5, 3.5, 0))
	ready("banner", "banner", 60, 18, "", 0)
	flower := "M15 0"
	for i := range 6 {
		a := math.Pi * float64(i+1) / 3
		flower += fmt.Sprintf("A8.6 8.6 0 0 1 %.5f %.5f", 15*math.Cos(a), 15*math.Sin(a))
	}
	drawn("flower", flower+"Z")
	drawn("star", polar(10, func(i int) float64 { return []float64{24, 10.5}[i%2] }))
	drawn("octagon", polar(8, func(int) float64 { return 20 }))
	drawn("heart", "M0 20C-8 12 -22 4 -22 -8C-22 -16 -16 -20 -11 -20C-6 -20 -2 -17 0 -12C2 -17 6 -20 11 -20C16 -20 22 -16 22 -8C22 4 8 12 0 20Z")
	drawn("leaf", "M-28 6C-18 -14 8 -20 28 -8C18 10 -8 20 -28 6Z")
	drawn("ring", round(0, 0, 20, 20, 1)+round(0, 0, 11, 11, 0))
	return out
}

// rows is how many lines a row of pixels is covered along.
const rows = 64

// render draws an outline, in pixels, with its coverage along lines, exact on each, and noise of
// a standard deviation, of 255.
func render(p geom.Path, w, h int, noise float64, rnd *rand.Rand) *Field {
	f := NewField(w, h)
	lines := p.Flatten(.002)
	cross := make([][]float64, h*rows)
	for _, l := range lines {
		n := len(l.Points)
		for i := range n {
			a, b := l.Points[i], l.Points[(i+1)%n]
			if a.Y > b.Y {
				a, b = b, a
			}
			for k := max(0, int(math.Ceil(a.Y*rows-.5))); k < h*rows && (float64(k)+.5)/rows < b.Y; k++ {
				y := (float64(k) + .5) / rows
				cross[k] = append(cross[k], a.X+(b.X-a.X)*(y-a.Y)/(b.Y-a.Y))
			}
		}
	}
	for y := range h {
		cover := make([]float64, w)
		for _, xs := range cross[y*rows : (y+1)*rows] {
			slices.Sort(xs)
			for i := 0; i+1 < len(xs); i += 2 {
				for x := max(0, int(xs[i])); x < w && float64(x) < xs[i+1]; x++ {
					cover[x] += (min(xs[i+1], float64(x+1)) - max(xs[i], float64(x))) / rows
				}
			}
		}
		row := f.Row(y)
		for x := range row {
			v := cover[x] * 255
			if noise > 0 {
				v += rnd.NormFloat64() * noise
			}
			row[x] = uint8(min(max(math.Round(v), 0), 255))
		}
	}
	return f
}

// apart is how far the places of one outline lie from another at most.
func apart(p, q geom.Path) float64 {
	far := 0.
	for _, l := range p.Flatten(.1) {
		n := len(l.Points)
		for i := range n {
			a, b := l.Points[i], l.Points[(i+1)%n]
			steps := int(b.Sub(a).Len()/6) + 1
			for s := range steps {
				at := a.Lerp(b, float64(s)/float64(steps))
				if near, ok := q.Nearest(at); ok {
					far = max(far, near.Distance)
				}
			}
		}
	}
	return far
}

// nodes is how many lines and curves an outline has.
func nodes(p geom.Path) int {
	n := 0
	for _, ring := range p.Rings() {
		var start geom.Point
		ring.Segments(func(from geom.Point, s geom.Segment) {
			switch {
			case s.Op == geom.MoveTo:
				start = s.End()
			case s.Op != geom.Close || from.Sub(start).Len() > 1e-9:
				n++
			}
		})
	}
	return n
}

// at lays an outline out in pixels, turned, in a picture that holds it.
func at(p geom.Path, dpi float64, rnd *rand.Rand) (q geom.Path, side int) {
	b := p.Bounds()
	mid := math.Hypot(b.W, b.H)*dpi/25.4/2 + 4
	m := geom.Turn(rnd.Float64()).Then(geom.Scale(dpi/25.4, dpi/25.4)).Then(geom.Shift(mid+rnd.Float64(), mid+rnd.Float64()))
	return p.Transform(m), int(2*mid + 1)
}

// A known outline is found within 0.35 pixel, with at most 1.2 times its nodes.
func TestKnownOutlinesAreFound(t *testing.T) {
	for _, pic := range pictures(t) {
		for _, dpi := range []float64{100, 200, 300, 600} {
			for _, noise := range []float64{0, 6} {
				rnd := rand.New(rand.NewPCG(uint64(dpi), uint64(noise)))
				want, side := at(pic.path, dpi, rnd)
				got, err := Trace(context.Background(), render(want, side, side, noise, rnd), Options{Speck: 4})
				require.NoError(t, err)
				what := fmt.Sprintf("%s at %.0f dpi with noise %.0f", pic.name, dpi, noise)
				assert.LessOrEqual(t, max(apart(want, got.Outline), apart(got.Outline, want)), .35, what)
				assert.LessOrEqual(t, float64(got.Nodes), 1.2*float64(nodes(want)), what)
				assert.Equal(t, nodes(got.Outline), got.Nodes, what)
			}
		}
	}
}

// sound looks whether an outline has the area that is within the edge of a field, is closed and
// finite.
func sound(t *testing.T, f *Field, got Result, smooth float64) {
	t.Helper()
	require.NoError(t, got.Outline.Check())
	covered, long := 0., 0.
	f.walk(func(l *loop) bool {
		if math.Abs(l.area) >= 1 {
			covered += l.area
		}
		return true
	})
	for _, r := range got.Outline.Rings() {
		require.True(t, r.Closed())
		for _, c := range r.Curves()[0] {
			long += c.Length()
		}
	}
	assert.InDelta(t, covered, got.Outline.Area(), 2+.6*max(smooth, Fine)*long)
}

// Whatever there is in a picture, its outline encloses what is covered.
func TestAnyFieldGivesASoundOutline(t *testing.T) {
	rnd := rand.New(rand.NewPCG(5, 5))
	for n := range 60 {
		f := NewField(20+rnd.IntN(60), 20+rnd.IntN(60))
		k := 1 + rnd.Float64()*6
		a, b, c := rnd.Float64(), rnd.Float64(), rnd.Float64()*3
		for y := range f.H {
			row := f.Row(y)
			for x := range row {
				v := math.Sin(float64(x)/k+a*6) + math.Cos(float64(y)/k+b*6) + math.Sin(float64(x+y)/k/c)
				row[x] = uint8(min(max(127.5+v*(60+200*rnd.Float64()*float64(n%2)), 0), 255))
			}
		}
		for _, smooth := range []float64{0, 1.5} {
			got, err := Trace(context.Background(), f, Options{Smooth: smooth})
			require.NoError(t, err)
			sound(t, f, got, smooth)
		}
	}
}

func FuzzTrace(f *testing.F) {
	f.Add(uint8(3), []byte{0, 255, 0, 255, 255, 255, 0, 255, 0}, .25)
	f.Add(uint8(4), []byte{255, 0, 255, 0, 0, 255, 0, 255, 255, 0, 255, 0, 127, 128, 127, 128}, 3.)
	f.Fuzz(func(t *testing.T, w uint8, raw []byte, smooth float64) {
		if w == 0 || len(raw) < int(w) || len(raw) > 4096 || !(smooth >= 0 && smooth < 50) {
			t.Skip()
		}
		field := NewField(int(w), len(raw)/int(w))
		for y := range field.H {
			copy(field.Row(y), raw[y*int(w):])
		}
		got, err := Trace(context.Background(), field, Options{Smooth: smooth})
		require.NoError(t, err)
		require.NoError(t, got.Outline.Check())
		for _, r := range got.Outline.Rings() {
			require.True(t, r.Closed())
		}
	})
}

// A ragged edge is followed as closely as is asked for.
func TestSmoothnessEvensARaggedEdge(t *testing.T) {
	rnd := rand.New(rand.NewPCG(1, 2))
	var b geom.Builder
	for i := range 720 {
		a := 2 * math.Pi * float64(i) / 720
		r := 100 + 2*rnd.NormFloat64()
		if p := geom.Pt(120+r*math.Cos(a), 120+r*math.Sin(a)); i == 0 {
			b.Move(p)
		} else {
			b.Line(p)
		}
	}
	f := render(b.Close().Path(), 240, 240, 0, rnd)
	last := math.MaxInt
	for _, smooth := range []float64{0, 2, 6} {
		got, err := Trace(context.Background(), f, Options{Smooth: smooth, Speck: 20})
		require.NoError(t, err)
		assert.Less(t, got.Nodes, last/2, "smooth %v", smooth)
		last = got.Nodes
		if smooth == 6 {
			assert.LessOrEqual(t, got.Nodes, 8)
			circle := geom.EllipsePath(geom.Rect{X: 20, Y: 20, W: 200, H: 200})
			assert.Less(t, apart(got.Outline, circle), 5.)
		}
	}
}

// Pictures without softened edges go in steps, which are not followed.
func TestStepsAreNotFollowed(t *testing.T) {
	for _, pic := range pictures(t) {
		want, side := at(pic.path, 200, rand.New(rand.NewPCG(3, 4)))
		f := render(want, side, side, 0, nil)
		for y := range f.H {
			for x, v := range f.Row(y) {
				f.Row(y)[x] = v / 128 * 255
			}
		}
		got, err := Trace(context.Background(), f, Options{Speck: 4})
		require.NoError(t, err)
		assert.LessOrEqual(t, float64(got.Nodes), 1.2*float64(nodes(want)), pic.name)
		assert.Less(t, apart(got.Outline, want), 1.5, pic.name)
	}
}

func TestSpecksAndHolesAreLeftOut(t *testing.T) {
	p := coretest.Path(t, "M10 10H90V90H10ZM30 30V60H60V30ZM70 70V73H73V70ZM94 94H97V97H94Z")
	f := render(p, 100, 100, 0, nil)
	trace := func(o Options) Result {
		got, err := Trace(context.Background(), f, o)
		require.NoError(t, err)
		return got
	}
	all := trace(Options{})
	assert.Len(t, all.Outline.Rings(), 4)
	assert.InDelta(t, 6400-900-9+9, all.Outline.Area(), 1)
	large := trace(Options{Speck: 20})
	assert.Len(t, large.Outline.Rings(), 2)
	assert.Equal(t, 2, large.Specks)
	outer := trace(Options{Speck: 20, Outer: true})
	assert.InDelta(t, 6400, outer.Outline.Area(), 1)
	nothing := trace(Options{Speck: 1e5})
	assert.True(t, nothing.Outline.Empty())
	assert.Equal(t, 4, nothing.Specks)
}

func TestTooMuchIsTold(t *testing.T) {
	f := NewField(400, 400)
	for y := 0; y < 400; y += 4 {
		for x := 0; x < 400; x += 4 {
			for j := range 3 {
				copy(f.Row(y + j)[x:], []uint8{255, 255, 255})
			}
		}
	}
	_, err := Trace(context.Background(), f, Options{})
	var much *TooMuch
	require.ErrorAs(t, err, &much)
	assert.Equal(t, maxRings, much.Parts)
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	_, err = Trace(ctx, f, Options{})
	assert.ErrorIs(t, err, context.Canceled)
}

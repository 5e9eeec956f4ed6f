package geom

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func randomPath(r *rand.Rand) Path {
	pt := func() Point { return Pt(r.Float64()*200-100, r.Float64()*200-100) }
	var b Builder
	for range 1 + r.IntN(3) {
		b.Move(pt())
		for range 1 + r.IntN(5) {
			switch r.IntN(3) {
			case 0:
				b.Line(pt())
			case 1:
				b.Quad(pt(), pt())
			default:
				b.Cubic(pt(), pt(), pt())
			}
		}
		b.Close()
	}
	return b.Path()
}

func TestFlattenStaysWithinItsBound(t *testing.T) {
	var b Builder
	loop := b.Move(Pt(0, 0)).Cubic(Pt(100, 100), Pt(0, 100), Pt(100, 0)).Path()
	r := rand.New(rand.NewPCG(3, 4))
	for i := range 200 {
		p := loop
		if i > 0 {
			p = randomPath(r)
		}
		tol := []float64{.001, .05, 1}[i%3]
		lines := p.Flatten(tol)
		k := -1
		p.Segments(func(from Point, s Segment) {
			if s.Op == MoveTo {
				k++
			}
			if s.Op != CubicTo && s.Op != QuadTo {
				return
			}
			for j := 0; j <= 40; j++ {
				q := at(cubic(from, s), float64(j)/40)
				best := math.Inf(1)
				pts := lines[k].Points
				for n := range pts {
					best = min(best, distance(q, pts[n], pts[(n+1)%len(pts)]))
				}
				require.LessOrEqual(t, best, tol*1.0001)
			}
		})
	}
}

func distance(q, a, b Point) float64 {
	v := b.Sub(a)
	t := 0.0
	if l := v.Dot(v); l > 0 {
		t = max(0, min(1, q.Sub(a).Dot(v)/l))
	}
	return q.Sub(a.Lerp(b, t)).Len()
}

func TestBoundsAndAreaAreThoseOfAFineFlattening(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 300 {
		p := randomPath(r)
		box, area := Rect{}, 0.0
		for i, l := range p.Flatten(1e-4) {
			area += l.Area()
			for j, q := range l.Points {
				one := Rect{q.X, q.Y, 1e-12, 1e-12}
				if i+j == 0 {
					box = one
				} else {
					box = box.Union(one)
				}
			}
		}
		got := p.Bounds()
		assert.InDelta(t, box.X, got.X, 2e-4)
		assert.InDelta(t, box.Bottom(), got.Bottom(), 2e-4)
		assert.InDelta(t, box.Right(), got.Right(), 2e-4)
		assert.InDelta(t, area, p.Area(), .2)
		assert.InDelta(t, -p.Area(), p.Reverse().Area(), 1e-6)
	}
}

func TestShapesHaveTheirAreas(t *testing.T) {
	box := Rect{10, 20, 60, 40}
	assert.InDelta(t, 2400, RectPath(box).Area(), 1e-9)
	assert.InDelta(t, 2400-(4-math.Pi)*25, RoundRectPath(box, 5).Area(), .001)
	assert.InDelta(t, 2400-50, BevelRectPath(box, 5).Area(), 1e-9)
	assert.InDelta(t, math.Pi*30*20, EllipsePath(box).Area(), .01)
	assert.Equal(t, RectPath(box), RoundRectPath(box, 0))
	assert.InDelta(t, math.Pi*400+40*20, RoundRectPath(Rect{0, 0, 60, 40}, 99).Area(), .01)
	for _, p := range []Path{RoundRectPath(box, 5), BevelRectPath(box, 5), EllipsePath(box)} {
		b := p.Bounds()
		assert.InDelta(t, box.X, b.X, 1e-9)
		assert.InDelta(t, box.Bottom(), b.Bottom(), 1e-9)
	}
}

func TestAffineInverseUndoes(t *testing.T) {
	m := Turn(.3).Then(Scale(2, -3)).Then(Shift(5, 7))
	inv, ok := m.Inverse()
	require.True(t, ok)
	p := m.Then(inv).Apply(Pt(11, -4))
	assert.InDelta(t, 11, p.X, 1e-12)
	assert.InDelta(t, -4, p.Y, 1e-12)
	_, ok = Scale(0, 1).Inverse()
	assert.False(t, ok)
	q := Turn(math.Pi / 2).Apply(Pt(1, 0))
	assert.InDelta(t, 1, q.Y, 1e-12, "a positive turn is clockwise on screen")
}

func TestPathTextIsShortSVG(t *testing.T) {
	var b Builder
	p := b.Move(Pt(-0.00000001, 1.5)).Line(Pt(1./3, 2)).Quad(Pt(1, 1), Pt(2, 2)).Cubic(Pt(1, 2), Pt(3, 4), Pt(5, 6)).Close().Path()
	assert.Equal(t, "M0 1.5L0.3333 2Q1 1 2 2C1 2 3 4 5 6Z", p.String())
	raw, err := json.Marshal(struct {
		P Path
		M Affine
	}{p, Identity})
	require.NoError(t, err)
	assert.JSONEq(t, `{"P":"M0 1.5L0.333333 2Q1 1 2 2C1 2 3 4 5 6Z","M":[1,0,0,1,0,0]}`, string(raw))
	assert.Len(t, Join(p, p).Rings(), 2)
	assert.True(t, Path{}.Bounds().Empty())
}

func TestRectangles(t *testing.T) {
	a, b := Rect{0, 0, 10, 10}, Rect{10, 0, 5, 5}
	assert.False(t, a.Overlaps(b), "touching is no overlap")
	assert.True(t, a.Grow(.1).Overlaps(b))
	assert.Equal(t, Rect{0, 0, 15, 10}, a.Union(b))
	assert.True(t, a.Contains(Rect{-.005, 0, 10, 10}, .01))
	assert.False(t, a.Contains(b, .01))
	assert.True(t, a.Has(Pt(10, 10)))
}

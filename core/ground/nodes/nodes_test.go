package nodes

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/ground/geom"
)

// wavy is a ring of nodes about a circle, some of them smooth, some corners, some sides straight.
func wavy(rnd *rand.Rand) []Ring {
	n := 4 + rnd.IntN(6)
	r := Ring{Closed: true}
	for i := range n {
		a := 2 * math.Pi * float64(i) / float64(n)
		l := 20 + 8*rnd.Float64()
		r.Nodes = append(r.Nodes, Node{At: geom.Pt(l*math.Cos(a), l*math.Sin(a))})
	}
	rings := []Ring{r}
	for i := range n {
		if rnd.IntN(3) > 0 {
			rings = Smoothen(rings, []Ref{{0, i}})
		}
	}
	return rings
}

// far is how far apart two outlines lie at most.
func far(p, q geom.Path) float64 {
	d := 0.
	for _, pair := range [][2]geom.Path{{p, q}, {q, p}} {
		for _, l := range pair[0].Flatten(.01) {
			for _, at := range l.Points {
				if n, ok := pair[1].Nearest(at); ok {
					d = max(d, n.Distance)
				}
			}
		}
	}
	return d
}

func TestOutlinesAreTakenApartAndPutTogether(t *testing.T) {
	for _, data := range []string{
		"M0 0H40V30H0Z", "M0 0C10 -10 20 -10 30 0Q20 20 0 20Z", "M10 0A10 10 0 0 1 -10 0A10 10 0 0 1 10 0Z",
		"M0 0L10 5C12 6 14 9 20 9", "M0 0H40V30H0ZM10 10V20H20V10Z",
	} {
		p := coretest.Path(t, data)
		rings := Of(p)
		q := Path(rings)
		assert.Less(t, far(p, q), 1e-3, data)
		assert.Equal(t, rings, Of(q), data)
		assert.InDelta(t, p.Area(), q.Area(), .01, data)
	}
	square := Of(coretest.Path(t, "M0 0H40V30H0Z"))
	assert.Len(t, square[0].Nodes, 4)
	assert.False(t, square[0].Nodes[0].Smooth)
	circle := Of(geom.EllipsePath(geom.Centred(20, 20)))
	for _, n := range circle[0].Nodes {
		assert.True(t, n.Smooth)
	}
}

// What leaves an outline as it is, or changes one part of it, does no more.
func TestNodesAreAddedAndRemoved(t *testing.T) {
	rnd := rand.New(rand.NewPCG(2, 3))
	for range 60 {
		rings := wavy(rnd)
		was := Path(rings)
		at := Ref{0, rnd.IntN(len(rings[0].Nodes))}
		more := Add(rings, at, .1+.8*rnd.Float64())
		require.Len(t, more[0].Nodes, len(rings[0].Nodes)+1)
		assert.Less(t, far(was, Path(more)), 1e-6)
		back := Remove(more, []Ref{{0, at.Node + 1}})
		require.Len(t, back[0].Nodes, len(rings[0].Nodes))
		assert.Less(t, far(was, Path(back)), .15)

		by := geom.Pt(rnd.Float64()*4-2, rnd.Float64()*4-2)
		moved := Move(rings, []Ref{at}, by)
		for i, n := range moved[0].Nodes {
			if i == at.Node {
				assert.InDelta(t, 0, n.At.Sub(rings[0].Nodes[i].At.Add(by)).Len(), 1e-12)
			} else {
				assert.Equal(t, rings[0].Nodes[i].At, n.At)
			}
		}
		open := Split(rings, at)
		assert.Less(t, far(was, Path(open)), 1e-6)
		closed, ok := Join(open, Ref{0, 0}, Ref{0, len(open[0].Nodes) - 1})
		require.True(t, ok)
		assert.InDelta(t, was.Area(), Path(closed).Area(), 1e-6)
	}
}

func TestHandlesOfSmoothNodesTurnTogether(t *testing.T) {
	rings := Smoothen(Of(coretest.Path(t, "M0 0H30V30H0Z")), []Ref{{0, 1}})
	n := rings[0].Nodes[1]
	require.True(t, n.Smooth)
	d := n.Out.Sub(n.At)
	assert.InDelta(t, d.X, d.Y, 1e-9, "half way between its sides")
	length := n.In.Sub(n.At).Len()
	turned := MoveHandle(rings, Ref{0, 1}, true, geom.Pt(30, 20), false)[0].Nodes[1]
	assert.True(t, turned.Smooth)
	assert.InDelta(t, length, turned.In.Sub(turned.At).Len(), 1e-9)
	assert.InDelta(t, 30, turned.In.X, 1e-9)
	assert.False(t, MoveHandle(rings, Ref{0, 1}, true, geom.Pt(30, 20), true)[0].Nodes[1].Smooth, "alone")
	assert.False(t, Sharpen(rings, []Ref{{0, 1}})[0].Nodes[1].Smooth)
	straight := Straighten(Straighten(rings, []Ref{{0, 0}}, false), []Ref{{0, 1}}, false)
	assert.InDelta(t, 900, Path(straight).Area(), 1e-9)
	bent := Straighten(straight, []Ref{{0, 0}}, true)
	assert.NotNil(t, bent[0].Nodes[0].Out)
	assert.InDelta(t, 900, Path(bent).Area(), 1e-9, "a curve that is straight")
}

func TestOneCornerIsRounded(t *testing.T) {
	rings := Of(coretest.Path(t, "M0 0H40V30H0Z"))
	one, ok := Round(rings, []Ref{{0, 1}}, 6)
	require.True(t, ok)
	assert.InDelta(t, 1200-36*(1-math.Pi/4), Path(one).Area(), .01)
	_, ok = Round(Of(geom.EllipsePath(geom.Centred(20, 20))), []Ref{{0, 0}}, 3)
	assert.False(t, ok, "it is no corner")
}

func TestEndsAreJoinedAndLinesSplit(t *testing.T) {
	rings := Of(coretest.Path(t, "M0 0L10 0L20 5M30 5L40 0"))
	one, ok := Join(rings, Ref{0, 2}, Ref{1, 0})
	require.True(t, ok)
	require.Len(t, one, 1)
	assert.Len(t, one[0].Nodes, 5)
	assert.Equal(t, geom.Pt(40, 0), one[0].Nodes[4].At)
	flipped, ok := Join(rings, Ref{0, 0}, Ref{1, 1})
	require.True(t, ok)
	assert.Equal(t, geom.Pt(20, 5), flipped[0].Nodes[0].At)
	_, ok = Join(rings, Ref{0, 1}, Ref{1, 0})
	assert.False(t, ok, "no end")
	assert.Len(t, Split(one, Ref{0, 2}), 2)
	assert.Len(t, Remove(one, []Ref{{0, 0}, {0, 1}, {0, 2}, {0, 3}}), 0)
}

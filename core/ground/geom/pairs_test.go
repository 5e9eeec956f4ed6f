package geom

import (
	"context"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// crowdOfBoxes are boxes of a kind: spread, in a row, all in one place, long ones, some still.
func crowdOfBoxes(r *rand.Rand, n int) []span {
	kind, still := r.IntN(4), r.IntN(3)
	boxes := make([]span, n)
	for i := range boxes {
		x, y := int32(r.IntN(1<<20)), int32(r.IntN(1<<20))
		w, h := int32(r.IntN(1<<16)), int32(r.IntN(1<<16))
		switch kind {
		case 1:
			x, y = int32(i)<<10, 0
		case 2:
			x, y, w, h = 5, 5, int32(r.IntN(2)), 0
		case 3:
			if i%5 == 0 {
				w = 1 << 20
			}
		}
		boxes[i] = span{x, y, x + w, y + h, int32(i), still == 1 && r.IntN(3) > 0 || still == 2 && r.IntN(50) > 0}
	}
	return boxes
}

// Every two boxes that touch are met once, but for two still ones, however many there are and wherever
// they lie; by one hand or by two.
func TestPairsAreMetOnce(t *testing.T) {
	r := rand.New(rand.NewPCG(91, 92))
	for range cases(300, 60) {
		n := []int{1, 2, 40, 100, 700, 2500}[r.IntN(6)]
		boxes := crowdOfBoxes(r, n)
		want := map[[2]int32]int{}
		for i := range boxes {
			for j := range boxes[:i] {
				if boxes[i].touches(&boxes[j]) && !(boxes[i].still && boxes[j].still) {
					want[[2]int32{int32(j), int32(i)}] = 1
				}
			}
		}
		var p pairer
		var first, second [][2]int32
		met := func(to *[][2]int32) func(a, b int32) {
			return func(a, b int32) { *to = append(*to, [2]int32{min(a, b), max(a, b)}) }
		}
		p.each(slices.Clone(boxes), met(&first), met(&second))
		got := map[[2]int32]int{}
		for _, k := range append(first, second...) {
			got[k]++
		}
		require.Equal(t, want, got, "%d boxes", n)
	}
}

func TestBoxesFromTheLeft(t *testing.T) {
	r := rand.New(rand.NewPCG(93, 94))
	var p pairer
	for range 200 {
		boxes := crowdOfBoxes(r, 1+r.IntN(300))
		all := boxes[0]
		for i := range boxes {
			all.hold(&boxes[i])
		}
		order := p.fromTheLeft(boxes, all)
		require.Len(t, order, len(boxes))
		for i := 1; i < len(order); i++ {
			a, b := &boxes[order[i-1]], &boxes[order[i]]
			require.True(t, a.x0 < b.x0 || a.x0 == b.x0 && a.of < b.of, "those that begin in one place keep their order")
		}
	}
}

// What is cut and what meets does not depend on which segments are held against which: few fresh ones
// against all give what all give.
func TestFewFreshSegmentsAreHeldAgainstAll(t *testing.T) {
	r := rand.New(rand.NewPCG(95, 96))
	at := func() ipoint { return ipoint{int32(r.IntN(400)), int32(r.IntN(400))} }
	for range 200 {
		segs := make([]seg, 60+r.IntN(100))
		for i := range segs {
			segs[i] = seg{a: at(), b: at(), t1: 1, strand: int32(i)}
		}
		n := noder{segs: segs}
		for len(n.fresh) < 1+r.IntN(fewMoving-2) {
			if i := int32(r.IntN(len(segs))); !slices.Contains(n.fresh, i) {
				n.fresh = append(n.fresh, i)
			}
		}
		slices.Sort(n.fresh)
		want, got := map[[2]int32]int{}, map[[2]int32]int{}
		for i := range segs {
			for j := range segs[:i] {
				a, b := segs[i].span(2, int32(i)), segs[j].span(2, int32(j))
				if a.touches(&b) && (slices.Contains(n.fresh, int32(i)) || slices.Contains(n.fresh, int32(j))) {
					want[[2]int32{int32(j), int32(i)}]++
				}
			}
		}
		n.compareFew(2, func(a, b int32) { got[[2]int32{min(a, b), max(a, b)}]++ })
		require.Equal(t, want, got)
	}
}

// Wherever three segments and more end, or two that do not follow one another, is among the meets.
func TestMeetsAreAllThatMeet(t *testing.T) {
	eachKind(t, cases(400, 40), func(t *testing.T, _ *rand.Rand, _ FillRule, a, b Path) {
		ar := arrange(inputs([]Path{a, b}))
		defer ar.release()
		if ar.meets.many {
			return
		}
		ends := map[ipoint]int{}
		for i, s := range ar.segs {
			ends[s.b]++
			if i == 0 || ar.segs[i-1].b != s.a {
				ends[s.a] += 2 // a ring begins
			} else {
				ends[s.a]++
			}
		}
		for p, n := range ends {
			if n > 2 {
				assert.Contains(t, ar.meets.at, p, "%d ends", n)
			}
		}
	})
}

func TestAnExtentHoldsAllItWasGiven(t *testing.T) {
	var e extent
	assert.Equal(t, Rect{}, e.rect())
	for _, p := range []Point{Pt(3, -2), Pt(-1, 4), Pt(0, 0)} {
		e.hold(p)
	}
	assert.Equal(t, Rect{-1, -2, 4, 6}, e.rect())
	assert.Equal(t, Rect{7, 8, 0, 0}, mustPath("M7 8L7 8").Bounds())
}

// A ring that reaches too far is left out by itself; the others are combined as if it were not there.
func TestARingThatReachesTooFarIsLeftOut(t *testing.T) {
	near := RectPath(Rect{0, 0, 10, 10})
	for _, far := range []Path{RectPath(Rect{0, 0, 2 * combined, 5}), mustPath("M0 0Q3e6 0 5 5Z")} {
		ar, err := arrangeIn(context.Background(), inputs([]Path{Join(near, far)}))
		require.NoError(t, err)
		assert.Equal(t, 1, ar.rings)
		assert.Len(t, ar.of, len(ar.base))
		ar.release()
		assert.Equal(t, Union(NonZero, near).Data(9), Union(NonZero, Join(far, near)).Data(9))
	}
	assert.True(t, Union(NonZero, RectPath(Rect{0, 0, 3 * combined, 1})).Empty())
}

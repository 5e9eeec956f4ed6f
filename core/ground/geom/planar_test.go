package geom

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func box(r Rect) []LineSegment {
	p := []Point{{r.X, r.Y}, {r.Right(), r.Y}, {r.Right(), r.Bottom()}, {r.X, r.Bottom()}}
	var out []LineSegment
	for i := range p {
		out = append(out, LineSegment{p[i], p[(i+1)%4]})
	}
	return out
}

func TestLinesDivideASheet(t *testing.T) {
	sheet := box(Rect{0, 0, 20, 10})
	d := Subdivide(append(sheet, LineSegment{Pt(10, 0), Pt(10, 10)}, LineSegment{Pt(0, 5), Pt(20, 5)}, LineSegment{Pt(2, 2), Pt(4, 2)}, LineSegment{Pt(15, 5), Pt(15, 7)}))
	require.Len(t, d.Faces, 4)
	for _, f := range d.Faces {
		assert.InDelta(t, 50, d.Path(f.Ring).Area(), 1e-9)
	}
	assert.Equal(t, []int{6, 7}, d.Loose, "lines that end in nowhere divide nothing")
	for _, e := range d.Edges {
		if e.Left >= 0 && e.Right >= 0 {
			assert.NotEqual(t, e.Left, e.Right)
			mid := d.Points[e.A].Lerp(d.Points[e.B], .5)
			v := d.Points[e.B].Sub(d.Points[e.A])
			left := mid.Add(outward(v).Mul(.01))
			assert.Equal(t, 1, d.Path(d.Faces[e.Left].Ring).Winding(left))
			assert.Equal(t, 1, d.Path(d.Faces[e.Right].Ring).Winding(mid.Sub(outward(v).Mul(.01))))
		}
	}
	// A window is a face of its own and a hole in the face around.
	d = Subdivide(append(sheet, box(Rect{5, 3, 4, 4})...))
	require.Len(t, d.Faces, 2)
	holes := 0
	for _, f := range d.Faces {
		holes += len(f.Holes)
	}
	assert.Equal(t, 1, holes)
	// Lines on lines are told by both.
	d = Subdivide(append(sheet, LineSegment{Pt(10, 0), Pt(10, 10)}, LineSegment{Pt(10, 4), Pt(10, 6)}))
	both := 0
	for _, e := range d.Edges {
		if len(e.Lines) == 2 {
			both++
		}
	}
	assert.Equal(t, 1, both)
}

// Faces cover the sheet once, whatever the lines.
func TestFacesCoverTheSheet(t *testing.T) {
	r := rand.New(rand.NewPCG(81, 82))
	for range cases(20000, 500) {
		lines := box(Rect{0, 0, 100, 60})
		for range 1 + r.IntN(12) {
			p := func() Point { return Pt(float64(r.IntN(21))*5, float64(r.IntN(13))*5) }
			if r.IntN(3) == 0 {
				p = func() Point { return Pt(r.Float64()*100, r.Float64()*60) }
			}
			lines = append(lines, LineSegment{p(), p()})
		}
		d := Subdivide(lines)
		sum := 0.0
		for _, f := range d.Faces {
			sum += d.Path(f.Ring).Area()
			for _, h := range f.Holes {
				sum += d.Path(h).Area()
			}
		}
		require.InDelta(t, 6000, sum, 1e-3, "%v", lines)
		for _, e := range d.Edges {
			require.True(t, e.Left >= 0 || e.Right >= 0)
		}
	}
}

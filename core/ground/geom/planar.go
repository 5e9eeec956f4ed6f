package geom

import (
	"cmp"
	"context"
	"math"
	"slices"
)

// LineSegment is a straight line between two points.
type LineSegment struct{ From, To Point }

// Subdivision is the plane cut up by straight lines.
type Subdivision struct {
	Points []Point
	Edges  []SubdivisionEdge
	Faces  []SubdivisionFace
	// Loose are lines of which a part ends in nowhere: it divides nothing.
	Loose []int
}

// SubdivisionEdge is a piece of one or more lines between two points. Left and
// Right are the faces on either side when going from A to B with y down: Left
// is on the left on screen. -1 is the outside.
type SubdivisionEdge struct {
	A, B        int
	Lines       []int
	Left, Right int
}

// SubdivisionFace is a bounded region: its ring clockwise on screen, and the rings
// of what lies in it without touching its ring, the other way round.
type SubdivisionFace struct {
	Ring  []int
	Holes [][]int
}

// Path is a ring of points as a path.
func (d *Subdivision) Path(ring []int) Path {
	pts := make([]Point, len(ring))
	for i, p := range ring {
		pts[i] = d.Points[p]
	}
	return PolygonPath(pts...)
}

// Subdivide cuts the plane by lines. Lines may cross, touch and lie on each
// other; parts that end in nowhere are named and divide nothing.
func Subdivide(lines []LineSegment) Subdivision {
	var all extent
	for _, l := range lines {
		all.hold(l.From)
		all.hold(l.To)
	}
	g := newGrid(all.rect())
	in := g.in()
	exact := map[ipoint]Point{}
	var segs []seg
	for i, l := range lines {
		a, b := round(in.Apply(l.From)), round(in.Apply(l.To))
		for p, q := range map[ipoint]Point{a: l.From, b: l.To} {
			if _, ok := exact[p]; !ok {
				exact[p] = q
			}
		}
		if a != b {
			segs = append(segs, seg{a, b, 0, 1, int32(i)})
		}
	}
	segs, _ = node(segs, &ending{ctx: context.Background()}, &meets{})
	d := divider{ids: map[ipoint]int{}, exact: exact, grid: g}
	d.collect(segs)
	d.prune()
	d.trace()
	return d.Subdivision
}

type divider struct {
	Subdivision
	ids   map[ipoint]int
	at    []ipoint
	exact map[ipoint]Point
	grid  grid
	dead  []bool // of each edge
}

func (d *divider) point(p ipoint) int {
	id, ok := d.ids[p]
	if !ok {
		id = len(d.at)
		d.ids[p] = id
		d.at = append(d.at, p)
		q, ok := d.exact[p]
		if !ok {
			q = d.grid.out(p)
		}
		d.Points = append(d.Points, q)
	}
	return id
}

func (d *divider) collect(segs []seg) {
	known := map[[2]int]int{}
	for _, s := range segs {
		a, b := d.point(s.a), d.point(s.b)
		key := [2]int{min(a, b), max(a, b)}
		i, ok := known[key]
		if !ok {
			i = len(d.Edges)
			known[key] = i
			d.Edges = append(d.Edges, SubdivisionEdge{A: a, B: b, Left: -1, Right: -1})
		}
		if e := &d.Edges[i]; !slices.Contains(e.Lines, int(s.strand)) {
			e.Lines = append(e.Lines, int(s.strand))
		}
	}
	d.dead = make([]bool, len(d.Edges))
}

// prune takes away edges that end in nowhere until none is left.
func (d *divider) prune() {
	degree := make([]int, len(d.Points))
	for _, e := range d.Edges {
		degree[e.A]++
		degree[e.B]++
	}
	for again := true; again; {
		again = false
		for i, e := range d.Edges {
			if d.dead[i] || degree[e.A] > 1 && degree[e.B] > 1 {
				continue
			}
			d.dead[i], again = true, true
			degree[e.A]--
			degree[e.B]--
			for _, l := range e.Lines {
				if !slices.Contains(d.Loose, l) {
					d.Loose = append(d.Loose, l)
				}
			}
		}
	}
	slices.Sort(d.Loose)
}

// trace follows every face around. A directed edge is twice its number, plus
// one when it goes from B to A.
//
// It stays whole: the rings, the faces and the holes are three loops over the same edges.
//
//gocognit:ignore
func (d *divider) trace() {
	out := make([][]int, len(d.Points))
	for i, e := range d.Edges {
		if !d.dead[i] {
			out[e.A] = append(out[e.A], 2*i)
			out[e.B] = append(out[e.B], 2*i+1)
		}
	}
	angle := func(h int) float64 {
		a, b := d.ends(h)
		v := d.at[b].sub(d.at[a])
		return math.Atan2(float64(v.y), float64(v.x))
	}
	for _, o := range out {
		slices.SortFunc(o, func(a, b int) int { return cmp.Compare(angle(a), angle(b)) })
	}
	// With the face on the right on screen (clockwise), the next edge is the
	// one before the way back, turning with growing angle.
	next := func(h int) int {
		_, b := d.ends(h)
		o := out[b]
		i := slices.Index(o, h^1)
		return o[(i+len(o)-1)%len(o)]
	}
	face := make([]int, 2*len(d.Edges))
	for i := range face {
		face[i] = -2
	}
	type hole struct {
		ring  []int
		edges []int
	}
	var holes []hole
	for h := range face {
		if face[h] != -2 || d.dead[h/2] {
			continue
		}
		var ring, edges []int
		area := 0.0
		for at := h; face[at] == -2; at = next(at) {
			a, b := d.ends(at)
			ring, edges = append(ring, a), append(edges, at)
			area += d.Points[a].Cross(d.Points[b])
			face[at] = -1
		}
		if area > 0 {
			for _, e := range edges {
				face[e] = len(d.Faces)
			}
			d.Faces = append(d.Faces, SubdivisionFace{Ring: ring})
		} else {
			holes = append(holes, hole{ring, edges})
		}
	}
	// What hangs together with nothing else lies in the smallest face around.
	for _, h := range holes {
		best, size := -1, math.Inf(1)
		p := d.Points[h.ring[0]]
		for i, f := range d.Faces {
			if slices.Contains(f.Ring, h.ring[0]) {
				continue
			}
			ring := d.Path(f.Ring)
			if a := ring.Area(); a < size && ring.Winding(p) != 0 {
				best, size = i, a
			}
		}
		if best >= 0 {
			d.Faces[best].Holes = append(d.Faces[best].Holes, h.ring)
			for _, e := range h.edges {
				face[e] = best
			}
		}
	}
	for i := range d.Edges {
		if !d.dead[i] {
			d.Edges[i].Right, d.Edges[i].Left = max(face[2*i], -1), max(face[2*i+1], -1)
		}
	}
	kept := d.Edges[:0]
	for i, e := range d.Edges {
		if !d.dead[i] {
			kept = append(kept, e)
		}
	}
	d.Edges = kept
}

func (d *divider) ends(h int) (a, b int) {
	e := d.Edges[h/2]
	if h&1 == 1 {
		return e.B, e.A
	}
	return e.A, e.B
}

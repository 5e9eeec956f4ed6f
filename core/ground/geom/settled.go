package geom

import "math"

// What need not be held against each other again once segments are cut.
//
// The first round cuts segments at places that lie within nearBy/4 of them, so a piece lies within nearBy/4 of
// its segment, and pieces of two segments can touch, with the slack of two units, only where the segments come
// within nearBy of each other. Where two segments cross or share an end, at an angle θ, that is within
// nearBy/sin θ of there. If no end of their other pieces is that near, only the pieces that share that place are,
// and they leave it in different directions: they meet nowhere else. Two segments that come near each other in
// any other way are remembered, and their pieces are compared.
const (
	nearBy = 8
	// bowed is how much farther off the ends of pieces are asked to lie, for what rounding moves.
	bowed = 16
)

// clear2 is the square of the distance from where two segments with the directions v and w meet within which
// no piece of either may end. It is infinite for those that lie on each other.
func clear2(v, w ipoint) float64 {
	area := float64(v.cross(w))
	d := nearBy*math.Sqrt(float64(v.dot(v))*float64(w.dot(w)))/math.Abs(area) + bowed
	return d * d
}

// nearness is what a finder notes in the first round of segments that are near each other.
type nearness struct {
	pairs  [][2]int32 // that come near each other where they neither cross nor share an end
	spikes []spike
	many   bool // more pairs than are noted
}

// spike is an end that two segments share in less than a right angle.
type spike struct {
	i, j int32
	at   ipoint
}

// settled reports whether after the first round only pieces of segments that were noted as near each other
// can meet. segs are the pieces, those of segment i from starts[i]; spare are the segments.
func (n *noder) settled() bool {
	if n.tight {
		return false
	}
	comparisons := 0
	for k := range n.finders {
		near := &n.finders[k].near
		if near.many {
			return false
		}
		for _, p := range near.pairs {
			comparisons += n.pieces(p[0]) * n.pieces(p[1])
		}
		if comparisons > len(n.segs) {
			return false
		}
		for i := range near.spikes {
			s := &near.spikes[i]
			if n.pieces(s.i)+n.pieces(s.j) == 2 {
				continue // as they were
			}
			_, v, w, _ := n.spare[s.i].sharedEnd(&n.spare[s.j])
			if far := clear2(v, w); !n.clearOf(s.i, s.at, far) || !n.clearOf(s.j, s.at, far) {
				return false
			}
		}
	}
	return true
}

// pieces is how many pieces a segment was cut into.
func (n *noder) pieces(i int32) int { return int(n.starts[i+1] - n.starts[i]) }

// clearOf reports whether the piece of a segment that ends at one of its ends is longer than the root of a
// number.
func (n *noder) clearOf(i int32, end ipoint, clear2 float64) bool {
	p := &n.segs[n.starts[i]]
	if p.a != end {
		p = &n.segs[n.starts[i+1]-1]
	}
	d := p.b.sub(p.a)
	return float64(d.dot(d)) > clear2
}

// compareNear holds the pieces of segments that were noted as near each other against each other.
func (n *noder) compareNear(slack int32) {
	f := &n.finders[0]
	for k := range n.finders {
		for _, p := range n.finders[k].near.pairs {
			if n.pieces(p[0]) == 1 && n.pieces(p[1]) == 1 {
				continue // as they were
			}
			for i := n.starts[p[0]]; i < n.starts[p[0]+1]; i++ {
				s := n.segs[i].span(slack, i)
				for j := n.starts[p[1]]; j < n.starts[p[1]+1]; j++ {
					if o := n.segs[j].span(slack, j); s.touches(&o) {
						f.pair(i, j)
					}
				}
			}
		}
	}
}

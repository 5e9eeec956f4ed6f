package geom

import (
	"cmp"
	"math/bits"
	"slices"
)

// FillRule tells which places a path covers from how often it runs round them.
type FillRule uint8

// The fill rules of SVG, and one for outlines whose direction is known.
const (
	NonZero  FillRule = iota // run round at all, one way on balance
	EvenOdd                  // run round an odd number of times
	Positive                 // run round clockwise on balance
)

func (f FillRule) covers(w int32) bool {
	switch f {
	case EvenOdd:
		return w&1 != 0
	case Positive:
		return w > 0
	}
	return w != 0
}

// Union is what any of the paths covers. Of all functions that combine paths:
// open rings count as closed; the result has outer rings clockwise on screen,
// each followed by its holes, which run the other way, no crossings and no
// ring that touches itself; its curves are pieces of the curves that came in,
// within 2 nm (for outlines within a metre), and it covers the same places
// under every rule. Rings slimmer than 2 nm are left out.
//
// Many paths that lie on each other are united in groups, and these again, so that what is
// covered is not worked on any more; each of the up to four rounds adds 2 nm.
func Union(rule FillRule, paths ...Path) Path {
	for crowded(paths) {
		paths, rule = inGroups(rule, paths), NonZero
	}
	return combine(rule, paths, Unite)
}

// When paths are united in groups: how many there are, how many lie on each other on
// average, by their boxes, and how many make a group.
const (
	crowd     = 24
	crowdDeep = 4
	groupOf   = 8
)

func crowded(paths []Path) bool {
	if len(paths) < crowd {
		return false
	}
	var all Rect
	sum := 0.0
	for _, p := range paths {
		b := p.Bounds()
		all = all.Union(b)
		sum += b.W * b.H
	}
	return sum > crowdDeep*all.W*all.H
}

// inGroups unites paths that are near each other: neighbours along the Z-order curve of
// their middles (Morton, 1966).
func inGroups(rule FillRule, paths []Path) []Path {
	var all Rect
	for _, p := range paths {
		all = all.Union(p.Bounds())
	}
	type placed struct {
		code uint64
		path Path
	}
	order := make([]placed, len(paths))
	for i, p := range paths {
		c := p.Bounds().Centre()
		order[i] = placed{morton((c.X-all.X)/max(all.W, 1e-9), (c.Y-all.Y)/max(all.H, 1e-9)), p}
	}
	slices.SortStableFunc(order, func(a, b placed) int { return cmp.Compare(a.code, b.code) })
	out := make([]Path, 0, len(paths)/groupOf+1)
	for group := range slices.Chunk(order, groupOf) {
		near := make([]Path, len(group))
		for i, g := range group {
			near[i] = g.path
		}
		out = append(out, combine(rule, near, Unite))
	}
	return out
}

// morton interleaves the bits of two shares, 0 to 1.
func morton(x, y float64) (code uint64) {
	a, b := uint64(min(max(x, 0), 1)*65535), uint64(min(max(y, 0), 1)*65535)
	for bit := range 16 {
		code |= (a>>bit&1)<<(2*bit) | (b>>bit&1)<<(2*bit+1)
	}
	return code
}

// Intersection is what all of the paths cover.
func Intersection(rule FillRule, paths ...Path) Path { return combine(rule, paths, Intersect) }

// Difference is what the first path covers and none of the others does.
func Difference(rule FillRule, first Path, others ...Path) Path {
	return combine(rule, append([]Path{first}, others...), Subtract)
}

// Xor is what an odd number of the paths covers.
func Xor(rule FillRule, paths ...Path) Path { return combine(rule, paths, Alternate) }

// counter classifies by how many paths cover a region, and whether the first
// does.
type counter struct {
	n, all int
	first  bool
	in     func(n, all int, first bool) bool
}

func (c *counter) turn(path int32, covered bool) {
	if covered {
		c.n++
	} else {
		c.n--
	}
	if path == 0 {
		c.first = covered
	}
}

func (c *counter) class() int32 {
	if c.in(c.n, c.all, c.first) {
		return 1
	}
	return 0
}

func combine(rule FillRule, paths []Path, op Operation) Path {
	ar := arrange(inputs(paths))
	defer ar.release()
	if out, ok := ar.chainPath(rule, op.in); ok {
		return out
	}
	return ar.label(rule, &counter{all: len(paths), in: op.in}).path()
}

// path is all regions with a class as one path.
func (sd *subdivision) path() Path {
	b := Builder{segs: sd.room.out[:0]}
	parts := sd.partsAs(func(halves []half) Path {
		first := len(b.segs)
		sd.write(&b, halves)
		return Path{b.segs[first:]}
	})
	sd.room.out = b.segs
	var all []Path
	for _, p := range parts {
		all = append(all, p.rings...)
	}
	return Join(all...)
}

func inputs(paths []Path) []input {
	out := make([]input, len(paths))
	for i, p := range paths {
		out[i].path = p
	}
	return out
}

// Part is a connected region and the numbers of the paths that cover it.
type Part struct {
	Path  Path
	Cover []int
}

// Divide cuts all that the paths cover along all their outlines. Parts are in
// the order of their leftmost points.
func Divide(rule FillRule, paths ...Path) []Part {
	c := &coverer{set: make([]uint64, (len(paths)+63)/64), ids: map[string]int32{}, covers: [][]int{nil}}
	ar := arrange(inputs(paths))
	defer ar.release()
	sd := ar.label(rule, c)
	var out []Part
	for _, p := range sd.parts() {
		out = append(out, Part{Join(p.rings...), c.covers[p.class]})
	}
	return out
}

// coverer gives every set of covering paths a class of its own.
type coverer struct {
	set    []uint64
	n      int
	ids    map[string]int32
	covers [][]int
	name   []byte
}

func (c *coverer) turn(path int32, covered bool) {
	c.set[path/64] ^= 1 << (path % 64)
	if covered {
		c.n++
	} else {
		c.n--
	}
}

func (c *coverer) class() int32 {
	if c.n == 0 {
		return 0
	}
	c.name = c.name[:0]
	for _, w := range c.set {
		for i := range 8 {
			c.name = append(c.name, byte(w>>(8*i)))
		}
	}
	if id, ok := c.ids[string(c.name)]; ok {
		return id
	}
	var cover []int
	for i, w := range c.set {
		for ; w != 0; w &= w - 1 {
			cover = append(cover, i*64+bits.TrailingZeros64(w))
		}
	}
	id := int32(len(c.covers))
	c.ids[string(c.name)], c.covers = id, append(c.covers, cover)
	return id
}

// region is a connected region with its class: its outer ring first, then its holes.
type region struct {
	rings []Path
	class int32
}

// parts are the regions with a class.
func (sd *subdivision) parts() []region {
	return sd.partsAs(func(halves []half) Path {
		var b Builder
		sd.write(&b, halves)
		return b.Path()
	})
}

// partsAs is parts with rings as they are written.
func (sd *subdivision) partsAs(write func([]half) Path) []region {
	rings := sd.outlines()
	of := make([]int32, len(rings)) // the region of an outer ring, from 1
	var out []region
	for i := range rings {
		r := &rings[i]
		if r.hole {
			continue
		}
		if outer := write(r.halves); !r.nothing(outer) {
			out = append(out, region{[]Path{outer}, r.class})
			of[i] = int32(len(out))
		}
	}
	for i := range rings {
		r := &rings[i]
		if !r.hole || r.parent < 0 || of[r.parent] == 0 {
			continue
		}
		if hole := write(r.halves); !r.nothing(hole) {
			p := &out[of[r.parent]-1]
			p.rings = append(p.rings, hole)
		}
	}
	for i := range out {
		slices.SortStableFunc(out[i].rings[1:], byStart)
	}
	slices.SortStableFunc(out, func(p, q region) int { return byStart(p.rings[0], q.rings[0]) })
	return out
}

// byStart orders paths by where they start, from left to right, and those that start in one
// place by how they go on.
func byStart(p, q Path) int {
	for i := range min(len(p.segs), len(q.segs)) {
		s, u := &p.segs[i], &q.segs[i]
		for k := range s.P {
			if d := cmp.Or(cmp.Compare(s.P[k].X, u.P[k].X), cmp.Compare(s.P[k].Y, u.P[k].Y)); d != 0 {
				return d
			}
		}
	}
	return cmp.Compare(len(p.segs), len(q.segs))
}

// CutStrokes cuts the strokes of a path, open or closed, along the edge of a
// region. What runs along the edge counts as inside.
func CutStrokes(strokes Path, rule FillRule, area Path) (inside, outside Path) {
	ar := arrange([]input{{path: area}, {path: strokes, strokes: true}})
	defer ar.release()
	sd := ar.label(rule, &counter{all: 1, in: Unite.in})
	in := make([]bool, len(sd.segs))
	for _, e := range sd.edges {
		for s := e.first; s >= 0; s = sd.next[s] {
			in[s] = e.below != 0 || e.above != 0
		}
	}
	// Segments of a strand follow one another.
	first := make([]int, len(sd.strands)+1)
	for _, s := range sd.segs {
		first[s.strand+1]++
	}
	for i := 1; i < len(first); i++ {
		first[i] += first[i-1]
	}
	var ins, outs Builder
	for _, stroke := range sd.courses {
		var steps []step
		for _, c := range stroke {
			list := sd.segs[first[c.strand]:first[c.strand+1]]
			for i := range list {
				k := first[c.strand] + i
				if c.against {
					k = first[c.strand] + len(list) - 1 - i
				}
				steps = append(steps, sd.stepAlong(sd.segs[k], c.against, in[k]))
			}
		}
		sd.writeStroke(steps, &ins, &outs)
	}
	return ins.Path(), outs.Path()
}

// writeStroke writes the stretches of a stroke that lie inside and outside.
func (sd *subdivision) writeStroke(steps []step, ins, outs *Builder) {
	if len(steps) == 0 {
		return
	}
	n := len(steps)
	closed := steps[0].from == steps[n-1].to
	if closed {
		// Begin where the side changes, if it does.
		for i := range steps {
			if steps[i].inside != steps[(i+n-1)%n].inside {
				steps = slices.Concat(steps[i:], steps[:i])
				closed = false
				break
			}
		}
	}
	for len(steps) > 0 {
		k := 1
		for k < len(steps) && steps[k].inside == steps[0].inside {
			k++
		}
		b := outs
		if steps[0].inside {
			b = ins
		}
		sd.writeSteps(b, steps[:k], closed)
		steps = steps[k:]
	}
}

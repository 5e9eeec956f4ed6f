package stencil

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// Options say how islands are held.
type Options struct {
	Each  int     // bridges to an island, 1 to 4
	Width float64 // of a bridge, mm
	Foot  float64 // radius by which a bridge grows wider at its ends, mm
	// InLine sets the bridges of neighbouring islands along one straight line; else each is
	// where its way is the shortest.
	InLine bool
	// Placed are points on the edges of islands that bridges leave from. An island with one that
	// leads to ground has those alone.
	Placed []geom.Point
}

// Strip is a bridge.
type Strip struct {
	// Path is the strip as far as it lies in the hole.
	Path geom.Path `json:"path"`
	// From is where it leaves the island, and Ring the edge of that.
	From   geom.Point `json:"from"`
	Ring   geom.Path  `json:"ring"`
	Placed bool       `json:"placed,omitempty"` // by Options.Placed
}

// Result is an outline with its bridges.
type Result struct {
	Outline geom.Path
	Bridges []Strip
	// Loose are the islands that no bridge reaches.
	Loose []geom.Path
}

// edge is a piece of a flattened ring of a part.
type edge struct {
	a, b geom.Point
	of   int // the part whose ground it bounds
}

// bridger holds what is known of an outline while bridges are sought.
type bridger struct {
	opt      Options
	parts    []part
	edges    []edge
	anchored []bool
}

// flat is how near the flattened rings, which bridges are measured by, are to the outline, mm.
const flat = .005

// Bridge holds the islands of a clean outline by strips to the ground that stays, one depth of
// islands after another.
func Bridge(p geom.Path, opt Options) Result {
	b := newBridger(p, opt)
	out := Result{Outline: p}
	if !slices.Contains(b.anchored, false) {
		return out
	}
	lines := b.lines()
	placed := b.placed()
	var strips []geom.Path
	for held := true; held; {
		held = false
		for i, q := range b.parts {
			if b.anchored[i] || !b.anchored[q.in] {
				continue
			}
			found := b.bridges(i, lines[i], placed[i])
			// A little into the ground, so that they are one with it.
			hole := geom.Offset(q.hole.Reverse(), 2*flat, geom.MitreCorner)
			for _, s := range found {
				whole := feet(geom.Intersection(geom.NonZero, s.path(opt), hole), p, hole, opt.Foot)
				strips = append(strips, whole)
				if seen := geom.Difference(geom.NonZero, whole, p); !seen.Empty() {
					out.Bridges = append(out.Bridges, Strip{seen, s.from, q.outer, s.placed})
				}
			}
			if len(found) > 0 {
				b.anchored[i], held = true, true
			}
		}
	}
	if len(strips) > 0 {
		out.Outline = geom.Union(geom.NonZero, append([]geom.Path{p}, strips...)...)
	}
	out.Loose = Islands(out.Outline)
	return out
}

// newBridger takes an outline apart; what lies in no hole is anchored.
func newBridger(p geom.Path, opt Options) *bridger {
	b := &bridger{opt: opt, parts: parts(p)}
	for i, q := range b.parts {
		b.anchored = append(b.anchored, q.in < 0)
		for _, ring := range append([]geom.Path{q.outer}, q.holes...) {
			for _, l := range ring.Flatten(flat) {
				for k, at := range l.Points {
					b.edges = append(b.edges, edge{at, l.Points[(k+1)%len(l.Points)], i})
				}
			}
		}
	}
	return b
}

// strip is a way from an island to the ground: from a point of its edge in a direction, and
// how far the strip starts before it and ends past the ground, so that its whole width is held.
type strip struct {
	from         geom.Point
	ahead        geom.Point // a unit vector
	gap          float64
	before, past float64
	at           float64 // where it starts, in shares of the island's ring
	placed       bool
}

// path is the outline of the strip.
func (s strip) path(opt Options) geom.Path {
	a, e, h := -s.before, s.gap+s.past, opt.Width/2
	at := func(u, v float64) geom.Point {
		return s.from.Add(s.ahead.Mul(u)).Add(geom.Pt(-s.ahead.Y, s.ahead.X).Mul(v))
	}
	var b geom.Builder
	return geom.Union(geom.NonZero, b.Move(at(a, -h)).Line(at(e, -h)).Line(at(e, h)).Line(at(a, h)).Close().Path())
}

// feet is a strip across a hole with its corners with the ground rounded: what lies beside it
// in the ground and the strip together, closed by a disc (grown and shrunk again).
func feet(strip, ground, hole geom.Path, radius float64) geom.Path {
	if radius <= 0 {
		return strip
	}
	reach := geom.RectPath(strip.Bounds().Grow(3 * radius))
	local := geom.Union(geom.NonZero, geom.Intersection(geom.NonZero, ground, reach), strip)
	closed := geom.Offset(geom.Offset(local, radius, geom.RoundCorner), -radius, geom.RoundCorner)
	near := geom.Offset(strip, 1.5*radius, geom.RoundCorner)
	var out []geom.Path
	for _, q := range parts(geom.Union(geom.NonZero, strip, geom.Intersection(geom.NonZero, closed, near, hole))) {
		// What was closed elsewhere is no part of it.
		if region := q.path(); geom.Intersection(geom.NonZero, region, strip).Area() > speck {
			out = append(out, region)
		}
	}
	return geom.Join(out...)
}

// bridges are those of an island: from the places that are given, where one of them leads to
// ground.
func (b *bridger) bridges(island int, line line, placed []strip) []strip {
	var out []strip
	for _, p := range placed {
		if s, ok := b.strip(island, p.from, p.ahead); ok {
			s.at, s.placed = p.at, true
			out = append(out, s)
		}
	}
	if len(out) > 0 {
		return out
	}
	if b.opt.InLine {
		out = b.inLine(island, line)
	}
	if len(out) >= b.opt.Each {
		return out
	}
	return b.shortest(island, out)
}

// apart is how far bridges of an island are at least from each other, of an even spacing.
const apart = .6

// shortest adds the bridges with the shortest ways, well apart round the island.
func (b *bridger) shortest(island int, have []strip) []strip {
	all := b.around(island)
	slices.SortStableFunc(all, func(a, c strip) int { return cmp.Compare(a.gap+a.past+a.before, c.gap+c.past+c.before) })
	least := apart / float64(b.opt.Each)
	for _, s := range all {
		if len(have) >= b.opt.Each {
			break
		}
		if !slices.ContainsFunc(have, func(o strip) bool {
			d := math.Abs(o.at - s.at)
			return min(d, 1-d) < least
		}) {
			have = append(have, s)
		}
	}
	return have
}

// tries is at how many places round an island a bridge is sought.
const tries = 144

// around are the strips that leave an island straight outward from places round it.
func (b *bridger) around(island int) []strip {
	ring := b.parts[island].outer
	length := ring.Length()
	var out []strip
	for i := range tries {
		share := (float64(i) + .5) / tries
		from, ok := leave(ring, share, length)
		if !ok {
			continue
		}
		if s, ok := b.strip(island, from.from, from.ahead); ok {
			s.at = share
			out = append(out, s)
		}
	}
	return out
}

// leave is where a strip starts straight outward at a share of a ring's length.
func leave(ring geom.Path, share, length float64) (strip, bool) {
	at, ahead, ok := ring.PointAt(share * length)
	// A ring runs clockwise: outward is to its left.
	return strip{from: at, ahead: geom.Pt(ahead.Y, -ahead.X), at: share}, ok
}

// Near is how far a given place may be from the edge of its island, mm.
const Near = .2

// placed are the starts of strips that are given, by their islands.
func (b *bridger) placed() map[int][]strip {
	out := map[int][]strip{}
	for _, p := range b.opt.Placed {
		of, best := -1, geom.Nearest{Distance: Near}
		for i, q := range b.parts {
			if n, ok := q.outer.Nearest(p); ok && q.in >= 0 && n.Distance < best.Distance {
				of, best = i, n
			}
		}
		if of < 0 {
			continue
		}
		ring := b.parts[of].outer
		if s, ok := leave(ring, Share(ring, best), ring.Length()); ok {
			out[of] = append(out[of], s)
		}
	}
	return out
}

// strip is that from a point of an island's edge in a direction; ok is false where it meets
// no ground that stays, or too far to the sides.
func (b *bridger) strip(island int, from, ahead geom.Point) (s strip, ok bool) {
	hit := b.first(from, ahead, 1e-4)
	if hit.of < 0 || hit.of == island || !b.anchored[hit.of] {
		return strip{}, false
	}
	s = strip{from: from, ahead: ahead, gap: hit.at, before: 2 * flat, past: 2 * flat}
	side := geom.Pt(-ahead.Y, ahead.X).Mul(b.opt.Width / 2)
	half := b.opt.Width / 2
	for _, o := range []geom.Point{side, side.Mul(-1)} {
		// From as far back as half a width: where the island ends, and where the ground begins.
		// Where a side passes either by, the strip goes half a width into it.
		before, past := half, half
		for _, h := range b.along(from.Add(o).Sub(ahead.Mul(half)), ahead, s.gap+b.opt.Width) {
			u := h.at - half
			if h.of == island && u < s.gap/2 {
				before = -u + 2*flat
			}
			if h.of == hit.of && u > s.gap/2 {
				past = u - s.gap + 2*flat
				break
			}
		}
		s.before, s.past = max(s.before, before), max(s.past, past)
	}
	return s, true
}

// crossing is where a ray meets an edge: how far along, and the part of the edge, -1 for none.
type crossing struct {
	at float64
	of int
}

// first is the first edge that a ray meets, not nearer than least.
func (b *bridger) first(from, ahead geom.Point, least float64) crossing {
	best := crossing{math.Inf(1), -1}
	for _, e := range b.edges {
		if at, ok := meets(from, ahead, e); ok && at > least && at < best.at {
			best = crossing{at, e.of}
		}
	}
	return best
}

// along are all edges that a ray meets within a reach, in order.
func (b *bridger) along(from, ahead geom.Point, reach float64) []crossing {
	var out []crossing
	for _, e := range b.edges {
		if at, ok := meets(from, ahead, e); ok && at > 0 && at < reach {
			out = append(out, crossing{at, e.of})
		}
	}
	slices.SortFunc(out, func(a, c crossing) int { return cmp.Compare(a.at, c.at) })
	return out
}

// meets is how far along a ray an edge lies; ok is false where they do not meet.
func meets(from, ahead geom.Point, e edge) (at float64, ok bool) {
	d, w := e.b.Sub(e.a), e.a.Sub(from)
	det := ahead.Cross(d)
	if math.Abs(det) < 1e-15 {
		return 0, false
	}
	at = w.Cross(d) / det
	k := w.Cross(ahead) / det
	return at, k >= 0 && k < 1
}

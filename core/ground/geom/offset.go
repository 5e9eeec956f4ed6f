package geom

import (
	"cmp"
	"context"
	"math"
	"math/rand/v2"
	"slices"
)

// Corner says how an offset goes round an outward corner.
type Corner uint8

// The corners of an offset or a stroke.
const (
	RoundCorner Corner = iota // an arc at the distance
	MitreCorner               // straight on until both sides meet, cut off at MitreLimit
	BevelCorner               // straight across
)

// MitreLimit is how far a mitred corner may reach where no other limit is given, as a
// multiple of the distance.
const MitreLimit = 4

// OffsetOptions say how an offset is made; the zero value is a round one. MitreLimit is the
// length of a mitre in distances of the offset.
type OffsetOptions struct {
	Corner     Corner
	Rule       FillRule
	MitreLimit float64 // how far a mitred corner may reach, as a multiple of the distance; 0 is MitreLimit
	Blunt      bool    // corners beyond the mitre limit are bevelled, not cut off at it
	Tolerance  float64 // how far curves may be from the true place, mm; 0 is a micrometre
}

// offsetTolerance is how far, in mm, curves of an offset may be from the true
// place.
const offsetTolerance = .001

// cornerTolerance is how far, in mm, a corner may step out over its arc and be
// left sharp: fine polygons keep as many sides as they have.
func (o *offsetter) cornerTolerance() float64 { return min(2*o.tolerance, 2*offsetTolerance) }

// Offset is what the closed rings of a path cover by the non-zero rule, grown
// by d on all sides, or shrunk by -d. Lines and circular arcs come out as such,
// other curves as cubics within 1 µm of the true offset; corners that step out by less
// than 2 µm stay sharp.
//
// Each ring is first offset in itself, corners and all, however it crosses
// itself. How often that raw curve runs round a place is the Euler
// characteristic of what the ring's inside has in common with a disc about that
// place (Guibas, Ramshaw and Stolfi, "A kinetic framework for computational
// geometry", 1983): for an inside without holes the number of its parts. So a
// place is covered when it is run round at all, clockwise. A ring that is to
// shrink and fits into the disc as a whole is the one exception, and vanishes.
// Straight cuts across inward corners, instead of arcs run backward, only add
// to the number where it is one or more already.
func Offset(p Path, d float64, corner Corner) Path {
	out, _ := OffsetWith(context.Background(), p, d, OffsetOptions{Corner: corner}) // which never ends
	return out
}

// OffsetWith is Offset with options, for as long as the context lasts. The error is the
// context's. d is mm, outward.
func OffsetWith(ctx context.Context, p Path, d float64, opt OffsetOptions) (Path, error) {
	if opt.Tolerance == 0 {
		opt.Tolerance = offsetTolerance
	}
	clean, err := cleanRings(ctx, p, opt.Rule)
	if err != nil {
		return Path{}, err
	}
	if d == 0 {
		var all []Path
		for _, face := range clean {
			all = append(all, face...)
		}
		return Join(all...), nil
	}
	var raw []Path
	f := &faces{}
	for _, face := range clean {
		for i, ring := range face {
			by := d
			if i > 0 {
				ring, by = ring.Reverse(), -d
			}
			if by < 0 && fitsDisc(ring, -by) {
				if i == 0 {
					break
				}
				continue
			}
			if i == 0 {
				f.outer = append(f.outer, false)
				f.holes = append(f.holes, 0)
			}
			f.ring = append(f.ring, faceRing{len(f.outer) - 1, i > 0})
			raw = append(raw, rawOffset(ring, by, opt, false))
		}
	}
	ar, err := arrangeIn(ctx, inputs(raw))
	if err != nil {
		return Path{}, err
	}
	defer ar.release()
	od := ar.label(Positive, f)
	od.slim = 2 * opt.Tolerance * od.grid.scale
	return od.path(), nil
}

// cleanRings are the connected parts of what a path covers: of each the outer
// ring, then its holes. The error is the context's.
func cleanRings(ctx context.Context, p Path, rule FillRule) ([][]Path, error) {
	p = p.sound()
	ar, err := arrangeIn(ctx, []input{{path: p}})
	if err != nil {
		return nil, err
	}
	defer ar.release()
	if clockwise, ok := ar.simple(); ok && p.Closed() && rule != Positive {
		if !clockwise {
			p = p.Reverse()
		}
		return [][]Path{{p}}, nil
	}
	var out [][]Path
	for _, part := range ar.label(rule, &counter{all: 1, in: Unite.in}).parts() {
		out = append(out, part.rings)
	}
	return out, nil
}

// faces classifies regions by outer rings, each with its own holes.
type faces struct {
	ring  []faceRing
	outer []bool // of each face, whether its outer ring covers here
	holes []int  // and how many of its holes do
	n     int    // faces that cover here
}

type faceRing struct {
	face int
	hole bool
}

func (f *faces) turn(path int32, covered bool) {
	r := f.ring[path]
	was := f.outer[r.face] && f.holes[r.face] == 0
	switch {
	case !r.hole:
		f.outer[r.face] = covered
	case covered:
		f.holes[r.face]++
	default:
		f.holes[r.face]--
	}
	if is := f.outer[r.face] && f.holes[r.face] == 0; is && !was {
		f.n++
	} else if was && !is {
		f.n--
	}
}

func (f *faces) class() int32 { return int32(min(f.n, 1)) }

// fitsDisc reports whether a ring lies in a disc of the radius. (Welzl,
// "Smallest enclosing disks", 1991, in its iterative form.)
func fitsDisc(ring Path, radius float64) bool {
	if b := ring.Bounds(); max(b.W, b.H)/2 > radius {
		return false
	}
	var pts []Point
	for _, l := range ring.Flatten(min(.01, radius/50)) {
		pts = append(pts, l.Points...)
	}
	rand.New(rand.NewPCG(1, 2)).Shuffle(len(pts), func(i, j int) { pts[i], pts[j] = pts[j], pts[i] })
	c, r := Point{}, -1.0
	out := func(p Point) bool { return p.Sub(c).Len() > r*(1+1e-12)+1e-12 }
	two := func(p, q Point) { c = p.Lerp(q, .5); r = p.Sub(c).Len() }
	for i, p := range pts {
		if !out(p) {
			continue
		}
		c, r = p, 0
		for j, q := range pts[:i] {
			if !out(q) {
				continue
			}
			two(p, q)
			for _, s := range pts[:j] {
				if out(s) {
					c, r = circumcircle(p, q, s)
				}
			}
		}
	}
	return r <= radius
}

func circumcircle(p, q, s Point) (Point, float64) {
	u, v := q.Sub(p), s.Sub(p)
	k := 2 * u.Cross(v)
	a, b := u.Dot(u), v.Dot(v)
	d := Point{(v.Y*a - u.Y*b) / k, (u.X*b - v.X*a) / k}
	return p.Add(d), d.Len()
}

// outward is the direction to the left of travel on screen: out of a ring that
// runs clockwise.
func outward(tangent Point) Point { return Point{tangent.Y, -tangent.X} }

// rawOffset moves a closed ring outward by d, corners joined, whatever crosses.
// Where it is to be whole nothing is left out of it that cannot be seen.
func rawOffset(ring Path, d float64, opt OffsetOptions, whole bool) Path {
	var o offsetter
	for _, cs := range ring.Curves() {
		o.begin(d, opt)
		o.whole = whole
		o.ring(smoothPieces(cs))
	}
	return o.Path()
}

// smoothPieces cuts curves where they come to a stand and leaves out those without extent. It may return what
// it was given.
func smoothPieces(cs []Curve) []Curve {
	if !slices.ContainsFunc(cs, func(c Curve) bool { return c.nowhere() || c.cusp() > 0 }) {
		return cs
	}
	out := make([]Curve, 0, len(cs)+4)
	for _, c := range cs {
		if t := c.cusp(); t > 0 {
			a, b := c.Split(t)
			out = append(out, a, b)
		} else if !c.nowhere() {
			out = append(out, c)
		}
	}
	return out
}

// nowhere reports whether a curve leads nowhere.
func (c Curve) nowhere() bool {
	if c.Op == LineTo {
		return c.From == c.P[0]
	}
	return c.Tangent(0) == Point{}
}

// cusp is a parameter inside the curve at which its derivative vanishes, or 0.
func (c Curve) cusp() float64 {
	if c.Op != CubicTo && c.Op != QuadTo {
		return 0
	}
	k := cubic(c.From, c.Segment)
	size := k[1].Sub(k[0]).Len() + k[2].Sub(k[1]).Len() + k[3].Sub(k[2]).Len()
	for _, t := range append(turning(k[0].X, k[1].X, k[2].X, k[3].X), turning(k[0].Y, k[1].Y, k[2].Y, k[3].Y)...) {
		if c.Derivative(t).Len() < 1e-5*size {
			return t
		}
	}
	return 0
}

// offsetter writes offset curves one after another.
type offsetter struct {
	Builder
	d      float64
	corner Corner
	at     Point
	begun  bool
	// Of the options.
	mitre, tolerance float64
	blunt            bool
	whole            bool // nothing is left out
}

func (o *offsetter) begin(d float64, opt OffsetOptions) {
	o.d, o.corner, o.blunt, o.begun = d, opt.Corner, opt.Blunt, false
	o.mitre, o.tolerance = cmp.Or(opt.MitreLimit, MitreLimit), cmp.Or(opt.Tolerance, offsetTolerance)
}

// to goes straight to p, or starts there.
func (o *offsetter) to(p Point) {
	if !o.begun {
		o.begun = true
		o.Move(p)
	} else if p.Sub(o.at).Len() > 1e-9 {
		o.Line(p)
	} else {
		return
	}
	o.at = p
}

func (o *offsetter) ring(cs []Curve) {
	if len(cs) == 0 {
		return
	}
	w := o.facets(cs)
	defer rollers.Put(w)
	w.trim(o)
	if w.straights > fewFacets && !o.whole {
		w.roll()
	}
	w.write(o, cs)
	o.Close()
}

// meet lets the offsets of two lines end where they cross, if that is a step
// back from an inward corner, shorter than half of either, or a step out too
// small for an arc. It spares loops that would be taken out again.
func (o *offsetter) meet(a, b Curve) bool {
	if a.Op != LineTo || b.Op != LineTo || o.segs[len(o.segs)-1].Op != LineTo {
		return false
	}
	t0, t1 := a.Tangent(1), b.Tangent(0)
	cross, dot := t0.Cross(t1), t0.Dot(t1)
	if dot < .2 {
		return false
	}
	if cross*o.d > 0 {
		half := math.Sqrt((1 + dot) / 2)
		if o.corner == BevelCorner || math.Abs(o.d)*(1/half-1) >= o.cornerTolerance() {
			return false
		}
	} else {
		// tan(θ/2) = sin θ/(1 + cos θ)
		step := math.Abs(o.d*cross) / (1 + dot)
		if v, w := a.P[0].Sub(a.From), b.P[0].Sub(b.From); 4*step*step > min(v.Dot(v), w.Dot(w)) {
			return false
		}
	}
	m := b.From.Add(outward(t0.Add(t1)).Mul(o.d / (1 + dot)))
	o.segs[len(o.segs)-1].P[0] = m
	o.at = m
	return true
}

// join goes round the corner between two curves.
func (o *offsetter) join(a, b Curve) {
	v, t0, t1 := b.From, a.Tangent(1), b.Tangent(0)
	n0, n1 := outward(t0).Mul(o.d), outward(t1).Mul(o.d)
	cross, dot := t0.Cross(t1), t0.Dot(t1)
	if !turnsOut(cross, dot, o.d) {
		o.to(v.Add(n1))
		return
	}
	// The half angle between the sides has the cosine √((1+dot)/2).
	half := math.Sqrt(max(0, (1+dot)/2))
	switch {
	case o.corner == RoundCorner:
		a0 := math.Atan2(n0.Y, n0.X)
		turn := math.Abs(math.Atan2(cross, dot))
		if o.d < 0 {
			turn = -turn
		}
		o.round(v, math.Abs(o.d), a0, a0+turn, v.Add(n1))
		return
	case o.corner == MitreCorner && half*o.mitre >= 1:
		o.to(v.Add(n0.Add(n1).Mul(1 / (1 + dot))))
	case o.corner == MitreCorner && !o.blunt:
		// Cut off square to the bisector, at the limit.
		k := math.Abs(o.d) * (o.mitre - half) / math.Sqrt(1-half*half)
		o.to(v.Add(n0).Add(t0.Mul(k)))
		o.to(v.Add(n1).Sub(t1.Mul(k)))
	}
	o.to(v.Add(n1))
}

// round adds an arc that ends exactly at a point.
func (o *offsetter) round(c Point, r, a0, a1 float64, end Point) {
	o.segs = append(o.segs, Segment{Op: ArcTo, P: [3]Point{end}, Arc: &Arc{c, Point{X: r}, Point{Y: r}, a0, a1}})
	o.at = end
}

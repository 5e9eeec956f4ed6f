// Package edging runs motifs along outlines: whole repeats, evened in length, bent along curves, their
// depth kept. It stands on geom. Outlines lie x right and y down, in millimetres; outer rings run
// clockwise on screen.
package edging

import (
	"crypto/sha256"
	"math"
	"math/rand/v2"

	"sectilis/core/ground/cache"
	"sectilis/core/ground/geom"
)

// Side is the side of an outline that an edging runs along.
type Side string

// The sides of an outline, as it lies in its own coordinates.
const (
	AllRound Side = ""
	Top      Side = "top"
	Right    Side = "right"
	Bottom   Side = "bottom"
	Left     Side = "left"
)

// Corner is how an edging goes round corners.
type Corner string

// At a corner repeats end, or are carried on to the mitre; a round piece is put there, or the edging is
// turned through it.
const (
	Gap   Corner = ""
	Mitre Corner = "mitre"
	Piece Corner = "piece"
	Turn  Corner = "turn"
)

// Edging says which motif runs along an outline, and how. Lengths are mm.
type Edging struct {
	Motif string  `json:"motif"`
	Depth float64 `json:"depth"`
	// Length is about how long a repeat is; 0 follows from the depth.
	Length float64 `json:"length,omitempty"`
	// Count is how many repeats there are in all, spread by length; 0 follows from their length.
	Count int `json:"count,omitempty"`
	// Inward cuts the motif out of the outline in place of adding it.
	Inward bool   `json:"inward,omitempty"`
	Side   Side   `json:"side,omitempty"`
	Corner Corner `json:"corner,omitempty"`
	// Open takes the middle out, so that a band of that width is left inside the outline; 0 leaves it.
	Open float64 `json:"open,omitempty"`
	Seed uint64  `json:"seed,omitempty"`
}

// Sides lists all sides.
func Sides() []Side { return []Side{AllRound, Top, Right, Bottom, Left} }

// Corners lists all ways round a corner.
func Corners() []Corner { return []Corner{Gap, Mitre, Piece, Turn} }

// Most is the highest number of repeats that is run.
const Most = 2000

// What a direction has to change by to be a corner, radians.
const corner = 20 * math.Pi / 180

type key struct {
	of   [sha256.Size]byte
	spec Edging
}

type run struct {
	path  geom.Path
	count int
}

var runs = cache.New[key, run](500)

// Run is an outline with an edging along its outer rings, and how many repeats that has. Its holes stay
// as they are. An unknown motif leaves it alone.
func Run(of geom.Path, s Edging) (geom.Path, int) {
	m, ok := ByID(s.Motif)
	if !ok {
		return of, 0
	}
	r, _ := runs.Of(key{of.Digest(), s}, func() (run, error) { return along(of, s, m), nil })
	return r.path, r.count
}

// lay is the work on one outline.
type lay struct {
	Edging
	motif  Motif
	rng    *rand.Rand
	length float64
	count  int // repeats so far
	// add and cut are regions beside the outline, holes those of the motif.
	add, cut, holes []geom.Path
}

// along runs a motif along an outline as an edging says.
func along(of geom.Path, s Edging, m Motif) run {
	if s.Depth <= 0 || of.Empty() {
		return run{of, 0}
	}
	l := &lay{Edging: s, motif: m, rng: rand.New(rand.NewPCG(s.Seed, 7)), length: s.Length}
	if l.length <= 0 {
		l.length = s.Depth * m.Ratio
	}
	var outer, inner []geom.Path
	total := 0.0
	for _, ring := range of.Rings() {
		if ring.Area() <= 0 {
			inner = append(inner, ring)
			continue
		}
		if s.Corner == Turn {
			ring = geom.RoundCorners(ring, s.Depth)
		}
		outer = append(outer, ring)
		for _, st := range stretches(ring, s.Side) {
			if st.on(s.Side) {
				total += st.total
			}
		}
	}
	switch {
	case s.Count > 0 && total > 0:
		l.length = total / float64(s.Count)
	case total/l.length > Most:
		l.length = total / Most
	}
	for _, ring := range outer {
		l.ring(ring)
	}
	solid := make([]geom.Path, 0, len(outer)+len(l.add))
	for _, r := range of.Rings() {
		if r.Area() > 0 {
			solid = append(solid, r)
		}
	}
	base := geom.Union(geom.NonZero, solid...)
	out := base
	if len(l.add) > 0 {
		// What lies between two repeats, shut in, is no hole of the motif.
		out = filled(geom.Union(geom.NonZero, append(l.add, base)...))
	}
	if gone := append(append([]geom.Path{}, l.cut...), l.holes...); len(gone) > 0 {
		out = geom.Difference(geom.NonZero, out, geom.Union(geom.NonZero, gone...))
	}
	for i := range inner {
		inner[i] = inner[i].Reverse()
	}
	if s.Open > 0 {
		inner = append(inner, geom.Offset(base, -s.Open, geom.MitreCorner))
	}
	if len(inner) > 0 {
		out = geom.Difference(geom.NonZero, out, geom.Union(geom.NonZero, inner...))
	}
	return run{out, l.count}
}

// filled is an outline without holes.
func filled(p geom.Path) geom.Path {
	var outer []geom.Path
	for _, r := range p.Rings() {
		if r.Area() > 0 {
			outer = append(outer, r)
		}
	}
	return geom.Union(geom.NonZero, outer...)
}

// ring runs the motif along one ring.
func (l *lay) ring(ring geom.Path) {
	all := stretches(ring, l.Side)
	for i, st := range all {
		if !st.on(l.Side) {
			continue
		}
		n := int(math.Round(st.total / l.length))
		if n == 0 {
			continue // too short for a repeat
		}
		l.count += n
		l.region(st, n)
		if next := all[(i+1)%len(all)]; !st.closed && next.on(l.Side) && !l.Inward && l.Corner != Gap {
			l.turnOver(st, next)
		}
	}
}

// bend maps the motif's coordinates to the outline: x in repeats along a stretch of n, y its depth
// outward, or inward.
func (l *lay) bend(st stretch, n int) func(geom.Point) geom.Point {
	w, out := st.total/float64(n), l.Depth
	if l.Inward {
		out = -out
	}
	return func(q geom.Point) geom.Point {
		p, t := st.at(q.X * w)
		return p.Add(geom.Pt(t.Y, -t.X).Mul(q.Y * out))
	}
}

// bendTolerance is how far a bent motif may be off, mm.
const bendTolerance = .004

// region adds, or cuts, what lies between a stretch and the profile along it.
func (l *lay) region(st stretch, n int) {
	f := l.bend(st, n)
	profile := make([]geom.Curve, 0, 8*n)
	for i := range n {
		at := geom.Shift(float64(i), 0)
		for _, cs := range l.mapped(l.motif.profile(l.rng).Transform(at), st, f).Curves() {
			profile = append(profile, cs...)
		}
		if l.motif.holes != nil {
			for _, h := range l.motif.holes() {
				l.holes = append(l.holes, upward(l.mapped(h.Transform(at), st, f)))
			}
		}
	}
	var b geom.Builder
	if st.closed {
		b.Move(profile[0].From)
	} else {
		b.Move(st.curves[0].From).Line(profile[0].From)
	}
	for _, c := range profile {
		b.Add(c)
	}
	if !st.closed {
		back := geom.ReverseCurves(st.curves)
		b.Line(back[0].From)
		for _, c := range back {
			b.Add(c)
		}
	}
	switch p := upward(b.Close().Path()); {
	case !l.Inward:
		l.add = append(l.add, p)
	case st.closed: // what is left is within the profile
		l.cut = append(l.cut, geom.Difference(geom.NonZero, geom.FromCurves(st.curves, true), p))
	default:
		l.cut = append(l.cut, p)
	}
}

// mapped is a part of the motif along a stretch: exact where that is straight.
func (l *lay) mapped(p geom.Path, st stretch, f func(geom.Point) geom.Point) geom.Path {
	if st.straight {
		o, x, y := f(geom.Pt(0, 0)), f(geom.Pt(1, 0)), f(geom.Pt(0, 1))
		return p.Transform(geom.Affine{A: x.X - o.X, B: x.Y - o.Y, C: y.X - o.X, D: y.Y - o.Y, E: o.X, F: o.Y})
	}
	return p.Map(f, bendTolerance)
}

// turnOver fills a corner that stands out between two stretches: by a round piece, or by the motif of
// both carried on to the mitre.
func (l *lay) turnOver(a, b stretch) {
	at, ta := a.at(a.total)
	_, tb := b.at(0)
	turn := math.Atan2(ta.Cross(tb), ta.Dot(tb))
	if turn <= corner || turn > 2.6 {
		return // it goes in there, or back on itself
	}
	if l.Corner == Piece {
		l.add = append(l.add, geom.EllipsePath(geom.Rect{X: at.X - l.Depth, Y: at.Y - l.Depth, W: 2 * l.Depth, H: 2 * l.Depth}))
		return
	}
	if l.Corner != Mitre {
		return
	}
	na, nb := geom.Pt(ta.Y, -ta.X), geom.Pt(tb.Y, -tb.X)
	reach := l.Depth * math.Tan(turn/2)
	tip := at.Add(na.Mul(l.Depth)).Add(ta.Mul(reach))
	for _, half := range []struct{ n, t geom.Point }{{na, ta}, {nb, tb.Mul(-1)}} {
		var w geom.Builder
		wedge := w.Move(at).Line(at.Add(half.n.Mul(l.Depth))).Line(tip).Close().Path()
		w2 := l.length
		var motif geom.Builder
		motif.Move(at)
		p := geom.Affine{A: half.t.X * w2, B: half.t.Y * w2, C: half.n.X * l.Depth, D: half.n.Y * l.Depth, E: at.X, F: at.Y}
		k := max(1, int(math.Ceil(reach/w2)))
		for i := range k {
			one := l.motif.profile(l.rng).Transform(geom.Shift(float64(i), 0)).Transform(p)
			for _, cs := range one.Curves() {
				if len(cs) > 0 {
					motif.Line(cs[0].From)
				}
				for _, c := range cs {
					motif.Add(c)
				}
			}
		}
		motif.Line(at.Add(half.t.Mul(w2 * float64(k))))
		l.add = append(l.add, geom.Intersection(geom.NonZero, upward(motif.Close().Path()), upward(wedge)))
	}
}

// upward is a ring that runs clockwise on screen.
func upward(p geom.Path) geom.Path {
	if p.Area() < 0 {
		return p.Reverse()
	}
	return p
}

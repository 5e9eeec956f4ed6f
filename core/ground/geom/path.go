package geom

import (
	"crypto/sha256"
	"encoding/binary"
	"encoding/json"
	"errors"
	"math"
	"strconv"
)

// Op is the kind of a path segment.
type Op uint8

// The segments of a path. Each starts where the one before it ended.
const (
	MoveTo  Op = iota // P[0] starts a new ring or stroke
	LineTo            // P[0] is the end
	QuadTo            // P[0] control, P[1] end
	CubicTo           // P[0], P[1] controls, P[2] end
	ArcTo             // Arc, P[0] end
	Close             // straight back to the start of the ring
)

// points is how many points each Op carries.
var points = [...]int{MoveTo: 1, LineTo: 1, QuadTo: 2, CubicTo: 3, ArcTo: 1, Close: 0}

// Segment is one step of a path. Arc is set for ArcTo alone and never changed.
type Segment struct {
	Op  Op
	P   [3]Point
	Arc *Arc
}

// End is the point a segment ends at; a Close has none of its own.
func (s Segment) End() Point { return s.P[max(points[s.Op]-1, 0)] }

// Path is a list of rings and open strokes. The zero value is empty. A Path is
// never changed after it is built, so it may be shared freely.
type Path struct{ segs []Segment }

// Builder collects segments into a Path.
type Builder struct {
	segs []Segment
	ring int // where the current one starts
}

// Move starts a new ring or stroke.
func (b *Builder) Move(p Point) *Builder {
	b.ring = len(b.segs)
	return b.add(MoveTo, p)
}

// Line adds a straight line.
func (b *Builder) Line(p Point) *Builder { return b.add(LineTo, p) }

// Quad adds a quadratic Bézier curve.
func (b *Builder) Quad(c, p Point) *Builder { return b.add(QuadTo, c, p) }

// Cubic adds a cubic Bézier curve.
func (b *Builder) Cubic(c1, c2, p Point) *Builder { return b.add(CubicTo, c1, c2, p) }

// Close closes the current ring. An end within 1 pm of its start is the start:
// rounding would leave a side without length.
func (b *Builder) Close() *Builder {
	if n := len(b.segs); n-1 > b.ring && b.segs[b.ring].Op == MoveTo {
		last, start := &b.segs[n-1], b.segs[b.ring].P[0]
		if last.Op != Close && last.End().Sub(start).Len() < 1e-9 {
			last.P[points[last.Op]-1] = start
		}
	}
	return b.add(Close)
}

func (b *Builder) add(op Op, p ...Point) *Builder {
	s := Segment{Op: op}
	copy(s.P[:], p)
	b.segs = append(b.segs, s)
	return b
}

// Arc adds a piece of the ellipse about c with the half axes rx and ry along x
// and y, from angle a0 to a1 in radians, clockwise on screen when a1 > a0. Its
// start must be the current point.
func (b *Builder) Arc(c Point, rx, ry, a0, a1 float64) *Builder {
	return b.arc(Arc{c, Point{X: rx}, Point{Y: ry}, a0, a1})
}

func (b *Builder) arc(a Arc) *Builder {
	b.segs = append(b.segs, Segment{Op: ArcTo, P: [3]Point{a.At(a.To)}, Arc: &a})
	return b
}

// Path returns what was built; the builder starts afresh.
func (b *Builder) Path() Path {
	p := Path{b.segs}
	b.segs, b.ring = nil, 0
	return p
}

// Empty reports whether the path has no segments.
func (p Path) Empty() bool { return len(p.segs) == 0 }

// Len is the number of segments.
func (p Path) Len() int { return len(p.segs) }

// Segments calls f for each segment with the point it starts from.
func (p Path) Segments(f func(from Point, s Segment)) {
	var at, start Point
	for _, s := range p.segs {
		f(at, s)
		switch s.Op {
		case MoveTo:
			at, start = s.P[0], s.P[0]
		case Close:
			at = start
		default:
			at = s.End()
		}
	}
}

// Transform maps every point; Bézier curves map exactly.
func (p Path) Transform(m Affine) Path {
	out := make([]Segment, len(p.segs))
	for i, s := range p.segs {
		out[i] = Curve{Segment: s}.transform(m).Segment
	}
	return Path{out}
}

// Join returns one path with the rings of all.
func Join(paths ...Path) Path {
	n := 0
	for _, p := range paths {
		n += len(p.segs)
	}
	out := make([]Segment, 0, n)
	for _, p := range paths {
		out = append(out, p.segs...)
	}
	return Path{out}
}

// Rings splits the path at its moves.
func (p Path) Rings() []Path {
	var out []Path
	start := 0
	for i := 1; i <= len(p.segs); i++ {
		if i == len(p.segs) || p.segs[i].Op == MoveTo {
			if i-start > 1 {
				out = append(out, Path{p.segs[start:i:i]})
			}
			start = i
		}
	}
	return out
}

// Closed reports whether the path ends with a Close.
func (p Path) Closed() bool { return len(p.segs) > 0 && p.segs[len(p.segs)-1].Op == Close }

// Straight reports whether the path is one straight line.
func (p Path) Straight() bool {
	return len(p.segs) == 2 && p.segs[0].Op == MoveTo && p.segs[1].Op == LineTo
}

// Reverse runs every ring and stroke the other way round.
func (p Path) Reverse() Path {
	var out []Segment
	for _, ring := range p.Rings() {
		var from []Point
		ring.Segments(func(at Point, _ Segment) { from = append(from, at) })
		n, closed := len(ring.segs), ring.Closed()
		last := n - 1
		if closed {
			last--
		}
		out = append(out, Segment{Op: MoveTo, P: [3]Point{ring.segs[last].End()}})
		for i := last; i > 0; i-- {
			out = append(out, Curve{from[i], ring.segs[i]}.reverse().Segment)
		}
		if closed {
			out = append(out, Segment{Op: Close})
		}
	}
	return Path{out}
}

// Bounds is the exact bounding box of the path, curves included.
func (p Path) Bounds() Rect {
	var all extent
	p.Segments(func(from Point, s Segment) {
		if s.Op == Close {
			return
		}
		all.hold(s.End())
		if s.Op == QuadTo || s.Op == CubicTo {
			c := cubic(from, s)
			for _, t := range append(turning(c[0].X, c[1].X, c[2].X, c[3].X), turning(c[0].Y, c[1].Y, c[2].Y, c[3].Y)...) {
				all.hold(at(c, t))
			}
		}
		if s.Op == ArcTo {
			for _, t := range s.Arc.turnings() {
				all.hold(s.Arc.At(t))
			}
		}
	})
	return all.rect()
}

// cubic raises a quadratic to the cubic of the same shape.
func cubic(from Point, s Segment) [4]Point {
	if s.Op == QuadTo {
		return [4]Point{from, from.Lerp(s.P[0], 2./3), s.P[1].Lerp(s.P[0], 2./3), s.P[1]}
	}
	return [4]Point{from, s.P[0], s.P[1], s.P[2]}
}

func at(c [4]Point, t float64) Point {
	a, b, d := c[0].Lerp(c[1], t), c[1].Lerp(c[2], t), c[2].Lerp(c[3], t)
	return a.Lerp(b, t).Lerp(b.Lerp(d, t), t)
}

// turning finds where a cubic's derivative vanishes inside (0, 1).
func turning(p0, p1, p2, p3 float64) []float64 {
	a, b, c := p3-3*p2+3*p1-p0, 2*(p2-2*p1+p0), p1-p0
	var out []float64
	keep := func(t float64) {
		if t > 0 && t < 1 {
			out = append(out, t)
		}
	}
	if math.Abs(a) < 1e-12*(math.Abs(b)+math.Abs(c)) {
		if b != 0 {
			keep(-c / b)
		}
		return out
	}
	if d := b*b - 4*a*c; d >= 0 {
		// The form that does not cancel: Press et al., Numerical Recipes, 5.6.
		q := -(b + math.Copysign(math.Sqrt(d), b)) / 2
		keep(q / a)
		if q != 0 {
			keep(c / q)
		}
	}
	return out
}

// Area is the signed area by Green's theorem, exact on curves; positive when the rings run
// clockwise on screen. Open strokes count as if closed. It is mm².
func (p Path) Area() float64 {
	sum := 0.0
	for _, ring := range p.Rings() {
		var first, last Point
		ring.Segments(func(from Point, s Segment) {
			switch s.Op {
			case MoveTo:
				first, last = s.P[0], s.P[0]
			case LineTo:
				sum += from.Cross(s.P[0]) / 2
				last = s.P[0]
			case QuadTo, CubicTo:
				c := cubic(from, s)
				sum += (6*c[0].Cross(c[1]) + 3*c[0].Cross(c[2]) + c[0].Cross(c[3]) +
					3*c[1].Cross(c[2]) + 3*c[1].Cross(c[3]) + 6*c[2].Cross(c[3])) / 20
				last = c[3]
			case ArcTo:
				sum += s.Arc.area()
				last = s.P[0]
			}
		})
		sum += last.Cross(first) / 2
	}
	return sum
}

// Cubics calls f for each segment as Segments does, with arcs replaced by the
// curves that stand for them where there are no arcs, as in PDF.
func (p Path) Cubics(f func(from Point, s Segment)) {
	p.Segments(func(from Point, s Segment) {
		if s.Op != ArcTo {
			f(from, s)
			return
		}
		curves := s.Arc.cubics()
		for i, c := range curves {
			if i == len(curves)-1 {
				c[3] = s.P[0]
			}
			f(from, Segment{Op: CubicTo, P: [3]Point{c[1], c[2], c[3]}})
			from = c[3]
		}
	})
}

// String is the path as SVG path data, to 0.1 µm.
func (p Path) String() string { return p.Data(4) }

// Data is the path as SVG path data with at most the given number of decimals.
func (p Path) Data(decimals int) string {
	const letters = "MLQCAZ"
	out := make([]byte, 0, len(p.segs)*24)
	numbers := func(out []byte, x, y float64) []byte {
		return number(append(number(out, x, decimals), ' '), y, decimals)
	}
	for _, s := range p.segs {
		if s.Op == ArcTo {
			out = appendArc(out, *s.Arc, s.P[0], numbers)
			continue
		}
		out = append(out, letters[s.Op])
		for j := range points[s.Op] {
			if j > 0 {
				out = append(out, ' ')
			}
			out = numbers(out, s.P[j].X, s.P[j].Y)
		}
	}
	return string(out)
}

// appendArc writes an arc as SVG has it, by its ends. More than half a turn is
// written as several arcs, for there the ends would say little or nothing of
// the centre.
func appendArc(out []byte, a Arc, end Point, numbers func(out []byte, x, y float64) []byte) []byte {
	long, short, turn := a.axes()
	n := max(1, int(math.Ceil(math.Abs(a.To-a.From)/(math.Pi*.75)-1e-9)))
	sweep := byte('0')
	if a.clockwise() {
		sweep = '1'
	}
	for i := 1; i <= n; i++ {
		to := end
		if i < n {
			to = a.At(a.From + (a.To-a.From)*float64(i)/float64(n))
		}
		out = append(out, 'A')
		begin := len(out)
		out = numbers(out, long, short)
		degrees := turn * 180 / math.Pi
		if axes := string(out[begin:]); long-short < 1e-9 || axes[:len(axes)/2] == axes[len(axes)/2+1:] {
			degrees = 0 // a circle, or what is written as one, has no turn
		}
		out = append(out, ' ')
		// The turn has as many digits as move a place by a tenth of a nanometre: a long axis
		// swings far by a small turn, that of what is nearly a circle hardly matters.
		digits := math.Pow10(int(min(max(math.Ceil(math.Log10((long-short)*2e5)), 0), 9)))
		out = strconv.AppendFloat(out, math.Round(degrees*digits)/digits, 'f', -1, 64)
		out = append(out, ' ', '0', ' ', sweep, ' ')
		out = numbers(out, to.X, to.Y)
	}
	return out
}

func number(out []byte, v float64, decimals int) []byte {
	unit := math.Pow10(decimals)
	v = math.Round(v*unit) / unit
	if v == 0 {
		v = 0 // no "-0"
	}
	return strconv.AppendFloat(out, v, 'f', -1, 64)
}

// MarshalJSON writes the path as SVG path data, to a nanometre, which is as exact as
// combinations are. The error is of Check, for what is no number cannot be written.
func (p Path) MarshalJSON() ([]byte, error) {
	if err := p.Check(); errors.Is(err, ErrNoNumber) {
		return nil, err
	}
	return json.Marshal(p.Data(6))
}

// UnmarshalJSON reads SVG path data. The error tells what is not, or is of Check.
func (p *Path) UnmarshalJSON(raw []byte) error {
	var text string
	if err := json.Unmarshal(raw, &text); err != nil {
		return errors.New("a path is a string of SVG path data")
	}
	q, err := ParsePath(text)
	if err == nil {
		err = q.Check()
	}
	if err == nil {
		*p = q
	}
	return err
}

// Digest returns the SHA-256 digest of the path: its segments with every coordinate bit
// for bit, -0 as 0. Paths with the same digest are the same.
func (p Path) Digest() [sha256.Size]byte {
	h := sha256.New()
	var block []byte
	number := func(v float64) { block = binary.LittleEndian.AppendUint64(block, math.Float64bits(v+0)) }
	for _, s := range p.segs {
		block = append(block[:0], byte(s.Op))
		for _, q := range s.P[:points[s.Op]] {
			number(q.X)
			number(q.Y)
		}
		if s.Arc != nil {
			for _, v := range [...]float64{s.Arc.Centre.X, s.Arc.Centre.Y, s.Arc.U.X, s.Arc.U.Y, s.Arc.V.X, s.Arc.V.Y, s.Arc.From, s.Arc.To} {
				number(v)
			}
		}
		_, _ = h.Write(block) // a hash takes everything
	}
	return [sha256.Size]byte(h.Sum(nil))
}

// ArcTo adds a piece of the circle about c from angle a0 to a1, which ends at p to the last
// digit. Angles are radians, clockwise on screen.
func (b *Builder) ArcTo(c Point, r, a0, a1 float64, p Point) *Builder {
	b.segs = append(b.segs, Segment{Op: ArcTo, P: [3]Point{p}, Arc: &Arc{c, Point{X: r}, Point{Y: r}, a0, a1}})
	return b
}

// Add goes on with a curve, which starts where the path is.
func (b *Builder) Add(c Curve) *Builder {
	b.segs = append(b.segs, c.Segment)
	return b
}

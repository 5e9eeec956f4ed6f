package geom

// Map is the path with every point of it moved by a smooth map, within tol mm: curves become
// cubics that have the ends and the directions of what they stand for, halved until they are
// near enough (cubic Hermite interpolation), and what stays straight stays a line.
func (p Path) Map(f func(Point) Point, tol float64) Path {
	var b Builder
	m := mapper{&b, f, tol}
	for _, ring := range p.Rings() {
		first := true
		for _, curves := range ring.Curves() {
			for _, c := range curves {
				if first {
					b.Move(f(c.From))
					first = false
				}
				m.piece(c, 0, 1, 0)
			}
		}
		if !first && ring.Closed() {
			b.Close()
		}
	}
	return b.Path()
}

type mapper struct {
	b   *Builder
	f   func(Point) Point
	tol float64
}

// maxMapDepth bounds how often a curve is halved.
const maxMapDepth = 14

// piece adds a stretch of a curve.
func (m mapper) piece(c Curve, t0, t1 float64, depth int) {
	at := func(t float64) Point { return m.f(c.At(t)) }
	const h = 1e-5
	along := func(t float64) Point { return at(t + h).Sub(at(t - h)).Mul((t1 - t0) / (2 * h) / 3) }
	from, to := at(t0), at(t1)
	cubic := Curve{From: from, Segment: Segment{Op: CubicTo, P: [3]Point{from.Add(along(t0)), to.Sub(along(t1)), to}}}
	off, bent := 0.0, 0.0
	const samples = 8
	for i := 1; i < samples; i++ {
		s := float64(i) / samples
		q := at(t0 + (t1-t0)*s)
		off = max(off, cubic.At(s).Sub(q).Len())
		bent = max(bent, q.Sub(from.Lerp(to, s)).Len())
	}
	switch {
	case bent < m.tol/1000:
		m.b.Line(to)
	case off <= m.tol/2 || depth >= maxMapDepth:
		m.b.Cubic(cubic.P[0], cubic.P[1], to)
	default:
		mid := (t0 + t1) / 2
		m.piece(c, t0, mid, depth+1)
		m.piece(c, mid, t1, depth+1)
	}
}

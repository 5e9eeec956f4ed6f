package dxf

import (
	"math"
	"slices"

	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// style is what tells lines apart: the layer and the colour they are on.
type style struct{ layer, colour string }

// reader turns entities into shapes. Paths with open ends wait in loose until
// all are there, to be joined.
type reader struct {
	d     *exchange.Drawing
	f     *file
	n     int
	order []style
	loose map[style][]geom.Path

	budget *exchange.Budget
}

// tolerance is how near ends must be to be joined, and how near curves come to
// what cannot be said exactly, mm.
const tolerance = .005

func (r *reader) join() {
	for _, s := range r.order {
		for _, p := range exchange.Chain(r.loose[s], tolerance) {
			if len(r.d.Shapes) < exchange.MaxShapes {
				r.d.Shapes = append(r.d.Shapes, exchange.Shape{Layer: s.layer, Role: exchange.RoleOf(s.layer), Path: p, Stroke: s.colour, Width: .25})
			}
		}
	}
}

func (r *reader) entities(list []entity, at geom.Affine, onLayer string, depth int) error {
	for _, e := range list {
		if r.n++; r.n > maxEntities {
			return refuse("The DXF unfolds to more than %d entities.", maxEntities)
		}
		if int(e.number(67, 0)) == 1 {
			r.d.Note("What stands on a layout page was left out; the model was taken.")
			continue
		}
		name := e.text(8)
		if name == "" || name == "0" {
			name = onLayer // a block's things on layer 0 go where it is put
		}
		if r.f.layers[name].off || int(e.number(60, 0)) == 1 {
			r.d.Note("The layer “%s” is switched off and was left out.", name)
			continue
		}
		m := at
		if !inWorld[e.kind] {
			m = e.plane().Then(at)
		}
		if e.kind == "INSERT" {
			if err := r.insert(e, m, name, depth); err != nil {
				return err
			}
			continue
		}
		if err := r.budget.Spend(1 + len(e.pairs) + len(e.kids)); err != nil {
			return err
		}
		if err := r.draw(e, name, m); err != nil {
			return err
		}
	}
	return nil
}

// draw takes an entity that is drawn, on a layer: lines are kept until they are joined.
func (r *reader) draw(e entity, layer string, at geom.Affine) error {
	p, ok := r.path(e)
	if !ok {
		return nil
	}
	if err := r.budget.Spend(p.Len()); err != nil {
		return err
	}
	colour := r.f.layers[layer].colour
	if c := int(e.number(62, 256)); e.text(420) != "" || c != 256 && c != 0 {
		colour = e.colour(c)
	}
	if colour == "" {
		colour = "#000000"
	}
	if e.kind == "SOLID" || e.kind == "TRACE" || e.kind == "HATCH" {
		r.d.Shapes = append(r.d.Shapes, exchange.Shape{Layer: layer, Role: exchange.RoleOf(layer), Path: p.Transform(at), Rule: geom.EvenOdd, Fill: colour})
		return nil
	}
	s := style{layer, colour}
	if r.loose[s] == nil {
		r.order = append(r.order, s)
	}
	r.loose[s] = append(r.loose[s], p.Transform(at))
	return nil
}

func (r *reader) insert(e entity, at geom.Affine, layer string, depth int) error {
	b, ok := r.f.blocks[e.text(2)]
	if !ok {
		r.d.Note("The block “%s” is not in the file and was left out.", e.text(2))
		return nil
	}
	if depth >= maxNesting {
		return refuse("Blocks in the DXF are nested more than %d deep, or hold themselves.", maxNesting)
	}
	cols, rows := max(1, int(e.number(70, 1))), max(1, int(e.number(71, 1)))
	if cols*rows > 10_000 || cols > 10_000 || rows > 10_000 {
		return refuse("A block in the DXF is repeated more than 10,000 times.")
	}
	inner := geom.Shift(-b.base.X, -b.base.Y).Then(geom.Scale(e.number(41, 1), e.number(42, 1)))
	turn := geom.Turn(e.number(50, 0) * math.Pi / 180)
	p := e.point(10)
	for i := range cols {
		for j := range rows {
			m := inner.Then(geom.Shift(float64(i)*e.number(44, 0), float64(j)*e.number(45, 0))).Then(turn).Then(geom.Shift(p.X, p.Y)).Then(at)
			if err := r.entities(b.entities, m, layer, depth+1); err != nil {
				return err
			}
		}
	}
	return nil
}

// normal is the direction that an entity's plane faces, of length 1.
func (e entity) normal() [3]float64 {
	n := [3]float64{e.number(210, 0), e.number(220, 0), e.number(230, 1)}
	l := math.Sqrt(n[0]*n[0] + n[1]*n[1] + n[2]*n[2])
	if !(l > 1e-12) {
		return [3]float64{0, 0, 1}
	}
	return [3]float64{n[0] / l, n[1] / l, n[2] / l}
}

func cross(a, b [3]float64) [3]float64 {
	return [3]float64{a[1]*b[2] - a[2]*b[1], a[2]*b[0] - a[0]*b[2], a[0]*b[1] - a[1]*b[0]}
}

// plane maps what is drawn in an entity's own plane to the drawing, seen from above. The
// plane's axes follow from the direction that it faces alone (the format's rule of the
// arbitrary axis).
func (e entity) plane() geom.Affine {
	n := e.normal()
	if n == [3]float64{0, 0, 1} {
		return geom.Identity
	}
	up := [3]float64{0, 0, 1}
	if max(math.Abs(n[0]), math.Abs(n[1])) < 1./64 {
		up = [3]float64{0, 1, 0}
	}
	x := cross(up, n)
	l := math.Sqrt(x[0]*x[0] + x[1]*x[1] + x[2]*x[2])
	x = [3]float64{x[0] / l, x[1] / l, x[2] / l}
	y := cross(n, x)
	z := e.number(38, e.number(30, 0))
	return geom.Affine{A: x[0], B: x[1], C: y[0], D: y[1], E: n[0] * z, F: n[1] * z}
}

// inWorld are entities whose places are in the drawing's own axes, whichever way their
// plane faces.
var inWorld = map[string]bool{"LINE": true, "ELLIPSE": true, "SPLINE": true, "POINT": true, "3DFACE": true}

// quiet are entities that draw no line and are no loss.
var quiet = map[string]bool{"SEQEND": true, "VIEWPORT": true, "ATTDEF": true, "POINT": true, "ENDSEC": true}

func (r *reader) path(e entity) (geom.Path, bool) {
	var b geom.Builder
	switch e.kind {
	case "LINE":
		return b.Move(e.point(10)).Line(e.point(11)).Path(), e.point(10) != e.point(11)
	case "CIRCLE", "ARC":
		c, rad := e.point(10), e.number(40, 0)
		if rad <= 0 {
			return geom.Path{}, false
		}
		if e.kind == "CIRCLE" {
			return geom.EllipsePath(geom.Rect{X: c.X - rad, Y: c.Y - rad, W: 2 * rad, H: 2 * rad}), true
		}
		a0, a1 := math.Mod(e.number(50, 0), 360)*math.Pi/180, math.Mod(e.number(51, 0), 360)*math.Pi/180
		for a1 <= a0 {
			a1 += 2 * math.Pi
		}
		s, co := math.Sincos(a0)
		return b.Move(c.Add(geom.Pt(co, s).Mul(rad))).Arc(c, rad, rad, a0, a0+math.Mod(a1-a0, 2*math.Pi+1e-12)).Path(), true
	case "ELLIPSE":
		return ellipse(e)
	case "SOLID", "TRACE":
		// The third corner is across from the second; of a triangle the fourth is the third.
		b.Move(e.point(10)).Line(e.point(11)).Line(e.pointOr(13, 12)).Line(e.point(12)).Close()
		return b.Path(), true
	case "HATCH":
		p, ok := hatch(e)
		if !ok {
			r.d.Note("A hatched area cannot be read and was left out.")
		} else if int(e.number(70, 1)) == 0 {
			r.d.Note("The pattern of a hatched area was taken as one colour.")
		}
		return p, ok
	case "LWPOLYLINE":
		return lightPolyline(e)
	case "POLYLINE":
		if int(e.number(70, 0))&(16|64) != 0 {
			r.d.Note("A mesh was left out.")
			return geom.Path{}, false
		}
		var pts []geom.Point
		var bulges []float64
		for _, v := range e.kids {
			if int(v.number(70, 0))&16 != 0 {
				continue // a control point of a smoothed line
			}
			pts, bulges = append(pts, v.point(10)), append(bulges, v.number(42, 0))
		}
		return polyline(pts, bulges, int(e.number(70, 0))&1 != 0)
	case "SPLINE":
		p, ok := spline(e)
		if !ok {
			r.d.Note("A spline cannot be read and was left out.")
		}
		return p, ok
	case "TEXT", "MTEXT", "ATTRIB":
		r.d.Note("The text “%s” was left out: set it here as lettering.", e.text(1))
	default:
		if !quiet[e.kind] {
			r.d.Note("A %s was left out.", e.kind)
		}
	}
	return geom.Path{}, false
}

func ellipse(e entity) (geom.Path, bool) {
	c, u := e.point(10), e.point(11)
	ratio := e.number(40, 1)
	if u.Len() == 0 || ratio <= 0 {
		return geom.Path{}, false
	}
	// The short axis is square to the long one in the ellipse's plane; both are seen from
	// above.
	short := cross(e.normal(), [3]float64{u.X, u.Y, e.number(31, 0)})
	v := geom.Pt(short[0], short[1]).Mul(ratio)
	a0, a1 := e.number(41, 0), e.number(42, 2*math.Pi)
	closed := a1-a0 >= 2*math.Pi-1e-9
	if a0, a1 = math.Mod(a0, 2*math.Pi), math.Mod(a1, 2*math.Pi); closed {
		a1 = a0 + 2*math.Pi
	} else if a1 <= a0 {
		a1 += 2 * math.Pi
	}
	s, co := math.Sincos(a0)
	// A circle's arc, mapped to the ellipse's axes.
	var b geom.Builder
	b.Move(geom.Pt(co, s)).Arc(geom.Pt(0, 0), 1, 1, a0, min(a1, a0+2*math.Pi))
	if closed {
		b.Close()
	}
	return b.Path().Transform(geom.Affine{A: u.X, B: u.Y, C: v.X, D: v.Y, E: c.X, F: c.Y}), true
}

func lightPolyline(e entity) (geom.Path, bool) {
	var pts []geom.Point
	var bulges []float64
	for _, p := range e.pairs {
		switch p.code {
		case 10:
			pts, bulges = append(pts, geom.Pt(parseNumber(p.value, 0), 0)), append(bulges, 0)
		case 20:
			if n := len(pts); n > 0 {
				pts[n-1].Y = parseNumber(p.value, 0)
			}
		case 42:
			if n := len(pts); n > 0 {
				bulges[n-1] = parseNumber(p.value, 0)
			}
		}
	}
	return polyline(pts, bulges, int(e.number(70, 0))&1 != 0)
}

// widest is the radius up to which an arc stays one: what is larger has its centre farther
// away than anything may be.
const widest = 1e5

// polyline joins points by lines and arcs. A bulge is the tangent of a quarter
// of the arc's angle, positive when it runs from x to y.
func polyline(pts []geom.Point, bulges []float64, closed bool) (geom.Path, bool) {
	if len(pts) < 2 {
		return geom.Path{}, false
	}
	var b geom.Builder
	b.Move(pts[0])
	n := len(pts)
	last := n - 1
	if closed {
		last = n
	}
	for i := range last {
		p, q, k := pts[i], pts[(i+1)%n], bulges[i]
		if p == q {
			continue
		}
		if math.Abs(k) < 1e-9 || math.Abs(k) > 1e6 {
			if i < n-1 {
				b.Line(q)
			}
			continue
		}
		c, rad, a0, a1 := bulge(p, q, k)
		if rad > widest {
			// So small a part of the circle is a cubic to far less than a nanometre.
			u, v := p.Sub(c), q.Sub(c)
			t := 4. / 3 * math.Tan((a1-a0)/4)
			b.Cubic(p.Add(geom.Pt(-u.Y, u.X).Mul(t)), q.Sub(geom.Pt(-v.Y, v.X).Mul(t)), q)
			continue
		}
		b.ArcTo(c, rad, a0, a1, q)
	}
	if closed {
		b.Close()
	}
	return b.Path(), true
}

// bulge is the arc from p to q.
func bulge(p, q geom.Point, k float64) (c geom.Point, rad, a0, a1 float64) {
	chord := q.Sub(p)
	angle := 4 * math.Atan(k)
	// The centre lies on the chord's middle line.
	h := chord.Len() / 2 * (1 - k*k) / (2 * k)
	n := geom.Pt(-chord.Y, chord.X).Mul(1 / chord.Len())
	c = p.Lerp(q, .5).Add(n.Mul(h))
	d := p.Sub(c)
	a0 = math.Atan2(d.Y, d.X)
	return c, d.Len(), a0, a0 + angle
}

// spline is a B-spline, by its control points or, failing them, a smooth line
// through its fit points.
func spline(e entity) (geom.Path, bool) {
	zip := func(x, y int) []geom.Point {
		xs, ys := e.numbers(x), e.numbers(y)
		out := make([]geom.Point, min(len(xs), len(ys)))
		for i := range out {
			out[i] = geom.Pt(xs[i], ys[i])
		}
		return out
	}
	closed := int(e.number(70, 0))&1 != 0
	degree := int(e.number(71, 3))
	ctrl, knots, weights := zip(10, 20), e.numbers(40), e.numbers(41)
	if len(ctrl) < 2 {
		return through(zip(11, 21), closed)
	}
	if degree < 1 || degree > 12 || len(knots) != len(ctrl)+degree+1 || !slices.IsSorted(knots) || len(ctrl) > 20_000 {
		return geom.Path{}, false
	}
	rational := false
	for _, w := range weights {
		if w <= 0 {
			return geom.Path{}, false
		}
		rational = rational || w != weights[0]
	}
	if len(weights) != len(ctrl) {
		rational = false
	}
	eval := func(u float64) geom.Point { return deBoor(ctrl, weights, knots, degree, u, rational) }
	var b geom.Builder
	begun := false
	lo, hi := knots[degree], knots[len(ctrl)]
	if hi <= lo {
		return geom.Path{}, false
	}
	for i := degree; i < len(ctrl); i++ {
		u0, u1 := knots[i], knots[i+1]
		if u1-u0 <= 1e-12*(hi-lo) {
			continue
		}
		// Up to a knot the curve is one polynomial; at the knot itself the next.
		in := func(t float64) geom.Point { return eval(min(u0+(u1-u0)*t, u1-(u1-u0)*1e-12)) }
		if !begun {
			b.Move(in(0))
			begun = true
		}
		if !rational && degree <= 3 {
			p0, p1, p2, p3 := in(0), in(1./3), in(2./3), in(1)
			// The cubic through four of its points, exactly.
			c1 := p0.Mul(-5. / 6).Add(p1.Mul(3)).Sub(p2.Mul(1.5)).Add(p3.Mul(1. / 3))
			c2 := p0.Mul(1. / 3).Sub(p1.Mul(1.5)).Add(p2.Mul(3)).Sub(p3.Mul(5. / 6))
			b.Cubic(c1, c2, p3)
			continue
		}
		const n = 24
		l := geom.Polyline{Points: make([]geom.Point, n+1)}
		for k := range l.Points {
			l.Points[k] = in(float64(k) / n)
		}
		fit := geom.Fit(l, .0005, 3)
		for _, cs := range fit.Curves() {
			for _, c := range cs {
				b.Add(c)
			}
		}
	}
	if closed {
		b.Close()
	}
	return b.Path(), begun
}

// deBoor evaluates a B-spline. (de Boor, "On calculating with B-splines", 1972.)
func deBoor(ctrl []geom.Point, weights, knots []float64, p int, u float64, rational bool) geom.Point {
	k := p
	for k < len(ctrl)-1 && u >= knots[k+1] {
		k++
	}
	d := make([][3]float64, p+1)
	for j := range d {
		i := k - p + j
		w := 1.0
		if rational {
			w = weights[i]
		}
		d[j] = [3]float64{ctrl[i].X * w, ctrl[i].Y * w, w}
	}
	for r := 1; r <= p; r++ {
		for j := p; j >= r; j-- {
			i := k - p + j
			a := 0.0
			if span := knots[i+p-r+1] - knots[i]; span > 0 {
				a = (u - knots[i]) / span
			}
			for c := range 3 {
				d[j][c] = (1-a)*d[j-1][c] + a*d[j][c]
			}
		}
	}
	return geom.Pt(d[p][0]/d[p][2], d[p][1]/d[p][2])
}

// through is a smooth line through points (Catmull and Rom).
func through(pts []geom.Point, closed bool) (geom.Path, bool) {
	n := len(pts)
	if n < 2 {
		return geom.Path{}, false
	}
	at := func(i int) geom.Point {
		if closed {
			return pts[((i%n)+n)%n]
		}
		return pts[min(max(i, 0), n-1)]
	}
	var b geom.Builder
	b.Move(pts[0])
	last := n - 1
	if closed {
		last = n
	}
	for i := range last {
		p, q := at(i), at(i+1)
		b.Cubic(p.Add(q.Sub(at(i-1)).Mul(1./6)), q.Sub(at(i+2).Sub(p).Mul(1./6)), q)
	}
	if closed {
		b.Close()
	}
	return b.Path(), true
}

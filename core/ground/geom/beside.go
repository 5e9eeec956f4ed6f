package geom

// Beside is what lies on one side of the strokes of a path, within |d| mm of them: to the
// left of travel on screen where d is positive, to the right where it is negative. It
// reaches round outward corners as the corner has it and ends square with the ends of open
// strokes. Closed rings are taken as strokes that come back.
//
// Each curve sweeps a band along its normals and each outward corner a wedge; bands of
// curves are swept in parts, so that none folds back on itself but where the curve turns
// within d.
func Beside(p Path, d float64, corner Corner) Path {
	if d < 0 {
		return Beside(p.Reverse(), -d, corner)
	}
	if d == 0 {
		return Path{}
	}
	var swept []Path
	for i, cs := range p.Curves() {
		cs = smoothPieces(cs)
		for k, c := range cs {
			swept = append(swept, bandsOf(c, d)...)
			if k+1 < len(cs) || p.Rings()[i].Closed() {
				swept = append(swept, wedge(c, cs[(k+1)%len(cs)], d, corner))
			}
		}
	}
	return Union(NonZero, swept...)
}

// bandsOf are what a curve sweeps to its left.
func bandsOf(c Curve, d float64) []Path {
	parts := 8
	if c.Op == LineTo {
		parts = 1
	}
	out := make([]Path, parts)
	for i := range out {
		part := c.between(float64(i)/float64(parts), float64(i+1)/float64(parts))
		var o offsetter
		o.begin(d, OffsetOptions{})
		o.to(part.From)
		o.to(part.From.Add(outward(part.Tangent(0)).Mul(d)))
		o.curve(part)
		o.to(part.End())
		back := part.reverse()
		o.segs = append(o.segs, back.Segment)
		out[i] = o.Close().Path()
	}
	return out
}

// wedge is what an outward corner between two curves sweeps; empty at others.
func wedge(a, b Curve, d float64, corner Corner) Path {
	t0, t1 := a.Tangent(1), b.Tangent(0)
	if !turnsOut(t0.Cross(t1), t0.Dot(t1), d) {
		return Path{}
	}
	var o offsetter
	o.begin(d, OffsetOptions{Corner: corner})
	o.to(b.From)
	o.to(b.From.Add(outward(t0).Mul(d)))
	o.join(a, b)
	return o.Close().Path()
}

package geom

import "math"

// RectPath is a rectangle with square corners, clockwise on screen.
func RectPath(r Rect) Path {
	var b Builder
	b.Move(Pt(r.X, r.Y)).Line(Pt(r.Right(), r.Y)).Line(Pt(r.Right(), r.Bottom())).Line(Pt(r.X, r.Bottom())).Close()
	return b.Path()
}

// PolygonPath is a closed ring through points, empty for none.
func PolygonPath(pts ...Point) Path {
	b := Builder{segs: PolylinePath(pts...).segs}
	if len(pts) > 0 {
		b.Close()
	}
	return b.Path()
}

// PolylinePath is an open line through points, empty for none.
func PolylinePath(pts ...Point) Path {
	var b Builder
	for i, p := range pts {
		if i == 0 {
			b.Move(p)
		} else {
			b.Line(p)
		}
	}
	return b.Path()
}

// RoundRectPath is a rectangle whose corners are quarter circles of radius
// rad, at most half the shorter side.
func RoundRectPath(r Rect, rad float64) Path {
	rad = min(rad, r.W/2, r.H/2)
	if rad <= 0 {
		return RectPath(r)
	}
	var b Builder
	l, t, ri, bo := r.X, r.Y, r.Right(), r.Bottom()
	const q = math.Pi / 2
	b.Move(Pt(l+rad, t)).Line(Pt(ri-rad, t)).Arc(Pt(ri-rad, t+rad), rad, rad, -q, 0)
	b.Line(Pt(ri, bo-rad)).Arc(Pt(ri-rad, bo-rad), rad, rad, 0, q)
	b.Line(Pt(l+rad, bo)).Arc(Pt(l+rad, bo-rad), rad, rad, q, 2*q)
	b.Line(Pt(l, t+rad)).Arc(Pt(l+rad, t+rad), rad, rad, 2*q, 3*q).Close()
	return b.Path()
}

// BevelRectPath is a rectangle whose corners are cut off straight, c along
// each side, at most half the shorter side.
func BevelRectPath(r Rect, c float64) Path {
	c = min(c, r.W/2, r.H/2)
	if c <= 0 {
		return RectPath(r)
	}
	var b Builder
	l, t, ri, bo := r.X, r.Y, r.Right(), r.Bottom()
	b.Move(Pt(l+c, t)).Line(Pt(ri-c, t)).Line(Pt(ri, t+c)).Line(Pt(ri, bo-c)).
		Line(Pt(ri-c, bo)).Line(Pt(l+c, bo)).Line(Pt(l, bo-c)).Line(Pt(l, t+c)).Close()
	return b.Path()
}

// EllipsePath is an ellipse that fills r, clockwise on screen.
func EllipsePath(r Rect) Path {
	c := r.Centre()
	var b Builder
	b.Move(Pt(r.Right(), c.Y)).Arc(c, r.W/2, r.H/2, 0, 2*math.Pi).Close()
	return b.Path()
}

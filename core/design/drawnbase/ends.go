package drawnbase

import (
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// bent is how far a score may bulge and still be straight, mm.
const bent = .1

// meets is how near an end is to what it meets, mm.
const meets = 1e-3

// straighten makes straight lines of scores, each of its own, and lays what is nearly upright or level so.
func (r *reader) straighten() {
	lines := r.out.Lines
	r.out.Lines = []Line{}
	for i, l := range lines {
		if !l.Role.Folds() {
			l.name = fmt.Sprintf("line-%d", i)
			r.out.Lines = append(r.out.Lines, l)
			continue
		}
		for _, curves := range l.Path.Curves() {
			for j, c := range joined(curves) {
				r.score(l.Role, fmt.Sprintf("line-%d-%d", i, j), c)
			}
		}
	}
	r.once()
}

// joined are curves with straight ones that go on in one line as one.
func joined(curves []geom.Curve) (out []geom.Curve) {
	for _, c := range curves {
		if n := len(out); n > 0 && c.Op == geom.LineTo && out[n-1].Op == geom.LineTo {
			whole := straight(out[n-1].From, c.End())
			if off := whole.End().Sub(whole.From).Cross(c.From.Sub(whole.From)) / max(whole.Length(), 1e-9); math.Abs(off) < .01 {
				out[n-1] = whole
				continue
			}
		}
		out = append(out, c)
	}
	return out
}

func straight(a, b geom.Point) geom.Curve {
	var g geom.Builder
	return g.Move(a).Line(b).Path().Curves()[0][0]
}

// score takes one curve of a score.
func (r *reader) score(role card.Role, name string, c geom.Curve) {
	from, to := c.From, c.End()
	way := to.Sub(from)
	bulge := 0.0
	for k := 1; k < 16 && c.Op != geom.LineTo; k++ {
		bulge = max(bulge, math.Abs(way.Cross(c.At(float64(k)/16).Sub(from)))/max(way.Len(), 1e-9))
	}
	if way.Len() < .05 && bulge < bent {
		return
	}
	if bulge > bent {
		at := c.At(.5)
		switch r.question(name, at, fmt.Sprintf("The %s %s is curved, by %s. Only a straight score folds flat.", fold.RoleName(role), place(at), measure.FormatBoth(bulge)), Straighten, Perforate, LeaveLine) {
		case LeaveLine:
			return
		case Perforate:
			role = card.RolePerforation
			r.out.Lines = append(r.out.Lines, Line{Role: role, Path: geom.FromCurves([]geom.Curve{c}, false), name: name})
			return
		case "":
			r.out.Lines = append(r.out.Lines, Line{Role: role, Path: geom.FromCurves([]geom.Curve{c}, false), name: name})
			return
		}
	}
	// A hundredth of a millimetre off is a matter of the file and not of the person.
	if math.Abs(way.X) < .01 {
		to.X = from.X
	}
	if math.Abs(way.Y) < .01 {
		to.Y = from.Y
	}
	r.out.Lines = append(r.out.Lines, Line{Role: role, Path: line(from, to), name: name})
}

func line(a, b geom.Point) geom.Path {
	var g geom.Builder
	return g.Move(a).Line(b).Path()
}

func place(at geom.Point) string {
	return fmt.Sprintf("at %.0f, %.0f mm", at.X, at.Y)
}

// ends are the two places between which a line runs.
func (l Line) ends() (a, b geom.Point) {
	cs := l.Path.Curves()[0]
	return cs[0].From, cs[len(cs)-1].End()
}

// once takes lines that lie twice in the drawing once: of a score on a cut the cut stays, of scores that
// lie along each other the first.
func (r *reader) once() {
	var cuts []geom.Path
	for _, l := range r.out.Lines {
		if l.Role == card.RoleCut {
			cuts = append(cuts, l.Path)
		}
	}
	all := geom.Join(cuts...)
	var kept []Line
	for _, l := range r.out.Lines {
		if !l.Role.Folds() {
			kept = append(kept, l)
			continue
		}
		rest := []geom.Path{l.Path}
		if !all.Empty() {
			rest = offEdge(l.Path, all)
		}
		for _, o := range kept {
			if len(rest) == 1 && o.Role.Folds() && o.Path.Straight() && l.Path.Straight() {
				rest = beyond(rest[0], o.Path)
			}
		}
		if len(rest) != 1 || rest[0].Digest() != l.Path.Digest() {
			r.note("A score that lies on a cut or on another score was taken once.")
		}
		for _, p := range rest {
			l.Path = p
			kept = append(kept, l)
		}
	}
	r.out.Lines = kept
}

// beyond are the parts of a straight line that do not lie on another.
func beyond(p, other geom.Path) []geom.Path {
	a, b := Line{Path: p}.ends()
	c, d := Line{Path: other}.ends()
	way := b.Sub(a)
	long := way.Len()
	off := func(q geom.Point) float64 { return math.Abs(way.Cross(q.Sub(a))) / long }
	if off(c) > onEdge || off(d) > onEdge {
		return []geom.Path{p}
	}
	s, t := c.Sub(a).Dot(way)/long, d.Sub(a).Dot(way)/long
	if s > t {
		s, t = t, s
	}
	if min(t, long)-max(s, 0) < onEdge {
		return []geom.Path{p}
	}
	var out []geom.Path
	if s > onEdge {
		out = append(out, line(a, a.Lerp(b, s/long)))
	}
	if t < long-onEdge {
		out = append(out, line(a.Lerp(b, t/long), b))
	}
	return out
}

// meet brings the ends of cuts and scores to what they are near to, and asks about those that end in
// nowhere.
func (r *reader) meet() {
	for i := 0; i < len(r.out.Lines); i++ {
		l := &r.out.Lines[i]
		if l.Path.Closed() || l.Role != card.RoleCut && !l.Role.Folds() || l.Role.Folds() && !l.Path.Straight() {
			continue
		}
		others, role := r.others(i), l.Role
		for end := range 2 {
			if !r.end(l, end, others) {
				r.out.Lines = slices.Delete(r.out.Lines, i, i+1)
				i--
				break
			}
			if l.slit || l.Role != role {
				break // its other end may lie anywhere
			}
		}
	}
}

// others are the edge and all cuts and scores but one.
func (r *reader) others(not int) geom.Path {
	paths := []geom.Path{r.out.Edge}
	for i, l := range r.out.Lines {
		if i != not && (l.Role == card.RoleCut || l.Role.Folds()) {
			paths = append(paths, l.Path)
		}
	}
	return geom.Join(paths...)
}

// end looks at one end of a line, 0 or 1; it returns false where the line is left out.
func (r *reader) end(l *Line, end int, others geom.Path) bool {
	curves := l.Path.Curves()[0]
	if end == 0 {
		curves = geom.ReverseCurves(curves)
	}
	last := curves[len(curves)-1]
	at, way := last.End(), last.Tangent(1)
	if q, ok := corner(at, others, r.ask.Meet); ok && (way.X != 0 && way.Y != 0 || math.Abs(way.Cross(q.Sub(at))) <= meets) {
		l.move(end, q)
		return true
	}
	if over, ok := forward(at.Sub(way.Mul(min(r.ask.Meet, last.Length()/2))), way, others); ok {
		if back := at.Sub(over).Dot(way); back > -meets {
			l.move(end, over)
			return true
		}
	}
	n, ok := others.Nearest(at)
	if ok && n.Distance <= meets {
		l.move(end, n.Point)
		return true
	}
	ahead, hit := forward(at, way, others)
	far := ahead.Sub(at).Len()
	switch {
	case hit && far <= 1.5*r.ask.Meet:
		l.move(end, ahead)
		return true
	case ok && n.Distance <= r.ask.Meet:
		l.move(end, n.Point)
		return true
	}
	var options []Answer
	says := fmt.Sprintf("The %s that ends %s meets nothing.", fold.RoleName(l.Role), place(at))
	if hit {
		says = fmt.Sprintf("The %s that ends %s is %s short of what it would meet.", fold.RoleName(l.Role), place(at), measure.FormatBoth(far))
		options = append(options, Lengthen)
	}
	if l.Role == card.RoleCut {
		options = append(options, AsSlit)
	} else {
		options = append(options, Perforate)
	}
	switch r.question(fmt.Sprintf("%s-end-%d", l.name, end), at, says, append(options, LeaveLine)...) {
	case Lengthen:
		l.move(end, ahead)
	case AsSlit:
		l.slit = true
	case Perforate:
		l.Role = card.RolePerforation
	case LeaveLine:
		return false
	}
	return true
}

// move leads one end of a line to a place: a straight one as a whole, a curved one by a straight stretch.
// What is upright or level stays so.
func (l *Line) move(end int, to geom.Point) {
	curves := slices.Clone(l.Path.Curves()[0])
	if end == 0 {
		curves = geom.ReverseCurves(curves)
	}
	last := &curves[len(curves)-1]
	from := last.End()
	if last.Op == geom.LineTo {
		if from.X == last.From.X {
			to.X = from.X
		}
		if from.Y == last.From.Y {
			to.Y = from.Y
		}
	}
	switch {
	case from == to || last.From == to:
		return
	case last.Op == geom.LineTo:
		*last = straight(last.From, to)
	case from.Sub(to).Len() > meets:
		curves = append(curves, straight(from, to))
	}
	if end == 0 {
		curves = geom.ReverseCurves(curves)
	}
	l.Path = geom.FromCurves(curves, false)
}

// corner is the nearest place within tol of p where curves of a path begin or end.
func corner(p geom.Point, path geom.Path, tol float64) (at geom.Point, ok bool) {
	for _, curves := range path.Curves() {
		for _, c := range curves {
			for _, q := range []geom.Point{c.From, c.End()} {
				if d := q.Sub(p).Len(); d <= tol {
					tol, at, ok = d, q, true
				}
			}
		}
	}
	return at, ok
}

// forward is where a ray meets a path first, counted from where it starts.
func forward(from, way geom.Point, path geom.Path) (at geom.Point, ok bool) {
	best := math.Inf(1)
	for _, l := range path.Flatten(.005) {
		points := l.Points
		if l.Closed {
			points = append(slices.Clone(points), points[0])
		}
		for i := 1; i < len(points); i++ {
			a, v := points[i-1], points[i].Sub(points[i-1])
			det := way.Cross(v)
			if math.Abs(det) < 1e-9*v.Len() {
				continue
			}
			s, t := a.Sub(from).Cross(v)/det, a.Sub(from).Cross(way)/det
			if slack := 1e-6 / max(v.Len(), 1e-6); s > 0 && s < best && t >= -slack && t <= 1+slack {
				best, at, ok = s, from.Add(way.Mul(s)), true
			}
		}
	}
	return at, ok
}

package geom

import (
	"fmt"
	"math"
	"strconv"
)

// ParseError says where path data stops making sense.
type ParseError struct {
	Offset int // in bytes
	Why    string
}

func (e *ParseError) Error() string {
	return fmt.Sprintf("path data, at %d: %s", e.Offset, e.Why)
}

// maxCoordinate is the largest coordinate that is taken. It leaves room for
// sums and squares; no paper is that large.
const maxCoordinate = 1e9

// ParsePath reads the path data of SVG: the whole grammar of SVG 1.1, chapter
// 8.3. What does not follow it, or is not finite, is refused with a
// *ParseError; nothing is read halfway.
func ParsePath(d string) (Path, error) {
	r := reader{text: d}
	r.blanks()
	for r.i < len(d) {
		if err := r.command(); err != nil {
			return Path{}, err
		}
		r.blanks()
	}
	return r.b.Path(), nil
}

// ParseNumbers reads a list of numbers by the grammar of path data, in which no separator
// is needed before a sign or a second decimal point: "1-1" and ".5.5" are two each. The
// error is a *ParseError.
func ParseNumbers(text string) ([]float64, error) {
	r := reader{text: text}
	var out []float64
	for r.blanks(); r.i < len(text); {
		v, err := r.number()
		if err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, nil
}

type reader struct {
	text string
	i    int
	b    Builder

	at, start Point
	open      bool  // a move has been read
	last      byte  // the command before, upper case
	control   Point // its last control point
}

func (r *reader) fail(why string) error { return &ParseError{r.i, why} }

func (r *reader) blanks() {
	for r.i < len(r.text) {
		switch r.text[r.i] {
		case ' ', '\t', '\n', '\r', '\f':
			r.i++
		default:
			return
		}
	}
}

// comma skips blanks with at most one comma among them.
func (r *reader) comma() {
	r.blanks()
	if r.i < len(r.text) && r.text[r.i] == ',' {
		r.i++
		r.blanks()
	}
}

// more reports whether a number can begin here.
func (r *reader) more() bool {
	if r.i >= len(r.text) {
		return false
	}
	c := r.text[r.i]
	return c >= '0' && c <= '9' || c == '.' || c == '-' || c == '+'
}

func (r *reader) number() (float64, error) {
	start := r.i
	digits := func() (n int) {
		for r.i < len(r.text) && r.text[r.i] >= '0' && r.text[r.i] <= '9' {
			r.i++
			n++
		}
		return n
	}
	if r.i < len(r.text) && (r.text[r.i] == '-' || r.text[r.i] == '+') {
		r.i++
	}
	n := digits()
	if r.i < len(r.text) && r.text[r.i] == '.' {
		r.i++
		n += digits()
	}
	if n == 0 {
		r.i = start
		return 0, r.fail("a number is missing")
	}
	if r.i < len(r.text) && (r.text[r.i] == 'e' || r.text[r.i] == 'E') {
		back := r.i
		r.i++
		if r.i < len(r.text) && (r.text[r.i] == '-' || r.text[r.i] == '+') {
			r.i++
		}
		if digits() == 0 {
			r.i = back // the e is no exponent, and no command either
		}
	}
	v, err := strconv.ParseFloat(r.text[start:r.i], 64)
	if err != nil || math.Abs(v) > maxCoordinate {
		r.i = start
		return 0, r.fail("this number is too large")
	}
	r.comma()
	return v, nil
}

// flag is a single 0 or 1, which needs nothing between it and what follows.
func (r *reader) flag() (bool, error) {
	if r.i >= len(r.text) || r.text[r.i] != '0' && r.text[r.i] != '1' {
		return false, r.fail("a flag is 0 or 1")
	}
	r.i++
	on := r.text[r.i-1] == '1'
	r.comma()
	return on, nil
}

// points reads n points, relative to where the path stands if so wished.
func (r *reader) points(n int, relative bool) ([3]Point, error) {
	var out [3]Point
	for k := range n {
		x, err := r.number()
		if err != nil {
			return out, err
		}
		y, err := r.number()
		if err != nil {
			return out, err
		}
		out[k] = Point{x, y}
		if relative {
			out[k] = out[k].Add(r.at)
		}
		if !near(out[k]) {
			return out, r.fail(tooFar)
		}
	}
	return out, nil
}

const tooFar = "this leads farther away than any paper is large"

func near(p Point) bool { return math.Abs(p.X) <= maxCoordinate && math.Abs(p.Y) <= maxCoordinate }

// command reads one command with all its arguments, however often repeated.
func (r *reader) command() error {
	c := r.text[r.i]
	upper := c &^ 0x20
	relative := c != upper
	if !r.open && upper != 'M' {
		return r.fail("a path begins with a move")
	}
	r.i++
	r.blanks()
	if upper == 'Z' {
		// A ring that was closed already stays as it is.
		if r.last != 'Z' {
			r.b.Close()
		}
		r.at, r.last = r.start, 'Z'
		return nil
	}
	for first := true; first || r.more(); first = false {
		if r.last == 'Z' && upper != 'M' {
			r.b.Move(r.at) // what follows a close begins where it ended
		}
		if err := r.step(upper, relative); err != nil {
			return err
		}
		if upper == 'M' {
			upper = 'L' // more points after a move are lines
		}
	}
	return nil
}

// straight draws a level or an upright line.
func (r *reader) straight(level, relative bool) error {
	v, err := r.number()
	if err != nil {
		return err
	}
	p, of := r.at, &r.at.X
	to := &p.X
	if !level {
		of, to = &r.at.Y, &p.Y
	}
	if relative {
		v += *of
	}
	*to = v
	if !near(p) {
		return r.fail(tooFar)
	}
	r.b.Line(p)
	r.at = p
	return nil
}

func (r *reader) step(upper byte, relative bool) error {
	switch upper {
	case 'M', 'L', 'T':
		p, err := r.points(1, relative)
		if err != nil {
			return err
		}
		switch upper {
		case 'M':
			r.b.Move(p[0])
			r.start, r.open = p[0], true
		case 'L':
			r.b.Line(p[0])
		default:
			c, err := r.reflected('Q')
			if err != nil {
				return err
			}
			r.b.Quad(c, p[0])
			r.control = c
			upper = 'Q'
		}
		r.at = p[0]
	case 'H', 'V':
		if err := r.straight(upper == 'H', relative); err != nil {
			return err
		}
	case 'C':
		p, err := r.points(3, relative)
		if err != nil {
			return err
		}
		r.b.Cubic(p[0], p[1], p[2])
		r.control, r.at = p[1], p[2]
	case 'S':
		c, err := r.reflected('C')
		if err != nil {
			return err
		}
		p, err := r.points(2, relative)
		if err != nil {
			return err
		}
		r.b.Cubic(c, p[0], p[1])
		r.control, r.at, upper = p[0], p[1], 'C'
	case 'Q':
		p, err := r.points(2, relative)
		if err != nil {
			return err
		}
		r.b.Quad(p[0], p[1])
		r.control, r.at = p[0], p[1]
	case 'A':
		if err := r.arc(relative); err != nil {
			return err
		}
	default:
		r.i--
		return r.fail("this is no command")
	}
	r.last = upper
	return nil
}

func (r *reader) arc(relative bool) error {
	var v [3]float64
	for k := range v {
		n, err := r.number()
		if err != nil {
			return err
		}
		v[k] = n
	}
	large, err := r.flag()
	if err != nil {
		return err
	}
	sweep, err := r.flag()
	if err != nil {
		return err
	}
	p, err := r.points(1, relative)
	if err != nil {
		return err
	}
	if a, ok := arcByEnds(r.at, p[0], v[0], v[1], v[2]*math.Pi/180, large, sweep); ok {
		// Ends that lie far apart along a hair of an ellipse blow it up.
		c := Curve{r.at, Segment{Op: ArcTo, P: [3]Point{p[0]}, Arc: &a}}
		long, _, _ := a.axes()
		// Written as several arcs, it has to be read again: what counts is where
		// it goes itself, not how far its tangents reach.
		b := Path{[]Segment{{Op: MoveTo, P: [3]Point{c.From}}, c.Segment}}.Bounds()
		if !near(Point{b.X, b.Y}) || !near(Point{b.Right(), b.Bottom()}) || !near(Point{long, 0}) {
			return r.fail(tooFar)
		}
		r.b.segs = append(r.b.segs, c.Segment)
	} else if r.at != p[0] {
		r.b.Line(p[0])
	}
	r.at = p[0]
	return nil
}

// reflected is the control point that a smooth curve begins with.
func (r *reader) reflected(after byte) (Point, error) {
	if r.last != after {
		return r.at, nil
	}
	c := r.at.Mul(2).Sub(r.control)
	if !near(c) {
		return c, r.fail(tooFar)
	}
	return c, nil
}

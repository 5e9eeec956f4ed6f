package hpgl

import (
	"math"

	"sectilis/core/ground/geom"
)

// packed draws packed lines (PE, “polyline encoded”, of HP-GL/2). Numbers are written in
// digits of base 64, or 32 once a 7 stands in the text, the lowest first; the last digit of
// a number comes from a range of its own. Places count from the one before unless = stands
// before them, and are reached with the pen down unless < does. : chooses a pen, > says how
// many binary digits of each number are a fraction. at is the byte at which the instruction
// stands, for messages. The pen is down afterwards.
func (p *plotter) packed(text string, at int) error {
	n := numbers{base: 64}
	p.down = true
	lift, absolute := false, false
	for n.text = text; n.skip(); {
		spoilt := func() error {
			return refuse("The file is no HP-GL that can be read: the packed lines at byte %d are spoilt at their byte %d.", at, n.i+1)
		}
		switch c := n.text[n.i]; c {
		case '7':
			n.base, n.i = 32, n.i+1
		case '<':
			lift, n.i = true, n.i+1
		case '=':
			absolute, n.i = true, n.i+1
		case ':', '>':
			n.i++
			v, ok := n.whole()
			switch {
			case !ok || math.Abs(v) > 1<<15 || c == '>' && (v < 0 || v > 26):
				return spoilt()
			case c == '>':
				n.fraction = int(v)
			default:
				p.flush()
				p.pen = int(v)
			}
		default:
			x, okX := n.whole()
			y, okY := n.whole()
			if !okX || !okY {
				return spoilt()
			}
			to := geom.Pt(math.Ldexp(x, -n.fraction), math.Ldexp(y, -n.fraction))
			if !absolute {
				to = to.Add(p.at)
			}
			p.down = !lift
			if err := p.move(to); err != nil {
				return err
			}
			lift, absolute = false, false
		}
	}
	p.down = true
	return nil
}

// numbers reads the numbers of packed lines.
type numbers struct {
	text     string
	i        int
	base     int // 64, or 32 where only seven bits of a byte are sent
	fraction int // binary digits
}

// skip passes over blanks and control characters; it returns false at the end.
func (n *numbers) skip() bool {
	for n.i < len(n.text) && n.seven(n.text[n.i]) <= ' ' {
		n.i++
	}
	return n.i < len(n.text)
}

// seven is the part of a byte that counts.
func (n *numbers) seven(c byte) byte {
	if n.base == 32 {
		return c & 127
	}
	return c
}

// whole is the next number without its fraction; ok is false for what is none, or is cut off.
func (n *numbers) whole() (v float64, ok bool) {
	last := byte(63 + 64*2) // the first character that ends a number
	if n.base == 32 {
		last = 63 + 32
	}
	var sum, k int64
	for k = 1; n.skip() && k < 1<<48; k *= int64(n.base) {
		c := n.seven(n.text[n.i])
		if c >= last && int(c-last) < n.base {
			n.i++
			sum += int64(c-last) * k
			if sum&1 == 1 {
				return -float64(sum >> 1), true
			}
			return float64(sum >> 1), true
		}
		if c < 63 || int(c-63) >= n.base {
			return 0, false
		}
		n.i++
		sum += int64(c-63) * k
	}
	return 0, false
}

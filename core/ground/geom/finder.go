package geom

import "math"

// finder notes what must be done to segments that meet.
type finder struct {
	segs  []seg
	slack int64
	apart int64 // what lies farther apart is not looked at
	stop  *ending
	n     uint32
	near  nearness // of the first round
	cuts  []cut
	joins [][2]ipoint // ends to make one
	meets meets
	_     [128]byte // so that what two processors write shares no line of their caches
}

// meets are the places where more meets than one segment and the next after it, or more
// places than these: some may be named twice, and some where nothing meets any more.
type meets struct {
	at   []ipoint
	many bool // more than are counted: at is not complete
}

// countedMeets is how many meets are told of.
const countedMeets = 128

func (m *meets) add(p ipoint) {
	if len(m.at) >= countedMeets {
		m.many = true
		return
	}
	m.at = append(m.at, p)
}

// pair finds where two segments must be cut.
func (f *finder) pair(i, j int32) {
	if f.stop.now(&f.n) {
		return
	}
	s, u := &f.segs[i], &f.segs[j]
	if p, v, w, ok := s.sharedEnd(u); ok {
		// Segments that follow one another along a ring always meet.
		if !(j == i+1 && p == s.b && p == u.a) && !(i == j+1 && p == u.b && p == s.a) {
			f.meets.add(p)
		}
		// In a right angle or more they come near each other there alone.
		const long = 3 * 3
		if v.dot(w) <= 0 && v.dot(v) > long && w.dot(w) > long {
			return
		}
		if v == w {
			f.meets.add(p.add(v)) // they lie on each other
		}
	}
	sa, sb := side(s.a, s.b, u.a), side(s.a, s.b, u.b)
	if apartBy(sa, sb, f.apart, s) {
		return
	}
	ua, ub := side(u.a, u.b, s.a), side(u.a, u.b, s.b)
	if apartBy(ua, ub, f.apart, u) {
		return
	}
	touch := f.end(i, u.a, sa)
	touch = f.end(i, u.b, sb) || touch
	touch = f.end(j, s.a, ua) || touch
	touch = f.end(j, s.b, ub) || touch
	if touch || (sa > 0) == (sb > 0) || sa == 0 || sb == 0 || (ua > 0) == (ub > 0) || ua == 0 || ub == 0 {
		f.note(i, j, touch)
		return
	}
	at := meet(s.a, s.b, u.a, u.b)
	clear := clear2(s.b.sub(s.a), u.b.sub(u.a))
	ofEnd := false
	if at != s.a && at != s.b {
		f.cuts = append(f.cuts, cut{i, at, clear})
	} else {
		ofEnd = true
	}
	if at != u.a && at != u.b {
		f.cuts = append(f.cuts, cut{j, at, clear})
	} else {
		ofEnd = true
	}
	if ofEnd {
		f.note(i, j, true)
	}
}

// note notes segments that come near each other where they do not cross, and whether they touch there.
func (f *finder) note(i, j int32, touch bool) {
	if f.apart == f.slack {
		return // not the first round
	}
	s, u := &f.segs[i], &f.segs[j]
	if p, v, w, ok := s.sharedEnd(u); ok && !touch && v.dot(w) > 0 && v.cross(w) != 0 {
		f.near.spikes = append(f.near.spikes, spike{i, j, p})
		return
	}
	if len(f.near.pairs) > len(f.segs) {
		f.near.many = true
		return
	}
	f.near.pairs = append(f.near.pairs, [2]int32{i, j})
}

// sharedEnd is an end that two segments share, with their ways from there; of segments that
// lie on each other one of both.
func (s *seg) sharedEnd(u *seg) (p, v, w ipoint, ok bool) {
	switch {
	case s.b == u.a:
		return s.b, s.a.sub(s.b), u.b.sub(u.a), true
	case s.a == u.b:
		return s.a, s.b.sub(s.a), u.a.sub(u.b), true
	case s.a == u.a:
		return s.a, s.b.sub(s.a), u.b.sub(u.a), true
	case s.b == u.b:
		return s.b, s.a.sub(s.b), u.a.sub(u.b), true
	}
	return p, v, w, false
}

// apartBy reports whether both ends of another segment lie clear on one side.
func apartBy(a, b, slack int64, s *seg) bool {
	if (a > 0) != (b > 0) || a == 0 || b == 0 {
		return false
	}
	if slack == 0 {
		return true
	}
	v := s.b.sub(s.a)
	// The sum of both legs is no less than the length.
	reach := slack * (int64(max(v.x, -v.x)) + int64(max(v.y, -v.y)))
	return max(a, -a) > reach && max(b, -b) > reach
}

// end sees to the end p of another segment, which lies at the given side of
// segment i: it reports whether it touches.
func (f *finder) end(i int32, p ipoint, side int64) bool {
	s := &f.segs[i]
	if p == s.a || p == s.b {
		return false
	}
	if f.slack > 0 {
		for _, e := range [2]ipoint{s.a, s.b} {
			if d := p.sub(e); d.dot(d) <= f.slack*f.slack {
				f.joins = append(f.joins, [2]ipoint{p, e})
				return true
			}
		}
	}
	v := s.b.sub(s.a)
	if f.slack == 0 {
		if side != 0 {
			return false
		}
	} else if math.Abs(float64(side)) > float64(f.slack)*math.Sqrt(float64(v.dot(v))) {
		return false
	}
	if k := p.sub(s.a).dot(v); k <= 0 || k >= v.dot(v) {
		return false
	}
	f.cuts = append(f.cuts, cut{i, p, bowed * bowed})
	return true
}

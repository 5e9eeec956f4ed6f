package edging

import (
	"math"

	"sectilis/core/ground/geom"
)

// stretch is a part of a ring between two corners, or all of one that has none.
type stretch struct {
	curves   []geom.Curve
	tables   []table
	starts   []float64 // the lengths before each curve
	total    float64
	closed   bool
	straight bool
}

// table tells for even steps of length where a curve is.
type table struct {
	length float64
	t      []float64
}

func tableOf(c geom.Curve) table {
	out := table{length: c.Length()}
	if c.Op == geom.LineTo {
		return out
	}
	const n = 64
	out.t = make([]float64, n+1)
	for i := range out.t {
		out.t[i] = c.AtLength(out.length * float64(i) / n)
	}
	return out
}

// at is the parameter at a length from the start.
func (t table) at(s float64) float64 {
	if t.t == nil {
		return s / t.length
	}
	n := len(t.t) - 1
	x := min(max(s/t.length, 0), 1) * float64(n)
	i := min(int(x), n-1)
	return t.t[i] + (t.t[i+1]-t.t[i])*(x-float64(i))
}

// stretches parts a ring at its corners, from the first on. Of one without corners only what is of a
// side is given, where one is asked for.
func stretches(ring geom.Path, side Side) []stretch {
	var cs []geom.Curve
	for _, r := range ring.Curves() {
		for _, c := range r {
			if c.Length() > 1e-6 {
				cs = append(cs, c)
			}
		}
	}
	if len(cs) == 0 {
		return nil
	}
	var corners []int // curves that begin at one
	for i, c := range cs {
		before := cs[(i+len(cs)-1)%len(cs)]
		a, b := before.Tangent(1), c.Tangent(0)
		if math.Abs(math.Atan2(a.Cross(b), a.Dot(b))) > corner {
			corners = append(corners, i)
		}
	}
	if len(corners) == 0 {
		whole := stretchOf(cs, true)
		if side == AllRound {
			return []stretch{whole}
		}
		return whole.of(side)
	}
	var out []stretch
	for k, from := range corners {
		to := corners[(k+1)%len(corners)]
		var own []geom.Curve
		for i := from; ; i = (i + 1) % len(cs) {
			if len(own) > 0 && i == to {
				break
			}
			own = append(own, cs[i])
		}
		out = append(out, stretchOf(own, false))
	}
	return out
}

func stretchOf(cs []geom.Curve, closed bool) stretch {
	st := stretch{curves: cs, closed: closed, straight: !closed}
	for _, c := range cs {
		st.starts = append(st.starts, st.total)
		t := tableOf(c)
		st.tables = append(st.tables, t)
		st.total += t.length
		st.straight = st.straight && c.Op == geom.LineTo && c.Tangent(0).Sub(cs[0].Tangent(0)).Len() < 1e-6
	}
	return st
}

// at is the place and the direction at a length along the stretch. Beyond its ends a closed one goes on
// round, an open one straight.
func (st *stretch) at(s float64) (p, tangent geom.Point) {
	over := 0.0
	switch {
	case st.closed:
		if s = math.Mod(s, st.total); s < 0 {
			s += st.total
		}
	case s < 0:
		s, over = 0, s
	case s > st.total:
		s, over = st.total, s-st.total
	}
	lo, hi := 0, len(st.curves)-1
	for lo < hi {
		if mid := (lo + hi + 1) / 2; st.starts[mid] <= s {
			lo = mid
		} else {
			hi = mid - 1
		}
	}
	c := st.curves[lo]
	t := min(max(st.tables[lo].at(s-st.starts[lo]), 0), 1)
	tangent = c.Tangent(t)
	return c.At(t).Add(tangent.Mul(over)), tangent
}

// on reports whether a stretch is of a side: its outward direction, on average, is within an eighth
// of a turn of that.
func (st *stretch) on(side Side) bool {
	if side == AllRound {
		return true
	}
	from, to := st.curves[0].From, st.curves[len(st.curves)-1].At(1)
	d := to.Sub(from)
	return faces(d, side)
}

// faces reports whether what runs in a direction has a side on its outside.
func faces(d geom.Point, side Side) bool {
	n := geom.Pt(d.Y, -d.X)
	want := map[Side]geom.Point{Top: {Y: -1}, Right: {X: 1}, Bottom: {Y: 1}, Left: {X: -1}}[side]
	return n.Len() > 0 && n.Dot(want)/n.Len() >= math.Sqrt2/2-1e-9
}

// of are the parts of a closed stretch that are of a side.
func (st *stretch) of(side Side) (out []stretch) {
	const steps = 720
	at := func(i int) bool {
		_, t := st.at(st.total * float64(i) / steps)
		return faces(t, side)
	}
	start := 0
	for start < steps && at(start) {
		start++
	}
	for i := start; i < start+steps; i++ {
		if at(i) || !at(i+1) {
			continue
		}
		j := i + 1
		for j < start+steps && at(j+1) {
			j++
		}
		out = append(out, st.part(st.total*float64(i+1)/steps, st.total*float64(j)/steps))
		i = j
	}
	return out
}

// part is a part of a closed stretch, between two lengths, which may lie beyond its end.
func (st *stretch) part(from, to float64) stretch {
	var cs []geom.Curve
	for round := 0.0; round < 2; round++ {
		for i, c := range st.curves {
			a, b := st.starts[i]+round*st.total, st.starts[i]+st.tables[i].length+round*st.total
			lo, hi := max(a, from), min(b, to)
			if hi-lo < 1e-6 {
				continue
			}
			t0, t1 := st.tables[i].at(lo-a), st.tables[i].at(hi-a)
			if t0 > 1e-9 {
				_, c = c.Split(t0)
				t1 = (t1 - t0) / (1 - t0)
			}
			if t1 < 1-1e-9 {
				c, _ = c.Split(t1)
			}
			cs = append(cs, c)
		}
	}
	return stretchOf(cs, false)
}

package cut

import (
	"math"
	"math/rand/v2"
	"slices"

	"sectilis/core/ground/geom"
)

// The way between lines is shortened by the rules of travelling salesmen: first the
// nearest line that may come next, then pieces of the way turned round (2-opt:
// Croes, 1958) or put elsewhere (Or-opt: Or, 1976), and where closed lines start
// chosen anew for the lines before and after, until nothing shortens it.

// maxStarts is how many of a closed line's places it may start at.
const maxStarts = 40

// stop is a line on the way.
type stop struct {
	starts  []int // places to start at; of an open line, its ends
	closed  bool
	points  []geom.Point
	before  []int // lines that have to be done by then
	in, out geom.Point
	at      int // index into points where it starts
}

// Order is a way through lines from a place: the lines, each begun where it is
// shortest, and their numbers. inside[i] are the lines that have to come before line i.
func Order(lines []geom.Polyline, from geom.Point, inside [][]int) (ordered []geom.Polyline, numbers []int) {
	stops := make([]*stop, len(lines))
	for i, l := range lines {
		stops[i] = stopOf(l)
		if inside != nil {
			stops[i].before = inside[i]
		}
	}
	w := &way{from: from, stops: stops}
	w.nearest()
	w.improve(0, len(w.order))
	w.shake()
	for _, k := range w.order {
		ordered, numbers = append(ordered, stops[k].line()), append(numbers, int(k))
	}
	return ordered, numbers
}

func stopOf(l geom.Polyline) *stop {
	s := &stop{closed: l.Closed, points: l.Points}
	n := len(l.Points)
	if !l.Closed {
		s.starts = []int{0, n - 1}
	} else {
		for k := range min(n, maxStarts) {
			s.starts = append(s.starts, k*n/min(n, maxStarts))
		}
	}
	s.begin(0)
	return s
}

// begin starts the line at one of its places.
func (s *stop) begin(at int) {
	s.at = at
	s.in, s.out = s.points[at], s.points[at]
	if !s.closed {
		s.out = s.points[len(s.points)-1-at]
	}
}

func (s *stop) line() geom.Polyline {
	n := len(s.points)
	out := geom.Polyline{Closed: s.closed, Points: make([]geom.Point, 0, n)}
	for k := range n {
		if s.closed {
			out.Points = append(out.Points, s.points[(s.at+k)%n])
		} else if s.at == 0 {
			out.Points = append(out.Points, s.points[k])
		} else {
			out.Points = append(out.Points, s.points[n-1-k])
		}
	}
	return out
}

// turn runs an open line the other way.
func (s *stop) turn() {
	if !s.closed {
		s.begin(len(s.points) - 1 - s.at)
	}
}

type way struct {
	from  geom.Point
	stops []*stop
	order []int
	bound bool // some have to come before others
}

func (w *way) nearest() {
	done := make([]bool, len(w.stops))
	at := w.from
	for range w.stops {
		best, start, least := -1, 0, math.Inf(1)
		for i, s := range w.stops {
			if done[i] || !all(done, s.before) {
				continue
			}
			for _, k := range s.starts {
				if d := s.points[k].Sub(at).Len(); d < least {
					best, start, least = i, k, d
				}
			}
		}
		w.bound = w.bound || len(w.stops[best].before) > 0
		w.stops[best].begin(start)
		done[best] = true
		at = w.stops[best].out
		w.order = append(w.order, best)
	}
}

func all(done []bool, of []int) bool {
	for _, i := range of {
		if !done[i] {
			return false
		}
	}
	return true
}

// exit is where the tool is after the stop at a place of the order, entry where it
// goes to; nothing comes after the last.
func (w *way) exit(i int) geom.Point {
	if i < 0 {
		return w.from
	}
	return w.stops[w.order[i]].out
}

func (w *way) gap(a geom.Point, i int) float64 {
	if i >= len(w.order) {
		return 0
	}
	return w.stops[w.order[i]].in.Sub(a).Len()
}

// gapBack is gap when the stop at i is run the other way.
func (w *way) gapBack(a geom.Point, i int) float64 { return w.stops[w.order[i]].out.Sub(a).Len() }

const (
	shorter   = 1e-6 // mm; less is rounding
	maxSweeps = 60
)

// improve shortens what lies from place lo of the order to before hi.
func (w *way) improve(lo, hi int) {
	for range maxSweeps {
		better := w.restart(lo, hi)
		better = w.turnRound(lo, hi) || better
		better = w.putElsewhere(lo, hi) || better
		if !better {
			return
		}
	}
}

// How often the way is shaken, and how many lines of the order each time: what is far off
// stays as it is.
const (
	shakes    = 40
	shakeNear = 40
)

// shake exchanges two stretches that follow one another and shortens what comes of it,
// again and again; what is no shorter in the end is undone.
func (w *way) shake() {
	n := len(w.order)
	if n < 8 {
		return
	}
	r := rand.New(rand.NewPCG(uint64(n), 0x3a7))
	length := w.length()
	for range shakes {
		order, at := slices.Clone(w.order), make([]int, n)
		for i, s := range w.stops {
			at[i] = s.at
		}
		near := min(n, shakeNear)
		first := r.IntN(n - near + 1)
		cuts := []int{first + r.IntN(near), first + r.IntN(near), first + r.IntN(near)}
		slices.Sort(cuts)
		if cuts[0] == cuts[1] || cuts[1] == cuts[2] {
			continue
		}
		next := slices.Concat(w.order[:cuts[0]], w.order[cuts[1]:cuts[2]], w.order[cuts[0]:cuts[1]], w.order[cuts[2]:])
		if !w.may(next) {
			continue
		}
		w.order = next
		w.improve(max(0, first-shakeNear/4), min(n, first+near+shakeNear/4))
		if now := w.length(); now < length-shorter {
			length = now
			continue
		}
		w.order = order
		for i, s := range w.stops {
			s.begin(at[i])
		}
	}
}

// length is that of the way between the lines.
func (w *way) length() float64 {
	sum := 0.0
	for i := range w.order {
		sum += w.gap(w.exit(i-1), i)
	}
	return sum
}

// may reports whether in an order every line comes after those that have to.
func (w *way) may(order []int) bool {
	if !w.bound {
		return true
	}
	done := make([]bool, len(w.stops))
	for _, k := range order {
		if !all(done, w.stops[k].before) {
			return false
		}
		done[k] = true
	}
	return true
}

// restart begins each line where the way past it is shortest.
func (w *way) restart(lo, hi int) bool {
	better := false
	for i := lo; i < hi; i++ {
		s := w.stops[w.order[i]]
		if len(s.starts) < 2 {
			continue
		}
		a := w.exit(i - 1)
		was := s.at
		least := w.gap(a, i) + w.gap(s.out, i+1)
		best := was
		for _, at := range s.starts {
			s.begin(at)
			if d := w.gap(a, i) + w.gap(s.out, i+1); d < least-shorter {
				best, least = at, d
			}
		}
		s.begin(best)
		better = better || best != was
	}
	return better
}

// turnRound turns stretches of the order round.
func (w *way) turnRound(lo, hi int) bool {
	better := false
	for i := lo; i < hi; i++ {
		for j := i + 1; j < hi; j++ {
			a := w.exit(i - 1)
			was := w.gap(a, i) + w.gap(w.exit(j), j+1)
			first := w.stops[w.order[i]]
			now := w.gapBack(a, j) + w.gap(first.in, j+1)
			if now >= was-shorter || w.bound && !w.mayTurn(i, j) {
				continue
			}
			w.turn(i, j)
			better = true
		}
	}
	return better
}

func (w *way) turn(i, j int) {
	for k := i; k <= j; k++ {
		w.stops[w.order[k]].turn()
	}
	for ; i < j; i, j = i+1, j-1 {
		w.order[i], w.order[j] = w.order[j], w.order[i]
	}
}

// mayTurn reports whether no line of a stretch has to come before another of it.
func (w *way) mayTurn(i, j int) bool {
	in := map[int]bool{}
	for _, k := range w.order[i : j+1] {
		for _, b := range w.stops[k].before {
			if in[b] {
				return false
			}
		}
		in[k] = true
	}
	return true
}

// putElsewhere moves up to three lines that follow one another to another place,
// either way round.
func (w *way) putElsewhere(lo, hi int) bool {
	better := false
	for size := 1; size <= min(3, hi-lo-1); size++ {
		for i := lo; i+size <= hi; i++ {
			a := w.exit(i - 1)
			last := i + size - 1
			gain := w.gap(a, i) + w.gap(w.exit(last), last+1) - w.gap(a, last+1)
			if gain < shorter {
				continue
			}
			first, end := w.stops[w.order[i]], w.stops[w.order[last]]
			to, back, most := -1, false, shorter
			for j := lo; j <= hi; j++ {
				if j >= i && j <= last+1 {
					continue
				}
				p := w.exit(j - 1)
				was := w.gap(p, j)
				if g := gain + was - first.in.Sub(p).Len() - w.gap(end.out, j); g > most {
					to, back, most = j, false, g
				}
				if g := gain + was - end.out.Sub(p).Len() - w.gap(first.in, j); g > most {
					to, back, most = j, true, g
				}
			}
			if to < 0 || !w.move(i, last, to, back) {
				continue
			}
			better = true
		}
	}
	return better
}

// move puts the lines from i to last before the one at to; false, and nothing done,
// where one would come before what has to be done by then.
func (w *way) move(i, last, to int, back bool) bool {
	part := append([]int(nil), w.order[i:last+1]...)
	if back {
		for a, b := 0, len(part)-1; a < b; a, b = a+1, b-1 {
			part[a], part[b] = part[b], part[a]
		}
	}
	rest := append(append([]int(nil), w.order[:i]...), w.order[last+1:]...)
	if to > last {
		to -= len(part)
	}
	next := append(append(append([]int(nil), rest[:to]...), part...), rest[to:]...)
	if !w.may(next) {
		return false
	}
	if back {
		for _, k := range part {
			w.stops[k].turn()
		}
	}
	w.order = next
	return true
}

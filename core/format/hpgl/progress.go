package hpgl

import (
	"cmp"
	"slices"

	"sectilis/core/ground/geom"
)

// Ahead is how many steps a machine is let go on by before that is kept: after the program has died, where
// the tool rests tells in which of them.
const Ahead = 4

// Progress is how far a run has come, as it is kept on disk. What holds of it at every moment, whatever dies:
// steps before Done are worked; of step Done all is worked up to Rest where that is told; nothing at or after
// step Given + 1 was ever sent; and unless Sent, nothing was sent since Rest was told.
type Progress struct {
	Done, Given int
	// Rest is where the tool came to rest with its work half done, mm; nil where step Done is not begun.
	Rest *geom.Point
	// Sent says that steps from Done on may have been sent since.
	Sent bool
}

// Give is called before more is sent, once step i of n is done: it notes up to where the machine may be sent
// steps, and reports whether that has to be kept first.
func (p *Progress) Give(i, n int) (keep bool) {
	if p.Sent && (i+1 < p.Given || p.Given >= n) {
		return false
	}
	p.Given, p.Sent = min(i+1+Ahead, n), true
	return true
}

// Did notes that a machine has told step i to be done.
func (p *Progress) Did(i int) { p.Done, p.Rest = i+1, nil }

// Whole is called when the machine has told all that it was sent to be done.
func (p *Progress) Whole() { p.Given, p.Rest, p.Sent = p.Done, nil, false }

// From goes on with step n, whose begin a person has seen to be the first that is not worked.
func (p *Progress) From(n int) { p.Done, p.Given, p.Rest, p.Sent = n, n, nil, false }

// Asks reports whether the machine has to tell where its tool rests before the run goes on.
func (p *Progress) Asks() bool { return p.Sent || p.Rest == nil && p.Given > p.Done }

// Stopped takes up where a machine tells its tool to have come to rest. It is false, and nothing is changed,
// where that does not tell what is worked: the place is on no way of the steps that may have been sent, or on
// several, as at a crossing or where a loop begins and ends.
func (p *Progress) Stopped(steps []Step, at geom.Point, down bool) bool {
	floor := moment{n: p.Done, run: before(steps, p.Done), rest: p.Rest}
	if p.Rest != nil {
		floor.run += along(steps[p.Done].points, *p.Rest)
	}
	all := moments(steps, p.Done, p.Given+1, at, down)
	all = slices.DeleteFunc(all, func(m moment) bool { return m.run < floor.run-2*near })
	half := p.Rest != nil && p.Sent
	_, moved := endBefore(steps, p.Done)
	switch {
	case half && !down && (len(all) == 0 || p.Rest.Sub(at).Len() <= near):
		all = append(all, floor) // it is on its way to where step Done goes on
	case len(all) == 0 && !down && !moved:
		all = append(all, floor) // no step before has moved it
	case len(all) == 0:
		return false
	}
	last := slices.MaxFunc(all, func(a, b moment) int { return cmp.Compare(a.run, b.run) })
	if first := slices.MinFunc(all, func(a, b moment) int { return cmp.Compare(a.run, b.run) }); last.run-first.run > 4*near {
		return false
	}
	p.Done, p.Given, p.Rest, p.Sent = last.n, max(last.n, 1), last.rest, false
	return true
}

// moment is how far a run is: steps before n are worked and, where there is a rest, step n up to there. Run
// is the length worked by then, mm.
type moment struct {
	n    int
	run  float64
	rest *geom.Point
}

// before is the length worked before a step, mm.
func before(steps []Step, n int) float64 {
	if n == 0 {
		return 0
	}
	return steps[n-1].Run
}

// along is how far along a way a place on it comes, mm.
func along(way []geom.Point, at geom.Point) float64 {
	place, next, ok := on(way, at)
	if !ok {
		return 0
	}
	sum := place.Sub(way[next-1]).Len()
	for i := 1; i < next; i++ {
		sum += way[i].Sub(way[i-1]).Len()
	}
	return sum
}

// moments are all at which a tool, down or up, is at a place, in steps from first up to end.
func moments(steps []Step, first, end int, at geom.Point, down bool) (out []moment) {
	for i := first; i < min(end, len(steps)); i++ {
		s, run := steps[i], before(steps, i)
		if len(s.points) == 0 || s.from != nil {
			if came, ok := endBefore(steps, i); ok && came.Sub(at).Len() <= near {
				out = append(out, moment{n: i, run: run})
			}
		}
		if len(s.points) == 0 {
			continue
		}
		if down {
			out = append(out, working(s, moment{n: i, run: run}, at)...)
			continue
		}
		if s.from != nil {
			if _, _, ok := on([]geom.Point{*s.from, s.points[0]}, at); ok || s.points[0].Sub(at).Len() <= near {
				out = append(out, moment{n: i, run: run})
			}
		}
		if s.points[len(s.points)-1].Sub(at).Len() <= near {
			out = append(out, moment{n: i + 1, run: s.Run})
		}
	}
	return out
}

// working are the moments at which a tool that works a step is at a place; begin is that at which it begins.
// A stroke in the waste is always made again.
func working(s Step, begin moment, at geom.Point) (out []moment) {
	run := begin.run
	for k := 1; k < len(s.points); k++ {
		place, _, ok := on(s.points[k-1:k+1], at)
		switch {
		case ok && s.aside:
			out = append(out, begin)
		case ok:
			out = append(out, moment{begin.n, run + place.Sub(s.points[k-1]).Len(), &at})
		}
		run += s.points[k].Sub(s.points[k-1]).Len()
	}
	return out
}

// endBefore is where the tool is before a step; false where nothing has moved it.
func endBefore(steps []Step, i int) (geom.Point, bool) {
	for i--; i >= 0; i-- {
		if p, ok := steps[i].End(); ok {
			return p, true
		}
	}
	return geom.Point{}, false
}

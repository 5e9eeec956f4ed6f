package exchange

import (
	"slices"

	"sectilis/core/ground/geom"
)

// Chain joins open paths that meet end to end within tol millimetres, and closes what comes
// round. Files from drawing programs often hold an outline as loose lines and arcs.
//
// Lines that lie twice in a file are taken once. The work grows with the number of ends.
func Chain(paths []geom.Path, tol float64) []geom.Path {
	out, links := loose(paths)
	ends := newEnds(links, tol)
	for _, l := range links {
		if l.used {
			continue
		}
		l.used = true
		chain := slices.Clone(l.curves)
		for range 2 { // on from the end, then from the start
			for more := ends.next(last(chain)); more != nil; more = ends.next(last(chain)) {
				chain = append(chain, more...)
			}
			chain = geom.ReverseCurves(chain)
		}
		closed := len(chain) > 1 && chain[0].From.Sub(last(chain)).Len() <= tol
		out = append(out, geom.FromCurves(chain, closed))
	}
	return out
}

func last(chain []geom.Curve) geom.Point { return chain[len(chain)-1].End() }

// link is an open path that may be joined to others.
type link struct {
	curves []geom.Curve
	used   bool
}

// loose parts closed paths from open ones, each of which is there once, whichever way round.
func loose(paths []geom.Path) (closed []geom.Path, open []*link) {
	seen := map[[32]byte]bool{}
	for _, p := range paths {
		curves := p.Curves()
		for i, r := range p.Rings() {
			switch key := r.Digest(); {
			case len(curves[i]) == 0:
			case r.Closed():
				closed = append(closed, r)
			case !seen[key] && !seen[r.Reverse().Digest()]:
				seen[key] = true
				open = append(open, &link{curves: curves[i]})
			}
		}
	}
	return closed, open
}

// ends finds links by where they end, in cells of twice the tolerance.
type ends struct {
	tol float64
	at  map[cell][]*link
}

type cell struct{ x, y int64 }

func newEnds(links []*link, tol float64) *ends {
	e := &ends{tol, map[cell][]*link{}}
	for _, l := range links {
		for _, q := range []geom.Point{l.curves[0].From, last(l.curves)} {
			e.at[e.cell(q)] = append(e.at[e.cell(q)], l)
		}
	}
	return e
}

func (e *ends) cell(p geom.Point) cell {
	return cell{int64(p.X / e.tol / 2), int64(p.Y / e.tol / 2)}
}

// next uses a link that starts, either way round, near q; nil when there is none left.
func (e *ends) next(q geom.Point) []geom.Curve {
	c := e.cell(q)
	for dx := int64(-1); dx <= 1; dx++ {
		for dy := int64(-1); dy <= 1; dy++ {
			if l := e.take(cell{c.x + dx, c.y + dy}, q); l != nil {
				return l
			}
		}
	}
	return nil
}

// take is next for the links of one cell.
func (e *ends) take(at cell, q geom.Point) []geom.Curve {
	list := e.at[at]
	for i := 0; i < len(list); i++ {
		l := list[i]
		switch {
		case l.used: // out of the way, or it would be passed again and again
			list[i] = list[len(list)-1]
			list = list[:len(list)-1]
			e.at[at] = list
			i--
		case l.curves[0].From.Sub(q).Len() <= e.tol:
			l.used = true
			return l.curves
		case last(l.curves).Sub(q).Len() <= e.tol:
			l.used = true
			return geom.ReverseCurves(l.curves)
		}
	}
	return nil
}

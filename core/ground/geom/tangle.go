package geom

import (
	"cmp"
	"math"
	"slices"
)

// chord is a piece of a flattened curve, with its box.
type chord struct{ a, b, lo, hi Point }

// chordsOf are the chords within 0.05 mm of the curves of paths, and how wide and high they
// are in sum.
func chordsOf(paths []Path) (out []chord, wide, high float64) {
	for _, p := range paths {
		for _, l := range p.sound().Flatten(.05) {
			n := len(l.Points)
			for i, a := range l.Points {
				if i+1 == n && !l.Closed {
					break
				}
				b := l.Points[(i+1)%n]
				c := chord{a, b, Pt(min(a.X, b.X), min(a.Y, b.Y)), Pt(max(a.X, b.X), max(a.Y, b.Y))}
				wide += c.hi.X - c.lo.X
				high += c.hi.Y - c.lo.Y
				out = append(out, c)
			}
		}
	}
	return out, wide, high
}

// Tangled reports whether the curves of paths cross each other more often than most times,
// or lie so that finding that out takes more than 100 comparisons for each of those: what is
// combined then takes a long time. It counts on chords within 0.05 mm of the curves.
func Tangled(most int, paths ...Path) bool {
	chords, wide, high := chordsOf(paths)
	if len(chords) == 0 {
		return false
	}
	// Chords are met along the axis on which they are shorter, in strips across the other
	// that are as high as chords are on average.
	along, across := func(p Point) float64 { return p.X }, func(p Point) float64 { return p.Y }
	if wide > high {
		along, across, high = across, along, wide
	}
	slices.SortFunc(chords, func(c, d chord) int { return cmp.Compare(along(c.lo), along(d.lo)) })
	first, last := math.Inf(1), math.Inf(-1)
	for _, c := range chords {
		first, last = min(first, across(c.lo)), max(last, across(c.hi))
	}
	height := max(high/float64(len(chords)), (last-first)/4096, 1e-6)
	strip := func(p Point) int { return int((across(p) - first) / height) }
	strips := make([][]int32, int((last-first)/height)+1)
	for i, c := range chords {
		for k := strip(c.lo); k <= strip(c.hi); k++ {
			strips[k] = append(strips[k], int32(i))
		}
	}
	crossings, compared := 0, 0
	for k, in := range strips {
		for i, at := range in {
			c := &chords[at]
			for _, of := range in[i+1:] {
				d := &chords[of]
				if along(d.lo) > along(c.hi) {
					break
				}
				if compared++; compared > 100*most+100 {
					return true
				}
				// Each pair counts once: in the first strip that both are in.
				if max(strip(c.lo), strip(d.lo)) == k && crosses(c.a, c.b, d.a, d.b) {
					if crossings++; crossings > most {
						return true
					}
				}
			}
		}
	}
	return false
}

// crosses reports whether the lines ab and cd cross; lines that share an end do not.
func crosses(a, b, c, d Point) bool {
	if a == c || a == d || b == c || b == d {
		return false
	}
	v, w := b.Sub(a), d.Sub(c)
	return math.Signbit(v.Cross(c.Sub(a))) != math.Signbit(v.Cross(d.Sub(a))) &&
		math.Signbit(w.Cross(a.Sub(c))) != math.Signbit(w.Cross(b.Sub(c)))
}

package lettering

import (
	"strings"

	"sectilis/core/card"
	"sectilis/core/geom"
)

// Joined reports whether outlines of two letters of a line cross, as they do in
// joined scripts and with tight spacing. A blade that followed them would cut
// the letters apart. A font that is not known has no letters to join.
func Joined(w card.Words) bool {
	l := library()[w.Font]
	if l == nil {
		return false
	}
	l.Lock()
	defer l.Unlock()
	for _, text := range strings.Split(w.Text, "\n") {
		letters, _ := l.line([]rune(text), w.Spacing, map[rune]bool{})
		for i, a := range letters {
			for _, b := range letters[i+1:] {
				if a.Bounds().Overlaps(b.Bounds()) && cross(a, b) {
					return true
				}
			}
		}
	}
	return false
}

// cross reports whether any sides of the two outlines cross, with chords as
// fine as a thousandth of the letters' size.
func cross(a, b geom.Path) bool {
	const tol = .001
	for _, p := range a.Flatten(tol) {
		for i, p0 := range p.Points {
			p1 := p.Points[(i+1)%len(p.Points)]
			for _, q := range b.Flatten(tol) {
				for j, q0 := range q.Points {
					if sides(p0, p1, q0, q.Points[(j+1)%len(q.Points)]) {
						return true
					}
				}
			}
		}
	}
	return false
}

func sides(p0, p1, q0, q1 geom.Point) bool {
	side := func(a, b, c geom.Point) bool { return b.Sub(a).Cross(c.Sub(a)) > 0 }
	return side(p0, p1, q0) != side(p0, p1, q1) && side(q0, q1, p0) != side(q0, q1, p1)
}

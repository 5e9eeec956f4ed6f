package fold

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// A folded sheet is a tree of panels, each turned against the one before about
// the fold that they share. Folds that are not in the tree close loops, as in
// every pop-up: going once around, the turns must bring a panel back to where
// it was. The main folds are turned by hand; the angles of the others follow
// from the loops. They are found by damped Gauss-Newton steps on the loops'
// closure (Levenberg, 1944; Marquardt, 1963), from the flat sheet on, each
// opening starting from the one before, so that the folding stays the one that
// the mountains and valleys say. Loops are solved one after the other where
// one has no more unknown folds than it can tell; what is left is solved
// together.

// gap is how far apart two panels may be at a fold and still meet, mm.
const gap = 1e-6

// Pose is where every panel is at one opening.
type Pose struct {
	// Closing runs from 0, flat, to 1, closed.
	Closing float64
	Panels  []Motion
	Angles  []float64 // of each hinge, radians, valleys positive
	// Gap is the largest distance at a fold between panels that share it, mm;
	// Where is that hinge, -1 for none.
	Gap   float64
	Where int
}

// Folder folds one sheet.
type Folder struct {
	Division
	net    Net
	root   int
	parent []step  // of each panel, how it hangs on the tree
	order  []int   // panels from the root
	main   []bool  // of each hinge, whether it is turned by hand
	stages int     // in which folds are turned by hand
	loops  []loop  // the folds outside the tree
	blocks [][]int // loops that are solved together, in order
	free   [][]int // of each block, the hinges that it finds
}

// step goes from one panel to another over a hinge: forward from A to B.
type step struct {
	hinge   int
	forward bool
	from    int
}

// loop is a way around, back to where it began.
type loop struct {
	closing int // the hinge outside the tree
	steps   []step
	at      V3 // a place near it, to measure how far it is from closed
}

// NewFolder takes a net apart. The root, which stays where it is, is the
// largest panel of the face Back.
func NewFolder(n Net) *Folder {
	f := &Folder{Division: n.Divide(), net: n}
	back := n.Face(card.Back)
	box := geom.RectPath(geom.Rect{W: back.Width, H: back.Height}).Transform(back.OnSheet).Bounds()
	size := -1.0
	for i, p := range f.Panels {
		a := p.Ring.Area()
		if !box.Has(p.Middle) {
			a /= 1e6
		}
		if a > size+1e-9 {
			f.root, size = i, a
		}
	}
	f.main = make([]bool, len(f.Hinges))
	for i, h := range f.Hinges {
		f.main[i] = n.Lines[h.Line].Main
	}
	f.tree()
	f.flaps()
	f.plan()
	f.stages = 1
	for j, h := range f.Hinges {
		if f.main[j] {
			f.stages = max(f.stages, n.Lines[h.Line].Stage+1)
		}
	}
	return f
}

// flaps are folds in no loop: nothing moves them but a hand.
func (f *Folder) flaps() {
	looped := make([]bool, len(f.Hinges))
	for _, l := range f.loops {
		for _, s := range l.steps {
			looped[s.hinge] = true
		}
	}
	for j := range f.main {
		f.main[j] = f.main[j] || !looped[j]
	}
}

// tree hangs panels on each other, breadth first: over main folds as far as they reach,
// then over the others, and over main folds again from what came with these.
func (f *Folder) tree() {
	f.parent = make([]step, len(f.Panels))
	for i := range f.parent {
		f.parent[i] = step{-1, false, -1}
	}
	if len(f.Panels) == 0 {
		return
	}
	inTree := make([]bool, len(f.Hinges))
	seen := make([]bool, len(f.Panels))
	seen[f.root] = true
	f.order = []int{f.root}
	at := f.hingesOf()
	// over hangs what is reached over main folds, or over others, on the panels from one
	// on; it returns whether there was anything.
	over := func(from int, main bool) bool {
		n := len(f.order)
		for i := from; i < len(f.order); i++ {
			for _, j := range at[f.order[i]] {
				h := f.Hinges[j]
				to, forward := h.B, true
				if h.B == f.order[i] {
					to, forward = h.A, false
				}
				if f.main[j] == main && !seen[to] {
					seen[to], inTree[j] = true, true
					f.parent[to] = step{j, forward, f.order[i]}
					f.order = append(f.order, to)
				}
			}
			if !main && len(f.order) > n {
				break // main folds first, from there
			}
		}
		return len(f.order) > n
	}
	for more := true; more; {
		over(0, true)
		more = over(0, false)
	}
	for j, h := range f.Hinges {
		if inTree[j] || !seen[h.A] {
			continue
		}
		f.loops = append(f.loops, f.loopOf(j))
	}
}

// hingesOf are, for each panel, the hinges that it has.
func (f *Folder) hingesOf() [][]int {
	out := make([][]int, len(f.Panels))
	for j, h := range f.Hinges {
		out[h.A] = append(out[h.A], j)
		if h.B != h.A {
			out[h.B] = append(out[h.B], j)
		}
	}
	return out
}

// loopOf is the way from A over the hinge to B and back by the tree.
func (f *Folder) loopOf(j int) loop {
	h := f.Hinges[j]
	up := func(p int) []int {
		out := []int{p}
		for f.parent[p].from >= 0 {
			p = f.parent[p].from
			out = append(out, p)
		}
		return out
	}
	a, b := up(h.A), up(h.B)
	for len(a) > 1 && len(b) > 1 && a[len(a)-2] == b[len(b)-2] {
		a, b = a[:len(a)-1], b[:len(b)-1]
	}
	l := loop{closing: j, steps: []step{{j, true, h.A}}}
	for _, p := range b[:len(b)-1] { // from B up to the common panel
		s := f.parent[p]
		l.steps = append(l.steps, step{s.hinge, !s.forward, p})
	}
	for i := len(a) - 2; i >= 0; i-- { // and down to A
		l.steps = append(l.steps, f.parent[a[i]])
	}
	for _, s := range l.steps {
		e := f.Hinges[s.hinge]
		l.at = l.at.Add(Flat(e.From.Lerp(e.To, .5)).Mul(1 / float64(len(l.steps))))
	}
	return l
}

// plan finds the order in which loops are solved: again and again one whose
// unknown folds are few enough to be told by it, and all that share unknown
// folds together when there is none.
func (f *Folder) plan() {
	known := append([]bool(nil), f.main...)
	left := map[int]bool{}
	for i := range f.loops {
		left[i] = true
	}
	unknown := func(i int) []int {
		var out []int
		for _, s := range f.loops[i].steps {
			if !known[s.hinge] {
				out = append(out, s.hinge)
			}
		}
		return out
	}
	take := func(loops []int) {
		var free []int
		for _, i := range loops {
			for _, h := range unknown(i) {
				known[h] = true
				free = append(free, h)
			}
			delete(left, i)
		}
		f.blocks, f.free = append(f.blocks, loops), append(f.free, free)
	}
	for len(left) > 0 {
		best := -1
		for i := range f.loops {
			if left[i] && (best < 0 || len(unknown(i)) < len(unknown(best))) {
				best = i
			}
		}
		if len(unknown(best)) <= 3 {
			take([]int{best})
			continue
		}
		take(f.sharing(best, left, unknown))
	}
}

// sharing are a loop and all that are left and share an unknown fold with it, directly or
// by others.
func (f *Folder) sharing(loop int, left map[int]bool, unknown func(int) []int) []int {
	group, in := []int{loop}, map[int]bool{loop: true}
	for k := 0; k < len(group); k++ {
		mine := unknown(group[k])
		for i := range f.loops {
			if left[i] && !in[i] && slices.ContainsFunc(unknown(i), func(h int) bool { return slices.Contains(mine, h) }) {
				group, in[i] = append(group, i), true
			}
		}
	}
	return group
}

// driven is the angle of a main fold. Folds of several stages turn one stage
// after the other.
func (f *Folder) driven(hinge int, closing float64) float64 {
	l := f.net.Lines[f.Hinges[hinge].Line]
	share := min(max(closing*float64(f.stages)-float64(l.Stage), 0), 1)
	end := math.Pi
	if l.Stop != 0 {
		end = l.Stop
	}
	return sign(l.Role) * end * share
}

// axis is the line that a panel turns about when crossing a hinge forward, and
// the direction that makes a valley positive.
func (f *Folder) axis(h Hinge) (p, u V3) {
	p = Flat(h.From)
	d := Flat(h.To).Sub(p)
	return p, d.Mul(1 / d.Len())
}

// turned is the motion of the panel behind a hinge against the one before it.
func (f *Folder) turned(s step, angle float64) Motion {
	p, u := f.axis(f.Hinges[s.hinge])
	// Going from From to To, A lies on the left on screen and B on the right.
	// Seen from outside a valley lifts B toward the viewer, about the axis.
	if s.forward {
		return about(p, u, angle)
	}
	return about(p, u, -angle)
}

// Sweep folds the sheet from flat to closed in n steps, flat and closed
// included.
func (f *Folder) Sweep(n int) []Pose {
	angles := make([]float64, len(f.Hinges))
	before := make([]float64, len(f.Hinges))
	out := make([]Pose, 0, n+1)
	for i := 0; i <= n; i++ {
		closing := float64(i) / float64(n)
		now := append([]float64(nil), angles...)
		for j := range now {
			switch {
			case f.main[j]:
				now[j] = f.driven(j, closing)
			case i == 1:
				// The flat sheet can fold any way; its lines say which.
				now[j] = sign(f.Hinges[j].Role) * math.Pi / float64(n)
			case i > 1:
				now[j] = 2*angles[j] - before[j]
			}
		}
		switch {
		case i == 1:
			f.leave(now)
		case i > 1:
			f.solve(now)
		}
		if i == n {
			f.shut(now)
		}
		before, angles = angles, now
		out = append(out, f.pose(closing, now))
	}
	return out
}

// shut brings angles near flat or fully folded there: the closed sheet is
// where the loops tell angles least, and where they are known best.
func (f *Folder) shut(angles []float64) {
	snapped := append([]float64(nil), angles...)
	for j := range snapped {
		if !f.main[j] {
			if k := math.Round(snapped[j]/math.Pi) * math.Pi; math.Abs(k-snapped[j]) < .12 {
				snapped[j] = k
			}
		}
	}
	if f.worst(snapped) < max(gap, f.worst(angles)) {
		copy(angles, snapped)
	}
}

func (f *Folder) worst(angles []float64) float64 {
	sum := 0.0
	for i := range f.loops {
		r := f.residual(i, angles)
		for _, v := range r {
			sum = max(sum, math.Abs(v))
		}
	}
	return sum
}

// pose places every panel by the tree and measures the gaps at all folds.
func (f *Folder) pose(closing float64, angles []float64) Pose {
	p := Pose{Closing: closing, Panels: make([]Motion, len(f.Panels)), Angles: angles, Where: -1}
	for i := range p.Panels {
		p.Panels[i] = still
	}
	for _, at := range f.order {
		if s := f.parent[at]; s.from >= 0 {
			p.Panels[at] = p.Panels[s.from].after(f.turned(s, angles[s.hinge]))
		}
	}
	for j, h := range f.Hinges {
		for _, e := range []geom.Point{h.From, h.To} {
			if d := p.Panels[h.A].Apply(Flat(e)).Sub(p.Panels[h.B].Apply(Flat(e))).Len(); d > p.Gap {
				p.Gap, p.Where = d, j
			}
		}
	}
	return p
}

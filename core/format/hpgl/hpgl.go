// Package hpgl writes cutting plans in HP-GL, the plotter language that most
// cutters of any make still read: IN, SP, VS, FS, PU and PD, 40 units per
// millimetre, the origin at the sheet's lower left corner, y up. It reads
// drawings in it, and writes them.
package hpgl

import (
	"fmt"
	"io"
	"math"
	"strings"

	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
)

// PerMM is the number of plotter units in a millimetre.
const PerMM = 40

// Step is one piece of a plan that may be sent by itself: instructions, and
// how much of the path has been run when they are done.
type Step struct {
	Pass    int     // index of the pass
	Path    int     // index of the path within the pass
	Text    string  // instructions, each ended by a semicolon
	Run     float64 // mm run with the tool down, from the plan's start
	Seconds float64 // that it takes
	// Last says that it ends a path.
	Last bool

	points []geom.Point // that the tool is taken along while it is down
	from   *geom.Point  // where the tool is lifted over from, if the step begins a path
	aside  bool         // it is the stroke in the waste that turns the blade
}

// End returns where the tool is when the step is done, mm, y down; false for a step that
// does not move it.
func (s Step) End() (geom.Point, bool) {
	if len(s.points) == 0 {
		return geom.Point{}, false
	}
	return s.points[len(s.points)-1], true
}

// Aside reports whether the step only turns the blade, in the waste.
func (s Step) Aside() bool { return s.aside }

// on returns where a place is on a way: the place, and the number of the point after it.
func on(way []geom.Point, at geom.Point) (place geom.Point, next int, ok bool) {
	best := near
	for i := 1; i < len(way); i++ {
		a, v := way[i-1], way[i].Sub(way[i-1])
		k := 0.0
		if l := v.Dot(v); l > 0 {
			k = min(max(at.Sub(a).Dot(v)/l, 0), 1)
		}
		p := a.Add(v.Mul(k))
		if d := p.Sub(at).Len(); d < best-1e-9 {
			best, next, place, ok = d, i, p, true
		}
	}
	return place, next, ok
}

// stroke takes the tool along points and lifts it.
func stroke(points []geom.Point, height float64) string {
	return "PU" + place(points[0], height) + ";" + down(points, height) + "PU;"
}

// Steps splits a plan into what is sent one after the other. The height is
// that of the sheet, mm.
func Steps(passes []cut.Pass, height float64) []Step {
	out := []Step{{Text: "IN;"}}
	run := 0.0
	tool := geom.Pt(0, height)
	for i, pass := range passes {
		out = append(out, Step{Pass: i, Text: fmt.Sprintf("SP%d;", pass.Tool) + pace(pass), Run: run})
		if a := pass.Align.Points; len(a) > 1 {
			out = append(out, Step{Pass: i, Text: stroke(a, height), Run: run, Last: true, points: a, aside: true,
				Seconds: cut.Seconds([]geom.Point{tool, a[0]}, pass.Travel) + cut.Seconds(a, pass.Speed)})
			tool = a[len(a)-1]
		}
		for j, l := range pass.Paths {
			pts := l.Points
			if l.Closed {
				pts = append(pts[:len(pts):len(pts)], pts[0])
			}
			text, seconds := "PU"+place(pts[0], height)+";", cut.Seconds([]geom.Point{tool, pts[0]}, pass.Travel)
			for _, c := range cut.Chunks(pts) {
				for k := 1; k < len(c); k++ {
					run += c[k].Sub(c[k-1]).Len()
				}
				s := Step{Pass: i, Path: j, Text: text + down(c, height), Run: run, Seconds: seconds + cut.Seconds(c, pass.Speed), points: c}
				if text != "" {
					s.from = &geom.Point{X: tool.X, Y: tool.Y}
				}
				out = append(out, s)
				text, seconds = "", 0
			}
			out[len(out)-1].Last = true
			tool = pts[len(pts)-1]
		}
		out = append(out, Step{Pass: i, Path: max(len(pass.Paths)-1, 0), Text: "PU;", Run: run})
	}
	return append(out, Step{Pass: max(len(passes)-1, 0), Text: "SP0;", Run: run})
}

// down takes the tool along a chunk whose first place it is at.
func down(chunk []geom.Point, height float64) string {
	coords := make([]string, 0, len(chunk))
	for _, p := range chunk[1:] {
		coords = append(coords, place(p, height))
	}
	return "PD" + strings.Join(coords, ",") + ";"
}

// Aligner returns a stroke in the waste that turns a blade to an angle, in the coordinates
// of the plan; false if there is none.
type Aligner func(angle float64) (geom.Polyline, bool)

// After returns the steps to go on with when the first n are done: the tool is taken up
// again and put down where it was. Where it is known to have come to rest on its way, with
// the tool down, it goes on from there; else from the end of the last step. A blade that
// swivels is first turned as it was; align is nil where it points as it did.
func After(steps []Step, passes []cut.Pass, height float64, n int, rest *geom.Point, align Aligner) []Step {
	if n <= 0 || n >= len(steps) {
		return steps[min(max(n, 0), len(steps)):]
	}
	left := append([]Step(nil), steps[n:]...)
	s := &left[0]
	if s.Pass >= len(passes) || strings.HasPrefix(s.Text, "SP") {
		return left
	}
	pass := passes[s.Pass]
	lead := fmt.Sprintf("SP%d;", pass.Tool) + pace(pass)
	if len(s.points) < 2 {
		s.Text = lead + s.Text
		return left
	}
	s.points = goOn(s.points, rest)
	if align != nil && !s.aside && pass.Swivels() {
		if a, ok := align(pass.HeadingAt(s.Path, s.points[0])); ok {
			lead += stroke(a.Points, height)
			s.Seconds += cut.Seconds(a.Points, pass.Speed)
		}
	}
	if s.aside {
		s.Text = lead + stroke(s.points, height)
		return left
	}
	s.Text = lead + "PU" + place(s.points[0], height) + ";"
	if len(s.points) > 1 {
		s.Text += down(s.points, height)
	}
	return left
}

// near is how far off its way, mm, a tool may rest and still be on it: the machine
// tells whole units.
const near = .1

// goOn is what is left of a chunk when the tool rests on it. Where a loop closes its
// start is taken: better twice than not.
func goOn(chunk []geom.Point, rest *geom.Point) []geom.Point {
	if rest == nil {
		return chunk
	}
	place, next, ok := on(chunk, *rest)
	if !ok {
		return chunk
	}
	return append([]geom.Point{place}, chunk[next:]...)
}

// pace sets speed, in cm/s, and force, in g, for the machines that take them.
func pace(p cut.Pass) string {
	text := ""
	if p.Speed > 0 {
		text += fmt.Sprintf("VS%d;", max(1, int(math.Round(p.Speed/10))))
	}
	if p.Force > 0 {
		text += fmt.Sprintf("FS%d;", p.Force)
	}
	return text
}

// place is a point of the sheet in plotter units.
func place(p geom.Point, height float64) string {
	return fmt.Sprintf("%d,%d", int(math.Round(p.X*PerMM)), int(math.Round((height-p.Y)*PerMM)))
}

// Write writes the whole plan. It returns the error of the writer. The height of the sheet is
// mm.
func Write(w io.Writer, passes []cut.Pass, height float64) error {
	for _, s := range Steps(passes, height) {
		if _, err := io.WriteString(w, s.Text+"\n"); err != nil {
			return fmt.Errorf("write HP-GL: %w", err)
		}
	}
	return nil
}

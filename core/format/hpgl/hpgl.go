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

	"sectilis/core/cut"
	"sectilis/core/geom"
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
}

// Steps splits a plan into what is sent one after the other. The height is
// that of the sheet, mm.
func Steps(passes []cut.Pass, height float64) []Step {
	out := []Step{{Text: "IN;"}}
	run := 0.0
	tool := geom.Pt(0, height)
	for i, pass := range passes {
		out = append(out, Step{Pass: i, Text: fmt.Sprintf("SP%d;", pass.Tool) + pace(pass), Run: run})
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
				out = append(out, Step{Pass: i, Path: j, Text: text + down(c, height), Run: run, Seconds: seconds + cut.Seconds(c, pass.Speed), points: c})
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

// After are the steps to go on with when the first n are done: the tool is taken up
// again and put down where it was. Where it is known to have come to rest on its way,
// with the tool down, it goes on from there; else from the end of the last step.
func After(steps []Step, passes []cut.Pass, height float64, n int, rest *geom.Point) []Step {
	if n <= 0 || n >= len(steps) {
		return steps[min(max(n, 0), len(steps)):]
	}
	left := append([]Step(nil), steps[n:]...)
	s := &left[0]
	if s.Pass >= len(passes) || strings.HasPrefix(s.Text, "SP") {
		return left
	}
	lead := fmt.Sprintf("SP%d;", passes[s.Pass].Tool) + pace(passes[s.Pass])
	if len(s.points) < 2 {
		s.Text = lead + s.Text
		return left
	}
	s.points = goOn(s.points, rest)
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
	best, at, place := near, -1, geom.Point{}
	for i := 1; i < len(chunk); i++ {
		a, v := chunk[i-1], chunk[i].Sub(chunk[i-1])
		k := 0.0
		if l := v.Dot(v); l > 0 {
			k = min(max(rest.Sub(a).Dot(v)/l, 0), 1)
		}
		p := a.Add(v.Mul(k))
		if d := p.Sub(*rest).Len(); d < best-1e-9 {
			best, at, place = d, i, p
		}
	}
	if at < 0 {
		return chunk
	}
	return append([]geom.Point{place}, chunk[at:]...)
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

// Write writes the whole plan.
func Write(w io.Writer, passes []cut.Pass, height float64) error {
	for _, s := range Steps(passes, height) {
		if _, err := io.WriteString(w, s.Text+"\n"); err != nil {
			return fmt.Errorf("write HP-GL: %w", err)
		}
	}
	return nil
}

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

// maxPoints bounds the coordinates of one PD, for cutters with a small buffer.
const maxPoints = 60

// Step is one piece of a plan that may be sent by itself: instructions, and
// how much of the path has been run when they are done.
type Step struct {
	Pass int     // index of the pass
	Path int     // index of the path within the pass
	Text string  // instructions, each ended by a semicolon
	Run  float64 // mm run with the tool down, from the plan's start
}

// Steps splits a plan into what is sent one after the other. The height is
// that of the sheet, mm.
func Steps(passes []cut.Pass, height float64) []Step {
	out := []Step{{Text: "IN;"}}
	run := 0.0
	at := func(p geom.Point) string { return place(p, height) }
	for i, pass := range passes {
		out = append(out, Step{Pass: i, Text: fmt.Sprintf("SP%d;", pass.Tool) + pace(pass), Run: run})
		for j, l := range pass.Paths {
			pts := l.Points
			if l.Closed {
				pts = append(pts[:len(pts):len(pts)], pts[0])
			}
			text := "PU" + at(pts[0]) + ";"
			for len(pts) > 1 {
				n := min(len(pts), maxPoints+1)
				coords := make([]string, 0, n-1)
				for k := 1; k < n; k++ {
					coords = append(coords, at(pts[k]))
					run += pts[k].Sub(pts[k-1]).Len()
				}
				out = append(out, Step{i, j, text + "PD" + strings.Join(coords, ",") + ";", run})
				text, pts = "", pts[n-1:]
			}
		}
		out = append(out, Step{Pass: i, Path: max(len(pass.Paths)-1, 0), Text: "PU;", Run: run})
	}
	return append(out, Step{Pass: max(len(passes)-1, 0), Text: "SP0;", Run: run})
}

// After are the steps to go on with when the first n are done: the tool is taken up
// again and put down where it was.
func After(steps []Step, passes []cut.Pass, n int) []Step {
	if n <= 0 || n >= len(steps) {
		return steps[min(max(n, 0), len(steps)):]
	}
	rest := append([]Step(nil), steps[n:]...)
	s := &rest[0]
	if s.Pass >= len(passes) || strings.HasPrefix(s.Text, "SP") {
		return rest
	}
	lead := fmt.Sprintf("SP%d;", passes[s.Pass].Tool) + pace(passes[s.Pass])
	if strings.HasPrefix(s.Text, "PD") {
		lead += "PU" + lastPlace(steps[n-1].Text) + ";"
	}
	s.Text = lead + s.Text
	return rest
}

// lastPlace is the last pair of coordinates of instructions.
func lastPlace(text string) string {
	text = strings.TrimSuffix(text, ";")
	i := strings.LastIndexByte(text, ',')
	if i < 0 {
		return ""
	}
	return text[strings.LastIndexAny(text[:i], ",D")+1:]
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

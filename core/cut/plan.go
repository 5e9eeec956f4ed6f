// Package cut turns the lines of a sheet into the passes of a run: pen and
// score before cuts, what lies inside before what holds it.
package cut

import (
	"math"

	"sectilis/core/fold"
	"sectilis/core/geom"
	"sectilis/core/sheet"
)

// Tool is what a pass is made with; its number is the pen number in HPGL.
type Tool int

// The tools of a cutter, by the number of their holder.
const (
	Pen        Tool = 1
	ScoringTip Tool = 2
	Blade      Tool = 3
	LightBlade Tool = 4 // set to cut the upper layer alone
)

// Pass is one stage of a run with one tool.
type Pass struct {
	Name  string          `json:"name"`
	Tool  Tool            `json:"tool"`
	Paths []geom.Polyline `json:"-"` // on the sheet, mm
	Lines []geom.Path     `json:"lines"`
	// Length is that of the paths, mm; Seconds is the time they take at the
	// speeds below, travel between them included.
	Length  float64 `json:"length"`
	Seconds float64 `json:"seconds"`
}

// The speeds that times are worked out with, mm/s.
const (
	Speed  = 60.0
	Travel = 150.0
)

// tolerance of flattening, mm: below the 0.025 mm of one HPGL unit.
const tolerance = .01

// perforation is the length of its cuts and of what holds between, mm.
var perforation = []float64{2, 1}

// Plan orders the lines of a sheet into passes; empty passes are left out.
func Plan(sh sheet.Sheet) []Pass {
	pen := Pass{Name: "Pen", Tool: Pen}
	score := Pass{Name: "Score", Tool: ScoringTip}
	perforate := Pass{Name: "Perforation", Tool: Blade}
	kiss := Pass{Name: "Kiss cut", Tool: LightBlade}
	inside := Pass{Name: "Inside cuts", Tool: Blade}
	outlines := Pass{Name: "Outlines", Tool: Blade}
	for _, p := range sh.Pieces {
		for _, l := range p.Lines {
			switch l.Role {
			case fold.Mountain, fold.Valley:
				score.add(l.Path)
				continue
			case fold.Pen:
				pen.add(l.Path)
				continue
			case fold.Perforation:
				perforate.add(geom.Dash(l.Path, perforation, perforation[0]/2))
				continue
			case fold.Kiss:
				kiss.add(l.Path)
				continue
			}
			rings := l.Path.Rings()
			for _, r := range rings {
				if held(r, rings) {
					inside.add(r)
				} else {
					outlines.add(r)
				}
			}
		}
	}
	var out []Pass
	at := geom.Point{}
	for _, p := range []Pass{pen, score, perforate, kiss, inside, outlines} {
		if len(p.Paths) == 0 {
			continue
		}
		travel := 0.0
		for _, l := range p.Paths {
			travel += l.Points[0].Sub(at).Len()
			p.Length += l.Length()
			at = l.Points[len(l.Points)-1]
			if l.Closed {
				at = l.Points[0]
			}
		}
		p.Seconds = p.Length/Speed + travel/Travel
		out = append(out, p)
	}
	return out
}

func (p *Pass) add(path geom.Path) {
	p.Paths = append(p.Paths, path.Flatten(tolerance)...)
	p.Lines = append(p.Lines, path)
}

// held reports whether the ring lies inside an odd number of the others.
func held(r geom.Path, rings []geom.Path) bool {
	area, box := math.Abs(r.Area()), r.Bounds()
	n := 0
	if !r.Closed() {
		return true // an open cut goes before what it lies in comes loose
	}
	for _, o := range rings {
		if math.Abs(o.Area()) > area && o.Bounds().Contains(box, 1e-9) {
			if geom.Winding(o.Flatten(tolerance), r.Flatten(tolerance)[0].Points[0]) != 0 {
				n++
			}
		}
	}
	return n%2 == 1
}

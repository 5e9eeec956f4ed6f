// Package cut turns the lines of a sheet into the passes of a run: pen and
// score before cuts, what lies inside before what holds it, on a short way, and
// steers the holder so that the tip of the blade runs along the lines.
package cut

import (
	"math"

	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
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
	Name string `json:"name"`
	Tool Tool   `json:"tool"`
	// Paths are the ways of the tool's holder on the sheet, mm; Lines what comes
	// of each, as it was drawn. Moves are the ways between them, with the tool up.
	Paths []geom.Polyline `json:"-"`
	Lines []geom.Path     `json:"lines"`
	Moves geom.Path       `json:"moves"`
	// Speed in mm/s and Force in g while the tool is down, Travel the speed in mm/s
	// while it is up.
	Speed  float64 `json:"speed"`
	Travel float64 `json:"travel"`
	Force  int     `json:"force"`
	// Length is that of the paths, Between that of the way between them, mm.
	// Seconds is the time for both.
	Length  float64 `json:"length"`
	Between float64 `json:"between"`
	Seconds float64 `json:"seconds"`
	// Align is a stroke in the waste that turns the blade before the first path; empty
	// where that is not needed, or the sheet has no free place.
	Align geom.Polyline `json:"-"`

	offset   float64         // of the blade, mm; 0 for other tools
	headings []float64       // which way the blade points at the start of each path, radians
	lines    []geom.Polyline // before they are put in order
	drawn    []geom.Path
}

// tolerance of flattening, mm: below the 0.025 mm of one HPGL unit.
const tolerance = .01

// Plan orders the lines of a sheet into passes; empty passes are left out. The
// tool starts at the lower left corner of the sheet.
func Plan(sh sheet.Sheet, with Settings) []Pass {
	pen := Pass{Name: "Pen", Tool: Pen}
	score := Pass{Name: "Score", Tool: ScoringTip}
	perforate := Pass{Name: "Perforation", Tool: Blade}
	kiss := Pass{Name: "Kiss cut", Tool: LightBlade}
	inside := Pass{Name: "Inside cuts", Tool: Blade}
	outlines := Pass{Name: "Outlines", Tool: Blade}
	var cuts []ring
	along := map[fold.Role]*Pass{fold.Mountain: &score, fold.Valley: &score, fold.Pen: &pen, fold.Perforation: &perforate, fold.Kiss: &kiss}
	for _, p := range sh.Pieces {
		for _, l := range p.Lines {
			pass := along[l.Role]
			switch {
			case pass == &perforate:
				pass.add(geom.Dash(l.Path, []float64{with.Dash, with.Hold}, with.Dash/2))
			case pass != nil:
				pass.add(l.Path)
			default:
				for _, r := range l.Path.Rings() {
					cuts = append(cuts, ringOf(r))
				}
			}
		}
	}
	inner, outer := divide(cuts, &inside, &outlines, sh.Shared)
	out := []Pass{} // none is not null: a sheet may have nothing to work
	at := geom.Pt(0, sh.Size.Height)
	points := 0.0 // the way the blade points
	aligned := 0
	for _, p := range []struct {
		Pass
		before [][]int
	}{{pen, nil}, {score, nil}, {perforate, nil}, {kiss, nil}, {inside, inner}, {outlines, outer}} {
		if len(p.lines) == 0 {
			continue
		}
		if n := len(out); p.Tool >= Blade && (n == 0 || out[n-1].Tool != p.Tool) {
			if stroke, ok := Align(sh, with.Offset, points, aligned); ok {
				p.Align = stroke
				aligned++
			}
		}
		p.finish(with, at, p.before, &points)
		last := p.Paths[len(p.Paths)-1].Points
		at = last[len(last)-1]
		out = append(out, p.Pass)
	}
	return out
}

// divide parts cuts into those that lie in something else that is cut, and outlines. For
// each line of the two passes it returns the lines of its pass that come before it. Outlines
// that lie on each other are cut once when they are shared.
func divide(cuts []ring, inside, outlines *Pass, shared bool) (inner, outer [][]int) {
	// Whatever lies in something else that is cut comes before it: the hole of a
	// piece, and a smaller piece laid in that hole before the hole itself.
	holders := nested(cuts)
	where := make([]int, len(cuts))
	var outermost []ring
	for i, c := range cuts {
		if len(holders[i]) == 0 && c.closed {
			outermost = append(outermost, c)
			continue
		}
		where[i] = len(inside.lines)
		inside.add(c.path)
		inner = append(inner, nil)
	}
	left := make([][]geom.Path, len(outermost))
	for i, c := range outermost {
		left[i] = []geom.Path{c.path}
	}
	if shared {
		left = once(outermost)
	}
	for _, paths := range left {
		for _, p := range paths {
			outlines.add(p)
			outer = append(outer, nil)
		}
	}
	for i := range cuts {
		for _, h := range holders[i] {
			if len(holders[h]) > 0 {
				inner[where[h]] = append(inner[where[h]], where[i])
			}
		}
	}
	return inner, outer
}

func (p *Pass) add(path geom.Path) {
	for _, r := range path.Rings() {
		for _, l := range r.Flatten(tolerance) {
			p.lines, p.drawn = append(p.lines, l), append(p.drawn, r)
		}
	}
}

// finish orders the lines, steers the holder along them and times it.
func (p *Pass) finish(with Settings, from geom.Point, before [][]int, points *float64) {
	offset, over, rounds := 0.0, 0.0, 1
	p.Speed, p.Travel, p.Force = with.Speed, with.Travel, with.Light
	switch p.Tool {
	case Blade:
		offset, over, rounds, p.Force = with.Offset, with.Over, with.Rounds, with.Force
	case LightBlade:
		offset, over = with.Offset, with.Over
	}
	p.offset = offset
	way, numbers := Order(p.lines, from, before)
	var moves geom.Builder
	if a := p.Align.Points; len(a) > 1 {
		p.Seconds += Seconds([]geom.Point{from, a[0]}, p.Travel) + Seconds(a, p.Speed)
		moves.Move(from).Line(a[0])
		from = a[1]
	}
	for i, l := range way {
		var path geom.Polyline
		heading := *points
		path, *points = Holder(l, offset, over, *points, rounds)
		if len(path.Points) < 2 {
			continue
		}
		p.Between += path.Points[0].Sub(from).Len()
		p.Length += path.Length()
		p.Seconds += Seconds([]geom.Point{from, path.Points[0]}, p.Travel)
		for _, c := range Chunks(path.Points) {
			p.Seconds += Seconds(c, p.Speed)
		}
		moves.Move(from).Line(path.Points[0])
		from = path.Points[len(path.Points)-1]
		p.Paths, p.Lines, p.headings = append(p.Paths, path), append(p.Lines, p.drawn[numbers[i]]), append(p.headings, heading)
	}
	p.Moves = moves.Path()
}

// ring is something to cut.
type ring struct {
	path   geom.Path
	lines  []geom.Polyline
	box    geom.Rect
	area   float64
	closed bool
}

func ringOf(p geom.Path) ring {
	return ring{p, p.Flatten(tolerance), p.Bounds(), math.Abs(p.Area()), p.Closed()}
}

// nested are, for each cut, the closed ones that it lies in.
func nested(cuts []ring) [][]int {
	out := make([][]int, len(cuts))
	for i, c := range cuts {
		for j, o := range cuts {
			if i == j || !o.closed || c.closed && o.area <= c.area || !o.box.Contains(c.box, 1e-9) {
				continue
			}
			if geom.Winding(o.lines, c.lines[0].Points[0]) != 0 {
				out[i] = append(out[i], j)
			}
		}
	}
	return out
}

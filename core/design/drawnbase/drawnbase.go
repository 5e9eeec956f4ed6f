// Package drawnbase makes a base of a drawing from another program: the edge of the sheet, its cuts and
// scores, and the leaves that have faces. What the drawing does not tell is asked.
package drawnbase

import (
	"fmt"

	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// Ask is what a person says about a drawing.
type Ask struct {
	// Lines are what lines are for, by the keys of pathops.LineKinds: a role, or left out. Closed
	// outlines for pieces count as cuts. Filled is the same for the edges of filled shapes.
	Lines  map[string]pathops.Use `json:"lines"`
	Filled pathops.Use            `json:"filled"`
	// InsideUp says that the drawing shows the sheet from its inside.
	InsideUp bool `json:"insideUp"`
	// Meet is how far an end may be from what it was meant to meet, mm.
	Meet float64 `json:"meet"`
	// Answers are the answers to questions, by their ids.
	Answers map[string]Answer `json:"answers"`
	// Leaves are the panels that have faces, the first that of Front; none for those that seem likely.
	Leaves []Leaf `json:"leaves"`
	Stock  string `json:"stock"`
	Name   string `json:"name"`
}

// Leaf is a panel that has faces, named by a place on it in the drawing, and their names.
type Leaf struct {
	At          geom.Point `json:"at"`
	Outside     string     `json:"outside"`
	Inside      string     `json:"inside"`
	OutsideTurn int        `json:"outsideTurn"`
	InsideTurn  int        `json:"insideTurn"`
}

// Answer is what becomes of something that was unclear.
type Answer string

// The answers.
const (
	CloseIt    Answer = "close"       // join the ends of the outline by a straight line
	TakeBox    Answer = "box"         // the sheet is the rectangle round all lines
	Lengthen   Answer = "lengthen"    // up to what it would meet
	LeaveLine  Answer = "leave"       // take the line out
	AsSlit     Answer = "slit"        // a cut that ends within the sheet
	Straighten Answer = "straight"    // a curved score becomes straight
	Perforate  Answer = "perforation" // a score becomes a perforation, which does not fold
)

// Answers lists all answers, for the schema.
func Answers() []Answer {
	return []Answer{CloseIt, TakeBox, Lengthen, LeaveLine, AsSlit, Straighten, Perforate}
}

// Question is something that the drawing does not tell.
type Question struct {
	ID      string     `json:"id"`
	At      geom.Point `json:"at"` // in the drawing, mm
	Says    string     `json:"says"`
	Options []Answer   `json:"options"`
	Answer  Answer     `json:"answer"` // empty until there is one
}

// Line is a line as it is understood. Path is in the drawing, mm.
type Line struct {
	Role card.Role `json:"role"`
	Path geom.Path `json:"path"`
	slit bool
	name string // what its questions are known by
}

// Panel is a part of the sheet between folds and cuts. Leaf counts from 0, -1 for a panel without faces.
type Panel struct {
	Ring geom.Path  `json:"ring"`
	At   geom.Point `json:"at"`
	Leaf int        `json:"leaf"`
}

// Found is what a drawing was understood as, in the coordinates of the drawing, mm.
type Found struct {
	Box       geom.Rect  `json:"box"` // of all lines
	Edge      geom.Path  `json:"edge"`
	Lines     []Line     `json:"lines"`
	Panels    []Panel    `json:"panels"`
	Leaves    []Leaf     `json:"leaves"`
	Questions []Question `json:"questions"`
	Notes     []string   `json:"notes"`
	// Base is the base; nil as long as a question is open.
	Base *card.Base `json:"base,omitempty"`
	// Folds and Why say whether the base folds and what is wrong where it does not.
	Folds bool     `json:"folds"`
	Why   []string `json:"why"`
}

// Limits of a drawing that becomes a base.
const (
	maxCurves    = 20_000
	maxCrossings = 20_000
)

// reader reads one drawing.
type reader struct {
	ask  Ask
	out  Found
	cuts []geom.Path // closed and open ones, chained
}

// question notes something unclear and returns its answer, "" while there is none.
func (r *reader) question(id string, at geom.Point, says string, options ...Answer) Answer {
	q := Question{ID: id, At: at, Says: says, Options: options}
	for _, o := range options {
		if r.ask.Answers[id] == o {
			q.Answer = o
		}
	}
	r.out.Questions = append(r.out.Questions, q)
	return q.Answer
}

func (r *reader) note(format string, args ...any) {
	n := fmt.Sprintf(format, args...)
	for _, old := range r.out.Notes {
		if old == n {
			return
		}
	}
	r.out.Notes = append(r.out.Notes, n)
}

// open reports whether a question has no answer.
func (r *reader) open() bool {
	for _, q := range r.out.Questions {
		if q.Answer == "" {
			return true
		}
	}
	return false
}

// Read makes a base of a drawing as far as it and the answers tell. It returns a *card.Refusal for one
// that cannot become a base, or is too large.
func Read(d exchange.Drawing, ask Ask) (Found, error) {
	r := reader{ask: ask, out: Found{Lines: []Line{}, Panels: []Panel{}, Leaves: []Leaf{}, Questions: []Question{}, Notes: []string{}, Why: []string{}}}
	if r.ask.Meet <= 0 {
		r.ask.Meet = .3
	}
	if r.ask.Meet > 10 {
		return r.out, card.Refuse("meet", "Ends are brought together within 10 mm at most.")
	}
	if err := r.sort(d); err != nil {
		return r.out, err
	}
	if !r.edge() {
		return r.out, nil
	}
	r.trim()
	r.straighten()
	r.meet()
	if len(r.out.Lines) > card.MaxDrawnLines {
		return r.out, card.Refuse("lines", "A base has at most %d lines; the drawing has %d. Leave some out.", card.MaxDrawnLines, len(r.out.Lines))
	}
	if r.open() {
		return r.out, nil
	}
	return r.out, r.base()
}

// sort takes the lines of the drawing by what they are for.
func (r *reader) sort(d exchange.Drawing) error {
	var cuts []geom.Path
	curves := 0
	for _, s := range d.Shapes {
		use := r.ask.Lines[pathops.LineKey(s)]
		if s.Stroke == "" {
			use = r.ask.Filled
		}
		if use == "" || use == pathops.LeaveOut {
			continue
		}
		if curves += s.Path.Len(); curves > maxCurves {
			return card.Refuse("drawing", "The lines of the drawing have more than %d pieces, too many for a base. Leave some out.", maxCurves)
		}
		switch role := card.Role(use); {
		case use == pathops.AsPiece || role == card.RoleCut:
			cuts = append(cuts, s.Path)
		case role.Folds() || role == card.RolePerforation || role == card.RoleKiss:
			for _, p := range s.Path.Rings() {
				r.out.Lines = append(r.out.Lines, Line{Role: role, Path: p})
			}
		default:
			r.note("Lines that are printed or drawn are no part of a base. Lay them on a face afterwards.")
		}
	}
	if len(d.Pictures) > 0 {
		r.note("Pictures are no part of a base. Lay them on a face afterwards.")
	}
	all := cuts
	for _, l := range r.out.Lines {
		all = append(all, l.Path)
	}
	if len(all) == 0 {
		return card.Refuse("lines", "No line of the drawing is a cut or a score. Say what its lines are for.")
	}
	if geom.Tangled(maxCrossings, all...) {
		return card.Refuse("drawing", "The lines cross each other more than %d times, too often for a base. Leave some out.", maxCrossings)
	}
	straight := align(all, r.ask.Meet/2)
	for _, p := range exchange.Chain(straight[:len(cuts)], r.ask.Meet) {
		r.cuts = append(r.cuts, led(p))
	}
	for i := range r.out.Lines {
		r.out.Lines[i].Path = straight[len(cuts)+i]
	}
	whole := geom.Join(straight...).Bounds()
	r.out.Box = whole
	if max(whole.W, whole.H) > card.MaxSheet {
		return card.Refuse("drawing", "The lines reach over %.0f × %.0f mm; a sheet has at most %d mm. Choose another unit, or leave out what lies far away.", whole.W, whole.H, card.MaxSheet)
	}
	if min(whole.W, whole.H) < leastSide {
		return card.Refuse("drawing", "The lines reach over %.1f × %.1f mm, and no sheet is so narrow. Choose another unit, or take more of the lines in.", whole.W, whole.H)
	}
	return nil
}

// led is a chain whose arcs are led to by straight stretches where they begin a little off the end of
// what comes before.
func led(p geom.Path) geom.Path {
	return aligned(p.Curves()[0], p.Closed(), nil, nil, 0)
}

// base makes the base of what was read, and folds it.
func (r *reader) base() error {
	box := r.out.Edge.Bounds()
	toSheet := geom.Shift(-box.X, -box.Y)
	drawn := &card.DrawnBase{Name: r.ask.Name, Width: box.W, Height: box.H}
	lay := func(m geom.Affine, flip bool) {
		drawn.Outline = card.NewDrawn(r.out.Edge.Transform(m))
		drawn.Lines = nil
		for _, l := range r.out.Lines {
			role := l.Role
			if flip {
				role = fold.Flipped(role)
			}
			drawn.Lines = append(drawn.Lines, card.DrawnLine{Role: role, Path: card.NewDrawn(l.Path.Transform(m)), Slit: l.slit})
		}
	}
	lay(toSheet, false)
	b := card.Base{Kind: card.FromLines, Width: box.W, Height: box.H, Stock: r.ask.Stock, Drawn: drawn}
	drawn.Leaves = []card.DrawnLeaf{{Box: geom.Rect{W: box.W, H: box.H}, Outside: "Front", Inside: "Back"}}
	if err := fold.Check(b); err != nil {
		return err
	}
	level := fold.LevelFolds(b)
	if r.ask.InsideUp {
		if level {
			toSheet = toSheet.Then(geom.Affine{A: 1, D: -1, F: box.H})
		} else {
			toSheet = toSheet.Then(geom.Affine{A: -1, D: 1, E: box.W})
		}
		lay(toSheet, true)
	}
	back, _ := toSheet.Inverse()
	// What scores end on follows them, and may move them once more.
	far := 0.0
	for range 5 {
		lines, by, ok := fold.Even(b)
		if !ok || by < 1e-5 || by > r.ask.Meet {
			break
		}
		far = max(far, by)
		for i := range lines {
			if r.out.Lines[i].Role.Folds() {
				r.out.Lines[i].Path = lines[i].Path.Path().Transform(back)
			}
		}
		r.meet()
		lay(toSheet, r.ask.InsideUp)
	}
	if far > .05 {
		r.note("Scores were moved by up to %s, so that it closes.", measure.FormatUnit(far, measure.MM))
	}
	division := fold.Of(b).Divide()
	if len(division.Panels) == 0 {
		return card.Refuse("drawing", "Nothing is left of the sheet beside its holes and cuts. Leave some of them out.")
	}
	for _, p := range division.Panels {
		r.out.Panels = append(r.out.Panels, Panel{Ring: geom.Join(append([]geom.Path{p.Ring}, p.Holes...)...).Transform(back), At: back.Apply(p.Middle), Leaf: -1})
	}
	// Of leaves that a person has named those are left that still have a panel.
	at := func(l Leaf) int { return division.PanelAt(toSheet.Apply(l.At)) }
	for _, l := range r.ask.Leaves {
		if k := at(l); k >= 0 && r.out.Panels[k].Leaf < 0 {
			r.out.Panels[k].Leaf = 0
			r.out.Leaves = append(r.out.Leaves, l)
		}
	}
	if len(r.out.Leaves) == 0 {
		r.out.Leaves = likelyLeaves(division, drawn.Outline.Path(), level, back)
	}
	drawn.Leaves = nil
	for i, l := range r.out.Leaves {
		k := at(l)
		r.out.Panels[k].Leaf = i
		drawn.Leaves = append(drawn.Leaves, card.DrawnLeaf{Box: division.Panels[k].Ring.Bounds(), Outside: l.Outside, Inside: l.Inside, OutsideTurn: l.OutsideTurn, InsideTurn: l.InsideTurn})
	}
	return r.fold(b)
}

// fold gives the base the size that it has closed, and looks whether it folds.
func (r *reader) fold(b card.Base) error {
	front := b.Drawn.Leaves[0]
	b.Width, b.Height = front.Box.W, front.Box.H
	if front.OutsideTurn%180 != 0 {
		b.Width, b.Height = b.Height, b.Width
	}
	b.Drawn.Width, b.Drawn.Height = b.Width, b.Height
	if err := fold.Check(b); err != nil {
		return err
	}
	study := fold.StudyOf(b)
	if closed := study.Cover.Bounds(); study.Verdict.Flat && closed.W > 1 && closed.H > 1 {
		b.Width, b.Height = card.Tidy(closed.W), card.Tidy(closed.H)
		b.Drawn.Width, b.Drawn.Height = b.Width, b.Height
	}
	if _, err := fold.New("Base", b); err != nil {
		return err
	}
	study = fold.StudyOf(b)
	r.out.Base, r.out.Folds, r.out.Why = &b, study.Verdict.Folds, append([]string{}, study.Verdict.Why...)
	return nil
}

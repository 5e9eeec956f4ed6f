package fold

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// Directions say how to cut, score and fold a base by hand: with a trimmer, a
// knife and a scoring board.
type Directions struct {
	// Sheet is what to cut first.
	Sheet string `json:"sheet"`
	// Works are done one after the other; the sheet is turned between them and
	// never within one.
	Works []Work `json:"works"`
	// Folds are made in this order.
	Folds []string `json:"folds"`
	// Net is the net that they make, rounded as they are.
	Net Net `json:"net"`
}

// Work is what is done while the sheet lies one way.
type Work struct {
	Lay   string   `json:"lay"`
	Lines []string `json:"lines"`
}

// inView is a place of the sheet as seen from inside, where people score:
// turned over about the way the main folds run.
func (n Net) inView(p geom.Point) geom.Point {
	if n.upright() {
		return geom.Pt(n.Width-p.X, p.Y)
	}
	return geom.Pt(p.X, n.Height-p.Y)
}

// upright reports whether the main folds run up and down.
func (n Net) upright() bool {
	for _, l := range n.Lines {
		if l.Main {
			return l.From.X == l.To.X
		}
	}
	return true
}

// straight is a line of the net as it lies for one work: at a place from the
// left, from one place to another from the top.
type straight struct {
	at, from, to float64
	role         Role
}

// DirectionsOf writes the directions for a net, seen from inside. Lines that
// run up and down come first, then the sheet is turned once for those across;
// slanting ones are cut and scored with a knife and a ruler from point to point.
//
// Lengths are written to 1/parts in or to 0.1 mm: the net should be one that Rounded has
// rounded to that.
func DirectionsOf(n Net, u measure.Unit, parts int) Directions {
	short := func(mm float64) string { return measure.FormatTo(mm, u, parts) }
	say := func(mm float64) string { return short(mm) + " " + string(u) }
	d := Directions{Net: n, Sheet: fmt.Sprintf("Cut a sheet of %s.", short(n.Width)+" × "+say(n.Height))}
	if !n.Edge.Empty() {
		d.Sheet = fmt.Sprintf("Cut a sheet of %s, draw the outline on it as it is drawn here, and cut along it.", short(n.Width)+" × "+say(n.Height))
	}
	if len(n.Lines) > 0 {
		d.Sheet += " The inside of the card lies up."
	}
	var down, across []straight
	var slanting []string
	for _, l := range n.Lines {
		a, b := n.inView(l.From), n.inView(l.To)
		role := Flipped(l.Role)
		switch {
		case math.Abs(a.X-b.X) < .01:
			down = append(down, straight{a.X, min(a.Y, b.Y), max(a.Y, b.Y), role})
		case math.Abs(a.Y-b.Y) < .01:
			// A quarter turn clockwise: what was at the top lies at the right.
			across = append(across, straight{n.Height - a.Y, min(a.X, b.X), max(a.X, b.X), role})
		default:
			slanting = append(slanting, fmt.Sprintf("%s from %s across and %s down to %s across and %s down.", verb(role), short(a.X), say(a.Y), short(b.X), say(b.Y)))
		}
	}
	side := func(w, h float64) string {
		switch {
		case math.Abs(w-h) < .01:
			return "one side"
		case w > h:
			return "the long side"
		}
		return "the short side"
	}
	if len(down) > 0 {
		d.Works = append(d.Works, Work{fmt.Sprintf("Lay %s at the top.", side(n.Width, n.Height)), lines(down, n.Height, say, short)})
	}
	if len(across) > 0 {
		lay := fmt.Sprintf("Turn the sheet a quarter to the right: %s lies at the top.", side(n.Height, n.Width))
		if len(down) == 0 {
			lay = fmt.Sprintf("Lay the sheet as it is drawn and turn it a quarter to the right: %s lies at the top.", side(n.Height, n.Width))
		}
		d.Works = append(d.Works, Work{lay, lines(across, n.Width, say, short)})
	}
	if len(slanting) > 0 {
		lay := "Lay the sheet as it is drawn. Measure from the left edge and from the top."
		if len(across) > 0 {
			lay = "Turn the sheet back as it is drawn. Measure from the left edge and from the top."
		}
		d.Works = append(d.Works, Work{lay, slanting})
	}
	d.Folds = folds(n, say)
	return d
}

func verb(r Role) string {
	switch r {
	case Cut:
		return "Cut"
	case Perforation:
		return "Perforate"
	}
	return "Score"
}

// lines say what is done along the sheet: cuts, then scores, from the left.
func lines(list []straight, length float64, say, short func(float64) string) []string {
	slices.SortStableFunc(list, func(a, b straight) int {
		return cmp.Or(cmp.Compare(rank(a.role), rank(b.role)), cmp.Compare(a.at, b.at), cmp.Compare(a.from, b.from))
	})
	var out []string
	for _, l := range list {
		what := strings.ToLower(verb(l.role))
		if l.from < .01 && l.to > length-.01 {
			what += " from edge to edge"
		} else {
			what += fmt.Sprintf(" from %s to %s", short(l.from), say(l.to))
		}
		if l.role.Folds() {
			what += fmt.Sprintf(" (%s)", l.role)
		}
		out = append(out, fmt.Sprintf("At %s: %s.", say(l.at), what))
	}
	return out
}

func rank(r Role) int {
	if r == Cut {
		return 0
	}
	return 1
}

// folds say the order of folding: main folds stage by stage, what stands up in
// between before the card is closed.
func folds(n Net, say func(float64) string) []string {
	place := func(l Line) string {
		a, b := n.inView(l.From), n.inView(l.To)
		switch {
		case math.Abs(a.X-b.X) < .01:
			return "at " + say(a.X) + " from the left"
		case math.Abs(a.Y-b.Y) < .01:
			return "at " + say(a.Y) + " from the top"
		}
		return "the slanting one"
	}
	var out []string
	popup := map[Role]int{}
	for _, l := range n.Lines {
		if !l.Main && l.Role.Folds() {
			popup[Flipped(l.Role)]++
		}
	}
	stages := 0
	for _, l := range n.Lines {
		if l.Main {
			stages = max(stages, l.Stage)
		}
	}
	for stage := 0; stage <= stages; stage++ {
		seen := map[string]bool{}
		for _, l := range n.Lines {
			if !l.Main || l.Stage != stage {
				continue
			}
			text := fmt.Sprintf("Fold the %s %s.", Flipped(l.Role), place(l))
			if !seen[text] {
				seen[text] = true
				out = append(out, text)
			}
		}
	}
	if len(popup) > 0 {
		out = append(out, fmt.Sprintf("Open the card half. Push what is cut free toward you from behind: %d valleys fold away from you, %d mountains toward you.", popup[Valley], popup[Mountain]),
			"Close the card slowly and press all folds flat.")
	}
	return out
}

// SeenFromInside are the lines of a net as they lie with the inside up, with
// the roles they have from there.
func SeenFromInside(n Net) []Line {
	out := make([]Line, len(n.Lines))
	for i, l := range n.Lines {
		l.From, l.To, l.Role = n.inView(l.From), n.inView(l.To), Flipped(l.Role)
		out[i] = l
	}
	return out
}

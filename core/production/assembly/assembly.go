// Package assembly says in which order hands put a card together: what is printed, cut, folded, glued and
// raised, and what each step needs before it.
package assembly

import (
	"fmt"
	"slices"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/measure"
	"sectilis/core/ground/wording"
	"sectilis/core/production/sheet"
)

// Kind is what hands do in a step.
type Kind string

// The kinds of steps, in the order in which they come when nothing else tells.
const (
	Print Kind = "print"
	Cut   Kind = "cut"
	Fold  Kind = "fold"
	Glue  Kind = "glue"  // a piece, flat
	Raise Kind = "raise" // a piece, on foam
	Leaf  Kind = "leaf"  // the insert
	Tabs  Kind = "tabs"  // of the base itself
	Close Kind = "close"
	Send  Kind = "send" // into its envelope
	Own   Kind = "own"  // a person's own
)

// Kinds lists the kinds of steps.
func Kinds() []Kind { return []Kind{Print, Cut, Fold, Glue, Raise, Leaf, Tabs, Close, Send, Own} }

// Step is one step. Its id stays while the card changes around it.
type Step struct {
	ID    string `json:"id"`
	Kind  Kind   `json:"kind"`
	Title string `json:"title"`
	Says  string `json:"says"` // in short, below the title
	Does  string `json:"does"` // what is done, in full
	Why   string `json:"why"`  // why now
	// Needs are the steps that come before it.
	Needs []string `json:"needs"`
	// Piece is what is laid, On what it is laid on, "" for the base, and Face where.
	Piece string      `json:"piece,omitempty"`
	On    string      `json:"on,omitempty"`
	Face  card.FaceID `json:"face,omitempty"`
	// Foam is its height, mm, Pads how many pieces of it are cut.
	Foam     float64   `json:"foam,omitempty"`
	Pads     int       `json:"pads,omitempty"`
	Desk     []Thing   `json:"desk"`
	Measures []Measure `json:"measures"`
	Minutes  float64   `json:"minutes"`
	// Changed says that a person has changed it, With are the steps that are done together with it.
	Changed bool     `json:"changed,omitempty"`
	With    []string `json:"with,omitempty"`
}

// Thing is something that lies on the desk for a step.
type Thing struct {
	Name  string `json:"name"`
	Says  string `json:"says"`
	Item  string `json:"item,omitempty"`
	Sheet int    `json:"sheet,omitempty"` // number of the sheet that it comes from
	// Made is the id of the step that it was made in.
	Made string `json:"made,omitempty"`
}

// Measure is a length to lay something by. MM is mm.
type Measure struct {
	Name string  `json:"name"`
	MM   float64 `json:"mm"`

	from edge
}

// edge is what a measure is taken from.
type edge int

const (
	noEdge edge = iota
	leftEdge
	lowerEdge
	allRound
)

// Guide is all steps with what the whole card takes.
type Guide struct {
	Steps   []Step   `json:"steps"`
	Minutes float64  `json:"minutes"`
	Takes   []string `json:"takes"` // in short
	// Materials are what it takes in full, papers first.
	Materials []Material `json:"materials"`
	// Hand is how each piece is cut without a machine.
	Hand []HandCut `json:"hand"`
	// Out are the steps that a person has left out.
	Out []Left `json:"out"`
}

// Left is a step that is left out.
type Left struct {
	ID    string `json:"id"`
	Title string `json:"title"`
}

// planner makes the steps of one card.
type planner struct {
	card   card.Card
	unit   measure.Unit
	scene  *scene.Scene
	sheets []sheet.Sheet
	steps  []Step
	// of is the sheet of each piece.
	of map[string]int
	// built is the step in which a piece with all that it carries is done.
	built map[string]string
}

// Of makes the guide of a card that is laid on sheets, with lengths in a unit. The same card gives the same
// steps.
func Of(c card.Card, s *scene.Scene, l *sheet.Layout, u measure.Unit) Guide {
	p := planner{card: c, unit: u, scene: s, sheets: l.Sheets, of: map[string]int{}, built: map[string]string{}}
	for _, sh := range l.Sheets {
		for _, piece := range sh.Pieces {
			p.of[piece.ID] = sh.Number
		}
	}
	p.print()
	p.cut()
	p.fold()
	p.buildUps()
	p.finish()
	planned := longestFirst(p.steps)
	g := Guide{Steps: changed(planned, c.Steps), Out: []Left{}}
	for _, k := range c.Steps {
		if i := slices.IndexFunc(planned, func(s Step) bool { return s.ID == k.ID }); k.Out && i >= 0 {
			g.Out = append(g.Out, Left{k.ID, planned[i].Title})
		}
	}
	for _, st := range g.Steps {
		g.Minutes += st.Minutes
	}
	g.Takes, g.Materials, g.Hand = p.takes(), p.materials(), p.byHand()
	return g
}

func (p *planner) add(s Step) string {
	if s.Desk == nil {
		s.Desk = []Thing{}
	}
	if s.Measures == nil {
		s.Measures = []Measure{}
	}
	if s.Needs == nil {
		s.Needs = []string{}
	}
	p.steps = append(p.steps, s)
	return s.ID
}

// has returns the ids among some that are steps of the guide.
func (p *planner) has(ids ...string) []string {
	out := []string{}
	for _, id := range ids {
		if slices.ContainsFunc(p.steps, func(s Step) bool { return s.ID == id }) && !slices.Contains(out, id) {
			out = append(out, id)
		}
	}
	return out
}

func (p *planner) print() {
	pages := 0
	var sizes []string
	desk := []Thing{}
	for _, sh := range p.sheets {
		if !sh.Printed {
			continue
		}
		pages++
		if sh.TwoSided {
			pages++
		}
		if !slices.Contains(sizes, sh.Size.Name) {
			sizes = append(sizes, sh.Size.Name)
		}
		desk = append(desk, Thing{Name: sh.Stock.Name, Says: fmt.Sprintf("sheet %d, %s", sh.Number, sh.Size.Name), Sheet: sh.Number})
	}
	if pages == 0 {
		return
	}
	p.add(Step{ID: "print", Kind: Print, Title: "Print " + wording.Counted(pages, "page", "pages"), Says: wording.And(sizes), Desk: desk, Minutes: 2 * float64(pages),
		Does: "Print every page in true size, without fitting it to the paper, each on its own stock. Let ink dry before you touch it.",
		Why:  "What is printed has to be dry before it is cut."})
}

func (p *planner) cut() {
	if len(p.sheets) == 0 {
		return
	}
	desk := []Thing{}
	for _, sh := range p.sheets {
		desk = append(desk, Thing{Name: sh.Stock.Name, Says: fmt.Sprintf("sheet %d, %s", sh.Number, wording.Counted(len(sh.Pieces), "piece", "pieces")), Sheet: sh.Number})
	}
	p.add(Step{ID: "cut", Kind: Cut, Title: "Cut " + wording.Counted(len(p.sheets), "sheet", "sheets"), Says: "scores first; the machine asks for its tools", Desk: desk, Minutes: 4 * float64(len(p.sheets)), Needs: p.has("print"),
		Does: "Cut and score every sheet on the cutting mat, or by hand with trimmer, knife and scoring board. Keep pieces that look alike apart.",
		Why:  "Everything else is laid by its own cut edge."})
}

func (p *planner) fold() {
	n := fold.StudyOf(p.card.Base).Net
	folds := fold.DirectionsOf(n, p.unit, 32).Folds
	if len(folds) == 0 {
		return
	}
	says := "fold each score once and open it again"
	p.add(Step{ID: "fold", Kind: Fold, Title: "Fold the base", Says: says, Minutes: 2 + float64(len(folds)), Needs: p.has("cut"),
		Desk: []Thing{{Name: "Base", Says: p.from(card.BasePiece), Item: card.BasePiece, Sheet: p.of[card.BasePiece]}},
		Does: strings.Join(folds, " ") + " Rub each fold with the bone folder, and open the card again.",
		Why:  "Paper folds sharply only while nothing is glued to it; pieces are then laid by the folds."})
}

// from is where a piece comes from.
func (p *planner) from(id string) string {
	n := p.of[id]
	for _, sh := range p.sheets {
		if sh.Number == n {
			return fmt.Sprintf("sheet %d · %s", n, sh.Stock.Name)
		}
	}
	return "not on a sheet"
}

// finish is what is done when all pieces are on: the insert, the base's own tabs, closing.
func (p *planner) finish() {
	var laid []string
	for _, s := range p.steps {
		laid = append(laid, s.ID)
	}
	tabs := map[card.BaseKind][2]string{
		card.Pocket:   {"Glue the tabs", "Fold the pocket up and glue its tabs behind the leaf."},
		card.Envelope: {"Glue the bottom", "Fold the sides in, glue the bottom on them and let it dry. The flap is gummed last."},
		card.Easel:    {"Glue the panel", "Glue the front panel to the lower half of the folded front alone."},
	}
	if p.card.Leaf != nil && slices.ContainsFunc(p.sheets, func(s sheet.Sheet) bool {
		return slices.ContainsFunc(s.Pieces, func(q sheet.Piece) bool { return q.ID == card.InsertPiece })
	}) {
		p.add(Step{ID: "leaf", Kind: Leaf, Title: "Glue in the insert", Says: "along the fold only", Minutes: 4, Needs: p.has("cut", "fold"),
			Desk:     []Thing{{Name: "Insert", Says: p.from(card.InsertPiece), Item: card.InsertPiece, Sheet: p.of[card.InsertPiece]}},
			Does:     "Fold the insert. Run a line of glue along the back of its fold, a finger wide, and lay it into the open card, fold in fold.",
			Why:      "Glued along its fold alone, the leaf can move when the card is closed.",
			Measures: []Measure{{Name: "In from every edge", MM: p.card.Leaf.Less}}})
		laid = append(laid, "leaf")
	}
	if t, ok := tabs[p.card.Base.Kind]; ok {
		laid = append(laid, p.add(Step{ID: "tabs", Kind: Tabs, Title: t[0], Says: "the base’s own glue", Does: t[1], Minutes: 3, Needs: p.has(laid...),
			Why: "Once it is glued, what lies within is not reached any more."}))
	}
	if len(p.steps) == 0 {
		return
	}
	closing := Step{ID: "close", Kind: Close, Title: "Close and press", Says: "an hour under a book", Minutes: 2, Needs: p.has(laid...),
		Does: "Close the card slowly and look that nothing catches. Lay it under a book for an hour, raised pieces upward.",
		Why:  "Glue holds best under weight while it dries."}
	if len(fold.StudyOf(p.card.Base).Hinges) == 0 {
		closing.Title, closing.Does = "Press it", "Lay it under a book for an hour, raised pieces upward."
	}
	p.add(closing)
	p.send()
}

// send puts a card that folds into its envelope.
func (p *planner) send() {
	if k := p.card.Base.Kind; k == card.Envelope || k == card.Flat {
		return
	}
	s := p.sending()
	made := "made to measure, " + measure.FormatSize(s.Width, s.Height, p.unit)
	name, says := s.Trade, "or one "+made
	if name == "" {
		name, says = "Envelope", made
	}
	p.add(Step{ID: "send", Kind: Send, Title: "Put it in its envelope", Says: name, Minutes: 1, Needs: p.has("close"),
		Desk: []Thing{{Name: name, Says: says}},
		Does: "Once all is dry, slip the closed card into its envelope, its front toward the flap, so that nothing raised is caught when it is drawn out.",
		Why:  "Glue that is still damp sticks to the envelope."})
}

// sending is the envelope that the card goes into.
func (p *planner) sending() fold.Sending {
	return fold.SendingOf(p.scene.Net.Closed, p.scene.Thickness)
}

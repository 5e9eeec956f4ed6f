package fold

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// Measure is one of the measures that a kind of base is made from. Min, Max and At are mm.
type Measure struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Unit is "mm", "count", "degrees" or "choice", which is a number of Names.
	Unit  string   `json:"unit"`
	Names []string `json:"names,omitempty"`
	Min   float64  `json:"min"`
	Max   float64  `json:"max"`
	At    float64  `json:"at"` // what it is now
}

// Kind is an entry of the catalogue.
type Kind struct {
	ID   card.BaseKind `json:"id"`
	Name string        `json:"name"`
	// Lower is the name within a sentence.
	Lower string `json:"lower"`
	Says  string `json:"says"` // how it opens, in a sentence
	// Small is its net at a small size, for a picture in a list.
	Small Net `json:"small"`
	// Insert says that a leaf can be glued into it.
	Insert bool `json:"insert"`
	// Drawing says that it is made from a drawing.
	Drawing bool `json:"drawing"`
}

// entry is how a kind is made.
type entry struct {
	id         card.BaseKind
	name, says string
	eye        Eye // upright if it is not set
	// measures gives the measures with their limits for a base whose values so
	// far are v; defaults are in At.
	measures func(b card.Base, v func(id string) float64) []Measure
	net      func(b card.Base, v func(id string) float64) Net
	// limit is what has to hold between measures, and whether it does.
	limit func(b card.Base, v func(id string) float64) (says string, holds bool)
}

func none(card.Base, func(string) float64) []Measure { return nil }

func length(id, name string, at, lo, hi float64) Measure {
	return Measure{ID: id, Name: name, Unit: "mm", Min: lo, Max: hi, At: min(max(at, lo), hi)}
}

func count(id, name string, at, lo, hi float64) Measure {
	return Measure{ID: id, Name: name, Unit: "count", Min: lo, Max: hi, At: at}
}

func choice(id, name string, names ...string) Measure {
	return Measure{ID: id, Name: name, Unit: "choice", Names: names, Max: float64(len(names) - 1)}
}

// eighth rounds to an eighth of an inch, as a person would have measured it.
func eighth(mm float64) float64 {
	return math.Round(mm/measure.Inch*8) / 8 * measure.Inch
}

// Eye is from where a folded card is looked at.
type Eye string

// The ways to look at a folded card.
const (
	Upright Eye = "upright" // as a book stands
	Level   Eye = "level"   // its fold lies level
	OnTable Eye = "table"   // it lies on a table, and something stands up inside it
)

// EyeOf is how a base is looked at.
func EyeOf(b card.Base) Eye {
	e := find(b.Kind)
	switch {
	case e == nil:
		return Upright
	case e.id == card.FromLines && b.Drawn != nil:
		n := Of(b)
		if n.upright() {
			return Upright
		}
		for _, l := range n.Lines {
			if l.Role.Folds() && !l.Main {
				return OnTable
			}
		}
		return Level
	}
	return cmp.Or(e.eye, Upright)
}

// catalogue is filled below, kind by kind.
var catalogue = []entry{
	{id: card.SideFold, name: "Side fold", says: "Opens like a book; the fold is at the left of Front.", measures: roomMeasures, net: leaves(sideLeaves)},
	{id: card.TopFold, eye: Level, name: "Top fold", says: "Opens upward; the fold runs along the top of Front.", measures: roomMeasures, net: func(b card.Base, v func(string) float64) Net { return topFold(b, v("room")) }},
	{id: card.TriFold, name: "Tri-fold", says: "Three leaves; the last tucks in under Front.", measures: tuckMeasures, net: leaves(triLeaves)},
	{id: card.ZFold, name: "Z-fold", says: "Three leaves, folded to and fro.", measures: none, net: leaves(zLeaves)},
	{id: card.Accordion, name: "Accordion", says: "Any number of leaves, folded to and fro.", measures: func(card.Base, func(string) float64) []Measure {
		return []Measure{count("leaves", "Leaves", 4, 2, 8)}
	}, net: leaves(accordionLeaves)},
	{id: card.GateFold, name: "Gate fold", says: "Two gates meet in front of the middle.", measures: gateMeasures, net: leaves(gateLeaves)},
	{id: card.DoubleGate, name: "Double gate", says: "Two gates, each parted into an upper and a lower door that opens by itself.", measures: doubleGateMeasures, net: doubleGate},
	{id: card.Tent, eye: Level, name: "Tent", says: "Stands by itself, like a roof.", measures: none, net: func(b card.Base, _ func(string) float64) Net { return topFold(b, 0) }},
	{id: card.StepCard, eye: OnTable, name: "Step card", says: "Steps stand up from the fold when it is opened.", measures: stepMeasures, net: stepNet, limit: stepLimit},
	{id: card.PopupBox, eye: OnTable, name: "Pop-up box", says: "Boxes stand up from the fold when it is opened.", measures: boxMeasures, net: boxNet, limit: boxLimit},
	{id: card.Flat, name: "Flat card", says: "One leaf with a front and a back, and no fold: a postcard, a tag, a place card or a page.", measures: none, net: func(b card.Base, _ func(string) float64) Net { return flat(b) }},
	{id: card.Easel, eye: Level, name: "Easel", says: "Its front folds back in half and stands; a panel is glued to the lower half.", measures: none, net: func(b card.Base, _ func(string) float64) Net { return easel(b) }},
	{id: card.Shaped, name: "Shaped", says: "Both leaves have one outline; a part of its left edge is the fold.", measures: shapedMeasures, net: shapedNet, limit: shapedLimit},
	{id: card.Pocket, name: "Pocket", says: "A leaf with a pocket in front; the tabs are glued behind it.", measures: pocketMeasures, net: pocketNet},
	{id: card.Envelope, name: "Envelope", says: "The sides fold in first, then the bottom is glued on them, the flap last.", measures: envelopeMeasures, net: envelopeNet},
	{id: card.VFold, eye: OnTable, name: "V-fold", says: "A V stands up across the fold when it is opened.", measures: vMeasures, net: vNet, limit: vLimit},
	{id: card.FromLines, name: "From a drawing", says: "Made from the lines of a drawing, which say what is cut and how it folds.", measures: none, net: drawnNet, limit: drawnLimit},
}

func find(k card.BaseKind) *entry {
	for i := range catalogue {
		if catalogue[i].id == k {
			return &catalogue[i]
		}
	}
	return nil
}

// Kinds lists the catalogue.
func Kinds() []Kind {
	out := make([]Kind, len(catalogue))
	for i, e := range catalogue {
		b := card.Base{Kind: e.id, Width: 120, Height: 120}
		out[i] = Kind{e.id, e.name, lower(e.name), e.says, Of(b), card.TakesInsert(e.id), e.id == card.FromLines}
	}
	return out
}

// values looks up a base's measures, with defaults for what is not said.
// Defaults may follow from measures that come before them.
func (e *entry) values(b card.Base) (func(id string) float64, []Measure) {
	known := map[string]float64{}
	look := func(id string) float64 { return known[id] }
	var list []Measure
	// Limits depend on measures listed earlier, so each round knows one more.
	for i := 0; ; i++ {
		list = e.measures(b, look)
		if i >= len(list) {
			break
		}
		m := list[i]
		v, ok := b.Measures[m.ID]
		if !ok {
			v = m.At
		}
		known[m.ID] = v
	}
	for i := range list {
		list[i].At = known[list[i].ID]
	}
	return look, list
}

// Measures are the measures of a base with their limits, and what has to hold
// between them, "" for nothing.
func Measures(b card.Base) (list []Measure, limit string) {
	e := find(b.Kind)
	if e == nil {
		return nil, ""
	}
	look, list := e.values(b)
	if e.limit != nil {
		limit, _ = e.limit(b, look)
	}
	return list, limit
}

// Check refuses a base that the catalogue cannot make, with the measure at
// fault and what would be right.
func Check(b card.Base) error {
	e := find(b.Kind)
	if e == nil {
		names := make([]string, len(catalogue))
		for i, e := range catalogue {
			names[i] = string(e.id)
		}
		return &card.Refusal{Field: "kind", Why: fmt.Sprintf("“%s” is no kind of base. There are %v.", b.Kind, names)}
	}
	if (b.Drawn != nil) != (b.Kind == card.FromLines) {
		return &card.Refusal{Field: "drawn", Why: "A base from a drawing needs a drawing, and no other base has one."}
	}
	look, list := e.values(b)
	for id := range b.Measures {
		if !slices.ContainsFunc(list, func(m Measure) bool { return m.ID == id }) {
			return &card.Refusal{Field: id, Why: fmt.Sprintf("A %s has no measure “%s”.", lower(e.name), id)}
		}
	}
	for _, m := range list {
		if math.IsNaN(m.At) || m.At < m.Min-1e-9 || m.At > m.Max+1e-9 || (m.Unit == "count" || m.Unit == "choice") && m.At != math.Round(m.At) {
			return &card.Refusal{Field: m.ID, Why: fmt.Sprintf("“%s” is between %s and %s.", m.Name, say(m.Min, m.Unit), say(m.Max, m.Unit))}
		}
	}
	if e.limit != nil {
		if says, ok := e.limit(b, look); !ok {
			return &card.Refusal{Field: "measures", Why: says}
		}
	}
	return fewPanels(b)
}

// maxPanels bounds into how many panels lines part a sheet; folding as many takes about a second.
const maxPanels = 400

// fewPanels refuses a base whose lines part it into more panels than can be folded.
func fewPanels(b card.Base) error {
	lines := len(b.Lines)
	if b.Drawn != nil {
		lines += len(b.Drawn.Lines)
	}
	// Fewer lines cannot part a sheet so often.
	if lines*(lines+1)/2+1 <= maxPanels {
		return nil
	}
	e := find(b.Kind)
	look, _ := e.values(b)
	n := e.net(b, look)
	n.addOwn(b.Lines)
	if panels := len(n.Divide().Panels); panels > maxPanels {
		return card.Refuse("lines", "The lines part the sheet into %d panels; a base has at most %d.", panels, maxPanels)
	}
	return nil
}

// lower is a name within a sentence: a letter that names a form, as in Z-fold, stays large.
func lower(s string) string {
	if s[1] == '-' {
		return s
	}
	return string(s[0]|32) + s[1:]
}

func say(v float64, unit string) string {
	switch unit {
	case "mm":
		return measure.FormatBoth(v)
	case "degrees":
		return fmt.Sprintf("%.0f°", v)
	}
	return fmt.Sprintf("%.0f", v)
}

// Of returns the net of a base. One that Check refuses has the net that its
// kind has by default, an unknown kind that of a side fold.
func Of(b card.Base) Net {
	e := find(b.Kind)
	if e == nil {
		e = &catalogue[0]
	}
	if Check(b) != nil {
		b.Measures, b.Drawn = nil, nil
	}
	look, _ := e.values(b)
	n := e.net(b, look)
	n.addOwn(b.Lines)
	n.Lines = append([]Line{}, mergeCuts(n.Lines)...) // a flat card has none, which is not null
	if n.Closed == (geom.Rect{}) {
		n.Closed = geom.Rect{W: b.Width, H: b.Height}
	}
	return n
}

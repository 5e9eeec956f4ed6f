package fold

import (
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// addOwn adds a person's own lines to a net. Guides take folds away where they
// run along them.
func (n *Net) addOwn(lines []card.OwnLine) {
	for _, l := range lines {
		own := Line{Role: Flipped(l.Role), From: n.inView(l.From), To: n.inView(l.To), own: true, order: l.Order}
		if l.Role == Guide {
			n.suppressFolds(own)
			continue
		}
		n.Lines = append(n.Lines, own)
	}
}

// suppressFolds removes the parts of the folds that run under the line.
func (n *Net) suppressFolds(g Line) {
	var out []Line
	for _, l := range n.Lines {
		v := l.To.Sub(l.From)
		length := v.Len()
		off := func(p geom.Point) float64 { return math.Abs(v.Cross(p.Sub(l.From))) / length }
		if l.Role != Mountain && l.Role != Valley || length == 0 || off(g.From) > .01 || off(g.To) > .01 {
			out = append(out, l)
			continue
		}
		at := func(p geom.Point) float64 { return p.Sub(l.From).Dot(v) / (length * length) }
		a, b := at(g.From), at(g.To)
		if a > b {
			a, b = b, a
		}
		a, b = max(a, 0), min(b, 1)
		if b <= a {
			out = append(out, l)
			continue
		}
		for _, s := range [2][2]float64{{0, a}, {b, 1}} {
			if s[1]-s[0] > 1e-9 {
				part := l
				part.From, part.To = l.From.Lerp(l.To, s[0]), l.From.Lerp(l.To, s[1])
				out = append(out, part)
			}
		}
	}
	n.Lines = out
}

// changeLines applies a change to a base's own lines.
func changeLines(c card.Card, f func(n Net, lines []card.OwnLine) ([]card.OwnLine, error)) (card.Card, error) {
	next, err := card.Change(c, func(c *card.Card) error {
		lines, err := f(Of(c.Base), slices.Clone(c.Base.Lines))
		if err != nil {
			return err
		}
		for i := range lines {
			l := &lines[i]
			l.From, l.To = geom.Pt(nano(l.From.X), nano(l.From.Y)), geom.Pt(nano(l.To.X), nano(l.To.Y))
		}
		c.Base.Lines = lines
		return fewPanels(c.Base)
	})
	if err != nil {
		return c, err
	}
	return layCovers(next)
}

// AddLines adds lines to the base, across and down with the inside up.
type AddLines struct {
	Lines []card.OwnLine `json:"lines"`
}

// Label implements card.Command.
func (AddLines) Label() string { return "Add a line to the base" }

// Apply implements card.Command.
func (k AddLines) Apply(c card.Card) (card.Card, error) {
	return changeLines(c, func(n Net, lines []card.OwnLine) ([]card.OwnLine, error) {
		for _, l := range k.Lines {
			in := geom.Rect{W: n.Width, H: n.Height}.Grow(.01)
			if !in.Has(l.From) || !in.Has(l.To) {
				return nil, &card.Refusal{Field: "lines", Why: fmt.Sprintf("The line would leave the sheet, which is %s wide and %s high.", say(n.Width, "mm"), say(n.Height, "mm"))}
			}
		}
		return append(lines, k.Lines...), nil
	})
}

// AddStrip adds a strip that stands up across the main fold: two cuts and three scores, with
// the main fold left out between them. Its places and lengths are mm.
type AddStrip struct {
	From float64 `json:"from"` // along the main fold
	To   float64 `json:"to"`
	Up   float64 `json:"up"`
	Out  float64 `json:"out"`
}

// Label implements card.Command.
func (AddStrip) Label() string { return "Add a strip to the base" }

// Apply implements card.Command.
func (k AddStrip) Apply(c card.Card) (card.Card, error) {
	return changeLines(c, func(n Net, lines []card.OwnLine) ([]card.OwnLine, error) {
		main := slices.IndexFunc(n.Lines, func(l Line) bool { return l.Main })
		if main < 0 {
			return nil, &card.Refusal{Field: "lines", Why: "This base has no fold for a strip to stand on."}
		}
		if n.Lines[main].Stop != 0 {
			return nil, &card.Refusal{Field: "lines", Why: "A strip stands on one score. Set the room at the fold to 0 first."}
		}
		a := n.inView(n.Lines[main].From)
		if !(k.To-k.From >= 3 && k.Up >= 3 && k.Out >= 3) {
			return nil, &card.Refusal{Field: "to", Why: "A strip is at least 3 mm (1/8 in) wide, up and out."}
		}
		level := !n.upright()
		// On the standing leaf up is away from the fold, toward less.
		fold := a.X
		room := n.Width
		if level {
			fold, room = a.Y, n.Height
		}
		if k.Up >= fold || k.Out >= room-fold {
			return nil, &card.Refusal{Field: "up", Why: "The strip would reach over the edge of its leaf."}
		}
		at := func(along, across float64) geom.Point {
			if level {
				return geom.Pt(along, across)
			}
			return geom.Pt(across, along)
		}
		top, bottom := fold-k.Up, fold+k.Out
		line := func(r Role, a0, c0, a1, c1 float64) card.OwnLine {
			return card.OwnLine{Role: r, From: at(a0, c0), To: at(a1, c1)}
		}
		return append(lines,
			line(Guide, k.From, fold, k.To, fold),
			line(Cut, k.From, top, k.From, bottom), line(Cut, k.To, top, k.To, bottom),
			line(Valley, k.From, top, k.To, top), line(Mountain, k.From, top+k.Out, k.To, top+k.Out), line(Valley, k.From, bottom, k.To, bottom),
		), nil
	})
}

// RemoveLines takes away some of the base's own lines, by their numbers from 0;
// all when none is named.
type RemoveLines struct {
	Lines []int `json:"lines"`
}

// Label implements card.Command.
func (RemoveLines) Label() string { return "Take lines off the base" }

// Apply implements card.Command.
func (k RemoveLines) Apply(c card.Card) (card.Card, error) {
	return changeLines(c, func(_ Net, lines []card.OwnLine) ([]card.OwnLine, error) {
		var out []card.OwnLine
		for i, l := range lines {
			if len(k.Lines) > 0 && !slices.Contains(k.Lines, i) {
				out = append(out, l)
			}
		}
		return out, nil
	})
}

// MirrorLines adds the mirror images of all own lines about the sheet's upright
// centre line, or its level one.
type MirrorLines struct {
	Level bool `json:"level"`
}

// Label implements card.Command.
func (MirrorLines) Label() string { return "Mirror lines of the base" }

// Apply implements card.Command.
func (k MirrorLines) Apply(c card.Card) (card.Card, error) {
	return changeLines(c, func(n Net, lines []card.OwnLine) ([]card.OwnLine, error) {
		over := func(p geom.Point) geom.Point {
			if k.Level {
				return geom.Pt(p.X, n.Height-p.Y)
			}
			return geom.Pt(n.Width-p.X, p.Y)
		}
		return merged(lines, func(l card.OwnLine) card.OwnLine { l.From, l.To = over(l.From), over(l.To); return l }), nil
	})
}

// RepeatLines adds copies of all own lines, each shifted once more. The shift is mm.
type RepeatLines struct {
	Count int     `json:"count"`
	DX    float64 `json:"dx"`
	DY    float64 `json:"dy"`
}

// Label implements card.Command.
func (RepeatLines) Label() string { return "Repeat lines of the base" }

// Apply implements card.Command.
func (k RepeatLines) Apply(c card.Card) (card.Card, error) {
	return changeLines(c, func(n Net, lines []card.OwnLine) ([]card.OwnLine, error) {
		if k.Count < 1 || k.Count > 40 || k.DX == 0 && k.DY == 0 {
			return nil, &card.Refusal{Field: "count", Why: "Repeat between 1 and 40 times, with a step."}
		}
		all := lines
		for i := 1; i <= k.Count; i++ {
			d := geom.Pt(k.DX*float64(i), k.DY*float64(i))
			for _, l := range lines {
				l.From, l.To = l.From.Add(d), l.To.Add(d)
				if in := (geom.Rect{W: n.Width, H: n.Height}).Grow(.01); !in.Has(l.From) || !in.Has(l.To) {
					return nil, &card.Refusal{Field: "count", Why: fmt.Sprintf("The copy number %d would leave the sheet.", i)}
				}
				all = append(all, l)
			}
		}
		return all, nil
	})
}

// merged adds the images of lines, but for those that lie on a line already.
func merged(lines []card.OwnLine, f func(card.OwnLine) card.OwnLine) []card.OwnLine {
	out := slices.Clone(lines)
	for _, l := range lines {
		m := f(l)
		same := func(o card.OwnLine) bool {
			near := func(p, q geom.Point) bool { return p.Sub(q).Len() < .01 }
			return o.Role == m.Role && (near(o.From, m.From) && near(o.To, m.To) || near(o.From, m.To) && near(o.To, m.From))
		}
		if !slices.ContainsFunc(out, same) {
			out = append(out, m)
		}
	}
	return out
}

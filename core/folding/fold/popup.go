package fold

import (
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// popups makes pop-ups on a top fold. Inside, the upper leaf stands up and the
// lower one lies; seen from outside the upper leaf is below the fold.
type popups struct {
	Net
	fold float64      // y of the main fold
	left [][2]float64 // what is left of the main fold, from x to x
}

func onTopFold(b card.Base) *popups {
	p := &popups{Net: topFold(b, 0), fold: b.Height, left: [][2]float64{{0, b.Width}}}
	p.Lines = nil
	return p
}

// strip stands a strip up: from x0 to x1, up on the standing leaf, out on the
// lying one. Its roles are those seen from outside.
func (p *popups) strip(x0, x1, up, out float64) {
	top, bottom := p.fold+up, p.fold-out
	ridge := top - out
	p.add(Cut, x0, bottom, x0, top)
	p.add(Cut, x1, bottom, x1, top)
	p.add(Mountain, x0, top, x1, top)
	p.add(Mountain, x0, bottom, x1, bottom)
	p.add(Valley, x0, ridge, x1, ridge)
	p.suppressFold(x0, x1)
}

func (p *popups) add(r Role, x0, y0, x1, y1 float64) {
	p.Lines = append(p.Lines, Line{Role: r, From: geom.Pt(x0, y0), To: geom.Pt(x1, y1)})
}

// suppressFold removes the main fold between x0 and x1, mm.
func (p *popups) suppressFold(x0, x1 float64) {
	var left [][2]float64
	for _, s := range p.left {
		if a, b := s[0], min(s[1], x0); b-a > 1e-9 {
			left = append(left, [2]float64{a, b})
		}
		if a, b := max(s[0], x1), s[1]; b-a > 1e-9 {
			left = append(left, [2]float64{a, b})
		}
	}
	p.left = left
}

func (p *popups) net() Net {
	for _, s := range p.left {
		p.Lines = append(p.Lines, Line{Role: Mountain, From: geom.Pt(s[0], p.fold), To: geom.Pt(s[1], p.fold), Main: true})
	}
	return p.Net
}

func stepMeasures(b card.Base, v func(string) float64) []Measure {
	room := b.Height - 2
	return []Measure{
		count("steps", "Steps", 3, 1, 7),
		choice("place", "They go down", "From the middle", "To the right", "To the left"),
		length("middleUp", "Highest up", eighth(b.Height*.6), 4, room),
		length("middleOut", "Highest out", eighth(b.Height*.17), 4, room),
		length("sideUp", "Lowest up", eighth(b.Height*.28), 4, room),
		length("sideOut", "Lowest out", eighth(b.Height*.28), 4, room),
		length("middleWidth", "Middle wide", eighth(b.Width*.39), 6, b.Width-12),
		length("margin", "Left and right", eighth(b.Width*.11), 3, max(3, (b.Width-v("middleWidth"))/2-4)),
	}
}

// one is a strip of a step card.
type one struct{ x0, x1, up, out float64 }

// steps are the strips: the middle one first measured, the others between it
// and the outermost, evenly.
func steps(b card.Base, v func(string) float64) []one {
	n := int(v("steps"))
	m, w := v("margin"), v("middleWidth")
	var out []one
	if n == 1 {
		x := (b.Width - w) / 2
		return []one{{x, x + w, v("middleUp"), v("middleOut")}}
	}
	if v("place") > 0 {
		// From one side to the other, all as wide.
		wide := (b.Width - 2*m) / float64(n)
		for i := range n {
			k := float64(i) / float64(n-1)
			if v("place") == 2 {
				k = 1 - k
			}
			x := m + float64(i)*wide
			out = append(out, one{x, x + wide, v("middleUp") + (v("sideUp")-v("middleUp"))*k, v("middleOut") + (v("sideOut")-v("middleOut"))*k})
		}
		return out
	}
	side := (b.Width - 2*m - w) / float64(n-1)
	x := m
	middle := float64(n-1) / 2
	if n%2 == 0 {
		side = (b.Width - 2*m) / float64(n)
	}
	for i := range n {
		wide := side
		if n%2 == 1 && i == n/2 {
			wide = w
		}
		k := math.Abs(float64(i)-middle) / middle
		if n%2 == 0 {
			k = (math.Abs(float64(i)-middle) - .5) / max(middle-.5, .5)
		}
		out = append(out, one{x, x + wide, v("middleUp") + (v("sideUp")-v("middleUp"))*k, v("middleOut") + (v("sideOut")-v("middleOut"))*k})
		x += wide
	}
	return out
}

func stepNet(b card.Base, v func(string) float64) Net {
	p := onTopFold(b)
	for _, s := range steps(b, v) {
		p.strip(s.x0, s.x1, s.up, s.out)
	}
	return p.net()
}

func stepLimit(b card.Base, v func(string) float64) (string, bool) {
	high := 0.0
	for _, s := range steps(b, v) {
		high = max(high, s.up+s.out)
		if s.x1-s.x0 < 3 {
			return "The steps are too narrow to fold; take fewer, or less room left and right.", false
		}
	}
	return upAndOut(b, high)
}

func upAndOut(b card.Base, high float64) (string, bool) {
	return fmt.Sprintf("Up plus out stays under %s (%s), or it shows when closed. Now it is %s.",
		measure.FormatUnit(b.Height, measure.In), measure.FormatUnit(b.Height, measure.MM), measure.FormatUnit(high, measure.In)), high < b.Height
}

func boxMeasures(b card.Base, v func(string) float64) []Measure {
	room := b.Height - 2
	n := max(v("boxes"), 1)
	return []Measure{
		count("boxes", "Boxes", 1, 1, 6),
		length("up", "Up", eighth(b.Height*.4), 4, room),
		length("out", "Out", eighth(b.Height*.3), 4, room),
		length("wide", "Wide", eighth(b.Width*.6/n), 5, max(5, (b.Width-4*(n+1))/n)),
		choice("stacked", "Stacked on it", "Nothing", "A smaller box"),
	}
}

func boxNet(b card.Base, v func(string) float64) Net {
	p := onTopFold(b)
	n := int(v("boxes"))
	between := (b.Width - float64(n)*v("wide")) / float64(n+1)
	for i := range n {
		x := between + float64(i)*(v("wide")+between)
		p.strip(x, x+v("wide"), v("up"), v("out"))
		if v("stacked") == 1 {
			p.stack(x, x+v("wide"), v("up"), v("out"))
		}
	}
	return p.net()
}

// stack stands a smaller box on the fold where a box meets the lying leaf.
func (p *popups) stack(x0, x1, up, out float64) {
	fold := p.fold - out
	u, o := up*.5, min(out, p.fold-out)*.5
	m := (x1 - x0) * .22
	inner := &popups{Net: Net{}, fold: fold}
	inner.strip(x0+m, x1-m, u, o)
	// The box's fold is spared where the smaller one stands.
	for i := range p.Lines {
		l := &p.Lines[i]
		if l.Role == Mountain && l.From.Y == fold && l.To.Y == fold && l.From.X == x0 {
			right := *l
			l.To.X, right.From.X = x0+m, x1-m
			p.Lines = append(p.Lines, right)
			break
		}
	}
	p.Lines = append(p.Lines, inner.Lines...)
}

func boxLimit(b card.Base, v func(string) float64) (string, bool) {
	return upAndOut(b, v("up")+v("out"))
}

func vMeasures(b card.Base, v func(string) float64) []Measure {
	return []Measure{
		length("apex", "Point from left", eighth(b.Width*.25), 5, b.Width-15),
		length("long", "Long", eighth(min(b.Width*.5, b.Height*.6)), 8, max(8, min(b.Width-v("apex")-4, b.Height*1.2))),
		{ID: "angle", Name: "Angle above", Unit: "degrees", Min: 15, Max: 75, At: 40},
		{ID: "angle2", Name: "Angle below", Unit: "degrees", Min: 15, Max: 75, At: clamp(v("angle"), 15, 75)},
	}
}

func clamp(v, lo, hi float64) float64 { return min(max(v, lo), hi) }

// vNet has four folds that meet in a point. So that they close flat, angles
// across from each other add up to half a turn (Kawasaki): the ridge makes with
// each slanting fold the angle that the other makes with the main fold.
func vNet(b card.Base, v func(string) float64) Net {
	p := onTopFold(b)
	apex := geom.Pt(v("apex"), p.fold)
	a1, a2 := v("angle")*math.Pi/180, v("angle2")*math.Pi/180
	ray := func(angle float64) geom.Point { return geom.Pt(math.Cos(angle), math.Sin(angle)) }
	// The standing leaf is below the fold as seen from outside.
	up, down := apex.Add(ray(a1).Mul(v("long"))), apex.Add(ray(-a2).Mul(v("long")))
	ridge := ray(a1 - a2)
	end := crossing(apex, ridge, up, down)
	main := crossing(apex, geom.Pt(1, 0), up, down)
	p.add(Mountain, apex.X, apex.Y, up.X, up.Y)
	p.add(Mountain, apex.X, apex.Y, down.X, down.Y)
	p.add(Valley, apex.X, apex.Y, end.X, end.Y)
	p.add(Cut, up.X, up.Y, down.X, down.Y)
	p.suppressFold(apex.X, main.X)
	return p.net()
}

// crossing is where a ray from p meets the line through a and b.
func crossing(p, d, a, b geom.Point) geom.Point {
	v := b.Sub(a)
	t := a.Sub(p).Cross(v) / d.Cross(v)
	return p.Add(d.Mul(t))
}

func vLimit(b card.Base, v func(string) float64) (string, bool) {
	a1, a2 := v("angle")*math.Pi/180, v("angle2")*math.Pi/180
	high := v("long") * max(math.Sin(a1), math.Sin(a2))
	wide := v("apex") + v("long")*max(math.Cos(a1), math.Cos(a2))
	ok := high < b.Height && wide < b.Width && math.Abs(v("angle")-v("angle2")) < 50
	return fmt.Sprintf("The V stays inside the leaves: it reaches %s of %s and %s of %s.", measure.FormatUnit(high, measure.In), measure.FormatUnit(b.Height, measure.In),
		measure.FormatUnit(wide, measure.In), measure.FormatUnit(b.Width, measure.In)), ok
}

// faceIDs are the faces of a base in their order.
func faceIDs(b card.Base) []card.FaceID {
	var out []card.FaceID
	for _, f := range Of(b).Faces {
		out = append(out, f.ID)
	}
	return out
}

// Arrange gives a card the faces of its base, in their order. Faces that the
// base does not have go to the end as long as something lies on them: it waits
// there until the card has that face again.
func Arrange(c *card.Card) {
	var faces []card.Face
	ids := faceIDs(c.Base)
	for _, id := range ids {
		if f := c.Face(id); f != nil {
			faces = append(faces, *f)
		} else {
			faces = append(faces, card.Face{ID: id, Items: []card.Item{}})
		}
	}
	for _, f := range c.Faces {
		if len(f.Items) > 0 && !slices.Contains(ids, f.ID) {
			faces = append(faces, f)
		}
	}
	c.Faces = faces
}

// SetBase changes the base. What lies on a face stays there, even while the
// base does not have that face.
type SetBase struct {
	Base card.Base `json:"base"`
}

// Label implements card.Command.
func (SetBase) Label() string { return "Change the base" }

// Apply implements card.Command.
func (k SetBase) Apply(c card.Card) (card.Card, error) {
	if err := Check(k.Base); err != nil {
		return c, err
	}
	next, err := card.Change(c, func(c *card.Card) error {
		c.Base = k.Base
		c.Base.Width, c.Base.Height = nano(k.Base.Width), nano(k.Base.Height)
		Arrange(c)
		layGrounds(c)
		return nil
	})
	if err != nil {
		return c, err
	}
	return layCovers(next)
}

// nano rounds to a nanometre.
func nano(v float64) float64 { return math.Round(v*1e6) / 1e6 }

// New returns an empty card on a base of the catalogue. It returns a *card.Refusal for a base
// that the catalogue cannot make.
func New(title string, b card.Base) (card.Card, error) {
	if err := Check(b); err != nil {
		return card.Card{}, err
	}
	c, err := card.New(title, b)
	if err == nil {
		Arrange(&c)
	}
	return c, err
}

// Commands are the commands of this package, for card.Decode.
var Commands = map[string]func() card.Command{
	"coverPanels": func() card.Command { return &CoverPanels{} },
	"addLines":    func() card.Command { return &AddLines{} },
	"addLiner":    func() card.Command { return &AddLiner{} },
	"addStrip":    func() card.Command { return &AddStrip{} },
	"removeLines": func() card.Command { return &RemoveLines{} },
	"mirrorLines": func() card.Command { return &MirrorLines{} },
	"repeatLines": func() card.Command { return &RepeatLines{} },
}

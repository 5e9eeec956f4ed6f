package svg

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// referred is the element that “url(#id)” names, or nil.
func (r *reader) referred(text string) *node {
	ref, ok := strings.CutPrefix(strings.TrimSpace(text), "url(")
	if !ok {
		return nil
	}
	ref, _, _ = strings.Cut(ref, ")")
	return r.ids[strings.TrimPrefix(strings.Trim(strings.TrimSpace(ref), `"'`), "#")]
}

// chained is an attribute of a gradient, or of the one that it refers to.
func (r *reader) chained(n *node, name string) string {
	for range 8 {
		if n == nil {
			return ""
		}
		if v := n.attr[name]; v != "" {
			return v
		}
		n = r.ids[strings.TrimPrefix(n.attr["href"], "#")]
	}
	return ""
}

// stops are those of a gradient, or of the one that it refers to.
func (r *reader) stops(n *node) []card.Stop {
	var out []card.Stop
	for range 8 {
		if n == nil {
			return nil
		}
		for _, k := range n.kids {
			if k.name != "stop" {
				continue
			}
			props, err := r.sheet.of(k)
			if err != nil {
				return nil // the next element stops for the same reason
			}
			at, _ := share(strings.TrimSpace(k.attr["offset"]))
			if len(out) > 0 {
				at = max(at, out[len(out)-1].At)
			}
			colour, alpha := stopColour(props)
			out = append(out, card.Stop{At: at, Colour: colour, Clear: 1 - alpha})
		}
		if len(out) > 0 {
			return out
		}
		n = r.ids[strings.TrimPrefix(n.attr["href"], "#")]
	}
	return nil
}

// mostStops is how many colours a gradient keeps.
const mostStops = 16

// gradient is the gradient that a fill names, in millimetres, for a shape with a box in user
// units; nil where it names none, or one that is as good as one colour.
func (r *reader) gradient(fill string, box geom.Rect, at geom.Affine) *exchange.Gradient {
	n := r.referred(fill)
	if n == nil || !strings.HasSuffix(n.name, "Gradient") || r.budget.Spend(1) != nil {
		return nil
	}
	stops := r.stops(n)
	if len(stops) < 2 || box.W <= 0 || box.H <= 0 {
		return nil
	}
	if len(stops) > mostStops {
		r.d.Note("A gradient of more than %d colours lost some of them.", mostStops)
		for len(stops) > mostStops {
			stops = slices.Delete(stops, mostStops/2, mostStops/2+1)
		}
	}
	if spread := r.chained(n, "spreadMethod"); spread == "repeat" || spread == "reflect" {
		r.d.Note("A gradient that repeats was taken once.")
	}
	m, err := parseTransform(r.chained(n, "gradientTransform"))
	if err != nil {
		m = geom.Identity
	}
	whole := r.chained(n, "gradientUnits") == "userSpaceOnUse"
	if !whole {
		m = m.Then(geom.Scale(box.W, box.H)).Then(geom.Shift(box.X, box.Y))
	}
	m = m.Then(at)
	back, ok := m.Inverse()
	if !ok {
		return nil
	}
	place := func(name, def string) float64 {
		return r.inBox(cmp.Or(r.chained(n, name), def), name, !whole)
	}
	g := &exchange.Gradient{Radial: n.name == "radialGradient", Stops: stops}
	if g.Radial {
		c := geom.Pt(place("cx", "50%"), place("cy", "50%"))
		radius := place("r", "50%") * math.Sqrt(math.Abs(m.Det()))
		if !conformal(m) || r.chained(n, "fx") != "" || r.chained(n, "fy") != "" {
			r.d.Note("A gradient that runs outward unevenly was taken as a round one.")
		}
		g.From = m.Apply(c)
		g.To = g.From.Add(geom.Pt(radius, 0))
	} else {
		p, q := geom.Pt(place("x1", "0%"), place("y1", "0%")), geom.Pt(place("x2", "100%"), place("y2", "0%"))
		v := q.Sub(p)
		if v == (geom.Point{}) {
			return nil
		}
		// How far along the gradient a place is follows from it evenly: its slope in
		// millimetres tells where the colours stand upright to it.
		v = v.Mul(1 / v.Dot(v))
		slope := geom.Pt(back.A*v.X+back.B*v.Y, back.C*v.X+back.D*v.Y)
		g.From = m.Apply(p)
		g.To = g.From.Add(slope.Mul(1 / slope.Dot(slope)))
	}
	if g.From == g.To {
		return nil
	}
	return g
}

// mean is the mean colour of stops, and how much of it is there.
func mean(stops []card.Stop) (colour string, alpha float64) {
	var sum [3]float64
	for _, s := range stops {
		for k, v := range rgb(s.Colour) {
			sum[k] += v
		}
		alpha += 1 - s.Clear
	}
	n := float64(len(stops))
	return fmt.Sprintf("#%02x%02x%02x", int(sum[0]/n), int(sum[1]/n), int(sum[2]/n)), alpha / n
}

// inBox is a length in user units, or, where the unit is a box, as a share of it.
func (r *reader) inBox(text, name string, box bool) float64 {
	if p, ok := strings.CutSuffix(text, "%"); ok && box {
		v, _ := strconv.ParseFloat(p, 64) // what is no number is 0
		return v / 100
	}
	return r.length(&node{attr: map[string]string{name: text}}, name, 0)
}

package svg

import (
	"fmt"
	"image/color"
	"math"
	"strconv"
	"strings"

	"golang.org/x/image/colornames"

	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// style is what an element looks like, most of it taken from those around it.
type style struct {
	fill, stroke, colour string // as written: colours, none, url(#…)
	width                float64
	rule                 geom.FillRule
	// gone is not drawn with all that is in it; unseen is not, but what is in it may be.
	gone, unseen bool
	// How much is there, 0 to 1: of the element itself with all that is in it, and of fill
	// and stroke.
	opacity, fillOpacity, strokeOpacity float64
	line                                exchange.LineStyle
	lineFirst                           bool
	fixed                               bool // lines are not scaled
	words                               textStyle
	transform, origin                   string
	extra                               map[string]string // what is noted only
}

func initial() style {
	return style{fill: "#000000", stroke: "none", colour: "#000000", width: 1, opacity: 1, fillOpacity: 1, strokeOpacity: 1}
}

// share is an opacity: a number or per cent, 0 to 1; ok is false for what is none.
func share(v string) (float64, bool) {
	k, err := strconv.ParseFloat(strings.TrimSuffix(v, "%"), 64)
	if err != nil || math.IsNaN(k) {
		return 0, false
	}
	if strings.HasSuffix(v, "%") {
		k /= 100
	}
	return min(max(k, 0), 1), true
}

// with is the style changed by declarations, later ones winning.
func (s style) with(props []property, d *exchange.Drawing) style {
	s.extra, s.transform, s.origin, s.fixed, s.opacity = nil, "", "", false, 1
	for _, p := range props {
		v := p.value
		if v == "inherit" || v == "" {
			continue
		}
		switch p.name {
		case "fill":
			s.fill = v
		case "stroke":
			s.stroke = v
		case "color":
			s.colour = v
		case "stroke-width":
			if w, ok := parseLength(v); ok {
				s.width = w
			}
		case "stroke-linecap":
			s.line.Cap = map[string]geom.Cap{"round": geom.RoundCap, "square": geom.SquareCap}[v]
		case "stroke-linejoin":
			s.line.Join = map[string]exchange.Join{"round": exchange.RoundJoin, "bevel": exchange.BevelJoin}[v]
		case "stroke-miterlimit":
			if k, err := strconv.ParseFloat(v, 64); err == nil && k >= 1 {
				s.line.MitreLimit = k
			}
		case "stroke-dashoffset":
			s.line.Offset, _ = parseLength(v) // what is no length is none
		case "paint-order":
			s.lineFirst = strings.HasPrefix(v, "stroke")
		case "fill-rule":
			s.rule = geom.NonZero
			if v == "evenodd" {
				s.rule = geom.EvenOdd
			}
		case "display":
			s.gone = v == "none"
		case "visibility":
			s.unseen = v == "hidden" || v == "collapse"
		case "opacity", "fill-opacity", "stroke-opacity":
			of := map[string]*float64{"opacity": &s.opacity, "fill-opacity": &s.fillOpacity, "stroke-opacity": &s.strokeOpacity}[p.name]
			if k, ok := share(v); ok {
				*of = k
			}
		case "stroke-dasharray":
			s.line.Dashes = nil
			if v != "none" {
				s.line.Dashes, _ = numbers(plain(v)) // what is no list is none
			}
		case "vector-effect":
			s.fixed = v == "non-scaling-stroke"
		case "transform":
			s.transform = v
		case "transform-origin":
			s.origin = v
		case "clip-path", "mask", "filter", "clip-rule", "mask-type":
			if s.extra == nil {
				s.extra = map[string]string{}
			}
			s.extra[p.name] = v
		case "marker", "marker-start", "marker-mid", "marker-end":
			if v != "none" {
				d.Note("Markers at the ends of lines were left out.")
			}
		default:
			s.words.set(p.name, v)
		}
	}
	return s
}

// presentation are the attributes that are properties too.
var presentation = []string{
	"fill", "stroke", "color", "stroke-width", "fill-rule", "display", "visibility", "opacity", "fill-opacity", "stroke-opacity",
	"stroke-dasharray", "stroke-dashoffset", "stroke-linecap", "stroke-linejoin", "stroke-miterlimit", "paint-order", "clip-path", "clip-rule", "mask-type",
	"font-family", "font-size", "font-weight", "font-style", "text-anchor", "letter-spacing", "mask", "filter", "marker-start", "marker-mid", "marker-end", "stop-color", "stop-opacity",
	"vector-effect", "transform", "transform-origin",
}

// paint is a colour as #rrggbb, or "" for none, and how much of it is there, 0 to 1. A
// gradient or a pattern is reduced to one colour, with a note.
func (r *reader) paint(text string, s style) (colour string, alpha float64) {
	if ref, ok := strings.CutPrefix(text, "url("); ok {
		ref, fallback, _ := strings.Cut(ref, ")")
		ref = strings.Trim(strings.TrimSpace(ref), `"'`)
		n := r.ids[strings.TrimPrefix(ref, "#")]
		if c, a := r.server(n, 0); c != "" {
			what := "pattern"
			if strings.HasSuffix(n.name, "Gradient") {
				what = "gradient"
			}
			r.d.Note("A %s was reduced to one colour.", what)
			return c, a
		}
		text = strings.TrimSpace(fallback)
	}
	if i := strings.Index(text, "icc-color"); i > 0 {
		text = strings.TrimSpace(text[:i])
	}
	if strings.EqualFold(text, "currentColor") {
		text = s.colour
	}
	c, alpha, ok := parseColour(text)
	if !ok {
		if text != "" && text != "none" && text != "transparent" {
			r.d.Note("The colour “%s” is not known; black was taken.", text)
			return "#000000", 1
		}
		return "", 0
	}
	if alpha == 0 {
		return "", 0
	}
	return c, alpha
}

// server is the mean colour of a gradient, or the first fill in a pattern, and how much of
// it is there; "" where nothing tells, or too much would have to be looked at.
func (r *reader) server(n *node, depth int) (string, float64) {
	if n == nil || depth > 8 {
		return "", 0
	}
	if strings.HasSuffix(n.name, "Gradient") {
		if stops := r.stops(n); len(stops) > 0 {
			return mean(stops)
		}
		return "", 0
	}
	for _, k := range n.kids {
		props, err := r.sheet.of(k)
		if err != nil {
			return "", 0 // the next element stops for the same reason
		}
		for _, p := range props {
			if c, a, ok := parseColour(p.value); ok && p.name == "fill" {
				return c, a
			}
		}
		if c, a := r.server(k, depth+1); c != "" {
			return c, a
		}
	}
	if n.name == "pattern" {
		// What is in it may be in another one.
		return r.server(r.ids[strings.TrimPrefix(n.attr["href"], "#")], depth+1)
	}
	return "", 0
}

// stopColour is the colour of a stop of a gradient, and how much of it is there.
func stopColour(props []property) (colour string, alpha float64) {
	colour, own, through := "#000000", 1.0, 1.0
	for _, p := range props {
		switch p.name {
		case "stop-color":
			if c, a, ok := parseColour(p.value); ok {
				colour, own = c, a
			}
		case "stop-opacity":
			if a, ok := share(p.value); ok {
				through = a
			}
		}
	}
	return colour, own * through
}

// parseColour reads a colour of CSS as #rrggbb, and how much of it is there, 0 to 1; ok is
// false for none.
func parseColour(text string) (colour string, alpha float64, ok bool) {
	text = strings.ToLower(strings.TrimSpace(text))
	if text == "transparent" {
		return "#000000", 0, true
	}
	if c, ok := colornames.Map[text]; ok {
		return hex(c), 1, true
	}
	if h, ok := strings.CutPrefix(text, "#"); ok {
		if len(h) == 3 || len(h) == 4 {
			var long strings.Builder
			for _, c := range h {
				long.WriteString(string(c) + string(c))
			}
			h = long.String()
		}
		if len(h) == 6 {
			h += "ff"
		}
		v, err := strconv.ParseUint(h, 16, 64)
		if err != nil || len(h) != 8 {
			return "", 0, false
		}
		return "#" + h[:6], float64(v&255) / 255, true
	}
	name, args, ok := strings.Cut(strings.TrimSuffix(text, ")"), "(")
	if !ok || name != "rgb" && name != "rgba" {
		return "", 0, false
	}
	f := strings.FieldsFunc(args, func(c rune) bool { return c == ' ' || c == ',' || c == '/' })
	if len(f) < 3 {
		return "", 0, false
	}
	var v [3]int
	for i := range v {
		k, err := strconv.ParseFloat(strings.TrimSuffix(f[i], "%"), 64)
		if err != nil || math.IsNaN(k) {
			return "", 0, false
		}
		if strings.HasSuffix(f[i], "%") {
			k = k * 255 / 100
		}
		v[i] = int(math.Round(min(max(k, 0), 255)))
	}
	alpha = 1
	if len(f) > 3 {
		if a, ok := share(f[3]); ok {
			alpha = a
		}
	}
	return fmt.Sprintf("#%02x%02x%02x", v[0], v[1], v[2]), alpha, true
}

// rgb are the parts of a colour that is written #rrggbb.
func rgb(colour string) [3]float64 {
	v, _ := strconv.ParseUint(colour[1:], 16, 32) // parseColour gives nothing else
	return [3]float64{float64(v >> 16 & 255), float64(v >> 8 & 255), float64(v & 255)}
}

func hex(c color.RGBA) string { return fmt.Sprintf("#%02x%02x%02x", c.R, c.G, c.B) }

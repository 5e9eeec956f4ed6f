package svg

import (
	"fmt"
	"image/color"
	"math"
	"slices"
	"strconv"
	"strings"

	"golang.org/x/image/colornames"

	"sectilis/core/drawing"
	"sectilis/core/geom"
)

// style is what an element looks like, most of it taken from those around it.
type style struct {
	fill, stroke, colour string // as written: colours, none, url(#…)
	width                float64
	rule                 geom.FillRule
	hidden, faint        bool
	dashes               []float64
	extra                map[string]string // what is noted only
}

func initial() style { return style{fill: "#000000", stroke: "none", colour: "#000000", width: 1} }

// property is one declaration.
type property struct{ name, value string }

// with is the style changed by declarations, later ones winning.
func (s style) with(props []property, d *drawing.Drawing) style {
	s.extra = nil
	for _, p := range props {
		v := strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(p.value), "!important"))
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
		case "fill-rule":
			s.rule = geom.NonZero
			if v == "evenodd" {
				s.rule = geom.EvenOdd
			}
		case "display":
			s.hidden = s.hidden || v == "none"
		case "visibility":
			s.hidden = v == "hidden" || v == "collapse"
		case "opacity", "fill-opacity", "stroke-opacity":
			k, err := strconv.ParseFloat(strings.TrimSuffix(v, "%"), 64)
			if err != nil {
				continue
			}
			if strings.HasSuffix(v, "%") {
				k /= 100
			}
			switch {
			case k <= 0 && p.name == "opacity":
				s.hidden = true
			case k <= 0 && p.name == "fill-opacity":
				s.fill = "none"
			case k <= 0:
				s.stroke = "none"
			case k < 1:
				s.faint = true
			}
		case "stroke-dasharray":
			s.dashes, _ = numbers(v) // "none" leaves none
		case "clip-path", "mask", "filter":
			if s.extra == nil {
				s.extra = map[string]string{}
			}
			s.extra[p.name] = v
		case "marker", "marker-start", "marker-mid", "marker-end":
			if v != "none" {
				d.Note("Markers at the ends of lines were left out.")
			}
		}
	}
	return s
}

// rule is one rule of a style sheet.
type rule struct {
	element, id string
	classes     []string
	weight      int
	props       []property
}

// stylesheet is rules from the lightest up.
type stylesheet []rule

// parseCSS reads rules with simple selectors: an element, a class, an id, or
// them in one. Others are noted.
func parseCSS(text string, d *drawing.Drawing) (stylesheet, error) {
	for {
		a := strings.Index(text, "/*")
		if a < 0 {
			break
		}
		b := strings.Index(text[a+2:], "*/")
		if b < 0 {
			text = text[:a]
			break
		}
		text = text[:a] + " " + text[a+2+b+2:]
	}
	if strings.Contains(text, "@import") {
		return nil, refuse("The SVG takes its styles from another file, which is not read. Save it with its styles inside.")
	}
	var out stylesheet
	for text != "" {
		head, after, ok := strings.Cut(text, "{")
		if !ok {
			break
		}
		if strings.HasPrefix(strings.TrimSpace(head), "@") {
			d.Note("Styles under “%s” were left out.", strings.TrimSpace(head))
			depth, i := 1, 0
			for ; i < len(after) && depth > 0; i++ {
				switch after[i] {
				case '{':
					depth++
				case '}':
					depth--
				}
			}
			text = after[i:]
			continue
		}
		body, rest, _ := strings.Cut(after, "}")
		text = rest
		props := declarations(body)
		for _, sel := range strings.Split(head, ",") {
			r, ok := selector(strings.TrimSpace(sel))
			if !ok {
				d.Note("Styles for “%s” were left out: only plain elements, classes and ids are read.", strings.TrimSpace(sel))
				continue
			}
			r.props = props
			out = append(out, r)
		}
	}
	slices.SortStableFunc(out, func(a, b rule) int { return a.weight - b.weight })
	return out, nil
}

func selector(text string) (rule, bool) {
	if text == "" || strings.ContainsAny(text, " \t\r\n>+~[:") {
		return rule{}, false
	}
	var r rule
	start := 0
	take := func(end int) {
		part := text[start:end]
		switch {
		case part == "" || part == "*":
		case part[0] == '.':
			r.classes = append(r.classes, part[1:])
			r.weight += 10
		case part[0] == '#':
			r.id = part[1:]
			r.weight += 100
		default:
			r.element = part
			r.weight++
		}
		start = end
	}
	for i := 1; i < len(text); i++ {
		if text[i] == '.' || text[i] == '#' {
			take(i)
		}
	}
	take(len(text))
	return r, true
}

func declarations(text string) []property {
	var out []property
	for _, d := range strings.Split(text, ";") {
		if name, value, ok := strings.Cut(d, ":"); ok {
			out = append(out, property{strings.ToLower(strings.TrimSpace(name)), strings.TrimSpace(value)})
		}
	}
	return out
}

func (r rule) matches(n *node, classes []string) bool {
	if r.element != "" && r.element != n.name || r.id != "" && r.id != n.attr["id"] {
		return false
	}
	for _, want := range r.classes {
		found := false
		for _, c := range classes {
			found = found || c == want
		}
		if !found {
			return false
		}
	}
	return true
}

// presentation are the attributes that are properties too.
var presentation = []string{
	"fill", "stroke", "color", "stroke-width", "fill-rule", "display", "visibility", "opacity", "fill-opacity", "stroke-opacity",
	"stroke-dasharray", "clip-path", "mask", "filter", "marker-start", "marker-mid", "marker-end", "stop-color",
}

// of are the declarations for an element, those that win last: attributes,
// rules from the lightest up, the style attribute.
func (s stylesheet) of(n *node) []property {
	var out []property
	for _, a := range presentation {
		if v := n.attr[a]; v != "" {
			out = append(out, property{a, v})
		}
	}
	classes := strings.Fields(n.attr["class"])
	for _, r := range s {
		if r.matches(n, classes) {
			out = append(out, r.props...)
		}
	}
	return append(out, declarations(n.attr["style"])...)
}

// paint is a colour as #rrggbb, or "" for none. A gradient or a pattern is
// reduced to one colour, with a note.
func (r *reader) paint(text string, s style) string {
	if ref, ok := strings.CutPrefix(text, "url("); ok {
		ref, fallback, _ := strings.Cut(ref, ")")
		ref = strings.Trim(strings.TrimSpace(ref), `"'`)
		n := r.ids[strings.TrimPrefix(ref, "#")]
		if c := r.server(n, 0); c != "" {
			what := "pattern"
			if strings.HasSuffix(n.name, "Gradient") {
				what = "gradient"
			}
			r.d.Note("A %s was reduced to one colour.", what)
			return c
		}
		text = strings.TrimSpace(fallback)
	}
	if strings.EqualFold(text, "currentColor") {
		text = s.colour
	}
	c, ok := parseColour(text)
	if !ok {
		if text != "" && text != "none" && text != "transparent" {
			r.d.Note("The colour “%s” is not known; black was taken.", text)
			return "#000000"
		}
		return ""
	}
	return c
}

// server is the mean colour of a gradient, or the first fill in a pattern.
func (r *reader) server(n *node, depth int) string {
	if n == nil || depth > 8 {
		return ""
	}
	var sum [3]float64
	count := 0.0
	for _, k := range n.kids {
		if k.name == "stop" {
			for _, p := range r.sheet.of(k) {
				if c, ok := parseColour(p.value); ok && p.name == "stop-color" {
					v, _ := strconv.ParseUint(c[1:], 16, 32)
					for i := range sum {
						sum[i] += float64(v >> (16 - 8*i) & 255)
					}
					count++
				}
			}
			continue
		}
		for _, p := range r.sheet.of(k) {
			if c, ok := parseColour(p.value); ok && p.name == "fill" {
				return c
			}
		}
		if c := r.server(k, depth+1); c != "" {
			return c
		}
	}
	if count > 0 {
		return fmt.Sprintf("#%02x%02x%02x", int(sum[0]/count), int(sum[1]/count), int(sum[2]/count))
	}
	if strings.HasSuffix(n.name, "Gradient") || n.name == "pattern" {
		// Stops may be another gradient's.
		if c := r.server(r.ids[strings.TrimPrefix(n.attr["href"], "#")], depth+1); c != "" {
			return c
		}
	}
	return ""
}

// parseColour reads a colour of CSS as #rrggbb; ok is false for none.
func parseColour(text string) (string, bool) {
	text = strings.ToLower(strings.TrimSpace(text))
	if c, ok := colornames.Map[text]; ok {
		return hex(c), true
	}
	if h, ok := strings.CutPrefix(text, "#"); ok {
		if _, err := strconv.ParseUint(h, 16, 64); err != nil {
			return "", false
		}
		switch len(h) {
		case 3, 4:
			return "#" + strings.Repeat(h[:1], 2) + strings.Repeat(h[1:2], 2) + strings.Repeat(h[2:3], 2), true
		case 6, 8:
			return "#" + h[:6], true
		}
		return "", false
	}
	name, args, ok := strings.Cut(strings.TrimSuffix(text, ")"), "(")
	if !ok || name != "rgb" && name != "rgba" {
		return "", false
	}
	f := strings.FieldsFunc(args, func(c rune) bool { return c == ' ' || c == ',' || c == '/' })
	if len(f) < 3 {
		return "", false
	}
	var v [3]int
	for i := range v {
		k, err := strconv.ParseFloat(strings.TrimSuffix(f[i], "%"), 64)
		if err != nil || math.IsNaN(k) {
			return "", false
		}
		if strings.HasSuffix(f[i], "%") {
			k = k * 255 / 100
		}
		v[i] = int(math.Round(min(max(k, 0), 255)))
	}
	return fmt.Sprintf("#%02x%02x%02x", v[0], v[1], v[2]), true
}

func hex(c color.RGBA) string { return fmt.Sprintf("#%02x%02x%02x", c.R, c.G, c.B) }

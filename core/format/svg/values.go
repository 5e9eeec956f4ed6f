package svg

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"sectilis/core/geom"
)

// length is an attribute in user units; one in per cent is as if it were not
// there.
func (r *reader) length(n *node, name string, def float64) float64 {
	v, ok := parseLength(n.attr[name])
	if !ok {
		return def
	}
	return v
}

// units are CSS lengths in pixels.
var units = map[string]float64{"": 1, "px": 1, "in": 96, "mm": 96 / 25.4, "cm": 96 / 2.54, "q": 96 / 101.6, "pt": 96. / 72, "pc": 16, "em": 16, "rem": 16, "ex": 8}

func parseLength(text string) (float64, bool) {
	text = strings.TrimSpace(text)
	i := len(text)
	for i > 0 && (text[i-1] >= 'a' && text[i-1] <= 'z' || text[i-1] >= 'A' && text[i-1] <= 'Z' || text[i-1] == '%') {
		i--
	}
	unit, ok := units[strings.ToLower(text[i:])]
	v, err := strconv.ParseFloat(strings.TrimSpace(text[:i]), 64)
	if !ok || err != nil || math.IsNaN(v) || math.Abs(v) > 1e9 {
		return 0, false
	}
	return v * unit, true
}

// numbers reads a list of numbers parted by spaces and commas.
func numbers(text string) ([]float64, error) {
	fields := strings.FieldsFunc(text, func(c rune) bool { return c == ' ' || c == ',' || c == '\n' || c == '\r' || c == '\t' })
	out := make([]float64, 0, len(fields))
	for _, f := range fields {
		v, err := strconv.ParseFloat(f, 64)
		if err != nil || math.IsNaN(v) || math.Abs(v) > 1e9 {
			return nil, fmt.Errorf("“%s” is no number", f)
		}
		out = append(out, v)
	}
	return out, nil
}

// parseTransform reads the list of a transform attribute.
func parseTransform(text string) (geom.Affine, error) {
	m := geom.Identity
	for rest := strings.TrimSpace(text); rest != ""; rest = strings.TrimLeft(rest, " \t\r\n,") {
		name, after, ok := strings.Cut(rest, "(")
		args, more, ok2 := strings.Cut(after, ")")
		if !ok || !ok2 {
			return m, fmt.Errorf("a bracket is missing in “%s”", rest)
		}
		v, err := numbers(args)
		if err != nil {
			return m, err
		}
		arg := func(i int) float64 {
			if i < len(v) {
				return v[i]
			}
			return 0
		}
		var t geom.Affine
		rad := arg(0) * math.Pi / 180
		switch name = strings.TrimSpace(name); {
		case name == "matrix" && len(v) == 6:
			t = geom.Affine{A: v[0], B: v[1], C: v[2], D: v[3], E: v[4], F: v[5]}
		case name == "translate" && len(v) > 0:
			t = geom.Shift(v[0], arg(1))
		case name == "scale" && len(v) == 1:
			t = geom.Scale(v[0], v[0])
		case name == "scale" && len(v) == 2:
			t = geom.Scale(v[0], v[1])
		case name == "rotate" && (len(v) == 1 || len(v) == 3):
			t = geom.Shift(-arg(1), -arg(2)).Then(geom.Turn(rad)).Then(geom.Shift(arg(1), arg(2)))
		case name == "skewX" && len(v) == 1:
			t = geom.Affine{A: 1, C: math.Tan(rad), D: 1}
		case name == "skewY" && len(v) == 1:
			t = geom.Affine{A: 1, B: math.Tan(rad), D: 1}
		default:
			return m, fmt.Errorf("“%s(%s)” is no transform", name, args)
		}
		m = t.Then(m)
		rest = more
	}
	return m, nil
}

package svg

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"sectilis/core/ground/geom"
)

// view is the size that lengths in per cent are shares of, in user units.
type view struct{ w, h float64 }

// share is what 100 % of an attribute are: of the width, the height, or for what is neither
// of √((w² + h²)/2).
func (v view) share(name string) float64 {
	switch name {
	case "x", "x1", "x2", "cx", "rx", "width", "dx":
		return v.w
	case "y", "y1", "y2", "cy", "ry", "height", "dy":
		return v.h
	}
	return math.Sqrt((v.w*v.w + v.h*v.h) / 2)
}

// length is an attribute in user units.
func (r *reader) length(n *node, name string, def float64) float64 {
	text := n.attr[name]
	if p, ok := strings.CutSuffix(strings.TrimSpace(text), "%"); ok {
		if v, ok := parseLength(p); ok && r.view.share(name) > 0 {
			return v / 100 * r.view.share(name)
		}
		return def
	}
	v, ok := parseLength(text)
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

// numbers reads a list of numbers by the one grammar that paths have, too.
func numbers(text string) ([]float64, error) { return geom.ParseNumbers(text) }

// angles and lengths of CSS in a transform have units; without them they are degrees and
// pixels.
var cssUnit = regexp.MustCompile(`(?i)([0-9.])(px|deg|rad|grad|turn|mm|cm|in|pt|pc)`)

// plain is a list of numbers without units, angles in degrees.
func plain(args string) string {
	if !strings.ContainsAny(args, "pdrgtmciPDRGTMCI") {
		return args
	}
	var out strings.Builder
	for _, f := range strings.FieldsFunc(args, func(c rune) bool { return c == ',' || c == ' ' || c == '\t' || c == '\n' }) {
		m := cssUnit.FindStringSubmatchIndex(f)
		v, scale := f, 1.0
		if m != nil {
			v = f[:m[4]]
			unit := strings.ToLower(f[m[4]:m[5]])
			scale = map[string]float64{"rad": 180 / math.Pi, "grad": .9, "turn": 360, "deg": 1}[unit]
			if u, ok := units[unit]; ok {
				scale = u
			}
		}
		if k, err := strconv.ParseFloat(v, 64); err == nil {
			v = strconv.FormatFloat(k*scale, 'g', -1, 64)
		}
		out.WriteString(v + " ")
	}
	return out.String()
}

// parseTransform reads the list of a transform attribute.
func parseTransform(text string) (geom.Affine, error) {
	m := geom.Identity
	if strings.TrimSpace(text) == "none" {
		return m, nil
	}
	for rest := strings.TrimSpace(text); rest != ""; rest = strings.TrimLeft(rest, " \t\r\n,") {
		name, after, ok := strings.Cut(rest, "(")
		args, more, ok2 := strings.Cut(after, ")")
		if !ok || !ok2 {
			return m, fmt.Errorf("a bracket is missing in “%s”", rest)
		}
		v, err := numbers(plain(args))
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
		case name == "translateX" && len(v) == 1:
			t = geom.Shift(v[0], 0)
		case name == "translateY" && len(v) == 1:
			t = geom.Shift(0, v[0])
		case name == "scaleX" && len(v) == 1:
			t = geom.Scale(v[0], 1)
		case name == "scaleY" && len(v) == 1:
			t = geom.Scale(1, v[0])
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

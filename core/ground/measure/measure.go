// Package measure reads and writes lengths and angles as people type them.
//
// Inside the program a length is a float64 of millimetres. Inches exist only
// at the edge, as fractions: "3 3/8", "3⅜ in", "85mm", "5 1/2 - 1/8".
package measure

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
)

// Inch is the length of one inch in millimetres.
const Inch = 25.4

// Unit is the unit people read and type lengths in.
type Unit string

// The two units of the interface.
const (
	In Unit = "in"
	MM Unit = "mm"
)

// Error says what is wrong with a typed measure and what would be right.
type Error struct {
	Text string // what was typed
	Why  string // a sentence for the person
}

func (e *Error) Error() string { return e.Why }

// vulgar maps the single-character fractions of Unicode to their value.
var vulgar = map[rune]float64{
	'½': 1. / 2, '⅓': 1. / 3, '⅔': 2. / 3, '¼': 1. / 4, '¾': 3. / 4,
	'⅕': 1. / 5, '⅖': 2. / 5, '⅗': 3. / 5, '⅘': 4. / 5, '⅙': 1. / 6, '⅚': 5. / 6,
	'⅛': 1. / 8, '⅜': 3. / 8, '⅝': 5. / 8, '⅞': 7. / 8,
}

// maxText bounds what Parse looks at; nobody types a longer measure.
const maxText = 80

// Parse reads a length: a sum of numbers, each whole, decimal or fraction,
// each with or without a unit. A term without a unit is in the unit shown.
// The answer is in millimetres. The error is an *Error.
func Parse(text string, shown Unit) (float64, error) {
	if shown != In && shown != MM {
		return 0, fmt.Errorf("unit %q: it is either in or mm", shown)
	}
	p := parser{rest: []rune(text), text: text, shown: shown}
	if len(p.rest) > maxText {
		return 0, p.fail("is too long")
	}
	return p.sum()
}

type parser struct {
	rest  []rune
	text  string
	shown Unit
}

func (p *parser) fail(what string) error {
	example := "3 3/8, 3.375, 85 mm or 5 1/2 - 1/8"
	if p.shown == MM {
		example = "85, 85.5, 3 3/8 in or 140 - 3"
	}
	shown := []rune(strings.TrimSpace(p.text))
	if len(shown) > 24 {
		shown = append(shown[:24:24], '…')
	}
	return &Error{Text: p.text, Why: fmt.Sprintf("“%s” %s. Write a measure such as %s.", string(shown), what, example)}
}

func (p *parser) space() {
	for len(p.rest) > 0 && unicode.IsSpace(p.rest[0]) {
		p.rest = p.rest[1:]
	}
}

func (p *parser) sum() (float64, error) {
	p.space()
	if len(p.rest) == 0 {
		return 0, p.fail("is no measure")
	}
	total := 0.0
	for first := true; ; first = false {
		p.space()
		if len(p.rest) == 0 {
			break
		}
		sign := 1.0
		switch p.rest[0] {
		case '+', '-', '−', '–':
			if p.rest[0] != '+' {
				sign = -1
			}
			p.rest = p.rest[1:]
		default:
			if !first {
				return 0, p.fail("cannot be read")
			}
		}
		term, err := p.term()
		if err != nil {
			return 0, err
		}
		total += sign * term
	}
	if math.Abs(total) > 1e5 {
		return 0, p.fail("is larger than any paper")
	}
	return total, nil
}

// term reads "3", "3.5", "3 3/8", "3⅜", "3/8" or "⅜" with its unit.
func (p *parser) term() (float64, error) {
	p.space()
	value, some := 0.0, false
	if n, ok := p.number(); ok {
		value, some = n, true
		if p.peek('/') {
			d, err := p.over()
			if err != nil {
				return 0, err
			}
			value /= d
			return p.unit(value)
		}
	}
	p.space()
	switch {
	case len(p.rest) > 0 && vulgar[p.rest[0]] != 0:
		value += vulgar[p.rest[0]]
		p.rest, some = p.rest[1:], true
	case some && len(p.rest) > 0 && unicode.IsDigit(p.rest[0]):
		n, _ := p.number()
		if !p.peek('/') {
			return 0, p.fail("has two numbers side by side")
		}
		d, err := p.over()
		if err != nil {
			return 0, err
		}
		value += n / d
	}
	if !some {
		return 0, p.fail("cannot be read")
	}
	return p.unit(value)
}

// peek skips blanks and reports whether the next rune is r.
func (p *parser) peek(r rune) bool {
	p.space()
	return len(p.rest) > 0 && (p.rest[0] == r || r == '/' && p.rest[0] == '⁄')
}

func (p *parser) over() (float64, error) {
	p.rest = p.rest[1:]
	p.space()
	d, ok := p.number()
	if !ok {
		return 0, p.fail("has a fraction without its lower number")
	}
	if d == 0 {
		return 0, p.fail("divides by zero")
	}
	return d, nil
}

func (p *parser) number() (float64, bool) {
	n := 0
	for n < len(p.rest) && (p.rest[n] >= '0' && p.rest[n] <= '9' || p.rest[n] == '.' || p.rest[n] == ',') {
		n++
	}
	v, err := strconv.ParseFloat(strings.Replace(string(p.rest[:n]), ",", ".", 1), 64)
	if n == 0 || err != nil {
		return 0, false
	}
	p.rest = p.rest[n:]
	return v, true
}

func (p *parser) unit(value float64) (float64, error) {
	p.space()
	n := 0
	for n < len(p.rest) && (unicode.IsLetter(p.rest[n]) || strings.ContainsRune(`"″”'`, p.rest[n])) {
		n++
	}
	name := strings.ToLower(string(p.rest[:n]))
	p.rest = p.rest[n:]
	switch name {
	case "":
		if p.shown == MM {
			return value, nil
		}
		return value * Inch, nil
	case "in", "inch", "inches", `"`, "″", "”", "''":
		return value * Inch, nil
	case "mm", "millimetre", "millimetres", "millimeter", "millimeters":
		return value, nil
	case "cm", "centimetre", "centimetres", "centimeter", "centimeters":
		return value * 10, nil
	case "pt":
		return value * Inch / 72, nil
	}
	return 0, p.fail("has a unit that is not known here")
}

// glyphs are the fractions that have a character of their own.
var glyphs = map[[2]int]string{
	{1, 2}: "½", {1, 4}: "¼", {3, 4}: "¾",
	{1, 8}: "⅛", {3, 8}: "⅜", {5, 8}: "⅝", {7, 8}: "⅞",
}

// Format writes a length of mm millimetres without its unit: to the nearest
// 1/32 in as a fraction, or to the nearest 0.1 mm.
func Format(mm float64, u Unit) string { return FormatTo(mm, u, 32) }

// FormatTo is Format to the nearest 1/parts in; parts is a power of two.
func FormatTo(mm float64, u Unit, parts int) string {
	if u == MM {
		s := strconv.FormatFloat(math.Round(mm*10)/10, 'f', -1, 64)
		if s == "-0" {
			return "0"
		}
		return s
	}
	n := int(math.Round(math.Abs(mm) / Inch * float64(parts)))
	sign := ""
	if mm < 0 && n > 0 {
		sign = "-"
	}
	whole, over, under := n/parts, n%parts, parts
	for over > 0 && over%2 == 0 {
		over, under = over/2, under/2
	}
	if over == 0 {
		return sign + strconv.Itoa(whole)
	}
	frac, ok := glyphs[[2]int{over, under}]
	if !ok {
		frac = fmt.Sprintf("%d/%d", over, under)
	}
	if whole == 0 {
		return sign + frac
	}
	return fmt.Sprintf("%s%d %s", sign, whole, frac)
}

// plain writes the fractions that have a character of their own out.
var plain = func() *strings.Replacer {
	var pairs []string
	for f, glyph := range glyphs {
		pairs = append(pairs, glyph, fmt.Sprintf("%d/%d", f[0], f[1]))
	}
	return strings.NewReplacer(pairs...)
}()

// Plain writes fractions out, for typefaces that do not have them: 2 3/8 for 2 ⅜.
func Plain(s string) string { return plain.Replace(s) }

// FormatUnit is Format followed by the unit. Amounts below 1/8 in, which 1/32 in would
// round by much, are written to 1/64 in where that says it, and in mm where it does not.
func FormatUnit(mm float64, u Unit) string {
	if a := math.Abs(mm); u == In && a > .004 && a < Inch/8 && off(a, 32) > small {
		if off(a, 64) <= small {
			return FormatTo(mm, In, 64) + " in"
		}
		return strconv.FormatFloat(math.Round(mm*100)/100, 'f', -1, 64) + " mm"
	}
	return Format(mm, u) + " " + string(u)
}

// small is by how much a small amount may be rounded, mm.
const small = .05

// off is how far a length is from the nearest 1/parts in, mm.
func off(mm, parts float64) float64 { return math.Abs(mm - math.Round(mm/Inch*parts)*Inch/parts) }

// FormatBoth writes a length in both units, "1 9/16 in (40 mm)". One below 1/16 in, which
// fractions of an inch would round away, is written in mm alone, to two digits.
func FormatBoth(mm float64) string {
	if a := math.Abs(mm); a < Inch/16-small {
		digits := 1
		if a < .1 && a > 0 {
			digits = 2
		}
		s := strings.TrimRight(strings.TrimRight(strconv.FormatFloat(mm, 'f', digits, 64), "0"), ".")
		if s == "-0" || s == "" {
			s = "0"
		}
		return s + " mm"
	}
	return FormatUnit(mm, In) + " (" + FormatUnit(mm, MM) + ")"
}

// Step is what FormatTo writes lengths to, mm: 1/parts in, or 0.1 mm.
func Step(u Unit, parts int) float64 {
	if u == MM {
		return .1
	}
	return Inch / float64(parts)
}

// FormatSize writes "5 × 7 in".
func FormatSize(w, h float64, u Unit) string {
	return Format(w, u) + " × " + Format(h, u) + " " + string(u)
}

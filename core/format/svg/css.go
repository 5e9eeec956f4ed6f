package svg

import (
	"cmp"
	"slices"
	"strings"

	"github.com/tdewolff/parse/v2"
	"github.com/tdewolff/parse/v2/css"

	"sectilis/core/document/exchange"
)

// property is one declaration.
type property struct {
	name, value string
	important   bool
}

// rule is one rule of a style sheet.
type rule struct {
	element, id string
	classes     []string
	weight      int
	props       []property
}

// stylesheet is rules from the lightest up, and where those are that an element can match:
// each rule is under its id, else its first class, else its element.
type stylesheet struct {
	rules                 []rule
	byID, byClass, byName map[string][]int
	everywhere            []int
	budget                *exchange.Budget
}

// maxRules bounds a style sheet.
const maxRules = 20_000

// parseCSS reads rules with simple selectors: an element, a class, an id, or them in one.
// Others are noted.
func parseCSS(text string, d *exchange.Drawing, budget *exchange.Budget) (*stylesheet, error) {
	s := &stylesheet{byID: map[string][]int{}, byClass: map[string][]int{}, byName: map[string][]int{}, budget: budget}
	p := css.NewParser(parse.NewInputString(text), false)
	var selectors []string
	var props []property
	depth := 0 // in at-rules, which are left out
	for {
		if err := budget.Spend(1); err != nil {
			return nil, err
		}
		kind, _, data := p.Next()
		switch kind {
		case css.ErrorGrammar:
			if p.HasParseError() {
				continue // what is amiss is passed over, as browsers do
			}
			return s, s.sort(d)
		case css.AtRuleGrammar:
			if strings.EqualFold(string(data), "@import") {
				d.Note("Styles from another file were left out: nothing outside of the SVG is read.")
			}
		case css.BeginAtRuleGrammar:
			d.Note("Styles under “%s” were left out.", strings.TrimSpace(string(data)+words(p.Values())))
			depth++
		case css.EndAtRuleGrammar:
			depth--
		case css.QualifiedRuleGrammar, css.BeginRulesetGrammar:
			for _, sel := range strings.Split(words(p.Values()), ",") {
				selectors = append(selectors, strings.TrimSpace(sel))
			}
		case css.DeclarationGrammar:
			props = append(props, declared(strings.ToLower(string(data)), words(p.Values())))
		case css.EndRulesetGrammar:
			for _, sel := range selectors {
				if depth > 0 {
					break
				}
				r, ok := selector(sel)
				if !ok {
					d.Note("Styles for “%s” were left out: only plain elements, classes and ids are read.", sel)
					continue
				}
				if len(s.rules) >= maxRules {
					return nil, refuse("The SVG has more than %d rules of style.", maxRules)
				}
				r.props = props
				s.rules = append(s.rules, r)
			}
			selectors, props = nil, nil
		}
	}
}

func words(tokens []css.Token) string {
	var b strings.Builder
	for _, t := range tokens {
		b.Write(t.Data)
	}
	return b.String()
}

// declared is a declaration, taken from its value whether it is important.
func declared(name, value string) property {
	value, important := strings.TrimSpace(value), false
	if i := strings.LastIndex(value, "!"); i >= 0 && strings.EqualFold(strings.TrimSpace(value[i+1:]), "important") {
		value, important = strings.TrimSpace(value[:i]), true
	}
	return property{name, value, important}
}

// sort puts rules from the lightest up, and notes where each can be found.
func (s *stylesheet) sort(*exchange.Drawing) error {
	slices.SortStableFunc(s.rules, func(a, b rule) int { return cmp.Compare(a.weight, b.weight) })
	for i, r := range s.rules {
		switch {
		case r.id != "":
			s.byID[r.id] = append(s.byID[r.id], i)
		case len(r.classes) > 0:
			s.byClass[r.classes[0]] = append(s.byClass[r.classes[0]], i)
		case r.element != "":
			s.byName[r.element] = append(s.byName[r.element], i)
		default:
			s.everywhere = append(s.everywhere, i)
		}
	}
	return nil
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

func (r rule) matches(n *node, classes []string) bool {
	if r.element != "" && r.element != n.name || r.id != "" && r.id != n.attr["id"] {
		return false
	}
	for _, want := range r.classes {
		if !slices.Contains(classes, want) {
			return false
		}
	}
	return true
}

// declarations are those of a style attribute.
func declarations(text string) []property {
	var out []property
	for _, d := range strings.Split(text, ";") {
		if name, value, ok := strings.Cut(d, ":"); ok {
			out = append(out, declared(strings.ToLower(strings.TrimSpace(name)), value))
		}
	}
	return out
}

// of are the declarations for an element, those that win last: attributes, rules from the
// lightest up, the style attribute, then what is important in the same order.
func (s *stylesheet) of(n *node) ([]property, error) {
	var out []property
	for _, a := range presentation {
		if v := n.attr[a]; v != "" {
			out = append(out, property{name: a, value: v})
		}
	}
	classes := strings.Fields(n.attr["class"])
	maybe := slices.Concat(s.everywhere, s.byName[n.name], s.byID[n.attr["id"]])
	for i, c := range classes {
		if !slices.Contains(classes[:i], c) {
			maybe = append(maybe, s.byClass[c]...)
		}
	}
	if err := s.budget.Spend(1 + len(maybe)); err != nil {
		return nil, err
	}
	slices.Sort(maybe)
	for _, i := range maybe {
		if s.rules[i].matches(n, classes) {
			out = append(out, s.rules[i].props...)
		}
	}
	out = append(out, declarations(n.attr["style"])...)
	slices.SortStableFunc(out, func(a, b property) int {
		switch {
		case a.important == b.important:
			return 0
		case a.important:
			return 1
		}
		return -1
	})
	return out, nil
}

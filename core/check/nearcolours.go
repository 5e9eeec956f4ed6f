package check

import (
	"strings"

	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// alike is how far apart colours are that were likely meant to be one (CIEDE2000, 1 is hardly seen).
const alike = 3.0

// nearColours finds colours that differ by so little from one that comes before them that both were
// likely meant to be one.
func nearColours(in *Input) (out []Finding) {
	type first struct {
		code  string
		look  colorful.Color
		named string
	}
	var seen []first
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		for _, c := range doc.Colours() {
			look, err := colorful.Hex(c)
			if err != nil {
				continue
			}
			known, near := false, -1
			for i, s := range seen {
				known = known || s.code == c
				if near < 0 && 100*look.DistanceCIEDE2000(s.look) < alike {
					near = i
				}
			}
			if known {
				continue
			}
			if near >= 0 {
				s := seen[near]
				out = append(out, of(Note, f, it, 0, []Mend{{Says: "Make both " + strings.ToUpper(s.code), Do: []Step{{"recolour", card.Recolour{From: []string{c}, To: s.code}}}}},
					"has the colour %s, which is nearly the %s of “%s”.", strings.ToUpper(c), strings.ToUpper(s.code), s.named))
			}
			seen = append(seen, first{c, look, it.Name})
		}
	})
	return out
}

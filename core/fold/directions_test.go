package fold

import (
	"math"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/card"
	"sectilis/core/geom"
	"sectilis/core/measure"
)

var (
	along = regexp.MustCompile(`^At (.+): (cut|score|perforate) from (?:edge to edge|(.+) to (.+?))(?: \((mountain|valley)\))?\.$`)
	slant = regexp.MustCompile(`^(Cut|Score) from (.+) across and (.+) down to (.+) across and (.+) down\.$`)
)

// followed does what directions say, as a person would, and returns the lines
// as they lie on the sheet seen from inside.
func followed(t *testing.T, n Net, d Directions, u measure.Unit) []Line {
	t.Helper()
	mm := func(text string) float64 {
		v, err := measure.Parse(text, u)
		require.NoError(t, err, text)
		return v
	}
	var out []Line
	for _, w := range d.Works {
		turned := strings.Contains(w.Lay, "quarter to the right")
		length := n.Height
		if turned {
			length = n.Width
		}
		for _, text := range w.Lines {
			if m := slant.FindStringSubmatch(text); m != nil {
				out = append(out, Line{From: geom.Pt(mm(m[2]), mm(m[3])), To: geom.Pt(mm(m[4]), mm(m[5]))})
				continue
			}
			m := along.FindStringSubmatch(text)
			require.NotNil(t, m, text)
			at, from, to := mm(m[1]), 0.0, length
			if m[3] != "" {
				from, to = mm(m[3]), mm(m[4])
			}
			role := Cut
			if m[2] == "score" {
				role = Role(m[5])
			}
			l := Line{Role: role, From: geom.Pt(at, from), To: geom.Pt(at, to)}
			if turned {
				l.From, l.To = geom.Pt(from, n.Height-at), geom.Pt(to, n.Height-at)
			}
			out = append(out, l)
		}
	}
	return out
}

func TestDirectionsGiveTheNetBack(t *testing.T) {
	for _, k := range Kinds() {
		for _, u := range []measure.Unit{measure.In, measure.MM} {
			n := Of(base(k.ID, 114.3, 120.65, nil))
			d := DirectionsOf(n, u)
			got := followed(t, n, d, u)
			require.Len(t, got, len(n.Lines), "%s", k.ID)
			for _, l := range n.Lines {
				a, b := n.inView(l.From), n.inView(l.To)
				found := false
				for _, g := range got {
					near := func(p, q geom.Point) bool { return p.Sub(q).Len() <= measure.Inch/64*math.Sqrt2+1e-9 }
					if (near(a, g.From) && near(b, g.To) || near(a, g.To) && near(b, g.From)) && (g.Role == "" || g.Role == Flipped(l.Role)) {
						found = true
					}
				}
				assert.True(t, found, "%s: %+v in %+v", k.ID, l, got)
			}
			assert.LessOrEqual(t, len(d.Works), 3, "the sheet is turned once for straight lines")
			assert.NotEmpty(t, d.Folds)
		}
	}
	d := DirectionsOf(Of(base(card.StepCard, 114.3, 114.3, nil)), measure.In)
	assert.Equal(t, "Cut a sheet of 4 ½ × 9 in. The inside of the card lies up.", d.Sheet)
	assert.Equal(t, "Lay the short side at the top.", d.Works[0].Lay)
	assert.Equal(t, "At 1/2 in: cut from 3 ¼ to 5 ¾ in.", strings.ReplaceAll(d.Works[0].Lines[0], "½", "1/2"))
	tri := DirectionsOf(Of(base(card.TriFold, 100, 150, nil)), measure.MM)
	require.Len(t, tri.Folds, 2)
	assert.Contains(t, tri.Folds[0], "200 mm from the left", "the tucked leaf first")
}

package fold

import (
	"math"
	"math/rand/v2"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
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
			n := Rounded(base(k.ID, 114.3, 120.65, nil), u, 32)
			d := DirectionsOf(n, u, 32)
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
			assert.Equal(t, len(n.Lines) > 0, len(d.Folds) > 0)
		}
	}
	d := DirectionsOf(Of(base(card.StepCard, 114.3, 114.3, nil)), measure.In, 32)
	assert.Equal(t, "Cut a sheet of 4 ½ × 9 in. The inside of the card lies up.", d.Sheet)
	assert.Equal(t, "Lay the short side at the top.", d.Works[0].Lay)
	assert.Equal(t, "At 1/2 in: cut from 3 ¼ to 5 ¾ in.", strings.ReplaceAll(d.Works[0].Lines[0], "½", "1/2"))
	tri := DirectionsOf(Of(base(card.TriFold, 100, 150, nil)), measure.MM, 32)
	require.Len(t, tri.Folds, 2)
	assert.Contains(t, tri.Folds[0], "200 mm from the left", "the tucked leaf first")
}

// Whoever follows directions ends up with a net that folds and closes, whatever odd
// measures the base has: it is rounded as a whole.
func TestWhatDirectionsMakeCloses(t *testing.T) {
	r := rand.New(rand.NewPCG(41, 5))
	sheet := regexp.MustCompile(`^Cut a sheet of (.+) × (.+? (?:in|mm))`)
	for _, k := range Kinds() {
		for range 12 {
			b := base(k.ID, 90+40*r.Float64(), 95+40*r.Float64(), nil)
			_, list := find(k.ID).values(b)
			b.Measures = map[string]float64{}
			for _, m := range list {
				if m.Unit == "mm" && r.IntN(2) == 0 {
					b.Measures[m.ID] = m.At * (.95 + .1*r.Float64())
				}
				if m.ID == "stacked" {
					b.Measures[m.ID] = float64(r.IntN(2))
				}
			}
			if Check(b) != nil {
				b.Measures = nil
			}
			for _, u := range []measure.Unit{measure.In, measure.MM} {
				for _, parts := range []int{32, 64} {
					n := Rounded(b, u, parts)
					d := DirectionsOf(n, u, parts)
					got := n
					m := sheet.FindStringSubmatch(d.Sheet)
					require.NotNil(t, m, d.Sheet)
					var err error
					got.Width, err = measure.Parse(m[1], u)
					require.NoError(t, err)
					got.Height, err = measure.Parse(m[2], u)
					require.NoError(t, err)
					seen := got // which way up it is looked at follows from its lines
					got.Lines = nil
					for _, l := range followed(t, n, d, u) {
						// Which of the lines it is, by its place.
						best, least := -1, math.Inf(1)
						for i, o := range n.Lines {
							a, b := n.inView(o.From), n.inView(o.To)
							off := min(a.Sub(l.From).Len()+b.Sub(l.To).Len(), a.Sub(l.To).Len()+b.Sub(l.From).Len())
							if (l.Role == "" || l.Role == Flipped(o.Role)) && off < least {
								best, least = i, off
							}
						}
						line := n.Lines[best]
						line.From, line.To = seen.inView(l.From), seen.inView(l.To)
						got.Lines = append(got.Lines, line)
					}
					f := NewFolder(got)
					v := f.Judge(f.Sweep(openings))
					within := 1e-5
					if k.ID == card.VFold || k.ID == card.Envelope || k.ID == card.Shaped || k.ID == card.Pocket {
						within = .7 // slanting ends are where a ruler can find them
					}
					require.LessOrEqual(t, v.Gap, within, "%s %s %d: %v %v", k.ID, u, parts, b, v.Why)
					for _, l := range n.Lines {
						if l.From.X == l.To.X || l.From.Y == l.To.Y {
							assert.Less(t, n.offGrid(measure.Step(u, parts)), 1e-5, "%s", k.ID)
						}
					}
				}
			}
		}
	}
}

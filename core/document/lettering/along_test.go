package lettering

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// feet are the points and directions of the baseline at the places before the characters.
func feet(t *testing.T, w card.Words) ([]geom.Point, []geom.Point, Setting) {
	t.Helper()
	s, err := Set(w)
	require.NoError(t, err)
	var at, up []geom.Point
	for _, c := range s.Carets {
		at = append(at, c.At)
		up = append(up, c.Up.Mul(1/c.Up.Len()))
	}
	return at, up, s
}

// advances are how far from the start of a straight line the places are, mm.
func advances(t *testing.T, w card.Words) []float64 {
	t.Helper()
	w.Path, w.Align = nil, card.AlignLeft
	at, _, _ := feet(t, w)
	var out []float64
	for _, p := range at {
		out = append(out, p.X)
	}
	return out
}

func near(t *testing.T, want, is geom.Point, tol float64, said ...any) {
	t.Helper()
	require.InDelta(t, want.X, is.X, tol, said...)
	require.InDelta(t, want.Y, is.Y, tol, said...)
}

// On a circle every place of the words lies at the angle that its distance along the circle
// makes, by the closed form; letters point away from the middle, or to it.
func TestWordsOnACircleFollowTheClosedForm(t *testing.T) {
	for _, k := range []struct{ under, turned bool }{{false, false}, {true, true}, {false, true}, {true, false}} {
		for _, radius := range []float64{12, 40, 700} {
			w := words("Orchard day", "alfa-slab-one-400")
			run := advances(t, w)
			length := run[len(run)-1]
			w.Path = &card.TextPath{Radius: radius, Under: k.under, Turned: k.turned, Away: 1.5, Start: .05}
			// Turned as against where they are: words below a circle read left to right with
			// their tops inward.
			inward := k.under != k.turned
			centre, middle, r := geom.Pt(0, radius), -math.Pi/2, radius+1.5
			if k.under {
				centre, middle = geom.Pt(0, -radius), math.Pi/2
			}
			sense := 1.0
			if inward {
				sense, r = -1, radius-1.5
			}
			at, up, s := feet(t, w)
			for i := range at {
				angle := middle + sense*(run[i]-length/2+.05*2*math.Pi*r)/r
				out := geom.Pt(math.Cos(angle), math.Sin(angle))
				near(t, centre.Add(out.Mul(r)), at[i], 1e-6, k)
				near(t, out.Mul(sense), up[i], 1e-9, k)
			}
			if 2*math.Pi*r > length {
				assert.Zero(t, s.Over)
			}
		}
	}
}

// The words bend by just the angle that was asked for, however many they are.
func TestABendIsTheAngleThatTheWordsSpan(t *testing.T) {
	for _, bend := range []float64{5, 60, 180, 340} {
		w := words("at plot 14", "nunito-400")
		w.Path = &card.TextPath{Bend: bend}
		_, up, _ := feet(t, w)
		first, last := up[0], up[len(up)-1]
		turned := math.Atan2(first.Cross(last), first.Dot(last)) * 180 / math.Pi
		assert.InDelta(t, 0, math.Mod(turned-bend+720, 360), 1e-6)
	}
}

// Along a drawn line, the places are apart along the line as they are in a straight one: by
// an independent sum over a hundred thousand chords.
func TestWordsAlongALineKeepTheirDistances(t *testing.T) {
	for name, data := range map[string]string{
		"ellipse": "M-40 0A40 22 0 0 1 40 0A40 22 0 0 1 -40 0Z",
		"cubic":   "M-50 10C-20 -40 10 50 55 -12",
		"bent":    "M-60 0L-10 -20Q20 -30 50 10L70 20",
	} {
		for _, turned := range []bool{false, true} {
			w := words("Harvest Supper", "zilla-slab-600")
			run := advances(t, w)
			w.Path = &card.TextPath{Line: card.NewDrawn(coretest.Path(t, data)), Turned: turned}
			w.Align = card.AlignLeft
			at, up, _ := feet(t, w)
			dense := w.Path.Line.Path().Flatten(1e-7)[0]
			pts := dense.Points
			if dense.Closed {
				pts = append(pts, pts[0])
			}
			sums := make([]float64, len(pts))
			for i := 1; i < len(pts); i++ {
				sums[i] = sums[i-1] + pts[i].Sub(pts[i-1]).Len()
			}
			whole := sums[len(sums)-1]
			// along is where a point lies on the dense line.
			along := func(p geom.Point) (l, off float64, ahead geom.Point) {
				off = math.Inf(1)
				for i := 1; i < len(pts); i++ {
					d := pts[i].Sub(pts[i-1])
					k := min(max(p.Sub(pts[i-1]).Dot(d)/d.Dot(d), 0), 1)
					if o := p.Sub(pts[i-1].Lerp(pts[i], k)).Len(); o < off {
						l, off, ahead = sums[i-1]+k*d.Len(), o, d.Mul(1/d.Len())
					}
				}
				return l, off, ahead
			}
			start, _, _ := along(at[0])
			for i := range at {
				l, off, ahead := along(at[i])
				require.Less(t, off, 1e-6, name)
				way := l - start
				if turned {
					way, ahead = -way, ahead.Mul(-1)
				}
				if dense.Closed {
					way = math.Mod(way+whole, whole)
				}
				if i > 0 {
					require.InDelta(t, run[i], way, 1e-5, "%s, %d", name, i)
				}
				near(t, geom.Pt(ahead.Y, -ahead.X), up[i], 2e-3, name)
			}
		}
	}
}

// Words at a distance from a line are set by the length beside it: above a circle that was
// drawn they stand as above one of a larger radius.
func TestTheLineBesideACircleIsALargerCircle(t *testing.T) {
	w := words("Two lines\nround a circle", "nunito-400")
	w.Path = &card.TextPath{Radius: 25, Away: 2}
	want, _, _ := feet(t, w)
	w.Path = &card.TextPath{Line: card.NewDrawn(coretest.Path(t, "M0 0A25 25 0 0 1 0 50A25 25 0 0 1 0 0Z")), Away: 2}
	is, _, _ := feet(t, w)
	for i := range want {
		near(t, want[i], is[i], 2e-5)
	}
}

func TestWordsAreSpreadOverAWholeLine(t *testing.T) {
	w := words("SUMMER", "nunito-400")
	line := coretest.Path(t, "M-60 5C-20 -30 20 -30 60 5")
	w.Path = &card.TextPath{Line: card.NewDrawn(line), Even: true}
	at, _, s := feet(t, w)
	near(t, geom.Pt(-60, 5), at[0], 1e-6)
	near(t, geom.Pt(60, 5), at[len(at)-1], 1e-6)
	assert.Zero(t, s.Over)
	// Round a circle there is as much between the last letter and the first as between others.
	w.Path = &card.TextPath{Radius: 30, Even: true}
	s, err := Set(w)
	require.NoError(t, err)
	sh := newShaper(w)
	l := sh.lines(0)[0]
	bare := l.advance * w.Size
	gap := (2*math.Pi*30 - bare) / 6
	first := math.Atan2(s.Carets[0].At.Y-30, s.Carets[0].At.X)
	last := math.Atan2(s.Carets[6].At.Y-30, s.Carets[6].At.X)
	assert.InDelta(t, gap/30, math.Mod(first-last+4*math.Pi, 2*math.Pi), 1e-6)
}

// Letters are turned with the line, upright, or sheared; each is as large as in a straight line.
func TestLettersAreTurnedUprightOrSheared(t *testing.T) {
	w := words("H", "nunito-400")
	flat, err := Set(w)
	require.NoError(t, err)
	area := flat.Outline.Area()
	w.Path = &card.TextPath{Radius: 30, Start: .1}
	turned, _ := Set(w)
	assert.InDelta(t, area, turned.Outline.Area(), 1e-6)
	w.Path.Letters = card.UprightLetters
	upright, _ := Set(w)
	assert.InDelta(t, area, upright.Outline.Area(), 1e-6)
	assert.InDelta(t, flat.Outline.Bounds().W, upright.Outline.Bounds().W, 1e-6)
	w.Path.Letters = card.ShearedLetters
	sheared, _ := Set(w)
	assert.InDelta(t, area*math.Cos(.2*math.Pi), sheared.Outline.Area(), 1e-6, "at 36 degrees")
	assert.InDelta(t, 0, sheared.Carets[0].Up.X, 1e-9)
}

func TestWordsThatAreLongerThanTheirLineSaySo(t *testing.T) {
	w := words("far too long for this", "nunito-400")
	w.Path = &card.TextPath{Line: card.NewDrawn(coretest.Path(t, "M0 0H20"))}
	s, err := Set(w)
	require.NoError(t, err)
	run := advances(t, w)
	assert.InDelta(t, run[len(run)-1]-20, s.Over, 1e-6)
	// They go on straight at both ends, none on another.
	assert.InDelta(t, run[len(run)-1], s.Carets[len(s.Carets)-1].At.X-s.Carets[0].At.X, 1e-6)
	w.Path = &card.TextPath{Radius: 3}
	s, err = Set(w)
	require.NoError(t, err)
	assert.Greater(t, s.Over, 50.0)
}

// An envelope moves every point of the outline as its closed form says: dense samples of the
// straight outline, moved, lie on the bent one, and the other way round.
func TestAnEnvelopeIsExactOnOutlines(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 4))
	for _, form := range []card.WarpForm{card.Arch, card.Bulge, card.Flag, card.Wedge} {
		for _, font := range []string{"alfa-slab-one-400", "pacifico-400", "great-vibes-400"} {
			w := words("Orchard", font)
			w.Size = 14
			flat, err := Set(w)
			require.NoError(t, err)
			w.Warp = &card.Warp{Form: form, Amount: []float64{-.6, .3, .9}[rng.IntN(3)]}
			bent, err := Set(w)
			require.NoError(t, err)
			bend := bending(*w.Warp, flat.Outline.Bounds())
			worst := 0.0
			for _, ring := range flat.Outline.Curves() {
				for _, c := range ring {
					for range 3 {
						n, ok := bent.Outline.Nearest(bend(c.At(rng.Float64())))
						require.True(t, ok)
						worst = max(worst, n.Distance)
					}
				}
			}
			assert.Less(t, worst, .02, "%s, %s", form, font)
			assert.Less(t, bent.Outline.Len(), 5*flat.Outline.Len(), "curves stay curves")
		}
	}
}

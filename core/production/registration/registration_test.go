package registration_test

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
	"sectilis/core/production/registration"
)

var shape = registration.Shape{Ring: 3, Stroke: .7, Dot: .9}

// four are the marks of a Letter sheet.
func four() []registration.Mark {
	second := geom.Pt(15.35, 9.85)
	return []registration.Mark{{At: geom.Pt(9.85, 9.85), Second: &second}, {At: geom.Pt(206.05, 9.85)}, {At: geom.Pt(9.85, 269.55)}, {At: geom.Pt(206.05, 269.55)}}
}

// desk is a sheet under an eye whose spot is a fifth of a millimetre across.
type desk struct {
	marks []registration.Mark
	back  geom.Affine // from the bed to the sheet
	noise float64
	rng   *rand.Rand
	also  func(p geom.Point) bool // what else is dark on the sheet
	gone  func(p geom.Point) bool // where ink was rubbed off
}

func (d desk) ink(p geom.Point) bool {
	if d.gone != nil && d.gone(p) {
		return false
	}
	for _, m := range d.marks {
		if r := p.Sub(m.At).Len(); r < shape.Dot || r < shape.Ring && r > shape.Ring-shape.Stroke {
			return true
		}
		if m.Second != nil && p.Sub(*m.Second).Len() < shape.Dot {
			return true
		}
	}
	return d.also != nil && d.also(p)
}

func (d desk) See(_ context.Context, from, to geom.Point, n int) ([]float64, error) {
	out := make([]float64, n)
	for i := range out {
		p := from.Lerp(to, float64(i)/float64(n-1))
		sum := 0.0
		for k := range 9 {
			s, c := math.Sincos(float64(k) * 2 * math.Pi / 9)
			r := .1 * float64(k%3) / 2
			if d.ink(d.back.Apply(p.Add(geom.Pt(r*c, r*s)))) {
				sum++
			}
		}
		out[i] = .95 - .85*sum/9 + d.noise*d.rng.NormFloat64()
	}
	return out, nil
}

// put is how a sheet of a printer's and a hand's making lies, and what was expected.
func put(r *rand.Rand) (lies, expect geom.Affine) {
	off := func(most float64) float64 { return (2*r.Float64() - 1) * most }
	expect = geom.Shift(6, 19.4)
	c := geom.Pt(108, 140)
	m := geom.Shift(-c.X, -c.Y).Then(geom.Scale(1+off(.003), 1+off(.003))).Then(geom.Turn(off(2.7) * math.Pi / 180)).Then(geom.Shift(c.X+off(4.5), c.Y+off(4.5)))
	return m.Then(expect), expect
}

func desked(r *rand.Rand, lies geom.Affine) desk {
	back, _ := lies.Inverse()
	return desk{marks: four(), back: back, noise: .03, rng: r}
}

func TestSheetsAreFoundAsTheyLie(t *testing.T) {
	sum, n, worst := 0.0, 0, 0.0
	for seed := range uint64(200) {
		r := rand.New(rand.NewPCG(seed, 91))
		lies, expect := put(r)
		f, err := registration.Find(t.Context(), desked(r, lies), four(), shape, expect)
		require.NoError(t, err, "seed %d", seed)
		for x := 10.0; x < 206; x += 20 {
			for y := 10.0; y < 270; y += 20 {
				d := f.At.Apply(geom.Pt(x, y)).Sub(lies.Apply(geom.Pt(x, y))).Len()
				sum, n, worst = sum+d, n+1, max(worst, d)
			}
		}
		for _, m := range f.Marks {
			assert.True(t, m.Used)
		}
	}
	assert.LessOrEqual(t, sum/float64(n), .08)
	assert.LessOrEqual(t, worst, .2)
	t.Logf("mean %.4f, worst %.4f mm", sum/float64(n), worst)
}

func TestAMarkThatIsGoneIsLeftOutAndOneThatDisagreesIsSaid(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 92))
	lies, expect := put(r)
	d := desked(r, lies)
	d.marks[2].At = geom.Pt(-50, -50) // torn off
	f, err := registration.Find(t.Context(), d, four(), shape, expect)
	require.NoError(t, err)
	assert.False(t, f.Marks[2].Used)
	assert.Equal(t, "not found", f.Marks[2].Why)

	d = desked(r, lies)
	d.marks[1].At = d.marks[1].At.Add(geom.Pt(1.6, -2)) // smudged: another place seems right
	_, err = registration.Find(t.Context(), d, four(), shape, expect)
	require.ErrorContains(t, err, "mark 2 (upper right)")
	assert.Regexp(t, `The marks disagree by \d\.\d\d mm; it may be .* that is wrong`, err.Error())
}

func TestWhatCannotBeCutIsSaid(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 93))
	expect := geom.Shift(6, 19.4)
	c := geom.Pt(108, 139.7)
	about := func(deg float64) geom.Affine {
		return geom.Shift(-c.X, -c.Y).Then(geom.Turn(deg * math.Pi / 180)).Then(geom.Shift(c.X, c.Y)).Then(expect)
	}
	var failure *registration.Failure
	try := func(d desk) string {
		_, err := registration.Find(t.Context(), d, four(), shape, expect)
		require.ErrorAs(t, err, &failure)
		return failure.Why
	}
	blank := desked(r, expect)
	blank.marks = nil
	assert.Contains(t, try(blank), "Of 4 marks the eye found 0")

	two := desked(r, expect)
	two.marks[1].At, two.marks[3].At = geom.Pt(-50, -50), geom.Pt(-60, -60)
	assert.Contains(t, try(two), "found 2")

	assert.Contains(t, try(desked(r, about(180))), "upside down")

	plain := desked(r, expect)
	plain.marks[0].Second = nil
	assert.Contains(t, try(plain), "The second dot of mark 1 (upper left) is not seen")

	// With the doubled mark gone, the other three tell which way up the sheet lies.
	for mark, name := range map[int]string{0: "mark 1 (upper left)", 3: "mark 4 (lower right)"} {
		gone := desked(r, expect)
		gone.marks[mark] = registration.Mark{At: geom.Pt(-50, -50)}
		f, err := registration.Find(t.Context(), gone, four(), shape, expect)
		require.NoError(t, err, name)
		assert.False(t, f.Marks[mark].Used)
		turned := desked(r, about(180))
		turned.marks[mark] = registration.Mark{At: geom.Pt(-50, -50)}
		assert.Regexp(t, "upside down|which way up|Which way up", try(turned), name)
	}
	two = desked(r, expect)
	two.marks[0], two.marks[2] = registration.Mark{At: geom.Pt(-50, -50)}, registration.Mark{At: geom.Pt(-60, -60)}
	assert.Contains(t, try(two), "Not seen: mark 1 (upper left), mark 3 (lower left).")

	// A sheet of another size: A4's marks are elsewhere.
	other := desked(r, expect)
	other.marks[1].At, other.marks[3].At = geom.Pt(202.5, 9.85), geom.Pt(202.5, 266)
	assert.Contains(t, try(other), "another sheet")

	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err := registration.Find(ctx, gone{}, four(), shape, expect)
	assert.ErrorIs(t, err, context.Canceled)
}

type gone struct{}

func (gone) See(ctx context.Context, _, _ geom.Point, _ int) ([]float64, error) {
	return nil, ctx.Err()
}

// Ink beside a mark is no mark, and does not draw it aside.
func TestInkBesideMarksIsToldFromThem(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 94))
	lies, expect := put(r)
	d := desked(r, lies)
	d.also = func(p geom.Point) bool {
		stripes := math.Mod(p.X+1000, 6) < 1.4 || math.Mod(p.Y+1000, 5) < 1
		far := true
		for _, m := range four() {
			far = far && max(math.Abs(p.X-m.At.X), math.Abs(p.Y-m.At.Y)) > shape.Ring+3.2
		}
		return stripes && far && p.X > 19 && p.X < 200
	}
	f, err := registration.Find(t.Context(), d, four(), shape, expect)
	require.NoError(t, err)
	q := geom.Pt(180, 40)
	assert.Less(t, f.At.Apply(q).Sub(lies.Apply(q)).Len(), .1)
}

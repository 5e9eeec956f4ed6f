package registration_test

import (
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/ground/geom"
	"sectilis/core/production/registration"
)

// fault does something to the marks of a sheet on a desk.
type fault struct {
	name string
	do   func(d *desk, r *rand.Rand)
}

func displace(d *desk, r *rand.Rand, k int) {
	s, c := math.Sincos(2 * math.Pi * r.Float64())
	by := geom.Pt(c, s).Mul(.4 + .9*r.Float64())
	m := &d.marks[k]
	m.At = m.At.Add(by)
	if m.Second != nil {
		at := m.Second.Add(by)
		m.Second = &at
	}
}

// blot spills ink over part of a mark.
func blot(d *desk, r *rand.Rand, k int) {
	s, c := math.Sincos(2 * math.Pi * r.Float64())
	at, radius := d.marks[k].At.Add(geom.Pt(c, s).Mul(3.5*r.Float64())), .5+2*r.Float64()
	was := d.also
	d.also = func(p geom.Point) bool { return p.Sub(at).Len() < radius || was != nil && was(p) }
}

func wipe(d *desk, k int) { d.marks[k] = registration.Mark{At: geom.Pt(-50, -50)} }

// rub leaves half of a ring.
func rub(d *desk, r *rand.Rand, k int) {
	at := d.marks[k].At
	s, c := math.Sincos(2 * math.Pi * r.Float64())
	w := (2*r.Float64() - 1) * 2.5
	d.gone = func(p geom.Point) bool { q := p.Sub(at); return q.Len() < 4 && q.X*c+q.Y*s > w }
}

var faults = []fault{
	{"none", func(*desk, *rand.Rand) {}},
	{"one displaced", func(d *desk, r *rand.Rand) { displace(d, r, r.IntN(4)) }},
	{"one displaced along a side", func(d *desk, r *rand.Rand) {
		m := &d.marks[1+r.IntN(3)]
		m.At = m.At.Add([]geom.Point{{X: 1}, {Y: 1}, {X: -1}, {Y: -1}}[r.IntN(4)].Mul(.4 + .9*r.Float64()))
	}},
	{"two displaced", func(d *desk, r *rand.Rand) { k := r.IntN(4); displace(d, r, k); displace(d, r, (k+1+r.IntN(3))%4) }},
	{"one wiped", func(d *desk, r *rand.Rand) { wipe(d, r.IntN(4)) }},
	{"one blotted", func(d *desk, r *rand.Rand) { blot(d, r, r.IntN(4)) }},
	{"one rubbed", func(d *desk, r *rand.Rand) { rub(d, r, r.IntN(4)) }},
	{"one blotted, one wiped", func(d *desk, r *rand.Rand) { k := r.IntN(4); blot(d, r, k); wipe(d, (k+1)%4) }},
}

// Whatever has happened to marks, a sheet is cut where its print is, within 0.2 mm, or not
// at all; and hardly a good one is refused. SOAK=1 tries 1,000 sheets of each kind.
func TestFaultyMarksNeverLeadTheCutAstray(t *testing.T) {
	seeds := uint64(60)
	if os.Getenv("SOAK") != "" {
		seeds = 1000
	}
	for _, f := range faults {
		refused, worst := 0, 0.0
		for seed := range seeds {
			r := rand.New(rand.NewPCG(seed, 171))
			lies, expect := put(r)
			d := desked(r, lies)
			f.do(&d, r)
			found, err := registration.Find(t.Context(), d, four(), shape, expect)
			if err != nil {
				refused++
				continue
			}
			for _, p := range []geom.Point{{X: 6, Y: 6}, {X: 210, Y: 6}, {X: 6, Y: 273}, {X: 210, Y: 273}, {X: 108, Y: 140}} {
				off := found.At.Apply(p).Sub(lies.Apply(p)).Len()
				worst = max(worst, off)
				assert.LessOrEqual(t, off, .2, "%s, seed %d", f.name, seed)
			}
		}
		if f.name == "none" {
			assert.LessOrEqual(t, float64(refused), .005*float64(seeds))
		}
		t.Logf("%-28s refused %d of %d, worst %.3f mm", f.name, refused, seeds, worst)
	}
}

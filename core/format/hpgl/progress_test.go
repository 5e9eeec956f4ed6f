package hpgl

import (
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
)

// model is a machine that works what it is sent, a program that keeps its progress on disk, and what was cut.
type model struct {
	rng    *rand.Rand
	passes []cut.Pass
	steps  []Step
	disk   Progress
	at     geom.Point
	down   bool
	cut    [][][2]float64 // of each step, the stretches of its way that were cut
}

const modelHeight = 300

func newModel(rng *rand.Rand) *model {
	m := &model{rng: rng}
	for range 1 + rng.IntN(3) {
		p := cut.Pass{Tool: cut.Blade, Speed: 100, Travel: 300}
		for range 1 + rng.IntN(8) {
			l := geom.Polyline{Closed: rng.IntN(2) == 0}
			x, y, size := rng.Float64()*200, rng.Float64()*200, math.Pow(10, rng.Float64()*2)
			for k := range 3 + rng.IntN(60) {
				a := float64(k) * .17
				l.Points = append(l.Points, geom.Pt(x+size*math.Cos(a)*(1+rng.Float64()*.1), y+size*math.Sin(a)))
			}
			p.Paths = append(p.Paths, l)
		}
		m.passes = append(m.passes, p)
	}
	m.steps = Steps(m.passes, modelHeight)
	m.cut = make([][][2]float64, len(m.steps))
	m.at = geom.Pt(0, modelHeight)
	return m
}

// work does a share of a step, 0 to 1, with the tool up on the way there and down along it; it reports
// whether all was done.
func (m *model) work(n int, s Step, share float64) bool {
	if len(s.points) == 0 {
		if share >= 1 && s.Text != "IN;" {
			m.down = false
		}
		return share >= 1
	}
	travel := s.from != nil || m.at.Sub(s.points[0]).Len() > 1e-9 || !m.down
	if travel && share < .3 {
		m.at, m.down = m.at.Lerp(s.points[0], share/.3), false
		return false
	}
	total := 0.0
	for i := 1; i < len(s.points); i++ {
		total += s.points[i].Sub(s.points[i-1]).Len()
	}
	whole := 0.0
	for i := 1; i < len(m.steps[n].points); i++ {
		whole += m.steps[n].points[i].Sub(m.steps[n].points[i-1]).Len()
	}
	begin := whole - total // what goes on ends where the step does
	left := total * min(max((share-.3)/.6, 0), 1)
	run := left
	m.down, m.at = true, s.points[0]
	for i := 1; i < len(s.points) && left > 0; i++ {
		v := s.points[i].Sub(s.points[i-1])
		k := min(1, left/max(v.Len(), 1e-12))
		m.at = s.points[i-1].Add(v.Mul(k))
		left -= v.Len()
	}
	m.cut[n] = append(m.cut[n], [2]float64{begin, begin + run})
	return share >= 1
}

// run goes on with what is on disk until the program is killed, which is after a random number of steps; what
// the machine was sent then it works to the end or not, as happens. It reports whether the plan is done.
func (m *model) run() bool {
	p := m.disk
	first := p.Done
	left := After(m.steps, m.passes, modelHeight, first, p.Rest, nil)
	give := func(i int) {
		if p.Give(i, len(m.steps)) {
			m.disk = p
		}
	}
	give(first - 1)
	alive := m.rng.IntN(2 * Ahead * 2)
	for k, s := range left {
		n := first + k
		if alive--; alive < 0 {
			// The last that was sent is this one: it is not begun, half done, or done and not told.
			m.work(n, s, []float64{0, m.rng.Float64(), m.rng.Float64(), 1}[m.rng.IntN(4)])
			return false
		}
		m.work(n, s, 1)
		if s.Last { // the tool is lifted before it goes elsewhere
			m.down = m.rng.IntN(2) == 0 && m.down
		}
		p.Did(n)
		give(n)
	}
	return true
}

// Whatever is killed whenever: each stretch of the plan is cut once, or what was cut is not known.
func TestWhateverIsKilledNothingIsCutTwice(t *testing.T) {
	cases := 3000
	if os.Getenv("SOAK") != "" {
		cases = 60_000
	}
	known, done := 0, 0
	for seed := range cases {
		m := newModel(rand.New(rand.NewPCG(7, uint64(seed))))
		ended := false
		for kills := 0; kills < 400; kills++ {
			if ended = m.run(); ended {
				break
			}
			if m.disk.Asks() && !m.disk.Stopped(m.steps, m.at, m.down) {
				break // a person looks at the sheet
			}
			known++
		}
		for n, parts := range m.cut {
			whole, sum := 0.0, 0.0
			for i := 1; i < len(m.steps[n].points); i++ {
				whole += m.steps[n].points[i].Sub(m.steps[n].points[i-1]).Len()
			}
			for _, s := range parts {
				sum += s[1] - s[0]
			}
			slack := near * 2 * float64(len(parts)+1)
			require.LessOrEqual(t, sum, whole+slack, "seed %d, step %d of %d: %v", seed, n, len(m.steps), parts)
			if ended && whole > 0 {
				require.GreaterOrEqual(t, sum, whole-slack, "seed %d, step %d is not cut: %v", seed, n, parts)
			}
		}
		if ended {
			done++
		}
	}
	assert.Greater(t, known, cases, "it goes on by itself")
	assert.Greater(t, done, cases/4)
	t.Logf("%d runs, taken up %d times, %d ended without a person", cases, known, done)
}

// What is half worked stays so, wherever the lifted tool is on its way back to it; what is behind it is not
// begun anew, and where two lines cross a place tells nothing.
func TestWhatIsHalfWorkedStaysSo(t *testing.T) {
	line := geom.Polyline{Points: []geom.Point{{X: 10, Y: 10}, {X: 60, Y: 10}}}
	across := geom.Polyline{Points: []geom.Point{{X: 30, Y: 40}, {X: 30, Y: 0}}}
	before := geom.Polyline{Points: []geom.Point{{X: 100, Y: 200}, {X: 120, Y: 200}}}
	steps := Steps([]cut.Pass{{Tool: cut.Blade, Speed: 100, Travel: 300, Paths: []geom.Polyline{before, line, across}}}, modelHeight)
	first := 0
	for steps[first].Path != 1 {
		first++
	}
	rest := geom.Pt(45, 10)
	for name, c := range map[string]struct {
		at   geom.Point
		down bool
		want *geom.Point
		n    int
		ok   bool
	}{
		"lifted in the waste":            {geom.Pt(-20, 80), false, &rest, first, true},
		"lifted where the step begins":   {geom.Pt(10, 10), false, &rest, first, true},
		"lifted where it rested":         {rest, false, &rest, first, true},
		"down farther along":             {geom.Pt(52, 10), true, &geom.Point{X: 52, Y: 10}, first, true},
		"down where that was before":     {geom.Pt(20, 10), true, nil, 0, false},
		"down on no way":                 {geom.Pt(20, 70), true, nil, 0, false},
		"lifted at the end of the step":  {geom.Pt(60, 10), false, nil, first + 1, true},
		"down on the next line":          {geom.Pt(30, 30), true, &geom.Point{X: 30, Y: 30}, first + 1, true},
		"lifted on the way to that line": {geom.Pt(45, 25), false, nil, first + 1, true},
	} {
		p := Progress{Done: first, Given: first + Ahead, Rest: &rest, Sent: true}
		ok := p.Stopped(steps, c.at, c.down)
		require.Equal(t, c.ok, ok, name)
		if !ok {
			assert.Equal(t, Progress{Done: first, Given: first + Ahead, Rest: &rest, Sent: true}, p, name)
			continue
		}
		assert.Equal(t, c.n, p.Done, name)
		assert.Equal(t, c.want, p.Rest, name)
		assert.False(t, p.Sent, name)
	}
	// Where the two lines cross, and neither is known to be done.
	p := Progress{Done: first, Given: first + Ahead, Sent: true}
	assert.False(t, p.Stopped(steps, geom.Pt(30, 10), true))

	p = Progress{Done: first, Given: first + 2, Rest: &rest}
	assert.True(t, p.Give(first-1, len(steps)), "it is kept that more is sent")
	assert.True(t, p.Sent)
	assert.False(t, p.Give(first, len(steps)))
	p.Did(first)
	assert.Nil(t, p.Rest)
}

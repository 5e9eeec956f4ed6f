package device_test

import (
	"bufio"
	"fmt"
	"io"
	"math"
	"math/rand/v2"
	"net"
	"os"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
)

// fault is what a machine of the family does from some step on.
type fault string

const (
	noFault     fault = "none"
	closes      fault = "closes the line"
	fallsSilent fault = "falls silent"
	standsStill fault = "stands still"
	saysNothing fault = "answers nonsense"
	floods      fault = "floods"
	takesNone   fault = "takes nothing more"
)

// machine is a cutter that knows what it has truly cut.
type machine struct {
	fault fault
	from  int  // the step at which the fault begins
	slow  int  // how many questions it answers on its way along a step
	done  bool // whether the step of the fault is cut before

	mu   sync.Mutex
	cut  int // steps that it has cut to their end
	held chan struct{}
}

func (m *machine) steps() int {
	m.mu.Lock()
	defer m.mu.Unlock()
	return m.cut
}

// serve reads steps and answers where the tool is.
func (m *machine) serve(conn io.ReadWriter) {
	r := bufio.NewReader(conn)
	var at [2]float64
	var way [][2]float64
	pen, step, asked := 0, -1, 0
	fresh := true
	for {
		text, err := r.ReadString(';')
		if err != nil {
			return
		}
		text = strings.Trim(text, " \r\n;")
		if text != "OA" {
			if fresh {
				step++
				fresh, asked, way = false, 0, [][2]float64{at}
			}
			if strings.HasPrefix(text, "P") && len(text) > 2 {
				pen = map[string]int{"PD": 1}[text[:2]]
				f := strings.Split(text[2:], ",")
				for i := 0; i+1 < len(f); i += 2 {
					x, _ := strconv.ParseFloat(f[i], 64)
					y, _ := strconv.ParseFloat(f[i+1], 64)
					way = append(way, [2]float64{x, y})
				}
			}
			continue
		}
		wrong := m.fault != noFault && step >= m.from
		if !fresh { // the step is all there: it is cut
			fresh = true
		}
		asked++
		if len(way) == 0 {
			way = [][2]float64{at} // it is asked before it is sent anything
		}
		arrived := asked > m.slow || len(way) == 1 // a tool is put in before it answers
		if wrong && !(m.done && step == m.from) && m.fault != fallsSilent && !(m.fault == standsStill && len(way) == 1) {
			arrived = false // of what has no place to go to an answer is all there is
		}
		if arrived {
			if len(way) > 1 {
				at = way[len(way)-1]
			}
			m.mu.Lock()
			m.cut = max(m.cut, step+1)
			m.mu.Unlock()
		} else if !wrong {
			at = way[(len(way)-1)*(asked-1)/max(m.slow, 1)] // on its way, from where that begins
		}
		if !wrong {
			_, _ = fmt.Fprintf(conn, "%.0f,%.0f,%d\r", math.Round(at[0]), math.Round(at[1]), pen)
			continue
		}
		switch m.fault {
		case closes:
			return
		case standsStill:
			_, _ = fmt.Fprintf(conn, "%.0f,%.0f,%d\r", math.Round(at[0])+700, math.Round(at[1])+700, pen)
		case saysNothing:
			_, _ = io.WriteString(conn, "READY\r")
		case floods:
			_, _ = io.WriteString(conn, strings.Repeat("12,", 4000))
		case takesNone:
			<-m.held
			return
		}
	}
}

// paths are some outlines and lines to cut, long and small ones.
func paths(r *rand.Rand) []hpgl.Step {
	var lines []geom.Polyline
	for range 2 + r.IntN(4) {
		c, size := geom.Pt(40+200*r.Float64(), 40+200*r.Float64()), 1+30*r.Float64()
		lines = append(lines, geom.EllipsePath(geom.Rect{X: c.X, Y: c.Y, W: size, H: size}).Flatten(.1)...)
	}
	steps := hpgl.Steps([]cut.Pass{{Tool: cut.ScoringTip, Paths: lines[:1]}, {Tool: cut.Blade, Paths: lines[1:]}}, 304.8)
	for i := range steps {
		steps[i].Seconds = 0
	}
	return steps
}

// Whatever a machine does, and whenever: a step is said to be cut only when it is; a run that
// is said to be done is; and of one that ends before, what is known is true to the one step
// that was under way, or it is said that nothing is known.
func TestWhatIsSaidToBeCutIsCut(t *testing.T) {
	r := rand.New(rand.NewPCG(401, 402))
	runs := 42
	if os.Getenv("SOAK") != "" {
		runs = 3000
	}
	faults := []fault{noFault, closes, fallsSilent, standsStill, saysNothing, floods, takesNone}
	for k := range runs {
		steps := paths(r)
		m := &machine{fault: faults[k%len(faults)], from: r.IntN(len(steps)), slow: r.IntN(16), done: r.IntN(2) == 0, held: make(chan struct{})}
		name := fmt.Sprintf("%s from step %d of %d, %d questions on its way", m.fault, m.from, len(steps), m.slow)
		l, err := net.Listen("tcp", "127.0.0.1:0")
		require.NoError(t, err)
		served := make(chan struct{})
		go func() {
			defer close(served)
			conn, err := l.Accept()
			if err != nil {
				return
			}
			m.serve(conn)
			_ = conn.Close()
		}()
		c, _ := (&plotter{}).at(t)
		c.Addr = l.Addr().String()
		c.Patience = patient()
		if m.fault != noFault {
			c.Patience.Reply, c.Patience.Tool, c.Patience.Still, c.Patience.Write = 150*time.Millisecond, 150*time.Millisecond, 60*time.Millisecond, 150*time.Millisecond
		}
		said := 0
		err = c.Run(t.Context(), steps, func(int) error {
			said++
			assert.GreaterOrEqual(t, m.steps(), said, name)
			return nil
		})
		close(m.held)
		_ = l.Close()
		<-served
		if err == nil {
			require.Equal(t, len(steps), said, name)
			require.Equal(t, len(steps), m.steps(), name)
			continue
		}
		require.NotEqual(t, noFault, m.fault, "%s: %v", name, err)
		var halt *app.Halt
		require.ErrorAs(t, err, &halt, name)
		require.LessOrEqual(t, m.steps()-said, 1, name)
		require.GreaterOrEqual(t, m.steps(), said, name)
		if m.fault == fallsSilent || m.fault == standsStill {
			require.True(t, halt.Unknown, "%s: %v", name, err)
		}
	}
}

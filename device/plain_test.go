package device_test

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"net"
	"os"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"
	"unsafe"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"

	"sectilis/app"
	"sectilis/device"
)

func noted(int) error { return nil }

// plotter is a machine that reads HP-GL and remembers what it was sent.
type plotter struct {
	// answer is what it says to OA, given where its tool is; nil says nothing.
	answer func(w io.Writer, x, y, pen int)
	// lag is how many questions it answers on its way before it is where it was sent.
	lag int

	sync.Mutex
	text strings.Builder
}

func honest(w io.Writer, x, y, pen int) { _, _ = fmt.Fprintf(w, "%d,%d,%d\r", x, y, pen) }

func (h *plotter) all() string {
	h.Lock()
	defer h.Unlock()
	return h.text.String()
}

func (h *plotter) plot(rw io.ReadWriter) {
	r := bufio.NewReader(rw)
	var at, to [2]int
	pen, late := 0, 0
	for {
		text, err := r.ReadString(';')
		if err != nil {
			return
		}
		text = strings.TrimSpace(text)
		if text == "OA;" {
			if late > 0 {
				for i := range at {
					at[i] += (to[i] - at[i]) / (late + 1)
				}
				late--
			} else {
				at = to
			}
			if h.answer != nil {
				h.answer(rw, at[0], at[1], pen)
			}
			continue
		}
		h.Lock()
		h.text.WriteString(text)
		h.Unlock()
		if op := text[:2]; op == "PU" || op == "PD" {
			pen = map[string]int{"PD": 1}[op]
			f := strings.Split(strings.TrimSuffix(text[2:], ";"), ",")
			for i := 0; i+1 < len(f); i += 2 {
				to[0], _ = strconv.Atoi(f[i])
				to[1], _ = strconv.Atoi(f[i+1])
				late = h.lag
			}
		}
	}
}

// at serves a plotter at an address until the test ends.
func (h *plotter) at(t *testing.T) (c *device.Cutter, end func()) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	go func() {
		for {
			conn, err := l.Accept()
			if err != nil {
				return
			}
			go func() { h.plot(conn); _ = conn.Close() }()
		}
	}()
	t.Cleanup(func() { _ = l.Close() })
	c, _ = device.Plain(app.OtherCutter{Address: l.Addr().String(), Width: 300, Height: 304.8}).(*device.Cutter)
	return c, func() { require.NoError(t, l.Close()) }
}

func sent() string {
	var b strings.Builder
	for _, s := range plan() {
		b.WriteString(s.Text)
	}
	return b.String()
}

// patient waits long for what has to come, and a moment for what never comes.
func patient() device.Patience {
	p := device.Patient
	p.Hello, p.Reply, p.Still, p.Write, p.Poll = time.Minute, time.Minute, time.Minute, time.Minute, time.Millisecond
	return p
}

// Any plotter at an address is sent the plan as it is, whether it answers or not; of one
// that does not, it is said that nothing is known.
func TestAnyPlotterIsSentThePlan(t *testing.T) {
	for _, answers := range []bool{true, false} {
		h := &plotter{}
		if answers {
			h.answer = honest
		}
		c, end := h.at(t)
		c.Patience = patient()
		if !answers {
			c.Patience.Hello = 30 * time.Millisecond
		}
		assert.Equal(t, app.CutterState{Name: c.Addr, Ready: true, State: "ready", Bed: [2]float64{300, 304.8}}, c.State(t.Context()))
		done := 0
		require.NoError(t, c.Run(t.Context(), quick(), func(int) error { done++; return nil }))
		assert.Equal(t, len(quick()), done)
		assert.Equal(t, !answers, c.State(t.Context()).Silent)
		require.Eventually(t, func() bool { return h.all() == sent() }, waitFor, tick)
		_, down, err := c.Rest(t.Context())
		if answers {
			require.NoError(t, err)
			assert.False(t, down)
		} else {
			assert.ErrorContains(t, err, "does not tell where its tool is")
		}
		end()
		other, _ := device.Plain(app.OtherCutter{Address: c.Addr, Width: 300, Height: 304.8}).(*device.Cutter)
		assert.Equal(t, app.CutterAway, other.State(t.Context()).State)
		assert.Contains(t, other.State(t.Context()).Why, "or name another cutter")
	}
}

// What a run of machines that misbehave comes to: all that was cut, or an error that says
// what is known. No machine is believed that does not tell where its tool is.
func TestNoCutterIsBelievedThatDoesNotTellWhereItsToolIs(t *testing.T) {
	n := 0
	for _, k := range []struct {
		name    string
		plotter *plotter
		soon    func(p *device.Patience)
		err     string
		unknown bool
	}{
		{"slow but honest", &plotter{answer: honest, lag: 40}, nil, "", false},
		{"line feeds", &plotter{answer: func(w io.Writer, x, y, pen int) { _, _ = fmt.Fprintf(w, "%d.0, %d , %d\n", x, y, pen) }}, nil, "", false},
		{"stuck", &plotter{answer: func(w io.Writer, _, _, _ int) { honest(w, 100, 200, 0) }}, func(p *device.Patience) { p.Still = 20 * time.Millisecond }, "stands still", true},
		{"half an answer", &plotter{answer: func(w io.Writer, x, _, _ int) { _, _ = fmt.Fprintf(w, "%d\r", x) }}, nil, "no position", false},
		{"something else", &plotter{answer: func(w io.Writer, _, _, _ int) { _, _ = fmt.Fprint(w, "ERROR 3\r") }}, nil, "no position", false},
		{"no number", &plotter{answer: func(w io.Writer, _, _, _ int) { _, _ = fmt.Fprint(w, "NaN,1e999,1\r") }}, nil, "no position", false},
		{"silent after a while", &plotter{answer: func(w io.Writer, x, y, pen int) {
			if n++; n < 5 {
				honest(w, x, y, pen)
			}
		}}, func(p *device.Patience) { p.Reply, p.Tool = 50*time.Millisecond, 50*time.Millisecond }, "has not answered for", true},
		{"flood without an end", &plotter{answer: func(w io.Writer, _, _, _ int) { _, _ = io.WriteString(w, strings.Repeat("1,", 1<<20)) }}, nil, "without an end", false},
		{"flood of old places", &plotter{answer: func(w io.Writer, x, y, pen int) {
			_, _ = io.WriteString(w, strings.Repeat("5,5,0\r", 200))
			honest(w, x, y, pen)
		}}, nil, "", false},
	} {
		c, _ := k.plotter.at(t)
		c.Patience = patient()
		if k.soon != nil {
			k.soon(&c.Patience)
		}
		done := 0
		err := c.Run(t.Context(), quick(), func(int) error { done++; return nil })
		if k.err == "" {
			require.NoError(t, err, k.name)
			require.Eventually(t, func() bool { return k.plotter.all() == sent() }, waitFor, tick, k.name)
			continue
		}
		require.ErrorContains(t, err, k.err, k.name)
		assert.Less(t, done, len(quick()), k.name)
		var halt *app.Halt
		require.ErrorAs(t, err, &halt, k.name)
		assert.Equal(t, k.unknown, halt.Unknown, k.name)
	}
}

// A socket that takes nothing is no success, and neither is one that ends.
func TestACutterThatTakesNothingIsAnError(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = l.Close() })
	c := &device.Cutter{Addr: l.Addr().String(), Bed: [2]float64{300, 304.8}, Patience: patient()}
	c.Patience.Hello, c.Patience.Write = 20*time.Millisecond, 50*time.Millisecond
	steps := quick()
	for range 12 {
		steps = append(steps, steps...)
	}
	for i := range steps {
		steps[i].Text = strings.Repeat("PD0,0;", 400)
	}
	err = c.Run(t.Context(), steps, noted)
	require.ErrorContains(t, err, "has taken nothing")
	var halt *app.Halt
	require.ErrorAs(t, err, &halt)
	assert.True(t, halt.Unknown)
}

// Stopping a machine that tells nothing leaves unknown what it has cut.
func TestStoppingASilentCutterLeavesItUnknown(t *testing.T) {
	c, _ := (&plotter{}).at(t)
	c.Patience = patient()
	c.Patience.Hello = 10 * time.Millisecond
	ctx, cancel := context.WithCancel(t.Context())
	err := c.Run(ctx, plan(), func(i int) error {
		if i == 1 {
			cancel()
		}
		return nil
	})
	var halt *app.Halt
	require.ErrorAs(t, err, &halt)
	require.ErrorIs(t, err, context.Canceled)
	assert.True(t, halt.Unknown)
	assert.Nil(t, halt.At)
}

// However many ask, the address of a machine that tells nothing of itself is looked at
// once in a while.
func TestAskingForTheStateDoesNotOpenTheLineAgainAndAgain(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	c := device.Plain(app.OtherCutter{Address: l.Addr().String(), Width: 300, Height: 304.8})
	for range 20 {
		assert.True(t, c.State(t.Context()).Ready)
	}
	conns := 0
	require.NoError(t, l.(*net.TCPListener).SetDeadline(time.Now().Add(50*time.Millisecond)))
	for {
		conn, err := l.Accept()
		if err != nil {
			break
		}
		_ = conn.Close()
		conns++
	}
	assert.Equal(t, 1, conns)
	require.NoError(t, l.Close())
}

func TestASerialLineIsSentThePlan(t *testing.T) {
	master, err := os.OpenFile("/dev/ptmx", os.O_RDWR, 0)
	require.NoError(t, err)
	defer func() { _ = master.Close() }()
	unlock := 0
	_, _, errno := unix.Syscall(unix.SYS_IOCTL, master.Fd(), unix.TIOCSPTLCK, uintptr(unsafe.Pointer(&unlock))) // #nosec G103
	require.Zero(t, errno)
	n, err := unix.IoctlGetInt(int(master.Fd()), unix.TIOCGPTN)
	require.NoError(t, err)
	h := &plotter{answer: honest}
	go h.plot(master)
	c := device.Plain(app.OtherCutter{Address: fmt.Sprintf("/dev/pts/%d", n), Width: 300, Height: 304.8})
	require.NoError(t, c.Run(t.Context(), quick(), noted))
	require.Eventually(t, func() bool { return h.all() == sent() }, waitFor, tick)
	missing := device.Plain(app.OtherCutter{Address: "/dev/no-such-line", Width: 300, Height: 304.8})
	assert.Equal(t, app.CutterAway, missing.State(t.Context()).State)
	assert.ErrorContains(t, missing.Run(t.Context(), quick(), noted), "serial line cannot be opened")
}

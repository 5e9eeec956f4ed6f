package device_test

import (
	"bufio"
	"fmt"
	"io"
	"net"
	"os"
	"strings"
	"sync"
	"testing"
	"unsafe"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"

	"sectilis/app"
	"sectilis/device"
)

// heard is what a plotter was sent.
type heard struct {
	sync.Mutex
	text strings.Builder
}

func (h *heard) add(s string) {
	h.Lock()
	defer h.Unlock()
	h.text.WriteString(s)
}

func (h *heard) all() string {
	h.Lock()
	defer h.Unlock()
	return h.text.String()
}

// plot reads what comes until the end; with answers, OA is answered as plotters do.
func (h *heard) plot(rw io.ReadWriter, answers bool) {
	r := bufio.NewReader(rw)
	for {
		text, err := r.ReadString(';')
		if err != nil {
			return
		}
		if strings.TrimSpace(text) != "OA;" {
			h.add(strings.TrimSpace(text))
		} else if answers {
			_, _ = fmt.Fprint(rw, "100,200,0\r")
		}
	}
}

func sent() string {
	var b strings.Builder
	for _, s := range plan() {
		b.WriteString(s.Text)
	}
	return b.String()
}

// Any plotter at an address or a serial line is sent the plan as it is, whether it
// answers or not.
func TestAnyPlotterIsSentThePlan(t *testing.T) {
	for _, answers := range []bool{true, false} {
		l, err := net.Listen("tcp", "127.0.0.1:0")
		require.NoError(t, err)
		var h heard
		go func() {
			for {
				conn, err := l.Accept()
				if err != nil {
					return
				}
				go h.plot(conn, answers)
			}
		}()
		c := device.Plain(app.OtherCutter{Address: l.Addr().String(), Width: 300, Height: 280})
		s := c.State(t.Context())
		assert.Equal(t, app.CutterState{Name: l.Addr().String(), Ready: true, State: "ready", Bed: [2]float64{300, 280}}, s)
		done := 0
		require.NoError(t, c.Run(t.Context(), quick(), func(int) { done++ }))
		assert.Equal(t, len(quick()), done)
		require.Eventually(t, func() bool { return h.all() == sent() }, waitFor, tick)
		at, down, err := c.Rest(t.Context())
		if answers {
			require.NoError(t, err)
			assert.False(t, down)
			assert.InDelta(t, 2.5, at.X, 1e-9)
			assert.InDelta(t, 275, at.Y, 1e-9)
		} else {
			assert.ErrorContains(t, err, "does not tell where it is")
		}
		require.NoError(t, l.Close())
		assert.Equal(t, "away", c.State(t.Context()).State)
		assert.Contains(t, c.State(t.Context()).Why, "or name another cutter")
	}
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
	var h heard
	go h.plot(master, true)
	c := device.Plain(app.OtherCutter{Address: fmt.Sprintf("/dev/pts/%d", n), Width: 300, Height: 280})
	require.NoError(t, c.Run(t.Context(), quick(), func(int) {}))
	require.Eventually(t, func() bool { return h.all() == sent() }, waitFor, tick)
	missing := device.Plain(app.OtherCutter{Address: "/dev/no-such-line", Width: 300, Height: 280})
	assert.Equal(t, "away", missing.State(t.Context()).State)
	assert.ErrorContains(t, missing.Run(t.Context(), quick(), func(int) {}), "serial line cannot be opened")
}

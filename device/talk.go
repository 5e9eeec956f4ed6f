package device

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"strconv"
	"strings"
	"sync"
	"time"

	"go.bug.st/serial"

	"sectilis/app"
	"sectilis/core/format/hpgl"
	"sectilis/core/geom"
)

// How long a machine may take to answer.
const (
	dialTime  = 2 * time.Second
	stepTime  = 5 * time.Minute // a long line on thick card
	askTime   = 2 * time.Second
	watchTime = 300 * time.Millisecond
	// baud is what plotters with a serial line speak unless they are told otherwise.
	baud = 9600
)

// talk is one connection to a cutter.
type talk struct {
	c       *Cutter
	conn    io.ReadWriteCloser
	replies chan string // closed when the connection is
	mute    bool        // it has never answered
	ended   chan struct{}

	mu  sync.Mutex
	bad error // what the cutter says has happened
}

func (c *Cutter) serial() bool { return strings.HasPrefix(c.Addr, "/") }

func (c *Cutter) dial(ctx context.Context) (io.ReadWriteCloser, error) {
	if c.serial() {
		port, err := serial.Open(c.Addr, &serial.Mode{BaudRate: baud})
		if err != nil {
			return nil, fmt.Errorf("the serial line cannot be opened: %w", err)
		}
		return port, nil
	}
	return (&net.Dialer{Timeout: dialTime}).DialContext(ctx, "tcp", c.Addr)
}

func (c *Cutter) talk(ctx context.Context) (*talk, error) {
	conn, err := c.dial(ctx)
	if err != nil {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		return nil, fmt.Errorf("the cutter does not answer at %s: %w", c.Addr, err)
	}
	t := &talk{c: c, conn: conn, replies: make(chan string, 16), ended: make(chan struct{})}
	go func() {
		defer close(t.replies)
		r := bufio.NewReader(io.LimitReader(conn, maxReply))
		for {
			text, err := r.ReadString('\r')
			if err != nil {
				return
			}
			select {
			case t.replies <- text:
			case <-t.ended:
				return
			}
		}
	}()
	return t, nil
}

func (t *talk) close() {
	close(t.ended)
	_ = t.conn.Close() // nothing is left to be said
}

// watch asks a cutter that tells of itself how it is, and ends the connection when it
// has come to grief: a jammed tool answers nothing.
func (t *talk) watch(ctx context.Context) {
	if t.c.Camera == "" {
		return
	}
	tick := time.NewTicker(watchTime)
	defer tick.Stop()
	for {
		select {
		case <-t.ended:
			return
		case <-ctx.Done():
			return
		case <-tick.C:
		}
		var why error
		switch s := t.c.State(ctx); s.State {
		case "jammed":
			why = errors.New("the tool is jammed. Free the tool and the paper, then go on from there")
		case "no mat":
			why = errors.New("the cutting mat is not in the cutter any more")
		case "off":
			why = errors.New("the cutter was switched off")
		default:
			continue
		}
		t.mu.Lock()
		t.bad = why
		t.mu.Unlock()
		_ = t.conn.Close() // wakes whoever waits for an answer
		return
	}
}

// halt is a run that ends because of err.
func (t *talk) halt(err error) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.bad != nil {
		err = t.bad
	}
	return &app.Halt{Err: err}
}

var errLost = errors.New("the connection to the cutter was lost")

// step sends one step and waits until it is done.
func (t *talk) step(ctx context.Context, s hpgl.Step) error {
	if ctx.Err() != nil {
		return t.stop(ctx)
	}
	if _, err := io.WriteString(t.conn, s.Text+"OA;\n"); err != nil {
		return t.halt(errLost)
	}
	wait := stepTime
	if t.mute {
		wait = time.Duration(s.Seconds * float64(time.Second))
	}
	first := time.Duration(s.Seconds*float64(time.Second)) + askTime
	for {
		timer := time.NewTimer(min(wait, first))
		select {
		case _, ok := <-t.replies:
			timer.Stop()
			if !ok {
				return t.halt(errLost)
			}
			t.mute = false
			return nil
		case <-ctx.Done():
			timer.Stop()
			return t.stop(ctx)
		case <-timer.C:
			if t.mute {
				return nil
			}
			if t.c.Camera != "" { // one that tells of itself does answer
				first = wait
				continue
			}
			t.mute = true // its time is over already
			return nil
		}
	}
}

// stop drops what the machine has not yet done (ESC.K), asks where the tool came to
// rest, lifts it and puts it away.
func (t *talk) stop(ctx context.Context) error {
	h := &app.Halt{Err: ctx.Err()}
	_, err := io.WriteString(t.conn, "\x1b.K")
	if err == nil && !t.mute {
		// What was under way may still answer: the last answer counts.
		if at, down, err := t.rest(askTime); err == nil {
			h.At, h.Down = &at, down
		}
	}
	_, _ = io.WriteString(t.conn, "PU;SP0;") // more cannot be done
	return h
}

// rest asks where the tool is. Answers to earlier questions may come first.
func (t *talk) rest(wait time.Duration) (at geom.Point, down bool, err error) {
	if _, err := io.WriteString(t.conn, "OA;\n"); err != nil {
		return at, false, errLost
	}
	timer := time.NewTimer(wait)
	defer timer.Stop()
	quiet := time.Duration(-1)
	for {
		var settled <-chan time.Time
		if quiet >= 0 {
			settled = time.After(quiet)
		}
		select {
		case text, ok := <-t.replies:
			if !ok {
				return at, false, errLost
			}
			f := strings.Split(strings.TrimSpace(text), ",")
			if len(f) < 2 {
				return at, false, errors.New("the cutter does not tell where it is")
			}
			x, errX := strconv.ParseFloat(f[0], 64)
			y, errY := strconv.ParseFloat(f[1], 64)
			if errX != nil || errY != nil {
				return at, false, errors.New("the cutter does not tell where it is")
			}
			at, down = geom.Pt(x/hpgl.PerMM, t.height()-y/hpgl.PerMM), len(f) > 2 && f[2] == "1"
			quiet = 60 * time.Millisecond
		case <-settled:
			return at, down, nil
		case <-timer.C:
			return at, down, errors.New("the cutter does not tell where it is")
		}
	}
}

func (t *talk) height() float64 {
	if t.c.Bed[1] > 0 {
		return t.c.Bed[1]
	}
	return 12 * 25.4
}

package device

import (
	"bufio"
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"math"
	"net"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"time"

	"go.bug.st/serial"

	"sectilis/app"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
)

// Patience is how long a driver waits for a machine.
type Patience struct {
	Dial  time.Duration // for a connection
	Hello time.Duration // for the first answer; who gives none by then tells nothing
	Reply time.Duration // for an answer of who has answered before, beside the step's own time
	Tool  time.Duration // for a tool that hands put in
	Still time.Duration // that a tool may stand still before the end of its step
	Write time.Duration // for taking what is sent, beside the step's own time
	Poll  time.Duration // between two questions where a moving tool is
}

// Patient is for machines as people have them.
var Patient = Patience{
	Dial: 2 * time.Second, Hello: 3 * time.Second, Reply: 30 * time.Second, Tool: 15 * time.Minute,
	Still: 10 * time.Second, Write: 30 * time.Second, Poll: 100 * time.Millisecond,
}

const (
	watchTime = 300 * time.Millisecond
	// baud is what plotters with a serial line speak unless they are told otherwise.
	baud = 9600
	// maxLine bounds an answer: a position has some twenty characters.
	maxLine = 256
	// there is how far from the end of its step a tool may be told to stand, mm: a few of
	// the units that machines count in.
	there = .15
)

// talk is one connection to a cutter.
type talk struct {
	c       *Cutter
	wait    Patience
	conn    io.ReadWriteCloser
	replies chan string // closed when the connection is
	mute    bool        // it has answered nothing
	pace    float64     // the longest that a step has taken, in shares of its plan
	ended   chan struct{}

	mu  sync.Mutex
	bad error // what has happened to it
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
	conn, err := (&net.Dialer{Timeout: c.patience().Dial}).DialContext(ctx, "tcp", c.Addr)
	if tcp, ok := conn.(*net.TCPConn); ok {
		// What the machine does not take is not to lie in buffers here, counted as sent.
		_ = tcp.SetWriteBuffer(4096) // a wish
	}
	return conn, err
}

func (c *Cutter) patience() Patience {
	if c.Patience == (Patience{}) {
		return Patient
	}
	return c.Patience
}

func (c *Cutter) talk(ctx context.Context) (*talk, error) {
	conn, err := c.dial(ctx)
	if err != nil {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		return nil, fmt.Errorf("the cutter does not answer at %s: %w", c.Addr, err)
	}
	t := &talk{c: c, wait: c.patience(), conn: conn, replies: make(chan string, 16), pace: 1, ended: make(chan struct{})}
	go t.read()
	return t, nil
}

// read passes on what the machine says, line by line.
func (t *talk) read() {
	defer close(t.replies)
	lines := bufio.NewScanner(t.conn)
	lines.Buffer(make([]byte, maxLine), maxLine)
	lines.Split(answers)
	for lines.Scan() {
		select {
		case t.replies <- lines.Text():
		case <-t.ended:
			return
		}
	}
	if errors.Is(lines.Err(), bufio.ErrTooLong) {
		t.fail(errors.New("what answers is no cutter: it sends more than an answer has, without an end"))
	}
}

// answers splits at carriage returns and line feeds, which machines use as they like;
// empty lines are passed over.
func answers(data []byte, atEOF bool) (advance int, token []byte, err error) {
	for advance < len(data) && (data[advance] == '\r' || data[advance] == '\n') {
		advance++
	}
	if i := bytes.IndexAny(data[advance:], "\r\n"); i >= 0 {
		return advance + i + 1, data[advance : advance+i], nil
	}
	if atEOF {
		return len(data), nil, nil // an answer without its end may have lost half of it
	}
	return advance, nil, nil
}

func (t *talk) close() {
	close(t.ended)
	_ = t.conn.Close() // nothing is left to be said
	if t.c.Camera == "" {
		return
	}
	// One that tells of itself is left when it has noticed.
	ctx, cancel := context.WithTimeout(context.Background(), askTime)
	defer cancel()
	for ctx.Err() == nil && t.c.State(ctx).State == app.CutterCutting {
		select {
		case <-time.After(t.wait.Poll / 10):
		case <-ctx.Done():
		}
	}
}

// fail notes what has happened to the machine and ends the connection, which wakes
// whoever waits for an answer.
func (t *talk) fail(why error) {
	t.mu.Lock()
	t.bad = why
	t.mu.Unlock()
	_ = t.conn.Close()
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
		switch s := t.c.State(ctx); s.State {
		case "jammed":
			t.fail(errors.New("the tool is jammed. Free the tool and the paper, then go on from there"))
		case "no mat":
			t.fail(errors.New("the cutting mat is not in the cutter any more"))
		case "off":
			t.fail(errors.New("the cutter was switched off"))
		default:
			continue
		}
		return
	}
}

// halt is a run that ends because of err. Of a machine that tells nothing, nobody knows
// how far it came.
func (t *talk) halt(err error) error {
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.bad != nil {
		err = t.bad
	}
	return &app.Halt{Err: err, Unknown: t.mute}
}

var errLost = errors.New("the connection to the cutter was lost")

// send sends text; a machine that takes nothing is an error once its time is over.
func (t *talk) send(text string, seconds float64) error {
	limit := t.wait.Write + lasting(seconds*t.pace)
	if d, ok := t.conn.(interface{ SetWriteDeadline(time.Time) error }); ok {
		_ = d.SetWriteDeadline(time.Now().Add(limit)) // fails for a connection that is closed
	} else {
		timer := time.AfterFunc(limit, func() {
			t.fail(fmt.Errorf("the cutter has taken nothing of what it was sent for %.0f s", limit.Seconds()))
		})
		defer timer.Stop()
	}
	_, err := io.WriteString(t.conn, text)
	var late net.Error
	if errors.As(err, &late) && late.Timeout() {
		return fmt.Errorf("the cutter has taken nothing of what it was sent for %.0f s", limit.Seconds())
	}
	if err != nil {
		return errLost
	}
	return nil
}

func lasting(seconds float64) time.Duration { return time.Duration(seconds * float64(time.Second)) }

// hello asks a machine at rest where it is, to learn whether it answers at all.
func (t *talk) hello(ctx context.Context) error {
	if err := t.send("OA;\n", 0); err != nil {
		return t.halt(err)
	}
	timer := time.NewTimer(t.wait.Hello)
	defer timer.Stop()
	select {
	case text, ok := <-t.replies:
		if !ok {
			return t.halt(errLost)
		}
		if _, _, err := t.position(text); err != nil {
			return t.halt(err)
		}
	case <-timer.C:
		t.mute = true
	case <-ctx.Done():
		return &app.Halt{Err: ctx.Err()}
	}
	return nil
}

// step sends one step and waits until it is done: until the tool is told to stand where
// the step ends. A machine that tells nothing is given the time by plan.
func (t *talk) step(ctx context.Context, s hpgl.Step) error {
	if ctx.Err() != nil {
		return t.stop(ctx)
	}
	begun := time.Now()
	if err := t.send(s.Text+"OA;\n", s.Seconds); err != nil {
		return t.halt(err)
	}
	limit := t.wait.Reply + lasting(5*t.pace*s.Seconds)
	if strings.Contains(s.Text, "SP") {
		limit = max(limit, t.wait.Tool)
	}
	var last geom.Point
	moved := begun
	patience := time.NewTimer(limit)
	defer patience.Stop()
	plan := time.NewTimer(lasting(s.Seconds))
	defer plan.Stop()
	var ask <-chan time.Time
	for {
		var over <-chan time.Time
		if t.mute {
			over = plan.C
		}
		select {
		case text, ok := <-t.replies:
			if !ok {
				return t.halt(errLost)
			}
			at, _, err := t.position(text)
			if err != nil {
				return t.unknown(err)
			}
			t.mute = false
			end, known := s.End()
			if !known || at.Sub(end).Len() <= there {
				if s.Seconds > .05 {
					t.pace = max(t.pace, time.Since(begun).Seconds()/s.Seconds)
				}
				return nil
			}
			if at.Sub(last).Len() > .02 {
				last, moved = at, time.Now()
			} else if time.Since(moved) > t.wait.Still {
				return t.astray(at, end)
			}
			patience.Reset(limit)
			ask = time.After(t.wait.Poll)
		case <-ask:
			ask = nil
			if err := t.send("OA;\n", 0); err != nil {
				return t.halt(err)
			}
		case <-over:
			return nil
		case <-patience.C:
			return t.unknown(fmt.Errorf("the cutter has not answered for %.0f s", limit.Seconds()))
		case <-ctx.Done():
			return t.stop(ctx)
		}
	}
}

// astray is a tool that stands still where its step does not end.
func (t *talk) astray(at, end geom.Point) error {
	return t.unknown(fmt.Errorf("the cutter tells that its tool stands still, %.1f mm from the end of the line that it was given", at.Sub(end).Len()))
}

// unknown ends a run whose machine does not tell what it does, as far as it can be ended.
func (t *talk) unknown(why error) error {
	_ = t.send("\x1b.KPU;SP0;", 0) // more cannot be done
	var halt *app.Halt
	err := t.halt(why)
	if errors.As(err, &halt) {
		halt.Unknown = true
	}
	return err
}

// wellFormed is a position as OA answers with it: x, y and whether the tool is down.
var wellFormed = regexp.MustCompile(`^\s*(-?\d{1,7}(?:\.\d{1,6})?)\s*,\s*(-?\d{1,7}(?:\.\d{1,6})?)\s*,\s*([01])\s*$`)

// position reads an answer to OA: mm from the upper left corner of the bed.
func (t *talk) position(text string) (at geom.Point, down bool, err error) {
	m := wellFormed.FindStringSubmatch(text)
	if m == nil {
		return at, false, fmt.Errorf("the cutter answers %q, which is no position", text)
	}
	x, _ := strconv.ParseFloat(m[1], 64) // the pattern lets only numbers through
	y, _ := strconv.ParseFloat(m[2], 64)
	return geom.Pt(x/hpgl.PerMM, t.c.height()-y/hpgl.PerMM), m[3] == "1", nil
}

// stop drops what the machine has not yet done (ESC.K), asks where the tool came to
// rest, lifts it and puts it away.
func (t *talk) stop(ctx context.Context) error {
	h := &app.Halt{Err: ctx.Err(), Unknown: t.mute}
	if err := t.send("\x1b.K", 0); err == nil && !t.mute {
		at, down, err := t.rest()
		if err == nil {
			h.At, h.Down = &at, down
		} else {
			h.Unknown = true
		}
	}
	_ = t.send("PU;SP0;", 0) // more cannot be done
	return h
}

var errTellsNothing = errors.New("the cutter does not tell where its tool is")

// rest asks where the tool is. Answers to earlier questions may come first: the one that
// is followed by silence counts.
func (t *talk) rest() (at geom.Point, down bool, err error) {
	if err := t.send("OA;\n", 0); err != nil {
		return at, false, err
	}
	timer := time.NewTimer(t.wait.Hello)
	defer timer.Stop()
	var settled <-chan time.Time
	for {
		select {
		case text, ok := <-t.replies:
			if !ok {
				return at, false, errLost
			}
			if at, down, err = t.position(text); err != nil {
				return at, false, err
			}
			settled = time.After(60 * time.Millisecond)
		case <-settled:
			return at, down, nil
		case <-timer.C:
			return at, down, errTellsNothing
		}
	}
}

// height is that of the bed, mm.
func (c *Cutter) height() float64 {
	c.told.Lock()
	defer c.told.Unlock()
	if c.bed[1] > 0 {
		return c.bed[1]
	}
	if c.Bed[1] > 0 {
		return c.Bed[1]
	}
	return 12 * 25.4
}

// sound reports whether a bed is one that a machine could have, mm.
func sound(bed [2]float64) bool {
	return bed[0] >= 20 && bed[0] <= 5000 && bed[1] >= 20 && bed[1] <= 5000 && !math.IsNaN(bed[0]+bed[1])
}

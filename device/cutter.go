// Package device holds the drivers: small clients that speak open protocols to
// printers and cutters.
package device

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/url"
	"strconv"
	"sync"
	"time"

	"sectilis/app"
	"sectilis/core/format/hpgl"
	"sectilis/core/geom"
)

// Cutter drives a cutter that takes HP-GL over TCP. After every step it asks
// for the actual position (OA) and waits for the answer, so that progress is
// what the machine has done and not what was sent.
type Cutter struct {
	Addr   string // host:port of the HP-GL socket
	Camera string // base address of the machine's state and picture, over HTTP

	busy sync.Mutex
}

// How long a machine may take to answer.
const (
	dialTime = 2 * time.Second
	stepTime = 5 * time.Minute // a long line on thick card
	askTime  = 2 * time.Second
)

// maxReply bounds what is read from a machine.
const maxReply = 64 << 20

// State implements app.Cutter.
func (c *Cutter) State(ctx context.Context) app.CutterState {
	ctx, cancel := context.WithTimeout(ctx, askTime)
	defer cancel()
	raw, err := get(ctx, c.Camera+"/state")
	if err != nil {
		return app.CutterState{State: "away", Why: fmt.Sprintf("nothing answers at %s. Start it with “sectilis cutter”, or look at its cable and switch", c.Addr)}
	}
	var s app.CutterState
	if err := json.Unmarshal(raw, &s); err != nil {
		return app.CutterState{State: "away", Why: "what answers at " + c.Camera + " is no cutter"}
	}
	s.Ready = s.State == "ready"
	if s.State == "cutting" {
		s.Why = "it is cutting already"
	}
	return s
}

// Run implements app.Cutter.
func (c *Cutter) Run(ctx context.Context, steps []hpgl.Step, done func(int)) error {
	if !c.busy.TryLock() {
		return errors.New("the cutter is cutting another sheet; wait until it is done")
	}
	defer c.busy.Unlock()
	conn, err := (&net.Dialer{Timeout: dialTime}).DialContext(ctx, "tcp", c.Addr)
	if err != nil {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		return fmt.Errorf("the cutter does not answer at %s: %w", c.Addr, err)
	}
	defer func() { _ = conn.Close() }() // nothing is left to be said
	// A stop wakes the read below.
	wake := context.AfterFunc(ctx, func() { _ = conn.SetReadDeadline(time.Unix(1, 0)) })
	defer wake()
	replies := bufio.NewReader(io.LimitReader(conn, maxReply))
	for i, s := range steps {
		if ctx.Err() == nil {
			_ = conn.SetDeadline(time.Now().Add(stepTime)) // fails only on a closed connection, as the write does
			_, err = io.WriteString(conn, s.Text+"OA;\n")
		}
		if err == nil && ctx.Err() == nil {
			_, err = replies.ReadString('\r')
		}
		if ctx.Err() != nil {
			// ESC.K drops what the machine has not yet done.
			_ = conn.SetDeadline(time.Now().Add(dialTime))
			_, _ = io.WriteString(conn, "\x1b.KPU;SP0;")
			return ctx.Err()
		}
		if err != nil {
			return fmt.Errorf("the connection to the cutter was lost: %w", err)
		}
		done(i)
	}
	return nil
}

// See implements app.Cutter.
func (c *Cutter) See(ctx context.Context, from, to geom.Point, n int) ([]float64, error) {
	mm := func(v float64) string { return strconv.FormatFloat(v, 'f', 4, 64) }
	q := url.Values{"x0": {mm(from.X)}, "y0": {mm(from.Y)}, "x1": {mm(to.X)}, "y1": {mm(to.Y)}, "n": {strconv.Itoa(n)}}
	raw, err := get(ctx, c.Camera+"/eye?"+q.Encode())
	if err != nil {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		return nil, fmt.Errorf("the eye of the cutter does not answer: %w", err)
	}
	var seen []float64
	if err := json.Unmarshal(raw, &seen); err != nil || len(seen) != n {
		return nil, errors.New("the eye of the cutter answers with something else than brightness")
	}
	return seen, nil
}

// LayDown implements app.Cutter.
func (c *Cutter) LayDown(ctx context.Context, sheet []byte, width float64) error {
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, c.Camera+"/mat?width="+strconv.FormatFloat(width, 'f', -1, 64), bytes.NewReader(sheet))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", "image/png")
	if _, err := do(req); err != nil {
		return fmt.Errorf("the sheet could not be put on the mat: %w", err)
	}
	return nil
}

// Picture implements app.Cutter.
func (c *Cutter) Picture(ctx context.Context) ([]byte, error) {
	return get(ctx, c.Camera+"/bed.png")
}

func get(ctx context.Context, url string) ([]byte, error) {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, url, nil)
	if err != nil {
		return nil, err
	}
	return do(req)
}

func do(req *http.Request) ([]byte, error) {
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return nil, err
	}
	defer func() { _ = res.Body.Close() }() // only read from
	raw, err := io.ReadAll(io.LimitReader(res.Body, maxReply))
	if err != nil {
		return nil, err
	}
	if res.StatusCode == http.StatusNotFound {
		return nil, app.ErrNotFound
	}
	if res.StatusCode >= 300 {
		return nil, fmt.Errorf("%s answers %s", req.URL.Host, res.Status)
	}
	return raw, nil
}

// Away is a cutter that could not be started; it says why.
type Away struct{ Why string }

// State implements app.Cutter.
func (a Away) State(context.Context) app.CutterState {
	return app.CutterState{State: "away", Why: a.Why}
}

// Run implements app.Cutter.
func (a Away) Run(context.Context, []hpgl.Step, func(int)) error { return errors.New(a.Why) }

// See implements app.Cutter.
func (a Away) See(context.Context, geom.Point, geom.Point, int) ([]float64, error) {
	return nil, errors.New(a.Why)
}

// LayDown implements app.Cutter.
func (a Away) LayDown(context.Context, []byte, float64) error { return errors.New(a.Why) }

// Picture implements app.Cutter.
func (a Away) Picture(context.Context) ([]byte, error) { return nil, app.ErrNotFound }

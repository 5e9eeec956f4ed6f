// Package device holds the drivers: small clients that speak open protocols to
// printers and cutters.
package device

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"slices"
	"strconv"
	"sync"
	"time"

	"sectilis/app"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
)

// Cutter drives a cutter that takes HP-GL over TCP or a serial line. After every step it
// asks for the actual position (OA) until the tool stands where the step ends, so that
// progress is what the machine has done and not what was sent. A machine that answers
// nothing when it is first asked is given the time that each step takes by plan; what it
// has done is then not known (State.Silent, Halt.Unknown).
type Cutter struct {
	Name string
	// Addr is host:port of the HP-GL socket, or the path of a serial line.
	Addr string
	// Camera is the base address of the machine's state, eye and picture, over HTTP;
	// "" for a cutter that has none.
	Camera string
	// Bed is what a cutter without a camera reaches, mm.
	Bed [2]float64
	// Patience is how long it is waited for; Patient if zero.
	Patience Patience

	busy sync.Mutex

	told   sync.Mutex
	bed    [2]float64 // as it was told by the machine last
	silent bool       // it has answered nothing in its last run
	seen   time.Time  // when a machine that tells nothing of itself was last looked for
	away   error      // what came of that
}

// maxReply bounds what is read from a machine.
const maxReply = 256 << 20

// stateMessages maps the states in which a cutter cannot cut to the end of a sentence that
// says why, and what to do.
var stateMessages = map[app.CutterStatus]string{
	app.CutterOff:     "it is switched off. Switch it on",
	app.CutterNoMat:   "there is no cutting mat in it. Put the cutting mat in",
	app.CutterJammed:  "its tool is jammed. Free the tool and the paper",
	app.CutterCutting: "it is cutting already",
}

// State implements app.Cutter.
func (c *Cutter) State(ctx context.Context) app.CutterState {
	if c.Camera == "" {
		return c.plain(ctx)
	}
	raw, err := get(ctx, askTime, c.Camera+"/state")
	if err != nil {
		return app.CutterState{State: app.CutterAway, Why: fmt.Sprintf("nothing answers at %s. Start it with “sectilis cutter”, or look at its cable and switch", c.Addr)}
	}
	var s app.CutterState
	if err := json.Unmarshal(raw, &s); err != nil || !sound(s.Bed) {
		return app.CutterState{State: app.CutterAway, Why: "what answers at " + c.Camera + " is no cutter"}
	}
	c.told.Lock()
	c.bed = s.Bed
	s.Silent = c.silent
	c.told.Unlock()
	s.Why = stateMessages[s.State]
	s.Ready = slices.Contains([]app.CutterStatus{app.CutterReady, app.CutterLooking, app.CutterStopped}, s.State)
	return s
}

// How often a machine that tells nothing of itself is looked for, however many ask: some
// take every connection for a job.
const (
	lookReady = 30 * time.Second
	lookAway  = 5 * time.Second
)

// plain is the state of a cutter that tells nothing of itself: whether something takes a
// connection at its address, or its serial line is there. One look is shared by all who
// ask.
func (c *Cutter) plain(ctx context.Context) app.CutterState {
	s := app.CutterState{Name: c.Name, State: app.CutterReady, Ready: true, Bed: c.Bed}
	if !c.busy.TryLock() {
		s.State, s.Ready, s.Why = app.CutterCutting, false, stateMessages[app.CutterCutting]
		return s
	}
	defer c.busy.Unlock()
	c.told.Lock()
	defer c.told.Unlock()
	s.Silent = c.silent
	again := lookReady
	if c.away != nil {
		again = lookAway
	}
	if time.Since(c.seen) > again {
		away := c.lookFor(ctx)
		if ctx.Err() != nil && away != nil {
			s.State, s.Ready, s.Why = app.CutterAway, false, "it was not waited for"
			return s // who asked has gone: that says nothing of the machine
		}
		c.seen, c.away = time.Now(), away
	}
	if c.away != nil {
		s.State, s.Ready, s.Why = app.CutterAway, false, fmt.Sprintf("nothing answers at %s (%v). Look at its cable and switch, or name another cutter", c.Addr, c.away)
	}
	return s
}

func (c *Cutter) lookFor(ctx context.Context) error {
	if c.serial() {
		_, err := os.Stat(c.Addr) // opening it would reset some machines
		return err
	}
	conn, err := c.dial(ctx)
	if err != nil {
		return err
	}
	return conn.Close() // nothing was said
}

// Run implements app.Cutter.
func (c *Cutter) Run(ctx context.Context, steps []hpgl.Step, done func(int) error) error {
	if !c.busy.TryLock() {
		return errors.New("the cutter is cutting another sheet; wait until it is done")
	}
	defer c.busy.Unlock()
	t, err := c.talk(ctx)
	if err != nil {
		return &app.Halt{Err: err}
	}
	defer t.close()
	go t.watch(ctx)
	if err := t.hello(ctx); err != nil {
		return err
	}
	defer func() {
		c.told.Lock()
		defer c.told.Unlock()
		c.silent = t.mute
	}()
	for i, s := range steps {
		if err := t.step(ctx, s); err != nil {
			return err
		}
		if err := done(i); err != nil {
			return &app.Halt{Err: err, Unknown: t.mute}
		}
	}
	return nil
}

// Rest implements app.Cutter.
func (c *Cutter) Rest(ctx context.Context) (geom.Point, bool, error) {
	if !c.busy.TryLock() {
		return geom.Point{}, false, errors.New("the cutter is cutting")
	}
	defer c.busy.Unlock()
	t, err := c.talk(ctx)
	if err != nil {
		return geom.Point{}, false, err
	}
	defer t.close()
	return t.rest()
}

// See implements app.Cutter.
func (c *Cutter) See(ctx context.Context, from, to geom.Point, n int) ([]float64, error) {
	mm := func(v float64) string { return strconv.FormatFloat(v, 'f', 4, 64) }
	q := url.Values{"x0": {mm(from.X)}, "y0": {mm(from.Y)}, "x1": {mm(to.X)}, "y1": {mm(to.Y)}, "n": {strconv.Itoa(n)}}
	raw, err := get(ctx, eyeTime, c.Camera+"/eye?"+q.Encode())
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

// LayDown implements app.Hand.
func (c *Cutter) LayDown(ctx context.Context, sheet []byte, width float64) error {
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, c.Camera+"/mat?width="+strconv.FormatFloat(width, 'f', -1, 64), bytes.NewReader(sheet))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", "image/png")
	if _, err := do(req, pageTime); err != nil {
		if c.State(ctx).State == "no mat" {
			return errors.New("there is no cutting mat in the cutter. Put it in, and load the sheet again")
		}
		return fmt.Errorf("the sheet could not be put on the cutting mat: %w", err)
	}
	return nil
}

// TakeOff implements app.Hand.
func (c *Cutter) TakeOff(ctx context.Context) error {
	return c.hand(ctx, http.MethodDelete, "/mat", nil)
}

// Fit implements app.Hand.
func (c *Cutter) Fit(ctx context.Context, tool int) error {
	return c.hand(ctx, http.MethodPut, "/tool?n="+strconv.Itoa(tool), nil)
}

// Mishap implements app.Hand.
func (c *Cutter) Mishap(ctx context.Context, m app.Mishap) error {
	return c.hand(ctx, http.MethodPut, "/faults", m)
}

// Outcome implements app.Hand.
func (c *Cutter) Outcome(ctx context.Context) ([]app.Way, error) {
	raw, err := get(ctx, pageTime, c.Camera+"/outcome")
	if err != nil {
		return nil, err
	}
	var ways []app.Way
	if err := json.Unmarshal(raw, &ways); err != nil {
		return nil, errors.New("the cutter does not tell what it has cut")
	}
	return ways, nil
}

func (c *Cutter) hand(ctx context.Context, method, path string, v any) error {
	var body bytes.Buffer
	if v != nil {
		if err := json.NewEncoder(&body).Encode(v); err != nil {
			return err
		}
	}
	req, err := http.NewRequestWithContext(ctx, method, c.Camera+path, &body)
	if err != nil {
		return err
	}
	_, err = do(req, askTime)
	return err
}

// Picture implements app.Cutter.
func (c *Cutter) Picture(ctx context.Context) ([]byte, error) {
	if c.Camera == "" {
		return nil, app.ErrNotFound
	}
	return get(ctx, pageTime, c.Camera+"/bed.png")
}

// How long a device may take to answer over HTTP: what it is asked, what its eye sees, a
// whole page or picture.
const (
	askTime  = 2 * time.Second
	eyeTime  = 10 * time.Second
	pageTime = 2 * time.Minute
	// pictureTime is how long a picture that a device keeps may take.
	pictureTime = 10 * time.Second
)

func get(ctx context.Context, limit time.Duration, url string) ([]byte, error) {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, url, nil)
	if err != nil {
		return nil, err
	}
	return do(req, limit)
}

// do sends a request and reads the whole answer. What takes longer than the limit is an
// error that says so; ErrNotFound is that of the device.
func do(req *http.Request, limit time.Duration) ([]byte, error) {
	late := fmt.Errorf("%s has not answered for %.0f s", req.URL.Host, limit.Seconds())
	ctx, cancel := context.WithTimeoutCause(req.Context(), limit, late)
	defer cancel()
	raw, err := doNow(req.WithContext(ctx))
	if err != nil && errors.Is(context.Cause(ctx), late) {
		return nil, late
	}
	return raw, err
}

func doNow(req *http.Request) ([]byte, error) {
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return nil, err
	}
	defer func() { _ = res.Body.Close() }() // only read from
	raw, err := io.ReadAll(io.LimitReader(res.Body, maxReply+1))
	if err != nil {
		return nil, err
	}
	if len(raw) > maxReply {
		return nil, fmt.Errorf("%s answers with more than %d MB", req.URL.Host, maxReply>>20)
	}
	if res.StatusCode == http.StatusNotFound {
		return nil, app.ErrNotFound
	}
	if res.StatusCode >= 300 {
		return nil, fmt.Errorf("%s answers %s", req.URL.Host, res.Status)
	}
	return raw, nil
}

// Plain is a driver for a cutter that a person has named, which reads HP-GL and tells
// nothing of itself.
func Plain(o app.OtherCutter) app.Cutter {
	return &Cutter{Name: o.Address, Addr: o.Address, Bed: [2]float64{o.Width, o.Height}}
}

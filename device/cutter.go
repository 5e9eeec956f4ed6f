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
	"strconv"
	"sync"

	"sectilis/app"
	"sectilis/core/format/hpgl"
	"sectilis/core/geom"
)

// Cutter drives a cutter that takes HP-GL over TCP or a serial line. After every
// step it asks for the actual position (OA) and waits for the answer, so that
// progress is what the machine has done and not what was sent. A machine that does
// not answer is given the time that each step takes by plan.
type Cutter struct {
	Name string
	// Addr is host:port of the HP-GL socket, or the path of a serial line.
	Addr string
	// Camera is the base address of the machine's state, eye and picture, over HTTP;
	// "" for a cutter that has none.
	Camera string
	// Bed is what a cutter without a camera reaches, mm.
	Bed [2]float64

	busy sync.Mutex
}

// maxReply bounds what is read from a machine.
const maxReply = 256 << 20

// whys are what the states of a cutter that cannot cut mean.
var whys = map[string]string{
	"off":     "it is switched off. Switch it on",
	"no mat":  "there is no cutting mat in it. Put the cutting mat in",
	"jammed":  "its tool is jammed. Free the tool and the paper",
	"cutting": "it is cutting already",
}

// State implements app.Cutter.
func (c *Cutter) State(ctx context.Context) app.CutterState {
	ctx, cancel := context.WithTimeout(ctx, askTime)
	defer cancel()
	if c.Camera == "" {
		return c.plain(ctx)
	}
	raw, err := get(ctx, c.Camera+"/state")
	if err != nil {
		return app.CutterState{State: "away", Why: fmt.Sprintf("nothing answers at %s. Start it with “sectilis cutter”, or look at its cable and switch", c.Addr)}
	}
	var s app.CutterState
	if err := json.Unmarshal(raw, &s); err != nil {
		return app.CutterState{State: "away", Why: "what answers at " + c.Camera + " is no cutter"}
	}
	s.Why = whys[s.State]
	s.Ready = s.State == "ready" || s.State == "looking" || s.State == "stopped"
	return s
}

// plain is the state of a cutter that tells nothing of itself.
func (c *Cutter) plain(ctx context.Context) app.CutterState {
	s := app.CutterState{Name: c.Name, State: "ready", Ready: true, Bed: c.Bed}
	if !c.busy.TryLock() {
		s.State, s.Ready, s.Why = "cutting", false, whys["cutting"]
		return s
	}
	defer c.busy.Unlock()
	conn, err := c.dial(ctx)
	if err != nil {
		s.State, s.Ready, s.Why = "away", false, fmt.Sprintf("nothing answers at %s (%v). Look at its cable and switch, or name another cutter", c.Addr, err)
		return s
	}
	_ = conn.Close() // nothing was said
	return s
}

// Run implements app.Cutter.
func (c *Cutter) Run(ctx context.Context, steps []hpgl.Step, done func(int)) error {
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
	for i, s := range steps {
		if err := t.step(ctx, s); err != nil {
			return err
		}
		done(i)
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
	return t.rest(askTime)
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

// LayDown implements app.Hand.
func (c *Cutter) LayDown(ctx context.Context, sheet []byte, width float64) error {
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, c.Camera+"/mat?width="+strconv.FormatFloat(width, 'f', -1, 64), bytes.NewReader(sheet))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", "image/png")
	if _, err := do(req); err != nil {
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
	raw, err := get(ctx, c.Camera+"/outcome")
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
	_, err = do(req)
	return err
}

// Picture implements app.Cutter.
func (c *Cutter) Picture(ctx context.Context) ([]byte, error) {
	if c.Camera == "" {
		return nil, app.ErrNotFound
	}
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

// Plain is a driver for a cutter that a person has named, which reads HP-GL and tells
// nothing of itself.
func Plain(o app.OtherCutter) app.Cutter {
	return &Cutter{Name: o.Address, Addr: o.Address, Bed: [2]float64{o.Width, o.Height}}
}

// Package standin acts the part of a printer and of a cutter, so that the whole
// way can be gone with neither on the desk. Nothing here is told what the app
// means: it only gets pages and HP-GL, as real machines do.
package standin

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"net"
	"net/http"
	"runtime/debug"
	"strings"
	"sync"
	"time"

	"sectilis/core/ground/geom"
)

// Cutter is a cutter with a bed of 12 × 12 in and one holder. It reads IN, SP, VS,
// PU, PD, OA and the device command ESC.K; anything else it passes over, as plotters
// do.
type Cutter struct {
	// Pace is how many times faster than life it moves; 0 takes no time.
	Pace float64
	// Seed is what hand and eye are off by.
	Seed uint64

	one sync.Mutex // one job at a time

	mu     sync.Mutex
	sheet  *laid
	rng    *rand.Rand
	matIn  bool
	busy   bool
	halted bool      // the last job was dropped
	wants  int       // the tool that it waits for, or 0
	looked time.Time // when the eye was last used
	faults Faults
	change chan struct{} // closed when something is seen to that it waits for

	at      geom.Point // of the holder, mm from the lower left corner, y up
	heading float64    // the way a blade points, radians
	held    int        // the tool in the holder
	tool    int        // the tool selected
	speed   float64    // while the tool is down, mm/s
	down    bool
	strokes []stroke
	ridden  float64 // mm with the tool down
}

// stroke is a way of the tip in the sheet's own frame, mm from its upper left corner,
// y down; of the bed's where no sheet lies.
type stroke struct {
	tool   int
	points []geom.Point
}

// The bed, mm, and the unit of HP-GL.
const (
	bed  = 304.8
	unit = 1.0 / 40
)

// NewCutter is a cutter with a cutting mat in it and a blade in its holder.
func NewCutter(pace float64, seed uint64) *Cutter {
	return &Cutter{Pace: pace, Seed: seed, matIn: true, held: 3, speed: usualSpeed, change: make(chan struct{})}
}

// Serve takes jobs on the HP-GL listener and shows itself on the camera's until ctx ends. It
// returns the error of the listener that failed first, nil when ctx ended.
func (c *Cutter) Serve(ctx context.Context, jobs, camera net.Listener, log *slog.Logger) error {
	srv := &http.Server{Handler: c.camera(), ReadHeaderTimeout: 5 * time.Second}
	stop := context.AfterFunc(ctx, func() { _ = jobs.Close(); _ = srv.Close() })
	defer stop()
	go func() {
		if err := srv.Serve(camera); !errors.Is(err, http.ErrServerClosed) {
			log.Error("cutter stand-in: camera", "err", err)
		}
	}()
	for {
		conn, err := jobs.Accept()
		if err != nil {
			if ctx.Err() != nil {
				return nil
			}
			return fmt.Errorf("cutter stand-in: %w", err)
		}
		if c.state() == "off" {
			_ = conn.Close()
			continue
		}
		go func() {
			// A fault in here ends the job and is told; it never ends the program.
			defer func() {
				if p := recover(); p != nil {
					log.Error("cutter stand-in: the job ended by a fault", "fault", p, "stack", string(debug.Stack()))
					_ = conn.Close() // the sender learns that it is gone
				}
			}()
			c.job(ctx, conn)
		}()
	}
}

// job reads one connection to its end.
func (c *Cutter) job(ctx context.Context, conn net.Conn) {
	c.one.Lock()
	defer c.one.Unlock()
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	defer func() { _ = conn.Close() }() // all has been said
	stop := context.AfterFunc(ctx, func() { _ = conn.Close() })
	defer stop()
	c.mu.Lock()
	c.busy, c.halted = true, false
	c.mu.Unlock()
	defer func() {
		c.mu.Lock()
		c.busy, c.wants = false, 0
		c.mu.Unlock()
	}()
	j := &job{c: c, conn: conn, ctx: ctx}
	type item struct {
		text string
		age  int64
	}
	work := make(chan item, 256)
	// Reading goes on while the tool moves: a stop has to get through.
	go func() {
		defer close(work)
		defer cancel()
		r := bufio.NewReader(conn)
		for {
			text, err := r.ReadString(';')
			if err != nil {
				return
			}
			if i := strings.LastIndex(text, "\x1b.K"); i >= 0 {
				text = text[i+3:]
				j.dropped()
			}
			select {
			case work <- item{strings.TrimSpace(strings.TrimSuffix(text, ";")), j.age.Load()}:
			case <-ctx.Done():
				return
			}
		}
	}()
	for it := range work {
		j.now = it.age
		if len(it.text) >= 2 && !j.stale() && !j.do(it.text) {
			return
		}
	}
}

// state is what it says of itself.
func (c *Cutter) state() string {
	c.mu.Lock()
	defer c.mu.Unlock()
	switch {
	case c.faults.Off:
		return "off"
	case c.faults.jammed:
		return "jammed"
	case !c.matIn:
		return "no mat"
	case c.wants > 0:
		return "wants tool"
	case c.busy:
		return "cutting"
	case time.Since(c.looked) < lookTime:
		return "looking"
	case c.halted:
		return "stopped"
	}
	return "ready"
}

// lookTime is how long an eye counts as looking after it was used.
const lookTime = 250 * time.Millisecond

// Package standin acts the part of a printer and of a cutter, so that the whole
// way can be gone with neither on the desk. Nothing here is told what the app
// means: it only gets pages and HP-GL, as real machines do.
package standin

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"image/png"
	"log/slog"
	"math"
	"math/rand/v2"
	"net"
	"net/http"
	"strconv"
	"strings"
	"sync"
	"time"

	"sectilis/core/format/raster"
	"sectilis/core/geom"
	"sectilis/core/scene"
)

// Cutter is a cutter with a bed of 12 × 12 in. It reads IN, PA, SP, PU, PD, OA
// and the device command ESC.K; anything else it passes over, as plotters do.
type Cutter struct {
	// Pace is how many times faster than life it moves; 0 takes no time.
	Pace float64
	// Seed is what hand and eye are off by.
	Seed uint64

	sheet *laid
	rng   *rand.Rand

	mu      sync.Mutex
	state   string
	at      geom.Point // of the holder, mm from the lower left corner, y up
	heading float64    // the way a blade points, radians
	tool    int
	strokes []stroke
	one     sync.Mutex // one job at a time
}

type stroke struct {
	tool   int
	points []geom.Point
}

// The bed and how fast the tool moves in life, mm and mm/s.
const (
	bed       = 304.8
	unit      = 1.0 / 40
	cutSpeed  = 60.0
	moveSpeed = 150.0
	slice     = 20 * time.Millisecond
	// trail is how far the tip of a blade is behind the middle of its holder, and
	// stride the step in which its way is worked out, mm.
	trail  = .25
	stride = .02
)

// Serve takes jobs on the HP-GL listener and shows itself on the camera's
// until ctx ends.
func (c *Cutter) Serve(ctx context.Context, jobs, camera net.Listener, log *slog.Logger) error {
	c.mu.Lock()
	c.state = "ready"
	c.mu.Unlock()
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
		go c.job(ctx, conn)
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
	c.set("cutting")
	defer c.set("ready")
	work := make(chan string, 256)
	drop := make(chan struct{}, 1)
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
				select {
				case drop <- struct{}{}:
				default:
				}
				text = text[i+3:]
			}
			select {
			case work <- strings.TrimSpace(strings.TrimSuffix(text, ";")):
			case <-ctx.Done():
				return
			}
		}
	}()
	for text := range work {
		if len(text) < 2 {
			continue
		}
		c.do(text, conn, drop)
	}
}

func (c *Cutter) set(state string) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.state = state
}

// do carries out one instruction.
func (c *Cutter) do(text string, conn net.Conn, drop <-chan struct{}) {
	op, args := text[:2], numbers(text[2:])
	switch op {
	case "IN":
		c.mu.Lock()
		c.strokes, c.tool = nil, 0
		c.mu.Unlock()
	case "SP":
		c.mu.Lock()
		c.tool = 0
		if len(args) > 0 {
			c.tool = int(args[0])
		}
		c.mu.Unlock()
	case "PU", "PD":
		c.begin(op == "PD")
		for i := 0; i+1 < len(args); i += 2 {
			to := geom.Pt(min(max(args[i]*unit, 0), bed), min(max(args[i+1]*unit, 0), bed))
			if !c.move(to, op == "PD", drop) {
				return
			}
		}
	case "OA":
		c.mu.Lock()
		p := c.at
		c.mu.Unlock()
		// A client that is gone ends the reading side.
		_, _ = fmt.Fprintf(conn, "%d,%d,0\r", int(p.X/unit+.5), int(p.Y/unit+.5))
	}
}

func numbers(s string) []float64 {
	var out []float64
	for _, f := range strings.FieldsFunc(s, func(r rune) bool { return r == ',' || r == ' ' }) {
		v, err := strconv.ParseFloat(f, 64)
		if err != nil {
			return nil
		}
		out = append(out, v)
	}
	return out
}

// begin starts a stroke where the tool goes down, and goes on with the last
// one where it has not moved since.
func (c *Cutter) begin(down bool) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if !down {
		return
	}
	tip := c.tip()
	if n := len(c.strokes); n > 0 {
		last := c.strokes[n-1]
		if last.tool == c.tool && last.points[len(last.points)-1] == tip {
			return
		}
	}
	c.strokes = append(c.strokes, stroke{c.tool, []geom.Point{tip}})
}

// tip is where the tool touches: a blade trails its holder.
func (c *Cutter) tip() geom.Point {
	if c.tool < 3 {
		return c.at
	}
	s, k := math.Sincos(c.heading)
	return c.at.Sub(geom.Pt(trail*k, trail*s))
}

// drag draws the tool on to where the holder goes. The tip of a blade stays behind
// it, always the same way, and so is pulled round.
func (c *Cutter) drag(to geom.Point) {
	s := &c.strokes[len(c.strokes)-1]
	if c.tool < 3 {
		c.at = to
		s.points = append(s.points, to)
		return
	}
	from, tip := c.at, c.tip()
	for k, n := 1, max(1, int(to.Sub(from).Len()/stride)); k <= n; k++ {
		c.at = from.Lerp(to, float64(k)/float64(n))
		v := c.at.Sub(tip)
		c.heading = math.Atan2(v.Y, v.X)
		tip = c.tip()
		// Along a straight line only its end is kept.
		if m := len(s.points); m > 1 && k > 1 && math.Abs(tip.Sub(s.points[m-2]).Cross(s.points[m-1].Sub(s.points[m-2]))) < 1e-7 {
			s.points[m-1] = tip
			continue
		}
		s.points = append(s.points, tip)
	}
}

// move takes the tool to a place in the time it needs; false when it was told
// to drop what it does.
func (c *Cutter) move(to geom.Point, down bool, drop <-chan struct{}) bool {
	speed := moveSpeed
	if down {
		speed = cutSpeed
	}
	from := c.at
	took := time.Duration(0)
	if c.Pace > 0 {
		took = time.Duration(to.Sub(from).Len() / speed / c.Pace * float64(time.Second))
	}
	for start := time.Now(); ; {
		k := 1.0
		if took > 0 {
			k = min(float64(time.Since(start))/float64(took), 1)
		}
		c.mu.Lock()
		if k == 1 && down {
			c.at = from
			c.drag(to)
		} else {
			c.at = from.Lerp(to, k)
		}
		c.mu.Unlock()
		if k == 1 {
			select {
			case <-drop:
				return false
			default:
				return true
			}
		}
		select {
		case <-drop:
			return false
		case <-time.After(min(slice, took-time.Since(start))):
		}
	}
}

// camera shows the machine to whoever looks.
func (c *Cutter) camera() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /state", func(w http.ResponseWriter, _ *http.Request) {
		c.mu.Lock()
		s := map[string]any{
			"name": "Bench cutter", "state": c.state, "bed": [2]float64{bed, bed},
			"eye": true, "hand": true, "corner": [2]float64{corner, corner}, "loaded": c.sheet != nil,
		}
		c.mu.Unlock()
		w.Header().Set("Content-Type", "application/json")
		_ = json.NewEncoder(w).Encode(s) // the viewer may be gone
	})
	mux.HandleFunc("POST /mat", c.mat)
	mux.HandleFunc("DELETE /mat", func(w http.ResponseWriter, _ *http.Request) {
		c.mu.Lock()
		c.sheet, c.strokes = nil, nil
		c.mu.Unlock()
		w.WriteHeader(http.StatusNoContent)
	})
	mux.HandleFunc("GET /eye", c.eye)
	mux.HandleFunc("GET /bed.png", func(w http.ResponseWriter, _ *http.Request) {
		raw, err := c.Picture()
		if err != nil {
			http.Error(w, err.Error(), http.StatusInternalServerError)
			return
		}
		w.Header().Set("Content-Type", "image/png")
		_, _ = w.Write(raw)
	})
	return mux
}

// looks are how the strokes of each tool look on the bed.
var looks = [9]struct {
	colour string
	width  float64
}{
	0: {"#1f2b38", .6}, 1: {"#35658c", .7}, 2: {"#a4572b", .9}, 3: {"#1f2b38", .6}, 4: {"#587a4a", .5},
	5: {"#1f2b38", .6}, 6: {"#1f2b38", .6}, 7: {"#1f2b38", .6}, 8: {"#1f2b38", .6},
}

// Picture is the bed as a PNG, at 4 pixels per mm: the cutting mat with its
// grid of inches and every stroke the tools have made.
func (c *Cutter) Picture() ([]byte, error) {
	c.mu.Lock()
	strokes, sheet := append([]stroke(nil), c.strokes...), c.sheet
	c.mu.Unlock()
	const perMM = 4
	canvas := raster.New(bed, bed, perMM, bare, nil)
	var inks []scene.Ink
	for i := 0.0; i <= 12; i++ {
		for _, r := range []geom.Rect{{X: i*25.4 - .15, W: .3, H: bed}, {Y: i*25.4 - .15, W: bed, H: .3}} {
			inks = append(inks, scene.Ink{Region: geom.RectPath(r), Colour: "#c3cfcd"})
		}
	}
	if err := canvas.Paint(inks); err != nil {
		return nil, err
	}
	sheet.draw(canvas.Image(), perMM)
	inks = nil
	for _, s := range strokes {
		if len(s.points) < 2 {
			continue
		}
		var b geom.Builder
		for i, p := range s.points {
			if q := geom.Pt(p.X, bed-p.Y); i == 0 {
				b.Move(q)
			} else {
				b.Line(q)
			}
		}
		look := looks[min(max(s.tool, 0), len(looks)-1)]
		inks = append(inks, scene.Ink{Region: geom.Stroke(b.Path(), look.width, geom.RoundCorner, geom.RoundCap), Colour: look.colour})
	}
	if err := canvas.Paint(inks); err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err := png.Encode(&b, canvas.Image())
	return b.Bytes(), err
}

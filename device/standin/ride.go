package standin

import (
	"context"
	"fmt"
	"math"
	"net"
	"strconv"
	"strings"
	"sync/atomic"
	"time"

	"sectilis/core/ground/geom"
)

// How the tool moves in life, mm/s and mm/s².
const (
	usualSpeed   = 60.0
	moveSpeed    = 150.0
	acceleration = 1200.0
	slice        = 20 * time.Millisecond
	tick         = 2 * time.Millisecond
	buffered     = 80 * time.Millisecond
	// trail is how far the tip of a blade is behind the middle of its holder, and
	// stride the step in which its way is worked out, mm.
	trail  = .25
	stride = .02
	// bend is the turn, radians, at which the holder stops.
	bend = math.Pi / 6
)

// job is what comes over one connection.
type job struct {
	c    *Cutter
	conn net.Conn
	ctx  context.Context
	// age counts how often the sender has had everything dropped; what was sent at an
	// earlier age than that is not done. now is the age of what is under way.
	age atomic.Int64
	now int64
	due time.Time // when the way that was ridden last should have ended
}

func (j *job) stale() bool { return j.age.Load() > j.now }

// dropped drops whatever was sent until now.
func (j *job) dropped() {
	j.age.Add(1)
	j.c.mu.Lock()
	defer j.c.mu.Unlock()
	j.c.halted = true
	j.c.seen()
}

// do carries out one instruction; false when the connection is of no more use.
func (j *job) do(text string) bool {
	c := j.c
	op, args := text[:2], numbers(text[2:])
	switch op {
	case "IN":
		c.mu.Lock()
		c.tool, c.speed, c.down = 0, usualSpeed, false
		c.mu.Unlock()
	case "SP":
		n := 0
		if len(args) > 0 {
			n = int(args[0])
		}
		return j.take(n)
	case "VS":
		c.mu.Lock()
		if c.speed = usualSpeed; len(args) > 0 {
			c.speed = min(max(args[0]*10, 5), 400)
		}
		c.mu.Unlock()
	case "PU", "PD":
		c.begin(op == "PD")
		way := []geom.Point{c.at}
		for i := 0; i+1 < len(args); i += 2 {
			way = append(way, geom.Pt(min(max(args[i]*unit, 0), bed), min(max(args[i+1]*unit, 0), bed)))
		}
		return j.ride(way)
	case "OA":
		c.mu.Lock()
		p, pen := c.at, 0
		if c.down {
			pen = 1
		}
		c.mu.Unlock()
		// A client that is gone ends the reading side.
		_, _ = fmt.Fprintf(j.conn, "%d,%d,%d\r", int(p.X/unit+.5), int(p.Y/unit+.5), pen)
	}
	return true
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

// take selects a tool; one that is not in the holder is waited for. 0 puts it away.
func (j *job) take(n int) bool {
	c := j.c
	for {
		c.mu.Lock()
		c.tool, c.down = n, false
		c.wants = 0
		ok := n <= 0 || n == c.held
		if !ok {
			c.wants = n
		}
		if ok || j.stale() {
			c.wants = 0
			c.mu.Unlock()
			return true
		}
		change := c.change
		c.mu.Unlock()
		select {
		case <-change:
		case <-j.ctx.Done():
			return false
		}
	}
}

// begin starts a stroke where the tool goes down, and goes on with the last
// one where it has not moved since.
func (c *Cutter) begin(down bool) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.down = down
	if !down {
		return
	}
	tip := c.onSheet(c.tip())
	if n := len(c.strokes); n > 0 {
		last := c.strokes[n-1]
		if last.tool == c.tool && last.points[len(last.points)-1].Sub(tip).Len() < 1e-6 {
			return
		}
	}
	c.strokes = append(c.strokes, stroke{c.tool, []geom.Point{tip}})
}

// onSheet is a place of the bed, y up, in the frame of the sheet.
func (c *Cutter) onSheet(p geom.Point) geom.Point {
	p.Y = bed - p.Y
	if c.sheet == nil {
		return p
	}
	return c.sheet.back.Apply(p)
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
	c.ridden += to.Sub(c.at).Len()
	s := &c.strokes[len(c.strokes)-1]
	if c.tool < 3 {
		c.at = to
		s.points = append(s.points, c.onSheet(to))
		return
	}
	from, tip := c.at, c.tip()
	for k, n := 1, max(1, int(to.Sub(from).Len()/stride)); k <= n; k++ {
		c.at = from.Lerp(to, float64(k)/float64(n))
		v := c.at.Sub(tip)
		c.heading = math.Atan2(v.Y, v.X)
		tip = c.tip()
		on := c.onSheet(tip)
		// Along a straight line only its end is kept.
		if m := len(s.points); m > 1 && k > 1 && math.Abs(on.Sub(s.points[m-2]).Cross(s.points[m-1].Sub(s.points[m-2]))) < 1e-7 {
			s.points[m-1] = on
			continue
		}
		s.points = append(s.points, on)
	}
}

// ride takes the tool along a way in the time it needs: it stops at sharp bends and
// speeds up and slows down between them. False when the connection is lost.
func (j *job) ride(way []geom.Point) bool {
	for _, run := range runs(way) {
		if on, ok := j.run(run); !on {
			return ok
		}
	}
	return true
}

// runs splits a way at its sharp bends.
func runs(way []geom.Point) [][]geom.Point {
	var out [][]geom.Point
	from := 0
	for i := 1; i < len(way); i++ {
		if i < len(way)-1 {
			v, w := way[i].Sub(way[i-1]), way[i+1].Sub(way[i])
			if math.Abs(math.Atan2(v.Cross(w), v.Dot(w))) < bend {
				continue
			}
		}
		out, from = append(out, way[from:i+1]), i
	}
	return out
}

// run takes the tool along a way without a stop. It goes not on when it is told to
// drop what it does, and not at all when the connection is lost.
func (j *job) run(way []geom.Point) (on, connected bool) {
	c := j.c
	length := 0.0
	for i := 1; i < len(way); i++ {
		length += way[i].Sub(way[i-1]).Len()
	}
	c.mu.Lock()
	speed := moveSpeed
	if c.down {
		speed = c.speed
	}
	c.mu.Unlock()
	// Where one way ends the next begins, in time too: what is shorter than a clock's tick
	// does not take one, nor does what comes a moment late, as it would out of a buffer.
	next, begun := 1, time.Now()
	if j.due.After(begun.Add(-buffered)) {
		begun = j.due
	}
	if c.Pace > 0 {
		j.due = begun.Add(time.Duration(lasts(length, speed) / c.Pace * float64(time.Second)))
	}
	for {
		reach := length
		left := time.Until(j.due)
		if c.Pace > 0 && left > tick {
			reach = reached(length, speed, time.Since(begun).Seconds()*c.Pace)
		}
		done, lost := c.advance(way, &next, reach)
		if lost {
			_ = j.conn.Close()
			return false, false
		}
		if !j.free() {
			return false, false
		}
		if j.stale() {
			return false, true
		}
		if done {
			return true, true
		}
		if c.Pace > 0 {
			select {
			case <-time.After(min(slice, left)):
			case <-j.ctx.Done():
			}
		}
		if j.ctx.Err() != nil {
			return false, false
		}
	}
}

// lasts is how many seconds a way takes from rest to rest.
func lasts(length, speed float64) float64 {
	if length <= 0 {
		return 0
	}
	top := min(speed, math.Sqrt(length*acceleration))
	return length/top + top/acceleration
}

// reached is how far a holder has come after some seconds of a way from rest to rest.
func reached(length, speed, seconds float64) float64 {
	seconds = max(seconds, 0)
	top := min(speed, math.Sqrt(length*acceleration))
	up := top / acceleration
	total := lasts(length, speed)
	switch {
	case length <= 0 || seconds >= total:
		return length
	case seconds < up:
		return acceleration * seconds * seconds / 2
	case seconds > total-up:
		rest := total - seconds
		return length - acceleration*rest*rest/2
	}
	return top*up/2 + top*(seconds-up)
}

// advance moves the tool along the way until it has come so far; next is the place it
// is on its way to. A fault that is due strikes on the way.
func (c *Cutter) advance(way []geom.Point, next *int, reach float64) (done, lost bool) {
	c.mu.Lock()
	defer c.mu.Unlock()
	run := 0.0
	for i := 1; i < *next; i++ {
		run += way[i].Sub(way[i-1]).Len()
	}
	for ; *next < len(way); *next++ {
		to := way[*next]
		leg := to.Sub(way[*next-1]).Len()
		short := run+leg > reach+1e-9
		if short {
			to = way[*next-1].Lerp(to, max(0, reach-run)/leg)
		}
		if c.down {
			if at, due := c.faults.due(c.ridden, to.Sub(c.at).Len()); due {
				c.drag(c.at.Lerp(to, at))
				return false, c.strike()
			}
			c.drag(to)
		} else {
			c.at = to
		}
		if short {
			return false, false
		}
		run += leg
	}
	return true, false
}

// free waits while the tool is jammed; false when nobody waits for it any more, or it
// was switched off.
func (j *job) free() bool {
	for {
		j.c.mu.Lock()
		jammed, off, change := j.c.faults.jammed, j.c.faults.Off, j.c.change
		j.c.mu.Unlock()
		if off {
			return false
		}
		if !jammed {
			return true
		}
		select {
		case <-change:
		case <-j.ctx.Done():
			return false
		}
	}
}

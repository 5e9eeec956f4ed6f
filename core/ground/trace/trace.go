// Package trace turns pictures into outlines: it finds the edge of what is traced to a small
// part of a pixel, the few straight edges that follow it, its corners, and the few cubics
// between them. Lengths are pixels from the picture's upper left corner, x right and y down;
// outer rings run clockwise on screen, holes the other way.
package trace

import (
	"context"
	"fmt"
	"math"
	"runtime"
	"sync"

	"sectilis/core/ground/geom"
)

// Options are how an outline is drawn.
type Options struct {
	// Smooth is how far the outline may lie from the picture's edge, in pixels. What is
	// less than Fine is taken as Fine.
	Smooth float64
	// Corner is the turn from which on a corner is kept, radians.
	Corner float64
	// Speck is the area below which a part, or a hole, is left out, square pixels.
	Speck float64
	// Outer leaves holes out.
	Outer bool
}

// Fine is the nearest that an outline follows a picture, in pixels, and UsualCorner the
// turn of a corner in radians, until they are set.
const (
	Fine        = .25
	UsualCorner = .35
)

// step is how far the outline may lie from an edge that goes in steps from pixel to pixel, in
// pixels: nearer it would follow the steps.
const step = 1

// Result is an outline and what was left out of it.
type Result struct {
	Outline geom.Path
	Nodes   int // the ends of lines and curves
	Specks  int // parts and holes that were left out since they are small
}

// maxPoints and maxRings bound what one outline is made of.
const (
	maxPoints = 400_000
	maxRings  = 3_000
)

// TooMuch is returned for a picture whose outline has more parts than anybody could cut; Parts
// is 0 where it has fewer, but an edge that is ragged all over.
type TooMuch struct{ Parts int }

func (e *TooMuch) Error() string {
	if e.Parts == 0 {
		return "the edge is ragged all over"
	}
	return fmt.Sprintf("more than %d parts were found", e.Parts)
}

// Trace draws the outline of what a field covers. It returns an empty outline where nothing
// is covered, a *TooMuch for what is ragged all over, and the context's error once it ends.
func Trace(ctx context.Context, f *Field, o Options) (Result, error) {
	o.Smooth = max(o.Smooth, Fine)
	if o.Corner <= 0 {
		o.Corner = UsualCorner
	}
	var res Result
	type ring struct {
		pts []geom.Point
		o   Options
	}
	var rings []ring
	var err error
	points := 0
	f.walk(func(l *loop) bool {
		switch {
		case ctx.Err() != nil:
			err = ctx.Err()
		case math.Abs(l.area) < max(o.Speck, 1):
			res.Specks++
		case l.area < 0 && o.Outer:
		case len(rings) == maxRings:
			err = &TooMuch{maxRings}
		case points+len(l.pts) > maxPoints:
			err = &TooMuch{}
		default:
			points += len(l.pts)
			own := o
			if l.hardEdged() {
				own.Smooth = max(o.Smooth, step)
			}
			rings = append(rings, ring{append([]geom.Point(nil), l.pts...), own})
		}
		return err == nil
	})
	if err != nil {
		return Result{}, err
	}
	paths := make([]geom.Path, len(rings))
	var wg sync.WaitGroup
	next := make(chan int)
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			for i := range next {
				if ctx.Err() == nil {
					paths[i] = drawRing(ctx, rings[i].pts, rings[i].o)
				}
			}
		})
	}
	for i := range rings {
		next <- i
	}
	close(next)
	wg.Wait()
	if ctx.Err() != nil {
		return Result{}, ctx.Err()
	}
	res.Outline = geom.Join(paths...)
	res.Outline.Segments(func(_ geom.Point, s geom.Segment) {
		if s.Op != geom.MoveTo && s.Op != geom.Close {
			res.Nodes++
		}
	})
	return res, nil
}

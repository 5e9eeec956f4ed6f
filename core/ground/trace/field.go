package trace

import (
	"encoding/binary"
	"math/bits"

	"sectilis/core/ground/geom"
)

// Field says how much of every pixel is covered by what is traced: 0 is nothing, 255 all of it.
// It has a margin of one pixel of nothing, so that what runs to the picture's edge ends there.
type Field struct {
	W, H   int // of the picture, in pixels
	stride int
	v      []uint8
}

// NewField is an empty field of a picture's size.
func NewField(w, h int) *Field {
	return &Field{W: w, H: h, stride: w + 2, v: make([]uint8, (w+2)*(h+2))}
}

// Row is the coverage of a row of pixels, to be read or set.
func (f *Field) Row(y int) []uint8 {
	at := (y+1)*f.stride + 1
	return f.v[at : at+f.W : at+f.W]
}

// half is the coverage from which on a pixel counts as inside. The edge runs where the
// coverage between the middles of two pixels is half.
const (
	half = 128
	edge = 127.5
)

// loop is an edge once round: the places where it passes between the middles of pixels, one
// after the other, with what is covered on the right.
type loop struct {
	pts  []geom.Point
	area float64 // that it encloses, in square pixels, negative round a hole
	// turns is how often it turns from one row or column to another, and hard how often it
	// does so between a pixel that is covered and one that is not: in a picture without
	// softened edges always.
	turns, hard int
}

// hardEdged reports whether the edge goes in steps from pixel to pixel.
func (l *loop) hardEdged() bool { return l.hard*10 > l.turns*9 }

// walk follows every edge of the field and gives it to ring, which may use it until it returns.
// It ends early when ring returns false.
func (f *Field) walk(ring func(l *loop) bool) {
	seen := make([]uint64, len(f.v)/64+1)
	var l loop
	for y := 1; y <= f.H; y++ {
		row := y * f.stride
		for at := row + 1; at <= row+f.W; at++ {
			at = f.skip(at, row+f.W)
			if at > row+f.W {
				break
			}
			if f.v[at] < half || f.v[at-1] >= half || seen[at/64]>>(at%64)&1 != 0 {
				continue
			}
			f.follow(at, seen, &l)
			if !ring(&l) {
				return
			}
		}
	}
}

// crossing is where the edge passes between the middle of a pixel inside and that of the pixel
// outside it that lies a step away, as a share of the way. Where both stand between a pixel
// that is covered and one that is not, their coverage tells it exactly for every straight
// edge; else it is where the coverage would be half if it changed evenly.
func (f *Field) crossing(in, step int) float64 {
	a, b := float64(f.v[in]), float64(f.v[in+step])
	if before, after := in-step, in+2*step; before >= 0 && before < len(f.v) && after >= 0 && after < len(f.v) {
		if f.v[before] >= 255-clean && f.v[after] <= clean {
			return (a+b)/255 - .5
		}
	}
	return (a - edge) / (a - b)
}

// clean is how far a covered or an empty pixel may be from it for noise.
const clean = 24

const tops = 0x8080808080808080

// skip goes on to the next pixel up to end that may differ from the one before it.
func (f *Field) skip(at, end int) int {
	for at+8 <= end {
		word := binary.LittleEndian.Uint64(f.v[at:]) & tops
		before := binary.LittleEndian.Uint64(f.v[at-1:]) & tops
		if d := word ^ before; d != 0 {
			return at + bits.TrailingZeros64(d)/8
		}
		at += 8
	}
	return at
}

// follow goes once round the edge that has the pixel at the given place inside and its left
// neighbour outside, and marks in seen where it passes such pairs.
func (f *Field) follow(start int, seen []uint64, l *loop) {
	*l = loop{pts: l.pts[:0]}
	// Directions: 0 up, 1 right, 2 down, 3 left. out leads from the inner pixel to the outer.
	steps := [4]int{-f.stride, 1, f.stride, -1}
	dx, dy := [4]float64{0, 1, 0, -1}, [4]float64{-1, 0, 1, 0}
	in, out := start, 3
	x, y := float64(start%f.stride)-.5, float64(start/f.stride)-.5
	for {
		if out == 3 {
			seen[in/64] |= 1 << (in % 64)
		}
		t := f.crossing(in, steps[out])
		p := geom.Pt(x+dx[out]*t, y+dy[out]*t)
		if n := len(l.pts); n > 0 {
			l.area += l.pts[n-1].Cross(p)
		}
		l.pts = append(l.pts, p)
		ahead := (out + 1) % 4 // what is inside lies on the right
		on, off := in+steps[ahead], in+steps[ahead]+steps[out]
		inside, across := f.v[on] >= half, f.v[off] >= half
		if !inside && across {
			// Two pixels touch at a corner: they hang together if the mean of the four does.
			inside = int(f.v[in])+int(f.v[in+steps[out]])+int(f.v[on])+int(f.v[off]) >= 4*edge
			across = inside
		}
		if across || !inside {
			l.turns++
			if f.v[in] >= 255-clean && f.v[in+steps[out]] <= clean {
				l.hard++
			}
		}
		switch {
		case across:
			in, x, y = off, x+dx[ahead]+dx[out], y+dy[ahead]+dy[out]
			out = (out + 3) % 4
		case inside:
			in, x, y = on, x+dx[ahead], y+dy[ahead]
		default:
			out = ahead
		}
		if in == start && out == 3 {
			break
		}
	}
	l.area = (l.area + l.pts[len(l.pts)-1].Cross(l.pts[0])) / 2
}

// Package infill fills holes of a picture from what is about them: patches of the hole become like
// patches that are there, nearest ones found by propagation and random search (Barnes, Shechtman,
// Finkelstein and Goldman, PatchMatch, 2009), from a coarse copy to a fine one (Wexler, Shechtman
// and Irani, Space-time completion of video, 2007). The same picture, hole and seed give the same
// pixels.
package infill

import (
	"context"
	"image"
	"math"
	"math/rand/v2"

	"github.com/kovidgoyal/imaging"

	"sectilis/core/ground/pixels"
)

// reach is how far a patch goes to each side of its middle, workSide the longer side of the finest
// copy in which patches are sought, and leastSide that of the coarsest.
const (
	reach     = 3
	workSide  = 420
	leastSide = 28
)

// Fill fills the pixels of a picture for which hole is true, in place. Where all is hole, or next
// to all, nothing is done, and ok is false. It returns the error of the context, and the picture
// is spoilt then.
func Fill(ctx context.Context, img *image.NRGBA, hole []bool, seed uint64) (ok bool, err error) {
	roi := around(hole, img.Rect.Dx(), img.Rect.Dy())
	if roi.Empty() {
		return true, ctx.Err()
	}
	full := newLevel(img, hole, roi)
	levels := []*level{full.shrunk(workSide)}
	for {
		last := levels[len(levels)-1]
		if max(last.w, last.h)/2 < leastSide {
			break
		}
		levels = append(levels, last.shrunk(max(last.w, last.h)/2))
	}
	// The coarsest one in which whole patches are left.
	for len(levels) > 0 && !levels[len(levels)-1].sources() {
		levels = levels[:len(levels)-1]
	}
	if len(levels) == 0 {
		return false, ctx.Err()
	}
	r := rand.New(rand.NewPCG(seed, 0x5ec7))
	var before *level
	for i := len(levels) - 1; i >= 0; i-- {
		l := levels[i]
		l.begin(before, r)
		turns := 4 + 2*i
		for range turns {
			if err := l.match(ctx, r); err != nil {
				return false, err
			}
			l.vote()
		}
		before = l
	}
	if err := before.match(ctx, r); err != nil {
		return false, err
	}
	full.take(before)
	full.put(img, roi)
	return true, ctx.Err()
}

// around is the part of a picture that a hole is filled from: as much again on every side.
func around(hole []bool, w, h int) image.Rectangle {
	box := image.Rectangle{}
	for i, is := range hole {
		if is {
			box = box.Union(image.Rect(i%w, i/w, i%w+1, i/w+1))
		}
	}
	if box.Empty() {
		return box
	}
	more := max(box.Dx(), box.Dy(), 64)
	return box.Inset(-more).Intersect(image.Rect(0, 0, w, h))
}

// level is a copy of the part that is worked on.
type level struct {
	w, h  int
	c     [][3]float32
	hole  []bool
	clear []bool  // the middles of patches without any hole
	from  []int32 // for each patch that touches the hole, the patch that it is like; by its middle
	far   []float32
	deep  pixels.Plane // how far in the hole pixels are
	todo  []int32      // the middles of the patches that touch the hole
}

func newLevel(img *image.NRGBA, hole []bool, roi image.Rectangle) *level {
	l := &level{w: roi.Dx(), h: roi.Dy()}
	l.c, l.hole = make([][3]float32, l.w*l.h), make([]bool, l.w*l.h)
	for y := range l.h {
		for x := range l.w {
			p := img.Pix[img.PixOffset(roi.Min.X+x, roi.Min.Y+y):]
			l.c[y*l.w+x] = [3]float32{float32(p[0]), float32(p[1]), float32(p[2])}
			l.hole[y*l.w+x] = hole[(roi.Min.Y+y)*img.Rect.Dx()+roi.Min.X+x]
		}
	}
	return l
}

// shrunk is a copy with a longer side; a pixel is of the hole where any of it is.
func (l *level) shrunk(side int) *level {
	k := min(float64(side)/float64(max(l.w, l.h)), 1)
	out := &level{w: max(int(math.Round(float64(l.w)*k)), 1), h: max(int(math.Round(float64(l.h)*k)), 1)}
	out.c, out.hole = make([][3]float32, out.w*out.h), make([]bool, out.w*out.h)
	// What is there alone makes the colours.
	img := image.NewNRGBA(image.Rect(0, 0, l.w, l.h))
	for i, c := range l.c {
		a := uint8(255)
		if l.hole[i] {
			a = 0
		}
		img.Pix[4*i], img.Pix[4*i+1], img.Pix[4*i+2], img.Pix[4*i+3] = pixels.Byte(float64(c[0])), pixels.Byte(float64(c[1])), pixels.Byte(float64(c[2])), a
	}
	small := imaging.AsNRGBA(imaging.Resize(img, out.w, out.h, imaging.Box))
	for i := range out.c {
		p := small.Pix[4*i:]
		out.c[i], out.hole[i] = [3]float32{float32(p[0]), float32(p[1]), float32(p[2])}, p[3] < 250
	}
	return out
}

// sources finds the patches without any hole, and those that touch it; false where there are too
// few of the first to choose from.
func (l *level) sources() bool {
	l.clear, l.todo = make([]bool, len(l.c)), nil
	n := 0
	for y := reach; y < l.h-reach; y++ {
		for x := reach; x < l.w-reach; x++ {
			i := y*l.w + x
			l.clear[i] = true
			for v := -reach; v <= reach && l.clear[i]; v++ {
				for u := -reach; u <= reach; u++ {
					if l.hole[i+v*l.w+u] {
						l.clear[i] = false
						break
					}
				}
			}
			if l.clear[i] {
				n++
			}
		}
	}
	l.deep, _ = pixels.Distance(context.Background(), l.w, l.h, func(i int) bool { return !l.hole[i] })
	for i := range l.hole {
		if l.near(i) {
			l.todo = append(l.todo, int32(i))
		}
	}
	return n >= 12
}

// near reports whether the patch about a pixel touches the hole.
func (l *level) near(i int) bool {
	x, y := i%l.w, i/l.w
	for v := max(y-reach, 0); v <= min(y+reach, l.h-1); v++ {
		for u := max(x-reach, 0); u <= min(x+reach, l.w-1); u++ {
			if l.hole[v*l.w+u] {
				return true
			}
		}
	}
	return false
}

// begin gives each patch of the hole a first one that it is like: that of a coarser level, or any.
func (l *level) begin(before *level, r *rand.Rand) {
	if l.clear == nil && !l.sources() {
		return
	}
	l.from, l.far = make([]int32, len(l.c)), make([]float32, len(l.c))
	if before == nil {
		l.flood()
		for _, i := range l.todo {
			l.from[i] = l.any(r)
		}
		return
	}
	kx, ky := float64(before.w)/float64(l.w), float64(before.h)/float64(l.h)
	for _, i := range l.todo {
		x, y := int(i)%l.w, int(i)/l.w
		bx, by := min(int((float64(x)+.5)*kx), before.w-1), min(int((float64(y)+.5)*ky), before.h-1)
		j := before.from[by*before.w+bx]
		// As far from it as it was there.
		u := x + int(math.Round(float64(int(j)%before.w-bx)/kx))
		v := y + int(math.Round(float64(int(j)/before.w-by)/ky))
		l.from[i] = l.any(r)
		if u >= 0 && v >= 0 && u < l.w && v < l.h && l.clear[v*l.w+u] {
			l.from[i] = int32(v*l.w + u)
		}
	}
	for i := range l.hole {
		if l.hole[i] {
			x, y := int(float64(i%l.w)*kx), int(float64(i/l.w)*ky)
			l.c[i] = before.c[min(y, before.h-1)*before.w+min(x, before.w-1)]
		}
	}
	l.vote()
}

// any is the middle of some patch without a hole.
func (l *level) any(r *rand.Rand) int32 {
	for range 400 {
		if i := r.IntN(len(l.c)); l.clear[i] {
			return int32(i)
		}
	}
	for i, is := range l.clear {
		if is {
			return int32(i)
		}
	}
	return 0
}

// flood fills the hole from its edge with the means of neighbours that are known.
func (l *level) flood() {
	known := make([]bool, len(l.c))
	for i, is := range l.hole {
		known[i] = !is
	}
	for left := true; left; {
		left = false
		var filled []int
		for i := range known {
			if known[i] {
				continue
			}
			if c, ok := l.beside(i, known); ok {
				l.c[i] = c
				filled = append(filled, i)
			}
		}
		for _, i := range filled {
			known[i], left = true, true
		}
	}
}

// beside is the mean of the neighbours of a pixel that are known; ok is false where none is.
func (l *level) beside(i int, known []bool) (c [3]float32, ok bool) {
	n := float32(0)
	x, y := i%l.w, i/l.w
	for v := max(y-1, 0); v <= min(y+1, l.h-1); v++ {
		for u := max(x-1, 0); u <= min(x+1, l.w-1); u++ {
			if j := v*l.w + u; known[j] {
				n++
				for k := range c {
					c[k] += (l.c[j][k] - c[k]) / n
				}
			}
		}
	}
	return c, n > 0
}

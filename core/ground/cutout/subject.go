package cutout

import (
	"context"
	"image"
	"math"

	"sectilis/core/ground/pixels"
)

// The sides of the copies in which a subject is first told, and in which its edge is then found
// along what was told; and how far that may be off, in pixels of the second.
const (
	firstSide   = 300
	edgeReach   = 7
	subjectBand = .006 // how far from the edge pixels may be of both, in shares of the longer side
)

// pull is how much neighbours belong together, and rounds how often the colours of both sides are
// found anew (Rother, Kolmogorov and Blake, 2004).
const (
	pull   = 50
	rounds = 4
)

// matte tells what stays of a subject.
func (s Subject) matte(ctx context.Context, img *image.NRGBA) (*matte, error) {
	small := shrunk(img, firstSide)
	f := newField(small, s.marks(small))
	if err := f.tell(ctx); err != nil {
		return nil, err
	}
	stays := f.kept()
	large := newField(img, s.marks(img))
	large.fore, large.back = f.fore, f.back
	if err := large.follow(ctx, stays, small.Rect.Dx(), small.Rect.Dy()); err != nil {
		return nil, err
	}
	longer := float64(max(large.w, large.h))
	m, err := newMatte(ctx, img, func(i int) bool { return large.in[i] }, large.marks, max(subjectBand*longer, leastBand))
	if err != nil {
		return nil, err
	}
	return m, m.widen(ctx, img, large.marks)
}

// marks are the pixels of a picture that strokes say stay, 1, or go, -1; what lies out of a line
// that was drawn round it goes.
func (s Subject) marks(img *image.NRGBA) []int8 {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	out := make([]int8, w*h)
	if len(s.Round) > 2 {
		for i, a := range polygon(w, h, s.Round).Pix {
			if a == 0 {
				out[i] = -1
			}
		}
	}
	for _, of := range []struct {
		all []Stroke
		is  int8
	}{{s.Stays, 1}, {s.Goes, -1}} {
		for _, k := range of.all {
			k.each(w, h, func(i int, d, r float64) {
				if d <= max(r, 1) {
					out[i] = of.is
				}
			})
		}
	}
	return out
}

// field is a picture of which it is told what stays.
type field struct {
	w, h       int
	colours    []rgb
	marks      []int8
	in         []bool
	fore, back mixture
	contrast   float64 // by which a difference of colours is weighed
}

func newField(img *image.NRGBA, marks []int8) *field {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	f := &field{w: w, h: h, colours: make([]rgb, w*h), marks: marks, in: make([]bool, w*h)}
	for y := range h {
		for x := range w {
			p := img.Pix[y*img.Stride+4*x:]
			f.colours[y*w+x] = rgb{float64(p[0]), float64(p[1]), float64(p[2])}
		}
	}
	sum, n := 0.0, 0.0
	for y := range h {
		for x := 1; x < w; x++ {
			sum, n = sum+apart(f.colours[y*w+x], f.colours[y*w+x-1]), n+1
		}
	}
	f.contrast = 1 / max(2*sum/max(n, 1), 1e-3)
	return f
}

func apart(a, b rgb) float64 {
	x, y, z := a[0]-b[0], a[1]-b[1], a[2]-b[2]
	return x*x + y*y + z*z
}

// tell finds what stays by the colours of the marks, and those by what was told, in turn.
func (f *field) tell(ctx context.Context) error {
	stays, goes := f.marked()
	f.fore, f.back = mixtureOf(stays), mixtureOf(goes)
	for k := range rounds {
		if err := ctx.Err(); err != nil {
			return err
		}
		f.cut(func(int) bool { return true })
		if k == rounds-1 {
			break
		}
		stays, goes = stays[:0], goes[:0]
		for i, c := range f.colours {
			if f.in[i] {
				stays = append(stays, c)
			} else {
				goes = append(goes, c)
			}
		}
		if len(stays) == 0 || len(goes) == 0 {
			break
		}
		f.fore, f.back = mixtureOf(stays), mixtureOf(goes)
	}
	return nil
}

// marked are the colours of what is marked: where nothing is marked to go, of what lies at the edge
// of the picture, and where nothing is marked to stay, of all that is not marked.
func (f *field) marked() (stays, goes []rgb) {
	for i, m := range f.marks {
		switch {
		case m > 0:
			stays = append(stays, f.colours[i])
		case m < 0:
			goes = append(goes, f.colours[i])
		}
	}
	edge, within := len(goes) == 0, len(stays) == 0
	for i, c := range f.colours {
		if f.marks[i] != 0 {
			continue
		}
		if x, y := i%f.w, i/f.w; edge && (x < 2 || y < 2 || x >= f.w-2 || y >= f.h-2) {
			goes = append(goes, c)
		}
		if within {
			stays = append(stays, c)
		}
	}
	return stays, goes
}

// cut parts the pixels that are open into those that stay and those that go, with the least cost:
// of colours that are unlikely there, and of alike neighbours that are parted. The others stay on
// the side that they are on.
func (f *field) cut(open func(i int) bool) {
	node := make([]int32, len(f.colours))
	var at []int32
	for i := range node {
		node[i] = none
		if f.marks[i] != 0 {
			f.in[i] = f.marks[i] > 0
		} else if open(i) {
			node[i] = int32(len(at))
			at = append(at, int32(i))
		}
	}
	g := newNetwork(len(at), 4*len(at))
	// The likelihoods are worked out side by side.
	costs := make([][2]float32, len(at))
	_ = pixels.Rows(context.Background(), len(at), func(from, to int) {
		for k := from; k < to; k++ {
			c := f.colours[at[k]]
			costs[k] = [2]float32{float32(f.back.unlikely(c)), float32(f.fore.unlikely(c))}
		}
	})
	for k, c := range costs {
		g.tie(int32(k), c[0], c[1])
	}
	ways := [4][2]int{{1, 0}, {0, 1}, {1, 1}, {-1, 1}}
	for i := range f.colours {
		x, y := i%f.w, i/f.w
		for n, d := range ways {
			u, v := x+d[0], y+d[1]
			if u < 0 || u >= f.w || v >= f.h {
				continue
			}
			j := v*f.w + u
			a, b := node[i], node[j]
			if a == none && b == none {
				continue
			}
			weight := float32(pull * math.Exp(-f.contrast*apart(f.colours[i], f.colours[j])))
			if n > 1 {
				weight /= math.Sqrt2
			}
			switch {
			case a != none && b != none:
				g.join(a, b, weight)
			case a != none:
				g.side(a, f.in[j], weight)
			default:
				g.side(b, f.in[i], weight)
			}
		}
	}
	g.cut()
	for k, i := range at {
		f.in[i] = g.ofSource(int32(k))
	}
}

// side ties a node to a neighbour whose side is known.
func (g *network) side(node int32, source bool, weight float32) {
	if source {
		g.tie(node, weight, 0)
	} else {
		g.tie(node, 0, weight)
	}
}

// kept is what stays without parts that no stroke touches, where strokes say what stays, and
// without small holes that none says goes.
func (f *field) kept() []bool {
	out := append([]bool(nil), f.in...)
	strokes := false
	for _, m := range f.marks {
		strokes = strokes || m > 0
	}
	least := len(out) / 1200
	take := func(wanted func(in bool, all int, marked [2]bool) bool) {
		f.parts(out, func(all []int32, marked [2]bool) {
			if in := out[all[0]]; wanted(in, len(all), marked) {
				for _, i := range all {
					out[i] = !in
				}
			}
		})
	}
	take(func(in bool, all int, marked [2]bool) bool {
		return in && (strokes && !marked[1] || !strokes && all < least)
	})
	take(func(in bool, all int, marked [2]bool) bool { return !in && all < least && !marked[0] })
	return out
}

// parts visits the connected parts of both sides of a mask, with whether a mark says of them that they
// go, or stay.
func (f *field) parts(in []bool, visit func(all []int32, marked [2]bool)) {
	seen := make([]bool, len(in))
	for i := range seen {
		if seen[i] {
			continue
		}
		seen[i] = true
		all := []int32{int32(i)}
		var marked [2]bool
		for k := 0; k < len(all); k++ {
			j := int(all[k])
			if m := f.marks[j]; m != 0 {
				marked[(m+1)/2] = true
			}
			x := j % f.w
			for _, n := range [4]struct {
				to int
				ok bool
			}{{j - 1, x > 0}, {j + 1, x < f.w-1}, {j - f.w, j >= f.w}, {j + f.w, j+f.w < len(seen)}} {
				if n.ok && !seen[n.to] && in[n.to] == in[j] {
					seen[n.to] = true
					all = append(all, int32(n.to))
				}
			}
		}
		visit(all, marked)
	}
}

// follow takes over what was told in a smaller copy of a size, and finds its edge anew along it
// (Lombaert, Sun, Grady and Xu, A multilevel banded graph cuts method, 2005).
func (f *field) follow(ctx context.Context, stays []bool, w, h int) error {
	was := pixels.NewPlane(w, h)
	for i, s := range stays {
		if s {
			was.V[i] = 1
		}
	}
	for i := range f.in {
		x, y := float64(i%f.w)+.5, float64(i/f.w)+.5
		f.in[i] = was.Sample(x*float64(w)/float64(f.w), y*float64(h)/float64(f.h)) >= .5
	}
	edge, err := pixels.Distance(ctx, f.w, f.h, func(i int) bool {
		x := i % f.w
		return x+1 < f.w && f.in[i] != f.in[i+1] || i+f.w < len(f.in) && f.in[i] != f.in[i+f.w]
	})
	if err != nil {
		return err
	}
	reach := float32(edgeReach * max(float64(f.w)/float64(w), 1) / 2)
	f.cut(func(i int) bool { return edge.V[i] <= reach })
	return ctx.Err()
}

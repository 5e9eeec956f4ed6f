package cutout

import (
	"context"
	"image"
	"math"
	"slices"
	"sync"

	"github.com/kovidgoyal/imaging"

	"sectilis/core/ground/pixels"
)

// shrunk is a picture, or a copy with the longer side in pixels.
func shrunk(img *image.NRGBA, side int) *image.NRGBA {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	if max(w, h) <= side {
		return img
	}
	k := float64(side) / float64(max(w, h))
	return imaging.AsNRGBA(imaging.Resize(img, max(int(math.Round(float64(w)*k)), 1), max(int(math.Round(float64(h)*k)), 1), imaging.Box))
}

// newMatte is the matte of a picture of which it is told what stays; known are pixels of which it
// is certain, and which are not of both: 1 for those that stay, -1 for those that go.
func newMatte(ctx context.Context, img *image.NRGBA, stays func(i int) bool, known []int8, band float64) (*matte, error) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	outside, err := pixels.Distance(ctx, w, h, stays)
	if err != nil {
		return nil, err
	}
	m := &matte{band: band}
	if m.depth, err = pixels.Distance(ctx, w, h, func(i int) bool { return !stays(i) }); err != nil {
		return nil, err
	}
	for i := range m.depth.V {
		// The edge lies half way between the middles of two pixels.
		if stays(i) {
			m.depth.V[i] -= .5
		} else {
			m.depth.V[i] = .5 - outside.V[i]
		}
	}
	m.narrow()
	band = m.band
	for i, k := range known {
		if k > 0 {
			m.depth.V[i] = max(m.depth.V[i], float32(band)+1)
		} else if k < 0 {
			m.depth.V[i] = min(m.depth.V[i], -float32(band)-1)
		}
	}
	m.open = pixels.NewPlane(w, h)
	for i, d := range m.depth.V {
		// What lies at the end of the band is what is beyond it.
		m.open.V[i] = min(max((float32(m.band)-max(d, -d))/float32(.25*m.band), 0), 1)
	}
	return m, nil
}

// narrow makes the band as narrow as is needed for some of what stays, and of what goes, to lie
// deeper.
func (m *matte) narrow() {
	const enough = .02
	for ; m.band > 1; m.band *= .7 {
		var in, deep, out, far float64
		for _, d := range m.depth.V {
			if d > 0 {
				in++
				if d > float32(m.band) {
					deep++
				}
			} else {
				out++
				if d < -float32(m.band) {
					far++
				}
			}
		}
		if deep >= enough*in && far >= enough*out {
			return
		}
	}
}

// Parts of the edge that are wider than its band are followed from it as far as pixels are of both
// sides, no farther than a share of the longer side.
const (
	wideEdge    = .09
	surelyMixed = .8  // the share of which a pixel is mixed, as long as the colours of both sides are rough
	mostMixed   = .92 // and once they are known
	trustMixed  = .75 // how far the colours are to tell one side from the other
	leastWithin = .35 // of what was told to stay, to be mixed and no gap
	again       = .4  // by how much more of a pixel may stay than of those on the way to it
	beside      = .06 // the square of how far beside colours of both sides may be
	widerRounds = 2
)

// widen opens what is mixed beyond the band, such as hair and soft edges, and finds the colours of
// both sides anew without it.
func (m *matte) widen(ctx context.Context, img *image.NRGBA, known []int8) error {
	w, h := m.depth.W, m.depth.H
	most := float32(wideEdge * float64(max(w, h)))
	edge := float32(m.band)
	// First the colours of what lies deep, since what lies less deep may be mixed.
	in, out := m.deep(most)
	for round := range widerRounds {
		if err := m.colours(ctx, img, in, out); err != nil {
			return err
		}
		in, out = edge, edge
		mixed := float32(mostMixed)
		if round == 0 {
			mixed = surelyMixed
		}
		m.follow(img, known, most, edge, mixed)
	}
	return m.colours(ctx, img, edge, edge)
}

// follow opens what is mixed from what is open on, pixel by pixel.
func (m *matte) follow(img *image.NRGBA, known []int8, most, edge, mixed float32) {
	w, h := m.depth.W, m.depth.H
	var at []int32
	var shares []float32 // the least on the way from the edge
	seen := make([]bool, w*h)
	for i := range seen {
		if m.open.V[i] > .99 {
			seen[i] = true
			at, shares = append(at, int32(i)), append(shares, m.shareOf(img, i))
		}
	}
	for k := 0; k < len(at); k++ {
		i := int(at[k])
		x := i % w
		for _, n := range [4]struct {
			to int
			ok bool
		}{{i - 1, x > 0}, {i + 1, x < w-1}, {i - w, i >= w}, {i + w, i+w < w*h}} {
			j := n.to
			if !n.ok || seen[j] || known != nil && known[j] != 0 {
				continue
			}
			a := m.shareOf(img, j)
			// Outside a plain ground, what is of the subject again lies beside it.
			if m.plain == nil && m.depth.V[j] < 0 && a > shares[k]+again || !m.mixed(img, j, a, most, edge, mixed) {
				continue
			}
			seen[j] = true
			m.open.V[j] = 1
			at, shares = append(at, int32(j)), append(shares, min(a, shares[k]))
		}
	}
}

// shareOf is share of a pixel of the copy.
func (m *matte) shareOf(img *image.NRGBA, i int) float32 {
	x, y := i%m.depth.W, i/m.depth.W
	return m.share(img.Pix[y*img.Stride+4*x:], float64(x)+.5, float64(y)+.5)
}

// mixed reports whether a pixel of the copy, of which a share stays by its colour, is of both sides.
func (m *matte) mixed(img *image.NRGBA, j int, a, most, edge, mixed float32) bool {
	d := m.depth.V[j]
	if max(d, -d) > most || m.trust.V[m.half(j)] < trustMixed {
		return false
	}
	w := m.depth.W
	if m.beside(img.Pix[j/w*img.Stride+4*(j%w):], j, a) > beside || d > 0 && a > mixed || d <= 0 && a < 1-mixed {
		return false
	}
	// What was told to stay for other reasons than its colour is no gap.
	return m.plain != nil || d <= edge || a >= leastWithin
}

// beside is how far the colour of a pixel of the copy is from that of which a share stays, of the
// way between the colours of both sides: little where it is of both and of nothing else.
func (m *matte) beside(p []uint8, i int, a float32) float32 {
	var off, apart float32
	for c := range 3 {
		f, b := m.fore[c].V[m.half(i)], m.back[c].V[m.half(i)]
		d := float32(p[c]) - b - a*(f-b)
		off, apart = off+d*d, apart+(f-b)*(f-b)
	}
	return off / max(apart, 1)
}

// half is where a pixel of the copy is in what is half as large.
func (m *matte) half(i int) int { return i/m.depth.W/2*m.trust.W + i%m.depth.W/2 }

// deep are depths within what stays, and goes, that a fair share of each lies deeper than; no more
// than most.
func (m *matte) deep(most float32) (in, out float32) {
	var stays, goes []float32
	for i := 0; i < len(m.depth.V); i += 7 { // enough to tell
		if d := m.depth.V[i]; d > 0 {
			stays = append(stays, d)
		} else {
			goes = append(goes, -d)
		}
	}
	of := func(v []float32) float32 {
		if len(v) == 0 {
			return 0
		}
		slices.Sort(v)
		return min(v[len(v)*6/10], most)
	}
	return of(stays), of(goes)
}

// colours finds what the edge is made of: the colours of what certainly stays and goes, so many
// pixels in and out, nearest to each place, and how far these tell one from the other.
func (m *matte) colours(ctx context.Context, img *image.NRGBA, in, out float32) error {
	var fore, back known
	var both sync.WaitGroup
	both.Go(func() {
		fore = spread(img, func(i int) bool { return m.depth.V[i] > in && m.open.V[i] == 0 })
	})
	back = spread(img, func(i int) bool {
		return m.depth.V[i] < -out && m.open.V[i] == 0 || m.plain != nil && m.plain[i]
	})
	both.Wait()
	m.fore, m.back = fore.mean, back.mean
	m.trust = pixels.NewPlane(fore.variance.W, fore.variance.H)
	m.noise = pixels.NewPlane(fore.variance.W, fore.variance.H)
	return pixels.Rows(ctx, m.trust.H, func(from, to int) {
		for i := from * m.trust.W; i < to*m.trust.W; i++ {
			var apart float32
			for c := range 3 {
				d := fore.mean[c].V[i] - back.mean[c].V[i]
				apart += d * d
			}
			noise := fore.variance.V[i] + back.variance.V[i]
			m.trust.V[i] = apart / (apart + 2*noise + 200)
			m.noise.V[i] = min(max(1.2*float32(math.Sqrt(float64(noise/2/max(apart, 1)))), .015), .1)
		}
	})
}

// alpha is how much of each pixel of the picture stays, 0 to 1.
func (m *matte) alpha(ctx context.Context, img *image.NRGBA) (pixels.Plane, error) {
	out := pixels.NewPlane(img.Rect.Dx(), img.Rect.Dy())
	kx, ky := float64(m.depth.W)/float64(out.W), float64(m.depth.H)/float64(out.H)
	err := pixels.Rows(ctx, out.H, func(y0, y1 int) {
		for y := y0; y < y1; y++ {
			for x := range out.W {
				u, v := (float64(x)+.5)*kx, (float64(y)+.5)*ky
				d := m.depth.Sample(u, v)
				a := min(max(.5+d/float32(kx), 0), 1)
				if open := m.open.Sample(u, v); open > 0 {
					a += (m.share(img.Pix[y*img.Stride+4*x:], u, v) - a) * m.trust.Sample(u/2, v/2) * open
				}
				out.V[y*out.W+x] = a
			}
		}
	})
	return out, err
}

// share is how much of a pixel stays by its colour, which lies between those of what stays and
// what goes there. Next to nothing and next to all are nothing and all.
func (m *matte) share(p []uint8, u, v float64) float32 {
	var dot, apart float32
	for c := range 3 {
		f, b := m.fore[c].Sample(u/2, v/2), m.back[c].Sample(u/2, v/2)
		dot += (float32(p[c]) - b) * (f - b)
		apart += (f - b) * (f - b)
	}
	if apart < 1 {
		return .5
	}
	n := m.noise.Sample(u/2, v/2)
	return min(max((dot/apart-n)/(1-2*n), 0), 1)
}

// take gives the picture the alpha, times what it had, and takes by clean the colour of what was
// behind out of what is partly there.
func (m *matte) take(ctx context.Context, img *image.NRGBA, alpha pixels.Plane, clean float64) error {
	kx, ky := float64(m.depth.W)/float64(alpha.W), float64(m.depth.H)/float64(alpha.H)
	return pixels.Rows(ctx, alpha.H, func(y0, y1 int) {
		for y := y0; y < y1; y++ {
			for x := range alpha.W {
				a := alpha.V[y*alpha.W+x]
				p := img.Pix[y*img.Stride+4*x:]
				p[3] = pixels.Byte(float64(p[3]) * float64(a))
				if a <= .002 || a >= .998 || clean <= 0 {
					continue
				}
				u, v := (float64(x)+.5)*kx, (float64(y)+.5)*ky
				if d := m.depth.Sample(u, v); m.open.Sample(u, v) == 0 && max(d, -d) > float32(m.band)+2 {
					continue // painted, or blurred beyond the edge
				}
				for c := range 3 {
					f, b := m.fore[c].Sample(u/2, v/2), m.back[c].Sample(u/2, v/2)
					is := float32(p[c])
					// The colour that, over what was behind, gives the pixel; where little of it
					// is there, rather that of what stays beside it (Forte, Approximate fast
					// foreground colour estimation, 2021).
					own := f + (is-a*f-(1-a)*b)*a/(a*a+.08*(1-a))
					p[c] = pixels.Byte(float64(is) + float64(min(max(own, 0), 255)-is)*clean)
				}
			}
		}
	})
}

// known are colours where they are known, and those nearest to every other place.
type known struct {
	mean     [3]pixels.Plane
	variance pixels.Plane
}

// spread takes the colours of some pixels to all others, in half the size: means of ever larger
// squares, the finest that hold enough (the pull-push algorithm; Gortler and others, The lumigraph,
// 1996).
func spread(img *image.NRGBA, is func(i int) bool) known {
	own := img.Rect.Dx()
	w, h := (own+1)/2, (img.Rect.Dy()+1)/2
	level := layer{w, h, make([][5]float32, w*h)}
	for y := range img.Rect.Dy() {
		for x := range own {
			p := img.Pix[y*img.Stride+4*x:]
			if p[3] < 128 || !is(y*own+x) {
				continue
			}
			r, g, b := float32(p[0]), float32(p[1]), float32(p[2])
			to := &level.v[y/2*w+x/2]
			to[0], to[1], to[2], to[3], to[4] = to[0]+r, to[1]+g, to[2]+b, to[3]+r*r+g*g+b*b, to[4]+1
		}
	}
	full := level.filled()
	out := known{variance: pixels.NewPlane(w, h)}
	for c := range 3 {
		out.mean[c] = pixels.NewPlane(w, h)
	}
	for i, v := range full.v {
		k := max(v[4], 1e-6)
		r, g, b := v[0]/k, v[1]/k, v[2]/k
		out.mean[0].V[i], out.mean[1].V[i], out.mean[2].V[i] = r, g, b
		out.variance.V[i] = max(v[3]/k-r*r-g*g-b*b, 0)
	}
	return out
}

// layer is a picture of sums: colours, their square, and how much they weigh.
type layer struct {
	w, h int
	v    [][5]float32
}

// enough is how much a place weighs before it needs nothing of coarser ones.
const enough = 1

// filled has in each place what it has itself and, as far as that is not enough, what coarser
// layers have there.
func (l layer) filled() layer {
	if l.w == 1 && l.h == 1 {
		return l
	}
	half := layer{(l.w + 1) / 2, (l.h + 1) / 2, nil}
	half.v = make([][5]float32, half.w*half.h)
	for y := range l.h {
		for x := range l.w {
			to, from := &half.v[y/2*half.w+x/2], &l.v[y*l.w+x]
			for k := range to {
				to[k] += from[k]
			}
		}
	}
	half = half.filled()
	out := layer{l.w, l.h, make([][5]float32, len(l.v))}
	for y := range l.h {
		for x := range l.w {
			own := l.v[y*l.w+x]
			if lack := enough - own[4]; lack > 0 {
				c := half.sample(float64(x)/2-.25, float64(y)/2-.25)
				if c[4] > 0 {
					k := lack / max(c[4], enough)
					for i := range own {
						own[i] += c[i] * k
					}
				}
			}
			out.v[y*l.w+x] = own
		}
	}
	return out
}

// sample is the layer between its places, counted from the middle of the first.
func (l layer) sample(x, y float64) (out [5]float32) {
	x, y = min(max(x, 0), float64(l.w-1)), min(max(y, 0), float64(l.h-1))
	x0, y0 := int(x), int(y)
	x1, y1 := min(x0+1, l.w-1), min(y0+1, l.h-1)
	u, v := float32(x-float64(x0)), float32(y-float64(y0))
	a, b, c, d := &l.v[y0*l.w+x0], &l.v[y0*l.w+x1], &l.v[y1*l.w+x0], &l.v[y1*l.w+x1]
	for i := range out {
		out[i] = (a[i]*(1-u)+b[i]*u)*(1-v) + (c[i]*(1-u)+d[i]*u)*v
	}
	return out
}

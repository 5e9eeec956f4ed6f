package testpage

import (
	"cmp"
	"context"
	"image"
	"math"
	"slices"

	"github.com/kovidgoyal/imaging"
	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/reshape"
)

// Unread is why no colours are read from a picture, as a sentence.
type Unread string

func (u Unread) Error() string { return string(u) }

const notSeen = Unread("No colour row is seen in that picture. It has to show the whole row with the black squares at its four corners, sharp and evenly lit: a scan, or a photo from straight above.")

// Read are the colours of the patches as they came out, in order, 0 to 255, from a picture of the
// page: relative to its paper, whose shade is evened out, and with its black as black. It returns an
// Unread for a picture without the row, and the error of the context.
func Read(ctx context.Context, img image.Image) ([]RGB, error) {
	const longest = 2400
	if b := img.Bounds(); max(b.Dx(), b.Dy()) > longest {
		img = imaging.Fit(img, longest, longest, imaging.Box)
	}
	page := imaging.AsNRGBA(img)
	spots := squares(page)
	slices.SortFunc(spots, func(a, b spot) int { return cmp.Compare(b.area, a.area) })
	for i, first := range spots {
		small := slices.DeleteFunc(slices.Clone(spots[i+1:]), func(s spot) bool {
			ratio := first.area / s.area
			return ratio < 1.6 || ratio > 4.5
		})
		for _, right := range small {
			for _, below := range small {
				if err := ctx.Err(); err != nil {
					return nil, err
				}
				corner, ok := fourth(first, right, below, small)
				if !ok {
					continue
				}
				if got, ok := read(ctx, page, [4]geom.Point{first.at, right.at, corner, below.at}); ok {
					return got, nil
				}
			}
		}
	}
	return nil, cmp.Or(ctx.Err(), error(notSeen))
}

// fourth is the mark across from the first.
func fourth(first, right, below spot, among []spot) (geom.Point, bool) {
	a, b := right.at.Sub(first.at), below.at.Sub(first.at)
	w, h := size()
	want := (w + 2*markAway) / (h + 2*markAway)
	if a.Cross(b) <= 0 || math.Abs(math.Log(a.Len()/b.Len()/want)) > .35 || math.Abs(math.Log(right.area/below.area)) > .6 {
		return geom.Point{}, false
	}
	to := right.at.Add(b)
	for _, s := range among {
		if s.at.Sub(to).Len() < .15*a.Len() {
			return s.at, true
		}
	}
	return geom.Point{}, false
}

// read takes the colours from between four marks; ok is false where there is no row.
func read(ctx context.Context, page *image.NRGBA, at [4]geom.Point) (out []RGB, ok bool) {
	w, h := float64(page.Rect.Dx()), float64(page.Rect.Dy())
	var c reshape.Corners
	for i, p := range at {
		c[i] = geom.Pt(p.X/w, p.Y/h)
	}
	if !c.Sound() {
		return nil, false
	}
	img, err := c.Square(ctx, page)
	if err != nil {
		return nil, false
	}
	sw, sh := size()
	per := geom.Pt(float64(img.Rect.Dx())/(sw+2*markAway), float64(img.Rect.Dy())/(sh+2*markAway))
	seen := func(p geom.Point, side float64) RGB {
		return meanOf(img, geom.Rect{X: (p.X + markAway - side/2) * per.X, Y: (p.Y + markAway - side/2) * per.Y, W: side * per.X, H: side * per.Y})
	}
	// Bare paper is seen at the middles of the four sides; between them its shade is a plane.
	across := [2]RGB{seen(geom.Pt(-.6, sh/2), .5), seen(geom.Pt(sw+.6, sh/2), .5)}
	down := [2]RGB{seen(geom.Pt(sw/2, -.6), .5), seen(geom.Pt(sw/2, sh+.6), .5)}
	var black RGB
	for i := range Patches() {
		p, is := middle(i), seen(middle(i), .5)
		for k := range is {
			mean := (across[0][k] + across[1][k] + down[0][k] + down[1][k]) / 4
			paper := mean + (p.X/sw-.5)*(across[1][k]-across[0][k]) + (p.Y/sh-.5)*(down[1][k]-down[0][k])
			is[k] = 255 * encoded(is[k]/max(paper, .01))
		}
		if i == 0 {
			black = is
		}
		for k := range is {
			is[k] = (is[k] - black[k]) / max(255-black[k], 1) * 255
		}
		out = append(out, is)
	}
	if max(black[0], black[1], black[2]) > 170 {
		return nil, false
	}
	for i := 1; i < greys; i++ { // greys grow lighter, or this is no row
		for k := range 3 {
			if out[i][k] < out[i-1][k]-12 {
				return nil, false
			}
		}
	}
	return out, out[greys-1][0] > 200
}

// meanOf is the mean of linear light in a box, 0 to 1.
func meanOf(img *image.NRGBA, box geom.Rect) (out RGB) {
	r := image.Rect(int(math.Ceil(box.X)), int(math.Ceil(box.Y)), max(int(box.Right()), int(math.Ceil(box.X))+1), max(int(box.Bottom()), int(math.Ceil(box.Y))+1)).Intersect(img.Rect)
	n := 0.0
	for y := r.Min.Y; y < r.Max.Y; y++ {
		for x := r.Min.X; x < r.Max.X; x++ {
			p := img.Pix[img.PixOffset(x, y):]
			for k := range out {
				out[k] += linear(p[k])
			}
			n++
		}
	}
	for k := range out {
		out[k] /= max(n, 1)
	}
	return out
}

func linear(v uint8) float64 {
	l, _, _ := colorful.Color{R: float64(v) / 255}.LinearRgb()
	return l
}

func encoded(v float64) float64 { return colorful.LinearRgb(min(max(v, 0), 1.2), 0, 0).R }

// Tone is a printer's correction after a page that was printed with another.
func Tone(was gamut.Tone, came []RGB) gamut.Tone {
	var printed []float64
	var tones [3][]float64
	for i, c := range Patches()[:greys] {
		printed = append(printed, c[0])
		for k := range tones {
			tones[k] = append(tones[k], came[i][k])
		}
	}
	return was.Corrected(printed, tones)
}

// Package raster paints inks into pixels, for previews and for printers that
// take a picture of the page.
package raster

import (
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"math"

	"github.com/kovidgoyal/imaging"
	"golang.org/x/image/vector"

	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/light"
)

// Pictures gives the decoded, upright picture with the id.
type Pictures func(id string) (image.Image, error)

// Canvas is a page of pixels that inks are painted on.
type Canvas struct {
	img   *image.RGBA
	scale float64 // pixels per mm
	pics  Pictures
	tiles map[string]*image.RGBA
	sized map[string]*image.RGBA
}

// New returns a page of width by height mm at the resolution, in one colour.
func New(width, height, perMM float64, ground color.Color, pics Pictures) *Canvas {
	w, h := int(math.Round(width*perMM)), int(math.Round(height*perMM))
	c := &Canvas{image.NewRGBA(image.Rect(0, 0, max(w, 1), max(h, 1))), perMM, pics, map[string]*image.RGBA{}, map[string]*image.RGBA{}}
	draw.Draw(c.img, c.img.Bounds(), image.NewUniform(ground), image.Point{}, draw.Src)
	return c
}

// Image is what has been painted so far.
func (c *Canvas) Image() *image.RGBA { return c.img }

// Colour reads #rrggbb; black when it is none.
func Colour(hex string) color.RGBA {
	out := color.RGBA{A: 255}
	_, _ = fmt.Sscanf(hex, "#%02x%02x%02x", &out.R, &out.G, &out.B)
	return out
}

// Paint paints inks in their order. It fails when a picture cannot be had.
func (c *Canvas) Paint(inks []scene.Ink) error {
	for _, k := range inks {
		if err := c.paint(k); err != nil {
			return err
		}
	}
	return nil
}

func (c *Canvas) paint(k scene.Ink) error {
	var mask *image.Alpha
	var box image.Rectangle
	if k.Blur > 0 {
		mask, box = c.soft(k.Region, k.Blur)
	} else {
		mask, box = c.mask(k.Region, c.img.Bounds())
	}
	for _, clip := range k.Clips {
		if mask == nil {
			return nil
		}
		other, in := c.mask(clip, box)
		mask, box = multiply(mask, box, other, in)
	}
	if mask == nil {
		return nil
	}
	if k.Clear > 0 || k.Fade != nil {
		c.weaken(mask, box, k)
	}
	var src image.Image
	switch {
	case k.Laid != nil:
		seen, err := c.laid(k, box)
		if err != nil {
			return err
		}
		src = seen
	case k.Gradient != nil:
		src = c.gradient(k, box)
	case k.Paper != nil:
		tiled, err := c.paper(*k.Paper, k.PaperAt, box)
		if err != nil {
			return err
		}
		src = tiled
	case k.Picture != "":
		pic, err := c.picture(k, box)
		if err != nil {
			return err
		}
		src = pic
	default:
		src = image.NewUniform(Colour(k.Colour))
	}
	draw.DrawMask(c.img, box, src, src.Bounds().Min, mask, image.Point{}, draw.Over)
	return nil
}

// Printed takes what was painted on white within a region to how it is printed on paper of a colour,
// #rrggbb: its colours through a table, and then no more of each than the paper gives back.
func (c *Canvas) Printed(region geom.Path, t *light.Table, paper string) {
	mask, box := c.mask(region, c.img.Bounds())
	if mask == nil {
		return
	}
	on := Colour(paper)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		for x := box.Min.X; x < box.Max.X; x++ {
			if mask.AlphaAt(x-box.Min.X, y-box.Min.Y).A < 128 {
				continue // the mask begins at the corner of its box
			}
			p := c.img.Pix[c.img.PixOffset(x, y):]
			if p[0]&p[1]&p[2] != 255 { // else it is bare
				p[0], p[1], p[2] = t.Colour(p[0], p[1], p[2])
			}
			seen := gamut.OnStock(color.RGBA{p[0], p[1], p[2], 255}, on)
			p[0], p[1], p[2] = seen.R, seen.G, seen.B
		}
	}
}

// laid paints stock with what is printed on it over a box: the inks on white, and that on the stock.
// It fails when a picture cannot be had.
func (c *Canvas) laid(k scene.Ink, box image.Rectangle) (image.Image, error) {
	over := func(inks []scene.Ink) (*image.RGBA, error) {
		sheet := &Canvas{image.NewRGBA(image.Rect(0, 0, box.Dx(), box.Dy())), c.scale, c.pics, c.tiles, c.sized}
		draw.Draw(sheet.img, sheet.img.Bounds(), image.White, image.Point{}, draw.Src)
		err := sheet.Paint(scene.Transform(inks, geom.Shift(-float64(box.Min.X)/c.scale, -float64(box.Min.Y)/c.scale)))
		return sheet.img, err
	}
	printed, err := over(k.Laid)
	if err != nil {
		return nil, err
	}
	k.Laid, k.Clips = nil, nil
	all := geom.Rect{X: float64(box.Min.X), Y: float64(box.Min.Y), W: float64(box.Dx()), H: float64(box.Dy())}
	k.Region = geom.RectPath(all).Transform(geom.Scale(1/c.scale, 1/c.scale))
	stock, err := over([]scene.Ink{k})
	if err != nil {
		return nil, err
	}
	for i := 0; i < len(printed.Pix); i += 4 {
		p, s := printed.Pix[i:i+3:i+3], stock.Pix[i:i+3:i+3]
		seen := gamut.OnStock(color.RGBA{p[0], p[1], p[2], 255}, color.RGBA{s[0], s[1], s[2], 255})
		p[0], p[1], p[2] = seen.R, seen.G, seen.B
	}
	return printed, nil
}

// mask rasterises a path into an alpha mask over its own bounding box within
// the limits; nil when nothing of it is there.
func (c *Canvas) mask(p geom.Path, limits image.Rectangle) (*image.Alpha, image.Rectangle) {
	b := p.Bounds()
	box := image.Rect(
		int(math.Floor(b.X*c.scale)), int(math.Floor(b.Y*c.scale)),
		int(math.Ceil(b.Right()*c.scale)), int(math.Ceil(b.Bottom()*c.scale))).Intersect(limits)
	if box.Empty() {
		return nil, box
	}
	r := vector.NewRasterizer(box.Dx(), box.Dy())
	at := func(q geom.Point) (float32, float32) {
		return float32(q.X*c.scale) - float32(box.Min.X), float32(q.Y*c.scale) - float32(box.Min.Y)
	}
	for _, l := range p.Flatten(.1 / c.scale) {
		x, y := at(l.Points[0])
		r.MoveTo(x, y)
		for _, q := range l.Points[1:] {
			x, y := at(q)
			r.LineTo(x, y)
		}
		r.ClosePath()
	}
	mask := image.NewAlpha(image.Rect(0, 0, box.Dx(), box.Dy()))
	r.Draw(mask, mask.Bounds(), image.Opaque, image.Point{})
	return mask, box
}

func multiply(a *image.Alpha, ab image.Rectangle, b *image.Alpha, bb image.Rectangle) (*image.Alpha, image.Rectangle) {
	box := ab.Intersect(bb)
	if b == nil || box.Empty() {
		return nil, box
	}
	out := image.NewAlpha(image.Rect(0, 0, box.Dx(), box.Dy()))
	for y := range box.Dy() {
		ra := a.Pix[(y+box.Min.Y-ab.Min.Y)*a.Stride+box.Min.X-ab.Min.X:]
		rb := b.Pix[(y+box.Min.Y-bb.Min.Y)*b.Stride+box.Min.X-bb.Min.X:]
		ro := out.Pix[y*out.Stride : y*out.Stride+box.Dx()]
		for x := range ro {
			ro[x] = uint8(uint32(ra[x]) * uint32(rb[x]) / 255)
		}
	}
	return out, box
}

// paper renders the pattern over the box by looking each pixel up in one tile, which is drawn at
// twice the resolution or, where it shows a picture, has no more pixels than that. It fails when the
// picture cannot be had.
func (c *Canvas) paper(p pattern.Paper, at geom.Affine, box image.Rectangle) (image.Image, error) {
	inv, ok := at.Inverse()
	if !ok {
		return image.NewUniform(ground(p)), nil
	}
	scale := math.Sqrt(math.Abs(at.Det())) * c.scale
	key := fmt.Sprintf("%s@%.3f", p.ID, scale)
	tile := c.tiles[key]
	if tile == nil {
		var err error
		if tile, err = c.tile(p, scale); err != nil {
			return nil, err
		}
		c.tiles[key] = tile
	}
	tw, th := float64(tile.Bounds().Dx()), float64(tile.Bounds().Dy())
	along := func(x, size float64) float64 {
		u := x / size
		n := math.Floor(u)
		if u -= n; p.Mirrored && int64(n)%2 != 0 {
			u = 1 - u
		}
		return u
	}
	return c.sample(box, inv, func(q geom.Point) color.RGBA {
		return bilinear(tile, along(q.X, p.Width)*tw-.5, along(q.Y, p.Height)*th-.5, !p.Mirrored)
	}), nil
}

// ground is what a paper is printed on all over.
func ground(p pattern.Paper) color.Color {
	if p.Ground == "" {
		return color.Transparent
	}
	return Colour(p.Ground)
}

// tile draws one tile of a paper, so many pixels to the millimetre and more.
func (c *Canvas) tile(p pattern.Paper, scale float64) (*image.RGBA, error) {
	if p.Picture == "" {
		scale *= 2
	}
	w, h := max(1, math.Round(p.Width*scale)), max(1, math.Round(p.Height*scale))
	if p.Picture != "" {
		full, err := c.pics(p.Picture)
		if err != nil {
			return nil, fmt.Errorf("paper %s: %w", p.Name, err)
		}
		if b := full.Bounds(); int(w) < b.Dx() && int(h) < b.Dy() {
			full = imaging.Resize(full, int(w), int(h), imaging.CatmullRom)
		}
		b := full.Bounds()
		out := image.NewRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
		draw.Draw(out, out.Bounds(), image.NewUniform(ground(p)), image.Point{}, draw.Src)
		draw.Draw(out, out.Bounds(), full, b.Min, draw.Over)
		return out, nil
	}
	t := New(w, h, 1, ground(p), nil)
	for _, m := range p.Marks {
		mark := m.Path.Transform(geom.Scale(w/p.Width, h/p.Height))
		if err := t.Paint([]scene.Ink{{Region: mark, Colour: m.Colour, Clear: m.Clear}}); err != nil {
			return nil, err
		}
	}
	return t.img, nil
}

// picture renders the picture over the box from a copy scaled to the size it
// has on the page.
func (c *Canvas) picture(k scene.Ink, box image.Rectangle) (image.Image, error) {
	inv, ok := k.PictureAt.Inverse()
	if !ok {
		return image.Transparent, nil
	}
	w := int(math.Ceil(math.Hypot(k.PictureAt.A, k.PictureAt.B) * c.scale))
	h := int(math.Ceil(math.Hypot(k.PictureAt.C, k.PictureAt.D) * c.scale))
	key := fmt.Sprintf("%s@%dx%d", k.Picture, w, h)
	pic := c.sized[key]
	if pic == nil {
		full, err := c.pics(k.Picture)
		if err != nil {
			return nil, fmt.Errorf("picture %.8s: %w", k.Picture, err)
		}
		b := full.Bounds()
		if w < b.Dx() && h < b.Dy() {
			full = imaging.Resize(full, max(w, 1), max(h, 1), imaging.CatmullRom)
			b = full.Bounds()
		}
		pic = image.NewRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
		draw.Draw(pic, pic.Bounds(), full, b.Min, draw.Src)
		c.sized[key] = pic
	}
	pw, ph := float64(pic.Bounds().Dx()), float64(pic.Bounds().Dy())
	return c.sample(box, inv, func(q geom.Point) color.RGBA {
		return tinted(bilinear(pic, q.X*pw-.5, q.Y*ph-.5, false), k.Tint)
	}), nil
}

func (c *Canvas) sample(box image.Rectangle, inv geom.Affine, at func(geom.Point) color.RGBA) image.Image {
	out := image.NewRGBA(image.Rect(0, 0, box.Dx(), box.Dy()))
	for y := range box.Dy() {
		for x := range box.Dx() {
			q := geom.Pt((float64(box.Min.X+x)+.5)/c.scale, (float64(box.Min.Y+y)+.5)/c.scale)
			out.SetRGBA(x, y, at(inv.Apply(q)))
		}
	}
	return out
}

// bilinear mixes the four pixels about (x, y); beyond the edge it wraps round
// or repeats the last pixel.
func bilinear(img *image.RGBA, x, y float64, wrap bool) color.RGBA {
	w, h := img.Bounds().Dx(), img.Bounds().Dy()
	fx, fy := math.Floor(x), math.Floor(y)
	kx, ky := x-fx, y-fy
	fit := func(i, n int) int {
		if wrap {
			return ((i % n) + n) % n
		}
		return min(max(i, 0), n-1)
	}
	x0, x1 := fit(int(fx), w), fit(int(fx)+1, w)
	y0, y1 := fit(int(fy), h), fit(int(fy)+1, h)
	var sum [4]float64
	for _, s := range [4]struct {
		x, y int
		k    float64
	}{{x0, y0, (1 - kx) * (1 - ky)}, {x1, y0, kx * (1 - ky)}, {x0, y1, (1 - kx) * ky}, {x1, y1, kx * ky}} {
		p := img.Pix[s.y*img.Stride+s.x*4:]
		for i := range sum {
			sum[i] += float64(p[i]) * s.k
		}
	}
	return color.RGBA{uint8(sum[0] + .5), uint8(sum[1] + .5), uint8(sum[2] + .5), uint8(sum[3] + .5)}
}

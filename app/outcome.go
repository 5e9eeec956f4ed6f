package app

import (
	"bytes"
	"context"
	"image"
	_ "image/png" // what printers answer with
	"math"

	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/registration"
)

// measured is how far each piece was cut from its print. It is known where a stand-in
// tells what it has truly cut, on a sheet whose print can be seen; else there is
// nothing.
func (p *placing) measured(ctx context.Context) []cut.Apart {
	hand, ok := p.hand()
	if !ok || p.page == "" || len(p.sh.Marks) == 0 {
		return nil
	}
	ways, err := hand.Outcome(ctx)
	if err != nil {
		p.app.log.Warn("outcome not measured", "err", err)
		return nil
	}
	raw, err := p.app.production.printer.Picture(ctx, p.page, false)
	if err != nil {
		return nil // the printer has forgotten it
	}
	img, _, err := image.Decode(bytes.NewReader(raw))
	if err != nil {
		return nil
	}
	eye := pageEye{img, float64(img.Bounds().Dx()) / p.sh.Size.Width}
	printed, err := registration.Printed(ctx, eye, p.drawn(), markShape)
	if err != nil {
		p.app.log.Warn("print not measured", "err", err)
		return nil
	}
	var cuts [][]geom.Point
	for _, w := range ways {
		if w.Tool >= int(cut.Blade) {
			cuts = append(cuts, w.Points)
		}
	}
	return cut.Measure(p.sh.Moved(printed), cuts)
}

// pageEye sees a printed page.
type pageEye struct {
	img   image.Image
	perMM float64
}

// See implements registration.Eye: between pixels, the mean of the four around.
func (e pageEye) See(_ context.Context, from, to geom.Point, n int) ([]float64, error) {
	out := make([]float64, n)
	b := e.img.Bounds()
	at := func(x, y int) float64 {
		if !image.Pt(x, y).In(b) {
			return 1
		}
		r, g, bl, _ := e.img.At(x, y).RGBA()
		return (.299*float64(r) + .587*float64(g) + .114*float64(bl)) / 65535
	}
	for i := range out {
		p := from
		if n > 1 {
			p = from.Lerp(to, float64(i)/float64(n-1))
		}
		x, y := p.X*e.perMM-.5, p.Y*e.perMM-.5
		ix, iy := math.Floor(x), math.Floor(y)
		fx, fy := x-ix, y-iy
		k, l := int(ix), int(iy)
		out[i] = (at(k, l)*(1-fx)+at(k+1, l)*fx)*(1-fy) + (at(k, l+1)*(1-fx)+at(k+1, l+1)*fx)*fy
	}
	return out, nil
}

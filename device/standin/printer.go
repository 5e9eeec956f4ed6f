package standin

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"math"
	"math/rand/v2"
	"net/http"
	"strconv"
	"sync"

	xdraw "golang.org/x/image/draw"
	"golang.org/x/image/math/f64"

	"sectilis/core/format/raster"
	"sectilis/core/geom"
)

// Printer takes a page as PNG and lays it down as real printers do: a little
// shifted, turned and stretched. It keeps the last printed sheets as pictures.
type Printer struct {
	mu    sync.Mutex
	rng   *rand.Rand
	count int
	pages map[string][]byte
}

// How far off a page may come out.
const (
	maxShift   = 1.5 // mm
	maxTurn    = .7  // degrees
	maxStretch = .003
	keepPages  = 24
	maxPage    = 64 << 20
	maxPixels  = 60_000_000
)

// NewPrinter returns a printer whose faults follow from the seed.
func NewPrinter(seed uint64) *Printer {
	return &Printer{rng: rand.New(rand.NewPCG(seed, 1)), pages: map[string][]byte{}}
}

// Handler is the printer's address: POST /pages?width=…&height=… in mm, and paper=…
// for the colour of what is loaded, with a PNG answers {"ref": …}; GET /pages/{ref} is the printed sheet.
func (p *Printer) Handler() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("POST /pages", p.print)
	mux.HandleFunc("GET /pages/{ref}", func(w http.ResponseWriter, r *http.Request) {
		p.mu.Lock()
		raw, ok := p.pages[r.PathValue("ref")]
		p.mu.Unlock()
		if !ok {
			http.NotFound(w, r)
			return
		}
		w.Header().Set("Content-Type", "image/png")
		_, _ = w.Write(raw) // the viewer may be gone
	})
	return mux
}

func (p *Printer) print(w http.ResponseWriter, r *http.Request) {
	page, perMM, ok := pageOf(w, r, 2000)
	if !ok {
		return
	}
	raw, err := p.lay(page, perMM, paperOf(r.URL.Query().Get("paper")))
	if err != nil {
		http.Error(w, err.Error(), http.StatusInternalServerError)
		return
	}
	p.mu.Lock()
	p.count++
	ref := fmt.Sprintf("p%d", p.count)
	p.pages[ref] = raw
	delete(p.pages, fmt.Sprintf("p%d", p.count-keepPages))
	p.mu.Unlock()
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(map[string]string{"ref": ref}) // the sender may be gone
}

// pageOf reads a PNG with its width in mm, no wider than widest, and tells the pixels to
// the millimetre; where it cannot, it has answered so.
func pageOf(w http.ResponseWriter, r *http.Request, widest float64) (page image.Image, perMM float64, ok bool) {
	var buf bytes.Buffer
	if _, err := buf.ReadFrom(http.MaxBytesReader(w, r.Body, maxPage)); err != nil {
		http.Error(w, "the page is too large", http.StatusRequestEntityTooLarge)
		return nil, 0, false
	}
	width, err := strconv.ParseFloat(r.URL.Query().Get("width"), 64)
	cfg, cerr := png.DecodeConfig(bytes.NewReader(buf.Bytes()))
	if err != nil || cerr != nil || !(width >= 10 && width <= widest) || cfg.Width*cfg.Height > maxPixels {
		http.Error(w, fmt.Sprintf("a page is a PNG with its width in mm, from 10 to %g", widest), http.StatusBadRequest)
		return nil, 0, false
	}
	page, err = png.Decode(&buf)
	if err != nil {
		http.Error(w, "the page cannot be read", http.StatusBadRequest)
		return nil, 0, false
	}
	return page, float64(cfg.Width) / width, true
}

// paperOf is the colour of the paper that is loaded, white where none is named.
func paperOf(hex string) color.RGBA {
	if len(hex) != 7 {
		return color.RGBA{255, 255, 255, 255}
	}
	return raster.Colour(hex)
}

// fault is where the ink of a page comes to lie on it, mm.
func (p *Printer) fault(width, height float64) geom.Affine {
	p.mu.Lock()
	defer p.mu.Unlock()
	off := func(most float64) float64 { return (p.rng.Float64()*2 - 1) * most }
	dx, dy, turn, sx, sy := off(maxShift), off(maxShift), off(maxTurn), off(maxStretch), off(maxStretch)
	return geom.Shift(-width/2, -height/2).Then(geom.Scale(1+sx, 1+sy)).Then(geom.Turn(turn * math.Pi / 180)).
		Then(geom.Shift(width/2+dx, height/2+dy))
}

// lay puts the ink down on paper, perMM pixels to the millimetre.
func (p *Printer) lay(page image.Image, perMM float64, paper color.RGBA) ([]byte, error) {
	b := page.Bounds()
	out := image.NewRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
	draw.Draw(out, out.Bounds(), image.NewUniform(color.White), image.Point{}, draw.Src)
	m := geom.Scale(1/perMM, 1/perMM).Then(p.fault(float64(b.Dx())/perMM, float64(b.Dy())/perMM)).Then(geom.Scale(perMM, perMM))
	xdraw.BiLinear.Transform(out, f64.Aff3{m.A, m.C, m.E, m.B, m.D, m.F}, page, b, xdraw.Over, nil)
	// Ink takes light away from what the paper gives back.
	for i := 0; i < len(out.Pix); i += 4 {
		out.Pix[i] = uint8(int(out.Pix[i]) * int(paper.R) / 255)
		out.Pix[i+1] = uint8(int(out.Pix[i+1]) * int(paper.G) / 255)
		out.Pix[i+2] = uint8(int(out.Pix[i+2]) * int(paper.B) / 255)
	}
	var buf bytes.Buffer
	err := (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&buf, out)
	return buf.Bytes(), err
}

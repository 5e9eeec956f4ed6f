package standin

import (
	"bytes"
	"context"
	"encoding/binary"
	"encoding/json"
	"errors"
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

	"sectilis/core/format/raster"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/light"
	"sectilis/core/ground/pixels"
)

// Printer takes a page as PNG and lays it down as real printers do: a little
// shifted, turned and stretched, in inks that cover a little more or less than is meant. It keeps
// the last printed sheets as pictures.
type Printer struct {
	// Scale is at least how many pixels of a printed sheet are to the mm.
	Scale float64
	// Gain is how much more its inks cover.
	Gain gamut.Gain

	mu   sync.Mutex
	rng  *rand.Rand
	kept *printed
}

// How far off a page may come out.
const (
	maxShift   = 1.5 // mm
	maxTurn    = .7  // degrees
	maxStretch = .003
	maxGain    = .09 // of ink, in half tones
	keepPages  = 600 // and no more bytes than keepBytes
	keepBytes  = 1 << 30
	maxPage    = 256 << 20
	maxPixels  = 72_000_000
)

// NewPrinter returns a printer whose faults follow from the seed. Printed sheets are kept in a
// directory, which is made if it is not there. It returns an error when the directory cannot
// be made or read.
func NewPrinter(seed uint64, dir string) (*Printer, error) {
	t, err := openPrinted(dir, keepPages, keepBytes)
	if err != nil {
		return nil, err
	}
	p := &Printer{Scale: keptScale, rng: rand.New(rand.NewPCG(seed, 1)), kept: t}
	inks := rand.New(rand.NewPCG(seed, 2))
	for i := range p.Gain {
		p.Gain[i] = (inks.Float64()*2 - 1) * maxGain
	}
	return p, nil
}

// Handler is the printer's address: POST /pages?width=…&height=… in mm, and paper=…
// for the colour of what is loaded and kind=… for what it is to inks, with a PNG answers {"ref": …}; GET /pages/{ref} is the
// printed sheet, with ?small=1 a picture of it to be looked at.
func (p *Printer) Handler() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("POST /pages", p.print)
	mux.HandleFunc("GET /pages/{ref}", func(w http.ResponseWriter, r *http.Request) {
		raw, err := p.kept.get(r.PathValue("ref"), r.URL.Query().Get("small") == "1")
		if err != nil {
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
	paper := paperOf(r.URL.Query().Get("paper"))
	kind := gamut.Matt
	if gamut.Paper(r.URL.Query().Get("kind")) == gamut.Photo {
		kind = gamut.Photo
	}
	raw, small, err := p.lay(page, perMM, paper, kind)
	if err != nil {
		http.Error(w, err.Error(), http.StatusInternalServerError)
		return
	}
	ref, err := p.kept.put(raw, small)
	if err != nil {
		http.Error(w, "the printed sheet cannot be kept: "+err.Error(), http.StatusInternalServerError)
		return
	}
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

// What printed sheets are kept at, in pixels per mm: 600 to the inch, and 75.
const (
	keptScale  = 600 / 25.4
	smallScale = 75 / 25.4
)

// press is a printer's inks on a kind of paper.
type press struct {
	kind gamut.Paper
	gain gamut.Gain
}

var presses = cache.New[press, *light.Table](8)

// lay is the page as it comes out on paper of a colour and a kind: shifted, turned, stretched.
func (p *Printer) lay(page image.Image, perMM float64, paper color.RGBA, kind gamut.Paper) (raw, small []byte, err error) {
	b := page.Bounds()
	in := image.NewRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
	draw.Draw(in, in.Bounds(), page, b.Min, draw.Src)
	inks, err := presses.Of(press{kind, p.Gain}, func() (*light.Table, error) { return gamut.Laid(kind, p.Gain), nil })
	if err != nil {
		return nil, nil, err
	}
	inked(in, inks)
	w, h := float64(b.Dx())/perMM, float64(b.Dy())/perMM
	back, ok := p.fault(w, h).Inverse()
	if !ok {
		return nil, nil, errors.New("the page cannot be laid down")
	}
	at := func(scale float64) ([]byte, error) {
		return laidAt(in, perMM, back, scale, w, h, paper)
	}
	if raw, err = at(max(perMM, min(p.Scale, math.Sqrt(maxPixels/(w*h))))); err == nil {
		small, err = at(smallScale)
	}
	return raw, small, err
}

// inked takes the colours of a page to what inks make of them; bare paper stays.
func inked(in *image.RGBA, inks *light.Table) {
	_ = pixels.Rows(context.Background(), in.Rect.Dy(), func(from, to int) {
		for i := from * in.Stride; i < to*in.Stride; i += 4 {
			if px := in.Pix[i : i+4 : i+4]; px[0]&px[1]&px[2] != 255 {
				px[0], px[1], px[2] = inks.Colour(px[0], px[1], px[2])
			}
		}
	})
}

// laidAt is the printed sheet at a scale; back maps it to the page, in mm.
func laidAt(in *image.RGBA, perMM float64, back geom.Affine, scale, w, h float64, paper color.RGBA) ([]byte, error) {
	out := image.NewRGBA(image.Rect(0, 0, int(math.Round(w*scale)), int(math.Round(h*scale))))
	m := geom.Scale(1/scale, 1/scale).Then(back).Then(geom.Scale(perMM, perMM))
	var rows sync.WaitGroup
	const bands = 4
	ground := newGround(paper, out.Rect.Dx())
	for k := range bands {
		rows.Go(func() {
			for y := out.Rect.Dy() * k / bands; y < out.Rect.Dy()*(k+1)/bands; y++ {
				ground.ink(out, y, in, m)
			}
		})
	}
	rows.Wait()
	var buf bytes.Buffer
	err := raster.WritePNG(&buf, out, scale)
	return buf.Bytes(), err
}

// ground is the paper that is printed on: a row of it without ink, and what it gives back
// of each tone of red, green and blue.
type ground struct {
	bare []uint8
	tone [3][256]uint8
}

func newGround(paper color.RGBA, width int) *ground {
	g := &ground{bare: bytes.Repeat([]uint8{paper.R, paper.G, paper.B, 255}, width)}
	for v := range 256 {
		grey := uint8(v)
		seen := gamut.OnStock(color.RGBA{grey, grey, grey, 255}, paper)
		g.tone[0][v], g.tone[1][v], g.tone[2][v] = seen.R, seen.G, seen.B
	}
	return g
}

// ink prints one row: ink takes light away from what the paper gives back. Between
// the pixels of the page the four around are mixed.
func (g *ground) ink(out *image.RGBA, y int, in *image.RGBA, m geom.Affine) {
	w, h := in.Rect.Dx(), in.Rect.Dy()
	row := out.Pix[y*out.Stride:][:len(g.bare)]
	copy(row, g.bare)
	// Along a row places on the page go on evenly: in 1/65536 of its pixels.
	const one = 1 << 16
	from := m.Apply(geom.Pt(.5, float64(y)+.5))
	u, v := int64((from.X-.5)*one), int64((from.Y-.5)*one)
	du, dv := int64(m.A*one), int64(m.B*one)
	for x := range out.Rect.Dx() {
		iu, iv := int(u>>16), int(v>>16)
		fu, fv := int(u&(one-1))>>8, int(v&(one-1))>>8
		u, v = u+du, v+dv
		if iu < 0 || iv < 0 || iu+1 >= w || iv+1 >= h {
			continue
		}
		at := iv*in.Stride + 4*iu
		a, b := in.Pix[at:at+8:at+8], in.Pix[at+in.Stride:at+in.Stride+8:at+in.Stride+8]
		if binary.LittleEndian.Uint64(a)&binary.LittleEndian.Uint64(b) == math.MaxUint64 {
			continue // nothing is printed here
		}
		px := row[4*x : 4*x+4 : 4*x+4]
		for c := range 3 {
			top := int(a[c])<<8 + (int(a[c+4])-int(a[c]))*fu
			foot := int(b[c])<<8 + (int(b[c+4])-int(b[c]))*fu
			px[c] = g.tone[c][uint8((top<<8+(foot-top)*fv)>>16)]
		}
	}
}

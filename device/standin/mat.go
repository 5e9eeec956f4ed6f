package standin

import (
	"encoding/json"
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"net/http"
	"strconv"
	"time"

	xdraw "golang.org/x/image/draw"
	"golang.org/x/image/math/f64"

	"sectilis/core/ground/geom"
)

// A hand puts a sheet on the cutting mat near its corner, and never quite straight.
const (
	// corner is where the lower left corner of a sheet belongs, mm from that of the
	// bed.
	corner   = 6.0
	handOff  = 3.0 // mm
	handTurn = 2.0 // degrees
)

// The eye sees a spot, and not without noise.
const (
	spot     = .12 // mm, its radius
	eyeNoise = .02
	maxLook  = 4000 // places in one look
)

// laid is a sheet on the mat. Places on the bed are here mm from its upper left
// corner, y down, as in its picture.
type laid struct {
	page  *image.RGBA
	perMM float64
	small *image.RGBA // page with a whole number of its pixels in one, for pictures
	at    geom.Affine // from the sheet to the bed
	back  geom.Affine
}

// layDown puts a sheet on the mat by hand.
func layDown(page image.Image, perMM float64, rng *rand.Rand) *laid {
	b := page.Bounds()
	rgba := image.NewRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
	xdraw.Copy(rgba, image.Point{}, page, b, xdraw.Src, nil)
	w, h := float64(b.Dx())/perMM, float64(b.Dy())/perMM
	off := func(most float64) float64 { return (2*rng.Float64() - 1) * most }
	at := geom.Shift(-w/2, -h/2).Then(geom.Turn(off(handTurn) * math.Pi / 180)).
		Then(geom.Shift(min(corner, bed-w)+w/2+off(handOff), max(0, bed-corner-h)+h/2+off(handOff)))
	back, _ := at.Inverse() // a turn and a shift always have one
	return &laid{page: rgba, perMM: perMM, at: at, back: back}
}

// brightness of a place on the bed, 0 to 1; the cutting mat is light.
func (l *laid) brightness(p geom.Point) float64 {
	const matLight = .82
	if l == nil {
		return matLight
	}
	q := l.back.Apply(p).Mul(l.perMM)
	x, y := int(math.Floor(q.X)), int(math.Floor(q.Y))
	if !image.Pt(x, y).In(l.page.Bounds()) {
		return matLight
	}
	c := l.page.RGBAAt(x, y)
	return (.299*float64(c.R) + .587*float64(c.G) + .114*float64(c.B)) / 255
}

// see is what the eye sees at n places along a line.
func (l *laid) see(from, to geom.Point, n int, rng *rand.Rand) []float64 {
	out := make([]float64, n)
	for i := range out {
		p := from
		if n > 1 {
			p = from.Lerp(to, float64(i)/float64(n-1))
		}
		sum := 0.0
		const rays = 8
		for k := range rays {
			s, c := math.Sincos(float64(k) * 2 * math.Pi / rays)
			r := spot
			if k%2 == 1 {
				r = spot / 2
			}
			sum += l.brightness(p.Add(geom.Pt(r*c, r*s)))
		}
		out[i] = sum/rays + eyeNoise*rng.NormFloat64()
	}
	return out
}

// shrink makes the small copy of the page as it lies now, with at least perMM pixels to
// the mm where the page has as many.
func (l *laid) shrink(perMM float64) {
	n := max(1, int(l.perMM/perMM))
	if n == 1 {
		l.small = l.page
		return
	}
	w, h := l.page.Rect.Dx()/n, l.page.Rect.Dy()/n
	l.small = image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			var sum [4]int
			for v := range n {
				row := l.page.Pix[(y*n+v)*l.page.Stride+4*x*n:][:4*n]
				for i, c := range row {
					sum[i&3] += int(c)
				}
			}
			px := l.small.Pix[y*l.small.Stride+4*x:][:4]
			for i := range px {
				px[i] = uint8((sum[i] + n*n/2) / (n * n))
			}
		}
	}
}

// draw puts the sheet into a picture of the bed, from its small copy.
func (l *laid) draw(on *image.RGBA, perMM float64) {
	if l == nil {
		return
	}
	mm := float64(max(1, l.page.Rect.Dx()/max(1, l.small.Rect.Dx()))) / l.perMM
	m := geom.Scale(mm, mm).Then(l.at).Then(geom.Scale(perMM, perMM))
	xdraw.ApproxBiLinear.Transform(on, f64.Aff3{m.A, m.C, m.E, m.B, m.D, m.F}, l.small, l.small.Bounds(), xdraw.Over, nil)
}

// camera shows the machine to whoever looks, and lends a hand.
func (c *Cutter) camera() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /state", func(w http.ResponseWriter, _ *http.Request) {
		state := c.state()
		c.mu.Lock()
		s := map[string]any{
			"name": "Bench cutter", "state": state, "bed": [2]float64{bed, bed}, "tool": c.held, "wants": c.wants,
			"eye": true, "hand": true, "corner": [2]float64{corner, corner}, "loaded": c.sheet != nil,
			"mishap": c.faults.left(),
		}
		c.mu.Unlock()
		w.Header().Set("Content-Type", "application/json")
		_ = json.NewEncoder(w).Encode(s) // the viewer may be gone
	})
	mux.HandleFunc("POST /mat", c.mat)
	mux.HandleFunc("DELETE /mat", func(w http.ResponseWriter, _ *http.Request) {
		c.mu.Lock()
		defer c.mu.Unlock()
		if c.busy {
			http.Error(w, "it is cutting; the sheet stays where it is", http.StatusConflict)
			return
		}
		c.sheet, c.strokes = nil, nil
		w.WriteHeader(http.StatusNoContent)
	})
	mux.HandleFunc("PUT /tool", c.fit)
	mux.HandleFunc("PUT /faults", c.setFaults)
	mux.HandleFunc("GET /eye", c.eye)
	mux.HandleFunc("GET /outcome", c.outcome)
	mux.HandleFunc("GET /bed.png", func(w http.ResponseWriter, _ *http.Request) {
		raw, err := c.Picture()
		if err != nil {
			http.Error(w, err.Error(), http.StatusInternalServerError)
			return
		}
		w.Header().Set("Content-Type", "image/png")
		_, _ = w.Write(raw)
	})
	return mux
}

// outcome is the true paths in the sheet's own frame.
func (c *Cutter) outcome(w http.ResponseWriter, _ *http.Request) {
	type way struct {
		Tool   int          `json:"tool"`
		Points []geom.Point `json:"points"`
	}
	out := []way{}
	c.mu.Lock()
	for _, s := range c.strokes {
		if len(s.points) > 1 {
			out = append(out, way{s.tool, append([]geom.Point(nil), s.points...)})
		}
	}
	c.mu.Unlock()
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(out) // the viewer may be gone
}

// mat takes a sheet: a PNG, and its width in mm.
func (c *Cutter) mat(w http.ResponseWriter, r *http.Request) {
	page, perMM, ok := pageOf(w, r, bed)
	if !ok {
		return
	}
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.faults.NoMat {
		http.Error(w, "there is no cutting mat", http.StatusConflict)
		return
	}
	if c.busy {
		http.Error(w, "it is cutting; no other sheet goes on the cutting mat", http.StatusConflict)
		return
	}
	c.matIn = true
	c.sheet, c.strokes = layDown(page, perMM, c.hand()), nil
	c.faults.spoil(c.sheet.page, perMM, c.hand())
	c.sheet.shrink(picturePerMM)
	w.WriteHeader(http.StatusNoContent)
}

// hand is the chance that hands and eyes are subject to.
func (c *Cutter) hand() *rand.Rand {
	if c.rng == nil {
		c.rng = rand.New(rand.NewPCG(c.Seed, 2))
	}
	return c.rng
}

// eye answers with the brightness along a line: x0, y0, x1, y1 in mm from the upper
// left corner of the bed, and n places.
func (c *Cutter) eye(w http.ResponseWriter, r *http.Request) {
	var v [4]float64
	for i, name := range []string{"x0", "y0", "x1", "y1"} {
		f, err := strconv.ParseFloat(r.URL.Query().Get(name), 64)
		if err != nil || math.IsNaN(f) || math.Abs(f) > 2*bed {
			http.Error(w, "a line has x0, y0, x1 and y1 in mm", http.StatusBadRequest)
			return
		}
		v[i] = f
	}
	n, err := strconv.Atoi(r.URL.Query().Get("n"))
	if err != nil || n < 1 || n > maxLook {
		http.Error(w, "n is from 1 to 4000", http.StatusBadRequest)
		return
	}
	c.mu.Lock()
	c.looked = time.Now()
	seen := c.sheet.see(geom.Pt(v[0], v[1]), geom.Pt(v[2], v[3]), n, c.hand())
	c.mu.Unlock()
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(seen) // the viewer may be gone
}

// bare is the colour of the cutting mat.
var bare = color.RGBA{0xea, 0xdf, 0xca, 0xff}

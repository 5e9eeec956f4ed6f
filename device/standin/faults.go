package standin

import (
	"encoding/json"
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"net/http"
	"strconv"

	"sectilis/core/ground/geom"
)

// Faults are what may go wrong. Corners are numbered from 1: upper left, upper right,
// lower left, lower right. Distances are mm with the tool down, from when the fault
// was set.
type Faults struct {
	Off     bool    `json:"off"`
	NoMat   bool    `json:"noMat"`   // the cutting mat is taken out, and cannot be put in
	Smudged []int   `json:"smudged"` // corners of the next sheet where ink has run
	Missing []int   `json:"missing"` // corners of the next sheet where nothing was printed
	Slip    float64 `json:"slip"`    // where the sheet slips; 0 for never
	Lost    float64 `json:"lost"`    // where the connection is lost
	Jam     float64 `json:"jam"`     // where the tool jams, until Jam is 0 again

	set    float64 // mm ridden when they were set
	jammed bool
}

// due tells whether a fault strikes within a step, and where on it.
func (f *Faults) due(ridden, step float64) (share float64, yes bool) {
	first := math.Inf(1)
	for _, at := range []float64{f.Slip, f.Lost, f.Jam} {
		if at > 0 {
			first = min(first, f.set+at)
		}
	}
	if step <= 0 || ridden+step < first {
		return 0, false
	}
	return min(max((first-ridden)/step, 0), 1), true
}

// left are the faults that are still to come, or have come and last; nil if there are none.
func (f Faults) left() *Faults {
	if f.jammed {
		f.Jam = 1
	}
	if !f.Off && !f.NoMat && len(f.Smudged)+len(f.Missing) == 0 && f.Slip+f.Lost+f.Jam == 0 {
		return nil
	}
	f.Smudged, f.Missing = append([]int{}, f.Smudged...), append([]int{}, f.Missing...) // never null
	return &f
}

// strike lets the fault that is due happen; each does so once.
func (c *Cutter) strike() (lost bool) {
	f := &c.faults
	reached := func(at float64) bool { return at > 0 && c.ridden >= f.set+at-1e-6 }
	if reached(f.Slip) {
		f.Slip = 0
		c.sheet.slip(c.hand())
	}
	if reached(f.Jam) {
		f.Jam, f.jammed = 0, true
	}
	if reached(f.Lost) {
		f.Lost, lost = 0, true
	}
	return lost
}

// slip moves a sheet on the mat by a millimetre or two.
func (l *laid) slip(rng *rand.Rand) {
	if l == nil {
		return
	}
	s, c := math.Sincos(2 * math.Pi * rng.Float64())
	l.at = l.at.Then(geom.Shift(1.5*c, 1.5*s))
	l.back, _ = l.at.Inverse()
}

// spoil does to the corners of a printed sheet what was asked for.
func (f Faults) spoil(page *image.RGBA, perMM float64, rng *rand.Rand) {
	size := page.Bounds().Size()
	patch := min(22*perMM, float64(size.X)/2, float64(size.Y)/2)
	paint := func(corner int, colour func() color.RGBA) {
		x0, y0 := 0, 0
		if corner%2 == 0 {
			x0 = size.X - int(patch)
		}
		if corner > 2 {
			y0 = size.Y - int(patch)
		}
		cell := max(1, int(perMM/2))
		for y := 0; y < int(patch); y += cell {
			for x := 0; x < int(patch); x += cell {
				c := colour()
				for j := range cell {
					for i := range cell {
						page.SetRGBA(x0+x+i, y0+y+j, c)
					}
				}
			}
		}
	}
	bare := page.RGBAAt(size.X/2, 1)
	for _, k := range f.Missing {
		paint(k, func() color.RGBA { return bare })
	}
	for _, k := range f.Smudged {
		paint(k, func() color.RGBA {
			v := uint8(40 + rng.IntN(140))
			return color.RGBA{v, v, v, 255}
		})
	}
}

// setFaults switches faults on and off.
func (c *Cutter) setFaults(w http.ResponseWriter, r *http.Request) {
	var f Faults
	dec := json.NewDecoder(http.MaxBytesReader(w, r.Body, 4096))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&f); err != nil {
		http.Error(w, err.Error(), http.StatusBadRequest)
		return
	}
	c.mu.Lock()
	f.set = c.ridden
	if f.NoMat {
		c.matIn = false
		c.sheet = nil
	} else if c.faults.NoMat {
		c.matIn = true
	}
	c.faults = f
	c.seen()
	c.mu.Unlock()
	w.WriteHeader(http.StatusNoContent)
}

// fit puts a tool into the holder.
func (c *Cutter) fit(w http.ResponseWriter, r *http.Request) {
	n, err := strconv.Atoi(r.URL.Query().Get("n"))
	if err != nil || n < 1 || n > 8 {
		http.Error(w, "a tool is numbered from 1 to 8", http.StatusBadRequest)
		return
	}
	c.mu.Lock()
	c.held = n
	c.seen()
	c.mu.Unlock()
	w.WriteHeader(http.StatusNoContent)
}

// seen wakes whatever waits for a person.
func (c *Cutter) seen() {
	close(c.change)
	c.change = make(chan struct{})
}

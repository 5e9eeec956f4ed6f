package gamut

import (
	"encoding/binary"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/lucasb-eyer/go-colorful"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/profiletest"
)

// A weak printer: white paper, black of lightness 15, and three fifths of the chroma of a screen.
const (
	weakBlack = 15.0
	weakInk   = .6
)

func weakLays(r, g, b float64) (l, ca, cb float64) {
	l, ca, cb = colorful.Color{R: r, G: g, B: b}.Lab()
	return d50(lab{weakBlack + 100*l*(1-weakBlack/100), 100 * ca * weakInk, 100 * cb * weakInk})
}

// d50 is a colour as profiles have it, d65 as screens do.
func d50(c lab) (l, a, b float64) {
	x := times(toD50, xyzOf(c))
	l, a, b = colorful.XyzToLabWhiteRef(x[0], x[1], x[2], colorful.D50)
	return 100 * l, 100 * a, 100 * b
}

func d65(l, a, b float64) lab {
	x, y, z := colorful.LabToXyzWhiteRef(l/100, a/100, b/100, colorful.D50)
	return labOf(times(toD65, [3]float64{x, y, z}))
}

func weakTakes(l, a, b float64) (float64, float64, float64) {
	v := d65(l, a, b)
	c := colorful.Lab((v[0]-weakBlack)/(100-weakBlack), v[1]/weakInk/100, v[2]/weakInk/100).Clamped()
	return c.R, c.G, c.B
}

// weak is its profile, of red, green and blue or of four inks.
func weak(device string) []byte {
	inks := 3
	if device == "CMYK" {
		inks = 4
	}
	forth := profiletest.TableTag(map[int]int{3: 33, 4: 9}[inks], inks, 3, func(c []float64) []float64 {
		r, g, b := c[0], c[1], c[2]
		if inks == 4 {
			r, g, b = (1-c[0])*(1-c[3]), (1-c[1])*(1-c[3]), (1-c[2])*(1-c[3])
		}
		return profiletest.LabCode(weakLays(r, g, b))
	})
	back := profiletest.TableTag(33, 3, inks, func(c []float64) []float64 {
		r, g, b := weakTakes(profiletest.LabOf(c))
		if inks == 4 {
			return []float64{1 - r, 1 - g, 1 - b, 0}
		}
		return []float64{r, g, b}
	})
	return profiletest.Profile("prtr", device, "Lab ", profiletest.Tag{Name: "A2B0", Data: forth}, profiletest.Tag{Name: "B2A0", Data: back})
}

// What a printer lays down by its profile stays; a screen's strongest colours come out weaker, and of
// their hue.
func TestAProfileSaysWhatPrints(t *testing.T) {
	for _, device := range []string{"RGB ", "CMYK"} {
		g, name, err := OfProfile(weak(device))
		require.NoError(t, err)
		assert.Equal(t, "Corner printer", name)
		r := rand.New(rand.NewPCG(9, 4))
		for range 300 {
			c := colorful.Color{R: r.Float64(), G: r.Float64(), B: r.Float64()}
			l, a, b := c.Lab()
			// Inside, with room for how coarse tables are.
			inside := colorful.Lab(l, a*weakInk*.8, b*weakInk*.8)
			if l > .2 && l < .9 && inside.IsValid() {
				cr, cg, cb := inside.RGB255()
				pr, pg, pb, off := g.Prints(cr, cg, cb)
				assert.Equal(t, [4]float64{float64(cr), float64(cg), float64(cb), 0}, [4]float64{float64(pr), float64(pg), float64(pb), off}, "%s %v", device, inside.Hex())
			}
		}
		for _, hex := range []string{"#ff0000", "#00ff00", "#0000ff", "#ff00ff", "#ffff00"} {
			c, _ := colorful.Hex(hex)
			cr, cg, cb := c.RGB255()
			pr, pg, pb, off := g.Prints(cr, cg, cb)
			assert.Greater(t, off, 5.0, hex)
			_, a, b := c.Lab()
			_, pa, pbb := colorful.Color{R: float64(pr) / 255, G: float64(pg) / 255, B: float64(pb) / 255}.Lab()
			assert.InDelta(t, math.Atan2(b, a), math.Atan2(pbb, pa), .15, hex)
			assert.Less(t, math.Hypot(pa, pbb), math.Hypot(a, b)*.85, hex)
			// How it will print is what its tables make of it there and back.
			tr, tg, tb := g.Table().Colour(cr, cg, cb)
			tl, ta, tbb := colorful.Color{R: float64(tr) / 255, G: float64(tg) / 255, B: float64(tb) / 255}.Lab()
			rr, rg, rb := weakTakes(scaled(c))
			e := d65(weakLays(rr, rg, rb))
			e[0] = (e[0] - weakBlack) / (100 - weakBlack) * 100
			assert.Less(t, math.Hypot(math.Hypot(100*tl-e[0], 100*ta-e[1]), 100*tbb-e[2]), 9.0, "%s %s: %v %v %v for %v", device, hex, tl, ta, tbb, e)
		}
		tr, tg, tb := g.Table().Colour(128, 128, 128)
		assert.Equal(t, [3]uint8{128, 128, 128}, [3]uint8{tr, tg, tb})
	}
}

// scaled is a colour of a screen with its black as that of the printer.
func scaled(c colorful.Color) (l, a, b float64) {
	l, a, b = c.Lab()
	return d50(lab{weakBlack + 100*l*(1-weakBlack/100), 100 * a, 100 * b})
}

func TestWhatIsNoProfileOfAPrinterIsRefusedInASentence(t *testing.T) {
	sound := weak("RGB ")
	with := func(at int, b ...byte) []byte {
		out := append([]byte(nil), sound...)
		copy(out[at:], b)
		return out
	}
	flat := profiletest.TableTag(3, 3, 3, func([]float64) []float64 { return profiletest.LabCode(50, 0, 0) })
	for name, c := range map[string]struct {
		raw []byte
		why string
	}{
		"nothing":            {nil, "no colour profile"},
		"words":              {[]byte("Dear printer, please print more red. " + string(make([]byte, 200))), "no colour profile"},
		"cut off":            {sound[:len(sound)/2], "damaged"},
		"of a screen":        {profiletest.Profile("mntr", "RGB ", "Lab "), "of a screen"},
		"of a camera":        {profiletest.Profile("scnr", "RGB ", "Lab "), "camera"},
		"of no known kind":   {profiletest.Profile("mine", "RGB ", "Lab "), "something else"},
		"grey":               {profiletest.Profile("prtr", "GRAY", "Lab "), "without colours"},
		"of six inks":        {profiletest.Profile("prtr", "6CLR", "Lab "), "damaged"},
		"without tables":     {profiletest.Profile("prtr", "RGB ", "Lab "), "damaged"},
		"one grey for all":   {profiletest.Profile("prtr", "RGB ", "Lab ", profiletest.Tag{Name: "A2B0", Data: flat}), "damaged"},
		"four billion parts": {with(128, 0xff, 0xff, 0xff, 0xff), "damaged"},
		"a part beyond":      {with(136, binary.BigEndian.AppendUint32(nil, 1<<31)...), "damaged"},
		"a part without end": {with(140, 0xff, 0xff, 0xff, 0xff), "damaged"},
		"too large":          {append(append([]byte(nil), sound...), make([]byte, MostProfile)...), "larger"},
	} {
		g, _, err := OfProfile(c.raw)
		assert.ErrorContains(t, err, c.why, name)
		var u Unfit
		assert.ErrorAs(t, err, &u, name)
		assert.Nil(t, g, name)
	}
}

func FuzzProfile(f *testing.F) {
	small := func(device string, inks int) []byte {
		forth := profiletest.TableTag(3, inks, 3, func(c []float64) []float64 { return profiletest.LabCode(weakLays(c[0], c[1], c[2])) })
		return profiletest.Profile("prtr", device, "Lab ", profiletest.Tag{Name: "A2B0", Data: forth})
	}
	f.Add(small("RGB ", 3))
	f.Add(small("CMYK", 4))
	f.Fuzz(func(t *testing.T, raw []byte) {
		g, _, err := OfProfile(raw)
		if err == nil {
			_, _, _, off := g.Prints(200, 30, 60)
			assert.False(t, math.IsNaN(off))
			return
		}
		var u Unfit
		assert.ErrorAs(t, err, &u)
	})
}

package hpgl_test

import (
	"bytes"
	"math"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
)

func TestPlotterFilesAreRead(t *testing.T) {
	for text, want := range map[string]struct {
		w, h, length float64
		closed       bool
	}{
		"IN;SP1;PU0,0;PD400,0;PU;":                      {10, 0, 10, false},
		"IN SP3 PU0,0 PD400,0,400,400,0,400,0,0 PU SP0": {10, 10, 40, true},
		"SP1;PA0,0;PD;PR400,0;PR0,400;PU;":              {10, 10, 20, false},
		"SP1PU400,0PD;AA0,0,90PU;":                      {10, 10, 5 * math.Pi, false},
		"SP1;PU400,0;PD;AR-400,0,-360;PU":               {20, 20, 20 * math.Pi, true},
		"SP1;PU100,100;CI200;":                          {10, 10, 10 * math.Pi, true},
		"SP1;PU0,0;EA400,200;":                          {10, 5, 30, true},
		"\x1b.(;SP1;LBPlum Lane\x03PU0,0;PD40,0;":       {1, 0, 1, false},
		"SP1;DT#;LBno;end#PU0,0;PD40,0;":                {1, 0, 1, false},
		"sp1;pu0,0;pd400,0;vs20;fs3,1;":                 {10, 0, 10, false},
	} {
		d, err := hpgl.Read(t.Context(), []byte(text))
		require.NoError(t, err, text)
		require.Len(t, d.Shapes, 1, text)
		assert.InDelta(t, want.w, d.Width, 1e-6, text)
		assert.InDelta(t, want.h, d.Height, 1e-6, text)
		assert.InDelta(t, want.length, d.Shapes[0].Path.Length(), 1e-6, text)
		assert.Equal(t, want.closed, d.Shapes[0].Path.Closed(), text)
	}
	d, err := hpgl.Read(t.Context(), []byte("SP2;PU0,0;PD400,0;LBSeed swap\x03;XX3;LT2;SC0,1,0,1;RA40,40;"))
	require.NoError(t, err)
	assert.Equal(t, card.RoleMountain, d.Shapes[0].Role)
	notes := strings.Join(d.Notes, "\n")
	for _, want := range []string{"“Seed swap”", "instruction XX", "Dashed", "scale of its own", "filled rectangle"} {
		assert.Contains(t, notes, want)
	}
	for why, text := range map[string]string{
		"no line":            "IN;SP1;PU0,0;",
		"stray “Q”":          "SP1;Q",
		"no list of numbers": "PD1,1.2.3,2;",
		"packed lines":       "PE\xbf;",
		"larger than":        "PU0,0;PD1000000000,0;",
	} {
		_, err := hpgl.Read(t.Context(), []byte(text))
		var refusal *hpgl.Error
		require.ErrorAs(t, err, &refusal, text)
		assert.ErrorContains(t, err, why)
	}
}

func TestDrawingsComeBackToAUnit(t *testing.T) {
	r := rand.New(rand.NewPCG(75, 76))
	for range 30 {
		d := exchange.Drawing{Width: 200, Height: 200}
		for _, role := range []card.Role{card.RoleCut, card.RoleValley, card.RoleMountain, card.RolePen}[:1+r.IntN(4)] {
			d.Shapes = append(d.Shapes, exchange.Shape{Role: role, Path: coretest.RandomPath(r)})
		}
		var b bytes.Buffer
		require.NoError(t, hpgl.WriteDrawing(&b, d))
		back, err := hpgl.Read(t.Context(), b.Bytes())
		require.NoError(t, err)
		box := d.Bounds()
		back.Transform(geom.Shift(box.X, box.Y))
		coretest.NearDrawing(t, d, back, 1./hpgl.PerMM+.02)
		roles := map[card.Role]bool{}
		for _, s := range back.Shapes {
			roles[s.Role] = true
		}
		require.Len(t, roles, len(d.Shapes))
	}
}

func FuzzRead(f *testing.F) {
	f.Add([]byte("PE7:\x61>\x63<=\x5f\x5f\x40\x61\x62;PE<\xbf\xbf\xe7\xbf;"))
	f.Add([]byte("IN;SP1;PU0,0;PD400,0,1,2;PR3,4;AA0,0,90;CI5;EA3,3;LBx\x03;PU;"))
	f.Fuzz(func(t *testing.T, raw []byte) {
		coretest.Bounded(t, raw, hpgl.Read)
	})
}

// Plots spoilt in every way are read within bounds.
func TestSpoiltPlotsAreReadWithinBounds(t *testing.T) {
	r := rand.New(rand.NewPCG(215, 216))
	n := 400
	if os.Getenv("SOAK") != "" {
		n = 30_000
	}
	for range n {
		coretest.Bounded(t, coretest.Spoilt(r, []byte("IN;SP1;PU0,0;PD400,0,1,2;PR3,4;AA0,0,90;CI5;EA3,3;RA900,40;AR5,6,70;SC0,10,0,10;IP0,0,400,400;LT2,4;WG50,0,90;LBx\x03;PU;SP2;PA;PD7,8;")), hpgl.Read)
	}
}

// pack writes places as packed lines, the first reached with the pen up.
func pack(base, fraction int, absolute bool, at []geom.Point) string {
	var b strings.Builder
	number := func(v int) {
		n := 2 * v
		if v < 0 {
			n = -2*v + 1
		}
		for n >= base {
			b.WriteByte(byte(63 + n%base))
			n /= base
		}
		b.WriteByte(byte(map[int]int{64: 191, 32: 95}[base] + n))
	}
	b.WriteString("PE")
	if base == 32 {
		b.WriteByte('7')
	}
	if fraction > 0 {
		b.WriteByte('>')
		number(fraction)
	}
	was := geom.Point{}
	for i, q := range at {
		if i == 0 {
			b.WriteByte('<')
		}
		v := q.Sub(was)
		if absolute {
			b.WriteByte('=')
			v = q
		}
		number(int(math.Round(v.X * float64(int(1)<<fraction))))
		number(int(math.Round(v.Y * float64(int(1)<<fraction))))
		was = q
	}
	return b.String() + ";"
}

// Packed lines are the lines that they were packed of, in either base, with and without a
// fraction, counted from the last place or from the origin.
func TestPackedLinesAreRead(t *testing.T) {
	r := rand.New(rand.NewPCG(41, 42))
	for range 300 {
		base, fraction, absolute := []int{32, 64}[r.IntN(2)], r.IntN(5), r.IntN(2) == 0
		at := make([]geom.Point, 2+r.IntN(9))
		for i := range at {
			at[i] = geom.Pt(float64(r.IntN(9001)-4500), float64(r.IntN(9001)-4500))
			if fraction > 0 {
				at[i] = at[i].Add(geom.Pt(.5, .5))
			}
		}
		d, err := hpgl.Read(t.Context(), []byte("IN;SP1;"+pack(base, fraction, absolute, at)+"PU;SP0;"))
		require.NoError(t, err)
		require.Len(t, d.Shapes, 1)
		var want geom.Builder
		want.Move(at[0])
		for _, q := range at[1:] {
			want.Line(q)
		}
		p := want.Path()
		box := p.Bounds()
		require.InDelta(t, p.Length()/hpgl.PerMM, d.Shapes[0].Path.Length(), 1e-6)
		require.InDelta(t, box.W/hpgl.PerMM, d.Bounds().W, 1e-6)
		require.InDelta(t, box.H/hpgl.PerMM, d.Bounds().H, 1e-6)
	}
	// A pen is chosen within; blanks do not count; the pen is down afterwards.
	d, err := hpgl.Read(t.Context(), []byte("PE:\xc5<=\xbf\xbf \xe7\xbf\n;PR 40,40;"))
	require.NoError(t, err)
	require.Len(t, d.Shapes, 1)
	assert.Equal(t, "Pen 3", d.Shapes[0].Layer)
	assert.InDelta(t, .5+math.Sqrt2, d.Shapes[0].Path.Length(), 1e-6)
}

func TestSpoiltPackedLinesAreRefused(t *testing.T) {
	for _, text := range []string{"PE\xbf", "PE\x40\xbf;", "PE>\xff\xbf\xbf;", "PE>\xc2\xbf\xbf;", "PE:\xff", "PE\x30\xbf\xbf;", "PE7\x60\x3e;", "PE" + strings.Repeat("\x40", 40) + "\xbf;"} {
		_, err := hpgl.Read(t.Context(), []byte("SP1;PD40,40;"+text))
		var refusal *hpgl.Error
		require.ErrorAs(t, err, &refusal, "%q", text)
		assert.ErrorContains(t, err, "the packed lines at byte 13 are spoilt", "%q", text)
	}
}

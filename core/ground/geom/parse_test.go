package geom

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestPathDataIsReadInAllItsForms(t *testing.T) {
	for d, want := range map[string]string{
		"":                          "",
		"  \n ":                     "",
		"M1 2":                      "M1 2",
		"M1,2L3-4":                  "M1 2L3 -4",
		"M.5.5.25":                  "", // odd: a y is missing
		"M0 0 10 0 10 10z":          "M0 0L10 0L10 10Z",
		"m1 2 3 4 5 6":              "M1 2L4 6L9 12",
		"M0 0h5v5H0V0":              "M0 0L5 0L5 5L0 5L0 0",
		"M0 0H1 2 3":                "M0 0L1 0L2 0L3 0",
		"M1e1-2E-1":                 "M10 -0.2",
		"M0 0C1 2 3 4 5 6s7 8 9 10": "M0 0C1 2 3 4 5 6C7 8 12 14 14 16",
		"M0 0S1 2 3 4":              "M0 0C0 0 1 2 3 4",
		"M0 0Q1 2 3 4T5 6T7 8":      "M0 0Q1 2 3 4Q5 6 5 6Q5 6 7 8",
		"M0 0T5 6":                  "M0 0Q0 0 5 6",
		"M0 0c1 0 2 1 2 2zl5 5":     "M0 0C1 0 2 1 2 2ZM0 0L5 5",
		"M1 1L2 2ZZ":                "M1 1L2 2Z",
		"M0 0A5 5 0 0 1 10 0":       "M0 0A5 5 0 0 1 5 -5A5 5 0 0 1 10 0",
		"M0 0A5 5 0 0110 0":         "M0 0A5 5 0 0 1 5 -5A5 5 0 0 1 10 0", // flags need nothing between
		"M0 0a5 5 0 0 1 5 5":        "M0 0A5 5 0 0 1 5 5",
		"M0 0A0 5 0 0 1 10 0":       "M0 0L10 0",
		"M3 3A5 5 0 0 1 3 3":        "M3 3",
		"M0 0A-5 1 0 0 1 20 0":      "M0 0A10 2 0 0 1 10 -2A10 2 0 0 1 20 0", // too small: grown
		"M+1+2l+0-0":                "M1 2L1 2",
		"M0 0 L 1..2":               "M0 0L1 0.2",
	} {
		p, err := ParsePath(d)
		if want == "" && strings.TrimSpace(d) != "" {
			require.Error(t, err, d)
			continue
		}
		require.NoError(t, err, d)
		assert.Equal(t, want, p.String(), d)
	}
}

func TestBrokenPathDataIsRefusedWhereItBreaks(t *testing.T) {
	for d, offset := range map[string]int{
		"L1 2": 0, "10 20": 0, "M1": 2, "M1 2X": 5, "M1 2L": 6, "M0 0C1 2 3 4 5": 14, "M1 2 3": 6, "MNaN 2": 1, "MInfinity 1": 1,
		"M1e999 0": 1, "M9999999999 0": 1, "M0 0A1 1 0 2 0 5 5": 12, "M0 0,,1": 5, "M0 0L1 2é": 8, "M0 0A1e8 1e-8 45 1 1 3 4": 24,
	} {
		_, err := ParsePath(d)
		var e *ParseError
		require.ErrorAs(t, err, &e, d)
		assert.InDelta(t, offset, e.Offset, 2, "%s: %v", d, e)
		assert.NotEmpty(t, e.Why)
	}
}

// What is written is what was there, to the 0.1 µm that it is written with.
func TestWrittenPathsReadBackTheSame(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 14))
	for range 2000 {
		p := randomCurved(r)
		back, err := ParsePath(p.String())
		require.NoError(t, err)
		a, b := p.Flatten(.01), back.Flatten(.01)
		require.Equal(t, len(a), len(b))
		require.InDelta(t, p.Area(), back.Area(), .05+1e-5*math.Abs(p.Area()), p.String())
		x, y := p.Bounds(), back.Bounds()
		require.InDelta(t, x.X, y.X, 1e-3, p.String())
		require.InDelta(t, x.Bottom(), y.Bottom(), 1e-3, p.String())
	}
}

func FuzzParsePath(f *testing.F) {
	for _, s := range []string{"M0 0A5 5 0 0110 0z", "m1 2 3 4c1 2 3 4 5 6s1 1 2 2q1 1 2 2t3 3h1v-1Z", "M.5.5-.5e1", "M0 0A1e8 1e-8 45 1 1 3 4"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, d string) {
		p, err := ParsePath(d)
		if err != nil {
			return
		}
		b := p.Bounds()
		for _, v := range []float64{b.X, b.Y, b.W, b.H, p.Area()} {
			if math.IsNaN(v) || math.IsInf(v, 0) {
				t.Fatalf("%q is not finite: %v", d, b)
			}
		}
		if _, err := ParsePath(p.String()); err != nil {
			t.Fatalf("%q was written as %q: %v", d, p.String(), err)
		}
	})
}

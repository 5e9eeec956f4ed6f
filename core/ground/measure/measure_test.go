package measure

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestParseReadsWhatPeopleType(t *testing.T) {
	for _, c := range []struct {
		text  string
		shown Unit
		mm    float64
	}{
		{"3 3/8", In, 3.375 * Inch}, {"3⅜ in", In, 3.375 * Inch}, {"3 ⅜", In, 3.375 * Inch},
		{"85mm", In, 85}, {"5 1/2 - 1/8", In, 5.375 * Inch}, {"1/8", In, Inch / 8}, {"½", In, Inch / 2},
		{"-1/4", In, -Inch / 4}, {"5,5", MM, 5.5}, {"140 - 3", MM, 137}, {"3 3/8 in", MM, 3.375 * Inch},
		{"1 in + 10 mm", In, Inch + 10}, {"2.5 cm", MM, 25}, {`4"`, MM, 4 * Inch}, {"72pt", MM, Inch},
		{"3⁄4", In, .75 * Inch}, {"  7  ", In, 7 * Inch}, {"-0", MM, 0},
	} {
		got, err := Parse(c.text, c.shown)
		require.NoError(t, err, c.text)
		assert.InDelta(t, c.mm, got, 1e-9, c.text)
	}
}

func TestParseRefusesAndSaysWhatWouldBeRight(t *testing.T) {
	for text, why := range map[string]string{
		"":                        "is no measure",
		"   ":                     "is no measure",
		"wide":                    "cannot be read",
		"3 furlongs":              "has a unit that is not known here",
		"1/0":                     "divides by zero",
		"1/":                      "without its lower number",
		"3 4":                     "two numbers side by side",
		"3 in 4":                  "cannot be read",
		"--3":                     "cannot be read",
		"1e9":                     "has a unit",
		"999999999":               "larger than any paper",
		"1.2.3":                   "cannot be read",
		strings.Repeat("1+", 300): "is too long",
	} {
		_, err := Parse(text, In)
		var e *Error
		require.ErrorAs(t, err, &e, text)
		assert.Contains(t, e.Why, why)
		assert.Contains(t, e.Why, "Write a measure such as")
	}
	_, err := Parse("1", "ell")
	assert.Error(t, err)
}

// The interface formats measures too, in TypeScript; both read this table.
func TestFormatAgreesWithTheSharedTable(t *testing.T) {
	raw, err := os.ReadFile("testdata/format.json")
	require.NoError(t, err)
	var rows []struct {
		MM   float64 `json:"mm"`
		Unit Unit    `json:"unit"`
		Text string  `json:"text"`
	}
	require.NoError(t, json.Unmarshal(raw, &rows))
	require.Greater(t, len(rows), 10)
	for _, r := range rows {
		assert.Equal(t, r.Text, Format(r.MM, r.Unit), "%v %v", r.MM, r.Unit)
	}
	assert.Equal(t, "5 × 7 in", FormatSize(127, 177.8, In))
	assert.Equal(t, "3.5 mm", FormatUnit(3.46, MM))
}

func TestFormatThenParseComesBack(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 5000 {
		mm := (r.Float64() - .5) * 2000
		for unit, step := range map[Unit]float64{In: Inch / 32, MM: .1} {
			back, err := Parse(Format(mm, unit), unit)
			require.NoError(t, err)
			assert.LessOrEqual(t, math.Abs(back-mm), step/2+1e-9)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"3 3/8", "5 1/2 - 1/8", "85mm", "½", "1/0", "-", "⅜⅜"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		v, err := Parse(s, In)
		if err == nil && (math.IsNaN(v) || math.IsInf(v, 0) || math.Abs(v) > 1e5*Inch) {
			t.Fatalf("%q gave %v", s, v)
		}
	})
}

func TestSmallAmountsReadBackAsTheyWereTyped(t *testing.T) {
	for mm, want := range map[float64]string{.4: "1/64 in", .3: "0.3 mm", .5: "0.5 mm", .8: "1/32 in", 1: "1 mm", 2: "5/64 in", 3.175: "⅛ in", 0: "0 in", -.3: "-0.3 mm", 5: "3/16 in"} {
		assert.Equal(t, want, FormatUnit(mm, In))
	}
	for mm := .01; mm < Inch/8; mm += .01 {
		back, err := Parse(FormatUnit(mm, In), In)
		require.NoError(t, err)
		assert.InDelta(t, mm, back, small+1e-9)
	}
}

func TestSmallAmountsAreWrittenInTheUnitThatShowsThem(t *testing.T) {
	for mm, want := range map[float64]string{0.3: "0.3 mm", 0.04: "0.04 mm", 0: "0 mm", -0.3: "-0.3 mm", 1.2: "1.2 mm", 1.56: "1/16 in (1.6 mm)", 1.6: "1/16 in (1.6 mm)", 40: "1 9/16 in (40 mm)", 0.001: "0 mm"} {
		assert.Equal(t, want, FormatBoth(mm))
	}
}

package svg_test

import (
	"bytes"
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/format/svg"
	"sectilis/core/ground/geom"
)

func read(t *testing.T, body string) exchange.Drawing {
	t.Helper()
	d, err := svg.Read(t.Context(), []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm" viewBox="0 0 100 50">`+body+`</svg>`), nil)
	require.NoError(t, err, body)
	return d
}

func TestShapesArriveInTrueMillimetres(t *testing.T) {
	for body, want := range map[string]geom.Rect{
		`<rect x="10" y="5" width="20" height="10"/>`:                                                                             {X: 10, Y: 5, W: 20, H: 10},
		`<rect x="10" y="5" width="20" height="10" rx="4" ry="2"/>`:                                                               {X: 10, Y: 5, W: 20, H: 10},
		`<circle cx="30" cy="20" r="5"/>`:                                                                                         {X: 25, Y: 15, W: 10, H: 10},
		`<ellipse cx="30" cy="20" rx="5" ry="2"/>`:                                                                                {X: 25, Y: 18, W: 10, H: 4},
		`<polygon points="0,0 10,0 10 10"/>`:                                                                                      {W: 10, H: 10},
		`<polyline points="1 1 3 4 5 1"/>`:                                                                                        {X: 1, Y: 1, W: 4, H: 3},
		`<line x1="1" y1="2" x2="4" y2="6" stroke="red"/>`:                                                                        {X: 1, Y: 2, W: 3, H: 4},
		`<path d="M1 1h8v8h-8z"/>`:                                                                                                {X: 1, Y: 1, W: 8, H: 8},
		`<g transform="translate(10 5) scale(2)"><rect width="3" height="4"/></g>`:                                                {X: 10, Y: 5, W: 6, H: 8},
		`<rect width="10" height="2" transform="rotate(90 5 5)"/>`:                                                                {X: 8, Y: 0, W: 2, H: 10},
		`<rect width="4" height="4" transform="matrix(1,0,0,1,3,3)skewX(45)"/>`:                                                   {X: 3, Y: 3, W: 8, H: 4},
		`<defs><rect id="a" width="2" height="3"/></defs><use href="#a" x="7" y="8"/>`:                                            {X: 7, Y: 8, W: 2, H: 3},
		`<defs><g id="a"><rect id="b" width="2" height="3"/></g></defs><use xlink:href="#a" y="8"/>`:                              {X: 0, Y: 8, W: 2, H: 3},
		`<symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol><use href="#s" width="20" height="20" x="5"/>`: {X: 5, W: 20, H: 20},
		`<svg x="10" y="10" width="20" height="20" viewBox="0 0 2 2"><rect width="1" height="1"/></svg>`:                          {X: 10, Y: 10, W: 10, H: 10},
	} {
		d := read(t, body)
		require.Len(t, d.Shapes, 1, body)
		b := d.Bounds()
		for _, pair := range [][2]float64{{want.X, b.X}, {want.Y, b.Y}, {want.W, b.W}, {want.H, b.H}} {
			assert.InDelta(t, pair[0], pair[1], 1e-6, "%s: %v", body, b)
		}
	}
	for head, width := range map[string]float64{
		`width="2in" height="1in"`:                                                   2 * 25.4,
		`width="96" height="48"`:                                                     25.4,
		`width="10cm" height="5cm" viewBox="0 0 7 3.5"`:                              100,
		`width="40mm" viewBox="0 0 7 3.5"`:                                           40,
		`width="72pt" height="36pt" viewBox="0 0 2 1"`:                               25.4,
		`viewBox="0 0 96 48"`:                                                        25.4,
		`width="100%" height="100%" viewBox="0 0 96 48"`:                             25.4,
		`width="50mm" height="100mm" viewBox="0 0 10 10" preserveAspectRatio="none"`: 50,
	} {
		d, err := svg.Read(t.Context(), []byte(`<svg xmlns="http://www.w3.org/2000/svg" `+head+`><rect width="1" height="1"/></svg>`), nil)
		require.NoError(t, err)
		assert.InDelta(t, width, d.Width, 1e-6, head)
	}
	// A picture in another shape than its frame lies in the middle.
	d, err := svg.Read(t.Context(), []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="10mm" viewBox="0 0 10 10"><rect width="10" height="10"/></svg>`), nil)
	require.NoError(t, err)
	assert.InDelta(t, 10, d.Bounds().X, 1e-9)
}

func TestStylesComeFromWhereTheyAreSet(t *testing.T) {
	for body, want := range map[string][2]string{
		`<rect width="1" height="1"/>`:                                                                                                                {"#000000", ""},
		`<rect width="1" height="1" fill="#F00"/>`:                                                                                                    {"#ff0000", ""},
		`<g fill="teal" stroke="rgb(10, 20,30)"><rect width="1" height="1"/></g>`:                                                                     {"#008080", "#0a141e"},
		`<rect width="1" height="1" fill="red" style="fill:none;stroke:#123456"/>`:                                                                    {"", "#123456"},
		`<style>.a{fill:#112233} rect{fill:red} #x{stroke:blue}</style><rect id="x" class="b a" width="1" height="1"/>`:                               {"#112233", "#0000ff"},
		`<style><![CDATA[rect.a, .c { fill : lime }]]></style><rect class="a" width="1" height="1" fill="red"/>`:                                      {"#00ff00", ""},
		`<g color="#abcdef"><rect width="1" height="1" fill="currentColor"/></g>`:                                                                     {"#abcdef", ""},
		`<rect width="1" height="1" fill="rgb(100%,0%,50%)"/>`:                                                                                        {"#ff0080", ""},
		`<linearGradient id="g"><stop stop-color="#000"/><stop style="stop-color:#fff"/></linearGradient><rect width="1" height="1" fill="url(#g)"/>`: {"#7f7f7f", ""},
		`<pattern id="p"><circle r="1" fill="#010203"/></pattern><rect width="1" height="1" fill="url(#p)"/>`:                                         {"#010203", ""},
		`<rect width="1" height="1" fill="url(#nothing) red"/>`:                                                                                       {"#ff0000", ""},
	} {
		d := read(t, body)
		require.Len(t, d.Shapes, 1, body)
		assert.Equal(t, want, [2]string{d.Shapes[0].Fill, d.Shapes[0].Stroke}, body)
	}
	d := read(t, `<g transform="scale(3)"><path d="M0 0L1 1" stroke="red" stroke-width="0.5"/></g>`)
	assert.InDelta(t, 1.5, d.Shapes[0].Width, 1e-9)
	d = read(t, `<path fill-rule="evenodd" d="M0 0h9v9h-9zM1 1h2v2h-2z"/>`)
	assert.Equal(t, geom.EvenOdd, d.Shapes[0].Rule)
	for _, hidden := range []string{`display="none"`, `visibility="hidden"`, `opacity="0"`, `fill="none"`} {
		assert.Empty(t, read(t, `<rect width="1" height="1" `+hidden+`/>`).Shapes, hidden)
	}
}

func TestWhatIsNotTakenIsTold(t *testing.T) {
	d := read(t, `<text x="1" y="2">Plum <tspan>Lane</tspan></text><foreignObject/><rect width="1" height="1" opacity=".5" clip-path="url(#c)"/>
		<use href="#gone"/><style>a > b {fill:red} @media print { rect { fill: red } }</style><path d="M0 0L1 1" stroke="red" stroke-dasharray="1 2"/>
		<rect width="1" height="1" fill="url(#g)"/><linearGradient id="g"><stop stop-color="red"/></linearGradient><image href="data:image/png;base64,%%" width="1" height="1"/>`)
	notes := strings.Join(d.Notes, "\n")
	for _, want := range []string{"“Plum Lane”", "foreignObject", "no such thing in the file", "clip path", "“#gone”", "“a>b”", "@media print", "gradient was reduced", "picture cannot be read"} {
		assert.Contains(t, notes, want)
	}
	pic := read(t, `<image id="p" x="2" y="3" width="10" height="20" href="data:image/png;base64, aGVs bG8="/>`)
	require.Len(t, pic.Pictures, 1)
	assert.Equal(t, "hello", string(pic.Pictures[0].Raw))
	assert.Equal(t, geom.Pt(12, 23), pic.Pictures[0].At.Apply(geom.Pt(1, 1)))
}

func TestHostileFilesAreRefused(t *testing.T) {
	const open = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink">`
	laughs := `<g id="a0"><rect width="1" height="1"/></g>`
	for i := 1; i < 12; i++ {
		laughs += fmt.Sprintf(`<g id="a%d">%s</g>`, i, strings.Repeat(fmt.Sprintf(`<use href="#a%d"/>`, i-1), 10))
	}
	for why, text := range map[string]string{
		"declares entities":     `<!DOCTYPE svg [<!ENTITY a "b">]>` + open + `</svg>`,
		"not well formed":       open + `<rect`,
		"is no SVG.":            `<html/>`,
		"hold themselves":       open + `<g id="a"><use href="#a"/></g></svg>`,
		"unfolds to more":       open + laughs + `</svg>`,
		"nested more than 120":  open + strings.Repeat("<g>", 200),
		"A path cannot be read": open + `<path d="M0 0L1"/></svg>`,
		"no transform":          open + `<g transform="spin(3)"/></svg>`,
		"points of a polygon":   open + `<polygon points="1,x"/></svg>`,
		"m away":                open + `<rect width="1" height="1" transform="scale(1e8)"/></svg>`,
		"save it as UTF-8":      `<?xml version="1.0" encoding="koi8-r"?>` + open + `</svg>`,
	} {
		_, err := svg.Read(t.Context(), []byte(text), nil)
		var refusal *svg.Error
		require.ErrorAs(t, err, &refusal, why)
		assert.ErrorContains(t, err, why)
	}
}

// What is written is what was there, to a thousandth.
func TestDrawingsComeBackAsTheyWere(t *testing.T) {
	r := rand.New(rand.NewPCG(71, 72))
	for range 200 {
		d := exchange.Drawing{Width: 200, Height: 150}
		for range 1 + r.IntN(6) {
			p := coretest.RandomPath(r)
			s := exchange.Shape{Name: `A & "b"`, Path: p}
			switch r.IntN(3) {
			case 0:
				s.Role = card.Roles()[r.IntN(7)]
			case 1:
				s.Fill, s.Rule = "#a8432a", geom.FillRule(r.IntN(2))
			default:
				s.Stroke, s.Width = "#35658c", .5
			}
			d.Shapes = append(d.Shapes, s)
		}
		var b bytes.Buffer
		require.NoError(t, svg.Write(&b, d, "Trial"))
		back, err := svg.Read(t.Context(), b.Bytes(), nil)
		require.NoError(t, err)
		require.Len(t, back.Shapes, len(d.Shapes))
		assert.Empty(t, back.Notes)
		assert.InDelta(t, 200, back.Width, 1e-9)
		coretest.SameDrawing(t, d, back, .001)
	}
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(`<svg width="10mm" height="10mm" viewBox="0 0 10 10"><style>.a{fill:red}</style><g transform="rotate(3)"><use href="#b"/><rect id="b" class="a" rx="1" width="3" height="3"/></g></svg>`))
	f.Add([]byte(`<svg><image href="data:image/png;base64,aGVsbG8=" width="1" height="1"/><path d="M0 0A5 5 0 0110 0z" stroke="url(#g)"/><linearGradient id="g" href="#g"/></svg>`))
	f.Fuzz(func(t *testing.T, raw []byte) {
		coretest.Bounded(t, raw, reading)
	})
}

func reading(ctx context.Context, raw []byte) (exchange.Drawing, error) {
	return svg.Read(ctx, raw, nil)
}

// Drawings of every construct, spoilt in every way, are read within bounds.
func TestSpoiltDrawingsAreReadWithinBounds(t *testing.T) {
	r := rand.New(rand.NewPCG(211, 212))
	n := 250
	if os.Getenv("SOAK") != "" {
		n = 20_000
	}
	for range n {
		coretest.Bounded(t, coretest.Spoilt(r, []byte(coretest.RandomSVG(r))), reading)
	}
}

package svg_test

import (
	"context"
	"fmt"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/format/svg"
	"sectilis/core/ground/geom"
)

// What is in a file of which a part cannot be taken comes in all the same, and the part is
// told.
func TestWhatCannotBeTakenIsLeftOutAndTheRestComesIn(t *testing.T) {
	for body, note := range map[string]string{
		`<script>1</script>`: "A script was left out.",
		`<g onload="x()"/>`:  "A script was left out.",
		`<image href="http://example.org/a.png" width="1" height="1"/>`: "(“http://example.org/a.png”)",
		`<use xlink:href="other.svg#a"/>`:                               "nothing is fetched",
		`<style>@import url(a.css); rect{fill:red}</style>`:             "Styles from another file",
		`<image width="1" height="1"/>`:                                 "not in the SVG",
		`<a href="javascript:x()"/>`:                                    "",
		`<g only_selected="1" once="2"/>`:                               "A script was left out.",
	} {
		if strings.Contains(body, "only_selected") {
			body, note = `<g only_selected="1"/>`, ""
		}
		d := read(t, body+`<rect width="1" height="1"/>`)
		require.Len(t, d.Shapes, 1, body)
		if note == "" {
			assert.Empty(t, d.Notes, body)
		} else {
			assert.Contains(t, strings.Join(d.Notes, "\n"), note, body)
		}
	}
	pic := read(t, `<image width="1" height="1" href="data:;base64,aGVsbG8="/>`)
	require.Len(t, pic.Pictures, 1)
}

func box(x, y, w, h float64) geom.Rect { return geom.Rect{X: x, Y: y, W: w, H: h} }

func TestConstructsOfRealFilesAreRead(t *testing.T) {
	all := box(0, 0, 100, 50)
	for body, want := range map[string]geom.Rect{
		`<switch><foreignObject requiredExtensions="x"/><g><rect width="100" height="50"/></g></switch>`:                                            all,
		`<switch><g systemLanguage="de"><rect width="1" height="1"/></g><g systemLanguage="en-GB, fr"><rect width="100" height="50"/></g></switch>`: all,
		`<switch><g systemLanguage="de"><rect width="1" height="1"/></g><rect width="100" height="50"/></switch>`:                                   all,
		`<rect width="100" height="50" transform="translate(0-0)scale(1-1)translate(0-50)"/>`:                                                       all,
		`<rect width="200" height="100" transform="scale(.5.5)"/>`:                                                                                  all,
		`<polygon points="0-25 100-25 100,25-0 25" transform="translate(0 25)"/>`:                                                                   all,
		`<rect width="100" height="50" transform="none"/>`:                                                                                          all,
		`<rect width="100%" height="100%"/>`:                                                                                                        all,
		`<rect x="25%" y="50%" width="50%" height="20%"/>`:                                                                                          box(25, 25, 50, 10),
		`<circle cx="50%" cy="50%" r="10%"/>`:                                                                                                       box(50-7.90569415, 25-7.90569415, 15.8113883, 15.8113883),
		`<svg x="10%" width="50%" height="50%"><rect width="100%" height="100%"/></svg>`:                                                            box(10, 0, 50, 25),
		`<rect width="10" height="10" style="transform:translate(5px,6px)"/>`:                                                                       box(5, 6, 10, 10),
		`<rect width="10" height="10" style="transform:rotate(90deg);transform-origin:10px 0"/>`:                                                    box(0, -10, 10, 10),
		`<style>@charset "utf-8"; .a{transform:scale(2)}</style><rect class="a" width="10" height="10"/>`:                                           box(0, 0, 20, 20),
		`<g visibility="hidden"><rect width="1" height="1"/><rect visibility="visible" width="10" height="10"/></g>`:                                box(0, 0, 10, 10),
		`<path d="M12 16v.01" stroke="red" stroke-width="2" stroke-linecap="round"/>`:                                                               box(11, 15, 2, 2.01),
		`<clipPath id="c"><rect width="30" height="50"/></clipPath><rect clip-path="url(#c)" x="20" width="70" height="50"/>`:                       box(20, 0, 10, 50),
		`<clipPath id="c"><circle cx="50" cy="25" r="10"/></clipPath><g clip-path="url(#c)"><rect width="100" height="50"/></g>`:                    box(40, 15, 20, 20),
	} {
		d := read(t, body)
		require.Len(t, d.Shapes, 1, "%s: %v", body, d.Notes)
		b := d.Bounds()
		for _, pair := range [][2]float64{{want.X, b.X}, {want.Y, b.Y}, {want.W, b.W}, {want.H, b.H}} {
			assert.InDelta(t, pair[0], pair[1], 1e-5, "%s: %v", body, b)
		}
	}
	for body, want := range map[string][2]any{
		`fill="#11223380"`:                          {"#112233", 1 - 128./255},
		`fill="rgba(17, 34, 51, .25)"`:              {"#112233", .75},
		`fill="#123 icc-color(acmecmyk, .11, .48)"`: {"#112233", 0.},
		`fill="#123" opacity="40%"`:                 {"#112233", .6},
		`fill="#123" style="fill: red !important"`:  {"#ff0000", 0.},
		`class="x" style="fill:red"`:                {"#0000ff", 0.},
		`fill="url(#g)" fill-opacity=".5"`:          {"#ff0000", .5},
	} {
		d := read(t, `<style>.x{fill:blue!important}</style><linearGradient id="g"><stop stop-color="red" stop-opacity=".5"/><stop stop-color="red" stop-opacity="0"/></linearGradient><rect width="1" height="1" `+body+`/>`)
		require.Len(t, d.Shapes, 1, body)
		assert.Equal(t, want[0], d.Shapes[0].Fill, body)
		assert.InDelta(t, want[1], d.Shapes[0].Faint, 1e-6, body)
	}
	d := read(t, `<g opacity=".5"><g fill-opacity=".5" opacity=".8"><rect width="1" height="1"/></g></g>`)
	assert.InDelta(t, .8, d.Shapes[0].Faint, 1e-9, "what is seen through adds up")
	d = read(t, `<g transform="scale(3)"><path d="M0 0L1 1" stroke="red" stroke-width="2" vector-effect="non-scaling-stroke"/></g>`)
	assert.InDelta(t, 2*25.4/96, d.Shapes[0].Width, 1e-9)
}

// Layers go by the name that a person gave them, whichever program wrote it, and that tells
// what its lines are for; ids of other programs do not stand in for the element's own.
func TestLayersGoByTheirLabels(t *testing.T) {
	d := read(t, `<g id="layer1" xmlns:d="urn:made-up:draw" d:label="Mountain score" d:id="other"><g id="g12"><path id="p" d="M0 0L5 5" stroke="red"/></g></g>
		<g id="Cut"><path d="M0 0L9 9" stroke="red"/></g>`)
	require.Len(t, d.Shapes, 2)
	assert.Equal(t, []any{"Mountain score", card.RoleMountain, "p"}, []any{d.Shapes[0].Layer, d.Shapes[0].Role, d.Shapes[0].Name})
	assert.Equal(t, card.RoleCut, d.Shapes[1].Role)
}

// Small files that would unfold without end are refused, with little memory and work.
func TestSmallFilesThatWouldExhaustAreRefused(t *testing.T) {
	const open = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm" viewBox="0 0 100 50">`
	var rules, elements, refused strings.Builder
	for i := range 19_000 {
		fmt.Fprintf(&rules, "rect.c{fill:#%06x}", i)
		if i%10 == 0 {
			elements.WriteString(`<rect class="c" width="1" height="1"/>`)
		}
	}
	for i := range 32_000 {
		fmt.Fprintf(&refused, "a>b%d{fill:red}", i)
	}
	for name, k := range map[string]struct{ text, says string }{
		"rules by elements": {open + `<style>` + rules.String() + `</style>` + elements.String() + `</svg>`, "too intricate"},
		"copies of a path":  {open + `<path id="p" d="M0 0` + strings.Repeat("l1 1", 50_000) + `"/>` + strings.Repeat(`<use href="#p"/>`, 1600) + `</svg>`, "too intricate"},
		"refused selectors": {open + `<style>` + refused.String() + `</style><rect width="1" height="1"/></svg>`, ""},
		"empty remarks":     {open + `<style>` + strings.Repeat("/**/", 400_000) + `</style><rect width="1" height="1"/></svg>`, ""},
		"texts":             {open + `<rect width="1" height="1"/>` + strings.Repeat(`<text>a</text>`, 80_000) + `</svg>`, ""},
		"many other texts":  {open + `<rect width="1" height="1"/>` + texts(50_000) + `</svg>`, ""},
		"clips of clips":    {open + strings.Repeat(`<clipPath id="c"><circle r="9"/></clipPath><g clip-path="url(#c)">`, 100) + strings.Repeat(`<rect width="9" height="9"/>`, 9000) + strings.Repeat(`</g>`, 100) + `</svg>`, "too intricate"},
	} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		d, err := svg.Read(t.Context(), []byte(k.text), nil)
		runtime.ReadMemStats(&after)
		if k.says != "" {
			require.ErrorContains(t, err, k.says, name)
		} else {
			require.NoError(t, err, name)
			assert.Len(t, d.Shapes, 1, name)
			assert.LessOrEqual(t, len(d.Notes), 41, name)
		}
		assert.Less(t, float64(after.TotalAlloc-before.TotalAlloc)/(1<<20), 2500., "%s: MB, all that was ever asked for", name)
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err := svg.Read(ctx, []byte(open+strings.Repeat(`<rect width="1" height="1"/>`, 30_000)+`</svg>`), nil)
	require.ErrorIs(t, err, context.Canceled)
}

func texts(n int) string {
	var b strings.Builder
	for i := range n {
		fmt.Fprintf(&b, "<text>word %d</text>", i)
	}
	return b.String()
}

// What the SVG library that drawings are compared with does not know, by the standard: a
// clip path with a clip path of its own, children of a clip path that overlap, lines that
// are not scaled.
func TestClipsAndLinesByTheStandard(t *testing.T) {
	d := read(t, `<clipPath id="a"><rect x="10" y="5" width="35" height="30"/></clipPath>
		<clipPath id="b" clip-path="url(#a)"><path clip-rule="evenodd" d="M0 0h60v40h-60zM20 12h20v16h-20z"/></clipPath>
		<rect width="60" height="40" clip-path="url(#b)"/>`)
	require.Len(t, d.Shapes, 1)
	assert.InDelta(t, 35*30-20*16, d.Shapes[0].Path.Area(), 1e-6)
	d = read(t, `<clipPath id="a"><path d="M0 0h20v20h-20z"/><path d="M10 10v20h20v-20z"/></clipPath><rect width="60" height="40" clip-path="url(#a)"/>`)
	assert.InDelta(t, 700, d.Shapes[0].Path.Area(), 1e-6)
	d = read(t, `<clipPath id="a"><use href="#r" transform="translate(5 0)"/></clipPath><defs><rect id="r" width="10" height="10" transform="scale(2)"/></defs><rect width="60" height="40" clip-path="url(#a)"/>`)
	assert.Equal(t, geom.Rect{X: 5, W: 20, H: 20}, d.Shapes[0].Path.Bounds())
	d = read(t, `<clipPath id="a"><rect width="50" height="20"/></clipPath><g clip-path="url(#a)"><path d="M0 10H100" stroke="red" stroke-width=".2"/></g>`)
	require.Len(t, d.Shapes, 1)
	assert.Equal(t, "#ff0000", d.Shapes[0].Stroke, "a fine line goes on being one")
	assert.InDelta(t, 50, d.Shapes[0].Path.Length(), 1e-6)
	d = read(t, `<g transform="scale(3 1)"><path d="M0 10H10" stroke="red" stroke-width="2"/></g>`)
	require.NotNil(t, d.Shapes[0].Line.Pen)
	assert.InDelta(t, 60, d.Shapes[0].Outline().Area(), 1e-6, "30 long, 2 high")
}

func TestWordsAreSetWhereTheirFaceIsAtHand(t *testing.T) {
	// Each letter is a square of half its size, the next after its size.
	faces := func(family string, bold, italic bool) svg.Face {
		if family != "Plain" || bold || italic {
			return nil
		}
		return func(words string, size, spacing float64) (geom.Path, float64, bool) {
			var all []geom.Path
			x := 0.0
			for _, c := range words {
				if c == '?' {
					return geom.Path{}, 0, false
				}
				if c != ' ' {
					all = append(all, geom.RectPath(geom.Rect{X: x, Y: -size / 2, W: size / 2, H: size / 2}))
				}
				x += size + spacing
			}
			return geom.Join(all...), x, true
		}
	}
	for body, want := range map[string][]geom.Rect{
		`<text x="10" y="20" font-family="Plain" font-size="4">ab</text>`:                                             {box(10, 18, 6, 2)},
		`<text x="10" y="20" style="font:none;font-family:Other, 'Plain';font-size:4" text-anchor="middle">ab</text>`: {box(6, 18, 6, 2)},
		`<g font-family="Plain" font-size="4"><text text-anchor="end" x="10" y="20">  a  <tspan>b</tspan>
			 </text></g>`: {box(-2, 18, 2, 2), box(6, 18, 2, 2)},
		`<text font-family="Plain" font-size="4" y="4">a<tspan x="0" dy="6" fill="red">b</tspan></text>`: {box(0, 2, 2, 2), box(0, 8, 2, 2)},
		`<text font-family="Plain" font-size="4" x="1" y="4" letter-spacing="2">ab</text>`:               {box(1, 2, 8, 2)},
		`<text font-family="Plain" font-size="4" y="4">a<tspan dx="3" dy="2">b</tspan></text>`:           {box(0, 2, 2, 2), box(7, 4, 2, 2)},
		`<text font-family="Plain" font-size="4" y="4">a<tspan display="none">b</tspan>c</text>`:         {box(0, 2, 2, 2), box(4, 2, 2, 2)},
	} {
		d, err := svg.Read(t.Context(), []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm" viewBox="0 0 100 50">`+body+`</svg>`), faces)
		require.NoError(t, err)
		require.Len(t, d.Shapes, len(want), "%s: %v", body, d.Notes)
		assert.Empty(t, d.Notes, body)
		for i, s := range d.Shapes {
			b := s.Path.Bounds()
			assert.InDelta(t, 0, max(b.X-want[i].X, want[i].X-b.X, b.Y-want[i].Y, want[i].Y-b.Y, b.W-want[i].W, want[i].W-b.W, b.H-want[i].H, want[i].H-b.H), 1e-6, "%s: %v", body, b)
		}
	}
	d, err := svg.Read(t.Context(), []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm"><text id="t9" y="9" font-family="Plain"> two  words </text></svg>`), faces)
	require.NoError(t, err)
	assert.Equal(t, "two words", d.Shapes[0].Name)
	for _, body := range []string{
		`<text font-family="Plain" font-weight="bold">a</text>`,
		`<text font-family="Plain" font-style="italic">a</text>`,
		`<text font-family="Nothing">a</text>`,
		`<text font-family="Plain">a?</text>`,
		`<text font-family="Plain" x="1 5 9">abc</text>`,
		`<text font-family="Plain" x="somewhere">abc</text>`,
		`<text font-family="Plain" rotate="20">a</text>`,
		`<text font-family="Plain">a<tspan font-family="Nothing">b</tspan></text>`,
		`<text font-family="Plain"><textPath href="#p">a</textPath></text>`,
	} {
		d, err := svg.Read(t.Context(), []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm"><rect width="1" height="1"/>`+body+`</svg>`), faces)
		require.NoError(t, err)
		assert.Len(t, d.Shapes, 1, body)
		assert.Contains(t, strings.Join(d.Notes, "\n"), "The text “", body)
	}
}

func TestADrawingWithoutASizeSaysSo(t *testing.T) {
	for head, says := range map[string]bool{``: true, `viewBox="0 0 10 10"`: true, `width="10mm" height="10mm"`: false, `width="96"`: false} {
		d, err := svg.Read(t.Context(), []byte(`<svg xmlns="http://www.w3.org/2000/svg" `+head+`><rect width="9" height="9"/></svg>`), nil)
		require.NoError(t, err)
		assert.Equal(t, says, strings.Contains(strings.Join(d.Notes, ""), "does not say how large"), head)
	}
}

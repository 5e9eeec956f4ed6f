package dxf_test

import (
	"bytes"
	"context"
	"fmt"
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
	"sectilis/core/format/dxf"
	"sectilis/core/ground/geom"
)

// file makes a DXF of entities, each given as codes and values on one line.
func file(units string, tables string, entities ...string) []byte {
	lines := func(text string) string { return strings.Join(strings.Fields(text), "\n") + "\n" }
	out := "0\nSECTION\n2\nHEADER\n"
	if units != "" {
		out += "9\n$INSUNITS\n70\n" + units + "\n"
	}
	out += "0\nENDSEC\n"
	if tables != "" {
		out += lines(tables)
	}
	out += "0\nSECTION\n2\nENTITIES\n"
	for _, e := range entities {
		out += lines(e)
	}
	return []byte(out + "0\nENDSEC\n0\nEOF\n")
}

func read(t *testing.T, raw []byte) exchange.Drawing {
	t.Helper()
	d, err := dxf.Read(t.Context(), raw, "")
	require.NoError(t, err)
	return d
}

func TestEntitiesBecomeOutlines(t *testing.T) {
	for name, c := range map[string]struct {
		entity string
		w, h   float64
		length float64
		closed bool
	}{
		"line":           {"0 LINE 8 cut 10 1 20 2 11 4 21 6", 3, 4, 5, false},
		"circle":         {"0 CIRCLE 10 5 20 5 40 3", 6, 6, 6 * math.Pi, true},
		"arc":            {"0 ARC 10 0 20 0 40 2 50 0 51 90", 2, 2, math.Pi, false},
		"arc past":       {"0 ARC 10 0 20 0 40 2 50 270 51 90", 2, 4, 2 * math.Pi, false},
		"ellipse":        {"0 ELLIPSE 10 0 20 0 11 4 21 0 40 0.5 41 0 42 6.283185307179586", 8, 4, 19.3769, true},
		"light polyline": {"0 LWPOLYLINE 90 4 70 1 10 0 20 0 10 8 20 0 10 8 20 6 10 0 20 6", 8, 6, 28, true},
		"bulge":          {"0 LWPOLYLINE 90 2 70 1 10 0 20 0 42 1 10 4 20 0 42 1", 4, 4, 4 * math.Pi, true},
		"hardly a bulge": {"0 LWPOLYLINE 90 2 70 0 10 0 20 0 42 0.0000001 10 4 20 0", 4, 2e-7, 4, false},
		"polyline":       {"0 POLYLINE 66 1 70 1 0 VERTEX 10 0 20 0 0 VERTEX 10 3 20 0 0 VERTEX 10 3 20 4 0 SEQEND", 3, 4, 12, true},
		"spline":         {"0 SPLINE 70 8 71 3 40 0 40 0 40 0 40 0 40 1 40 1 40 1 40 1 10 0 20 0 10 1 20 0 10 2 20 0 10 3 20 0", 3, 0, 3, false},
		"fit points":     {"0 SPLINE 70 8 71 3 11 0 21 0 11 3 21 4", 3, 4, 5, false},
		"far round":      {"0 ELLIPSE 10 0 20 0 11 4 21 0 40 1 41 1000000000 42 6.283185307179586", 8, 8, 4 * math.Mod(2*math.Pi-math.Mod(1e9, 2*math.Pi), 2*math.Pi), false},
		"from behind":    {"0 CIRCLE 10 5 20 5 40 3 230 -1", 6, 6, 6 * math.Pi, true},
	} {
		d := read(t, file("4", "", c.entity))
		require.Len(t, d.Shapes, 1, name)
		assert.InDelta(t, c.w, d.Width, 1e-6, name)
		assert.InDelta(t, c.h, d.Height, 1e-6, name)
		assert.InDelta(t, c.length, d.Shapes[0].Path.Length(), 1e-3, name)
		assert.Equal(t, c.closed, d.Shapes[0].Path.Closed(), name)
	}
	// A quarter circle as a rational spline.
	d := read(t, file("4", "", "0 SPLINE 70 4 71 2 40 0 40 0 40 0 40 1 40 1 40 1 41 1 41 0.7071067811865476 41 1 10 1 20 0 10 1 20 1 10 0 20 1"))
	assert.InDelta(t, math.Pi/2, d.Shapes[0].Path.Length(), 1e-3)
	// y runs up in the file and down here.
	d = read(t, file("4", "", "0 LINE 10 0 20 0 11 10 21 0", "0 LINE 10 0 20 30 11 5 21 30"))
	assert.InDelta(t, 30, d.Shapes[0].Path.Bounds().Y, 1e-9)
	assert.InDelta(t, 0, d.Shapes[1].Path.Bounds().Y, 1e-9)
}

func TestLooseLinesAndArcsAreJoined(t *testing.T) {
	d := read(t, file("4", "", "0 LINE 10 0 20 0 11 10 21 0", "0 LINE 10 0 20 5 11 0 21 0.0001", "0 LINE 10 10 20 5 11 10 21 0", "0 ARC 10 5 20 5 40 5 50 0 51 180", "0 LINE 8 other 10 0 20 0 11 1 21 1"))
	require.Len(t, d.Shapes, 2, "on another layer is another line")
	assert.True(t, d.Shapes[0].Path.Closed())
	assert.InDelta(t, 50+math.Pi*12.5, math.Abs(d.Shapes[0].Path.Area()), 1e-2)
}

func TestBlocksLayersAndUnits(t *testing.T) {
	blocks := "0 SECTION 2 TABLES 0 LAYER 2 off 62 -3 70 0 0 LAYER 2 valley 62 5 70 0 0 ENDSEC " +
		"0 SECTION 2 BLOCKS 0 BLOCK 2 B 10 1 20 1 0 LINE 8 0 10 1 20 1 11 2 21 1 0 ENDBLK 0 BLOCK 2 SELF 0 INSERT 2 SELF 0 ENDBLK 0 ENDSEC"
	d := read(t, file("1", blocks, "0 INSERT 8 valley 2 B 10 2 20 2 41 3 42 3 50 90", "0 LINE 8 off 10 0 20 0 11 9 21 9", "0 INSERT 2 NONE", "0 TEXT 1 Hi 8 cut"))
	require.Len(t, d.Shapes, 1)
	assert.Equal(t, card.RoleValley, d.Shapes[0].Role, "a block's things go where it is put")
	assert.Equal(t, "#0000ff", d.Shapes[0].Stroke)
	assert.InDelta(t, 3*25.4, d.Height, 1e-6)
	assert.InDelta(t, 0, d.Width, 1e-6)
	notes := strings.Join(d.Notes, "\n")
	for _, want := range []string{"“off” is switched off", "“NONE” is not in the file", "“Hi” was left out"} {
		assert.Contains(t, notes, want)
	}
	grid := read(t, file("4", blocks, "0 INSERT 8 cut 2 B 70 3 71 2 44 10 45 20"))
	assert.Len(t, grid.Shapes, 6)

	none := file("", "", "0 CIRCLE 10 0 20 0 40 1 62 1")
	d = read(t, none)
	assert.True(t, d.NoUnit)
	assert.Equal(t, "#ff0000", d.Shapes[0].Stroke)
	d, err := dxf.Read(t.Context(), none, "in")
	require.NoError(t, err)
	assert.False(t, d.NoUnit)
	assert.InDelta(t, 50.8, d.Width, 1e-9)

	for why, raw := range map[string][]byte{
		"hold themselves":        file("4", blocks, "0 INSERT 2 SELF"),
		"more than 10,000":       file("4", blocks, "0 INSERT 2 B 70 9999 71 9999"),
		"no line in the DXF":     file("4", "", "0 POINT 10 1 20 1"),
		"should be a group code": []byte("hello\nworld\n"),
		"no section of entities": []byte("0\nEOF\n"),
		"in the middle":          []byte("0\nSECTION\n2"),
		"binary":                 []byte("AutoCAD Binary DXF\r\n\x1a\x00"),
		"larger than":            file("6", "", "0 CIRCLE 10 0 20 0 40 99999"),
	} {
		_, err := dxf.Read(t.Context(), raw, "")
		var refusal *dxf.Error
		require.ErrorAs(t, err, &refusal, why)
		assert.ErrorContains(t, err, why)
	}
}

func TestDrawingsComeBackAsTheyWere(t *testing.T) {
	r := rand.New(rand.NewPCG(73, 74))
	for range 30 {
		d := exchange.Drawing{Width: 200, Height: 200}
		for i := range 1 + r.IntN(5) {
			d.Shapes = append(d.Shapes, exchange.Shape{Role: card.Roles()[i], Path: coretest.RandomPath(r)})
		}
		var b bytes.Buffer
		require.NoError(t, dxf.Write(&b, d))
		back := read(t, b.Bytes())
		// The frame is that of what is in it.
		box := d.Bounds()
		back.Transform(geom.Shift(box.X, box.Y))
		var area, was, length, wasLength float64
		for _, s := range back.Shapes {
			area += math.Abs(s.Path.Area())
			length += s.Path.Length()
		}
		for _, s := range d.Shapes {
			for _, ring := range s.Path.Rings() {
				was += math.Abs(ring.Area())
			}
			wasLength += s.Path.Length()
		}
		require.InEpsilon(t, wasLength, length, 1e-4)
		require.InDelta(t, was, area, .001*wasLength+1e-3)
		coretest.NearDrawing(t, d, back, .001)
		require.Empty(t, back.Notes)
		require.False(t, back.NoUnit)
	}
}

func FuzzRead(f *testing.F) {
	f.Add(file("4", "0 SECTION 2 BLOCKS 0 BLOCK 2 B 0 LINE 10 1 20 1 11 2 21 1 0 ENDBLK 0 ENDSEC", "0 INSERT 2 B 41 2", "0 ARC 10 0 20 0 40 2 50 270 51 90"))
	f.Add(file("", "", "0 SPLINE 70 4 71 2 40 0 40 0 40 0 40 1 40 1 40 1 41 1 41 0.7 41 1 10 1 20 0 10 1 20 1 10 0 20 1", "0 LWPOLYLINE 90 2 70 1 10 0 20 0 42 1 10 4 20 0 42 1", "0 ELLIPSE 10 0 20 0 11 4 21 0 40 0.5"))
	f.Fuzz(func(t *testing.T, raw []byte) {
		coretest.Bounded(t, raw, reading)
	})
}

func reading(ctx context.Context, raw []byte) (exchange.Drawing, error) {
	return dxf.Read(ctx, raw, "in")
}

// Drawings of all entities, spoilt in every way, are read within bounds.
func TestSpoiltDrawingsAreReadWithinBounds(t *testing.T) {
	r := rand.New(rand.NewPCG(213, 214))
	entities := []string{
		"0 LINE 8 cut 10 1 20 2 11 4 21 6", "0 ARC 10 0 20 0 40 2 50 270 51 90", "0 ELLIPSE 10 0 20 0 11 4 21 0 40 0.5 41 0 42 6.28", "0 INSERT 2 B 70 3 71 2 44 10 45 20",
		"0 LWPOLYLINE 90 2 70 1 10 0 20 0 42 1 10 4 20 0 42 1", "0 POLYLINE 66 1 70 1 0 VERTEX 10 0 20 0 0 VERTEX 10 3 20 0 0 VERTEX 10 3 20 4 0 SEQEND",
		"0 SPLINE 70 8 71 3 40 0 40 0 40 0 40 0 40 1 40 1 40 1 40 1 10 0 20 0 10 1 20 0 10 2 20 5 10 3 20 0", "0 SPLINE 70 8 71 3 11 0 21 0 11 3 21 4",
		"0 HATCH 70 1 91 1 92 1 93 2 72 2 10 5 20 0 40 5 50 0 51 180 73 1 72 1 10 0 20 0 11 10 21 0 97 0", "0 SOLID 10 0 20 0 11 1 21 0 12 0 22 1 13 1 23 1", "0 TEXT 1 Hi 8 cut",
		"0 CIRCLE 10 5 20 5 40 3 210 0.3 220 0.2 230 -1",
	}
	n := 400
	if os.Getenv("SOAK") != "" {
		n = 30_000
	}
	for range n {
		var some []string
		for range 1 + r.IntN(6) {
			some = append(some, entities[r.IntN(len(entities))])
		}
		raw := file([]string{"4", "", "1"}[r.IntN(3)], "0 SECTION 2 BLOCKS 0 BLOCK 2 B 10 1 20 1 0 LINE 8 0 10 1 20 1 11 2 21 1 0 ENDBLK 0 ENDSEC", some...)
		coretest.Bounded(t, coretest.Spoilt(r, raw), reading)
	}
}

// entities is a DXF with some entities, and a header if one is given.
func entities(header, body string) []byte {
	text := ""
	if header != "" {
		text = "0\nSECTION\n2\nHEADER\n" + header + "0\nENDSEC\n"
	}
	return []byte(text + "0\nSECTION\n2\nENTITIES\n" + body + "0\nENDSEC\n0\nEOF\n")
}

func TestConstructsOfRealDXFFilesAreRead(t *testing.T) {
	const square = "0\nLWPOLYLINE\n8\n%s\n70\n1\n10\n%g\n20\n%g\n10\n%g\n20\n%g\n10\n%g\n20\n%g\n"
	triangle := func(layer string, x, y float64) string {
		return fmt.Sprintf(square, layer, x, y, x+10, y, x+10, y+5)
	}
	// Whatever comes after the end is not of the drawing.
	d, err := dxf.Read(t.Context(), append(entities("", triangle("A", 0, 0)), "\x1a\nnothing of this is a group\n"...), "mm")
	require.NoError(t, err)
	require.Len(t, d.Shapes, 1)
	// Far from the origin it is moved there.
	d, err = dxf.Read(t.Context(), entities("", triangle("A", 4.5e6, 5.3e6)), "mm")
	require.NoError(t, err)
	b := d.Bounds()
	assert.InDelta(t, 0, b.X, 1e-3)
	assert.InDelta(t, 10, b.W, 1e-3)
	// Names in the encoding that the header tells.
	d, err = dxf.Read(t.Context(), entities("9\n$DWGCODEPAGE\n3\nANSI_1252\n", triangle("Au\xdfen", 0, 0)), "mm")
	require.NoError(t, err)
	assert.Equal(t, "Außen", d.Shapes[0].Layer)
	d, err = dxf.Read(t.Context(), entities("9\n$DWGCODEPAGE\n3\nANSI_1251\n", triangle("\xd0\xe5\xe7", 0, 0)), "mm")
	require.NoError(t, err)
	assert.Equal(t, "Рез", d.Shapes[0].Layer)
	// A plane that faces away mirrors what lies in it, and not lines, which are in space.
	back := "210\n0\n220\n0\n230\n-1\n"
	d, err = dxf.Read(t.Context(), entities("", "0\nLINE\n8\nA\n10\n0\n20\n0\n11\n30\n21\n10\n"+back+"0\nCIRCLE\n8\nA\n10\n-10\n20\n5\n40\n1\n"+back), "mm")
	require.NoError(t, err)
	b = d.Bounds()
	assert.InDelta(t, 30, b.W, 1e-6, "the circle's middle is at 10, within the line's box")
	// A filled corner piece.
	d, err = dxf.Read(t.Context(), entities("", "0\nSOLID\n8\nA\n62\n1\n10\n0\n20\n0\n11\n10\n21\n0\n12\n0\n22\n10\n13\n10\n23\n10\n"), "mm")
	require.NoError(t, err)
	require.Len(t, d.Shapes, 1)
	assert.Equal(t, "#ff0000", d.Shapes[0].Fill)
	assert.InDelta(t, 100, math.Abs(d.Shapes[0].Path.Area()), 1e-6)
	// Angles beyond all reason.
	_, err = dxf.Read(t.Context(), entities("", "0\nARC\n8\nA\n10\n0\n20\n0\n40\n5\n50\n1e11\n51\n0\n"), "mm")
	require.NoError(t, err)
}

// Lines that lie on each other many thousand times are one, and joining them takes no
// longer than reading them; reading stops when whoever asked is gone.
func TestCrowdedDXFFilesAreRead(t *testing.T) {
	line := "0\nLINE\n8\nA\n10\n0\n20\n0\n11\n30\n21\n10\n"
	raw := entities("", strings.Repeat(line, 190_000))
	d, err := dxf.Read(t.Context(), raw, "mm")
	require.NoError(t, err)
	assert.Len(t, d.Shapes, 1)
	var star strings.Builder // all of them meet in one point
	for i := range 60_000 {
		fmt.Fprintf(&star, "0\nLINE\n8\nA\n10\n0\n20\n0\n11\n%d\n21\n%d\n", 1+i%300, 1+i/300)
	}
	d, err = dxf.Read(t.Context(), entities("", star.String()), "mm")
	require.NoError(t, err)
	assert.NotEmpty(t, d.Shapes)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = dxf.Read(ctx, raw, "mm")
	assert.ErrorIs(t, err, context.Canceled)
}

// Entities of a plane that is tilted come in as they are seen from above.
func TestTiltedPlanesAreSeenFromAbove(t *testing.T) {
	// About the x axis by 60°: what runs along y is half as long. The format's own rule
	// turns the axes of such a plane.
	tilted := fmt.Sprintf("210 0 220 %g 230 .5", -math.Sin(math.Pi/3))
	d := read(t, file("4", "", "0 CIRCLE 10 0 20 0 40 10 "+tilted))
	assert.InDelta(t, 20, d.Width, 1e-6)
	assert.InDelta(t, 10, d.Height, 1e-6)
	d = read(t, file("4", "", "0 ARC 10 0 20 0 40 10 50 0 51 180 "+tilted))
	assert.InDelta(t, 20, d.Width, 1e-6)
	assert.InDelta(t, 5, d.Height, 1e-6)
	d = read(t, file("4", "", "0 LWPOLYLINE 70 1 38 4 10 0 20 0 10 8 20 0 10 8 20 6 10 0 20 6 "+tilted, "0 LINE 10 0 20 0 11 8 21 0"))
	assert.InDelta(t, 8, d.Width, 1e-6)
	assert.InDelta(t, 4*math.Sin(math.Pi/3), d.Height, 1e-6, "it stands 4 above its plane's origin, which the line lies on")
	// An ellipse says its long axis in the drawing's axes, even where it is tilted.
	d = read(t, file("4", "", fmt.Sprintf("0 ELLIPSE 10 0 20 0 11 10 21 0 40 1 41 0 42 %g %s", 2*math.Pi, tilted)))
	assert.InDelta(t, 20, d.Width, 1e-6)
	assert.InDelta(t, 10, d.Height, 1e-6)
	// Any direction, against places worked out by themselves.
	r := rand.New(rand.NewPCG(81, 82))
	for range 300 {
		n := [3]float64{r.NormFloat64(), r.NormFloat64(), r.NormFloat64()}
		l := math.Sqrt(n[0]*n[0] + n[1]*n[1] + n[2]*n[2])
		rad := 1 + 9*r.Float64()
		d := read(t, file("4", "", fmt.Sprintf("0 CIRCLE 10 0 20 0 40 %.12g 210 %.12g 220 %.12g 230 %.12g", rad, n[0], n[1], n[2])))
		// A circle's shadow is as wide as the disc, and as narrow as it leans.
		assert.InDelta(t, math.Pi*rad*rad*math.Abs(n[2])/l, math.Abs(d.Shapes[0].Path.Area()), 1e-4*rad*rad)
		assert.InDelta(t, 2*rad*math.Sqrt(1-n[0]*n[0]/l/l), d.Width, 1e-4*rad)
		assert.InDelta(t, 2*rad*math.Sqrt(1-n[1]*n[1]/l/l), d.Height, 1e-4*rad)
	}
}

func TestHatchedAreasAreFilled(t *testing.T) {
	const head = "0 HATCH 8 cloth 62 1 10 0 20 0 30 0 2 SOLID 70 1 71 0 "
	for name, c := range map[string]struct {
		paths string
		area  float64
	}{
		"polyline":           {"91 1 92 2 72 0 73 1 93 4 10 0 20 0 10 8 20 0 10 8 20 6 10 0 20 6 97 0", 48},
		"polyline of arcs":   {"91 1 92 3 72 1 73 1 93 2 10 0 20 0 42 1 10 4 20 0 42 1 97 0", 4 * math.Pi},
		"lines":              {"91 1 92 1 93 3 72 1 10 0 20 0 11 6 21 0 72 1 10 6 20 0 11 6 21 8 72 1 10 6 20 8 11 0 21 0 97 0", 24},
		"half a disc":        {"91 1 92 1 93 2 72 2 10 5 20 0 40 5 50 0 51 180 73 1 72 1 10 0 20 0 11 10 21 0 97 0", 12.5 * math.Pi},
		"half, clockwise":    {"91 1 92 1 93 2 72 2 10 5 20 0 40 5 50 180 51 360 73 0 72 1 10 10 20 0 11 0 21 0 97 0", 12.5 * math.Pi},
		"ellipse":            {"91 1 92 1 93 1 72 3 10 5 20 5 11 4 21 0 40 0.5 50 0 51 360 73 1 97 0", 8 * math.Pi},
		"spline and line":    {"91 1 92 1 93 2 72 4 94 3 73 0 74 0 95 8 96 4 40 0 40 0 40 0 40 0 40 1 40 1 40 1 40 1 10 0 20 0 10 0 20 4 10 6 20 4 10 6 20 0 72 1 10 6 20 0 11 0 21 0 97 0", 14.4},
		"with a hole":        {"91 2 92 7 72 0 73 1 93 4 10 0 20 0 10 8 20 0 10 8 20 6 10 0 20 6 97 0 92 2 72 0 73 1 93 4 10 2 20 2 10 4 20 2 10 4 20 4 10 2 20 4 97 0", 44},
		"more than it holds": {"91 9 92 2 72 0 73 1 93 400 10 0 20 0 10 8 20 0 10 8 20 6", 24},
	} {
		d := read(t, file("4", "", head+c.paths))
		require.Len(t, d.Shapes, 1, name)
		s := d.Shapes[0]
		assert.InDelta(t, c.area, geom.Union(s.Rule, s.Path).Area(), 1e-3, name)
		assert.Equal(t, []string{"#ff0000", "", "cloth"}, []string{s.Fill, s.Stroke, s.Layer}, name)
		assert.Empty(t, d.Notes, name)
	}
	for _, broken := range []string{"91 1", "91 1 92 1 93 2 72 9 10 0", "91 1 92 2 93 0", "91 1 92 1 93 1 72 2 10 0 20 0 40 0", "91 1 92 1 93 1 72 4 94 3", ""} {
		d := read(t, file("4", "", head+broken, "0 CIRCLE 10 0 20 0 40 1"))
		assert.Len(t, d.Shapes, 1, broken)
		assert.Contains(t, strings.Join(d.Notes, ""), "hatched area", broken)
	}
	d := read(t, file("4", "", "0 HATCH 2 LINES 70 0 91 1 92 2 72 0 73 1 93 3 10 0 20 0 10 8 20 0 10 8 20 6"))
	assert.Contains(t, d.Notes[0], "pattern")
}

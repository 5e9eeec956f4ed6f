package dxf

import (
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// exact is how near the arcs that stand for other curves are to them, mm.
const exact = .0004

// layers are one for each line role and one for what is drawn, with a colour of
// the format's palette.
var layers = []struct {
	name   string
	colour int
}{{"ink", 8}, {"cut", 7}, {"mountain", 30}, {"valley", 5}, {"perforation", 3}, {"kiss", 6}, {"pen", 4}, {"guide", 9}}

// Write writes the lines of a drawing as R12, the version that everything reads: polylines of
// straight sides and arcs, millimetres, one layer for each line role. Béziers and ellipses
// become arcs within 0.0004 mm. It returns the error of the writer.
func Write(w io.Writer, d exchange.Drawing) error {
	var b strings.Builder
	put := func(pairs ...any) {
		for i := 0; i+1 < len(pairs); i += 2 {
			fmt.Fprintf(&b, "%3d\n%v\n", pairs[i], pairs[i+1])
		}
	}
	put(0, "SECTION", 2, "HEADER", 9, "$ACADVER", 1, "AC1009", 9, "$INSUNITS", 70, 4,
		9, "$EXTMIN", 10, 0, 20, 0, 9, "$EXTMAX", 10, num(d.Width), 20, num(d.Height), 0, "ENDSEC")
	put(0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "LAYER", 70, len(layers))
	for _, l := range layers {
		put(0, "LAYER", 2, l.name, 70, 0, 62, l.colour, 6, "CONTINUOUS")
	}
	put(0, "ENDTAB", 0, "ENDSEC", 0, "SECTION", 2, "ENTITIES")
	for _, s := range d.Shapes {
		layer := string(s.Role)
		if s.Role == card.Role("") {
			layer = "ink"
		}
		rings := s.Path.Rings()
		for i, cs := range s.Path.Curves() {
			if len(cs) == 0 {
				continue
			}
			closed := rings[i].Closed()
			flag := 0
			if closed {
				flag = 1
			}
			put(0, "POLYLINE", 8, layer, 66, 1, 10, 0, 20, 0, 30, 0, 70, flag)
			vertices := bulges(cs)
			if closed {
				vertices = vertices[:len(vertices)-1] // the start again
			}
			for _, v := range vertices {
				put(0, "VERTEX", 8, layer, 10, num(v.p.X), 20, num(d.Height-v.p.Y))
				if v.bulge != 0 {
					// y runs the other way, and so do arcs.
					put(42, num9(-v.bulge))
				}
			}
			put(0, "SEQEND", 8, layer)
		}
	}
	put(0, "ENDSEC", 0, "EOF")
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("write DXF: %w", err)
	}
	return nil
}

func num(v float64) string {
	return strconv.FormatFloat(math.Round(v*1e6)/1e6+0, 'f', -1, 64)
}

func num9(v float64) string { return strconv.FormatFloat(math.Round(v*1e9)/1e9+0, 'f', -1, 64) }

// vertex is a corner of a polyline and the bulge of the side that follows.
type vertex struct {
	p     geom.Point
	bulge float64
}

// bulges are a chain of curves as lines and arcs; the end is the last vertex.
func bulges(cs []geom.Curve) []vertex {
	var out []vertex
	for _, c := range cs {
		if c.Op == geom.LineTo {
			out = append(out, vertex{p: c.From})
			continue
		}
		out = arcs(c, 0, 1, out, 0)
	}
	return append(out, vertex{p: cs[len(cs)-1].End()})
}

// arcs halves a curve until an arc through its ends and its middle is close.
func arcs(c geom.Curve, t0, t1 float64, out []vertex, depth int) []vertex {
	p, m, q := c.At(t0), c.At((t0+t1)/2), c.At(t1)
	k := through3(p, m, q)
	if depth < 16 && (math.Abs(k) > 1 || !close3(c, t0, t1, p, q, k)) {
		mid := (t0 + t1) / 2
		return arcs(c, mid, t1, arcs(c, t0, mid, out, depth+1), depth+1)
	}
	return append(out, vertex{p, k})
}

// through3 is the bulge of the arc from p through m to q; m is taken to lie
// midway.
func through3(p, m, q geom.Point) float64 {
	u, v := m.Sub(p), q.Sub(m)
	// The angle between the halves of the chord is half the arc's.
	turn := math.Atan2(u.Cross(v), u.Dot(v))
	return math.Tan(turn / 2)
}

func close3(c geom.Curve, t0, t1 float64, p, q geom.Point, k float64) bool {
	var centre geom.Point
	var rad float64
	flat := math.Abs(k) < 1e-9
	if !flat {
		centre, rad, _, _ = bulge(p, q, k)
	}
	chord := q.Sub(p)
	for _, u := range [...]float64{.15, .3, .5, .7, .85} {
		s := c.At(t0 + (t1-t0)*u)
		off := 0.0
		switch {
		case !flat:
			off = math.Abs(s.Sub(centre).Len() - rad)
		case chord.Len() > 0:
			off = math.Abs(chord.Cross(s.Sub(p))) / chord.Len()
		default:
			off = s.Sub(p).Len()
		}
		if off > exact {
			return false
		}
	}
	return true
}

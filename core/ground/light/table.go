package light

import (
	"context"
	"image"
	"math"

	"sectilis/core/ground/pixels"
)

// side is how many colours of a table there are along an edge.
const side = 33

// Table says what becomes of every colour: a lattice of colours, taken between them within the
// six tetrahedra of a cell, so that greys follow from greys alone (Kasson, Nin, Plouffe and
// Hafner, Performing color space conversions with three-dimensional linear interpolation, 1995).
type Table struct {
	at [side * side * side][3]float32 // 0 to 255, by red, green, blue
}

// tableOf is the table of a function of linear light.
func tableOf(f func(colour) colour) *Table {
	t := &Table{}
	var light [side]float64
	for i := range light {
		light[i] = linear(node(i))
	}
	_ = pixels.Rows(context.Background(), side*side, func(from, to int) {
		for i := from; i < to; i++ {
			for b := range side {
				c := f(colour{light[i/side], light[i%side], light[b]})
				for k, v := range c {
					t.at[i*side+b][k] = float32(255 * encoded(v))
				}
			}
		}
	})
	return t
}

// Table is what the settings do to colours; nil where they do nothing.
func (s Settings) Table() *Table {
	if s == (Settings{}) {
		return nil
	}
	return tableOf(s.shade)
}

// OneColour is the table of a picture in shades of one colour, by an amount from 0 to 1; nil for
// none. A grey makes it black and white.
func OneColour(c [3]uint8, amount float64) *Table {
	if amount <= 0 {
		return nil
	}
	return tableOf(oneColour(colour{float64(c[0]) / 255, float64(c[1]) / 255, float64(c[2]) / 255}, min(amount, 1)))
}

// steps are, for each value of a channel, the cell of the table and how far in it that lies.
var steps = func() (out [256]struct {
	cell int
	in   float32
}) {
	cell := 0
	for v := range out {
		at := float64(v) / 255
		for cell < side-2 && node(cell+1) <= at {
			cell++
		}
		out[v].cell, out[v].in = cell, float32((at-node(cell))/(node(cell+1)-node(cell)))
	}
	return out
}()

// node is the value of a channel at a place along the edge: dark ones lie closer, since curves
// are steep there.
func node(i int) float64 { return math.Pow(float64(i)/(side-1), 1.5) }

// Colour is what becomes of a colour.
func (t *Table) Colour(r, g, b uint8) (uint8, uint8, uint8) {
	sr, sg, sb := steps[r], steps[g], steps[b]
	base := (sr.cell*side+sg.cell)*side + sb.cell
	const dr, dg, db = side * side, side, 1
	// From the corner that is nearest to black to that nearest to white, by the edges of the
	// largest part first.
	x, y, z := sr.in, sg.in, sb.in
	var one, two int
	var hi, mid, lo float32
	switch {
	case x >= y && y >= z:
		one, two, hi, mid, lo = dr, dr+dg, x, y, z
	case x >= z && z >= y:
		one, two, hi, mid, lo = dr, dr+db, x, z, y
	case z >= x && x >= y:
		one, two, hi, mid, lo = db, db+dr, z, x, y
	case y >= x && x >= z:
		one, two, hi, mid, lo = dg, dg+dr, y, x, z
	case y >= z && z >= x:
		one, two, hi, mid, lo = dg, dg+db, y, z, x
	default:
		one, two, hi, mid, lo = db, db+dg, z, y, x
	}
	p, q, u, v := &t.at[base], &t.at[base+one], &t.at[base+two], &t.at[base+dr+dg+db]
	var out [3]uint8
	for i := range out {
		out[i] = uint8((1-hi)*p[i] + (hi-mid)*q[i] + (mid-lo)*u[i] + lo*v[i] + .5)
	}
	return out[0], out[1], out[2]
}

// Apply changes the colours of a picture in place. It returns the error of the context, and the
// picture is spoilt then.
func (t *Table) Apply(ctx context.Context, img *image.NRGBA) error {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	return pixels.Rows(ctx, h, func(from, to int) {
		for y := from; y < to; y++ {
			row := img.Pix[y*img.Stride : y*img.Stride+4*w]
			for i := 0; i < len(row); i += 4 {
				row[i], row[i+1], row[i+2] = t.Colour(row[i], row[i+1], row[i+2])
			}
		}
	})
}

// reach is the radius in pixels of what is said in shares of the longer side of a picture.
func reach(img *image.NRGBA, share float64) float64 {
	return share * math.Max(float64(img.Rect.Dx()), float64(img.Rect.Dy()))
}

// TableOf is the table of any function of sRGB colours, 0 to 1.
func TableOf(f func(r, g, b float64) (float64, float64, float64)) *Table {
	return tableOf(func(c colour) colour {
		r, g, b := f(encoded(c[0]), encoded(c[1]), encoded(c[2]))
		return colour{linear(min(max(r, 0), 1)), linear(min(max(g, 0), 1)), linear(min(max(b, 0), 1))}
	})
}

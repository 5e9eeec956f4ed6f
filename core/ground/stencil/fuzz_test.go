package stencil_test

import (
	"math"
	"testing"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// outlineOf makes rings of bytes: each ring is a middle, a size and radii all round.
func outlineOf(raw []byte) geom.Path {
	var rings []geom.Path
	for len(raw) >= 8 && len(rings) < 6 {
		at, size := geom.Pt(float64(int8(raw[0]))/4, float64(int8(raw[1]))/4), 1+float64(raw[2])/10
		var b geom.Builder
		for i, r := range raw[3:8] {
			sin, cos := math.Sincos(2 * math.Pi * float64(i) / 5)
			p := at.Add(geom.Pt(cos, sin).Mul(size * (.2 + float64(r)/255)))
			if i == 0 {
				b.Move(p)
			} else {
				b.Line(p)
			}
		}
		rings = append(rings, b.Close().Path())
		raw = raw[8:]
	}
	return geom.Union(geom.EvenOdd, rings...)
}

// Of any outline: what is bridged holds all that was there, adds nothing outside its holes, and
// tells the islands that are still loose; leaving islands out leaves none.
func FuzzBridge(f *testing.F) {
	f.Add([]byte{0, 0, 200, 250, 240, 250, 240, 250, 0, 0, 120, 250, 240, 250, 240, 250, 0, 0, 40, 250, 240, 250, 240, 250}, 2, 1.0, .3, true)
	f.Add([]byte{10, 4, 90, 20, 255, 20, 255, 20, 9, 3, 40, 250, 9, 250, 9, 250, 8, 5, 9, 250, 1, 2, 3, 4}, 4, .5, 0.0, false)
	f.Fuzz(func(t *testing.T, raw []byte, each int, width, foot float64, inLine bool) {
		if !(width >= .3 && width <= 20) || !(foot >= 0 && foot <= 10) || each < 1 || each > 4 {
			return
		}
		p := outlineOf(raw)
		r := stencil.Bridge(p, stencil.Options{Each: each, Width: width, Foot: foot, InLine: inLine})
		if err := r.Outline.Check(); err != nil {
			t.Fatal(err)
		}
		if lost := geom.Difference(geom.NonZero, p, r.Outline).Area(); lost > .02 {
			t.Fatalf("%v mm² are lost", lost)
		}
		var filled []geom.Path
		for _, ring := range p.Rings() {
			if ring.Area() > 0 {
				filled = append(filled, ring)
			}
		}
		if beyond := geom.Difference(geom.NonZero, r.Outline, geom.Union(geom.NonZero, filled...)).Area(); beyond > .02 {
			t.Fatalf("%v mm² lie outside", beyond)
		}
		if len(r.Loose) != len(stencil.Islands(r.Outline)) {
			t.Fatalf("%d are told, %d are loose", len(r.Loose), len(stencil.Islands(r.Outline)))
		}
		if n := len(stencil.Islands(stencil.WithoutIslands(p))); n > 0 {
			t.Fatalf("%d islands are left", n)
		}
	})
}

// Of any outline: thin parts lie in it, their least width is below the limit, and what is
// thickened holds all that was there.
func FuzzThinner(f *testing.F) {
	f.Add([]byte{0, 0, 200, 250, 20, 250, 20, 250}, 1.2)
	f.Add([]byte{0, 0, 200, 250, 240, 250, 240, 250, 2, 1, 190, 250, 240, 250, 240, 250}, .8)
	f.Fuzz(func(t *testing.T, raw []byte, limit float64) {
		if !(limit >= .3 && limit <= 3) {
			return
		}
		p := outlineOf(raw)
		thin := stencil.Thinner(p, limit)
		for _, part := range thin {
			if out := geom.Difference(geom.NonZero, part.Region, p).Area(); out > .02 {
				t.Fatalf("%v mm² of a thin part lie outside", out)
			}
		}
		if least := stencil.Least(p, thin, limit); !(least >= 0 && least <= limit) {
			t.Fatalf("least width %v of %v", least, limit)
		}
		thick := stencil.Thicken(p, thin, limit)
		if lost := geom.Difference(geom.NonZero, p, thick).Area(); lost > .02 {
			t.Fatalf("%v mm² are lost", lost)
		}
	})
}

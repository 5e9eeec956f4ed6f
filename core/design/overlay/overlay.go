// Package overlay draws what is laid over other things and lets them show through: tape, lace and torn
// paper. It is one of the design packages and stands on the document.
package overlay

import (
	"math"
	"math/rand/v2"
	"sync"

	"sectilis/core/document/card"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
)

// Overlay is things that are printed over others, about the origin, from below.
type Overlay struct {
	ID    string
	Name  string
	Items []card.Item
}

// All lists the overlays in the order in which they are offered.
var All = sync.OnceValue(func() []Overlay {
	return []Overlay{
		tape("tape-honey", "Honey tape", 1, card.Fill{Colour: "#e2a42b"}, card.Fill{Paper: "slant"}, .45),
		tape("tape-gingham", "Gingham tape", 2, card.Fill{Colour: "#f3f6ee"}, card.Fill{Paper: "moss-gingham", Scale: .5}, .3),
		tape("tape-brick", "Brick tape", 3, card.Fill{Colour: "#a8432a"}, card.Fill{}, 0),
		tape("tape-frost", "Frost tape", 4, card.Fill{Colour: "#6d8aa3"}, card.Fill{Paper: "ledger-line", Scale: .6, Turn: 90}, .7),
		lace("lace-edge", "Lace edge", card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 100, Height: 7}, edging.Edging{Motif: "lace", Depth: 6, Side: edging.Bottom}, card.Fill{Colour: "#fffdf9"}),
		lace("lace-panel", "Lace panel", card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 80, Height: 50}, edging.Edging{Motif: "scallop", Depth: 4, Corner: edging.Turn}, card.Fill{Paper: "lace-net"}),
		lace("doily", "Doily", card.Form{Outline: card.Ellipse, Width: 58, Height: 58}, edging.Edging{Motif: "lace", Depth: 7}, card.Fill{Colour: "#fffdf9"}),
		torn("torn-strip", "Torn strip", 5, 100, 16, true, card.Fill{Paper: "oat-stripe"}),
		torn("torn-edge", "Torn edge", 6, 110, 26, false, card.Fill{Colour: "#c9a777"}),
	}
})

// ByID returns the overlay; ok is false for an unknown id.
func ByID(id string) (o Overlay, ok bool) {
	for _, o := range All() {
		if o.ID == id {
			return o, true
		}
	}
	return o, false
}

// printed is an outline that is printed, seen through by a share.
func printed(name string, form card.Form, fill card.Fill, look card.Look) card.Item {
	it := card.Item{Name: name, Kind: card.Shape, Made: card.Made{As: card.Printed}, Fill: fill, Form: &form}
	if look != (card.Look{}) {
		it.Look = &look
	}
	return it
}

// soft is the shadow of thin paper.
var soft = card.Shadow{Colour: "#3a2a18", Distance: .5, Angle: 60, Blur: .7, Opacity: .28}

func free(p geom.Path) card.Form {
	b := p.Bounds()
	return card.Form{Outline: card.Free, Width: card.Tidy(b.W), Height: card.Tidy(b.H), Path: card.NewDrawn(p)}
}

// tape is a strip with pinked ends, in a colour that is seen through, and a pattern on it.
func tape(id, name string, seed uint64, ground, over card.Fill, clear float64) Overlay {
	const w, h, tooth = 70.0, 14.0, 1.4
	r := rand.New(rand.NewPCG(seed, 18))
	var b geom.Builder
	b.Move(geom.Pt(-w/2, -h/2)).Line(geom.Pt(w/2, -h/2))
	side := func(x, out float64, down bool) {
		const n = 10
		for i := 1; i <= n; i++ {
			y := -h/2 + h*float64(i)/n
			if !down {
				y = -y
			}
			step := 0.0
			if i%2 == 1 {
				step = out * (tooth + .3*r.Float64())
			}
			b.Line(geom.Pt(x-step, y))
		}
	}
	side(w/2, 1, true)
	b.Line(geom.Pt(-w/2, h/2))
	side(-w/2, -1, false)
	form := free(b.Close().Path())
	shadow := soft
	items := []card.Item{printed(name, form, ground, card.Look{Clear: .35, Shadow: &shadow})}
	if over != (card.Fill{}) {
		items = append(items, printed(name+", pattern", form, over, card.Look{Clear: clear}))
	}
	return Overlay{id, name, items}
}

// lace is an edged form whose holes are open.
func lace(id, name string, form card.Form, e edging.Edging, fill card.Fill) Overlay {
	shadow := soft
	it := printed(name, form, fill, card.Look{Shadow: &shadow})
	it.Edging = &e
	return Overlay{id, name, []card.Item{it}}
}

// torn is a strip that is torn along its upper edge, or along both long ones: its white core shows there,
// and within it lies what is printed on it.
func torn(id, name string, seed uint64, w, h float64, both bool, fill card.Fill) Overlay {
	r := rand.New(rand.NewPCG(seed, 18))
	upper, core := tear(r, w)
	lower, below := []float64(nil), []float64(nil)
	if both {
		lower, below = tear(r, w)
	}
	shadow := soft
	return Overlay{id, name, []card.Item{
		printed(name+", core", free(between(w, h, upper, lower, nil, nil)), card.Fill{Colour: "#fdfbf5"}, card.Look{Shadow: &shadow}),
		printed(name, free(between(w, h, upper, lower, core, below)), fill, card.Look{}),
	}}
}

// tearStep is how far the places of a tear are from one another, mm.
const tearStep = .7

// tear is how far a torn edge strays from a straight one, from place to place, and how much of the core
// shows there, mm: sums of waves of random phase with a little roughness.
func tear(r *rand.Rand, w float64) (edge, core []float64) {
	a, b, c := r.Float64()*7, r.Float64()*7, r.Float64()*7
	for x := 0.0; x <= w+1e-9; x += tearStep {
		edge = append(edge, 1.1*math.Sin(x/9+a)+.6*math.Sin(x/3.7+b)+.35*(r.Float64()-.5))
		core = append(core, 1.1+.6*math.Sin(x/5.3+c)+.3*r.Float64())
	}
	return edge, core
}

// between is what lies between an upper and a lower edge, drawn in by what shows of the core; a straight
// edge where there is none.
func between(w, h float64, upper, lower, core, below []float64) geom.Path {
	var pts []geom.Point
	n := len(upper)
	x := func(i int) float64 { return -w/2 + w*float64(i)/float64(n-1) }
	at := func(list []float64, i int) float64 {
		if list == nil {
			return 0
		}
		return list[i]
	}
	for i := range n {
		pts = append(pts, geom.Pt(x(i), -h/2+upper[i]+at(core, i)))
	}
	for i := n - 1; i >= 0; i-- {
		pts = append(pts, geom.Pt(x(i), h/2+at(lower, i)-at(below, i)))
	}
	return geom.PolygonPath(pts...)
}

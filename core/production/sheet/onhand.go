package sheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/production/nest"
)

// Direction says how a stock runs: its grain, or a pattern that it was bought with.
type Direction string

// The directions of a stock. Along the grain paper folds well and sheets that are glued
// to one another stay flat, so pieces are laid with the card's main fold along it. A
// pattern that is one way up stands upright as the sheet lies.
const (
	AnyWay     Direction = ""
	GrainLong  Direction = "grainLong"  // grain along the long side of the sheet
	GrainShort Direction = "grainShort" // grain along the short side
	OneWayUp   Direction = "oneWayUp"
)

// OnHand is what a person has of a stock.
type OnHand struct {
	Stock string `json:"stock"`
	// Sizes are the ids of its sizes; none stands for the size that is used for all.
	Sizes []string `json:"sizes"`
	// Counts are how many sheets there are of sizes, by their ids, where that is known.
	Counts    map[string]int `json:"counts,omitempty"`
	Direction Direction      `json:"direction,omitempty"`
	// Borderless says that the printer reaches the edges of this stock.
	Borderless bool `json:"borderless,omitempty"`
}

// Check refuses what is no size, stock or direction.
func (h OnHand) Check() error {
	if _, ok := card.StockByID(h.Stock); !ok {
		return card.Refuse("stock", "There is no stock “%s”.", h.Stock)
	}
	for i, id := range h.Sizes {
		if _, ok := SizeByID(id); !ok {
			return card.Refuse("sizes", "There is no size of sheet “%s”.", id)
		}
		if slices.Contains(h.Sizes[:i], id) {
			return card.Refuse("sizes", "A size is named once.")
		}
	}
	for id, n := range h.Counts {
		if _, ok := SizeByID(id); !ok || n < 0 || n > 100_000 {
			return card.Refuse("counts", "Of a size there are between none and 100,000 sheets.")
		}
	}
	if !slices.Contains([]Direction{AnyWay, GrainLong, GrainShort, OneWayUp}, h.Direction) {
		return card.Refuse("direction", "Paper runs any way, along its grain, or with its pattern one way up.")
	}
	return nil
}

// paper is what a stock is laid on: Options with what is on hand of it.
type paper struct {
	Options
	sizes     []Size // by area, the smallest first
	own       bool   // which are not the size for all
	direction Direction
}

// on is the paper of a stock.
func (opt Options) on(stock string) paper {
	p := paper{Options: opt, sizes: []Size{opt.Size}}
	k := slices.IndexFunc(opt.OnHand, func(h OnHand) bool { return h.Stock == stock })
	if k < 0 {
		return p
	}
	h := opt.OnHand[k]
	p.direction = h.Direction
	p.Borderless = p.Borderless || h.Borderless
	if len(h.Sizes) == 0 {
		return p
	}
	p.sizes, p.own = nil, true
	for _, id := range h.Sizes {
		if s, ok := SizeByID(id); ok {
			if opt.Landscape {
				s = s.Landscape()
			}
			p.sizes = append(p.sizes, s)
		}
	}
	slices.SortStableFunc(p.sizes, func(a, b Size) int { return cmp.Compare(a.area(), b.area()) })
	return p
}

// largest is the largest size on hand.
func (p paper) largest() Size { return p.sizes[len(p.sizes)-1] }

// sizeOf is which of the sizes a box lies on where a person has laid it; false for none.
func (p paper) sizeOf(laid card.Laid, box geom.Rect) (int, bool) {
	has := func(s Size) bool { return geom.Rect{W: s.Width, H: s.Height}.Contains(box, .01) }
	if k := slices.IndexFunc(p.sizes, func(s Size) bool { return s.ID == laid.Size && has(s) }); k >= 0 {
		return k, true
	}
	k := slices.IndexFunc(p.sizes, has)
	return k, k >= 0
}

// kind is the sheet to lay on, with what marks take of it.
func (p paper) kind(s Size, printed bool) nest.Sheet {
	kind := nest.Sheet{Width: s.Width, Height: s.Height, Margin: p.Margin}
	if printed {
		kind.Margin = p.marginOn(s, p.Margin)
	}
	margin := kind.Margin
	kind.Margin = max(kind.Margin, p.Blind)
	switch {
	case printed && p.Marking == ForMachine:
		for _, m := range marks(s, margin) {
			// Parts keep clear of what is kept as they do of one another.
			kind.Keep = append(kind.Keep, m.Path().Bounds().Grow(max(MarkClear-p.between(), .1-MarkRing)))
		}
	case printed && p.Marking == ForHand:
		kind.Margin += cropOff + cropLong // crop marks stand beside the outermost pieces too
	}
	return kind
}

// turning is how a unit may be turned on sheets of some kinds: as is asked for, within what
// its stock allows. Where it has no room along the grain it may lie across.
func (u *unit) turning(p paper, kinds []nest.Sheet) (turning nest.Turning, across bool) {
	switch p.direction {
	case AnyWay:
		return p.Turning, false
	case OneWayUp:
		return nest.Upright, false
	}
	box, turning := u.room.Bounds(), nest.Halves
	if u.upright() != grainUp(p.direction, p.largest()) {
		turning = nest.Sidelong
		box.W, box.H = box.H, box.W
	} else if p.Turning == nest.Upright {
		turning = nest.Upright
	}
	for _, kind := range kinds {
		for _, a := range roomsOn(kind, p.between()) {
			if box.W <= a.W && box.H <= a.H {
				return turning, false
			}
		}
	}
	return p.Turning, true
}

// upright reports whether the card's main fold runs up and down in the unit's coordinates.
func (u *unit) upright() bool {
	m := u.at[0]
	d := u.members[0].runs
	return math.Abs(m.B*d.X+m.D*d.Y) >= math.Abs(m.A*d.X+m.C*d.Y)
}

// grainUp reports whether the grain of a sheet as it lies runs up and down.
func grainUp(d Direction, s Size) bool { return (d == GrainLong) == (s.Height >= s.Width) }

// astray says what is wrong with how a piece that was laid by hand is turned, if anything.
func (p paper) astray(piece Piece, s Size) string {
	turn := piece.Place.Turn
	switch p.direction {
	case GrainLong, GrainShort:
		d := geom.Turn(turn * math.Pi / 180).Apply(piece.runs)
		off := math.Abs(d.X)
		if !grainUp(p.direction, s) {
			off = math.Abs(d.Y)
		}
		if off > math.Sin(math.Pi/4) {
			return fmt.Sprintf("“%s” lies across the grain.", piece.Name)
		}
	case OneWayUp:
		if math.Abs(math.Remainder(turn-piece.stands, 360)) > 1 {
			return fmt.Sprintf("“%s” does not stand upright, as the pattern of its paper does.", piece.Name)
		}
	}
	return ""
}

// Short says that of a stock and a size more sheets are needed than there are.
type Short struct {
	Stock card.Stock `json:"stock"`
	Size  Size       `json:"size"`
	Needs int        `json:"needs"`
	Has   int        `json:"has"`
}

// short are the stocks of which there are too few sheets, in the order of the sheets. Scraps are not
// counted.
func (opt Options) short(sheets []Sheet) (out []Short) {
	for _, sh := range sheets {
		k := slices.IndexFunc(opt.OnHand, func(h OnHand) bool { return h.Stock == sh.Stock.ID })
		if k < 0 || sh.Of < 0 {
			continue
		}
		has, counted := opt.OnHand[k].Counts[sh.Size.ID]
		if !counted {
			continue
		}
		i := slices.IndexFunc(out, func(s Short) bool { return s.Stock.ID == sh.Stock.ID && s.Size.ID == sh.Size.ID })
		if i < 0 {
			i = len(out)
			out = append(out, Short{Stock: sh.Stock, Size: sh.Size, Has: has})
		}
		out[i].Needs++
	}
	return slices.DeleteFunc(out, func(s Short) bool { return s.Needs <= s.Has })
}

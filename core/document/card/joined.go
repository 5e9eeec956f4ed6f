package card

import "slices"

// Joined reports whether the item is part of the outline of the piece that it lies on: carved
// out of it, or welded to it. It is neither printed nor cut by itself.
func (it Item) Joined() bool { return it.Made.As == Carved || it.Made.As == Welded }

// Joined are the items that are part of the outline of a piece, from below.
func (f *Face) Joined(id string) []*Item {
	var out []*Item
	for i := range f.Items {
		if it := &f.Items[i]; it.On == id && it.Joined() {
			out = append(out, it)
		}
	}
	return out
}

// checkJoined looks whether an item that is part of another outline can be.
func (it Item) checkJoined() error {
	if it.On == "" {
		return Refuse("on", "“%s” lies on no piece whose outline it could be part of. Lay it on one first.", it.Name)
	}
	if it.Form == nil && it.Words == nil || it.Slot != nil {
		return Refuse("made", "“%s” has no outline that could be carved out or welded on; words and shapes have one.", it.Name)
	}
	return nil
}

// tidyJoined makes ink of what was part of the outline of a piece and lies on none any more, and of
// what trimmed a group and is in none.
func (c *Card) tidyJoined() {
	for i := range c.Faces {
		for j := range c.Faces[i].Items {
			it := &c.Faces[i].Items[j]
			if it.Joined() && it.On == "" || it.Trims() && it.Group == "" {
				it.Made = Made{As: Printed}
				if it.Fill == (Fill{}) {
					it.Fill.Colour = First().Ink
				}
			}
		}
	}
}

// Islands say what becomes of parts that would fall out of a cut piece, since they lie in
// holes of it. Width and Foot are mm.
type Islands struct {
	How   IslandsHow `json:"how,omitempty"`
	Each  int        `json:"each,omitempty"`  // bridges to an island
	Width float64    `json:"width,omitempty"` // of a bridge
	Foot  float64    `json:"foot,omitempty"`  // the radius by which a bridge is wider at its ends
	// InLine sets bridges of neighbouring islands along one straight line; else each is where
	// its way is the shortest.
	InLine bool `json:"inLine,omitempty"`
}

// IslandsHow is what becomes of islands.
type IslandsHow string

// Islands stay loose, are held by bridges, or are left out with the hole that they lie in.
const (
	LooseIslands   IslandsHow = ""
	BridgedIslands IslandsHow = "bridged"
	NoIslands      IslandsHow = "leftOut"
)

// FirstBridges is how islands are held until a person says otherwise.
func FirstBridges() Islands {
	return Islands{How: BridgedIslands, Each: 2, Width: 1.5, Foot: .4}
}

func (s Islands) check() error {
	if !slices.Contains([]IslandsHow{LooseIslands, BridgedIslands, NoIslands}, s.How) {
		return Refuse("islands", "Loose middles stay, are held by bridges or are left out.")
	}
	if s.How != BridgedIslands {
		return nil
	}
	if s.Each < 1 || s.Each > 4 {
		return Refuse("each", "A loose middle is held by 1 to 4 bridges.")
	}
	if !within(s.Width, .3, 20) {
		return Refuse("width", "A bridge is between 0.3 mm and 20 mm (¾ in) wide.")
	}
	if !within(s.Foot, 0, 10) {
		return Refuse("foot", "A bridge is up to 10 mm (⅜ in) wider at its ends.")
	}
	return nil
}

// Bridge is a bridge that a person has put: it leaves an island where a ring of the outline of
// its item is its edge. Of words it is a ring of the letter whose first character is Letter, and
// goes with it. At is where, in shares of the ring's length.
type Bridge struct {
	Letter int     `json:"letter,omitempty"`
	Ring   int     `json:"ring"`
	At     float64 `json:"at"`
}

// mostBridges bounds how many a person puts on one item.
const mostBridges = 500

func (it Item) checkBridges() error {
	if len(it.Bridges) > mostBridges {
		return Refuse("bridges", "“%s” has at most %d bridges that are put by hand.", it.Name, mostBridges)
	}
	for _, b := range it.Bridges {
		if b.Letter < 0 || b.Ring < 0 || !within(b.At, 0, 1) {
			return Refuse("bridges", "A bridge leaves a ring of “%s” somewhere along its length.", it.Name)
		}
	}
	return nil
}

// followText keeps bridges with their letters where the text of words changes; those of letters
// that go are dropped.
func (it *Item) followText(was string) {
	if len(it.Bridges) == 0 || it.Words == nil || it.Words.Text == was {
		return
	}
	e := editOf(was, it.Words.Text)
	var left []Bridge
	for _, b := range it.Bridges {
		if at, ok := e.stays(b.Letter); ok {
			b.Letter = at
			left = append(left, b)
		}
	}
	it.Bridges = left
}

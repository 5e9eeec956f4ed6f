package sheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/ground/wording"
)

// A base may be a sheet as it comes, folded: A4 to A5, or Letter to its half. Sizes of the
// trade are rounded (two A5 are 296 mm wide), so a base that is smaller by up to
// wholeLess is a whole sheet too, and one that is larger by up to wholeMore, mm.
const (
	wholeLess = 1.6
	wholeMore = .3
)

// wholeOn maps the base to a sheet of a size that it is the whole of; false if it is not.
func (u unit) wholeOn(size Size) (geom.Affine, bool) {
	if len(u.members) != 1 || u.members[0].Item != card.BasePiece {
		return geom.Identity, false
	}
	outline := u.members[0].Outline
	box := outline.Bounds()
	if math.Abs(outline.Area()) < box.W*box.H-1e-3 {
		return geom.Identity, false // it has a shape of its own
	}
	is := func(a, b float64) bool { return a-b <= wholeMore && b-a <= wholeLess }
	at := geom.Identity
	switch {
	case is(box.W, size.Width) && is(box.H, size.Height):
	case is(box.H, size.Width) && is(box.W, size.Height):
		at = geom.Turn(math.Pi / 2)
	default:
		return geom.Identity, false
	}
	mid := outline.Transform(at).Bounds().Centre()
	return at.Then(geom.Shift(size.Width/2-mid.X, size.Height/2-mid.Y)), true
}

// whole takes bases out of the units that are each a sheet of a size on hand: the sheets
// that they are, without a number and a stock, and the other units. It is noted once.
func (p paper) whole(out *Layout, units []unit) (sheets []Sheet, rest []unit) {
	for _, u := range units {
		sh := p.wholeSheet(u)
		if sh == nil {
			rest = append(rest, u)
			continue
		}
		if len(sheets) == 0 {
			out.Notes = append(out.Notes, Note{Why: sh.told(p, u.members[0].Outline.Bounds())})
		}
		sheets = append(sheets, *sh)
	}
	return sheets, rest
}

// wholeSheet is the sheet that a base is, or nil.
func (p paper) wholeSheet(u unit) *Sheet {
	for _, size := range p.sizes {
		at, ok := u.wholeOn(size)
		if !ok || u.fixed != nil {
			continue
		}
		p.Margin = p.edge(size)
		sh := &Sheet{Size: size, Margin: p.Margin, Pieces: []Piece{}, Marks: []Mark{}, Whole: true}
		u.at[0] = geom.Identity // its own way up does not matter here
		u.layOn(sh, at)
		sh.bare(p.Margin)
		return sh
	}
	return nil
}

// bare leaves out what would cut round the sheet's only piece, and ends its ink where the
// printer does.
func (sh *Sheet) bare(margin float64) {
	p := &sh.Pieces[0]
	p.Lines = p.Lines[:len(p.Lines)-1]
	if margin <= 0 {
		return
	}
	page := geom.RectPath(geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-margin))
	for i := range p.Inks {
		p.Inks[i].Clips = append(slices.Clone(p.Inks[i].Clips), page)
	}
	for i := range p.Reverse {
		p.Reverse[i].Clips = append(slices.Clone(p.Reverse[i].Clips), page)
	}
}

// told says that the sheet is the base, and where its ink ends.
func (sh *Sheet) told(p paper, box geom.Rect) string {
	var b strings.Builder
	fmt.Fprintf(&b, "The base is a whole %s sheet: nothing is cut round it", sh.Size.Name)
	if less := max(max(sh.Size.Width, sh.Size.Height)-max(box.W, box.H), min(sh.Size.Width, sh.Size.Height)-min(box.W, box.H)); less > wholeMore {
		fmt.Fprintf(&b, ", and it is %s larger than the base was made", measure.FormatBoth(less))
	}
	b.WriteString(".")
	switch {
	case !sh.Printed:
	case sh.Margin > 0:
		fmt.Fprintf(&b, " Its ink ends %s from the edge, which is as far as the printer reaches.", measure.FormatBoth(sh.Margin))
	default:
		b.WriteString(" Its ink runs to the edge, as the paper is printed borderless.")
	}
	if sh.Printed && p.Marking == ForMachine {
		b.WriteString(" It gets no marks, which would stay on the card.")
	}
	return b.String()
}

// apart takes tied sets apart that have no room on any sheet, and says so: what is in them
// is laid, and the set can be untied.
func (p paper) apart(out *Layout, c card.Card, units []unit, printed bool) []unit {
	var all []unit
	for _, u := range units {
		if u.tie == 0 || p.markedFor(u).fits(u, p.largest(), printed) {
			all = append(all, u)
			continue
		}
		note := Note{}
		var names []string
		for _, l := range u.members {
			note.Untie, names = append(note.Untie, l.ID), append(names, "“"+l.Name+"”")
			single := p.single(l)
			single.fix(c, p)
			all = append(all, single)
		}
		big := oversize{u, p.markedFor(u), printed}
		note.Why = "As a tied set, " + big.why(listed(names), big.roomFor()) + " They are laid apart."
		out.Notes = append(out.Notes, note)
	}
	return all
}

// listed is names as a sentence has them, of many the first.
func listed(names []string) string {
	const most = 3
	if n := len(names) - most; n > 0 {
		return fmt.Sprintf("%s and %d more", strings.Join(names[:most], ", "), n)
	}
	return wording.And(names)
}

// open says which slots still wait, since nothing of them is printed or cut.
func open(s scene.Scene) []Note {
	var out []Note
	for _, kind := range []struct {
		takes    card.Takes
		what, it string
	}{{card.TakesPhoto, "a photo", "it"}, {card.TakesWords, "words", "them"}} {
		var names []string
		for _, f := range s.Faces {
			for _, it := range f.Items {
				if it.Slot == kind.takes {
					names = append(names, fmt.Sprintf("“%s” on %s", it.Name, f.Name))
				}
			}
		}
		switch len(names) {
		case 0:
		case 1:
			out = append(out, Note{Why: fmt.Sprintf("%s waits for %s, and is left out until it has %s.", names[0], kind.what, kind.it)})
		default:
			out = append(out, Note{Why: fmt.Sprintf("%s wait for %s, and are left out until they have %s.", listed(names), kind.what, kind.it)})
		}
	}
	return out
}

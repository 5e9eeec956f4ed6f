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

// unit is what is laid as one: a piece, or a tied set.
type unit struct {
	members []loose
	at      []geom.Affine // of each member, to the unit's own coordinates
	room    geom.Path
	fixed   *nest.Place
	size    int // of the sheets on hand, that on which it is fixed
	tie     int
	byHand  bool
	wrong   string
}

func (u unit) inked() bool { return slices.ContainsFunc(u.members, loose.inked) }

// middle is that of the piece's own box, bleed left out.
func (l loose) middle() geom.Point { return l.Outline.Bounds().Centre() }

// to maps a piece to where its middle has the place.
func (l loose) to(p card.Place) geom.Affine {
	m := l.middle()
	return geom.Shift(-m.X, -m.Y).Then(geom.Turn(p.Turn * math.Pi / 180)).Then(geom.Shift(p.X, p.Y))
}

// placeOf is the place that a map gives to the piece's middle.
func (l loose) placeOf(m geom.Affine) card.Place {
	p := m.Apply(l.middle())
	return card.Place{X: card.Tidy(p.X), Y: card.Tidy(p.Y), Turn: card.Tidy(turnOf(geom.Pt(m.A, m.B)))}
}

// setOf is a tied set as it is on the sheets: its number, from 1, and the row whose pieces it holds; ""
// for a set whose pieces were tied by their own ids.
type setOf struct {
	tie int
	row string
}

// setsOf tells which set each piece of a group is in. A set of items, tied on one card, is a set of each
// name's.
func setsOf(c card.Card, group []loose) map[string]setOf {
	sets := map[string]setOf{}
	for i, t := range c.Ties {
		for _, member := range t.Pieces {
			for _, l := range group {
				switch member.Piece {
				case l.ID:
					sets[l.ID] = setOf{i + 1, ""}
				case l.Item:
					if _, own := sets[l.ID]; !own {
						sets[l.ID] = setOf{i + 1, l.Row}
					}
				}
			}
		}
	}
	return sets
}

// unitsOf are the units of a group of one stock, in the order of their first pieces.
func unitsOf(c card.Card, group []loose, p paper) []unit {
	sets := setsOf(c, group)
	done := map[setOf]bool{}
	var units []unit
	for _, l := range group {
		set, tied := sets[l.ID]
		if !tied {
			units = append(units, p.single(l))
			continue
		}
		if done[set] {
			continue
		}
		u := unit{tie: set.tie}
		if set.row != "" {
			u.tie = len(c.Ties) + len(done) + 1
		}
		done[set] = true
		var rooms []geom.Path
		for _, t := range c.Ties[set.tie-1].Pieces {
			for _, member := range group {
				if sets[member.ID] != set || t.Piece != member.ID && t.Piece != member.Item {
					continue
				}
				m := member.to(t.Place)
				u.members, u.at = append(u.members, member), append(u.at, m)
				rooms = append(rooms, member.room.Transform(m))
			}
		}
		u.room = geom.Union(geom.NonZero, rooms...)
		units = append(units, u)
	}
	for i := range units {
		units[i].fix(c, p)
	}
	return units
}

// single is a piece by itself, turned as its paper has to stand.
func (p paper) single(l loose) unit {
	u := unit{members: []loose{l}, at: []geom.Affine{geom.Identity}, room: l.room}
	if p.direction == OneWayUp && l.stands != 0 {
		u.at[0] = geom.Turn(l.stands * math.Pi / 180)
		u.room = l.room.Transform(u.at[0])
	}
	return u
}

// fix notes where a person has laid the unit. A place that is off the sheet, which may
// be a smaller one now, is none.
func (u *unit) fix(c card.Card, p paper) {
	for _, laid := range slices.Backward(c.Laid) {
		for k, l := range u.members {
			if l.ID != laid.Piece {
				continue
			}
			back, ok := u.at[k].Inverse()
			if !ok {
				continue
			}
			m := back.Then(l.to(laid.Place))
			size, ok := p.sizeOf(laid, u.room.Transform(m).Bounds())
			if !ok {
				u.wrong = fmt.Sprintf("“%s” was laid by hand where %s has no paper, and was laid anew.", l.Name, p.largest().Name)
				return
			}
			u.fixed, u.size, u.byHand = &nest.Place{Sheet: laid.Sheet, At: m}, size, true
			return
		}
	}
}

// layOn adds the pieces of the unit to a sheet.
func (u unit) layOn(sh *Sheet, at geom.Affine) {
	for k, l := range u.members {
		m := u.at[k].Then(at)
		p := l.placed(m)
		p.Place, p.ByHand, p.Tie, p.Wrong = l.placeOf(m), u.byHand, u.tie, u.wrong
		p.room = l.room.Transform(m)
		sh.add(p)
	}
}

// clashes says of pieces that were laid by hand what they lie on, run over or how they
// should not be turned.
func (sh *Sheet) clashes(on paper) {
	inner := geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-sh.Margin)
	for i := range sh.Pieces {
		p := &sh.Pieces[i]
		if !p.ByHand {
			continue
		}
		for j := range sh.Pieces {
			o := &sh.Pieces[j]
			if i == j || !p.Box.Overlaps(o.Box) {
				continue
			}
			if geom.Intersection(geom.NonZero, p.room, o.room).Area() > .01 {
				p.Wrong = fmt.Sprintf("“%s” lies on “%s”.", p.Name, o.Name)
			}
		}
		for _, m := range sh.Marks {
			if b := m.Path().Bounds(); p.Box.Overlaps(b) && !geom.Intersection(geom.NonZero, p.room, geom.RectPath(b)).Empty() {
				p.Wrong = fmt.Sprintf("“%s” lies on a mark.", p.Name)
			}
		}
		if p.Wrong == "" && !inner.Contains(p.Box, .01) {
			p.Wrong = fmt.Sprintf("“%s” runs over the margin.", p.Name)
		}
		p.Wrong = cmp.Or(p.Wrong, on.astray(*p, sh.Size))
	}
}

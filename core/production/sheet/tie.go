package sheet

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// TiePieces makes a tied set of pieces. Those that a person has laid by hand keep the places that they have
// on their sheet; others that lie side by side on one face keep those that they have there. What neither
// holds of (pieces of several faces, or one upon the other) keeps the places on the sheet, turned back to
// quarters unless pieces may be turned freely.
type TiePieces struct {
	Pieces []card.Laid `json:"pieces"`
}

// Label implements card.Command.
func (k TiePieces) Label() string { return card.TiePieces(k).Label() }

// Apply implements card.Command. It lives here because only this package knows how pieces lie.
func (k TiePieces) Apply(c card.Card) (card.Card, error) {
	tied := slices.Clone(k.Pieces)
	byHand := slices.ContainsFunc(tied, func(t card.Laid) bool {
		return slices.ContainsFunc(c.Laid, func(l card.Laid) bool { return l.Piece == t.Piece })
	})
	if !byHand && len(tied) > 1 {
		s, err := scene.Of(c)
		if err != nil {
			return c, err
		}
		if onFace := asOnFace(tied, pieces(c, s)); onFace != nil {
			tied = onFace
		} else if c.SheetsOf().Turning != card.TurnFreely {
			straighten(tied)
		}
	}
	return card.TiePieces{Pieces: tied}.Apply(c)
}

// asOnFace are pieces where they lie on their face; nil where they are of several faces, or have no room
// there side by side.
func asOnFace(tied []card.Laid, all []loose) []card.Laid {
	out := slices.Clone(tied)
	var face card.FaceID
	var rooms []geom.Path
	for i := range out {
		k := slices.IndexFunc(all, func(l loose) bool { return l.ID == card.ItemOf(out[i].Piece) })
		if k < 0 || all[k].Face == "" || face != "" && all[k].Face != face {
			return nil
		}
		l := all[k]
		back, ok := l.At.Inverse()
		if !ok || back.Det() < 0 {
			return nil
		}
		face, out[i].Place = l.Face, l.placeOf(back)
		room := l.room.Transform(l.to(out[i].Place))
		for _, o := range rooms {
			if o.Bounds().Overlaps(room.Bounds()) && geom.Intersection(geom.NonZero, o, room).Area() > .01 {
				return nil
			}
		}
		rooms = append(rooms, room)
	}
	return out
}

// straighten turns a set back by what its first piece is off a quarter turn.
func straighten(tied []card.Laid) {
	off := math.Remainder(tied[0].Place.Turn, 90)
	mid := geom.Pt(tied[0].Place.X, tied[0].Place.Y)
	m := geom.Shift(-mid.X, -mid.Y).Then(geom.Turn(-off * math.Pi / 180)).Then(geom.Shift(mid.X, mid.Y))
	for i := range tied {
		p := &tied[i].Place
		at := m.Apply(geom.Pt(p.X, p.Y))
		p.X, p.Y, p.Turn = card.Tidy(at.X), card.Tidy(at.Y), card.Turned(p.Turn, -off*math.Pi/180)
	}
}

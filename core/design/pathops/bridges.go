package pathops

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// MoveBridge puts a bridge of a cut piece elsewhere on its island: as near as can be to a place
// on the face, mm. The other bridges of that island stay where they are from then on.
type MoveBridge struct {
	ID     string     `json:"id"`
	Bridge int        `json:"bridge"` // as the scene lists them
	To     geom.Point `json:"to"`
}

// Label implements card.Command.
func (MoveBridge) Label() string { return "Move a bridge" }

// Apply implements card.Command.
func (k MoveBridge) Apply(c card.Card) (card.Card, error) {
	return onBridge(c, k.ID, k.Bridge, func(p *scene.Item, of []geom.Point, i int) ([]geom.Point, error) {
		back, ok := p.At.Inverse()
		if !ok {
			return of, nil
		}
		n, ok := p.Bridges[k.Bridge].Ring.Nearest(back.Apply(k.To))
		if !ok {
			return of, nil
		}
		of[i] = n.Point
		return of, nil
	})
}

// DropBridge takes a bridge of a cut piece away; the others of its island stay where they are
// from then on. The last one of an island is not taken away.
type DropBridge struct {
	ID     string `json:"id"`
	Bridge int    `json:"bridge"` // as the scene lists them
}

// Label implements card.Command.
func (DropBridge) Label() string { return "Take a bridge away" }

// Apply implements card.Command.
func (k DropBridge) Apply(c card.Card) (card.Card, error) {
	return onBridge(c, k.ID, k.Bridge, func(p *scene.Item, of []geom.Point, i int) ([]geom.Point, error) {
		if len(of) == 1 {
			return nil, card.Refuse("bridge", "It is the only bridge of this middle, which would fall out without it.")
		}
		return slices.Delete(of, i, i+1), nil
	})
}

// AddBridge puts one more bridge on the island of a cut piece that is nearest to a place on the
// face, mm. The others of that island stay where they are from then on.
type AddBridge struct {
	ID string     `json:"id"`
	To geom.Point `json:"to"`
}

// Label implements card.Command.
func (AddBridge) Label() string { return "Add a bridge" }

// Apply implements card.Command.
func (k AddBridge) Apply(c card.Card) (card.Card, error) {
	return onPiece(c, k.ID, func(f *card.Face, doc *card.Item, p *scene.Item) error {
		back, ok := p.At.Inverse()
		if !ok {
			return nil
		}
		to := back.Apply(k.To)
		best := -1
		var place geom.Nearest
		for i, b := range p.Bridges {
			if n, ok := b.Ring.Nearest(to); ok && (best < 0 || n.Distance < place.Distance) {
				best, place = i, n
			}
		}
		if best < 0 {
			return card.Refuse("to", "“%s” has no middle that is held by bridges.", p.Name)
		}
		of, _ := bridgesOf(p, best)
		return note(f, doc, p.Bridges[best], append(of, place.Point))
	})
}

// FreeBridges lets all bridges of a cut piece be placed anew.
type FreeBridges struct {
	ID string `json:"id"`
}

// Label implements card.Command.
func (FreeBridges) Label() string { return "Place bridges anew" }

// Apply implements card.Command.
func (k FreeBridges) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		f.Item(k.ID).Bridges = nil
		for _, it := range f.Joined(k.ID) {
			it.Bridges = nil
		}
		return nil
	})
}

// onPiece changes a cut piece with what it is resolved to.
func onPiece(c card.Card, id string, change func(*card.Face, *card.Item, *scene.Item) error) (card.Card, error) {
	return card.OnFace(c, []string{id}, func(_ *card.Card, f *card.Face) error {
		doc := f.Item(id)
		if !doc.IsPiece() {
			return card.Refuse("id", "“%s” is no cut piece.", doc.Name)
		}
		p, err := scene.Resolve(f, doc)
		if err != nil {
			return err
		}
		return change(f, doc, &p)
	})
}

// onBridge changes where the bridges of one island are, in the coordinates of the piece: change
// gets them and the index of the bridge that is meant.
func onBridge(c card.Card, id string, bridge int, change func(*scene.Item, []geom.Point, int) ([]geom.Point, error)) (card.Card, error) {
	return onPiece(c, id, func(f *card.Face, doc *card.Item, p *scene.Item) error {
		if bridge < 0 || bridge >= len(p.Bridges) {
			return card.Refuse("bridge", "“%s” has %d bridges.", p.Name, len(p.Bridges))
		}
		of, i := bridgesOf(p, bridge)
		of, err := change(p, of, i)
		if err != nil {
			return err
		}
		return note(f, doc, p.Bridges[bridge], of)
	})
}

// bridgesOf are the places where the bridges of an island leave it, by one of them, and which of
// them that is.
func bridgesOf(p *scene.Item, bridge int) (of []geom.Point, which int) {
	ring := p.Bridges[bridge].Ring.Digest()
	for i, b := range p.Bridges {
		if b.Ring.Digest() != ring {
			continue
		}
		if i == bridge {
			which = len(of)
		}
		of = append(of, b.From)
	}
	return of, which
}

// note keeps where the bridges of an island are with the items whose outlines its edge is, in
// place of what was noted of it. Places are in the coordinates of the piece.
func note(f *card.Face, piece *card.Item, island stencil.Strip, places []geom.Point) error {
	had, err := scene.PlacedBridges(f, piece)
	if err != nil {
		return err
	}
	for _, h := range had {
		if n, ok := island.Ring.Nearest(h.At); ok && n.Distance < stencil.Near {
			it := f.Item(h.Of)
			it.Bridges = slices.DeleteFunc(slices.Clone(it.Bridges), func(b card.Bridge) bool { return b == h.Bridge })
		}
	}
	for _, p := range places {
		b, ok, err := scene.BridgeAt(f, piece, p)
		if err != nil {
			return err
		}
		if ok {
			it := f.Item(b.Of)
			it.Bridges = append(slices.Clone(it.Bridges), b.Bridge)
		}
	}
	now, err := scene.Resolve(f, piece)
	if err != nil {
		return err
	}
	for _, p := range places {
		if !slices.ContainsFunc(now.Bridges, func(s stencil.Strip) bool { return s.Placed && s.From.Sub(p).Len() < stencil.Near }) {
			return card.Refuse("to", "From there no bridge of “%s” leads straight to paper that stays. Try a little farther along.", piece.Name)
		}
	}
	return nil
}

package scene

import (
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// source is a ring of an item's own outline, or of one of its letters, that the edge of an
// island may be.
type source struct {
	letter, ring int
	path         geom.Path // in the item's own coordinates
}

// sources are all rings of an item; none of one that has no outline of its own. It fails where
// words name a font that is not there.
func sources(doc *card.Item) (out []source, err error) {
	add := func(letter int, p geom.Path) {
		for i, r := range p.Rings() {
			if r.Closed() {
				out = append(out, source{letter, i, r})
			}
		}
	}
	switch {
	case doc.Words != nil:
		letters, err := lettering.Letters(*doc.Words)
		if err != nil {
			return nil, err
		}
		for _, l := range letters {
			add(l.From, l.Outline)
		}
	case doc.Photo != nil:
		add(0, card.OutlineOf(doc.Photo.Form()))
	case doc.Form != nil:
		add(0, card.OutlineOf(*doc.Form))
	}
	return out, nil
}

// BridgePlace is a bridge that a person has put, in the coordinates of the piece that it is of.
type BridgePlace struct {
	Of string // the item whose outline it is noted with
	card.Bridge
	At geom.Point
}

// PlacedBridges are the bridges that are noted with a piece and with what is part of its
// outline. What has lost its letter or its ring is left out. It fails as Resolve does.
func PlacedBridges(f *card.Face, piece *card.Item) (out []BridgePlace, err error) {
	err = eachSource(f, piece, func(it *card.Item) bool { return len(it.Bridges) > 0 }, func(it *card.Item, at geom.Affine, s source) {
		for _, b := range it.Bridges {
			if b.Letter != s.letter || b.Ring != s.ring {
				continue
			}
			if p, _, ok := s.path.PointAt(b.At * s.path.Length()); ok {
				out = append(out, BridgePlace{it.ID, b, at.Apply(p)})
			}
		}
	})
	return out, err
}

// BridgeAt is how a bridge that leaves an island of a piece at a place, in the coordinates of the
// piece, is noted: with the nearest ring of the piece or of what is part of its outline. ok is
// false where there is none. It fails as Resolve does.
func BridgeAt(f *card.Face, piece *card.Item, place geom.Point) (b BridgePlace, ok bool, err error) {
	best := 0.0
	err = eachSource(f, piece, func(*card.Item) bool { return true }, func(it *card.Item, at geom.Affine, s source) {
		ring := s.path.Transform(at)
		n, found := ring.Nearest(place)
		if found && (!ok || n.Distance < best) {
			ok, best = true, n.Distance
			b = BridgePlace{it.ID, card.Bridge{Letter: s.letter, Ring: s.ring, At: card.Tidy(stencil.Share(ring, n))}, n.Point}
		}
	})
	return b, ok, err
}

// eachSource visits the rings of a piece and of what is part of its outline, with the map from
// the coordinates of their item to those of the piece, of those items that are wanted.
func eachSource(f *card.Face, piece *card.Item, wanted func(*card.Item) bool, visit func(*card.Item, geom.Affine, source)) error {
	back, ok := piece.Place.Map().Inverse()
	if !ok {
		return nil
	}
	for _, it := range append([]*card.Item{piece}, joined(f, piece.ID, f.Hidden())...) {
		if !wanted(it) {
			continue
		}
		all, err := sources(it)
		if err != nil {
			return err
		}
		for _, s := range all {
			visit(it, it.Place.Map().Then(back), s)
		}
	}
	return nil
}

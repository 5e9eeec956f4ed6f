package scene

import (
	"crypto/sha256"
	"fmt"

	"sectilis/core/document/card"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// joined are the items that are part of the outline of a piece and are not left out.
func joined(f *card.Face, id string, gone map[string]bool) []*card.Item {
	var out []*card.Item
	for _, it := range f.Joined(id) {
		if !gone[it.ID] {
			out = append(out, it)
		}
	}
	return out
}

// worked is the outline of a piece with what is carved out of it and welded to it, and what is
// to be told of it.
type worked struct {
	outline geom.Path
	islands []geom.Path
	bridges []stencil.Strip
	thin    []stencil.Thin
	least   float64 // width of the thinnest part, mm
}

// workings are kept by content: outlines by their digests, and what becomes of them.
var workings = cache.New[string, worked](2000)

// join carves what lies on a piece out of its outline, or welds it to it, from below, and sees
// to its islands and its thin parts. It fails where words name a font that is not there.
func (it *Item) join(f *card.Face, doc *card.Item) error {
	parts := joined(f, doc.ID, f.Hidden())
	form := doc.Form
	if doc.Photo != nil {
		form = doc.Photo.Opening
	}
	ready := doc.Words == nil && (form == nil || form.Outline != card.Free)
	if ready && len(parts) == 0 {
		return nil // ready outlines have no islands, and mats are as they are
	}
	back, ok := it.At.Inverse()
	if !ok {
		return nil
	}
	paths := make([]geom.Path, len(parts))
	hash := sha256.New()
	digest := it.Outline.Digest()
	hash.Write(digest[:])
	for i, p := range parts {
		r, err := Resolve(f, p)
		if err != nil {
			return err
		}
		paths[i] = r.Outline.Transform(r.At.Then(back))
		digest := paths[i].Digest()
		fmt.Fprintf(hash, "%s %x", p.Made.As, digest)
	}
	fmt.Fprint(hash, doc.Bridges)
	for _, p := range parts {
		fmt.Fprint(hash, p.Bridges)
	}
	stock, _ := card.StockByID(doc.Made.Stock)
	bears := stock.Bears()
	fmt.Fprintf(hash, "%+v %v %v", doc.Made.Islands, doc.Made.Thicken, bears)
	done, err := workings.Of(string(hash.Sum(nil)), func() (worked, error) {
		placed, err := PlacedBridges(f, doc)
		if err != nil {
			return worked{}, err
		}
		out := work(it.Outline, parts, paths, doc.Made.Islands, placed)
		out.bear(bears, doc.Made.Thicken)
		return out, nil
	})
	if err != nil {
		return err
	}
	it.Outline, it.Islands, it.Bridges = done.outline, done.islands, done.bridges
	if len(done.thin) > 0 {
		it.Thin = &Thin{nil, done.least, bears}
		for _, t := range done.thin {
			it.Thin.Regions = append(it.Thin.Regions, t.Region)
		}
	}
	return nil
}

// bear finds the parts that are thinner than the stock bears, mm, or grows them to that.
func (w *worked) bear(bears float64, thicken bool) {
	w.thin = stencil.Thinner(w.outline, bears)
	if thicken && len(w.thin) > 0 {
		w.outline, w.thin = stencil.Thicken(w.outline, w.thin, bears), nil
		return
	}
	w.least = stencil.Least(w.outline, w.thin, bears)
}

func work(outline geom.Path, parts []*card.Item, paths []geom.Path, islands card.Islands, placed []BridgePlace) worked {
	for i, p := range parts {
		if p.Made.As == card.Carved {
			outline = geom.Difference(geom.NonZero, outline, paths[i])
		} else {
			outline = geom.Union(geom.NonZero, outline, paths[i])
		}
	}
	out := worked{outline: outline, islands: stencil.Islands(outline)}
	if len(out.islands) == 0 {
		return out
	}
	switch islands.How {
	case card.NoIslands:
		out.outline, out.islands = stencil.WithoutIslands(outline), nil
	case card.BridgedIslands:
		opt := stencil.Options{Each: islands.Each, Width: islands.Width, Foot: islands.Foot, InLine: islands.InLine}
		for _, p := range placed {
			opt.Placed = append(opt.Placed, p.At)
		}
		r := stencil.Bridge(outline, opt)
		out.outline, out.islands, out.bridges = r.Outline, r.Loose, r.Bridges
	}
	return out
}

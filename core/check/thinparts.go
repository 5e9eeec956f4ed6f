package check

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// thinParts finds pieces that are thinner somewhere than their stock bears: they tear when they
// are cut.
func thinParts(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if it.Thin == nil {
			return
		}
		stock, _ := card.StockByID(doc.Made.Stock)
		if it.Thin.Least >= it.Thin.Bears {
			out = append(out, of(Note, f, it, 0, nil, "has parts that run to a point: they bend when they are cut from %s.", stock.Name))
			return
		}
		larger := ""
		switch times := it.Thin.Bears / max(it.Thin.Least, 1e-3); {
		case doc.Words != nil:
			larger = " In letters of " + say(it.Words.Size*times) + " it would do."
		case times < 10:
			larger = " Made " + say(it.Box.W*times) + " wide it would do."
		}
		made := doc.Made
		made.Thicken = true
		out = append(out, of(Caution, f, it, it.Thin.Bears-it.Thin.Least, []Mend{{Says: "Thicken it there", Do: []Step{{"setMade", card.SetMade{IDs: []string{it.ID}, Made: made}}}}},
			"is only %s wide in places; %s bears %s.%s", say(it.Thin.Least), stock.Name, say(it.Thin.Bears), larger))
	})
	return out
}

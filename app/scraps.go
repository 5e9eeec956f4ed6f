package app

import (
	"context"
	"encoding/json"
	"slices"

	"sectilis/core/card"
	"sectilis/core/sheet"
)

// kept reads a list that is kept beside the cards; what cannot be read counts as none.
func kept[T any](ctx context.Context, a *App, name string) []T {
	out := []T{}
	if raw, err := a.store.Kept(ctx, name); err == nil {
		if err := json.Unmarshal(raw, &out); err != nil {
			a.log.Warn("not read", "list", name, "err", err)
		}
	}
	return out
}

func keepList[T any](ctx context.Context, a *App, name string, list []T) error {
	raw, err := json.Marshal(list)
	if err != nil {
		return err
	}
	return a.store.Keep(ctx, name, raw)
}

// Scraps are the odd pieces of paper on hand, which are used first.
func (a *App) Scraps(ctx context.Context) []sheet.Scrap { return kept[sheet.Scrap](ctx, a, "scraps") }

// maxScraps is how many scraps are kept track of.
const maxScraps = 200

// KeepScraps notes what scraps there are from now on.
func (a *App) KeepScraps(ctx context.Context, scraps []sheet.Scrap) error {
	if len(scraps) > maxScraps {
		return card.Refuse("scraps", "Up to %d scraps are kept track of.", maxScraps)
	}
	for _, s := range scraps {
		if _, ok := card.StockByID(s.Stock); !ok {
			return card.Refuse("stock", "There is no stock “%s”.", s.Stock)
		}
		if !(s.Width >= 10 && s.Width <= 1000 && s.Height >= 10 && s.Height <= 1000) {
			return card.Refuse("width", "A scrap is between 10 mm (⅜ in) and 1 m on each side.")
		}
	}
	return keepList(ctx, a, "scraps", scraps)
}

// OnHand says of what stocks there is something else on hand than the size for all.
func (a *App) OnHand(ctx context.Context) []sheet.OnHand { return kept[sheet.OnHand](ctx, a, "onHand") }

// KeepOnHand notes what there is of a stock from now on.
func (a *App) KeepOnHand(ctx context.Context, h sheet.OnHand) error {
	if err := h.Check(); err != nil {
		return err
	}
	// The list is read, changed and written as one.
	a.onHand.Lock()
	defer a.onHand.Unlock()
	all := slices.DeleteFunc(a.OnHand(ctx), func(o sheet.OnHand) bool { return o.Stock == h.Stock })
	if len(h.Sizes) > 0 || h.Borderless || h.Direction != sheet.AnyWay {
		all = append(all, h)
	}
	return keepList(ctx, a, "onHand", all)
}

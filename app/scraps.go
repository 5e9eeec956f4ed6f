package app

import (
	"context"
	"encoding/json"

	"sectilis/core/card"
	"sectilis/core/sheet"
)

// Scraps are the odd pieces of paper on hand, which are used first.
func (a *App) Scraps(ctx context.Context) []sheet.Scrap {
	out := []sheet.Scrap{}
	if raw, err := a.store.Kept(ctx, "scraps"); err == nil {
		if err := json.Unmarshal(raw, &out); err != nil {
			a.log.Warn("scraps not read", "err", err)
		}
	}
	return out
}

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
	raw, err := json.Marshal(scraps)
	if err != nil {
		return err
	}
	return a.store.Keep(ctx, "scraps", raw)
}

package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"sync"

	"sectilis/core/document/card"
	"sectilis/core/production/sheet"
)

// keptAs reads into v what is kept beside the cards under a name; found is false if
// nothing is. An error says that the store failed or that what it holds cannot be read:
// that is not the same as nothing, and no default may stand in for it.
func keptAs(ctx context.Context, from keeper, name string, v any) (found bool, err error) {
	raw, err := from.Kept(ctx, name)
	return decode(raw, err, v, name)
}

// decode reads JSON from the store into v; found is false if the store has nothing.
func decode(raw []byte, err error, v any, name string) (found bool, _ error) {
	if errors.Is(err, ErrNotFound) {
		return false, nil
	}
	if err == nil {
		err = json.Unmarshal(raw, v)
	}
	if err != nil {
		return false, fmt.Errorf("read %s: %w", name, err)
	}
	return true, nil
}

// keptList reads a list that is kept beside the cards, empty if none is.
func keptList[T any](ctx context.Context, from keeper, name string) ([]T, error) {
	out := []T{}
	_, err := keptAs(ctx, from, name, &out)
	return out, err
}

// changeList keeps what a function makes of a list that is kept beside the cards; others who change a list
// meanwhile wait. It returns what the function does, and fails when the store does; nothing is another then.
func changeList[T any](ctx context.Context, lists *sync.Mutex, in keeper, name string, do func([]T) ([]T, error)) error {
	lists.Lock()
	defer lists.Unlock()
	all, err := keptList[T](ctx, in, name)
	if err == nil {
		all, err = do(all)
	}
	if err != nil {
		return err
	}
	return keepList(ctx, in, name, all)
}

func keepList[T any](ctx context.Context, to keeper, name string, list []T) error {
	raw, err := json.Marshal(list)
	if err != nil {
		return err
	}
	return to.Keep(ctx, name, raw)
}

// Scraps are the odd pieces of paper on hand, which are used first. It fails when the store
// does.
func (p *production) Scraps(ctx context.Context) ([]sheet.Scrap, error) {
	return keptList[sheet.Scrap](ctx, p.store, "scraps")
}

// maxScraps is how many scraps are kept track of.
const maxScraps = 200

// KeepScraps notes what scraps there are from now on. It returns a *card.Refusal for sizes
// that no paper has.
func (p *production) KeepScraps(ctx context.Context, scraps []sheet.Scrap) error {
	if err := p.stocks.ready(ctx); err != nil {
		return err
	}
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
	return keepList(ctx, p.store, "scraps", scraps)
}

// OnHand lists what there is of stocks that have something else on hand than the size for all.
// It fails when the store does.
func (p *production) OnHand(ctx context.Context) ([]sheet.OnHand, error) {
	return keptList[sheet.OnHand](ctx, p.store, "onHand")
}

// KeepOnHand notes what there is of a stock from now on. It returns a *card.Refusal for a
// stock or a size that there is none of.
func (p *production) KeepOnHand(ctx context.Context, h sheet.OnHand) error {
	if err := h.Check(); err != nil {
		return err
	}
	return changeList(ctx, p.lists, p.store, "onHand", func(all []sheet.OnHand) ([]sheet.OnHand, error) {
		all = slices.DeleteFunc(all, func(o sheet.OnHand) bool { return o.Stock == h.Stock })
		if len(h.Sizes) > 0 || len(h.Counts) > 0 || h.Borderless || h.Direction != sheet.AnyWay {
			all = append(all, h)
		}
		return all, nil
	})
}

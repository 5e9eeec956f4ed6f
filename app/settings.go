package app

import (
	"context"
	"encoding/json"

	"sectilis/core/document/card"
	"sectilis/core/production/cut"
)

// settings returns how a stock is cut: as it was noted, or as usual if nothing was.
func (p *production) settings(ctx context.Context, stock card.Stock) (cut.Settings, error) {
	s := cut.SettingsOf(stock)
	raw, err := p.store.Settings(ctx, stock.ID)
	found, err := decode(raw, err, &s, "how "+stock.Name+" is cut")
	if err == nil && found {
		err = s.Check()
	}
	return s, err
}

// KeepSettings notes how a stock is cut from now on. It returns a *card.Refusal for settings
// that no cutter has.
func (p *production) KeepSettings(ctx context.Context, stock string, s cut.Settings) error {
	if err := p.stocks.ready(ctx); err != nil {
		return err
	}
	if _, ok := card.StockByID(stock); !ok {
		return ErrNotFound
	}
	if err := s.Check(); err != nil {
		return err
	}
	raw, err := json.Marshal(s)
	if err != nil {
		return err
	}
	return p.store.KeepSettings(ctx, stock, raw)
}

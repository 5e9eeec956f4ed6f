package app

import (
	"context"
	"encoding/json"

	"sectilis/core/card"
	"sectilis/core/cut"
)

// settings is how a stock is cut: as it was noted, or as usual.
func (a *App) settings(ctx context.Context, stock card.Stock) cut.Settings {
	var s cut.Settings
	if raw, err := a.store.Settings(ctx, stock.ID); err == nil && json.Unmarshal(raw, &s) == nil && s.Check() == nil {
		return s
	}
	return cut.SettingsOf(stock)
}

// KeepSettings notes how a stock is cut from now on.
func (a *App) KeepSettings(ctx context.Context, stock string, s cut.Settings) error {
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
	return a.store.KeepSettings(ctx, stock, raw)
}

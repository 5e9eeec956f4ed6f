package app

import (
	"context"
	"time"

	"sectilis/core/ground/cache"
)

// ProductionStore keeps how sheets were laid and cut.
type ProductionStore interface {
	keeper
	Picture(ctx context.Context, id string) (Picture, []byte, error)
	// Layout returns how something was laid on sheets; ErrNotFound if that is not
	// known. KeepLayout keeps it, in place of what was kept before.
	Layout(ctx context.Context, key string) ([]byte, error)
	KeepLayout(ctx context.Context, key string, answer []byte, at time.Time) error
	// Settings returns how a stock is cut; ErrNotFound if it is cut as usual.
	Settings(ctx context.Context, stock string) ([]byte, error)
	KeepSettings(ctx context.Context, stock string, settings []byte) error
}

// production lays cards out on sheets, prints them and writes them to files.
type production struct {
	common
	store      ProductionStore
	cards      *cards
	supplies   *supplies
	outcomes   *outcomes
	jobs       *jobs
	machine    *machine
	printer    Printer
	inks       *inkShelf
	stocks     *stockShelf
	printScale float64
	layouts    *cache.Cache[string, layout]
}

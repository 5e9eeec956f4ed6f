package exchange

import (
	"context"
	"errors"
)

// MaxWork bounds what reading one file may cost: a unit is a rule that is compared with an
// element, a segment that is made, a reference that is followed or the like.
const MaxWork = 4_000_000

// ErrWork is for a file that costs more than MaxWork to read.
var ErrWork = errors.New("this drawing is too intricate to read: it repeats or refers to parts of itself more often than is sensible. Simplify it, or bring it in in parts")

// Budget counts the work of reading a file, and stops it when whoever asked for it is gone.
type Budget struct {
	ctx  context.Context
	left int
	next int // when ctx is looked at again
}

// NewBudget returns a budget of MaxWork.
func NewBudget(ctx context.Context) *Budget { return &Budget{ctx, MaxWork, MaxWork} }

// Spend takes n units off; the error is ErrWork, or that of the context.
func (b *Budget) Spend(n int) error {
	if b.left -= n; b.left < 0 {
		return ErrWork
	}
	if b.left > b.next {
		return nil
	}
	b.next = b.left - 5000
	return b.ctx.Err()
}

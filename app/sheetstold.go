package app

import (
	"context"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/production/sheet"
)

// SheetsTold is how many sheets a card takes, and how many it would take after a change.
type SheetsTold struct {
	Before int `json:"before"`
	After  int `json:"after"`
	// Unlaid is how many pieces would have no room on any.
	Unlaid int `json:"unlaid,omitempty"`
}

// TrySheets tells how many sheets a change would take, laid as a card is laid at first, and changes
// nothing. Its errors are those of Try.
func (p *production) TrySheets(ctx context.Context, id string, base int64, commands []card.Command) (SheetsTold, error) {
	rev, was, next, err := p.cards.workOut(ctx, id, base, commands)
	if err != nil {
		return SheetsTold{}, err
	}
	after, err := scene.After(next, rev.Card, was)
	if err != nil {
		return SheetsTold{}, err
	}
	opt, err := sheet.OptionsOf(next.SheetsOf())
	if err != nil {
		return SheetsTold{}, err
	}
	if opt, err = p.paper(ctx, opt); err != nil {
		return SheetsTold{}, err
	}
	now, err := laid(ctx, rev.Card, was)
	if err != nil {
		return SheetsTold{}, err
	}
	then, err := laid(ctx, next, after)
	if err != nil {
		return SheetsTold{}, err
	}
	l := sheet.LayCopies(next, then, opt, nil)
	return SheetsTold{len(sheet.LayCopies(rev.Card, now, opt, nil).Sheets), len(l.Sheets), len(l.Problems)}, ctx.Err()
}

// Package sheettest says how tests lay cards on sheets.
package sheettest

import (
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/measure"
	"sectilis/core/production/nest"
	"sectilis/core/production/sheet"
)

// Usual lays cards on sheets of a size as they are laid at first: a quarter inch from the
// edges, an eighth between pieces, turned by quarters.
func Usual(size sheet.Size) sheet.Options {
	return sheet.Options{Size: size, Margin: measure.Inch / 4, Between: measure.Inch / 8, Turning: nest.Quarters}
}

// Copies are the cards that are made for the names of a card.
func Copies(t testing.TB, c card.Card) (out []sheet.Copy) {
	t.Helper()
	for _, r := range c.Names.Made() {
		made, ok := c.ForName(r.ID)
		require.True(t, ok)
		s, err := scene.Of(made)
		require.NoError(t, err)
		out = append(out, sheet.Copy{Row: r.ID, Name: r.Name(), Card: made, Scene: s})
	}
	return out
}

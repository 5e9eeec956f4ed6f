// Package sheettest says how tests lay cards on sheets.
package sheettest

import (
	"sectilis/core/ground/measure"
	"sectilis/core/production/nest"
	"sectilis/core/production/sheet"
)

// Usual lays cards on sheets of a size as they are laid at first: a quarter inch from the
// edges, an eighth between pieces, turned by quarters.
func Usual(size sheet.Size) sheet.Options {
	return sheet.Options{Size: size, Margin: measure.Inch / 4, Between: measure.Inch / 8, Turning: nest.Quarters}
}

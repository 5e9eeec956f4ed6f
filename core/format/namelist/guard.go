package namelist

import "strings"

// formulas begin cells that spreadsheets work out.
const formulas = "=+-@\t\r"

// Guarded is a cell as it is written into a table: one that a spreadsheet would take for a formula begins
// with an apostrophe (OWASP, CSV injection).
func Guarded(cell string) string {
	if cell != "" && strings.ContainsRune(formulas, rune(cell[0])) {
		return "'" + cell
	}
	return cell
}

// GuardedRow is Guarded of each cell of a row.
func GuardedRow(cells []string) []string {
	out := make([]string, len(cells))
	for i, cell := range cells {
		out[i] = Guarded(cell)
	}
	return out
}

// unguarded undoes Guarded.
func unguarded(cell string) string {
	if len(cell) > 1 && cell[0] == '\'' && strings.ContainsRune(formulas, rune(cell[1])) {
		return cell[1:]
	}
	return cell
}

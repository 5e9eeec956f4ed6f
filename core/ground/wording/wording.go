// Package wording makes parts of sentences of lists and numbers.
package wording

import (
	"fmt"
	"strings"
)

// And joins a list as a sentence has it: "a", "a and b", "a, b and c". It returns "" for none.
func And(list []string) string {
	if n := len(list) - 1; n > 0 {
		return strings.Join(list[:n], ", ") + " and " + list[n]
	}
	return strings.Join(list, "")
}

// Counted is a number with its noun: "1 sheet", "3 sheets".
func Counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

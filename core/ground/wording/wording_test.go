package wording

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestPartsOfSentences(t *testing.T) {
	for want, list := range map[string][]string{"": nil, "a": {"a"}, "a and b": {"a", "b"}, "a, b and c": {"a", "b", "c"}} {
		assert.Equal(t, want, And(list))
	}
	for want, n := range map[string]int{"0 sheets": 0, "1 sheet": 1, "2 sheets": 2} {
		assert.Equal(t, want, Counted(n, "sheet", "sheets"))
	}
}

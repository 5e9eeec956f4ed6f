package server

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestTheProgramKeepsToAShareOfTheMemory(t *testing.T) {
	for has, want := range map[int64]int64{0: mostMemory / 2, 1 << 30: leastMemory, 8 << 30: 2 << 30, 64 << 30: mostMemory} {
		assert.Equal(t, want, memoryLimit(has), has)
	}
}

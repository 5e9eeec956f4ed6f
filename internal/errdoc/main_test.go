package main

import (
	"go/parser"
	"go/token"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSilentCommentsAreFound(t *testing.T) {
	file, err := parser.ParseFile(token.NewFileSet(), "a.go", `package a

// Read reads.
func Read() error { return nil }

// Write writes. It returns the error of the writer.
func Write() (int, error) { return 0, nil }

// Open opens, or returns ErrNotFound.
func (d *desk) Open() error { return nil }

func (d *desk) Shut() error { return nil }

// Label implements Command.
func (d *desk) Label() error { return nil }

// Size is its size.
func Size() int { return 0 }

func inner() error { return nil }
`, parser.ParseComments)
	require.NoError(t, err)
	var names []string
	for _, n := range silent(file) {
		names = append(names, n.Name)
	}
	assert.Equal(t, []string{"Read", "Shut"}, names)
}

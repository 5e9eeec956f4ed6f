package cache_test

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/cache"
)

func TestACacheIsBoundedAndKeepsNothingAfterAnError(t *testing.T) {
	c := cache.New[int, string](2)
	computed := 0
	of := func(k int, v string, err error) (string, error) {
		return c.Of(k, func() (string, error) { computed++; return v, err })
	}
	_, err := of(1, "", errors.New("no"))
	require.ErrorContains(t, err, "no")
	v, err := of(1, "one", nil)
	require.NoError(t, err)
	assert.Equal(t, "one", v, "the failure was not kept")
	v, _ = of(1, "another", nil)
	assert.Equal(t, "one", v)
	assert.Equal(t, 2, computed)
	c.Put(2, "two")
	_, _ = c.Get(1)
	c.Put(3, "three")
	_, ok := c.Get(2)
	assert.False(t, ok, "what was used longest ago goes")
	_, ok = c.Get(1)
	assert.True(t, ok)
}

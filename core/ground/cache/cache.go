// Package cache keeps results of pure functions in memory, by content: a bounded map that
// drops what was used longest ago. A key is compared by equality; content that is not
// comparable itself is named by its SHA-256 digest (geom.Path.Digest), never by a shorter
// hash.
//
// It is on the ground floor of core and stands on github.com/hashicorp/golang-lru.
package cache

import (
	"fmt"

	lru "github.com/hashicorp/golang-lru/v2"
)

// Cache is safe for concurrent use. The zero value is not usable; see New.
type Cache[K comparable, V any] struct{ lru *lru.Cache[K, V] }

// New returns a cache of at most size entries; size is positive.
func New[K comparable, V any](size int) *Cache[K, V] {
	l, err := lru.New[K, V](size)
	if err != nil {
		panic(fmt.Sprintf("cache: %v", err)) // the size is a constant of the caller
	}
	return &Cache[K, V]{l}
}

// Get returns what is kept under a key; ok is false if nothing is.
func (c *Cache[K, V]) Get(key K) (value V, ok bool) { return c.lru.Get(key) }

// Put keeps a value under a key, in place of what was there.
func (c *Cache[K, V]) Put(key K, value V) { c.lru.Add(key, value) }

// Of returns what is kept under a key or, if nothing is, what compute returns, which is
// then kept. After an error, which is passed on, nothing is kept. Two callers that miss
// the same key at once both compute.
func (c *Cache[K, V]) Of(key K, compute func() (V, error)) (V, error) {
	if v, ok := c.lru.Get(key); ok {
		return v, nil
	}
	v, err := compute()
	if err == nil {
		c.lru.Add(key, v)
	}
	return v, err
}

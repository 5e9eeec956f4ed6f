package app

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"slices"
	"sync"
)

// shelf keeps things of a person's own that the whole program knows, such as papers. None is forgotten:
// cards may be made with it.
type shelf[T any] struct {
	store keeper
	name  string    // that they are kept under
	know  func([]T) // makes them known, in place of those before

	mu    sync.Mutex
	done  bool
	own   []T
	state string // names what is known: another, when that is another
}

// ready reads them, once. It fails when the store does, and is then to be asked again.
func (s *shelf[T]) ready(ctx context.Context) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.done {
		return nil
	}
	own, err := keptList[T](ctx, s.store, s.name)
	if err != nil {
		return err
	}
	if err := s.take(own); err != nil {
		return err
	}
	s.done = true
	return nil
}

// take goes by others from now on. The lock is held. It fails for what cannot be written.
func (s *shelf[T]) take(own []T) error {
	raw, err := json.Marshal(own)
	if err != nil {
		return err
	}
	sum := sha256.Sum256(raw)
	s.own, s.state = own, hex.EncodeToString(sum[:6])
	s.know(own)
	return nil
}

// is names what is known.
func (s *shelf[T]) is() string {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.state
}

// all lists them. It fails when the store does.
func (s *shelf[T]) all(ctx context.Context) ([]T, error) {
	if err := s.ready(ctx); err != nil {
		return nil, err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	return slices.Clone(s.own), nil
}

// change keeps what a function makes of the list. It returns what the function does, and fails when the
// store does; nothing is another then.
func (s *shelf[T]) change(ctx context.Context, do func([]T) ([]T, error)) error {
	if err := s.ready(ctx); err != nil {
		return err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	own, err := do(slices.Clone(s.own))
	if err != nil {
		return err
	}
	if err := keepList(ctx, s.store, s.name, own); err != nil {
		return err
	}
	return s.take(own)
}

package app

import (
	"context"
	"fmt"
	"sync"
	"time"

	"sectilis/core/document/lettering"
	"sectilis/core/ground/geom"
)

// KeptFont is a font file with one face that was brought in. Offered is false once it was taken
// out of the tray; words in it stay as they are.
type KeptFont struct {
	ID      string
	File    string // its name when it was brought in
	Raw     []byte
	Offered bool
}

// FontStore keeps the fonts that were brought in.
type FontStore interface {
	AddFont(ctx context.Context, f KeptFont, at time.Time) error
	// Fonts lists all, those that were taken out of the tray too, the oldest first.
	Fonts(ctx context.Context) ([]KeptFont, error)
	HideFont(ctx context.Context, id string, at time.Time) error
}

// fontShelf makes the fonts of the store known to lettering.
type fontShelf struct {
	store FontStore
	mu    sync.Mutex
	done  bool
}

// ready reads the fonts, once. It fails when the store does, and is then to be asked again: a
// card with words in a font that could not be read is no card without it.
func (s *fontShelf) ready(ctx context.Context) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.done {
		return nil
	}
	all, err := s.store.Fonts(ctx)
	if err != nil {
		return err
	}
	for _, k := range all {
		faces, err := lettering.Read(k.File, k.Raw)
		if err != nil {
			return fmt.Errorf("font %s: %w", k.File, err)
		}
		for _, f := range faces {
			if _, err := lettering.Add(f, k.Offered); err != nil {
				return fmt.Errorf("font %s: %w", k.File, err)
			}
		}
	}
	s.done = true
	return nil
}

// Fonts lists the faces that are offered. It fails when the store does.
func (u *supplies) Fonts(ctx context.Context) ([]lettering.Font, error) {
	if err := u.fonts.ready(ctx); err != nil {
		return nil, err
	}
	return lettering.Fonts(), nil
}

// FontFile is the file of a face; nil where there is none. It fails when the store does.
func (u *supplies) FontFile(ctx context.Context, id string) ([]byte, error) {
	if err := u.fonts.ready(ctx); err != nil {
		return nil, err
	}
	return lettering.File(id), nil
}

// FormsOf are the forms that a face has for a letter, as lettering.Forms gives them in letters of
// 10 mm. It returns ErrNotFound where there is no such face, and fails when the store does.
func (u *supplies) FormsOf(ctx context.Context, id string, letter rune) ([]geom.Path, error) {
	if err := u.fonts.ready(ctx); err != nil {
		return nil, err
	}
	if !lettering.Known(id) {
		return nil, ErrNotFound
	}
	return lettering.Forms(id, letter, 10), nil
}

// BringInFont takes a font file and returns its faces. The error is a *lettering.Error for bytes
// that are no font. The same face brought in again is the same face.
func (u *supplies) BringInFont(ctx context.Context, name string, raw []byte) ([]lettering.Font, error) {
	if err := u.fonts.ready(ctx); err != nil {
		return nil, err
	}
	faces, err := lettering.Read(name, raw)
	if err != nil {
		return nil, err
	}
	out := make([]lettering.Font, 0, len(faces))
	for _, f := range faces {
		if err := u.store.AddFont(ctx, KeptFont{ID: f.ID, File: name, Raw: f.Raw}, u.now()); err != nil {
			return nil, err
		}
		known, err := lettering.Add(f, true)
		if err != nil {
			return nil, &lettering.Error{Why: fmt.Sprintf("“%s” is no font that can be read here: %v.", name, err)}
		}
		out = append(out, known)
	}
	return out, nil
}

// RemoveFont takes a face that was brought in out of the tray. Words in it stay as they are. It
// returns ErrNotFound for a face that ships, or is not there.
func (u *supplies) RemoveFont(ctx context.Context, id string) error {
	if err := u.fonts.ready(ctx); err != nil {
		return err
	}
	if f, ok := lettering.ByID(id); !ok || !f.Own {
		return ErrNotFound
	}
	if err := u.store.HideFont(ctx, id, u.now()); err != nil {
		return err
	}
	lettering.Withdraw(id)
	return nil
}

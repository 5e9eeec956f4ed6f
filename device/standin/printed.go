package standin

import (
	"cmp"
	"crypto/rand"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
)

// printed is where printed sheets come to lie: a directory with two pictures of each, one in
// full and one to be looked at. The oldest are thrown away when there are too many.
type printed struct {
	mu   sync.Mutex
	root *os.Root
	keep int
	// most is how many bytes the sheets take; the newest is kept however large it is.
	most int64
}

const (
	fullSheet  = ".png"
	smallSheet = "-small.png"
)

var refs = regexp.MustCompile(`^[0-9a-z]{26}$`)

func openPrinted(dir string, keep int, most int64) (*printed, error) {
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return nil, fmt.Errorf("the directory for printed sheets: %w", err)
	}
	root, err := os.OpenRoot(dir)
	if err != nil {
		return nil, fmt.Errorf("the directory for printed sheets: %w", err)
	}
	return &printed{root: root, keep: keep, most: most}, nil
}

// put keeps a sheet and returns what it is asked for by.
func (t *printed) put(raw, small []byte) (ref string, err error) {
	t.mu.Lock()
	defer t.mu.Unlock()
	ref = strings.ToLower(rand.Text())
	for name, b := range map[string][]byte{ref + smallSheet: small, ref + fullSheet: raw} {
		if err := t.root.WriteFile(name, b, 0o644); err != nil {
			return "", errors.Join(err, t.drop(ref))
		}
	}
	return ref, t.clear()
}

// get is a picture of a sheet; fs.ErrNotExist if it is not there.
func (t *printed) get(ref string, small bool) ([]byte, error) {
	if !refs.MatchString(ref) {
		return nil, fs.ErrNotExist
	}
	if small {
		return t.root.ReadFile(ref + smallSheet)
	}
	return t.root.ReadFile(ref + fullSheet)
}

// clear throws away the oldest sheets beyond what is kept, and nothing else that lies in
// the directory.
func (t *printed) clear() error {
	all, err := fs.ReadDir(t.root.FS(), ".")
	if err != nil {
		return err
	}
	type sheet struct {
		ref      string
		at, size int64
	}
	var sheets []sheet
	for _, f := range all {
		ref := strings.TrimSuffix(f.Name(), filepath.Ext(f.Name()))
		if info, err := f.Info(); err == nil && refs.MatchString(ref) && strings.HasSuffix(f.Name(), fullSheet) {
			sheets = append(sheets, sheet{ref, info.ModTime().UnixNano(), info.Size()})
		}
	}
	slices.SortFunc(sheets, func(a, b sheet) int { return cmp.Compare(b.at, a.at) })
	bytes := int64(0)
	for i, s := range sheets {
		if bytes += s.size; i > 0 && (i >= t.keep || bytes > t.most) {
			err = errors.Join(err, t.drop(s.ref))
		}
	}
	return err
}

func (t *printed) drop(ref string) error {
	var out error
	for _, name := range []string{ref + fullSheet, ref + smallSheet} {
		if err := t.root.Remove(name); err != nil && !errors.Is(err, fs.ErrNotExist) {
			out = errors.Join(out, err)
		}
	}
	return out
}

package lettering

import (
	"bytes"
	"cmp"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"slices"
	"strings"
	"sync"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/font/opentype/tables"

	"sectilis/core/document/card"
)

// Embedding is what a font's file says of putting it into documents (OpenType, OS/2 fsType).
type Embedding string

// What font files say of embedding.
const (
	Installable Embedding = "installable"
	Editable    Embedding = "editable"
	PrintOnly   Embedding = "print"
	Restricted  Embedding = "restricted"
)

// Own is a face that a person has brought in: what is told of it, and its file, as TTF or OTF
// with this face alone.
type Own struct {
	Font
	Raw []byte
}

// Error is why a font file is refused, as a sentence for the person.
type Error struct{ Why string }

func (e *Error) Error() string { return e.Why }

// Read reads the faces of a font file: one, or several of a collection. name is the file's, for
// messages and for a font that has no name. The error is an *Error.
func Read(name string, raw []byte) (faces []Own, err error) {
	defer func() {
		if r := recover(); r != nil { // parsers of tables trust some of their offsets
			faces, err = nil, &Error{fmt.Sprintf("“%s” is damaged: its tables cannot be read.", name)}
		}
	}()
	files, err := unpack(name, raw)
	if err != nil {
		return nil, err
	}
	for _, file := range files {
		sum := sha256.Sum256(file)
		l, err := load(Font{ID: "own-" + hex.EncodeToString(sum[:]), Own: true}, file)
		if err != nil {
			return nil, &Error{fmt.Sprintf("“%s” is no font that can be read here: %v.", name, err)}
		}
		l.describe(name)
		if !l.hasOutlines() {
			return nil, &Error{fmt.Sprintf("The letters of “%s” have no outlines: it has pictures of them, or none at all. It cannot be cut or printed sharp.", l.font.Name)}
		}
		faces = append(faces, Own{l.font, file})
	}
	return faces, nil
}

// describe reads the names and the rights that a font file tells of itself.
func (l *loaded) describe(file string) {
	f := &l.font
	ld, err := opentype.NewLoader(bytes.NewReader(l.raw))
	if err != nil {
		return // it was read before
	}
	if raw, err := ld.RawTable(opentype.MustNewTag("name")); err == nil {
		if names, _, err := tables.ParseName(raw); err == nil {
			// 16 and 17 are the family and the style as typographers have it, 1 and 2 for old programs.
			family := cmp.Or(clean(names.Name(16), 60), clean(names.Name(1), 60))
			style := cmp.Or(clean(names.Name(17), 40), clean(names.Name(2), 40))
			if f.Name = family; style != "" && style != "Regular" && family != "" {
				f.Name = family + " " + style
			}
			f.Licence, f.LicenceURL = clean(names.Name(13), 400), clean(names.Name(14), 200)
			f.Copyright = clean(names.Name(0), 200)
		}
	}
	if i := strings.LastIndexByte(file, '.'); f.Name == "" && i > 0 {
		f.Name = clean(file[:i], 60)
	}
	f.Name = cmp.Or(f.Name, "Font")
	if raw, err := ld.RawTable(opentype.MustNewTag("OS/2")); err == nil && len(raw) > 9 {
		// The least restrictive bit counts.
		switch bits := int(raw[8])<<8 | int(raw[9]); {
		case bits&0xf == 0:
			f.Embedding = Installable
		case bits&8 != 0:
			f.Embedding = Editable
		case bits&4 != 0:
			f.Embedding = PrintOnly
		default:
			f.Embedding = Restricted
		}
	}
}

// clean is foreign text fit to be shown, cut to a length.
func clean(s string, most int) string {
	s = strings.Join(strings.FieldsFunc(strings.ToValidUTF8(s, ""), func(r rune) bool { return r <= ' ' || r == 0x7f }), " ")
	if r := []rune(s); len(r) > most {
		s = string(r[:most-1]) + "…"
	}
	return s
}

// hasOutlines reports whether some of the font's characters are drawn by outlines.
func (l *loaded) hasOutlines() bool {
	letters := l.face.Cmap.Iter()
	for range 4000 {
		if !letters.Next() {
			break
		}
		_, id := letters.Char()
		if o, ok := l.face.GlyphData(id).(font.GlyphOutline); ok && len(o.Segments) > 2 {
			return true
		}
	}
	return false
}

// brought are the faces that people have brought in; those that are withdrawn are set still, but
// not offered.
var brought = struct {
	sync.RWMutex
	all     map[string]*loaded
	order   []string // the newest first
	offered map[string]bool
}{all: map[string]*loaded{}, offered: map[string]bool{}}

// Add makes a face known under its id, and offered if that is wished. The error says why its file
// cannot be set.
func Add(o Own, offered bool) (f Font, err error) {
	defer func() {
		if r := recover(); r != nil {
			err = fmt.Errorf("its tables cannot be read (%v)", r)
		}
	}()
	brought.RLock()
	l := brought.all[o.ID]
	brought.RUnlock()
	if l == nil {
		if l, err = load(o.Font, o.Raw); err != nil {
			return Font{}, err
		}
		l.font.Stem, l.font.Joined = l.strokes()
	}
	brought.Lock()
	defer brought.Unlock()
	if brought.all[o.ID] == nil {
		brought.all[o.ID] = l
	}
	if !brought.offered[o.ID] {
		brought.order = append([]string{o.ID}, slices.DeleteFunc(brought.order, func(id string) bool { return id == o.ID })...)
	}
	brought.offered[o.ID] = offered
	return brought.all[o.ID].font, nil
}

// Withdraw offers a face no more; words that are set in it stay as they are.
func Withdraw(id string) {
	brought.Lock()
	defer brought.Unlock()
	brought.offered[id] = false
}

// owned is the face that was brought in under the id, or nil.
func owned(id string) *loaded {
	brought.RLock()
	defer brought.RUnlock()
	return brought.all[id]
}

// offeredFonts are the faces that were brought in, the newest first.
func offeredFonts() []Font {
	brought.RLock()
	defer brought.RUnlock()
	var out []Font
	for _, id := range brought.order {
		if brought.offered[id] {
			out = append(out, brought.all[id].font)
		}
	}
	return out
}

// load parses a font file.
func load(f Font, raw []byte) (*loaded, error) {
	if ld, err := opentype.NewLoader(bytes.NewReader(raw)); err == nil && f.Own && tooLarge(ld) {
		return nil, fmt.Errorf("one of its letters holds more than %d points or %d parts, or itself", maxGlyphPoints, maxGlyphParts)
	}
	face, err := font.ParseTTF(bytes.NewReader(raw))
	if err != nil {
		return nil, err
	}
	return newLoaded(f, raw, face), nil
}

// Embeddings lists what font files say of embedding.
func Embeddings() []Embedding { return []Embedding{Installable, Editable, PrintOnly, Restricted} }

// strokes measures a face that need not be known by its id yet.
func (l *loaded) strokes() (stem float64, joined bool) {
	s := newShaper(card.Words{Text: measuredBy, Font: l.font.ID})
	s.known = l
	return s.strokes()
}

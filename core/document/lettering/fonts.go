// Package lettering turns words into outlines: the faces that ship, shaping by
// the font's own rules, and lines set under each other. Units are millimetres.
package lettering

import (
	"bytes"
	"embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/harfbuzz"

	"sectilis/core/document/card"
)

//go:embed fonts/*.woff
var files embed.FS

// Font is a face that can be set.
type Font struct {
	ID     string  `json:"id"`   // also the name of its file, without .woff
	Name   string  `json:"name"` // as people read it
	Ascent float64 `json:"ascent"`
	// Descent is positive; both are in ems and say where a browser that sets
	// the same file puts the baseline in its line.
	Descent float64 `json:"descent"`
	// Stem is the width of its upright strokes, ems, and Joined says that its letters touch;
	// both are measured.
	Stem   float64 `json:"stem"`
	Joined bool    `json:"joined,omitempty"`
	// Features are what the font has beside its usual letters.
	Features []card.Feature `json:"features"`
	// Own says that it was brought in. The rest is what its file tells of its rights.
	Own        bool      `json:"own,omitempty"`
	Licence    string    `json:"licence,omitempty"`
	LicenceURL string    `json:"licenceURL,omitempty"`
	Copyright  string    `json:"copyright,omitempty"`
	Embedding  Embedding `json:"embedding,omitempty"`
}

var fonts = []Font{
	{ID: "pacifico-400", Name: "Pacifico"},
	{ID: "great-vibes-400", Name: "Great Vibes"},
	{ID: "dancing-script-700", Name: "Dancing Script"},
	{ID: "amatic-sc-700", Name: "Amatic SC"},
	{ID: "patrick-hand-400", Name: "Patrick Hand"},
	{ID: "fredoka-700", Name: "Fredoka"},
	{ID: "lilita-one-400", Name: "Lilita One"},
	{ID: "alfa-slab-one-400", Name: "Alfa Slab One"},
	{ID: "playfair-display-400", Name: "Playfair Display"},
	{ID: "zilla-slab-600", Name: "Zilla Slab"},
	{ID: "nunito-400", Name: "Nunito"},
	{ID: "courier-prime-400", Name: "Courier Prime"},
	{ID: "saira-stencil-one-400", Name: "Saira Stencil One"},
}

// loaded is a parsed font. A face keeps scratch data, so one caller at a time.
type loaded struct {
	sync.Mutex
	face *font.Face
	hb   *harfbuzz.Font
	em   float64
	font Font
	raw  []byte // its file
}

// newLoaded is a parsed font with what is told of it.
func newLoaded(f Font, raw []byte, face *font.Face) *loaded {
	l := &loaded{face: face, hb: harfbuzz.NewFont(face), em: float64(face.Upem()), font: f, raw: raw}
	if e, ok := face.FontHExtents(); ok {
		l.font.Ascent, l.font.Descent = float64(e.Ascender)/l.em, -float64(e.Descender)/l.em
	}
	l.font.Features = l.offers()
	return l
}

// byID is the font with the id, shipped or brought in; nil where there is none.
func byID(id string) *loaded {
	if l := library()[id]; l != nil {
		return l
	}
	return owned(id)
}

// library is the fonts that ship.
var library = sync.OnceValue(func() map[string]*loaded {
	out := map[string]*loaded{}
	for _, f := range fonts {
		raw, err := files.ReadFile("fonts/" + f.ID + ".woff")
		if err != nil {
			panic(fmt.Sprintf("lettering: %v", err)) // the file is part of the program
		}
		face, err := font.ParseTTF(bytes.NewReader(raw))
		if err != nil {
			panic(fmt.Sprintf("lettering: %s: %v", f.ID, err))
		}
		out[f.ID] = newLoaded(f, raw, face)
	}
	return out
})

// Fonts lists the faces in the order they are offered: those that were brought in, the newest
// first, then those that ship.
func Fonts() []Font { return append(offeredFonts(), measuredFonts()...) }

var measuredFonts = sync.OnceValue(func() []Font {
	out := make([]Font, len(fonts))
	for i, f := range fonts {
		out[i] = library()[f.ID].font
		out[i].Stem, out[i].Joined = library()[f.ID].strokes()
	}
	return out
})

// Named is the font that a family is, by its name in any case; bold asks for one that is.
// ok is false where it is not at hand in that weight.
func Named(family string, bold bool) (id string, ok bool) {
	for _, f := range fonts {
		weight := f.ID[strings.LastIndexByte(f.ID, '-')+1:]
		if strings.EqualFold(f.Name, family) && (weight >= "600" || !bold) {
			return f.ID, true
		}
	}
	return "", false
}

// Plain is the font that words are set in where theirs is not at hand.
func Plain() string { return "nunito-400" }

// ByID is the font with the id; ok is false where there is none.
func ByID(id string) (f Font, ok bool) {
	all := measuredFonts()
	if i := slices.IndexFunc(all, func(f Font) bool { return f.ID == id }); i >= 0 {
		return all[i], true
	}
	if l := owned(id); l != nil {
		return l.font, true
	}
	return Font{}, false
}

// Known reports whether there is a font with the id.
func Known(id string) bool { return byID(id) != nil }

// File is the font file of the id, as the browser gets it; nil when unknown.
func File(id string) []byte {
	if l := byID(id); l != nil {
		return l.raw
	}
	return nil
}

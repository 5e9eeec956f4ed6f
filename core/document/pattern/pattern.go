// Package pattern holds patterned papers in true millimetres: those that ship, drawn by this code as
// seamless tiles, and those that people make of pictures.
package pattern

import (
	"fmt"
	"slices"
	"strings"
	"sync/atomic"

	"sectilis/core/ground/geom"
)

// Paper is a pattern that repeats across and down.
type Paper struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Ground string  `json:"ground"` // #rrggbb; empty where what lies below shows
	Width  float64 `json:"width"`  // of the tile, mm
	Height float64 `json:"height"`
	Marks  []Mark  `json:"marks,omitempty"`
	// Picture is the picture that the tile shows, by its SHA-256 in hex; without one it is drawn by marks.
	Picture string `json:"picture,omitempty"`
	// PixelWidth is how wide the picture is; 0 where that is not known.
	PixelWidth int `json:"pixelWidth,omitempty"`
	// Mirrored lays every other tile mirrored, across and down, so that its edges meet.
	Mirrored bool `json:"mirrored,omitempty"`
	// Own says that a person has made it, and Hidden that it is not offered any more.
	Own    bool `json:"own,omitempty"`
	Hidden bool `json:"hidden,omitempty"`
}

// Mark is one ink of a tile. Clear is the share of what lies below that shows through.
type Mark struct {
	Path   geom.Path `json:"path"`
	Colour string    `json:"colour"`
	Clear  float64   `json:"clear,omitempty"`
}

// own are the papers that people have made, which the whole program knows.
var own atomic.Pointer[[]Paper]

// Know makes the papers of a person's own known, in place of those before.
func Know(papers []Paper) {
	all := slices.Clone(papers)
	own.Store(&all)
}

func owned() []Paper {
	if p := own.Load(); p != nil {
		return *p
	}
	return nil
}

// Papers lists the papers in the order they are offered: a person's own first. Those that are hidden
// are left out.
func Papers() []Paper {
	return slices.DeleteFunc(All(), func(p Paper) bool { return p.Hidden })
}

// All lists all papers, those that are not offered any more too: a person's own first.
func All() []Paper { return append(slices.Clone(owned()), shipped()...) }

// ByID returns the paper, one that is not offered any more too; ok is false for an unknown id.
func ByID(id string) (p Paper, ok bool) {
	for _, list := range [][]Paper{owned(), shipped()} {
		if i := slices.IndexFunc(list, func(p Paper) bool { return p.ID == id }); i >= 0 {
			return list[i], true
		}
	}
	return Paper{}, false
}

// Repeat is the stretch that repeats, mm, and what maps the unit square of the picture to each tile in it:
// to one, or to four of which every other is mirrored.
func (p Paper) Repeat() (w, h float64, tiles []geom.Affine) {
	at := geom.Scale(p.Width, p.Height)
	tiles = []geom.Affine{at}
	if !p.Mirrored {
		return p.Width, p.Height, tiles
	}
	across := geom.Scale(-p.Width, p.Height).Then(geom.Shift(2*p.Width, 0))
	down := geom.Scale(p.Width, -p.Height).Then(geom.Shift(0, 2*p.Height))
	both := geom.Scale(-p.Width, -p.Height).Then(geom.Shift(2*p.Width, 2*p.Height))
	return 2 * p.Width, 2 * p.Height, append(tiles, across, down, both)
}

// SVG is what repeats as a picture of its own, in true size. Of a paper that shows a picture, picture
// is the address of that.
func (p Paper) SVG(picture string) string {
	var b strings.Builder
	w, h, tiles := p.Repeat()
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="0 0 %g %g">`, w, h, w, h)
	if p.Ground != "" {
		fmt.Fprintf(&b, `<rect width="%g" height="%g" fill="%s"/>`, w, h, p.Ground)
	}
	for _, m := range p.Marks {
		fmt.Fprintf(&b, `<path d="%s" fill="%s" fill-opacity="%g"/>`, m.Path, m.Colour, 1-m.Clear)
	}
	if p.Picture != "" {
		for _, t := range tiles {
			fmt.Fprintf(&b, `<image width="1" height="1" preserveAspectRatio="none" href="%s" transform="matrix(%g %g %g %g %g %g)"/>`,
				picture, t.A, t.B, t.C, t.D, t.E, t.F)
		}
	}
	b.WriteString("</svg>")
	return b.String()
}

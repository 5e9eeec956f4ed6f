package sheet

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync/atomic"
	"unicode"
	"unicode/utf8"

	"sectilis/core/document/card"
)

// Size is a size of sheets that can be bought, upright, or one of a person's own. Width and Height
// are mm.
type Size struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	// Own says that it does not ship.
	Own bool `json:"own,omitempty"`
}

var shipped = []Size{
	{"letter", "Letter", 215.9, 279.4, false}, {"a4", "A4", 210, 297, false}, {"a3", "A3", 297, 420, false}, {"a5", "A5", 148, 210, false},
	{"square", "12-inch square", 304.8, 304.8, false}, {"photo4x6", "4 × 6 in photo", 101.6, 152.4, false}, {"photo5x7", "5 × 7 in photo", 127, 177.8, false},
}

// own are the sizes of a person's own that are offered; the list is replaced, never changed.
var own atomic.Pointer[[]Size]

// OwnSize is a size of a person's own, upright: its id tells its measures, to a hundredth of a
// millimetre. Without a name it is called by them. It returns a *card.Refusal for what no sheet is.
func OwnSize(name string, width, height float64) (Size, error) {
	if !(width >= 30 && width <= 2000 && height >= 30 && height <= 2000) {
		return Size{}, card.Refuse("width", "A sheet is between 30 mm (1 3/16 in) and 2 m on each side.")
	}
	if name = strings.TrimSpace(name); utf8.RuneCountInString(name) > 40 || strings.ContainsFunc(name, unicode.IsControl) {
		return Size{}, card.Refuse("name", "A size has a name of up to 40 letters.")
	}
	w, h := math.Round(min(width, height)*100)/100, math.Round(max(width, height)*100)/100
	number := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	if name == "" {
		name = number(w) + " × " + number(h) + " mm"
	}
	return Size{"own-" + number(w) + "x" + number(h), name, w, h, true}, nil
}

// KnowSizes makes a person's own sizes those that are offered and called by their names.
func KnowSizes(sizes []Size) {
	sizes = slices.Clone(sizes)
	own.Store(&sizes)
}

// Sizes lists the sizes of sheets that are offered.
func Sizes() []Size {
	out := slices.Clone(shipped)
	if o := own.Load(); o != nil {
		out = append(out, *o...)
	}
	return out
}

var measures = regexp.MustCompile(`^own-([0-9.]{1,8})x([0-9.]{1,8})$`)

// SizeByID returns the size; ok is false for an unknown id. A size of one's own is known by its id
// though it is not offered any more.
func SizeByID(id string) (s Size, ok bool) {
	all := Sizes()
	if i := slices.IndexFunc(all, func(s Size) bool { return s.ID == id }); i >= 0 {
		return all[i], true
	}
	m := measures.FindStringSubmatch(id)
	if m == nil {
		return Size{}, false
	}
	w, werr := strconv.ParseFloat(m[1], 64)
	h, herr := strconv.ParseFloat(m[2], 64)
	s, err := OwnSize("", w, h)
	return s, werr == nil && herr == nil && err == nil && s.ID == id
}

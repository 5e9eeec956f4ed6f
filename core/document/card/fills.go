package card

import (
	"math"

	"sectilis/core/ground/geom"
)

// Filled fills part of a photo from what is about it: what a cut would leave, or what strokes
// cover, just one of them. Another Seed gives another filling.
type Filled struct {
	Of      *CutOut   `json:"of,omitempty"`
	Strokes []Brushed `json:"strokes,omitempty"`
	Seed    uint64    `json:"seed,omitempty"`
}

// Copied is a stroke that copies what is beside it: the photo shifted, so that what is at From lies
// where the stroke begins. A soft one fades from its middle.
type Copied struct {
	Brushed
	From geom.Point `json:"from"`
	Soft bool       `json:"soft,omitempty"`
}

// Wider makes the picture larger at its sides, in shares of its width and height, and fills what is
// new from what is there.
type Wider struct {
	Left   float64 `json:"left,omitempty"`
	Top    float64 `json:"top,omitempty"`
	Right  float64 `json:"right,omitempty"`
	Bottom float64 `json:"bottom,omitempty"`
	Seed   uint64  `json:"seed,omitempty"`
}

// Margins are how many pixels are added to each side of a picture of a size.
func (k Wider) Margins(w, h int) (left, top, right, bottom int) {
	of := func(share float64, n int) int { return int(math.Round(share * float64(n))) }
	return of(k.Left, w), of(k.Top, h), of(k.Right, w), of(k.Bottom, h)
}

// Size is that of a picture of a size when it is wider.
func (k Wider) Size(w, h int) (int, int) {
	left, top, right, bottom := k.Margins(w, h)
	return w + left + right, h + top + bottom
}

func (k *Filled) check() error {
	if (k.Of == nil) == (len(k.Strokes) == 0) {
		return Refuse("filled", "Say what is filled: what was cut out, or what strokes cover.")
	}
	if k.Of != nil {
		return k.Of.check()
	}
	return checkStrokes(k.Strokes)
}

func (k *Copied) check() error {
	if !within(k.From.X, -1, 2) || !within(k.From.Y, -1, 2) {
		return Refuse("from", "What is copied lies in the photo.")
	}
	return checkStrokes([]Brushed{k.Brushed})
}

func (k *Wider) check() error {
	for _, v := range []float64{k.Left, k.Top, k.Right, k.Bottom} {
		if !within(v, 0, 1) {
			return Refuse("wider", "A photo is made wider by up to its own size at each side.")
		}
	}
	return nil
}

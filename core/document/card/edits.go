package card

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"slices"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/pixels"
	"sectilis/core/ground/reshape"
)

// Edit is one thing that is done to a photo; just one of its parts is set. Edits are done in the
// order of their list, each to what the ones before it leave. Places are shares of the width and
// the height of that.
type Edit struct {
	Light   *Light    `json:"light,omitempty"`
	Right   *Right    `json:"right,omitempty"`
	Tone    *Tone     `json:"tone,omitempty"`
	Lean    *Lean     `json:"lean,omitempty"`
	Corners *Corners  `json:"corners,omitempty"`
	Eyes    *[]RedEye `json:"eyes,omitempty"`
	CutOut  *CutOut   `json:"cutOut,omitempty"`
	Filled  *Filled   `json:"filled,omitempty"`
	Copied  *Copied   `json:"copied,omitempty"`
	Wider   *Wider    `json:"wider,omitempty"`
	// Of is the part of the photo that Light or Tone is for, as a cut would leave it; nil is all.
	Of *CutOut `json:"of,omitempty"`
}

// Light is what is done to light and colours, each -100 to 100, and to detail, each 0 to 100;
// 0 changes nothing.
type Light struct {
	Brightness float64 `json:"brightness,omitempty"`
	Contrast   float64 `json:"contrast,omitempty"`
	Highlights float64 `json:"highlights,omitempty"`
	Shadows    float64 `json:"shadows,omitempty"`
	Saturation float64 `json:"saturation,omitempty"`
	// Lively makes pale colours stronger; it spares strong ones, and skin.
	Lively float64 `json:"lively,omitempty"`
	Warmth float64 `json:"warmth,omitempty"`
	Tint   float64 `json:"tint,omitempty"` // toward magenta
	// Sharpness, Softness and Smooth, which takes grain off, are about detail.
	Sharpness float64 `json:"sharpness,omitempty"`
	Softness  float64 `json:"softness,omitempty"`
	Smooth    float64 `json:"smooth,omitempty"`
}

// Right sets a picture right: the greys that become black and white, 0 to 1, the exponent of
// those between, and how much stronger red and blue become in linear light; White, Gamma, Red
// and Blue of 0 are 1.
type Right struct {
	Black float64 `json:"black,omitempty"`
	White float64 `json:"white,omitempty"`
	Gamma float64 `json:"gamma,omitempty"`
	Red   float64 `json:"red,omitempty"`
	Blue  float64 `json:"blue,omitempty"`
}

// Tone makes a photo one of shades of a colour, #rrggbb, by an amount of up to 100; a grey is
// black and white.
type Tone struct {
	Colour string  `json:"colour"`
	Amount float64 `json:"amount"`
}

// Lean turns the picture clockwise by degrees, and makes it larger so that it fills its
// rectangle.
type Lean struct {
	Degrees float64 `json:"degrees"`
}

// Corners are where the corners of what is to be upright are: top left, top right, bottom right,
// bottom left.
type Corners struct {
	At [4]geom.Point `json:"at"`
}

// RedEye is a disc about a pupil; Radius is in shares of the width.
type RedEye struct {
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	Radius float64 `json:"radius"`
}

// ForAny reports whether the edit is about no place in the photo, so that others can have it too.
func (e Edit) ForAny() bool {
	return e.Of == nil && (e.Light != nil || e.Right != nil || e.Tone != nil)
}

// EditsForAny are the names, in JSON, of the parts of edits for which that is so.
func EditsForAny() []string { return []string{"light", "right", "tone"} }

// Most is the highest number of edits of a photo, and of eyes of one.
const (
	mostEdits = 60
	mostEyes  = 40
	mostLean  = 45.0 // degrees
)

// parts are what an edit does, those that are set.
func (e Edit) parts() (out []interface{ check() error }) {
	for _, p := range []struct {
		is bool
		of interface{ check() error }
	}{
		{e.Light != nil, e.Light}, {e.Right != nil, e.Right}, {e.Tone != nil, e.Tone}, {e.Lean != nil, e.Lean}, {e.Corners != nil, e.Corners}, {e.Eyes != nil, eyes{e.Eyes}}, {e.CutOut != nil, e.CutOut},
		{e.Filled != nil, e.Filled}, {e.Copied != nil, e.Copied}, {e.Wider != nil, e.Wider},
	} {
		if p.is {
			out = append(out, p.of)
		}
	}
	return out
}

// CheckEdits looks whether edits can be done to a photo. The error is a *Refusal.
func CheckEdits(edits []Edit) error {
	if len(edits) > mostEdits {
		return Refuse("edits", "Up to %d things are done to a photo. Take some off first.", mostEdits)
	}
	for _, e := range edits {
		parts := e.parts()
		if len(parts) != 1 {
			return Refuse("edits", "An edit of a photo does one thing; this one does %d.", len(parts))
		}
		if err := parts[0].check(); err != nil {
			return err
		}
		if e.Of != nil {
			if e.Light == nil && e.Tone == nil {
				return Refuse("of", "Only light and colours are changed in a part of a photo.")
			}
			if err := e.Of.check(); err != nil {
				return err
			}
		}
	}
	return nil
}

func (l *Light) check() error {
	for _, v := range []float64{l.Brightness, l.Contrast, l.Highlights, l.Shadows, l.Saturation, l.Lively, l.Warmth, l.Tint} {
		if !within(v, -100, 100) {
			return Refuse("light", "Light and colours are changed by between -100 and 100.")
		}
	}
	for _, v := range []float64{l.Sharpness, l.Softness, l.Smooth} {
		if !within(v, 0, 100) {
			return Refuse("light", "Sharpness, softness and smoothness are between 0 and 100.")
		}
	}
	return nil
}

func (r *Right) check() error {
	if !within(r.Black, 0, .5) || r.White != 0 && !within(r.White, .5, 1) {
		return Refuse("right", "Black is between 0 and 0.5, white between 0.5 and 1.")
	}
	for _, v := range []float64{r.Gamma, r.Red, r.Blue} {
		if v != 0 && !within(v, .25, 4) {
			return Refuse("right", "A picture is set right by a quarter to four times.")
		}
	}
	return nil
}

func (t *Tone) check() error {
	if !within(t.Amount, 0, 100) {
		return Refuse("amount", "A photo is toned by between 0 and 100.")
	}
	return checkColour(t.Colour)
}

func (l *Lean) check() error {
	if !within(l.Degrees, -mostLean, mostLean) {
		return Refuse("degrees", "A photo is straightened by up to %.0f°; turn the item for more.", mostLean)
	}
	return nil
}

func (c *Corners) check() error {
	for _, p := range c.At {
		if !within(p.X, -.5, 1.5) || !within(p.Y, -.5, 1.5) {
			return Refuse("corners", "The corners lie in the picture, or near it.")
		}
	}
	if !reshape.Corners(c.At).Sound() {
		return Refuse("corners", "The four corners go round clockwise from the top left, and none lies within the others.")
	}
	return nil
}

// eyes are the red eyes of an edit.
type eyes struct{ all *[]RedEye }

func (e eyes) check() error {
	if len(*e.all) > mostEyes {
		return Refuse("eyes", "Up to %d eyes are mended at once.", mostEyes)
	}
	for _, o := range *e.all {
		if !within(o.X, 0, 1) || !within(o.Y, 0, 1) || !within(o.Radius, .0005, .3) {
			return Refuse("eyes", "An eye lies within the photo.")
		}
	}
	return nil
}

// SizeAfter is the size in pixels that a picture of a size has after edits. The error is a *Refusal
// for edits that would make it larger than any picture may be; w and h are the size before those.
func SizeAfter(edits []Edit, w, h int) (int, int, error) {
	for _, e := range edits {
		nw, nh := w, h
		if e.Corners != nil {
			nw, nh = reshape.Corners(e.Corners.At).Size(w, h)
		}
		if e.Wider != nil {
			nw, nh = e.Wider.Size(w, h)
		}
		if n := int64(nw) * int64(nh); n > pixels.Most && n > int64(w)*int64(h) {
			return w, h, Refuse("edits", "The photo would have %d million pixels then; at most %d million can be worked on. Make it less wide, or bring it in smaller.", n/1_000_000, pixels.Most/1_000_000)
		}
		w, h = nw, nh
	}
	return w, h, nil
}

// Pixels is the size of what is seen of the picture after all edits.
func (p Print) Pixels() (w, h int) {
	w, h, _ = SizeAfter(p.Edits, p.PixelWidth, p.PixelHeight) // it was looked at when they were made
	return w, h
}

// Ref names what is seen of the picture: its digest or, with edits, that of it and them.
func (p Print) Ref() string {
	if len(p.Edits) == 0 {
		return p.Picture
	}
	raw, err := json.Marshal(p.Edits)
	if err != nil {
		panic(fmt.Sprintf("card: edits: %v", err)) // numbers and words alone
	}
	sum := sha256.Sum256(append([]byte(p.Picture+" "), raw...))
	return hex.EncodeToString(sum[:])
}

// EditPhoto does things to photos, in place of what was done to them before.
type EditPhoto struct {
	IDs   []string `json:"ids"`
	Edits []Edit   `json:"edits"`
}

// Label implements Command.
func (k EditPhoto) Label() string {
	if len(k.IDs) > 1 {
		return fmt.Sprintf("Edit %d photos", len(k.IDs))
	}
	return "Edit a photo"
}

// Apply implements Command.
func (k EditPhoto) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			it := f.Item(id)
			if it.Photo == nil {
				return Refuse("ids", "“%s” is no photo.", it.Name)
			}
			// Commands are not aliased by what they leave.
			it.Photo.Edits = slices.Clone(k.Edits)
			if len(k.Edits) == 0 {
				it.Photo.Edits = nil
			}
		}
		return nil
	})
}

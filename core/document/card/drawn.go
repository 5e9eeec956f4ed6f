package card

import (
	"encoding/json"
	"fmt"

	"sectilis/core/ground/geom"
)

// Drawn is an outline or a line that does not follow from measures. In JSON it
// is SVG path data in millimetres, to a nanometre. It is never changed.
type Drawn struct {
	path geom.Path
	box  geom.Rect
}

// NewDrawn keeps a path for a document, to a nanometre: as it is when the document is read
// back, so that what is shown does not change with that. One that cannot be written is kept
// as it is, for check to tell.
func NewDrawn(p geom.Path) *Drawn {
	if q, err := geom.ParsePath(p.Data(6)); err == nil && q.Check() == nil {
		p = q
	}
	return &Drawn{p, p.Bounds()}
}

// Path is the path as it was drawn.
func (d *Drawn) Path() geom.Path { return d.path }

// Box is its exact bounding box.
func (d *Drawn) Box() geom.Rect { return d.box }

// In is the path about the origin, stretched to a width and a height. What has no extent one
// way is not stretched that way. Both are mm.
func (d *Drawn) In(w, h float64) geom.Path {
	c := d.box.Centre()
	fit := func(want, is float64) float64 {
		if is <= 0 {
			return 1
		}
		return want / is
	}
	x, y := fit(w, d.box.W), fit(h, d.box.H)
	if max(x-1, 1-x, y-1, 1-y) < 1e-9 {
		x, y = 1, 1 // as drawn, to the last digit
	}
	return d.path.Transform(geom.Shift(-c.X, -c.Y).Then(geom.Scale(x, y)))
}

// scaled is the path k times as large about the origin.
func (d *Drawn) scaled(k float64) *Drawn { return NewDrawn(d.path.Transform(geom.Scale(k, k))) }

// MarshalJSON implements json.Marshaler.
func (d *Drawn) MarshalJSON() ([]byte, error) { return json.Marshal(d.path.Data(6)) }

// UnmarshalJSON implements json.Unmarshaler.
func (d *Drawn) UnmarshalJSON(raw []byte) error {
	var text string
	if err := json.Unmarshal(raw, &text); err != nil {
		return fmt.Errorf("path data is a string: %w", err)
	}
	p, err := geom.ParsePath(text)
	if err != nil {
		return err
	}
	*d = Drawn{p, p.Bounds()}
	return nil
}

// MaxSegments bounds one drawn outline; a traced picture has some thousands.
const MaxSegments = 50_000

// Check looks whether the path can be an outline. It returns a *Refusal that calls it by the name.
func (d *Drawn) Check(name string) error { return d.check(name, false) }

// check looks whether the path can be an outline, or lines if it may be open.
func (d *Drawn) check(name string, open bool) error {
	if d == nil || d.path.Len() < 2 || max(d.box.W, d.box.H) <= 0 {
		return Refuse("path", "“%s” has no outline.", name)
	}
	if err := d.path.Check(); err != nil {
		return Refuse("path", "“%s” cannot be taken: %v.", name, err)
	}
	if d.path.Len() > MaxSegments {
		return Refuse("path", "“%s” has more than %d pieces of outline, which is the most. Take fewer or smoother ones.", name, MaxSegments)
	}
	if open {
		return nil
	}
	for _, r := range d.path.Rings() {
		if !r.Closed() {
			return Refuse("path", "The outline of “%s” is open. Close it, or make it a line.", name)
		}
	}
	if min(d.box.W, d.box.H) <= 0 {
		return Refuse("path", "“%s” has no area.", name)
	}
	return nil
}

package arrange

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// MirrorItems mirrors items left for right or, Level, top for bottom: about
// their own middle or, Face, about the face's centre line. Copy mirrors copies
// and leaves the originals.
type MirrorItems struct {
	IDs   []string `json:"ids"`
	Level bool     `json:"level"`
	Face  bool     `json:"face"`
	Copy  bool     `json:"copy"`
}

// Label implements card.Command.
func (k MirrorItems) Label() string {
	if k.Copy {
		return "Make a mirrored copy"
	}
	return "Mirror"
}

// Apply implements card.Command.
func (k MirrorItems) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(c *card.Card, f *card.Face) error {
		box, err := boxOf(f, k.IDs)
		if err != nil {
			return err
		}
		about := box.Centre()
		if k.Face {
			about = face(c, f).Centre()
		}
		ids := k.IDs
		if k.Copy {
			made, err := c.Duplicate(f, k.IDs, 0, 0)
			if err != nil {
				return err
			}
			ids = renamed(made, ids)
			unlock(f, ids)
		}
		return f.Mirror(ids, k.Level, about)
	})
}

func renamed(made map[string]string, ids []string) []string {
	out := make([]string, len(ids))
	for i, id := range ids {
		out[i] = made[id]
	}
	return out
}

func unlock(f *card.Face, ids []string) {
	for _, id := range ids {
		f.Item(id).Locked = false
	}
}

// Pattern is how copies are laid out.
type Pattern string

// The patterns of copies.
const (
	Row  Pattern = "row"
	Grid Pattern = "grid"
	Ring Pattern = "ring"
)

// maxCopies is how many there may be in all, the originals included.
const maxCopies = 200

// RepeatItems repeats items: Count of them in a row, each a step on from the
// one before; Count across and Rows down in a grid; or Count spread evenly over
// Sweep degrees of a ring about a middle that lies Radius below the originals.
// In a row and a ring each is turned by Turn degrees and sized by Grow times the
// one before.
type RepeatItems struct {
	IDs     []string `json:"ids"`
	Pattern Pattern  `json:"pattern"`
	Count   int      `json:"count"`
	Rows    int      `json:"rows,omitempty"`
	DX      float64  `json:"dx,omitempty"`
	DY      float64  `json:"dy,omitempty"`
	Turn    float64  `json:"turn,omitempty"`
	Grow    float64  `json:"grow,omitempty"` // 1, or left out, keeps the size
	Radius  float64  `json:"radius,omitempty"`
	Sweep   float64  `json:"sweep,omitempty"` // 360, or left out, is all round
	// Upright keeps what stands in a ring from turning with it.
	Upright bool `json:"upright,omitempty"`
}

// Label implements card.Command.
func (RepeatItems) Label() string { return "Repeat" }

// spot is where a copy goes: moved, then turned and sized about its middle.
type spot struct {
	d           geom.Point
	turn, scale float64
}

// Apply implements card.Command.
func (k RepeatItems) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(c *card.Card, f *card.Face) error {
		spots, err := k.spots()
		if err != nil {
			return err
		}
		box, err := boxOf(f, k.IDs)
		if err != nil {
			return err
		}
		for _, s := range spots {
			made, err := c.Duplicate(f, k.IDs, s.d.X, s.d.Y)
			if err != nil {
				return err
			}
			ids := renamed(made, k.IDs)
			unlock(f, ids)
			middle := box.Centre().Add(s.d)
			if s.turn != 0 {
				if err := f.Turn(ids, s.turn, middle); err != nil {
					return err
				}
			}
			if s.scale != 1 {
				if err := f.Resize(card.ResizeItems{IDs: ids, FX: s.scale, FY: s.scale, About: middle}); err != nil {
					return err
				}
			}
		}
		return nil
	})
}

// spots are the places of the copies; the originals stay where they are.
func (k RepeatItems) spots() ([]spot, error) {
	for field, v := range map[string]float64{"dx": k.DX, "dy": k.DY, "turn": k.Turn, "radius": k.Radius, "sweep": k.Sweep} {
		if math.IsNaN(v) || math.Abs(v) > 1000 {
			return nil, card.Refuse(field, "Steps and turns are between -1000 and 1000.")
		}
	}
	grow := k.Grow
	if grow == 0 {
		grow = 1
	}
	if !(grow >= .1 && grow <= 10) {
		return nil, card.Refuse("grow", "Each is between a tenth of and ten times the size of the one before.")
	}
	rows := 1
	if k.Pattern == Grid {
		rows = k.Rows
	}
	if k.Count < 1 || rows < 1 || k.Count*rows < 2 || k.Count > maxCopies || rows > maxCopies || k.Count*rows > maxCopies {
		return nil, card.Refuse("count", "There can be between 2 and %d in all.", maxCopies)
	}
	switch k.Pattern {
	case Row:
		var out []spot
		for i := 1; i < k.Count; i++ {
			n := float64(i)
			out = append(out, spot{geom.Pt(k.DX*n, k.DY*n), k.Turn * n, math.Pow(grow, n)})
		}
		return out, nil
	case Grid:
		var out []spot
		for i := 1; i < k.Count*rows; i++ {
			out = append(out, spot{geom.Pt(k.DX*float64(i%k.Count), k.DY*float64(i/k.Count)), 0, 1})
		}
		return out, nil
	case Ring:
		return k.ring(grow)
	}
	return nil, card.Refuse("pattern", "Items are repeated in a row, a grid or a ring.")
}

// ring are the places of the copies round a ring.
func (k RepeatItems) ring(grow float64) ([]spot, error) {
	if k.Radius <= 0 {
		return nil, card.Refuse("radius", "A ring needs a radius of more than nothing.")
	}
	sweep, parts := k.Sweep, k.Count-1
	if sweep == 0 || math.Abs(sweep) >= 360 {
		sweep, parts = 360, k.Count // the last would fall on the first
	}
	up := geom.Pt(0, -k.Radius)
	var out []spot
	for i := 1; i < k.Count; i++ {
		a := sweep * float64(i) / float64(parts)
		s := spot{geom.Turn(a * math.Pi / 180).Apply(up).Sub(up), k.Turn * float64(i), math.Pow(grow, float64(i))}
		if !k.Upright {
			s.turn += a
		}
		out = append(out, s)
	}
	return out, nil
}

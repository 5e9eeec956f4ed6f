package card

import "sectilis/core/ground/geom"

// CutOut takes away all of a photo but what stays: by Ground, Subject or Within, just one of them, and
// then by what is painted in and out; by that alone where none of the three is given.
type CutOut struct {
	Ground  *PlainGround `json:"ground,omitempty"`
	Subject *Subject     `json:"subject,omitempty"`
	// Within is a line round what stays.
	Within []geom.Point `json:"within,omitempty"`
	Paint  []Painted    `json:"paint,omitempty"`
	// Softness is the standard deviation by which the edge is blurred, Out by how much it lies
	// farther out, both in shares of the width.
	Softness float64 `json:"softness,omitempty"`
	Out      float64 `json:"out,omitempty"`
	// Keep is how much of the colour of what was behind is left in the edge, up to 100.
	Keep float64 `json:"keep,omitempty"`
	// Rest leaves what would go, and takes away what would stay.
	Rest bool `json:"rest,omitempty"`
}

// PlainGround is a ground that goes by its colours, from where it was clicked on, or Everywhere.
// Tolerance is up to 100.
type PlainGround struct {
	At         []geom.Point `json:"at"`
	Tolerance  float64      `json:"tolerance"`
	Everywhere bool         `json:"everywhere,omitempty"`
}

// Subject is what stays, by strokes on what stays and what goes, or a line roughly round it.
type Subject struct {
	Stays []Brushed    `json:"stays,omitempty"`
	Goes  []Brushed    `json:"goes,omitempty"`
	Round []geom.Point `json:"round,omitempty"`
}

// Brushed is a stroke of a round brush; its radius is in shares of the width.
type Brushed struct {
	Points []geom.Point `json:"points"`
	Radius float64      `json:"radius"`
}

// Painted is a stroke that paints in, or out; a soft one fades from its middle.
type Painted struct {
	Brushed
	In   bool `json:"in,omitempty"`
	Soft bool `json:"soft,omitempty"`
}

// What a cut is told by, at most.
const (
	mostStrokes = 400
	mostMarks   = 20_000 // points of all strokes and lines
	mostClicks  = 60
)

func (k *CutOut) check() error {
	ways := 0
	for _, is := range []bool{k.Ground != nil, k.Subject != nil, len(k.Within) > 0} {
		if is {
			ways++
		}
	}
	if ways == 0 && len(k.Paint) > 0 {
		ways++ // what is painted in alone
	}
	if ways != 1 {
		return Refuse("cut", "Say what stays in one way: by strokes, by a line or by a plain ground.")
	}
	if !within(k.Softness, 0, .1) || !within(k.Out, -.1, .1) || !within(k.Keep, 0, 100) {
		return Refuse("cut", "An edge is moved and blurred by up to a tenth of the width of the photo.")
	}
	if g := k.Ground; g != nil {
		if len(g.At) == 0 || len(g.At) > mostClicks {
			return Refuse("ground", "Click on the ground that goes, up to %d times.", mostClicks)
		}
		if !within(g.Tolerance, 0, 100) {
			return Refuse("tolerance", "The tolerance is between 0 and 100.")
		}
	}
	if len(k.Within) > 0 && len(k.Within) < 3 {
		return Refuse("within", "A line round what stays has three points or more.")
	}
	return k.checkMarks()
}

// checkMarks looks at all that was drawn.
func (k *CutOut) checkMarks() error {
	lines := [][]geom.Point{k.Within}
	var strokes []Brushed
	if k.Ground != nil {
		lines = append(lines, k.Ground.At)
	}
	if s := k.Subject; s != nil {
		if len(s.Stays) == 0 && len(s.Goes) == 0 && len(s.Round) < 3 {
			return Refuse("subject", "Draw on what stays, or a line round it.")
		}
		lines = append(lines, s.Round)
		strokes = append(append(strokes, s.Stays...), s.Goes...)
	}
	for _, p := range k.Paint {
		strokes = append(strokes, p.Brushed)
	}
	return checkStrokes(strokes, lines...)
}

// checkStrokes looks at strokes, and at lines that were drawn beside them.
func checkStrokes(strokes []Brushed, lines ...[]geom.Point) error {
	if len(strokes) > mostStrokes {
		return Refuse("strokes", "Up to %d strokes tell what stays. Take some off.", mostStrokes)
	}
	for _, s := range strokes {
		if len(s.Points) == 0 || !within(s.Radius, .0005, .5) {
			return Refuse("strokes", "A stroke has points, and a brush of up to half the width of the photo.")
		}
		lines = append(lines, s.Points)
	}
	n := 0
	for _, l := range lines {
		n += len(l)
		for _, p := range l {
			if !within(p.X, -1, 2) || !within(p.Y, -1, 2) {
				return Refuse("strokes", "A stroke lies in the photo, or near it.")
			}
		}
	}
	if n > mostMarks {
		return Refuse("strokes", "The strokes have %d points, and may have %d. Take some off.", n, mostMarks)
	}
	return nil
}

package registration

import (
	"context"
	"fmt"
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

type search struct {
	ctx   context.Context
	eye   Eye
	shape Shape
}

// find is the centre of a ring within r of a place, or nil.
func (s *search) find(about geom.Point, r float64) (*spot, error) {
	// Chords of a ring are met by lines nearer than its radius; the middle first.
	step := s.shape.Ring * .6
	for k := range 2*int(r/step) + 1 {
		y := float64((k+1)/2) * step
		if k%2 == 1 {
			y = -y
		}
		line, err := s.see(geom.Pt(about.X-r, about.Y+y), geom.Pt(about.X+r, about.Y+y))
		if err != nil {
			return nil, err
		}
		for _, c := range s.chords(line) {
			at, ok, err := s.centre(geom.Pt(about.X-r+c, about.Y+y))
			if err != nil {
				return nil, err
			}
			if ok && at.Sub(about).Len() <= 1.5*r {
				return &at, nil
			}
		}
	}
	return nil, nil
}

// see is the brightness along a line whose length is in tenths of a millimetre, at each
// of them.
func (s *search) see(from, to geom.Point) ([]float64, error) {
	return s.eye.See(s.ctx, from, to, int(math.Round(to.Sub(from).Len()/spacing))+1)
}

// edges are where brightness passes half way between the darkest and the lightest,
// mm from the start; the first is one into the dark.
func edges(line []float64) []float64 {
	lo, hi := slices.Min(line), slices.Max(line)
	if hi-lo < .25 {
		return nil // nothing but paper
	}
	half := (lo + hi) / 2
	var out []float64
	for i := 1; i < len(line); i++ {
		a, b := line[i-1]-half, line[i]-half
		if a > 0 && b <= 0 && len(out)%2 == 0 || a <= 0 && b > 0 && len(out)%2 == 1 {
			out = append(out, (float64(i-1)+a/(a-b))*spacing)
		}
	}
	return out
}

// chords are the middles of what may be chords of a ring: of two dark stretches,
// perhaps with others between, no farther apart than the ring is wide.
func (s *search) chords(line []float64) []float64 {
	e := edges(line)
	var out []float64
	for i := 0; i+1 < len(e); i += 2 {
		for j := i + 1; j < len(e); j += 2 {
			if w := e[j] - e[i]; w > s.shape.Ring*.5 && w < 2*s.shape.Ring+.5 {
				out = append(out, (e[i]+e[j])/2)
			}
		}
	}
	return out
}

// centre draws nearer to the centre of a ring by the middles of chords, across and
// along in turn, and looks whether it is one.
func (s *search) centre(start geom.Point) (spot, bool, error) {
	at := spot{Point: start}
	for round := range 5 {
		for _, axis := range [2]geom.Point{{Y: 1}, {X: 1}} {
			m, ok, err := s.middle(at.Point, axis)
			if err != nil || !ok && round > 1 {
				return at, false, err
			}
			if ok {
				at.Point = at.Add(axis.Mul(m))
			}
		}
	}
	// Chords beside the middle one have the same middle: more of them, less noise.
	for _, axis := range [2]geom.Point{{Y: 1}, {X: 1}} {
		sum, squares, n := 0.0, 0.0, 0.0
		for k := -4; k <= 4; k++ {
			m, ok, err := s.middle(at.Add(geom.Pt(axis.Y, axis.X).Mul(.3*float64(k))), axis)
			if err != nil {
				return at, false, err
			}
			if ok {
				sum, squares, n = sum+m, squares+m*m, n+1
			}
		}
		if n < 5 {
			return at, false, nil
		}
		at.Point = at.Add(axis.Mul(sum / n))
		spread := math.Sqrt(max(0, squares/n-sum*sum/(n*n)) / (n - 1))
		at.doubt = math.Hypot(at.doubt, spread)
	}
	ok, err := s.isRing(at.Point)
	return at, ok, err
}

// middle is how far the middle of the ring's chord through a place is from it.
func (s *search) middle(at, axis geom.Point) (float64, bool, error) {
	r := s.shape.Ring + 1.2
	line, err := s.see(at.Sub(axis.Mul(r)), at.Add(axis.Mul(r)))
	if err != nil {
		return 0, false, err
	}
	e := edges(line)
	if len(e) < 2 {
		return 0, false, nil
	}
	first, last := e[0], e[len(e)-1-len(e)%2]
	if len(e)%2 == 1 {
		last = e[len(e)-2]
	}
	if last-first < s.shape.Ring*.6 {
		return 0, false, nil
	}
	return (first+last)/2 - r, true, nil
}

// isRing looks whether there are a dot, a light gap, a ring and light again all
// round.
func (s *search) isRing(at geom.Point) (bool, error) {
	const ways = 12
	good := 0
	r := s.shape.Ring + .9
	for k := range ways {
		sin, cos := math.Sincos(float64(k) * 2 * math.Pi / ways)
		line, err := s.see(at, at.Add(geom.Pt(r*cos, r*sin)))
		if err != nil {
			return false, err
		}
		value := func(d float64) float64 { return line[min(len(line)-1, int(d/spacing+.5))] }
		ring := value(s.shape.Ring - s.shape.Stroke/2)
		gap := value((s.shape.Dot + s.shape.Ring - s.shape.Stroke) / 2)
		if value(.1) < .5 && gap-ring > .2 && value(r)-ring > .2 {
			good++
		}
	}
	return good >= ways-2, nil
}

// upright looks whether the second dot is where it was drawn. If the mark that it belongs
// to was not seen, the others tell: on a sheet that lies the other way up one of them would
// be the doubled one.
func (s *search) upright(marks []Mark, seen []*spot, m geom.Affine) error {
	c := centre(marks)
	for i, mark := range marks {
		if mark.Second == nil {
			continue
		}
		dark, err := s.dark(m.Apply(*mark.Second))
		if err != nil || dark {
			return err
		}
		dark, err = s.dark(m.Apply(c.Add(c.Sub(*mark.Second))))
		if err != nil {
			return err
		}
		if dark {
			return &Failure{"The sheet lies upside down: its doubled mark is at the other end. Turn it half round and try again."}
		}
		opposite := slices.IndexFunc(marks, func(o Mark) bool { return o.At.Add(mark.At).Sub(c.Mul(2)).Len() < .5 })
		if seen[i] == nil && opposite >= 0 && seen[opposite] != nil {
			return nil // upside down, the one that was seen there would be doubled
		}
		if seen[i] != nil && opposite >= 0 && seen[opposite] != nil {
			return &Failure{fmt.Sprintf("The second dot of %s is not seen, nor one at the other end. Look whether it is clean and whole, and whether this is the right sheet; then try again.", where(marks, i))}
		}
		return &Failure{fmt.Sprintf("Which way up the sheet lies is not sure: the second dot of %s is not seen, and %s is not seen either. Look whether both are clean and whole; then try again.", where(marks, i), unseen(marks, seen))}
	}
	return nil
}

// dark reports whether there is a dot.
func (s *search) dark(at geom.Point) (bool, error) {
	r := s.shape.Dot + 1
	for _, axis := range [2]geom.Point{{X: 1}, {Y: 1}} {
		line, err := s.see(at.Sub(axis.Mul(r)), at.Add(axis.Mul(r)))
		if err != nil {
			return false, err
		}
		n := len(line)
		if line[n/2] > .5 || slices.Max(line)-line[n/2] < .3 {
			return false, nil
		}
	}
	return true, nil
}

package geom

import (
	"context"
	"slices"
)

// Operation says which places a combination covers.
type Operation uint8

// The combinations of operands.
const (
	Unite     Operation = iota // what any covers
	Intersect                  // what all cover
	Subtract                   // what the first covers and none of the others does
	Alternate                  // what an odd number covers
)

// in reports whether a place covered by n of all operands, or by the first among them,
// belongs to the result.
func (op Operation) in(n, all int, first bool) bool {
	switch op {
	case Intersect:
		return n == all && all > 0
	case Subtract:
		return first && n == 1
	case Alternate:
		return n&1 == 1
	}
	return n > 0
}

// Operand is a path and the rule by which it covers places.
type Operand struct {
	Path Path
	Rule FillRule
}

// Ring is one ring of a combination.
type Ring struct {
	Path Path
	// Parent is the number of the ring right around it, -1 where there is none: of a hole an
	// outer ring, of an outer ring a hole.
	Parent int
	Hole   bool
	// From tells of each curve of the ring, in their order, the number of the operand that it
	// is a piece of; of those that run there the first.
	From []int
}

// Combination is what operands cover together.
type Combination struct {
	Path  Path // as of Union
	Rings []Ring
}

// Combine combines operands, each with a rule of its own, for as long as the context lasts.
// The error is the context's, or tells as Path.Check that an operand cannot be combined.
func Combine(ctx context.Context, op Operation, operands ...Operand) (Combination, error) {
	in := make([]input, len(operands))
	rules := make([]FillRule, len(operands))
	for i, o := range operands {
		if err := o.Path.Check(); err != nil {
			return Combination{}, err
		}
		in[i].path, rules[i] = o.Path, o.Rule
	}
	ar, err := arrangeIn(ctx, in)
	if err != nil {
		return Combination{}, err
	}
	defer ar.release()
	sd := ar.labelEach(rules, &counter{all: len(operands), in: op.in})
	sd.traced = true
	return sd.combination(), nil
}

// combination is all regions with a class, ring by ring.
func (sd *subdivision) combination() Combination {
	rings := sd.outlines()
	out := make([]Ring, len(rings))
	for i := range rings {
		var b Builder
		from := sd.write(&b, rings[i].halves)
		out[i] = Ring{Path: b.Path(), Parent: int(rings[i].parent), Hole: rings[i].hole, From: from}
	}
	sd.surround(rings, out)
	// What is but a trace of rounding goes, with what lies in it.
	keep := make([]int, len(out)) // their new numbers, from 1
	var order []int
	for i := range out {
		gone := false
		for at := i; at >= 0; at = out[at].Parent {
			gone = gone || rings[at].nothing(out[at].Path)
		}
		if !gone {
			order = append(order, i)
		}
	}
	slices.SortStableFunc(order, func(i, j int) int { return byStart(out[i].Path, out[j].Path) })
	// Holes follow the ring that they are in.
	var c Combination
	put := func(parent int) {
		for _, i := range order {
			if out[i].Hole && out[i].Parent == parent && keep[i] == 0 {
				c.Rings = append(c.Rings, out[i])
				keep[i] = len(c.Rings)
			}
		}
	}
	for _, i := range order {
		if !out[i].Hole {
			c.Rings = append(c.Rings, out[i])
			keep[i] = len(c.Rings)
			put(i)
		}
	}
	paths := make([]Path, len(c.Rings))
	for i := range c.Rings {
		r := &c.Rings[i]
		if r.Parent >= 0 {
			r.Parent = keep[r.Parent] - 1
		}
		paths[i] = r.Path
	}
	c.Path = Join(paths...)
	return c
}

// surround gives outer rings the holes that they lie in: below the leftmost edge of a ring
// lies nothing, and below that the edge of a hole, or of a ring beside.
func (sd *subdivision) surround(rings []outline, out []Ring) {
	owner := make([]int32, 2*len(sd.edges))
	for i := range owner {
		owner[i] = -1
	}
	for i, r := range rings {
		for _, h := range r.halves {
			owner[h] = int32(i)
		}
	}
	for i, r := range rings {
		if r.hole {
			continue
		}
		for e := sd.edges[slices.Min(r.halves).edge()].pred; e >= 0; e = sd.edges[e].pred {
			d := &sd.edges[e]
			if d.below == d.above || d.above != 0 {
				continue
			}
			k := owner[2*e] // what lies below it is a region; its ring is a hole's or one beside
			if k < 0 {
				continue
			}
			if rings[k].hole {
				out[i].Parent = int(k)
			} else {
				out[i].Parent = out[k].Parent
			}
			break
		}
	}
}

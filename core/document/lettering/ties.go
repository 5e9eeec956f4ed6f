package lettering

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// tied is a letter with its dots and accents held by strips of a width, mm, each along the
// shortest way to what is held already.
func tied(letter geom.Path, width float64) geom.Path {
	parts := stencil.Parts(letter)
	if width <= 0 || len(parts) < 2 {
		return letter
	}
	held := []geom.Path{parts[0]}
	var strips []geom.Path
	for left := parts[1:]; len(left) > 0; {
		best, at := geom.Gap{}, -1
		for i, p := range left {
			for _, h := range held {
				if gap, ok := geom.Distance(p, h); ok && (at < 0 || gap.Distance < best.Distance) {
					best, at = gap, i
				}
			}
		}
		if at < 0 {
			break
		}
		held, left = append(held, left[at]), slices.Delete(slices.Clone(left), at, at+1)
		way := best.B.Sub(best.A)
		if l := way.Len(); l > 0 {
			// Half a width into both, so that the whole width of it is held.
			into := way.Mul(width / 2 / l)
			var b geom.Builder
			b.Move(best.A.Sub(into)).Line(best.B.Add(into))
			strips = append(strips, geom.Stroke(b.Path(), width, geom.MitreCorner, geom.ButtCap))
		}
	}
	return geom.Union(geom.NonZero, append([]geom.Path{letter}, strips...)...)
}

// Loose is what of words is a piece of its own when they are cut.
type Loose struct {
	// Pairs are letters side by side in a word that do not touch, such as “ha”.
	Pairs []string
	// Dots are letters with a part that touches nothing.
	Dots []string
	// Joined are the words with their pairs moved together as far as they have to be.
	Joined card.Words
}

var loosened = cache.New[string, Loose](500)

// overlap is how far letters that are moved together overlap, mm.
const overlap = .15

// LooseOf returns what of words is a piece of its own when they are cut, as if they stood in
// straight lines. It fails only for a font that is not known.
func LooseOf(w card.Words) (Loose, error) {
	key, err := keyOf(w)
	if err != nil {
		return Loose{}, err
	}
	return loosened.Of(key, func() (Loose, error) {
		flat := w
		flat.Path, flat.Warp = nil, nil
		letters, err := Letters(flat)
		if err != nil {
			return Loose{}, err
		}
		set, err := Set(flat)
		if err != nil {
			return Loose{}, err
		}
		out := Loose{Joined: w}
		bars := barsOf(flat)
		for i, l := range letters {
			if len(stencil.Parts(l.Outline)) > 1 {
				out.Dots = append(out.Dots, l.Text)
			}
			if i+1 == len(letters) || letters[i+1].From != l.To {
				continue // the end of a word
			}
			by := together(l.Outline, letters[i+1].Outline)
			if by == 0 || onOne(bars, l.Outline, letters[i+1].Outline) {
				continue
			}
			out.Pairs = append(out.Pairs, l.Text+letters[i+1].Text)
			out.Joined = out.Joined.WithKern(l.To-1, out.Joined.StyleAt(l.To-1).Kern-by/set.Size)
		}
		return out, nil
	})
}

// onOne reports whether two letters stand on one of some bars.
func onOne(bars []geom.Path, a, b geom.Path) bool {
	return slices.ContainsFunc(bars, func(bar geom.Path) bool {
		touches := func(p geom.Path) bool {
			return bar.Bounds().Overlaps(p.Bounds()) && geom.Intersection(geom.NonZero, bar, p).Area() > 1e-5
		}
		return touches(a) && touches(b)
	})
}

// together is how far the right one of two letters has to move left, mm, so that they overlap;
// 0 where they touch, or where they lie in different lines.
func together(a, b geom.Path) float64 {
	touch := func(by float64) bool {
		moved := b.Transform(geom.Shift(-by, 0))
		return a.Bounds().Overlaps(moved.Bounds()) && geom.Intersection(geom.NonZero, a, moved).Area() > 1e-5
	}
	if touch(0) {
		return 0
	}
	const step = .1
	most := b.Bounds().Right() - a.Bounds().X
	for by := step; by < most; by += step {
		if !touch(by) {
			continue
		}
		lo, hi := by-step, by
		for hi-lo > 1e-3 {
			if mid := (lo + hi) / 2; touch(mid) {
				hi = mid
			} else {
				lo = mid
			}
		}
		return hi + overlap
	}
	return 0
}

package sheet

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// baseBleed is how far ink on the base runs past the edge of the base, where it meets
// one, mm.
const baseBleed = 3.0

// pieces lists the base, the insert if there is one, and every piece of every face, in
// their own coordinates: the net, or the face turned so that the piece is upright.
func pieces(c card.Card, s scene.Scene) []loose {
	outline := s.Net.Outline()
	base := loose{stock: c.Base.Stock, Piece: Piece{ID: card.BasePiece, Item: card.BasePiece, Name: "Base", At: geom.Identity, Area: outline.Area()}}
	base.Lines = netLines(s.Net)
	for i := range s.Faces {
		f := &s.Faces[i]
		base.Lines = append(base.Lines, linesOn(f, "", f.Shape, f.OnSheet, f.Side == fold.Inside)...)
		inks := scene.Transform(f.BaseInksWithin(reach(&s, f)), f.OnSheet)
		if f.Side == fold.Outside {
			base.Inks = append(base.Inks, inks...)
		} else {
			base.Reverse = append(base.Reverse, inks...)
		}
	}
	base.Lines, base.Outline = append(base.Lines, Line{fold.Cut, outline}), outline
	base.runs = mainFold(s)
	out := []loose{base}
	if in, ok := insert(c, s, base); ok {
		out[0].Reverse = nil
		out = append(out, in)
	}
	out[0].room = roomOf(outline, slices.Concat(out[0].Inks, out[0].Reverse), baseBleed)
	for i := range s.Faces {
		f := &s.Faces[i]
		for j := range f.Items {
			it := &f.Items[j]
			if !it.Piece {
				continue
			}
			_, doc := c.Find(it.ID)
			upright, outline := uprightPiece(it)
			onFace, _ := f.OnSheet.Inverse()
			inks := scene.Transform(f.PieceInks(it), upright)
			out = append(out, loose{stock: doc.Made.Stock, room: roomOf(outline, inks, it.Bleed), Piece: Piece{
				ID: it.ID, Item: it.ID, Name: it.Name, Face: f.ID, At: upright, Area: math.Abs(outline.Area()),
				Lines:   append(linesOn(f, it.ID, it.Outline.Transform(it.At), upright, false), Line{fold.Cut, outline}),
				Outline: outline,
				Inks:    inks,
				runs:    along(base.runs, onFace.Then(upright)),
				// The face's own way up, as it is seen from the piece.
				stands: math.Mod(360-90*math.Round(turnOf(along(geom.Pt(1, 0), upright))/90), 360),
			}})
		}
	}
	return out
}

// netLines are the lines of a net; those of one curve are one path.
func netLines(n fold.Net) []Line {
	var out []Line
	for i := 0; i < len(n.Lines); {
		var b geom.Builder
		l := n.Lines[i]
		b.Move(l.From).Line(l.To)
		for i++; i < len(n.Lines) && n.Lines[i].On; i++ {
			b.Line(n.Lines[i].To)
		}
		out = append(out, Line{l.Role, b.Path()})
	}
	return out
}

// uprightPiece returns the map from the face to the piece's own coordinates, and the
// piece's outline there. The map turns and shifts only (determinant +1): paper cannot be
// mirrored, so of a mirrored item the mirrored outline is what is cut.
func uprightPiece(it *scene.Item) (upright geom.Affine, outline geom.Path) {
	upright, _ = it.At.Inverse()
	if it.At.Det() > 0 {
		return upright, it.Outline
	}
	mirror := geom.Scale(-1, 1)
	return upright.Then(mirror), it.Outline.Transform(mirror).Reverse()
}

// mainFold is the way of the longest fold of the base that is turned by hand, of another
// if there is none, or else up and down.
func mainFold(s scene.Scene) geom.Point {
	way, main := geom.Pt(0, 1e-6), false
	for _, l := range s.Net.Lines {
		d := l.To.Sub(l.From)
		if l.Role.Folds() && (l.Main && !main || l.Main == main && d.Len() > way.Len()+1e-6) {
			way, main = d, l.Main
		}
	}
	return way.Mul(1 / way.Len())
}

// turnOf is how far a way is turned from pointing right, degrees.
func turnOf(d geom.Point) float64 { return math.Atan2(d.Y, d.X) * 180 / math.Pi }

// along is where m turns a way.
func along(d geom.Point, m geom.Affine) geom.Point { return m.Apply(d).Sub(m.Apply(geom.Point{})) }

// reach is what the ink of a base's face may cover, in its coordinates: the face, and
// some more where the base ends there and no other face begins.
func reach(s *scene.Scene, f *scene.Face) geom.Path {
	beyond := false
	for i := range f.Items {
		it := &f.Items[i]
		beyond = beyond || !it.Piece && it.On == ""
	}
	if !beyond {
		return f.Shape
	}
	back, ok := f.OnSheet.Inverse()
	if !ok {
		return f.Shape
	}
	var others []geom.Path
	for i := range s.Faces {
		if o := &s.Faces[i]; o.ID != f.ID && o.Side == f.Side {
			others = append(others, o.Shape.Transform(o.OnSheet).Transform(back))
		}
	}
	others = append(others, beyondFolds(s, f, back)...)
	return geom.Difference(geom.NonZero, geom.Offset(f.Shape, baseBleed, geom.MitreCorner), others...)
}

// beyondFolds are strips along the folds that bound a face, at their other side: beside
// the end of a fold bleed is the other face's.
func beyondFolds(s *scene.Scene, f *scene.Face, back geom.Affine) (out []geom.Path) {
	const far = baseBleed + 1
	onEdge := func(p geom.Point) bool {
		n, ok := f.Shape.Nearest(p)
		return ok && n.Distance < .05
	}
	for _, l := range s.Net.Lines {
		a, b := back.Apply(l.From), back.Apply(l.To)
		way := b.Sub(a)
		if !l.Role.Folds() || way.Len() < 1 || !onEdge(a) || !onEdge(b) || !onEdge(a.Lerp(b, .5)) {
			continue
		}
		way = way.Mul(1 / way.Len())
		side := geom.Pt(-way.Y, way.X)
		if f.Shape.Bounds().Centre().Sub(a).Dot(side) > 0 {
			side = side.Mul(-1)
		}
		a, b = a.Sub(way.Mul(far)), b.Add(way.Mul(far))
		var g geom.Builder
		strip := g.Move(a).Line(b).Line(b.Add(side.Mul(far))).Line(a.Add(side.Mul(far))).Close().Path()
		out = append(out, geom.Difference(geom.NonZero, strip, f.Shape))
	}
	return out
}

// linesOn are the lines of a carrier, cut off at its edge and mapped by m.
// Guides are for the eye alone.
func linesOn(f *scene.Face, carrier string, edge geom.Path, m geom.Affine, through bool) []Line {
	var out []Line
	for i := range f.Items {
		it := &f.Items[i]
		if it.On != carrier || it.Role == "" || it.Role == fold.Guide {
			continue
		}
		path, role := it.Outline.Transform(it.At), it.Role
		if in, outside := geom.CutStrokes(path, geom.NonZero, edge); !outside.Empty() {
			path = in
		}
		if through {
			role = fold.Flipped(role)
		}
		if !path.Empty() {
			out = append(out, Line{role, path.Transform(m)})
		}
	}
	return out
}

// maxPoking bounds how many inks are looked at one by one for what pokes out.
const maxPoking = 300

// roomOf is the outline of a piece with the ink that runs past it, by up to bleed, to be
// cut away: there is room for bleed only where ink meets the edge.
func roomOf(outline geom.Path, inks []scene.Ink, bleed float64) geom.Path {
	if bleed <= 0 || len(inks) == 0 {
		return outline
	}
	whole := geom.Offset(outline, bleed, geom.MitreCorner)
	if len(inks) > maxPoking {
		return whole
	}
	inner := outline.Bounds()
	var poking []geom.Path
	for _, k := range inks {
		region := k.Region
		if k.Blur > 0 {
			region = geom.Offset(region, 3*k.Blur, geom.MitreCorner)
		}
		box := region.Bounds()
		for _, c := range k.Clips {
			box = box.Intersect(c.Bounds())
		}
		if box.W <= 0 || box.H <= 0 || outline.Len() == 5 && inner.Contains(box, 1e-6) {
			continue // of a rectangle its box tells all
		}
		for _, c := range k.Clips {
			region = geom.Intersection(geom.NonZero, region, c)
		}
		if out := geom.Difference(geom.NonZero, region, outline); out.Area() > .01 {
			poking = append(poking, out)
		}
	}
	if len(poking) == 0 {
		return outline
	}
	return geom.Intersection(geom.NonZero, whole, geom.Union(geom.NonZero, append(poking, outline)...))
}

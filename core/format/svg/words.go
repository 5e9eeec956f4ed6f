package svg

import (
	"slices"
	"strings"

	"sectilis/core/ground/geom"
)

// Face is a typeface at hand: it sets words in one line from a start on the baseline, in
// user units, and tells how far they run; ok is false where letters are missing in it.
type Face func(words string, size, spacing float64) (outline geom.Path, advance float64, ok bool)

// Faces gives the face of a family, or nil where it is not at hand.
type Faces func(family string, bold, italic bool) Face

// textStyle is how words look.
type textStyle struct {
	families     []string
	size         float64 // 0 is 16
	spacing      float64
	bold, italic bool
	anchor       string
}

func (t *textStyle) set(name, v string) {
	switch name {
	case "font-family":
		t.families = nil
		for _, f := range strings.Split(v, ",") {
			t.families = append(t.families, strings.Trim(strings.TrimSpace(f), `"'`))
		}
	case "font-size":
		if k, ok := parseLength(v); ok && k > 0 {
			t.size = k
		}
	case "letter-spacing":
		t.spacing, _ = parseLength(v) // “normal” is none
	case "font-weight":
		t.bold = v == "bold" || v == "bolder" || len(v) == 3 && v >= "600"
	case "font-style":
		t.italic = v == "italic" || v == "oblique"
	case "text-anchor":
		t.anchor = v
	}
}

// run is words of one look, with where they begin if that is said.
type run struct {
	words  string
	c      around
	x, y   *float64
	dx, dy float64
	begins bool // a line of its own, which its anchor is that of
	// special says that its letters are placed one by one, turned, stretched or along a path,
	// which is not done here.
	special bool
}

// text sets words where their face is at hand; else they are left out, with a note.
func (r *reader) text(n *node, c around) error {
	var runs []run
	if err := r.runs(n, c, &runs, 0); err != nil {
		return err
	}
	tidy(runs)
	runs = slices.DeleteFunc(runs, func(u run) bool { return u.words == "" && u.x == nil && u.y == nil && u.dx == 0 && u.dy == 0 })
	faces := make([]Face, len(runs))
	for i, u := range runs {
		if faces[i] = r.face(u.c.style.words); (faces[i] == nil || u.special) && u.words != "" {
			r.leaveText(n)
			return nil
		}
	}
	x, y := 0.0, 0.0
	for i := 0; i < len(runs); {
		// A chunk goes from one place that is given to the next.
		j := i + 1
		for j < len(runs) && !runs[j].begins {
			j++
		}
		if runs[i].x != nil {
			x = *runs[i].x
		}
		if runs[i].y != nil {
			y = *runs[i].y
		}
		set, ok := setChunk(runs[i:j], faces[i:j])
		if !ok {
			r.leaveText(n)
			return nil
		}
		switch runs[i].c.style.words.anchor {
		case "middle":
			x -= set.across / 2
		case "end":
			x -= set.across
		}
		if err := r.addChunk(n, set, geom.Pt(x, y)); err != nil {
			return err
		}
		x, y = x+set.across, y+set.down
		i = j
	}
	return nil
}

// chunk is words that are set from one place on: their outlines about it, and how far it
// is from there to their end.
type chunk struct {
	pieces       []wordPiece
	across, down float64
}

type wordPiece struct {
	path  geom.Path
	words string
	c     around
}

// setChunk sets runs one after the other; ok is false when a face does not have their letters.
func setChunk(runs []run, faces []Face) (out chunk, ok bool) {
	for k, u := range runs {
		out.across += u.dx
		out.down += u.dy
		if u.words == "" {
			continue
		}
		size := u.c.style.words.size
		if size == 0 {
			size = 16
		}
		path, advance, ok := faces[k](u.words, size, u.c.style.words.spacing)
		if !ok {
			return chunk{}, false
		}
		out.pieces = append(out.pieces, wordPiece{path.Transform(geom.Shift(out.across, out.down)), strings.TrimSpace(u.words), u.c})
		out.across += advance
	}
	return out, true
}

// addChunk adds the outlines of a chunk that begins at a place.
func (r *reader) addChunk(n *node, set chunk, at geom.Point) error {
	for _, p := range set.pieces {
		if p.path.Empty() || p.c.style.unseen {
			continue
		}
		was := len(r.d.Shapes)
		if err := r.add(n, p.path.Transform(geom.Shift(at.X, at.Y)), p.c); err != nil {
			return err
		}
		for k := was; k < len(r.d.Shapes); k++ {
			r.d.Shapes[k].Name = p.words
		}
	}
	return nil
}

func (r *reader) face(t textStyle) Face {
	if r.faces == nil {
		return nil
	}
	for _, f := range t.families {
		if face := r.faces(f, t.bold, t.italic); face != nil {
			return face
		}
	}
	return nil
}

func (r *reader) leaveText(n *node) {
	text := strings.Join(strings.Fields(allText(n)), " ")
	if len([]rune(text)) > 40 {
		text = string([]rune(text)[:40]) + "…"
	}
	r.d.Note("The text “%s” was left out: set it here as lettering, or turn it into outlines before.", text)
}

// runs lists the words of a text element and the spans in it.
func (r *reader) runs(n *node, c around, out *[]run, depth int) error {
	first := run{c: c}
	place := func(name string) (*float64, bool) {
		if n.attr[name] == "" {
			return nil, true
		}
		v, err := numbers(plain(n.attr[name]))
		if err != nil || len(v) == 0 {
			return nil, false
		}
		return &v[0], len(v) == 1
	}
	var single [4]bool
	var dx, dy *float64
	first.x, single[0] = place("x")
	first.y, single[1] = place("y")
	dx, single[2] = place("dx")
	dy, single[3] = place("dy")
	if dx != nil {
		first.dx = *dx
	}
	if dy != nil {
		first.dy = *dy
	}
	first.begins = first.x != nil || first.y != nil || depth == 0
	first.special = slices.Contains(single[:], false) || n.attr["rotate"] != "" || n.attr["textLength"] != ""
	*out = append(*out, first)
	for _, k := range n.kids {
		if err := r.budget.Spend(1); err != nil {
			return err
		}
		switch k.name {
		case wordsNode:
			*out = append(*out, run{words: k.text, c: c, special: first.special})
		case "tspan":
			props, err := r.sheet.of(k)
			if err != nil {
				return err
			}
			in := c
			if in.style = c.style.with(props, r.d); in.style.gone {
				continue
			}
			in.style.fillOpacity *= in.style.opacity
			if err := r.runs(k, in, out, depth+1); err != nil {
				return err
			}
		case "textPath":
			*out = append(*out, run{words: "-", c: c, special: true})
		}
	}
	return nil
}

// tidy collapses white space, as it is collapsed in SVG: to one space between words, over
// all runs, and none at either end.
func tidy(runs []run) {
	space := true // nothing but white space so far
	last := -1
	for i := range runs {
		var b strings.Builder
		for _, c := range strings.NewReplacer("\n", " ", "\t", " ", "\r", " ").Replace(runs[i].words) {
			if c == ' ' && space {
				continue
			}
			space = c == ' '
			b.WriteRune(c)
		}
		if runs[i].words = b.String(); runs[i].words != "" {
			last = i
		}
	}
	if last >= 0 {
		runs[last].words = strings.TrimRight(runs[last].words, " ")
	}
}

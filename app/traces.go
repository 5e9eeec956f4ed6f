package app

import (
	"context"
	"errors"
	"fmt"
	"image"
	"math"
	"slices"
	"sync"

	"github.com/kovidgoyal/imaging"
	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/document/card"
	"sectilis/core/document/picture"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/ground/trace"
)

// TraceBy is what tells the inside of a picture.
type TraceBy string

// What tells the inside of a picture: what is not transparent, what is dark, what has one of
// some colours, or each of its main colours by itself.
const (
	ByTransparency TraceBy = "transparency"
	ByDarkness     TraceBy = "darkness"
	ByColours      TraceBy = "colours"
	ByLayers       TraceBy = "layers"
)

// TraceAsk is how a picture is traced. Lengths and areas are in its pixels.
type TraceAsk struct {
	By TraceBy `json:"by"`
	// Level is the brightness, 1 to 255, below which it is dark; 0 is where the picture parts best.
	Level int `json:"level,omitempty"`
	// Colours, #rrggbb, and how far others may be from them, in hundredths of the way from
	// black to white.
	Colours   []string `json:"colours,omitempty"`
	Tolerance float64  `json:"tolerance,omitempty"`
	// Count is how many layers there are; Under lets each reach under those above it.
	Count int  `json:"count,omitempty"`
	Under bool `json:"under,omitempty"`
	// Smooth is how far the outline may lie from the edge, Corner the turn from which on a
	// corner is kept, degrees, Speck the area below which parts and holes are left out, and
	// Outer leaves out all holes.
	Smooth float64 `json:"smooth,omitempty"`
	Corner float64 `json:"corner,omitempty"`
	Speck  float64 `json:"speck,omitempty"`
	Outer  bool    `json:"outer,omitempty"`
	// Usual sets Smooth and Speck as suits a picture four inches long: a tenth of a
	// millimetre, and a millimetre square.
	Usual bool `json:"usual,omitempty"`
}

// usual is the length that the measures of a usual trace are told for, mm.
const usual = 4 * measure.Inch

// Traced are the outlines of a picture, in its pixels, the lowest first.
type Traced struct {
	Outlines []TracedOutline `json:"outlines"`
	// Level is the brightness that was taken for the limit of what is dark.
	Level int `json:"level,omitempty"`
	// Says is why nothing was found, or all of it, and what to change; empty where something
	// was.
	Says string `json:"says,omitempty"`
}

// TracedOutline is one outline: its colour, #rrggbb, its path, and what it is made of.
type TracedOutline struct {
	Colour string    `json:"colour"`
	Path   geom.Path `json:"path"`
	Parts  int       `json:"parts"` // rings, holes too
	Nodes  int       `json:"nodes"`
	Specks int       `json:"specks"` // parts and holes that were left out
}

// check looks whether a picture can be traced so.
func (a TraceAsk) check() error {
	bad := func(v, most float64) bool { return !(v >= 0 && v <= most) }
	switch {
	case !slices.Contains([]TraceBy{ByTransparency, ByDarkness, ByColours, ByLayers}, a.By):
		return card.Refuse("by", "A picture is traced by transparency, darkness, colours or layers.")
	case a.Level < 0 || a.Level > 255:
		return card.Refuse("level", "The level of darkness is between 1 and 255.")
	case a.By == ByColours && (len(a.Colours) == 0 || len(a.Colours) > 12):
		return card.Refuse("colours", "Click 1 to 12 colours in the picture.")
	case a.By == ByLayers && (a.Count < 2 || a.Count > 12):
		return card.Refuse("count", "There are 2 to 12 layers.")
	case bad(a.Tolerance, 100):
		return card.Refuse("tolerance", "The tolerance is between 0 and 100.")
	case bad(a.Smooth, 200) || bad(a.Corner, 180) || bad(a.Speck, 1e8):
		return card.Refuse("smooth", "Smoothness, corners and specks are within the size of a picture.")
	}
	return nil
}

// traceSide is the longer side of what is traced, in pixels; larger pictures are made smaller.
const traceSide = 4000

// pixels keeps the picture that was traced last, since it is traced again at every change of
// how.
type pixels struct {
	mu    sync.Mutex
	id    string
	img   *image.NRGBA
	scale float64 // how many pixels of the picture one of these stands for
}

// of is a picture, and how many of its pixels one of that stands for.
func (p *pixels) of(ctx context.Context, u *supplies, id string) (*image.NRGBA, float64, error) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.id != id {
		img, release, err := u.decoded(ctx, id)
		if err != nil {
			return nil, 0, err
		}
		defer release()
		small := imaging.AsNRGBA(picture.Scale(img, traceSide))
		p.id, p.img, p.scale = id, small, float64(img.Bounds().Dx())/float64(small.Rect.Dx())
	}
	return p.img, p.scale, nil
}

// Trace finds the outlines of a picture. It returns ErrNotFound for a picture that is not there,
// and a *card.Refusal for what cannot be asked and for a picture that has too many parts.
func (u *supplies) Trace(ctx context.Context, id string, ask TraceAsk) (Traced, error) {
	if err := ask.check(); err != nil {
		return Traced{}, err
	}
	img, scale, err := u.pixels.of(ctx, u, id)
	if err != nil {
		return Traced{}, err
	}
	out := Traced{Outlines: []TracedOutline{}}
	colours := make([]trace.RGB, len(ask.Colours))
	for i, c := range ask.Colours {
		if colours[i], err = rgb(c); err != nil {
			return Traced{}, err
		}
	}
	var fields []*trace.Field
	names := append(picture.Palette(img, 1), "#808080") // the latter where there is no colour at all
	switch ask.By {
	case ByTransparency:
		fields = []*trace.Field{trace.ByTransparency(img)}
	case ByDarkness:
		if out.Level = ask.Level; out.Level == 0 {
			out.Level = trace.Level(img)
		}
		fields = []*trace.Field{trace.ByDarkness(img, out.Level)}
	case ByColours:
		fields, names = []*trace.Field{trace.ByColours(img, colours, ask.Tolerance)}, ask.Colours[:1]
	case ByLayers:
		colours, names = trace.Colours(img, ask.Count), nil
		for _, c := range colours {
			names = append(names, c.String())
		}
		fields = trace.Layers(img, colours, ask.Under)
	}
	if ask.Usual {
		mm := float64(max(img.Rect.Dx(), img.Rect.Dy())) * scale / usual
		ask.Smooth, ask.Speck = .1*mm, mm*mm
	}
	o := trace.Options{Smooth: ask.Smooth / scale, Corner: ask.Corner * math.Pi / 180, Speck: ask.Speck / scale / scale, Outer: ask.Outer}
	specks := 0
	for i, f := range fields {
		got, err := trace.Trace(ctx, f, o)
		var much *trace.TooMuch
		if errors.As(err, &much) {
			return Traced{}, card.Refuse("speck", "This cannot be traced so: %s. Leave out larger specks, smooth it more, or choose other colours.", much)
		}
		if err != nil {
			return Traced{}, err
		}
		specks += got.Specks
		if got.Outline.Empty() {
			continue
		}
		out.Outlines = append(out.Outlines, TracedOutline{names[i], got.Outline.Transform(geom.Scale(scale, scale)), len(got.Outline.Rings()), got.Nodes, got.Specks})
	}
	out.Says = ask.says(out, specks, img.Rect, scale)
	return out, nil
}

func rgb(c string) (trace.RGB, error) {
	k, err := colorful.Hex(c)
	if err != nil {
		return trace.RGB{}, card.Refuse("colours", "“%s” is no colour; they are written #rrggbb.", c)
	}
	r, g, b := k.RGB255()
	return trace.RGB{r, g, b}, nil
}

// says is why nothing was found, or everything, and what to change.
func (a TraceAsk) says(t Traced, specks int, r image.Rectangle, scale float64) string {
	if len(t.Outlines) == 0 {
		switch {
		case specks > 0:
			return fmt.Sprintf("All %d parts are smaller than what is left out as a speck. Leave out smaller ones only.", specks)
		case a.By == ByTransparency:
			return "All of the picture is transparent. Trace it by darkness or by colours."
		case a.By == ByDarkness:
			return "Nothing is that dark. Raise the limit."
		}
		return "Nothing has these colours. Click others, or allow more tolerance."
	}
	all := float64(r.Dx()*r.Dy()) * scale * scale
	if len(t.Outlines) > 1 || a.By == ByLayers || math.Abs(t.Outlines[0].Path.Area()) < all*.999 {
		return ""
	}
	switch a.By {
	case ByTransparency:
		return "Nothing of the picture is transparent, so its outline is its edge. Trace it by darkness or by colours."
	case ByDarkness:
		return "All of the picture is that dark, so its outline is its edge. Lower the limit."
	}
	return "All of the picture is within the tolerance, so its outline is its edge. Allow less."
}

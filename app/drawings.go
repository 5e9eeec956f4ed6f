package app

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strings"
	"sync"

	"sectilis/core/design/arrange"
	"sectilis/core/design/drawnbase"
	"sectilis/core/design/pathops"
	"sectilis/core/design/points"
	"sectilis/core/design/tracing"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/document/lettering"
	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/format"
	"sectilis/core/format/svg"
	"sectilis/core/ground/geom"
)

// Incoming is a drawing that was read from a file and waits to be laid on a face. Width and
// Height are mm.
type Incoming struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	// Units are the units to choose from, in mm, when the file names none.
	Units    map[string]float64 `json:"units,omitempty"`
	Filled   int                `json:"filled"`
	Pictures int                `json:"pictures"`
	Lines    []pathops.LineKind `json:"lines"`
	Notes    []string           `json:"notes"`
}

// waiting holds files between being read and being laid down, as long as there
// is room.
type waiting struct {
	sync.Mutex
	files []waitingFile
	bytes int
}

type waitingFile struct {
	id, name string
	raw      []byte
}

const maxWaiting = 96 << 20

func (w *waiting) put(f waitingFile) {
	w.Lock()
	defer w.Unlock()
	for i, old := range w.files {
		if old.id == f.id {
			w.files = append(w.files[:i:i], w.files[i+1:]...)
			w.bytes -= len(old.raw)
			break
		}
	}
	w.files = append(w.files, f)
	w.bytes += len(f.raw)
	for w.bytes > maxWaiting && len(w.files) > 1 {
		w.bytes -= len(w.files[0].raw)
		w.files = w.files[1:]
	}
}

func (w *waiting) get(id string) (waitingFile, bool) {
	w.Lock()
	defer w.Unlock()
	for _, f := range w.files {
		if f.id == id {
			return f, true
		}
	}
	return waitingFile{}, false
}

// readDrawing reads a file by its kind, which its first bytes or its name tell. unit is that
// of a drawing that does not say; "" is none. The error is a *card.Refusal for what cannot be
// read, and the context's where that has ended.
func readDrawing(ctx context.Context, name string, raw []byte, unit string) (exchange.Drawing, format.Format, error) {
	var d exchange.Drawing
	f, err := format.Of(name, raw)
	if err == nil {
		d, err = f.Read(ctx, raw, format.Reading{Unit: unit, Faces: facesAtHand})
	}
	if ctx.Err() != nil {
		return d, f, ctx.Err()
	}
	if err != nil {
		return d, f, &card.Refusal{Field: "file", Why: err.Error()}
	}
	if len(d.Shapes) == 0 && len(d.Pictures) == 0 {
		return d, f, &card.Refusal{Field: "file", Why: "“" + name + "” holds nothing that can be taken. " + strings.Join(d.Notes, " ")}
	}
	return d, f, nil
}

// facesAtHand sets the words of drawings in the typefaces that ship.
func facesAtHand(family string, bold, italic bool) svg.Face {
	id, ok := lettering.Named(family, bold)
	if !ok || italic {
		return nil
	}
	return func(words string, size, spacing float64) (geom.Path, float64, bool) {
		outline, advance, missing, err := lettering.Line(id, words, size, spacing)
		return outline, advance, err == nil && missing == ""
	}
}

// ReadDrawing reads a drawing and keeps it for LayDrawing. It returns a *card.Refusal for
// a file that is no drawing, and the error of the context when that ends.
func (u *supplies) ReadDrawing(ctx context.Context, name string, raw []byte) (Incoming, error) {
	d, as, err := readDrawing(ctx, name, raw, "")
	if err != nil {
		return Incoming{}, err
	}
	for _, s := range d.Shapes {
		if n := s.Path.Len(); n > card.MaxSegments {
			d.Note("An outline of %d pieces comes in with %d at the most, moved by less than a tenth of a millimetre.", n, card.MaxSegments)
		}
	}
	sum := sha256.Sum256(raw)
	in := Incoming{
		ID: hex.EncodeToString(sum[:]), Name: tidyName(name), Width: d.Width, Height: d.Height, Pictures: len(d.Pictures),
		Lines: pathops.LineKinds(d), Notes: append([]string{}, d.Notes...),
	}
	if d.NoUnit {
		in.Units = as.Units
	}
	for _, s := range d.Shapes {
		if s.Fill != "" {
			in.Filled++
		}
	}
	u.drawings.put(waitingFile{in.ID, name, raw})
	return in, nil
}

// DrawingPreview writes a drawing that waits as a picture in SVG. It returns ErrNotFound for
// one that is not at hand any more.
func (u *supplies) DrawingPreview(ctx context.Context, w io.Writer, id string) error {
	f, ok := u.drawings.get(id)
	if !ok {
		return ErrNotFound
	}
	d, _, err := readDrawing(ctx, f.name, f.raw, "")
	if err != nil {
		return err
	}
	b := d.Bounds().Grow(max(d.Bounds().W, d.Bounds().H) * .02)
	d.Transform(geom.Shift(-b.X, -b.Y))
	d.Width, d.Height = b.W, b.H
	// Lines are to be seen at any size, in the colours that they are told by.
	for i := range d.Shapes {
		d.Shapes[i].Role = ""
		d.Shapes[i].Width = max(d.Shapes[i].Width, max(b.W, b.H)/400)
	}
	return svg.Write(w, d, "")
}

// Laying says what becomes of a drawing on a face.
type Laying struct {
	Drawing string                 `json:"drawing"`
	Unit    string                 `json:"unit,omitempty"`
	Face    card.FaceID            `json:"face"`
	Middle  geom.Point             `json:"middle"`
	Lines   map[string]pathops.Use `json:"lines"`
	Filled  pathops.Use            `json:"filled"`
}

// LayDrawing makes items of a drawing on a face, as one change, and keeps them in the tray. It returns
// a *card.Refusal for a drawing that is not at hand any more, and otherwise the errors of Change.
func (u *supplies) LayDrawing(ctx context.Context, id string, base int64, l Laying) (View, error) {
	name, items, err := u.drawn(ctx, l)
	if err != nil {
		return View{}, err
	}
	a, err := u.keepArt(ctx, name, items, nil)
	if err != nil {
		return View{}, err
	}
	from(items, a.ID)
	place := card.PlaceItems{Face: l.Face, Items: items, Around: &l.Middle}
	together(&place, name)
	return u.cards.Change(ctx, id, base, []card.Command{place})
}

// KeepDrawing keeps a drawing in the tray without laying it down. It returns a *card.Refusal for a
// drawing that is not at hand any more, or of which nothing is left.
func (u *supplies) KeepDrawing(ctx context.Context, l Laying) (Art, error) {
	name, items, err := u.drawn(ctx, l)
	if err != nil {
		return Art{}, err
	}
	return u.keepArt(ctx, name, items, nil)
}

// BaseAsk is what a person says about a drawing that is to become a base. Unit is that of one that does
// not say.
type BaseAsk struct {
	Unit string `json:"unit,omitempty"`
	drawnbase.Ask
}

// ReadBase reads a drawing that waits as a base, which nothing is made of yet. It returns a *card.Refusal
// for a drawing that is not at hand any more or cannot become a base.
func (u *supplies) ReadBase(ctx context.Context, id string, ask BaseAsk) (drawnbase.Found, error) {
	f, ok := u.drawings.get(id)
	if !ok {
		return drawnbase.Found{}, &card.Refusal{Field: "drawing", Why: gone}
	}
	d, _, err := readDrawing(ctx, f.name, f.raw, ask.Unit)
	if err != nil {
		return drawnbase.Found{}, err
	}
	ask.Name = tidyName(f.name)
	return drawnbase.Read(d, ask.Ask)
}

// gone is said of a drawing that does not wait any more.
const gone = "The drawing is not at hand any more. Choose its file once more."

// drawn are the items that a drawing becomes, and its name. It returns a *card.Refusal for a drawing
// that is not at hand any more, or of which nothing is left.
func (u *supplies) drawn(ctx context.Context, l Laying) (string, []card.Item, error) {
	f, ok := u.drawings.get(l.Drawing)
	if !ok {
		return "", nil, &card.Refusal{Field: "drawing", Why: gone}
	}
	name := tidyName(f.name)
	d, _, err := readDrawing(ctx, f.name, f.raw, l.Unit)
	if err != nil {
		return name, nil, err
	}
	pictures := d.Pictures
	box := d.Bounds()
	var items []card.Item
	if len(d.Shapes) > 0 {
		// The middle is that of everything, pictures too.
		only := exchange.Drawing{Shapes: d.Shapes}
		off := only.Bounds().Centre().Sub(box.Centre())
		items, err = pathops.Items(only, name, l.Lines, l.Filled, l.Middle.Add(off))
		if err != nil && len(pictures) == 0 {
			return name, nil, err
		}
	}
	var photos []card.Item
	for _, p := range pictures {
		p.At = p.At.Then(geom.Shift(l.Middle.X-box.Centre().X, l.Middle.Y-box.Centre().Y))
		it, err := u.photo(ctx, p)
		if err != nil {
			return name, nil, err
		}
		photos = append(photos, it)
	}
	return name, append(photos, items...), nil
}

// photo brings in a picture embedded in a drawing.
func (u *supplies) photo(ctx context.Context, p exchange.Picture) (card.Item, error) {
	name := p.Name
	if name == "" {
		name = "Picture"
	}
	kept, err := u.BringIn(ctx, name+".", p.Raw)
	var broken *picture.Error
	if errors.As(err, &broken) {
		return card.Item{}, &card.Refusal{Field: "file", Why: "A picture in the drawing cannot be taken: " + broken.Error()}
	}
	if err != nil {
		return card.Item{}, fmt.Errorf("bring in picture: %w", err)
	}
	c := p.At.Apply(geom.Pt(.5, .5))
	return card.Item{
		Name: kept.Name, Kind: card.Photo, Made: card.Made{As: card.Printed},
		Place: card.Place{X: c.X, Y: c.Y, Turn: math.Atan2(p.At.B, p.At.A) * 180 / math.Pi},
		Photo: &card.Print{Picture: kept.ID, PixelWidth: kept.Width, PixelHeight: kept.Height,
			Width: math.Hypot(p.At.A, p.At.B), Height: math.Hypot(p.At.C, p.At.D)},
	}, nil
}

// WriteOutlines writes a face, or some of its items, in a format by its id. The error is
// ErrNotFound where there is no such card, face or format.
func (cs *cards) WriteOutlines(ctx context.Context, w io.Writer, id string, face card.FaceID, items []string, kind string) error {
	o, err := cs.load(ctx, id)
	if err != nil {
		return err
	}
	s, title := o.scene, o.rev.Card.Title
	o.Unlock()
	f := s.Face(face)
	if f == nil {
		return ErrNotFound
	}
	d := f.Drawing(items)
	if len(d.Shapes) == 0 {
		return &card.Refusal{Field: "items", Why: "None of these has an outline to hand on; photos that are printed have none."}
	}
	as, ok := format.ByID(kind)
	if !ok || as.Write == nil {
		return ErrNotFound
	}
	return as.Write(w, d, title+", "+f.Name)
}

// Fits are the sizes that an item can be given where it lies. It returns ErrNotFound for a
// card or an item that is not there.
func (cs *cards) Fits(ctx context.Context, id, item string) ([]arrange.Fit, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return nil, err
	}
	s := o.scene
	o.Unlock()
	for i := range s.Faces {
		if slices.ContainsFunc(s.Faces[i].Items, func(it scene.Item) bool { return it.ID == item }) {
			return append([]arrange.Fit{}, arrange.Fits(&s.Faces[i], item)...), nil
		}
	}
	return nil, ErrNotFound
}

// Points are the points of an item's outline. It returns ErrNotFound for a card or an item that
// is not there, and a *card.Refusal for one whose outline follows from something else.
func (cs *cards) Points(ctx context.Context, id, item string) (points.Points, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return points.Points{}, err
	}
	c := o.rev.Card
	o.Unlock()
	f, _ := c.Find(item)
	if f == nil {
		return points.Points{}, ErrNotFound
	}
	return points.Of(f.Item(item))
}

// PlainForms are the plain forms that could stand for the outline of an item. It returns
// ErrNotFound for a card or an item that is not there, and a *card.Refusal for one whose outline
// is no drawn one.
func (cs *cards) PlainForms(ctx context.Context, id, item string) ([]tracing.PlainForm, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return nil, err
	}
	c := o.rev.Card
	o.Unlock()
	f, _ := c.Find(item)
	if f == nil {
		return nil, ErrNotFound
	}
	return tracing.Forms(f.Item(item))
}

// Gap measures the room about a place on a face. It returns a *card.Refusal
// when there is none.
func (cs *cards) Gap(ctx context.Context, id string, face card.FaceID, at geom.Point) (arrange.Gap, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return arrange.Gap{}, err
	}
	s := o.scene
	o.Unlock()
	f := s.Face(face)
	if f == nil {
		return arrange.Gap{}, ErrNotFound
	}
	gap, ok := arrange.GapAt(f, at)
	if !ok {
		return arrange.Gap{}, &card.Refusal{Field: "at", Why: "There is no gap here. Point at an opening on the face."}
	}
	return gap, nil
}

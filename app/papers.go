package app

import (
	"bytes"
	"cmp"
	"context"
	"encoding/base64"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/document/pattern"
	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/format"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

const (
	keptPapers = "papers"
	mostPapers = 500
	leastTile  = 2.0 // mm
	mostTile   = 1000.0
)

// IncomingPaper is a picture that a paper is to be made of, and what is known of it. Width and Height
// are mm.
type IncomingPaper struct {
	Picture string  `json:"picture"`
	Name    string  `json:"name"`
	Width   float64 `json:"width"`
	Height  float64 `json:"height"`
	// Said says that the file tells its size; else it is taken to have 300 pixels to the inch.
	Said bool `json:"said"`
	// Across and Down say that it does not go on there where it repeats.
	Across bool `json:"across"`
	Down   bool `json:"down"`
}

const (
	usualPPI = 300
	tilePPI  = 600  // that drawings are painted at
	tileSide = 4000 // at most, pixels
)

// ReadPaper takes a picture, or a drawing that is painted as one, that a paper is to be made of. It
// returns a *picture.Error or a *card.Refusal for a file that is neither.
func (u *supplies) ReadPaper(ctx context.Context, name string, raw []byte) (IncomingPaper, error) {
	in := IncomingPaper{Name: tidyName(name)}
	if _, err := picture.Inspect(name, raw); err != nil {
		if _, no := format.Of(name, raw); no != nil {
			return in, err // the sentence about pictures
		}
		if raw, in.Width, in.Height, err = u.painted(ctx, name, raw); err != nil {
			return in, err
		}
		in.Said = true
		name = in.Name + ".png"
	}
	before, err := u.store.Pictures(ctx)
	if err != nil {
		return in, err
	}
	p, err := u.BringIn(ctx, name, raw)
	if err != nil {
		return in, err
	}
	in.Picture = p.ID
	// It waits among the papers, not among the photos.
	if !slices.ContainsFunc(before, func(o Picture) bool { return o.ID == p.ID }) {
		if err := u.store.HidePicture(ctx, p.ID, u.now()); err != nil {
			return in, err
		}
	}
	if in.Width == 0 {
		ppi, ok := picture.Resolution(raw)
		if in.Said = ok; !ok {
			ppi = usualPPI
		}
		in.Width, in.Height = float64(p.Width)/ppi*measure.Inch, float64(p.Height)/ppi*measure.Inch
	}
	img, release, err := u.decoded(ctx, p.ID)
	if err != nil {
		return in, err
	}
	defer release()
	in.Across, in.Down = pattern.Seams(img)
	return in, nil
}

// painted is a drawing as a PNG of its page, and the size of that, mm. It returns a *card.Refusal for
// what cannot be read, or is no tile.
func (u *supplies) painted(ctx context.Context, name string, raw []byte) ([]byte, float64, float64, error) {
	d, _, err := readDrawing(ctx, name, raw, "")
	if err != nil {
		return nil, 0, 0, err
	}
	w, h := d.Width, d.Height
	if err := tileSize(w, h); err != nil {
		return nil, 0, 0, err
	}
	page := geom.RectPath(geom.Rect{W: w, H: h})
	var inks []scene.Ink
	bytesTaken := int64(0)
	for i, p := range d.Pictures {
		info, err := picture.Inspect("picture in "+name, p.Raw)
		if err != nil {
			return nil, 0, 0, err
		}
		if bytesTaken += info.Decoded; bytesTaken > picture.MaxDecoded {
			return nil, 0, 0, card.Refuse("picture", "The pictures in this drawing take more than %d MB together when they are opened. Make them smaller in it.", picture.MaxDecoded>>20)
		}
		inks = append(inks, scene.Ink{Region: geom.RectPath(geom.Rect{W: 1, H: 1}).Transform(p.At), Clips: []geom.Path{page}, Picture: strconv.Itoa(i), PictureAt: p.At})
	}
	shapes, err := shapesWithin(d, name, page)
	if err != nil {
		return nil, 0, 0, err
	}
	decoded := func(i string) (image.Image, error) {
		n, err := strconv.Atoi(i)
		if err = cmp.Or(err, ctx.Err()); err != nil {
			return nil, err
		}
		img, _, release, err := u.decode(ctx, "", d.Pictures[n].Raw)
		if err == nil {
			release() // all of them together take no more than one may
		}
		return img, err
	}
	canvas := raster.New(w, h, min(tilePPI/measure.Inch, tileSide/math.Max(w, h)), color.Transparent, decoded)
	// What lies past the edges of the page is in the next tile.
	if err := canvas.Paint(append(inks, shapes...)); err != nil {
		return nil, 0, 0, err
	}
	var b bytes.Buffer
	if err := png.Encode(&b, canvas.Image()); err != nil {
		return nil, 0, 0, fmt.Errorf("paint a tile: %w", err)
	}
	return b.Bytes(), w, h, nil
}

// shapesWithin are the inks of a drawing's shapes within its page, in its coordinates.
func shapesWithin(d exchange.Drawing, name string, page geom.Path) ([]scene.Ink, error) {
	if len(d.Shapes) == 0 {
		return nil, nil
	}
	uses := map[string]pathops.Use{}
	for _, k := range pathops.LineKinds(d) {
		uses[k.Key] = pathops.AsPrinted
	}
	d.Pictures = nil
	items, err := pathops.Items(d, name, uses, pathops.AsPrinted, d.Bounds().Centre())
	if err != nil {
		return nil, err
	}
	c, err := fold.New("Tile", artBase)
	if err == nil {
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: items, Around: &geom.Point{}})
	}
	if err != nil {
		return nil, err
	}
	s, err := scene.Of(c)
	if err != nil {
		return nil, err
	}
	return s.Face(card.Front).BaseInksWithin(page), nil
}

func tileSize(w, h float64) error {
	if !(min(w, h) >= leastTile && max(w, h) <= mostTile) {
		return card.Refuse("width", "A pattern is between 2 mm (5/64 in) and 1000 mm (39 in) wide and high.")
	}
	return nil
}

// NewPaper is a paper as it is made, or changed: its name, its picture, the size of that, mm, and
// whether every other tile is mirrored.
type NewPaper struct {
	Name     string  `json:"name"`
	Picture  string  `json:"picture"`
	Width    float64 `json:"width"`
	Height   float64 `json:"height"`
	Mirrored bool    `json:"mirrored,omitempty"`
}

// sound is the paper as it is kept, under an id. It returns a *card.Refusal for what is none.
func (u *supplies) sound(ctx context.Context, n NewPaper, id string) (pattern.Paper, error) {
	n.Name = strings.TrimSpace(n.Name)
	if n.Name == "" || utf8.RuneCountInString(n.Name) > 80 || strings.ContainsFunc(n.Name, func(r rune) bool { return r < ' ' }) {
		return pattern.Paper{}, card.Refuse("name", "A paper has a name of at most 80 letters.")
	}
	if err := tileSize(n.Width, n.Height); err != nil {
		return pattern.Paper{}, err
	}
	of, _, err := u.store.Picture(ctx, n.Picture)
	if errors.Is(err, ErrNotFound) {
		return pattern.Paper{}, card.Refuse("picture", "The picture of the paper is not there. Bring it in first.")
	}
	if err != nil {
		return pattern.Paper{}, err
	}
	_, raw, err := u.PicturePreview(ctx, n.Picture, Sides[0])
	if err != nil {
		return pattern.Paper{}, err
	}
	img, _, err := picture.Decode("", raw)
	if err != nil {
		return pattern.Paper{}, fmt.Errorf("look at paper: %w", err)
	}
	return pattern.Paper{ID: id, Name: n.Name, Picture: n.Picture, PixelWidth: of.Width, Width: card.Tidy(n.Width), Height: card.Tidy(n.Height), Mirrored: n.Mirrored,
		Ground: mean(img), Own: true}, nil
}

// mean is the mean colour of a picture, "" of one that is seen through.
func mean(img image.Image) string {
	b := img.Bounds()
	var sum [3]uint64
	for y := b.Min.Y; y < b.Max.Y; y++ {
		for x := b.Min.X; x < b.Max.X; x++ {
			r, g, bl, a := img.At(x, y).RGBA()
			if a < 0xf000 {
				return ""
			}
			sum[0], sum[1], sum[2] = sum[0]+uint64(r), sum[1]+uint64(g), sum[2]+uint64(bl)
		}
	}
	n := uint64(b.Dx()*b.Dy()) << 8
	return fmt.Sprintf("#%02x%02x%02x", sum[0]/n, sum[1]/n, sum[2]/n)
}

// AddPaper makes a patterned paper of a picture. It returns a *card.Refusal for what is none.
func (u *supplies) AddPaper(ctx context.Context, n NewPaper) (pattern.Paper, error) {
	p, err := u.sound(ctx, n, "own-"+newID())
	if err != nil {
		return p, err
	}
	return p, u.changePapers(ctx, func(own []pattern.Paper) ([]pattern.Paper, error) {
		if len(own) >= mostPapers {
			return nil, card.Refuse("name", "Up to %d papers of one's own are kept.", mostPapers)
		}
		return append([]pattern.Paper{p}, own...), nil
	})
}

// ChangePaper changes a paper of a person's own, for all cards; one without a picture keeps its own. It
// returns ErrNotFound for one that is not there, and a *card.Refusal for what is none.
func (u *supplies) ChangePaper(ctx context.Context, id string, n NewPaper) error {
	was, ok := pattern.ByID(id)
	if !ok || !was.Own {
		return ErrNotFound
	}
	if n.Picture == "" {
		n.Picture = was.Picture
	}
	p, err := u.sound(ctx, n, id)
	if err != nil {
		return err
	}
	return u.replacePaper(ctx, p)
}

// RemovePaper takes a paper of a person's own out of the tray; cards that are printed with it keep it.
// It returns ErrNotFound for one that is not there.
func (u *supplies) RemovePaper(ctx context.Context, id string) error {
	p, ok := pattern.ByID(id)
	if !ok || !p.Own {
		return ErrNotFound
	}
	p.Hidden = true
	return u.replacePaper(ctx, p)
}

func (u *supplies) replacePaper(ctx context.Context, p pattern.Paper) error {
	return u.changePapers(ctx, func(own []pattern.Paper) ([]pattern.Paper, error) {
		i := slices.IndexFunc(own, func(o pattern.Paper) bool { return o.ID == p.ID })
		if i < 0 {
			return nil, ErrNotFound
		}
		own[i] = p
		return own, nil
	})
}

// changePapers keeps what a function makes of the own papers, and tells all that show them.
func (u *supplies) changePapers(ctx context.Context, do func([]pattern.Paper) ([]pattern.Paper, error)) error {
	err := u.cards.papers.change(ctx, do)
	if err == nil {
		u.cards.stocksAreOthers()
	}
	return err
}

// PaperPicture is what repeats of a paper as a picture, SVG. It returns ErrNotFound for a paper that
// there is none of.
func (u *supplies) PaperPicture(ctx context.Context, id string) (string, error) {
	if err := u.cards.papers.ready(ctx); err != nil {
		return "", err
	}
	p, ok := pattern.ByID(id)
	if !ok {
		return "", ErrNotFound
	}
	if p.Picture == "" {
		return p.SVG(""), nil
	}
	kind, raw, err := u.PicturePreview(ctx, p.Picture, Sides[0])
	if err != nil {
		return "", err
	}
	return p.SVG("data:" + kind + ";base64," + base64.StdEncoding.EncodeToString(raw)), nil
}

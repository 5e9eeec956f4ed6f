// Package sketch makes card sketches of cards and cards of sketches: ready
// arrangements in which photos and words are slots to be filled.
package sketch

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"sectilis/core/design/opening"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Commands are the commands of this package, for card.Decode.
var Commands = map[string]func() card.Command{
	"makeSlots": func() card.Command { return &MakeSlots{} },
	"fillWords": func() card.Command { return &FillWords{} },
}

// MakeSlots turns photos and words into slots that wait for others in their
// place, made and set in the same way.
type MakeSlots struct {
	IDs []string `json:"ids"`
}

// Label implements card.Command.
func (MakeSlots) Label() string { return "Make a slot" }

// Apply implements card.Command.
func (k MakeSlots) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		for _, id := range k.IDs {
			if err := slot(f, f.Item(id)); err != nil {
				return err
			}
		}
		return nil
	})
}

func slot(f *card.Face, it *card.Item) error {
	waits := card.Waits{Takes: card.TakesPhoto, Made: it.Made}
	switch {
	case it.Photo != nil:
		form := it.Photo.Form()
		it.Form = &form
	case it.Words != nil:
		s, err := scene.Resolve(f, it)
		if err != nil {
			return err
		}
		words := *it.Words
		words.Fields = nil // what waits says nothing for anybody
		waits.Takes, waits.Words, waits.Fill = card.TakesWords, &words, it.Fill
		mid := s.At.Apply(s.Box.Centre())
		it.Form = &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: card.Tidy(s.Box.W), Height: card.Tidy(s.Box.H)}
		it.Place.X, it.Place.Y = card.Tidy(mid.X), card.Tidy(mid.Y)
	case it.Slot != nil:
		return nil
	default:
		return card.Refuse("ids", "“%s” is neither a photo nor words, and cannot wait for one.", it.Name)
	}
	for _, other := range f.Items {
		if other.On == it.ID {
			return card.Refuse("ids", "“%s” carries “%s”, which a slot cannot. Put that on something else first.", it.Name, other.Name)
		}
	}
	it.Kind, it.Photo, it.Words, it.Look = card.Slot, nil, nil, nil
	it.Fill, it.Made, it.Slot = card.Fill{}, card.Made{As: card.Printed}, &waits
	return nil
}

// FillWords puts words into a slot, as large as fits.
type FillWords struct {
	ID   string `json:"id"`
	Text string `json:"text"`
}

// Label implements card.Command.
func (FillWords) Label() string { return "Put words in" }

// Apply implements card.Command.
func (k FillWords) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		it := f.Item(k.ID)
		if it.Slot == nil || it.Slot.Words == nil {
			return card.Refuse("id", "“%s” waits for no words.", it.Name)
		}
		words := it.Slot.Words.WithText(strings.TrimSpace(k.Text))
		words.Size = 10
		set, err := lettering.Set(words)
		if err != nil {
			return card.Refuse("text", "These words cannot be set: %v.", err)
		}
		b := set.Outline.Bounds()
		if b.Empty() {
			return card.Refuse("text", "Lettering needs at least one letter.")
		}
		k := min(it.Form.Width/b.W, it.Form.Height/b.H)
		words.Size = card.Tidy(min(max(10*k, .5), 400))
		k = words.Size / 10
		mid := b.Centre().Mul(k)
		at := it.Place.Map().Apply(geom.Pt(-mid.X, -mid.Y))
		it.Place.X, it.Place.Y = card.Tidy(at.X), card.Tidy(at.Y)
		it.Kind, it.Words, it.Fill, it.Made = card.Lettering, &words, it.Slot.Fill, it.Slot.Made
		it.Form, it.Slot = nil, nil
		return nil
	})
}

// Of makes a sketch of a card: of one face or, with none named, of all of it. The items named
// become slots. It returns a *card.Refusal for a face or items that are not there.
func Of(c card.Card, face card.FaceID, slots []string) (card.Card, error) {
	for i := range c.Faces {
		var ids []string
		for _, it := range c.Faces[i].Items {
			if slices.Contains(slots, it.ID) {
				ids = append(ids, it.ID)
			}
		}
		if len(ids) > 0 && (face == "" || c.Faces[i].ID == face) {
			next, err := (MakeSlots{IDs: ids}).Apply(c)
			if err != nil {
				return c, err
			}
			c = next
		}
	}
	if face == "" {
		return c, nil
	}
	return card.Change(c, func(c *card.Card) error {
		if f := c.Face(face); f == nil || len(f.Items) == 0 {
			return card.Refuse("face", "There is nothing on this face to keep.")
		}
		for i := range c.Faces {
			if c.Faces[i].ID != face {
				c.Faces[i].Items, c.Faces[i].Groups = []card.Item{}, nil
			}
		}
		return nil
	})
}

// Picture is a photo for a slot, with the middle of what there is to see in it,
// in shares of its width and height.
type Picture struct {
	ID               string
	Name             string
	Width, Height    int
	DetailX, DetailY float64
}

// Fill puts photos into the slots of a card that wait for them, the largest slot first, each
// time the photo whose proportions suit it best. Slots or photos that are left over stay. It
// returns a *card.Refusal for a picture without a size.
func Fill(c card.Card, pictures []Picture) (card.Card, error) {
	return card.Change(c, func(c *card.Card) error {
		var open []*card.Item
		for i := range c.Faces {
			for j := range c.Faces[i].Items {
				if it := &c.Faces[i].Items[j]; it.Slot != nil && it.Slot.Takes == card.TakesPhoto {
					open = append(open, it)
				}
			}
		}
		slices.SortStableFunc(open, func(a, b *card.Item) int {
			return cmp.Compare(b.Form.Width*b.Form.Height, a.Form.Width*a.Form.Height)
		})
		left := slices.Clone(pictures)
		for _, it := range open {
			if len(left) == 0 {
				break
			}
			best := 0
			misfit := func(p Picture) float64 {
				return math.Abs(math.Log(float64(p.Width) / float64(p.Height) * it.Form.Height / it.Form.Width))
			}
			for i := range left {
				if misfit(left[i]) < misfit(left[best])-1e-9 {
					best = i
				}
			}
			p := left[best]
			left = slices.Delete(left, best, best+1)
			k := opening.FillOpening{ID: it.ID, Picture: p.ID, PixelWidth: p.Width, PixelHeight: p.Height, Name: p.Name, AtX: &p.DetailX, AtY: &p.DetailY}
			if err := opening.Fill(it, k); err != nil {
				return err
			}
		}
		return nil
	})
}

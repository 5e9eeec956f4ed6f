package card

import "sectilis/core/ground/geom"

// SetWords changes the content of lettering, and its anchor where another
// alignment moves it.
type SetWords struct {
	ID     string      `json:"id"`
	Words  Words       `json:"words"`
	Anchor *geom.Point `json:"anchor,omitempty"`
}

// Label implements Command.
func (SetWords) Label() string { return "Change words" }

// Apply implements Command.
func (k SetWords) Apply(c Card) (Card, error) {
	return onWords(c, k.ID, func(it *Item) error {
		was := it.Words
		it.Words = k.Words.clone()
		it.Words.Fields = was.WithText(it.Words.Text).Fields // MakeField makes them
		it.Words.Size = Tidy(k.Words.Size)
		if k.Anchor != nil {
			it.Place.X, it.Place.Y = Tidy(k.Anchor.X), Tidy(k.Anchor.Y)
		}
		return nil
	})
}

// onWords changes lettering; the words are copied before.
func onWords(c Card, id string, change func(it *Item) error) (Card, error) {
	return OnFace(c, []string{id}, func(_ *Card, f *Face) error {
		it := f.Item(id)
		if it.Words == nil {
			return Refuse("words", "“%s” is no lettering.", it.Name)
		}
		was := it.Words.Text
		it.Words = it.Words.clone()
		if err := change(it); err != nil {
			return err
		}
		it.followText(was)
		return nil
	})
}

// SetText changes what words say; their styles stay with the letters that stay.
type SetText struct {
	ID   string `json:"id"`
	Text string `json:"text"`
}

// Label implements Command.
func (SetText) Label() string { return "Change words" }

// Apply implements Command.
func (k SetText) Apply(c Card) (Card, error) {
	return onWords(c, k.ID, func(it *Item) error {
		w := it.Words.WithText(k.Text)
		it.Words = &w
		return nil
	})
}

// StyleLetters changes the style of the characters of words from From up to, without, To; nil
// leaves what is so.
type StyleLetters struct {
	ID        string     `json:"id"`
	From      int        `json:"from"`
	To        int        `json:"to"`
	Font      *string    `json:"font,omitempty"` // "" is that of the words; so it is with Colour
	Scale     *float64   `json:"scale,omitempty"`
	Spacing   *float64   `json:"spacing,omitempty"` // in ems
	Kern      *float64   `json:"kern,omitempty"`    // after the last character, in ems
	Colour    *string    `json:"colour,omitempty"`
	Stand     *Stand     `json:"stand,omitempty"`
	Alternate *int       `json:"alternate,omitempty"`
	Features  *[]Feature `json:"features,omitempty"`
}

// Label implements Command.
func (StyleLetters) Label() string { return "Change letters" }

// Apply implements Command.
func (k StyleLetters) Apply(c Card) (Card, error) {
	return onWords(c, k.ID, func(it *Item) error {
		n := len([]rune(it.Words.Text))
		if k.From < 0 || k.To > n || k.From >= k.To {
			return Refuse("from", "There are %d letters; choose some of them.", n)
		}
		it.Words.restyle(k.From, k.To, func(s *Style) {
			assign(&s.Font, k.Font)
			assign(&s.Scale, k.Scale)
			assign(&s.Spacing, k.Spacing)
			assign(&s.Colour, k.Colour)
			assign(&s.Stand, k.Stand)
			assign(&s.Alternate, k.Alternate)
			assign(&s.Features, k.Features)
			if s.Scale == 1 {
				s.Scale = 0
			}
			if len(s.Features) == 0 {
				s.Features = nil
			}
		})
		if k.Kern != nil {
			it.Words.restyle(k.To-1, k.To, func(s *Style) { s.Kern = *k.Kern })
		}
		return nil
	})
}

func assign[T any](to *T, v *T) {
	if v != nil {
		*to = *v
	}
}

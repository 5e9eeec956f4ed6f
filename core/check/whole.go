package check

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// Supply is what is known of a supply that a card is made with. Personal is for personal
// use only; Line is the line that is due, "" for none.
type Supply struct {
	Kind, ID, Name string
	Personal       bool
	Line           string
	// Gone says that it is not there any more.
	Gone bool
}

// Whole is what is known of the card as a thing that is sent and sold.
type Whole struct {
	Supplies []Supply
	// Posts are the classes of post that it may be sent by.
	Posts []card.Post
}

// Grams is about how much a card weighs, without foam and glue: its base, its insert and all pieces.
// A stock whose weight is not known weighs as paper of its thickness does.
func Grams(c card.Card, s *scene.Scene) float64 {
	// Paper weighs about 0.8 g/cm³.
	weight := func(id string) float64 {
		st, _ := card.StockByID(id)
		if st.Weight > 0 {
			return float64(st.Weight) / 1e6
		}
		return st.Thickness * .8e-3
	}
	sheet := s.Net.Outline().Area()
	sum := sheet * weight(c.Base.Stock)
	if c.Leaf != nil {
		sum += sheet * weight(c.Leaf.Stock)
	}
	for i := range s.Faces {
		f := &s.Faces[i]
		for j := range f.Items {
			if it := &f.Items[j]; it.Piece {
				if _, doc := c.Find(it.ID); doc != nil {
					sum += max(0, it.Outline.Area()) * weight(doc.Made.Stock)
				}
			}
		}
	}
	return sum
}

// thick finds a card that an envelope, or every class of post, is too small for as it is.
func thick(in *Input) []Finding {
	if in.Whole == nil || in.Card.Base.Kind == card.Envelope {
		return nil
	}
	closed := in.study().Net.Closed
	if s := fold.SendingOf(closed, in.Scene.Thickness); in.Scene.Thickness > s.Takes {
		return []Finding{{Weight: Caution, Why: fmt.Sprintf("Closed, it is %s thick. An envelope of paper bulges from about %s: lower foam makes it thinner, a box takes it as it is.",
			measure.FormatUnit(in.Scene.Thickness, measure.MM), measure.FormatUnit(s.Takes, measure.MM))}}
	}
	if len(in.Whole.Posts) == 0 {
		return nil
	}
	letter := Letter(closed, in.Scene.Thickness, Grams(in.Card, in.Scene))
	if card.PostFor(in.Whole.Posts, letter) != nil {
		return nil
	}
	return []Finding{{Weight: Note, Why: fmt.Sprintf("In its envelope it is %s × %s, %s thick, and weighs about %.0f g: no class of post on your list takes it.",
		measure.FormatUnit(letter.Width, measure.MM), measure.FormatUnit(letter.Height, measure.MM), measure.FormatUnit(letter.Thick, measure.MM), letter.Weight)}}
}

// envelopeWeight and envelopeThick are what the paper of an envelope adds, g for each mm² and mm.
const (
	envelopeWeight = 2.4 * 100 / 1e6
	envelopeThick  = .3
)

// Letter is a closed card in its envelope.
func Letter(closed geom.Rect, thick, grams float64) card.Post {
	w, h := fold.SendingOf(closed, thick).Landscape()
	return card.Post{Width: w, Height: h, Thick: thick + envelopeThick, Weight: grams + w*h*envelopeWeight}
}

// rights tells of supplies that are for personal use only.
func rights(in *Input) (out []Finding) {
	if in.Whole == nil {
		return nil
	}
	for _, s := range in.Whole.Supplies {
		if face, item := in.with(s.Kind, s.ID); s.Personal && item != "" {
			out = append(out, Finding{Weight: Note, Face: face, Item: item, Why: "“" + s.Name + "” is for personal use only: a card with it must not be sold."})
		}
	}
	return out
}

// with is the first item that is made with a supply, and its face.
func (in *Input) with(kind, id string) (card.FaceID, string) {
	for _, f := range in.Card.Faces {
		for i := range f.Items {
			if madeWith(&f.Items[i], kind, id) {
				return f.ID, f.Items[i].ID
			}
		}
	}
	return "", ""
}

// madeWith reports whether an item is made with a supply.
func madeWith(it *card.Item, kind, id string) bool {
	one := card.Card{Faces: []card.Face{{Items: []card.Item{*it}}}}
	u := one.Uses()
	of := map[string][]string{"photo": u.Pictures, "paper": u.Papers, "lettering": u.Fonts, "edging": u.Motifs, "art": u.Art}
	return slices.Contains(of[kind], id)
}

// creditsDue finds lines that are due and stand nowhere on the card.
func creditsDue(in *Input) []Finding {
	if in.Whole == nil {
		return nil
	}
	var said strings.Builder
	for _, f := range in.Card.Faces {
		for _, it := range f.Items {
			if it.Words != nil && !it.Hidden {
				said.WriteString(plainWords(it.Words.Text) + "\n")
			}
		}
	}
	var due []string
	for _, s := range in.Whole.Supplies {
		if _, item := in.with(s.Kind, s.ID); item != "" && s.Line != "" && !slices.Contains(due, s.Line) && !strings.Contains(said.String(), plainWords(s.Line)) {
			due = append(due, s.Line)
		}
	}
	if len(due) == 0 {
		return nil
	}
	f := Finding{Weight: Caution, Face: card.Back, Why: "“" + strings.Join(due, "”, “") + "” is due and stands nowhere on the card."}
	if back := in.Scene.Face(card.Back); back != nil {
		f.Mends = []Mend{{Says: "Put it on " + back.Name, Do: []Step{{"placeItems", CreditLine(back, due)}}}}
	}
	return []Finding{f}
}

// plainWords are words in small letters with single spaces.
func plainWords(s string) string { return strings.ToLower(strings.Join(strings.Fields(s), " ")) }

// CreditLine places lines small at the foot of a face.
func CreditLine(f *scene.Face, lines []string) card.PlaceItems {
	const size = 6.5 * point
	wide := max(20, f.Safe.W*.9)
	// Letters are about half as wide as they are high; what is longer than a line goes on in the next.
	rows := 0.0
	for _, l := range lines {
		rows += math.Ceil(max(1, float64(utf8.RuneCountInString(l))*.62*size/wide))
	}
	return card.PlaceItems{Face: f.ID, Items: []card.Item{{
		Name: "Credits", Kind: card.Lettering, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#41505f"},
		Place: card.Place{X: card.Tidy(f.Safe.Centre().X), Y: card.Tidy(f.Safe.Bottom() - size*(.65*rows+.3))},
		Words: &card.Words{Text: strings.Join(lines, "\n"), Font: lettering.Plain(), Size: size, Leading: 1.3, Align: card.AlignCentre, Box: &card.TextBox{Width: card.Tidy(wide), Height: card.Tidy(size * 1.5 * (rows + 1))}},
	}}}
}

// fontRights tells of typefaces whose licence keeps them out of files.
func fontRights(in *Input) (out []Finding) {
	for _, id := range in.Card.Uses().Fonts {
		font, ok := lettering.ByID(id)
		if !ok || font.Embedding != lettering.Restricted {
			continue
		}
		f := Finding{Weight: Note, Why: "The licence of “" + font.Name + "” does not let it be put into files: its words go out as outlines, and it does not go along when the card is handed on."}
		f.Face, f.Item = in.with("lettering", id)
		out = append(out, f)
	}
	return out
}

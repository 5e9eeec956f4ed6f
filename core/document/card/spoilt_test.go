package card_test

import (
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// spoil is a change to a document that no command makes.
type spoil struct {
	field, why string
	do         func(c *card.Card)
}

// item is an item of the front by its name.
func item(c *card.Card, name string) *card.Item {
	f := c.Face(card.Front)
	for i := range f.Items {
		if f.Items[i].Name == name {
			return &f.Items[i]
		}
	}
	panic("no item " + name)
}

// A document comes from a disk that others can write to, and from the network. Whatever is
// wrong with it is refused as a whole: at its field, in a sentence.
func TestASpoiltDocumentIsRefusedAtItsField(t *testing.T) {
	on := func(name string, change func(it *card.Item)) func(*card.Card) {
		return func(c *card.Card) { change(item(c, name)) }
	}
	look := func(l card.Look) func(*card.Card) {
		return on("Label", func(it *card.Item) { it.Look = &l })
	}
	fill := func(f card.Fill) func(*card.Card) { return on("Label", func(it *card.Item) { it.Fill = f }) }
	gradient := func(g card.Gradient) func(*card.Card) { return fill(card.Fill{Gradient: &g}) }
	words := func(change func(w *card.Words)) func(*card.Card) {
		return on("Sentiment", func(it *card.Item) { change(it.Words) })
	}
	photo := func(change func(p *card.Print)) func(*card.Card) {
		return on("Photo", func(it *card.Item) { change(it.Photo) })
	}
	base := func(change func(b *card.Base)) func(*card.Card) {
		return func(c *card.Card) { change(&c.Base) }
	}
	sheets := func(change func(s *card.SheetSetup)) func(*card.Card) {
		return func(c *card.Card) {
			s := card.UsualSheets()
			change(&s)
			c.Sheets = &s
		}
	}
	laid := func(l card.Laid) func(*card.Card) { return func(c *card.Card) { c.Laid = []card.Laid{l} } }
	slot := func(w card.Waits) func(*card.Card) {
		return on("Label", func(it *card.Item) {
			it.Kind, it.Made, it.Fill, it.Slot = card.Slot, card.Made{As: card.Printed}, card.Fill{}, &w
		})
	}
	nan := math.NaN()
	fromLines := func(f func(*card.DrawnBase)) func(*card.Card) {
		d := card.DrawnBase{Name: "Net", Width: 100, Height: 150, Outline: card.NewDrawn(drawn(t, "M0 0H200V150H0Z")),
			Lines:  []card.DrawnLine{{Role: card.RoleMountain, Path: card.NewDrawn(drawn(t, "M100 0V150"))}},
			Leaves: []card.DrawnLeaf{{Box: geom.Rect{X: 100, W: 100, H: 150}, Outside: "Front", Inside: "Inside"}}}
		f(&d)
		return base(func(b *card.Base) { b.Kind, b.Drawn = card.FromLines, &d })
	}
	stops := []card.Stop{{At: 0, Colour: "#ffffff"}, {At: 1, Colour: "#000000"}}
	for n, s := range []spoil{
		{"title", "at least one letter", func(c *card.Card) { c.Title = " " }},
		{"title", "on one line", func(c *card.Card) { c.Title = "a\nb" }},
		{"title", "at most 120", func(c *card.Card) { c.Title = strings.Repeat("x", 121) }},
		{"faces", "between 2 and", func(c *card.Card) { c.Faces = c.Faces[:1] }},
		{"faces", "is no face", func(c *card.Card) { c.Faces[1].ID = c.Faces[0].ID }},
		{"faces", "is no face", func(c *card.Card) { c.Faces[1].ID = "../x" }},
		{"items", "at most", func(c *card.Card) { c.Faces[0].Items = make([]card.Item, 2001) }},

		{"kind", "no kind of base", base(func(b *card.Base) { b.Kind = "Side fold" })},
		{"kind", "no kind of base", base(func(b *card.Base) {
			b.Measures = map[string]float64{}
			for i := range 41 {
				b.Measures[fmt.Sprintf("m%d", i)] = 1
			}
		})},
		{"width", "between 1 in", base(func(b *card.Base) { b.Width = 10 })},
		{"height", "between 1 in", base(func(b *card.Base) { b.Height = nan })},
		{"stock", "no stock", base(func(b *card.Base) { b.Stock = "foil" })},
		{"room", "between -1000", base(func(b *card.Base) { b.Measures = map[string]float64{"room": 1e9} })},
		{"lines", "at most 300", base(func(b *card.Base) { b.Lines = make([]card.OwnLine, 301) })},
		{"lines", "up to ninth", base(func(b *card.Base) {
			b.Lines = []card.OwnLine{{Role: card.RoleCut, To: geom.Pt(1, 1), Order: 10}}
		})},
		{"role", "A line is for", base(func(b *card.Base) { b.Lines = []card.OwnLine{{Role: "laser", To: geom.Pt(1, 1)}} })},
		{"lines", "more than 2 m", base(func(b *card.Base) { b.Lines = []card.OwnLine{{Role: card.RoleCut, To: geom.Pt(1e6, 1)}} })},
		{"lines", "two places", base(func(b *card.Base) { b.Lines = []card.OwnLine{{Role: card.RoleCut}} })},

		{"drawn", "between 1 and 1000 mm", fromLines(func(d *card.DrawnBase) { d.Width = nan })},
		{"drawn", "begins at its upper left", fromLines(func(d *card.DrawnBase) { d.Outline = card.NewDrawn(drawn(t, "M50 0H200V150H50Z")) })},
		{"path", "is open", fromLines(func(d *card.DrawnBase) { d.Outline = card.NewDrawn(drawn(t, "M0 0H200V150H0")) })},
		{"drawn", "at most 300 lines", fromLines(func(d *card.DrawnBase) { d.Lines = make([]card.DrawnLine, 301) })},
		{"path", "has no outline", fromLines(func(d *card.DrawnBase) { d.Lines[0].Path = nil })},
		{"role", "is for a cut", fromLines(func(d *card.DrawnBase) { d.Lines[0].Role = card.RolePen })},
		{"drawn", "one straight line", fromLines(func(d *card.DrawnBase) { d.Lines[0].Path = card.NewDrawn(drawn(t, "M100 0Q90 80 100 150")) })},
		{"drawn", "off its sheet", fromLines(func(d *card.DrawnBase) { d.Lines[0].Path = card.NewDrawn(drawn(t, "M100 0V250")) })},
		{"leaves", "one to 12", fromLines(func(d *card.DrawnBase) { d.Leaves = nil })},
		{"leaves", "off the sheet", fromLines(func(d *card.DrawnBase) { d.Leaves[0].Box.X = 150 })},
		{"leaves", "0, 90, 180 or 270", fromLines(func(d *card.DrawnBase) { d.Leaves[0].InsideTurn = 45 })},
		{"leaves", "one letter", fromLines(func(d *card.DrawnBase) { d.Leaves[0].Inside = " " })},

		{"id", "same id", on("Sentiment", func(it *card.Item) { it.ID = "i4" })},
		{"on", "no piece beneath", on("Sentiment", func(it *card.Item) { it.On = "i99" })},
		{"name", "one letter", on("Label", func(it *card.Item) { it.Name = "" })},
		{"place", "2 m off", on("Label", func(it *card.Item) { it.Place.X = 1e5 })},
		{"place", "2 m off", on("Label", func(it *card.Item) { it.Place.Y = nan })},
		{"turn", "-360°", on("Label", func(it *card.Item) { it.Place.Turn = 361 })},
		{"kind", "does not fit", on("Label", func(it *card.Item) { it.Kind = card.Photo })},
		{"kind", "does not fit", on("Label", func(it *card.Item) { it.Words = &card.Words{} })},
		{"kind", "does not fit", on("Label", func(it *card.Item) { it.Form = nil })},
		{"slot", "no slot", on("Label", func(it *card.Item) { it.Slot = &card.Waits{} })},
		{"size", "between 0.5 mm", on("Label", func(it *card.Item) { it.Form.Width = .1 })},
		{"size", "between 0.5 mm", on("Label", func(it *card.Item) { it.Form.Height = 1001 })},
		{"group", "not there", on("Label", func(it *card.Item) { it.Group = "g9" })},
		{"outline", "no outline", on("Label", func(it *card.Item) { it.Form.Outline = "cloud" })},
		{"radius", "Corners", on("Label", func(it *card.Item) { it.Form.Radius = -1 })},
		{"ends", "49 %", on("Label", func(it *card.Item) { it.Form.Ends = .2 })},
		{"corner", "square, round", on("Leaf paper", func(it *card.Item) { it.Form.Corner = "wavy" })},

		{"as", "printed, a cut piece", on("Label", func(it *card.Item) { it.Made.As = "woven" })},
		{"made", "no stock", on("Label", func(it *card.Item) { it.Made.As = card.Printed })},
		{"lift", "Foam is", on("Label", func(it *card.Item) { it.Made.Lift = .7 })},
		{"bleed", "Bleed is", on("Label", func(it *card.Item) { it.Made.Bleed = 11 })},
		{"stock", "no stock", on("Label", func(it *card.Item) { it.Made.Stock = "foil" })},
		{"made", "worked along", on("Label", func(it *card.Item) { it.Made = card.Made{As: card.Lined} })},

		{"colour", "#rrggbb", fill(card.Fill{Colour: "red"})},
		{"fill", "only one of them", fill(card.Fill{Colour: "#ffffff", Paper: "comb"})},
		{"paper", "a tenth", fill(card.Fill{Paper: "comb", Scale: 11})},
		{"gradient", "linear or radial", gradient(card.Gradient{Kind: "conic", Stops: stops})},
		{"gradient", "between 2 and", gradient(card.Gradient{Kind: card.Linear, Stops: stops[:1]})},
		{"colour", "#rrggbb", gradient(card.Gradient{Kind: card.Linear, Stops: []card.Stop{{Colour: "x"}, {At: 1, Colour: "#000000"}}})},
		{"gradient", "0 and 100", gradient(card.Gradient{Kind: card.Linear, Stops: []card.Stop{{Colour: "#ffffff", Clear: 2}, {At: 1, Colour: "#000000"}}})},
		{"gradient", "follow each other", gradient(card.Gradient{Kind: card.Linear, Stops: []card.Stop{stops[1], stops[0]}})},
		{"gradient", "five times", gradient(card.Gradient{Kind: card.Radial, Stops: stops, ToX: 6})},

		{"opacity", "5 and 100", look(card.Look{Clear: 1})},
		{"line", "0.1 mm", look(card.Look{Line: &card.InkLine{Width: 30, Colour: "#ffffff"}})},
		{"colour", "#rrggbb", look(card.Look{Line: &card.InkLine{Width: 1, Colour: "none"}})},
		{"shadow", "up to 50 mm", look(card.Look{Shadow: &card.Shadow{Distance: 51, Colour: "#ffffff"}})},
		{"shadow", "soft", look(card.Look{Shadow: &card.Shadow{Blur: 21, Colour: "#ffffff"}})},
		{"shadow", "beyond what throws it", look(card.Look{Shadow: &card.Shadow{Spread: 21, Colour: "#ffffff"}})},
		{"shadow", "at an angle", look(card.Look{Shadow: &card.Shadow{Angle: nan, Colour: "#ffffff"}})},
		{"colour", "#rrggbb", look(card.Look{Shadow: &card.Shadow{}})},
		{"opacity", "0 and 100", look(card.Look{Shadow: &card.Shadow{Colour: "#ffffff", Opacity: 2}})},
		{"tint", "0 and 100", look(card.Look{Tint: &card.Tint{Colour: "#ffffff", Strength: 2}})},
		{"colour", "#rrggbb", look(card.Look{Tint: &card.Tint{}})},
		{"reflection", "below", look(card.Look{Reflection: &card.Reflection{Gap: 51, Length: .5, Opacity: .5}})},
		{"reflection", "of the item", look(card.Look{Reflection: &card.Reflection{Length: 2, Opacity: .5}})},
		{"reflection", "strong", look(card.Look{Reflection: &card.Reflection{Length: .5}})},
		{"raised", "wide", look(card.Look{Raised: &card.Raised{Width: 21}})},
		{"raised", "0 and 100", look(card.Look{Raised: &card.Raised{Width: 2, Strength: 2}})},

		{"text", "one letter", words(func(w *card.Words) { w.Text = "\n " })},
		{"text", "at most 2000", words(func(w *card.Words) { w.Text = strings.Repeat("x", 2001) })},
		{"size", "Letters are", words(func(w *card.Words) { w.Size = .4 })},
		{"leading", "Leading", words(func(w *card.Words) { w.Leading = 9 })},
		{"spacing", "spacing", words(func(w *card.Words) { w.Spacing = -1 })},
		{"align", "left, centre", words(func(w *card.Words) { w.Align = "middle" })},
		{"align", "only in a box", words(func(w *card.Words) { w.Align = card.AlignJustify })},
		{"box", "between 1 mm", words(func(w *card.Words) { w.Box = &card.TextBox{} })},
		{"box", "need a box with a height", words(func(w *card.Words) { w.Box = &card.TextBox{Width: 20, Fit: true} })},
		{"runs", "cannot be set otherwise", words(func(w *card.Words) { w.Runs = []card.Run{{From: 2, To: 900}} })},
		{"runs", "each has one style", words(func(w *card.Words) { w.Runs = []card.Run{{From: 0, To: 2}, {From: 1, To: 3}} })},
		{"scale", "10 and 1000", words(func(w *card.Words) { w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Scale: 20}}} })},
		{"spacing", "Single letters", words(func(w *card.Words) { w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Kern: 3}}} })},
		{"colour", "#rrggbb", words(func(w *card.Words) { w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Colour: "red"}}} })},
		{"stand", "raised or lowered", words(func(w *card.Words) { w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Stand: "high"}}} })},
		{"alternate", "other forms", words(func(w *card.Words) { w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Alternate: -1}}} })},
		{"features", "nothing that a font has", words(func(w *card.Words) { w.Features = []card.Feature{"gold"} })},
		{"colour", "#rrggbb", words(func(w *card.Words) { w.Colours, w.ColourBy = []string{"red"}, card.ByLine })},
		{"colourBy", "line, word or letter", words(func(w *card.Words) { w.Colours = []string{"#112233"} })},
		{"path", "one of them", words(func(w *card.Words) { w.Path = &card.TextPath{} })},
		{"path", "one of them", words(func(w *card.Words) { w.Path = &card.TextPath{Radius: 10, Bend: 20} })},
		{"radius", "between 1 mm", words(func(w *card.Words) { w.Path = &card.TextPath{Radius: .1} })},
		{"bend", "1° to 360°", words(func(w *card.Words) { w.Path = &card.TextPath{Bend: 400} })},
		{"start", "of the line", words(func(w *card.Words) { w.Path = &card.TextPath{Bend: 90, Start: 3} })},
		{"away", "from their line", words(func(w *card.Words) { w.Path = &card.TextPath{Bend: 90, Away: 300} })},
		{"letters", "turned, upright or sheared", words(func(w *card.Words) { w.Path = &card.TextPath{Bend: 90, Letters: "bold"} })},
		{"path", "no box", words(func(w *card.Words) { w.Path, w.Box = &card.TextPath{Bend: 90}, &card.TextBox{Width: 20} })},
		{"warp", "an arch", words(func(w *card.Words) { w.Warp = &card.Warp{Form: "heart", Amount: 1} })},
		{"amount", "200 %", words(func(w *card.Words) { w.Warp = &card.Warp{Form: card.Arch} })},

		{"picture", "digest", photo(func(p *card.Print) { p.Picture = "x" })},
		{"picture", "no size", photo(func(p *card.Print) { p.PixelWidth = 0 })},
		{"zoom", "50 times", photo(func(p *card.Print) { p.Zoom = .5 })},
		{"zoom", "50 times", photo(func(p *card.Print) { p.ShiftY = nan })},
		{"path", "and no other", photo(func(p *card.Print) { p.Opening = &card.Form{Outline: card.Free} })},
		{"outline", "no outline", photo(func(p *card.Print) { p.Opening = &card.Form{Outline: "cloud"} })},

		{"slot", "waits for a photo or for words", slot(card.Waits{Takes: "gold", Made: card.Made{As: card.Printed}})},
		{"slot", "how they are set", slot(card.Waits{Takes: card.TakesWords, Made: card.Made{As: card.Printed}})},
		{"text", "one letter", slot(card.Waits{Takes: card.TakesWords, Words: &card.Words{}, Made: card.Made{As: card.Printed}})},
		{"slot", "printed or cut out", slot(card.Waits{Takes: card.TakesPhoto, Made: card.Made{As: card.Lined}})},

		{"groups", "same id", func(c *card.Card) { c.Faces[0].Groups = []card.Group{{ID: "g", Name: "a"}, {ID: "g", Name: "b"}} }},
		{"groups", "to itself", func(c *card.Card) { c.Faces[0].Groups = []card.Group{{ID: "g", Name: "a", In: "g"}} }},
		{"groups", "not there", func(c *card.Card) { c.Faces[0].Groups = []card.Group{{ID: "g", Name: "a", In: "h"}} }},

		{"less", "up to 20 mm", func(c *card.Card) { c.Leaf = &card.Insert{Stock: "text-120", Less: 21} }},
		{"stock", "no stock", func(c *card.Card) { c.Leaf = &card.Insert{Stock: "foil"} }},
		{"size", "no size of sheet", sheets(func(s *card.SheetSetup) { s.Size = "" })},
		{"lie", "portrait", sheets(func(s *card.SheetSetup) { s.Lie = "askew" })},
		{"turning", "by quarters", sheets(func(s *card.SheetSetup) { s.Turning = "spin" })},
		{"marks", "for the machine", sheets(func(s *card.SheetSetup) { s.Marks = "stars" })},
		{"margin", "0 and 50 mm", sheets(func(s *card.SheetSetup) { s.Margin = -1 })},
		{"between", "apart", sheets(func(s *card.SheetSetup) { s.Between = nan })},
		{"sheet", "at most 200", laid(card.Laid{Piece: card.BasePiece, Sheet: 200})},
		{"size", "no size of sheet", laid(card.Laid{Piece: card.BasePiece, Size: strings.Repeat("x", 41)})},
		{"place", "turned by up to", laid(card.Laid{Piece: card.BasePiece, Place: card.Place{Turn: 400}})},
		{"place", "turned by up to", laid(card.Laid{Piece: card.BasePiece, Place: card.Place{Mirrored: true}})},
		{"pieces", "two pieces or more", func(c *card.Card) { c.Ties = []card.Tie{{Pieces: []card.Laid{{Piece: "i1"}}}} }},
		{"pieces", "one tied set at a time", func(c *card.Card) {
			set := card.Tie{Pieces: []card.Laid{{Piece: "i1"}, {Piece: "i4"}}}
			c.Ties = []card.Tie{set, set}
		}},
	} {
		c := coretest.Card(t)
		raw, err := json.Marshal(c)
		require.NoError(t, err)
		c, err = card.Parse(raw)
		require.NoError(t, err)
		s.do(&c)
		if raw, err = json.Marshal(c); err == nil {
			_, err = card.Parse(raw)
		} else { // what JSON cannot hold comes from a command
			_, err = card.Change(c, func(*card.Card) error { return nil })
		}
		var r *card.Refusal
		require.ErrorAs(t, err, &r, "%d: %s, %s", n, s.field, s.why)
		assert.Equal(t, s.field, r.Field, "%d: %s", n, r.Why)
		assert.Contains(t, r.Why, s.why, n)
		assert.True(t, strings.HasSuffix(r.Why, ".") && !strings.Contains(r.Why, "%!"), "%d: %s", n, r.Why)
	}
}

func TestDocumentsThatAreNoneAreRefused(t *testing.T) {
	good, err := json.Marshal(coretest.Card(t))
	require.NoError(t, err)
	for _, raw := range []string{"", "null", "[]", "{", `{"title":3}`, string(good) + "{}", strings.Replace(string(good), `"title"`, `"titel"`, 1)} {
		_, err := card.Parse([]byte(raw))
		assert.Error(t, err, raw[:min(len(raw), 40)])
	}
}

// What is laid by hand stays where it is laid, until it is loosened or is no piece of that
// stock any more; a tied set goes as one.
func TestPiecesLaidAndTiedByHand(t *testing.T) {
	c := coretest.Card(t)
	at := func(piece string, x float64) card.Laid {
		return card.Laid{Piece: piece, Place: card.Place{X: x, Y: 50}}
	}
	refused(t, c, card.LayPieces{}, "pieces", "at least one piece")
	refused(t, c, card.LayPieces{Pieces: []card.Laid{at("i99", 1)}}, "pieces", "not there")
	refused(t, c, card.LayPieces{Pieces: []card.Laid{{Piece: "i4", Sheet: -1}}}, "sheet", "at most")
	c = do(t, c, card.LayPieces{Pieces: []card.Laid{at(card.BasePiece, 100.00000049)}}, card.LayPieces{Pieces: []card.Laid{at("i4", 30)}})
	require.Len(t, c.Laid, 2)
	assert.Equal(t, 100., c.Laid[0].Place.X, "to a nanometre")
	c = do(t, c, card.LayPieces{Pieces: []card.Laid{at("i4", 40)}})
	require.Len(t, c.Laid, 2, "what is laid again lies there alone")
	assert.Equal(t, 40., c.Laid[1].Place.X)

	// Two of one stock are tied and loosened together.
	_, label := c.Find("i4")
	twin := *label
	twin.ID, twin.On, twin.Name = "", "", "Twin"
	c = do(t, c, card.PlaceItems{Face: card.Back, Items: []card.Item{twin}})
	other := c.Face(card.Back).Items[len(c.Face(card.Back).Items)-1].ID
	refused(t, c, card.TiePieces{Pieces: []card.Laid{at("i4", 1), at(card.BasePiece, 2)}}, "pieces", "different stocks")
	far := at(other, 2)
	far.Sheet = 1
	refused(t, c, card.TiePieces{Pieces: []card.Laid{at("i4", 1), far}}, "pieces", "on one sheet")
	refused(t, c, card.TiePieces{Pieces: []card.Laid{at("i4", 1), at("i99", 2)}}, "pieces", "not there")
	refused(t, c, card.TiePieces{Pieces: []card.Laid{at("i4", 1)}}, "pieces", "two pieces")
	c = do(t, c, card.TiePieces{Pieces: []card.Laid{at("i4", 40), at(other, 90)}})
	assert.Equal(t, []string{"i4", other}, c.TiedWith(other))
	assert.Equal(t, []string{"i1"}, c.TiedWith("i1"))
	loose := do(t, c, card.LoosenPieces{Pieces: []string{other}})
	assert.Len(t, loose.Laid, 1, "the other one of the set is loose too")
	require.Len(t, loose.Ties, 1)
	assert.Empty(t, do(t, c, card.UntiePieces{Pieces: []string{"i4"}}).Ties)

	// Of another stock, printed or gone, it has left the set and the sheet.
	for _, k := range []card.Command{
		card.SetMade{IDs: []string{other}, Made: card.Made{As: card.Cut, Stock: "brick-216"}},
		card.RemoveItems{IDs: []string{other}},
	} {
		assert.Empty(t, do(t, c, k).Ties, "%T", k)
	}
	assert.Len(t, do(t, c, card.RemoveItems{IDs: []string{"i4"}}).Laid, 1, "the base alone")
}

func TestAnInsertIsForBasesThatAreNotCutInside(t *testing.T) {
	c := coretest.Card(t)
	c = do(t, c, card.SetInsert{Insert: &card.Insert{Stock: "text-120", Less: 3}})
	assert.Equal(t, "text-120", c.Leaf.Stock)
	assert.Equal(t, "Set the insert", card.SetInsert{Insert: c.Leaf}.Label())
	c = do(t, c, card.LayPieces{Pieces: []card.Laid{{Piece: card.InsertPiece, Place: card.Place{X: 50, Y: 50}}}})
	require.Len(t, c.Laid, 1)
	c = do(t, c, card.SetInsert{})
	assert.Nil(t, c.Leaf)
	assert.Empty(t, c.Laid, "an insert that is not there lies nowhere")
	assert.Equal(t, "Take the insert out", card.SetInsert{}.Label())
	c.Base.Kind = card.StepCard
	refused(t, c, card.SetInsert{Insert: &card.Insert{Stock: "text-120"}}, "insert", "is cut inside")
	assert.False(t, card.TakesInsert(card.Envelope))
}

package card_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

func order(c card.Card, face card.FaceID) string {
	var out []string
	for _, it := range c.Face(face).Items {
		s := it.ID
		if it.On != "" {
			s += "/" + it.On
		}
		out = append(out, s)
	}
	return strings.Join(out, " ")
}

func do(t *testing.T, c card.Card, cmds ...card.Command) card.Card {
	t.Helper()
	next, err := card.Apply(c, cmds...)
	require.NoError(t, err)
	return next
}

func refused(t *testing.T, c card.Card, cmd card.Command, field, why string) {
	t.Helper()
	before, _ := json.Marshal(c)
	_, err := card.Apply(c, cmd)
	var r *card.Refusal
	require.ErrorAs(t, err, &r)
	assert.Equal(t, field, r.Field)
	assert.Contains(t, r.Why, why)
	after, _ := json.Marshal(c)
	assert.Equal(t, string(before), string(after), "nothing is changed")
}

func TestNewItemsLieOnWhatIsUnderThem(t *testing.T) {
	c := coretest.Card(t)
	assert.Equal(t, "i1 i3/i1 i2/i3 i4 i5/i4", order(c, card.Front))
	_, photo := c.Find("i2")
	assert.Equal(t, card.Made{As: card.Cut, Stock: "satin-240", Bleed: 1}, photo.Made, "ink cannot lie on a mat")
}

func TestMatsAndRidersMoveTogether(t *testing.T) {
	c := coretest.Card(t)
	at := func(c card.Card, id string) card.Place { _, it := c.Find(id); return it.Place }
	m := do(t, c, card.MoveItems{IDs: []string{"i3"}, DX: 2, DY: 1})
	assert.Equal(t, card.Place{X: 65.5, Y: 61}, at(m, "i2"), "moving a mat moves what lies on it")
	assert.Equal(t, at(c, "i1"), at(m, "i1"))
	m = do(t, c, card.MoveItems{IDs: []string{"i4"}, DX: -3})
	assert.Equal(t, 60.5, at(m, "i5").X, "words move with their label")
	m = do(t, c, card.MoveItems{IDs: []string{"i4", "i5"}, DX: -3})
	assert.Equal(t, 60.5, at(m, "i5").X, "but only once")

	m = do(t, c, card.TurnItems{IDs: []string{"i4"}, Degrees: 90, About: geom.Pt(63.5, 145)})
	assert.Equal(t, 90.0, at(m, "i5").Turn)
	m = do(t, m, card.TurnItems{IDs: []string{"i4"}, Degrees: 200, About: geom.Pt(0, 0)})
	assert.Equal(t, -70.0, at(m, "i4").Turn)

	m = do(t, c, card.ResizeItems{IDs: []string{"i4"}, FX: .5, FY: .5, About: geom.Pt(63.5-45, 145-15)})
	_, label := m.Find("i4")
	assert.Equal(t, 45.0, label.Form.Width)
	assert.Equal(t, card.Place{X: 41, Y: 137.5}, label.Place, "its upper left corner stays")
	assert.Equal(t, 41.0, at(m, "i5").X)
}

func TestInkSettlesOnThePieceUnderIt(t *testing.T) {
	c := coretest.Card(t)
	m := do(t, c, card.MoveItems{IDs: []string{"i5"}, DY: -85})
	_, words := m.Find("i5")
	assert.Equal(t, "i2", words.On, "dragged onto the photo it is printed there")
	m = do(t, m, card.MoveItems{IDs: []string{"i5"}, DY: 112})
	_, words = m.Find("i5")
	assert.Equal(t, "", words.On)

	m = do(t, c, card.MoveItems{IDs: []string{"i2"}, DY: 150})
	_, mat := m.Find("i3")
	assert.Equal(t, "", mat.On, "a piece that has left its carrier lies on the base")
}

func TestRemovingTakesMatsAndLeavesRiders(t *testing.T) {
	c := coretest.Card(t)
	two := do(t, c, card.AddMat{IDs: []string{"i2"}, Width: 3, Corner: card.Square, Stock: "moss-216"})
	assert.Equal(t, "i1 i8/i1 i3/i8 i2/i3 i4 i5/i4", order(two, card.Front), "a second mat lies below the first")
	assert.Equal(t, "i1 i4 i5/i4", order(do(t, two, card.RemoveItems{IDs: []string{"i2"}}), card.Front))
	assert.Equal(t, "i1 i8/i1 i2/i8 i4 i5/i4", order(do(t, two, card.RemoveItems{IDs: []string{"i3"}}), card.Front))
	_, outer := two.Find("i8")
	assert.Equal(t, "i3", outer.Mat.Of)
	assert.Equal(t, "i5 i1 i3/i1 i2/i3", order(do(t, c, card.RemoveItems{IDs: []string{"i4"}}), card.Front), "words stay, printed on the base")
	assert.Equal(t, "", order(do(t, two, card.RemoveItems{IDs: []string{"i1", "i2", "i3", "i4", "i5", "i8"}}), card.Front))
}

func TestTheStackIsChangedAsPaperIs(t *testing.T) {
	c := coretest.Card(t)
	m := do(t, c, card.StepInStack{ID: "i4", Up: false})
	assert.Equal(t, "i4 i5/i4 i1 i3/i1 i2/i3", order(m, card.Front))
	refused(t, m, card.StepInStack{ID: "i4", Up: false}, "id", "lowest piece on the base already")
	m = do(t, c, card.Restack{ID: "i2", Above: "i4"})
	assert.Equal(t, "i1 i4 i5/i4 i3/i4 i2/i3", order(m, card.Front), "its mat goes along")
	m = do(t, c, card.Restack{ID: "i2", Above: ""})
	assert.Equal(t, "i3 i2/i3 i1 i4 i5/i4", order(m, card.Front))
	m = do(t, c, card.PutOn{IDs: []string{"i4"}, On: "i1"})
	assert.Equal(t, "i1 i3/i1 i2/i3 i4/i1 i5/i4", order(m, card.Front))
	refused(t, c, card.PutOn{IDs: []string{"i1"}, On: "i2"}, "on", "on itself or on what lies on it")
	refused(t, c, card.PutOn{IDs: []string{"i1"}, On: "i5"}, "on", "base or on a piece")
	m = do(t, c, card.SetMade{IDs: []string{"i4"}, Made: card.Made{As: card.Printed}}, card.SetFill{IDs: []string{"i4"}, Fill: card.Fill{Colour: "#ffffff"}})
	_, words := m.Find("i5")
	assert.Equal(t, "", words.On, "ink carries nothing")
}

func TestDuplicatesBelongTogetherAsTheOriginalsDo(t *testing.T) {
	c := do(t, coretest.Card(t), card.DuplicateItems{IDs: []string{"i2", "i4"}, DX: 5, DY: 5})
	assert.Equal(t, "i1 i3/i1 i2/i3 i8/i1 i9/i8 i4 i5/i4 i10 i11/i10", order(c, card.Front))
	_, mat := c.Find("i8")
	assert.Equal(t, "i9", mat.Mat.Of)
}

func TestBadInputIsRefusedWithTheField(t *testing.T) {
	c := coretest.Card(t)
	base := c.Base
	for _, b := range []struct {
		change func(*card.Base)
		field  string
	}{
		{func(b *card.Base) { b.Width = 0 }, "width"}, {func(b *card.Base) { b.Height = -5 }, "height"},
		{func(b *card.Base) { b.Height = 900 }, "height"}, {func(b *card.Base) { b.Kind = "spiral" }, "kind"},
		{func(b *card.Base) { b.Stock = "glass" }, "stock"},
	} {
		changed := base
		b.change(&changed)
		refused(t, c, fold.SetBase{Base: changed}, b.field, "")
	}
	refused(t, c, card.RenameCard{Title: "  "}, "title", "at least one letter")
	refused(t, c, card.ResizeItems{IDs: []string{"i1"}, FX: 0, FY: 1}, "size", "more than nothing")
	refused(t, c, card.ResizeItems{IDs: []string{"i1"}, FX: 100, FY: 1, About: geom.Pt(63.5, 60)}, "size", "between")
	refused(t, c, card.ResizeItems{IDs: []string{"i3"}, FX: 2, FY: 2}, "size", "A mat takes its size")
	refused(t, c, card.ResizeItems{IDs: []string{"i5"}, FX: 2, FY: 1}, "size", "keeps its proportions")
	refused(t, c, card.ResizeItems{IDs: []string{"i1", "i4"}, FX: 2, FY: 1}, "size", "together")
	refused(t, c, card.MoveItems{IDs: []string{"i1", "i6"}}, "ids", "another face")
	refused(t, c, card.MoveItems{IDs: []string{"i99"}}, "ids", "not there any more")
	refused(t, c, card.MoveItems{}, "ids", "at least one")
	refused(t, c, card.MoveItems{IDs: []string{"i1", "i1"}}, "ids", "twice")
	refused(t, c, card.MoveItems{IDs: []string{"i1"}, DX: 5000}, "place", "off the face")
	refused(t, c, card.SetMade{IDs: []string{"i4"}, Made: card.Made{As: card.Cut, Stock: "cream-216", Lift: .7}}, "lift", "Foam is")
	refused(t, c, card.SetMade{IDs: []string{"i4"}, Made: card.Made{As: card.Cut, Stock: "cream-216", Bleed: 99}}, "bleed", "Bleed")
	refused(t, c, card.SetFill{IDs: []string{"i2"}, Fill: card.Fill{Colour: "#ffffff"}}, "fill", "photo")
	refused(t, c, card.SetFill{IDs: []string{"i5"}, Fill: card.Fill{}}, "fill", "nothing would be seen")
	refused(t, c, card.SetFill{IDs: []string{"i4"}, Fill: card.Fill{Colour: "red"}}, "colour", "#rrggbb")
	refused(t, c, card.SetForm{ID: "i4", Corner: card.Round, Radius: new(3.0)}, "corner", "no corners")
	refused(t, c, card.SetForm{ID: "i1", Corner: card.Round, Radius: new(0.0)}, "radius", "more than nothing")
	refused(t, c, card.SetWords{ID: "i5", Words: card.Words{Text: " "}}, "text", "at least one letter")
	refused(t, c, card.SetWords{ID: "i1"}, "words", "no lettering")
	_, scored := c.Find("i4")
	line := *scored
	line.ID, line.On, line.Kind, line.Form, line.Fill, line.Made = "", "", card.Drawing, nil, card.Fill{}, card.Made{As: card.Lined}
	line.Lines = &card.Lines{Role: card.RoleValley, Width: 20, Path: card.NewDrawn(drawn(t, "M0 0L20 0"))}
	withLine, err := card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{line}})
	require.NoError(t, err)
	i := fmt.Sprintf("i%d", c.NextID)
	refused(t, withLine, card.AddMat{IDs: []string{i}, Width: 3, Corner: card.Square, Stock: "moss-216"}, "ids", "is a line")
	refused(t, withLine, card.SetMade{IDs: []string{i}, Made: card.Made{As: card.Printed}}, "made", "worked along")
	refused(t, withLine, card.SetFill{IDs: []string{i}, Fill: card.Fill{Colour: "#112233"}}, "fill", "only a pen line")
	refused(t, withLine, card.SetRole{IDs: []string{i}, Role: "laser"}, "role", "A line is for")
	refused(t, c, card.SetRole{IDs: []string{"i4"}, Role: card.RolePen}, "ids", "no line")
	refused(t, c, card.SetMade{IDs: []string{"i4"}, Made: card.Made{As: card.Lined}}, "made", "worked along")
	pen, err := card.Apply(withLine, card.SetRole{IDs: []string{i}, Role: card.RolePen})
	require.NoError(t, err)
	_, it := pen.Find(i)
	assert.Equal(t, "#1f2b38", it.Fill.Colour, "a pen has an ink")
	free := func(d string) card.PlaceItems {
		f := *scored
		f.ID, f.On, f.Form = "", "", &card.Form{Outline: card.Free, Width: 10, Height: 10, Path: card.NewDrawn(drawn(t, d))}
		return card.PlaceItems{Face: card.Front, Items: []card.Item{f}}
	}
	refused(t, c, free("M0 0L10 0L10 10"), "path", "is open")
	refused(t, c, free("M0 0L10 0L5 0Z"), "path", "has no area")
	refused(t, c, free("M0 0"), "path", "has no outline")
	_, err = free("M0 0L10 0L10 10Z").Apply(c)
	require.NoError(t, err)
	both := free("M0 0L10 0L10 10Z")
	both.Items[0].Form.Outline = "tag"
	refused(t, c, both, "path", "and no other")
	refused(t, c, card.AddMat{IDs: []string{"i1"}, Width: 0, Corner: card.Square, Stock: "moss-216"}, "width", "between")
	refused(t, c, card.SetMat{ID: "i1", Width: 3, Corner: card.Square}, "id", "no mat")
	refused(t, c, card.NameItem{ID: "i1", Name: ""}, "name", "at least one letter")
	refused(t, c, card.PlaceItems{Face: "lid", Items: []card.Item{{}}}, "face", "no face")
	refused(t, c, card.PlaceItems{Face: card.Front}, "items", "nothing to place")
	_, tag := c.Find("i4")
	one, other := *tag, *tag
	one.ID, one.On, other.ID, other.On = "a", "b", "b", "a"
	refused(t, c, card.PlaceItems{Face: card.Front, Items: []card.Item{one, other}}, "on", "lie on itself")
	one.On = "a"
	refused(t, c, card.PlaceItems{Face: card.Front, Items: []card.Item{one}}, "on", "lie on itself")
	refused(t, c, card.PlaceItems{Face: card.Front, Items: []card.Item{one, one}}, "items", "same id")
	refused(t, c, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "x", Kind: card.Shape, Made: card.Made{As: card.Printed}}}}, "kind", "does not fit")
}

// Corners keep the radius that they have, and take a first one that fits where they had none.
func TestCornersHaveARadiusWhetherOneIsNamedOrNot(t *testing.T) {
	for _, k := range []struct{ width, height, first float64 }{{60, 40, 6.35}, {12, 40, 3}, {60, 8, 2}} {
		c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Label", Kind: card.Shape,
			Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"}, Form: &card.Form{Outline: card.Rectangle, Width: k.width, Height: k.height, Corner: card.Square}}}})
		require.NoError(t, err)
		radius := func(corner card.Corner, named *float64) float64 {
			c, err = card.Apply(c, card.SetForm{ID: "i1", Corner: corner, Radius: named})
			require.NoError(t, err)
			_, it := c.Find("i1")
			assert.Equal(t, corner, it.Form.Corner)
			return it.Form.Radius
		}
		assert.InDelta(t, k.first, radius(card.Round, nil), 1e-9)
		assert.InDelta(t, 1.5, radius(card.Round, new(1.5)), 1e-9)
		assert.InDelta(t, 1.5, radius(card.Bevel, nil), 1e-9)
		assert.Zero(t, radius(card.Square, nil))
		assert.InDelta(t, k.first, radius(card.Bevel, nil), 1e-9, "a square corner has forgotten it")
	}
}

func TestCommandsAreReadStrictly(t *testing.T) {
	cmd, err := card.Decode(card.Commands, []byte(`{"do":"moveItems","ids":["i1"],"dx":3,"dy":0}`))
	require.NoError(t, err)
	assert.Equal(t, &card.MoveItems{IDs: []string{"i1"}, DX: 3}, cmd)
	for _, bad := range []string{`{}`, `[]`, `{"do":"explode"}`, `{"do":"moveItems","sideways":1}`, `{"do":"moveItems","dx":"far"}`, `nonsense`} {
		_, err := card.Decode(card.Commands, []byte(bad))
		assert.Error(t, err, bad)
	}
	for name, make := range card.Commands {
		assert.NotEmpty(t, make().Label(), name)
	}
}

func TestACardSurvivesItsFile(t *testing.T) {
	c := coretest.Card(t)
	raw, err := json.Marshal(c)
	require.NoError(t, err)
	back, err := card.Parse(raw)
	require.NoError(t, err)
	assert.Equal(t, c, back)
	_, err = card.Parse([]byte(strings.Replace(string(raw), `"schema":1`, `"schema":99`, 1)))
	assert.ErrorContains(t, err, "newer version")
	_, err = card.Parse([]byte(strings.Replace(string(raw), `"on":"i4"`, `"on":"i2"`, 1)))
	assert.NoError(t, err)
	_, err = card.Parse([]byte(strings.Replace(string(raw), `"on":"i4"`, `"on":"i6"`, 1)))
	assert.ErrorContains(t, err, "no piece beneath it")
}

// Whatever is done to a card, it stays one that can be read back, refused
// commands change nothing, and the card that was given is left alone.
func TestRandomCommandsKeepTheCardSound(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 10))
	ids := func(c card.Card) []string {
		f := c.Faces[0]
		if len(f.Items) == 0 {
			return nil
		}
		out := []string{f.Items[r.IntN(len(f.Items))].ID}
		if r.IntN(3) == 0 {
			if o := f.Items[r.IntN(len(f.Items))].ID; o != out[0] {
				out = append(out, o)
			}
		}
		return out
	}
	accepted := 0
	for range 60 {
		c := coretest.Card(t)
		for step := range 60 {
			pick := ids(c)
			one, other := "", ""
			if len(pick) > 0 {
				one, other = pick[0], pick[len(pick)-1]
			}
			cmds := []card.Command{
				card.MoveItems{IDs: pick, DX: r.Float64()*100 - 50, DY: r.Float64()*100 - 50},
				card.TurnItems{IDs: pick, Degrees: r.Float64()*700 - 350},
				card.ResizeItems{IDs: pick, FX: .5 + r.Float64(), FY: .5 + r.Float64()},
				card.RemoveItems{IDs: pick}, card.DuplicateItems{IDs: pick, DX: 3},
				card.AddMat{IDs: pick, Width: 2, Corner: card.Bevel, Stock: "moss-216"},
				card.PutOn{IDs: pick, On: other}, card.Restack{ID: one, Above: other},
				card.Restack{ID: other, Above: ""}, card.StepInStack{ID: one, Up: r.IntN(2) == 0},
				card.SetMade{IDs: pick, Made: card.Made{As: card.Printed}},
				card.SetMade{IDs: pick, Made: card.Made{As: card.Cut, Stock: "kraft-280"}},
			}
			cmd := cmds[r.IntN(len(cmds))]
			before, _ := json.Marshal(c)
			next, err := cmd.Apply(c)
			after, _ := json.Marshal(c)
			require.JSONEq(t, string(before), string(after))
			if err != nil {
				continue
			}
			accepted++
			raw, _ := json.Marshal(next)
			_, err = card.Parse(raw)
			require.NoError(t, err, fmt.Sprintf("step %d: %T %+v on %s", step, cmd, cmd, before))
			c = next
		}
	}
	assert.Greater(t, accepted, 1500)
}

func FuzzDecode(f *testing.F) {
	f.Add([]byte(`{"do":"moveItems","ids":["i1"],"dx":3,"dy":0}`))
	f.Add([]byte(`{"do":"placeItems","face":"front","items":[{"name":"x","kind":"shape","made":{"as":"printed"}}]}`))
	f.Add([]byte(`{"do":"setWords","id":"i5","words":{"text":"a"}}`))
	c := coretest.Card(f)
	f.Fuzz(func(t *testing.T, raw []byte) {
		cmd, err := card.Decode(card.Commands, raw)
		if err != nil {
			return
		}
		if next, err := cmd.Apply(c); err == nil {
			out, err := json.Marshal(next)
			require.NoError(t, err)
			_, err = card.Parse(out)
			require.NoError(t, err)
		}
	})
}

func drawn(t *testing.T, d string) geom.Path {
	t.Helper()
	p, err := geom.ParsePath(d)
	require.NoError(t, err)
	return p
}

package app_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"math"
	"math/rand/v2"
	"os"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/check"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/shape"
)

// filler fills commands with what may be meant for a card, and now and then with what
// cannot be.
type filler struct {
	r  *rand.Rand
	c  card.Card
	of string // the command that is filled
}

func pick[T any](r *rand.Rand, list []T) (v T) {
	if len(list) == 0 {
		return v
	}
	return list[r.IntN(len(list))]
}

// face is one that has something on it, mostly.
func (f *filler) face() card.Face {
	for range 6 {
		if got := pick(f.r, f.c.Faces); len(got.Items) > 0 {
			return got
		}
	}
	return pick(f.r, f.c.Faces)
}

// ids are some of the items of one face.
func (f *filler) ids() []string {
	face := f.face()
	var out []string
	for _, it := range face.Items {
		if f.r.IntN(len(face.Items)+1) < 3 {
			out = append(out, it.ID)
		}
	}
	if f.r.IntN(40) == 0 {
		out = append(out, "i999")
	}
	return out
}

// suited are what most commands about one item of a kind are tried on: chance alone hardly ever
// meets a mat.
var suited = map[string]func(card.Item) bool{
	"setMat": func(it card.Item) bool { return it.Mat != nil }, "rubOut": func(it card.Item) bool { return it.ByHand },
	"setWindow": func(it card.Item) bool { return it.Window != nil }, "makeFeature": func(it card.Item) bool { return it.Words != nil || it.Form != nil },
}

func init() {
	for _, name := range []string{"cropPhoto", "editPhoto", "setOpening", "cropToOutline", "growOpening", "frameOpenings", "layCutOut", "makeTiers", "swapPictures", "setRim", "widenToFace", "cutRound"} {
		suited[name] = func(it card.Item) bool { return it.Photo != nil }
	}
	for _, name := range []string{"setWords", "styleLetters", "setText", "layWords", "lettersApart", "bandBehind", "makeField", "fitNames"} {
		suited[name] = func(it card.Item) bool { return it.Words != nil }
	}
}

func (f *filler) id() string {
	if f.r.IntN(60) == 0 {
		return "i999"
	}
	if f.of == "nameGroup" || f.of == "setTiers" {
		if g := pick(f.r, f.face().Groups); g.ID != "" {
			return g.ID
		}
	}
	if suits := suited[f.of]; suits != nil && f.r.IntN(4) > 0 {
		var some []string
		for _, face := range f.c.Faces {
			for _, it := range face.Items {
				if suits(it) {
					some = append(some, it.ID)
				}
			}
		}
		if len(some) > 0 {
			return pick(f.r, some)
		}
	}
	return pick(f.r, f.face().Items).ID
}

func (f *filler) pictures() []string {
	var out []string
	for _, face := range f.c.Faces {
		for _, it := range face.Items {
			if it.Photo != nil {
				out = append(out, it.Photo.Picture)
			}
		}
	}
	return out
}

// words are what strings hold that are no ids, by the name of their field.
func (f *filler) words(field string) string {
	if f.of == "repaper" {
		for _, it := range f.face().Items {
			if it.Fill.Paper != "" && strings.EqualFold(field, "from") {
				return it.Fill.Paper
			}
		}
		return pick(f.r, pattern.Papers()).ID
	}
	switch strings.ToLower(field) {
	case "group":
		for _, g := range f.face().Groups {
			if g.Tiers != nil {
				return g.ID
			}
		}
		return f.id()
	case "column":
		if n := f.c.Names; n != nil {
			return pick(f.r, append(slices.Clone(n.Columns), ""))
		}
	case "row", "rows":
		if n := f.c.Names; n != nil {
			return pick(f.r, n.Rows).ID
		}
	case "item":
		return pick(f.r, []string{f.id(), card.BasePiece})
	case "id", "on", "above", "of", "from":
		return pick(f.r, []string{f.id(), f.id(), ""})
	case "to":
		return pick(f.r, []string{"#35658c", f.id()})
	case "face":
		return string(f.face().ID)
	case "colour":
		return pick(f.r, []string{"#a8432a", "#35658c", "#ffffff", "red", ""})
	case "paper":
		return pick(f.r, []string{pick(f.r, pattern.Papers()).ID, "", "none"})
	case "papers":
		return pick(f.r, pattern.Papers()).ID
	case "stocks", "second":
		return pick(f.r, card.Stocks()).ID
	case "stock":
		return pick(f.r, []string{pick(f.r, card.Stocks()).ID, "moss-216", "nothing"})
	case "font":
		return pick(f.r, lettering.Fonts()).ID
	case "picture":
		return pick(f.r, f.pictures())
	case "text":
		return pick(f.r, []string{"Plum Lane", "a\nb", "", strings.Repeat("long ", 30)})
	case "unit":
		return "in"
	}
	return pick(f.r, []string{
		"printed", "cut", "line", "shape", "drawing", "left", "middle", "right", "top", "bottom", "centre", "linear", "radial", "round", "bevel", "square",
		"rectangle", "ellipse", "scallop", "front", "inside-right", "letter", "valley", "mountain", "pen", "x", "y", "width", "height", "both", "Plums", "",
	})
}

// fill sets a value and what is in it; field is the name it goes by.
func (f *filler) fill(v reflect.Value, field string, depth int) {
	switch typ := v.Type(); {
	case typ == reflect.TypeFor[*card.Drawn]():
		w, h := 5+60*f.r.Float64(), 5+60*f.r.Float64()
		v.Set(reflect.ValueOf(card.NewDrawn(geom.EllipsePath(geom.Centred(w, h)))))
		return
	case typ == reflect.TypeFor[card.Base]():
		b := f.c.Base
		b.Width, b.Height = 80+100*f.r.Float64(), 80+100*f.r.Float64()
		v.Set(reflect.ValueOf(b))
		return
	case typ == reflect.TypeFor[card.Tiers]() && f.r.IntN(3) > 0:
		v.Set(reflect.ValueOf(card.Tiers{Rule: pick(f.r, card.TierRules()), Count: 2 + f.r.IntN(3), Rows: 1 + f.r.IntN(2), Step: .5 + f.r.Float64(), X: .5, Y: f.r.Float64(), Turn: f.r.Float64()}))
		return
	case typ == reflect.TypeFor[card.Window]() && f.r.IntN(3) > 0:
		v.Set(reflect.ValueOf(card.Window{Of: f.ids(), Overlap: f.r.Float64(), Width: 4 * f.r.Float64(), Corner: pick(f.r, []card.Corner{card.Square, card.Round})}))
		return
	case typ == reflect.TypeFor[card.SetNames]() && f.r.IntN(8) > 0:
		k := members()
		k.Rows = k.Rows[f.r.IntN(3):]
		v.Set(reflect.ValueOf(k))
		return
	case typ == reflect.TypeFor[card.FaceID]():
		v.SetString(pick(f.r, []string{string(f.face().ID), string(f.face().ID), string(card.Front), "nowhere"}))
		return
	case typ == reflect.TypeFor[arrange.PlaceSupply]() && f.r.IntN(3) > 0:
		k := arrange.PlaceSupply{Face: f.face().ID, Kind: pick(f.r, arrange.SupplyKinds()), Along: f.r.IntN(2) == 0, PixelWidth: 1 + f.r.IntN(4000), PixelHeight: 1 + f.r.IntN(4000)}
		k.ID = map[arrange.SupplyKind]string{arrange.PhotoSupply: pick(f.r, f.pictures()), arrange.PaperSupply: pick(f.r, pattern.Papers()).ID,
			arrange.ShapeSupply: pick(f.r, shape.All()).ID, arrange.LetteringSupply: pick(f.r, lettering.Fonts()).ID, arrange.EdgingSupply: pick(f.r, edging.All()).ID}[k.Kind]
		v.Set(reflect.ValueOf(k))
		return
	case typ == reflect.TypeFor[card.Item]():
		it := pick(f.r, f.face().Items)
		it.ID, it.Group, it.On = "", "", ""
		v.Set(reflect.ValueOf(it))
		return
	}
	// What an item of the card has is mostly something that another may have.
	if f.r.IntN(4) > 0 {
		it := reflect.ValueOf(pick(f.r, f.face().Items))
		for i := range it.NumField() {
			got := it.Field(i)
			if got.Kind() == reflect.Pointer && !got.IsNil() && got.Elem().Type() == v.Type() {
				got = got.Elem()
			}
			if got.Type() == v.Type() && got.Kind() != reflect.String && got.Kind() != reflect.Bool && got.Kind() != reflect.Float64 && got.Kind() != reflect.Slice {
				v.Set(got)
				return
			}
		}
	}
	if list := app.Vocabulary[v.Type()]; list != nil && f.r.IntN(20) > 0 {
		v.SetString(pick(f.r, list))
		return
	}
	switch v.Kind() {
	case reflect.String:
		if strings.HasSuffix(field, "ID") {
			field = "id"
		}
		v.SetString(f.words(field))
	case reflect.Float64:
		v.SetFloat(pick(f.r, []float64{f.r.Float64(), 30 * f.r.Float64(), -30 * f.r.Float64(), 3, .5, 1, 0, 1e4}))
	case reflect.Int, reflect.Int64, reflect.Uint8:
		n := int64(f.r.IntN(6))
		if v.CanInt() {
			v.SetInt(n)
		} else {
			v.SetUint(uint64(n))
		}
	case reflect.Bool:
		v.SetBool(f.r.IntN(2) == 0)
	case reflect.Pointer:
		if depth < 4 && f.r.IntN(3) > 0 {
			v.Set(reflect.New(v.Type().Elem()))
			f.fill(v.Elem(), field, depth+1)
		}
	case reflect.Slice:
		if strings.EqualFold(field, "from") {
			v.Set(reflect.ValueOf([]string{pick(f.r, []string{"#587a4a", "#a8432a", "#1f2b38"})}))
			return
		}
		if f.of == "removeNames" {
			v.Set(reflect.ValueOf([]string{f.words("row")}))
			return
		}
		if v.Type().Elem() == reflect.TypeFor[string]() {
			ids := reflect.MakeSlice(v.Type(), 0, 4)
			for _, id := range f.ids() {
				ids = reflect.Append(ids, reflect.ValueOf(id).Convert(v.Type().Elem()))
			}
			v.Set(ids)
			return
		}
		out := reflect.MakeSlice(v.Type(), 0, 4)
		for range 1 + f.r.IntN(4) {
			e := reflect.New(v.Type().Elem()).Elem()
			f.fill(e, field, depth+1)
			out = reflect.Append(out, e)
		}
		v.Set(out)
	case reflect.Map:
		out := reflect.MakeMap(v.Type())
		k, e := reflect.New(v.Type().Key()).Elem(), reflect.New(v.Type().Elem()).Elem()
		f.fill(k, "id", depth+1)
		f.fill(e, field, depth+1)
		out.SetMapIndex(k, e)
		v.Set(out)
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() && f.r.IntN(12) > 0 {
				f.fill(v.Field(i), v.Type().Field(i).Name, depth+1)
			}
		}
	}
}

// named is a command in JSON with its name.
func named(name, raw string) []byte {
	if raw == "{}" {
		return []byte(`{"do":"` + name + `"}`)
	}
	return []byte(`{"do":"` + name + `",` + strings.TrimPrefix(raw, "{"))
}

func asJSON(t *testing.T, v any) string {
	t.Helper()
	raw, err := json.Marshal(v)
	require.NoError(t, err)
	return string(raw)
}

// unlike says where two values of JSON differ by more than the nanometre that documents are
// exact to; "" where they do not.
func unlike(at string, a, b any) string {
	switch x := a.(type) {
	case float64:
		if y, ok := b.(float64); ok && math.Abs(x-y) < 1e-5 {
			return ""
		}
	case string:
		y, ok := b.(string)
		if !ok || x == y {
			break
		}
		p, errP := geom.ParsePath(x)
		q, errQ := geom.ParsePath(y)
		if errP == nil && errQ == nil && p.Len() == q.Len() && math.Abs(p.Area()-q.Area()) < 1e-3 && math.Abs(p.Length()-q.Length()) < 1e-3 {
			r, s := p.Bounds(), q.Bounds()
			if max(math.Abs(r.X-s.X), math.Abs(r.Y-s.Y), math.Abs(r.W-s.W), math.Abs(r.H-s.H)) < 1e-4 {
				return ""
			}
		}
	case []any:
		y, ok := b.([]any)
		if !ok || len(x) != len(y) {
			break
		}
		for i := range x {
			if d := unlike(fmt.Sprintf("%s[%d]", at, i), x[i], y[i]); d != "" {
				return d
			}
		}
		return ""
	case map[string]any:
		y, ok := b.(map[string]any)
		if !ok || len(x) != len(y) {
			break
		}
		for k := range x {
			if d := unlike(at+"."+k, x[k], y[k]); d != "" {
				return d
			}
		}
		return ""
	}
	if reflect.DeepEqual(a, b) {
		return ""
	}
	return fmt.Sprintf("%s: %v, not %v", at, b, a)
}

// mendsHelp tries the mend of every finding about a card: as it goes out it is a list of
// commands that can be read back, the card takes them unless something is locked, and the
// finding is gone afterwards, or less.
func mendsHelp(t *testing.T, v app.View) {
	t.Helper()
	find := func(c card.Card) []check.Finding {
		s, err := scene.Of(c)
		require.NoError(t, err)
		return append(check.Run(check.TheScene, check.Input{Card: c, Scene: &s}), check.Run(check.TheFolding, check.Input{Card: c, Scene: &s})...)
	}
	for _, f := range find(v.Card) {
		require.Contains(t, check.IDs(), f.Check)
		require.True(t, strings.HasSuffix(f.Why, "."), f.Why)
		require.NotContains(t, f.Why, "%!")
		for _, mend := range f.Mends {
			var out struct{ Do []json.RawMessage }
			require.NoError(t, json.Unmarshal([]byte(asJSON(t, mend)), &out))
			c := v.Card
			for _, raw := range out.Do {
				cmd, err := card.Decode(app.Commands, raw)
				require.NoError(t, err, "%s", raw)
				if c, err = card.Apply(c, cmd); err != nil {
					require.Contains(t, err.Error(), "locked", "%s: %s", f.Why, raw)
				}
			}
			if reflect.DeepEqual(c, v.Card) {
				continue
			}
			for _, g := range find(c) {
				if g.Check == f.Check && g.Item == f.Item {
					require.Less(t, g.By, f.By, "%s is mended to %s", f.Why, g.Why)
				}
			}
		}
	}
}

// members are a list of names.
func members() card.SetNames {
	return card.SetNames{From: "members.csv", Columns: []string{"Name", "Plot", "Guest"},
		Rows: [][]string{{"Odalys Fernsby", "14", ""}, {"Wilhelmina Tock", "3", "Ptolemy Reed"}, {"Bartholomew Quillfeather", "22", ""}, {"Isolde Marchbanks", "7", "Noor"}}}
}

// stencilled makes a plate that words with bridges are carved out of.
func stencilled(c card.Card) []card.Command {
	plate := card.Item{Name: "Plate", Kind: card.Shape, Place: card.Place{X: 60, Y: 60, Turn: 20}, Made: card.Made{As: card.Cut, Stock: "moss-216", Islands: card.FirstBridges()},
		Form: &card.Form{Outline: card.Rectangle, Width: 60, Height: 30, Corner: card.Square}}
	words := card.Item{Name: "Stencil", Kind: card.Lettering, Place: card.Place{X: 60, Y: 60}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Words: &card.Words{Text: "Boat", Font: "alfa-slab-one-400", Size: 14, Leading: 1.2, Align: card.AlignCentre}}
	face := c.Faces[0].ID
	return []card.Command{members(), card.PlaceItems{Face: face, Items: []card.Item{plate}}, card.PlaceItems{Face: face, Items: []card.Item{words}},
		card.SetMade{IDs: []string{fmt.Sprintf("i%d", c.NextID+1)}, Made: card.Made{As: card.Carved}}}
}

// Whatever commands of the protocol are sent, sensible or not, a card stays one that can be
// read back; what is refused is refused in a sentence and changes nothing; the scene that is
// carried on from change to change is the one that is made of the card anew; and undoing all
// leads back through the very same cards.
func TestAnyCommandsKeepTheCardSound(t *testing.T) {
	r := rand.New(rand.NewPCG(301, 302))
	names := slices.Sorted(maps.Keys(app.Commands))
	accepted := map[string]int{}
	runs, steps := 8, 180
	if os.Getenv("SOAK") != "" {
		runs, steps = 200, 400
	}
	for range runs {
		f := start(t)
		id := f.card()
		v, err := f.Open(t.Context(), id)
		require.NoError(t, err)
		// A piece with bridges, since chance alone hardly ever makes one.
		_, err = f.Change(t.Context(), id, v.Revision, stencilled(v.Card))
		require.NoError(t, err)
		v, err = f.Open(t.Context(), id)
		require.NoError(t, err)
		was := []string{asJSON(t, v.Card)}
		for step := range steps {
			name := names[(step+r.IntN(3))%len(names)]
			// What has never been taken is tried more often than what has.
			var raw string
			for range 1 + 50/(1+10*accepted[name]) {
				cmd := app.Commands[name]()
				(&filler{r, v.Card, name}).fill(reflect.ValueOf(cmd).Elem(), "", 0)
				raw = asJSON(t, cmd)
				cmd, err = card.Decode(app.Commands, named(name, raw))
				require.NoError(t, err, "%s %s", name, raw)
				if _, err = f.Change(t.Context(), id, v.Revision, []card.Command{cmd}); err == nil {
					break
				}
				var refusal *card.Refusal
				require.True(t, errors.As(err, &refusal) || errors.Is(err, app.ErrNothing), "%s %s: %v", name, raw, err)
				if refusal != nil {
					require.True(t, strings.HasSuffix(refusal.Why, "."), "no sentence: %s %s: %q", name, raw, refusal.Why)
					require.NotContains(t, refusal.Why, "%!", name)
				}
			}
			now, openErr := f.Open(t.Context(), id)
			require.NoError(t, openErr)
			if err != nil {
				require.Equal(t, was[len(was)-1], asJSON(t, now.Card), "%s %s was refused", name, raw)
				continue
			}
			accepted[name]++
			require.Greater(t, now.Revision, v.Revision)
			v = now
			was = append(was, asJSON(t, v.Card))
			back, err := card.Parse([]byte(was[len(was)-1]))
			require.NoError(t, err, "%s %s", name, raw)
			require.JSONEq(t, was[len(was)-1], asJSON(t, back))
			if step%10 == 5 {
				mendsHelp(t, v)
			}
			if step%10 == 0 {
				fresh, err := f.again().Open(t.Context(), id)
				require.NoError(t, err)
				var a, b any
				require.NoError(t, json.Unmarshal([]byte(asJSON(t, fresh.Scene)), &a))
				require.NoError(t, json.Unmarshal([]byte(asJSON(t, v.Scene)), &b))
				require.Empty(t, unlike("scene", a, b), "after %s %s", name, raw)
			}
		}
		for i := len(was) - 2; i >= 0; i-- {
			if _, err = f.Undo(t.Context(), id, v.Revision); errors.Is(err, app.ErrNothing) {
				break // as far back as is kept
			}
			require.NoError(t, err)
			v, err = f.Open(t.Context(), id)
			require.NoError(t, err)
			require.JSONEq(t, was[i], asJSON(t, v.Card))
		}
	}
	var never []string
	for _, name := range names {
		if accepted[name] == 0 {
			never = append(never, name)
		}
	}
	t.Log(fmt.Sprint(accepted), "never accepted:", never)
	assert.Less(t, len(never), len(names)/6, "nearly every command is taken at least once: %v", never)
}

package server

import (
	"cmp"
	"encoding/json"
	"fmt"
	"maps"
	"path"
	"reflect"
	"slices"
	"strings"

	"github.com/invopop/jsonschema"

	"sectilis/app"
	"sectilis/core/check"
	"sectilis/core/design/arrange"
	"sectilis/core/design/drawnbase"
	"sectilis/core/design/points"
	"sectilis/core/design/tracing"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// prefix tells types of different packages apart that share a name.
var prefix = map[string]string{"scene": "Scene", "fold": "Net", "sheet": "Sheet", "cut": "Cut", "paper": "Paper", "lettering": "", "nodes": "Point", "drawnbase": "Drawing", "assembly": "Assembly"}

// name is the name of a type in the schema.
func name(t reflect.Type) string {
	p := prefix[path.Base(t.PkgPath())]
	if t.Name() == p {
		return p
	}
	return p + t.Name()
}

// wordsName is the name, in the schema, of a type whose values are words: that of its package and its own.
func wordsName(t reflect.Type) string {
	p := path.Base(t.PkgPath())
	p = cmp.Or(prefix[p], strings.ToUpper(p[:1])+p[1:])
	return p + strings.TrimPrefix(t.Name(), p)
}

// reflector reads schemas off the Go types.
func reflector() *jsonschema.Reflector {
	return &jsonschema.Reflector{
		Anonymous:                 true,
		Namer:                     name,
		AllowAdditionalProperties: false,
		Mapper: func(t reflect.Type) *jsonschema.Schema {
			switch {
			case t == reflect.TypeFor[geom.Path](), t == reflect.TypeFor[card.Drawn]():
				return &jsonschema.Schema{Type: "string", Description: "SVG path data, mm"}
			case t == reflect.TypeFor[check.Step]():
				return &jsonschema.Schema{Ref: "#/$defs/Command"}
			case t == reflect.TypeFor[geom.Affine]():
				six := uint64(6)
				return &jsonschema.Schema{Type: "array", Items: &jsonschema.Schema{Type: "number"}, MinItems: &six, MaxItems: &six}
			case app.Vocabulary[t] != nil:
				return &jsonschema.Schema{Ref: "#/$defs/" + wordsName(t)}
			}
			return nil
		},
	}
}

// Schema is the JSON Schema of everything that goes over the API, as one object with a
// definition for each type; commands are under "Command". It fails when a type cannot be
// described.
func Schema() ([]byte, error) {
	root := &jsonschema.Schema{Version: jsonschema.Version, Title: "API", Type: "object", Definitions: jsonschema.Definitions{}}
	add := func(v any) string {
		s := reflector().Reflect(v)
		maps.Copy(root.Definitions, s.Definitions)
		return name(reflect.TypeOf(v))
	}
	for _, v := range []any{
		app.View{}, app.Summary{}, app.Picture{}, app.LayoutView{}, app.CutterState{}, app.Mishap{}, sheet.Scrap{}, sheet.OnHand{}, app.TrueSize{}, app.InkView{}, app.StockView{}, app.MeasuredStock{}, app.OtherCutter{}, sheet.PrinterReach{}, app.NamesView{}, ListRead{}, app.Job{}, app.Event{}, app.Incoming{}, LayDrawing{}, app.BaseAsk{}, drawnbase.Found{}, app.FoldView{}, fold.Directions{},
		Catalogue{}, Measure{}, Length{}, WordsToSet{}, WordsAsSet{}, arrange.Gap{}, arrange.Fit{}, app.PictureFacts{}, app.PrintView{}, app.PhotoLook{}, app.TraceAsk{}, EditsAsk{}, RightSeen{}, WayAsk{}, app.Traced{}, tracing.PlainForm{}, points.Points{}, app.Supply{}, app.Art{}, app.SheetsTold{}, app.SuppliesIn{}, app.CardIn{}, app.Credits{}, app.CheckView{}, app.AssemblyView{}, Ticked{}, scene.Cut{}, CutLine{}, app.IncomingPaper{}, app.NewPaper{}, app.NewMotif{}, app.KeptThings{}, LayArt{}, app.Sketch{}, app.NewSketch{}, FromSketch{}, ColourSeen{}, NewCard{}, CardRef{}, Problem{},
	} {
		add(v)
	}
	for t, words := range app.Vocabulary {
		key := wordsName(t)
		if root.Definitions[key] != nil {
			return nil, fmt.Errorf("two types are named %s", key)
		}
		enum := make([]any, len(words))
		for i, w := range words {
			enum[i] = w
		}
		root.Definitions[key] = &jsonschema.Schema{Type: "string", Enum: enum}
	}
	command := &jsonschema.Schema{}
	for _, do := range slices.Sorted(maps.Keys(app.Commands)) {
		typ := reflect.TypeOf(app.Commands[do]()).Elem()
		key := add(reflect.New(typ).Elem().Interface())
		def := root.Definitions[key]
		def.Properties.Set("do", &jsonschema.Schema{Const: do})
		def.Required = append(def.Required, "do")
		command.OneOf = append(command.OneOf, &jsonschema.Schema{Ref: "#/$defs/" + key})
	}
	root.Definitions["Command"] = command
	out, err := json.MarshalIndent(root, "", "  ")
	if err != nil {
		return nil, fmt.Errorf("write schema: %w", err)
	}
	return append(out, '\n'), nil
}

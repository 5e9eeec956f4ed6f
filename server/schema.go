package server

import (
	"encoding/json"
	"fmt"
	"maps"
	"path"
	"reflect"
	"slices"

	"github.com/invopop/jsonschema"

	"sectilis/app"
	"sectilis/core/arrange"
	"sectilis/core/card"
	"sectilis/core/check"
	"sectilis/core/fold"
	"sectilis/core/freehand"
	"sectilis/core/geom"
	"sectilis/core/measure"
	"sectilis/core/pathops"
	"sectilis/core/sheet"
)

// words are the strings that a named string type may hold.
var words = map[reflect.Type][]any{
	reflect.TypeFor[card.BaseKind]():   baseKinds(),
	reflect.TypeFor[check.Weight]():    {check.Note, check.Caution, check.Stop},
	reflect.TypeFor[card.Kind]():       {card.Photo, card.Paper, card.Shape, card.Lettering, card.Mat, card.Drawing, card.Slot},
	reflect.TypeFor[card.Takes]():      {card.TakesPhoto, card.TakesWords},
	reflect.TypeFor[card.As]():         {card.Printed, card.Cut, card.Lined},
	reflect.TypeFor[card.Outline]():    {card.Rectangle, card.Ellipse, card.Scallop, card.Tag, card.Banner, card.Flag, card.Tab, card.Strip, card.Free},
	reflect.TypeFor[card.Corner]():     {card.Square, card.Round, card.Bevel},
	reflect.TypeFor[card.Align]():      {card.AlignLeft, card.AlignCentre, card.AlignRight},
	reflect.TypeFor[pathops.Use]():     uses(),
	reflect.TypeFor[freehand.Tip]():    {freehand.Pen, freehand.Marker, freehand.Chisel},
	reflect.TypeFor[app.Rights]():      {app.Free, app.PersonalUse, app.CreditDue},
	reflect.TypeFor[arrange.Edge]():    {arrange.Left, arrange.Centre, arrange.Right, arrange.Top, arrange.Middle, arrange.Bottom},
	reflect.TypeFor[arrange.To]():      {arrange.EachOther, arrange.TheFace, arrange.TheFirst},
	reflect.TypeFor[arrange.Pattern](): {arrange.Row, arrange.Grid, arrange.Ring},
	reflect.TypeFor[card.Role]():       {card.RoleCut, card.RoleMountain, card.RoleValley, card.RolePerforation, card.RoleKiss, card.RolePen, card.RoleGuide},
	reflect.TypeFor[fold.Side]():       {fold.Outside, fold.Inside},
	reflect.TypeFor[sheet.Direction](): {sheet.AnyWay, sheet.GrainLong, sheet.GrainShort, sheet.OneWayUp},
	reflect.TypeFor[card.Lie]():        {card.Portrait, card.Landscape},
	reflect.TypeFor[card.Turning]():    {card.TurnNone, card.TurnQuarters, card.TurnFreely},
	reflect.TypeFor[card.Marks]():      {card.MarksForMachine, card.MarksForHand, card.NoMarks},
	reflect.TypeFor[measure.Unit]():    {measure.In, measure.MM},
	reflect.TypeFor[app.JobState]():    {app.Running, app.Done, app.Stopped, app.Failed},
}

func baseKinds() []any {
	var out []any
	for _, k := range fold.Kinds() {
		out = append(out, k.ID)
	}
	return out
}

func uses() []any {
	out := []any{pathops.AsPiece, pathops.AsPrinted, pathops.LeaveOut}
	for _, r := range card.Roles() {
		out = append(out, pathops.Use(r))
	}
	return out
}

// prefix tells types of different packages apart that share a name.
var prefix = map[string]string{"scene": "Scene", "fold": "Net", "sheet": "Sheet", "cut": "Cut", "paper": "Paper", "lettering": ""}

// name is the name of a type in the schema.
func name(t reflect.Type) string {
	p := prefix[path.Base(t.PkgPath())]
	if t.Name() == p {
		return p
	}
	return p + t.Name()
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
			case t == reflect.TypeFor[geom.Affine]():
				six := uint64(6)
				return &jsonschema.Schema{Type: "array", Items: &jsonschema.Schema{Type: "number"}, MinItems: &six, MaxItems: &six}
			case words[t] != nil:
				return &jsonschema.Schema{Type: "string", Enum: words[t]}
			}
			return nil
		},
	}
}

// Schema is the JSON Schema of everything that goes over the API, as one
// object with a definition for each type; commands are under "Command".
func Schema() ([]byte, error) {
	root := &jsonschema.Schema{Version: jsonschema.Version, Title: "API", Type: "object", Definitions: jsonschema.Definitions{}}
	add := func(v any) string {
		s := reflector().Reflect(v)
		maps.Copy(root.Definitions, s.Definitions)
		return name(reflect.TypeOf(v))
	}
	for _, v := range []any{
		app.View{}, app.Summary{}, app.Picture{}, app.LayoutView{}, app.CutterState{}, app.Mishap{}, sheet.Scrap{}, sheet.OnHand{}, app.TrueSize{}, app.OtherCutter{}, app.Job{}, app.Event{}, app.Incoming{}, LayDrawing{}, app.FoldView{}, fold.Directions{},
		Catalogue{}, Measure{}, Length{}, WordsSet{}, arrange.Gap{}, arrange.Fit{}, app.PictureFacts{}, app.Supply{}, app.Sketch{}, app.NewSketch{}, FromSketch{}, ColourSeen{}, NewCard{}, CardRef{}, Problem{},
	} {
		add(v)
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

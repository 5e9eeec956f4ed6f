package app

import (
	"reflect"

	"sectilis/core/check"
	"sectilis/core/design/arrange"
	"sectilis/core/design/drawnbase"
	"sectilis/core/design/freehand"
	"sectilis/core/design/pathops"
	"sectilis/core/design/points"
	"sectilis/core/design/tracing"
	"sectilis/core/design/typeset"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/cleanform"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/measure"
	"sectilis/core/ground/shape"
	"sectilis/core/production/assembly"
	"sectilis/core/production/sheet"
)

// Vocabulary lists the words that a named string type may hold, for the schema of the API.
// Types whose values are open, such as ids, have no entry.
var Vocabulary = vocabulary(
	of(kinds()...),
	of(check.Note, check.Caution, check.Stop),
	of(check.IDs()...),
	of(scene.Sharp, scene.Soft, scene.Coarse),
	of(card.Photo, card.Paper, card.Shape, card.Lettering, card.Mat, card.Drawing, card.Slot),
	of(card.TakesPhoto, card.TakesWords),
	of(card.StockByName, card.PhotoByName, card.ThereByName),
	of(NameWaits, NameCutting, NamePart, NameCut, NameOut),
	of(card.Printed, card.Cut, card.Lined, card.Carved, card.Welded, card.Trims),
	of(card.LooseIslands, card.BridgedIslands, card.NoIslands),
	of(card.NoBevel, card.PrintedBevel, card.CutBevel),
	of(shape.IDs()...),
	of(card.Square, card.Round, card.Bevel),
	of(tracing.Whole, tracing.FilledIn, tracing.Hole),
	of(card.AlignLeft, card.AlignCentre, card.AlignRight, card.AlignJustify),
	of(card.Features()...),
	of(typeset.Lies()...),
	of(card.ByLine, card.ByWord, card.ByLetter),
	of(card.OnBaseline, card.RaisedLetters, card.LoweredLetters),
	of(card.TurnedLetters, card.UprightLetters, card.ShearedLetters),
	of(card.Arch, card.Bulge, card.Flag, card.Wedge),
	of(uses()...),
	of(drawnbase.Answers()...),
	of(assembly.Kinds()...),
	of(freehand.Pen, freehand.Marker, freehand.Chisel),
	of(Free, PersonalUse, CreditDue),
	of(arrange.Left, arrange.Centre, arrange.Right, arrange.Top, arrange.Middle, arrange.Bottom),
	of(arrange.SupplyKinds()...),
	of(arrange.EachOther, arrange.TheFace, arrange.TheFirst),
	of(arrange.FaceArea, arrange.PieceArea, arrange.GapArea),
	of(arrange.Row, arrange.Grid, arrange.Ring),
	of(card.Roles()...),
	of(fold.Outside, fold.Inside),
	of(fold.Upright, fold.Level, fold.OnTable),
	of(sheet.AnyWay, sheet.GrainLong, sheet.GrainShort, sheet.OneWayUp),
	of(card.Portrait, card.Landscape),
	of(card.TurnNone, card.TurnQuarters, card.TurnFreely),
	of(card.MarksForMachine, card.MarksForHand, card.NoMarks),
	of(measure.In, measure.MM),
	of(Running, Done, Stopped, Failed),
	of(PrintJob, RunJob, LoadJob, FindJob, TestJob, CloserJob),
	of(RunWaiting, RunLoaded, RunFound, RunCutting, RunDone, RunStopped, RunFailed),
	of(CutterReady, CutterLooking, CutterCutting, CutterWantsTool, CutterStopped, CutterNoMat, CutterJammed, CutterOff, CutterAway),
	of(lettering.Embeddings()...),
	of(points.Smooth, points.Corner, points.Straight, points.Curved),
	of(ByTransparency, ByDarkness, ByColours, ByLayers),
	of(cleanform.Rectangle, cleanform.Rounded, cleanform.Circle, cleanform.Ellipse, cleanform.Polygon, cleanform.Star),
	of(edging.Sides()...),
	of(edging.Corners()...),
	of(card.TierRules()...),
	of(TableEvent, CardEvent, JobEvent, InksEvent, StocksEvent, AssemblyEvent),
)

// typed is the words of one type.
type typed struct {
	typ   reflect.Type
	words []string
}

func of[T ~string](words ...T) typed {
	out := typed{typ: reflect.TypeFor[T]()}
	for _, w := range words {
		out.words = append(out.words, string(w))
	}
	return out
}

func vocabulary(all ...typed) map[reflect.Type][]string {
	out := map[reflect.Type][]string{}
	for _, t := range all {
		out[t.typ] = t.words
	}
	return out
}

func kinds() []card.BaseKind {
	var out []card.BaseKind
	for _, k := range fold.Kinds() {
		out = append(out, k.ID)
	}
	return out
}

func uses() []pathops.Use {
	out := []pathops.Use{pathops.AsPiece, pathops.AsPrinted, pathops.LeaveOut}
	for _, r := range card.Roles() {
		out = append(out, pathops.Use(r))
	}
	return out
}

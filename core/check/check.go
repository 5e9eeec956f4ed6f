// Package check looks at a card for what would spoil paper: each finding says where, why and
// what would be right. A check is one file with one entry in the registry; it stands on the
// document, on folding, on design, whose commands mend, and on how pieces are laid on sheets.
package check

import (
	"cmp"
	"encoding/json"
	"fmt"
	"image"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/sheet"
)

// Weight is how much a finding matters.
type Weight string

// A note can be left, a caution should be looked at, a stop spoils the card.
const (
	Note    Weight = "note"
	Caution Weight = "caution"
	Stop    Weight = "stop"
)

// Reads is what a check looks at: with it the check runs again.
type Reads string

// What checks look at.
const (
	TheScene   Reads = "scene"   // what lies on the faces
	TheFolding Reads = "folding" // that, and how the base folds
	TheSheets  Reads = "sheets"  // how its pieces are laid on sheets
	ThePrint   Reads = "print"   // how what is printed looks
	TheWhole   Reads = "whole"   // the card as a thing that is sent and sold, and its supplies
	TheNames   Reads = "names"   // the cards that are made for the names of its list
)

// ID names a check; it never changes.
type ID string

// Finding is one result of a check.
type Finding struct {
	Check  ID          `json:"check"`
	Weight Weight      `json:"weight"`
	Face   card.FaceID `json:"face"`
	Item   string      `json:"item,omitempty"` // "" for the base itself
	// Row is that of a name whose card shows it, where not every card does.
	Row string `json:"row,omitempty"`
	Why string `json:"why"`
	// At is where on its face it is, mm; nil where it is no matter of a place.
	At *geom.Rect `json:"at,omitempty"`
	// Left is why a person has left it so; "" where that has not been said.
	Left string `json:"left,omitempty"`
	// By is how far, mm, where it is a matter of distance.
	By float64 `json:"by"`
	// Mends are what would mend it, each by itself, the likeliest first.
	Mends []Mend `json:"mends,omitempty"`
}

// Mend is a change that mends a finding: of the card or, with Paper, of the papers on hand.
type Mend struct {
	Says  string  `json:"says"` // for a button
	Do    []Step  `json:"do,omitempty"`
	Paper *SizeOf `json:"paper,omitempty"`
}

// SizeOf is a size of a stock that is on hand too, by their ids.
type SizeOf struct {
	Stock string `json:"stock"`
	Size  string `json:"size"`
}

// Step is a command under its name. In JSON it is the command with its name as "do".
type Step struct {
	Name    string
	Command card.Command
}

// MarshalJSON implements json.Marshaler.
func (s Step) MarshalJSON() ([]byte, error) {
	raw, err := json.Marshal(s.Command)
	if err != nil {
		return nil, fmt.Errorf("write %s: %w", s.Name, err)
	}
	fields := map[string]json.RawMessage{}
	if err := json.Unmarshal(raw, &fields); err != nil {
		return nil, fmt.Errorf("write %s: %w", s.Name, err)
	}
	if fields["do"], err = json.Marshal(s.Name); err != nil {
		return nil, fmt.Errorf("write %s: %w", s.Name, err)
	}
	return json.Marshal(fields)
}

// Check is an entry of the registry.
type Check struct {
	ID    ID    `json:"id"`
	Reads Reads `json:"reads"`
	// Title is what it finds, after the name of an item. Matters is why that matters at the paper.
	Title   string `json:"title"`
	Matters string `json:"matters"`

	find func(in *Input) []Finding
}

// All are the checks, in the order in which the findings of an item are told.
func All() []Check { return slices.Clone(checks) }

// IDs are the ids of all checks.
func IDs() []ID {
	out := make([]ID, len(checks))
	for i, c := range checks {
		out[i] = c.ID
	}
	return out
}

// Run runs the checks that read a part of a card. Its findings stand in the order of the
// faces and of the items from below, those of the base last; there may be none.
func Run(what Reads, in Input) []Finding {
	in.folding, in.faults = nil, nil
	if in.Papers == nil {
		in.Papers = scene.AsUsual
	}
	out := []Finding{}
	for _, k := range checks {
		if k.Reads != what {
			continue
		}
		for _, f := range k.find(&in) {
			f.Check = k.ID
			in.place(&f)
			f.Left = in.Card.LeftSo(string(f.Check), f.Item)
			out = append(out, f)
		}
	}
	place := map[string]int{"": 1 << 30}
	for _, f := range in.Scene.Faces {
		for i := range f.Items {
			place[f.Items[i].ID] = len(place)
		}
	}
	slices.SortStableFunc(out, func(a, b Finding) int { return cmp.Compare(place[a.Item], place[b.Item]) })
	return out
}

// place says where a finding about an item is, where its check has not.
func (in *Input) place(f *Finding) {
	if f.At != nil || f.Item == "" {
		return
	}
	face := in.Scene.Face(f.Face)
	if face == nil {
		return
	}
	if it := face.Item(f.Item); it != nil {
		b := it.Bounds
		f.At = &b
	}
}

// Input is what checks look at. Layout is needed by those that read the sheets, Seen by those
// that read the print.
type Input struct {
	Card   card.Card
	Scene  *scene.Scene
	Layout *sheet.Layout
	// Papers is what the printer lays down on each stock; nil for what is usual.
	Papers scene.Papers
	// Seen paints what is seen of a face in a box, without the ink of an item but with what its look
	// adds below that, so many pixels to the millimetre; nil where that cannot be had.
	Seen func(f *scene.Face, box geom.Rect, without string, perMM float64) image.Image
	// Picture is a picture by its id, as small as is enough to see its colours; nil where it cannot be
	// had.
	Picture func(id string) image.Image
	// Whole is needed by those that read the card as a whole.
	Whole *Whole
	// Copies are the cards that are made for the names of its list, for those that read these.
	Copies  []sheet.Copy
	folding *folding // made when a check asks for it, as are faults
	faults  map[string][]NameFault
}

// each calls a function for every item, from below, with its face and its document.
func (in *Input) each(do func(f *scene.Face, it *scene.Item, doc *card.Item)) {
	for i := range in.Scene.Faces {
		f := &in.Scene.Faces[i]
		docs := in.Card.Face(f.ID)
		for j := range f.Items {
			if doc := docs.Item(f.Items[j].ID); doc != nil {
				do(f, &f.Items[j], doc)
			}
		}
	}
}

// of is a finding about an item; why goes on after its name.
func of(w Weight, f *scene.Face, it *scene.Item, by float64, mends []Mend, why string, args ...any) Finding {
	return Finding{Weight: w, Face: f.ID, Item: it.ID, Why: fmt.Sprintf("“%s” ", it.Name) + fmt.Sprintf(why, args...), By: by, Mends: mends}
}

// small is what nobody sees, mm.
const small = .2

func say(mm float64) string { return measure.FormatBoth(mm) }

// study is how the base of the card folds.
func (in *Input) study() *fold.Study { return fold.StudyOf(in.Card.Base) }

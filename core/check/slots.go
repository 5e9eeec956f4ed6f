package check

import (
	"strings"

	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// openSlots finds slots that nothing was put in.
func openSlots(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, _ *card.Item) {
		if it.Slot == "" {
			return
		}
		what := "a photo"
		if it.Slot == card.TakesWords {
			what = "words"
		}
		out = append(out, of(Caution, f, it, 0, []Mend{{Says: "Take it out", Do: []Step{{"removeItems", card.RemoveItems{IDs: []string{it.ID}}}}}},
			"waits for %s still: nothing is printed or cut there.", what))
	})
	return out
}

// sampleWords finds lettering that says what lettering says until something is written in it.
func sampleWords(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if doc.Words == nil || !strings.EqualFold(strings.TrimSpace(doc.Words.Text), arrange.SampleWords) {
			return
		}
		out = append(out, of(Caution, f, it, 0, []Mend{{Says: "Take it out", Do: []Step{{"removeItems", card.RemoveItems{IDs: []string{it.ID}}}}}}, "says “%s”: write in it what the card is to say.", doc.Words.Text))
	})
	return out
}

// hiddenThings tells of what is hidden, face by face.
func hiddenThings(in *Input) (out []Finding) {
	for i := range in.Scene.Faces {
		f := &in.Scene.Faces[i]
		for _, h := range f.Hidden {
			show := card.HideItems{IDs: []string{h.ID}, Hidden: false}
			out = append(out, Finding{Weight: Note, Face: f.ID, Item: h.ID, Why: "“" + h.Name + "” is hidden: it is neither printed nor cut.",
				Mends: []Mend{{Says: "Show it", Do: []Step{{"hideItems", show}}}}})
		}
	}
	return out
}

package check

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
)

// missing finds what is made with a supply that is not there any more.
func missing(in *Input) (out []Finding) {
	if in.Whole == nil {
		return nil
	}
	for _, s := range in.Whole.Supplies {
		face, item := in.with(s.Kind, s.ID)
		if !s.Gone || len(in.allWith(s)) == 0 {
			continue
		}
		f := Finding{Weight: Stop, Face: face, Item: item}
		switch s.Kind {
		case "photo":
			f.Why = "The picture “" + s.Name + "” is not there any more: bring the same file in again, or nothing is printed where it was."
			f.Mends = []Mend{{Says: "Take it off the card", Do: []Step{{"removeItems", card.RemoveItems{IDs: in.allWith(s)}}}}}
		case "paper":
			f.Why = "The paper “" + s.Name + "” is not there any more: bare stock shows where it was."
			all := pattern.All()
			other := all[slices.IndexFunc(all, func(p pattern.Paper) bool { return !p.Own })] // some ship with the program
			f.Mends = []Mend{{Says: "Take “" + other.Name + "” in its place", Do: []Step{{"setFill", card.SetFill{IDs: in.allWith(s), Fill: card.Fill{Paper: other.ID}}}}}}
		case "lettering":
			plain, _ := lettering.ByID(lettering.Plain()) // it ships with the program
			f.Why = "The font “" + s.Name + "” is not there any more: its words stand in " + plain.Name + " for now."
			f.Mends = []Mend{{Says: "Set them in " + plain.Name, Do: in.inPlain(s)}}
		default:
			continue // the rest is kept within the card
		}
		out = append(out, f)
	}
	return out
}

// Gone reports whether a patterned paper or a typeface that a card names is not there.
func Gone(kind, id string) bool {
	switch kind {
	case "paper":
		_, ok := pattern.ByID(id)
		return !ok
	case "lettering":
		return !lettering.Known(id)
	}
	return false
}

// allWith are all items that are made with a supply; slots, which only show what would be put there, are
// not among them.
func (in *Input) allWith(s Supply) (ids []string) {
	for _, f := range in.Card.Faces {
		for i := range f.Items {
			if f.Items[i].Slot == nil && madeWith(&f.Items[i], s.Kind, s.ID) {
				ids = append(ids, f.Items[i].ID)
			}
		}
	}
	return ids
}

// inPlain sets the words of a typeface that is gone in the plain one.
func (in *Input) inPlain(s Supply) (out []Step) {
	for _, id := range in.allWith(s) {
		_, it := in.Card.Find(id)
		out = append(out, Step{"setWords", card.SetWords{ID: id, Words: lettering.AtHand(*it.Words)}})
	}
	return out
}

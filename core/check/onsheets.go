package check

import (
	"fmt"

	"sectilis/core/document/card"
	"sectilis/core/ground/wording"
	"sectilis/core/production/sheet"
)

// noRoom finds pieces that have no room on the paper of their stock.
func noRoom(in *Input) (out []Finding) {
	for _, p := range in.Layout.Problems {
		f := Finding{Weight: Stop, Why: p.Why}
		f.Face, f.Item = in.piece(p.ID)
		if p.Offer != nil {
			f.Mends = []Mend{{Says: "Use " + p.Offer.Name + " too", Paper: &SizeOf{p.Stock.ID, p.Offer.ID}}}
		}
		out = append(out, f)
	}
	return out
}

// laidOtherwise finds what is laid otherwise than one would think, or left out for now.
func laidOtherwise(in *Input) (out []Finding) {
	for _, n := range in.Layout.Notes {
		f := Finding{Weight: Note, Why: n.Why}
		if len(n.Untie) > 0 {
			f.Weight = Caution
			f.Face, f.Item = in.piece(n.Untie[0])
			f.Mends = []Mend{{Says: "Untie them", Do: []Step{{"untiePieces", card.UntiePieces{Pieces: n.Untie}}}}}
		}
		out = append(out, f)
	}
	return out
}

// unregistered finds sheets that are printed and then cut by a machine that nothing tells where the print
// lies.
func unregistered(in *Input) (out []Finding) {
	for _, sh := range in.Layout.Sheets {
		if !sh.Unregistered() {
			continue
		}
		setup := in.Card.SheetsOf()
		f := Finding{Weight: Stop, Why: fmt.Sprintf("Sheet %d of %s is printed and has no marks: the machine cannot find where its print lies, and cuts up to 3 mm (⅛ in) beside it.", sh.Number, sh.Stock.Name)}
		setup.Marks, setup.Unmarked = card.MarksForMachine, nil
		f.Mends = append(f.Mends, Mend{Says: "Print marks on it", Do: []Step{{"setSheets", sheet.SetSheets{Sheets: setup}}}})
		setup.Marks = card.MarksForHand
		f.Mends = append(f.Mends, Mend{Says: "Print crop marks, to cut it by hand", Do: []Step{{"setSheets", sheet.SetSheets{Sheets: setup}}}})
		for _, p := range sh.Pieces {
			if f.Face, f.Item = in.piece(p.ID); f.Item != "" {
				break
			}
		}
		out = append(out, f)
	}
	return out
}

// tooFew finds stocks of which more sheets are needed than there are.
func tooFew(in *Input) (out []Finding) {
	for _, s := range in.Layout.Short {
		out = append(out, Finding{Weight: Caution, Why: fmt.Sprintf("%s of %s, %s, are needed, and there are %d.", wording.Counted(s.Needs, "sheet", "sheets"), s.Stock.Name, s.Size.Name, s.Has)})
	}
	return out
}

// piece is the item that a piece is, with its face; both are empty for the base.
func (in *Input) piece(id string) (card.FaceID, string) {
	if f, it := in.Card.Find(card.ItemOf(id)); it != nil {
		return f.ID, it.ID
	}
	return "", ""
}

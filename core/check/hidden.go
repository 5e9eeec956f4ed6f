package check

// leastSeen is the share of a thing that has to be seen when the card is open.
const leastSeen = .1

// hidden finds what another panel hides when the card is open.
func hidden(in *Input) (out []Finding) {
	study := in.study()
	for _, p := range in.onPanels().items {
		// A background lies on every panel of its face, and a slot is nothing yet.
		thing := p.item.Role == "" && p.item.Slot == "" && !p.doc.Background && !p.onSheet.Empty()
		if thing && study.Seen(p.panel, p.face.Side, p.onSheet) < leastSeen {
			out = append(out, of(Caution, p.face, p.item, 0, nil, "is hidden when the card is open: another panel is in front of it."))
		}
	}
	return out
}

package check

// meets finds pieces that run into another panel while the card folds.
func meets(in *Input) (out []Finding) {
	study := in.study()
	for _, p := range in.onPanels().items {
		if !p.item.Piece {
			continue
		}
		c := study.Meets(p.panel, p.onSheet)
		if c == nil {
			continue
		}
		back, _ := p.face.OnSheet.Inverse()
		at := back.Apply(study.Panels[p.panel].Middle)
		if study.PanelAt(c.At) >= 0 {
			at = back.Apply(c.At)
		}
		out = append(out, of(Stop, p.face, p.item, 0, nil,
			"runs into another panel when the card is %.0f° open, %s from the left and %s from the top. Make it smaller or move it.",
			180*(1-c.Closing), say(at.X), say(at.Y)))
	}
	return out
}

package app

import (
	"bytes"
	"context"
	"io"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/format/pdf"
	"sectilis/core/format/svg"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/assembly"
	"sectilis/core/production/sheet"
)

// AssemblyView is the guide of a card with what has been done of it.
type AssemblyView struct {
	Revision int64 `json:"revision"`
	// Cards is how many are laid: the guide is that of one.
	Cards int `json:"cards"`
	assembly.Guide
	// Done are the steps that have been ticked off.
	Done []string `json:"done"`
}

// planned is a card as it is laid on its sheets.
type planned struct {
	rev    Revision
	scene  scene.Scene
	layout sheet.Layout
}

// plan lays a card on sheets, as they are laid for printing; of a card that is made for each name it is the
// one that is shown, of several that are alike the first. It returns ErrNotFound for a card that is not
// on the table and a *Damaged for one that cannot be read.
func (p *production) plan(ctx context.Context, id string) (planned, error) {
	rev, base, copies, err := p.cards.toLay(ctx, id)
	if err != nil {
		return planned{}, err
	}
	out := planned{rev: rev, scene: base}
	row := copies[0].Row
	if slices.ContainsFunc(copies, func(k sheet.Copy) bool { return rev.Card.EachLaid() && k.Row == rev.Card.Names.Shown }) {
		row = rev.Card.Names.Shown
	}
	setup := card.UsualSheets()
	if own := out.rev.Card.Sheets; own != nil {
		setup = *own
	}
	opt, err := sheet.OptionsOf(setup)
	if err != nil {
		return planned{}, err
	}
	if opt, err = p.paper(ctx, opt); err != nil {
		return planned{}, err
	}
	by := p.nester(ctx)
	out.layout = sheet.LayCopies(rev.Card, copies, opt, by.answer).Of(row)
	return out, by.err
}

// Assembly is how a card is put together, with lengths in a unit. It returns ErrNotFound for a card that is not on the table and a
// *Damaged for one that cannot be read.
func (p *production) Assembly(ctx context.Context, id string, u measure.Unit) (AssemblyView, error) {
	of, err := p.plan(ctx, id)
	if err != nil {
		return AssemblyView{}, err
	}
	v := AssemblyView{Revision: of.rev.Number, Cards: of.rev.Card.CardsLaid(), Guide: assembly.Of(of.rev.Card, &of.scene, &of.layout, u)}
	v.Done, err = keptList[string](ctx, p.store, ticked(id))
	if v.Done == nil {
		v.Done = []string{}
	}
	return v, err
}

// ticked is what the steps of a card that are done are kept under.
func ticked(id string) string { return "assembly of " + id }

// mostTicked bounds how many steps are kept as done.
const mostTicked = 2000

// TickStep keeps whether a step of a card is done. It returns a *card.Refusal for what is no step, and
// fails when the store does.
func (p *production) TickStep(ctx context.Context, id, step string, done bool) error {
	if step == "" || len(step) > 80 {
		return &card.Refusal{Field: "step", Why: "There is no such step."}
	}
	if _, err := p.cards.Title(ctx, id); err != nil {
		return err
	}
	err := changeList(ctx, p.lists, p.store, ticked(id), func(list []string) ([]string, error) {
		list = slices.DeleteFunc(list, func(s string) bool { return s == step })
		if done {
			list = append(list, step)
		}
		return list[max(0, len(list)-mostTicked):], nil
	})
	if err == nil {
		p.events.send(Event{Kind: AssemblyEvent, Card: id})
	}
	return err
}

// StepPicture is the picture of a step, as an SVG on no ground. The photos in it are as fine as its longer
// side in pixels needs. It returns ErrNotFound for a card or a step that is not there.
func (p *production) StepPicture(ctx context.Context, id, step string, u measure.Unit, side int) ([]byte, error) {
	of, err := p.plan(ctx, id)
	if err != nil {
		return nil, err
	}
	g := assembly.Of(of.rev.Card, &of.scene, &of.layout, u)
	at := slices.IndexFunc(g.Steps, func(s assembly.Step) bool { return s.ID == step })
	if at < 0 {
		return nil, ErrNotFound
	}
	inks, box := stepInks(of, g, at, u)
	var b bytes.Buffer
	err = svg.WriteInks(&b, inks, box.Grow(2), p.supplies.shown(ctx, side))
	return b.Bytes(), err
}

// shown gives previews of pictures that are as fine as a longer side in pixels needs.
func (u *supplies) shown(ctx context.Context, side int) func(id string) ([]byte, error) {
	at := slices.IndexFunc(Sides, func(s int) bool { return s >= side })
	if at < 0 {
		at = len(Sides) - 1
	}
	return func(id string) ([]byte, error) {
		_, raw, err := u.PicturePreview(ctx, id, Sides[at])
		return raw, err
	}
}

// WriteGuide writes how a card is put together as PDF, with 1, 2 or 4 steps on a page. It returns a
// *card.Refusal for another number, ErrNotFound for a card that is not on the table, and the error of w.
func (p *production) WriteGuide(ctx context.Context, w io.Writer, id string, u measure.Unit, perPage int) error {
	if perPage != 1 && perPage != 2 && perPage != 4 {
		return card.Refuse("per", "A page of the guide has 1, 2 or 4 steps.")
	}
	of, err := p.plan(ctx, id)
	if err != nil {
		return err
	}
	g := assembly.Of(of.rev.Card, &of.scene, &of.layout, u)
	return pdf.WriteGuide(w, g, pdf.GuideAs{Title: of.rev.Card.Title, PerPage: perPage, Unit: u,
		Picture:   func(step int) ([]scene.Ink, geom.Rect) { return stepInks(of, g, step, u) },
		Originals: p.supplies.shown(ctx, guideSide),
	})
}

// guideSide is the longer side, in pixels, that photos in a printed guide need.
const guideSide = 800

// stepInks are the inks of the picture of a step, and the room that they take.
func stepInks(of planned, g assembly.Guide, at int, u measure.Unit) ([]scene.Ink, geom.Rect) {
	st := g.Steps[at]
	if inks, box, ok := assembly.Picture(of.rev.Card, &of.scene, st, g.Steps[:at], u); ok {
		return inks, box
	}
	switch st.Kind {
	case assembly.Print, assembly.Cut:
		inks, box := assembly.SheetsPicture(of.layout.Sheets, st.Kind == assembly.Cut)
		return inks, box
	}
	inks, box := of.scene.Standing(of.rev.Card)
	return inks, box
}

package app

import (
	"context"
	"encoding/json"
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// Correction is what a printer's pages are scaled by, across and down, so that they come
// out in true size.
type Correction struct {
	Across float64 `json:"across"`
	Down   float64 `json:"down"`
}

// TrueSize is a printer's correction, and how long the rulers of its test page are on a
// size of paper, across and down, mm.
type TrueSize struct {
	Correction
	Rulers [2]float64 `json:"rulers"`
}

// TrueSize tells what a test page has to measure, and what was measured. It fails when the
// store does.
func (p *production) TrueSize(ctx context.Context, size sheet.Size) (TrueSize, error) {
	w, h := rulers(size)
	c, err := p.Correction(ctx)
	return TrueSize{c, [2]float64{w, h}}, err
}

// maxCorrection is how far off a printer may be, as a share; what is further off was
// printed “to fit”.
const maxCorrection = .03

func (p *production) correctionName() string {
	name := "none"
	if p.printer != nil {
		name = p.printer.Name()
	}
	return "correction of " + name
}

// Correction returns that of the printer; 1 across and down where none was measured. It fails
// when the store does.
func (p *production) Correction(ctx context.Context) (Correction, error) {
	c := Correction{1, 1}
	found, err := keptAs(ctx, p.store, p.correctionName(), &c)
	if err == nil && found {
		err = c.check()
	}
	return c, err
}

func (c Correction) check() error {
	for field, v := range map[string]float64{"across": c.Across, "down": c.Down} {
		if !(math.Abs(v-1) <= maxCorrection) {
			return card.Refuse(field, "A printer is off by up to 3 %%; more than that is a page that was fitted to its paper. Choose “actual size” at the printer and print the test page again.")
		}
	}
	return nil
}

// Measured corrects the printer by what the rulers of its test page measure, mm. It returns a
// *card.Refusal for measures that no printer is off by.
func (p *production) Measured(ctx context.Context, size sheet.Size, across, down float64) (Correction, error) {
	was, err := p.Correction(ctx)
	if err != nil {
		return was, err
	}
	w, h := rulers(size)
	c := Correction{was.Across * w / across, was.Down * h / down}
	if !(across > 0 && down > 0) {
		return was, card.Refuse("across", "Measure both rulers of the test page, in inches or millimetres.")
	}
	if err := c.check(); err != nil {
		return was, err
	}
	return c, p.keepCorrection(ctx, c)
}

// AsItComes forgets the printer's correction. It fails when the store does.
func (p *production) AsItComes(ctx context.Context) error {
	return p.keepCorrection(ctx, Correction{1, 1})
}

func (p *production) keepCorrection(ctx context.Context, c Correction) error {
	raw, err := json.Marshal(c)
	if err != nil {
		return err
	}
	return p.store.Keep(ctx, p.correctionName(), raw)
}

// rulers are the lengths of the rulers across and down a test page: whole ten
// millimetres, as long as have room.
func rulers(s sheet.Size) (across, down float64) {
	long := func(v float64) float64 { return math.Floor((v-50)/10) * 10 }
	return long(s.Width), long(s.Height)
}

// TestPage prints a page with a ruler across and one down, to be measured, as a job. Without a
// printer it refuses.
func (p *production) TestPage(ctx context.Context, size sheet.Size) (Job, error) {
	if p.printer == nil {
		return Job{}, errNoPrinter
	}
	inks, err := testPage(size)
	if err != nil {
		return Job{}, err
	}
	return p.jobs.start(Job{Kind: PrintJob}, func(ctx context.Context, update func(func(*Job))) error {
		update(func(j *Job) { j.Note = "Printing the test page" })
		ref, err := p.printOne(ctx, "Test page", size, "#ffffff", inks)
		if err != nil {
			return err
		}
		w, h := rulers(size)
		update(func(j *Job) {
			j.Note = fmt.Sprintf("Measure both rulers: they should be %.0f and %.0f mm.", w, h)
			if ref != "" {
				j.Pictures = append(j.Pictures, "prints/"+ref)
			}
		})
		return nil
	}), nil
}

// testPage is a ruler across the middle and one down, with a tick for every millimetre.
func testPage(size sheet.Size) ([]scene.Ink, error) {
	const black = "#000000"
	var inks []scene.Ink
	line := func(m geom.Affine, a, b geom.Point, width float64) {
		var g geom.Builder
		path := g.Move(a).Line(b).Path().Transform(m)
		inks = append(inks, scene.Ink{Region: geom.Stroke(path, width, geom.RoundCorner, geom.ButtCap), Colour: black})
	}
	word := func(text string, at geom.Point) error {
		set, err := lettering.Set(card.Words{Text: text, Font: "patrick-hand-400", Size: 4})
		if err != nil {
			return err
		}
		box := set.Outline.Bounds()
		inks = append(inks, scene.Ink{Region: set.Outline.Transform(geom.Shift(at.X-box.X-box.W/2, at.Y-box.Y-box.H/2)), Colour: black})
		return nil
	}
	w, h := rulers(size)
	mid := geom.Pt(size.Width/2, size.Height/2)
	for _, r := range []struct {
		length float64
		at     geom.Affine
		name   geom.Point
	}{
		{w, geom.Shift(mid.X-w/2, mid.Y), geom.Pt(mid.X+w/4, mid.Y+12)},
		{h, geom.Turn(math.Pi / 2).Then(geom.Shift(mid.X, mid.Y-h/2)), geom.Pt(mid.X+18, mid.Y-h/4)},
	} {
		line(r.at, geom.Pt(0, 0), geom.Pt(r.length, 0), .15)
		for k := 0.0; k <= r.length; k++ {
			long := 1.5
			switch {
			case k == 0 || k == r.length:
				long = 8
			case math.Mod(k, 10) == 0:
				long = 4
			case math.Mod(k, 5) == 0:
				long = 2.5
			}
			line(r.at, geom.Pt(k, -long), geom.Pt(k, 0), .12)
		}
		if err := word(fmt.Sprintf("%.0f mm", r.length), r.name); err != nil {
			return nil, err
		}
	}
	return inks, word("Measure both rulers from end to end", geom.Pt(mid.X, mid.Y-h/2-8))
}

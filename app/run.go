package app

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"sync"

	"sectilis/core/card"
	"sectilis/core/cut"
	"sectilis/core/format/hpgl"
	"sectilis/core/format/raster"
	"sectilis/core/geom"
	"sectilis/core/marks"
	"sectilis/core/sheet"
)

// RunState is where the run of a sheet stands.
type RunState struct {
	State   string `json:"state"` // waiting, cutting, done, stopped or failed
	Job     string `json:"job,omitempty"`
	Picture string `json:"picture,omitempty"` // of the result, relative to /api
	Why     string `json:"why,omitempty"`
	result  []byte
}

// runs remembers runs by what was cut, so that a sheet that has changed since
// is waiting again.
type runs struct {
	mu sync.Mutex
	m  map[string]RunState
	// printed is where the printed front of a sheet is found at the printer.
	printed map[string]string
}

func key(id string, sh sheet.Sheet) string {
	h := sha256.New()
	fmt.Fprintf(h, "%s %d %s %s", id, sh.Number, sh.Stock.ID, sh.Size.ID)
	for _, p := range sh.Pieces {
		for _, l := range p.Lines {
			fmt.Fprintf(h, " %s %s", l.Role, l.Path)
		}
	}
	return fmt.Sprintf("%x", h.Sum(nil)[:12])
}

func (r *runs) get(id string, sh sheet.Sheet) RunState {
	r.mu.Lock()
	defer r.mu.Unlock()
	if s, ok := r.m[key(id, sh)]; ok {
		return s
	}
	return RunState{State: "waiting"}
}

func (r *runs) set(k string, s RunState) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.m[k] = s
}

// CutterState is what the cutter says of itself now.
func (a *App) CutterState(ctx context.Context) CutterState {
	if a.cutter == nil {
		return CutterState{State: "away", Why: errNoCutter.Error()}
	}
	return a.cutter.State(ctx)
}

// RunPicture is the picture of a run's result.
func (a *App) RunPicture(k string) ([]byte, error) {
	a.runs.mu.Lock()
	defer a.runs.mu.Unlock()
	s, ok := a.runs.m[k]
	if !ok || s.result == nil {
		return nil, ErrNotFound
	}
	return s.result, nil
}

// Run cuts one sheet, as a job: a stand-in is given the sheet, marks are looked for,
// and what is cut is moved to where the sheet is found to lie.
func (a *App) Run(ctx context.Context, id string, opt sheet.Options, number int) (Job, error) {
	sh, _, err := a.sheetByNumber(ctx, id, opt, number)
	if err != nil {
		return Job{}, err
	}
	state := a.CutterState(ctx)
	if !state.Ready {
		return Job{}, &card.Refusal{Field: "cutter", Why: "The cutter is not ready: " + state.Why}
	}
	if sh.Size.Width > state.Bed[0]+1e-6 || sh.Size.Height > state.Bed[1]+1e-6 {
		return Job{}, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("The sheet is %g × %g mm; %s reaches %g × %g mm.",
			sh.Size.Width, sh.Size.Height, state.Name, state.Bed[0], state.Bed[1])}
	}
	k := key(id, sh.Sheet)
	page := ""
	if state.Hand && sh.Printed {
		if page = a.runs.page(k); page == "" {
			return Job{}, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("Print sheet %d first: its marks tell the cutter where it lies.", number)}
		}
	}
	return a.jobs.start(Job{Kind: "run", Card: id, Sheet: number}, func(ctx context.Context, update func(func(*Job))) error {
		update(func(j *Job) { a.runs.set(k, RunState{State: "cutting", Job: j.ID}) })
		lies, err := a.place(ctx, sh.Sheet, state, page, update)
		if err == nil {
			err = a.cut(ctx, sh.Sheet, lies, state, update)
		}
		done := RunState{State: "done"}
		if err != nil {
			done = RunState{State: "failed", Why: err.Error()}
			if errors.Is(err, context.Canceled) {
				done = RunState{State: "stopped"}
			}
		}
		// What was cut until then is worth seeing, however the run ended.
		if raw, perr := a.cutter.Picture(context.WithoutCancel(ctx)); perr == nil {
			done.result, done.Picture = raw, "runs/"+k+".png"
			update(func(j *Job) { j.Pictures = []string{done.Picture} })
		} else {
			a.log.Warn("no picture of the bed", "err", perr)
		}
		a.runs.set(k, done)
		return err
	}), nil
}

// place puts the sheet on the mat of a stand-in and finds how it lies, in mm from the
// upper left corner of the bed. Without marks, or without an eye, it lies where it
// belongs.
func (a *App) place(ctx context.Context, sh sheet.Sheet, state CutterState, page string, update func(func(*Job))) (geom.Affine, error) {
	// A sheet that fills the bed has no room at its corner.
	expect := geom.Shift(min(state.Corner[0], state.Bed[0]-sh.Size.Width), max(0, state.Bed[1]-state.Corner[1]-sh.Size.Height))
	if state.Hand {
		update(func(j *Job) { j.Note = "Putting the sheet on the cutting mat" })
		raw, err := a.onMat(ctx, sh, page)
		if err == nil {
			err = a.cutter.LayDown(ctx, raw, sh.Size.Width)
		}
		if err != nil {
			return expect, err
		}
	}
	if len(sh.Marks) == 0 || !state.Eye {
		return expect, nil
	}
	update(func(j *Job) { j.Note = "Looking for the marks" })
	drawn := make([]marks.Mark, len(sh.Marks))
	for i, m := range sh.Marks {
		drawn[i] = marks.Mark{At: m.At, Second: m.Second}
	}
	found, err := marks.Find(ctx, a.cutter, drawn, marks.Shape{Ring: sheet.MarkRing, Stroke: sheet.MarkStroke, Dot: sheet.MarkDot}, expect)
	if err != nil {
		return expect, err
	}
	update(func(j *Job) { j.Note, j.Lies = "", &found })
	return found.At, nil
}

// onMat is the sheet as a stand-in is given it: as it came from the printer, or bare.
func (a *App) onMat(ctx context.Context, sh sheet.Sheet, page string) ([]byte, error) {
	if page != "" {
		return a.printer.Picture(ctx, page)
	}
	const perMM = 2.0
	bare := image.NewPaletted(image.Rect(0, 0, int(sh.Size.Width*perMM), int(sh.Size.Height*perMM)), color.Palette{raster.Colour(sh.Stock.Colour)})
	var b bytes.Buffer
	if err := png.Encode(&b, bare); err != nil {
		return nil, fmt.Errorf("encode sheet: %w", err)
	}
	return b.Bytes(), nil
}

// cut sends the passes of the sheet, which lies as told, to the cutter.
func (a *App) cut(ctx context.Context, sh sheet.Sheet, lies geom.Affine, state CutterState, update func(func(*Job))) error {
	moved := sh.Moved(lies)
	moved.Size.Height = state.Bed[1]
	passes := cut.Plan(moved, cut.SettingsOf(sh.Stock))
	steps := hpgl.Steps(passes, state.Bed[1])
	total, seconds := steps[len(steps)-1].Run, 0.0
	for _, p := range passes {
		seconds += p.Seconds
	}
	back, _ := lies.Inverse() // what was fitted or shifted has one
	at := geom.Pt(0, sh.Size.Height)
	return a.cutter.Run(ctx, steps, func(i int) {
		s := steps[i]
		if i == 0 || s.Run > steps[i-1].Run {
			at = back.Apply(reached(passes, s))
		}
		share := s.Run / total
		update(func(j *Job) {
			j.Progress = share
			j.Run = &RunInfo{s.Pass, s.Path, at.X, at.Y, seconds * (1 - share)}
		})
	})
}

// page is where the printed sheet is found, or "".
func (r *runs) page(k string) string {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.printed[k]
}

func (r *runs) cameOut(k, ref string) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.printed[k] = ref
}

// reached is where the tool stands after a step.
func reached(passes []cut.Pass, s hpgl.Step) geom.Point {
	if s.Pass >= len(passes) || s.Path >= len(passes[s.Pass].Paths) {
		return geom.Point{}
	}
	run := s.Run
	for _, p := range passes[:s.Pass] {
		run -= p.Length
	}
	for _, l := range passes[s.Pass].Paths[:s.Path] {
		run -= l.Length()
	}
	return passes[s.Pass].Paths[s.Path].At(run)
}

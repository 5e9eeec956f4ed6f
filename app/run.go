package app

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"sync"

	"sectilis/core/card"
	"sectilis/core/format/hpgl"
	"sectilis/core/geom"
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

// Run cuts one sheet, as a job.
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
	steps := hpgl.Steps(sh.Passes, sh.Size.Height)
	k := key(id, sh.Sheet)
	total, seconds := steps[len(steps)-1].Run, 0.0
	for _, p := range sh.Passes {
		seconds += p.Seconds
	}
	return a.jobs.start(Job{Kind: "run", Card: id, Sheet: number}, func(ctx context.Context, update func(func(*Job))) error {
		update(func(j *Job) { a.runs.set(k, RunState{State: "cutting", Job: j.ID}) })
		at := geom.Point{Y: sh.Size.Height}
		err := a.cutter.Run(ctx, steps, func(i int) {
			s := steps[i]
			if i == 0 || s.Run > steps[i-1].Run {
				at = reached(sh, s)
			}
			share := s.Run / total
			update(func(j *Job) {
				j.Progress = share
				j.Run = &RunInfo{s.Pass, s.Path, at.X, at.Y, seconds * (1 - share)}
			})
		})
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

// reached is where the tool stands after a step, on the sheet.
func reached(sh SheetView, s hpgl.Step) geom.Point {
	if s.Pass >= len(sh.Passes) || s.Path >= len(sh.Passes[s.Pass].Paths) {
		return geom.Point{}
	}
	run := s.Run
	for _, p := range sh.Passes[:s.Pass] {
		run -= p.Length
	}
	for _, l := range sh.Passes[s.Pass].Paths[:s.Path] {
		run -= l.Length()
	}
	return sh.Passes[s.Pass].Paths[s.Path].At(run)
}

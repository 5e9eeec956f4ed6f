package app

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"slices"
	"sync"

	"sectilis/core/cut"
	"sectilis/core/geom"
	"sectilis/core/marks"
	"sectilis/core/sheet"
)

// RunState is where the run of a sheet stands.
type RunState struct {
	State   string `json:"state"` // waiting, loaded, found, cutting, done, stopped or failed
	Job     string `json:"job,omitempty"`
	Picture string `json:"picture,omitempty"` // of the result, relative to /api
	Why     string `json:"why,omitempty"`
	// Done of Of steps are cut, on a sheet that lies as told. A run that was broken off
	// can go on from there as long as the sheet is not moved.
	Done int          `json:"done"`
	Of   int          `json:"of"`
	Lies *marks.Found `json:"lies,omitempty"`
	// Rest is where the tool came to rest with its work half done, mm from the upper left
	// corner of the bed.
	Rest *geom.Point `json:"rest,omitempty"`
	// Tests is how many test cuts were made on the sheet.
	Tests int `json:"tests,omitempty"`
	// Apart is how far each piece was cut from its print, where that can be measured.
	Apart []cut.Apart `json:"apart,omitempty"`
}

// broken says that a run can go on.
func (s RunState) broken() bool {
	return (s.State == "stopped" || s.State == "failed") && s.Done > 0 && s.Done < s.Of && s.Lies != nil
}

// runs remembers runs by what was cut, so that a sheet that has changed since
// is waiting again.
type runs struct {
	mu sync.Mutex
	m  map[string]RunState
	// last is the run that was begun last: its sheet is the one on the mat. It is
	// empty after a restart.
	last string
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

// runKey tells runs apart: what is cut another way is another run.
func runKey(id string, sh sheet.Sheet, with cut.Settings) string {
	h := sha256.Sum256(fmt.Appendf(nil, "%s %v", key(id, sh), with))
	return fmt.Sprintf("%x", h[:12])
}

// runState is where the run of a sheet stands, from memory or from disk.
func (a *App) runState(ctx context.Context, k string) RunState {
	a.runs.mu.Lock()
	defer a.runs.mu.Unlock()
	if s, ok := a.runs.m[k]; ok {
		return s
	}
	s := RunState{State: "waiting"}
	if raw, err := a.store.Run(ctx, k); err == nil && json.Unmarshal(raw, &s) == nil {
		s.Job = "" // that of a program that has ended
		if _, err := a.store.Result(ctx, k); err != nil {
			s.Picture = ""
		}
		if s.State == "cutting" {
			s.State, s.Why = "stopped", "The program ended while it was cutting."
		}
	}
	a.runs.m[k] = s
	return s
}

// setRun notes where a run stands, on disk too if it is to be kept.
func (a *App) setRun(ctx context.Context, k string, s RunState, keep bool) {
	a.runs.mu.Lock()
	a.runs.m[k] = s
	a.runs.mu.Unlock()
	if !keep {
		return
	}
	raw, err := json.Marshal(s)
	if err == nil {
		err = a.store.KeepRun(context.WithoutCancel(ctx), k, raw, a.now())
	}
	if err != nil {
		a.log.Warn("run not kept", "err", err)
	}
}

// CutterState is what the cutter says of itself now.
func (a *App) CutterState(ctx context.Context) CutterState {
	cutter := a.machine.now()
	if cutter == nil {
		return CutterState{State: "away", Why: errNoCutter.Error()}
	}
	s := cutter.State(ctx)
	a.machine.told(s.Bed)
	return s
}

// RunPicture is the picture of a run's result.
func (a *App) RunPicture(ctx context.Context, k string) ([]byte, error) {
	return a.store.Result(ctx, k)
}

// begun notes the run that is begun, if any is named, and tells which was last.
func (r *runs) begun(k string) string {
	r.mu.Lock()
	defer r.mu.Unlock()
	if k != "" {
		r.last = k
	}
	return r.last
}

// cameOut is a sheet that came out of the printer.
type cameOut struct {
	Sheet string `json:"sheet"`
	Ref   string `json:"ref"` // of its front, at the printer
}

// maxOut is how many printed sheets are remembered.
const maxOut = 100

// page is where the printed sheet is found, or "".
func (a *App) page(ctx context.Context, k string) string {
	for _, c := range slices.Backward(kept[cameOut](ctx, a, "printed")) {
		if c.Sheet == k {
			return c.Ref
		}
	}
	return ""
}

// cameOut remembers where a printed sheet is found.
func (a *App) cameOut(ctx context.Context, k, ref string) error {
	a.runs.mu.Lock()
	defer a.runs.mu.Unlock()
	all := slices.DeleteFunc(kept[cameOut](ctx, a, "printed"), func(c cameOut) bool { return c.Sheet == k || c.Ref == ref })
	all = append(all, cameOut{k, ref})
	return keepList(ctx, a, "printed", all[max(0, len(all)-maxOut):])
}

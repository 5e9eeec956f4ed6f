package app

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"sync"
	"time"

	"sectilis/core/format/hpgl"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/registration"
	"sectilis/core/production/sheet"
)

// RunStage is how far the run of a sheet has come.
type RunStage string

// The stages of a run: not begun, on the mat, its marks found, under way, and how it ended.
const (
	RunWaiting RunStage = "waiting"
	RunLoaded  RunStage = "loaded"
	RunFound   RunStage = "found"
	RunCutting RunStage = "cutting"
	RunDone    RunStage = "done"
	RunStopped RunStage = "stopped"
	RunFailed  RunStage = "failed"
)

// RunState is where the run of a sheet stands.
type RunState struct {
	State   RunStage `json:"state"`
	Job     string   `json:"job,omitempty"`
	Picture string   `json:"picture,omitempty"` // of the result, relative to /api
	Why     string   `json:"why,omitempty"`
	// Done of Of steps are cut, on a sheet that lies as told. A run that was broken off
	// can go on from there as long as the sheet is not moved. Given is up to which step
	// the machine may have been sent them; it is kept before they are sent.
	Done  int `json:"done"`
	Of    int `json:"of"`
	Given int `json:"given,omitempty"`
	// Unknown says that the machine has not told how far it came: a person has to say
	// where to go on. Of a run that is done it says that nothing has confirmed that.
	Unknown bool `json:"unknown,omitempty"`
	// Resumed is how often the run has gone on after it was broken off.
	Resumed int                 `json:"resumed,omitempty"`
	Lies    *registration.Found `json:"lies,omitempty"`
	// Rest is where the tool came to rest with its work half done, mm from the upper left
	// corner of the bed.
	Rest *geom.Point `json:"rest,omitempty"`
	// Sent says that more was sent since Rest was told (hpgl.Progress).
	Sent bool `json:"sent,omitempty"`
	// Tests is how many test cuts were made on the sheet.
	Tests int `json:"tests,omitempty"`
	// Apart is how far each piece was cut from its print, where that can be measured.
	Apart []cut.Apart `json:"apart,omitempty"`
}

// broken says that a run can go on.
func (s RunState) broken() bool {
	return (s.State == RunStopped || s.State == RunFailed) && s.Given > 0 && s.Done < s.Of && s.Lies != nil
}

// advance changes how far a run has come by a function, which alone knows what has to hold of it.
func (s *RunState) advance(do func(p *hpgl.Progress) bool) bool {
	p := hpgl.Progress{Done: s.Done, Given: s.Given, Rest: s.Rest, Sent: s.Sent}
	ok := do(&p)
	s.Done, s.Given, s.Rest, s.Sent = p.Done, p.Given, p.Rest, p.Sent
	return ok
}

// OutcomeStore keeps what became of runs.
type OutcomeStore interface {
	keeper
	// Run returns how far a run came; ErrNotFound if there was none. KeepRun keeps it.
	Run(ctx context.Context, key string) ([]byte, error)
	KeepRun(ctx context.Context, key string, state []byte, at time.Time) error
	// Result is the picture of what a run cut; ErrNotFound if there is none. KeepResult
	// keeps it, for a good while.
	Result(ctx context.Context, key string) ([]byte, error)
	KeepResult(ctx context.Context, key string, picture []byte, at time.Time) error
}

// outcomes are what became of the runs of sheets.
type outcomes struct {
	common
	store OutcomeStore
	runs  runs
}

// runs remembers runs by what was cut, so that a sheet that has changed since
// is waiting again.
type runs struct {
	known *cache.Cache[string, RunState]
	mu    sync.Mutex
	// last is the run that was begun last: its sheet is the one on the mat. It is
	// empty after a restart.
	last string
	// now is the run that is under way, if any.
	now underWay
}

// underWay names the sheet that is being cut.
type underWay struct {
	card   string
	number int
	key    string
}

// begin notes the run that is under way; none when it has ended.
func (r *runs) begin(u underWay) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.now = u
}

// changed says of a card's sheets, by the keys of their runs, that the one which is being
// cut is not among them any more; "" otherwise.
func (r *runs) changed(card string, keys []string) string {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.now.card != card || slices.Contains(keys, r.now.key) {
		return ""
	}
	return fmt.Sprintf("The card was changed while sheet %d is being cut: what is cut is the sheet as it was when the run began.", r.now.number)
}

func key(id string, sh sheet.Sheet) string {
	h := sha256.New()
	fmt.Fprintf(h, "%s %d %s %s", id, sh.Number, sh.Stock.ID, sh.Size.ID)
	for _, p := range sh.Pieces {
		if p.Row != "" {
			fmt.Fprintf(h, " for %s %s", p.Row, p.Says) // what is cut alike for another name is another
		}
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

// runState returns where the run of a sheet stands, from memory or from disk; it is
// waiting if there was none.
func (o *outcomes) runState(ctx context.Context, k string) (RunState, error) {
	return o.runs.known.Of(k, func() (RunState, error) {
		s := RunState{State: RunWaiting}
		raw, err := o.store.Run(ctx, k)
		if _, err := decode(raw, err, &s, "how far the sheet was cut"); err != nil {
			return s, err
		}
		s.Job = "" // that of a program that has ended
		for i := range s.Apart {
			s.Apart[i].Judge()
		}
		switch _, err := o.store.Result(ctx, k); {
		case errors.Is(err, ErrNotFound):
			s.Picture = ""
		case err != nil:
			return s, fmt.Errorf("read the picture of the result: %w", err)
		}
		if s.State == RunCutting {
			s.State, s.Why = RunStopped, "The program ended while it was cutting."
		}
		return s, nil
	})
}

// setRun notes where a run stands, on disk too if it is to be kept. What could not be kept
// is noted in memory all the same.
func (o *outcomes) setRun(ctx context.Context, k string, s RunState, keep bool) error {
	o.runs.known.Put(k, s)
	if !keep {
		return nil
	}
	raw, err := json.Marshal(s)
	if err == nil {
		err = o.store.KeepRun(context.WithoutCancel(ctx), k, raw, o.now())
	}
	if err != nil {
		o.log.Warn("run not kept", "err", err)
		return fmt.Errorf("how far the sheet is cut could not be noted: %w", err)
	}
	return nil
}

// RunPicture is the picture of a run's result. It returns ErrNotFound when there is none.
func (o *outcomes) RunPicture(ctx context.Context, k string) ([]byte, error) {
	return o.store.Result(ctx, k)
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
const maxOut = 600

// page returns where the printed sheet is found, or "" if none came out.
func (o *outcomes) page(ctx context.Context, k string) (string, error) {
	all, err := keptList[cameOut](ctx, o.store, "printed")
	for _, c := range slices.Backward(all) {
		if c.Sheet == k {
			return c.Ref, nil
		}
	}
	return "", err
}

// cameOut remembers where a printed sheet is found.
func (o *outcomes) cameOut(ctx context.Context, k, ref string) error {
	return changeList(ctx, o.lists, o.store, "printed", func(all []cameOut) ([]cameOut, error) {
		all = slices.DeleteFunc(all, func(c cameOut) bool { return c.Sheet == k || c.Ref == ref })
		all = append(all, cameOut{k, ref})
		return all[max(0, len(all)-maxOut):], nil
	})
}

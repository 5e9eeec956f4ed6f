package app

import (
	"context"
	"errors"
	"maps"
	"slices"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"sectilis/core/production/registration"
)

// JobState says where a job stands.
type JobState string

// The states of a job; all but Running are final.
const (
	Running JobState = "running"
	Done    JobState = "done"
	Stopped JobState = "stopped"
	Failed  JobState = "failed"
)

// JobKind is what a job does.
type JobKind string

// The kinds of jobs.
const (
	PrintJob  JobKind = "print"
	RunJob    JobKind = "run"
	LoadJob   JobKind = "load"
	FindJob   JobKind = "find"
	TestJob   JobKind = "test"
	CloserJob JobKind = "closer"
)

// Job is work that takes a while.
type Job struct {
	ID       string   `json:"id"`
	Kind     JobKind  `json:"kind"`
	Card     string   `json:"card"`
	Sheet    int      `json:"sheet,omitempty"`
	State    JobState `json:"state"`
	Progress float64  `json:"progress"` // 0 to 1
	Note     string   `json:"note,omitempty"`
	Run      *RunInfo `json:"run,omitempty"`
	// Paused says that it was held up and waits to be let go on. Needs is the tool that a
	// run waits for, 0 for none.
	Paused bool `json:"paused,omitempty"`
	Needs  int  `json:"needs,omitempty"`
	// Lies is how the sheet of a run was found to lie.
	Lies *registration.Found `json:"lies,omitempty"`
	// Pictures are where the results can be fetched, relative to /api.
	Pictures []string `json:"pictures,omitempty"`
}

// RunInfo is how far a run has come. Places are mm.
type RunInfo struct {
	Pass    int     `json:"pass"`
	Path    int     `json:"path"`
	X       float64 `json:"x"` // of the tool on the sheet, mm
	Y       float64 `json:"y"`
	Seconds float64 `json:"seconds"` // left, by plan
}

type jobs struct {
	hub  *Hub
	mu   sync.Mutex
	all  map[string]*running
	wait sync.WaitGroup
	n    int // jobs started
}

type running struct {
	job    Job
	number int // in the order in which jobs were started
	cancel context.CancelFunc
	hold   hold
}

// hold is how a person holds a job up and lets it go on.
type hold struct{ pause, goOn chan struct{} }

// forget drops what was asked for before anyone waited for it.
func (h hold) forget() {
	for _, ch := range []chan struct{}{h.pause, h.goOn} {
		select {
		case <-ch:
		default:
		}
	}
}

func newJobs(h *Hub) *jobs { return &jobs{hub: h, all: map[string]*running{}} }

// maxJobs bounds how many ended jobs are remembered.
const maxJobs = 100

// start runs work in the background. Work reports by update, which changes the
// job and tells everyone.
func (j *jobs) start(job Job, work func(ctx context.Context, update func(func(*Job))) error) Job {
	return j.startHeld(job, func(ctx context.Context, update func(func(*Job)), _ hold) error { return work(ctx, update) })
}

// startHeld is start for work that can be held up.
func (j *jobs) startHeld(job Job, work func(ctx context.Context, update func(func(*Job)), h hold) error) Job {
	ctx, cancel := context.WithCancel(context.Background())
	job.ID, job.State = newID(), Running
	r := &running{job: job, cancel: cancel, hold: hold{make(chan struct{}, 1), make(chan struct{}, 1)}}
	j.mu.Lock()
	j.n++
	r.number = j.n
	if len(j.all) >= maxJobs {
		for id, old := range j.all {
			if old.job.State != Running {
				delete(j.all, id)
			}
		}
	}
	j.all[job.ID] = r
	j.mu.Unlock()
	update := func(f func(*Job)) {
		j.mu.Lock()
		f(&r.job)
		now := r.job
		j.mu.Unlock()
		j.hub.send(Event{Kind: JobEvent, Job: &now})
	}
	j.wait.Go(func() {
		defer cancel()
		err := work(ctx, update, r.hold)
		update(func(job *Job) {
			job.Paused, job.Needs = false, 0
			switch {
			case err == nil:
				job.State, job.Progress = Done, 1
			case errors.Is(err, context.Canceled):
				job.State = Stopped
			default:
				job.State, job.Note = Failed, sentence(err)
			}
		})
	})
	return job
}

func (j *jobs) close() {
	j.mu.Lock()
	for _, r := range j.all {
		r.cancel()
	}
	j.mu.Unlock()
	j.wait.Wait()
}

// sentence is an error as people read it.
func sentence(err error) string {
	text := err.Error()
	first, size := utf8.DecodeRuneInString(text)
	text = string(unicode.ToUpper(first)) + text[size:]
	if !strings.HasSuffix(text, ".") {
		text += "."
	}
	return text
}

// Jobs lists the jobs that are under way and those that are remembered, in the order in
// which they were started.
func (j *jobs) Jobs() []Job {
	j.mu.Lock()
	defer j.mu.Unlock()
	all := slices.SortedFunc(maps.Values(j.all), func(x, y *running) int { return x.number - y.number })
	out := make([]Job, len(all))
	for i, r := range all {
		out[i] = r.job
	}
	return out
}

// Job returns a job. It returns ErrNotFound for one that is not remembered.
func (j *jobs) Job(id string) (Job, error) {
	j.mu.Lock()
	defer j.mu.Unlock()
	r := j.all[id]
	if r == nil {
		return Job{}, ErrNotFound
	}
	return r.job, nil
}

// StopJob asks a job to stop; it ends when what it is doing allows. It returns ErrNotFound for
// one that is not remembered.
func (j *jobs) StopJob(id string) error {
	j.mu.Lock()
	defer j.mu.Unlock()
	r := j.all[id]
	if r == nil {
		return ErrNotFound
	}
	r.cancel()
	return nil
}

// HoldJob holds a job up, or lets one that waits go on. It returns ErrNotFound for one that is
// not remembered.
func (j *jobs) HoldJob(id string, pause bool) error {
	j.mu.Lock()
	defer j.mu.Unlock()
	r := j.all[id]
	if r == nil {
		return ErrNotFound
	}
	ch := r.hold.goOn
	if pause {
		ch = r.hold.pause
	}
	select {
	case ch <- struct{}{}:
	default: // it was asked for already
	}
	return nil
}

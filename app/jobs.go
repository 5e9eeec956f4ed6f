package app

import (
	"context"
	"errors"
	"sync"

	"sectilis/core/marks"
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

// Job is work that takes a while.
type Job struct {
	ID       string   `json:"id"`
	Kind     string   `json:"kind"` // print, run or closer
	Card     string   `json:"card"`
	Sheet    int      `json:"sheet,omitempty"`
	State    JobState `json:"state"`
	Progress float64  `json:"progress"` // 0 to 1
	Note     string   `json:"note,omitempty"`
	Run      *RunInfo `json:"run,omitempty"`
	// Lies is how the sheet of a run was found to lie.
	Lies *marks.Found `json:"lies,omitempty"`
	// Pictures are where the results can be fetched, relative to /api.
	Pictures []string `json:"pictures,omitempty"`
}

// RunInfo is how far a run has come.
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
}

type running struct {
	job    Job
	cancel context.CancelFunc
}

func newJobs(h *Hub) *jobs { return &jobs{hub: h, all: map[string]*running{}} }

// maxJobs bounds how many ended jobs are remembered.
const maxJobs = 100

// start runs work in the background. Work reports by update, which changes the
// job and tells everyone.
func (j *jobs) start(job Job, work func(ctx context.Context, update func(func(*Job))) error) Job {
	ctx, cancel := context.WithCancel(context.Background())
	job.ID, job.State = newID(), Running
	r := &running{job: job, cancel: cancel}
	j.mu.Lock()
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
		j.hub.send(Event{Kind: "job", Job: &now})
	}
	j.wait.Go(func() {
		defer cancel()
		err := work(ctx, update)
		update(func(job *Job) {
			switch {
			case err == nil:
				job.State, job.Progress = Done, 1
			case errors.Is(err, context.Canceled):
				job.State = Stopped
			default:
				job.State, job.Note = Failed, err.Error()
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

// Job returns a job.
func (a *App) Job(id string) (Job, error) {
	a.jobs.mu.Lock()
	defer a.jobs.mu.Unlock()
	r := a.jobs.all[id]
	if r == nil {
		return Job{}, ErrNotFound
	}
	return r.job, nil
}

// StopJob asks a job to stop; it ends when what it is doing allows.
func (a *App) StopJob(id string) error {
	a.jobs.mu.Lock()
	defer a.jobs.mu.Unlock()
	r := a.jobs.all[id]
	if r == nil {
		return ErrNotFound
	}
	r.cancel()
	return nil
}

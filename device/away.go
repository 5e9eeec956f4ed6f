package device

import (
	"context"
	"errors"

	"sectilis/app"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
)

// Away is a cutter that could not be started; it says why.
type Away struct{ Why string }

// State implements app.Cutter.
func (a Away) State(context.Context) app.CutterState {
	return app.CutterState{State: app.CutterAway, Why: a.Why}
}

// Run implements app.Cutter.
func (a Away) Run(context.Context, []hpgl.Step, func(int) error) error { return errors.New(a.Why) }

// See implements app.Cutter.
func (a Away) See(context.Context, geom.Point, geom.Point, int) ([]float64, error) {
	return nil, errors.New(a.Why)
}

// Rest implements app.Cutter.
func (a Away) Rest(context.Context) (geom.Point, bool, error) {
	return geom.Point{}, false, errors.New(a.Why)
}

// Picture implements app.Cutter.
func (a Away) Picture(context.Context) ([]byte, error) { return nil, app.ErrNotFound }

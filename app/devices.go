package app

import (
	"context"

	"sectilis/core/format/hpgl"
	"sectilis/core/geom"
)

// Page is one side of a sheet for a printer, as a PNG in true size.
type Page struct {
	Title  string
	Width  float64 // mm
	Height float64
	Paper  string // the colour of what is loaded, #rrggbb
	PNG    []byte
}

// Printer lays pages down on paper.
type Printer interface {
	Name() string
	// Print returns where a picture of the printed page can be fetched, or ""
	// if the printer has none.
	Print(ctx context.Context, p Page) (ref string, err error)
	Picture(ctx context.Context, ref string) ([]byte, error)
}

// CutterState is what a cutter says of itself.
type CutterState struct {
	Name  string     `json:"name"`
	Ready bool       `json:"ready"`
	State string     `json:"state"` // ready, cutting or away
	Why   string     `json:"why,omitempty"`
	Bed   [2]float64 `json:"bed"` // width and height it can reach, mm
	// Corner is where the lower left corner of a sheet belongs, mm from that of the
	// bed.
	Corner [2]float64 `json:"corner"`
	// Eye says that it can look for marks. Hand, that it is a stand-in: sheets are put
	// on its mat by asking it to.
	Eye  bool `json:"eye,omitempty"`
	Hand bool `json:"hand,omitempty"`
	// Loaded says that a sheet lies on the mat of a stand-in.
	Loaded bool `json:"loaded,omitempty"`
}

// Cutter runs plans.
type Cutter interface {
	// State never fails: a cutter that cannot be reached is away, with a why.
	State(ctx context.Context) CutterState
	// Run sends the steps one after the other and calls done after each. When
	// ctx ends it lifts the tool and returns ctx.Err().
	Run(ctx context.Context, steps []hpgl.Step, done func(step int)) error
	// See is the brightness, 0 to 1, at n places from one place of the bed to
	// another, mm from its upper left corner.
	See(ctx context.Context, from, to geom.Point, n int) ([]float64, error)
	// LayDown puts a sheet on the mat of a stand-in, a PNG of a width in mm.
	LayDown(ctx context.Context, sheet []byte, width float64) error
	// Picture is a PNG of the bed after the last run.
	Picture(ctx context.Context) ([]byte, error)
}

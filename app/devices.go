package app

import (
	"context"

	"sectilis/core/format/hpgl"
	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
)

// Page is one side of a sheet for a printer, as a PNG in true size.
type Page struct {
	Title  string
	Width  float64 // mm
	Height float64
	Paper  string // the colour of what is loaded, #rrggbb
	Kind   gamut.Paper
	PNG    []byte
}

// Printer lays pages down on paper.
type Printer interface {
	Name() string
	// Print returns where a picture of the printed page can be fetched, or ""
	// if the printer has none.
	Print(ctx context.Context, p Page) (ref string, err error)
	// Picture is the printed page as a PNG; small is one to be looked at.
	Picture(ctx context.Context, ref string, small bool) ([]byte, error)
}

// CutterStatus is what a cutter is doing, or what is wrong with it.
type CutterStatus string

// What a cutter can be doing. CutterAway is one that does not answer.
const (
	CutterReady     CutterStatus = "ready"
	CutterLooking   CutterStatus = "looking" // for marks
	CutterCutting   CutterStatus = "cutting"
	CutterWantsTool CutterStatus = "wants tool"
	CutterStopped   CutterStatus = "stopped"
	CutterNoMat     CutterStatus = "no mat"
	CutterJammed    CutterStatus = "jammed"
	CutterOff       CutterStatus = "off"
	CutterAway      CutterStatus = "away"
)

// CutterState is what a cutter says of itself.
type CutterState struct {
	Name  string       `json:"name"`
	Ready bool         `json:"ready"`
	State CutterStatus `json:"state"`
	Why   string       `json:"why,omitempty"`
	Bed   [2]float64   `json:"bed"` // width and height it can reach, mm
	// Corner is where the lower left corner of a sheet belongs, mm from that of the
	// bed.
	Corner [2]float64 `json:"corner"`
	// Eye says that it can look for marks. Hand, that it is a stand-in: sheets are put
	// on its mat by asking it to.
	Eye  bool `json:"eye,omitempty"`
	Hand bool `json:"hand,omitempty"`
	// Loaded says that a sheet lies on the mat of a stand-in.
	Loaded bool `json:"loaded,omitempty"`
	// Silent says that it has told nothing in its last run: what it has done is known by
	// plan only.
	Silent bool `json:"silent,omitempty"`
	// Tool is what a stand-in has in its holder; 0 where it is not known.
	Tool int `json:"tool,omitempty"`
	// Mishap is what is about to go wrong at a stand-in, or has and is not mended.
	Mishap *Mishap `json:"mishap,omitempty"`
}

// Halt is a run that ended before its time. Where the tool came to rest is known if
// At is set, mm from the upper left corner of the bed; Down says that it was cutting.
// Unknown says that the machine does not tell how far it has come.
type Halt struct {
	At      *geom.Point
	Down    bool
	Unknown bool
	Err     error
}

func (h *Halt) Error() string { return h.Err.Error() }

// Unwrap is the error that ended the run.
func (h *Halt) Unwrap() error { return h.Err }

// Cutter runs plans.
type Cutter interface {
	// State never fails: a cutter that cannot be reached is away, with a why.
	State(ctx context.Context) CutterState
	// Run sends the steps one after the other and calls done after each, before the next
	// is sent; an error of done ends the run. When ctx ends it lifts the tool; whatever
	// ends it early is a Halt.
	Run(ctx context.Context, steps []hpgl.Step, done func(step int) error) error
	// See is the brightness, 0 to 1, at n places from one place of the bed to
	// another, mm from its upper left corner.
	See(ctx context.Context, from, to geom.Point, n int) ([]float64, error)
	// Rest is where the tool stands, mm from the upper left corner of the bed, and
	// whether it is down.
	Rest(ctx context.Context) (at geom.Point, down bool, err error)
	// Picture is a PNG of the bed after the last run.
	Picture(ctx context.Context) ([]byte, error)
}

// Hand does for a stand-in what people do at a cutter.
type Hand interface {
	// LayDown puts a sheet on the mat, a PNG of a width in mm; TakeOff takes it off.
	LayDown(ctx context.Context, sheet []byte, width float64) error
	TakeOff(ctx context.Context) error
	// Fit puts a tool into the holder.
	Fit(ctx context.Context, tool int) error
	// Outcome is where the tools truly went, on the sheet's own paper: mm from its upper
	// left corner.
	Outcome(ctx context.Context) ([]Way, error)
	// Mishap lets something go wrong from now on.
	Mishap(ctx context.Context, m Mishap) error
}

// Way is where a tool went while it was down.
type Way struct {
	Tool   int          `json:"tool"`
	Points []geom.Point `json:"points"`
}

// Mishap is what goes wrong at a stand-in. Corners are numbered from 1: upper left,
// upper right, lower left, lower right. Slip, Lost and Jam are mm with the tool down
// until they happen; 0 is never.
type Mishap struct {
	Off     bool    `json:"off"`
	NoMat   bool    `json:"noMat"`
	Smudged []int   `json:"smudged"`
	Missing []int   `json:"missing"`
	Slip    float64 `json:"slip"`
	Lost    float64 `json:"lost"`
	Jam     float64 `json:"jam"`
}

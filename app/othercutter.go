package app

import (
	"context"
	"encoding/json"
	"fmt"
	"net"
	"path"
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
)

// OtherCutter is a cutter of a person's own that reads HP-GL, used instead of the stand-in. Lengths are
// mm.
type OtherCutter struct {
	// Name tells it from others; empty is its address.
	Name string `json:"name,omitempty"`
	// Address is host:port, or the path of a serial line; "" for the cutter that the
	// program was started with.
	Address string `json:"address"`
	// Width and Height are what it reaches.
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	// Blind are the edges of its cutting mat beyond that, which no tool reaches: at the left, the right,
	// the far and the near edge.
	Blind [4]float64 `json:"blind"`
	// Tools say where other tools stand from the blade.
	Tools []ToolAt `json:"tools,omitempty"`
	// Speed, mm/s, and Force, g, are the most that it does; 0 is whatever a stock asks for.
	Speed float64 `json:"speed,omitempty"`
	Force int     `json:"force,omitempty"`
}

// ToolAt is where a tool stands from the blade, mm: to the right, and nearer to the person.
type ToolAt struct {
	Tool   cut.Tool `json:"tool"`
	Across float64  `json:"across"`
	Down   float64  `json:"down"`
}

// called is the name that it goes by.
func (o OtherCutter) called() string {
	if o.Name != "" {
		return o.Name
	}
	return o.Address
}

// within are settings as far as the machine does them.
func (o OtherCutter) within(s cut.Settings) cut.Settings {
	if o.Speed > 0 {
		s.Speed, s.Travel = min(s.Speed, o.Speed), min(s.Travel, o.Speed)
	}
	if o.Force > 0 {
		s.Force, s.Light = min(s.Force, o.Force), min(s.Light, o.Force)
	}
	return s
}

// steered are passes as the holder of the blade has to go so that each tool runs where it ought to.
func (o OtherCutter) steered(passes []cut.Pass) []cut.Pass {
	out := slices.Clone(passes)
	for i, p := range out {
		for _, t := range o.Tools {
			if t.Tool == p.Tool {
				out[i] = cut.Move([]cut.Pass{p}, geom.Shift(-t.Across, -t.Down))[0]
			}
		}
	}
	return out
}

// check refuses what no cutter is.
func (o OtherCutter) check() error {
	if o.Address == "" {
		return nil
	}
	if err := o.checkAddress(); err != nil {
		return err
	}
	for field, v := range map[string]float64{"width": o.Width, "height": o.Height} {
		if !(v >= 50 && v <= 2000) {
			return card.Refuse(field, "A cutter reaches between 50 mm (2 in) and 2 m.")
		}
	}
	if utf8.RuneCountInString(o.Name) > 60 || strings.ContainsFunc(o.Name, func(r rune) bool { return r < ' ' }) {
		return card.Refuse("name", "The name of a cutter has at most 60 letters, on one line.")
	}
	for _, v := range o.Blind {
		if !(v >= 0 && v <= 100) {
			return card.Refuse("blind", "The edges of the mat that no tool reaches are up to 100 mm (3 15/16 in) wide.")
		}
	}
	if o.Speed != 0 && !(o.Speed >= 5 && o.Speed <= 2000) {
		return card.Refuse("speed", "A cutter goes between 5 and 2000 mm/s at most; 0 is as fast as a stock asks for.")
	}
	if o.Force != 0 && !(o.Force >= 5 && o.Force <= 10_000) {
		return card.Refuse("force", "A cutter presses with 5 to 10 000 g at most; 0 is as hard as a stock asks for.")
	}
	if len(o.Tools) > 8 {
		return card.Refuse("tools", "A cutter has up to eight tools.")
	}
	for _, t := range o.Tools {
		if t.Tool < cut.Pen || t.Tool > cut.LightBlade || !(max(t.Across, -t.Across, t.Down, -t.Down) <= 100) {
			return card.Refuse("tools", "A tool stands up to 100 mm (3 15/16 in) from the blade.")
		}
	}
	return nil
}

// checkAddress refuses what is neither an address with its port nor a serial line.
func (o OtherCutter) checkAddress() error {
	if len(o.Address) > 200 || strings.ContainsFunc(o.Address, func(r rune) bool { return r <= ' ' || !unicode.IsPrint(r) }) {
		return card.Refuse("address", "The address of a cutter has no spaces, line ends or other characters that cannot be seen.")
	}
	if strings.HasPrefix(o.Address, "/") {
		if clean := path.Clean(o.Address); clean != o.Address || !strings.HasPrefix(clean, "/dev/") {
			return card.Refuse("address", "A serial line is named by its device path, like /dev/ttyUSB0.")
		}
		return nil
	}
	host, port, err := net.SplitHostPort(o.Address)
	if n, perr := strconv.Atoi(port); err != nil || perr != nil || host == "" || n < 1 || n > 65535 || strings.ContainsAny(host, "/?#@\\%") {
		return card.Refuse("address", "A cutter is named by its address and port, like 192.168.1.40:9100, or by the path of its serial line, like /dev/ttyUSB0.")
	}
	return nil
}

// machine is the cutter in use.
type machine struct {
	mu    sync.Mutex
	own   Cutter // that the program was started with
	asked bool   // whether one was named is known
	named Cutter // that a person has named instead
	is    OtherCutter
	bed   [2]float64 // as it was told last
	other func(OtherCutter) Cutter
	busy  string // what its owner does with it, as a sentence; "" if it is free
}

// reserve takes the machine for one owner, from the loading of a sheet to the end of what
// is done with it, and returns the function that gives it back. While somebody has it,
// the error is ErrBusy and says what is going on.
func (m *machine) reserve(doing string) (free func(), err error) {
	m.mu.Lock()
	defer m.mu.Unlock()
	if err := m.inUse(); err != nil {
		return nil, err
	}
	m.busy = doing
	return func() {
		m.mu.Lock()
		defer m.mu.Unlock()
		m.busy = ""
	}, nil
}

// now is the cutter in use, or nil.
func (m *machine) now() Cutter {
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.named != nil {
		return m.named
	}
	return m.own
}

// idle returns ErrBusy, with what is under way, while the machine has an owner.
func (m *machine) idle() error {
	m.mu.Lock()
	defer m.mu.Unlock()
	return m.inUse()
}

// inUse is idle while the lock is held.
func (m *machine) inUse() error {
	if m.busy == "" {
		return nil
	}
	return &sentenceError{ErrBusy, m.busy + " Wait until that is done, or stop it."}
}

// isAsked reports whether it is known if a person has named a cutter.
func (m *machine) isAsked() bool {
	m.mu.Lock()
	defer m.mu.Unlock()
	return m.asked
}

// reach is what the cutter reaches, as far as it has told, mm.
func (m *machine) reach() [2]float64 {
	m.mu.Lock()
	defer m.mu.Unlock()
	return m.bed
}

func (m *machine) told(bed [2]float64) {
	m.mu.Lock()
	defer m.mu.Unlock()
	if bed[0] > 0 {
		m.bed = bed
	}
}

func (m *machine) use(o OtherCutter) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.is, m.named, m.asked = o, nil, true
	if o.Address != "" && m.other != nil {
		m.named = m.other(o)
		m.bed = [2]float64{o.Width, o.Height}
	}
}

// ofOnesOwn is the machine of a person's own that is in use; without an address where none is.
func (m *machine) ofOnesOwn() OtherCutter {
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.named == nil {
		return OtherCutter{}
	}
	return m.is
}

// mat is the size of the sheets that go into the machine, as far as that is known, and how far from their
// edges no tool reaches, mm.
func (m *machine) mat() (size [2]float64, blind float64) {
	size = m.reach()
	b := m.ofOnesOwn().Blind
	if size[0] > 0 {
		size[0], size[1] = size[0]+b[0]+b[1], size[1]+b[2]+b[3]
	}
	return size, max(b[0], b[1], b[2], b[3])
}

// Named is the cutter that a person has named; its address is "" where none is.
func (m *machining) Named() OtherCutter {
	m.machine.mu.Lock()
	defer m.machine.mu.Unlock()
	return m.machine.is
}

// UseCutter takes another cutter from now on, or with an empty address the one that the
// program was started with. ErrBusy while something is under way at the cutter.
func (m *machining) UseCutter(ctx context.Context, o OtherCutter) error {
	o.Address = strings.TrimSpace(o.Address)
	if err := o.check(); err != nil {
		return err
	}
	free, err := m.machine.reserve("Another cutter is being named.")
	if err != nil {
		return err
	}
	defer free()
	raw, err := json.Marshal(o)
	if err != nil {
		return err
	}
	if err := m.keepMachine(ctx, o); err != nil {
		return err
	}
	if err := m.store.Keep(ctx, "cutter", raw); err != nil {
		return err
	}
	m.fitted.set(0)
	m.machine.use(o)
	return nil
}

const (
	keptMachines = "machines"
	mostMachines = 40
)

// Machines are the cutters of a person's own that were used, the last one first. It fails when the store
// does.
func (m *machining) Machines(ctx context.Context) ([]OtherCutter, error) {
	return keptList[OtherCutter](ctx, m.store, keptMachines)
}

// keepMachine keeps a machine among those of a person's own, in place of the one of its name.
func (m *machining) keepMachine(ctx context.Context, o OtherCutter) error {
	if o.Address == "" {
		return nil
	}
	return changeList(ctx, m.lists, m.store, keptMachines, func(all []OtherCutter) ([]OtherCutter, error) {
		all = slices.DeleteFunc(all, func(k OtherCutter) bool { return k.called() == o.called() })
		all = append([]OtherCutter{o}, all...)
		return all[:min(len(all), mostMachines)], nil
	})
}

// ForgetMachine takes a machine off the list by its name; one that is in use stays in use. It returns
// ErrNotFound for one that is not there.
func (m *machining) ForgetMachine(ctx context.Context, name string) error {
	return changeList(ctx, m.lists, m.store, keptMachines, func(all []OtherCutter) ([]OtherCutter, error) {
		at := slices.IndexFunc(all, func(k OtherCutter) bool { return k.called() == name })
		if at < 0 {
			return nil, ErrNotFound
		}
		return slices.Delete(all, at, at+1), nil
	})
}

// useKeptCutter takes the cutter that was named, if one was.
func (m *machining) useKeptCutter(ctx context.Context) error {
	var o OtherCutter
	found, err := keptAs(ctx, m.store, "cutter", &o)
	if err == nil && found {
		err = o.check()
	}
	if err != nil {
		return fmt.Errorf("which cutter was named: %w", err)
	}
	m.machine.use(o)
	return nil
}

// CutterState is what the cutter says of itself now.
func (m *machining) CutterState(ctx context.Context) CutterState {
	if !m.machine.isAsked() {
		if err := m.useKeptCutter(ctx); err != nil {
			return CutterState{State: CutterAway, Why: err.Error()}
		}
	}
	cutter := m.machine.now()
	if cutter == nil {
		return CutterState{State: CutterAway, Why: errNoCutter.Error()}
	}
	s := cutter.State(ctx)
	m.machine.told(s.Bed)
	if own := m.machine.ofOnesOwn(); own.Address != "" {
		if own.Name != "" {
			s.Name = own.Name
		}
		s.Corner = [2]float64{s.Corner[0] - own.Blind[0], s.Corner[1] - own.Blind[3]}
	}
	return s
}

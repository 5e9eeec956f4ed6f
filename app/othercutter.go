package app

import (
	"context"
	"encoding/json"
	"fmt"
	"net"
	"path"
	"strconv"
	"strings"
	"sync"
	"unicode"

	"sectilis/core/document/card"
)

// OtherCutter is a cutter that reads HP-GL, named by a person instead of the stand-in.
type OtherCutter struct {
	// Address is host:port, or the path of a serial line; "" for the cutter that the
	// program was started with.
	Address string `json:"address"`
	// Width and Height are what it reaches, mm.
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

func (o OtherCutter) check() error {
	if o.Address == "" {
		return nil
	}
	if len(o.Address) > 200 || strings.ContainsFunc(o.Address, func(r rune) bool { return r <= ' ' || !unicode.IsPrint(r) }) {
		return card.Refuse("address", "The address of a cutter has no spaces, line ends or other characters that cannot be seen.")
	}
	if strings.HasPrefix(o.Address, "/") {
		if clean := path.Clean(o.Address); clean != o.Address || !strings.HasPrefix(clean, "/dev/") {
			return card.Refuse("address", "A serial line is named by its device path, like /dev/ttyUSB0.")
		}
	} else {
		host, port, err := net.SplitHostPort(o.Address)
		if n, perr := strconv.Atoi(port); err != nil || perr != nil || host == "" || n < 1 || n > 65535 || strings.ContainsAny(host, "/?#@\\%") {
			return card.Refuse("address", "A cutter is named by its address and port, like 192.168.1.40:9100, or by the path of its serial line, like /dev/ttyUSB0.")
		}
	}
	for field, v := range map[string]float64{"width": o.Width, "height": o.Height} {
		if !(v >= 50 && v <= 2000) {
			return card.Refuse(field, "A cutter reaches between 50 mm (2 in) and 2 m.")
		}
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
	}
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
	if err := m.store.Keep(ctx, "cutter", raw); err != nil {
		return err
	}
	m.fitted.set(0)
	m.machine.use(o)
	return nil
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
	return s
}

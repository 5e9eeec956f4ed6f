package app

import (
	"context"
	"encoding/json"
	"net"
	"strconv"
	"strings"
	"sync"

	"sectilis/core/card"
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
	if !strings.HasPrefix(o.Address, "/") {
		host, port, err := net.SplitHostPort(o.Address)
		if n, perr := strconv.Atoi(port); err != nil || perr != nil || host == "" || n < 1 || n > 65535 {
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
	named Cutter // that a person has named instead
	is    OtherCutter
	bed   [2]float64 // as it was told last
	other func(OtherCutter) Cutter
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
	m.is, m.named = o, nil
	if o.Address != "" && m.other != nil {
		m.named = m.other(o)
	}
}

// Named is the cutter that a person has named; its address is "" where none is.
func (a *App) Named() OtherCutter {
	a.machine.mu.Lock()
	defer a.machine.mu.Unlock()
	return a.machine.is
}

// UseCutter takes another cutter from now on, or with an empty address the one that the
// program was started with. What is under way is not disturbed.
func (a *App) UseCutter(ctx context.Context, o OtherCutter) error {
	o.Address = strings.TrimSpace(o.Address)
	if err := o.check(); err != nil {
		return err
	}
	raw, err := json.Marshal(o)
	if err != nil {
		return err
	}
	if err := a.store.Keep(ctx, "cutter", raw); err != nil {
		return err
	}
	a.fitted.set(0)
	a.machine.use(o)
	return nil
}

func (a *App) useKeptCutter(ctx context.Context) {
	var o OtherCutter
	if raw, err := a.store.Kept(ctx, "cutter"); err == nil && json.Unmarshal(raw, &o) == nil && o.check() == nil {
		a.machine.use(o)
	}
}

package app

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"log/slog"
	"math"
	"sync"

	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/gamut"
	"sectilis/core/production/testpage"
)

// InkView is what is known of how the printer lays its inks on a stock.
type InkView struct {
	Stock   string `json:"stock"`
	Profile string `json:"profile,omitempty"` // the name of its profile
	// Toned says that tones are corrected as a test page measured them. Off is how far its colour
	// row was off then, on average (CIEDE2000).
	Toned bool    `json:"toned,omitempty"`
	Off   float64 `json:"off,omitempty"`
}

// inks is what is kept of a printer and a stock.
type inks struct {
	Profile []byte     `json:"profile,omitempty"` // the file (ICC)
	Name    string     `json:"name,omitempty"`
	Tone    gamut.Tone `json:"tone"`
	Off     float64    `json:"off,omitempty"`

	gamut *gamut.Gamut // of the profile; nil for as usual
}

// inkShelf keeps what is known of the printer's inks, by stock.
type inkShelf struct {
	store   keeper
	stocks  *stockShelf
	printer string
	log     *slog.Logger
	events  *Hub

	mu      sync.Mutex
	done    bool
	known   map[string]inks
	state   string     // names what is known: another, when that is another
	changes sync.Mutex // over a change
}

func (s *inkShelf) name(stock string) string { return "inks of " + s.printer + " on " + stock }

// ready reads what is kept, once. It fails when the store does, and is then to be asked again.
func (s *inkShelf) ready(ctx context.Context) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.done {
		return nil
	}
	if err := s.stocks.ready(ctx); err != nil {
		return err
	}
	known := map[string]inks{}
	for _, stock := range card.AllStocks() {
		var k inks
		found, err := keptAs(ctx, s.store, s.name(stock.ID), &k)
		if err != nil {
			return err
		}
		if !found {
			continue
		}
		if !k.Tone.Sound() {
			k.Tone = gamut.Tone{}
		}
		if len(k.Profile) > 0 {
			if k.gamut, _, err = gamut.OfProfile(k.Profile); err != nil {
				// It was read when it was brought in: colours are told as usual then.
				s.log.Warn("profile not read", "stock", stock.ID, "err", err)
				k.Profile, k.Name = nil, ""
			}
		}
		known[stock.ID] = k
	}
	s.done = true
	return s.take(known)
}

// take goes by what is known from now on. The lock is held.
func (s *inkShelf) take(known map[string]inks) error {
	raw, err := json.Marshal(known)
	if err != nil {
		return err
	}
	sum := sha256.Sum256(raw)
	s.known, s.state = known, hex.EncodeToString(sum[:6])
	return nil
}

// papers is what the printer lays down on each stock, as far as that has been read.
// The name of that state is another when something of it is.
func (s *inkShelf) papers() (on scene.Papers, state string) {
	s.mu.Lock()
	defer s.mu.Unlock()
	known := s.known
	return func(stock string) *gamut.Gamut {
		if g := known[stock].gamut; g != nil {
			return g
		}
		return scene.AsUsual(stock)
	}, s.state
}

// of is what is known of a stock.
func (s *inkShelf) of(stock string) inks {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.known[stock]
}

// change keeps what a function makes of what is known of a stock. It returns ErrNotFound for a
// stock that is not there, what the function returns, and fails when the store does.
func (s *inkShelf) change(ctx context.Context, stock string, do func(*inks) error) error {
	s.changes.Lock()
	defer s.changes.Unlock()
	if err := s.ready(ctx); err != nil {
		return err
	}
	if _, ok := card.StockByID(stock); !ok {
		return ErrNotFound
	}
	k := s.of(stock)
	if err := do(&k); err != nil {
		return err
	}
	raw, err := json.Marshal(k)
	if err != nil {
		return err
	}
	if err := s.store.Keep(ctx, s.name(stock), raw); err != nil {
		return err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	known := make(map[string]inks, len(s.known)+1) // others are reading the old one
	for id, v := range s.known {
		known[id] = v
	}
	known[stock] = k
	if err := s.take(known); err != nil {
		return err
	}
	s.events.send(Event{Kind: InksEvent})
	return nil
}

// Inks is what is known of the printer's inks, of the stocks of which there is something. It fails
// when the store does.
func (p *production) Inks(ctx context.Context) ([]InkView, error) {
	if err := p.inks.ready(ctx); err != nil {
		return nil, err
	}
	out := []InkView{}
	for _, stock := range card.AllStocks() {
		k := p.inks.of(stock.ID)
		if v := (InkView{stock.ID, k.Name, k.Tone != gamut.Tone{}, k.Off}); v != (InkView{Stock: stock.ID}) {
			out = append(out, v)
		}
	}
	return out, nil
}

// BringInProfile goes by a profile (ICC) of the printer and a stock from now on; name is that of its
// file. It returns ErrNotFound for a stock that is not there and a *card.Refusal for what is no
// profile of a printer.
func (p *production) BringInProfile(ctx context.Context, stock, name string, raw []byte) error {
	return p.inks.change(ctx, stock, func(k *inks) error {
		g, called, err := gamut.OfProfile(raw)
		var unfit gamut.Unfit
		if errors.As(err, &unfit) {
			return card.Refuse("profile", "%s", unfit)
		}
		if err != nil {
			return err
		}
		if called == "" {
			called = name
		}
		k.Profile, k.Name, k.gamut = raw, called, g
		return nil
	})
}

// WithoutProfile goes by what is usual of a stock again. Its errors are those of BringInProfile.
func (p *production) WithoutProfile(ctx context.Context, stock string) error {
	return p.inks.change(ctx, stock, func(k *inks) error {
		k.Profile, k.Name, k.gamut = nil, "", nil
		return nil
	})
}

// MeasureColours corrects the tones on a stock by a picture of the test page that was printed on it.
// It returns ErrNotFound for a stock that is not there and a *picture.Error for what is
// no picture, and a *card.Refusal for one that does not show the colour row.
func (p *production) MeasureColours(ctx context.Context, stock, name string, raw []byte) error {
	img, _, release, err := p.supplies.decode(ctx, name, raw)
	if err != nil {
		return err
	}
	defer release()
	came, err := testpage.Read(ctx, img)
	var unread testpage.Unread
	if errors.As(err, &unread) {
		return card.Refuse("picture", "%s", unread)
	}
	if err != nil {
		return err
	}
	return p.inks.change(ctx, stock, func(k *inks) error {
		k.Tone = testpage.Tone(k.Tone, came)
		on, _ := p.inks.papers()
		k.Off = rowOff(came, on(stock))
		return nil
	})
}

// MeasurePrinted corrects the tones on a stock by a test page that the printer keeps a picture of.
// Its errors are those of MeasureColours; ErrNotFound for a page that is not there, too.
func (p *production) MeasurePrinted(ctx context.Context, stock, ref string) error {
	raw, err := p.Printed(ctx, ref, false)
	if err != nil {
		return err
	}
	return p.MeasureColours(ctx, stock, "page.png", raw)
}

// AsTonesCome forgets the correction of the tones on a stock. Its errors are those of
// BringInProfile.
func (p *production) AsTonesCome(ctx context.Context, stock string) error {
	return p.inks.change(ctx, stock, func(k *inks) error {
		k.Tone, k.Off = gamut.Tone{}, 0
		return nil
	})
}

// rowOff is how far a colour row is off what prints, on average (CIEDE2000).
func rowOff(came []testpage.RGB, on *gamut.Gamut) float64 {
	sum := 0.0
	all := testpage.Patches()
	for i, c := range all {
		r, g, b, _ := on.Prints(uint8(c[0]), uint8(c[1]), uint8(c[2]))
		want := colorful.Color{R: float64(r) / 255, G: float64(g) / 255, B: float64(b) / 255}
		is := colorful.Color{R: came[i][0] / 255, G: came[i][1] / 255, B: came[i][2] / 255}.Clamped()
		sum += 100 * want.DistanceCIEDE2000(is)
	}
	return math.Round(sum/float64(len(all))*10) / 10
}

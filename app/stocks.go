package app

import (
	"context"
	"log/slog"
	"maps"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

// stockShelf keeps a person's own stocks, what she has measured of those that ship, and her own sizes
// of sheets.
type stockShelf struct {
	own   shelf[card.Stock]
	sizes shelf[sheet.Size]
}

const (
	keptStocks, keptSizes = "stocks", "sizes"
	mostStocks, mostSizes = 500, 60
)

func newStockShelf(store keeper, log *slog.Logger) *stockShelf {
	return &stockShelf{
		shelf[card.Stock]{store: store, name: keptStocks, know: func(own []card.Stock) {
			own = slices.Clone(own)
			for i := range own {
				if err := own[i].Check(); err != nil {
					// It was looked at when it was kept: what is left of it is enough for its cards.
					log.Warn("stock not sound", "stock", own[i].ID, "err", err)
					own[i] = mended(own[i])
				}
			}
			card.KnowStocks(own)
		}},
		shelf[sheet.Size]{store: store, name: keptSizes, know: func(sizes []sheet.Size) {
			sound := []sheet.Size{}
			for _, size := range sizes {
				if size, err := sheet.OwnSize(size.Name, size.Width, size.Height); err == nil {
					sound = append(sound, size)
				}
			}
			sheet.KnowSizes(sound)
		}},
	}
}

// ready reads both, once. It fails when the store does, and is then to be asked again: a card on a stock
// that could not be read is no card without it.
func (s *stockShelf) ready(ctx context.Context) error {
	if err := s.own.ready(ctx); err != nil {
		return err
	}
	return s.sizes.ready(ctx)
}

// mended is a stock that is not sound as white card of its id.
func mended(s card.Stock) card.Stock {
	return card.Stock{ID: s.ID, Name: "Stock " + s.ID, Colour: "#ffffff", Thickness: .28}
}

// is names what is known of stocks and sizes.
func (s *stockShelf) is() string { return s.own.is() + s.sizes.is() }

// Pile is how thick some sheets are together, by which the thickness of one is measured.
type Pile struct {
	Sheets   int     `json:"sheets"`
	Together float64 `json:"together"` // mm
}

// thickness is that of one sheet, mm. It returns a *card.Refusal for no pile.
func (p Pile) thickness() (float64, error) {
	if p.Sheets < 1 || p.Sheets > 1000 || !(p.Together > 0 && p.Together <= 1000) {
		return 0, card.Refuse("pile", "Measure a pile of 1 to 1000 sheets, up to 1 m (39 in) thick.")
	}
	return math.Round(p.Together/float64(p.Sheets)*1e4) / 1e4, nil
}

// MeasuredStock is a stock, whose thickness follows from a pile of it where there is one.
type MeasuredStock struct {
	card.Stock
	Pile *Pile `json:"pile,omitempty"`
}

// sound is the stock as it is kept. It returns a *card.Refusal for what is none.
func (m MeasuredStock) sound() (card.Stock, error) {
	s := m.Stock
	if m.Pile != nil {
		t, err := m.Pile.thickness()
		if err != nil {
			return s, err
		}
		s.Thickness = t
	}
	if _, ok := pattern.ByID(s.Pattern); s.Pattern != "" && !ok {
		return s, card.Refuse("pattern", "There is no such paper.")
	}
	return s, s.Check()
}

// StockView is a stock with what follows from it.
type StockView struct {
	card.Stock
	// Usual is the least width of a part that follows from its thickness, mm.
	Usual float64 `json:"usual"`
	// Changed says that it is not as it ships.
	Changed bool `json:"changed,omitempty"`
	// Cut is how it is cut, AsUsual how it is until that is noted.
	Cut     cut.Settings `json:"cut"`
	AsUsual cut.Settings `json:"asUsual"`
}

// Stocks lists all stocks, those that are hidden too. It fails when the store does.
func (p *production) Stocks(ctx context.Context) ([]StockView, error) {
	if err := p.stocks.ready(ctx); err != nil {
		return nil, err
	}
	var out []StockView
	for _, s := range card.AllStocks() {
		usual := s
		usual.Least = 0
		as, ships := card.AsShipped(s.ID)
		with, err := p.settings(ctx, s)
		if err != nil {
			return nil, err
		}
		out = append(out, StockView{s, usual.Bears(), ships && as != s, with, cut.SettingsOf(s)})
	}
	return out, nil
}

// StocksAre names what is known of stocks and papers: another name, when that is another.
func (p *production) StocksAre() string { return p.cards.shelves() }

// shelves names what is known of stocks and papers.
func (cs *cards) shelves() string { return cs.stocks.is() + cs.papers.is() + cs.motifs.is() }

// AddStock adds a stock of a person's own. It returns a *card.Refusal for what is none.
func (p *production) AddStock(ctx context.Context, m MeasuredStock) (card.Stock, error) {
	s, err := m.sound()
	if err != nil {
		return s, err
	}
	s.ID, s.Own, s.Hidden = "own-"+newID(), true, false
	err = p.stocks.own.change(ctx, func(own []card.Stock) ([]card.Stock, error) {
		if len(own) >= mostStocks {
			return nil, card.Refuse("name", "Up to %d stocks are kept. Change one that is not used any more.", mostStocks)
		}
		return append(own, s), nil
	})
	if err == nil {
		p.cards.stocksAreOthers()
	}
	return s, err
}

// ChangeStock changes a stock, of a person's own or one that ships: for all cards. It returns
// ErrNotFound for one that is not there, and a *card.Refusal for what no stock is.
func (p *production) ChangeStock(ctx context.Context, m MeasuredStock) error {
	return p.changeStock(ctx, m.ID, func(was card.Stock) (card.Stock, error) {
		s, err := m.sound()
		s.Own = was.Own
		return s, err
	})
}

// AsStockShips goes by what a stock that ships comes with again. It returns ErrNotFound for one that
// does not ship.
func (p *production) AsStockShips(ctx context.Context, id string) error {
	return p.changeStock(ctx, id, func(card.Stock) (card.Stock, error) {
		s, ok := card.AsShipped(id)
		if !ok {
			return s, ErrNotFound
		}
		return s, nil
	})
}

// changeStock keeps what a function makes of a stock, and tells all that show it.
func (p *production) changeStock(ctx context.Context, id string, to func(was card.Stock) (card.Stock, error)) error {
	err := p.stocks.own.change(ctx, func(own []card.Stock) ([]card.Stock, error) {
		was, ok := card.StockByID(id)
		if !ok {
			return nil, ErrNotFound
		}
		s, err := to(was)
		if err != nil {
			return nil, err
		}
		own = slices.DeleteFunc(own, func(o card.Stock) bool { return o.ID == id && !was.Own })
		if as, ships := card.AsShipped(id); ships && as == s {
			return own, nil // as it ships, again
		}
		if i := slices.IndexFunc(own, func(o card.Stock) bool { return o.ID == id }); i >= 0 {
			own[i] = s
			return own, nil
		}
		return append(own, s), nil
	})
	if err == nil {
		p.cards.stocksAreOthers()
	}
	return err
}

// KeepSizes notes what sizes of sheets of a person's own are offered from now on. Those that are left
// out are known still. It returns a *card.Refusal for what no sheet is.
func (p *production) KeepSizes(ctx context.Context, asked []sheet.Size) error {
	if len(asked) > mostSizes {
		return card.Refuse("sizes", "Up to %d sizes are kept.", mostSizes)
	}
	sizes := []sheet.Size{}
	for _, a := range asked {
		size, err := sheet.OwnSize(a.Name, a.Width, a.Height)
		if err != nil {
			return err
		}
		if slices.ContainsFunc(sheet.Sizes(), func(o sheet.Size) bool {
			return !o.Own && o.Width == size.Width && o.Height == size.Height
		}) || slices.ContainsFunc(sizes, func(o sheet.Size) bool { return o.ID == size.ID }) {
			return card.Refuse("width", "There is a size of those measures already.")
		}
		sizes = append(sizes, size)
	}
	err := p.stocks.sizes.change(ctx, func([]sheet.Size) ([]sheet.Size, error) { return sizes, nil })
	if err == nil {
		p.cards.stocksAreOthers()
	}
	return err
}

// stocksAreOthers makes the scenes of the cards in memory anew and tells the pages.
func (cs *cards) stocksAreOthers() {
	cs.mu.Lock()
	all := slices.Collect(maps.Values(cs.open))
	cs.mu.Unlock()
	for _, o := range all {
		o.anew()
	}
	cs.events.send(Event{Kind: StocksEvent})
}

// anew makes the scene of a card anew. Where it cannot be made the card is read again when it is next
// asked for, and what is wrong is told then.
func (o *opened) anew() {
	o.Lock()
	defer o.Unlock()
	if o.rev.Number == 0 {
		return
	}
	s, err := scene.Of(o.rev.Card)
	if err != nil {
		o.rev, o.scene = Revision{}, scene.Scene{}
		return
	}
	o.scene, o.made = s, nil
	o.scenes++
}

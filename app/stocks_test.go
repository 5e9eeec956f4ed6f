package app_test

import (
	"bytes"
	"image"
	"image/png"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// felt is a stock that does not ship, as a person tells of it: ten sheets are 31 mm.
func felt() app.MeasuredStock {
	return app.MeasuredStock{Stock: card.Stock{Name: "Grey felt", Colour: "#8a8f94", Thickness: 1, NoInk: true, Price: 1.2}, Pile: &app.Pile{Sheets: 10, Together: 31}}
}

func (f *fixture) stock(id string) app.StockView {
	f.t.Helper()
	for _, s := range got(f.Stocks(f.t.Context())) {
		if s.ID == id {
			return s
		}
	}
	require.Fail(f.t, "no stock "+id)
	return app.StockView{}
}

// thick is how thick the piece i4 is.
func (f *fixture) thick(id string) float64 {
	f.t.Helper()
	v, err := f.Open(f.t.Context(), id)
	require.NoError(f.t, err)
	for _, it := range v.Scene.Face(card.Front).Items {
		if it.ID == "i4" {
			return it.To - it.From - it.Lift
		}
	}
	require.Fail(f.t, "no i4")
	return 0
}

// A stock of one's own, measured from ten sheets, is cut from and laid like any other; what is changed
// of it follows on all cards at once, undone ones too, and after a restart.
func TestAStockOfOnesOwn(t *testing.T) {
	f := start(t)
	id := f.card()
	added, err := f.AddStock(t.Context(), felt())
	require.NoError(t, err)
	assert.True(t, added.Own)
	assert.InDelta(t, 3.1, added.Thickness, 1e-9)
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	_, it := v.Card.Find("i4")
	made := it.Made
	made.Stock = added.ID
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.SetMade{IDs: []string{"i4"}, Made: made}})
	require.NoError(t, err)
	assert.InDelta(t, 3.1, f.thick(id), 1e-9)
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	last := l.Sheets[len(l.Sheets)-1]
	assert.Equal(t, "Grey felt", last.Stock.Name)
	assert.InDelta(t, 1.2, l.Cost, 1e-9)
	thumb := got(f.Thumbnail(t.Context(), id))

	events, end := f.Events.Listen()
	defer end()
	other := app.MeasuredStock{Stock: added}
	other.Name, other.Thickness, other.Colour = "Blue felt", 2, "#35658c"
	require.NoError(t, f.ChangeStock(t.Context(), other))
	select {
	case e := <-events:
		assert.Equal(t, app.StocksEvent, e.Kind)
	case <-time.After(time.Minute):
		require.Fail(t, "nothing was told")
	}
	assert.InDelta(t, 2, f.thick(id), 1e-9)
	assert.NotEqual(t, thumb, got(f.Thumbnail(t.Context(), id)))

	other.Hidden = true
	require.NoError(t, f.ChangeStock(t.Context(), other))
	assert.NotContains(t, card.Stocks(), f.stock(added.ID).Stock)
	assert.InDelta(t, 2, f.thick(id), 1e-9, "what is of it stays")
	v, err = f.Undo(t.Context(), id, v.Revision)
	require.NoError(t, err)
	_, err = f.Redo(t.Context(), id, v.Revision)
	require.NoError(t, err)
	card.KnowStocks(nil)
	f.App = f.again()
	assert.InDelta(t, 2, f.thick(id), 1e-9)
}

// A stock that ships is changed, and as it ships again; a least width of one's own is what parts are
// held against.
func TestAStockThatShipsIsMeasured(t *testing.T) {
	f := start(t)
	cream := app.MeasuredStock{Stock: f.stock("cream-216").Stock}
	cream.Thickness, cream.Least, cream.Price = .31, 2, .4
	require.NoError(t, f.ChangeStock(t.Context(), cream))
	is := f.stock("cream-216")
	assert.True(t, is.Changed)
	assert.False(t, is.Own)
	assert.InDelta(t, 2, is.Bears(), 1e-9)
	assert.InDelta(t, 1.35, is.Usual, 1e-9)
	assert.Equal(t, "cream-216", got(f.Stocks(t.Context()))[3].ID, "where it was")

	require.NoError(t, f.AsStockShips(t.Context(), "cream-216"))
	assert.False(t, f.stock("cream-216").Changed)
	assert.InDelta(t, .28, f.stock("cream-216").Thickness, 1e-9)
}

func TestWhatIsNoStockIsRefused(t *testing.T) {
	f := start(t)
	before := got(f.Stocks(t.Context()))
	for why, spoil := range map[string]func(*app.MeasuredStock){
		"a name of up to 60": func(m *app.MeasuredStock) { m.Name = " " },
		"#rrggbb":            func(m *app.MeasuredStock) { m.Colour = "grey" },
		"20 and 3000":        func(m *app.MeasuredStock) { m.Weight = 4 },
		"0.02 mm and 6 mm":   func(m *app.MeasuredStock) { m.Pile = nil; m.Thickness = 9 },
		"1 to 1000 sheets":   func(m *app.MeasuredStock) { m.Pile.Sheets = 0 },
		"0.1 mm and 20 mm":   func(m *app.MeasuredStock) { m.Least = .01 },
		"nothing or more":    func(m *app.MeasuredStock) { m.Price = -1 },
	} {
		m := felt()
		spoil(&m)
		_, err := f.AddStock(t.Context(), m)
		assert.ErrorContains(t, err, why)
		m.ID = "cream-300"
		assert.ErrorContains(t, f.ChangeStock(t.Context(), m), why)
	}
	m := felt()
	m.ID = "gold-leaf"
	require.ErrorIs(t, f.ChangeStock(t.Context(), m), app.ErrNotFound)
	require.ErrorIs(t, f.AsStockShips(t.Context(), "gold-leaf"), app.ErrNotFound)
	added, err := f.AddStock(t.Context(), felt())
	require.NoError(t, err)
	require.ErrorIs(t, f.AsStockShips(t.Context(), added.ID), app.ErrNotFound)
	assert.Len(t, got(f.Stocks(t.Context())), len(before)+1)
}

// Sizes of sheets of one's own are offered until they are taken off, and cards on them stay; what ships
// already is not kept twice.
func TestSizesOfOnesOwnAreKept(t *testing.T) {
	f := start(t)
	id := f.card()
	require.NoError(t, f.KeepSizes(t.Context(), []sheet.Size{{Name: "Strip", Width: 400, Height: 250}}))
	strip := sheet.Sizes()[len(sheet.Sizes())-1]
	assert.Equal(t, "own-250x400", strip.ID)
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	setup := card.UsualSheets()
	setup.Size = strip.ID
	_, err = f.Change(t.Context(), id, v.Revision, []card.Command{sheet.SetSheets{Sheets: setup}})
	require.NoError(t, err)
	for _, spoilt := range [][]sheet.Size{{{Width: 210, Height: 297}}, {{Width: 3, Height: 297}}, {{Width: 100, Height: 90}, {Width: 90, Height: 100}}, make([]sheet.Size, 61)} {
		var refusal *card.Refusal
		require.ErrorAs(t, f.KeepSizes(t.Context(), spoilt), &refusal)
	}
	require.NoError(t, f.KeepSizes(t.Context(), nil))
	sheet.KnowSizes(nil)
	f.App = f.again()
	is := got(f.SheetsOf(t.Context(), id))
	assert.Equal(t, strip.ID, is.Size)
	opt := sheettest.Usual(sheet.Sizes()[0])
	opt.Size, _ = sheet.SizeByID(is.Size)
	assert.InDelta(t, 250, got(f.Layout(t.Context(), id, opt)).Sheets[0].Size.Width, 1e-9)
}

// While the store does not answer no card is taken for one on a stock that is not there.
func TestStocksThatCannotBeReadAreNotAbsent(t *testing.T) {
	f := start(t)
	added, err := f.AddStock(t.Context(), felt())
	require.NoError(t, err)
	c, err := card.New("Felt", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: added.ID})
	require.NoError(t, err)
	id, err := f.Create(t.Context(), c)
	require.NoError(t, err)
	card.KnowStocks(nil)
	s := f.onFaulty("kept")
	_, err = f.Open(t.Context(), id)
	require.ErrorIs(t, err, errDisk)
	_, err = f.Stocks(t.Context())
	require.ErrorIs(t, err, errDisk)
	require.ErrorIs(t, f.ChangeStock(t.Context(), app.MeasuredStock{Stock: added}), errDisk)
	s.fail()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, added.ID, v.Card.Base.Stock)
}

// A stock that is printed when it is bought is seen so: on the face, each piece as it is turned, those that lie
// in one direction going on with one another, and on the folded card.
func TestAPrintedStockIsSeenAsItIsBought(t *testing.T) {
	f := start(t)
	in, err := f.ReadPaper(t.Context(), "Place.png", telling(t, 300, 300))
	require.NoError(t, err)
	paper, err := f.AddPaper(t.Context(), app.NewPaper{Name: "Place", Picture: in.Picture, Width: 400, Height: 400})
	require.NoError(t, err)
	stock := felt()
	stock.Pattern = "none"
	_, err = f.AddStock(t.Context(), stock)
	require.ErrorContains(t, err, "no such paper")
	stock.Pattern = paper.ID
	added, err := f.AddStock(t.Context(), stock)
	require.NoError(t, err)
	id, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	piece := func(x, y, turn float64) card.Item {
		return card.Item{Name: "Piece", Kind: card.Shape, Place: card.Place{X: x, Y: y, Turn: turn}, Made: card.Made{As: card.Cut, Stock: added.ID},
			Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 40, Height: 40}}
	}
	_, err = f.Change(t.Context(), id, 1, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{piece(30, 40, 0), piece(75, 40, 0), piece(50, 120, 90)}}})
	require.NoError(t, err)
	raw, err := f.FaceLook(t.Context(), id, card.Front, "")
	require.NoError(t, err)
	require.NotEmpty(t, raw)
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	items := v.Scene.Face(card.Front).Items
	// Where a place of the face is on the paper, by each piece that it could be on.
	at := func(it scene.Item, p geom.Point) geom.Point {
		require.Equal(t, paper.ID, it.GroundPaper)
		back, ok := it.GroundAt.Then(it.At).Inverse()
		require.True(t, ok)
		return back.Apply(p)
	}
	p := geom.Pt(52.5, 40)
	assert.InDelta(t, 0, at(items[0], p).Sub(at(items[1], p)).Len(), 1e-9, "they go on with one another")
	assert.InDelta(t, 90, math.Abs(math.Atan2(at(items[2], geom.Pt(51, 120)).Sub(at(items[2], geom.Pt(50, 120))).Y, at(items[2], geom.Pt(51, 120)).Sub(at(items[2], geom.Pt(50, 120))).X))*180/math.Pi, 1e-6, "a turned piece is turned with its pattern")
	img := f.look(id, "i1")
	mid := img.Bounds().Dx() / 2
	r, g, _, _ := img.At(mid, mid).RGBA()
	assert.InDelta(t, 255*30./400, float64(r>>8), 3)
	assert.InDelta(t, 255*40./400, float64(g>>8), 3)
}

// look is what one sees of a piece of the front.
func (f *fixture) look(id, piece string) image.Image {
	f.t.Helper()
	raw, err := f.FaceLook(f.t.Context(), id, card.Front, piece)
	require.NoError(f.t, err)
	img, err := png.Decode(bytes.NewReader(raw))
	require.NoError(f.t, err)
	return img
}

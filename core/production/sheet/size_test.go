package sheet_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/scene"
	"sectilis/core/production/sheet"
)

// A size of one's own is known by its id alone; while it is offered it has its name.
func TestSizesOfOnesOwn(t *testing.T) {
	defer sheet.KnowSizes(nil)
	s, err := sheet.OwnSize("Long strip", 600, 150.256)
	require.NoError(t, err)
	assert.Equal(t, sheet.Size{ID: "own-150.26x600", Name: "Long strip", Width: 150.26, Height: 600, Own: true}, s)
	before := sheet.Sizes()
	sheet.KnowSizes([]sheet.Size{s})
	assert.Equal(t, append(before, s), sheet.Sizes())
	is, ok := sheet.SizeByID(s.ID)
	assert.True(t, ok)
	assert.Equal(t, s, is)
	sheet.KnowSizes(nil)
	is, ok = sheet.SizeByID(s.ID)
	assert.True(t, ok)
	assert.Equal(t, "150.26 × 600 mm", is.Name)
	for _, id := range []string{"", "own-", "own-600x150.26", "own-1x1", "own-150.260x600", "own-NaNx600", "own-9e9x600", "own-150.26x600x1", "own-..x600"} {
		_, ok := sheet.SizeByID(id)
		assert.False(t, ok, id)
	}
	_, err = sheet.OwnSize("", 3, 100)
	assert.ErrorContains(t, err, "between 30 mm")

	// What is laid lies on it.
	c := coretest.Card(t)
	sc, err := scene.Of(c)
	require.NoError(t, err)
	l := sheet.Lay(c, sc, sheettest.Usual(is), nil)
	for _, sh := range l.Sheets {
		assert.Equal(t, s.ID, sh.Size.ID)
	}
}

// Sheets of a size that is counted are told where they do not do; those of sizes that nobody has counted,
// and scraps, are not.
func TestSheetsThatRunShortAreTold(t *testing.T) {
	c := coretest.Card(t)
	sc, err := scene.Of(c)
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[0])
	all := sheet.Lay(c, sc, opt, nil)
	assert.Empty(t, all.Short)
	stock := all.Sheets[0].Stock
	needs := 0
	for _, sh := range all.Sheets {
		if sh.Stock.ID == stock.ID {
			needs++
		}
	}
	for _, has := range []int{0, needs - 1, needs, needs + 5} {
		opt.OnHand = []sheet.OnHand{{Stock: stock.ID, Counts: map[string]int{opt.Size.ID: has, "a3": 0}}}
		require.NoError(t, opt.OnHand[0].Check())
		short := sheet.Lay(c, sc, opt, nil).Short
		if has >= needs {
			assert.Empty(t, short, "%d will do", has)
			continue
		}
		require.Len(t, short, 1)
		assert.Equal(t, sheet.Short{Stock: stock, Size: opt.Size, Needs: needs, Has: has}, short[0])
	}
	for _, spoilt := range []map[string]int{{"a4": -1}, {"a4": 200_000}, {"roof": 3}} {
		assert.Error(t, sheet.OnHand{Stock: stock.ID, Counts: spoilt}.Check())
	}
}

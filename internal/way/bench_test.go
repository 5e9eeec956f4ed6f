package way

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/card"
	"sectilis/core/fold"
	"sectilis/internal/browser"
	"sectilis/internal/house"
)

// BenchmarkOpenCard is the time from the click on the harvest supper on the
// table until its face is drawn, pictures included, as the page sees it. The
// first opening is reported beside the later ones. The goal is under 300 ms.
func BenchmarkOpenCard(b *testing.B) {
	app, err := house.Start(b.Context(), house.Options{Data: filepath.Join(b.TempDir(), "cards.db"), Demo: true})
	require.NoError(b, err)
	defer app.Stop()
	p, done, err := browser.Open(tab, app.URL)
	require.NoError(b, err)
	defer done()
	require.NoError(b, p.Go("/"))
	first, sum, n := 0.0, 0.0, 0
	for b.Loop() {
		// Someone who looks at the table for a moment has the scripts by then.
		require.NoError(b, p.Wait(`[...document.querySelectorAll('[data-testid=card]')].length === 5 &&
			performance.getEntriesByType('resource').some(e => /PanelsStation.*js/.test(e.name) && e.responseEnd > 0)`))
		_, err := browser.Eval[bool](p, `(() => {
			window.__took = 0
			const start = performance.now()
			const look = () => {
				const face = document.querySelector('[data-testid=surface] [data-testid=item-i7] path')
				if (!face) return requestAnimationFrame(look)
				const pictures = [...document.querySelectorAll('[data-testid=surface] image')].map(i => { const m = new Image(); m.src = i.getAttribute('href'); return m.decode() })
				Promise.all(pictures).then(() => requestAnimationFrame(() => requestAnimationFrame(() => (window.__took = performance.now() - start))))
			}
			document.querySelector('[data-testid=card] a').click()
			look()
			return true
		})()`)
		require.NoError(b, err)
		require.NoError(b, p.Wait(`window.__took > 0`))
		took, err := browser.Eval[float64](p, `window.__took`)
		require.NoError(b, err)
		if n == 0 {
			first = took
		} else {
			sum += took
		}
		n++
		require.NoError(b, p.Click(browser.ID("home")))
	}
	b.ReportMetric(first, "first-ms")
	if n > 1 {
		b.ReportMetric(sum/float64(n-1), "later-ms")
	}
	b.ReportMetric(0, "ns/op")
}

// BenchmarkFoldedCard is how many frames a second the folded card shows while
// its slider moves, for a base of 100 panels. The goal is 30, without a graphics
// chip.
func BenchmarkFoldedCard(b *testing.B) {
	app, err := house.Start(b.Context(), house.Options{Data: filepath.Join(b.TempDir(), "cards.db")})
	require.NoError(b, err)
	defer app.Stop()
	p, done, err := browser.Open(tab, app.URL)
	require.NoError(b, err)
	defer done()
	strips := make([]card.Command, 49)
	for i := range strips {
		x := 2 + 4*float64(i)
		strips[i] = fold.AddStrip{From: x, To: x + 3, Up: 40, Out: 30}
	}
	c, err := fold.New("Fence", card.Base{Kind: card.TopFold, Width: 200, Height: 100, Stock: "cream-300"})
	require.NoError(b, err)
	c, err = card.Apply(c, strips...)
	require.NoError(b, err)
	id, err := app.App.Create(b.Context(), c)
	require.NoError(b, err)
	require.NoError(b, p.Go("/cards/"+id+"/base"))
	require.NoError(b, p.Wait(`document.querySelector('[data-testid=folded-card]')?.dataset.panels === '100' && !!document.querySelector('[data-testid=folded-card] canvas')`))
	sum := 0.0
	n := 0
	for b.Loop() {
		_, err := browser.Eval[bool](p, `(() => {
			window.__rate = 0
			const knob = document.querySelector('.ant-slider-handle')
			knob.focus()
			let frames = 0, start = performance.now()
			const step = () => {
				knob.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', keyCode: frames < 45 ? 37 : 39, which: frames < 45 ? 37 : 39, bubbles: true }))
				if (++frames < 90) return requestAnimationFrame(step)
				window.__rate = 1000 * frames / (performance.now() - start)
			}
			requestAnimationFrame(step)
			return true
		})()`)
		require.NoError(b, err)
		require.NoError(b, p.Wait(`window.__rate > 0`))
		rate, err := browser.Eval[float64](p, `window.__rate`)
		require.NoError(b, err)
		sum += rate
		n++
	}
	b.ReportMetric(sum/float64(n), "frames/s")
	b.ReportMetric(0, "ns/op")
}

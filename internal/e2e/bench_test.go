package e2e

import (
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// BenchmarkOpenCard is the time from the click on the harvest supper on the
// table until its face is drawn, pictures included, as the page sees it. The
// first opening is reported beside the later ones. The goal is under 300 ms.
func BenchmarkOpenCard(b *testing.B) {
	app, err := testserver.Start(b.Context(), testserver.Options{Again: true, Data: filepath.Join(b.TempDir(), "cards.db"), Demo: true})
	require.NoError(b, err)
	defer app.Stop()
	p, done, err := browser.Open(tab, app.URL)
	require.NoError(b, err)
	defer done()
	require.NoError(b, p.Go("/"))
	first, sum, n := 0.0, 0.0, 0
	for b.Loop() {
		// Someone who looks at the table for a moment has the scripts by then.
		require.NoError(b, p.Wait(`!!document.querySelector('[data-testid=card] a[aria-label^="Harvest Supper"]') &&
			performance.getEntriesByType('resource').some(e => /PanelsPage.*js/.test(e.name) && e.responseEnd > 0)`))
		_, err := browser.Eval[bool](p, `(() => {
			window.__took = 0
			const start = performance.now()
			const drawn = () => requestAnimationFrame(() => requestAnimationFrame(() => (window.__took = performance.now() - start)))
			const loaded = i => new Promise(done => {
				const m = new Image()
				m.onload = done
				m.onerror = () => { window.__took = 'no picture ' + m.src; done() }
				m.src = i.getAttribute('href')
			})
			const look = () => {
				const face = document.querySelector('[data-testid=surface] [data-testid=item-i7] path')
				if (!face) return requestAnimationFrame(look)
				Promise.all([...document.querySelectorAll('[data-testid=surface] image')].map(loaded)).then(() => window.__took || drawn())
			}
			document.querySelector('[data-testid=card] a[aria-label^="Harvest Supper"]').click()
			look()
			return true
		})()`)
		require.NoError(b, err)
		require.NoError(b, p.Wait(`!!window.__took`))
		took, err := browser.Eval[float64](p, `window.__took`)
		require.NoError(b, err, "a picture of the face could not be read")
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
	app, err := testserver.Start(b.Context(), testserver.Options{Again: true, Data: filepath.Join(b.TempDir(), "cards.db")})
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

// BenchmarkBusyFace is work on a face with 500 items, as the page has it: the
// script time of a frame while one or fifty are dragged (median; the goal is under
// 8 ms), selecting all (under 50 ms), and the round trip of a command (95th
// percentile; under 40 ms).
func BenchmarkBusyFace(b *testing.B) {
	app, err := testserver.Start(b.Context(), testserver.Options{Again: true, Data: filepath.Join(b.TempDir(), "cards.db")})
	require.NoError(b, err)
	defer app.Stop()
	p, done, err := browser.Open(tab, app.URL)
	require.NoError(b, err)
	defer done()
	c, err := fold.New("Busy", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(b, err)
	var items []card.Item
	for i := range 500 {
		items = append(items, card.Item{Name: "Dot", Kind: card.Shape, Place: card.Place{X: 5 + 4.8*float64(i%25), Y: 5 + 8.6*float64(i/25), Turn: float64(i % 90)},
			Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"}, Form: &card.Form{Outline: "scallop", Width: 4, Height: 4}})
	}
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: items})
	require.NoError(b, err)
	id, err := app.App.Create(b.Context(), c)
	require.NoError(b, err)
	require.NoError(b, p.Go("/cards/"+id+"/panels"))
	require.NoError(b, p.Wait(`document.querySelectorAll('[data-testid=surface] [data-item]').length === 500`))
	_, err = browser.Eval[bool](p, `(() => {
		const s = document.querySelector('[data-testid=surface]')
		s.setPointerCapture = () => {}
		const at = (type, x, y, more) => s.dispatchEvent(new PointerEvent(type, { bubbles: true, cancelable: true, pointerId: 1, isPrimary: true, button: type === 'pointermove' ? -1 : 0, buttons: 1, clientX: x, clientY: y, ...more }))
		const middle = (id) => { const r = document.querySelector('[data-testid=item-' + id + ']').getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] }
		// A task that was begun after the event and ends after the frame's own work tells how long the thread was held.
		window.__drag = (id) => {
			window.__took = []
			const [x, y] = middle(id)
			at('pointerdown', x, y, {})
			let n = 0
			const step = () => {
				const t = performance.now()
				at('pointermove', x + 5 + n, y + 3 + n / 2, {})
				Promise.resolve().then(() => Promise.resolve()).then(() => Promise.resolve()).then(() => window.__took.push(performance.now() - t))
				if (++n < 40) return requestAnimationFrame(step)
				at('pointermove', x, y, {})
				at('pointerup', x, y, {})
				window.__done = true
			}
			window.__done = false
			requestAnimationFrame(step)
		}
		return true
	})()`)
	require.NoError(b, err)
	median := func(items string) float64 {
		_, err := browser.Eval[bool](p, `(window.__drag('`+items+`'), true)`)
		require.NoError(b, err)
		require.NoError(b, p.Wait(`window.__done === true`))
		took, err := browser.Eval[float64](p, `window.__took.sort((a, b) => a - b)[20]`)
		require.NoError(b, err)
		return took
	}
	// The stack stands where the last selected thing is; its upper end is scrolled to.
	choose := func() {
		require.NoError(b, p.Wait(`(e => !!e && (e.scrollTop = 0, true))(document.querySelector('[data-testid=stack] .stack'))`))
		require.NoError(b, p.Click(browser.ID("layer-i490")))
	}
	for b.Loop() {
		choose()
		b.ReportMetric(median("i490"), "one-ms")
		require.NoError(b, p.Click(browser.ID("surface")+" svg"))
		_, err = browser.Eval[bool](p, `(() => { const t = performance.now(); window.__all = 0
			document.querySelector('[data-testid=surface]').dispatchEvent(new KeyboardEvent('keydown', { key: 'a', ctrlKey: true, bubbles: true }))
			requestAnimationFrame(() => setTimeout(() => (window.__all = performance.now() - t)))
			return true })()`)
		require.NoError(b, err)
		require.NoError(b, p.Wait(`window.__all > 0`))
		shown, err := browser.Eval[float64](p, `window.__all`)
		require.NoError(b, err)
		b.ReportMetric(shown, "select-ms")
		// The band takes two rows of 25.
		require.NoError(b, p.Click(browser.ID("surface")+" svg"))
		r, err := browser.Eval[[3]float64](p, `(() => { const r = document.querySelector('[data-testid=face-ground]').getBoundingClientRect(); return [r.x, r.y, r.width / 127] })()`)
		require.NoError(b, err)
		require.NoError(b, p.Drag(r[0]+r[2]*.5, r[1]+r[2]*85, r[0]+r[2]*126.5, r[1]+r[2]*103.5))
		require.NoError(b, p.WaitText(browser.ID("selected-name"), "50 items"))
		b.ReportMetric(median("i260"), "fifty-ms")
		// A nudge is a command; the page times its request.
		choose()
		for i := range 40 {
			require.NoError(b, p.Keys(kb.ArrowRight))
			require.NoError(b, p.Wait(fmt.Sprintf(`performance.getEntriesByType('resource').filter(e => e.name.endsWith('/changes')).length > %d`, i)))
		}
		trip, err := browser.Eval[float64](p, `(() => { const all = performance.getEntriesByType('resource').filter(e => e.name.endsWith('/changes')).map(e => e.duration).sort((a, b) => a - b); return all[Math.ceil(all.length * 0.95) - 1] })()`)
		require.NoError(b, err)
		b.ReportMetric(trip, "trip-ms")
	}
	b.ReportMetric(0, "ns/op")
}

// BenchmarkBringInTwenty is twenty photos of 12 megapixels through the file
// field: how long until all are in the tray (the goal is under 25 s) and the
// longest that the page was held up (under 100 ms).
func BenchmarkBringInTwenty(b *testing.B) {
	dir := b.TempDir()
	img := image.NewRGBA(image.Rect(0, 0, 4000, 3000))
	for y := range 3000 {
		for x := range 4000 {
			img.SetRGBA(x, y, color.RGBA{uint8(x / 16), uint8(y / 12), uint8(x * y >> 12), 255})
		}
	}
	var files []string
	for i := range 20 {
		draw.Draw(img, image.Rect(0, 0, 200, 200), image.NewUniform(color.RGBA{uint8(12 * i), 90, 40, 255}), image.Point{}, draw.Src)
		name := filepath.Join(dir, fmt.Sprintf("photo-%d.jpg", i))
		f, err := os.Create(name)
		require.NoError(b, err)
		require.NoError(b, jpeg.Encode(f, img, nil))
		require.NoError(b, f.Close())
		files = append(files, name)
	}
	for b.Loop() {
		app, err := testserver.Start(b.Context(), testserver.Options{Again: true, Data: filepath.Join(b.TempDir(), "cards.db")})
		require.NoError(b, err)
		c, err := fold.New("Album", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
		require.NoError(b, err)
		id, err := app.App.Create(b.Context(), c)
		require.NoError(b, err)
		p, done, err := browser.Open(tab, app.URL)
		require.NoError(b, err)
		require.NoError(b, p.Go("/cards/"+id+"/panels"))
		require.NoError(b, p.Click(browser.ID("tab-photos")))
		// What is loaded once for the page is not held against the photos.
		require.NoError(b, p.Wait(`Number(document.querySelector('[data-testid=folded-card] canvas')?.dataset.frames ?? 0) > 0`))
		_, err = browser.Eval[bool](p, `(window.__long = 0, new PerformanceObserver(l => l.getEntries().forEach(e => (window.__long = Math.max(window.__long, e.duration)))).observe({ type: 'longtask' }), true)`)
		require.NoError(b, err)
		start := time.Now()
		require.NoError(b, p.Upload(browser.ID("file-input"), files...))
		require.Eventually(b, func() bool {
			all, err := app.App.Pictures(b.Context())
			return err == nil && len(all) == len(files)
		}, 2*time.Minute, 50*time.Millisecond)
		b.ReportMetric(time.Since(start).Seconds(), "all-s")
		long, err := browser.Eval[float64](p, `window.__long`)
		require.NoError(b, err)
		b.ReportMetric(long, "longest-ms")
		done()
		app.Stop()
	}
	b.ReportMetric(0, "ns/op")
}

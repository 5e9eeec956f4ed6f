// Package browser drives the real interface in Debian's headless Chromium, for
// tests and for the pictures of the docs.
package browser

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"time"

	"github.com/chromedp/chromedp"
)

// Path is where Debian puts Chromium.
const Path = "/usr/bin/chromium"

// Width and Height of the window, in pixels.
const (
	Width  = 1280
	Height = 800
)

// Page is one tab. Its methods wait for what they need, and fail when it does
// not come.
type Page struct {
	ctx     context.Context
	base    string
	console console
}

// Start starts a browser; stop ends it. Profile is an empty folder.
func Start(ctx context.Context, profile string) (browser context.Context, stop func(), err error) {
	if _, err := os.Stat(Path); err != nil {
		return nil, nil, fmt.Errorf("chromium is not installed at %s; “make test” installs it, or run: apt-get install chromium", Path)
	}
	alloc, end := chromedp.NewExecAllocator(ctx,
		chromedp.ExecPath(Path), chromedp.NoFirstRun, chromedp.NoDefaultBrowserCheck, chromedp.NoSandbox, chromedp.Headless,
		chromedp.UserDataDir(profile), chromedp.WindowSize(Width, Height),
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true),
		chromedp.Flag("disable-dev-shm-usage", true), chromedp.Flag("disable-extensions", true),
		chromedp.Flag("disable-features", "Translate,MediaRouter,OptimizationHints"),
		chromedp.Flag("force-color-profile", "srgb"), chromedp.Flag("lang", "en-US"),
		chromedp.Flag("enable-unsafe-swiftshader", true), // solids are drawn without a graphics chip
		chromedp.WSURLReadTimeout(time.Minute),
	)
	tab, cancel := chromedp.NewContext(alloc)
	stop = func() { cancel(); end() }
	// The first call starts the browser and must carry no timeout.
	if err := chromedp.Do(tab); err != nil {
		stop()
		return nil, nil, fmt.Errorf("start chromium: %w", err)
	}
	return tab, stop, nil
}

// Open opens a tab of the browser on the program at base, such as
// http://127.0.0.1:7400.
func Open(browser context.Context, base string) (*Page, func(), error) {
	tab, cancel := chromedp.NewContext(browser)
	p := &Page{ctx: tab, base: base}
	if err := chromedp.Listen(tab, p.console.hear); err != nil {
		cancel()
		return nil, nil, fmt.Errorf("listen to tab: %w", err)
	}
	if err := chromedp.Do(tab, chromedp.EmulateViewport(Width, Height)); err != nil {
		cancel()
		return nil, nil, fmt.Errorf("open tab: %w", err)
	}
	return p, cancel, nil
}

// patience is how long any one step may wait for the page.
const patience = time.Minute

// Do runs steps on the page.
func (p *Page) Do(steps ...chromedp.Action[chromedp.Void]) error {
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	return chromedp.Do(ctx, steps...)
}

// Go goes to a path of the program.
func (p *Page) Go(path string) error { return p.Do(chromedp.Navigate(p.base + path)) }

// ID is the selector for a data-testid.
func ID(id string) string { return fmt.Sprintf("[data-testid=%q]", id) }

// Click clicks the first element that the selector finds.
func (p *Page) Click(sel string) error { return p.clicks(sel, 1) }

// DoubleClick clicks it twice.
func (p *Page) DoubleClick(sel string) error {
	if err := p.clicks(sel, 1); err != nil {
		return err
	}
	return p.clicks(sel, 2)
}

func (p *Page) clicks(sel string, n int) error {
	// What is covered by something else, or still on its way, is not clicked.
	if err := p.Wait(`(() => { const e = ` + opened(sel) + `; if (!e) return false
		e.scrollIntoView({block: 'nearest', inline: 'nearest'})
		const r = e.getBoundingClientRect(); const top = document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2)
		return !!top && (e.contains(top) || top.contains(e)) })()`); err != nil {
		return fmt.Errorf("%s: %w", sel, err)
	}
	x, y, err := p.Middle(sel)
	if err != nil {
		return err
	}
	return p.Do(
		chromedp.MouseEvent(chromedp.MouseMoved, x, y),
		chromedp.MouseEvent(chromedp.MousePressed, x, y, chromedp.ButtonLeft, chromedp.ClickCount(n)),
		chromedp.MouseEvent(chromedp.MouseReleased, x, y, chromedp.ButtonLeft, chromedp.ClickCount(n)),
	)
}

// shown is the first element that the selector finds and that has a size.
func shown(sel string) string {
	return fmt.Sprintf(`[...document.querySelectorAll(%s)].find(e => e.getBoundingClientRect().width > 0)`, quote(sel))
}

// opened is what shown is. A folded section that hides it is opened; window.opened counts how
// often.
func opened(sel string) string {
	return `(` + shown(sel) + ` ?? (() => {
		const folded = document.querySelector(` + quote(sel) + `)?.closest('.sec.folded')
		if (folded) { window.opened = (window.opened ?? 0) + 1; folded.querySelector('h3 button').click() }
	})())`
}

func quote(s string) string {
	q, err := json.Marshal(s)
	if err != nil {
		panic(err) // a string can always be written
	}
	return string(q)
}

// Middle waits until the element is there and at rest, brings it into view and
// returns its middle.
func (p *Page) Middle(sel string) (x, y float64, err error) {
	// That it was at rest before, at the same place, says nothing.
	if _, err = Eval[bool](p, `(() => { const e = `+shown(sel)+`; if (e) e.__was = ''; return true })()`); err != nil {
		return 0, 0, err
	}
	err = p.Wait(`(() => { const e = ` + opened(sel) + `; if (!e) return false
		e.scrollIntoView({block: 'nearest', inline: 'nearest'})
		const r = e.getBoundingClientRect(); const now = [r.x, r.y, r.width, r.height].join()
		e.__still = e.__was === now ? e.__still + 1 : 0; e.__was = now; return e.__still >= 4 })()`)
	if err != nil {
		return 0, 0, fmt.Errorf("%s: %w", sel, err)
	}
	at, err := Eval[[2]float64](p, `(() => { const r = `+shown(sel)+`.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`)
	return at[0], at[1], err
}

// Drag drags from one place to another in steps, as a hand does.
func (p *Page) Drag(x0, y0, x1, y1 float64, opts ...chromedp.MouseOption) error {
	const steps = 8
	left := append([]chromedp.MouseOption{chromedp.ButtonLeft}, opts...)
	click := append(left, chromedp.ClickCount(1))
	if err := p.Do(
		chromedp.MouseEvent(chromedp.MouseMoved, x0, y0),
		chromedp.MouseEvent(chromedp.MousePressed, x0, y0, click...),
	); err != nil {
		return err
	}
	for i := 1; i <= steps; i++ {
		k := float64(i) / steps
		if err := p.Do(chromedp.MouseEvent(chromedp.MouseMoved, x0+(x1-x0)*k, y0+(y1-y0)*k, left...)); err != nil {
			return err
		}
	}
	return p.Do(chromedp.MouseEvent(chromedp.MouseReleased, x1, y1, click...))
}

// Fill puts text into a field in place of what it held and leaves it by Enter.
func (p *Page) Fill(sel, text string) error { return p.write(sel, text+"\r") }

// Put is Fill for a field of several: it is left by Tab.
func (p *Page) Put(sel, text string) error { return p.write(sel, text+"\t") }

func (p *Page) write(sel, text string) error {
	if err := p.Click(sel); err != nil {
		return err
	}
	if _, err := Eval[bool](p, `(document.activeElement.select(), true)`); err != nil {
		return err
	}
	return p.Keys(text)
}

// Keys presses keys where the focus is.
func (p *Page) Keys(keys string, opts ...chromedp.KeyOption) error {
	return p.Do(chromedp.KeyEvent(keys, opts...))
}

// Wait waits until the expression is true.
func (p *Page) Wait(expr string) error {
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	if _, err := chromedp.Run(ctx, chromedp.Poll[bool](expr, chromedp.WithPollingTimeout(patience))); err != nil {
		return fmt.Errorf("wait for %.160s: %w", expr, err)
	}
	return nil
}

// says is an expression for what an element holds or says.
func says(sel string) string {
	return `(e => e && (e.value || e.textContent.trim()))(document.querySelector(` + quote(sel) + `))`
}

// WaitText waits until the element holds or says the text.
func (p *Page) WaitText(sel, text string) error {
	return p.Wait(`(` + says(sel) + ` ?? '').includes(` + quote(text) + `)`)
}

// Text is what the element holds, or says.
func (p *Page) Text(sel string) (string, error) {
	if err := p.Wait(`!!document.querySelector(` + quote(sel) + `)`); err != nil {
		return "", err
	}
	return Eval[string](p, says(sel))
}

// Eval evaluates an expression in the page.
func Eval[T any](p *Page, expr string) (T, error) {
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	return chromedp.Run(ctx, chromedp.Evaluate[T](expr))
}

// Upload gives files to a file field.
func (p *Page) Upload(sel string, files ...string) error {
	return p.Do(chromedp.SetUploadFiles(chromedp.CSS(sel), files))
}

// Resize gives the window another size.
func (p *Page) Resize(w, h int64) error { return p.Do(chromedp.EmulateViewport(w, h)) }

// calm counts how often in a row nothing on the page moved but what moves for ever.
const calm = `(window.calm = document.getAnimations().every((a) => a.playState !== 'running' || a.effect?.getTiming().iterations === Infinity) ? (window.calm ?? 0) + 1 : 0)`

// Shot is a PNG of the window, once nothing on it moves any more.
func (p *Page) Shot() ([]byte, error) {
	// Nothing has moved for some looks in a row: what opens begins to move a little later.
	if err := p.Wait(calm + ` > 10`); err != nil {
		return nil, err
	}
	if _, err := Eval[int](p, `window.calm = 0`); err != nil {
		return nil, err
	}
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	return chromedp.Run(ctx, chromedp.CaptureScreenshot())
}

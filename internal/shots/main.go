// Command shots makes the pictures of the docs from the demo data.
package main

import (
	"context"
	"fmt"
	"os"
	"path/filepath"

	"sectilis/internal/browser"
	"sectilis/internal/house"
)

func main() {
	if len(os.Args) != 2 {
		fmt.Fprintln(os.Stderr, "usage: shots FOLDER")
		os.Exit(2)
	}
	if err := run(os.Args[1]); err != nil {
		fmt.Fprintln(os.Stderr, "shots:", err)
		os.Exit(1)
	}
}

func run(out string) error {
	dir, err := os.MkdirTemp("", "shots")
	if err != nil {
		return err
	}
	defer func() { _ = os.RemoveAll(dir) }() // a temporary folder
	ctx := context.Background()
	h, err := house.Start(ctx, house.Options{Data: filepath.Join(dir, "demo.db"), Demo: true, Pace: 5})
	if err != nil {
		return err
	}
	defer h.Stop()
	b, stop, err := browser.Start(ctx, filepath.Join(dir, "profile"))
	if err != nil {
		return err
	}
	defer stop()
	p, done, err := browser.Open(b, h.URL)
	if err != nil {
		return err
	}
	defer done()
	cards, err := h.App.Cards(ctx, "harvest supper")
	if err != nil {
		return err
	}
	card := "/cards/" + cards[0].ID
	steps, err := h.App.Cards(ctx, "seed swap")
	if err != nil {
		return err
	}
	step := "/cards/" + steps[0].ID
	// A view is ready when its fonts and pictures are there.
	const ready = `document.fonts.status === 'loaded' && [...document.querySelectorAll('img')].every(i => i.complete)`
	id := browser.ID
	for _, v := range []struct {
		name, path, wait string
		clicks           []string
		then             string
	}{
		{"table", "/", `document.querySelectorAll('[data-testid=card]').length === 5`, nil, ""},
		{"base", step + "/base", `!!document.querySelector('[data-testid=net]') && Number(document.querySelector('[data-testid=folded-card] canvas')?.dataset.frames ?? 0) > 1`, nil, ""},
		{"panels", card + "/panels", `!!document.querySelector('[data-testid=surface] image')`, []string{id("layer-i5")}, ""},
		{"outlines", card + "/panels", `!!document.querySelector('[data-testid=surface] image')`, []string{id("layer-i6"), id("add-mat")},
			`!!document.querySelector('[data-testid=trial]')`},
		{"sheets", card + "/sheets", `!!document.querySelector('[data-testid=sheet-6]')`, nil, ""},
		{"machine", card + "/machine", `!!document.querySelector('[data-testid=run-6]')`, []string{id("run-6"), id("cut")},
			`/cutting [4-7]\d %/.test(document.querySelector('[data-testid=station-machine]').textContent)`},
	} {
		if err := p.Go(v.path); err != nil {
			return err
		}
		if err := p.Wait(v.wait + " && " + ready); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
		for _, sel := range v.clicks {
			if err := p.Click(sel); err != nil {
				return fmt.Errorf("%s: %w", v.name, err)
			}
		}
		// Pictures in drawings have no event to wait for here: fetch them once more.
		settle := `(window.__seen ??= Promise.all([...document.querySelectorAll('image')].map(i => fetch(i.getAttribute('href')))).then(() => new Promise(r => setTimeout(r, 400))).then(() => (window.__settled = true)), window.__settled === true)`
		if v.then != "" {
			settle = v.then
		}
		if err := p.Wait(settle); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
		raw, err := p.Shot()
		if err != nil {
			return err
		}
		if err := os.MkdirAll(out, 0o755); err != nil {
			return err
		}
		if err := os.WriteFile(filepath.Join(out, v.name+".png"), raw, 0o644); err != nil {
			return err
		}
	}
	return nil
}

package check_test

import (
	"fmt"
	"testing"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// hundred is a card with 100 things on its four faces: pieces, words, mats and lines.
func hundred(b *testing.B) card.Card {
	b.Helper()
	c, err := fold.New("Hundred", card.Base{Kind: card.SideFold, Width: 127, Height: 178, Stock: "cream-300"})
	if err != nil {
		b.Fatal(err)
	}
	for _, f := range fold.Of(c.Base).Faces {
		var items []card.Item
		for i := range 25 {
			x, y := 15+24*float64(i%5), 18+34*float64(i/5)
			switch i % 3 {
			case 0:
				items = append(items, square(fmt.Sprintf("Piece %d", i), x, y, 18))
			case 1:
				it := square(fmt.Sprintf("Star %d", i), x, y, 16)
				it.Form.Outline, it.Form.Corner = "star", ""
				items = append(items, it)
			default:
				items = append(items, card.Item{Name: fmt.Sprintf("Words %d", i), Kind: card.Lettering, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Printed},
					Fill:  card.Fill{Colour: []string{"#41505f", "#a8432a", "#35658c"}[i/3%3]},
					Words: &card.Words{Text: "Plum", Font: "courier-prime-400", Size: 4, Leading: 1.2, Align: card.AlignCentre}})
			}
		}
		if c, err = card.Apply(c, card.PlaceItems{Face: f.ID, Items: items}); err != nil {
			b.Fatal(err)
		}
	}
	return c
}

// BenchmarkChecksOfHundred runs all checks of the scene, the folding and the whole on a card of 100
// things: at first, and after one thing has moved. The goals are 150 ms and 30 ms.
func BenchmarkChecksOfHundred(b *testing.B) {
	c := hundred(b)
	run := func(c card.Card, s scene.Scene) {
		for _, what := range []check.Reads{check.TheScene, check.TheFolding, check.TheWhole} {
			check.Run(what, check.Input{Card: c, Scene: &s, Whole: &check.Whole{Posts: card.UsualPosts()}})
		}
	}
	s, err := scene.Of(c)
	if err != nil {
		b.Fatal(err)
	}
	b.Run("all", func(b *testing.B) {
		for b.Loop() {
			run(c, s)
		}
	})
	b.Run("after a move", func(b *testing.B) {
		at := geom.Pt(.1, .2)
		for b.Loop() {
			b.StopTimer()
			next, err := card.Apply(c, card.MoveItems{IDs: []string{"i1"}, DX: at.X, DY: at.Y})
			if err != nil {
				b.Fatal(err)
			}
			after, err := scene.After(next, c, s)
			if err != nil {
				b.Fatal(err)
			}
			c, s, at = next, after, at.Mul(-1)
			b.StartTimer()
			run(c, s)
		}
	})
}

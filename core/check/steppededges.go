package check

import (
	"cmp"
	"image"
	"image/color"
	"maps"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// What makes a picture one of words or drawn lines: few colours cover most of it, two of them far apart.
const (
	fewColours = 4
	mostOfIt   = .8
	apart      = 70 // of 255, in brightness
)

// linesPPI is how many pixels to the inch words and drawn lines need in a picture: their edges show steps
// where a photo is only a little soft.
const linesPPI = 300

// steppedEdges finds pictures of words or drawn lines that have enough pixels for a photo and too few for
// those.
func steppedEdges(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, _ *card.Item) {
		if in.Picture == nil || it.Picture == nil || it.Picture.Prints != scene.Sharp || it.Picture.PPI >= linesPPI {
			return
		}
		if img := in.Picture(it.Picture.ID); img != nil && drawnLines(img, shownOf(it, img.Bounds())) {
			out = append(out, of(Note, f, it, 0, nil, "has words or drawn lines in it, whose edges show steps below %d pixels to the inch; it has %.0f. Show it smaller, or set the words here.", linesPPI, it.Picture.PPI))
		}
	})
	return out
}

// drawnLines reports whether part of a picture is of words or drawn lines.
func drawnLines(img image.Image, part image.Rectangle) bool {
	part = part.Intersect(img.Bounds())
	counts := map[[3]uint8]int{}
	all := 0
	for y := part.Min.Y; y < part.Max.Y; y++ {
		for x := part.Min.X; x < part.Max.X; x++ {
			c := color.NRGBAModel.Convert(img.At(x, y)).(color.NRGBA)
			if c.A < 128 {
				continue
			}
			counts[[3]uint8{c.R >> 4, c.G >> 4, c.B >> 4}]++
			all++
		}
	}
	byCount := slices.SortedFunc(maps.Keys(counts), func(a, b [3]uint8) int {
		return cmp.Or(cmp.Compare(counts[b], counts[a]), slices.Compare(a[:], b[:]))
	})
	covered, least, most := 0, 255, 0
	for _, c := range byCount[:min(fewColours, len(byCount))] {
		covered += counts[c]
		if counts[c]*50 < all {
			continue // a trace of it
		}
		bright := (299*int(c[0]) + 587*int(c[1]) + 114*int(c[2])) * 16 / 1000
		least, most = min(least, bright), max(most, bright)
	}
	return all > 0 && float64(covered) >= mostOfIt*float64(all) && most-least >= apart
}

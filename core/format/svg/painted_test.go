package svg_test

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/format/svg"
	"sectilis/core/ground/geom"
)

// perMM is the resolution at which drawings are compared.
const perMM = 4

// painted is a drawing in our own painter's pixels.
func painted(t *testing.T, d exchange.Drawing) *image.RGBA {
	t.Helper()
	canvas := raster.New(d.Width, d.Height, perMM, color.Transparent, nil)
	for _, s := range d.Shapes {
		for _, p := range s.Parts() {
			k := scene.Ink{Region: p.Region, Colour: p.Colour, Clear: p.Faint, GradientAt: geom.Identity}
			if g := p.Gradient; g != nil {
				k.Gradient = &card.Gradient{Kind: card.Linear, FromX: g.From.X, FromY: g.From.Y, ToX: g.To.X, ToY: g.To.Y, Stops: g.Stops}
				if g.Radial {
					k.Gradient.Kind = card.Radial
				}
			}
			require.NoError(t, canvas.Paint([]scene.Ink{k}))
		}
	}
	return canvas.Image()
}

// rendered is a file in the pixels of the SVG library that Debian ships.
func rendered(t *testing.T, text string, w, h int) image.Image {
	t.Helper()
	in := filepath.Join(t.TempDir(), "in.svg")
	require.NoError(t, os.WriteFile(in, []byte(text), 0o600))
	out, err := exec.CommandContext(t.Context(), "rsvg-convert", "-w", fmt.Sprint(w), "-h", fmt.Sprint(h), in).Output()
	require.NoError(t, err, "rsvg-convert comes with Debian's librsvg2-bin: run make tools")
	img, err := png.Decode(bytes.NewReader(out))
	require.NoError(t, err)
	return img
}

// differ is the share of pixels whose alpha differs by more than a tenth, or whose colour
// does where both are there.
func differ(a *image.RGBA, b image.Image) (alpha, colour float64) {
	box := a.Bounds()
	for y := range box.Dy() {
		for x := range box.Dx() {
			p, q := a.RGBAAt(x, y), color.RGBAModel.Convert(b.At(x, y)).(color.RGBA)
			off := func(u, v uint8) bool { return max(u, v)-min(u, v) > 25 }
			if off(p.A, q.A) {
				alpha++
			} else if off(p.R, q.R) || off(p.G, q.G) || off(p.B, q.B) {
				colour++
			}
		}
	}
	n := float64(box.Dx() * box.Dy())
	return alpha / n, colour / n
}

func requirePainted(t *testing.T, text string) {
	t.Helper()
	d, err := svg.Read(t.Context(), []byte(text), nil)
	require.NoError(t, err, text)
	if len(d.Shapes) == 0 {
		d.Width, d.Height = 60, 40
	}
	ours := painted(t, d)
	alpha, colour := differ(ours, rendered(t, text, ours.Bounds().Dx(), ours.Bounds().Dy()))
	assert.LessOrEqual(t, alpha, .01, "alpha of %s\n%s", text, strings.Join(d.Notes, "\n"))
	assert.LessOrEqual(t, colour, .015, "colours of %s\n%s", text, strings.Join(d.Notes, "\n"))
}

// Three hundred drawings come in as the SVG library of Debian renders them: first each
// construct by itself, then several in one.
func TestDrawingsComeInAsTheyAreRendered(t *testing.T) {
	for _, name := range coretest.SVGConstructs {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(201, uint64(len(name))))
			for range 3 {
				requirePainted(t, coretest.SVGOf(r, name))
			}
		})
	}
	t.Run("several in one", func(t *testing.T) {
		r := rand.New(rand.NewPCG(202, 203))
		n := 300 - 3*len(coretest.SVGConstructs)
		if os.Getenv("SOAK") != "" {
			n = 3000
		}
		for range n {
			requirePainted(t, coretest.RandomSVG(r))
		}
	})
}

// What is written is read back as it looks.
func TestWhatIsWrittenLooksAsItWasRead(t *testing.T) {
	r := rand.New(rand.NewPCG(204, 205))
	for range 60 {
		text := coretest.RandomSVG(r)
		d, err := svg.Read(t.Context(), []byte(text), nil)
		require.NoError(t, err)
		if len(d.Shapes) == 0 {
			continue
		}
		var b bytes.Buffer
		require.NoError(t, svg.Write(&b, d, ""))
		back, err := svg.Read(t.Context(), b.Bytes(), nil)
		require.NoError(t, err)
		alpha, colour := differ(painted(t, d), painted(t, back))
		require.LessOrEqual(t, alpha+colour, .005, "%s\n%s", text, b.String())
	}
}

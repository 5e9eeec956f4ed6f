package gamut

import (
	"fmt"
	"image/color"

	"github.com/lucasb-eyer/go-colorful"
)

// OnStock is what ink of a colour gives on a stock of a colour: inks let light through, so that no
// more of any part of it comes back than the stock gives back. Home printers lay no white. For
// colours that are coded by a power law the product of the codes is the code of the product.
func OnStock(ink, stock color.RGBA) color.RGBA {
	part := func(a, b uint8) uint8 { return uint8((int(a)*int(b) + 127) / 255) }
	return color.RGBA{part(ink.R, stock.R), part(ink.G, stock.G), part(ink.B, stock.B), ink.A}
}

// HexOnStock is OnStock of two colours as #rrggbb; what is none is white.
func HexOnStock(ink, stock string) string {
	c := OnStock(ofHex(ink), ofHex(stock))
	return fmt.Sprintf("#%02x%02x%02x", c.R, c.G, c.B)
}

// White says that a stock, #rrggbb, gives back ink as white paper does, as far as one sees.
func White(stock string) bool {
	c := ofHex(stock)
	return min(c.R, c.G, c.B) >= 250
}

// ofHex is a colour, #rrggbb; white where it is none.
func ofHex(hex string) color.RGBA {
	c, err := colorful.Hex(hex)
	if err != nil {
		return color.RGBA{255, 255, 255, 255}
	}
	r, g, b := c.RGB255()
	return color.RGBA{r, g, b, 255}
}

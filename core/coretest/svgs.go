package coretest

import (
	"fmt"
	"math/rand/v2"
	"strings"
)

// RandomSVG is a drawing of 60 × 40 mm, a user unit to the millimetre, of several of the
// constructs that are read from SVG files.
func RandomSVG(r *rand.Rand) string {
	g := svgMaker{r: r}
	for range 2 + r.IntN(4) {
		g.construct(SVGConstructs[r.IntN(len(SVGConstructs))])
	}
	return g.file()
}

// SVGOf is a drawing of one construct.
func SVGOf(r *rand.Rand, construct string) string {
	g := svgMaker{r: r}
	g.construct(construct)
	return g.file()
}

// SVGConstructs names what RandomSVG draws with.
var SVGConstructs = []string{
	"shapes", "rounded", "polygon", "compact numbers", "arcs", "even-odd", "caps", "joins", "dashes", "stretched stroke",
	"group opacity", "nested opacity", "fill and stroke seen through", "stroke opacity", "linear gradient", "gradient in user space",
	"gradient of another", "radial gradient", "seen-through stops", "clip path", "clip of a box", "clip in a clip", "clipped stroke",
	"mask", "mask by alpha", "mask of a box", "use", "symbol", "nested svg", "percentages", "switch", "visibility", "style sheet",
	"important", "colours", "css transform", "paint order", "dots", "skewed", "turned text box",
}

type svgMaker struct {
	r    *rand.Rand
	defs strings.Builder
	body strings.Builder
	ids  int
}

func (g *svgMaker) file() string {
	return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="60mm" height="40mm" viewBox="0 0 60 40"><defs>` +
		g.defs.String() + `</defs>` + g.body.String() + `</svg>`
}

func (g *svgMaker) id() string {
	g.ids++
	return fmt.Sprintf("n%d", g.ids)
}

// within is a number from lo to hi, to a hundredth.
func (g *svgMaker) within(lo, hi float64) string {
	return strings.TrimSuffix(fmt.Sprintf("%.2f", lo+(hi-lo)*g.r.Float64()), ".00")
}

func (g *svgMaker) colour() string {
	return []string{"#a8432a", "teal", "rgb(20, 90, 200)", "#e2a42b", "rgb(80%,10%,40%)", "#357"}[g.r.IntN(6)]
}

// rect is the geometry of a rectangle, big enough to be seen.
func (g *svgMaker) rect() string {
	return fmt.Sprintf(`x="%s" y="%s" width="%s" height="%s"`, g.within(0, 35), g.within(0, 22), g.within(6, 24), g.within(5, 17))
}

func (g *svgMaker) points(n int) string {
	var b strings.Builder
	for i := range n {
		if i > 0 {
			b.WriteString([]string{" ", ",", "\n"}[g.r.IntN(3)])
		}
		b.WriteString(g.within(2, 58) + "," + g.within(2, 38))
	}
	return b.String()
}

// bits are some shapes without ids, to be used in groups, clips and masks.
func (g *svgMaker) bits(n int, attr func() string) string {
	var b strings.Builder
	for range n {
		switch g.r.IntN(3) {
		case 0:
			fmt.Fprintf(&b, `<rect %s %s/>`, g.rect(), attr())
		case 1:
			fmt.Fprintf(&b, `<circle cx="%s" cy="%s" r="%s" %s/>`, g.within(8, 52), g.within(8, 32), g.within(3, 12), attr())
		default:
			fmt.Fprintf(&b, `<polygon points="%s" %s/>`, g.points(3+g.r.IntN(3)), attr())
		}
	}
	return b.String()
}

func (g *svgMaker) plain() string { return "" }

func (g *svgMaker) filled() string { return fmt.Sprintf(`fill="%s"`, g.colour()) }

func (g *svgMaker) stops(opacity bool) string {
	var b strings.Builder
	n := 2 + g.r.IntN(3)
	for i := range n {
		fmt.Fprintf(&b, `<stop offset="%d%%" stop-color="%s"`, i*100/(n-1), g.colour())
		if opacity {
			fmt.Fprintf(&b, ` stop-opacity="%s"`, g.within(0, 1))
		}
		b.WriteString("/>")
	}
	return b.String()
}

func (g *svgMaker) stroked(extra string) {
	fmt.Fprintf(&g.body, `<polyline points="%s" fill="none" stroke="%s" stroke-width="%s" %s/>`, g.points(3+g.r.IntN(3)), g.colour(), g.within(.6, 4), extra)
}

func (g *svgMaker) one(list ...string) string { return list[g.r.IntN(len(list))] }

// construct adds one.
func (g *svgMaker) construct(name string) {
	put := func(format string, args ...any) { fmt.Fprintf(&g.body, format, args...) }
	def := func(format string, args ...any) { fmt.Fprintf(&g.defs, format, args...) }
	id := g.id()
	switch name {
	case "shapes":
		put(`<rect %s %s/><ellipse cx="%s" cy="%s" rx="%s" ry="%s" %s/>`, g.rect(), g.filled(), g.within(10, 50), g.within(8, 30), g.within(3, 9), g.within(3, 9), g.filled())
	case "rounded":
		put(`<rect %s rx="%s" ry="%s" %s/>`, g.rect(), g.within(0, 6), g.within(0, 6), g.filled())
	case "polygon":
		put(`<polygon points="%s" %s/>`, g.points(4+g.r.IntN(4)), g.filled())
	case "compact numbers":
		put(`<path %s d="M%s 5l4-3.5.5.75-1.5 9-8 .25zm9 2h8v.5.5h-3q1-2-4-1t-.5.5c.2.8 3 8-.5 6s-6-1-3-4Z"/>`, g.filled(), g.within(10, 30))
	case "arcs":
		put(`<path %s d="M%s %sa%s %s %s %d%d 14 6zl3 9A8 5 30 1 0 40 20z"/>`, g.filled(), g.within(5, 30), g.within(5, 25), g.within(2, 12), g.within(2, 12), g.within(0, 90), g.r.IntN(2), g.r.IntN(2))
	case "even-odd":
		put(`<path fill-rule="evenodd" %s d="M%s 3L30 38 4 14h48L12 38z"/>`, g.filled(), g.within(20, 30))
	case "caps":
		g.stroked(`stroke-linecap="` + g.one("butt", "round", "square") + `"`)
	case "joins":
		g.stroked(`stroke-linejoin="` + g.one("miter", "round", "bevel") + `" stroke-miterlimit="` + g.within(1, 12) + `"`)
	case "dashes":
		g.stroked(fmt.Sprintf(`stroke-dasharray="%s" stroke-dashoffset="%s" stroke-linecap="%s"`, g.one("5 2", "3", "6,2,1,2", "4 1 2"), g.within(-6, 9), g.one("butt", "round", "square")))
	case "stretched stroke":
		put(`<g transform="scale(%s %s)"><circle cx="9" cy="8" r="5" fill="none" stroke="%s" stroke-width="2"/><path d="M16 3l4 9 4-9" fill="none" stroke="%s" stroke-width="1" stroke-dasharray="3 1"/></g>`, g.within(1.2, 2.2), g.within(.6, 1.1), g.colour(), g.colour())
	case "group opacity":
		put(`<g opacity="%s">%s</g>`, g.within(.2, .9), g.bits(3, g.filled))
	case "nested opacity":
		put(`<g opacity="%s"><rect %s/><g opacity="%s">%s</g></g>`, g.within(.4, .9), g.rect(), g.within(.3, .9), g.bits(1, g.filled))
	case "fill and stroke seen through":
		put(`<rect %s %s stroke="%s" stroke-width="%s" opacity="%s"/>`, g.rect(), g.filled(), g.colour(), g.within(1, 4), g.within(.2, .8))
	case "stroke opacity":
		put(`<circle cx="30" cy="20" r="%s" fill="%s" fill-opacity="%s" stroke="%s" stroke-width="3" stroke-opacity="%s"/>`, g.within(5, 14), g.colour(), g.within(.2, .9), g.colour(), g.within(.2, .9))
	case "linear gradient":
		def(`<linearGradient id="%s" x1="%s" y2="%s">%s</linearGradient>`, id, g.one("0", "10%", ".2"), g.one("0", "1", "80%"), g.stops(false))
		put(`<rect %s fill="url(#%s)"/>`, g.rect(), id)
	case "gradient in user space":
		def(`<linearGradient id="%s" gradientUnits="userSpaceOnUse" x1="5" y1="5" x2="%s" y2="%s" gradientTransform="rotate(%s) scale(1 %s)">%s</linearGradient>`, id, g.within(20, 55), g.within(5, 30), g.within(-20, 20), g.within(.6, 1.4), g.stops(true))
		put(`<g transform="skewX(%s)"><rect %s fill="url(#%s)"/></g>`, g.within(-15, 15), g.rect(), id)
	case "gradient of another":
		def(`<linearGradient id="%sb">%s</linearGradient><linearGradient id="%s" xlink:href="#%sb" x1="1" x2="0"/>`, id, g.stops(true), id, id)
		put(`<ellipse cx="30" cy="20" rx="%s" ry="%s" fill="url(#%s)"/>`, g.within(6, 20), g.within(5, 14), id)
	case "radial gradient":
		def(`<radialGradient id="%s" gradientUnits="userSpaceOnUse" cx="%s" cy="%s" r="%s">%s</radialGradient>`, id, g.within(15, 45), g.within(10, 30), g.within(5, 20), g.stops(true))
		put(`<rect %s fill="url(#%s)"/>`, g.rect(), id)
	case "seen-through stops":
		def(`<linearGradient id="%s" y2="1"><stop stop-color="#000"/><stop offset="1" style="stop-color:#fff;stop-opacity:0"/></linearGradient>`, id)
		put(`<rect %s fill="url(#%s)" fill-opacity="%s"/>`, g.rect(), id, g.within(.5, 1))
	case "clip path":
		def(`<clipPath id="%s">%s</clipPath>`, id, g.bits(1, g.plain))
		put(`<g clip-path="url(#%s)">%s</g>`, id, g.bits(3, g.filled))
	case "clip of a box":
		def(`<clipPath id="%s" clipPathUnits="objectBoundingBox"><circle cx=".5" cy=".5" r=".5"/></clipPath>`, id)
		put(`<rect %s %s clip-path="url(#%s)"/>`, g.rect(), g.filled(), id)
	case "clip in a clip":
		def(`<clipPath id="%sa"><rect x="10" y="5" width="35" height="30"/></clipPath><clipPath id="%s"><path clip-rule="evenodd" d="M5 5h50v30h-50zM20 12h20v16h-20z"/></clipPath>`, id, id)
		put(`<g clip-path="url(#%sa)"><g clip-path="url(#%s)">%s</g></g>`, id, id, g.bits(2, g.filled))
	case "clipped stroke":
		def(`<clipPath id="%s"><circle cx="30" cy="20" r="12"/></clipPath>`, id)
		put(`<g clip-path="url(#%s)"><path d="M5 %sL55 %s" stroke="%s" stroke-width="%s"/></g>`, id, g.within(5, 35), g.within(5, 35), g.colour(), g.within(1, 8))
	case "mask":
		def(`<mask id="%s" maskUnits="userSpaceOnUse" x="0" y="0" width="60" height="40">%s</mask>`, id, g.bits(3, func() string {
			return `fill="` + g.one("#fff", "#888", "#c40", "#000") + `" fill-opacity="` + g.within(.4, 1) + `"`
		}))
		put(`<g mask="url(#%s)">%s</g>`, id, g.bits(2, g.filled))
	case "mask by alpha":
		def(`<mask id="%s" style="mask-type:alpha">%s</mask>`, id, g.bits(2, func() string { return `opacity="` + g.within(.3, 1) + `"` }))
		put(`<rect %s %s mask="url(#%s)"/>`, g.rect(), g.filled(), id)
	case "mask of a box":
		def(`<mask id="%s" maskContentUnits="objectBoundingBox"><rect width=".6" height="1" fill="#fff"/><circle cx=".8" cy=".5" r=".2" fill="#999"/></mask>`, id)
		put(`<rect %s %s mask="url(#%s)"/>`, g.rect(), g.filled(), id)
	case "use":
		def(`<g id="%s"><circle r="4"/><rect x="3" width="7" height="3"/></g>`, id)
		put(`<use xlink:href="#%s" x="%s" y="%s" %s/><use href="#%s" transform="translate(30 20) rotate(%s)" %s opacity=".5"/>`, id, g.within(5, 30), g.within(5, 20), g.filled(), id, g.within(0, 360), g.filled())
	case "symbol":
		def(`<symbol id="%s" viewBox="0 0 10 10"><path d="M0 0L10 5 0 10z"/></symbol>`, id)
		put(`<use href="#%s" x="%s" y="%s" width="%s" height="12" %s/>`, id, g.within(2, 25), g.within(2, 20), g.within(8, 25), g.filled())
	case "nested svg":
		put(`<svg x="%s" y="%s" width="24" height="16" viewBox="0 0 10 10" preserveAspectRatio="%s"><path d="M1 1h8v8z" %s/></svg>`, g.within(2, 30), g.within(2, 20), g.one("none", "xMinYMin", "xMaxYMid meet", "xMidYMax"), g.filled())
	case "percentages":
		put(`<rect x="%s%%" y="10%%" width="40%%" height="%s%%" %s/><circle cx="50%%" cy="50%%" r="%s%%" %s/>`, g.within(0, 50), g.within(20, 60), g.filled(), g.within(5, 20), g.filled())
	case "switch":
		put(`<switch><rect requiredExtensions="urn:made-up" width="60" height="40"/><rect systemLanguage="xx" width="60" height="40"/><g>%s</g><rect width="60" height="40"/></switch>`, g.bits(1, g.filled))
	case "visibility":
		put(`<g visibility="hidden"><rect width="60" height="40"/><rect %s visibility="visible"/></g><g display="none"><rect width="60" height="40"/></g>`, g.rect())
	case "style sheet":
		put(`<style>@charset "utf-8"; .%s { fill: %s; stroke: #123; stroke-width: %s } rect.%s, #%s { fill-opacity: .7 }</style><rect class="%s" %s/><circle id="%s" cx="12" cy="9" r="6"/>`, id, g.colour(), g.within(.5, 2), id, id, id, g.rect(), id)
	case "important":
		put(`<style>.%s{fill:none!important}</style><rect class="%s" style="fill:red" stroke="%s" stroke-width="2" %s/>`, id, id, g.colour(), g.rect())
	case "colours":
		put(`<rect %s fill="%s"/><rect %s fill="%s"/>`, g.rect(), g.one("#11223380", "rgba(10,20,30,.4)", "#f00a", "transparent"), g.rect(), g.one("currentColor", "rgb(1 2 3 / 50%)", "none"))
	case "css transform":
		put(`<rect %s %s style="transform:translate(%spx,2px) rotate(%sdeg)"/>`, g.rect(), g.filled(), g.within(0, 10), g.within(-20, 20))
	case "paint order":
		put(`<circle cx="30" cy="20" r="9" fill="%s" fill-opacity=".5" stroke="#123" stroke-width="%s" style="paint-order:stroke"/>`, g.colour(), g.within(2, 6))
	case "dots":
		put(`<path d="M%s 10v.01M40 30h.01" stroke="%s" stroke-width="%s" stroke-linecap="round"/>`, g.within(5, 30), g.colour(), g.within(3, 8))
	case "skewed":
		put(`<g transform="translate(10 4)skewY(%s)matrix(1.1 .2-.3.9 2-1)">%s</g>`, g.within(-20, 20), g.bits(1, g.filled))
	case "turned text box":
		put(`<g transform="rotate(%s 30 20)"><rect x="12" y="12" width="36" height="16" rx="3" fill="none" stroke="%s" stroke-width="1.5"/></g>`, g.within(0, 180), g.colour())
	default:
		panic("no construct " + name)
	}
}

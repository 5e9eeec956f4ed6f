// Package light changes the light and the colours of a picture. Colours are sRGB; what is said
// of light is reckoned in linear light (IEC 61966-2-1), what is said of colours in Oklab
// (Ottosson, A perceptual color space for image processing, 2020). Black stays black, white
// white, and greys keep their order.
package light

import "math"

// Settings are what is done to light and colours; each is from -1 to 1, and 0 changes nothing.
type Settings struct {
	Brightness, Contrast, Highlights, Shadows float64
	Saturation, Lively                        float64 // Lively spares what is coloured already, and skin
	Warmth, Tint                              float64 // toward orange, toward magenta
}

// colour is red, green and blue, 0 to 1.
type colour = [3]float64

// luminance is that of linear light (ITU-R BT.709).
func luminance(c colour) float64 { return .2126*c[0] + .7152*c[1] + .0722*c[2] }

// encoded is sRGB's value of linear light, linear what it stands for.
func encoded(v float64) float64 {
	if v <= .0031308 {
		return 12.92 * v
	}
	return 1.055*math.Pow(v, 1/2.4) - .055
}

func linear(v float64) float64 {
	if v <= .04045 {
		return v / 12.92
	}
	return math.Pow((v+.055)/1.055, 2.4)
}

func each(c colour, f func(float64) float64) colour { return colour{f(c[0]), f(c[1]), f(c[2])} }

// toned is linear light with its brightness taken to that of another grey, both as sRGB has
// them, and brought within what sRGB has.
func toned(c colour, curve func(float64) float64) colour {
	y := luminance(c)
	if y <= 0 {
		return colour{}
	}
	to := linear(curve(encoded(min(y, 1))))
	return fit(each(c, func(v float64) float64 { return v * to / y }), to)
}

// fit takes linear light of a luminance that is too strong in a channel toward the grey of it.
func fit(c colour, y float64) colour {
	y = min(y, 1)
	k := 1.0
	for _, v := range c {
		if v > 1 {
			k = min(k, (1-y)/(v-y))
		}
		if v < 0 {
			k = min(k, y/(y-v))
		}
	}
	return each(c, func(v float64) float64 { return min(max(y+(v-y)*k, 0), 1) })
}

// Curve is what becomes of a grey, both 0 to 1 as sRGB has them; it keeps 0 and 1, and the order
// of all between.
func (s Settings) Curve(v float64) float64 {
	v = math.Pow(v, math.Pow(2, -s.Brightness))
	if s.Contrast != 0 {
		p := math.Pow(2, 1.2*s.Contrast)
		if v < .5 {
			v = .5 * math.Pow(2*v, p)
		} else {
			v = 1 - .5*math.Pow(2*(1-v), p)
		}
	}
	const most = .9 // the curve never turns back
	v += most * s.Highlights * v * v * (1 - v)
	v += most * s.Shadows * v * (1 - v) * (1 - v)
	return min(max(v, 0), 1)
}

// shade is what becomes of linear light.
func (s Settings) shade(l colour) colour {
	if s.Warmth != 0 || s.Tint != 0 {
		l = balanced(l, colour{math.Pow(2, .4*s.Warmth+.15*s.Tint), math.Pow(2, -.3*s.Tint), math.Pow(2, -.4*s.Warmth+.15*s.Tint)})
	}
	if s.Brightness != 0 || s.Contrast != 0 || s.Highlights != 0 || s.Shadows != 0 {
		l = toned(l, s.Curve)
	}
	if s.Saturation != 0 || s.Lively != 0 {
		l = s.coloured(l)
	}
	return l
}

// balanced is linear light with its channels stronger or weaker, of the luminance that it had.
func balanced(c, gains colour) colour {
	y := luminance(c)
	if y <= 0 {
		return c
	}
	g := colour{c[0] * gains[0], c[1] * gains[1], c[2] * gains[2]}
	k := y / luminance(g)
	return fit(each(g, func(v float64) float64 { return v * k }), y)
}

// Colours of skin lie about a hue of Oklab, degrees, whatever their lightness; colours are strong
// from a chroma on.
const (
	skinHue, skinWidth = 52.0, 24.0
	strong             = .22
)

// coloured is linear light with its colours stronger or weaker.
func (s Settings) coloured(c colour) colour {
	l, a, b := oklab(c)
	chroma := math.Hypot(a, b)
	k := 1 + s.Saturation
	off := math.Mod(math.Atan2(b, a)*180/math.Pi-skinHue+540, 360) - 180
	spared := 1 - .8*math.Exp(-off*off/(2*skinWidth*skinWidth))
	k *= 1 + s.Lively*(1-min(chroma/strong, 1))*spared
	return ofOklab(l, a*k, b*k)
}

// oklab is linear light as lightness, and green to red, and blue to yellow.
func oklab(c colour) (l, a, b float64) {
	x := math.Cbrt(.4122214708*c[0] + .5363325363*c[1] + .0514459929*c[2])
	y := math.Cbrt(.2119034982*c[0] + .6806995451*c[1] + .1073969566*c[2])
	z := math.Cbrt(.0883024619*c[0] + .2817188376*c[1] + .6299787005*c[2])
	return .2104542553*x + .7936177850*y - .0040720468*z, 1.9779984951*x - 2.4285922050*y + .4505937099*z, .0259040371*x + .7827717662*y - .8086757660*z
}

// outOfOklab is the linear light of a colour; it may be more than sRGB has.
func outOfOklab(l, a, b float64) colour {
	x, y, z := l+.3963377774*a+.2158037573*b, l-.1055613458*a-.0638541728*b, l-.0894841775*a-1.2914855480*b
	x, y, z = x*x*x, y*y*y, z*z*z
	return colour{4.0767416621*x - 3.3077115913*y + .2309699292*z, -1.2684380046*x + 2.6097574011*y - .3413193965*z, -.0041960863*x - .7034186147*y + 1.7076147010*z}
}

// ofOklab is the linear light of a colour, with less chroma where sRGB has not that much.
func ofOklab(l, a, b float64) colour {
	within := func(c colour) bool { return min(c[0], c[1], c[2]) > -1e-6 && max(c[0], c[1], c[2]) < 1+1e-6 }
	c := outOfOklab(l, a, b)
	if !within(c) {
		lo, hi := 0.0, 1.0
		for range 12 {
			if mid := (lo + hi) / 2; within(outOfOklab(l, a*mid, b*mid)) {
				lo = mid
			} else {
				hi = mid
			}
		}
		c = outOfOklab(l, a*lo, b*lo)
	}
	return each(c, func(v float64) float64 { return min(max(v, 0), 1) })
}

// oneColour makes linear light one of shades of an sRGB colour, by an amount from 0 to 1. Black
// and white have none of it.
func oneColour(of colour, amount float64) func(colour) colour {
	_, a, b := oklab(each(of, linear))
	return func(c colour) colour {
		l, ca, cb := oklab(c)
		w := 4 * l * (1 - l)
		return ofOklab(l, ca+(a*w-ca)*amount, cb+(b*w-cb)*amount)
	}
}

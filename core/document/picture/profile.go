package picture

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"image"
	"io"

	"github.com/kovidgoyal/imaging"
	"github.com/kovidgoyal/imaging/prism/meta/autometa"
	"github.com/kovidgoyal/imaging/prism/meta/icc"

	"sectilis/core/ground/gamut"
)

// profileOf is the colour profile that a picture brings; nil for none, for sRGB, and for one that
// cannot be read.
func profileOf(raw []byte) (p *icc.Profile) {
	defer func() {
		if recover() != nil { // tables of profiles may lead anywhere
			p = nil
		}
	}()
	if !profileFits(raw) {
		return nil
	}
	md, _, err := autometa.Load(bytes.NewReader(raw))
	if err != nil || md == nil {
		return nil
	}
	data, err := md.ICCProfileData()
	if err != nil || len(data) == 0 {
		return nil
	}
	if p, err = gamut.OpenProfile(data); err != nil || p.IsSRGB() {
		return nil
	}
	return p
}

// profileFits reports whether the profile of a PNG, which is packed, is not too large.
func profileFits(raw []byte) bool {
	const signature = 8
	for at := signature; sniff(raw) == "image/png" && at+8 <= len(raw); {
		size, kind := int(binary.BigEndian.Uint32(raw[at:])), string(raw[at+4:at+8])
		if kind == "IDAT" || size < 0 || at+12+size > len(raw) {
			return true
		}
		if kind == "iCCP" {
			body := raw[at+8 : at+8+size]
			end := bytes.IndexByte(body, 0)
			if end < 0 || end+2 > len(body) {
				return true
			}
			z, err := zlib.NewReader(bytes.NewReader(body[end+2:]))
			if err != nil {
				return true
			}
			n, _ := io.Copy(io.Discard, io.LimitReader(z, gamut.MostProfile+1))
			return n <= gamut.MostProfile
		}
		at += 12 + size
	}
	return true
}

// Profiled reports whether a picture has colours of a profile of its own, which a program that
// knows nothing of profiles would show wrongly.
func Profiled(raw []byte) bool { return profileOf(raw) != nil }

// inSRGB is a picture with its colours taken from those of the profile that it brings to sRGB
// (ICC.1:2022), relative to its white and with its black as black. One without a profile is as it
// is.
func inSRGB(img image.Image, raw []byte) (out image.Image) {
	out = img
	defer func() {
		if recover() != nil {
			out = img
		}
	}()
	if p := profileOf(raw); p != nil {
		if seen, err := imaging.ConvertToSRGB(p, icc.RelativeColorimetricRenderingIntent, true, img); err == nil {
			return seen
		}
	}
	return img
}

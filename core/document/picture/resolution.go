package picture

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"math"

	"github.com/rwcarlsen/goexif/exif"
)

// Resolution is how many pixels a picture says that it has to the inch; ok is false where it says
// nothing, or nothing that can be. It is read from the header of a JPEG (JFIF 1.02, then Exif) or the
// pHYs chunk of a PNG.
func Resolution(raw []byte) (ppi float64, ok bool) {
	switch sniff(raw) {
	case "image/jpeg":
		if ppi, ok = jfif(raw); !ok {
			ppi, ok = tagged(raw)
		}
	case "image/png":
		ppi, ok = phys(raw)
	}
	return ppi, ok && ppi >= 10 && ppi <= 10_000
}

// jfif reads the density of the APP0 segment, which comes first.
func jfif(raw []byte) (float64, bool) {
	if len(raw) < 18 || raw[2] != 0xff || raw[3] != 0xe0 || string(raw[6:11]) != "JFIF\x00" {
		return 0, false
	}
	x, y := float64(binary.BigEndian.Uint16(raw[14:])), float64(binary.BigEndian.Uint16(raw[16:]))
	if x != y {
		return 0, false
	}
	switch raw[13] {
	case 1:
		return x, true
	case 2:
		return x * 2.54, true
	}
	return 0, false
}

// tagged reads the resolution of the Exif tags.
func tagged(raw []byte) (ppi float64, ok bool) {
	defer func() {
		if recover() != nil { // the tag reader trusts its offsets
			ppi, ok = 0, false
		}
	}()
	x, err := exif.Decode(bytes.NewReader(raw))
	if err != nil {
		return 0, false
	}
	tag, err := x.Get(exif.XResolution)
	if err != nil {
		return 0, false
	}
	num, den, err := tag.Rat2(0)
	if err != nil || den == 0 {
		return 0, false
	}
	ppi = float64(num) / float64(den)
	if unit, err := x.Get(exif.ResolutionUnit); err == nil {
		if u, err := unit.Int(0); err == nil && u == 3 {
			ppi *= 2.54
		}
	}
	return ppi, true
}

// phys reads the pHYs chunk of a PNG, which stands before its pixels.
func phys(raw []byte) (float64, bool) {
	for at := 8; at+12 <= len(raw); {
		n := int(binary.BigEndian.Uint32(raw[at:]))
		kind := string(raw[at+4 : at+8])
		if n < 0 || n > len(raw)-at-12 || kind == "IDAT" {
			return 0, false
		}
		if kind == "pHYs" && n == 9 {
			body := raw[at+8 : at+17]
			if crc32.ChecksumIEEE(raw[at+4:at+17]) != binary.BigEndian.Uint32(raw[at+17:]) || body[8] != 1 {
				return 0, false
			}
			x, y := binary.BigEndian.Uint32(body), binary.BigEndian.Uint32(body[4:])
			return math.Round(float64(x) * .0254), x == y
		}
		at += 12 + n
	}
	return 0, false
}

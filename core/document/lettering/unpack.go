package lettering

import (
	"bytes"
	"encoding/binary"
	"fmt"

	"github.com/go-text/typesetting/font/opentype"
)

// maxFont is the most that a font takes when it is unpacked, bytes, and maxFaces how many faces
// of a collection are read.
const (
	maxFont  = 30 << 20
	maxFaces = 32
)

// Extensions are the endings of the files that fonts are read from.
func Extensions() []string { return []string{".ttf", ".otf", ".ttc", ".otc", ".woff", ".woff2"} }

// unpack returns the faces that a file holds, each as a TTF or OTF file of its own, written anew:
// what else a file has, or has wrong about its container, is left behind, since browsers refuse
// it. The sizes that a file claims are looked at before anything is taken at its word. The error
// is an *Error.
func unpack(name string, raw []byte) ([][]byte, error) {
	bad := func(format string, args ...any) error {
		return &Error{fmt.Sprintf("“%s” ", name) + fmt.Sprintf(format, args...)}
	}
	if len(raw) < 12 {
		return nil, bad("is no font. Bring in a TTF, OTF, TTC, WOFF or WOFF2 file.")
	}
	if len(raw) > maxFont {
		return nil, bad("is %d MB large; fonts of up to %d MB can be brought in.", len(raw)>>20, maxFont>>20)
	}
	switch string(raw[:4]) {
	case "\x00\x01\x00\x00", "OTTO", "true":
		if !tablesFit(raw, 0) {
			return nil, bad("is cut off: its tables reach past its end.")
		}
		return repacked(raw, bad)
	case "wOFF":
		if !woffFits(raw) {
			return nil, bad("is damaged, or too large when it is unpacked.")
		}
		return repacked(raw, bad)
	case "wOF2":
		file, err := fromWOFF2(raw)
		if err != nil {
			return nil, bad("is damaged, a collection, or too large when it is unpacked.")
		}
		return [][]byte{file}, nil
	case "ttcf":
		return collection(raw, bad)
	}
	return nil, bad("is no font. Bring in a TTF, OTF, TTC, WOFF or WOFF2 file.")
}

// tablesFit reports whether the tables of the font whose directory is at the place lie within
// the file.
func tablesFit(raw []byte, at int) bool {
	if at < 0 || at+12 > len(raw) {
		return false
	}
	n := int(binary.BigEndian.Uint16(raw[at+4:]))
	if n == 0 || at+12+16*n > len(raw) {
		return false
	}
	for i := range n {
		entry := raw[at+12+16*i:]
		if uint64(binary.BigEndian.Uint32(entry[8:]))+uint64(binary.BigEndian.Uint32(entry[12:])) > uint64(len(raw)) {
			return false
		}
	}
	return true
}

// woffFits reports whether the tables of a WOFF file lie within it and unpack to no more than
// is taken.
func woffFits(raw []byte) bool {
	if len(raw) < 44 {
		return false
	}
	n := int(binary.BigEndian.Uint16(raw[12:]))
	if n == 0 || 44+20*n > len(raw) {
		return false
	}
	total := uint64(0)
	for i := range n {
		entry := raw[44+20*i:]
		at, packed := uint64(binary.BigEndian.Uint32(entry[4:])), uint64(binary.BigEndian.Uint32(entry[8:]))
		total += uint64(binary.BigEndian.Uint32(entry[12:]))
		if at+packed > uint64(len(raw)) {
			return false
		}
	}
	return total <= maxFont
}

// collection takes the faces of a collection apart.
func collection(raw []byte, bad func(string, ...any) error) ([][]byte, error) {
	n := int(binary.BigEndian.Uint32(raw[8:]))
	if n < 1 || n > maxFaces || 12+4*n > len(raw) {
		return nil, bad("is a collection of %d faces; 1 to %d can be brought in at once.", n, maxFaces)
	}
	for i := range n {
		if !tablesFit(raw, int(binary.BigEndian.Uint32(raw[12+4*i:]))) {
			return nil, bad("is cut off: its tables reach past its end.")
		}
	}
	return repacked(raw, bad)
}

// repacked writes the faces of a file anew, each by itself.
func repacked(raw []byte, bad func(string, ...any) error) ([][]byte, error) {
	loaders, err := opentype.NewLoaders(bytes.NewReader(raw))
	if err != nil {
		return nil, bad("is damaged: its tables cannot be read.")
	}
	var out [][]byte
	for _, ld := range loaders {
		var parts []opentype.Table
		for _, tag := range ld.Tables() {
			content, err := ld.RawTable(tag)
			if err != nil {
				return nil, bad("is damaged: its tables cannot be read.")
			}
			parts = append(parts, opentype.Table{Content: content, Tag: tag})
		}
		out = append(out, sfnt(parts, ld.HasTable(opentype.MustNewTag("CFF "))))
	}
	return out, nil
}

// sfnt writes tables as a font file, each at a multiple of four bytes, as browsers want it
// (OpenType, Organization of an OpenType Font).
func sfnt(parts []opentype.Table, cff bool) []byte {
	n := len(parts)
	log := 0
	for 2<<log <= n {
		log++
	}
	var out bytes.Buffer
	signature := "\x00\x01\x00\x00"
	if cff {
		signature = "OTTO"
	}
	out.WriteString(signature)
	put := func(v ...uint16) {
		for _, w := range v {
			out.Write(binary.BigEndian.AppendUint16(nil, w))
		}
	}
	put(uint16(n), uint16(16<<log), uint16(log), uint16(16*n-16<<log))
	at := uint32(12 + 16*n)
	for _, p := range parts {
		sum := uint32(0)
		for i := 0; i < len(p.Content); i += 4 {
			var word [4]byte
			copy(word[:], p.Content[i:])
			sum += binary.BigEndian.Uint32(word[:])
		}
		for _, v := range []uint32{uint32(p.Tag), sum, at, uint32(len(p.Content))} {
			out.Write(binary.BigEndian.AppendUint32(nil, v))
		}
		at += uint32(len(p.Content)+3) &^ 3
	}
	for _, p := range parts {
		out.Write(p.Content)
		out.Write(make([]byte, -len(p.Content)&3))
	}
	return out.Bytes()
}

// Package apng writes moving pictures as animated PNG. (Portable Network Graphics (PNG) Specification, third
// edition, W3C 2025: chunks acTL, fcTL and fdAT.)
package apng

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"hash/crc32"
	"image"
	"image/png"
	"io"
)

// Frame is one picture and how long it is seen, milliseconds.
type Frame struct {
	Image image.Image
	Long  uint16
}

// chunk is a part of a PNG file.
type chunk struct {
	name string
	data []byte
}

const head = "\x89PNG\r\n\x1a\n"

// chunks takes a PNG file apart. It fails for what is none.
func chunks(raw []byte) ([]chunk, error) {
	if !bytes.HasPrefix(raw, []byte(head)) {
		return nil, errors.New("it is no PNG")
	}
	var out []chunk
	for at := len(head); at+12 <= len(raw); {
		n := int(binary.BigEndian.Uint32(raw[at:]))
		if n < 0 || at+12+n > len(raw) {
			return nil, errors.New("a chunk is cut off")
		}
		out = append(out, chunk{string(raw[at+4 : at+8]), raw[at+8 : at+8+n]})
		at += 12 + n
	}
	return out, nil
}

// writer writes chunks until one fails.
type writer struct {
	w        io.Writer
	sequence uint32
	err      error
}

func (w *writer) chunk(name string, data []byte) {
	if w.err != nil {
		return
	}
	b := make([]byte, 0, len(data)+12)
	b = binary.BigEndian.AppendUint32(b, uint32(len(data)))
	b = append(append(b, name...), data...)
	b = binary.BigEndian.AppendUint32(b, crc32.ChecksumIEEE(b[4:]))
	_, w.err = w.w.Write(b)
}

// next is the number of a chunk of the animation.
func (w *writer) next() []byte {
	w.sequence++
	return binary.BigEndian.AppendUint32(nil, w.sequence-1)
}

// Write writes frames of one size, over and over without an end. It fails for none, for frames that differ
// in size or kind, and when w does.
func Write(w io.Writer, frames []Frame) error {
	if len(frames) == 0 {
		return errors.New("a moving picture has at least one frame")
	}
	out := &writer{w: w}
	if _, err := io.WriteString(w, head); err != nil {
		return err
	}
	var first []byte
	for i, f := range frames {
		var b bytes.Buffer
		if err := png.Encode(&b, f.Image); err != nil {
			return fmt.Errorf("frame %d: %w", i, err)
		}
		parts, err := chunks(b.Bytes())
		if err != nil {
			return fmt.Errorf("frame %d: %w", i, err)
		}
		for _, c := range parts {
			switch {
			case c.name == "IHDR" && i == 0:
				first = c.data
				out.chunk("IHDR", c.data)
				out.chunk("acTL", binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(len(frames))), 0))
				out.chunk("fcTL", control(out.next(), c.data, f.Long))
			case c.name == "IHDR":
				if !bytes.Equal(c.data, first) {
					return fmt.Errorf("frame %d differs from the first in size or kind", i)
				}
				out.chunk("fcTL", control(out.next(), c.data, f.Long))
			case c.name == "IDAT" && i == 0:
				out.chunk("IDAT", c.data)
			case c.name == "IDAT":
				out.chunk("fdAT", append(out.next(), c.data...))
			}
		}
	}
	out.chunk("IEND", nil)
	return out.err
}

// control is the frame control of a whole frame, which takes the place of the one before.
func control(sequence, header []byte, long uint16) []byte {
	b := append(sequence, header[:8]...) // width and height
	b = append(b, make([]byte, 8)...)    // at the upper left
	b = binary.BigEndian.AppendUint16(b, long)
	b = binary.BigEndian.AppendUint16(b, 1000)
	return append(b, 0, 0)
}

package raster

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"hash/crc32"
	"image"
	"image/jpeg"
	"image/png"
	"io"
	"math"
)

// WritePNG writes a picture that says how large it is: perMM pixels to the millimetre
// (a pHYs chunk; PNG specification, third edition, 11.3.4.3).
func WritePNG(w io.Writer, img image.Image, perMM float64) error {
	var b bytes.Buffer
	if err := (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&b, img); err != nil {
		return fmt.Errorf("encode PNG: %w", err)
	}
	// The signature and the header come first: 8 bytes, and 25 with length and check.
	const head = 33
	raw := b.Bytes()
	chunk := []byte("pHYs")
	n := uint32(math.Round(perMM * 1000))
	chunk = binary.BigEndian.AppendUint32(chunk, n)
	chunk = binary.BigEndian.AppendUint32(chunk, n)
	chunk = append(chunk, 1) // to the metre
	out := binary.BigEndian.AppendUint32(nil, uint32(len(chunk)-4))
	out = append(out, chunk...)
	out = binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(chunk))
	return writeAll(w, raw[:head], out, raw[head:])
}

// WriteJPEG writes a picture that says how large it is, to the nearest pixel to the inch
// (a JFIF header; ITU-T T.871).
func WriteJPEG(w io.Writer, img image.Image, perMM float64) error {
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: 92}); err != nil {
		return fmt.Errorf("encode JPEG: %w", err)
	}
	raw := b.Bytes()
	n := uint16(math.Round(perMM * 25.4))
	app0 := []byte{0xff, 0xe0, 0, 16, 'J', 'F', 'I', 'F', 0, 1, 2, 1}
	app0 = binary.BigEndian.AppendUint16(app0, n)
	app0 = binary.BigEndian.AppendUint16(app0, n)
	app0 = append(app0, 0, 0) // no small picture
	return writeAll(w, raw[:2], app0, raw[2:])
}

func writeAll(w io.Writer, parts ...[]byte) error {
	for _, p := range parts {
		if _, err := w.Write(p); err != nil {
			return err
		}
	}
	return nil
}

package raster

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"image"
	"image/jpeg"
	"io"
	"math"
)

// WriteJPEG writes a picture that says how large it is, to the nearest pixel to the inch (a
// JFIF header; ITU-T T.871). It returns the error of the writer.
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

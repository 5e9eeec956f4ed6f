package picture

import (
	"bytes"
	"encoding/binary"
	"image"
	"io"

	"golang.org/x/image/webp"
)

// A moving WebP holds its pictures in ANMF chunks, each with a frame of 16 bytes before the
// chunks of a still one (WebP Container Specification). The first of them is the picture.

// firstConfig and firstDecode read a WebP, of a moving one its first picture.
func firstConfig(in io.Reader) (image.Config, error) {
	still, err := firstPicture(in)
	if err != nil {
		return image.Config{}, err
	}
	return webp.DecodeConfig(bytes.NewReader(still))
}

func firstDecode(in io.Reader) (image.Image, error) {
	still, err := firstPicture(in)
	if err != nil {
		return nil, err
	}
	return webp.Decode(bytes.NewReader(still))
}

// firstPicture is a WebP of a single picture.
func firstPicture(in io.Reader) ([]byte, error) {
	raw, err := io.ReadAll(in)
	if err != nil {
		return nil, err
	}
	frame := chunk(raw[min(12, len(raw)):], "ANMF")
	if len(frame) < 16 {
		return raw, nil // it does not move
	}
	parts := frame[16:]
	out := append([]byte("RIFF\x00\x00\x00\x00WEBP"), parts...)
	if alpha := chunk(parts, "ALPH"); alpha != nil {
		// With alpha apart, a header says so and gives the size less one, in 24 bits each.
		header := []byte("VP8X\x0a\x00\x00\x00\x10\x00\x00\x00")
		header = append(header, frame[6:12]...)
		out = append(append([]byte("RIFF\x00\x00\x00\x00WEBP"), header...), parts...)
	}
	binary.LittleEndian.PutUint32(out[4:], uint32(len(out)-8))
	return out, nil
}

// chunk is the body of the first chunk of a kind, nil if there is none.
func chunk(raw []byte, kind string) []byte {
	for len(raw) >= 8 {
		size := int64(binary.LittleEndian.Uint32(raw[4:]))
		if size > int64(len(raw)-8) {
			return nil
		}
		if string(raw[:4]) == kind {
			return raw[8 : 8+size]
		}
		raw = raw[min(int64(len(raw)), 8+size+size&1):]
	}
	return nil
}

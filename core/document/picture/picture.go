// Package picture reads the pictures people bring in: JPEG, PNG and WebP. The
// bytes are foreign, so size and kind are looked at before anything is decoded.
package picture

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"path/filepath"
	"strings"

	"github.com/kovidgoyal/imaging"
	"github.com/rwcarlsen/goexif/exif"

	"sectilis/core/ground/pixels"
)

// MaxPixels is the largest picture that is taken, in pixels.
const MaxPixels = pixels.Most

// MaxDecoded is what the largest picture may take when it is decoded, bytes. One that takes
// more than Large is to be decoded by itself.
const (
	MaxDecoded = 400 << 20
	Large      = 80 << 20
)

// Info is what a picture's bytes say of it.
type Info struct {
	Type   string // image/jpeg, image/png or image/webp
	Width  int    // upright, in pixels
	Height int
	// Turn is the orientation tag of the JPEG, 1 to 8; 1 is upright.
	Turn int
	// Decoded is how many bytes it takes when it is decoded.
	Decoded int64
}

// Error is why a picture is refused, as a sentence for the person.
type Error struct{ Why string }

func (e *Error) Error() string { return e.Why }

type codec struct {
	name   string
	exts   []string
	config func(io.Reader) (image.Config, error)
	decode func(io.Reader) (image.Image, error)
}

var codecs = map[string]codec{
	"image/jpeg": {"JPEG", []string{".jpg", ".jpeg", ".jpe", ".jfif"}, jpeg.DecodeConfig, jpeg.Decode},
	"image/png":  {"PNG", []string{".png"}, png.DecodeConfig, png.Decode},
	"image/webp": {"WebP", []string{".webp"}, firstConfig, firstDecode},
}

// Inspect finds out what kind of picture the bytes hold and how large it is,
// without decoding it. The name is the file's, for messages and to find a
// picture that is called something it is not. The error is an *Error.
func Inspect(name string, raw []byte) (Info, error) {
	kind := sniff(raw)
	c, ok := codecs[kind]
	if !ok {
		return Info{}, &Error{fmt.Sprintf("“%s” is no picture that can be read here. Bring in a JPEG, PNG or WebP.", name)}
	}
	ext := strings.ToLower(filepath.Ext(name))
	for other, o := range codecs {
		for _, e := range o.exts {
			if e == ext && other != kind {
				return Info{}, &Error{fmt.Sprintf("“%s” is called a %s but holds a %s picture. Give it the ending %s and bring it in again.", name, o.name, c.name, c.exts[0])}
			}
		}
	}
	cfg, err := c.config(bytes.NewReader(raw))
	if err != nil || cfg.Width < 1 || cfg.Height < 1 {
		return Info{}, &Error{fmt.Sprintf("“%s” is damaged: its size cannot be read.", name)}
	}
	if int64(cfg.Width)*int64(cfg.Height) > MaxPixels {
		return Info{}, &Error{fmt.Sprintf("“%s” has %d million pixels; at most %d million can be brought in. Make it smaller first.",
			name, int64(cfg.Width)*int64(cfg.Height)/1_000_000, MaxPixels/1_000_000)}
	}
	info := Info{Type: kind, Width: cfg.Width, Height: cfg.Height, Turn: 1, Decoded: int64(cfg.Width) * int64(cfg.Height) * perPixel(cfg.ColorModel)}
	if info.Decoded > MaxDecoded {
		return Info{}, &Error{fmt.Sprintf("“%s” has %d million pixels of %d bits a colour, which takes %d MB; at most %d MB can be taken. Save it with 8 bits a colour, or smaller.",
			name, int64(cfg.Width)*int64(cfg.Height)/1_000_000, 16, info.Decoded>>20, int64(MaxDecoded)>>20)}
	}
	if kind == "image/jpeg" {
		info.Turn = orientation(raw)
	}
	if info.Turn > 4 {
		info.Width, info.Height = info.Height, info.Width
	}
	return info, nil
}

// perPixel is how many bytes a decoded pixel takes.
func perPixel(m color.Model) int64 {
	switch m {
	case color.RGBA64Model, color.NRGBA64Model:
		return 8
	case color.Gray16Model, color.Alpha16Model:
		return 2
	case color.GrayModel, color.AlphaModel:
		return 1
	case color.YCbCrModel, color.NYCbCrAModel:
		return 3
	}
	if _, ok := m.(color.Palette); ok {
		return 1
	}
	return 4
}

// sniff tells the kind by the first bytes; "" when it is none of the three.
func sniff(raw []byte) string {
	switch {
	case bytes.HasPrefix(raw, []byte("\xff\xd8\xff")):
		return "image/jpeg"
	case bytes.HasPrefix(raw, []byte("\x89PNG\r\n\x1a\n")):
		return "image/png"
	case len(raw) >= 12 && string(raw[:4]) == "RIFF" && string(raw[8:12]) == "WEBP":
		return "image/webp"
	}
	return ""
}

// orientation reads the EXIF orientation; 1 when there is none or it is odd.
func orientation(raw []byte) (turn int) {
	defer func() {
		if recover() != nil { // the tag reader trusts its offsets
			turn = 1
		}
	}()
	x, err := exif.Decode(bytes.NewReader(raw))
	if err != nil {
		return 1
	}
	tag, err := x.Get(exif.Orientation)
	if err != nil {
		return 1
	}
	if v, err := tag.Int(0); err == nil && v >= 1 && v <= 8 {
		return v
	}
	return 1
}

// Decode reads the whole picture and turns it upright. The error is an *Error.
func Decode(name string, raw []byte) (image.Image, Info, error) {
	info, err := Inspect(name, raw)
	if err != nil {
		return nil, info, err
	}
	img, err := codecs[info.Type].decode(bytes.NewReader(raw))
	if err != nil {
		return nil, info, &Error{fmt.Sprintf("“%s” is damaged: %s.", name, plain(err))}
	}
	return upright(inSRGB(img, raw), info.Turn), info, nil
}

// plain keeps the reason and drops the name of the package that gave it.
func plain(err error) string {
	s := err.Error()
	if i := strings.Index(s, ": "); i >= 0 {
		s = s[i+2:]
	}
	return s
}

// upright undoes the EXIF orientation (CIPA DC-008, table of tag 0x0112).
func upright(img image.Image, turn int) image.Image {
	switch turn {
	case 2:
		return imaging.FlipH(img)
	case 3:
		return imaging.Rotate180(img)
	case 4:
		return imaging.FlipV(img)
	case 5:
		return imaging.Transpose(img)
	case 6:
		return imaging.Rotate270(img)
	case 7:
		return imaging.Transverse(img)
	case 8:
		return imaging.Rotate90(img)
	}
	return img
}

// Scale is the picture scaled down so that it fits a square of the given side
// in pixels; a smaller one is left as it is.
func Scale(img image.Image, side int) image.Image {
	b := img.Bounds()
	if b.Dx() > side || b.Dy() > side {
		return imaging.Fit(img, side, side, imaging.CatmullRom)
	}
	return img
}

// Preview encodes a picture as JPEG, or as PNG where it has transparency. It fails when the
// encoder does.
func Preview(img image.Image) (raw []byte, kind string, err error) {
	var out bytes.Buffer
	if Opaque(img) {
		if n, ok := img.(*image.NRGBA); ok { // the same bytes, which the encoder reads faster so
			img = &image.RGBA{Pix: n.Pix, Stride: n.Stride, Rect: n.Rect}
		}
		err = jpeg.Encode(&out, img, &jpeg.Options{Quality: 88})
		return out.Bytes(), "image/jpeg", err
	}
	// It is seen at once rather than small.
	err = (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&out, img)
	return out.Bytes(), "image/png", err
}

// Opaque reports whether no part of a picture is transparent.
func Opaque(img image.Image) bool {
	if o, ok := img.(interface{ Opaque() bool }); ok {
		return o.Opaque()
	}
	b := img.Bounds()
	for y := b.Min.Y; y < b.Max.Y; y++ {
		for x := b.Min.X; x < b.Max.X; x++ {
			if color.NRGBAModel.Convert(img.At(x, y)).(color.NRGBA).A != 255 {
				return false
			}
		}
	}
	return true
}

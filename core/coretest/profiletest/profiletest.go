// Package profiletest makes colour profiles for tests.
package profiletest

import (
	"encoding/binary"
	"math"

	"github.com/lucasb-eyer/go-colorful"
)

// Tag is a part of a colour profile.
type Tag struct {
	Name string
	Data []byte
}

// Profile is a colour profile (ICC.1:2001) of a class, such as prtr, mntr or scnr, from the colours
// of a device, such as "RGB " or CMYK, to those of a connection space, "XYZ " or "Lab ".
func Profile(class, device, space string, tags ...Tag) []byte {
	head := make([]byte, 128)
	copy(head[4:], "none")
	copy(head[8:], []byte{2, 0x40, 0, 0})
	copy(head[12:], class+device+space)
	copy(head[36:], "acsp")
	for i, v := range []float64{.9642, 1, .8249} {
		binary.BigEndian.PutUint32(head[68+4*i:], fixed(v))
	}
	text := append([]byte("desc\x00\x00\x00\x00\x00\x00\x00\x0fCorner printer\x00"), make([]byte, 82)...)
	tags = append([]Tag{{"desc", text}, {"wtpt", XYZTag(.9642, 1, .8249)}, {"cprt", append([]byte("text\x00\x00\x00\x00"), "none\x00\x00\x00\x00"...)}}, tags...)
	table := binary.BigEndian.AppendUint32(nil, uint32(len(tags)))
	at := 128 + 4 + 12*len(tags)
	var body []byte
	for _, t := range tags {
		table = append(table, t.Name...)
		table = binary.BigEndian.AppendUint32(table, uint32(at+len(body)))
		table = binary.BigEndian.AppendUint32(table, uint32(len(t.Data)))
		body = append(body, t.Data...)
		for len(body)%4 != 0 {
			body = append(body, 0)
		}
	}
	out := append(append(head, table...), body...)
	binary.BigEndian.PutUint32(out, uint32(len(out)))
	return out
}

func fixed(v float64) uint32 { return uint32(int32(math.Round(v * 65536))) }

// XYZTag is the data of a part that holds a colour as XYZ.
func XYZTag(x, y, z float64) []byte {
	out := []byte("XYZ \x00\x00\x00\x00")
	for _, v := range []float64{x, y, z} {
		out = binary.BigEndian.AppendUint32(out, fixed(v))
	}
	return out
}

// TableTag is the data of a table of n places along each of its inputs (lut16Type), filled by a
// function of inputs and outputs from 0 to 1.
func TableTag(n, inputs, outputs int, f func([]float64) []float64) []byte {
	out := []byte("mft2\x00\x00\x00\x00")
	out = append(out, byte(inputs), byte(outputs), byte(n), 0)
	for _, v := range []float64{1, 0, 0, 0, 1, 0, 0, 0, 1} { // a matrix that changes nothing
		out = binary.BigEndian.AppendUint32(out, fixed(v))
	}
	line := []byte{0, 0, 255, 255}
	out = append(out, 0, 2, 0, 2)
	for range inputs {
		out = append(out, line...)
	}
	at := make([]float64, inputs)
	var fill func(i int)
	fill = func(i int) {
		if i == inputs {
			for _, v := range f(at) {
				out = binary.BigEndian.AppendUint16(out, uint16(math.Round(min(max(v, 0), 1)*65535)))
			}
			return
		}
		for k := range n {
			at[i] = float64(k) / float64(n-1)
			fill(i + 1)
		}
	}
	fill(0)
	for range outputs {
		out = append(out, line...)
	}
	return out
}

// LabCode and LabOf are a colour in CIELAB as tables of 16 bits hold it, and back.
func LabCode(l, a, b float64) []float64 {
	return []float64{l / 100 * 65280 / 65535, (a + 128) * 256 / 65535, (b + 128) * 256 / 65535}
}

// LabOf is the colour in CIELAB that a table of 16 bits holds.
func LabOf(c []float64) (l, a, b float64) {
	return c[0] * 65535 / 65280 * 100, c[1]*65535/256 - 128, c[2]*65535/256 - 128
}

// Pale is the profile of a printer of red, green and blue that lays down a third of their chroma.
func Pale() []byte {
	return Profile("prtr", "RGB ", "Lab ", Tag{"A2B0", TableTag(9, 3, 3, func(c []float64) []float64 {
		l, a, b := colorful.Color{R: c[0], G: c[1], B: c[2]}.Lab()
		return LabCode(10+90*l, 33*a, 33*b)
	})})
}

package raster

import (
	"bytes"
	"compress/flate"
	"encoding/binary"
	"fmt"
	"hash/adler32"
	"hash/crc32"
	"image"
	"io"
	"math"
	"runtime"
	"sync"
)

// bandRows is the least height of a band that is compressed by itself, in pixels.
const bandRows = 64

// WritePNG writes an opaque picture that says how large it is: perMM pixels to the
// millimetre (PNG specification, third edition; the pHYs chunk is 11.3.4.3). What is seen
// through is written as if it lay on black.
//
// Bands of rows are filtered and compressed side by side. Each ends at a byte (RFC 1951, a
// stored block of no length), so that one after the other they are one stream. It returns the
// error of the writer.
func WritePNG(w io.Writer, img *image.RGBA, perMM float64) error {
	width, height := img.Rect.Dx(), img.Rect.Dy()
	if width < 1 || height < 1 {
		return fmt.Errorf("encode PNG: a picture of %d × %d pixels", width, height)
	}
	n := min(runtime.GOMAXPROCS(0), (height+bandRows-1)/bandRows)
	bands := make([]band, n)
	var all sync.WaitGroup
	for i := range bands {
		b := &bands[i]
		all.Go(func() { b.fill(img, height*i/n, height*(i+1)/n, i == n-1) })
	}
	all.Wait()

	var head bytes.Buffer
	head.WriteString("\x89PNG\r\n\x1a\n")
	ihdr := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(width)), uint32(height))
	chunk(&head, "IHDR", append(ihdr, 8, 2, 0, 0, 0)) // eight bits of red, green and blue
	dots := uint32(math.Round(perMM * 1000))
	chunk(&head, "pHYs", append(binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, dots), dots), 1)) // to the metre
	chunk(&head, "IDAT", []byte{0x78, 0x01})                                                                       // zlib, fastest (RFC 1950)
	if _, err := w.Write(head.Bytes()); err != nil {
		return err
	}
	sum := uint32(1)
	for i := range bands {
		b := &bands[i]
		if b.err != nil {
			return fmt.Errorf("encode PNG: %w", b.err)
		}
		sum = joinSums(sum, b.sum, b.raw)
		if _, err := w.Write(b.chunk); err != nil {
			return err
		}
	}
	var tail bytes.Buffer
	chunk(&tail, "IDAT", binary.BigEndian.AppendUint32(nil, sum))
	chunk(&tail, "IEND", nil)
	_, err := w.Write(tail.Bytes())
	return err
}

// band is a run of rows, as an IDAT chunk; sum is the Adler-32 of the raw bytes in it.
type band struct {
	chunk []byte
	raw   int
	sum   uint32
	err   error
}

func (b *band) fill(img *image.RGBA, from, to int, last bool) {
	var out bytes.Buffer
	z, err := flate.NewWriter(&out, flate.BestSpeed)
	if err != nil {
		b.err = err
		return
	}
	sum := adler32.New()
	width := img.Rect.Dx()
	row := make([]byte, 1+3*width)
	for y := from; y < to; y++ {
		now := img.Pix[y*img.Stride:][:4*width]
		if y == 0 {
			row[0] = 0 // as it is
			for x := range width {
				copy(row[1+3*x:4+3*x], now[4*x:4*x+3])
			}
		} else {
			row[0] = 2 // less what is above
			above := img.Pix[(y-1)*img.Stride:][:4*width]
			upRow(row[1:], now, above)
		}
		sum.Write(row)
		if _, err := z.Write(row); err != nil {
			b.err = err
			return
		}
	}
	if last {
		err = z.Close()
	} else {
		err = z.Flush()
	}
	var framed bytes.Buffer
	chunk(&framed, "IDAT", out.Bytes())
	b.chunk, b.raw, b.sum, b.err = framed.Bytes(), (to-from)*len(row), sum.Sum32(), err
}

// upRow is each colour less the one above it.
func upRow(out, now, above []byte) {
	for i, o := 0, 0; i+4 <= len(now); i, o = i+4, o+3 {
		n, a, p := now[i:i+4:i+4], above[i:i+4:i+4], out[o:o+3:o+3]
		p[0], p[1], p[2] = n[0]-a[0], n[1]-a[1], n[2]-a[2]
	}
}

// joinSums is the Adler-32 of bytes with the sum a, followed by n bytes with the sum b
// (RFC 1950, 8.2).
func joinSums(a, b uint32, n int) uint32 {
	const base = 65521
	k := uint64(n % base)
	a1, a2, b1, b2 := uint64(a&0xffff), uint64(a>>16), uint64(b&0xffff), uint64(b>>16)
	low := (a1 + b1 + base - 1) % base
	high := (a2 + b2 + k*(a1+base-1)) % base
	return uint32(high<<16 | low)
}

// chunk writes a chunk with its length and its check.
func chunk(w *bytes.Buffer, kind string, data []byte) {
	at := w.Len()
	w.Write(binary.BigEndian.AppendUint32(nil, uint32(len(data))))
	w.WriteString(kind)
	w.Write(data)
	w.Write(binary.BigEndian.AppendUint32(nil, crc32.ChecksumIEEE(w.Bytes()[at+4:])))
}

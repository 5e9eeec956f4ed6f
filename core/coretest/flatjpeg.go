package coretest

import "encoding/binary"

// FlatJPEG is a JPEG (ITU-T T.81, baseline) of 16 by 16 pixels of one colour, whose components, one,
// three or four, are given as they are stored. Segments stand right after its start, each with its
// marker and without its length.
func FlatJPEG(stored []uint8, segments ...[]byte) []byte {
	out := []byte{0xff, 0xd8}
	put := func(marker byte, body ...byte) {
		out = append(out, 0xff, marker)
		out = binary.BigEndian.AppendUint16(out, uint16(len(body)+2))
		out = append(out, body...)
	}
	for _, s := range segments {
		put(s[0], s[1:]...)
	}
	ones := make([]byte, 65)
	for i := range 64 {
		ones[i+1] = 1
	}
	put(0xdb, ones...)
	frame, scan := []byte{8, 0, 16, 0, 16, byte(len(stored))}, []byte{byte(len(stored))}
	for i := range stored {
		frame = append(frame, byte(i+1), 0x11, 0)
		scan = append(scan, byte(i+1), 0)
	}
	put(0xc0, frame...)
	// Differences of mean values by their length in bits (table K.3), and an end of block alone.
	put(0xc4, 0, 0, 1, 5, 1, 1, 1, 1, 1, 1, 0, 0, 0, 0, 0, 0, 0, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11)
	put(0xc4, 0x10, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0)
	put(0xda, append(scan, 0, 63, 0)...)
	lengths := [12]struct{ code, bits uint }{{0, 2}, {2, 3}, {3, 3}, {4, 3}, {5, 3}, {6, 3}, {14, 4}, {30, 5}, {62, 6}, {126, 7}, {254, 8}, {510, 9}}
	var held, n uint
	write := func(v, bits uint) {
		held, n = held<<bits|v&(1<<bits-1), n+bits
		for n >= 8 {
			b := byte(held >> (n - 8))
			if out = append(out, b); b == 0xff {
				out = append(out, 0)
			}
			n -= 8
		}
	}
	for block := range 4 {
		for _, v := range stored {
			diff, bits := (int(v)-128)*8, uint(0)
			if block > 0 {
				diff = 0
			}
			for a := max(diff, -diff); a > 0; a >>= 1 {
				bits++
			}
			write(lengths[bits].code, lengths[bits].bits)
			if diff < 0 {
				diff--
			}
			write(uint(diff), bits)
			write(0, 1)
		}
	}
	write(1<<7-1, 7)
	return append(out, 0xff, 0xd9)
}

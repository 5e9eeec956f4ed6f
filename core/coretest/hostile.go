package coretest

import (
	"bytes"
	"context"
	"errors"
	"math/rand/v2"
	"runtime"
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/document/exchange"
)

// What reading one hostile file of up to a megabyte may take: beyond these something does
// not end, or holds all of what a small file unfolds to.
const (
	hostileTime   = 120e9   // nanoseconds
	hostileMemory = 3 << 30 // bytes, all that were ever asked for
)

// Bounded reads a file that may be anything: it ends in time, with a sound drawing or an
// error of its own, and does not ask for more memory than it may.
func Bounded(t *testing.T, raw []byte, read func(context.Context, []byte) (exchange.Drawing, error)) {
	t.Helper()
	ctx, cancel := context.WithTimeout(t.Context(), hostileTime)
	defer cancel()
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	d, err := read(ctx, raw)
	runtime.ReadMemStats(&after)
	require.False(t, errors.Is(err, context.DeadlineExceeded), "does not end: %.2000s", raw)
	require.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(hostileMemory), "takes too much: %.2000s", raw)
	if err == nil {
		SoundDrawing(t, d)
	}
}

// numbersToTry are what a hostile file has for numbers.
var numbersToTry = []string{"0", "-1", "1e9", "-1e9", "1e-9", "1e308", "NaN", "99999999999999999999", ".", "-", "1e", "0.0001", "1000000"}

// Spoilt is a file with some of its parts repeated many times, cut out, exchanged or
// overwritten.
func Spoilt(r *rand.Rand, raw []byte) []byte {
	const most = 1 << 20
	out := bytes.Clone(raw)
	for range 1 + r.IntN(5) {
		if len(out) < 8 {
			break
		}
		from := r.IntN(len(out))
		to := min(len(out), from+1+r.IntN(1+r.IntN(400)))
		part := bytes.Clone(out[from:to])
		switch r.IntN(6) {
		case 0: // many times
			n := min(1+r.IntN(1<<r.IntN(16)), (most-min(len(out), most))/len(part))
			out = append(out[:to:to], append(bytes.Repeat(part, max(n, 0)), out[to:]...)...)
		case 1: // not at all
			out = append(out[:from:from], out[to:]...)
		case 2: // somewhere else too
			at := r.IntN(len(out))
			out = append(out[:at:at], append(part, out[at:]...)...)
		case 3: // a number for another
			at := bytes.IndexAny(out[from:], "0123456789")
			if at < 0 {
				continue
			}
			at += from
			end := at
			for end < len(out) && (out[end] >= '0' && out[end] <= '9' || out[end] == '.') {
				end++
			}
			out = append(out[:at:at], append([]byte(numbersToTry[r.IntN(len(numbersToTry))]), out[end:]...)...)
		case 4:
			out[from] = byte(r.IntN(256))
		default: // in itself: tags that are opened often
			n := 1 + r.IntN(1<<r.IntN(10))
			if n*len(part) < most {
				out = append(out[:from:from], append(bytes.Repeat(part, n), out[from:]...)...)
			}
		}
	}
	return out[:min(len(out), most)]
}

package main

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// output is a buffer that may be read while it is written.
type output struct {
	sync.Mutex
	b bytes.Buffer
}

func (o *output) Write(p []byte) (int, error) {
	o.Lock()
	defer o.Unlock()
	return o.b.Write(p)
}

func (o *output) String() string {
	o.Lock()
	defer o.Unlock()
	return o.b.String()
}

// run runs the program with the arguments until stop is called.
func run(t *testing.T, args ...string) (out *output, stop func() error) {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	out = &output{}
	cmd := root()
	cmd.SetArgs(args)
	cmd.SetOut(out)
	ended := make(chan error, 1)
	go func() { ended <- cmd.ExecuteContext(ctx) }()
	stop = sync.OnceValue(func() error { cancel(); return <-ended })
	t.Cleanup(func() { _ = stop() })
	return out, stop
}

func free(t *testing.T) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = l.Close() }()
	return l.Addr().String()
}

func TestTheDemoPrintsItsAddressAndEndsCleanly(t *testing.T) {
	data := filepath.Join(t.TempDir(), "sub", "demo.db")
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = taken.Close() }()
	type titled struct{ Title string }
	var first []titled
	for round := range 2 {
		out, stop := run(t, "demo", "--data", data, "--listen", "127.0.0.1:0", "--cutter", taken.Addr().String(), "--camera", free(t), "--printer", free(t))
		var url string
		require.Eventually(t, func() bool {
			url = regexp.MustCompile(`http://\S+/`).FindString(out.String())
			return url != ""
		}, time.Minute, 5*time.Millisecond)
		var cards []titled
		get(t, url+"api/cards", &cards)
		assert.NotEmpty(t, cards)
		if round > 0 {
			assert.Equal(t, first, cards, "the demo is filled in once")
		}
		first = cards
		var cutter struct{ State, Why string }
		get(t, url+"api/cutter", &cutter)
		assert.Equal(t, "away", cutter.State)
		assert.Contains(t, cutter.Why, "its stand-in could not start", "a taken port is said where it is missed")
		assert.NoError(t, stop())
	}
}

func get(t *testing.T, url string, v any) {
	t.Helper()
	res, err := http.Get(url)
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	raw, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(raw, v), string(raw))
}

func TestWhatCannotStartSaysWhy(t *testing.T) {
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = taken.Close() }()
	addr := taken.Addr().String()
	short := filepath.Join(t.TempDir(), "pass")
	require.NoError(t, os.WriteFile(short, []byte("plum\n"), 0o600))
	for _, c := range []struct {
		args []string
		why  string
	}{
		{[]string{"serve", "--data", filepath.Join(t.TempDir(), "a.db"), "--listen", addr}, "Name another address with --listen"},
		{[]string{"serve", "--data", t.TempDir()}, "cannot be written"},
		{[]string{"cutter", "--listen", addr}, "the cutter stand-in cannot start"},
		{[]string{"cutter", "--listen", free(t), "--camera", addr}, "the cutter stand-in cannot start"},
		{[]string{"printer", "--listen", addr}, "the printer stand-in cannot start"},
		{[]string{"serve", "--data", filepath.Join(t.TempDir(), "b.db"), "--listen", "0.0.0.0:0"}, "name it with --pass-file"},
		{[]string{"serve", "--data", filepath.Join(t.TempDir(), "c.db"), "--listen", ":0"}, "others can reach the program"},
		{[]string{"serve", "--data", filepath.Join(t.TempDir(), "d.db"), "--pass-file", short}, "at least 8 letters"},
		{[]string{"fold"}, "unknown command"},
	} {
		cmd := root()
		cmd.SetArgs(c.args)
		cmd.SetOut(io.Discard)
		assert.ErrorContains(t, cmd.ExecuteContext(t.Context()), c.why, "%v", c.args)
	}
}

func TestTheSchemaIsOneDocument(t *testing.T) {
	out, _ := run(t, "schema")
	var schema struct {
		Defs map[string]json.RawMessage `json:"$defs"`
	}
	require.Eventually(t, func() bool { return json.Unmarshal([]byte(out.String()), &schema) == nil }, time.Minute, time.Millisecond)
	for _, name := range []string{"View", "Card", "Command", "SceneItem", "Problem"} {
		assert.Contains(t, schema.Defs, name)
	}
}

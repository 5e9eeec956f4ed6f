package server

import (
	"bufio"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/store"
)

// handler serves an empty store of its own.
func handler(t *testing.T, cfg Config) http.Handler {
	t.Helper()
	cfg.Log = slog.New(slog.NewTextHandler(io.Discard, nil))
	db, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "a.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	cfg.App = app.New(app.Config{Store: db, Log: cfg.Log})
	t.Cleanup(cfg.App.Close)
	return Handler(cfg)
}

// The stream of events outlives the time limits that all other answers have, however the
// client says that it can read.
func TestTheEventStreamHasNoTimeLimit(t *testing.T) {
	h := handler(t, Config{Beat: 20 * time.Millisecond})
	srv := httptest.NewUnstartedServer(h)
	limited := newServer(t.Context(), h)
	srv.Config.Handler = limited.Handler
	srv.Config.WriteTimeout, srv.Config.ReadTimeout = 60*time.Millisecond, 60*time.Millisecond
	srv.Start()
	defer srv.Close()
	assert.NotZero(t, limited.WriteTimeout, "other answers have a limit")
	for _, encoding := range []string{"", "gzip"} {
		req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, srv.URL+"/api/events", nil)
		require.NoError(t, err)
		req.Header.Set("Accept-Encoding", encoding)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		require.Equal(t, http.StatusOK, res.StatusCode)
		beats := 0
		for lines := bufio.NewScanner(res.Body); beats < 12 && lines.Scan(); {
			if strings.Contains(lines.Text(), "beat") {
				beats++
			}
		}
		assert.Equal(t, 12, beats, "twelve beats take four times the limit")
		require.NoError(t, res.Body.Close())
	}
}

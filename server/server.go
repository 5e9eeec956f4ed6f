// Package server is the HTTP face of the app: JSON under /api, server-sent
// events, the shipped fonts, and the front end.
package server

import (
	"context"
	"errors"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path"
	"runtime/debug"
	"slices"
	"strings"
	"time"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"sectilis/app"
)

// Config is what a server is made of.
type Config struct {
	App *app.App
	// Web is the built front end.
	Web fs.FS
	// Hosts are names, besides those of this computer, that it may be reached by.
	Hosts []string
	Log   *slog.Logger
	// Pass is the hash of the pass phrase that is asked for (HashPass); "" asks for none.
	Pass string
	// Beat is how often an event stream says that it lives; 0 is every 20 seconds.
	Beat time.Duration
}

// Limits on what a client may send.
const (
	maxUpload = 64 << 20
	maxJSON   = 4 << 20
)

// Handler returns the whole HTTP interface.
func Handler(c Config) http.Handler {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	s := &server{Config: c}
	if c.Pass != "" {
		s.gate = newGate(c.Pass, time.Now)
	}
	r.Use(s.logged, s.recovered, s.guarded, s.passed)
	r.Use(gzip.Gzip(gzip.BestSpeed, gzip.WithExcludedExtensions([]string{".png", ".jpg", ".pdf", ".woff", ".woff2"}), gzip.WithExcludedPaths([]string{eventsPath})))
	r.NoRoute(s.frontEnd)
	s.routes(r.Group("/api"))
	r.GET("/fonts/:file", s.font)
	return r
}

// Serve answers on the listener until ctx ends, then lets requests finish. It returns the
// error of the listener, nil when ctx ended.
func Serve(ctx context.Context, l net.Listener, h http.Handler) error {
	// A change leaves much that lives no longer than its answer; collected less often, it
	// takes a tenth less time, and some more memory.
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(400)
	}
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(memoryLimit(memory()))
	}
	srv := newServer(ctx, h)
	done := make(chan error, 1)
	go func() {
		<-ctx.Done()
		late, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		defer cancel()
		done <- srv.Shutdown(late)
	}()
	if err := srv.Serve(l); !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return <-done
}

// newServer has limits for every request; the event stream, which has no end, takes its
// own off.
func newServer(ctx context.Context, h http.Handler) *http.Server {
	return &http.Server{
		Handler:           h,
		ReadHeaderTimeout: 10 * time.Second,
		ReadTimeout:       2 * time.Minute, // a large photo over a slow line
		WriteTimeout:      2 * time.Minute,
		IdleTimeout:       2 * time.Minute,
		MaxHeaderBytes:    64 << 10,
		// Event streams end with ctx, or shutting down would wait for them.
		BaseContext: func(net.Listener) context.Context { return ctx },
	}
}

type server struct {
	Config
	gate *gate // nil where no pass phrase is asked for
}

func (s *server) logged(c *gin.Context) {
	start := time.Now()
	c.Next()
	level := slog.LevelDebug
	if c.Writer.Status() >= 500 {
		level = slog.LevelError
	}
	s.Log.Log(c, level, "request", "method", c.Request.Method, "path", c.Request.URL.Path,
		"status", c.Writer.Status(), "ms", time.Since(start).Milliseconds())
}

func (s *server) recovered(c *gin.Context) {
	defer func() {
		if p := recover(); p != nil {
			s.Log.Error("panic", "path", c.Request.URL.Path, "panic", p)
			problem(c, http.StatusInternalServerError, "fault", "Something went wrong inside. Nothing was changed.", "")
		}
	}()
	c.Next()
}

const policy = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; " +
	"object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// crossOrigin tells requests of other sites' pages that change something.
var crossOrigin = http.NewCrossOriginProtection()

// guarded keeps other sites' pages from reaching in: the Host must be ours,
// and what changes anything must come from our own pages.
func (s *server) guarded(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", policy)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	host := c.Request.Host
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	host = strings.ToLower(strings.TrimSuffix(strings.Trim(host, "[]"), ".")) // as DNS takes names
	ip := net.ParseIP(host)
	// A name could be another site's that leads here; a number cannot.
	known := host == "localhost" || ip != nil && (ip.IsLoopback() || s.gate != nil) || slices.Contains(s.Hosts, host)
	if !known {
		problem(c, http.StatusMisdirectedRequest, "host", "This address is not one that the program answers to.", "")
		return
	}
	if err := crossOrigin.Check(c.Request); err != nil {
		problem(c, http.StatusForbidden, "origin", "Only the program's own pages may change anything.", "")
		return
	}
	c.Next()
}

// frontEnd serves the built files; any other path is a page of the front end.
func (s *server) frontEnd(c *gin.Context) {
	name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead || name == "api" || strings.HasPrefix(name, "api/") {
		problem(c, http.StatusNotFound, "not-found", "There is nothing at this address.", "")
		return
	}
	if info, err := fs.Stat(s.Web, name); err != nil || info.IsDir() {
		if strings.HasPrefix(name, "assets/") {
			c.Status(http.StatusNotFound)
			return
		}
		name = "index.html"
	}
	if strings.HasPrefix(name, "assets/") {
		c.Header("Cache-Control", "public, max-age=31536000, immutable")
	} else {
		c.Header("Cache-Control", "no-cache")
	}
	raw, err := fs.ReadFile(s.Web, name)
	if err != nil {
		c.Data(http.StatusNotFound, "text/plain; charset=utf-8", []byte("The front end has not been built. Run “make build”."))
		return
	}
	kind := map[string]string{
		".html": "text/html; charset=utf-8", ".js": "text/javascript; charset=utf-8", ".css": "text/css; charset=utf-8",
		".svg": "image/svg+xml", ".woff2": "font/woff2", ".woff": "font/woff", ".png": "image/png",
	}[path.Ext(name)]
	if kind == "" {
		kind = "application/octet-stream"
	}
	c.Data(http.StatusOK, kind, raw)
}

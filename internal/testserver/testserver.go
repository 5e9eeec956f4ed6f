// Package testserver puts a whole program together in one process, with stand-ins
// for the devices, for tests and for the pictures of the docs.
package testserver

import (
	"cmp"
	"context"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"path/filepath"
	"sync"

	"sectilis/app"
	"sectilis/demo"
	"sectilis/device"
	"sectilis/device/standin"
	"sectilis/server"
	"sectilis/store"
	"sectilis/web"
)

// Server is a running program.
type Server struct {
	URL string
	App *app.App
	// EndCutter takes the cutter away, as if its cable had been pulled.
	EndCutter func()
	stop      []func()
}

// Options say how the program is set up.
type Options struct {
	Data string  // database file
	Demo bool    // with the demo cards
	Pace float64 // of the cutter; 0 takes no time
	// Listen is the address to answer at; a free one when empty.
	Listen string
	// Again has the program answer where the one before did, if that is free: what a browser has read from
	// there it need not read again.
	Again bool
	// PrintScale is the resolution of pages in pixels per mm; 0 is that of the program.
	PrintScale float64
}

const anyPort = "127.0.0.1:0"

// before is where the program before answered.
var before struct {
	sync.Mutex
	addr string
}

// listen listens where the options say.
func listen(opt Options) (net.Listener, error) {
	before.Lock()
	defer before.Unlock()
	if opt.Again && opt.Listen == "" && before.addr != "" {
		if l, err := net.Listen("tcp", before.addr); err == nil {
			return l, nil
		}
	}
	l, err := net.Listen("tcp", cmp.Or(opt.Listen, anyPort))
	if err != nil {
		return nil, fmt.Errorf("listen: %w", err)
	}
	before.addr = l.Addr().String()
	return l, nil
}

// Start starts the program on free ports of this computer. It returns an error when a port or
// a file cannot be opened.
func Start(ctx context.Context, opt Options) (h *Server, err error) {
	h = &Server{}
	defer func() {
		if err != nil {
			h.Stop()
		}
	}()
	ctx, cancel := context.WithCancel(ctx)
	h.stop = append(h.stop, cancel)
	log := slog.New(slog.NewTextHandler(io.Discard, nil))

	var listeners [3]net.Listener
	for i := range listeners {
		if listeners[i], err = net.Listen("tcp", anyPort); err != nil {
			return h, fmt.Errorf("listen: %w", err)
		}
	}
	jobs, camera, paper := listeners[0], listeners[1], listeners[2]
	front, err := listen(opt)
	if err != nil {
		return h, err
	}
	cutterCtx, endCutter := context.WithCancel(ctx)
	h.EndCutter = endCutter
	ended := make(chan error, 3)
	go func() { ended <- standin.NewCutter(opt.Pace, 1926).Serve(cutterCtx, jobs, camera, log) }()
	printer, err := standin.NewPrinter(1926, filepath.Join(filepath.Dir(opt.Data), "printed"))
	if err != nil {
		return h, err
	}
	if opt.PrintScale > 0 {
		printer.Scale = opt.PrintScale
	}
	go func() { ended <- http.Serve(paper, printer.Handler()) }()
	h.stop = append(h.stop, func() { _ = paper.Close() })

	s, err := store.Open(ctx, opt.Data)
	if err != nil {
		return h, err
	}
	h.stop = append(h.stop, func() { _ = s.Close() })
	h.App = app.New(app.Config{
		Store: s, Log: log,
		Cutter:  &device.Cutter{Addr: jobs.Addr().String(), Camera: "http://" + camera.Addr().String()},
		Printer: device.Printer{URL: "http://" + paper.Addr().String()},

		OtherCutter: device.Plain, PrintScale: opt.PrintScale,
	})
	h.stop = append(h.stop, h.App.Close)
	if opt.Demo {
		if err := demo.Fill(ctx, h.App); err != nil {
			return h, err
		}
	}
	h.URL = "http://" + front.Addr().String()
	served := make(chan error, 1)
	go func() {
		served <- server.Serve(ctx, front, server.Handler(server.Config{App: h.App, Web: web.Files(), Log: log}))
	}()
	h.stop = append(h.stop, func() { cancel(); <-served })
	return h, nil
}

// Stop ends everything, the last started first.
func (h *Server) Stop() {
	for i := len(h.stop) - 1; i >= 0; i-- {
		h.stop[i]()
	}
	h.stop = nil
}

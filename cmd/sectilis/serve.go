package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"sectilis/app"
	"sectilis/demo"
	"sectilis/device"
	"sectilis/server"
	"sectilis/store"
	"sectilis/web"
)

// options of serve and demo.
type options struct {
	listen, data, cutter, camera, printer string
	passFile                              string
	hosts                                 []string
	pace                                  float64
}

func (o *options) flags(cmd *cobra.Command, data string) {
	f := cmd.Flags()
	f.StringVar(&o.listen, "listen", "127.0.0.1:7400", "address to answer at")
	f.StringVar(&o.passFile, "pass-file", "", "file with the pass phrase that is asked for; needed to answer at other addresses than this computer's own")
	f.StringVar(&o.data, "data", data, "database file")
	f.StringSliceVar(&o.hosts, "host", nil, "name that the program may be reached by, besides this computer's own")
	f.StringVar(&o.cutter, "cutter", "127.0.0.1:7401", "address of the cutter's HP-GL socket")
	f.StringVar(&o.camera, "camera", "127.0.0.1:7402", "address of the cutter's state and picture")
	f.StringVar(&o.printer, "printer", "127.0.0.1:7403", "address of the printer")
}

func serveCommand() *cobra.Command {
	o := &options{}
	cmd := &cobra.Command{
		Use: "serve", Short: "Run the app", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return serve(cmd.Context(), cmd, *o, &device.Cutter{Addr: o.cutter, Camera: "http://" + o.camera}, false)
		},
	}
	o.flags(cmd, "data/sectilis.db")
	return cmd
}

func demoCommand() *cobra.Command {
	o := &options{}
	cmd := &cobra.Command{
		Use: "demo", Short: "Run the app with demo cards and stand-ins for printer and cutter", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			// A stand-in whose port is taken is told where it is missed; the
			// rest works without it.
			var cutter app.Cutter = &device.Cutter{Addr: o.cutter, Camera: "http://" + o.camera}
			if err := startCutter(cmd.Context(), o.cutter, o.camera, o.pace); err != nil {
				slog.Warn("no cutter stand-in", "err", err)
				cutter = device.Away{Why: fmt.Sprintf("its stand-in could not start (%v). End what uses that port, or name another with --cutter and --camera", err)}
			}
			if err := startPrinter(cmd.Context(), o.printer, filepath.Join(filepath.Dir(o.data), "printed")); err != nil {
				slog.Warn("no printer stand-in", "err", err)
			}
			return serve(cmd.Context(), cmd, *o, cutter, true)
		},
	}
	o.flags(cmd, "data/demo.db")
	cmd.Flags().Float64Var(&o.pace, "pace", 6, "how many times faster than life the cutter moves; 0 takes no time")
	return cmd
}

func serve(ctx context.Context, cmd *cobra.Command, o options, cutter app.Cutter, withDemo bool) error {
	s, err := store.Open(ctx, o.data)
	if err != nil {
		return err
	}
	pass, err := passOf(ctx, s, o)
	if err != nil {
		return errors.Join(err, s.Close())
	}
	defer func() { _ = s.Close() }() // everything acknowledged is on disk already
	a := app.New(app.Config{Store: s, Cutter: cutter, OtherCutter: device.Plain, Printer: device.Printer{URL: "http://" + o.printer}})
	defer a.Close()
	if withDemo {
		cards, err := a.Cards(ctx, "")
		if err != nil {
			return err
		}
		if len(cards) == 0 {
			if err := demo.Fill(ctx, a); err != nil {
				return err
			}
		}
	}
	l, err := net.Listen("tcp", o.listen)
	if err != nil {
		return fmt.Errorf("cannot answer at %s: %w. Name another address with --listen", o.listen, err)
	}
	if _, err := fmt.Fprintf(cmd.OutOrStdout(), "Sectilis is ready: http://%s/\n", l.Addr()); err != nil {
		return err
	}
	return server.Serve(ctx, l, server.Handler(server.Config{App: a, Web: web.Files(), Hosts: o.hosts, Pass: pass, Log: slog.Default()}))
}

// passName is what the hash of the pass phrase is kept under.
const passName = "pass phrase"

// passOf is the hash of the pass phrase that is asked for: of the one in the file that was
// named, which is kept, or of the one kept before. Where there is none the program answers
// at this computer alone.
func passOf(ctx context.Context, s *store.Store, o options) (string, error) {
	if o.passFile != "" {
		raw, err := os.ReadFile(o.passFile)
		if err != nil {
			return "", fmt.Errorf("the file of the pass phrase cannot be read: %w", err)
		}
		hash, err := server.HashPass(string(raw))
		if err != nil {
			return "", fmt.Errorf("the pass phrase in %s cannot be taken: %w", o.passFile, err)
		}
		return hash, s.Keep(ctx, passName, []byte(hash))
	}
	host, _, err := net.SplitHostPort(o.listen)
	if err != nil {
		return "", fmt.Errorf("%q is no address and port, like 127.0.0.1:7400", o.listen)
	}
	if ip := net.ParseIP(host); host == "localhost" || ip != nil && ip.IsLoopback() {
		return "", nil
	}
	kept, err := s.Kept(ctx, passName)
	if errors.Is(err, app.ErrNotFound) {
		return "", fmt.Errorf("at %s others can reach the program, and whoever does could change and print your cards. Write a pass phrase of %d letters or more into a file and name it with --pass-file, or listen at 127.0.0.1", o.listen, server.LeastPass)
	}
	if err != nil {
		return "", err
	}
	slog.Warn("others can reach the program; it asks for the pass phrase", "listen", o.listen)
	return string(kept), nil
}

package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"time"

	"github.com/spf13/cobra"

	"sectilis/device/standin"
)

// startCutter runs a cutter stand-in in the background until ctx ends.
func startCutter(ctx context.Context, jobs, camera string, pace float64) error {
	l, err := net.Listen("tcp", jobs)
	if err != nil {
		return err
	}
	cam, err := net.Listen("tcp", camera)
	if err != nil {
		return errors.Join(err, l.Close())
	}
	go func() {
		if err := standin.NewCutter(pace, 1926).Serve(ctx, l, cam, slog.Default()); err != nil {
			slog.Error("cutter stand-in", "err", err)
		}
	}()
	return nil
}

// startPrinter runs a printer stand-in in the background until ctx ends.
func startPrinter(ctx context.Context, addr, printed string) error {
	printer, err := standin.NewPrinter(1926, printed)
	if err != nil {
		return err
	}
	l, err := net.Listen("tcp", addr)
	if err != nil {
		return err
	}
	srv := &http.Server{Handler: printer.Handler(), ReadHeaderTimeout: 5 * time.Second}
	context.AfterFunc(ctx, func() { _ = srv.Close() })
	go func() {
		if err := srv.Serve(l); !errors.Is(err, http.ErrServerClosed) {
			slog.Error("printer stand-in", "err", err)
		}
	}()
	return nil
}

func cutterCommand() *cobra.Command {
	var jobs, camera string
	var pace float64
	cmd := &cobra.Command{
		Use: "cutter", Short: "Run a stand-in for a cutter", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if err := startCutter(cmd.Context(), jobs, camera, pace); err != nil {
				return fmt.Errorf("the cutter stand-in cannot start: %w", err)
			}
			return idle(cmd, fmt.Sprintf("Cutter stand-in: HP-GL at %s, its bed at http://%s/bed.png", jobs, camera))
		},
	}
	cmd.Flags().StringVar(&jobs, "listen", "127.0.0.1:7401", "address for HP-GL")
	cmd.Flags().StringVar(&camera, "camera", "127.0.0.1:7402", "address of its state and picture")
	cmd.Flags().Float64Var(&pace, "pace", 1, "how many times faster than life it moves; 0 takes no time")
	return cmd
}

func printerCommand() *cobra.Command {
	var addr, printed string
	cmd := &cobra.Command{
		Use: "printer", Short: "Run a stand-in for a printer", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if err := startPrinter(cmd.Context(), addr, printed); err != nil {
				return fmt.Errorf("the printer stand-in cannot start: %w", err)
			}
			return idle(cmd, "Printer stand-in at http://"+addr+"/")
		},
	}
	cmd.Flags().StringVar(&addr, "listen", "127.0.0.1:7403", "address to answer at")
	cmd.Flags().StringVar(&printed, "printed", "data/printed", "directory that printed sheets are kept in")
	return cmd
}

// idle says what runs and waits for the end.
func idle(cmd *cobra.Command, text string) error {
	if _, err := fmt.Fprintln(cmd.OutOrStdout(), text); err != nil {
		return err
	}
	<-cmd.Context().Done()
	return nil
}

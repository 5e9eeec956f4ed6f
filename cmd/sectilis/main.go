// Command sectilis is the whole program: the app, its demo and the stand-ins
// for printer and cutter.
package main

import (
	"context"
	"fmt"
	"log/slog"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"

	"sectilis/server"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := root().ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "sectilis:", err)
		os.Exit(1)
	}
}

func root() *cobra.Command {
	cmd := &cobra.Command{
		Use:           "sectilis",
		Short:         "Design cards, print them, cut them, fold them",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	verbose := cmd.PersistentFlags().Bool("verbose", false, "log every request")
	cmd.PersistentPreRun = func(*cobra.Command, []string) {
		level := slog.LevelInfo
		if *verbose {
			level = slog.LevelDebug
		}
		slog.SetDefault(slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: level})))
	}
	cmd.AddCommand(serveCommand(), demoCommand(), cutterCommand(), printerCommand(), &cobra.Command{
		Use: "schema", Short: "Print the JSON Schema of the API", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			raw, err := server.Schema()
			if err != nil {
				return err
			}
			_, err = cmd.OutOrStdout().Write(raw)
			return err
		},
	})
	return cmd
}

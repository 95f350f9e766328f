// Command coldember serves the application and answers on the command line.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"coldember/core/quantity"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/text"

	"github.com/spf13/cobra"
)

// version is set when the binary is built.
var version = "dev"

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	err := root().ExecuteContext(ctx)
	stop()
	if err != nil {
		fmt.Fprintln(os.Stderr, "coldember:", inWords(err))
		os.Exit(1)
	}
}

func root() *cobra.Command {
	c := &cobra.Command{
		Use:           "coldember",
		Short:         "Plan forging a blade: the bar, the chalk marks, the heats",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	c.AddCommand(serveCommand(), demoCommand(), calcCommand(), openapiCommand(), schemaCommand(), openCommand(), exportCommand(), importCommand(), backupCommand(), restoreCommand(), packCommand(), unpackCommand(), doctorCommand(), versionCommand())
	return c
}

func versionCommand() *cobra.Command {
	return &cobra.Command{Use: "version", Short: "Print the version", Args: cobra.NoArgs, RunE: func(c *cobra.Command, _ []string) error {
		_, err := fmt.Fprintln(c.OutOrStdout(), "coldember", version)
		return err
	}}
}

// inWords is an error as it is told to the smith.
func inWords(err error) string {
	var f *store.Fault
	if errors.As(err, &f) {
		return text.Say(string(f.Code), map[string]string{"path": f.Path})
	}
	var inv *edit.InvalidError
	if errors.As(err, &inv) && len(inv.Fields) > 0 {
		p := inv.Fields[0]
		with := text.FigureFor(p.Code, p.Figures, quantity.Metric)
		with["found"] = p.Text
		if with["found"] == "" {
			with["found"] = p.Found
		}
		return p.Field + ": " + text.Say(p.Code, with)
	}
	return err.Error()
}

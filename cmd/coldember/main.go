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
	"coldember/internal/api"
	"coldember/internal/text"

	"github.com/spf13/cobra"
)

// version is set when the binary is built.
var version = "dev"

func main() {
	text.Use(text.OfEnvironment(os.Getenv))
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
		Args:          wants(0, 0),
		RunE:          func(c *cobra.Command, _ []string) error { return c.Help() },
		Version:       version,
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	c.SetVersionTemplate(text.Say("cli.version", map[string]string{"version": version}) + "\n")
	c.CompletionOptions.DisableDefaultCmd = true
	c.SetHelpCommand(&cobra.Command{Use: "no-help", Hidden: true})
	c.AddCommand(serveCommand(), demoCommand(), openCommand(), piecesCommand(), patternsCommand(), rackCommand(), exportCommand(), importCommand(), simulateCommand(), deviceCommand(), dayCommand(), calcCommand(), openapiCommand(), schemaCommand(), backupCommand(), restoreCommand(), packCommand(), unpackCommand(), doctorCommand(), versionCommand())
	speak(c, map[string]string{"kinds": kindsInWords()})
	return c
}

func versionCommand() *cobra.Command {
	return &cobra.Command{Use: "version", Args: wants(0, 0), RunE: func(c *cobra.Command, _ []string) error {
		return said(c.OutOrStdout(), "cli.version", map[string]string{"version": version})
	}}
}

// inWords is an error as it is told to the smith: by the sentences of the pages.
func inWords(err error) string {
	var busy *busyError
	if errors.As(err, &busy) {
		return text.Say("serve.busy", map[string]string{"address": busy.addr})
	}
	if p := api.Explain(err, quantity.Metric); p != nil {
		return p.Sentence()
	}
	return err.Error()
}

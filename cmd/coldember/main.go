// Command coldember serves the application and answers on the command line.
package main

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"os/signal"
	"strconv"
	"syscall"

	"coldember/core/quantity"
	"coldember/internal/api"
	"coldember/internal/device"
	"coldember/internal/store"
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
	c.AddCommand(serveCommand(), demoCommand(), openCommand(), piecesCommand(), patternsCommand(), rackCommand(), exportCommand(), importCommand(), simulateCommand(), tookCommand(), hourCommand(), deviceCommand(), dayCommand(), calcCommand(), openapiCommand(), schemaCommand(), backupCommand(), restoreCommand(), packCommand(), unpackCommand(), doctorCommand(), versionCommand())
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
	var said *saidError
	var file *fs.PathError
	var line *url.Error
	var answer *device.AnswerError
	var refused *device.ErrRefused
	switch {
	case errors.As(err, &said):
		return said.Error()
	case errors.As(err, &file):
		if p := api.Explain(store.Faulty(file.Path, err), quantity.Metric); p != nil {
			return p.Sentence()
		}
		return text.Say("fault.unreadable", map[string]string{"path": file.Path})
	case errors.As(err, &line):
		return text.Say("cli.noAnswer", map[string]string{"address": line.URL})
	case errors.As(err, &answer):
		return text.Say("cli.oddAnswer", map[string]string{"said": answer.Status})
	case errors.As(err, &refused):
		return text.Say("cli.toldRefused", map[string]string{"n": strconv.Itoa(len(refused.Events))})
	}
	for known, code := range map[error]string{
		device.ErrKey: "cli.deviceKey", context.Canceled: "cli.stopped", context.DeadlineExceeded: "problem.tooLong",
	} {
		if errors.Is(err, known) {
			return text.Say(code, nil)
		}
	}
	return text.Say("cli.failed", map[string]string{"said": err.Error()})
}

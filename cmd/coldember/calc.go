package main

import (
	"encoding/json"
	"fmt"
	"io"
	"strings"

	"coldember/core/calc"
	"coldember/internal/api"

	"github.com/spf13/cobra"
)

// maxInput bounds what calc reads.
const maxInput = 16 << 20

func calcCommand() *cobra.Command {
	return &cobra.Command{
		Use: "calc KIND", Short: "Answer one question of a law: JSON in, JSON out",
		Long: "Reads JSON from standard input and writes JSON. Kinds: " + strings.Join(calc.Kinds(), ", ") + ".",
		Args: cobra.ExactArgs(1), ValidArgs: calc.Kinds(),
		RunE: func(c *cobra.Command, args []string) error {
			in, err := io.ReadAll(io.LimitReader(c.InOrStdin(), maxInput))
			if err != nil {
				return fmt.Errorf("standard input: %w", err)
			}
			out, err := calc.Run(c.Context(), args[0], in)
			if err != nil {
				return err
			}
			e := json.NewEncoder(c.OutOrStdout())
			e.SetIndent("", "  ")
			return e.Encode(out)
		},
	}
}

func openapiCommand() *cobra.Command {
	return printer("openapi", "Print the API document", api.Document)
}

func schemaCommand() *cobra.Command {
	c := printer("schema", "Print the JSON Schema of a pattern file", api.PatternSchema)
	c.AddCommand(printer("shop", "Print the JSON Schema of a whole shop that is packed", api.ShopSchema))
	return c
}

func printer(use, short string, doc func() ([]byte, error)) *cobra.Command {
	return &cobra.Command{Use: use, Short: short, Args: cobra.NoArgs, RunE: func(c *cobra.Command, _ []string) error {
		text, err := doc()
		if err != nil {
			return err
		}
		_, err = fmt.Fprintln(c.OutOrStdout(), string(text))
		return err
	}}
}

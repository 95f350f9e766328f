package main

import (
	"encoding/json"
	"fmt"
	"io"
	"strconv"
	"strings"
	"text/tabwriter"

	"coldember/core/calc"
	"coldember/internal/api"
	"coldember/internal/text"

	"github.com/spf13/cobra"
)

// maxInput bounds what calc reads.
const maxInput = 16 << 20

func calcCommand() *cobra.Command {
	c := &cobra.Command{
		Use:  "calc KIND",
		Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) error { // of a kind that there is not
			_, err := calc.Run(c.Context(), args[0], nil)
			return err
		},
	}
	for _, kind := range calc.Kinds() {
		c.AddCommand(calcKindCommand(kind))
	}
	return c
}

func calcKindCommand(kind string) *cobra.Command {
	var takes strings.Builder
	w := tabwriter.NewWriter(&takes, 0, 0, 3, ' ', 0)
	for _, f := range calc.Fields(kind) {
		doc := fieldDoc(f)
		if f.Optional {
			doc = strings.TrimPrefix(doc+"; "+text.Say("cli.optional", nil), "; ")
		}
		_, _ = fmt.Fprintf(w, "  %s\t%s\t%s\n", f.Name, holds(f), doc)
	}
	_ = w.Flush()
	return &cobra.Command{
		Use: kind, Short: text.Say("calc.kind."+kind, nil), Args: wants(0, 0),
		Long:    text.Say("calc.kind."+kind, nil) + ".\n\n" + text.Say("cli.takes", nil) + "\n" + strings.TrimRight(takes.String(), "\n"),
		Example: "  echo '" + calc.Example(kind) + "' | coldember calc " + kind,
		RunE: func(c *cobra.Command, _ []string) error {
			in, err := io.ReadAll(io.LimitReader(c.InOrStdin(), maxInput))
			if err != nil {
				return err
			}
			out, err := calc.Run(c.Context(), kind, in)
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
	return printer("openapi", api.Document)
}

func schemaCommand() *cobra.Command {
	c := printer("schema", api.PatternSchema)
	c.AddCommand(printer("session", api.SessionSchema))
	c.AddCommand(printer("shop", api.ShopSchema))
	c.AddCommand(printer("piece", api.SharedSchema))
	return c
}

func printer(use string, doc func() ([]byte, error)) *cobra.Command {
	return &cobra.Command{Use: use, Args: wants(0, 0), RunE: func(c *cobra.Command, _ []string) error {
		text, err := doc()
		if err != nil {
			return err
		}
		_, err = fmt.Fprintln(c.OutOrStdout(), string(text))
		return err
	}}
}

// holds is what a field holds, in words.
func holds(f calc.Field) string {
	out := text.Say("calc.holds."+string(f.Holds), map[string]string{"n": strconv.Itoa(f.N)})
	if len(f.OneOf) > 0 {
		out = strings.Join(f.OneOf, "|")
	}
	if f.List {
		out = text.Say("calc.holds.list", map[string]string{"what": out})
	}
	return out
}

// fieldDoc is what is said of a field, by its name and, where that is not enough, what it belongs to.
func fieldDoc(f calc.Field) string {
	if f.Doc == "" {
		return ""
	}
	path := strings.Split(strings.ReplaceAll(f.Name, "[]", ""), ".")
	if n := len(path); n > 1 && text.Has("calc.doc."+path[n-2]+"."+path[n-1]) {
		return text.Say("calc.doc."+path[n-2]+"."+path[n-1], nil)
	}
	return text.Say("calc.doc."+path[len(path)-1], nil)
}

package main

import (
	"context"
	"fmt"
	"io"
	"os"
	"strings"

	"coldember/core/quantity"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

func rackCommand() *cobra.Command {
	c := lister("rack", func(ctx context.Context, w *work.Work, u quantity.System) ([][]string, error) {
		all, _, err := w.Rack(ctx, false)
		var out [][]string
		for _, s := range all {
			name := text.Steel(s.Doc.SteelID)
			if s.Doc.Believed {
				name = text.Say("cli.presumed", map[string]string{"steel": name})
			}
			out = append(out, []string{s.Doc.Name, name, text.Say("form."+string(s.Doc.Piece.Form), nil), fmt.Sprint(s.Doc.Count), quantity.FormatLength(s.FreeMm, u), s.ID})
		}
		return out, err
	})
	c.AddCommand(rackOutCommand(), rackInCommand())
	return c
}

func rackOutCommand() *cobra.Command {
	var data, out string
	c := &cobra.Command{Use: "export", Args: wants(0, 0), RunE: func(c *cobra.Command, _ []string) error {
		return withData(c.Context(), data, func(w *work.Work) error {
			table, err := w.RackCSV(c.Context())
			if err != nil {
				return err
			}
			if out == "-" || out == "" {
				_, err = c.OutOrStdout().Write(table)
				return err
			}
			return os.WriteFile(out, table, 0o644)
		})
	}}
	c.Flags().StringVar(&data, "data", "", "")
	c.Flags().StringVar(&out, "out", "-", "")
	return c
}

func rackInCommand() *cobra.Command {
	var data string
	var look bool
	c := &cobra.Command{
		Use: "import FILE", Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) error {
			raw, err := readFile(c, args[0])
			if err != nil {
				return err
			}
			return withData(c.Context(), data, func(w *work.Work) error {
				read := w.ImportRackCSV
				if look {
					read = w.ReadRackTable
				}
				done, err := read(c.Context(), raw)
				if err != nil {
					return err
				}
				return tellTable(c.OutOrStdout(), done)
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	c.Flags().BoolVar(&look, "look", false, "")
	return c
}

// tellTable says what a table does, line by line, and how much stays as it is.
func tellTable(out io.Writer, done []work.RackChange) error {
	same := 0
	for _, d := range done {
		var err error
		switch {
		case d.ID == "":
			err = printf(out, "%s\n", text.Count("rack.csvNew", 1, map[string]string{"names": d.Name}))
		case len(d.Changes) == 0:
			same++
		default:
			var columns []string
			for _, f := range d.Changes {
				columns = append(columns, text.Say("rack.csvColumn", map[string]string{"column": f.Column, "was": orDash(f.Was), "is": orDash(f.Is)}))
			}
			err = printf(out, "%s\n", text.Say("rack.csvChanges", map[string]string{"name": d.Name, "changes": strings.Join(columns, "; ")}))
		}
		if err != nil {
			return err
		}
	}
	if same == 0 {
		return nil
	}
	return printf(out, "%s\n", text.Count("rack.csvSame", same, nil))
}

func orDash(s string) string {
	if s == "" {
		return "–"
	}
	return s
}

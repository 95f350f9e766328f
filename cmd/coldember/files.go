package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"coldember/internal/export"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

// withData opens a database that is there and runs f on it.
func withData(ctx context.Context, data string, f func(*work.Work) error) (err error) {
	if data == "" {
		if data, err = dataFile("coldember.db"); err != nil {
			return err
		}
	}
	if _, err := os.Stat(data); err != nil {
		return fmt.Errorf("no such database: %w", err)
	}
	st, err := store.Open(ctx, data)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, st.Close()) }()
	return f(work.New(st, time.Now))
}

func exportCommand() *cobra.Command {
	var data, format, out string
	c := &cobra.Command{
		Use: "export PATTERN", Short: "Write a pattern, by name or id, as svg, dxf, pdf, 3mf, stl or json", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			return withData(c.Context(), data, func(w *work.Work) error {
				p, err := findPattern(c.Context(), w, args[0])
				if err != nil {
					return err
				}
				shop, err := w.Shop(c.Context())
				if err != nil {
					return err
				}
				f, err := export.Write(export.Subject{Name: p.Name, Tags: p.Tags, Design: p.Design, Allowances: p.Allowances}, export.Format(format), shop.Units, shop.Paper)
				if err != nil {
					return err
				}
				if out == "-" || out == "" {
					_, err = c.OutOrStdout().Write(f.Data)
					return err
				}
				return os.WriteFile(out, f.Data, 0o644)
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "database file (default: your own work)")
	c.Flags().StringVar(&format, "format", "svg", "svg, dxf, pdf, 3mf, stl or json")
	c.Flags().StringVar(&out, "out", "-", "file to write, or - for standard output")
	return c
}

func findPattern(ctx context.Context, w *work.Work, name string) (work.Pattern, error) {
	all, err := w.Patterns(ctx)
	if err != nil {
		return work.Pattern{}, err
	}
	var names []string
	for _, p := range all {
		if p.ID == name || strings.EqualFold(p.Name, name) {
			return p, nil
		}
		names = append(names, p.Name)
	}
	return work.Pattern{}, fmt.Errorf("no pattern %q; there are: %s", name, strings.Join(names, ", "))
}

func importCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "import FILE", Short: "Read a pattern in JSON (- for standard input) into the library", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			in := c.InOrStdin()
			if args[0] != "-" {
				f, err := os.Open(args[0])
				if err != nil {
					return err
				}
				defer func() { _ = f.Close() }()
				in = f
			}
			raw, err := io.ReadAll(io.LimitReader(in, maxInput))
			if err != nil {
				return fmt.Errorf("import: %w", err)
			}
			p, err := export.ReadPattern(raw)
			if err != nil {
				return err
			}
			return withData(c.Context(), data, func(w *work.Work) error {
				got, err := w.AddPattern(c.Context(), work.PatternDoc{Name: p.Name, Tags: p.Tags, Design: p.Design, Allowances: p.Allowances})
				if err != nil {
					return err
				}
				_, err = fmt.Fprintf(c.OutOrStdout(), "%s is in the library as %s.\n", got.Name, got.ID)
				return err
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "database file (default: your own work)")
	return c
}

package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"time"

	"coldember/core/blade"
	"coldember/internal/doc"
	"coldember/internal/export"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

// withData opens a database that is there and runs f on it.
func withData(ctx context.Context, data string, f func(*work.Work) error) (err error) {
	if data, err = dataOr(data); err != nil {
		return err
	}
	if _, err := there(ctx, data); err != nil { // one that is not there is not made
		return err
	}
	st, err := store.Open(ctx, data, work.CopyBeforeUpdate(time.Now))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, st.Close()) }()
	return f(work.New(st, time.Now, work.RandomID))
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
				f, err := export.Write(export.Subject{Name: p.Doc.Name, Tags: p.Doc.Tags, Design: p.Doc.Design, Allowances: p.Doc.Allowances}, export.Format(format), shop.Doc.Units, shop.Doc.Paper)
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
	all, _, err := w.Patterns(ctx, false)
	if err != nil {
		return work.Pattern{}, err
	}
	var names []string
	for _, p := range all {
		if p.ID == name || strings.EqualFold(p.Doc.Name, name) {
			return p, nil
		}
		names = append(names, p.Doc.Name)
	}
	return work.Pattern{}, fmt.Errorf("no pattern %q; there are: %s", name, strings.Join(names, ", "))
}

func importCommand() *cobra.Command {
	var data, name string
	var drawn work.OutlineFile
	c := &cobra.Command{
		Use: "import FILE", Short: "Read a pattern in JSON (- for standard input), or the outline of an SVG or DXF, into the library", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			raw, err := readFile(c, args[0])
			if err != nil {
				return err
			}
			doc, err := patternOf(raw, args[0], drawn)
			if err != nil {
				return err
			}
			if name != "" {
				doc.Name = name
			}
			return withData(c.Context(), data, func(w *work.Work) error {
				got, err := w.AddPattern(c.Context(), doc)
				if err != nil {
					return err
				}
				_, err = fmt.Fprintf(c.OutOrStdout(), "%s is in the library as %s.\n", got.Doc.Name, got.ID)
				return err
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "database file (default: your own work)")
	c.Flags().StringVar(&name, "name", "", "name of the pattern (default: the file's)")
	c.Flags().StringVar(&drawn.Length, "length", "", "of a drawing: length of the blade, point to heel, such as 120mm or 4 3/4in")
	c.Flags().BoolVar(&drawn.Scale, "scale", false, "of a drawing: scale it to the length, whatever its unit says")
	c.Flags().BoolVar(&drawn.TurnEnds, "turn-ends", false, "of a drawing: its point is at the right")
	c.Flags().BoolVar(&drawn.TurnOver, "turn-over", false, "of a drawing: its edge is at the top")
	return c
}

func readFile(c *cobra.Command, name string) ([]byte, error) {
	in := c.InOrStdin()
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return nil, err
		}
		defer func() { _ = f.Close() }()
		in = f
	}
	raw, err := io.ReadAll(io.LimitReader(in, maxInput))
	if err != nil {
		return nil, fmt.Errorf("import: %w", err)
	}
	return raw, nil
}

// patternOf is a pattern from a file: JSON whole, or a drawing's outline on the
// first design of the starters.
func patternOf(raw []byte, file string, drawn work.OutlineFile) (doc.Pattern, error) {
	drawn.Format = strings.TrimPrefix(strings.ToLower(filepath.Ext(file)), ".")
	if drawn.Format != "svg" && drawn.Format != "dxf" {
		p, err := export.ReadPattern(raw)
		return doc.Pattern{Name: p.Name, Tags: p.Tags, Design: p.Design, Allowances: p.Allowances}, err
	}
	drawn.Text = string(raw)
	o, _, err := work.ReadOutline(drawn)
	if err != nil {
		return doc.Pattern{}, err
	}
	d := blade.Starters()[0].Design
	d.SetOutline(o)
	d.Ricasso.HeightMm = d.HeightMm * .86
	d.SetTang(d.TangKind)
	base := filepath.Base(file)
	return doc.Pattern{Name: strings.TrimSuffix(base, filepath.Ext(base)), Tags: []string{}, Design: d, Allowances: blade.ThickAndGrind.Allowances()}, nil
}

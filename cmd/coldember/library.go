package main

import (
	"context"
	"fmt"
	"os"
	"strings"
	"text/tabwriter"

	"coldember/core/quantity"
	"coldember/internal/api"
	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

// lister is a command that prints a table of what is there.
func lister(use string, rows func(context.Context, *work.Work, quantity.System) ([][]string, error)) *cobra.Command {
	var data string
	c := &cobra.Command{Use: use, Args: wants(0, 0), RunE: func(c *cobra.Command, _ []string) error {
		return withData(c.Context(), data, func(w *work.Work) error {
			shop, err := w.Shop(c.Context())
			if err != nil {
				return err
			}
			lines, err := rows(c.Context(), w, shop.Doc.System())
			if err != nil {
				return err
			}
			out := tabwriter.NewWriter(c.OutOrStdout(), 0, 0, 3, ' ', 0)
			if err := said(out, "cli.head."+use, nil); err != nil {
				return err
			}
			for _, l := range lines {
				if err := printf(out, "%s\n", strings.Join(l, "\t")); err != nil {
					return err
				}
			}
			return out.Flush()
		})
	}}
	c.Flags().StringVar(&data, "data", "", "")
	return c
}

func piecesCommand() *cobra.Command {
	return lister("pieces", func(ctx context.Context, w *work.Work, u quantity.System) ([][]string, error) {
		all, _, err := w.Pieces(ctx, false)
		var out [][]string
		for _, p := range all {
			r := p.Doc.Request
			out = append(out, []string{
				p.Doc.Name, quantity.FormatLength(r.Design.LengthMm, u), export.BarSize(r.Bar, u) + ", " + quantity.FormatReckoned(p.Summary.CutLengthMm, p.Summary.LowMm, p.Summary.HighMm, u),
				fmt.Sprint(p.Summary.Heats), p.ID,
			})
		}
		return out, err
	})
}

func patternsCommand() *cobra.Command {
	return lister("patterns", func(ctx context.Context, w *work.Work, u quantity.System) ([][]string, error) {
		all, _, err := w.Patterns(ctx, false)
		var out [][]string
		for _, p := range all {
			d := p.Doc.Design
			out = append(out, []string{p.Doc.Name, quantity.FormatLength(d.LengthMm, u), quantity.FormatLength(d.HeightMm, u), p.ID})
		}
		return out, err
	})
}

// exporting is what the export command is told.
type exporting struct {
	data, format, out  string
	isPiece, isPattern bool
}

func exportCommand() *cobra.Command {
	var e exporting
	c := &cobra.Command{
		Use: "export NAME", Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) error {
			return withData(c.Context(), e.data, func(w *work.Work) error {
				f, err := e.write(c.Context(), w, args[0])
				if err != nil {
					return err
				}
				if e.out == "-" || e.out == "" {
					_, err = c.OutOrStdout().Write(f.Data)
					return err
				}
				return os.WriteFile(e.out, f.Data, 0o644)
			})
		},
	}
	c.Flags().StringVar(&e.data, "data", "", "")
	c.Flags().StringVar(&e.format, "format", "svg", "")
	c.Flags().StringVar(&e.out, "out", "-", "")
	c.Flags().BoolVar(&e.isPiece, "piece", false, "")
	c.Flags().BoolVar(&e.isPattern, "pattern", false, "")
	return c
}

// write finds what is named, and writes it.
func (e *exporting) write(ctx context.Context, w *work.Work, name string) (api.Paper, error) {
	patterns, _, err := w.Patterns(ctx, false)
	if err != nil {
		return api.Paper{}, err
	}
	pieces, _, err := w.Pieces(ctx, false)
	if err != nil {
		return api.Paper{}, err
	}
	var pattern *work.Pattern
	var piece *work.Piece
	for i, p := range patterns {
		if !e.isPiece && (p.ID == name || strings.EqualFold(p.Doc.Name, name)) {
			pattern = &patterns[i]
		}
	}
	for i, p := range pieces {
		if !e.isPattern && (p.ID == name || strings.EqualFold(p.Doc.Name, name)) {
			piece = &pieces[i]
		}
	}
	format := api.Format(e.format)
	if !api.CanWrite(format) {
		return api.Paper{}, sayError("cli.noFormat", map[string]string{"found": e.format})
	}
	switch {
	case pattern != nil && piece != nil:
		return api.Paper{}, sayError("cli.twoNamed", map[string]string{"found": name})
	case piece != nil:
		return api.PieceFile(ctx, w, *piece, format)
	case pattern != nil && api.IsPaper(format):
		return api.Paper{}, sayError("cli.pieceOnly", map[string]string{"found": e.format})
	case pattern != nil:
		return api.PatternFile(ctx, w, *pattern, format)
	}
	return api.Paper{}, sayError("cli.noneNamed", map[string]string{"found": name})
}

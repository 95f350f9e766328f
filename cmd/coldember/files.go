package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"coldember/internal/api"
	"coldember/internal/store"
	"coldember/internal/text"
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
	w := work.New(st, time.Now, work.RandomID)
	if err := w.Speak(ctx); err != nil {
		return err
	}
	return f(w)
}

// saidError is an error that is already in words.
type saidError struct{ words string }

func (e *saidError) Error() string { return e.words }

func sayError(code string, with map[string]string) error { return &saidError{text.Say(code, with)} }

func importCommand() *cobra.Command {
	var data string
	var f api.FileIn
	c := &cobra.Command{
		Use: "import FILE", Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) error {
			raw, err := readFile(c, args[0])
			if err != nil {
				return err
			}
			named, base := f.Name, filepath.Base(args[0])
			if strings.EqualFold(filepath.Ext(base), ".zip") {
				return takeShared(c, data, raw)
			}
			if named == "" {
				f.Name = strings.TrimSuffix(base, filepath.Ext(base))
			}
			if f.Format = strings.TrimPrefix(strings.ToLower(filepath.Ext(base)), "."); f.Format != "svg" && f.Format != "dxf" {
				f.Format = "json"
			}
			f.Text, f.Drawn.Text, f.Drawn.Format = string(raw), string(raw), f.Format
			doc, err := api.ReadPattern(f)
			if slices.Contains([]string{".png", ".jpg", ".jpeg"}, strings.ToLower(filepath.Ext(base))) {
				doc, err = api.ScanPattern(raw)
			}
			if err != nil {
				return err
			}
			if named != "" {
				doc.Name = named
			}
			return withData(c.Context(), data, func(w *work.Work) error {
				got, err := w.AddPattern(c.Context(), doc)
				if err != nil {
					return err
				}
				return said(c.OutOrStdout(), "cli.imported", map[string]string{"name": got.Doc.Name, "id": got.ID})
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	c.Flags().StringVar(&f.Name, "name", "", "")
	c.Flags().StringVar(&f.Drawn.Length, "length", "", "")
	c.Flags().StringVar(&f.Drawn.Unit, "unit", "", "")
	c.Flags().BoolVar(&f.Drawn.Scale, "scale", false, "")
	c.Flags().BoolVar(&f.Drawn.TurnEnds, "turn-ends", false, "")
	c.Flags().BoolVar(&f.Drawn.TurnOver, "turn-over", false, "")
	return c
}

// takeShared takes a piece of work that another shop shared.
func takeShared(c *cobra.Command, data string, raw []byte) error {
	return withData(c.Context(), data, func(w *work.Work) error {
		p, err := w.TakeShared(c.Context(), raw)
		if err != nil {
			return err
		}
		return said(c.OutOrStdout(), "cli.taken.piece", map[string]string{"name": p.Doc.Name, "id": p.ID})
	})
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
	raw, err := io.ReadAll(io.LimitReader(in, work.MaxSharedBytes+1))
	if err != nil {
		return nil, fmt.Errorf("import: %w", err)
	}
	return raw, nil
}

package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"

	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

// dataOr is the file that is named, or the smith's own.
func dataOr(named string) (string, error) {
	if named != "" {
		return named, nil
	}
	return dataFile("coldember.db")
}

// there looks at a file that is to be read.
func there(ctx context.Context, file string) (store.About, error) {
	about, err := store.Look(ctx, file)
	var f *store.Fault
	if errors.As(err, &f) && f.Code == store.NoFolder {
		err = &store.Fault{Code: store.Missing, Path: file, Err: f.Err}
	}
	return about, err
}

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "backup FILE", Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) (err error) {
			if data, err = dataOr(data); err != nil {
				return err
			}
			if _, err := there(c.Context(), data); err != nil {
				return err
			}
			st, err := store.Open(c.Context(), data, work.CopyBeforeUpdate(time.Now))
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, st.Close()) }()
			if err := st.Backup(c.Context(), args[0]); err != nil {
				return err
			}
			return said(c.OutOrStdout(), "cli.copied", map[string]string{"file": args[0]})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	return c
}

func restoreCommand() *cobra.Command {
	var data string
	var look bool
	c := &cobra.Command{
		Use: "restore FILE", Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) (err error) {
			if data, err = dataOr(data); err != nil {
				return err
			}
			about, err := there(c.Context(), args[0])
			if err != nil {
				return err
			}
			if err := tellAbout(c.OutOrStdout(), about); err != nil || look {
				return err
			}
			if err := store.MakeFolder(filepath.Dir(data)); err != nil {
				return err
			}
			out, err := store.Restore(c.Context(), args[0], data, time.Now())
			if err != nil {
				return err
			}
			if out.Kept != "" {
				return said(c.OutOrStdout(), "cli.restoredKept", map[string]string{"data": data, "kept": out.Kept})
			}
			return said(c.OutOrStdout(), "cli.restored", map[string]string{"data": data})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	c.Flags().BoolVar(&look, "look", false, "")
	return c
}

func packCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "pack FILE", Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) error {
			return withData(c.Context(), data, func(w *work.Work) (err error) {
				f, err := os.OpenFile(args[0], os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
				if err != nil {
					return store.Faulty(args[0], err)
				}
				err = errors.Join(w.Pack(c.Context(), f), f.Sync(), f.Close())
				if err != nil {
					_ = os.Remove(args[0])
				}
				return store.Faulty(args[0], err)
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	return c
}

func unpackCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "unpack FILE", Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) (err error) {
			if data, err = dataOr(data); err != nil {
				return err
			}
			f, err := os.Open(args[0])
			if err != nil {
				return store.Faulty(args[0], err)
			}
			defer func() { _ = f.Close() }()
			raw, err := io.ReadAll(io.LimitReader(f, work.MaxArchiveBytes))
			if err != nil {
				return store.Faulty(args[0], err)
			}
			if err := store.MakeFolder(filepath.Dir(data)); err != nil {
				return err
			}
			if err := work.UnpackInto(c.Context(), data, raw, time.Now()); err != nil {
				return err
			}
			about, err := store.Look(c.Context(), data)
			if err != nil {
				return err
			}
			return tellAbout(c.OutOrStdout(), about)
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	return c
}

func tellAbout(out io.Writer, a store.About) error {
	if a.Empty {
		return said(out, "cli.nothingIn", map[string]string{"file": a.Path})
	}
	code, with := "cli.about", map[string]string{
		"file": a.Path, "pieces": fmt.Sprint(a.Pieces), "patterns": fmt.Sprint(a.Patterns), "items": fmt.Sprint(a.Items),
		"form": fmt.Sprint(a.Form), "mb": fmt.Sprintf("%.1f", float64(a.Bytes)/1e6),
	}
	if !a.NewestAt.IsZero() {
		code, with["at"] = "cli.aboutSaved", a.NewestAt.Local().Format("2006-01-02 15:04")
	}
	return said(out, code, with)
}

func printf(out io.Writer, format string, args ...any) error {
	_, err := fmt.Fprintf(out, format, args...)
	return err
}

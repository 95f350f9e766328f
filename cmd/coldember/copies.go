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
		Use: "backup FILE", Short: "Copy a database safely, even while it is in use", Args: cobra.ExactArgs(1),
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
			return printf(c.OutOrStdout(), "Copied to %s. Put it back with: coldember restore %s\n", args[0], args[0])
		},
	}
	c.Flags().StringVar(&data, "data", "", "database file to copy (default: your own work)")
	return c
}

func restoreCommand() *cobra.Command {
	var data string
	var look bool
	c := &cobra.Command{
		Use: "restore FILE", Short: "Put a copy in the place of a database; what was there is kept beside it", Args: cobra.ExactArgs(1),
		Long: "Looks at the copy first, and tells what is in it. The present file is kept beside under a name with the time. A server that has the file open must be stopped first; a running one puts copies back from its page Shop.",
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
				return printf(c.OutOrStdout(), "It is now %s. What was there is kept as %s.\n", data, out.Kept)
			}
			return printf(c.OutOrStdout(), "It is now %s.\n", data)
		},
	}
	c.Flags().StringVar(&data, "data", "", "database file to replace (default: your own work)")
	c.Flags().BoolVar(&look, "look", false, "only tell what is in the copy")
	return c
}

func packCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "pack FILE", Short: "Write the whole shop as a ZIP of open files: documents, histories and pictures", Args: cobra.ExactArgs(1),
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
	c.Flags().StringVar(&data, "data", "", "database file (default: your own work)")
	return c
}

func unpackCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "unpack FILE", Short: "Make a new database of a whole shop that was packed", Args: cobra.ExactArgs(1),
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
	c.Flags().StringVar(&data, "data", "", "database file to make; one that is there is not written over (default: your own work)")
	return c
}

func doctorCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "doctor", Short: "Look a database over, page by page, without changing it", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) (err error) {
			if data, err = dataOr(data); err != nil {
				return err
			}
			about, err := there(c.Context(), data)
			if err != nil {
				return err
			}
			if err := tellAbout(c.OutOrStdout(), about); err != nil {
				return err
			}
			if err := store.Check(c.Context(), data); err != nil {
				return err
			}
			if about.Empty || about.Form < store.NewestForm {
				return printf(c.OutOrStdout(), "Every page is sound.\n")
			}
			return withData(c.Context(), data, func(w *work.Work) error { return tellUnreadable(c.Context(), c.OutOrStdout(), w) })
		},
	}
	c.Flags().StringVar(&data, "data", "", "database file (default: your own work)")
	return c
}

// tellUnreadable counts the documents that cannot be read.
func tellUnreadable(ctx context.Context, out io.Writer, w *work.Work) error {
	n := 0
	for _, archived := range []bool{false, true} {
		_, pieces, err := w.Pieces(ctx, archived)
		_, patterns, err2 := w.Patterns(ctx, archived)
		_, items, err3 := w.Rack(ctx, archived)
		if err := errors.Join(err, err2, err3); err != nil {
			return err
		}
		n += len(pieces) + len(patterns) + len(items)
	}
	if n > 0 {
		return printf(out, "Every page is sound. %d documents cannot be read, and are set aside.\n", n)
	}
	return printf(out, "Every page is sound, and every document can be read.\n")
}

func tellAbout(out io.Writer, a store.About) error {
	if a.Empty {
		return printf(out, "%s has nothing in it yet.\n", a.Path)
	}
	saved := ""
	if !a.NewestAt.IsZero() {
		saved = ", last saved " + a.NewestAt.Local().Format("2006-01-02 15:04")
	}
	return printf(out, "%s: %d pieces, %d patterns, %d on the rack%s; form %d, %.1f MB.\n", a.Path, a.Pieces, a.Patterns, a.Items, saved, a.Form, float64(a.Bytes)/1e6)
}

func printf(out io.Writer, format string, args ...any) error {
	_, err := fmt.Fprintf(out, format, args...)
	return err
}

package main

import (
	"context"
	"fmt"
	"io"
	"net"
	"os"
	"path/filepath"
	"time"

	"coldember/internal/demo"
	"coldember/internal/server"
	"coldember/internal/store"
	"coldember/internal/work"
	"coldember/web"

	"github.com/spf13/cobra"
)

// Default addresses: the demo has one of its own, so that both can run.
const (
	serveAddr = "127.0.0.1:7420"
	demoAddr  = "127.0.0.1:7421"
)

type serving struct{ addr, data string }

func (s *serving) flags(c *cobra.Command, addr, file string) {
	c.Flags().StringVar(&s.addr, "addr", addr, "address to serve, host:port on this machine")
	c.Flags().StringVar(&s.data, "data", "", "database file (default "+filepath.Join("<data folder>", "coldember", file)+")")
}

func serveCommand() *cobra.Command {
	var s serving
	c := &cobra.Command{Use: "serve", Short: "Serve your own work", Args: cobra.NoArgs, RunE: func(c *cobra.Command, _ []string) error {
		return s.run(c.Context(), c.OutOrStdout(), "coldember.db", func(ctx context.Context, st *store.Store) error {
			return work.New(st, time.Now, work.RandomID).Ensure(ctx)
		})
	}}
	s.flags(c, serveAddr, "coldember.db")
	return c
}

func demoCommand() *cobra.Command {
	var s serving
	c := &cobra.Command{Use: "demo", Short: "Serve the demonstration, in a file of its own", Args: cobra.NoArgs, RunE: func(c *cobra.Command, _ []string) error {
		return s.run(c.Context(), c.OutOrStdout(), "demo.db", func(ctx context.Context, st *store.Store) error {
			return demo.Build(ctx, st, time.Now())
		})
	}}
	s.flags(c, demoAddr, "demo.db")
	return c
}

// dataFile is where a database lives unless the smith says otherwise.
func dataFile(name string) (string, error) {
	dir := os.Getenv("XDG_DATA_HOME")
	if dir == "" {
		home, err := os.UserHomeDir()
		if err != nil {
			return "", fmt.Errorf("no home folder; name a file with --data: %w", err)
		}
		dir = filepath.Join(home, ".local", "share")
	}
	return filepath.Join(dir, "coldember", name), nil
}

func (s *serving) run(ctx context.Context, out io.Writer, name string, prepare func(context.Context, *store.Store) error) (err error) {
	if err := server.Loopback(s.addr); err != nil {
		return err
	}
	if s.data == "" {
		if s.data, err = dataFile(name); err != nil {
			return err
		}
		if err := os.MkdirAll(filepath.Dir(s.data), 0o700); err != nil {
			return fmt.Errorf("data folder: %w", err)
		}
	}
	st, err := store.Open(ctx, s.data, nil)
	if err != nil {
		return err
	}
	defer func() {
		if cerr := st.Close(); err == nil {
			err = cerr
		}
	}()
	if err := prepare(ctx, st); err != nil {
		return err
	}
	h := server.Handler(work.New(st, time.Now, work.RandomID), web.Dist())
	return server.Run(ctx, s.addr, h, func(a net.Addr) {
		_, _ = fmt.Fprintf(out, "Cold Ember is at http://%s\nData: %s\nCtrl-C stops it.\n", a, s.data)
	})
}

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{Use: "backup FILE", Short: "Copy a database safely, even while it is in use", Args: cobra.ExactArgs(1), RunE: func(c *cobra.Command, args []string) (err error) {
		if data == "" {
			if data, err = dataFile("coldember.db"); err != nil {
				return err
			}
		}
		if _, err := os.Stat(data); err != nil {
			return fmt.Errorf("nothing to back up: %w", err)
		}
		st, err := store.Open(c.Context(), data, nil)
		if err != nil {
			return err
		}
		defer func() { _ = st.Close() }()
		if err := st.Backup(c.Context(), args[0]); err != nil {
			return err
		}
		_, err = fmt.Fprintf(c.OutOrStdout(), "Copied to %s. Open it with --data %s.\n", args[0], args[0])
		return err
	}}
	c.Flags().StringVar(&data, "data", "", "database file to copy (default: your own work)")
	return c
}

package main

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"

	"coldember/internal/server"
	"coldember/internal/store"

	"github.com/spf13/cobra"
)

// startFile is where a server keeps the link that has its key, for this user alone.
func startFile(data string) string { return data + ".start" }

// keptKey is the key of a server that was killed, if this user alone could read it; else a new
// one. A server that is stopped takes its key with it.
func keptKey(file string) server.Key {
	info, err := os.Lstat(file)
	if err == nil && info.Mode() == 0o600 {
		if raw, err := os.ReadFile(file); err == nil {
			if k, ok := server.KeyIn(string(raw)); ok {
				return k
			}
		}
	}
	return server.NewKey()
}

// writeAlone writes a file that is nobody else's to read, whatever was there before.
func writeAlone(file, text string) error {
	if err := os.Remove(file); err != nil && !errors.Is(err, os.ErrNotExist) {
		return store.Faulty(file, err)
	}
	f, err := os.OpenFile(file, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return store.Faulty(file, err)
	}
	_, err = f.WriteString(text)
	return store.Faulty(file, errors.Join(err, f.Close()))
}

func openCommand() *cobra.Command {
	var data, addr string
	var demo, show, start bool
	c := &cobra.Command{
		Use: "open", Args: wants(0, 0),
		RunE: func(c *cobra.Command, _ []string) (err error) {
			if data == "" && demo {
				data, err = dataFile("demo.db")
			} else {
				data, err = dataOr(data)
			}
			if err != nil {
				return err
			}
			if start && !running(c, data) {
				what := "serve"
				if demo {
					what = "demo"
				}
				if err := startServing(c, what, addr, data); err != nil {
					return err
				}
			}
			raw, err := os.ReadFile(startFile(data))
			if errors.Is(err, os.ErrNotExist) {
				return sayError("cli.notServing", nil)
			}
			if err != nil {
				return store.Faulty(startFile(data), err)
			}
			link := strings.TrimSpace(string(raw))
			if !answers(c, link) {
				return sayError("cli.notServing", nil)
			}
			if err := printf(c.OutOrStdout(), "%s\n", link); err != nil || show {
				return err
			}
			return browse(link)
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	c.Flags().BoolVar(&demo, "demo", false, "")
	c.Flags().StringVar(&addr, "addr", "", "")
	c.Flags().BoolVar(&start, "start", false, "")
	c.Flags().BoolVar(&show, "show", false, "")
	return c
}

// running tells whether a file is served.
func running(c *cobra.Command, data string) bool {
	raw, err := os.ReadFile(startFile(data))
	return err == nil && answers(c, strings.TrimSpace(string(raw)))
}

// answers tells whether the server of a link is still there.
func answers(c *cobra.Command, link string) bool {
	u, err := url.Parse(link)
	if err != nil {
		return false
	}
	req, err := http.NewRequestWithContext(c.Context(), http.MethodGet, u.Scheme+"://"+u.Host+"/", nil)
	if err != nil {
		return false
	}
	res, err := (&http.Client{Timeout: 2 * time.Second}).Do(req)
	if err != nil {
		return false
	}
	return res.Body.Close() == nil
}

// browse asks the desktop to open a link; where there is none the link was printed.
func browse(link string) error {
	with, ok := opener()
	if !ok {
		return nil // a machine without a desktop
	}
	if with == nil {
		return sayError("cli.noBrowser", nil)
	}
	if err := exec.Command(with[0], append(with[1:], link)...).Start(); err != nil { //nolint:noctx // it outlives this command
		return sayError("cli.noBrowser", nil)
	}
	return nil
}

// startWithin is how long a server that is started here has to answer.
const startWithin = 30 * time.Second

// startServing starts a server of its own for this file, and waits until it answers. What it says
// goes to a file beside the data.
func startServing(c *cobra.Command, what, addr, data string) error {
	self, err := os.Executable()
	if err != nil {
		return fmt.Errorf("open: %w", err)
	}
	if err := store.MakeFolder(filepath.Dir(data)); err != nil {
		return err
	}
	log, err := os.OpenFile(data+".log", os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return store.Faulty(data+".log", err)
	}
	defer func() { _ = log.Close() }()
	args := []string{what, "--data", data, "--open", openNever}
	if addr != "" {
		args = append(args, "--addr", addr)
	}
	server := exec.Command(self, args...) //nolint:noctx // it outlives this command
	server.Stdout, server.Stderr, server.SysProcAttr = log, log, apart()
	if err := server.Start(); err != nil {
		return fmt.Errorf("open: %w", err)
	}
	gone := make(chan struct{})
	go func() { _ = server.Wait(); close(gone) }()
	for until := time.Now().Add(startWithin); time.Now().Before(until); {
		if raw, err := os.ReadFile(startFile(data)); err == nil && answers(c, strings.TrimSpace(string(raw))) {
			return nil
		}
		select {
		case <-c.Context().Done():
			return c.Context().Err()
		case <-gone:
			words, _ := os.ReadFile(data + ".log")
			return sayError("cli.notStarted", map[string]string{"said": strings.TrimSpace(string(words))})
		case <-time.After(100 * time.Millisecond):
		}
	}
	return sayError("cli.notStarted", map[string]string{"said": data + ".log"})
}

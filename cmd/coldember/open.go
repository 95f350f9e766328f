package main

import (
	"errors"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"runtime"
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
	var data string
	var demo, show bool
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
	c.Flags().BoolVar(&show, "show", false, "")
	return c
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
	with := map[string][]string{"darwin": {"open"}, "windows": {"rundll32", "url.dll,FileProtocolHandler"}}[runtime.GOOS]
	if with == nil {
		with = []string{"xdg-open"}
	}
	if _, err := exec.LookPath(with[0]); err != nil {
		return nil //nolint:nilerr // a machine without a desktop
	}
	if err := exec.Command(with[0], append(with[1:], link)...).Start(); err != nil { //nolint:noctx // it outlives this command
		return sayError("cli.noBrowser", nil)
	}
	return nil
}

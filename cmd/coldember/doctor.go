package main

import (
	"context"
	"errors"
	"io"
	"io/fs"
	"net"
	"os"
	"os/exec"
	"runtime"
	"runtime/debug"
	"strconv"
	"strings"
	"time"

	"coldember/internal/export"
	"coldember/internal/store"
	"coldember/internal/work"
	"coldember/web"

	"github.com/spf13/cobra"
)

func doctorCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "doctor", Args: wants(0, 0),
		RunE: func(c *cobra.Command, _ []string) (err error) {
			if data, err = dataOr(data); err != nil {
				return err
			}
			about, err := there(c.Context(), data)
			if err != nil {
				return errors.Join(err, machine(c, data, time.Time{}))
			}
			if err := tellAbout(c.OutOrStdout(), about); err != nil {
				return err
			}
			if err := store.Check(c.Context(), data); err != nil {
				return err
			}
			if about.Empty || about.Form < store.NewestForm {
				err = said(c.OutOrStdout(), "cli.sound", nil)
			} else {
				err = withData(c.Context(), data, func(w *work.Work) error { return tellUnreadable(c.Context(), c.OutOrStdout(), w) })
			}
			return errors.Join(err, machine(c, data, about.NewestAt))
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
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
		return said(out, "cli.soundAside", map[string]string{"n": strconv.Itoa(n)})
	}
	return said(out, "cli.soundAll", nil)
}

// machine tells what of this machine the program needs: its ports, its fonts, a browser, a clock.
// What is missing is told with what to do; none of it stops the program.
func machine(c *cobra.Command, data string, newest time.Time) error {
	out := c.OutOrStdout()
	return errors.Join(
		tellPort(c, serveAddr, data), tellPort(c, demoAddr, ""), tellPort(c, shelfAddr, ""),
		tellFonts(out), tellBrowser(out), tellClock(out, time.Now(), built(), newest),
	)
}

// tellPort says whether an address can be served.
func tellPort(c *cobra.Command, addr, data string) error {
	with := map[string]string{"address": addr}
	l, err := (&net.ListenConfig{}).Listen(c.Context(), "tcp", addr)
	if err == nil {
		return errors.Join(l.Close(), said(c.OutOrStdout(), "doctor.portFree", with))
	}
	if raw, err := os.ReadFile(startFile(data)); err == nil && data != "" && answers(c, strings.TrimSpace(string(raw))) {
		return said(c.OutOrStdout(), "doctor.portOurs", with)
	}
	return said(c.OutOrStdout(), "doctor.portTaken", with)
}

// tellFonts reads every font that the program ships: of the papers and of the pages.
func tellFonts(out io.Writer) error {
	papers, err := export.CheckFonts()
	if err != nil {
		return said(out, "doctor.fontsBroken", map[string]string{"said": err.Error()})
	}
	pages, err := fs.Glob(web.Dist(), "assets/*.woff2")
	if err != nil || len(pages) == 0 {
		return said(out, "doctor.fontsMissing", nil)
	}
	return said(out, "doctor.fonts", map[string]string{"papers": strconv.Itoa(papers), "pages": strconv.Itoa(len(pages))})
}

// tellBrowser says what opens a page here.
func tellBrowser(out io.Writer) error {
	with, ok := opener()
	switch {
	case !ok:
		return said(out, "doctor.noDesktop", nil)
	case with == nil:
		return said(out, "doctor.noBrowser", nil)
	}
	return said(out, "doctor.browser", map[string]string{"with": with[0]})
}

// opener is what asks the desktop for its browser: nil where there is none. ok is false on a
// machine without a desktop.
func opener() (with []string, ok bool) {
	with = map[string][]string{"darwin": {"open"}, "windows": {"rundll32", "url.dll,FileProtocolHandler"}}[runtime.GOOS]
	if with == nil {
		if os.Getenv("DISPLAY") == "" && os.Getenv("WAYLAND_DISPLAY") == "" {
			return nil, false
		}
		with = []string{"xdg-open"}
	}
	if _, err := exec.LookPath(with[0]); err != nil {
		return nil, true
	}
	return with, true
}

// built is when the program's sources were last changed, as far as it knows.
func built() time.Time {
	info, ok := debug.ReadBuildInfo()
	if !ok {
		return time.Time{}
	}
	for _, s := range info.Settings {
		if s.Key == "vcs.time" {
			at, err := time.Parse(time.RFC3339, s.Value)
			if err == nil {
				return at
			}
		}
	}
	return time.Time{}
}

// slack is how far a clock may be behind what it saved itself.
const slack = time.Minute

// tellClock says what is wrong with the clock: it is behind the program, or behind what was saved.
func tellClock(out io.Writer, now, built, newest time.Time) error {
	with := map[string]string{"now": now.Format("2006-01-02 15:04 MST"), "built": built.Local().Format("2006-01-02"), "saved": newest.Local().Format("2006-01-02 15:04")}
	switch {
	case now.Before(built.Add(-24 * time.Hour)):
		return said(out, "doctor.clockBeforeProgram", with)
	case now.Before(newest.Add(-slack)):
		return said(out, "doctor.clockBeforeData", with)
	}
	return said(out, "doctor.clock", with)
}

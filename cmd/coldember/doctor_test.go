package main

import (
	"bytes"
	"net"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/internal/demo/demotest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestDoctorLooksAtTheMachine: ports, fonts, browser and clock are told after the file, and of a file that is not there too.
func TestDoctorLooksAtTheMachine(t *testing.T) {
	t.Setenv("DISPLAY", "")
	t.Setenv("WAYLAND_DISPLAY", "")
	data := filepath.Join(t.TempDir(), "demo.db")
	demotest.Copy(t, data)
	out, err := command(t, "", "doctor", "--data", data)
	require.NoError(t, err)
	for _, want := range []string{"every document can be read", serveAddr, demoAddr, shelfAddr, "Fonts: 4 for the papers", "There is no desktop here", "Clock: "} {
		assert.Contains(t, out, want)
	}
	out, err = command(t, "", "doctor", "--data", filepath.Join(t.TempDir(), "none.db"))
	require.Error(t, err)
	assert.Contains(t, out, "Clock: ")
}

func TestAPortIsToldFreeOrTaken(t *testing.T) {
	l, err := (&net.ListenConfig{}).Listen(t.Context(), "tcp", "127.0.0.1:0")
	require.NoError(t, err)
	at := l.Addr().String()
	told := func() string {
		c := root()
		var out bytes.Buffer
		c.SetOut(&out)
		c.SetContext(t.Context())
		require.NoError(t, tellPort(c, at, ""))
		return out.String()
	}
	assert.Contains(t, told(), at+" is taken")
	require.NoError(t, l.Close())
	assert.Contains(t, told(), at+" is free")
}

// TestAClockThatIsWrongIsTold: behind the program, or behind what was saved by it.
func TestAClockThatIsWrongIsTold(t *testing.T) {
	now := time.Date(2026, 11, 27, 9, 0, 0, 0, time.UTC)
	for want, at := range map[string][2]time.Time{
		"Clock: 2026-11-27":   {now.AddDate(0, -1, 0), now.Add(-time.Hour)},
		"Clock: ":             {{}, {}},
		"program was made on": {now.AddDate(0, 0, 3), {}},
		"something was saved": {now.AddDate(0, -1, 0), now.Add(time.Hour)},
	} {
		var out bytes.Buffer
		require.NoError(t, tellClock(&out, now, at[0], at[1]))
		assert.Contains(t, out.String(), want)
	}
}

// TestWhatIsPackagedIsCalledRightly: the service and the entry of the menu call the program with what it takes.
func TestWhatIsPackagedIsCalledRightly(t *testing.T) {
	for file, key := range map[string]string{"coldember.service": "ExecStart=/usr/bin/coldember ", "coldember.desktop": "Exec=coldember "} {
		raw, err := os.ReadFile(filepath.Join("../../packaging", file))
		require.NoError(t, err)
		_, line, ok := strings.Cut(string(raw), "\n"+key)
		require.True(t, ok, file)
		line, _, _ = strings.Cut(line, "\n")
		c, rest, err := root().Find(strings.Fields(line))
		require.NoError(t, err)
		assert.True(t, c.HasParent(), line)
		require.NoError(t, c.ParseFlags(rest), line)
		assert.NoError(t, c.ValidateArgs(c.Flags().Args()), line)
	}
	_, err := command(t, "", "serve", "--open", "sometimes", "--data", filepath.Join(t.TempDir(), "x.db"))
	require.ErrorContains(t, err, "--open cannot be “sometimes”")
}

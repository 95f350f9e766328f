package e2e

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/internal/demo"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// startBinary runs the real program on a free port and returns where it is, and a client
// that has its key.
func startBinary(t *testing.T, args ...string) (*exec.Cmd, string, *http.Client) {
	t.Helper()
	cmd := exec.Command("../bin/coldember", append(args, "--addr", "127.0.0.1:0")...)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	t.Cleanup(func() { _ = cmd.Process.Kill(); _ = cmd.Wait() })
	lines := bufio.NewScanner(out)
	require.True(t, lines.Scan(), "it says where it is")
	_, link, ok := strings.Cut(lines.Text(), "at ")
	require.True(t, ok, lines.Text())
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	c := &http.Client{Jar: jar}
	res, err := c.Get(link)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	at, err := url.Parse(link)
	require.NoError(t, err)
	return cmd, at.Scheme + "://" + at.Host, c
}

// TestKillLosesNoAcknowledgedSave kills the program, with the signal that
// cannot be caught, while saves come one after the other.
func TestKillLosesNoAcknowledgedSave(t *testing.T) {
	const saves = 200
	data := filepath.Join(t.TempDir(), "demo.db")
	cmd, base, client := startBinary(t, "demo", "--data", data)
	st := func() (*work.Work, func()) {
		s, err := store.Open(context.Background(), data, nil)
		require.NoError(t, err)
		return work.New(s, time.Now, work.RandomID), func() { _ = s.Close() }
	}
	w, done := st()
	pieces, _, err := w.Pieces(context.Background(), false)
	require.NoError(t, err)
	done()
	var id string
	version := 0
	for _, p := range pieces {
		if p.Doc.Name == demo.Rigging {
			id, version = p.ID, p.Version
		}
	}
	acknowledged, tried := 0, 0
	killed := make(chan struct{})
	for i := range saves {
		if i == saves*3/4 {
			go func() { // somewhere within the next saves
				time.Sleep(30 * time.Millisecond)
				_ = cmd.Process.Kill()
				close(killed)
			}()
		}
		body, err := json.Marshal(map[string]any{"version": version, "edits": []any{map[string]any{"field": "notes", "text": fmt.Sprint(i)}}})
		require.NoError(t, err)
		req, err := http.NewRequest(http.MethodPatch, base+"/api/v1/pieces/"+id, bytes.NewReader(body))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		tried = i
		res, err := client.Do(req)
		if err != nil {
			break // killed
		}
		var a struct{ Piece struct{ Version int } }
		err = json.NewDecoder(res.Body).Decode(&a)
		_ = res.Body.Close()
		if err != nil {
			break
		}
		require.Equal(t, http.StatusOK, res.StatusCode)
		version, acknowledged = a.Piece.Version, i
	}
	<-killed
	_ = cmd.Wait()
	require.GreaterOrEqual(t, acknowledged, saves*3/4-1)
	require.Less(t, acknowledged, saves-1, "it was killed on the way")
	w, done = st()
	defer done()
	p, err := w.Piece(context.Background(), id)
	require.NoError(t, err)
	var stored int
	_, err = fmt.Sscan(p.Doc.Notes, &stored)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, stored, acknowledged, "an acknowledged save is there")
	assert.LessOrEqual(t, stored, tried)
}

// TestTheProgramServesBacksUpAndOpensTheCopy from the command line.
func TestTheProgramServesBacksUpAndOpensTheCopy(t *testing.T) {
	dir := t.TempDir()
	data, copied := filepath.Join(dir, "demo.db"), filepath.Join(dir, "copy.db")
	_, base, client := startBinary(t, "demo", "--data", data)
	get := func(client *http.Client, url string) string {
		res, err := client.Get(url)
		require.NoError(t, err)
		defer func() { _ = res.Body.Close() }()
		var b bytes.Buffer
		_, err = b.ReadFrom(res.Body)
		require.NoError(t, err)
		require.Equal(t, http.StatusOK, res.StatusCode)
		return b.String()
	}
	assert.Contains(t, get(client, base+"/"), "<title>Cold Ember</title>")
	out, err := exec.Command("../bin/coldember", "backup", copied, "--data", data).CombinedOutput()
	require.NoError(t, err, string(out))
	_, again, theirs := startBinary(t, "serve", "--data", copied)
	assert.Contains(t, get(theirs, again+"/api/v1/pieces"), demo.Rigging)
	link, err := exec.Command("../bin/coldember", "open", "--show", "--data", copied).CombinedOutput()
	require.NoError(t, err, string(link))
	assert.Contains(t, string(link), again+"/start?", "a bookmark works again in one command")
	info, err := os.Stat(copied + ".start")
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	out, err = exec.Command("../bin/coldember", "serve", "--addr", "0.0.0.0:0", "--data", data).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "only this machine")
}

package abuse

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// disk is a small disk of its own; the test is skipped where none may be mounted.
func disk(t *testing.T, size string) string {
	t.Helper()
	dir := filepath.Join(t.TempDir(), "disk")
	require.NoError(t, os.Mkdir(dir, 0o700))
	if err := syscall.Mount("tmpfs", dir, "tmpfs", 0, "size="+size); err != nil {
		t.Skipf("no disk can be mounted here: %v", err)
	}
	t.Cleanup(func() { _ = syscall.Unmount(dir, syscall.MNT_DETACH) })
	return dir
}

// fill leaves nothing of a disk.
func fill(t *testing.T, dir string) (empty func()) {
	t.Helper()
	file := filepath.Join(dir, "ballast")
	f, err := os.Create(file)
	require.NoError(t, err)
	block := make([]byte, 1<<12)
	for err == nil {
		_, err = f.Write(block)
	}
	require.ErrorIs(t, err, syscall.ENOSPC)
	require.NoError(t, f.Close())
	return func() { require.NoError(t, os.Remove(file)) }
}

// writes are a call of every kind that saves something.
func writes(x *target) map[string]func() (int, []byte) {
	all := x.pieces()
	p, other := all[0], all[1]
	send := func(method, path string, body any) func() (int, []byte) {
		return func() (int, []byte) {
			raw, err := json.Marshal(body)
			require.NoError(x.t, err)
			status, answer, _ := x.call(method, "/api/v1"+path, "application/json", raw)
			return status, answer
		}
	}
	rack, _, err := x.work.Rack(x.t.Context(), false)
	require.NoError(x.t, err)
	patterns, _, err := x.work.Patterns(x.t.Context(), false)
	require.NoError(x.t, err)
	shop, err := x.work.Shop(x.t.Context())
	require.NoError(x.t, err)
	type m = map[string]any
	fires, err := x.work.AllFires(x.t.Context())
	require.NoError(x.t, err)
	seq := 0
	toFire := func() (int, []byte) {
		seq++
		return send("POST", "/sessions/"+fires[0].ID+"/events", m{"nowMs": 0, "events": []m{{
			"id": fmt.Sprintf("full-%d", seq), "device": "full", "seq": seq, "atMs": 1_764_000_000_000, "kind": "note", "text": strings.Repeat("x", 4000),
		}}})()
	}
	typed := func(field, text string) []edit.Edit { return []edit.Edit{{Field: field, Text: text}} }
	return map[string]func() (int, []byte){
		"a save":        send("PATCH", "/pieces/"+p.ID, m{"version": p.Version, "edits": typed("notes", "x")}),
		"a new piece":   send("POST", "/pieces", work.NewPiece{Name: "New", PatternID: patterns[0].ID, StockID: rack[0].ID, Edits: []edit.Edit{}}),
		"a copy of one": send("POST", "/pieces/"+p.ID+"/duplicate", m{"name": "Another"}),
		"archiving":     send("POST", "/pieces/"+other.ID+"/archive", m{"version": other.Version}),
		"the rack":      send("PATCH", "/stock/"+rack[0].ID, m{"version": rack[0].Version, "edits": typed("notes", "x")}),
		"a pattern":     send("PATCH", "/patterns/"+patterns[0].ID, m{"version": patterns[0].Version, "edits": typed("design.lengthMm", "101")}),
		"the shop":      send("PATCH", "/shop", m{"version": shop.Version, "edits": typed("fire.tempC", "1210")}),
		"a copy":        send("POST", "/copies", nil),
		"the fire":      toFire,
	}
}

// moreWrites are the calls that save something and that nobody else's save makes late.
func moreWrites(x *target) map[string]func() (int, []byte) {
	rig := x.pieces()[0]
	_, file, _ := x.call("GET", "/api/v1/pieces/"+rig.ID+"/share.zip", "", nil)
	practised, err := json.Marshal(map[string]any{"who": "Yard hand", "exercise": "taper", "seed": 1, "undone": 0, "actions": []map[string]any{{"do": "fire", "seconds": 60}}})
	require.NoError(x.t, err)
	timer, err := json.Marshal(map[string]any{"kind": "other", "label": "Glue", "seconds": 60})
	require.NoError(x.t, err)
	send := func(path, kind string, body []byte) func() (int, []byte) {
		return func() (int, []byte) {
			status, answer, _ := x.call("POST", "/api/v1"+path, kind, body)
			return status, answer
		}
	}
	return map[string]func() (int, []byte){
		"a shared piece": send("/pieces/shared", "application/octet-stream", file),
		"an exercise":    send("/practice/sheet", "application/json", practised),
		"a timer":        send("/timers", "application/json", timer),
		"an instrument":  send("/access", "application/json", []byte(`{"kind":"caliper","name":"Caliper"}`)),
	}
}

// TestAFullDisk: every write says that the disk is full, changes nothing, and works once
// there is room again.
func TestAFullDisk(t *testing.T) {
	dir := disk(t, "16m")
	x := serve(t, filepath.Join(dir, "demo.db"))
	all := writes(x)
	maps.Copy(all, moreWrites(x))
	before := x.pieces()
	room := fill(t, dir)
	for what, do := range all {
		refused := false
		for range 30 { // the log has room for some more, until it has none
			status, answer := do()
			if status == http.StatusInsufficientStorage {
				var p struct{ Code, Detail string }
				require.NoError(t, json.Unmarshal(answer, &p))
				assert.Equal(t, string(store.DiskFull), p.Code, what)
				assert.Contains(t, p.Detail, "The disk is full")
				refused = true
				break
			}
			assert.Less(t, status, 500, "%s: %s", what, answer)
			if status >= 400 {
				break
			}
		}
		assert.True(t, refused || what != "a copy", "%s was written to a full disk", what)
	}
	assert.Len(t, before, 9)
	room()
	again := writes(x)
	maps.Copy(again, moreWrites(x))
	for what, do := range again {
		status, answer := do()
		assert.Less(t, status, 400, "%s works again: %s", what, answer)
	}
	left, err := filepath.Glob(filepath.Join(dir, "demo-copies", "*.part"))
	require.NoError(t, err)
	assert.Empty(t, left, "nothing of a copy that was cut short is left")
}

// TestADiskThatCanOnlyBeRead says so when the file on it is opened, and leaves it alone.
func TestADiskThatCanOnlyBeRead(t *testing.T) {
	dir := disk(t, "16m")
	data := filepath.Join(dir, "demo.db")
	st, err := store.Open(t.Context(), data, nil)
	require.NoError(t, err)
	require.NoError(t, st.Close())
	require.NoError(t, syscall.Mount("", dir, "", syscall.MS_REMOUNT|syscall.MS_RDONLY, ""))
	_, err = store.Open(t.Context(), data, nil)
	var f *store.Fault
	require.ErrorAs(t, err, &f)
	assert.Equal(t, store.ReadOnly, f.Code)
	_, err = store.Look(t.Context(), data)
	require.NoError(t, err, "what is in it can still be told")
	require.NoError(t, store.Check(t.Context(), data))
}

// TestADiskThatTurnsReadOnly while it is served: a real file system takes its journal away
// under open files, as it does when a disk fails. Every write says so by its name, reading
// goes on, and what was acknowledged is there when the disk is back.
func TestADiskThatTurnsReadOnly(t *testing.T) {
	image, dir := filepath.Join(t.TempDir(), "image"), filepath.Join(t.TempDir(), "disk")
	require.NoError(t, os.WriteFile(image, nil, 0o600))
	require.NoError(t, os.Truncate(image, 48<<20))
	require.NoError(t, os.Mkdir(dir, 0o700))
	run := func(args ...string) error { return exec.Command(args[0], args[1:]...).Run() }
	if err := errors.Join(run("mkfs.ext4", "-q", image), run("mount", "-o", "loop", image, dir)); err != nil {
		t.Skipf("no such disk can be made here: %v", err)
	}
	t.Cleanup(func() { _ = run("umount", "-l", dir) })
	x := serve(t, filepath.Join(dir, "demo.db"))
	all := writes(x)
	status, answer := all["the fire"]()
	require.Less(t, status, 300, "%s", answer)
	before := x.pieces()
	if err := run("mount", "-o", "remount,abort", dir); err != nil {
		t.Skipf("this disk cannot be made to fail: %v", err)
	}
	for what, do := range all {
		status, answer := do()
		var p struct{ Code, Detail string }
		require.NoError(t, json.Unmarshal(answer, &p), what)
		assert.Equal(t, string(store.ReadOnly), p.Code, "%s: %d %s", what, status, answer)
		assert.Contains(t, p.Detail, "can only be read", what)
	}
	assert.Equal(t, before, x.pieces(), "it can still be read")
}

// TestAnotherUserGetsNothing: neither the file nor what lies beside it.
func TestAnotherUserGetsNothing(t *testing.T) {
	dir, err := os.MkdirTemp("", "coldember-open-*") // a folder that everybody may look into
	require.NoError(t, err)
	t.Cleanup(func() { _ = os.RemoveAll(dir) })
	require.NoError(t, os.Chmod(dir, 0o755)) //nolint:gosec // that is the point
	data := filepath.Join(dir, "demo.db")
	x := serve(t, data)
	_, err = x.work.CopyNow(t.Context(), work.ByHand)
	require.NoError(t, err)
	asOther := func(args ...string) error {
		c := exec.Command(args[0], args[1:]...)
		c.SysProcAttr = &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: 65534, Gid: 65534}}
		return c.Run()
	}
	if err := asOther("true"); err != nil {
		t.Skipf("nobody else can be played here: %v", err)
	}
	require.NoError(t, asOther("ls", dir))
	client := filepath.Join(dir, "client") // this very program, as somebody else
	self, err := os.ReadFile(os.Args[0])
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(client, self, 0o755)) //nolint:gosec // somebody else has to run it
	for _, ask := range []string{"GET /api/v1/pieces", "GET /api/v1/shop", "GET /api/v1/archive", "POST /api/v1/copies", "GET /api/v1/events"} {
		method, path, _ := strings.Cut(ask, " ")
		c := exec.Command(client, "-test.run=^TestAskAsSomebody$", "-test.v")
		c.SysProcAttr = &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: 65534, Gid: 65534}}
		c.Dir, c.Env = dir, append(os.Environ(), "ASK_METHOD="+method, "ASK_URL="+x.url+path)
		out, err := c.CombinedOutput()
		require.NoError(t, err, "%s", out)
		assert.Contains(t, string(out), "answered 401", ask)
	}
	files, err := filepath.Glob(data + "*")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 4)
	for _, f := range append(files, filepath.Join(dir, "demo-copies")) {
		assert.Error(t, asOther("cat", f), fmt.Sprintf("%s can be read", f))
		assert.Error(t, asOther("ls", f+"/"), fmt.Sprintf("%s can be listed", f))
	}
}

// TestAskAsSomebody is what another user runs in TestAnotherUserGetsNothing.
func TestAskAsSomebody(t *testing.T) {
	url := os.Getenv("ASK_URL")
	if url == "" {
		t.Skip("only as somebody else")
	}
	req, err := http.NewRequestWithContext(t.Context(), os.Getenv("ASK_METHOD"), url, nil)
	require.NoError(t, err)
	req.Header.Set("Sec-Fetch-Site", "same-origin")
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	t.Logf("answered %d", res.StatusCode)
}

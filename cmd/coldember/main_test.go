package main

import (
	"bytes"
	"context"
	"encoding/json"
	"net"
	"os"
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

func command(t *testing.T, in string, args ...string) (string, error) {
	t.Helper()
	c := root()
	var out bytes.Buffer
	c.SetIn(strings.NewReader(in))
	c.SetOut(&out)
	c.SetArgs(args)
	err := c.ExecuteContext(context.Background())
	return out.String(), err
}

// TestCalcAnswersEveryReferenceCase runs one case of each kind through the
// command line.
func TestCalcAnswersEveryReferenceCase(t *testing.T) {
	files, err := filepath.Glob("../../core/testdata/vectors/*.json")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, f := range files {
		kind := strings.TrimSuffix(filepath.Base(f), ".json")
		raw, err := os.ReadFile(f)
		require.NoError(t, err)
		var v struct {
			Cases []struct{ In, Out json.RawMessage }
		}
		require.NoError(t, json.Unmarshal(raw, &v))
		out, err := command(t, string(v.Cases[0].In), "calc", kind)
		require.NoError(t, err, kind)
		assert.True(t, json.Valid([]byte(out)), kind)
	}
	_, err = command(t, "{}", "calc", "weather")
	require.ErrorContains(t, err, "weather")
	_, err = command(t, "not json", "calc", "flow")
	require.Error(t, err)
}

func TestVersionAndDocument(t *testing.T) {
	out, err := command(t, "", "version")
	require.NoError(t, err)
	assert.Contains(t, out, "coldember")
	out, err = command(t, "", "openapi")
	require.NoError(t, err)
	checked, err := os.ReadFile("../../docs/openapi.json")
	require.NoError(t, err)
	assert.True(t, strings.TrimSpace(string(checked)) == strings.TrimSpace(out), "docs/openapi.json is stale: run make client")
}

func TestANetworkAddressIsRefused(t *testing.T) {
	for _, c := range []string{"serve", "demo"} {
		_, err := command(t, "", c, "--addr", "0.0.0.0:7420", "--data", filepath.Join(t.TempDir(), "x.db"))
		require.ErrorContains(t, err, "only this machine")
	}
}

func TestBackupOfNothingSaysSo(t *testing.T) {
	t.Setenv("XDG_DATA_HOME", t.TempDir())
	_, err := command(t, "", "backup", filepath.Join(t.TempDir(), "copy.db"))
	require.ErrorContains(t, err, string(store.Missing))
}

// TestACopyIsPutBackByCommand: what is in it is told first, the present file is kept, and
// one that a server has open is left alone.
func TestACopyIsPutBackByCommand(t *testing.T) {
	dir := t.TempDir()
	data, copied := filepath.Join(dir, "mine.db"), filepath.Join(dir, "copy.db")
	st, err := store.Open(t.Context(), data, nil)
	require.NoError(t, err)
	require.NoError(t, work.New(st, time.Now, work.RandomID).Ensure(t.Context()))
	_, err = command(t, "", "backup", copied, "--data", data)
	require.NoError(t, err, "while it is in use")
	_, err = command(t, "", "restore", copied, "--data", data)
	require.ErrorContains(t, err, string(store.InUse))
	require.NoError(t, st.Close())

	out, err := command(t, "", "restore", copied, "--look", "--data", data)
	require.NoError(t, err)
	assert.Contains(t, out, "26 patterns")
	require.NoError(t, os.WriteFile(data, []byte("a broken heart"), 0o600))
	_, err = command(t, "", "doctor", "--data", data)
	require.ErrorContains(t, err, string(store.NotOurs))
	assert.Contains(t, inWords(err), data+" is not a file of Cold Ember")
	out, err = command(t, "", "restore", copied, "--data", data)
	require.NoError(t, err)
	assert.Contains(t, out, "is kept as")
	kept, err := filepath.Glob(data + ".before-*")
	require.NoError(t, err)
	require.Len(t, kept, 1)
	was, err := os.ReadFile(kept[0])
	require.NoError(t, err)
	assert.Equal(t, "a broken heart", string(was))
	out, err = command(t, "", "doctor", "--data", data)
	require.NoError(t, err)
	assert.Contains(t, out, "every document can be read")

	whole, err := os.ReadFile(copied)
	require.NoError(t, err)
	half := filepath.Join(dir, "half.db")
	require.NoError(t, os.WriteFile(half, whole[:len(whole)/2], 0o600))
	_, err = command(t, "", "restore", half, "--data", data)
	require.ErrorContains(t, err, string(store.Damaged))
	_, err = command(t, "", "doctor", "--data", data)
	require.NoError(t, err, "and the present file stays")
}

// TestExportAndImport: a pattern goes out in every format, and comes back from
// JSON as it was.
func TestExportAndImport(t *testing.T) {
	dir := t.TempDir()
	data := filepath.Join(dir, "own.db")
	st, err := store.Open(context.Background(), data, nil)
	require.NoError(t, err)
	require.NoError(t, work.New(st, time.Now, work.RandomID).Ensure(context.Background()))
	require.NoError(t, st.Close())
	for _, f := range []string{"svg", "dxf", "pdf", "3mf", "stl", "json"} {
		file := filepath.Join(dir, "x."+f)
		_, err := command(t, "", "export", "camp KNIFE", "--format", f, "--data", data, "--out", file)
		require.NoError(t, err, f)
		info, err := os.Stat(file)
		require.NoError(t, err)
		assert.Greater(t, info.Size(), int64(300), f)
	}
	first, err := os.ReadFile(filepath.Join(dir, "x.json"))
	require.NoError(t, err)
	renamed := strings.Replace(string(first), "Camp knife", "Camp knife again", 1)
	out, err := command(t, renamed, "import", "-", "--data", data)
	require.NoError(t, err)
	assert.Contains(t, out, "Camp knife again")
	again, err := command(t, "", "export", "Camp knife again", "--format", "json", "--data", data)
	require.NoError(t, err)
	assert.Equal(t, renamed, again)
	for _, name := range []string{"light-polyline.dxf", "curves.svg"} {
		out, err = command(t, "", "import", "../../internal/drawing/testdata/"+name, "--length", "4 3/4in", "--scale", "--name", name, "--data", data)
		require.NoError(t, err)
		assert.Contains(t, out, name)
	}
	_, err = command(t, "", "import", "../../internal/drawing/testdata/light-polyline.dxf", "--length", "90mm", "--data", data)
	require.ErrorContains(t, err, "drawing.length")
	for _, bad := range [][]string{
		{"export", "Spoon", "--data", data},
		{"export", "Camp knife", "--format", "dwg", "--data", data},
		{"export", "Camp knife", "--data", filepath.Join(dir, "none.db")},
		{"import", filepath.Join(dir, "none.json"), "--data", data},
	} {
		_, err := command(t, "", bad...)
		require.Error(t, err, bad)
	}
	_, err = command(t, strings.Replace(string(first), `"lengthMm": 180`, `"lengthMm": 9999`, 1), "import", "-", "--data", data)
	require.ErrorContains(t, err, "design.lengthMm")
}

// TestTheCommandLineSpeaksAsThePagesDo and knows pieces, the rack and what it is asked.
func TestTheCommandLineSpeaksAsThePagesDo(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	st, err := store.Open(t.Context(), data, nil)
	require.NoError(t, err)
	require.NoError(t, demo.Build(t.Context(), st, time.Now()))
	require.NoError(t, st.Close())
	say := func(args ...string) string {
		out, err := command(t, "", append(args, "--data", data)...)
		if err != nil {
			return inWords(err)
		}
		return out
	}
	assert.Regexp(t, `Rigging knife +86 mm +25 mm × 5 mm`, say("pieces"))
	assert.Regexp(t, `Utility knife +100 mm`, say("patterns"))
	assert.Regexp(t, `Lorry spring end +unknown spring \(presumed\)`, say("rack"))
	assert.Contains(t, say("export", "Rigging knife"), "Both a pattern and a piece")
	assert.Contains(t, say("export", "Rigging knife", "--piece"), "<svg")
	assert.Contains(t, say("export", "Rigging knife", "--pattern", "--format", "card"), "A pattern has no card")
	assert.Contains(t, say("export", "Moon"), "no pattern or piece “Moon”")
	for format, begins := range map[string]string{"card": "%PDF", "bench": "%PDF", "heats": "heat,"} {
		assert.True(t, strings.HasPrefix(say("export", "rigging KNIFE", "--piece", "--format", format), begins), format)
	}
	table := filepath.Join(t.TempDir(), "rack.csv")
	say("rack", "export", "--out", table)
	assert.Equal(t, "13 pieces stay as they are.\n", say("rack", "import", table))
	raw, err := os.ReadFile(table)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(table, []byte(strings.Replace(string(raw), "Yard bar", "Long bar", 1)+"x\n"), 0o600))
	assert.Contains(t, say("rack", "import", table), "Line 15 has 1 fields")
	require.NoError(t, os.WriteFile(table, []byte(strings.Replace(string(raw), "Yard bar", "Long bar", 1)), 0o600))
	assert.Contains(t, say("rack", "import", table, "--look"), "Long bar: name Yard bar → Long bar")
	assert.Contains(t, say("rack"), "Yard bar")
	_, err = command(t, `{"format":"coldember.pattern","version":1,"nam":"x"}`, "import", "-", "--data", data)
	assert.Contains(t, inWords(err), "“nam”, near line 1")
	for kind, c := range map[string][2]string{
		"section": {`{"kind":"rect","heightMm":-1,"spineMm":4}`, "The section has no height."},
		"stock":   {`{"form":"flat","widthMm":0}`, "This dimension is missing"},
	} {
		_, err = command(t, c[0], "calc", kind)
		assert.Contains(t, inWords(err), c[1], "a law speaks as the pages do")
	}
	out, err := command(t, "", "calc", "flow", "--help")
	require.NoError(t, err)
	assert.Regexp(t, `carbonPct +number`, out)
	assert.Contains(t, out, "echo '{")
	out, err = command(t, "", "--version")
	require.NoError(t, err)
	assert.Equal(t, "coldember dev\n", out)
}

// TestATakenAddressMakesNoFile.
func TestATakenAddressMakesNoFile(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = l.Close() }()
	data := filepath.Join(t.TempDir(), "new.db")
	for _, how := range []string{"serve", "demo"} {
		_, err = command(t, "", how, "--addr", l.Addr().String(), "--data", data)
		assert.Contains(t, inWords(err), l.Addr().String()+" is in use")
		assert.NoFileExists(t, data)
	}
}

func TestACutPlanFromTheCommandLine(t *testing.T) {
	out, err := command(t, `{"bars":[{"lengthMm":1000,"count":2}],"parts":[{"lengthMm":320,"count":6}],"kerfMm":2,"keepMm":30}`, "calc", "cutplan")
	require.NoError(t, err)
	var got struct {
		Bars []struct {
			Parts     []float64
			RemnantMm float64
		}
		ConsumedMm, LowerBoundMm float64
		Optimal                  bool
	}
	require.NoError(t, json.Unmarshal([]byte(out), &got))
	require.Len(t, got.Bars, 2)
	assert.Len(t, got.Bars[0].Parts, 3)
	assert.InDelta(t, 2*(1000-34), got.ConsumedMm, 1e-9, "three parts and three kerfs of each bar; the end goes back")
	assert.True(t, got.Optimal)
	_, err = command(t, `{"bars":[{"lengthMm":-1,"count":1}]}`, "calc", "cutplan")
	require.ErrorContains(t, err, "bars.0.lengthMm")
	out, err = command(t, `{"stock":{"form":"ball","diameterMm":45},"lossFraction":0.1,"blade":{"outline":{"spine":[[0,0],[80,0]],"edge":[[0,-1],[80,-20]]},"thickness":[[0,2],[80,4]],"grind":{"kind":"rect"}}}`, "calc", "largest")
	require.NoError(t, err)
	assert.Contains(t, out, "factor")
}

// Package abuse treats the whole server as nobody should: hostile bodies and files, many
// at once, a full disk. A short form runs with every test; `make abuse` runs it at length.
package abuse

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"io"
	"math"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"coldember/internal/api"
	"coldember/internal/demo/demotest"
	"coldember/internal/server"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// long tells whether there is time for all of it.
var long = os.Getenv("ABUSE") == "long"

// times is how often something is done: seldom, or at length.
func times(short, atLength int) int {
	if long {
		return atLength
	}
	return short
}

type target struct {
	t    testing.TB
	url  string
	http *http.Client
	work *work.Work
}

func serve(t testing.TB, data string) *target {
	t.Helper()
	ctx := t.Context()
	demotest.Copy(t, data)
	st, err := store.Open(ctx, data, nil)
	require.NoError(t, err)
	return attend(t, st, work.New(st, time.Now, work.RandomID))
}

// attend serves what is open, to somebody who has its key.
func attend(t testing.TB, st *store.Store, w *work.Work) *target {
	t.Helper()
	key := server.NewKey()
	s := httptest.NewServer(server.Handler(w, fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}}, key))
	t.Cleanup(func() { s.Close(); _ = st.Close() })
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	c := &http.Client{Jar: jar, Timeout: 60 * time.Second, Transport: &http.Transport{MaxIdleConnsPerHost: 64}}
	res, err := c.Get(key.Link(s.URL, "/"))
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	return &target{t, s.URL, c, w}
}

// call sends and returns what came back.
func (x *target) call(method, path, kind string, body []byte) (status int, answer []byte, of string) {
	req, err := http.NewRequest(method, x.url+path, bytes.NewReader(body))
	if err != nil {
		return 0, nil, "" // no such path can be asked for
	}
	if len(body) > 0 {
		req.Header.Set("Content-Type", kind)
	}
	res, err := x.http.Do(req)
	if err != nil {
		x.t.Errorf("%s %s: %v", method, path, err)
		return 0, nil, ""
	}
	defer func() { _ = res.Body.Close() }()
	answer, err = io.ReadAll(res.Body)
	if err != nil {
		x.t.Errorf("%s %s: %v", method, path, err)
	}
	return res.StatusCode, answer, res.Header.Get("Content-Type")
}

// mangler changes JSON into what nobody would send.
type mangler struct {
	*rand.Rand
	seldom int // one value in so many is changed
}

var nasty = []any{
	nil, true, false, "", "NaN", 0, -1, 1e308, -1e308, 1e-308, 1 << 53, "\x00", "🔥", strings.Repeat("x", 5000), []any{}, map[string]any{}, "1e999", "../../etc", "'; DROP TABLE pieces; --", "-0", "1/0", "12 furlongs", "=1+1",
}

func (g mangler) value(v any) any {
	if g.IntN(g.seldom) == 0 {
		return nasty[g.IntN(len(nasty))]
	}
	switch v := v.(type) {
	case map[string]any:
		for k := range v {
			switch g.IntN(2 * g.seldom) {
			case 0:
				delete(v, k)
			case 1:
				v[k+"x"] = v[k]
			default:
				v[k] = g.value(v[k])
			}
		}
		return v
	case []any:
		if len(v) > 0 && g.IntN(g.seldom) == 0 {
			for range g.IntN(200) {
				v = append(v, v[0])
			}
		}
		for i := range v {
			v[i] = g.value(v[i])
		}
		return v
	case float64:
		if g.IntN(g.seldom) < 2 && math.Abs(v) < 1e6 {
			return v * []float64{-1, 0, 1e-9, 1e9, 1000, 1e300}[g.IntN(6)]
		}
	}
	return v
}

func (g mangler) bytes(b []byte) []byte {
	b = bytes.Clone(b)
	for range 1 + g.IntN(4) {
		if len(b) == 0 {
			return b
		}
		switch at := g.IntN(len(b)); g.IntN(4) {
		case 0:
			b = b[:at]
		case 1:
			b[at] = byte(g.IntN(256))
		case 2:
			b = append(b[:at:at], b[at/2:]...)
		default:
			b = append(b[:at:at], append([]byte("\"}];NaN<>&1e400"), b[at:]...)...)
		}
	}
	return b
}

// TestHostileRequests: whatever is sent, the answer is JSON and no fault of ours, and
// everything can be used afterwards.
func TestHostileRequests(t *testing.T) {
	x := serve(t, filepath.Join(t.TempDir(), "demo.db"))
	before := x.pieces()
	g := mangler{rand.New(rand.NewPCG(11, 0xbad)), 12}
	p := before[0]
	doc := func() map[string]any {
		raw, err := json.Marshal(p.Doc)
		require.NoError(t, err)
		var m map[string]any
		require.NoError(t, json.Unmarshal(raw, &m))
		return m
	}
	rack, _, err := x.work.Rack(t.Context(), false)
	require.NoError(t, err)
	patterns, _, err := x.work.Patterns(t.Context(), false)
	require.NoError(t, err)
	version := func(of string) float64 {
		n, err := 0, error(nil)
		switch of {
		case "piece":
			var now work.Piece
			now, err = x.work.Piece(t.Context(), p.ID)
			n = now.Version
		case "stock":
			var now work.Stock
			now, err = x.work.StockItem(t.Context(), rack[0].ID)
			n = now.Version
		case "shop":
			var now work.Settings
			now, err = x.work.Shop(t.Context())
			n = now.Version
		}
		require.NoError(t, err)
		return float64(n)
	}
	edits := func() []any {
		fields := []string{"design.lengthMm", "bar.lengthMm", "choices.curve", "outline.add", "tool.bevel.face", "smith.hand", "name", "picture.scale", "handle", "tags", "count", "hazard.x", "dead.add", "copies.keep", "copies.folder", "smiths.remove", "order", "fire.tempC", "piece.lengthMm", "notes", "language", "walk", "newsSeen", "learned.x"}
		texts := []string{"12", "120 mm", "1 1/2 in", "", "1200", "pinchOut", "0.5"}
		return []any{map[string]any{"field": fields[g.IntN(len(fields))], "text": texts[g.IntN(len(texts))]}}
	}
	kinds := []string{"section", "stock", "blade", "bend", "blow", "cool", "heat", "flow", "scale", "decarb", "spread", "reach", "size", "temper", "largest", "cutplan", "nonsuch"}
	requests := []func() (method, path string, body any){
		func() (string, string, any) {
			return "POST", "/plan/preview", map[string]any{"doc": doc(), "edits": edits()}
		},
		func() (string, string, any) { return "POST", "/plan/states", doc() },
		func() (string, string, any) {
			return "PATCH", "/pieces/" + p.ID, map[string]any{"version": version("piece"), "edits": edits()}
		},
		func() (string, string, any) {
			return "POST", "/pieces", map[string]any{"name": "x", "patternId": patterns[0].ID, "stockId": rack[0].ID}
		},
		func() (string, string, any) {
			return "POST", "/pieces/" + p.ID + "/undo", map[string]any{"version": version("piece")}
		},
		func() (string, string, any) {
			return "PATCH", "/stock/" + rack[0].ID, map[string]any{"version": version("stock"), "edits": edits()}
		},
		func() (string, string, any) {
			return "PATCH", "/patterns/" + patterns[0].ID, map[string]any{"version": 1, "edits": edits()}
		},
		func() (string, string, any) {
			return "PATCH", "/shop", map[string]any{"version": version("shop"), "edits": edits()}
		},
		func() (string, string, any) {
			return "POST", "/calc/" + kinds[g.IntN(len(kinds))], map[string]any{
				"widthMm": 30., "thicknessMm": 5., "fromC": 1100., "toC": 850., "bars": []any{map[string]any{"lengthMm": 1000., "count": 3.}},
				"parts": []any{map[string]any{"lengthMm": 120., "count": 5.}}, "kerfMm": 2., "timeS": 60., "tempC": 900., "atmosphere": 1.,
			}
		},
		func() (string, string, any) { return "POST", "/copies/" + "x" + "/restore", nil },
		func() (string, string, any) {
			return "POST", "/practice/" + []string{"play", "advice", "beside", "sheet"}[g.IntN(4)], map[string]any{
				"who": "x", "undone": 0., "exercise": []string{"taper", "cold", "flat"}[g.IntN(3)], "seed": 1., "actions": []any{
					map[string]any{"do": "fire", "seconds": 60.}, map[string]any{"do": "strike", "atMm": 20., "way": "flat", "face": "flat", "blows": 3.}, map[string]any{"do": "brush"},
				},
			}
		},
		func() (string, string, any) {
			return "GET", "/find?text=" + url.QueryEscape([]string{"x", "%", "_", `\\`, "lip", strings.Repeat("y", 3000)}[g.IntN(6)]), nil
		},
		func() (string, string, any) {
			return "POST", "/pieces/" + p.ID + "/cuts/blade", map[string]any{"state": "booked"}
		},
	}
	seen := map[int]int{}
	for range times(300, 2000) {
		method, path, body := requests[g.IntN(len(requests))]()
		g.seldom = []int{12, 100, 500, 1500}[g.IntN(4)]
		raw, err := json.Marshal(g.value(body))
		require.NoError(t, err)
		if g.IntN(8) == 0 {
			raw = g.bytes(raw)
		}
		if g.IntN(20) == 0 {
			path = string(g.bytes([]byte(path)))
			path = "/" + strings.TrimLeft(strings.ToValidUTF8(path, "?"), "/")
		}
		status, answer, of := x.call(method, "/api/v1"+path, "application/json", raw)
		seen[status]++
		if status >= 500 || status != 0 && !strings.Contains(of, "json") && status != http.StatusNoContent || len(answer) > 0 && strings.Contains(of, "json") && !json.Valid(answer) {
			t.Errorf("%s %s\n%.600s\n%d %s %.400s", method, path, raw, status, of, answer)
		}
	}
	t.Logf("answers by status: %v", seen)
	assert.NotZero(t, seen[http.StatusUnprocessableEntity])
	assert.NotZero(t, seen[http.StatusOK], "some are good enough to be worked on")
	for _, q := range x.pieces() {
		status, answer, _ := x.call("GET", "/api/v1/pieces/"+q.ID, "", nil)
		assert.Equal(t, http.StatusOK, status, "%s can still be opened: %.300s", q.Doc.Name, answer)
	}
}

func (x *target) pieces() []api.Piece {
	x.t.Helper()
	status, answer, _ := x.call("GET", "/api/v1/pieces", "", nil)
	require.Equal(x.t, http.StatusOK, status, string(answer))
	var all api.Listed[api.Piece]
	require.NoError(x.t, json.Unmarshal(answer, &all))
	require.Empty(x.t, all.Unreadable)
	require.NotEmpty(x.t, all.Items)
	return all.Items
}

// TestHostileFiles: tables, pictures and drawings that are none.
func TestHostileFiles(t *testing.T) {
	x := serve(t, filepath.Join(t.TempDir(), "demo.db"))
	g := mangler{rand.New(rand.NewPCG(12, 0xbad)), 12}
	_, table, _ := x.call("GET", "/api/v1/stock.csv", "", nil)
	svg := []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="60mm" viewBox="0 0 200 60"><path d="M0 20 C50 0 150 0 200 10 L200 40 Q100 55 0 20 Z"/></svg>`)
	dxf := []byte("0\nSECTION\n2\nENTITIES\n0\nLWPOLYLINE\n90\n4\n70\n1\n10\n0\n20\n0\n10\n100\n20\n10\n10\n100\n20\n-20\n10\n0\n20\n0\n0\nENDSEC\n0\nEOF\n")
	p := x.pieces()[0]
	_, shared, _ := x.call("GET", "/api/v1/pieces/"+p.ID+"/share.zip", "", nil)
	var drawn bytes.Buffer
	require.NoError(t, png.Encode(&drawn, image.NewGray(image.Rect(0, 0, 64, 64))))
	squares := drawn.Bytes()
	for i := range times(96, 600) {
		var status int
		var answer []byte
		switch what := i % 6; what {
		case 4:
			status, answer, _ = x.call("POST", "/api/v1/pieces/shared", "application/octet-stream", g.bytes(shared))
		case 5:
			status, answer, _ = x.call("POST", "/api/v1/patterns/scan", "application/octet-stream", g.bytes(squares))
		case 0:
			status, answer, _ = x.call("POST", "/api/v1/stock.csv", "text/csv", g.bytes(table))
		case 1:
			status, answer, _ = x.call("POST", fmt.Sprintf("/api/v1/pieces/%s/picture?version=%d", p.ID, p.Version), "application/octet-stream", g.bytes([]byte("\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR\x00\x00\xff\xff\x00\x00\xff\xff\x08\x06")))
		default:
			file, format := svg, "svg"
			if what == 3 {
				file, format = dxf, "dxf"
			}
			raw, err := json.Marshal(map[string]any{"version": p.Version, "file": map[string]any{"format": format, "text": strings.ToValidUTF8(string(g.bytes(file)), "?"), "length": "120"}})
			require.NoError(t, err)
			status, answer, _ = x.call("POST", "/api/v1/pieces/"+p.ID+"/outline", "application/json", raw)
		}
		if status >= 500 || !json.Valid(answer) {
			t.Errorf("file %d: %d %.400s", i, status, answer)
		}
	}
	rack, aside, err := x.work.Rack(t.Context(), false)
	require.NoError(t, err, "the rack can be read after all of them")
	assert.NotEmpty(t, rack)
	assert.Empty(t, aside)
}

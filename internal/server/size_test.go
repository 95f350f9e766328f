package server_test

import (
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"testing"

	"coldember/internal/api"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAPreviewIsLean: what the screen shows, and no more; the piece after every heat is
// asked for where it is drawn.
func TestAPreviewIsLean(t *testing.T) {
	c := serve(t)
	var all api.Listed[api.Piece]
	c.do("GET", "/api/v1/pieces", nil, &all)
	counted := map[bool]int{}
	for _, p := range all.Items {
		in, err := json.Marshal(m{"doc": p.Doc, "edits": []any{}})
		require.NoError(t, err)
		req, err := http.NewRequestWithContext(t.Context(), http.MethodPost, c.url+"/api/v1/plan/preview", strings.NewReader(string(in)))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("Accept-Encoding", "identity")
		res, err := c.http.Do(req)
		require.NoError(t, err)
		text, err := io.ReadAll(res.Body)
		_ = res.Body.Close()
		require.NoError(t, err)
		if res.StatusCode != http.StatusOK {
			continue // one that cannot be forged as it is
		}
		var out struct {
			Plan struct{ Heats []json.RawMessage }
		}
		require.NoError(t, json.Unmarshal(text, &out))
		n := len(out.Plan.Heats)
		most := 60000 + 30000*max(0, n-16)/26 // 13 heats and 3 of the fire; 39 and 3
		counted[n > 24]++
		assert.LessOrEqual(t, len(text), most, "%s, %d heats", p.Doc.Name, n)
	}
	assert.NotZero(t, counted[true], "a long one is among them")
	assert.NotZero(t, counted[false])
}

package server

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/core/plan"
	"coldember/internal/api"
	"coldember/internal/demo"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/go-chi/chi/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWhatTakesTooLongIsGivenUp with a plain answer; what is quick is not.
func TestWhatTakesTooLongIsGivenUp(t *testing.T) {
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"), nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	require.NoError(t, demo.Build(t.Context(), st, time.Now()))
	w := work.New(st, time.Now, work.RandomID)
	all, _, err := w.Pieces(t.Context(), false)
	require.NoError(t, err)
	ask := func(limit time.Duration) (int, string) {
		r := chi.NewRouter()
		r.Use(bounded(limit))
		api.Mount(r, w)
		d := all[0].Doc
		d.Request.Version = plan.RequestVersion
		raw, err := json.Marshal(map[string]any{"doc": map[string]any{"name": d.Name, "request": d.Request}, "edits": []any{map[string]any{"field": "design.lengthMm", "text": "91.37"}}})
		require.NoError(t, err)
		req := httptest.NewRequest(http.MethodPost, "/api/v1/plan/preview", strings.NewReader(string(raw)))
		req.Header.Set("Content-Type", "application/json")
		res := httptest.NewRecorder()
		r.ServeHTTP(res, req)
		return res.Code, res.Body.String()
	}
	code, body := ask(2 * time.Millisecond)
	assert.Equal(t, http.StatusServiceUnavailable, code, body)
	assert.Contains(t, body, "problem.tooLong")
	code, body = ask(time.Minute)
	assert.Equal(t, http.StatusOK, code, "%.200s", body)
}

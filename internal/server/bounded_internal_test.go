package server

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"path"
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
		r.Use(bounded(func(string) time.Duration { return limit }))
		api.Mount(r, w, nil)
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

// TestEachKindHasALimitOfItsOwn: what is typed for ends first, the whole shop last.
func TestEachKindHasALimitOfItsOwn(t *testing.T) {
	of := func(p string) time.Duration { return limitOf("/api/v1" + p) }
	assert.Less(t, of("/calc/cool"), of("/plan/preview"))
	assert.Less(t, of("/plan/preview"), of("/plan/largest"))
	assert.Equal(t, of("/plan/largest"), of("/stock/ab12/fits"))
	assert.Greater(t, of("/archive"), of("/plan/rank"))
	assert.Equal(t, of("/archive"), of("/copies/demo-2026.db/restore"))
	assert.Equal(t, usualLimit, of("/pieces/ab12"))
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "paths.db"), nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	r, used := chi.NewRouter(), map[int]bool{}
	api.Mount(r, work.New(st, time.Now, work.RandomID), nil)
	require.NoError(t, chi.Walk(r, func(_, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		for i, l := range limits {
			if ok, err := path.Match("/api/v1"+l.of, route); ok && err == nil {
				used[i] = true
			}
		}
		return nil
	}))
	assert.Len(t, used, len(limits), "every limit is that of a path that is served")
}

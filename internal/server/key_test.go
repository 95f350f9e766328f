package server_test

import (
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestNobodyWithoutTheKey: another user of the machine reaches the port, and nothing else.
func TestNobodyWithoutTheKey(t *testing.T) {
	c := serve(t)
	other := client{t, c.url, &http.Client{CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}}
	for _, call := range [][2]string{
		{"GET", "/api/v1/pieces"},
		{"GET", "/api/v1/shop"},
		{"GET", "/api/v1/copies"},
		{"POST", "/api/v1/copies"},
		{"GET", "/api/v1/events"},
		{"POST", "/api/v1/pieces"},
		{"GET", "/api/v1/stock.csv"},
		{"GET", "/api/nothing"},
	} {
		p := other.refused(call[0], call[1], nil, http.StatusUnauthorized)
		assert.Equal(t, "problem.locked", p.Code, call)
	}
	for _, guess := range []string{"", "x", strings.Repeat("A", 26)} {
		res := other.do("GET", "/start?to=/rack&key="+guess, nil, nil)
		assert.Equal(t, http.StatusSeeOther, res.StatusCode)
		assert.Equal(t, "/rack", res.Header.Get("Location"))
		assert.Empty(t, res.Cookies(), "a guess is given nothing")
	}
	for _, to := range []string{"//elsewhere.example/", "https://elsewhere.example/", "/\\elsewhere.example", ""} {
		res := other.do("GET", "/start?to="+to, nil, nil)
		assert.Equal(t, "/", res.Header.Get("Location"), "nobody is sent away: %s", to)
	}
	res := other.do("GET", "/", nil, nil)
	assert.Equal(t, http.StatusOK, res.StatusCode, "the page comes, and says what to do")
}

// TestAPageElsewhereMayNothing though the browser has the key: it says where a call is from,
// and what has no kind of its own is not taken.
func TestAPageElsewhereMayNothing(t *testing.T) {
	c := serve(t)
	call := func(method string, headers map[string]string, body string) int {
		req, err := http.NewRequestWithContext(t.Context(), method, c.url+"/api/v1/stock.csv", strings.NewReader(body))
		require.NoError(t, err)
		for k, v := range headers {
			req.Header.Set(k, v)
		}
		res, err := c.http.Do(req)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		return res.StatusCode
	}
	csv := map[string]string{"Content-Type": "text/csv; charset=utf-8"}
	assert.Equal(t, http.StatusOK, call("GET", map[string]string{"Sec-Fetch-Site": "same-origin"}, ""))
	assert.Equal(t, http.StatusOK, call("GET", map[string]string{"Sec-Fetch-Site": "none"}, ""))
	assert.Equal(t, http.StatusForbidden, call("GET", map[string]string{"Sec-Fetch-Site": "same-site"}, ""), "another port of this machine")
	assert.Equal(t, http.StatusForbidden, call("POST", map[string]string{"Sec-Fetch-Site": "cross-site", "Content-Type": "text/csv"}, "x"))
	assert.Equal(t, http.StatusForbidden, call("POST", map[string]string{"Origin": "http://elsewhere.example", "Content-Type": "text/csv"}, "x"))
	assert.Equal(t, http.StatusUnprocessableEntity, call("POST", csv, "x"), "no table, but it is looked at")
	for _, kind := range []string{"text/plain", "application/x-www-form-urlencoded", "multipart/form-data; boundary=x", "", "text/csv/"} {
		assert.Equal(t, http.StatusUnsupportedMediaType, call("POST", map[string]string{"Content-Type": kind}, "x"), kind)
	}
}

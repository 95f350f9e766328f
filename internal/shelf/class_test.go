package shelf_test

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"
	"time"

	"coldember/internal/api"
	"coldember/internal/demo"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// person is a browser of one of a class.
type person struct {
	*open
	cookie *http.Cookie
}

// joins pairs a person.
func (o *open) joins(kind work.Role, name string) person {
	o.t.Helper()
	require.NoError(o.t, o.s.Pair(string(kind)))
	res := o.pair(o.s.State().Pairing.Code, name)
	require.Equal(o.t, http.StatusSeeOther, res.StatusCode)
	assert.Equal(o.t, "/", res.Header.Get("Location"))
	return person{o, res.Cookies()[0]}
}

// do asks as this person, again where it was too often.
func (p person) do(method, path, body string) (status int, answer string) {
	p.t.Helper()
	for {
		res := p.ask(method, path, body, func(r *http.Request) { r.AddCookie(p.cookie) })
		if res.StatusCode == http.StatusTooManyRequests {
			time.Sleep(40 * time.Millisecond)
			continue
		}
		raw, err := io.ReadAll(io.LimitReader(res.Body, 8<<20))
		require.NoError(p.t, err)
		return res.StatusCode, string(raw)
	}
}

func (p person) call(method, path, body string) int {
	p.t.Helper()
	status, _ := p.do(method, "/api/v1"+path, body)
	return status
}

// makes begins a piece of their own.
func (p person) makes(name string) api.Piece {
	p.t.Helper()
	patterns, _, err := p.w.Patterns(context.Background(), false)
	require.NoError(p.t, err)
	rack, _, err := p.w.Rack(context.Background(), false)
	require.NoError(p.t, err)
	status, answer := p.do("POST", "/api/v1/pieces", fmt.Sprintf(`{"name":%q,"patternId":%q,"stockId":%q,"edits":[]}`, name, patterns[0].ID, rack[0].ID))
	require.Equal(p.t, http.StatusOK, status, answer)
	var made struct{ Piece api.Piece }
	require.NoError(p.t, json.Unmarshal([]byte(answer), &made))
	return made.Piece
}

func (p person) sees() (names []string) {
	p.t.Helper()
	_, answer := p.do("GET", "/api/v1/pieces", "")
	var all api.Listed[api.Piece]
	require.NoError(p.t, json.Unmarshal([]byte(answer), &all))
	for _, x := range all.Items {
		names = append(names, x.Doc.Name)
	}
	return names
}

// cutFrom are the names of what was cut from the rack, as they are told this person.
func (p person) cutFrom() (names []string) {
	p.t.Helper()
	_, answer := p.do("GET", "/api/v1/stock", "")
	var all api.Listed[api.Stock]
	require.NoError(p.t, json.Unmarshal([]byte(answer), &all))
	for _, s := range all.Items {
		for _, c := range s.History {
			names = append(names, c.Name)
		}
	}
	return names
}

func patch(version int, field, text string) string {
	return fmt.Sprintf(`{"version":%d,"edits":[{"field":%q,"text":%q}]}`, version, field, text)
}

// TestAClass: each has a name; a student sees and changes what is theirs, looks at what is shared and may take a copy of it; a
// teacher sees all; what is done at the machine itself is done there.
func TestAClass(t *testing.T) {
	o := newShelf(t)
	ada, ben, teacher := o.joins(work.Student, "Ada"), o.joins(work.Student, "Ben"), o.joins(work.Teacher, "Yard master")
	require.NoError(t, o.s.Pair(string(work.Student)))
	assert.Equal(t, http.StatusUnprocessableEntity, o.pair(o.s.State().Pairing.Code, "ada").StatusCode, "one person each by name")
	_, me := ada.do("GET", "/api/v1/me", "")
	assert.JSONEq(t, `{"name":"Ada","role":"student"}`, stripped(t, me))
	_, me = teacher.do("GET", "/api/v1/me", "")
	assert.JSONEq(t, `{"name":"Yard master","role":"teacher","class":["Ada","Ben"]}`, stripped(t, me))
	assert.Empty(t, ada.sees(), "the yard's own work is not the class's")
	hers, his := ada.makes("Ada's knife"), ben.makes("Ben's knife")
	assert.Equal(t, "Ada", hers.Doc.Owner)
	assert.Equal(t, []string{"Ada's knife"}, ada.sees())
	assert.Subset(t, teacher.sees(), []string{"Ada's knife", "Ben's knife", demo.Rigging})
	assert.Equal(t, http.StatusNotFound, ben.call("GET", "/pieces/"+hers.ID, ""))
	assert.Equal(t, http.StatusNotFound, ben.call("PATCH", "/pieces/"+hers.ID, patch(1, "notes", "x")))
	assert.Equal(t, http.StatusOK, ada.call("PATCH", "/pieces/"+hers.ID, patch(1, "shared", "yes")))
	assert.ElementsMatch(t, []string{"Ada's knife", "Ben's knife"}, ben.sees())
	assert.Equal(t, http.StatusForbidden, ben.call("PATCH", "/pieces/"+hers.ID, patch(2, "notes", "x")))
	assert.Equal(t, http.StatusForbidden, ben.call("POST", "/pieces/"+hers.ID+"/undo", `{"version":2}`))
	status, answer := ben.do("POST", "/api/v1/pieces/"+hers.ID+"/duplicate", `{"name":""}`)
	require.Equal(t, http.StatusOK, status, answer)
	assert.Contains(t, answer, `"owner":"Ben"`, "a copy is one's own")
	assert.Equal(t, http.StatusUnprocessableEntity, ada.call("PATCH", "/pieces/"+hers.ID, patch(2, "owner", "Ben")), "whose it is, a teacher says")
	assert.Equal(t, http.StatusUnprocessableEntity, teacher.call("PATCH", "/pieces/"+hers.ID, patch(2, "owner", "Bem")), "nobody has that name")
	assert.Equal(t, http.StatusOK, teacher.call("PATCH", "/pieces/"+hers.ID, patch(2, "owner", "Ben")))
	assert.Equal(t, http.StatusForbidden, ada.call("PATCH", "/pieces/"+hers.ID, patch(3, "notes", "x")), "it was given away")
	assert.Equal(t, http.StatusOK, ben.call("POST", "/pieces/"+hers.ID+"/undo", `{"version":3}`))
	p, err := o.w.Piece(t.Context(), hers.ID)
	require.NoError(t, err)
	assert.Equal(t, "Ben", p.Doc.Owner, "which no step back undoes")
	assert.True(t, p.Doc.Shared)
	// at the fire
	status, answer = ben.do("POST", "/api/v1/pieces/"+his.ID+"/fire", `{"again":false}`)
	require.Equal(t, http.StatusOK, status, answer)
	var f api.Session
	require.NoError(t, json.Unmarshal([]byte(answer), &f))
	note := fmt.Sprintf(`{"nowMs":0,"events":[{"id":"n-1","device":"n","seq":1,"atMs":%d,"kind":"note","text":"hot"}]}`, time.Now().UnixMilli())
	assert.Equal(t, http.StatusNotFound, ada.call("POST", "/sessions/"+f.ID+"/events", note))
	assert.Equal(t, http.StatusOK, ben.call("POST", "/sessions/"+f.ID+"/events", note))
	_, found := ada.do("GET", "/api/v1/find?text=hot", "")
	assert.NotContains(t, found, f.ID)
	_, found = ben.do("GET", "/api/v1/find?text=hot", "")
	assert.Contains(t, found, f.ID)
	_, list := ada.do("GET", "/api/v1/sessions", "")
	assert.NotContains(t, list, his.ID)
	// the rack
	yard, _, err := o.w.Pieces(t.Context(), false)
	require.NoError(t, err)
	for _, p := range yard {
		if p.Doc.Name == demo.Rigging {
			_, err = o.w.SetCut(t.Context(), p.ID, "body", work.CutTyped{State: work.CutMadeNow})
			require.NoError(t, err)
		}
	}
	assert.Contains(t, teacher.cutFrom(), demo.Rigging)
	assert.NotEmpty(t, ada.cutFrom())
	for _, name := range ada.cutFrom() {
		assert.Empty(t, name, "what was cut from a bar is told, and not whose")
	}
	// the shop
	_, shop := ada.do("GET", "/api/v1/shop", "")
	assert.Contains(t, shop, demo.YardHand, "a plan is made for somebody's hammer")
	assert.NotContains(t, shop, `"folder":"/`)
	assert.Equal(t, http.StatusForbidden, ada.call("PATCH", "/shop", patch(1, "units", "in")))
	for _, path := range []string{"/archive", "/copies", "/access", "/shelf"} {
		assert.Equal(t, http.StatusForbidden, teacher.call("GET", path, ""), path)
	}
	assert.Equal(t, http.StatusForbidden, teacher.call("PATCH", "/shop", patch(1, "copies.folder", "/tmp")))
	assert.Equal(t, http.StatusOK, teacher.call("GET", "/day?pieces="+hers.ID, ""), "the day of the class")
	assert.Equal(t, http.StatusForbidden, ada.call("GET", "/day?pieces="+hers.ID, ""))
	status, html := ada.do("GET", "/pieces/"+hers.ID, "")
	assert.Equal(t, http.StatusOK, status)
	assert.NotContains(t, html, "data-shelf")
	// ended, they are out at once; their name can be had again, with what is theirs
	all, err := o.w.AllAccess(t.Context())
	require.NoError(t, err)
	for _, a := range all {
		if a.Name == "Ben" {
			require.Error(t, o.w.NameAccess(t.Context(), a.ID, "Benjamin"))
			require.NoError(t, o.w.RevokeAccess(t.Context(), a.ID))
		}
	}
	assert.Equal(t, http.StatusUnauthorized, ben.call("GET", "/pieces", ""))
	assert.Contains(t, o.joins(work.Student, "Ben").sees(), "Ben's knife")
}

func stripped(t *testing.T, text string) string {
	t.Helper()
	var m map[string]any
	require.NoError(t, json.Unmarshal([]byte(text), &m))
	delete(m, "$schema")
	raw, err := json.Marshal(m)
	require.NoError(t, err)
	return string(raw)
}

// TestEveryRouteAsksWhoseItIs: every call of the API on what is another's, as a student: it is not there or not theirs, whatever
// the call, and nothing of it is changed.
func TestEveryRouteAsksWhoseItIs(t *testing.T) {
	o := newShelf(t)
	ada := o.joins(work.Student, "Ada")
	pieces, _, err := o.w.Pieces(t.Context(), false)
	require.NoError(t, err)
	fires, err := o.w.AllFires(t.Context())
	require.NoError(t, err)
	raw, err := api.Document()
	require.NoError(t, err)
	var d struct {
		Paths map[string]map[string]any `json:"paths"`
	}
	require.NoError(t, json.Unmarshal(raw, &d))
	// what is nobody's may be asked for; its answers are looked at below
	free := func(m, path string) bool {
		for _, of := range []string{"/plan/", "/practice/", "/calc/", "/patterns", "/stock", "/pictures", "/help/", "/steels", "/salvage", "/billet", "/photo", "/me", "/find", "/shop", "/events", "/timers", "/readings"} {
			if strings.HasPrefix(path, of) {
				return true
			}
		}
		return (path == "/pieces" || path == "/sessions" || path == "/pieces/shared") && m != "DELETE"
	}
	before := o.marks()
	tried := 0
	for path, methods := range d.Paths {
		path = strings.TrimPrefix(path, "/api/v1")
		for _, m := range []string{"GET", "POST", "PUT", "PATCH", "DELETE"} {
			if _, is := methods[strings.ToLower(m)]; !is || free(m, path) {
				continue
			}
			id := pieces[0].ID
			if strings.HasPrefix(path, "/sessions") {
				id = fires[0].ID
			}
			at := strings.NewReplacer("{id}", id, "{name}", "x", "{format}", "svg", "{kind}", "curve", "{n}", "1", "{role}", "body").Replace(path)
			body := map[bool]string{true: patch(pieces[0].Version, "notes", "x")}[m != "GET"]
			tried++
			assert.Contains(t, []int{http.StatusForbidden, http.StatusNotFound}, ada.call(m, at, body), "%s %s", m, path)
		}
	}
	assert.Greater(t, tried, 60)
	for _, m := range []string{"PATCH /stock/{id}", "POST /stock", "POST /stock.csv", "POST /stock/{id}/archive", "PUT /stock/{id}/layout", "POST /patterns", "PATCH /patterns/{id}", "POST /patterns/file", "POST /patterns/scan", "PATCH /shop", "GET /practice/sheet.csv", "POST /practice/sheet/{id}/remove", "GET /timers.ics", "GET /stock.csv"} {
		method, path, _ := strings.Cut(m, " ")
		assert.Equal(t, http.StatusForbidden, ada.call(method, strings.ReplaceAll(path, "{id}", "x"), map[bool]string{true: "{}"}[method != "GET"]), m)
	}
	for _, body := range []string{`{"who":"x","exercise":"","piece":%q,"seed":1,"undone":0,"actions":[{"do":"fire","seconds":60}]}`} {
		for _, path := range []string{"/practice/play", "/practice/advice", "/practice/beside", "/practice/sheet"} {
			status, answer := ada.do("POST", "/api/v1"+path, fmt.Sprintf(body, pieces[0].ID))
			assert.NotEqual(t, http.StatusOK, status, "%s %.200s", path, answer)
		}
	}
	for _, path := range []string{"/pieces", "/pieces?archived=true", "/sessions", "/timers", "/find?text=a", "/practice/sheet"} {
		_, answer := ada.do("GET", "/api/v1"+path, "")
		for _, p := range pieces {
			assert.NotContains(t, answer, p.ID, path)
		}
	}
	assert.Equal(t, before, o.marks(), "nothing was changed")
}

// marks are what would be another if anything was changed.
func (o *open) marks() (out []string) {
	o.t.Helper()
	pieces, _, err := o.w.Pieces(context.Background(), false)
	require.NoError(o.t, err)
	for _, p := range pieces {
		out = append(out, fmt.Sprint(p.ID, p.Version))
	}
	rack, _, err := o.w.Rack(context.Background(), false)
	require.NoError(o.t, err)
	for _, s := range rack {
		out = append(out, fmt.Sprint(s.ID, s.Version))
	}
	fires, err := o.w.AllFires(context.Background())
	require.NoError(o.t, err)
	for _, f := range fires {
		out = append(out, fmt.Sprint(f.ID, f.Step, f.Blows))
	}
	return out
}

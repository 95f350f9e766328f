package server_test

import (
	"bytes"
	"context"
	"encoding/json"
	"image"
	"image/png"
	"io"
	"net/http"
	"strconv"
	"testing"

	"coldember/core/whatif"
	"coldember/internal/api"
	"coldember/internal/demo"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheStockroomAnswers every question a page asks of it.
func TestTheStockroomAnswers(t *testing.T) {
	c := serve(t)
	p := c.piece(demo.Rigging)
	var table api.Salvage
	require.Equal(t, http.StatusOK, c.do("GET", "/api/v1/salvage", nil, &table).StatusCode)
	assert.NotEmpty(t, table.Tests)
	var sure whatif.Sure
	require.Equal(t, http.StatusOK, c.do("POST", "/api/v1/plan/sure", m{"doc": p.Doc}, &sure).StatusCode)
	assert.Equal(t, 2000, sure.Runs)
	var ranked []api.RankedStock
	require.Equal(t, http.StatusOK, c.do("POST", "/api/v1/plan/rank", p.Doc, &ranked).StatusCode)
	assert.NotEmpty(t, ranked)
	var costs []whatif.Cost
	require.Equal(t, http.StatusOK, c.do("POST", "/api/v1/plan/costs", p.Doc, &costs).StatusCode)
	var hopes []whatif.Hope
	require.Equal(t, http.StatusOK, c.do("POST", "/api/v1/plan/hopes", c.piece(demo.SlicerNarrow).Doc, &hopes).StatusCode)
	assert.NotEmpty(t, hopes)
	var fit whatif.Fit
	require.Equal(t, http.StatusOK, c.do("POST", "/api/v1/plan/largest", m{"doc": p.Doc, "freedom": whatif.Freedom{Length: whatif.Axis{Free: true, Lowest: .5, Highest: 1.5}}}, &fit).StatusCode)
	assert.Greater(t, fit.Length, 1.)
	bad := c.refused("POST", "/api/v1/plan/largest", m{"doc": p.Doc, "freedom": whatif.Freedom{}}, http.StatusUnprocessableEntity)
	assert.Contains(t, bad.Fields[0].Message, "Nothing may scale")
	tiny := p.Doc
	tiny.Request.Bar.LengthMm = 12
	none := c.refused("POST", "/api/v1/plan/largest", m{"doc": tiny, "freedom": whatif.Freedom{Length: whatif.Axis{Free: true, Lowest: .9, Highest: 1.5}}}, http.StatusUnprocessableEntity)
	assert.Equal(t, "problem.noFit", none.Code)

	var laid work.CutPlan
	require.Equal(t, http.StatusOK, c.do("POST", "/api/v1/cutplan", m{"pieces": []any{m{"pieceId": p.ID, "count": 3}}, "kerfMm": 1.5, "keepMm": 100, "stubMm": 0}, &laid).StatusCode)
	require.Len(t, laid.Groups, 1)
	require.Equal(t, http.StatusOK, c.do("POST", "/api/v1/cutplan/take", laid, nil).StatusCode)
	late := c.refused("POST", "/api/v1/cutplan/take", laid, http.StatusConflict)
	assert.Equal(t, "problem.stale", late.Code)
	pdf := c.do("POST", "/api/v1/cutplan/pdf", laid, nil)
	assert.Equal(t, http.StatusOK, pdf.StatusCode)
	assert.Equal(t, "application/pdf", pdf.Header.Get("Content-Type"))
	var cuts []work.PieceCut
	require.Equal(t, http.StatusOK, c.do("GET", "/api/v1/pieces/"+p.ID+"/cuts", nil, &cuts).StatusCode)
	assert.Len(t, cuts, 3)
	require.Equal(t, http.StatusOK, c.do("POST", "/api/v1/pieces/"+p.ID+"/cuts/body", m{"state": "made"}, &cuts).StatusCode)
	assert.Equal(t, "problem.cutMade", c.refused("POST", "/api/v1/pieces/"+p.ID+"/cuts/body", m{"state": "booked"}, http.StatusConflict).Code)
}

// TestAPictureIsKeptAndServed as it came, and nothing else is.
func TestAPictureIsKeptAndServed(t *testing.T) {
	c := serve(t)
	p := c.piece(demo.Rigging)
	var raw bytes.Buffer
	require.NoError(t, png.Encode(&raw, image.NewGray(image.Rect(0, 0, 30, 20))))
	send := func(body []byte) *http.Response {
		req, err := http.NewRequestWithContext(context.Background(), http.MethodPost, c.url+"/api/v1/pieces/"+p.ID+"/picture?version="+strconv.Itoa(p.Version), bytes.NewReader(body))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/octet-stream")
		res, err := c.http.Do(req)
		require.NoError(t, err)
		t.Cleanup(func() { _ = res.Body.Close() })
		return res
	}
	assert.Equal(t, http.StatusUnprocessableEntity, send([]byte("<svg onload=alert(1)>")).StatusCode)
	res := send(raw.Bytes())
	require.Equal(t, http.StatusOK, res.StatusCode)
	var a api.PieceAnswer
	require.NoError(t, json.NewDecoder(res.Body).Decode(&a))
	require.NotNil(t, a.Piece.Doc.Picture)
	got, err := c.http.Get(c.url + "/api/v1/pictures/" + a.Piece.Doc.Picture.ID)
	require.NoError(t, err)
	defer func() { _ = got.Body.Close() }()
	body, err := io.ReadAll(got.Body)
	require.NoError(t, err)
	assert.Equal(t, raw.Bytes(), body)
	assert.Equal(t, "image/png", got.Header.Get("Content-Type"))
	assert.Contains(t, got.Header.Get("Cache-Control"), "immutable")
}

// TestStockIsEditedFieldByFieldAndComesAsATable.
func TestStockIsEditedFieldByFieldAndComesAsATable(t *testing.T) {
	c := serve(t)
	var s api.Stock
	add := func(form string, edits ...any) *http.Response {
		return c.do("POST", "/api/v1/stock", m{"form": form, "edits": edits}, &s)
	}
	edit := func(field, text string) m { return m{"field": field, "text": text, "units": "mm"} }
	require.Equal(t, http.StatusOK, add("race", edit("name", "Ring"), edit("piece.outerDiameterMm", "110"), edit("piece.innerDiameterMm", "90"), edit("piece.widthMm", "1 in")).StatusCode)
	assert.InDelta(t, 25.4, s.Piece.WidthMm, 1e-9)
	assert.InDelta(t, 3.14159265*100, s.Start.WholeMm, .01)
	bad := c.refused("PATCH", "/api/v1/stock/"+s.ID, m{"version": s.Version, "edits": []any{edit("piece.innerDiameterMm", "120")}}, http.StatusUnprocessableEntity)
	assert.Equal(t, "piece.innerDiameterMm", bad.Fields[0].Field)
	assert.Contains(t, bad.Fields[0].Message, "less than the outer")
	require.Equal(t, http.StatusOK, c.do("PATCH", "/api/v1/stock/"+s.ID, m{"version": s.Version, "edits": []any{edit("origin", "race"), edit("test.oilQuench", "skates")}}, &s).StatusCode)
	require.NotNil(t, s.Belief)
	assert.Equal(t, "bearing", s.Belief.Shares[0].Family)
	late := c.refused("PATCH", "/api/v1/stock/"+s.ID, m{"version": 1, "edits": []any{edit("name", "Other")}}, http.StatusConflict)
	assert.Equal(t, "problem.stale", late.Code)

	table := c.do("GET", "/api/v1/stock.csv", nil, nil)
	assert.Contains(t, table.Header.Get("Content-Type"), "text/csv")
	send := func(text string) (*http.Response, string) {
		req, err := http.NewRequestWithContext(context.Background(), http.MethodPost, c.url+"/api/v1/stock.csv", bytes.NewReader([]byte(text)))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "text/csv")
		res, err := c.http.Do(req)
		require.NoError(t, err)
		defer func() { _ = res.Body.Close() }()
		body, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res, string(body)
	}
	res, body := send("name,form,widthMm,thicknessMm,lengthMm,steelId\nA,flat,20,5,500,1084\n")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	assert.Contains(t, body, `"added":["A"]`)
	res, body = send("name,form,lenghtMm\nA,flat,20\n")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "lengthMm", "the nearest column is named")
	var fits []api.FittingPattern
	require.Equal(t, http.StatusOK, c.do("GET", "/api/v1/stock/"+s.ID+"/fits", nil, &fits).StatusCode)
	assert.NotEmpty(t, fits)
}

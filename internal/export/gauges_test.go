package export_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/quantity"
	"coldember/core/session"
	"coldember/core/simulate"
	"coldember/core/stock"
	"coldember/internal/export"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// across are the widths of slots on a page: open boxes of one depth.
func across(pts [][2]float64, deep float64) (widths []float64) {
	for i := 0; i+3 < len(pts); i++ {
		a, b, c, d := pts[i], pts[i+1], pts[i+2], pts[i+3]
		if math.Abs(a[0]-b[0]) < .02 && math.Abs(c[0]-d[0]) < .02 && math.Abs(a[1]-b[1]-deep) < .05 && math.Abs(b[1]-c[1]) < .02 && math.Abs(a[1]-d[1]) < .02 {
			widths = append(widths, c[0]-b[0])
		}
	}
	return widths
}

// TestGaugesAreTrue: on the page, slots are as wide as what has to go into them and what must
// not, the strip has its marks where the piece ends after each heat, and the bar is 50 mm.
func TestGaugesAreTrue(t *testing.T) {
	r := plan.NewRequest(blade.Starters()[0].Design, "80CrV2", stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 500}, forge.Steady)
	p, err := planner.Make(context.Background(), r)
	require.NoError(t, err)
	c := session.Freeze(&r, p, planner.TreatmentSteps(&r, p))
	for _, paper := range []string{"a4", "letter"} {
		pdf, err := export.Gauges("Rigging knife", &c, export.Subject{Name: "x", Design: r.Design, Allowances: r.Allowances, Piece: &r}, quantity.Metric, paper)
		require.NoError(t, err)
		require.Len(t, page.FindAll(pdf, -1), 1, "all on one sheet")
		pts := points(t, pdf)
		widths := across(pts, 14)
		checked := 0
		last := map[string]*session.Step{}
		for i := range c.Steps {
			if s := &c.Steps[i]; s.Goal != nil && s.Goal.Measure != plan.Rise {
				last[s.Operation] = s
			}
		}
		has := func(want float64) bool {
			for _, w := range widths {
				if math.Abs(w-want) < .03 {
					return true
				}
			}
			return false
		}
		for op, s := range last {
			checked++
			assert.Greater(t, s.Goal.HotMm, s.Goal.Mm, "it is tried on hot steel")
			assert.True(t, has(s.Goal.HotMm+s.Goal.WithinMm), "%s goes into %.2f mm: %v", op, s.Goal.HotMm+s.Goal.WithinMm, widths)
			assert.True(t, has(s.Goal.HotMm-s.Goal.WithinMm), "%s does not go into %.2f mm", op, s.Goal.HotMm-s.Goal.WithinMm)
		}
		assert.Greater(t, checked, 4)
		zero := math.Inf(1)
		bar := false
		for i := 1; i < len(pts); i++ {
			bar = bar || math.Abs(pts[i][1]-pts[i-1][1]) < .02 && math.Abs(pts[i][0]-pts[i-1][0]-50) < .02
			if math.Abs(pts[i][0]-pts[i-1][0]) < .02 && math.Abs(math.Abs(pts[i][1]-pts[i-1][1])-8) < .05 {
				zero = math.Min(zero, pts[i][0])
			}
		}
		assert.True(t, bar, "the bar to check by")
		for _, h := range c.Heats {
			near := math.Inf(1)
			for _, q := range pts {
				near = math.Min(near, math.Abs(q[0]-zero-math.Max(h.LengthMm, h.LongHot)))
			}
			assert.Less(t, near, .85, "a mark where the piece ends after heat %d", h.Number)
		}
	}
}

// TestLongGaugesGoOverSheets that meet.
func TestLongGaugesGoOverSheets(t *testing.T) {
	d := blade.Starters()[0].Design.Scaled(4, 1.4, 1.4)
	r := plan.NewRequest(d, "80CrV2", stock.Item{Form: stock.Flat, WidthMm: 40, ThicknessMm: 8, LengthMm: 1500}, forge.Sure)
	p, err := planner.Make(context.Background(), r)
	require.NoError(t, err)
	c := session.Freeze(&r, p, planner.TreatmentSteps(&r, p))
	pdf, err := export.Gauges("Long", &c, export.Subject{Name: "x", Design: d, Allowances: r.Allowances, Piece: &r}, quantity.Imperial, "letter")
	require.NoError(t, err)
	assert.Greater(t, len(page.FindAll(pdf, -1)), 1)
	for _, q := range points(t, pdf) {
		assert.GreaterOrEqual(t, q[1], 0.0)
	}
}

// made is a session that a simulated piece told.
func made(t *testing.T) export.Made {
	t.Helper()
	r := plan.NewRequest(blade.Starters()[0].Design, "80CrV2", stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 500}, forge.Steady)
	piece, err := simulate.New(context.Background(), r, 4)
	require.NoError(t, err)
	events := piece.Tell(simulate.Wish{
		Device: "shelf", BeginMs: 1_764_000_000_000, Note: "=HYPERLINK(1)",
		Faults: map[int]simulate.Fault{2: {Fault: session.Fault{Kind: "gouge", AtMm: 30, DepthMm: .6}, Text: "a deep one"}},
	})
	c := piece.Course()
	return export.Made{Name: "Rigging knife", Hand: "Yard hand", Steel: "80CrV2", Request: r, Course: c, Events: events, Book: session.BookOf(c, events), Zone: time.UTC}
}

// TestTheBookIsATable of one width, in the order of what happened, that no spreadsheet runs.
func TestTheBookIsATable(t *testing.T) {
	m := made(t)
	r := m.Book.Readings[0].Reading
	require.NotNil(t, r)
	r.Hot, r.ReadMm = true, r.Mm+.31
	raw, err := export.SessionCSV(m)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(raw)).ReadAll()
	require.NoError(t, err)
	kinds, at, hot := map[string]int{}, "", 0
	for _, row := range rows[1:] {
		kinds[row[0]]++
		assert.GreaterOrEqual(t, row[1], at, "in order")
		at = row[1]
		if said := row[slices.Index(rows[0], "readHotMm")]; said != "" {
			hot++
			assert.NotEqual(t, said, row[slices.Index(rows[0], "value")], "what the calipers said stands beside what it is cold")
		}
		for _, cell := range row {
			assert.False(t, strings.HasPrefix(cell, "="), cell)
		}
	}
	assert.GreaterOrEqual(t, hot, 1)
	assert.Equal(t, len(m.Book.Heats), kinds["heat"])
	assert.Equal(t, map[string]int{"heat": kinds["heat"], "reading": len(m.Book.Readings), "fault": 1, "note": 1}, kinds)
}

// TestTheBookIsOnePage, and a file that folds to the same book again.
func TestTheBookIsOnePage(t *testing.T) {
	m := made(t)
	pdf, err := export.AsMade(m, quantity.Metric, "a4")
	require.NoError(t, err)
	assert.Len(t, page.FindAll(pdf, -1), 1)
	for _, q := range points(t, pdf) {
		assert.GreaterOrEqual(t, q[1], 0.0, "something lies below the page")
	}
	raw, err := export.SessionJSON(m)
	require.NoError(t, err)
	var back export.SessionFile
	require.NoError(t, json.Unmarshal(raw, &back))
	again, err := json.Marshal(session.BookOf(&back.Course, back.Events))
	require.NoError(t, err)
	was, err := json.Marshal(m.Book)
	require.NoError(t, err)
	assert.JSONEq(t, string(was), string(again))
}

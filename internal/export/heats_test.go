package export_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/export"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func heatsPlan(t *testing.T) *plan.Plan {
	t.Helper()
	for _, s := range blade.Starters() {
		if s.ID == "rigging" {
			p, err := planner.Make(context.Background(), plan.NewRequest(s.Design, "80CrV2", stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}, forge.Sure))
			require.NoError(t, err)
			return p
		}
	}
	panic("no starter")
}

func TestTheHeatsAreATableWithALineEach(t *testing.T) {
	p := heatsPlan(t)
	raw, err := export.HeatsCSV(p, nil, quantity.Metric)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(raw)).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, len(p.Heats)+1)
	at := map[string]int{}
	for i, name := range rows[0] {
		at[name] = i
	}
	for i, h := range p.Heats {
		row := rows[i+1]
		assert.Equal(t, strconv.Itoa(h.Number), row[at["heat"]])
		blows, err := strconv.Atoi(row[at["blows"]])
		require.NoError(t, err)
		assert.Equal(t, h.Blows, blows)
		assert.NotEmpty(t, row[at["work"]])
		if h.Blows > 0 {
			assert.Contains(t, row[at["targets"]], "×")
		}
	}
	assert.Contains(t, string(raw), "hot or cold", "cautions stand at their step")
}

func TestTheBenchCardFitsTwentyHeatsOnTwoPages(t *testing.T) {
	p := heatsPlan(t)
	require.LessOrEqual(t, len(p.Heats), 20)
	for _, paper := range []string{"a4", "letter"} {
		pdf, err := export.BenchCard("Rigging knife", p, nil, quantity.Imperial, paper)
		require.NoError(t, err)
		assert.LessOrEqual(t, len(page.FindAll(pdf, -1)), 2, paper)
	}
	p.Heats = append(p.Heats, append(p.Heats, p.Heats...)...)
	pdf, err := export.BenchCard("Long", p, nil, quantity.Metric, "a4")
	require.NoError(t, err)
	assert.Greater(t, len(page.FindAll(pdf, -1)), 2, "more heats, more pages")
}

// TestTheTreatmentIsOnTheBenchCard, in the words of the page, and its cautions.
func TestTheTreatmentIsOnTheBenchCard(t *testing.T) {
	reader, err := exec.LookPath("pdftotext")
	if err != nil {
		t.Skip("pdftotext of poppler-utils is not here")
	}
	r := plan.NewRequest(blade.Starters()[0].Design, "1084", stock.Item{Form: stock.Flat, WidthMm: 30, ThicknessMm: 6, LengthMm: 500}, forge.Steady)
	p, err := planner.Make(context.Background(), r)
	require.NoError(t, err)
	h := export.Hardening{Advice: planner.Treat(&r, p)}
	pdf, err := export.BenchCard("Rigging knife", p, &h, quantity.Metric, "a4")
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "bench.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.CommandContext(context.Background(), reader, file, "-").Output()
	require.NoError(t, err)
	words := strings.Join(strings.Fields(string(out)), " ")
	for _, want := range []string{"Heat evenly to 805 °C", "Fast oil at 55 °C", "Straighten in gloves", "Tempering begins within the hour", "Temper 2 of 2: 2 h", "When the file bites", "Quench oil flashes"} {
		assert.Contains(t, words, want)
	}
}

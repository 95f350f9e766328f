package export_test

import (
	"bytes"
	"compress/zlib"
	"context"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
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

func card(t *testing.T, starter int, bar stock.Item, units quantity.System, paper string) ([]byte, *plan.Plan) {
	t.Helper()
	r := plan.NewRequest(blade.Starters()[starter].Design, "80CrV2", bar, forge.Steady)
	p, err := planner.Make(context.Background(), r)
	require.NoError(t, err)
	pdf, err := export.FireCard("Test knife", r, p, nil, units, paper)
	require.NoError(t, err)
	return pdf, p
}

var (
	mediaBox = regexp.MustCompile(`/MediaBox ?\[ ?0 0 ([0-9.]+) ([0-9.]+) ?\]`)
	stream   = regexp.MustCompile(`(?s)stream\r?\n(.*?)endstream`)
	page     = regexp.MustCompile(`/Type ?/Page\b`)
	move     = regexp.MustCompile(`(-?[0-9.]+) (-?[0-9.]+) (?:m|l)\b`)
)

// points reads every point of every path of the page, in mm from the bottom
// left.
func points(t *testing.T, pdf []byte) [][2]float64 {
	t.Helper()
	var out [][2]float64
	for _, s := range stream.FindAllSubmatch(pdf, -1) {
		z, err := zlib.NewReader(bytes.NewReader(s[1]))
		if err != nil {
			continue
		}
		text, err := io.ReadAll(z)
		if err != nil || !bytes.Contains(text, []byte(" l")) {
			continue
		}
		for _, p := range move.FindAllSubmatch(text, -1) {
			x, _ := strconv.ParseFloat(string(p[1]), 64)
			y, _ := strconv.ParseFloat(string(p[2]), 64)
			out = append(out, [2]float64{x * 25.4 / 72, y * 25.4 / 72})
		}
	}
	return out
}

func TestTheCardIsOnePageOfThePaper(t *testing.T) {
	flat := stock.Item{Form: stock.Flat, WidthMm: 60, ThicknessMm: 7, LengthMm: 1000}
	for paper, size := range map[string][2]float64{"a4": {210, 297}, "letter": {215.9, 279.4}} {
		for i := range blade.Starters() {
			if i%3 != 0 && (paper == "letter" || i > 11) { // a few, beside the usual ones on the other paper
				continue
			}
			pdf, _ := card(t, i, flat, quantity.Imperial, paper)
			assert.Len(t, page.FindAll(pdf, -1), 1, "one page")
			box := mediaBox.FindSubmatch(pdf)
			require.NotNil(t, box)
			for k := range 2 {
				v, err := strconv.ParseFloat(string(box[k+1]), 64)
				require.NoError(t, err)
				assert.InDelta(t, size[k], v*25.4/72, .1)
			}
			for _, p := range points(t, pdf) {
				assert.GreaterOrEqual(t, p[1], 0.0, "%s, starter %d: something lies below the page", paper, i)
			}
		}
	}
}

// TestTheBarIsDrawnTrue measures the chalk marks on a card drawn at half size.
func TestTheBarIsDrawnTrue(t *testing.T) {
	const scale, left = .5, 13.0
	pdf, p := card(t, 0, stock.Item{Form: stock.Flat, WidthMm: 30, ThicknessMm: 6, LengthMm: 1000}, quantity.Metric, "a4")
	pts := points(t, pdf)
	require.NotEmpty(t, pts)
	for _, m := range p.Bar.Marks {
		nearest := math.Inf(1)
		for _, q := range pts {
			nearest = math.Min(nearest, math.Abs(q[0]-left-m.ToMm*scale))
		}
		assert.Less(t, nearest, .05, "no line at the mark of %s, %.1f mm", m.Zone, m.ToMm)
	}
}

func TestBarSizes(t *testing.T) {
	assert.Equal(t, "25 mm × 5 mm", export.BarSize(stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5}, quantity.Metric))
	assert.Equal(t, "ø 1/2 in", export.BarSize(stock.Item{Form: stock.Round, DiameterMm: 12.7}, quantity.Imperial))
	assert.Equal(t, "12 mm × 12 mm", export.BarSize(stock.Item{Form: stock.Square, SideMm: 12}, quantity.Metric))
	assert.Equal(t, "14 mm", export.BarSize(stock.Item{Form: stock.Hex, AcrossFlatsMm: 14}, quantity.Metric))
}

// TestALumpHasItsPrepOnTheCard, and still one page.
func TestALumpHasItsPrepOnTheCard(t *testing.T) {
	d := blade.Starters()[0].Design.Scaled(.6, .6, .7)
	r := plan.NewRequest(d, "52100", stock.Item{Form: stock.Roller, DiameterMm: 26, LengthMm: 60}, forge.Sure)
	r.Choices.Holding = plan.WeldedRod
	p, err := planner.Make(context.Background(), r)
	require.NoError(t, err)
	require.NotEmpty(t, p.Prep)
	with, err := export.FireCard("Oyster knife", r, p, nil, quantity.Metric, "a4")
	require.NoError(t, err)
	assert.Len(t, page.FindAll(with, -1), 1)
	p.Prep = nil
	without, err := export.FireCard("Oyster knife", r, p, nil, quantity.Metric, "a4")
	require.NoError(t, err)
	assert.NotEqual(t, points(t, with), points(t, without), "the prep takes its room")
}

// TestWhatIsPrintedCanBeSearched, read back by another program: whole words, with what is
// written as ligatures elsewhere (fire, flat, fit).
func TestWhatIsPrintedCanBeSearched(t *testing.T) {
	reader, err := exec.LookPath("pdftotext")
	if err != nil {
		t.Skip("pdftotext of poppler-utils is not here")
	}
	pdf, _ := card(t, 0, stock.Item{Form: stock.Flat, WidthMm: 30, ThicknessMm: 6, LengthMm: 1000}, quantity.Imperial, "letter")
	file := filepath.Join(t.TempDir(), "card.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.CommandContext(context.Background(), reader, file, "-").Output()
	require.NoError(t, err)
	for _, words := range []string{"For the fire", "Bevels", "flat face", "×", "°F", "Finished", "fire watch"} {
		assert.Contains(t, string(out), words)
	}
	again, _ := card(t, 0, stock.Item{Form: stock.Flat, WidthMm: 30, ThicknessMm: 6, LengthMm: 1000}, quantity.Imperial, "letter")
	assert.True(t, bytes.Equal(pdf, again), "the same card is the same bytes")
}

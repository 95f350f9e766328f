package work_test

import (
	"testing"
	"time"

	"coldember/core/harden"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestADayOfTheShop: the same rules by hand and by itself: settings made one only where that is
// asked for, cycles and glue with it, blocks no sooner than they were moved to, and its timers
// begun at their time.
func TestADayOfTheShop(t *testing.T) {
	w, _ := fresh(t)
	one := start(t, w)
	two, _, err := w.DuplicatePiece(ctx, one.ID, "Softer")
	require.NoError(t, err)
	two, _, err = w.SavePiece(ctx, two.ID, two.Version, typed("treatment.wantHardness", "59"))
	require.NoError(t, err)
	ask := work.DayAsked{Pieces: []string{one.ID, two.ID}, Ovens: []harden.Oven{{Holds: 4}}}
	plain, err := w.Day(ctx, ask)
	require.NoError(t, err)
	assert.NotEqual(t, plain.Settings[one.ID].OvenC, plain.Settings[two.ID].OvenC)
	require.Len(t, plain.Oil, 2)
	assert.Greater(t, plain.Oil[1].WarmC, plain.Oil[0].WarmC, "the first one warmed it")
	ask.Common = true
	common, err := w.Day(ctx, ask)
	require.NoError(t, err)
	assert.InDelta(t, common.Settings[one.ID].OvenC, common.Settings[two.ID].OvenC, 0)
	assert.Less(t, lastOf(common), lastOf(plain), "they go in together")
	ask.Cycles, ask.GlueMin = true, 90
	ask.Moved = []work.Moved{{Piece: two.ID, Task: "quench", Min: 200}}
	whole, err := w.Day(ctx, ask)
	require.NoError(t, err)
	kinds := map[string]int{}
	for _, p := range whole.Placed {
		if p.Job == two.ID && p.Task == "quench" {
			assert.GreaterOrEqual(t, p.FromMin, 200.0)
		}
		for _, j := range whole.Jobs {
			for _, k := range j.Tasks {
				if k.ID == p.Task && j.ID == p.Job {
					kinds[k.What]++
				}
			}
		}
	}
	assert.Equal(t, map[string]int{"cycle": 6, "quench": 2, "temper": 4, "cool": 2, "glue": 2, "set": 2}, kinds)
	begin := time.Date(2026, 3, 29, 1, 0, 0, 0, time.UTC)
	timers, err := w.StartDay(ctx, ask, begin)
	require.NoError(t, err)
	assert.Len(t, timers, 12, "cycles, tempers and glue")
	all, err := w.Timers(ctx)
	require.NoError(t, err)
	assert.Len(t, all, 12)
	for _, k := range all {
		assert.False(t, k.StartedAt.Before(begin))
	}
	ask.Ovens = []harden.Oven{{Holds: 4, MostC: 120}}
	_, err = w.Day(ctx, ask)
	assert.Contains(t, fields(t, err), "ovens")
	ask.Moved[0].Min = -5
	_, err = w.Day(ctx, ask)
	assert.Error(t, err)
}

func lastOf(d work.Day) (last float64) {
	for _, p := range d.Placed {
		last = max(last, p.ToMin)
	}
	return last
}

// TestACertificateReachesThePiece that is cut from its bar, and goes with another steel.
func TestACertificateReachesThePiece(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	s, err := w.AddStock(ctx, doc.Stock{Name: "Proved", Piece: stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 800}, SteelID: "1084"})
	require.NoError(t, err)
	s, err = w.EditStock(ctx, s.ID, s.Version, typed("analysis.manganesePct", "0.95"))
	require.NoError(t, err)
	assert.InDelta(t, .84, s.Doc.Analysis.CarbonPct, 1e-9, "the rest is typical of the grade")
	_, err = w.EditStock(ctx, s.ID, s.Version, typed("analysis.carbonPct", "9"))
	assert.Contains(t, fields(t, err), "analysis.carbonPct")
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("stockId", s.ID))
	require.NoError(t, err)
	require.NotNil(t, p.Doc.Request.Analysis)
	assert.InDelta(t, .95, p.Doc.Request.Analysis.ManganesePct, 1e-9)
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("steelId", "1075"))
	require.NoError(t, err)
	assert.Nil(t, p.Doc.Request.Analysis)
	s, err = w.EditStock(ctx, s.ID, s.Version, typed("analysis.usual", ""))
	require.NoError(t, err)
	assert.Nil(t, s.Doc.Analysis)
}

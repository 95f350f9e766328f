package work_test

import (
	"encoding/json"
	"fmt"
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestEveryWayThatIsOfferedCanBeTaken: twenty-four patterns, each spoiled at the grinder by a thin
// place or a pit, soft and hardened; every way is taken as its button does, fits what was measured,
// keeps readings and pits, and is undone in one step.
func TestEveryWayThatIsOfferedCanBeTaken(t *testing.T) {
	w, _ := fresh(t)
	all, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	require.Greater(t, len(all), 23)
	taken, tight := 0, 0
	for i, pattern := range all[:24] {
		d := pattern.Doc.Design
		s, err := w.AddStock(ctx, doc.Stock{Name: fmt.Sprint("Bar ", i), Piece: stock.Item{Form: stock.Flat, WidthMm: d.HeightMm, ThicknessMm: d.SpineMm + 1.5, LengthMm: 2000}, SteelID: "1084"})
		require.NoError(t, err)
		p, _, err := w.StartPiece(ctx, work.NewPiece{Name: fmt.Sprint("Knife ", i), PatternID: pattern.ID, StockID: s.ID})
		require.NoError(t, err, pattern.Doc.Name)
		x, y := d.LengthMm*[]float64{.2, .5, .8}[i%3], d.HeightMm*.5
		spoil := typed("finish.reading.add", fmt.Sprintf("%.1f; %.1f; %.2f", x, y, d.SpineMm*.45))
		if i%2 == 1 {
			spoil = typed("finish.pit.add", fmt.Sprintf("%.1f; %.1f; front; %.2f", x, y, .6+.1*float64(i%4)))
		}
		if i%4 > 1 {
			spoil = append(spoil, typed("finish.hardened", "yes")...)
		}
		p, _, err = w.SavePiece(ctx, p.ID, p.Version, spoil)
		require.NoError(t, err, pattern.Doc.Name)
		ways, err := w.Still(ctx, p.Doc)
		require.NoError(t, err)
		for _, way := range ways {
			if way.Heat || way.What == "asPlanned" {
				continue
			}
			what := pattern.Doc.Name + ": " + way.What
			text, err := json.Marshal(edit.Taken{Design: way.Design, Readings: way.Readings, Pits: way.Pits, Was: way.Was})
			require.NoError(t, err)
			before := p.Doc
			p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("finish.take", string(text)))
			require.NoError(t, err, what)
			taken++
			c := p.Doc.Request.Finish
			assert.Len(t, c.Readings, len(before.Request.Finish.Readings), what)
			assert.Len(t, c.Pits, len(before.Request.Finish.Pits), what)
			f, err := w.Finish(ctx, p.Doc)
			require.NoError(t, err)
			assert.Nil(t, f.Map.Short, what)
			least := f.Map.LeastMm
			for _, pit := range f.Map.Pits {
				assert.True(t, pit.Outside || pit.LeftMm >= 0, what)
				if !pit.Outside {
					least = min(least, pit.LeftMm)
				}
			}
			body, err := blade.New(p.Doc.Request.Design.Blade())
			require.NoError(t, err)
			for _, r := range c.Readings { // at its very place, which no point of the map is
				if sec := body.SectionAt(math.Max(0, r.XMm)); r.XMm >= 0 && r.XMm <= body.LengthMm() && r.YMm >= 0 && r.YMm <= sec.HeightMm {
					spare := r.ThicknessMm - sec.ThicknessAt(r.YMm)
					assert.GreaterOrEqual(t, spare, -.041, what)
					least = min(least, spare/2)
				}
			}
			if way.What == "thinner" || way.What == "hollowed" {
				assert.LessOrEqual(t, least, .02, "%s: no more is given up than has to be", what)
				tight++
			}
			p, _, err = w.Undo(ctx, p.ID, p.Version, -1)
			require.NoError(t, err, what)
			assert.Equal(t, before.Request.Design, p.Doc.Request.Design, what)
			assert.Equal(t, before.Request.Finish, p.Doc.Request.Finish, what)
		}
	}
	assert.Greater(t, taken, 60)
	assert.Greater(t, tight, 10)
}

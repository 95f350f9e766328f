package route

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestPushInNeverWidensMore than pinching out does, whatever is bevelled that the
// bar is heavy enough for.
func TestPushInNeverWidensMore(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.SampledFrom(blade.Starters()).Draw(t, "starter").Design
		d.LengthMm = rapid.Float64Range(60, 260).Draw(t, "length")
		piece := stock.Item{Form: stock.Flat, LengthMm: 1000, WidthMm: rapid.Float64Range(20, 50).Draw(t, "w"), ThicknessMm: rapid.Float64Range(5, 12).Draw(t, "t")}
		req := plan.NewRequest(d, "1084", piece, forge.Steady)
		bar, err := piece.Even()
		require.NoError(t, err)
		body, err := blade.New(figure.ForgedShape(req, d.Blade(), bar))
		require.NoError(t, err)
		widened := func(m forge.Method) (out []float64) {
			req.Choices.Method = m
			for _, c := range New(&req, bar, body, figure.ZonesOf(body)).Cells {
				out = append(out, math.Log(c.Final.WidthMm/c.Preform.WidthMm))
			}
			return out
		}
		pinched, pushed := widened(forge.PinchOut), widened(forge.PushIn)
		some := 0.0
		for i := range pinched {
			require.LessOrEqual(t, pushed[i], pinched[i]+1e-12, "cell %d", i)
			require.GreaterOrEqual(t, pushed[i], -1e-12)
			some += pinched[i]
		}
		require.Positive(t, some)
	})
}

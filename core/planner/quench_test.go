package planner_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/finish"
	"coldember/core/forge"
	"coldember/core/harden"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/steel"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// asked is a starter of a steel from a bar that forges it.
func asked(d blade.Design, steelID string) plan.Request {
	return plan.NewRequest(d, steelID, stock.Item{Form: stock.Flat, WidthMm: d.HeightMm, ThicknessMm: d.SpineMm + 1.5, LengthMm: 1500}, forge.Steady)
}

// TestOneThicknessAtTheQuench: what grinding leaves for it is what hardening, straightening and the
// cautions go by, for every starter, whatever edge and surface are chosen.
func TestOneThicknessAtTheQuench(t *testing.T) {
	for i, s := range blade.Starters() {
		r := asked(s.Design, "1084")
		if i%3 == 1 {
			r.Treatment = &harden.Treatment{Bath: harden.NewBath(harden.FastOil), SwingK: 10, Hours: 2, Times: 2, EdgeAtQuenchMm: 1.4}
		}
		r.Finish = &finish.Choices{Surface: finish.Surfaces()[i%len(finish.Surfaces())]}
		p, err := planner.Make(t.Context(), r)
		if err != nil {
			continue // no bar of it
		}
		a := planner.Treat(&r, p)
		f, err := planner.Finish(&r, p)
		require.NoError(t, err)
		var last finish.Step // before the quench
		for _, st := range f.Steps {
			if st.Stage == "soft" && st.Targets != nil {
				last = st
			}
		}
		require.Len(t, last.Targets, 3, s.ID)
		assert.InDelta(t, a.EdgeAtQuenchMm, last.Targets[1].EdgeMm, .02, s.ID)
		w, err := planner.FinishWork(&r, p)
		require.NoError(t, err)
		across := func(x float64) (least, most float64) { // at the quench
			fin, is := w.Steel.Across(x, 25)
			for k := range fin {
				mm := w.Left.ThicknessMm(fin[0], fin[k], float64(k)/24, is[k])
				if k == 0 {
					least = mm
				}
				most = max(most, mm)
			}
			return least, most
		}
		thickest := 0.0
		for i := range p.Sections {
			_, most := across(p.Sections[i].XMm)
			thickest = max(thickest, most)
		}
		assert.InDelta(t, thickest, a.SpineAtQuenchMm, .005, s.ID)
		for _, g := range last.Targets {
			edge, most := across(g.XMm)
			assert.InDelta(t, edge, g.EdgeMm, .005, s.ID)
			assert.LessOrEqual(t, max(g.MidMm, g.BackMm), most+.005, s.ID)
		}
	}
}

// TestWaterOnAThinSpine is warned of by its thickness at the quench, not by what is forged on it.
func TestWaterOnAThinSpine(t *testing.T) {
	d := blade.Starters()[0].Design
	d.SpineMm, d.TipMm, d.Ricasso.ThicknessMm = 2.2, 1.5, 2.2
	r := asked(d, "1095")
	r.Treatment = &harden.Treatment{Bath: harden.NewBath(harden.Water), SwingK: 10, Hours: 2, Times: 2}
	p, err := planner.Make(t.Context(), r)
	require.NoError(t, err)
	found := map[string]bool{}
	for _, f := range planner.Treat(&r, p).Findings {
		found[f.Code] = true
	}
	assert.True(t, found["harden.waterThin"] && found["harden.waterEdge"], "%v", found)
}

// TestADefaultHardnessIsReached by every starter in the steels that shops begin with.
func TestADefaultHardnessIsReached(t *testing.T) {
	for _, s := range blade.Starters() {
		for _, id := range []string{"1084", "80CrV2"} {
			g, err := steel.Find(id)
			require.NoError(t, err)
			r := asked(s.Design, id)
			want := planner.UsualHRC(s.Design.Use)
			require.Positive(t, want, s.ID)
			got := harden.Temper(g, planner.TreatmentOf(&r, &plan.Plan{Steel: g}), want)
			assert.GreaterOrEqual(t, got.HRC, want-.3, "%s in %s", s.ID, id)
			assert.LessOrEqual(t, got.HRC, want+map[bool]float64{false: .3, true: 2}[got.AskedC > 0], "%s in %s", s.ID, id)
		}
	}
	for use, id := range map[blade.Use]string{blade.UseChopper: "5160", blade.UseSword: "5160", blade.UseCamp: "5160", blade.UseDeep: "52100", blade.UseScribe: "W1"} {
		g, err := steel.Find(id)
		require.NoError(t, err)
		assert.InDelta(t, planner.UsualHRC(use), harden.Temper(g, harden.NewTreatment(g), planner.UsualHRC(use)).HRC, 1, "%s in %s", use, id)
	}
}

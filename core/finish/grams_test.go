package finish_test

import (
	"fmt"
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/harden"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// drawn is a starter drawn longer or shorter, higher or lower, thicker or thinner, by chance.
func drawn(rt *rapid.T) blade.Design {
	d := rapid.SampledFrom(blade.Starters()).Draw(rt, "starter").Design
	s := func(name string) float64 { return rapid.Float64Range(.8, 1.25).Draw(rt, name) }
	d = d.Scaled(s("long"), s("high"), s("thick"))
	d.Grind.EdgeMm = rapid.Float64Range(.25, 1).Draw(rt, "edge")
	return d
}

// anyChoices are how a knife may be ground.
func anyChoices(rt *rapid.T) finish.Choices {
	return finish.Choices{
		Surface: rapid.SampledFrom(append(finish.Surfaces(), "")).Draw(rt, "surface"), FromGrit: rapid.SampledFrom([]int{0, 36, 60, 80}).Draw(rt, "grit"),
		Worn: rapid.Bool().Draw(rt, "worn"), Hardened: rapid.Bool().Draw(rt, "hardened"),
	}
}

// grams are what the map and the steps take off.
func grams(w *finish.Work) (byMap, bySteps float64) {
	byMap = w.Steel.Off(3, 3, nil).TotalG
	for _, s := range finish.Steps(w) {
		bySteps += s.MassG
	}
	return byMap, bySteps
}

// TestTheStepsTakeOffWhatTheMapSays: whatever is ground, to whatever finish, before and after the
// quench, with readings and without; and no step goes under the finish anywhere, nor over the one
// before it.
func TestTheStepsTakeOffWhatTheMapSays(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		d, c := drawn(rt), anyChoices(rt)
		check := checked(d)
		if check != nil {
			rt.Skip("it cannot be")
		}
		a := blade.Allowances{FaceMm: rapid.Float64Range(.05, .8).Draw(rt, "face"), OutlineMm: rapid.Float64Range(0, 2).Draw(rt, "outline"), ForgingEdgeMm: rapid.Float64Range(1.2, 3).Draw(rt, "forging")}
		w := allowed(t, d, c, a)
		w.AsForged = !c.Hardened && rapid.IntRange(0, 4).Draw(rt, "as forged") == 0
		for range rapid.IntRange(0, 3).Draw(rt, "readings") {
			x := d.LengthMm * rapid.Float64Range(.1, .95).Draw(rt, "x")
			y := w.Steel.Finished.SectionAt(x).HeightMm * rapid.Float64Range(.2, 1).Draw(rt, "y")
			if is, _, ok := w.Steel.AsIs(x, y); ok {
				w.Steel.Readings = append(w.Steel.Readings, finish.Reading{XMm: x, YMm: y, ThicknessMm: is * rapid.Float64Range(.9, 1.2).Draw(rt, "share")})
			}
		}
		byMap, bySteps := grams(w)
		assert.InEpsilon(rt, byMap, bySteps, .01, "%+v", c)
		var last []finish.Target
		for _, s := range finish.Steps(w) {
			assert.GreaterOrEqual(rt, s.MassG, 0.0, s.ID)
			for i, g := range s.Targets {
				sec := w.Steel.Finished.SectionAt(g.XMm)
				assert.GreaterOrEqual(rt, g.EdgeMm, sec.ThicknessAt(0)-1e-9, s.ID)
				assert.GreaterOrEqual(rt, g.MidMm, sec.ThicknessAt(sec.HeightMm/2)-1e-9, s.ID)
				assert.GreaterOrEqual(rt, g.BackMm, sec.ThicknessAt(sec.HeightMm)-1e-9, s.ID)
				if last != nil {
					assert.LessOrEqual(rt, g.EdgeMm, last[i].EdgeMm+1e-9, s.ID)
					assert.LessOrEqual(rt, g.BackMm, last[i].BackMm+1e-9, s.ID)
				}
			}
			if s.Targets != nil {
				last = s.Targets
			}
		}
	})
}

// TestTheLastGritComesToTheFinish where there is steel for it, and each before it leaves what those
// after it take: .12 of its grain for a sharp belt, .05 for a worn one.
func TestTheLastGritComesToTheFinish(t *testing.T) {
	for _, worn := range []bool{false, true} {
		w := work(t, hidden(t), finish.Choices{Surface: finish.Satin400, Worn: worn})
		var left []float64
		for _, s := range finish.Steps(w) {
			if s.Stage != "hard" || s.Targets == nil {
				continue
			}
			mid := s.Targets[1]
			sec := w.Steel.Finished.SectionAt(mid.XMm)
			left = append(left, (mid.BackMm-sec.ThicknessAt(sec.HeightMm))/2)
		}
		share := .12
		if worn {
			share = .05
		}
		um := []float64{share * 269, share * 125, share * 68, .12 * 46.2} // what each leaves: its own scratches and all that follow
		require.Len(t, left, 5)
		for i := range left {
			want := 0.0
			for _, u := range um[min(i, len(um)):] {
				want += u / 1000
			}
			assert.InDelta(t, want, left[i], 1e-6, "worn %v, grit %d", worn, i)
		}
	}
}

// TestHoursASmithBelieves: every pattern to every finish, from black blade to fitted handle; the steps take off what the map says.
func TestHoursASmithBelieves(t *testing.T) {
	hours := map[string]float64{}
	for _, s := range blade.Starters() {
		for _, to := range finish.Surfaces() {
			w := work(t, handled(s.Design), finish.Choices{Surface: to})
			byMap, bySteps := grams(w)
			assert.InEpsilon(t, byMap, bySteps, .01, "%s %s", s.ID, to)
			sum := 0.0
			for _, st := range finish.Steps(w) {
				if st.ID != "edge" && st.ID != "sheath" && st.ID != "look" {
					sum += st.Minutes
				}
			}
			hours[fmt.Sprintf("%s %s", s.ID, to)] = sum / 60
			if to == finish.BeltSatin {
				t.Logf("%-24s map %6.1f g, steps %6.1f g; belt satin %.1f h", s.ID, byMap, bySteps, sum/60)
			}
		}
		assert.Less(t, hours[s.ID+" belt"], hours[s.ID+" satin400"], s.ID)
		assert.Less(t, hours[s.ID+" satin400"], hours[s.ID+" satin800"], s.ID)
		assert.Less(t, hours[s.ID+" satin800"], hours[s.ID+" mirror"], s.ID)
	}
	for _, s := range blade.Starters() {
		if s.Design.Use == blade.UseUtility && s.Design.LengthMm > 80 && s.Design.LengthMm < 130 {
			h := hours[s.ID+" belt"]
			assert.True(t, h >= 3 && h <= 5, "%s: %.1f h", s.ID, h)
		}
		if s.Design.Use == blade.UseDeep {
			assert.Less(t, hours[s.ID+" satin800"], 9., s.ID)
		}
	}
}

func checked(d blade.Design) error {
	c := fact.NewCheck()
	d.Validate(c)
	if c.Err() != nil {
		return c.Err()
	}
	_, err := blade.New(d.Blade())
	return err
}

// allowed is a design as it is forged with these allowances.
func allowed(t testing.TB, d blade.Design, c finish.Choices, a blade.Allowances) *finish.Work {
	w := work(t, d, c)
	s := steelOf(t, d, a)
	w.Steel.Forged = s.Forged
	if w.Steel.Ground != nil {
		w.Steel.Ground.Left = harden.Left{EdgeMm: 1, FaceMm: math.Min(a.FaceMm, c.LeftForAfterMm(false))}
	}
	return w
}

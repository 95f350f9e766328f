package harden_test

import (
	"testing"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestEveryWayTempers to the same hardness, each with its own time and heat: the shorter, the
// hotter.
func TestEveryWayTempers(t *testing.T) {
	oven := map[harden.Way]float64{}
	for _, w := range harden.Ways() {
		c := of(t, "1084")
		c.Treatment.SetWay(w)
		require.NoError(t, valid(&c.Treatment), w)
		a := harden.Advise(c)
		assert.InDelta(t, 60, a.Temper.HRC, .5, "%s", w)
		oven[w] = a.Temper.OvenC
		last := a.Steps[len(a.Steps)-1]
		assert.Equal(t, []string{"treat.temper." + string(w)}, last.Codes)
	}
	assert.Less(t, oven[harden.InOven], oven[harden.InOilBath], "one hour twice, not two")
	assert.Less(t, oven[harden.InOilBath], oven[harden.ByTorch])
	assert.Equal(t, oven[harden.InOven], oven[harden.InSand])
	c := of(t, "1084")
	c.Treatment.SetWay(harden.InSand)
	sand := harden.Advise(c).Temper
	plain := harden.Advise(of(t, "1084")).Temper
	assert.Less(t, plain.LowHRC, sand.LowHRC, "it swings less")
}

func valid(t *harden.Treatment) error {
	c := fact.NewCheck()
	t.Validate(c)
	return c.Err()
}

// TestWhatAWayCannotDo is told, with what would.
func TestWhatAWayCannotDo(t *testing.T) {
	c := of(t, "1084")
	c.WantHRC = 58
	c.Treatment.SetWay(harden.InOilBath)
	assert.Equal(t, fact.Stop, codes(harden.Advise(c))["harden.oilBathHot"])
	c.Treatment.SetWay(harden.ByTorch)
	assert.Contains(t, codes(harden.Advise(c)), "harden.torch")
	c.Treatment.Hours = 2
	assert.Error(t, valid(&c.Treatment), "nobody holds a torch for two hours")
	kitchen := harden.UsualOvens()["kitchen"]
	kitchen.MostC = 200
	c.Treatment.TakeUp(kitchen)
	require.NoError(t, valid(&c.Treatment), "taken up with the hours of an oven")
	a := harden.Advise(c)
	assert.Equal(t, fact.Stop, codes(a)["harden.ovenWeak"])
	c.Treatment.TakeUp(harden.UsualOvens()["kiln"])
	assert.NotContains(t, codes(harden.Advise(c)), "harden.ovenWeak")
	assert.True(t, c.Treatment.Kiln)
}

// TestSoftWorkComesFirst: what is drilled, bent or brazed after the quench is refused, and done
// with a warning where it is wanted all the same.
func TestSoftWorkComesFirst(t *testing.T) {
	for _, w := range harden.Works() {
		c := of(t, "1084")
		c.Holes = true
		assert.Equal(t, "soft", harden.Advise(c).Steps[0].ID)
		c.Treatment.Late = []harden.Work{w}
		var errs fact.FieldErrors
		require.ErrorAs(t, valid(&c.Treatment), &errs, w)
		assert.Equal(t, "need.softBeforeHardening", errs[0].Code)
		c.Treatment.Forced = true
		require.NoError(t, valid(&c.Treatment), w)
		a := harden.Advise(c)
		assert.Equal(t, fact.Warn, codes(a)["harden.late."+string(w)])
		assert.Equal(t, "late-"+string(w), a.Steps[len(a.Steps)-1].ID, "after all tempering")
		if w == harden.Drilling {
			assert.NotEqual(t, "soft", a.Steps[0].ID)
		}
	}
	c := of(t, "1084")
	c.Treatment.Late, c.Treatment.Forced = []harden.Work{"paint"}, true
	assert.Error(t, valid(&c.Treatment))
}

// TestACertificateMovesTheDepth and nothing else that the grade's tables say.
func TestACertificateMovesTheDepth(t *testing.T) {
	c := of(t, "1084")
	was := harden.Advise(c)
	a := steel.AnalysisOf(c.Grade)
	assert.Equal(t, was, harden.Advise(c), "the typical one is the grade")
	a.ManganesePct += .3
	c.Grade = a.Over(c.Grade)
	is := harden.Advise(c)
	assert.Greater(t, is.HardMm, was.HardMm)
	assert.Less(t, is.MartensiteC, was.MartensiteC)
	assert.Equal(t, was.Temper, is.Temper)
	var none *steel.Analysis
	assert.Equal(t, c.Grade, none.Over(c.Grade))
}

// TestAColdOvenTakesNothing: a load goes only into an oven that can be set to it.
func TestAColdOvenTakesNothing(t *testing.T) {
	jobs := blades(3, func(i int) float64 { return []float64{200, 300, 200}[i] })
	ovens := []harden.Oven{{Holds: 4, MostC: 250}, {Holds: 1}}
	got, err := harden.Schedule(jobs, ovens)
	require.NoError(t, err)
	check(t, jobs, ovens, got)
	for _, p := range got {
		if p.Job == jobs[1].ID && p.Oven >= 0 {
			assert.Equal(t, 1, p.Oven)
		}
	}
	_, err = harden.Schedule(jobs, ovens[:1])
	var none *harden.NoRoomError
	require.ErrorAs(t, err, &none)
	assert.Equal(t, jobs[1].ID, none.Job)
}

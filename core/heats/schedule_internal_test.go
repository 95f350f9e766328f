package heats

import (
	"testing"

	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
)

// TestAHeatGoneOnWithComesBackSooner: what was begun in the heat before is hot already,
// and takes the fire of the heat after it rather than that of a cold piece.
func TestAHeatGoneOnWithComesBackSooner(t *testing.T) {
	heats := []forge.Heat{
		{Operation: "bevel", Pass: 1, FireS: 90, ShareFrom: 0, ShareTo: .5},
		{Operation: "bevel", Pass: 1, FireS: 40, ShareFrom: .5, ShareTo: 1},
		{Operation: "bevel", Pass: 0, FireS: 10},
	}
	assert.Equal(t, 90., fireOf(heats, 0, 0), "from its beginning it is cold")
	assert.Equal(t, 40., fireOf(heats, 0, .2))
	assert.Equal(t, 40., fireOf(heats, 1, .7), "the next stretch is not this one")
	assert.Equal(t, 10., fireOf(heats, 2, .1), "nor is there one after the last")
}

// TestHalfWayThroughATwistItIsHalfTwisted, and everything else is half way too.
func TestHalfWayThroughATwistItIsHalfTwisted(t *testing.T) {
	before := forge.Bar{Cells: []forge.Cell{{WidthMm: 10, ThicknessMm: 8, EdgeMm: 6, SpineMm: 8, VolumeMm3: 800, CurvePerMm: .25}}}
	after := forge.Bar{Cells: []forge.Cell{{WidthMm: 8, ThicknessMm: 6, EdgeMm: 4, SpineMm: 6, VolumeMm3: 780, CurvePerMm: .75, TwistTurns: 2}}}
	s := &Settled{StartMm3: []float64{900}, Run: &forge.Run{Heats: []forge.Heat{{After: before}, {After: after}}}}
	r := &route.Route{Req: &plan.Request{}, Bar: stock.EvenBar{WidthMm: 12, ThicknessMm: 10}, Cells: []figure.Cell{{}}}
	half := stateAt(r, s, 1, .5).Cells[0]
	assert.Equal(t, forge.Cell{WidthMm: 9, ThicknessMm: 7, EdgeMm: 5, SpineMm: 7, VolumeMm3: 790, CurvePerMm: .5, TwistTurns: 1}, half)
	assert.Equal(t, after.Cells[0], stateAt(r, s, 1, 1).Cells[0])
	assert.Equal(t, before.Cells[0], stateAt(r, s, 0, 1).Cells[0])
}

// TestNobodyRestsAfterTheLastHeat: however tired the arm is, there is nothing more to
// strike; and the cycles after it need no arm.
func TestNobodyRestsAfterTheLastHeat(t *testing.T) {
	r := &route.Route{Req: &plan.Request{Smith: forge.Smith{HammerKg: 1.1}}}
	plan4 := func(forging int) *plan.Plan {
		p := &plan.Plan{Operations: []plan.Step{{ID: "bevel", Forging: &plan.Forging{}}, {ID: "cycle1", Thermal: &plan.Thermal{}}}}
		for i := range 4 {
			op := "bevel"
			if i >= forging {
				op = "cycle1"
			}
			p.Heats = append(p.Heats, plan.HeatStep{Parts: []plan.Part{{Operation: op, Blows: 150}}})
		}
		p.Totals.Heats = forging
		return p
	}
	rested := func(forging int) (at []int) {
		p := plan4(forging)
		rests(r, p)
		for i, h := range p.Heats {
			if h.Rest {
				at = append(at, i+1)
			}
		}
		return at
	}
	assert.Equal(t, []int{3}, rested(4), "three heats of 150 blows are 495 kg")
	assert.Empty(t, rested(3))
	assert.Empty(t, rested(2))
}

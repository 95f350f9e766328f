package replan_test

import (
	"math"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/replan"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// steelOf is the volume of a drawn shape, mm³, by trapezoids.
func steelOf(shape []plan.Station) (mm3 float64) {
	area := func(s plan.Station) float64 {
		edge := s.EdgeMm
		if edge == 0 {
			edge = s.ThicknessMm
		}
		return s.HeightMm() * (s.ThicknessMm + edge) / 2
	}
	for i := 1; i < len(shape); i++ {
		mm3 += (shape[i].XMm - shape[i-1].XMm) * (area(shape[i]) + area(shape[i-1])) / 2
	}
	return mm3
}

func nearest(shape []plan.Station, x float64) plan.Station {
	best := shape[0]
	for _, s := range shape {
		if math.Abs(s.XMm-x) < math.Abs(best.XMm-x) {
			best = s
		}
	}
	return best
}

// TestAPieceIsDrawnAsItWasRead: what a reading tells holds at its place, on the steel it was taken on, until another is taken; the
// steel stays, so that where it is thicker it is shorter.
func TestAPieceIsDrawnAsItWasRead(t *testing.T) {
	p := plantest.Make(t, plantest.Request())
	late := p.Heats[13].Shape
	var d replan.Drawn
	assert.Equal(t, late, d.Shape(late), "nothing was read")
	at := nearest(late, 50)
	d.Read(late, plan.Height, at.XMm, at.HeightMm(), 0)
	same := d.Shape(late)
	for i := range late {
		assert.InDelta(t, late[i].XMm, same[i].XMm, 1e-6, "as planned")
		assert.InDelta(t, late[i].HeightMm(), same[i].HeightMm(), 1e-9)
	}
	d.Read(late, plan.Height, at.XMm, 1.1*at.HeightMm(), 0)
	d.Read(late, plan.Thickness, at.XMm, 1.2*at.ThicknessMm, 0)
	d.Read(late, plan.Rise, at.XMm, 30, 0)
	d.Read(late, plan.Height, at.XMm, 0, 0)
	told := d.Shape(late)
	i := 0
	for late[i].XMm < at.XMm {
		i++
	}
	assert.InEpsilon(t, 1.1*at.HeightMm(), told[i].HeightMm(), 1e-3, "the later reading")
	assert.InEpsilon(t, 1.2*at.ThicknessMm, told[i].ThicknessMm, 1e-3)
	last := len(late) - 1
	assert.InEpsilon(t, late[last].HeightMm(), told[last].HeightMm(), 1e-9, "believed for a hand's breadth")
	assert.Less(t, told[last].XMm, late[last].XMm-3, "it is thicker, so it is shorter")
	assert.InEpsilon(t, steelOf(late), steelOf(told), .004)
	d.Long(late, 140)
	long := d.Shape(late)
	assert.InDelta(t, 140, long[last].XMm, .01)
	assert.InEpsilon(t, told[i].HeightMm(), long[i].HeightMm(), 1e-9)
}

// TestAReadingGoesWithItsSteel as it is drawn out: of a bar read early the same steel is off later.
func TestAReadingGoesWithItsSteel(t *testing.T) {
	p := plantest.Make(t, plantest.Request())
	early, late := p.Heats[2].Shape, p.Heats[len(p.Heats)-4].Shape
	place := func(shape []plan.Station, zone string) float64 { // the middle of a zone
		from, to := math.Inf(1), math.Inf(-1)
		for _, s := range shape {
			if s.Zone == zone {
				from, to = math.Min(from, s.XMm), math.Max(to, s.XMm)
			}
		}
		return (from + to) / 2
	}
	for _, zone := range []string{plan.ZoneTang, plan.ZoneBlade} {
		var d replan.Drawn
		at := nearest(early, place(early, zone))
		d.Read(early, plan.Thickness, at.XMm, 1.3*at.ThicknessMm, 0)
		told := d.Shape(late)
		most, where := 0.0, ""
		for i := range late {
			if by := told[i].ThicknessMm / late[i].ThicknessMm; by > most {
				most, where = by, late[i].Zone
			}
		}
		assert.InDelta(t, 1.3, most, .02, zone)
		assert.Equal(t, zone, where)
	}
	var d replan.Drawn
	end := 0.0 // of the blade, where the ricasso begins: read at its very end, a blade is a blade
	for _, s := range late {
		if s.Zone == plan.ZoneBlade {
			end = math.Max(end, s.XMm)
		}
	}
	blade := nearest(late, end-1)
	d.Read(late, plan.EdgeThickness, end+.5, blade.EdgeMm, 0)
	d.Read(late, plan.Height, 60, 33, 33)
	assert.InDelta(t, late[len(late)-1].XMm, d.Shape(late)[len(late)-1].XMm, .5)
	d = replan.Drawn{}
	d.Read(nil, plan.Height, 3, 4, 0)
	require.Empty(t, d.Shape(nil))
}

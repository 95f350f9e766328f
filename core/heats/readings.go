package heats

import (
	"math"
	"slices"

	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/thermal"
)

// leastChange is the true strain, or the turn in radians a millimetre times a hundred, below
// which calipers cannot tell that a cell was worked.
const leastChange = .005

// changedCells are the cells from first to last that an operation has changed, from the piece
// as it found it to the piece as it is; all of them where it changes no dimension.
func changedCells(was, now []forge.Cell, first, last int) []int {
	var changed, all []int
	for i := first; i <= last; i++ {
		all = append(all, i)
		a, b := &was[i], &now[i]
		for _, pair := range [][2]float64{{a.WidthMm, b.WidthMm}, {a.ThicknessMm, b.ThicknessMm}, {a.SpineMm, b.SpineMm}} {
			if math.Abs(math.Log(pair[1]/pair[0])) > leastChange {
				changed = append(changed, i)
				break
			}
		}
	}
	if len(changed) == 0 {
		return all
	}
	return changed
}

// readings are the calipers' figures at a few of these cells, from the piece as it is drawn.
func readings(shape []plan.Station, cells []figure.Cell, at []int) []plan.Reading {
	begins := make([]int, len(cells)+1) // the first station of each cell
	for i := range cells {
		begins[i+1] = begins[i] + len(cells[i].Drawn)
	}
	var out []plan.Reading
	for _, i := range few(at) {
		s := shape[(begins[i]+begins[i+1]-1)/2]
		out = append(out, plan.Reading{Zone: s.Zone, AtMm: s.XMm, HeightMm: s.HeightMm(), ThicknessMm: s.ThicknessMm, HeightHotMm: thermal.Hot(s.HeightMm(), s.TempC), ThicknessHotMm: thermal.Hot(s.ThicknessMm, s.TempC)})
	}
	return out
}

// few are up to three of a list: near its beginning, its middle and near its end.
func few(at []int) []int {
	var out []int
	for _, share := range []float64{.12, .5, .95} {
		i := at[int(share*float64(len(at)-1))]
		if len(out) == 0 || out[len(out)-1] != i {
			out = append(out, i)
		}
	}
	return out
}

// targetReadings are the calipers' figures when the operation is done, at a few of the cells
// that it changes.
func targetReadings(r *route.Route, op *forge.Operation, s *Settled) []plan.Reading {
	if op.Targets == nil {
		return nil
	}
	last := -1
	for i := range s.Run.Heats {
		if s.Run.Heats[i].Operation == op.ID {
			last = i
		}
	}
	if last < 0 {
		return nil
	}
	before := beforeOp(r, s, op)
	cells := s.Run.Heats[last].After.Cells
	pick := few(changedCells(before.Cells, cells, op.First, op.Last))
	var out []plan.Reading
	x := 0.0
	for i := range cells {
		l := cells[i].LengthMm()
		if slices.Contains(pick, i) {
			t := op.Targets[i-op.First]
			out = append(out, plan.Reading{Zone: cells[i].Zone, AtMm: x + l/2, HeightMm: t.WidthMm, ThicknessMm: t.SpineMm})
		}
		x += l
	}
	return out
}

// beforeOp is the piece as an operation finds it.
func beforeOp(r *route.Route, s *Settled, op *forge.Operation) forge.Bar {
	before := startBar(r, s.StartMm3)
	for i := range s.Run.Heats {
		if s.Run.Heats[i].Operation == op.ID {
			break
		}
		before = s.Run.Heats[i].After
	}
	return before
}

// edgewise is how the piece as an operation finds it stands on edge: its greatest width over
// thickness where it is narrowed by more than a tap, and how many times it is turned for that.
func edgewise(r *route.Route, s *Settled, op *forge.Operation) (ratio float64, turns int) {
	if op.Targets == nil || op.Kind.Bevels() {
		return 0, 0
	}
	before := beforeOp(r, s, op)
	for i := op.First; i <= op.Last; i++ {
		c := &before.Cells[i]
		k := c.WidthMm / c.ThicknessMm
		if n := route.EdgeTurns(k, math.Log(c.WidthMm/op.Targets[i-op.First].WidthMm)); n > 0 {
			ratio, turns = math.Max(ratio, k), max(turns, n)
		}
	}
	return ratio, turns
}

// spread of an operation: what its targets need from the piece as it then is,
// and what its face gives on that width. Needed is 0 where the width is to be
// held or narrowed.
func spread(r *route.Route, s *Settled, op *forge.Operation) (needed, given float64) {
	before := beforeOp(r, s, op)
	var ew, et, width float64
	for i := op.First; i <= op.Last; i++ {
		c, to := &before.Cells[i], op.Targets[i-op.First]
		ew += math.Log(to.WidthMm / c.WidthMm)
		et += math.Log(c.ThicknessMm / to.ThicknessMm)
		width += c.WidthMm / float64(op.Last-op.First+1)
	}
	given = r.Req.Smith.SpreadOf(op, width)
	if ew > 0 && et > route.NoStrain {
		needed = ew / et
	}
	return needed, given
}

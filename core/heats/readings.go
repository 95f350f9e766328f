package heats

import (
	"math"
	"sort"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
)

// readings picks a few stations of the worked zones for the calipers.
func readings(shape []plan.Station, zones []string) []plan.Reading {
	var in []plan.Station
	for _, s := range shape {
		for _, z := range zones {
			if s.Zone == z {
				in = append(in, s)
			}
		}
	}
	if len(in) == 0 {
		return nil
	}
	var out []plan.Reading
	for _, f := range []float64{.12, .5, .95} {
		s := in[int(f*float64(len(in)-1))]
		out = append(out, plan.Reading{Zone: s.Zone, AtMm: s.XMm, HeightMm: s.HeightMm(), ThicknessMm: s.ThicknessMm})
	}
	return out
}

// targetReadings are the calipers' figures when the operation is done: first,
// middle and last of its cells.
func targetReadings(op *forge.Operation, s *Settled) []plan.Reading {
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
	pick := []int{op.First, (op.First + op.Last) / 2, op.Last}
	sort.Ints(pick)
	var out []plan.Reading
	cells := s.Run.Heats[last].After.Cells
	x := 0.0
	for i := range cells {
		l := cells[i].LengthMm()
		for _, k := range pick {
			if k == i {
				t := op.Targets[i-op.First]
				out = append(out, plan.Reading{Zone: cells[i].Zone, AtMm: x + l/2, HeightMm: t.WidthMm, ThicknessMm: t.SpineMm})
				break
			}
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
	if op.Targets == nil || op.Kind == forge.Bevel || op.Kind == forge.FalseEdge {
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

package planner

import (
	"math"
	"slices"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/route"
)

// SizeMarks lays forged zone volumes along a bar with one loss for all: the
// chalk marks from the point, and the length to cut with trim and kerf.
func SizeMarks(names []string, forgedMm3 []float64, lossFraction, areaMm2, trimMm, kerfMm float64) (marks []plan.Mark, cutMm, startMm3 float64) {
	starts := make([]float64, len(forgedMm3))
	for i, v := range forgedMm3 {
		starts[i] = v / (1 - lossFraction)
	}
	return layOut(names, starts, areaMm2, trimMm, kerfMm)
}

// layOut lays start volumes along a bar.
func layOut(names []string, startMm3 []float64, areaMm2, trimMm, kerfMm float64) (marks []plan.Mark, cutMm, total float64) {
	x := 0.0
	for i, v := range startMm3 {
		l := v / areaMm2
		marks = append(marks, plan.Mark{Zone: names[i], FromMm: x, ToMm: x + l})
		x += l
	}
	cutMm = x + trimMm + kerfMm
	return marks, cutMm, cutMm * areaMm2
}

func barPlan(r *route.Route, s *heats.Settled, zones []figure.Zone, known plan.Tolerances) plan.BarPlan {
	names, forged, start := make([]string, len(zones)), make([]float64, len(zones)), make([]float64, len(zones))
	var vf, vs, rod, rodMm float64
	for k, z := range zones {
		names[k] = z.Name
		for i, c := range r.Cells {
			if c.Zone == z.Name && c.Rod {
				rod, rodMm = rod+c.VolumeMm3, rodMm+c.ToMm-c.FromMm
			} else if c.Zone == z.Name {
				forged[k] += c.VolumeMm3
				start[k] += s.StartMm3[i]
			}
		}
		vf, vs = vf+forged[k], vs+start[k]
	}
	q := r.Req.Sizing
	trim, kerf := r.Req.EndsMm()
	b := plan.BarPlan{
		WidthMm: r.Bar.WidthMm, ThicknessMm: r.Bar.ThicknessMm, AreaMm2: r.Bar.AreaMm2, AvailableMm: r.Bar.LengthMm, FromMm: r.Bar.FromMm,
		ScaleShare: s.LossShare, LossFraction: 1 - vf/vs, RodMm3: rod, RodMm: rodMm,
	}
	if r.Req.SawnOut() {
		sawnOut(&b, r, s, vf)
		b.LowMm, b.HighMm = b.CutLengthMm, b.CutLengthMm
		b.LeftMm = b.AvailableMm - b.CutLengthMm
		return b
	}
	if q.LossMode == plan.ThumbLoss {
		b.LossFraction = q.ThumbLossFraction
		b.Marks, b.CutLengthMm, b.StartMm3 = SizeMarks(names, forged, q.ThumbLossFraction, r.Bar.AreaMm2, trim, kerf)
	} else {
		b.Marks, b.CutLengthMm, b.StartMm3 = layOut(names, start, r.Bar.AreaMm2, trim, kerf)
	}
	withBit(&b, r)
	onTheTaper(&b, r)
	b.Down = downBar(s)
	b.LowMm, b.HighMm = known.RangeMm(&b, trim+kerf)
	b.LeftMm = b.AvailableMm - b.CutLengthMm
	return b
}

// sawnOut lays the cells out as they are sawn, each as wide as it begins.
func sawnOut(b *plan.BarPlan, r *route.Route, s *heats.Settled, forgedMm3 float64) {
	more := 1.0
	if q := r.Req.Sizing; q.LossMode == plan.ThumbLoss {
		more = forgedMm3 / (1 - q.ThumbLossFraction) / (forgedMm3 / (1 - b.LossFraction))
		b.LossFraction = q.ThumbLossFraction
	}
	var under []blade.Node
	x := 0.0
	for i, c := range r.Cells {
		high := r.SawnMm(i)
		v := s.StartMm3[i] * more
		long := v / (high * r.Bar.ThicknessMm)
		if n := len(b.Marks); n == 0 || b.Marks[n-1].Zone != c.Zone {
			b.Marks = append(b.Marks, plan.Mark{Zone: c.Zone, FromMm: x, ToMm: x})
		}
		ats := []float64{x + long/2}
		if i == 0 || r.Cells[i-1].Zone != c.Zone {
			ats = append([]float64{x}, ats...) // a step is a step
		}
		if i == len(r.Cells)-1 || r.Cells[i+1].Zone != c.Zone {
			ats = append(ats, x+long)
		}
		for _, at := range ats {
			b.Blank = append(b.Blank, blade.Node{at, c.CentreMm + high/2})
			under = append(under, blade.Node{at, c.CentreMm - high/2})
		}
		x += long
		b.Marks[len(b.Marks)-1].ToMm = x
		b.StartMm3 += v
	}
	slices.Reverse(under)
	b.Blank = append(b.Blank, under...)
	b.CutLengthMm = x
}

// withBit takes what a bit gives to the blade off the bar: its marks move up over the stretch
// that the bit is welded into.
func withBit(b *plan.BarPlan, r *route.Route) {
	if b.Bit = r.BitPlan(); b.Bit == nil {
		return
	}
	gives := b.Bit.VolumeMm3 / b.AreaMm2
	joined := math.Min(b.Bit.OnBarMm+gives, b.Marks[len(b.Marks)-1].ToMm) // of the bar with the bit in it, drawn to its section
	at := func(mm float64) float64 { return mm - gives*math.Min(1, mm/joined) }
	for i := range b.Marks {
		b.Marks[i].FromMm, b.Marks[i].ToMm = at(b.Marks[i].FromMm), at(b.Marks[i].ToMm)
	}
	was := b.CutLengthMm
	b.CutLengthMm = at(was)
	b.StartMm3 -= (was - b.CutLengthMm) * b.AreaMm2
	b.Bit.VolumeMm3 = (was - b.CutLengthMm) * b.AreaMm2
}

// onTheTaper moves the marks of a tapered piece to where its volume reaches.
func onTheTaper(b *plan.BarPlan, r *route.Route) {
	at := func(mm float64) float64 { return r.Req.Bar.AtVolume(r.Bar, mm*r.Bar.AreaMm2) }
	for i := range b.Marks {
		b.Marks[i].FromMm, b.Marks[i].ToMm = at(b.Marks[i].FromMm), at(b.Marks[i].ToMm)
	}
	b.CutLengthMm = at(b.CutLengthMm)
}

// downBar is the piece right after its break-down, with the marks on it; nil
// where there is none.
func downBar(s *heats.Settled) *plan.DownBar {
	for i := len(s.Run.Heats) - 1; i >= 0; i-- {
		h := &s.Run.Heats[i]
		if plan.KindOf(h.Operation) != forge.BreakDown {
			continue
		}
		out := &plan.DownBar{WidthMm: h.After.Cells[0].WidthMm, ThicknessMm: h.After.Cells[0].ThicknessMm}
		for k := range h.After.Cells {
			c := &h.After.Cells[k]
			l := c.LengthMm()
			if n := len(out.Marks); n == 0 || out.Marks[n-1].Zone != c.Zone {
				out.Marks = append(out.Marks, plan.Mark{Zone: c.Zone, FromMm: out.LengthMm, ToMm: out.LengthMm})
			}
			out.LengthMm += l
			out.Marks[len(out.Marks)-1].ToMm = out.LengthMm
		}
		return out
	}
	return nil
}

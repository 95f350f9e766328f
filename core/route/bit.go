package route

import (
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
)

// Figures of joining a bit: judgement.
const (
	slitMmAStroke  = 3.0 // of a cleft, at each blow of the chisel
	scarfMmAStroke = 6.0 // of a scarf, with its teeth
)

// HasBit tells whether a bit is welded in.
func (r *Route) HasBit() bool { return r.Req.Bit != nil && r.Req.Forged == nil }

// BitCells is the last cell of the bar's end that a bit is welded into.
func (r *Route) BitCells() (last int) {
	b := r.Req.Bit
	want := b.LengthMm*r.Bar.AreaMm2 + b.VolumeMm3()
	for v := 0.0; last < len(r.Cells)-1; last++ {
		if v += r.Cells[last].VolumeMm3; v >= want {
			break
		}
	}
	return last
}

// weldBit opens the end of the bar, or scarfs it, and welds the bit into it.
func (r *Route) weldBit(l *list) {
	b := r.Req.Bit
	if b == nil || r.Req.Forged != nil {
		return
	}
	last := r.BitCells()
	if b.Kind == plan.EdgeBit {
		l.add(forge.Scarf, forge.FlatFace, 0, last, asItIs).Strokes = math.Ceil(b.LengthMm / scarfMmAStroke)
	} else {
		l.add(forge.Slit, "", 0, last, asItIs).Strokes = math.Ceil(b.LengthMm / slitMmAStroke)
	}
	r.atWeldingHeat(l.add(forge.WeldBit, forge.FlatFace, 0, last, asItIs))
}

// behindBit gives the work on the body alone the body's window: the bit lies outside the fire then.
func (r *Route) behindBit(ops []*forge.Operation) {
	if !r.HasBit() {
		return
	}
	last := r.BitCells()
	soak := math.Min(r.Body.ForgeHighC-forge.UnderSteelC, r.Req.Fire.TempC-forge.UnderForgeC)
	for _, op := range ops {
		if op.First <= last || op.SoakC > 0 || op.Kind == forge.CutOff || r.Req.Fire.SoakC > 0 || r.Req.Fire.StopC > 0 {
			continue
		}
		op.SoakC, op.SteelLowC = soak, r.Body.ForgeLowC
	}
}

// BitEndMm is how far from its point the forged shape holds steel of the bit.
func (r *Route) BitEndMm() (end float64) {
	b := r.Req.Bit
	want := b.LengthMm*r.Bar.AreaMm2 + b.VolumeMm3()
	v := 0.0
	for _, c := range r.Cells {
		if v+c.VolumeMm3 >= want {
			return c.FromMm + (c.ToMm-c.FromMm)*(want-v)/c.VolumeMm3
		}
		v += c.VolumeMm3
		end = c.ToMm
	}
	return end
}

// BitPlan is where the bit comes to lie in the forged blade: it is carried along by the volume
// ahead of it, and across as the bar is; nil where there is none.
func (r *Route) BitPlan() *plan.BitPlan {
	b := r.Req.Bit
	if b == nil || r.Req.Forged != nil {
		return nil
	}
	out := &plan.BitPlan{VolumeMm3: b.VolumeMm3(), OnBarMm: b.LengthMm}
	out.ReachMm = math.Max(0, r.BitEndMm()-r.Req.Allowances.ByZone().PointMm)
	first, end := r.span(plan.ZonePoint, plan.ZoneBlade)
	at := first + (end-first)*2/3
	share := math.Min(1, b.WidthMm/r.Bar.WidthMm)
	out.DepthMm = math.Max(0, share*r.Cells[at].Final.WidthMm-r.Req.Allowances.ByZone().EdgeMm)
	return out
}

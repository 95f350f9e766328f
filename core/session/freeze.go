package session

import (
	"math"
	"strconv"

	"coldember/core/forge"
	"coldember/core/harden"
	"coldember/core/plan"
	"coldember/core/steel"
	"coldember/core/thermal"
)

// mostStations of a frozen shape: enough to draw it.
const mostStations = 90

// Freeze makes the course of a plan, of the request that it was made from and of the treatment
// that is to follow. All are only read; nothing of them is shared but for what never changes.
func Freeze(req *plan.Request, p *plan.Plan, treatment []harden.Step) Course {
	c := Course{
		Version: CourseVersion, Laws: p.Laws, Steel: p.Steel.ID, FireC: req.Fire.TempC, HoldSPerMm: req.Fire.HoldSPerMm, HotMm: req.Fire.HotLengthMm,
		HammerKg: req.Smith.HammerKg, Tongs: req.Choices.Holding == plan.Tongs || req.CutsNothing(), FuelKgPerH: req.Fire.FuelKgPerHAt(),
		StartG: p.Bar.StartMm3 * steel.DensityGPerCm3 / 1000, ForgedG: p.Forged.MassG, Totals: p.Totals,
		Bar:    CourseBar{p.Bar.WidthMm, p.Bar.ThicknessMm, p.Bar.StartMm3 / p.Bar.AreaMm2, p.Bar.Marks},
		Forged: thinned(p.Drawing.Forged), Treatment: treatment, Aim: aimOf(p),
	}
	ops := map[string]*plan.Step{}
	for i := range p.Operations {
		ops[p.Operations[i].ID] = &p.Operations[i]
	}
	shares := Shares(p.Heats)
	sides := map[string]bool{string(forge.Bevel): true, string(forge.FalseEdge): true}
	held := plan.Slab{WidthMm: p.Bar.WidthMm, ThicknessMm: p.Bar.ThicknessMm}
	for i := range p.Heats {
		h := &p.Heats[i]
		out := Heat{
			Number: h.Number, FireS: h.FireS, CarryS: h.CarryS, WorkS: h.WorkS, BrushS: h.BrushS, LimitS: h.LimitS, FuelG: h.FuelG, ScaleMm3: h.ScaleMm3, Blows: h.Blows, LowC: h.EndC,
			HotFrom: h.HotFrom, HotTo: h.HotTo, Curve: h.Curve, Slow: h.Slow, Cold: h.Cold, Shape: thinned(h.Shape), Joined: h.Joined, Readings: h.Readings, Rest: h.Rest,
			First: len(c.Steps), Held: held,
		}
		for k := range h.Shape {
			out.LengthMm = math.Max(out.LengthMm, h.Shape[k].XMm)
		}
		out.LongHot = plan.HotX(h.Shape, out.LengthMm)
		begin := h.CarryS
		for k := range h.Parts {
			part := &h.Parts[k]
			op := ops[part.Operation]
			f, t := op.Hammer(), op.Fire()
			s := Step{
				ID: strconv.Itoa(h.Number) + "-" + strconv.Itoa(k+1), Heat: h.Number, Operation: op.ID, Kind: op.Kind, Face: string(f.Face), Support: f.Support,
				Machine: f.Machine, Dies: string(f.Dies), StopMm: f.StopMm, Zones: op.Zones, FromMm: part.FromMm, ToMm: part.ToMm, FromShare: shares[i][k][0], ToShare: shares[i][k][1],
				Blows: int(math.Ceil(part.Blows - 1e-6)), Strokes: f.Strokes > 0, BeginS: begin, WorkS: part.WorkS, LimitS: part.LimitS, HoldS: t.SoakS, Goal: part.Goal,
				Sides: sides[op.Kind], Cycle: op.Thermal != nil, Cautions: op.CautionCodes,
			}
			switch {
			case s.Cycle:
				s.LowC = h.EndC
			case part.LowC > 0:
				s.LowC = part.LowC
			default: // frozen by laws that did not tell
				s.LowC = limitC(req, p, op)
			}
			begin += part.WorkS
			out.SoakC = math.Max(out.SoakC, op.TargetC)
			c.Steps = append(c.Steps, s)
		}
		if out.SoakC == 0 {
			out.SoakC = p.Totals.SoakC
		}
		if len(out.Curve) == 0 {
			out.Curve = stillAir(&out)
		}
		out.Last = len(c.Steps) - 1
		out.HotFrom, out.HotTo = hotOf(c.Steps[out.First:], out.HotFrom, out.HotTo)
		held = holding(h.Shape, out.HotFrom, out.HotTo, held)
		c.Heats = append(c.Heats, out)
	}
	return c
}

// aimOf is what the finished knife is to weigh and so on.
func aimOf(p *plan.Plan) Aim {
	a := Aim{MassG: p.Whole.MassG, BalanceMm: p.Whole.BalanceFromPointMm}
	if n := len(p.Sections); n > 0 && len(p.Sections[n/2].T) > 0 {
		a.BehindMm = p.Sections[n/2].T[0]
	}
	return a
}

// Shares are how much of its operation each part of each heat does, from and to, by the time
// that it takes: a part of a plan counts within its own stretch alone.
func Shares(heats []plan.HeatStep) [][][2]float64 {
	whole, done := map[string]float64{}, map[string]float64{}
	for i := range heats {
		for k := range heats[i].Parts {
			whole[heats[i].Parts[k].Operation] += heats[i].Parts[k].WorkS
		}
	}
	out := make([][][2]float64, len(heats))
	for i := range heats {
		for k := range heats[i].Parts {
			part := &heats[i].Parts[k]
			from := done[part.Operation]
			done[part.Operation] += part.WorkS
			if all := whole[part.Operation]; all > 0 {
				out[i] = append(out[i], [2]float64{from / all, (from + part.WorkS) / all})
			} else {
				out[i] = append(out[i], [2]float64{0, 1})
			}
		}
	}
	return out
}

// hotOf is the stretch that all steps of a heat are worked in.
func hotOf(steps []Step, fromMm, toMm float64) (from, to float64) {
	from, to = fromMm, toMm
	for i := range steps {
		from, to = math.Min(from, steps[i].FromMm), math.Max(to, steps[i].ToMm)
	}
	return from, to
}

// stillAir is how a piece cools in a cycle, by the law of a slab in air, stretched to the time
// that the plan gives the whole of it.
func stillAir(h *Heat) []plan.Moment {
	out := []plan.Moment{{C: h.SoakC}}
	air := thermal.Air()
	whole, err := air.TimeTo(h.Cold.WidthMm, h.Cold.ThicknessMm, h.SoakC, h.LowC)
	if err != nil || h.LimitS <= 0 {
		return append(out, plan.Moment{S: math.Max(1, h.LimitS), C: math.Min(h.SoakC, h.LowC)})
	}
	const parts = 12
	for i := 1; i <= parts; i++ {
		share := float64(i) / parts
		out = append(out, plan.Moment{S: h.LimitS * share, C: air.Step(h.Cold.WidthMm, h.Cold.ThicknessMm, h.SoakC, whole*share)})
	}
	return out
}

// limitC is where an operation has to stop.
func limitC(req *plan.Request, p *plan.Plan, op *plan.Step) float64 {
	if low := op.Hammer().LowC; low > 0 {
		return low
	}
	if forge.Kind(op.Kind).Light() && req.Fire.StopC == 0 {
		return p.Totals.LowC - forge.LightUnderC
	}
	return p.Totals.LowC
}

// holding is the section that tongs hold: the end of the piece that is not in the fire.
func holding(shape []plan.Station, fromMm, toMm float64, was plan.Slab) plan.Slab {
	if len(shape) == 0 {
		return was
	}
	end := &shape[len(shape)-1]
	if toMm >= end.XMm-1 && fromMm > shape[0].XMm+1 {
		end = &shape[0]
		// a point is nothing to hold by: what lies a jaw's length behind it is
		for i := range shape {
			if end = &shape[i]; end.XMm > jawMm {
				break
			}
		}
	}
	return plan.Slab{WidthMm: end.HeightMm(), ThicknessMm: end.ThicknessMm}
}

// jawMm is about how long the jaws of tongs are.
const jawMm = 30

// thinned leaves of a shape so many stations, its ends among them.
func thinned(shape []plan.Station) []plan.Station {
	if len(shape) <= mostStations {
		return append([]plan.Station{}, shape...)
	}
	out := make([]plan.Station, 0, mostStations)
	for i := range mostStations {
		out = append(out, shape[i*(len(shape)-1)/(mostStations-1)])
	}
	return out
}

package review

import (
	"fmt"
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/route"
)

// plannersOrder in place of an order of one's own goes back to the planner's.
const plannersOrder = "planner"

// burningOverC above the upper working temperature the edges begin to burn
// (judgement: plain steels begin to melt some 150 to 250 °C above it).
const burningOverC = 120.0

func celsius(c float64) string { return fmt.Sprintf("%.0f °C", c) }

// warnLip: the end of a bar whose corners still stand, struck end-on, or on an
// edge much higher than the blow bites.
func warnLip(r *route.Route, p *plan.Plan, s *heats.Settled, add adder) {
	if cornersFirst(s.Ops) || r.Req.Bar.IsRound() || len(p.Bar.Marks) == 0 {
		return
	}
	end := (p.Bar.Marks[0].ToMm - p.Bar.Marks[0].FromMm) / r.Bar.ThicknessMm
	if ratio := math.Max(end, r.Bar.WidthMm/forge.EdgeBiteMm); ratio > lipRatio {
		add("warn.lip", fact.Warn, fact.Where{Zone: plan.ZonePoint, Operation: string(forge.Point)}, fact.Figures{"ratio": ratio, "limit": lipRatio})
	}
}

// cornersFirst tells whether the corners are broken before the point is struck.
func cornersFirst(ops []*forge.Operation) bool {
	for _, op := range ops {
		switch op.Kind {
		case forge.Corners:
			return true
		case forge.Point:
			return false
		}
	}
	return false
}

// warnWindow: a smith's own temperatures against those of the steel.
func warnWindow(r *route.Route, p *plan.Plan, s *heats.Settled, add adder) {
	high, low := p.Steel.ForgeHighC, p.Steel.ForgeLowC
	if soak := p.Totals.SoakC; soak > high {
		code, sev, heats := "warn.hot", fact.Warn, float64(p.Totals.Heats)
		if soak > high+burningOverC {
			code, sev = "warn.burning", fact.Stop
		}
		add(code, sev, fact.Where{}, fact.Figures{"soakC": soak, "limitC": high - forge.UnderSteelC, "heats": heats, "aboveS": aboveS(p, s, high), "cycles": float64(p.Totals.Cycles)})
	}
	for _, st := range p.Operations {
		if welded(st.Kind) && st.TargetC > high {
			add("warn.weldHeat", fact.Note, fact.Where{Operation: st.ID}, fact.Figures{"weldC": st.TargetC, "limitC": high, "workS": workedS(p, st.ID)})
		}
	}
	if stop := r.Req.Fire.StopC; stop > 0 && stop < low {
		add("warn.cold", fact.Warn, fact.Where{}, fact.Figures{"stopC": stop, "lowC": low})
	}
}

// aboveS is how long the piece is hotter than highC in all: in the fire, and from
// the fire until it is no more.
func aboveS(p *plan.Plan, s *heats.Settled, highC float64) (sum float64) {
	for i := range s.Run.Heats {
		sum += s.Run.Heats[i].AboveS * s.Run.Heats[i].Fraction
	}
	for _, h := range p.Heats {
		for i, m := range h.Curve {
			if m.C <= highC {
				break
			}
			if i+1 < len(h.Curve) {
				next := h.Curve[i+1]
				sum += (next.S - m.S) * math.Min(1, (m.C-highC)/math.Max(1e-9, m.C-next.C))
			}
		}
	}
	return sum
}

// workedS is the time at the anvil of the heats that an operation begins, s.
func workedS(p *plan.Plan, op string) (s float64) {
	for _, h := range p.Heats {
		if h.Parts[0].Operation == op {
			s += h.WorkS
		}
	}
	return s
}

// welded tells whether a step is done at welding heat.
func welded(kind string) bool {
	switch forge.Kind(kind) { //nolint:exhaustive // the others are not
	case forge.Weld, forge.WeldOn, forge.WeldBit, forge.WeldLoop:
		return true
	}
	return false
}

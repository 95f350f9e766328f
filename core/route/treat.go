package route

import (
	"fmt"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/steel"
)

// Hardens tells whether hardening is part of the plan.
func (r *Route) Hardens() bool {
	return r.Req.Choices.Harden == plan.HardenForged && r.Steel.AustenitiseC > 0
}

// HeatAfterHardening tells whether an order goes back to the fire after it.
func HeatAfterHardening(ops []*forge.Operation) bool {
	for i, op := range ops {
		if op.Kind == forge.Harden {
			return i+1 < len(ops)
		}
	}
	return false
}

// CycleID names the cycle after i others.
func CycleID(i int) string { return fmt.Sprintf("cycle%d", i+1) }

// Cycle is a thermal cycle: its kind, the temperature it goes to, and how long it is held there.
type Cycle struct {
	Kind  string
	TempC float64
	HoldS float64
}

// Kinds of thermal cycles.
const (
	KindNormalise = "normalise"
	KindAnneal    = "anneal"
	KindSoften    = "soften" // below the critical point, to be drilled and bent cold
)

// Softening: a plain steel is let fall slowly from just above its critical point,
// one with much carbon is held just below, since coarse carbides come of the
// slow way; so are those that harden in air.
const (
	slowAnnealC   = 760.0
	subcriticalC  = 680.0
	muchCarbonPct = 0.9

	// so long a forge run low holds a thin piece at dull red before it is buried (judgement;
	// a kiln does it better in one to two hours)
	softenHoldS = 600
)

// ThermalCycles of the school for a steel, with what softens it for drilling and bending where
// that is wanted and the school has not softened it already.
func ThermalCycles(c plan.Choices, g steel.Grade) []Cycle {
	out := cyclesOf(c.Cycles, g)
	if n := len(out); c.Soften && (n == 0 || out[n-1].Kind != KindAnneal) {
		out = append(out, Cycle{KindSoften, subcriticalC, softenHoldS})
	}
	return out
}

func cyclesOf(c plan.Cycles, g steel.Grade) []Cycle {
	t := g.NormalisingC()
	normalise := func(at ...float64) []Cycle {
		var out []Cycle
		for i, x := range at {
			c := Cycle{Kind: KindNormalise, TempC: x}
			if i == 0 {
				c.HoldS = g.NormaliseMin * 60
			}
			out = append(out, c)
		}
		return out
	}
	switch {
	case t == nil:
		return nil
	case c == plan.Once:
		return normalise(t[0])
	case c == plan.Equal:
		return normalise(t[0], t[0], t[0])
	case c == plan.SlowAnneal:
		soft := slowAnnealC
		if g.CarbonPct > muchCarbonPct || g.ID == "L6" {
			soft = subcriticalC
		}
		return append(normalise(t[0]), Cycle{Kind: KindAnneal, TempC: soft})
	default:
		return normalise(t...)
	}
}

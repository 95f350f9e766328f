package plan

import (
	"fmt"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
)

// Harden is when the piece is hardened.
type Harden string

// HardenLater hardens once the bevels are ground, which is no part of the forging;
// HardenForged as it comes from the forge, to be ground hard.
const (
	HardenLater  Harden = "later"
	HardenForged Harden = "forged"
)

// Hardening as it leaves the forge.
const (
	longSoakS   = 300.0 // past it an oven, or cover from scale
	grindHardMm = 1.5   // edge at the quench past which much is ground off hardened steel
	temperC     = 200.0 // the coolest usual temper
	temperMostC = 260.0 // and the hottest
	temperHours = 2.0   // two cycles of an hour
	touchS      = 1.0   // that the heat of a touch of the wheel stays in an edge
)

// hardens tells whether hardening is part of the plan.
func (r *route) hardens() bool {
	return r.req.Choices.Harden == HardenForged && r.steel.AustenitiseC > 0
}

// heatAfterHardening tells whether an order goes back to the fire after it.
func heatAfterHardening(ops []*forge.Operation) bool {
	for i, op := range ops {
		if op.Kind == forge.Harden {
			return i+1 < len(ops)
		}
	}
	return false
}

// treat runs the thermal cycles, and the hardening where it is part of the plan.
func (r *route) treat(run *forge.Run) error {
	for i, c := range thermalCycles(r.req.Choices.Cycles, r.steel) {
		if err := run.Cycle(cycleID(i), c.c); err != nil {
			return err
		}
	}
	if r.hardens() {
		return run.Harden(string(forge.Harden), r.steel.AustenitiseC, r.steel.SoakMin*60)
	}
	return nil
}

// steps are the operations in order, the thermal cycles before the hardening or at
// the end.
func (r *route) steps(ops []*forge.Operation) (out []Step) {
	cycles := func() {
		for i, c := range thermalCycles(r.req.Choices.Cycles, r.steel) {
			out = append(out, Step{
				ID: cycleID(i), Kind: c.kind, Zones: r.zonesIn(0, len(r.cells)-1), TargetC: c.c, Passes: 1,
				BecauseCode: "need.cyclesLast", CautionCodes: cautions(c.kind),
			})
		}
	}
	done := false
	for _, op := range ops {
		if op.Kind == forge.Harden {
			cycles()
			done = true
		}
		out = append(out, r.step(ops, op))
	}
	if !done {
		cycles()
	}
	return out
}

// warnHardening: steel that does not harden, and much to be ground off one that is
// hard already.
func (r *route) warnHardening(add adder) {
	if r.req.Choices.Harden != HardenForged || r.req.Forged != nil {
		return
	}
	if !r.hardens() {
		add("warn.noHardening", fact.Note, fact.Where{}, nil)
		return
	}
	if s := r.steel.SoakMin * 60; s > longSoakS {
		add("warn.longSoak", fact.Note, fact.Where{Operation: string(forge.Harden)}, fact.Figures{"soakS": s, "limitS": longSoakS})
	}
	edge := r.req.Design.Blade().Forged(r.req.Allowances, r.bar.ThicknessMm).Grind.EdgeMm
	if edge > grindHardMm+1e-9 {
		flash := steel.SameTemperC(steel.HollomonJaffe(temperC, temperHours), touchS/3600)
		add("warn.grindHot", fact.Warn, fact.Where{Zone: ZoneBlade, Operation: string(forge.Harden)}, fact.Figures{
			"edgeMm": edge, "limitMm": grindHardMm, "finishedMm": r.req.Design.Grind.EdgeMm, "temperC": temperC, "flashC": flash,
		})
	}
}

func cycleID(i int) string { return fmt.Sprintf("cycle%d", i+1) }

// cycle is a thermal cycle: its kind and the temperature it goes to.
type cycle struct {
	kind string
	c    float64
}

// Kinds of thermal cycles.
const (
	kindNormalise = "normalise"
	kindAnneal    = "anneal"
)

// Softening: a plain steel is let fall slowly from just above its critical point,
// one with much carbon is held just below, since coarse carbides come of the
// slow way; so are those that harden in air.
const (
	slowAnnealC   = 760.0
	subcriticalC  = 680.0
	muchCarbonPct = 0.9
)

// thermalCycles of the school for a steel.
func thermalCycles(c Cycles, g steel.Grade) []cycle {
	t := g.NormalisingC()
	normalise := func(at ...float64) []cycle {
		var out []cycle
		for _, x := range at {
			out = append(out, cycle{kindNormalise, x})
		}
		return out
	}
	switch {
	case t == nil:
		return nil
	case c == Once:
		return normalise(t[0])
	case c == Equal:
		return normalise(t[0], t[0], t[0])
	case c == SlowAnneal:
		soft := slowAnnealC
		if g.CarbonPct > muchCarbonPct || g.ID == "L6" || g.ID == "O1" {
			soft = subcriticalC
		}
		return append(normalise(t[0]), cycle{kindAnneal, soft})
	default:
		return normalise(t...)
	}
}

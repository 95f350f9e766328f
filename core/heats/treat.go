package heats

import (
	"coldember/core/forge"
	"coldember/core/route"
)

// treat runs the thermal cycles, and the hardening where it is part of the plan.
func treat(r *route.Route, run *forge.Run) error {
	for i, c := range route.ThermalCycles(r.Req.Choices, r.Steel) {
		if err := run.Cycle(route.CycleID(i), c.TempC, c.HoldS); err != nil {
			return err
		}
	}
	if r.Hardens() {
		return run.Harden(string(forge.Harden), r.Steel.AustenitiseC, r.Steel.SoakMin*60)
	}
	return nil
}

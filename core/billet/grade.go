package billet

import (
	"math"

	"coldember/core/steel"
)

// Grade is the steel that a blade of the bar is planned with: the principal one, with the mean of
// all for composition and flow, the narrowest window to forge in, and the hardening of the one that
// hardens least deep. Unhardenable partners leave the hardening to the others.
func (o *Outcome) Grade() (steel.Grade, bool) {
	if len(o.Shares) == 0 {
		return steel.Grade{}, false
	}
	out, err := steel.Find(o.Shares[0].SteelID)
	if err != nil {
		return out, false
	}
	mean := steel.Analysis{}
	flow := 0.0
	for _, s := range o.Shares {
		g, err := steel.Find(s.SteelID)
		if err != nil {
			continue
		}
		out.ForgeLowC, out.ForgeHighC = math.Max(out.ForgeLowC, g.ForgeLowC), math.Min(out.ForgeHighC, g.ForgeHighC)
		flow += s.Share * g.FlowFactor
		mean.CarbonPct += s.Share * g.CarbonPct
		mean.ManganesePct += s.Share * g.ManganesePct
		mean.SiliconPct += s.Share * g.SiliconPct
		mean.NickelPct += s.Share * g.NickelPct
		mean.ChromiumPct += s.Share * g.ChromiumPct
		mean.MolybdenumPct += s.Share * g.MolybdenumPct
		mean.VanadiumPct += s.Share * g.VanadiumPct
		mean.CopperPct += s.Share * g.CopperPct
	}
	out.FlowFactor = flow
	return mean.Over(out), true
}

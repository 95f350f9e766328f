package harden

import (
	"math"
	"sort"

	"coldember/core/fact"
	"coldember/core/steel"
)

// What is warned of (judgement, each with the interval that is believed of it).
const (
	// Tempered between these most steels come out brittle, °C. 230–280, 350–400.
	embrittlesC    = 260
	embrittlesToC  = 370
	soakOvenS      = 300
	waterThinMm    = 3
	wetChromiumPct = .7 // from here on water cracks what oil would harden. .5–1
	wetDiameterMm  = 50 // and so deep a hardening steel. 40–60
	wetCarbonPct   = .7 // and thin edges of so much carbon. .6–.8
	wetEdgeLeastMm = 2  // thinner than this. 1.5–2.5
	nearWantHRC    = .25
)

// warn tells what a smith should know of it before the quench: what he has to plan first, first.
func (a *Advice) warn(c *Case) {
	a.warnWindow(c)
	if a.Known && a.HardMm < a.EdgeAtQuenchMm {
		a.find("harden.edgeSoft", fact.Stop, fact.Figures{"hardMm": a.HardMm, "edgeMm": a.EdgeAtQuenchMm})
	}
	a.warnWater(c)
	if c.CornerMm > 0 && c.CornerMm < sharpCornerMm {
		a.find("harden.corner", fact.Warn, fact.Figures{"radiusMm": c.CornerMm, "atMm": c.CornerAtMm, "leastMm": sharpCornerMm})
	}
	if c.OneSided {
		a.find("harden.unequal", fact.Note, nil)
	}
	a.warnEdge(c)
	if a.SoakS > soakOvenS && !c.Treatment.Kiln {
		a.find("harden.soakForge", fact.Warn, fact.Figures{"soakS": a.SoakS})
	}
	if a.OilRiseC > 0 && c.Treatment.Bath.WarmC+a.OilRiseC > tooWarmC {
		a.find("harden.oilWarm", fact.Warn, fact.Figures{"riseC": a.OilRiseC, "warmC": c.Treatment.Bath.WarmC + a.OilRiseC, "mostC": tooWarmC})
	}
	a.warnTemper(c)
	a.ways(c.Treatment)
	a.late(c)
	switch {
	case a.airCycles:
		a.find("harden.airCycles", fact.Warn, fact.Figures{"cycles": float64(a.CyclesOwed)})
	case a.CyclesOwed > 0:
		a.find("harden.cyclesOwed", fact.Warn, fact.Figures{"cycles": float64(a.CyclesOwed)})
	}
}

// warnWindow tells of too little time to straighten, and of a spine that leaves the bath too hot.
func (a *Advice) warnWindow(c *Case) {
	if !a.Known || c.Treatment.Bath.Class == StillAir {
		return
	}
	if !a.spineBelowNose {
		a.find("harden.spineHot", fact.Warn, fact.Figures{"outC": a.OutC, "spineC": a.SpineOutC, "noseC": noseC})
	}
	switch {
	case a.WindowEdgeS < leastWindowS:
		a.find("harden.noWindow", fact.Warn, fact.Figures{"outC": a.OutC, "formedC": FormedAtC(a.MartensiteC, Half), "longMm": clampMm(c.LengthMm)})
	case a.WindowEdgeS < wantWindowS-.5:
		a.find("harden.shortWindow", fact.Warn, fact.Figures{"edgeS": math.Floor(a.WindowEdgeS), "wantS": wantWindowS, "longMm": clampMm(c.LengthMm)})
	}
}

// clampMm is how long the bars are that a blade is clamped between, to the next centimetre.
func clampMm(bladeMm float64) float64 { return math.Ceil(bladeMm/10) * 10 }

// clamps tells whether a bow is planned to be taken out in the temper.
func (a *Advice) clamps() bool { return a.WindowEdgeS < wantWindowS-.5 }

// warnWater tells what cracks in water and brine.
func (a *Advice) warnWater(c *Case) {
	if !c.Treatment.Bath.Class.Watery() {
		return
	}
	switch g := &c.Grade; {
	case a.Known && (g.ChromiumPct >= wetChromiumPct || a.IdealDiameterMm > wetDiameterMm):
		a.find("harden.waterDeep", fact.Stop, fact.Figures{"chromium": g.ChromiumPct, "diameterMm": a.IdealDiameterMm})
	default:
		a.find("harden.water", fact.Warn, fact.Figures{"edgeMm": a.EdgeAtQuenchMm})
	}
	if c.Grade.CarbonPct >= wetCarbonPct && a.EdgeAtQuenchMm < wetEdgeLeastMm {
		a.find("harden.waterEdge", fact.Warn, fact.Figures{"edgeMm": a.EdgeAtQuenchMm, "leastMm": wetEdgeLeastMm})
	}
	if a.SpineAtQuenchMm < waterThinMm {
		a.find("harden.waterThin", fact.Warn, fact.Figures{"spineMm": a.SpineAtQuenchMm, "leastMm": waterThinMm, "atMm": thinnestAt(c)})
	}
	if c.Holes {
		a.find("harden.holes", fact.Warn, fact.Figures{"atMm": c.HoleAtMm})
	}
}

// warnEdge tells of an edge that is too thin for its bath, or thinner than is to be left.
func (a *Advice) warnEdge(c *Case) {
	switch {
	case a.EdgeAtQuenchMm < a.AdvisedEdgeMm-1e-3:
		a.find("harden.edgeThin", fact.Warn, fact.Figures{"edgeMm": a.EdgeAtQuenchMm, "leastMm": a.AdvisedEdgeMm})
	case !c.AsItIs && a.EdgeAtQuenchMm < a.Left.EdgeMm-1e-3:
		a.find("harden.edgeForged", fact.Warn, fact.Figures{"edgeMm": a.EdgeAtQuenchMm, "wantMm": a.Left.EdgeMm})
	}
}

// warnTemper tells of a hardness that is out of reach, of a setting that nothing is known of, and
// of one that makes steel brittle.
func (a *Advice) warnTemper(c *Case) {
	t := &a.Temper
	switch {
	case !a.Known:
		a.find("harden.couponTemper", fact.Note, fact.Figures{"ovenC": t.OvenC})
		return
	case t.OvenC == 0:
		a.find("harden.noTable", fact.Note, nil)
	case t.HRC == 0:
		a.find("harden.temperOutside", fact.Warn, fact.Figures{"ovenC": t.OvenC, "lowestC": t.LowestC, "highestC": t.HighestC})
	}
	if t.AskedC > 0 {
		a.find("harden.usualHarder", fact.Note, fact.Figures{"usualHrc": a.WantHRC, "hrc": math.Round(t.HRC*2) / 2, "askedC": t.AskedC, "ovenC": t.OvenC})
	}
	if t.MostHRC > 0 && a.WantHRC > t.MostHRC+nearWantHRC {
		a.Findings = append(a.Findings, fact.Warning{Code: "harden.unreachable", Severity: fact.Warn, Figures: fact.Figures{"wantHrc": a.WantHRC, "mostHrc": math.Round(t.MostHRC*2) / 2}, Steels: Reaching(a.WantHRC, c.Treatment)})
	}
	at := t.OvenC
	if c.Treatment.By() == ByTorch { // minutes: by what an hour would be
		at = t.ColourC
	}
	if at > embrittlesC && at <= embrittlesToC {
		harder, _ := c.Grade.HardnessHRC(embrittlesC)
		softer, _ := c.Grade.HardnessHRC(embrittlesToC)
		a.find("harden.embrittles", fact.Warn, fact.Figures{"ovenC": t.OvenC, "limitC": embrittlesC, "toC": embrittlesToC, "harderHrc": math.Round(harder), "softerHrc": math.Round(softer)})
	}
}

// mostReaching is how many grades are named that come to a hardness.
const mostReaching = 3

// Reaching are the ids of known grades that come to a hardness when they are tempered as a treatment
// does, in an oil: those that have the least to spare first.
func Reaching(wantHRC float64, t Treatment) []string {
	type near struct {
		id   string
		over float64
	}
	var all []near
	for _, g := range steel.Grades() {
		if g.Assumed || g.Quench == steel.NoQuench {
			continue
		}
		t.OvenC = 0
		if over := Temper(g, t, wantHRC).MostHRC - wantHRC; over >= 0 {
			all = append(all, near{g.ID, over})
		}
	}
	sort.SliceStable(all, func(i, j int) bool { return all[i].over < all[j].over })
	out := []string{}
	for _, n := range all[:min(len(all), mostReaching)] {
		out = append(out, n.id)
	}
	return out
}

// sharpCornerMm is an inside corner from which a quench cracks (judgement).
const sharpCornerMm = 1.5

// thinnestAt is where the spine is thinnest, from the point.
func thinnestAt(c *Case) (x float64) {
	least := math.Inf(1)
	for i := range c.Profiles {
		p := &c.Profiles[i]
		if n := len(p.ThicknessMm); n > 0 && p.ThicknessMm[n-1] < least {
			least, x = p.ThicknessMm[n-1], p.XMm
		}
	}
	return x
}

// tooLong tells of a blade that goes into its bath or its oven in parts.
func (a *Advice) tooLong(c *Case) {
	t := c.Treatment
	if long := t.Bath.LongMm; long > 0 && c.LengthMm > long && t.Bath.Class != StillAir {
		a.find("harden.longBath", fact.Stop, fact.Figures{"bladeMm": c.LengthMm, "longMm": long})
	}
	if t.OvenMm > 0 && c.LengthMm > t.OvenMm {
		a.find("harden.longOven", fact.Warn, fact.Figures{"bladeMm": c.LengthMm, "longMm": t.OvenMm, "restMm": c.LengthMm - t.OvenMm})
	}
}

// ways warns of what a way of tempering cannot do, and of what it asks.
func (a *Advice) ways(t Treatment) {
	oven := a.Temper.OvenC
	if oven <= 0 {
		return
	}
	switch t.By() {
	case ByTorch:
		a.find("harden.torch", fact.Note, fact.Figures{"ovenC": oven, "hourC": a.Temper.ColourC})
	case InOilBath:
		if oven > mostOilBathC {
			a.find("harden.oilBathHot", fact.Stop, fact.Figures{"ovenC": oven, "limitC": mostOilBathC})
		}
	}
	if most := t.OvenMostC; most > 0 && oven > most {
		a.find("harden.ovenWeak", fact.Stop, fact.Figures{"ovenC": oven, "mostC": most})
	}
}

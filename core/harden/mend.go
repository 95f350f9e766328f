package harden

// Mend is what to do when the quench went another way than it should: the first thing first.
type Mend struct {
	When string   `json:"when" enum:"soft,warped,cracked"`
	Do   []MendDo `json:"do"`
}

// MendDo is one of its steps, with what it needs.
type MendDo struct {
	Code   string    `json:"code"`
	Bath   BathClass `json:"bath,omitempty" enum:"air,plates,stillOil,mediumOil,fastOil,veryFastOil,water,brine"`
	LongMm float64   `json:"longMm,omitempty" doc:"of the bars to clamp it between"`
}

// thickSpineMm is where a blade is no longer bent straight by shims alone in the oven (judgement).
const thickSpineMm = 6

// mends puts together what is done when a blade stays soft, warps or cracks.
func (a *Advice) mends(c *Case) {
	a.Mends = []Mend{{When: "soft", Do: a.whenSoft(c)}, {When: "warped", Do: a.whenWarped(c)}, {When: "cracked", Do: a.whenCracked(c)}}
}

// whenSoft: the skin is soft on every blade that was soaked in air, so that comes first; then the
// heat, which fails more often than the steel; then the bath; then what the steel was taken for.
func (a *Advice) whenSoft(c *Case) []MendDo {
	do := []MendDo{{Code: "mend.skin"}}
	if !c.Treatment.Kiln {
		do = append(do, MendDo{Code: "mend.heat"})
	}
	if faster, ok := a.faster(c.Treatment.Bath.Class); ok {
		do = append(do, MendDo{Code: "mend.bath", Bath: faster})
	}
	return append(do, MendDo{Code: "mend.belief"}, MendDo{Code: "mend.again"})
}

// faster is the next bath that hardens thicker than this one and is no likelier to crack the
// blade: none beyond the fastest oil.
func (a *Advice) faster(than BathClass) (BathClass, bool) {
	now := 0.0
	for _, b := range a.Baths {
		if b.Class == than {
			now = b.HardMm
		}
	}
	for _, b := range a.Baths {
		if b.HardMm > now && !b.Risks && b.EdgeHardens {
			return b.Class, true
		}
	}
	return "", false
}

// whenWarped: straight in the window while there is one, then between bars in the oven; a thick
// spine is first softened alone. Bars are as long as the blade, or they bend it at their ends.
func (a *Advice) whenWarped(c *Case) []MendDo {
	var do []MendDo
	if a.WindowEdgeS > 0 {
		do = append(do, MendDo{Code: "mend.window"})
	}
	if a.SpineAtQuenchMm >= thickSpineMm {
		do = append(do, MendDo{Code: "mend.spine"})
	}
	do = append(do, MendDo{Code: "mend.clamp", LongMm: c.LengthMm})
	if c.OneSided {
		do = append(do, MendDo{Code: "mend.oneSided"})
	}
	return append(do, MendDo{Code: "mend.neverCold"})
}

// whenCracked: no crack is mended. What follows is why, so that the next one holds.
func (a *Advice) whenCracked(c *Case) []MendDo {
	do := []MendDo{{Code: "mend.cracked"}, {Code: "mend.snap"}}
	if c.Treatment.Bath.Class.Watery() {
		do = append(do, MendDo{Code: "mend.oil"})
	}
	if a.EdgeAtQuenchMm < a.AdvisedEdgeMm-1e-9 {
		do = append(do, MendDo{Code: "mend.edge"})
	}
	if a.CyclesOwed > 0 {
		do = append(do, MendDo{Code: "mend.cycles"})
	}
	if c.Holes {
		do = append(do, MendDo{Code: "mend.holes"})
	}
	return append(do, MendDo{Code: "mend.scratches"})
}

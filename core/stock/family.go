package stock

import "coldember/core/steel"

// FamilyOf is the family of salvage that a known grade belongs to, by its composition (judgement, as the
// families are told from each other by spark and file).
func FamilyOf(g steel.Grade) string {
	switch c := g.CarbonPct; {
	case g.ChromiumPct >= 4:
		return "airHard"
	case c < .12:
		return "iron"
	case c < .35:
		if g.ManganesePct >= 1 {
			return "boron"
		}
		return "mild"
	case c >= .9 && g.ChromiumPct >= 1.2:
		return "bearing"
	case g.MolybdenumPct >= .2 || c >= .85 && g.ChromiumPct >= .4:
		return "tool"
	case c < .75 && (g.SiliconPct >= 1.2 || g.ChromiumPct >= .5 || g.VanadiumPct >= .1):
		return "spring"
	case c < .57:
		return "medium"
	}
	return "plainHigh"
}

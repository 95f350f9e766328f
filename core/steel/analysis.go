package steel

import "math"

// Analysis is what a certificate says of one bar, per cent by mass. It stands over the typical
// composition of the bar's grade.
type Analysis struct {
	CarbonPct float64 `json:"carbonPct"`
	Composition
}

// AnalysisOf is the typical composition of a grade, to be put right by a certificate.
func AnalysisOf(g Grade) Analysis { return Analysis{g.CarbonPct, g.Composition} }

// Over is a grade with its composition by this certificate; nil leaves it as it is. Its
// temperatures and its table of hardness stay the grade's.
func (a *Analysis) Over(g Grade) Grade {
	if a != nil {
		g.CarbonPct, g.Composition = a.CarbonPct, a.Composition
	}
	return g
}

// MostPct are the highest shares, per cent by mass, of a steel that may be forged into a blade, by
// the name of the element's field: beyond them it is another material, or a slip of the pen.
func MostPct() map[string]float64 {
	return map[string]float64{"carbonPct": 2.2, "manganesePct": 3, "siliconPct": 4, "nickelPct": 6, "chromiumPct": 20, "molybdenumPct": 6, "vanadiumPct": 6, "copperPct": 2}
}

// ByElement are the shares by the name of the element's field, per cent by mass.
func (a *Analysis) ByElement() map[string]float64 {
	return map[string]float64{
		"carbonPct": a.CarbonPct, "manganesePct": a.ManganesePct, "siliconPct": a.SiliconPct, "nickelPct": a.NickelPct, "chromiumPct": a.ChromiumPct,
		"molybdenumPct": a.MolybdenumPct, "vanadiumPct": a.VanadiumPct, "copperPct": a.CopperPct,
	}
}

// How far off a grade a composition may lie and still be taken for it, per cent by mass (judgement:
// twice what the standards allow about their middle).
var likePct = map[string]float64{"carbonPct": .1, "manganesePct": .4, "siliconPct": .4, "nickelPct": .5, "chromiumPct": .3, "molybdenumPct": .15, "vanadiumPct": .15, "copperPct": .5}

// Like is the known grade whose composition is nearest to that of a certificate; ok is false where
// none is near.
func Like(a Analysis) (g Grade, ok bool) {
	best := 1.0
	is := a.ByElement()
	for _, known := range grades {
		if known.Assumed {
			continue
		}
		usual := AnalysisOf(known)
		most, sum := 0.0, 0.0
		of := usual.ByElement()
		for name, by := range likePct {
			off := math.Abs(is[name]-of[name]) / by
			most, sum = math.Max(most, off), sum+off*off
		}
		if most <= 1 && sum < best*best*float64(len(likePct)) {
			g, ok, best = known, true, math.Sqrt(sum/float64(len(likePct)))
		}
	}
	return g, ok
}

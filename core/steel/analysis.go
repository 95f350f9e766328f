package steel

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

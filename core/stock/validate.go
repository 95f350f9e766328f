package stock

import (
	"fmt"

	"coldember/core/fact"
)

// What a smithy can have: longer, wider or more than that is a slip of the pen.
const (
	mostLengthMm  = 20000.0
	mostAcrossMm  = 3000.0
	leastAcrossMm = 0.1 // that a dead stretch takes of the width
	mostBendMm    = 100000.0
	mostMany      = 10000.0
	mostRows      = 100 // layers, holes, dead stretches
	mostWhy       = 200 // letters
)

// Validate reports every dimension that cannot be of any piece, whether its form counts
// it or not; a dimension of nought is one that is not given. What a form wants is told
// by Solid and Even.
func (p Item) Validate(c fact.Check) {
	fact.OneOf(c, "form", p.Form, Forms()...)
	for _, d := range []struct {
		field string
		v     float64
		most  float64
	}{
		{"widthMm", p.WidthMm, mostAcrossMm},
		{"thicknessMm", p.ThicknessMm, mostAcrossMm},
		{"sideMm", p.SideMm, mostAcrossMm},
		{"diameterMm", p.DiameterMm, mostAcrossMm},
		{"acrossFlatsMm", p.AcrossFlatsMm, mostAcrossMm},
		{"lengthMm", p.LengthMm, mostLengthMm},
		{"startDiameterMm", p.StartDiameterMm, mostAcrossMm},
		{"endDiameterMm", p.EndDiameterMm, mostAcrossMm},
		{"startWidthMm", p.StartWidthMm, mostAcrossMm},
		{"endWidthMm", p.EndWidthMm, mostAcrossMm},
		{"startThicknessMm", p.StartThicknessMm, mostAcrossMm},
		{"endThicknessMm", p.EndThicknessMm, mostAcrossMm},
		{"wireDiameterMm", p.WireDiameterMm, mostAcrossMm},
		{"meanDiameterMm", p.MeanDiameterMm, mostAcrossMm},
		{"pitchMm", p.PitchMm, mostAcrossMm},
		{"turns", p.Turns, mostMany},
		{"chordMm", p.ChordMm, mostLengthMm},
		{"riseMm", p.RiseMm, mostAcrossMm},
		{"solidFraction", p.SolidFraction, 1},
		{"outerDiameterMm", p.OuterDiameterMm, mostAcrossMm},
		{"innerDiameterMm", p.InnerDiameterMm, mostAcrossMm},
		{"shareFraction", p.ShareFraction, 1},
		{"stripWidthMm", p.StripWidthMm, mostAcrossMm},
		{"linkLengthMm", p.LinkLengthMm, mostAcrossMm},
		{"linkWidthMm", p.LinkWidthMm, mostAcrossMm},
		{"links", p.Links, mostMany},
		{"wallMm", p.WallMm, mostAcrossMm},
		{"teethMm", p.TeethMm, mostAcrossMm},
		{"bendRadiusMm", p.BendRadiusMm, mostBendMm},
	} {
		c.Range(d.field, d.v, 0, d.most)
	}
	for field, n := range map[string]int{"layers": len(p.Layers), "holes": len(p.Holes), "dead": len(p.Dead)} {
		if n > mostRows {
			c.Fail(field, "field.tooMany", fact.Figures{"highest": mostRows})
		}
	}
	for i, l := range p.Layers {
		c.Range(fmt.Sprintf("layers.%d.count", i), float64(l.Count), 1, mostMany)
		c.Range(fmt.Sprintf("layers.%d.thicknessMm", i), l.ThicknessMm, .001, mostAcrossMm)
	}
	for i, h := range p.Holes {
		c.Range(fmt.Sprintf("holes.%d.diameterMm", i), h.DiameterMm, 0, mostAcrossMm)
		c.Range(fmt.Sprintf("holes.%d.throughMm", i), h.ThroughMm, 0, mostLengthMm)
	}
	for i, d := range p.Dead {
		c.Range(fmt.Sprintf("dead.%d.fromMm", i), d.FromMm, 0, mostLengthMm)
		c.Range(fmt.Sprintf("dead.%d.toMm", i), d.ToMm, 0, mostLengthMm)
		c.Range(fmt.Sprintf("dead.%d.fromAcrossMm", i), d.FromAcrossMm, 0, mostAcrossMm)
		least := 0.0
		if d.FromAcrossMm > 0 || d.ToAcrossMm != 0 { // of a part of the width: it has one
			least = d.FromAcrossMm + leastAcrossMm
		}
		c.Range(fmt.Sprintf("dead.%d.toAcrossMm", i), d.ToAcrossMm, least, mostAcrossMm)
		if len([]rune(d.Why)) > mostWhy {
			c.Fail(fmt.Sprintf("dead.%d.why", i), "field.tooLong", fact.Figures{"highest": mostWhy})
		}
	}
}

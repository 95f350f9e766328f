package finish

import (
	"math"
	"strings"
)

// Pace is what a shop's log says of its times at the bench: so many times the table's, known to
// within so much either way, four times in five. The zero is the table alone.
type Pace struct{ Factor, Doubt float64 }

// Paces are those of a shop.
type Paces struct{ Grind, Sand, Fit Pace }

// PaceOf tells which pace a step goes by: grind, sand or fit.
func PaceOf(s *Step) string {
	switch {
	case s.Stage == "handle", s.Stage == "edge":
		return "fit"
	case strings.HasPrefix(s.ID, sandPrefix), s.ID == "buff", s.ID == "brush", s.ID == "etch", s.ID == "mark", s.ID == "hidden":
		return "sand"
	}
	return "grind"
}

// of is the pace of a step.
func (p *Paces) of(s *Step) Pace {
	out := p.Grind
	switch PaceOf(s) {
	case "fit":
		out = p.Fit
	case "sand":
		out = p.Sand
	}
	if out.Factor <= 0 {
		out = Pace{1, minutesDoubt}
	}
	return out
}

// effort is what a step takes.
type effort struct {
	minutes, belts float64
}

// beltMin is the time at a belt and what of it is used up for a volume to come off, mm³.
func beltMin(grit int, mm3 float64, hard, worn bool) effort {
	b := beltOf[grit]
	rate := b.mm3PerS
	if hard {
		rate *= hardShare
	}
	if worn {
		rate *= wornShare
	}
	mm3 = math.Max(0, mm3)
	return effort{mm3 / rate / 60 * lookShare, mm3 / b.lifeMm3}
}

// at adds the time at the bench for faces of areaMm2.
func (e effort) at(b bench, areaMm2 float64) effort {
	e.minutes += b.min + b.minPerCm2*areaMm2/100
	return e
}

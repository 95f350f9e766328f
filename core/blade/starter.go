package blade

import "coldember/core/section"

// Starter is a design to start from when the library is still empty. The
// proportions are usual handbook values for the use its ID names.
type Starter struct {
	ID     string
	Design Design
}

// Starters lists one design for each preset outline.
func Starters() []Starter {
	starter := func(id string, shape Shape, kind section.Kind, length, height, spine, tip, ricasso, tang float64, tangKind TangKind) Starter {
		d := Design{
			Shape: shape, LengthMm: length, HeightMm: height, SpineMm: spine, TipMm: tip,
			Grind:   Grind{Kind: kind, BevelFraction: 1, EdgeMm: .5, WheelRadiusMm: 125},
			Ricasso: Ricasso{LengthMm: ricasso, HeightMm: height * .86, ThicknessMm: spine},
			Tang:    Tang{LengthMm: tang},
		}
		d.SetTang(tangKind)
		return Starter{ID: id, Design: d}
	}
	out := []Starter{
		starter("utility", Drop, section.Flat, 100, 27, 3.8, 2.2, 14, 105, HiddenTang),
		starter("camp", StraightBack, section.Convex, 180, 38, 5, 3, 18, 115, FullTang),
		starter("rigging", Sheepsfoot, section.Flat, 86, 24, 3.6, 2.4, 14, 95, HiddenTang),
		starter("boat", Spear, section.Diamond, 130, 30, 5, 3, 16, 105, HiddenTang),
		starter("fillet", Trailing, section.Hollow, 135, 26, 3.2, 1.8, 14, 105, HiddenTang),
	}
	out[1].Design.Grind.BevelFraction = .7
	out[4].Design.Grind.BevelFraction = .8
	return out
}

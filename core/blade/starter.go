package blade

import "coldember/core/section"

// Starter is a design to start from when the library is still empty. The
// proportions are usual handbook values for the use its ID names.
type Starter struct {
	ID     string
	Design Design
}

// Starters lists the designs: every preset outline and every use has one.
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
		starter("kitchenDeep", StraightBack, section.Flat, 205, 48, 2.8, 1.6, 16, 110, HiddenTang),
		starter("kitchenSlicer", StraightBack, section.Flat, 240, 32, 2.4, 1.5, 16, 110, HiddenTang),
		starter("camp", StraightBack, section.Convex, 180, 38, 5, 3, 18, 115, FullTang),
		starter("rigging", Sheepsfoot, section.Flat, 86, 24, 3.6, 2.4, 14, 95, HiddenTang),
		starter("boat", Spear, section.Diamond, 130, 30, 5, 3, 16, 105, HiddenTang),
		starter("hook", Hooked, section.Flat, 70, 18, 3.6, 2.4, 10, 90, HiddenTang),
		starter("chisel", StraightBack, section.Chisel, 150, 32, 4, 2.6, 14, 105, HiddenTang),
		starter("cleaver", Broad, section.Flat, 170, 85, 4, 2.8, 16, 115, FullTang),
		starter("scribe", Sheepsfoot, section.Chisel, 45, 16, 3.2, 2.6, 10, 110, FullTang),
		starter("fillet", Trailing, section.Hollow, 135, 26, 3.2, 1.8, 14, 105, HiddenTang),
	}
	uses := map[string]Use{"rigging": UseUtility, "boat": UseFighter}
	bevels := map[string]float64{"camp": .7, "cleaver": .5, "chisel": .6, "fillet": .8}
	for i := range out {
		s := &out[i]
		s.Design.Use = Use(s.ID)
		if u, ok := uses[s.ID]; ok {
			s.Design.Use = u
		}
		if b, ok := bevels[s.ID]; ok {
			s.Design.Grind.BevelFraction = b
		}
	}
	for _, r := range []*Design{&out[1].Design, &out[2].Design, &out[8].Design} { // high blades have a low ricasso
		r.Ricasso.HeightMm, r.Ricasso.ThicknessMm = 26, max(3.2, r.SpineMm)
		r.SetTang(r.TangKind)
	}
	return out
}

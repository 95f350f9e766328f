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
		starter("clip", Clip, section.Flat, 125, 30, 4.2, 2.4, 16, 105, HiddenTang),
		starter("brokenBack", BrokenBack, section.Flat, 180, 32, 4.5, 2.8, 14, 110, HiddenTang),
		starter("angledKitchen", Angled, section.Flat, 165, 45, 2.6, 1.6, 14, 110, HiddenTang),
		starter("recurve", Recurve, section.Flat, 230, 40, 5.5, 3.2, 18, 115, FullTang),
		starter("skinner", Belly, section.Flat, 95, 30, 3.4, 2.2, 12, 108, FullTang),
		starter("upswept", Sweep, section.Flat, 120, 28, 3.6, 2, 14, 105, HiddenTang),
		starter("leaf", Leaf, section.Convex, 105, 28, 3.8, 2.2, 12, 105, HiddenTang),
		starter("leafDagger", DoubleLeaf, section.Diamond, 165, 26, 5.2, 2.8, 20, 118, HiddenTang),
		starter("sickle", Sickle, section.Flat, 230, 25, 4, 2.2, 16, 105, HiddenTang),
		starter("chopper", Nosed, section.Convex, 240, 42, 5.5, 3.4, 18, 120, FullTang),
		starter("billhook", Beaked, section.Flat, 210, 46, 5, 3, 18, 120, FullTang),
		starter("longStraight", StraightLong, section.Diamond, 720, 44, 5.6, 2.8, 24, 180, HiddenTang),
		starter("longCurved", CurvedLong, section.Flat, 680, 32, 6, 3.4, 24, 200, HiddenTang),
		starter("spoon", Spear, section.Chisel, 72, 15, 3, 2.2, 10, 95, HiddenTang),
		starter("integral", ClipCurved, section.Flat, 120, 28, 4, 2.2, 12, 105, HiddenTang),
	}
	uses := map[string]Use{
		"rigging": UseUtility, "boat": UseFighter, "clip": UseUtility, "brokenBack": UseFighter, "angledKitchen": UseDeep, "recurve": UseChopper, "skinner": UseUtility,
		"upswept": UseUtility, "leaf": UseUtility, "leafDagger": UseFighter, "billhook": UseChopper, "longStraight": UseSword, "longCurved": UseSword, "integral": UseUtility,
	}
	bevels := map[string]float64{"camp": .7, "cleaver": .5, "chisel": .6, "fillet": .8, "upswept": .8, "recurve": .7, "chopper": .6, "billhook": .5, "spoon": .5, "sickle": .6}
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
	forms := map[string]TangForm{"recurve": HookedTang, "skinner": SwellTang, "chopper": HookedTang, "billhook": DroppedTang}
	for i := range out {
		d := &out[i].Design
		if f, ok := forms[out[i].ID]; ok {
			d.TangForm(f)
		}
		switch out[i].ID {
		case "clip", "integral": // the clip is bevelled from its back
			d.Grind.SwedgeFraction, d.Grind.SwedgeEdgeMm, d.Grind.SwedgeLongMm = .3, 1, d.LengthMm*.4
		case "skinner":
			d.AddSlot()
		case "longStraight":
			d.Grind.Groove = &Groove{LowFraction: .4, HighFraction: .6, DepthMm: .9, Faces: 2, FromMm: 240}
		case "spoon":
			d.FlatBend = &FlatBend{RadiusMm: 16, LongMm: 48, AxisDeg: 90, Hollow: FlatInside}
		}
		if out[i].ID == "integral" { // bolster and guard of one piece with the blade
			d.Ricasso.ThicknessMm, d.Ricasso.HeightMm, d.Ricasso.RiseMm = 13, d.HeightMm+5, 2
			d.SetTang(d.TangKind)
			d.Tang.HeightAtShoulderMm, d.Tang.HeightAtEndMm, d.Tang.DropMm = 16, 9, 6
			d.Tang.ThicknessAtShoulderMm, d.Tang.ThicknessAtEndMm = 6, 3.5
			d.Grind.PlungeMm, d.ChoilMm = 8, 3
		}
	}
	for _, r := range []*Design{&out[1].Design, &out[2].Design, &out[8].Design, &out[13].Design} { // high blades have a low ricasso
		r.Ricasso.HeightMm, r.Ricasso.ThicknessMm = 26, max(3.2, r.SpineMm)
		r.SetTang(r.TangKind)
	}
	return out
}

package demo

import (
	"coldember/core/blade"
	"coldember/core/section"
	"coldember/internal/edit"
)

// design is one of the yard's own.
type design struct {
	name   string
	tags   []string
	school blade.School
	tang   blade.TangKind
	design blade.Design
	form   blade.TangForm // of a full tang that is more than a taper
}

// designs are what the yard makes for its boats, its reed beds and its galley.
func designs() []design {
	return []design{
		{name: Samphire, tags: []string{"shore"}, school: blade.ForgeClose, tang: blade.HiddenTang, design: blade.Design{
			Use: blade.UseHook, Shape: blade.Trailing, LengthMm: 70, HeightMm: 20, SpineMm: 3.2, TipMm: 2,
			Grind:   blade.Grind{Kind: section.Hollow, BevelFraction: .8, EdgeMm: .4, WheelRadiusMm: 100},
			Ricasso: blade.Ricasso{LengthMm: 10, HeightMm: 15, ThicknessMm: 3.2}, Tang: blade.Tang{LengthMm: 90},
		}},
		{name: Oyster, tags: []string{"shore"}, school: blade.ForgeClose, tang: blade.HiddenTang, design: blade.Design{
			Use: blade.UseFighter, Shape: blade.Spear, LengthMm: 62, HeightMm: 17, SpineMm: 3.4, TipMm: 2.4,
			Grind:   blade.Grind{Kind: section.Lens, BevelFraction: 1, EdgeMm: .8},
			Ricasso: blade.Ricasso{LengthMm: 8, HeightMm: 13, ThicknessMm: 3.4}, Tang: blade.Tang{LengthMm: 60},
		}},
		{name: Slicer, tags: []string{"kitchen", "deep"}, school: blade.ThickAndGrind, tang: blade.HiddenTang, design: blade.Design{
			Use: blade.UseDeep, Shape: blade.StraightBack, LengthMm: 205, HeightMm: 48, SpineMm: 2.8, TipMm: 1.6,
			Grind:   blade.Grind{Kind: section.Flat, BevelFraction: 1, EdgeMm: .4, WheelRadiusMm: 200},
			Ricasso: blade.Ricasso{LengthMm: 16, HeightMm: 26, ThicknessMm: 3.4}, Tang: blade.Tang{LengthMm: 110},
		}},
		{name: Reed, tags: []string{"reed"}, school: blade.ThickAndGrind, tang: blade.HiddenTang, design: blade.Design{
			Use: blade.UseCamp, Shape: blade.Broad, LengthMm: 320, HeightMm: 36, SpineMm: 6, TipMm: 3.5,
			Grind:   blade.Grind{Kind: section.Flat, BevelFraction: .6, EdgeMm: .8, WheelRadiusMm: 200},
			Ricasso: blade.Ricasso{LengthMm: 20, HeightMm: 30, ThicknessMm: 6}, Tang: blade.Tang{LengthMm: 120},
		}},
		{name: Trimmer, tags: []string{"sails"}, school: blade.ThickAndGrind, tang: blade.HiddenTang, design: blade.Design{
			Use: blade.UseUtility, Shape: blade.Clip, LengthMm: 92, HeightMm: 24, SpineMm: 3.2, TipMm: 2,
			Grind:   blade.Grind{Kind: section.Flat, BevelFraction: .75, EdgeMm: .5, WheelRadiusMm: 200},
			Ricasso: blade.Ricasso{LengthMm: 12, HeightMm: 20, ThicknessMm: 3.6}, Tang: blade.Tang{LengthMm: 95},
		}},
		{name: Net, tags: []string{"boats"}, school: blade.ForgedFlats, tang: blade.FullTang, design: blade.Design{
			Use: blade.UseUtility, Shape: blade.StraightBack, LengthMm: 80, HeightMm: 44, SpineMm: 3, TipMm: 2.2,
			Grind:   blade.Grind{Kind: section.Flat, BevelFraction: 1, EdgeMm: .4, WheelRadiusMm: 200},
			Ricasso: blade.Ricasso{LengthMm: 8, HeightMm: 40, ThicknessMm: 3.2}, Tang: blade.Tang{LengthMm: 60},
		}},
		{name: Sedge, tags: []string{"reed"}, school: blade.ThickAndGrind, tang: blade.FullTang, design: blade.Design{
			Use: blade.UseCamp, Shape: blade.Drop, LengthMm: 140, HeightMm: 44, SpineMm: 3.4, TipMm: 2.4,
			Grind:   blade.Grind{Kind: section.Flat, BevelFraction: .8, EdgeMm: .6, WheelRadiusMm: 200},
			Ricasso: blade.Ricasso{LengthMm: 14, HeightMm: 36, ThicknessMm: 3.8}, Tang: blade.Tang{LengthMm: 95},
		}},
		{name: Bailer, tags: []string{"boats", "hollowing"}, school: blade.ForgeClose, tang: blade.HiddenTang, design: blade.Design{
			Use: blade.UseSpoon, Shape: blade.Spear, LengthMm: 84, HeightMm: 18, SpineMm: 3.4, TipMm: 2.4,
			Grind:    blade.Grind{Kind: section.Chisel, BevelFraction: .5, EdgeMm: .4},
			Ricasso:  blade.Ricasso{LengthMm: 12, HeightMm: 14, ThicknessMm: 3.4},
			Tang:     blade.Tang{LengthMm: 100},
			FlatBend: &blade.FlatBend{RadiusMm: 22, LongMm: 58, AxisDeg: 90, Hollow: blade.FlatInside},
		}},
		{name: Osier, tags: []string{"reed"}, school: blade.ThickAndGrind, tang: blade.HiddenTang, design: blade.Design{
			Use: blade.UseSickle, Shape: blade.Sickle, LengthMm: 250, HeightMm: 26, SpineMm: 3.8, TipMm: 2.2,
			Grind:   blade.Grind{Kind: section.Chisel, BevelFraction: .4, EdgeMm: .5, BevelSide: blade.RightBevel},
			Ricasso: blade.Ricasso{LengthMm: 16, HeightMm: 22, ThicknessMm: 3.8}, Tang: blade.Tang{LengthMm: 110},
		}},
		{name: Withy, tags: []string{"reed"}, school: blade.ThickAndGrind, tang: blade.FullTang, form: blade.HookedTang, design: blade.Design{
			Use: blade.UseChopper, Shape: blade.Beaked, LengthMm: 190, HeightMm: 44, SpineMm: 5, TipMm: 3,
			Grind:   blade.Grind{Kind: section.Flat, BevelFraction: .5, EdgeMm: .8},
			Ricasso: blade.Ricasso{LengthMm: 16, HeightMm: 34, ThicknessMm: 5}, Tang: blade.Tang{LengthMm: 120},
		}},
		{name: Mooring, tags: []string{"boats"}, school: blade.ThickAndGrind, tang: blade.HiddenTang, design: blade.Design{
			Use: blade.UseUtility, Shape: blade.ClipCurved, LengthMm: 112, HeightMm: 27, SpineMm: 4, TipMm: 2.2, ChoilMm: 3,
			Grind:   blade.Grind{Kind: section.Flat, BevelFraction: 1, EdgeMm: .5, SwedgeFraction: .3, SwedgeEdgeMm: 1, SwedgeLongMm: 44, PlungeMm: 8},
			Ricasso: blade.Ricasso{LengthMm: 11, HeightMm: 31, ThicknessMm: 12, RiseMm: 2}, Tang: blade.Tang{LengthMm: 105},
		}},
	}
}

// largestOyster is the largest oyster knife that comes of one roller, as the page finds it.
// It takes seconds to find, and the demonstration is to be there at once: a test finds it anew.
func largestOyster() []edit.Edit {
	out := []edit.Edit{{Field: "choices.holding", Text: "weldedRod"}}
	for _, f := range [][2]string{
		{"lengthMm", "112.7"},
		{"heightMm", "31.0"},
		{"ricasso.lengthMm", "14.5"},
		{"ricasso.heightMm", "23.7"},
		{"tang.lengthMm", "109.1"},
		{"tang.heightAtShoulderMm", "14.2"},
		{"tang.heightAtEndMm", "8.0"},
		{"tang.dropMm", "3.5"},
	} {
		out = append(out, edit.Edit{Field: "design." + f[0], Text: f[1] + "mm"})
	}
	return out
}

package practice

import (
	"slices"

	"coldember/core/forge"
)

// What a goal is of.
type What string

// Goals: how wide, how thick, how long, and that nothing was struck cold.
const (
	Wide   What = "wide"
	Thick  What = "thick"
	Long   What = "long"
	NoCold What = "noCold"
)

// Goal is what a piece is to come to, over a stretch from the point: at its begin, and where it tapers at its end.
type Goal struct {
	What     What    `json:"what" enum:"wide,thick,long,noCold"`
	FromMm   float64 `json:"fromMm,omitempty"`
	ToMm     float64 `json:"toMm,omitempty"`
	WantMm   float64 `json:"wantMm,omitempty"`
	EndMm    float64 `json:"endMm,omitempty" doc:"at the end of the stretch, where it is another"`
	WithinMm float64 `json:"withinMm,omitempty"`
}

// at is what is wanted at a place.
func (g *Goal) at(x float64) float64 {
	if g.EndMm == 0 {
		return g.WantMm
	}
	return g.WantMm + (x-g.FromMm)/(g.ToMm-g.FromMm)*(g.EndMm-g.WantMm)
}

// Exercise is a bar, a fire, and what is to come of it.
type Exercise struct {
	ID          string  `json:"id"`
	SteelID     string  `json:"steelId"`
	WidthMm     float64 `json:"widthMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	LengthMm    float64 `json:"lengthMm"`
	FireC       float64 `json:"fireC"`
	HotMm       float64 `json:"hotMm" doc:"from the point, that the fire heats"`
	Goals       []Goal  `json:"goals"`
	ParHeats    int     `json:"parHeats" doc:"a steady hand takes"`
	ParBlows    int     `json:"parBlows"`

	smith      *forge.Smith // nil: a steady hand
	atmosphere float64      // of the fire; 0: neutral
}

// Exercises lists them, from easy to hard.
func Exercises() []Exercise {
	const steady = 1150.0
	return []Exercise{
		{ID: "cold", SteelID: "1084", WidthMm: 25, ThicknessMm: 6, LengthMm: 150, FireC: steady, HotMm: 100, ParHeats: 5, ParBlows: 90, Goals: []Goal{
			{What: Thick, FromMm: 5, ToMm: 45, WantMm: 4.4, WithinMm: .6}, {What: NoCold},
		}},
		{ID: "lengthen", SteelID: "1084", WidthMm: 20, ThicknessMm: 8, LengthMm: 140, FireC: steady, HotMm: 110, ParHeats: 8, ParBlows: 175, Goals: []Goal{
			{What: Long, WantMm: 158, WithinMm: 2}, {What: Wide, FromMm: 5, ToMm: 60, WantMm: 20, WithinMm: 1.2},
		}},
		{ID: "widen", SteelID: "1084", WidthMm: 25, ThicknessMm: 8, LengthMm: 140, FireC: steady, HotMm: 100, ParHeats: 4, ParBlows: 96, Goals: []Goal{
			{What: Wide, FromMm: 8, ToMm: 45, WantMm: 30, WithinMm: 1.5}, {What: Thick, FromMm: 8, ToMm: 45, WantMm: 5.6, WithinMm: 1},
		}},
		{ID: "narrow", SteelID: "1084", WidthMm: 28, ThicknessMm: 8, LengthMm: 140, FireC: steady, HotMm: 100, ParHeats: 6, ParBlows: 117, Goals: []Goal{
			{What: Wide, FromMm: 5, ToMm: 45, WantMm: 23, WithinMm: 1.2}, {What: Thick, FromMm: 5, ToMm: 45, WantMm: 8, WithinMm: .9},
		}},
		{ID: "taper", SteelID: "1084", WidthMm: 14, ThicknessMm: 14, LengthMm: 130, FireC: steady, HotMm: 110, ParHeats: 13, ParBlows: 375, Goals: []Goal{
			{What: Thick, FromMm: 4, ToMm: 60, WantMm: 8, EndMm: 13, WithinMm: 1.2}, {What: Wide, FromMm: 4, ToMm: 60, WantMm: 8, EndMm: 13, WithinMm: 1.2},
		}},
	}
}

// Find is the exercise of an id; nil if there is none.
func Find(id string) *Exercise {
	all := Exercises()
	if i := slices.IndexFunc(all, func(e Exercise) bool { return e.ID == id }); i >= 0 {
		return &all[i]
	}
	return nil
}

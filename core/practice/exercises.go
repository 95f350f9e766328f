package practice

import (
	"math"
	"slices"

	"coldember/core/forge"
	"coldember/core/steel"
)

// What a goal is of.
type What string

// Goals: how wide, how thick, how long, straight; that corners are broken, and that nothing was struck cold.
const (
	Wide     What = "wide"
	Thick    What = "thick"
	Edge     What = "edge" // how thick at the edge
	Long     What = "long"
	NoCold   What = "noCold"
	Straight What = "straight"
	Broken   What = "broken" // how sharp its corners are, 1 as rolled
)

// Goal is what a piece is to come to, over a stretch from the point: at its begin, and where it tapers at its end.
type Goal struct {
	What     What    `json:"what" enum:"wide,thick,edge,long,noCold,straight,broken"`
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

	Bevels bool `json:"bevels,omitempty" doc:"its edge is bevelled"`

	smith      *forge.Smith // nil: a steady hand
	grade      *steel.Grade // nil: that of its id
	atmosphere float64      // of the fire; 0: neutral
	bends      bool         // a sweep is no fault of it
	begin      func(*game)  // what it is like at the start, where it is no bar
	kept       func(*game)  // what of it has to stay
}

// bar is a bar of plain carbon steel with its end in a steady fire.
func bar(id string, width, thickness, length float64, heats, blows int, goals ...Goal) Exercise {
	return Exercise{ID: id, SteelID: "1084", WidthMm: width, ThicknessMm: thickness, LengthMm: length, FireC: 1150, HotMm: 110, ParHeats: heats, ParBlows: blows, Goals: goals}
}

func over(w What, from, to, want, within float64) Goal {
	return Goal{What: w, FromMm: from, ToMm: to, WantMm: want, WithinMm: within}
}

func tapers(w What, from, to, want, end, within float64) Goal {
	return Goal{What: w, FromMm: from, ToMm: to, WantMm: want, EndMm: end, WithinMm: within}
}

// Exercises lists them, from easy to hard.
func Exercises() []Exercise {
	cold := Goal{What: NoCold}
	straight := func(mm float64) Goal { return Goal{What: Straight, WithinMm: mm} }
	all := []Exercise{
		bar("cold", 25, 6, 150, 3, 57, over(Thick, 5, 45, 4.4, .6), cold),
		bar("lengthen", 20, 8, 140, 6, 140, Goal{What: Long, WantMm: 158, WithinMm: 2}, over(Wide, 5, 60, 20, 1.2)),
		bar("widen", 25, 8, 140, 3, 74, over(Wide, 8, 45, 30, 1.5), over(Thick, 8, 45, 5.6, 1)),
		bar("narrow", 28, 8, 140, 4, 82, over(Wide, 5, 45, 23, 1.2), over(Thick, 5, 45, 8, .9)),
		bar("straighten", 22, 5, 160, 4, 32, straight(1), cold),
		bar("corners", 24, 7, 140, 3, 50, over(Broken, 2, 40, 0, 0), tapers(Wide, 2, 18, 12, 22, 2.5), over(Thick, 2, 18, 7, 1)),
		bar("taper", 14, 14, 130, 4, 95, tapers(Thick, 4, 60, 8, 13, 1.2), tapers(Wide, 4, 60, 8, 13, 1.2)),
		bar("shoulder", 24, 9, 130, 3, 70, over(Thick, 4, 32, 5.5, .6), over(Thick, 48, 75, 9, .35), over(Wide, 48, 75, 24, .8)),
		bar("bevels", 25, 5, 140, 3, 66, over(Edge, 6, 60, 2.4, .6), over(Thick, 90, 120, 5, .3)),
		bar("precurve", 25, 5, 140, 5, 82, over(Edge, 6, 60, 2.4, .6), straight(1.5)),
		bar("lump", 20, 20, 40, 12, 435, over(Wide, 6, 55, 21, 2), over(Thick, 6, 55, 9, 1.3), Goal{What: Long, WantMm: 72, WithinMm: 2}),
		bar("save", 26, 6, 150, 5, 102, over(Thick, 5, 60, 4.2, .5), over(Wide, 5, 60, 26.5, 1.8), straight(1.2)),
	}
	for i := range all {
		ex := &all[i]
		switch ex.ID {
		case "bevels":
			ex.Bevels, ex.bends = true, true
		case "precurve":
			ex.Bevels, ex.bends = true, true
		case "straighten":
			ex.begin = bent
		case "save":
			ex.begin = spoilt
		case "shoulder":
			ex.kept = func(g *game) { g.keep(34, 75, ex.ThicknessMm) }
		}
	}
	return all
}

// bent is a bar that was left lying crooked: bowed, swept and twisted.
func bent(g *game) {
	for i := range g.cells {
		c := &g.cells[i]
		c.bow, c.sweep, c.twist = 1/400., -1/700., 20*math.Pi/180/g.lengthMm()
	}
}

// spoilt is a blade with one blow too deep in it, and bowed by it.
func spoilt(g *game) {
	for i, x := range g.middles() {
		c := &g.cells[i]
		deep := math.Exp(-(x - 32) * (x - 32) / 40)
		c.thin(.24 * deep)
		c.wide *= math.Exp(.05 * deep)
		c.bow = 1 / 900.
	}
}

// keep marks a stretch that has to stay so thick.
func (g *game) keep(from, to, thickMm float64) {
	for i, x := range g.middles() {
		if x >= from && x <= to {
			g.cells[i].keptMm = thickMm
		}
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

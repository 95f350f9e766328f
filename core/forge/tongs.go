package forge

import (
	"math"

	"coldember/core/fact"
)

// Jaw is the shape of the jaws of tongs.
type Jaw string

// The jaws.
const (
	FlatJaw Jaw = "flatJaw" // two faces: flat bar, held by its faces
	BoxJaw  Jaw = "boxJaw"  // with lips down both edges of a flat bar
	VeeJaw  Jaw = "veeJaw"  // squares, rounds and what is near them
)

// Jaws lists them.
func Jaws() []Jaw { return []Jaw{FlatJaw, BoxJaw, VeeJaw} }

// Tongs are one pair: from how thin to how thick they close on, and how wide a bar goes in.
type Tongs struct {
	Jaw     Jaw     `json:"jaw" enum:"flatJaw,boxJaw,veeJaw"`
	LeastMm float64 `json:"leastMm" doc:"thinnest that they grip"`
	MostMm  float64 `json:"mostMm" doc:"thickest that they close on with parallel jaws"`
	WideMm  float64 `json:"wideMm" doc:"widest bar between the lips of a box jaw; of other jaws 0"`
}

// UsualTongs are those most shops begin with, by an id.
func UsualTongs() map[string]Tongs {
	return map[string]Tongs{
		"thin":  {Jaw: FlatJaw, LeastMm: 2, MostMm: 5},
		"thick": {Jaw: FlatJaw, LeastMm: 5, MostMm: 10},
		"box":   {Jaw: BoxJaw, LeastMm: 4, MostMm: 8, WideMm: 32},
		"vee":   {Jaw: VeeJaw, LeastMm: 6, MostMm: 16},
	}
}

// Validate reports every figure that cannot be.
func (t Tongs) Validate(c fact.Check) {
	fact.OneOf(c, "jaw", t.Jaw, Jaws()...)
	c.Range("leastMm", t.LeastMm, .5, 100)
	c.Range("mostMm", t.MostMm, math.Max(.5, t.LeastMm), 100)
	if t.Jaw == BoxJaw {
		c.Range("wideMm", t.WideMm, 3, 200)
	}
}

// How a section may differ from what jaws are made for (judgement): a box jaw lets a bar much
// narrower than itself turn, and vee jaws want what is nearly square.
const (
	boxLeast  = .7
	boxEaseMm = .5
)

// Hold tells whether the tongs hold a section as a smith wants it: so that it neither turns
// nor slips.
func (t Tongs) Hold(widthMm, thicknessMm float64) bool {
	wide, thin := math.Max(widthMm, thicknessMm), math.Min(widthMm, thicknessMm)
	if thin < t.LeastMm || thin > t.MostMm {
		return false
	}
	switch t.Jaw {
	case BoxJaw:
		return wide <= t.WideMm+boxEaseMm && wide >= boxLeast*t.WideMm
	case VeeJaw:
		return wide <= NearlySquare*thin
	}
	return wide > NearlySquare*thin
}

// PickTongs is the place in a list of those that hold a section: those in hand, if they do,
// else the surest, a box before vees before flats; −1 where none do.
func PickTongs(all []Tongs, inHand int, widthMm, thicknessMm float64) int {
	if inHand >= 0 && inHand < len(all) && all[inHand].Hold(widthMm, thicknessMm) {
		return inHand
	}
	for _, jaw := range []Jaw{BoxJaw, VeeJaw, FlatJaw} {
		for i, t := range all {
			if t.Jaw == jaw && t.Hold(widthMm, thicknessMm) {
				return i
			}
		}
	}
	return -1
}

package listen

import (
	"cmp"
	"math"
	"slices"
)

// Anvil is what was learned of an anvil, and of where the ear is: the last dull hits that were heard on it. It is known after
// ten.
type Anvil struct {
	Levels []float64 `json:"levels" doc:"dB of the last dull hits, of full scale"`
	Bright []float64 `json:"bright" doc:"their ring over their thud, dB"`
	Rings  []float64 `json:"rings" doc:"how far their ring falls, dB"`
}

// What blows on hot steel are like before this anvil is known, and how far from the usual one may be (judgement).
const (
	Wanted        = 10 // blows, until an anvil is known
	kept          = 30
	usualBrightDb = 4.0
	usualRingsDb  = 12.0
	mostRingsDb   = 30.0
	tapScore      = 1.0
	levelPerTap   = 12.0 // dB louder is a tap
	brightPerTap  = 12.0
	ringsPerTap   = 12.0
	swellS        = .019 // what takes longer to be loudest is a voice
	mostLouder    = .5
	loudShare     = .8
	farDb         = 7.5 // fainter is another anvil
)

// Known tells whether enough was heard.
func (a *Anvil) Known() bool { return len(a.Levels) >= Wanted }

// sane is what was learned without what cannot be: it may come from a page.
func (a Anvil) sane() Anvil {
	n := min(len(a.Levels), len(a.Bright), len(a.Rings), kept)
	out := Anvil{}
	for i := range n {
		if ok := func(v float64) bool { return v >= -150 && v <= 150 }; ok(a.Levels[i]) && ok(a.Bright[i]) && ok(a.Rings[i]) {
			out.Levels, out.Bright, out.Rings = append(out.Levels, a.Levels[i]), append(out.Bright, a.Bright[i]), append(out.Rings, a.Rings[i])
		}
	}
	return out
}

func median(v []float64) float64 {
	s := slices.Sorted(slices.Values(v))
	return s[len(s)/2]
}

// loud is how loud blows on this anvil are: those from across the room are among what was heard, and fainter.
func loud(levels []float64) float64 {
	s := slices.Sorted(slices.Values(levels))
	return s[int(loudShare*float64(len(s)-1)+.5)]
}

// take tells what a hit was, and learns from it how blows on a known anvil change; on one that is not known yet it is
// heard, and no more.
func (a *Anvil) take(h *Hit) Kind {
	if !a.Known() {
		return Heard
	}
	level := loud(a.Levels)
	if tapLike(h, level, median(a.Bright), median(a.Rings)) {
		return Tap
	}
	if h.SwellS > swellS || h.LevelDb < level-farDb {
		return Far
	}
	a.learn(h)
	return Blow
}

// tapLike tells whether a hit rings as the bare anvil does, against what blows do.
func tapLike(h *Hit, level, bright, rings float64) bool {
	louder := math.Max(-mostLouder, math.Min(mostLouder, (h.LevelDb-level)/levelPerTap)) // by itself it is no tap: it may have come nearer
	return louder+(h.BrightDb-bright)/brightPerTap+(rings-h.RingsDb)/ringsPerTap > tapScore
}

func (a *Anvil) learn(h *Hit) {
	a.Levels, a.Bright, a.Rings = push(a.Levels, h.LevelDb), push(a.Bright, h.BrightDb), push(a.Rings, h.RingsDb)
}

// How a step teaches whose blows were confirmed (judgement).
const (
	mostUnsure   = 400 // hits that are kept until then
	leastHeard   = .75 // of the blows have to have been heard, or nothing is learned
	alikeDb      = 12. // blows of one step are as loud as each other, but for so much
	leastOfTaps  = .8  // of the blows are left when what rings like the bare anvil is left out
	mostTaught   = 200 // blows that a step is said to have had
	leastTaught  = 3
	mostTeachers = kept
)

// Teach has the ear learn its anvil from what it heard since it began afresh, of which so many were blows: the loudest
// of what swells at once, without what rings like the bare anvil unless too little is left, for a thin piece rings too.
// It answers whether anything was learned.
func (e *Ear) Teach(blows int) bool {
	if blows < leastTaught || blows > mostTaught {
		return false
	}
	var dull []Hit
	sudden := slices.Clone(e.unsure)
	if float64(len(sudden)) < leastHeard*float64(blows) {
		return false
	}
	levels := make([]float64, len(sudden))
	for i := range sudden {
		levels[i] = sudden[i].LevelDb
	}
	level := median(levels)
	for _, h := range sudden {
		if !tapLike(&h, level, usualBrightDb, usualRingsDb) {
			dull = append(dull, h)
		}
	}
	if float64(len(dull)) < leastOfTaps*float64(blows) {
		dull = sudden
	}
	slices.SortStableFunc(dull, func(a, b Hit) int { return cmp.Compare(b.LevelDb, a.LevelDb) })
	dull = dull[:min(len(dull), blows, mostTeachers)]
	for i := range dull {
		if dull[i].LevelDb >= dull[0].LevelDb-alikeDb {
			e.anvil.learn(&dull[i])
		}
	}
	e.unsure = nil
	return true
}

// Fresh begins anew what may be taught from, and Rest ends it: what is heard after it is of no step.
func (e *Ear) Fresh() { e.unsure, e.rests = nil, false }

// Rest is told when the piece goes back into the fire.
func (e *Ear) Rest() { e.rests = true }

// Unsure is how many hits were heard since, that may have been blows.
func (e *Ear) Unsure() int { return len(e.unsure) }

func push(v []float64, x float64) []float64 {
	if v = append(v, x); len(v) > kept {
		v = v[1:]
	}
	return v
}

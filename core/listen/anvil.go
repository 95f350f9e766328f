package listen

import (
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

// take tells what a hit was, and learns from it.
func (a *Anvil) take(h *Hit) Kind {
	level, bright, rings := h.LevelDb, usualBrightDb, usualRingsDb
	if n := len(a.Levels); n > 0 {
		w := math.Min(1, float64(n)/Wanted)
		level = loud(a.Levels)
		bright, rings = bright+w*(median(a.Bright)-bright), rings+w*(median(a.Rings)-rings)
	}
	louder := math.Max(-mostLouder, math.Min(mostLouder, (h.LevelDb-level)/levelPerTap)) // by itself it is no tap: it may have come nearer
	if louder+(h.BrightDb-bright)/brightPerTap+(rings-h.RingsDb)/ringsPerTap > tapScore {
		return Tap
	}
	if h.SwellS > swellS {
		return Far
	}
	a.Levels, a.Bright, a.Rings = push(a.Levels, h.LevelDb), push(a.Bright, h.BrightDb), push(a.Rings, h.RingsDb)
	if h.LevelDb < level-farDb {
		return Far
	}
	return Blow
}

func push(v []float64, x float64) []float64 {
	if v = append(v, x); len(v) > kept {
		v = v[1:]
	}
	return v
}

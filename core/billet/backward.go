package billet

import (
	"math"
	"slices"

	"coldember/core/fact"
	"coldember/core/forge"
)

// How a stack may be (judgement): higher it does not heat through and is not held together; and so
// many times a billet is cut and laid on itself.
const (
	MostStackMm  = 80.0
	mostRestacks = 3
	nearLayers   = .05 // of the wanted count
)

// Wanted is what a bar is to come to.
type Wanted struct {
	Layers   int     `json:"layers"`
	LengthMm float64 `json:"lengthMm" doc:"of the bar"`
}

// For is the recipe changed so that its bar is at least so long, has as near so many layers as its
// stack allows, and is laid no higher than is welded at once: its own steps if they reach it, else
// with as few times cut and laid on itself as do. Errors are *Error.
func (r Recipe) For(want Wanted, fire forge.Fire) (Recipe, error) {
	if want.Layers < 1 || want.Layers > MostLayers {
		return r, &Error{-1, "billet.wantLayers", "for", MostLayers}
	}
	if !(want.LengthMm >= 20 && want.LengthMm <= mostMm) {
		return r, &Error{-1, "billet.wantLong", "for", mostMm}
	}
	best, off := r, math.Inf(1)
	for i, steps := range r.ways() {
		try := r
		try.Steps = steps
		n, ok := try.repeatsFor(want.Layers)
		if !ok {
			continue
		}
		try.Repeats = n
		layers, ok := try.layers(n)
		miss := math.Abs(float64(layers - want.Layers))
		if !ok || miss >= off {
			continue
		}
		best, off = try, miss
		if near := float64(want.Layers) * nearLayers; i == 0 && miss <= math.Max(near, float64(len(r.Stack))) || miss <= near {
			break
		}
	}
	if math.IsInf(off, 1) {
		return r, &Error{-1, "billet.wantStack", "for", MostStackMm}
	}
	best.WantLayers = want.Layers
	return best.long(want.LengthMm, fire)
}

// ways are the steps as they are, and then those with other numbers of restacks, fewest first.
func (r *Recipe) ways() [][]Step {
	out := [][]Step{r.Steps}
	var plain []Step
	draw := Step{Kind: Draw, WidthMm: r.WidthMm, ThicknessMm: math.Min(r.WidthMm, 20)}
	end := Step{Kind: Crop, EndsMm: 10}
	again := Step{Kind: Restack, KerfMm: 2, PerFaceMm: .4}
	after := false // behind a restack, its weld and its draw belong to it
	for _, s := range r.Steps {
		switch s.Kind {
		case Restack:
			again, after = s, true
		case Fold:
			after = true
		case Draw:
			draw = s
		case Crop:
			end = s
		}
		if !after {
			plain = append(plain, s)
		}
	}
	out = append(out, plain)
	for times := 1; times <= mostRestacks; times++ {
		for pieces := 2; pieces <= 5; pieces++ {
			steps := slices.Clone(plain)
			for range times {
				cut := again
				cut.Pieces = pieces
				steps = append(steps, cut, Step{Kind: Weld, Heats: 2}, draw, end)
			}
			out = append(out, steps)
		}
	}
	return out
}

// layers of the bar with so many repeats; how long it is does not matter to them, so it is long.
func (r *Recipe) layers(repeats int) (n int, ok bool) {
	b := *r.costed(nil)
	b.Repeats, b.LengthMm = repeats, mostMm
	s, err := b.Run()
	if err != nil {
		return 0, false
	}
	return s[len(s)-1].Layers, true
}

// repeatsFor is how often the stack is laid to come nearest to a count; layers grow evenly with it.
func (r *Recipe) repeatsFor(layers int) (int, bool) {
	one, ok1 := r.layers(1)
	two, ok2 := r.layers(2)
	if !ok1 || !ok2 || two <= one {
		return 0, false
	}
	high := 0.0
	for _, l := range r.Stack {
		high += l.ThicknessMm
	}
	top := 0.0
	for _, l := range r.Cap {
		top += l.ThicknessMm
	}
	most := int((MostStackMm - top) / high)
	if most < 1 {
		return 0, false
	}
	n := 1 + int(math.Round(float64(layers-one)/float64(two-one)))
	return max(1, min(most, n)), true
}

// judgeWish tells of another count than was asked for: the stack grows by so many layers each time it
// is laid once more, so the counts on either side are all that can be had of it.
func (o *Outcome) judgeWish(r *Recipe) {
	if r.WantLayers == 0 || o.Layers == r.WantLayers {
		return
	}
	one, ok1 := r.layers(1)
	two, ok2 := r.layers(2)
	if !ok1 || !ok2 || two <= one {
		return
	}
	f := fact.Figures{"asked": float64(r.WantLayers), "layers": float64(o.Layers), "step": float64(two - one)}
	code := "billet.layersOff"
	switch lower := one + (two-one)*int(math.Floor(float64(r.WantLayers-one)/float64(two-one))); {
	case r.WantLayers < one:
		code, f["upper"] = "billet.layersMore", float64(one)
	case !r.fits(1 + (lower+two-one-one)/(two-one)):
		code, f["lower"], f["mostMm"] = "billet.layersLess", float64(o.Layers), MostStackMm
	default:
		f["lower"], f["upper"] = float64(lower), float64(lower+two-one)
	}
	o.Findings = append(o.Findings, fact.Warning{Code: code, Severity: fact.Note, Figures: f})
}

// fits tells whether a stack of so many repeats is no higher than is welded at once.
func (r *Recipe) fits(repeats int) bool {
	high, top := 0.0, 0.0
	for _, l := range r.Stack {
		high += l.ThicknessMm
	}
	for _, l := range r.Cap {
		top += l.ThicknessMm
	}
	return top+high*float64(repeats) <= MostStackMm
}

// long is the recipe with its stack cut as short as gives a bar of a length.
func (r Recipe) long(lengthMm float64, fire forge.Fire) (Recipe, error) {
	reaches := func(mm int) bool {
		r.LengthMm = float64(mm)
		o, err := r.Out(fire)
		return err == nil && o.LengthMm >= lengthMm
	}
	lo, hi := 9, int(mostMm)
	if !reaches(hi) {
		o, err := r.Out(fire)
		if err != nil {
			return r, err
		}
		return r, &Error{-1, "billet.wantLess", "for", math.Floor(o.LengthMm)}
	}
	for hi-lo > 1 {
		if mid := (lo + hi) / 2; reaches(mid) {
			hi = mid
		} else {
			lo = mid
		}
	}
	r.LengthMm = float64(hi)
	return r, nil
}

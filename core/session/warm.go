package session

import (
	"math"

	"coldember/core/plan"
	"coldember/core/thermal"
)

// heated is how hot the slowest spot of a heat is after s seconds in the fire from fromC: by
// the law of the core for a slab in these surroundings, and no hotter than the heat is to be.
func (c *Course) heated(h *Heat, fromC, s float64) float64 {
	if s <= 0 || fromC >= h.SoakC {
		return math.Min(fromC, h.SoakC)
	}
	t := thermal.Forge(c.FireC).Step(h.Slow.WidthMm, h.Slow.ThicknessMm, fromC, math.Min(s, mostFireS))
	return math.Min(t, h.SoakC)
}

// mostFireS is longer than anything needs to come to heat.
const mostFireS = 3 * 3600

// toHeatS is how long a heat takes from fromC, with what it is held.
func (c *Course) toHeatS(h *Heat, fromC float64) float64 {
	if fromC >= h.SoakC {
		return c.holdS(h)
	}
	s, err := thermal.Forge(c.FireC).TimeTo(h.Slow.WidthMm, h.Slow.ThicknessMm, fromC, h.SoakC)
	if err != nil {
		return h.FireS // as it was planned
	}
	return s + c.holdS(h)
}

func (c *Course) holdS(h *Heat) float64 {
	hold := c.HoldSPerMm * math.Min(h.Slow.ThicknessMm, h.Slow.WidthMm)
	for i := h.First; i <= h.Last && i < len(c.Steps); i++ {
		hold = math.Max(hold, c.Steps[i].HoldS)
	}
	return hold
}

// lyingC is how cold a piece is that was fromC and lay in the air for s seconds.
func lyingC(b plan.Slab, fromC, s float64) float64 {
	if s <= 0 || b.WidthMm <= 0 || b.ThicknessMm <= 0 {
		return fromC
	}
	return thermal.Air().Step(b.WidthMm, b.ThicknessMm, fromC, math.Min(s, mostLyingS))
}

// mostLyingS is when everything is cold.
const mostLyingS = 24 * 3600

// cooling is how a piece goes cold on its way out of the fire: the curve of the plan's own
// heat, entered where the piece is as hot as it came out, and run through faster or slower as
// the piece is thinner or thicker than planned (a slab cools so much the slower, as it has
// more volume to its surface: the law of cooling has nothing else of the section in it).
type cooling struct {
	curve  []plan.Moment
	limitS float64 // on the curve
	lowC   float64
	fromS  float64 // on the curve, where it came out
	stretch
}

// stretch is the time that the piece takes over that of the plan's.
type stretch struct{ times float64 }

// coolingOf is how the piece goes cold in a step, out of the fire at outC.
func coolingOf(h *Heat, s *Step, outC, times float64) cooling {
	k := cooling{curve: h.Curve, limitS: s.LimitS, lowC: s.LowC, stretch: stretch{times}}
	k.fromS = k.at(outC)
	return k
}

// atC is the temperature s seconds after the piece left the fire.
func (k *cooling) atC(s float64) float64 {
	on := k.fromS + math.Max(0, s)/k.times
	n := len(k.curve)
	if n == 0 {
		return k.lowC
	}
	for i := 1; i < n; i++ {
		a, b := k.curve[i-1], k.curve[i]
		if on <= b.S {
			return a.C + (b.C-a.C)*part(on-a.S, b.S-a.S)
		}
	}
	last := k.curve[n-1]
	if k.limitS <= last.S { // its curve ends at the limit
		return last.C
	}
	return last.C + (math.Min(last.C, k.lowC)-last.C)*math.Min(1, part(on-last.S, k.limitS-last.S))
}

// at is where on the curve the piece is this hot: nought where it is hotter than any.
func (k *cooling) at(c float64) float64 {
	for i := 1; i < len(k.curve); i++ {
		a, b := k.curve[i-1], k.curve[i]
		if c >= a.C {
			return a.S
		}
		if c >= b.C {
			return a.S + (b.S-a.S)*part(a.C-c, a.C-b.C)
		}
	}
	if n := len(k.curve); n > 0 && c < k.curve[n-1].C && k.curve[n-1].C > k.lowC {
		last := k.curve[n-1]
		return last.S + math.Max(0, k.limitS-last.S)*math.Min(1, part(last.C-c, last.C-k.lowC))
	}
	return 0
}

// leftS is how long it still lasts, s seconds after the piece left the fire: below nought it
// is past.
func (k *cooling) leftS(s float64) float64 { return (k.limitS-k.fromS)*k.times - s }

// wholeS is how long it lasts in all.
func (k *cooling) wholeS() float64 { return math.Max(0, (k.limitS-k.fromS)*k.times) }

// part is a share, of nothing all.
func part(a, b float64) float64 {
	if b <= 0 {
		return 1
	}
	return a / b
}

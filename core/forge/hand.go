package forge

import (
	"math"
	"math/rand/v2"
)

// Evenly is a hand, as Setup.ByBlow, whose blows land in turn: of any hundred as many as its share says.
const Evenly uint64 = math.MaxUint64

// hand is whose blows are looked at one by one.
type hand struct {
	rng  *rand.Rand // nil: they land in turn
	owes float64    // blows that are to land yet, of a hand that is even
}

// newHand is the hand of a seed; nil of 0.
func newHand(seed uint64) *hand {
	switch seed {
	case 0:
		return nil
	case Evenly:
		return &hand{}
	default:
		return &hand{rng: rand.New(rand.NewPCG(seed, 0xb10))}
	}
}

// lands tells whether the next blow lands, of one that lands a share of its blows.
func (h *hand) lands(share float64) bool {
	if h.rng != nil {
		return h.rng.Float64() < share
	}
	if h.owes += share; h.owes < 1 {
		return false
	}
	h.owes--
	return true
}

package heats

import (
	"math"

	"coldember/core/forge"
)

// stretch is one stretch of an operation.
type stretch struct {
	operation string
	pass      int
}

// fires tells how the heats of a stretch are laid: whether it begins in the last one before it, how many there
// are before it and by its end. Whoever follows a plan keeps to them; the figures of none leave it as it is.
type fires struct {
	shared        bool
	before, after int
}

// What a smith who follows a plan does for its heats (judgement).
const (
	keptBlows  = 0.2  // of a heat that is struck below the limit rather than going back for it where no more were planned
	leastBlows = 0.02 // of a heat that is gone back for where one more was planned
)

// lay notes that a record was laid into the last of so many heats; begun is how many there were before it.
func (s *Settled) lay(h *forge.Heat, begins bool, begun, heats int) {
	k := stretch{h.Operation, h.Pass}
	f := s.laid[k]
	if begins {
		f = fires{shared: begun == heats, before: begun}
	}
	f.after = heats
	s.laid[k] = f
}

// planned is how the heats of a stretch are laid in the plan that is followed.
func (s *Settled) planned(h *forge.Heat) fires {
	if s.follows == nil {
		return fires{}
	}
	return s.follows.laid[stretch{h.Operation, h.Pass}]
}

// room is what of the last heat a stretch may begin with: at least what is worth it where it begins there in the plan
// too, nothing where that has another heat for it.
func (f fires) room(left, least float64, heats int) float64 {
	switch {
	case f.after == 0:
		return left
	case f.shared && left > 0:
		return math.Max(left, least)
	case !f.shared && heats <= f.before:
		return 0
	}
	return left
}

// tail is what of a heat the end of a record may go on with below the limit.
func (f fires) tail(h *forge.Heat, heats int) float64 {
	switch {
	case f.after == 0 || h.ShareTo < 1:
		return lastBlows
	case heats >= f.after:
		return keptBlows
	}
	return leastBlows
}

package cutting

import (
	"context"
	"slices"
	"strconv"
)

// greedy tries the simple rules and keeps the best: longest part first into the
// fullest bar or the emptiest, and bars filled one by one as full as can be,
// each with the bars from short to long, long to short, and the shortest left
// out.
func (s *search) greedy() {
	orders := [][]int{s.order(false), s.order(true)}
	for _, order := range orders {
		for from := range len(order) {
			s.firstFit(order[from:])
			s.tightest(order[from:])
			s.fillUp(order[from:])
		}
	}
	if s.best == nil {
		s.clear()
		s.record()
	}
	s.clear()
}

func (s *search) order(reverse bool) []int {
	out := make([]int, len(s.bars))
	for i := range out {
		out[i] = i
	}
	if reverse {
		slices.Reverse(out)
	}
	return out
}

func (s *search) firstFit(bars []int) {
	s.clear()
	for i, p := range s.parts {
		for _, b := range bars {
			if s.fits(b, p) {
				s.put(i, b)
				break
			}
		}
	}
	s.record()
}

func (s *search) tightest(bars []int) {
	s.clear()
	for i, p := range s.parts {
		best := -1
		for _, b := range bars {
			if s.fits(b, p) && (best < 0 || s.load[b] > 0 && s.load[best] == 0 || (s.load[b] > 0) == (s.load[best] > 0) && s.room[b] < s.room[best]) {
				best = b
			}
		}
		if best >= 0 {
			s.put(i, best)
		}
	}
	s.record()
}

// fillUp fills each bar with the parts that come nearest to its end, by the sums
// that the parts left can make.
func (s *search) fillUp(bars []int) {
	s.clear()
	for _, b := range bars {
		for _, i := range s.nearest(b) {
			s.put(i, b)
		}
	}
	s.record()
}

// maxSums bounds the sums that are looked through for one bar.
const maxSums = 20000

// nearest are unplaced parts whose sum, kerfs counted, comes nearest to the bar
// from below; a last kerf may fall off its end.
func (s *search) nearest(b int) []int {
	limit := s.bars[b] + s.kerf
	type made struct{ part, from int }
	how := map[int]made{0: {-1, 0}}
	sums := []int{0}
	for i, p := range s.parts {
		if s.at[i] >= 0 || len(sums) > maxSums {
			continue
		}
		for _, sum := range slices.Clone(sums) {
			next := sum + p + s.kerf
			if _, seen := how[next]; !seen && next <= limit {
				how[next] = made{i, sum}
				sums = append(sums, next)
			}
		}
	}
	best := slices.Max(sums)
	var out []int
	for best > 0 {
		out = append(out, how[best].part)
		best = how[best].from
	}
	return out
}

// explore searches every layout, part by part, leaving out what cannot beat the
// best so far and what only exchanges equal bars or equal parts.
func (s *search) explore(ctx context.Context) error {
	s.clear()
	err := s.place(ctx, 0, 0, 0)
	if s.steps >= maxSteps {
		s.whole = false
	}
	return err
}

func (s *search) place(ctx context.Context, i, unplaced, unplacedUm int) error {
	if s.steps++; s.steps >= maxSteps {
		return nil
	}
	if s.steps&0xffff == 0 && ctx.Err() != nil {
		return ctx.Err()
	}
	if i == len(s.parts) {
		s.record()
		return nil
	}
	if !s.promising(i, unplaced, unplacedUm) {
		return nil
	}
	from := 0
	twin := i > 0 && s.parts[i] == s.parts[i-1]
	if twin {
		if from = s.at[i-1]; from < 0 {
			from = len(s.bars) // its twin found no place worth taking
		}
	}
	for b := from; b < len(s.bars); b++ {
		if !s.fits(b, s.parts[i]) || s.sameAsBefore(b, from) {
			continue
		}
		s.put(i, b)
		err := s.place(ctx, i+1, unplaced, unplacedUm)
		s.take(i)
		if err != nil {
			return err
		}
	}
	return s.place(ctx, i+1, unplaced+1, unplacedUm+s.parts[i])
}

// sameAsBefore tells whether an earlier bar that is tried too is of the same
// length and as empty: they only exchange names.
func (s *search) sameAsBefore(b, from int) bool {
	for a := b - 1; a >= from && s.bars[a] == s.bars[b]; a-- {
		if s.load[a] == 0 && s.load[b] == 0 {
			return true
		}
	}
	return false
}

// promising tells whether a layout from here may still be better than the best.
func (s *search) promising(i, unplaced, unplacedUm int) bool {
	b := s.bestScore
	if unplaced != b.unplaced {
		return unplaced < b.unplaced
	}
	if unplacedUm != b.unplacedUm {
		return unplacedUm < b.unplacedUm
	}
	// with no part unplaced from here on: what the bars in use consume at the
	// least, and what is still to be placed
	rest, least, used := s.suffix[i], 0, 0
	smallest := s.parts[len(s.parts)-1]
	free := 0
	for k := range s.bars {
		switch {
		case s.load[k] == 0:
			free++
		case s.room[k] < smallest: // nothing more goes on it
			least += s.consumed(k)
			used++
		default:
			least += s.bars[k] - max(0, s.room[k]) // as if the rest came back
			least -= s.kerf                        // or its last kerf fell off the end
			used++
		}
	}
	least += rest - s.kerf*min(free, len(s.parts)-i)
	if least != b.consumed {
		return least < b.consumed
	}
	if used != b.bars {
		return used < b.bars
	}
	return true
}

// bound is what no layout of the placed parts can consume less than: the parts
// and their kerfs, less the kerf that each bar filled to its end may save; no
// more bars can be filled than the parts are long for.
func (s *search) bound() int {
	least, long := 0, 0
	for i, b := range s.best {
		if b >= 0 {
			long += s.parts[i] + s.kerf
		}
	}
	least = long
	for _, l := range s.bars { // shortest first
		if long < l {
			break
		}
		long -= l
		least -= s.kerf
	}
	return least
}

func itoa(i int) string { return strconv.Itoa(i) }

package learn

import (
	"cmp"
	"math"
	"slices"

	"coldember/core/session"
)

// Habits are what else a log says of a smith.
type Habits struct {
	Smith string `json:"smith"`
	// StopsC is by how much the last heats that were used up ended over the limit, °C, the middle one of them, since a crumb is worked off below it now and then; negative: too cold.
	StopsC float64 `json:"stopsC"`
	Heats  int     `json:"heats" doc:"of the last of them"`
	// FallsOff is how much slower the blows came in the last third of a piece than in its first.
	FallsOff float64 `json:"fallsOffShare"`
	Pieces   int     `json:"pieces" doc:"that were counted for it"`
	// ThumbLoss is what of the bar's weight went, on the mean: the thumb figure this smith should use.
	ThumbLoss float64 `json:"thumbLossShare"`
	Weighed   int     `json:"weighed"`
}

// sums are what the pieces of one smith come to.
type sums struct {
	stops       []session.Trip
	lows        []float64
	falls       []float64
	lost, start float64
	weighed     int
}

// stopped takes up where the heats of a piece stopped, and answers with the pace of those whose blows were counted.
func (s *sums) stopped(w *Worked) []float64 {
	var rates []float64
	trips := map[int]int{}
	for i := range w.Book.Heats {
		trips[w.Book.Heats[i].Heat]++
	}
	for i := range w.Book.Heats {
		h := &w.Book.Heats[i]
		if w.Course.Cycles(h.Heat) || h.LastMs == 0 || h.EndC <= 0 || h.Heat < 1 || h.Heat > len(w.Course.Heats) {
			continue
		}
		if low, ok := leftCold(w.Course, h.Heat); ok && trips[h.Heat] == 1 { // in several trips it was shared out
			s.stops, s.lows = append(s.stops, h.Trip), append(s.lows, low)
		}
		if h.Counted && h.FirstMs > 0 && h.LastMs > h.FirstMs && h.Blows > 0 {
			planned := w.Course.Heats[h.Heat-1]
			if planned.Blows > 0 && planned.WorkS > 0 { // against the pace of the plan, since taps are quicker than blows
				rates = append(rates, float64(h.Blows)/(float64(h.LastMs-h.FirstMs)/1000)/(float64(planned.Blows)/planned.WorkS))
			}
		}
	}
	return rates
}

// usedUpS is how near to its limit a heat is planned to end that is used up, s.
const usedUpS = 1.0

// leftCold is where a heat ends that is planned to be used up: at its limit, or below it where its last blows are
// planned there. One that ends because its work is done says nothing of when a smith stops.
func leftCold(c *session.Course, heat int) (low float64, ok bool) {
	last := &c.Steps[c.Heats[heat-1].Last]
	return math.Min(last.LowC, c.Heats[heat-1].LowC), last.LowC > 0 && last.ToShare < 1 && last.LimitS-last.BeginS-last.WorkS < usedUpS
}

// HabitsOf sums the habits up, smith by smith; the pieces in any order.
func HabitsOf(pieces []Worked) []Habits {
	by := map[string]*sums{}
	pieces = slices.Clone(pieces)
	slices.SortFunc(pieces, func(a, b Worked) int {
		return cmp.Or(cmp.Compare(a.Book.LastMs, b.Book.LastMs), cmp.Compare(a.Session, b.Session))
	})
	for _, w := range pieces {
		s := by[w.Smith]
		if s == nil {
			s = &sums{}
			by[w.Smith] = s
		}
		rates := s.stopped(&w)
		if n := len(rates) / 3; len(rates) >= leastTrips {
			s.falls = append(s.falls, 1-mean(rates[len(rates)-n:])/mean(rates[:n]))
		}
		if lost, _, ok := weighed(w.Book); ok && w.Book.Finished && len(w.Book.Faults) == 0 {
			s.lost, s.start, s.weighed = s.lost+lost, s.start+w.Book.StartG, s.weighed+1
		}
	}
	out := []Habits{}
	for smith, s := range by {
		h := Habits{Smith: smith, Pieces: len(s.falls), Weighed: s.weighed}
		if h.Heats = min(mostStopped, len(s.stops)); h.Heats > 0 {
			var over []float64
			for i := len(s.stops) - h.Heats; i < len(s.stops); i++ {
				over = append(over, s.stops[i].EndC-s.lows[i])
			}
			slices.Sort(over)
			h.StopsC = (over[(len(over)-1)/2] + over[len(over)/2]) / 2
		}
		if len(s.falls) > 0 {
			h.FallsOff = mean(s.falls)
		}
		if s.start > 0 {
			h.ThumbLoss = s.lost / s.start
		}
		out = append(out, h)
	}
	slices.SortFunc(out, func(a, b Habits) int { return cmp.Compare(a.Smith, b.Smith) })
	return out
}

func mean(v []float64) float64 {
	sum := 0.0
	for _, x := range v {
		sum += x
	}
	return sum / math.Max(1, float64(len(v)))
}

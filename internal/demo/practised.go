package demo

import (
	"time"

	"coldember/core/practice"
	"coldember/internal/doc"
)

// practised puts on the sheet what the two of the yard have practised: the second one broke off once, and came back to it.
func (y *yard) practised(c *clock, now time.Time) {
	for i, p := range []struct {
		who, exercise string
		share         float64 // of it that was done
		undone        int
	}{
		{SecondHand, "cold", .4, 3}, {SecondHand, "cold", 1, 1}, {SecondHand, "straighten", 1, 0}, {YardHand, "taper", 1, 0}, {SecondHand, "corners", 1, 2},
	} {
		way, err := practice.Pilot(y.ctx, practice.Find(p.exercise), uint64(40+i))
		if y.err = err; err != nil {
			return
		}
		c.daysBefore(now, 30-5*i)
		_, err = y.work.KeepPractised(y.ctx, doc.Practised{Who: p.who, Exercise: p.exercise, Seed: uint64(40 + i), Undone: p.undone, Actions: way[:max(1, int(p.share*float64(len(way))))]}, "")
		if y.err = err; err != nil {
			return
		}
	}
}

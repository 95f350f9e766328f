package heats

// stretch is one stretch of an operation.
type stretch struct {
	operation string
	pass      int
}

// What a smith who follows a plan does for its trips (judgement).
const (
	keptBlows  = 0.3  // of a heat that is struck below the limit rather than going back for it where no more were planned (.2–.4)
	leastBlows = 0.02 // of a heat that is gone back for where one more was planned (0–.1)
)

// planned is how a spell is laid in the plan that is followed; nil where none is, or not this.
func (c *counting) planned(b *spell) *tally {
	if c.follows == nil || c.follows.laid == nil {
		return nil
	}
	h := &c.run.Heats[b.i0]
	if t, ok := c.follows.laid[stretch{h.Operation, h.Pass}]; ok && !b.treats {
		return &t
	}
	return nil
}

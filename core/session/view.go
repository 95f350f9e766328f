package session

import (
	"math"
)

// Last seconds of a heat, and the time after its end, by which a piece is taken as back in
// the fire though nobody said so (judgement: nobody strikes cold steel for so long).
const (
	lastS  = 3
	graceS = 8
)

// View is what a screen shows of a session at a moment.
type View struct {
	Phase   Phase `json:"phase" enum:"ready,fire,out,away,finished"`
	Step    int   `json:"step"`
	Heat    int   `json:"heat" doc:"of the course"`
	Trip    int   `json:"trip" doc:"heats taken, that in hand among them; cycles are counted apart"`
	Heats   int   `json:"heats" doc:"that it will come to, by what is left of the course"`
	Cycle   int   `json:"cycle,omitempty" doc:"cycles taken, that in hand among them"`
	Cycles  int   `json:"cycles,omitempty" doc:"that it will come to"`
	Cycling bool  `json:"cycling,omitempty" doc:"the step shown is one"`
	// Assumed: nobody said that the piece went back, but it is cold by now.
	Assumed bool `json:"assumed,omitempty"`

	NowC   float64 `json:"nowC" doc:"as hot as the piece is, by the law"`
	SoakC  float64 `json:"soakC"`
	LowC   float64 `json:"lowC"`
	SinceS float64 `json:"sinceS" doc:"in this phase"`
	LeftS  float64 `json:"leftS" doc:"of the heat while it is out, until it is hot while it is in the fire; below nought: past"`
	WholeS float64 `json:"wholeS" doc:"that it lasts, or takes, in all"`
	Last   bool    `json:"last,omitempty" doc:"the last three seconds of a heat"`
	Cold   bool    `json:"cold,omitempty" doc:"too cold to strike"`
	Hot    bool    `json:"hot,omitempty" doc:"the fire has done its part"`
	Blows  int     `json:"blows" doc:"by the pace of the plan, so far"`
	Side   Side    `json:"side,omitempty" enum:"mark,other" doc:"to be up next: that which was worked less"`

	Treating   bool    `json:"treating,omitempty" doc:"hardening and tempering are in hand"`
	Treated    bool    `json:"treated,omitempty" doc:"all of them are done"`
	Treat      int     `json:"treat,omitempty" doc:"the step of them"`
	TreatS     float64 `json:"treatS,omitempty" doc:"since the one before"`
	TreatLeftS float64 `json:"treatLeftS,omitempty" doc:"of what it lasts; below nought: past"`

	HeatsLeft int        `json:"heatsLeft"`
	TimeLeftS float64    `json:"timeLeftS"`
	NeedFuelG float64    `json:"needFuelG"`
	HaveFuelG float64    `json:"haveFuelG,omitempty"`
	FuelShort bool       `json:"fuelShort,omitempty"`
	Rest      bool       `json:"rest,omitempty" doc:"rest the arm before this heat"`
	Held      [2]float64 `json:"heldMm" doc:"height and thickness where the tongs hold"`
}

// Show is a state at a moment of the time that its events are told in.
func (s *State) Show(c *Course, nowMs int64) View {
	v := View{Phase: s.Phase, Step: s.Step, SinceS: seconds(s.SinceMs, nowMs)}
	v.Trip, v.Cycle = s.taken(c)
	if s.treat(c, &v, nowMs) {
		return v
	}
	step := s.Step
	if v.Phase == OutOf && len(s.Trips) > 0 && len(c.Steps) > 0 {
		step = s.outOf(c, &v, nowMs)
	}
	if v.Phase == InFire && !v.Assumed {
		s.intoFire(c, &v, step, s.SinceMs, s.FromC, nowMs)
	}
	v.Step = step
	if step >= len(c.Steps) {
		v.Heats, v.Cycles = v.Trip, v.Cycle
		if v.Phase != Away {
			v.Phase = Finished
		}
		return v
	}
	st, h := &c.Steps[step], c.HeatOf(step)
	v.Heat = st.Heat
	if v.Phase == Ready || v.Phase == Away {
		v.SoakC, v.LowC = h.SoakC, st.LowC
		v.NowC = lyingC(h.Slow, s.FromC, v.SinceS)
		v.LeftS = c.toHeatS(h, v.NowC)
		v.WholeS = v.LeftS
	}
	if v.Phase == OutOf && st.WorkS > 0 {
		v.Blows = int(math.Min(float64(st.Blows), math.Max(0, float64(st.Blows)*(v.SinceS-s.begunS(c))/st.WorkS)))
	}
	if st.Sides {
		v.Side = MarkSide
		if s.Sides[0] > s.Sides[1] {
			v.Side = OtherSide
		}
	}
	s.toCome(c, &v, nowMs)
	v.Held = [2]float64{h.Held.WidthMm, h.Held.ThicknessMm}
	v.Rest = h.Number > 1 && c.heat(h.Number-1).Rest && v.Phase == InFire
	return v
}

// outOf fills in what is seen of a piece that is out of the fire, or would be if anybody had said
// that it went back; returns the step in hand.
func (s *State) outOf(c *Course, v *View, nowMs int64) int {
	step := s.Step
	k := s.cooling(c)
	v.LeftS, v.WholeS, v.NowC, v.LowC = k.leftS(v.SinceS), k.wholeS(), k.atC(v.SinceS), k.lowC
	if lasts := s.lastsS(c); v.SinceS > lasts+graceS {
		// as Fold will take it, once something is told; what cools in a cycle lies there
		v.Assumed, v.Phase = true, InFire
		heat := c.Steps[min(step, len(c.Steps)-1)].Heat
		for step < len(c.Steps) && c.Steps[step].Heat == heat {
			step++
		}
		if s.cycling(c) {
			v.Phase = Ready
		}
		s.intoFire(c, v, step, s.SinceMs+int64(lasts*1000), k.lowC, nowMs)
	} else {
		v.Last, v.Cold = v.LeftS <= lastS && v.LeftS > 0, v.LeftS <= 0
		v.SoakC = c.HeatOf(min(step, len(c.Steps)-1)).SoakC
	}
	return step
}

// taken counts the heats and the cycles that were taken.
func (s *State) taken(c *Course) (heats, cycles int) {
	for i := range s.Trips {
		if c.Cycles(s.Trips[i].Heat) {
			cycles++
		} else {
			heats++
		}
	}
	return heats, cycles
}

// lastsS is how long a heat takes, fire and anvil.
func (h *Heat) lastsS() float64 { return h.FireS + h.CarryS + h.WorkS + h.BrushS }

// cycling tells whether the step in hand is no work of the hammer: it cools for as long as it
// does.
func (s *State) cycling(c *Course) bool { return s.Step < len(c.Steps) && c.Steps[s.Step].Cycle }

// begunS is when the step in hand began, seconds after the piece left the fire.
func (s *State) begunS(c *Course) float64 {
	t := &s.Trips[len(s.Trips)-1]
	switch n := len(t.Steps); {
	case n > 0:
		return seconds(t.OutMs, t.Steps[n-1].AtMs)
	case t.FirstMs > 0:
		return seconds(t.OutMs, t.FirstMs)
	}
	return c.HeatOf(s.Step).CarryS
}

// intoFire fills in what is seen of a piece that is in the fire since a time.
func (s *State) intoFire(c *Course, v *View, step int, sinceMs int64, fromC float64, nowMs int64) {
	h := c.HeatOf(step)
	v.Last, v.Cold = false, false
	v.SinceS = seconds(sinceMs, nowMs)
	if h == nil {
		v.NowC, v.LeftS, v.WholeS = fromC, 0, 0
		return
	}
	v.SoakC, v.LowC = h.SoakC, c.Steps[step].LowC
	v.WholeS = c.toHeatS(h, fromC)
	v.LeftS = v.WholeS - v.SinceS
	v.NowC = c.heated(h, fromC, v.SinceS)
	v.Hot = v.LeftS <= 0
}

// toCome is what the rest of the course takes.
func (s *State) toCome(c *Course, v *View, nowMs int64) {
	first := c.Steps[v.Step].Heat
	for i := range c.Heats {
		h := &c.Heats[i]
		if h.Number < first || h.Number == first && v.Phase == OutOf {
			continue
		}
		if c.Cycles(h.Number) {
			v.Cycles++
		} else {
			v.HeatsLeft++
		}
		v.TimeLeftS += h.lastsS()
	}
	v.NeedFuelG = c.FuelKgPerH / 3.6 * v.TimeLeftS
	v.Heats, v.Cycles = v.Trip+v.HeatsLeft, v.Cycle+v.Cycles
	v.Cycling = c.Cycles(first)
	if s.FuelAtMs > 0 {
		burnt := c.FuelKgPerH / 3.6 * s.burningS(nowMs)
		v.HaveFuelG = math.Max(0, s.FuelG-burnt)
		v.FuelShort = v.HaveFuelG < v.NeedFuelG
	}
}

// burningS is how long the fire has burned since the fuel was looked at: while there was work.
func (s *State) burningS(nowMs int64) (sum float64) {
	for _, k := range s.Sittings {
		if to := s.burnedToMs(k, nowMs); to > s.FuelAtMs {
			sum += seconds(max(k.FromMs, s.FuelAtMs), to)
		}
	}
	return sum
}

// burnedToMs is until when the fire burned in a sitting: one that was not ended burns until the piece is forged, and no longer.
func (s *State) burnedToMs(k Sitting, nowMs int64) int64 {
	switch {
	case k.ToMs != 0:
		return k.ToMs
	case s.Phase == Finished:
		return s.SinceMs
	}
	return max(nowMs, k.FromMs)
}

// Next is what going on does in this view: the kind of the event that one touch makes, "" where
// there is nothing to go on with.
func (s *State) Next(c *Course, v *View) Kind {
	switch v.Phase {
	case Finished:
		if v.Treating {
			return Treated
		}
		if v.Treated {
			return ""
		}
		if s.Step < len(c.Steps) { // it is taken as done, and nobody said so
			return Done
		}
	case Ready, Away:
		return In
	case InFire:
		return Out
	case OutOf:
		if v.Step+1 < len(c.Steps) && c.Steps[v.Step+1].Heat == c.Steps[v.Step].Heat {
			return Done
		}
		if v.Step+1 >= len(c.Steps) {
			return Done
		}
		return Back
	}
	return ""
}

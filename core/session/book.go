package session

import (
	"math"
	"slices"

	"coldember/core/steel"
)

// Book is what was, against what was planned: heat by heat, by operation, and in all.
type Book struct {
	Heats      []HeatDone      `json:"heats"`
	Operations []OperationDone `json:"operations"`
	Readings   []Told          `json:"readings"`
	Faults     []Told          `json:"faults"`
	Notes      []Told          `json:"notes" doc:"and pictures"`
	Treatment  []Told          `json:"treatment" doc:"what was done and seen of hardening and tempering"`
	Final      []Told          `json:"final" doc:"what the finished knife came to"`
	Aim        Aim             `json:"aim" doc:"and what it was to"`
	Sittings   []Sitting       `json:"sittings"`
	Totals     Sum             `json:"totals"`
	StartG     float64         `json:"startG,omitempty" doc:"of the bar as it was planned"`
	Step       int             `json:"step"`
	Steps      int             `json:"steps"`
	Finished   bool            `json:"finished"`
	StartedMs  int64           `json:"startedMs,omitempty"`
	LastMs     int64           `json:"lastMs,omitempty"`
	// Simulated is a log that a stand-in told, or told part of: it is simulated as a whole.
	Simulated bool `json:"simulated,omitempty"`
	// Measured is the piece as it was read last, over the piece as planned after the same heat.
	Measured []Measured `json:"measured"`
}

// HeatDone is one heat as it was taken.
type HeatDone struct {
	Trip
	FireS   float64 `json:"fireS" doc:"0 where nobody told"`
	WorkS   float64 `json:"workS"`
	PlanS   float64 `json:"planS" doc:"at the anvil"`
	PlanC   float64 `json:"planC"`
	Blows   int     `json:"blows"`
	Counted bool    `json:"counted" doc:"else by the pace of the plan"`
}

// OperationDone is one operation, planned and as it was.
type OperationDone struct {
	Operation string  `json:"operation"`
	Kind      string  `json:"kind"`
	PlanHeats float64 `json:"planHeats"`
	Heats     float64 `json:"heats"`
	PlanBlows int     `json:"planBlows"`
	Blows     int     `json:"blows"`
	PlanS     float64 `json:"planS"`
	S         float64 `json:"s"`
	NotYet    int     `json:"notYet,omitempty" doc:"times that it was not done as planned"`
	Past      int     `json:"past,omitempty"`
	Done      bool    `json:"done"`
}

// Sum is what all of it comes to. The plan's figures are of what has been done so far, so
// that they can be compared.
type Sum struct {
	Heats     int     `json:"heats"`
	PlanHeats int     `json:"planHeats"`
	Cycles    int     `json:"cycles" doc:"counted apart"`
	Blows     int     `json:"blows"`
	PlanBlows int     `json:"planBlows"`
	FireS     float64 `json:"fireS"`
	WorkS     float64 `json:"workS"`
	PlanS     float64 `json:"planS" doc:"at the anvil"`
	LastsS    float64 `json:"lastsS" doc:"all sittings"`
	WeightG   float64 `json:"weightG,omitempty" doc:"as it was last weighed"`
	PlanG     float64 `json:"planG,omitempty" doc:"what it was to weigh then"`
	FuelG     float64 `json:"fuelG" doc:"by the hours that the fire burned"`
	PlanFuelG float64 `json:"planFuelG"`
	Faults    int     `json:"faults"`
	Near      int     `json:"near" doc:"readings as near as they had to be"`
	Readings  int     `json:"readings" doc:"that there was a figure for"`
}

// Measured is one reading of a section that still holds: nothing was worked there since.
type Measured struct {
	Quantity Quantity `json:"quantity" enum:"height,thickness,edgeThickness,rise,length,weight,temperature,fuel"`
	AtMm     float64  `json:"atMm"`
	Mm       float64  `json:"mm"`
	WantMm   float64  `json:"wantMm"`
	Heat     int      `json:"heat" doc:"of the course, after which it was read"`
}

// BookOf sums a session up.
func BookOf(c *Course, events []Event) Book {
	s := Fold(c, events)
	b := Book{
		Heats: []HeatDone{}, Operations: []OperationDone{}, Readings: []Told{}, Faults: []Told{}, Notes: []Told{}, Treatment: []Told{}, Final: []Told{}, Aim: c.Aim, StartG: c.StartG, Measured: []Measured{},
		Sittings: s.Sittings, Step: s.Step, Steps: len(c.Steps), Finished: s.Step >= len(c.Steps), StartedMs: s.StartedMs,
		Simulated: slices.ContainsFunc(events, func(e Event) bool { return e.ByStandIn() }),
	}
	of := map[string]int{}
	for i := range c.Steps {
		st := &c.Steps[i]
		if _, ok := of[st.Operation]; !ok {
			of[st.Operation] = len(b.Operations)
			b.Operations = append(b.Operations, OperationDone{Operation: st.Operation, Kind: st.Kind})
		}
		if i >= s.Step {
			continue
		}
		o, h := &b.Operations[of[st.Operation]], c.HeatOf(i)
		o.PlanHeats += share(st.WorkS, h.WorkS, h.Last-h.First+1)
		o.PlanBlows += st.Blows
		o.PlanS += st.WorkS
		o.Done = true
	}
	for i := s.Step; i < len(c.Steps); i++ {
		b.Operations[of[c.Steps[i].Operation]].Done = false
	}
	for i := range s.Trips {
		b.heat(c, &s.Trips[i], of)
	}
	b.told(c, &s)
	b.sum(c, &s)
	return b
}

// share of a heat that one of its steps is.
func share(workS, wholeS float64, steps int) float64 {
	if wholeS <= 0 {
		return 1 / float64(max(1, steps))
	}
	return workS / wholeS
}

// heat adds a trip.
func (b *Book) heat(c *Course, t *Trip, of map[string]int) {
	h := HeatDone{Trip: *t}
	if t.InMs > 0 {
		h.FireS = seconds(t.InMs, t.OutMs)
	}
	if p := c.heat(t.Heat); p != nil {
		h.PlanS, h.PlanC = p.WorkS, p.Curve[len(p.Curve)-1].C
	}
	from, to := t.FirstMs, t.LastMs
	if from == 0 {
		from = t.OutMs + int64(c.HeatOf(c.firstOf(t)).CarryS*1000)
	}
	if to == 0 {
		to = t.EndMs
	}
	if to > from {
		h.WorkS = seconds(from, to)
	}
	// the time of a heat is its steps', as the plan divides it; what was counted counts
	planS := 0.0
	for _, k := range t.Steps {
		planS += c.Steps[k.Step].WorkS
	}
	h.Counted = len(t.Steps) > 0
	for _, k := range t.Steps {
		st := &c.Steps[k.Step]
		o := &b.Operations[of[st.Operation]]
		part := share(st.WorkS, planS, len(t.Steps))
		blows := k.Blows
		if blows == 0 && st.Blows > 0 {
			h.Counted = false
			if st.WorkS > 0 {
				blows = int(math.Round(float64(st.Blows) * h.WorkS * part / st.WorkS))
			}
		}
		h.Blows += blows
		o.Heats, o.S, o.Blows = o.Heats+part, o.S+h.WorkS*part, o.Blows+blows
		if k.NotYet {
			o.NotYet++
		}
		if k.Past {
			o.Past++
		}
	}
	b.Heats = append(b.Heats, h)
}

// firstOf is the first step of a trip.
func (c *Course) firstOf(t *Trip) int {
	if len(t.Steps) > 0 {
		return t.Steps[0].Step
	}
	if h := c.heat(t.Heat); h != nil {
		return h.First
	}
	return 0
}

// told sorts what was told.
func (b *Book) told(c *Course, s *State) {
	for i := range s.Told {
		t := s.Told[i]
		switch t.Kind {
		case Read:
			b.Readings = append(b.Readings, t)
			if t.Wanted {
				b.Totals.Readings++
				if t.Within {
					b.Totals.Near++
				}
			}
		case Completed:
			b.Final = append(b.Final, t)
		case Treated, Saw:
			b.Treatment = append(b.Treatment, t)
		case Faulty:
			b.Faults = append(b.Faults, t)
		default:
			b.Notes = append(b.Notes, t)
		}
	}
	for i := range b.Readings {
		r := &b.Readings[i]
		if !r.Wanted || r.Reading.Quantity == Length || c.worked(s, r) {
			continue
		}
		b.Measured = append(b.Measured, Measured{Quantity: r.Reading.Quantity, AtMm: r.Reading.AtMm, Mm: r.Reading.Mm, WantMm: r.WantMm, Heat: r.OfHeat})
	}
}

// worked tells whether the place of a reading was struck after it was read.
func (c *Course) worked(s *State, r *Told) bool {
	for _, t := range s.Trips {
		if t.Number <= r.OfTrip {
			continue
		}
		for _, k := range t.Steps {
			st := &c.Steps[k.Step]
			if st.Goal != nil && r.Reading.AtMm >= st.FromMm && r.Reading.AtMm <= st.ToMm {
				return true
			}
		}
	}
	return false
}

// sum adds everything up.
func (b *Book) sum(c *Course, s *State) {
	t := &b.Totals
	t.Faults = len(b.Faults)
	t.Heats, t.Cycles = s.taken(c)
	for i := range b.Heats {
		h := &b.Heats[i]
		if t.FireS += h.FireS; !c.Cycles(h.Heat) {
			t.Blows, t.WorkS = t.Blows+h.Blows, t.WorkS+h.WorkS
		}
		b.LastMs = max(b.LastMs, h.OutMs, h.EndMs)
	}
	fireMs := b.LastMs // what is told later, of hardening or grinding, is not of this fire
	for i := range s.Told {
		b.LastMs = max(b.LastMs, s.Told[i].OnMs)
	}
	done, scale := 0, 0.0
	for i := range c.Heats {
		h := &c.Heats[i]
		if h.Last >= s.Step {
			continue
		}
		if t.PlanFuelG += c.FuelKgPerH / 3.6 * h.lastsS(); !c.Cycles(h.Number) {
			done++
		}
	}
	t.PlanHeats = done
	for i := range min(s.Step, len(c.Steps)) {
		if c.Steps[i].Cycle {
			continue
		}
		t.PlanBlows, t.PlanS = t.PlanBlows+c.Steps[i].Blows, t.PlanS+c.Steps[i].WorkS
	}
	for _, k := range s.Sittings {
		t.LastsS += seconds(k.FromMs, s.burnedToMs(k, fireMs))
	}
	t.FuelG = c.FuelKgPerH / 3.6 * t.LastsS
	for i := len(b.Readings) - 1; i >= 0; i-- {
		if r := &b.Readings[i]; r.Reading.Quantity == Weight {
			t.WeightG = r.Reading.MassG
			for k := range c.Heats {
				if c.Heats[k].Number <= r.OfHeat {
					scale += c.Heats[k].ScaleMm3
				}
			}
			t.PlanG = c.StartG - scale*steel.DensityGPerCm3/1000
			break
		}
	}
}

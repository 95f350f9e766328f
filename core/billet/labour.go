package billet

import (
	"context"
	"math"

	"coldember/core/forge"
)

// Labour is what a billet takes at the fire: drawn by hand or by a machine, welded by the hand.
type Labour struct {
	Steps []StepLabour `json:"steps" doc:"one a step of the recipe"`
	Heats float64      `json:"heats"`
	Blows float64      `json:"blows"`
	TimeS float64      `json:"timeS" doc:"of everything, the welding heats with it"`
	FuelG float64      `json:"fuelG"`
	// TooStiff are the steps that cannot be worked so: by place, from 0.
	TooStiff []int `json:"tooStiff,omitempty"`
}

// StepLabour is that of one step; nought where no fire is lit for it.
type StepLabour struct {
	Heats float64 `json:"heats"`
	Blows float64 `json:"blows"`
	TimeS float64 `json:"timeS"`
	FuelG float64 `json:"fuelG"`
	// SaveG are the grams that a tenth of a millimetre less ground off would leave, of a step that grinds: what flush
	// sides, even thickness and clean faces are worth.
	SaveG float64 `json:"saveG,omitempty"`
}

// Bounds of the reckoning: cells that a billet is looked at in, and steps of them in all.
const (
	labourCells  = 6
	labourBudget = 4_000_000
	lessMm       = .1
)

// Labour goes through the steps with the engine of the heats. The machine, where there is one, draws;
// its welds are set by hand, lightly, twice over both faces.
func (r *Recipe) Labour(ctx context.Context, o *Outcome, setup forge.Setup, m *forge.Machine) Labour {
	l := Labour{Steps: make([]StepLabour, len(r.Steps)), TimeS: o.FireS, FuelG: o.FuelG}
	setup.Fire.TempC = math.Max(setup.Fire.TempC, r.WeldC+overWeldC)
	budget := forge.NewBudget(ctx, labourBudget)
	for i := range r.Steps {
		s := &r.Steps[i]
		if i+1 >= len(o.States) || ctx.Err() != nil {
			break
		}
		from, to := &o.States[i], &o.States[i+1]
		at := &l.Steps[i]
		switch s.Kind {
		case Draw:
			if !at.drawn(setup, m, budget, from, to) {
				l.TooStiff = append(l.TooStiff, i)
			}
			l.TimeS += at.TimeS
			l.FuelG += at.FuelG
		case Weld:
			at.Heats = float64(s.Heats)
			at.Blows = float64(s.Heats) * setTwice * forge.Coverage(from.LengthMm, from.WidthMm, setup.Smith.FaceMm*.75, setup.Smith.FaceMm*.75, 2)
			at.TimeS = at.Blows / math.Max(.2, setup.Smith.RatePerS)
			l.TimeS += at.TimeS // their fire is counted with the welds
		case Clean, GrindSides, Restack, Fold:
			at.SaveG = r.saves(i)
		}
		l.Heats += at.Heats
		l.Blows += at.Blows
	}
	return l
}

// setTwice is how often the blows of a weld go over both faces in each heat (judgement).
const setTwice = 2.0

// drawn fills in what it takes to bring a billet from one section to another; false where the hammer
// or the machine does not move it.
func (at *StepLabour) drawn(setup forge.Setup, m *forge.Machine, budget *forge.Budget, from, to *State) bool {
	cells := make([]forge.Cell, labourCells)
	targets := make([]forge.Target, labourCells)
	for k := range cells {
		cells[k] = forge.Cell{Zone: "blade", VolumeMm3: from.VolumeMm3 / labourCells, WidthMm: from.WidthMm, ThicknessMm: from.ThicknessMm, EdgeMm: from.ThicknessMm, SpineMm: from.ThicknessMm, TempC: 20}
		targets[k] = forge.Target{WidthMm: to.WidthMm, ThicknessMm: to.ThicknessMm, EdgeMm: to.ThicknessMm, SpineMm: to.ThicknessMm}
	}
	run, err := forge.NewRun(setup, forge.Bar{Cells: cells})
	if err != nil {
		return false
	}
	run.Budget = budget
	op := forge.Operation{ID: "draw", Kind: forge.BreakDown, Face: forge.PeenAcross, Last: labourCells - 1, Targets: targets}
	if m.Does(op.Kind) {
		op.Machine, op.Fixed = m, true
	}
	err = run.Do(&op)
	for _, h := range run.Heats {
		at.Heats += h.Fraction
		at.Blows += h.Blows
		at.TimeS += (h.FireS+h.CarryS+h.BrushS)*h.Fraction + h.WorkS
	}
	at.FuelG = setup.Fire.FuelG(at.TimeS)
	return err == nil
}

// saves is what a step that grinds leaves of the bar where it grinds a tenth of a millimetre less, g.
func (r *Recipe) saves(i int) float64 {
	end := func(lessMm float64) float64 {
		b := r.costed(nil)
		s := &b.Steps[i]
		s.PerFaceMm, s.PerSideMm = math.Max(0, s.PerFaceMm-lessMm), math.Max(0, s.PerSideMm-lessMm)
		states, err := b.Run()
		if err != nil {
			return 0
		}
		return states[len(states)-1].VolumeMm3
	}
	return math.Max(0, grams(end(lessMm)-end(0)))
}

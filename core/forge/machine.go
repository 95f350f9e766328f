package forge

import (
	"fmt"
	"math"

	"coldember/core/fact"
)

// MachineKind is what does the heavy work beside the hammer.
type MachineKind string

// A power hammer strikes, a press squeezes.
const (
	PowerHammer MachineKind = "powerHammer"
	Press       MachineKind = "press"
)

// Dies are the shape of a machine's dies.
type Dies string

// FlatDies keep the surface true; DrawingDies are narrow and lengthen;
// CrownedDies, laid diagonally, move steel both ways.
const (
	FlatDies    Dies = "flat"
	DrawingDies Dies = "drawing"
	CrownedDies Dies = "crowned"
)

// Machine does the heavy operations: break-down, point, tang, profile. Corners,
// shoulders, bevels, straightening, planishing and the cut stay with the hammer.
type Machine struct {
	Kind       MachineKind `json:"kind" enum:"powerHammer,press"`
	TupKg      float64     `json:"tupKg" doc:"of a power hammer"`
	SpeedMPerS float64     `json:"speedMPerS" doc:"of the tup or ram as it meets the work"`
	RatePerS   float64     `json:"ratePerS" doc:"strokes a second"`
	ForceKN    float64     `json:"forceKN" doc:"of a press"`
	Dies       Dies        `json:"dies" enum:"flat,drawing,crowned"`
	BiteMm     float64     `json:"biteMm" doc:"contact along the bar"`
}

// NewMachine is a usual one of its kind: a hammer of 25 kg, or a press of 200 kN
// (about twenty tonnes), with drawing dies.
func NewMachine(k MachineKind) *Machine {
	if k == Press {
		return &Machine{Kind: Press, SpeedMPerS: .03, RatePerS: .5, ForceKN: 200, Dies: DrawingDies, BiteMm: 20}
	}
	return &Machine{Kind: PowerHammer, TupKg: 25, SpeedMPerS: 4.5, RatePerS: 3, Dies: DrawingDies, BiteMm: 22}
}

// Validate reports every figure that cannot be.
func (m *Machine) Validate(c fact.Check) {
	if m == nil {
		return
	}
	fact.OneOf(c, "kind", m.Kind, PowerHammer, Press)
	fact.OneOf(c, "dies", m.Dies, FlatDies, DrawingDies, CrownedDies)
	c.Range("ratePerS", m.RatePerS, .05, 8)
	c.Range("biteMm", m.BiteMm, 5, 150)
	if m.Kind == Press {
		c.Range("forceKN", m.ForceKN, 10, 5000)
		c.Range("speedMPerS", m.SpeedMPerS, .001, .5)
		return
	}
	c.Range("tupKg", m.TupKg, 3, 500)
	c.Range("speedMPerS", m.SpeedMPerS, 1, 12)
}

// heavy tells whether a machine does the operation.
func (k Kind) heavy() bool {
	switch k {
	case BreakDown, Point, DrawTang, Profile:
		return true
	}
	return false
}

// Heavy tells whether a machine, where there is one, does the operation.
func (op *Operation) Heavy() bool { return op.Kind.heavy() }

// strokesPerS is the pace of wrench, bending and stamp (judgement).
const strokesPerS = 0.6

// Figures of machines: judgement.
const (
	machineRebound   = 0.4
	machineAnvil     = 15.0   // anvil over ram mass
	squeezeShare     = 0.25   // of the height at a squeeze
	leastBiteMm      = 5.0    // less contact than this only cuts in
	dieWPerM2K       = 3000.0 // steel on hot steel under force
	dieContactShare  = 0.35   // of a stroke's time
	strikeAnvilShare = 1.0    // a power hammer chills like an anvil
)

// drive is what works an operation: the hand hammer or the machine.
type drive struct {
	energyMJ   float64 // of a blow or squeeze, mJ
	ratePerS   float64
	speedMPerS float64
	contact    float64 // W/m²K on one wide face, mean over the stretch
	forceN     float64 // the most a press gives; 0: no limit
	biteMm     float64 // of the dies; 0: the face of the hammer
}

// TooWeakError says that a press cannot take hold, and what force would do.
type TooWeakError struct {
	Operation string
	NeedKN    float64
}

func (e *TooWeakError) Error() string {
	return fmt.Sprintf("forge: the press does not take hold in %s: %.0f kN would", e.Operation, e.NeedKN)
}

// driveOf picks what works an operation on a stretch.
func (r *Run) driveOf(op *Operation, rec *Heat) (drive, error) {
	s, m := r.Shop.Smith, r.Shop.Smith.Machine
	if m == nil || !op.Kind.heavy() {
		d := drive{energyMJ: s.UsefulJ() * 1000, ratePerS: s.RatePerS, speedMPerS: s.SpeedMPerS, contact: anvilContact}
		if op.Kind.light() {
			d.energyMJ *= lightBlow * lightBlow
		}
		if op.Strokes > 0 {
			d.ratePerS = strokesPerS
		}
		return d, nil
	}
	d := drive{ratePerS: m.RatePerS, speedMPerS: m.SpeedMPerS, biteMm: m.BiteMm}
	if m.Kind == PowerHammer {
		d.energyMJ = UsefulJ(m.TupKg, m.SpeedMPerS, m.TupKg*machineAnvil, machineRebound) * 1000
		d.contact = anvilContact * strikeAnvilShare
		return d, nil
	}
	return r.press(op, rec, d, m)
}

// press gives what energy a squeeze has at full force, on as much bite as the
// force bears; a press that cannot hold even five millimetres stalls.
func (r *Run) press(op *Operation, rec *Heat, d drive, m *Machine) (drive, error) {
	length, height, need := 0.0, 0.0, 0.0
	for i := rec.First; i <= rec.Last; i++ {
		c := &r.Bar.Cells[i]
		l := c.LengthMm()
		length += l
		height += c.ThicknessMm * l
		rate := m.SpeedMPerS * 1000 / (2 * c.ThicknessMm)
		flow := r.law.At(c.TempC, math.Log(rate/10))
		stress := flow.StressMPa(squeezeShare) * r.Shop.Steel.FlowFactor
		need = math.Max(need, stress*c.WidthMm*Redundancy(c.ThicknessMm, leastBiteMm)*leastBiteMm) // N
		// the widest, hardest spot sets how much bite the force bears
		bite := m.ForceKN * 1000 / (stress * c.WidthMm * Redundancy(c.ThicknessMm, m.BiteMm))
		d.biteMm = math.Min(d.biteMm, math.Max(leastBiteMm, bite))
	}
	if m.ForceKN*1000 < need {
		return d, &TooWeakError{Operation: op.ID, NeedKN: math.Ceil(need / 1000)}
	}
	height /= length
	d.forceN = m.ForceKN * 1000
	d.energyMJ = d.forceN * squeezeShare * height // N·mm is mJ
	d.contact = 2 * dieWPerM2K * dieContactShare * math.Min(1, d.biteMm/length)
	return d, nil
}

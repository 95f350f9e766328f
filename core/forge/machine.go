package forge

import (
	"fmt"
	"math"

	"coldember/core/fact"
)

// MachineKind is what does the heavy work beside the hammer.
type MachineKind string

// A power hammer strikes, a press squeezes, rolls lengthen, and a striker swings
// a sledge where the smith points.
const (
	PowerHammer MachineKind = "powerHammer"
	Press       MachineKind = "press"
	RollingMill MachineKind = "rollingMill"
	Striker     MachineKind = "striker"
)

// MachineKinds lists them.
func MachineKinds() []MachineKind { return []MachineKind{Striker, PowerHammer, Press, RollingMill} }

// Dies are the shape of a machine's dies.
type Dies string

// FlatDies keep the surface true; DrawingDies are narrow and lengthen;
// CrownedDies, laid diagonally, move steel both ways.
const (
	FlatDies    Dies = "flat"
	DrawingDies Dies = "drawing"
	CrownedDies Dies = "crowned"
)

// DiesList lists them.
func DiesList() []Dies { return []Dies{FlatDies, DrawingDies, CrownedDies} }

// bites is the contact along the bar of usual dies, or of what a striker hits
// (sledge, set fuller, rounded flatter), mm.
var bites = map[MachineKind]map[Dies]float64{
	PowerHammer: {FlatDies: 60, DrawingDies: 22, CrownedDies: 32},
	Press:       {FlatDies: 70, DrawingDies: 20, CrownedDies: 30},
	Striker:     {FlatDies: 40, DrawingDies: 18, CrownedDies: 28},
}

// Machine does the heavy operations: break-down, point, tang, profile; rolls only
// the break-down. Corners, shoulders, bevels, straightening, planishing and the
// cut stay with the hammer. A striker is counted among the machines.
type Machine struct {
	Kind       MachineKind `json:"kind" enum:"striker,powerHammer,press,rollingMill"`
	TupKg      float64     `json:"tupKg" doc:"of a power hammer; of a striker's sledge"`
	SpeedMPerS float64     `json:"speedMPerS" doc:"of the tup or ram as it meets the work"`
	RatePerS   float64     `json:"ratePerS" doc:"strokes a second"`
	ForceKN    float64     `json:"forceKN" doc:"of a press"`
	Dies       Dies        `json:"dies" enum:"flat,drawing,crowned"`
	BiteMm     float64     `json:"biteMm" doc:"contact along the bar"`
	RollMm     float64     `json:"rollMm,omitempty" doc:"diameter of a mill's rolls"`
	DraftMm    float64     `json:"draftMm,omitempty" doc:"a mill takes off the thickness at a pass"`
}

// NewMachine is a usual one of its kind: a hammer of 25 kg, a press of 200 kN
// (about twenty tonnes), both with drawing dies, rolls of 100 mm, or a sledge of
// 4 kg.
func NewMachine(k MachineKind) *Machine {
	switch k {
	case Press:
		return (&Machine{Kind: Press, SpeedMPerS: .03, RatePerS: .5, ForceKN: 200}).WithDies(DrawingDies)
	case RollingMill:
		return &Machine{Kind: RollingMill, SpeedMPerS: .15, RatePerS: .2, Dies: FlatDies, RollMm: 100, DraftMm: .8}
	case Striker:
		return (&Machine{Kind: Striker, TupKg: 4, SpeedMPerS: 6.5, RatePerS: .9}).WithDies(FlatDies)
	}
	return (&Machine{Kind: PowerHammer, TupKg: 25, SpeedMPerS: 4.5, RatePerS: 3}).WithDies(DrawingDies)
}

// WithDies changes the dies, and their usual bite with them.
func (m *Machine) WithDies(d Dies) *Machine {
	out := *m
	out.Dies, out.BiteMm = d, bites[m.Kind][d]
	return &out
}

// rollGrip is how hard rolls grip hot steel: they draw in no more than its square
// times their radius.
const rollGrip = 0.3

// RollSpread is the share of the thinning that rolls send into width (judgement:
// a strip much wider than its contact).
const RollSpread = 0.05

// Validate reports every figure that cannot be.
func (m *Machine) Validate(c fact.Check) {
	if m == nil {
		return
	}
	fact.OneOf(c, "kind", m.Kind, MachineKinds()...)
	fact.OneOf(c, "dies", m.Dies, DiesList()...)
	c.Range("ratePerS", m.RatePerS, .05, 8)
	if m.Kind != RollingMill {
		c.Range("biteMm", m.BiteMm, 5, 150)
	}
	switch m.Kind {
	case Press:
		c.Range("forceKN", m.ForceKN, 10, 5000)
		c.Range("speedMPerS", m.SpeedMPerS, .001, .5)
	case RollingMill:
		c.Range("rollMm", m.RollMm, 20, 600)
		c.Range("draftMm", m.DraftMm, .05, math.Max(.05, rollGrip*rollGrip*m.RollMm/2))
		c.Range("speedMPerS", m.SpeedMPerS, .01, 2)
	case Striker:
		c.Range("tupKg", m.TupKg, 1.5, MaxHammerKg)
		c.Range("speedMPerS", m.SpeedMPerS, 1, 12)
	default:
		c.Range("tupKg", m.TupKg, 3, 500)
		c.Range("speedMPerS", m.SpeedMPerS, 1, 12)
	}
}

// Does tells whether the machine, where there is one, does operations of this
// kind.
func (m *Machine) Does(k Kind) bool {
	return m != nil && k.heavy() && (m.Kind != RollingMill || k == BreakDown)
}

// heavy tells whether a machine may do the operation.
func (k Kind) heavy() bool {
	switch k {
	case BreakDown, Point, DrawTang, Profile:
		return true
	}
	return false
}

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
	strikerLands     = 0.75   // share of a striker's blows that land well
)

// drive is what works an operation: the hand hammer or the machine.
type drive struct {
	energyMJ   float64 // of a blow or squeeze, mJ
	ratePerS   float64
	speedMPerS float64
	contact    float64 // W/m²K on one wide face, mean over the stretch
	forceN     float64 // the most a press gives; 0: no limit
	biteMm     float64 // of the dies; 0: the face of the hammer
	strokes    float64 // that what is left takes, where energy does not tell; 0: it does
}

// TooWeakError says that a press cannot take hold, and what force would do.
type TooWeakError struct {
	Operation string
	NeedKN    float64
}

func (e *TooWeakError) Error() string {
	return fmt.Sprintf("forge: the press does not take hold in %s: %.0f kN would", e.Operation, e.NeedKN)
}

// driveOf picks what works what remains of an operation on a stretch.
func (r *Run) driveOf(op *Operation, rec *Heat, remaining float64) (drive, error) {
	s, m := r.Setup.Smith, r.Setup.Smith.Machine
	if !m.Does(op.Kind) {
		d := drive{energyMJ: s.UsefulJ() * 1000, ratePerS: s.RatePerS, speedMPerS: s.SpeedMPerS, contact: anvilContact}
		if op.Kind.light() {
			d.energyMJ *= lightBlow * lightBlow
		}
		if op.Strokes > 0 {
			d.strokes = op.Strokes / float64(max(1, op.Passes)) * remaining
			if op.Kind != Weld && op.Kind != WeldOn {
				d.ratePerS = strokesPerS
			}
		}
		return d, nil
	}
	d := drive{ratePerS: m.RatePerS, speedMPerS: m.SpeedMPerS, biteMm: m.BiteMm}
	switch m.Kind {
	case PowerHammer:
		d.energyMJ = UsefulJ(m.TupKg, m.SpeedMPerS, m.TupKg*machineAnvil, machineRebound) * 1000
		d.contact = anvilContact * strikeAnvilShare
		return d, nil
	case Striker:
		d.energyMJ = UsefulJ(m.TupKg, m.SpeedMPerS, s.AnvilKg, s.Restitution) * 1000 * strikerLands
		d.contact = anvilContact
		return d, nil
	case RollingMill:
		return r.roll(op, rec, d, m), nil
	}
	return r.press(op, rec, d, m)
}

// roll counts the passes that the thickest of what is left takes; between passes
// hardly any of the piece touches the rolls.
func (r *Run) roll(op *Operation, rec *Heat, d drive, m *Machine) drive {
	for i := rec.First; i <= rec.Last; i++ {
		d.strokes = math.Max(d.strokes, (r.Bar.Cells[i].ThicknessMm-op.Targets[i-op.First].ThicknessMm)/m.DraftMm)
	}
	d.strokes = math.Max(1, d.strokes)
	d.biteMm = math.Sqrt(m.RollMm / 2 * m.DraftMm)
	d.contact = 2 * dieWPerM2K * d.biteMm / (m.SpeedMPerS * 1000) * m.RatePerS
	return d
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
		give := &r.flows[c.Steel]
		flow := give.law.At(c.TempC, math.Log(rate/10))
		stress := flow.StressMPa(squeezeShare) * give.grade.FlowFactor
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

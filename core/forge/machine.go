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

// Machine does the heavy operations: break-down, point, shoulder, tang, profile; rolls only
// the break-down. Where the smith asks, it straightens and planishes too. Corners, bevels and
// the cut stay with the hammer. A striker is counted among the machines.
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
		return (&Machine{Kind: Press, SpeedMPerS: .05, RatePerS: squeezesPerS, ForceKN: 200}).WithDies(DrawingDies)
	case RollingMill:
		return &Machine{Kind: RollingMill, SpeedMPerS: .15, RatePerS: .2, Dies: FlatDies, RollMm: 100, DraftMm: .8}
	case Striker:
		return (&Machine{Kind: Striker, TupKg: 4, SpeedMPerS: 6.5, RatePerS: .9}).WithDies(DrawingDies)
	}
	return (&Machine{Kind: PowerHammer, TupKg: 25, SpeedMPerS: 4.5, RatePerS: 3}).WithDies(DrawingDies)
}

// WithDies changes the dies, and their usual bite with them.
func (m *Machine) WithDies(d Dies) *Machine {
	out := *m
	out.Dies, out.BiteMm = d, bites[m.Kind][d]
	return &out
}

// squeezesPerS is the pace of a press: a second and a half with its return (judgement).
const squeezesPerS = 1 / 1.5

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
// kind. Bevels go under a power hammer or a press whose dies leave a flat: flat ones, the piece held at an
// angle, and drawing dies; not under a sledge, and crowned dies leave hollows.
func (m *Machine) Does(k Kind) bool {
	switch {
	case m == nil:
		return false
	case k.Bevels():
		return (m.Kind == PowerHammer || m.Kind == Press) && m.Dies != CrownedDies
	}
	return k.Heavy() && (m.Kind != RollingMill || k == BreakDown)
}

// CanDo tells whether the machine does operations of this kind if the smith asks: what it
// does anyway, and straightening and planishing, which its flat dies do and rolls do not.
func (m *Machine) CanDo(k Kind) bool {
	return m.Does(k) || m != nil && k.Trues() && m.Kind != RollingMill
}

// Trues tells whether the operation makes true what is forged already.
func (k Kind) Trues() bool { return k == Straighten || k == Correct || k == Planish }

// Bevels tells whether the operation makes a bevel.
func (k Kind) Bevels() bool { return k == Bevel || k == FalseEdge }

// Heavy tells whether a machine does the operation where there is one.
func (k Kind) Heavy() bool {
	switch k {
	case BreakDown, Point, SetDown, DrawTang, WidenTang, SetUp, Profile:
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
	dieWPerM2K       = 2000.0 // steel on hot steel under force
	reverseS         = 0.1    // that a press holds on before it goes back
	strikeAnvilShare = 1.0    // a power hammer chills like an anvil
	strikerLands     = 0.75   // share of a striker's blows that land well; the smith strikes between them
	dieBreadthMm     = 75.0   // of dies, across the bar
	sledgeBreadthMm  = 40.0   // of a sledge, or of what it strikes
)

// Tool is what the machine works with: its dies, or the sledge.
func (m *Machine) Tool() Tool {
	t := Tool{BiteMm: m.BiteMm, BreadthMm: dieBreadthMm, SpreadMm: m.BiteMm}
	switch m.Kind {
	case Striker:
		t.BreadthMm = sledgeBreadthMm
	case RollingMill:
		t.BiteMm = math.Sqrt(m.RollMm / 2 * m.DraftMm)
		t.SpreadMm = t.BiteMm
	}
	return t
}

// TooWeakError says that a press cannot take hold, and what force would do.
type TooWeakError struct {
	Operation string
	NeedKN    float64
}

func (e *TooWeakError) Error() string {
	return fmt.Sprintf("forge: the press does not take hold in %s: %.0f kN would", e.Operation, e.NeedKN)
}

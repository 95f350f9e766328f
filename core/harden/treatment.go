package harden

import (
	"math"

	"coldember/core/fact"
	"coldember/core/steel"
)

// BathClass is what a blade is quenched in.
type BathClass string

// The classes, from the slowest.
const (
	StillAir    BathClass = "air"
	Plates      BathClass = "plates" // of aluminium, the blade held between them
	StillOil    BathClass = "stillOil"
	MediumOil   BathClass = "mediumOil"
	FastOil     BathClass = "fastOil"
	VeryFastOil BathClass = "veryFastOil"
	Water       BathClass = "water"
	Brine       BathClass = "brine"
)

// BathClasses lists them.
func BathClasses() []BathClass {
	return []BathClass{StillAir, Plates, StillOil, MediumOil, FastOil, VeryFastOil, Water, Brine}
}

// severities are Grossmann's of the classes, 1/in (a coupon or a file test teaches better), and
// how warm each is kept, °C.
var severities = map[BathClass]struct{ perIn, warmC float64 }{
	StillAir: {.02, 20}, Plates: {.18, 20}, StillOil: {.25, 55}, MediumOil: {.35, 55}, FastOil: {.5, 55}, VeryFastOil: {.7, 35}, Water: {1.2, 20}, Brine: {2.2, 20},
}

// Oil tells whether a class is an oil.
func (c BathClass) Oil() bool {
	return c == StillOil || c == MediumOil || c == FastOil || c == VeryFastOil
}

// Fluid is what boils on the steel in a bath of the class.
func (c BathClass) Fluid() Fluid {
	switch {
	case c.Oil():
		return OilFluid
	case c.Watery():
		return WaterFluid
	}
	return Dry
}

// Watery tells water and brine from all else.
func (c BathClass) Watery() bool { return c == Water || c == Brine }

// Bath is a tank of the shop, or what stands in for one.
type Bath struct {
	Class         BathClass `json:"class" enum:"air,plates,stillOil,mediumOil,fastOil,veryFastOil,water,brine"`
	SeverityPerIn float64   `json:"severityPerIn" doc:"Grossmann's H"`
	VolumeL       float64   `json:"volumeL"`
	WarmC         float64   `json:"warmC" doc:"as warm as it is at the quench"`
	LongMm        float64   `json:"longMm,omitempty" doc:"longest blade that goes in; 0: long enough"`
}

// usualVolumeL is a tank that a blade goes into upright.
const usualVolumeL = 20

// NewBath is a usual one of its class.
func NewBath(c BathClass) Bath {
	s := severities[c]
	return Bath{Class: c, SeverityPerIn: s.perIn, VolumeL: usualVolumeL, WarmC: s.warmC}
}

// BathFor is the class that a grade is usually hardened in.
func BathFor(q steel.Quench) BathClass {
	switch q {
	case steel.MediumOil:
		return MediumOil
	case steel.MediumToFast, steel.FastOil, steel.ByCoupon:
		return FastOil
	case steel.VeryFastOil, steel.VeryFastOrBrine, steel.WaterOrVeryFast:
		return VeryFastOil
	}
	return MediumOil
}

// Treatment is how a blade is to be hardened and tempered.
type Treatment struct {
	Bath Bath `json:"bath"`
	// DipMm of the height, from the edge, goes into the bath; 0: the whole blade.
	DipMm          float64 `json:"dipMm,omitempty"`
	OutC           float64 `json:"outC,omitempty" doc:"as hot as its edge leaves the bath; 0: as is advised"`
	EdgeAtQuenchMm float64 `json:"edgeAtQuenchMm,omitempty" doc:"thickness of the edge then; 0: as is advised"`
	WantHardness   float64 `json:"wantHardness,omitempty" doc:"0: usual for its use"`
	OvenC          float64 `json:"ovenC,omitempty" doc:"its setting; 0: by the wanted hardness"`
	SwingK         float64 `json:"swingK" doc:"by which the oven swings about its setting"`
	Hours          float64 `json:"hours" doc:"of one tempering"`
	Times          int     `json:"times"`
	OvenMm         float64 `json:"ovenMm,omitempty" doc:"longest blade that it holds; 0: long enough"`
	OvenMostC      float64 `json:"ovenMostC,omitempty" doc:"hottest that it can be set to; 0: hot enough"`
	Way            Way     `json:"way,omitempty" enum:"oven,sand,oilBath,torch" doc:"how it is tempered; an oven if not said"`
	Kiln           bool    `json:"kiln,omitempty" doc:"soaked in a controlled oven, not in a forge"`
	Late           []Work  `json:"late,omitempty" doc:"shaping that is left until after the quench"`
	Forced         bool    `json:"forced,omitempty" doc:"it is wanted although it breaks a need"`
}

// NewTreatment is the usual one for a grade.
func NewTreatment(g steel.Grade) Treatment {
	return Treatment{Bath: NewBath(BathFor(g.Quench)), SwingK: 10, Hours: 2, Times: 2}
}

// Validate reports every figure that cannot be.
func (t *Treatment) Validate(c fact.Check) {
	if t == nil {
		return
	}
	t.Bath.Validate(c.Within("bath"))
	fact.OneOf(c, "way", t.Way, append(Ways(), "")...)
	t.validateLate(c)
	if t.OvenMostC != 0 {
		c.Range("ovenMostC", t.OvenMostC, 100, 1350)
	}
	if t.OvenMm != 0 {
		c.Range("ovenMm", t.OvenMm, 50, 3000)
	}
	c.Range("dipMm", t.DipMm, 0, 500)
	if t.OutC != 0 {
		c.Range("outC", t.OutC, 20, 400)
	}
	if t.EdgeAtQuenchMm != 0 {
		c.Range("edgeAtQuenchMm", t.EdgeAtQuenchMm, .1, 10)
	}
	if t.WantHardness != 0 {
		c.Range("wantHardness", t.WantHardness, 30, 68)
	}
	if t.OvenC != 0 {
		c.Range("ovenC", t.OvenC, 100, 650)
	}
	c.Range("swingK", t.SwingK, 0, 60)
	most, least := 24.0, .1
	if t.Way == ByTorch {
		most, least = torchMostH, .01
	}
	c.Range("hours", t.Hours, least, most)
	c.Range("times", float64(t.Times), 1, 6)
}

// coldestBathC and warmestBathC are what a bath runs at: oil thickens when it is cold and flashes
// when it is hot, water does not boil.
func coldestBathC(c BathClass) float64 {
	if c.Watery() {
		return 5
	}
	return 10
}

func warmestBathC(c BathClass) float64 {
	switch {
	case c.Watery():
		return 60
	case c.Oil():
		return 95
	}
	return 80
}

// Edges at the quench: as thin as a bath lets them be without warping, mm (judgement); a long
// blade is left a little more.
const (
	slowEdgeMm = .6
	fastEdgeMm = 1.0
	wetEdgeMm  = 1.5
	longMm     = 250
	longMoreMm = .3
)

// AdvisedEdgeMm is how thick the edge is best left at the quench.
func AdvisedEdgeMm(c BathClass, bladeMm float64) float64 {
	edge := slowEdgeMm
	switch {
	case c.Watery():
		edge = wetEdgeMm
	case c == FastOil, c == VeryFastOil:
		edge = fastEdgeMm
	}
	if bladeMm > longMm {
		edge += longMoreMm
	}
	return edge
}

// Oil takes its heat with so much a litre and degree, J.
const oilJPerLK = 870 / 1000.0 * 2000

// OilRiseC is by how much a blade warms the oil that it is quenched in.
func (b Bath) OilRiseC(massG, fromC float64) float64 {
	if !b.Class.Oil() || b.VolumeL <= 0 {
		return 0
	}
	return massG / 1000 * heatJPerKgK * math.Max(0, fromC-b.WarmC) / (b.VolumeL * oilJPerLK)
}

// tooWarmC is where an oil is too warm for the next blade (judgement: it slows down, and the
// flash is nearer).
const tooWarmC = 75

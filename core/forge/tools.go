package forge

import (
	"math"

	"coldember/core/fact"
)

// Skill is how sure a hand is: it sets speed, pace and the share of blows that
// land well.
type Skill string

// The skills.
const (
	Learning Skill = "learning"
	Steady   Skill = "steady"
	Sure     Skill = "sure"
)

// Skills lists them.
func Skills() []Skill { return []Skill{Learning, Steady, Sure} }

// MarksMm is how deep hammer marks stand in a face planished by a hand of this
// skill (judgement).
func (s Skill) MarksMm() float64 {
	switch s {
	case Learning:
		return 0.4
	case Sure:
		return 0.15
	default:
		return 0.25
	}
}

// Smith is a smith with hammer and anvil.
type Smith struct {
	Skill       Skill   `json:"skill" enum:"learning,steady,sure"`
	HammerKg    float64 `json:"hammerKg"`
	SpeedMPerS  float64 `json:"speedMPerS"`
	RatePerS    float64 `json:"ratePerS" doc:"blows a second"`
	LandShare   float64 `json:"landShare" doc:"share of the energy that lands well"`
	Restitution float64 `json:"restitution"`
	AnvilKg     float64 `json:"anvilKg"`
	UnevenMm    float64 `json:"unevenMm,omitempty" doc:"how far the anvil is from flat"`
	FaceMm      float64 `json:"faceMm" doc:"diameter of the flat face"`
	PeenBiteMm  float64 `json:"peenBiteMm" doc:"contact along the bar, peen across it"`

	// PeenLengthMm is how long the peen is, which is its contact when it lies along the bar.
	PeenLengthMm float64 `json:"peenLengthMm"`

	// EnergyFactor is what a blow of this arm does over the law's, and BendFactor what its bevels
	// rise; 0 is 1.
	EnergyFactor float64 `json:"-"`
	BendFactor   float64 `json:"-"`

	// SpreadFactor is the share that goes into width over the law's; 0 is 1.
	SpreadFactor float64 `json:"-"`

	// Machine, where there is one, does the heavy operations.
	Machine *Machine `json:"machine,omitempty"`
}

// NewSmith is a smith of this skill with the usual hammer on an anvil of 100 kg.
func NewSmith(s Skill) Smith {
	h := Smith{Restitution: .4, AnvilKg: 100}.WithSkill(s)
	return h.WithHammer(UsualHammers()["usual"])
}

// WithSkill sets what a skill sets, the share of blows that land well, and leaves the
// tools.
func (h Smith) WithSkill(s Skill) Smith {
	h.Skill = s
	switch s {
	case Learning:
		h.LandShare = .5
	case Sure:
		h.LandShare = .8
	default:
		h.LandShare = .65
	}
	return h
}

// MaxHammerKg is the heaviest hammer that a smith and a striker swing.
const MaxHammerKg = 12.0

// Validate reports every figure that cannot be.
func (h Smith) Validate(c fact.Check) {
	fact.OneOf(c, "skill", h.Skill, Skills()...)
	c.Range("hammerKg", h.HammerKg, 0.2, MaxHammerKg)
	c.Range("speedMPerS", h.SpeedMPerS, 1, 15)
	c.Range("ratePerS", h.RatePerS, 0.2, 5)
	c.Range("landShare", h.LandShare, 0.1, 1)
	c.Range("restitution", h.Restitution, 0, 0.95)
	c.Range("anvilKg", h.AnvilKg, 5, 1000)
	c.Range("unevenMm", h.UnevenMm, 0, 3)
	c.Range("faceMm", h.FaceMm, 10, 100)
	c.Range("peenBiteMm", h.PeenBiteMm, 4, 60)
	c.Range("peenLengthMm", h.PeenLengthMm, 10, 150)
	h.Machine.Validate(c.Within("machine"))
}

// UsefulJ is the energy of a blow that goes into the work, J:
// ½mv²·M/(M+m)·(1−e²).
func UsefulJ(hammerKg, speedMPerS, anvilKg, restitution float64) float64 {
	return 0.5 * hammerKg * speedMPerS * speedMPerS * anvilKg / (anvilKg + hammerKg) * (1 - restitution*restitution)
}

// UsefulJ is the smith's blow, misses counted.
func (h Smith) UsefulJ() float64 {
	return h.BlowJ() * h.LandShare
}

// BlowJ is the energy of a blow that lands well, J.
func (h Smith) BlowJ() float64 {
	return UsefulJ(h.HammerKg, h.SpeedMPerS, h.AnvilKg, h.Restitution) * factor(h.EnergyFactor)
}

// Fire is a forge.
type Fire struct {
	TempC       float64 `json:"tempC"`
	Atmosphere  float64 `json:"atmosphere" doc:"1 oxidising, .35 neutral gas, .2 rich: multiplies the depth of scale"`
	HotLengthMm float64 `json:"hotLengthMm"`
	FuelKgPerH  float64 `json:"fuelKgPerH"`
	FuelAtC     float64 `json:"fuelAtC,omitempty" doc:"how hot the forge was when that was measured; 0: as hot as it is now"`
	CarryS      float64 `json:"carryS"`
	BrushS      float64 `json:"brushS"`
	HoldSPerMm  float64 `json:"holdSPerMm"`
	SoakC       float64 `json:"soakC,omitempty" doc:"the smith's own; 0: by steel and forge"`
	// ScaleFactor is what depth of scale this fire makes over the law's; 0 is 1.
	ScaleFactor float64 `json:"-"`
	StopC       float64 `json:"stopC,omitempty" doc:"where the smith stops striking; 0: the steel's lower limit"`
	// StopsByC is how much warmer than it may a hand stops that goes by its eye.
	StopsByC float64 `json:"-"`
}

// kelvin of nought degrees, and of a shop.
const (
	zeroK = 273.15
	shopK = 293.0
)

// FuelKgPerHAt is what the forge burns as hot as it is: what was measured, by what a fire radiates over
// its shop (T⁴ − 293⁴, T in kelvin).
func (f Fire) FuelKgPerHAt() float64 {
	if f.FuelAtC == 0 || f.FuelAtC == f.TempC {
		return f.FuelKgPerH
	}
	over := func(c float64) float64 { return math.Pow(c+zeroK, 4) - math.Pow(shopK, 4) }
	return f.FuelKgPerH * over(f.TempC) / over(f.FuelAtC)
}

// AtLeast is the fire turned up to tempC where it is not as hot.
func (f Fire) AtLeast(tempC float64) Fire {
	if tempC > f.TempC {
		if f.FuelAtC == 0 {
			f.FuelAtC = f.TempC
		}
		f.TempC = tempC
	}
	return f
}

// Turned is the fire at tempC, burning what that takes.
func (f Fire) Turned(tempC float64) Fire {
	if f.FuelAtC == 0 {
		f.FuelAtC = f.TempC
	}
	f.TempC = tempC
	return f
}

// FuelG is what burns in so many seconds with the burner on.
func (f Fire) FuelG(s float64) float64 { return f.FuelKgPerHAt() / 3.6 * s }

// NewFire is a small gas forge.
func NewFire() Fire {
	return Fire{TempC: 1200, Atmosphere: .35, HotLengthMm: 110, FuelKgPerH: .9, FuelAtC: 1200, CarryS: 3, BrushS: 5, HoldSPerMm: 1}
}

// Validate reports every figure that cannot be.
func (f Fire) Validate(c fact.Check) {
	c.Range("tempC", f.TempC, 600, 1450)
	c.Range("atmosphere", f.Atmosphere, .05, 1.5)
	c.Range("hotLengthMm", f.HotLengthMm, 30, 1000)
	c.Range("fuelKgPerH", f.FuelKgPerH, 0, 30)
	if f.FuelAtC != 0 {
		c.Range("fuelAtC", f.FuelAtC, 600, 1450)
	}
	c.Range("carryS", f.CarryS, 0, 30)
	c.Range("brushS", f.BrushS, 0, 60)
	c.Range("holdSPerMm", f.HoldSPerMm, 0, 10)
	if f.SoakC != 0 {
		c.Range("soakC", f.SoakC, 600, 1400)
	}
	if f.StopC != 0 {
		c.Range("stopC", f.StopC, 500, 1300)
	}
}

// Face is which part of the hammer, and what is under the piece.
type Face string

// The faces, as they set bite and spread.
const (
	FlatFace   Face = "flat"       // moves little at a blow, keeps the surface true
	RoundFace  Face = "round"      // moves much, both ways
	PeenAcross Face = "peenAcross" // lengthens
	PeenAlong  Face = "peenAlong"  // widens
	OnEdge     Face = "onEdge"     // narrows
	BevelFace  Face = "bevel"      // angled along the edge
	AnvilEdge  Face = "anvilEdge"  // set down over an eased edge
)

// Support is what lies under the piece.
type Support string

// OnFace is the anvil's face; over its horn, its edge or a bottom fuller the
// contact is half as long.
const (
	OnFace       Support = "face"
	OverHorn     Support = "horn"
	OverEdge     Support = "edge"
	BottomFuller Support = "fuller"
)

// Supports lists them.
func Supports() []Support { return []Support{OnFace, OverHorn, OverEdge, BottomFuller} }

// DrawingFaces are those a smith chooses among for moving steel.
func DrawingFaces() []Face { return []Face{FlatFace, RoundFace, PeenAcross, PeenAlong} }

// Share of the bite that is left over this support.
func (s Support) Share() float64 {
	if s == "" || s == OnFace {
		return 1
	}
	return 0.5
}

// EdgeBiteMm and BevelBiteMm are the contacts of edge-on and bevelling blows.
const (
	EdgeBiteMm  = 35.0
	BevelBiteMm = 22.0
	flatBite    = 0.75 // of the face's diameter
	roundBite   = 0.45 // likewise, of a rounded face
)

// Tool is what a face of the hammer makes of a stroke. A peen laid along the bar is still
// narrow where the steel flows, and spreads by its length.
func (h Smith) Tool(f Face) Tool {
	flat := h.FaceMm * flatBite
	switch f {
	case PeenAcross:
		return Tool{BiteMm: h.PeenBiteMm, BreadthMm: h.PeenLengthMm, SpreadMm: h.PeenBiteMm, Crowned: true}
	case PeenAlong:
		return Tool{BiteMm: h.PeenBiteMm, BreadthMm: h.PeenLengthMm, SpreadMm: h.PeenLengthMm, Crowned: true}
	case RoundFace:
		return even(h.FaceMm*roundBite, h.FaceMm*roundBite)
	case OnEdge:
		return even(EdgeBiteMm, flat)
	case BevelFace:
		return even(BevelBiteMm, flat)
	case AnvilEdge:
		return even(flat/2, flat)
	default:
		return even(flat, flat)
	}
}

func even(biteMm, breadthMm float64) Tool {
	return Tool{BiteMm: biteMm, BreadthMm: breadthMm, SpreadMm: biteMm, Crowned: true}
}

// Redundancy is Q = 0.8 + 0.2Δ + 0.25/Δ, Δ = height/bite: redundant work and
// friction over the ideal work (an engineering blend, Δ about 0.05–3).
func Redundancy(heightMm, biteMm float64) float64 {
	d := heightMm / biteMm
	return 0.8 + 0.2*d + 0.25/d
}

// WorkJ is the work to bring volumeMm3 to a true strain at a mean stress.
func WorkJ(volumeMm3, strain, stressMPa, redundancy float64) float64 {
	return volumeMm3 * strain * stressMPa * redundancy / 1000
}

// Bite ratios that the law of spread was measured over.
const (
	minBiteRatio = 0.25
	maxBiteRatio = 1.5
	longSpread   = 0.5585 // at the last
)

// Spread is the share of the thickness strain that goes into width, after
// Tomlinson and Stringer (1959): S = 0.14 + 0.36(b/w) − 0.054(b/w)², measured for
// b/w 0.25–1.5. Above, it goes on as 1 − 1.10375/(1 + b/w), which joins on and comes
// to one (judgement: a long tool on a narrow bar sends all of it sideways); below,
// the nearest end is answered. inRange tells whether it was measured.
func Spread(biteMm, widthMm float64) (s float64, inRange bool) {
	r := biteMm / widthMm
	inRange = r >= minBiteRatio-1e-9 && r <= maxBiteRatio+1e-9
	if r > maxBiteRatio {
		return 1 - (1-longSpread)*(1+maxBiteRatio)/(1+r), inRange
	}
	c := math.Max(minBiteRatio, r)
	return 0.14 + 0.36*c - 0.054*c*c, inRange
}

// Method is the school of bevelling.
type Method string

// PinchOut climbs from the edge and gains depth; PushIn compresses and keeps
// the width.
const (
	PinchOut Method = "pinchOut"
	PushIn   Method = "pushIn"
)

// pushInShare of the spread is left when the blow is angled into the edge.
const pushInShare = 0.35

// BevelSpread is the spread of bevelling by this method on this width.
func BevelSpread(m Method, biteMm, widthMm float64) float64 {
	s, _ := Spread(biteMm, widthMm)
	if m == PushIn {
		return pushInShare * s
	}
	return s
}

// BevelSpread is the spread of this hand in bevelling by this method on this width.
func (h Smith) BevelSpread(m Method, widthMm float64) float64 {
	return BevelSpread(m, BevelBiteMm, widthMm) * factor(h.SpreadFactor)
}

// MostSpread is the most spread that any tool gives on this width: a face of the smith's
// hammer, dies of the smith's machine, and in bevelling what the school allows.
func (h Smith) MostSpread(m Method, widthMm float64) float64 {
	most := BevelSpread(m, BevelBiteMm, widthMm)
	if m == PinchOut {
		for _, f := range DrawingFaces() {
			most = math.Max(most, h.Tool(f).Spread(widthMm))
		}
		if h.Machine != nil && h.Machine.Kind != RollingMill {
			most = math.Max(most, h.Machine.Tool().Spread(widthMm))
		}
	}
	return most * factor(h.SpreadFactor)
}

// Bends is the bend factor of this hand.
func (h Smith) Bends() float64 { return BendFactor * factor(h.BendFactor) }

// factor is a factor that is one where it is not known.
func factor(f float64) float64 {
	if f == 0 {
		return 1
	}
	return f
}

package forge

import "math"

// Hammer is one of a smith's hammers.
type Hammer struct {
	HammerKg   float64 `json:"hammerKg"`
	FaceMm     float64 `json:"faceMm" doc:"diameter of the flat face"`
	PeenBiteMm float64 `json:"peenBiteMm" doc:"contact along the bar, peen across it"`

	// PeenLengthMm is how long the peen is.
	PeenLengthMm float64 `json:"peenLengthMm"`
}

// UsualHammers are those most shops have, by an id.
func UsualHammers() map[string]Hammer {
	return map[string]Hammer{
		"light": {HammerKg: .7, FaceMm: 30, PeenBiteMm: 11, PeenLengthMm: 32},
		"usual": {HammerKg: usualKg, FaceMm: 36, PeenBiteMm: 15, PeenLengthMm: 40},
		"heavy": {HammerKg: 1.7, FaceMm: 42, PeenBiteMm: 18, PeenLengthMm: 46},
	}
}

// WithHammer takes up another hammer. Speed and pace follow its mass where they are the
// arm's, and stay where the smith has set them.
func (h Smith) WithHammer(x Hammer) Smith {
	if h.swings() {
		h.SpeedMPerS, h.RatePerS = Arm(x.HammerKg)
	}
	h.HammerKg, h.FaceMm, h.PeenBiteMm, h.PeenLengthMm = x.HammerKg, x.FaceMm, x.PeenBiteMm, x.PeenLengthMm
	return h
}

// WithHammerKg is WithHammer for one that differs in its mass alone.
func (h Smith) WithHammerKg(kg float64) Smith {
	return h.WithHammer(Hammer{HammerKg: kg, FaceMm: h.FaceMm, PeenBiteMm: h.PeenBiteMm, PeenLengthMm: h.PeenLengthMm})
}

// swings tells whether speed and pace are those of the arm, not the smith's own.
func (h Smith) swings() bool {
	const near = 5e-3
	v, n := Arm(h.HammerKg)
	return h.HammerKg == 0 || math.Abs(h.SpeedMPerS-v) < near*v && math.Abs(h.RatePerS-n) < near*n
}

// Anvil is what a piece is forged on: its mass, how it throws the hammer back, and how
// far from flat it is.
type Anvil struct {
	AnvilKg     float64 `json:"anvilKg"`
	Restitution float64 `json:"restitution"`
	UnevenMm    float64 `json:"unevenMm"`
}

// UsualAnvils are anvils and what stands in for one, by an id (judgement; the mass is what
// takes part in a blow, less than all of a stone that lies loose).
func UsualAnvils() map[string]Anvil {
	return map[string]Anvil{
		"anvil": {AnvilKg: 100, Restitution: .4},
		"block": {AnvilKg: 50, Restitution: .35, UnevenMm: .05},
		"rail":  {AnvilKg: 25, Restitution: .35, UnevenMm: .1},
		"stone": {AnvilKg: 40, Restitution: .55, UnevenMm: .4},
	}
}

// AnvilID is the usual anvil that a smith works on, or nothing.
func (h Smith) AnvilID() string {
	for id, a := range UsualAnvils() {
		if h.WithAnvil(a) == h {
			return id
		}
	}
	return ""
}

// WithAnvil works on another.
func (h Smith) WithAnvil(x Anvil) Smith {
	h.AnvilKg, h.Restitution, h.UnevenMm = x.AnvilKg, x.Restitution, x.UnevenMm
	return h
}

// MarksMm is how deep marks stand in a face that this smith has planished: of the hammer,
// and of an anvil that is not flat.
func (h Smith) MarksMm() float64 { return h.Skill.MarksMm() + h.UnevenMm }

// Hearth is a forge, without the smith's habits at it.
type Hearth struct {
	TempC       float64 `json:"tempC"`
	Atmosphere  float64 `json:"atmosphere"`
	HotLengthMm float64 `json:"hotLengthMm"`
	FuelKgPerH  float64 `json:"fuelKgPerH"`
	FuelAtC     float64 `json:"fuelAtC,omitempty" doc:"how hot it was when that was measured; 0: as hot as it is now"`
}

// UsualHearths are forges by their fuel: figures to start from (judgement), since
// no two burn alike.
func UsualHearths() map[string]Hearth {
	return map[string]Hearth{
		"gas":      {TempC: 1200, Atmosphere: .35, HotLengthMm: 110, FuelKgPerH: .9},
		"largeGas": {TempC: 1250, Atmosphere: .35, HotLengthMm: 220, FuelKgPerH: 2},
		"charcoal": {TempC: 1250, Atmosphere: .2, HotLengthMm: 140, FuelKgPerH: 3},
		"coke":     {TempC: 1300, Atmosphere: .35, HotLengthMm: 120, FuelKgPerH: 1.8},
		"pit":      {TempC: 1150, Atmosphere: .5, HotLengthMm: 90, FuelKgPerH: 4}, // a hole in the ground, charcoal and a blower
	}
}

// WithHearth moves to another forge; carrying, brushing and the smith's own
// temperatures stay.
func (f Fire) WithHearth(x Hearth) Fire {
	f.TempC, f.Atmosphere, f.HotLengthMm, f.FuelKgPerH, f.FuelAtC = x.TempC, x.Atmosphere, x.HotLengthMm, x.FuelKgPerH, x.FuelAtC
	if f.FuelAtC == 0 {
		f.FuelAtC = x.TempC
	}
	return f
}

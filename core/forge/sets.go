package forge

// Hammer is one of a smith's hammers.
type Hammer struct {
	HammerKg   float64 `json:"hammerKg"`
	FaceMm     float64 `json:"faceMm" doc:"diameter of the flat face"`
	PeenBiteMm float64 `json:"peenBiteMm" doc:"contact along the bar, peen across it"`
}

// UsualHammers are those most shops have, by an id.
func UsualHammers() map[string]Hammer {
	return map[string]Hammer{
		"light": {HammerKg: .7, FaceMm: 30, PeenBiteMm: 11},
		"usual": {HammerKg: 1.1, FaceMm: 36, PeenBiteMm: 15},
		"heavy": {HammerKg: 1.7, FaceMm: 42, PeenBiteMm: 18},
	}
}

// WithHammer takes up another hammer.
func (h Smith) WithHammer(x Hammer) Smith {
	h.HammerKg, h.FaceMm, h.PeenBiteMm = x.HammerKg, x.FaceMm, x.PeenBiteMm
	return h
}

// Hearth is a forge, without the smith's habits at it.
type Hearth struct {
	TempC       float64 `json:"tempC"`
	Atmosphere  float64 `json:"atmosphere"`
	HotLengthMm float64 `json:"hotLengthMm"`
	FuelKgPerH  float64 `json:"fuelKgPerH"`
}

// UsualHearths are forges by their fuel: figures to start from (judgement), since
// no two burn alike.
func UsualHearths() map[string]Hearth {
	return map[string]Hearth{
		"gas":      {TempC: 1200, Atmosphere: .35, HotLengthMm: 110, FuelKgPerH: .9},
		"largeGas": {TempC: 1250, Atmosphere: .35, HotLengthMm: 220, FuelKgPerH: 2},
		"charcoal": {TempC: 1250, Atmosphere: .2, HotLengthMm: 140, FuelKgPerH: 3},
		"coke":     {TempC: 1300, Atmosphere: .35, HotLengthMm: 120, FuelKgPerH: 1.8},
	}
}

// WithHearth moves to another forge; carrying, brushing and the smith's own
// temperatures stay.
func (f Fire) WithHearth(x Hearth) Fire {
	f.TempC, f.Atmosphere, f.HotLengthMm, f.FuelKgPerH = x.TempC, x.Atmosphere, x.HotLengthMm, x.FuelKgPerH
	return f
}

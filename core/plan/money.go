package plan

import (
	"coldember/core/fact"
	"coldember/core/steel"
)

// Prices are the shop's, in its own money; 0 is not counted.
type Prices struct {
	SteelPrice float64 `json:"steelPrice,omitempty" doc:"of a kilogram of bar"`
	FuelPrice  float64 `json:"fuelPrice,omitempty" doc:"of a kilogram of fuel"`
	HourPrice  float64 `json:"hourPrice,omitempty" doc:"of an hour at fire and anvil"`
}

// mostPrice keeps a slip of the keyboard out.
const mostPrice = 1e6

// Validate reports every price that cannot be.
func (p Prices) Validate(c fact.Check) {
	c.Range("steelPrice", p.SteelPrice, 0, mostPrice)
	c.Range("fuelPrice", p.FuelPrice, 0, mostPrice)
	c.Range("hourPrice", p.HourPrice, 0, mostPrice)
}

// Money is what a piece costs until it is forged, thermal cycles included.
type Money struct {
	Steel float64 `json:"steel"`
	Fuel  float64 `json:"fuel"`
	Time  float64 `json:"time"`
	Total float64 `json:"total"`
}

// Cost of what is cut from the bar, of fuel (g) and time (s).
func (p Prices) Cost(startMm3, fuelG, timeS float64) Money {
	m := Money{
		Steel: startMm3 * steel.DensityGPerCm3 / 1e6 * p.SteelPrice,
		Fuel:  fuelG / 1000 * p.FuelPrice,
		Time:  timeS / 3600 * p.HourPrice,
	}
	m.Total = m.Steel + m.Fuel + m.Time
	return m
}

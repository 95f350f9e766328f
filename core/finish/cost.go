package finish

import "math"

// Hours are what a part of the work takes.
type Hours struct {
	What string  `json:"what" enum:"forging,cycles,hardening,grinding,handle,edge"`
	Min  float64 `json:"min"`
	Low  float64 `json:"lowMin"`
	High float64 `json:"highMin"`
}

// Account is what the whole knife takes and costs, in the shop's money; 0 is not counted.
type Account struct {
	Hours  []Hours `json:"hours"`
	Min    float64 `json:"min"`
	Low    float64 `json:"lowMin" doc:"four times in five it takes no less"`
	High   float64 `json:"highMin"`
	Belts  float64 `json:"belts"`
	Steel  float64 `json:"steel"`
	Fuel   float64 `json:"fuel"`
	Used   float64 `json:"used" doc:"belts, block, fittings, sheath"`
	Time   float64 `json:"time"`
	Cost   float64 `json:"cost"`
	Price  float64 `json:"price" doc:"with its margin, to the next whole"`
	LowAt  float64 `json:"lowCost"`
	HighAt float64 `json:"highCost"`
}

// Before is what the knife took until it was hardened.
type Before struct {
	ForgeMin, CyclesMin, HardenMin float64
	Steel, Fuel                    float64
	HourPrice                      float64
}

// The time of forging and hardening is known to within so much, four times in five (judgement,
// until the book says better).
const forgeDoubt = 1.35

// AccountOf sums a knife up.
func AccountOf(steps []Step, b Before, p Prices) Account {
	a := Account{Hours: []Hours{}, Steel: b.Steel, Fuel: b.Fuel}
	add := func(what string, minutes, low, high float64) {
		if minutes <= 0 {
			return
		}
		a.Hours = append(a.Hours, Hours{what, minutes, low, high})
		a.Min += minutes
	}
	add("forging", b.ForgeMin, b.ForgeMin/forgeDoubt, b.ForgeMin*forgeDoubt)
	add("cycles", b.CyclesMin, b.CyclesMin/forgeDoubt, b.CyclesMin*forgeDoubt)
	add("hardening", b.HardenMin, b.HardenMin/forgeDoubt, b.HardenMin*forgeDoubt)
	of := map[string]string{"soft": "grinding", "hard": "grinding", "handle": "handle", "edge": "edge"}
	sums := map[string]*Hours{}
	for i := range steps {
		s := &steps[i]
		h := sums[of[s.Stage]]
		if h == nil {
			h = &Hours{}
			sums[of[s.Stage]] = h
		}
		h.Min, h.Low, h.High = h.Min+s.Minutes, h.Low+s.LowMin, h.High+s.HighMin
		a.Belts += s.Belts
	}
	for _, what := range []string{"grinding", "handle", "edge"} {
		if h := sums[what]; h != nil {
			add(what, h.Min, h.Low, h.High)
		}
	}
	// the parts are out by themselves, not all the same way: their squares add
	low, high := 0.0, 0.0
	for _, h := range a.Hours {
		low += (h.Min - h.Low) * (h.Min - h.Low)
		high += (h.High - h.Min) * (h.High - h.Min)
	}
	a.Low, a.High = math.Max(0, a.Min-math.Sqrt(low)), a.Min+math.Sqrt(high)
	a.Used = math.Ceil(a.Belts)*p.BeltPrice + p.BlockPrice + p.SheathPrice
	a.Time = a.Min / 60 * b.HourPrice
	a.Cost = a.Steel + a.Fuel + a.Used + a.Time
	a.LowAt, a.HighAt = a.Cost-a.Time+a.Low/60*b.HourPrice, a.Cost-a.Time+a.High/60*b.HourPrice
	a.Price = math.Ceil(a.Cost * (1 + p.MarginShare))
	return a
}

// Queue is the work that is promised before a knife: hours still to be done, the newest last.
type Queue struct {
	AheadMin     float64
	HoursPerWeek float64
}

// PromiseDays is in how many days a knife can be promised: what is ahead of it and itself at its
// upper end, spread over the weeks, and the days that glue and temper wait.
func PromiseDays(a *Account, q Queue) int {
	if q.HoursPerWeek <= 0 {
		return 0
	}
	const waitDays = 2
	weeks := (q.AheadMin + a.High) / 60 / q.HoursPerWeek
	return int(math.Ceil(weeks*7)) + waitDays
}

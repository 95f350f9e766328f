package hour

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
)

// Hour is what was measured, as it was read; a figure that is nought was not. Nothing is judged here.
type Hour struct {
	Smith   string `json:"smith"`
	SteelID string `json:"steelId" doc:"of the scrap bar"`
	Off     bool   `json:"off,omitempty" doc:"the plans do not go by it"`

	// The bar, and after so many counted blows on a marked stretch of it, from one heat.
	WidthMm          float64    `json:"widthMm"`
	ThicknessMm      float64    `json:"thicknessMm"`
	Face             forge.Face `json:"face" enum:"flat,round,peenAcross,peenAlong"`
	StretchMm        float64    `json:"stretchMm,omitempty" doc:"that was marked on the cold bar"`
	Blows            float64    `json:"blows,omitempty" doc:"counted on it"`
	LastedS          float64    `json:"lastedS,omitempty" doc:"from the first of them to the last"`
	AfterWidthMm     float64    `json:"afterWidthMm,omitempty"`
	AfterThicknessMm float64    `json:"afterThicknessMm,omitempty"`

	// The fire: how long a stretch glows, how long the bar takes to hold a magnet again, and by how much it warms water.
	GlowMm     float64 `json:"glowMm,omitempty"`
	MagnetS    float64 `json:"magnetS,omitempty" doc:"out of the fire, as hot as it gets there, until a magnet holds again"`
	HotKg      float64 `json:"hotKg,omitempty" doc:"of steel that went into the water, as hot as it gets"`
	WaterKg    float64 `json:"waterKg,omitempty"`
	WaterRiseK float64 `json:"waterRiseK,omitempty" doc:"how much warmer it then was"`

	// Scale: a flat before and after some heats; it has much skin for its weight.
	FlatWidthMm     float64 `json:"flatWidthMm"`
	FlatThicknessMm float64 `json:"flatThicknessMm"`
	BeforeKg        float64 `json:"beforeKg,omitempty"`
	AfterKg         float64 `json:"afterKg,omitempty"`
	Heats           float64 `json:"heats,omitempty"`
	HeatS           float64 `json:"heatS,omitempty" doc:"in the fire, each of them, from cold"`

	// Fuel: bottle or bin before and after.
	FuelBeforeKg float64 `json:"fuelBeforeKg,omitempty"`
	FuelAfterKg  float64 `json:"fuelAfterKg,omitempty"`
	FuelS        float64 `json:"fuelS,omitempty" doc:"that the fire burned between"`

	// One coupon, quenched.
	File        string  `json:"file,omitempty" enum:"skates,bites"`
	GrainNumber float64 `json:"grainNumber,omitempty" doc:"ASTM, by the pictures"`
	HardMm      float64 `json:"hardMm,omitempty" doc:"the thickest of the filed edges that was hard"`
}

// New is the hour of a smith, before anything is measured, on a usual scrap bar.
func New(smith string) Hour {
	return Hour{Smith: smith, SteelID: "1018", WidthMm: 16, ThicknessMm: 10, Face: forge.FlatFace, FlatWidthMm: 60, FlatThicknessMm: 5}
}

// Validate reports what cannot be.
func (h *Hour) Validate(c fact.Check) {
	if _, err := steel.Find(h.SteelID); err != nil {
		c.Fail("steelId", "field.choice", nil)
	}
	fact.OneOf(c, "face", h.Face, forge.FlatFace, forge.RoundFace, forge.PeenAcross, forge.PeenAlong)
	fact.OneOf(c, "file", h.File, "", "skates", "bites")
	c.Range("widthMm", h.WidthMm, 5, 100)
	c.Range("thicknessMm", h.ThicknessMm, 3, 60)
	c.Range("flatWidthMm", h.FlatWidthMm, 5, 200)
	c.Range("flatThicknessMm", h.FlatThicknessMm, 2, 60)
	for _, f := range []struct {
		name        string
		v, low, top float64
	}{
		{"stretchMm", h.StretchMm, 15, 300},
		{"blows", h.Blows, 5, 200},
		{"lastedS", h.LastedS, 2, 180},
		{"afterWidthMm", h.AfterWidthMm, 5, 150},
		{"afterThicknessMm", h.AfterThicknessMm, 1, 60},
		{"glowMm", h.GlowMm, 10, 1000},
		{"magnetS", h.MagnetS, 2, 900},
		{"hotKg", h.HotKg, .05, 10},
		{"waterKg", h.WaterKg, .5, 100},
		{"waterRiseK", h.WaterRiseK, .5, 70},
		{"beforeKg", h.BeforeKg, .05, 20},
		{"afterKg", h.AfterKg, .05, 20},
		{"heats", h.Heats, 1, 20},
		{"heatS", h.HeatS, 10, 3600},
		{"fuelBeforeKg", h.FuelBeforeKg, .01, 500},
		{"fuelAfterKg", h.FuelAfterKg, .01, 500},
		{"fuelS", h.FuelS, 300, 86400},
		{"grainNumber", h.GrainNumber, 1, 14},
		{"hardMm", h.HardMm, .5, 60},
	} {
		if f.v != 0 {
			c.Range(f.name, f.v, f.low, f.top)
		}
	}
	if h.AfterThicknessMm != 0 && h.AfterThicknessMm >= h.ThicknessMm {
		c.Range("afterThicknessMm", h.AfterThicknessMm, 1, h.ThicknessMm-.1)
	}
	if h.AfterKg != 0 && h.AfterKg >= h.BeforeKg && h.BeforeKg != 0 {
		c.Range("afterKg", h.AfterKg, .05, h.BeforeKg-1e-3)
	}
	if h.FuelAfterKg != 0 && h.FuelAfterKg >= h.FuelBeforeKg && h.FuelBeforeKg != 0 {
		c.Range("fuelAfterKg", h.FuelAfterKg, .01, h.FuelBeforeKg-1e-3)
	}
}

// FactorFound is a law's factor as it was measured: its middle, and the spread of its logarithm.
type FactorFound struct {
	Factor float64 `json:"factor"`
	SdLog  float64 `json:"sdLog"`
}

// FigureFound is a figure as it was measured, and how far it may be off.
type FigureFound struct {
	Is float64 `json:"is"`
	Sd float64 `json:"sd"`
}

// Tells is what an hour tells; what was not measured is nil.
type Tells struct {
	Blow   *FactorFound `json:"blow,omitempty" doc:"what a blow does over the law's"`
	Spread *FactorFound `json:"spread,omitempty" doc:"what goes into width over the law's"`
	Scale  *FactorFound `json:"scale,omitempty" doc:"depth of scale over the law's"`
	Pace   *FigureFound `json:"ratePerS,omitempty" doc:"blows a second"`

	TempC       *FigureFound `json:"tempC,omitempty" doc:"of the fire"`
	HotLengthMm *FigureFound `json:"hotLengthMm,omitempty"`
	FuelKgPerH  *FigureFound `json:"fuelKgPerH,omitempty" doc:"at that temperature"`

	Coupon string `json:"coupon,omitempty" enum:"hard,soft,coarse" doc:"what the coupon says of bath and fire"`

	// Doubtful are the factors that the laws cannot read out of these figures, or that are farther off than is believed:
	// plans do not go by them.
	Doubtful []string `json:"doubtful,omitempty" enum:"blow,spread,scale"`
}

// mostOff is how many times the law's, or how small a part of it, a factor is believed to be (judgement: farther off a
// figure was mistyped).
const mostOff = 4.0

// sift leaves out what is not to be believed, and tells it.
func (t *Tells) sift() {
	for _, k := range []struct {
		name string
		f    **FactorFound
	}{{"blow", &t.Blow}, {"spread", &t.Spread}, {"scale", &t.Scale}} {
		if f := *k.f; f != nil && !(f.Factor > 1/mostOff && f.Factor < mostOff) {
			*k.f, t.Doubtful = nil, append(t.Doubtful, k.name)
		}
	}
}

// How far what is read may be off, and how far a law that it is read by (judgement, each as one standard deviation).
const (
	caliperMm    = .09 // on scaly steel, .15 at each of three places
	balanceKg    = .001
	waterK       = .3  // a kitchen thermometer
	steamShare   = .02 // of its heat the steel loses as steam and on its way
	steamSdShare = .015
	radiantLog   = .1  // emissivity
	eyeS         = 1.0 // until one sees that a magnet holds
	chalkMm      = 8.0
	landsLog     = .05 // fifteen or thirty blows, of which some land badly
	flowLog      = .04 // of the flow stress of a plain scrap bar: what is left, for the factor holds it
	scaleLog     = .05 // what flakes off with the brush
)

// Read is what an hour tells, by the laws, of a smith at a fire as the shop has them.
func Read(h *Hour, smith forge.Smith, fire forge.Fire) Tells {
	out := Tells{}
	if f := h.tempC(); f != nil {
		out.TempC = f
		fire = fire.Turned(f.Is)
	}
	if h.GlowMm > 0 {
		out.HotLengthMm = &FigureFound{h.GlowMm, chalkMm}
	}
	h.blow(&out, smith, fire)
	out.Scale = h.scale(fire)
	out.sift()
	if t := h.FuelS; t > 0 && h.FuelBeforeKg > h.FuelAfterKg && h.FuelAfterKg > 0 {
		burnt := h.FuelBeforeKg - h.FuelAfterKg
		out.FuelKgPerH = &FigureFound{burnt / t * 3600, math.Sqrt2 * math.Max(balanceKg, h.FuelBeforeKg*balanceShare) / t * 3600}
	}
	switch {
	case h.GrainNumber > 0 && h.GrainNumber < coarseGrain:
		out.Coupon = "coarse"
	case h.File == "bites":
		out.Coupon = "soft"
	case h.File == "skates":
		out.Coupon = "hard"
	}
	return out
}

const (
	balanceShare = 1e-3 // of a bottle that is weighed
	coarseGrain  = 7    // ASTM, from which a file and a pattern of fracture show that it was too hot
)

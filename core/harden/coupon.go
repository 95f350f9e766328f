package harden

import (
	"math"
	"strconv"

	"coldember/core/fact"
	"coldember/core/steel"
)

// Tried is what tests of a bar of unknown steel gave, result by test: oilQuench, waterQuench and
// airCool skates or bites; snap fineGrey, coarse or bends.
type Tried map[string]string

const (
	skates = "skates"
	bites  = "bites"
)

// How a steel that nobody knows is tried, and tempered to begin with (judgement: most steels of
// springs, tools and bearings harden there, and a temper can be done again hotter, not cooler).
const (
	couponC     = 800.0
	couponStepC = 30.0
	couponMin   = 5.0
	couponOvenC = 200.0
)

// couponGrade is a grade that nobody knows with what a coupon of it is to be treated with: hotter
// where one stayed soft in oil, cooler where one broke coarse. ok is false where one stayed soft in
// water too: it has too little carbon.
func couponGrade(g steel.Grade, tried Tried) (out steel.Grade, ok bool) {
	g.AustenitiseC, g.SoakMin, g.Quench, g.HRC = couponC, couponMin, steel.FastOil, nil
	switch {
	case tried["oilQuench"] == bites && tried["waterQuench"] == bites:
		return g, false
	case tried["snap"] == "coarse":
		g.AustenitiseC -= couponStepC
	case tried["oilQuench"] == bites:
		g.AustenitiseC += couponStepC
	}
	return g, true
}

// proved tells whether a coupon hardened in oil and broke fine.
func (t Tried) proved() bool { return t["oilQuench"] == skates && t["snap"] == "fineGrey" }

// judgeTried says what is known of a steel by its tests.
func (a *Advice) judgeTried(tried Tried) {
	switch {
	case tried["airCool"] == skates:
		a.find("harden.couponAir", fact.Warn, nil)
	case tried.proved():
		a.find("harden.couponProved", fact.Note, fact.Figures{"austenitiseC": a.AustenitiseC})
	case tried["oilQuench"] == skates:
		a.find("harden.couponFiled", fact.Warn, fact.Figures{"austenitiseC": a.AustenitiseC})
	case tried["oilQuench"] == bites && tried["waterQuench"] == skates:
		a.find("harden.couponWater", fact.Warn, nil)
	case tried["oilQuench"] == bites:
		a.find("harden.couponSoft", fact.Warn, fact.Figures{"austenitiseC": a.AustenitiseC})
	default:
		a.find("harden.coupon", fact.Warn, fact.Figures{"austenitiseC": a.AustenitiseC})
	}
}

// couponSteps are how a coupon is tried before the blade: none where one proved it already.
func (a *Advice) couponSteps(c *Case, add func(Step)) {
	if c.Tried.proved() {
		return
	}
	figures := fact.Figures{"spineMm": math.Round(2*a.SpineAtQuenchMm) / 2, "austenitiseC": a.AustenitiseC, "hotterC": a.AustenitiseC + couponStepC, "coolerC": a.AustenitiseC - couponStepC, "warmC": NewBath(FastOil).WarmC, "ovenC": couponOvenC, "lastS": c.Treatment.Hours * 3600}
	words := map[string]string{"colour": heatWord(a.AustenitiseC), "bath": "bath." + string(FastOil)}
	for i, s := range []struct {
		code     string
		sees     []Sight
		cautions []string
	}{
		{"coupon.plan.cut", nil, nil},
		{"coupon.plan.quench", []Sight{SeeTemp, SeeBath}, []string{"caution.quench"}},
		{"coupon.plan.file", []Sight{SeeFile}, nil},
		{"coupon.plan.snap", []Sight{SeeGrain}, []string{"coupon.caution.snap"}},
		{"coupon.plan.temper", []Sight{SeeTemp, SeeTime}, nil},
	} {
		add(Step{ID: "coupon-" + strconv.Itoa(i+1), Codes: []string{s.code}, Figures: figures, Words: words, Sees: s.sees, Cautions: s.cautions})
	}
}

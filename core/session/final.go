package session

import (
	"cmp"
	"slices"

	"coldember/core/fact"
)

// Outcome is how a test of a finished knife went.
type Outcome string

// The outcomes.
const (
	Passed Outcome = "passed"
	Failed Outcome = "failed"
)

// Final is what a finished knife came to; what was not looked at is left out.
type Final struct {
	MassG     float64  `json:"massG,omitempty"`
	BalanceMm float64  `json:"balanceMm,omitempty" doc:"from the point"`
	WarpMm    float64  `json:"warpMm,omitempty" doc:"out of straight, over the length of the blade"`
	BehindMm  float64  `json:"behindMm,omitempty" doc:"thickness where the bevel of the edge begins"`
	File      FileTest `json:"file,omitempty" enum:"skates,bites" doc:"at the finished edge"`
	Cuts      Outcome  `json:"cuts,omitempty" enum:"passed,failed" doc:"the smith's own cutting test"`
	Flexes    Outcome  `json:"flexes,omitempty" enum:"passed,failed" doc:"the smith's own flexing test"`
	WorkMin   float64  `json:"workMin,omitempty" doc:"that grinding and fitting took"`
	Took      []Took   `json:"took,omitempty" doc:"minutes of steps of finishing"`
}

// Took is how long a step of finishing took, beside what was estimated without the shop's log.
type Took struct {
	Step   string  `json:"step" doc:"of finishing"`
	Pace   string  `json:"pace" enum:"grind,sand,fit" doc:"which pace it tells of"`
	Min    float64 `json:"min"`
	LawMin float64 `json:"lawMin" doc:"that the table estimates"`
}

// mostTook is how many steps one note may tell of.
const mostTook = 60

// OnlyTimes tells whether a note is of how long steps took and of nothing else: the knife is still in
// the making.
func (f *Final) OnlyTimes() bool {
	rest := *f
	rest.Took = nil
	return len(f.Took) > 0 && rest.Empty()
}

// Empty tells whether a note says nothing.
func (f *Final) Empty() bool {
	return f.MassG == 0 && f.BalanceMm == 0 && f.WarpMm == 0 && f.BehindMm == 0 && f.WorkMin == 0 && f.File == "" && f.Cuts == "" && f.Flexes == "" && len(f.Took) == 0
}

func (f *Final) validate(k fact.Check, c *Course) {
	if f == nil {
		return
	}
	k.Range("massG", f.MassG, 0, plausible*(c.StartG+2000))
	k.Range("balanceMm", f.BalanceMm, 0, 3*c.LongestMm()+500)
	k.Range("warpMm", f.WarpMm, -c.LongestMm(), c.LongestMm())
	k.Range("behindMm", f.BehindMm, 0, 10)
	k.Range("workMin", f.WorkMin, 0, 60*24*60)
	fact.OneOf(k, "file", f.File, "", Skates, Bites)
	fact.OneOf(k, "cuts", f.Cuts, "", Passed, Failed)
	fact.OneOf(k, "flexes", f.Flexes, "", Passed, Failed)
	k.Range("took", float64(len(f.Took)), 0, mostTook)
	for i := range f.Took {
		t := &f.Took[i]
		at := k.Within("took").Within(t.Step)
		if !plainID(t.Step) {
			at.Fail("step", "field.id", nil)
		}
		fact.OneOf(at, "pace", t.Pace, "grind", "sand", "fit")
		at.Range("min", t.Min, .1, 24*60)
		at.Range("lawMin", t.LawMin, .01, 60*24*60)
	}
}

func (f *Final) compare(o *Final) int {
	if f == nil || o == nil {
		return nils(f == nil, o == nil)
	}
	return cmp.Or(
		cmp.Compare(f.MassG, o.MassG), cmp.Compare(f.BalanceMm, o.BalanceMm), cmp.Compare(f.WarpMm, o.WarpMm), cmp.Compare(f.BehindMm, o.BehindMm),
		cmp.Compare(f.File, o.File), cmp.Compare(f.Cuts, o.Cuts), cmp.Compare(f.Flexes, o.Flexes), cmp.Compare(f.WorkMin, o.WorkMin),
		slices.CompareFunc(f.Took, o.Took, func(a, b Took) int {
			return cmp.Or(cmp.Compare(a.Step, b.Step), cmp.Compare(a.Min, b.Min), cmp.Compare(a.LawMin, b.LawMin), cmp.Compare(a.Pace, b.Pace))
		}),
	)
}

// Aim is what the finished knife was to come to.
type Aim struct {
	MassG     float64 `json:"massG"`
	BalanceMm float64 `json:"balanceMm"`
	BehindMm  float64 `json:"behindMm"`
}

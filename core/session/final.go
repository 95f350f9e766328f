package session

import (
	"cmp"

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
}

func (f *Final) compare(o *Final) int {
	if f == nil || o == nil {
		return nils(f == nil, o == nil)
	}
	return cmp.Or(
		cmp.Compare(f.MassG, o.MassG), cmp.Compare(f.BalanceMm, o.BalanceMm), cmp.Compare(f.WarpMm, o.WarpMm), cmp.Compare(f.BehindMm, o.BehindMm),
		cmp.Compare(f.File, o.File), cmp.Compare(f.Cuts, o.Cuts), cmp.Compare(f.Flexes, o.Flexes), cmp.Compare(f.WorkMin, o.WorkMin),
	)
}

// Aim is what the finished knife was to come to.
type Aim struct {
	MassG     float64 `json:"massG"`
	BalanceMm float64 `json:"balanceMm"`
	BehindMm  float64 `json:"behindMm"`
}

// Package plantest has the pieces of work that the tests of planning share.
package plantest

import (
	"context"
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/section"
	"coldember/core/steel"
	"coldember/core/stock"

	"github.com/stretchr/testify/require"
)

// After is the piece after the last heat that works an operation.
func After(t require.TestingT, p *plan.Plan, op string) []plan.Station {
	var shape []plan.Station
	for _, h := range p.Heats {
		for _, part := range h.Parts {
			if part.Operation == op {
				shape = h.Shape
			}
		}
	}
	require.NotEmpty(t, shape, op)
	return shape
}

// Middle is the middle of a section of a drawn piece.
func Middle(s plan.Station) (x, y float64) {
	x0, y0 := s.Spine()
	x1, y1 := s.Edge()
	return (x0 + x1) / 2, (y0 + y1) / 2
}

// OfTang are the stations of the tang.
func OfTang(st []plan.Station) (out []plan.Station) {
	for _, s := range st {
		if s.Zone == plan.ZoneTang {
			out = append(out, s)
		}
	}
	return out
}

// At is the height and thickness of a shape at x mm from the point, within a
// zone; ok is false outside it.
func At(shape []plan.Station, zone string, x float64) (height, thickness float64, ok bool) {
	for i := 1; i < len(shape); i++ {
		a, b := shape[i-1], shape[i]
		if a.Zone != zone || b.Zone != zone || x < a.XMm || x > b.XMm || a.XMm == b.XMm {
			continue
		}
		f := (x - a.XMm) / (b.XMm - a.XMm)
		mix := func(p, q float64) float64 { return p + (q-p)*f }
		return mix(a.SpineY-a.EdgeY, b.SpineY-b.EdgeY), mix(a.ThicknessMm, b.ThicknessMm), true
	}
	return 0, 0, false
}

// IDs are the operations in order, without the thermal cycles.
func IDs(p *plan.Plan) (out []string) {
	for _, o := range p.Operations {
		if o.TargetC == 0 {
			out = append(out, o.ID)
		}
	}
	return out
}

// StepOf is the operation of a plan with this id, or an empty one.
func StepOf(p *plan.Plan, id string) *plan.Step {
	for i := range p.Operations {
		if p.Operations[i].ID == id {
			return &p.Operations[i]
		}
	}
	return &plan.Step{}
}

// ByKind are the operations of a plan by their kind.
func ByKind(p *plan.Plan) map[string]*plan.Step {
	out := map[string]*plan.Step{}
	for i := range p.Operations {
		out[p.Operations[i].Kind] = &p.Operations[i]
	}
	return out
}

// SanityForged is the reference piece: a 110 mm blade 30 high falling as a root
// over the last 38 mm, spine 4.2 to 2.6, forged edge 2.2, with ricasso and tang.
func SanityForged() *blade.Blade {
	b := blade.Blade{
		Outline: blade.Outline{Join: blade.Straight}, Thickness: []blade.Node{{0, 2.6}, {110, 4.2}},
		Grind:   blade.Grind{Kind: section.Flat, BevelFraction: 1, EdgeMm: 2.2},
		Ricasso: &blade.Ricasso{LengthMm: 18, HeightMm: 24, ThicknessMm: 4.8},
		Tang:    &blade.Tang{LengthMm: 95, HeightAtShoulderMm: 15, HeightAtEndMm: 9, ThicknessAtShoulderMm: 4.5, ThicknessAtEndMm: 3, DropMm: 4},
	}
	b.Outline.Spine = []blade.Node{{0, 0}, {110, 0}}
	for i := range 20 {
		x := 38 * float64(i) / 19
		b.Outline.Edge = append(b.Outline.Edge, blade.Node{x, -30 * math.Sqrt(x/38)})
	}
	b.Outline.Edge = append(b.Outline.Edge, blade.Node{110, -30})
	return &b
}

// Sanity asks for the reference piece from a flat bar of this section.
func Sanity(w, t float64) plan.Request {
	r := plan.NewRequest(blade.Design{}, "1084", Flat(w, t, 1000), forge.Steady)
	r.Forged = SanityForged()
	r.Steel = &steel.Grade{ID: "reference", CarbonPct: .8, ForgeLowC: 850, ForgeHighC: 1100, NormaliseC: 870, FlowFactor: 1}
	r.Sizing.TrimMm, r.Sizing.KerfMm = 0, 0
	return r
}

// Flat is a flat bar, mm.
func Flat(w, t, l float64) stock.Item {
	return stock.Item{Form: stock.Flat, WidthMm: w, ThicknessMm: t, LengthMm: l}
}

// Starter is a design that the library starts with.
func Starter(id string) blade.Design {
	for _, s := range blade.Starters() {
		if s.ID == id {
			return s.Design
		}
	}
	panic("no starter " + id)
}

// Request is an ordinary piece of work: a utility knife from 25 × 5.
func Request() plan.Request {
	return plan.NewRequest(Starter("utility"), "80CrV2", Flat(25, 5, 1000), forge.Steady)
}

// Make makes a plan that has to be made.
func Make(t require.TestingT, r plan.Request) *plan.Plan {
	p, err := planner.Make(context.Background(), r)
	require.NoError(t, err)
	return p
}

// Warning is the first warning of a plan with this code, or an empty one.
func Warning(p *plan.Plan, code string) fact.Warning {
	for _, w := range p.Warnings {
		if w.Code == code {
			return w
		}
	}
	return fact.Warning{}
}

// Slicer is a deep kitchen blade on a bar.
func Slicer(bar stock.Item) plan.Request {
	d := blade.Design{
		Shape: blade.StraightBack, LengthMm: 205, HeightMm: 48, SpineMm: 2.8, TipMm: 1.6,
		Grind:   blade.Grind{Kind: section.Flat, BevelFraction: 1, EdgeMm: .4},
		Ricasso: blade.Ricasso{LengthMm: 16, HeightMm: 26, ThicknessMm: 3.4}, Tang: blade.Tang{LengthMm: 110},
	}
	d.SetTang(blade.HiddenTang)
	return plan.NewRequest(d, "1084", bar, forge.Sure)
}

// Handle gives the design of a request a handle.
func Handle(r *plan.Request) *blade.Handle {
	r.Design.Handle = blade.NewHandle(r.Design)
	return r.Design.Handle
}

// OnSalvage is a request for a small blade on a piece of salvage.
func OnSalvage(p stock.Item) plan.Request {
	d := Starter("utility")
	d = d.Scaled(.7, .7, .8)
	r := plan.NewRequest(d, "52100", p, forge.Sure)
	r.Allowances = blade.ForgeClose.Allowances()
	r.Choices.Holding = plan.WeldedRod
	return r
}

// TooNarrow is the warning of a plan that its bar will not do, or an empty one.
func TooNarrow(p *plan.Plan) fact.Warning {
	for _, code := range []string{"warn.tooNarrow", "warn.tooNarrowUpset", "warn.tooLight"} {
		if w := Warning(p, code); w.Code != "" {
			return w
		}
	}
	return fact.Warning{}
}

// Thick is a blade from a bar that is heavy going by hand.
func Thick(m *forge.Machine) plan.Request {
	r := Request()
	r.Bar = Flat(30, 14, 600)
	r.Smith.Machine = m
	return r
}

// ForgedEdge makes it a blade forged to an edge so thick.
func ForgedEdge(r *plan.Request, mm float64) {
	r.Allowances.ForgingEdgeMm, r.Allowances.FaceMm = mm, .4
}

// SteelOf is the grade that a request is planned with.
func SteelOf(r plan.Request) steel.Grade {
	if r.Steel != nil {
		return *r.Steel
	}
	g, err := steel.Find(r.SteelID)
	if err != nil {
		panic(err)
	}
	return g
}

// ZoneFrom is where a zone of a drawn piece begins.
func ZoneFrom(spans []plan.Span, zone string) float64 {
	for _, s := range spans {
		if s.Zone == zone {
			return s.FromMm
		}
	}
	return 0
}

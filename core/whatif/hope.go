package whatif

import (
	"context"
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/route"
	"coldember/core/stock"
)

// Hope is one way out where there is steel enough but not the width or the
// thickness: which figure would do, and whether a whole plan bears it out.
type Hope struct {
	Code    string             `json:"code"`
	Figures map[string]float64 `json:"figures,omitempty"`
	Works   bool               `json:"works"`
	// Edits are the fields that take it, as figures (mm) or choices.
	Field string  `json:"field,omitempty"`
	Mm    float64 `json:"mm,omitempty"`
	Text  string  `json:"text,omitempty"`
	BarMm float64 `json:"barMm,omitempty" doc:"of the bar it then takes"`
}

// Hopes lists the ways out of a plan that its bar cannot bear: a wider bar, a
// thicker one, the other way of bevelling, folding the bar upon itself, a lower
// or a thinner blade. It is empty where nothing is in the way. Errors are
// fact.FieldErrors or the context's.
func Hopes(ctx context.Context, req plan.Request) ([]Hope, error) {
	p, err := planner.Make(ctx, req)
	if err != nil {
		return nil, err
	}
	out := []Hope{}
	if p.Obstacle().Code == "" {
		return out, nil
	}
	h := prover{ctx: ctx, req: req, plan: p}
	for _, way := range []func() (*Hope, error){h.wider, h.thicker, h.otherBevel, h.fold, h.upset, h.lower, h.thinner, h.shorter} {
		hope, err := way()
		if err != nil {
			return nil, err
		}
		if hope != nil {
			out = append(out, *hope)
		}
	}
	return out, nil
}

type prover struct {
	ctx  context.Context
	req  plan.Request
	plan *plan.Plan
}

// prove makes the plan that a way out leads to.
func (h *prover) prove(hope *Hope, r plan.Request) (*Hope, error) {
	p, err := tryPlan(h.ctx, r)
	if err != nil {
		return nil, err
	}
	if p != nil {
		hope.Works, hope.BarMm = p.Obstacle().Code == "", p.Bar.CutLengthMm
	}
	return hope, nil
}

// reserve is a bar long enough that only its section is asked about.
const reserveMm = 8000

func (h *prover) onFlat(w, t float64) plan.Request {
	r := h.req
	r.Bar = stock.Item{Form: stock.Flat, WidthMm: w, ThicknessMm: t, LengthMm: reserveMm}
	return r
}

func (h *prover) wider() (*Hope, error) {
	b := h.plan.Bar
	w, _ := route.BarThatReaches(h.plan.Feasibility, h.req.Smith, h.req.Choices.Method, b.WidthMm, b.ThicknessMm)
	w = stock.SoldWidthMm(w)
	if w <= b.WidthMm {
		return nil, nil
	}
	return h.prove(&Hope{Code: "hope.wider", Figures: map[string]float64{"widthMm": w, "byMm": w - b.WidthMm}, Field: "bar.widthMm", Mm: w}, h.onFlat(w, b.ThicknessMm))
}

func (h *prover) thicker() (*Hope, error) {
	b := h.plan.Bar
	_, t := route.BarThatReaches(h.plan.Feasibility, h.req.Smith, h.req.Choices.Method, b.WidthMm, b.ThicknessMm)
	t = math.Max(t, h.req.Design.Ricasso.ThicknessMm)
	if w := h.plan.Obstacle(); w.Code == "warn.barThin" {
		t = math.Max(t, w.Figures["needMm"])
	}
	if t <= b.ThicknessMm {
		return nil, nil
	}
	// a thicker bar leaves a thicker ricasso, which may want a little more again
	for range 6 {
		t = stock.SoldThicknessMm(t)
		hope, err := h.prove(&Hope{Code: "hope.thicker", Figures: map[string]float64{"thicknessMm": t, "byMm": t - b.ThicknessMm}, Field: "bar.thicknessMm", Mm: t}, h.onFlat(b.WidthMm, t))
		if err != nil || hope.Works {
			return hope, err
		}
		t += .5
	}
	return nil, nil
}

// otherBevel pinches out what was to be pushed in: that gains depth.
func (h *prover) otherBevel() (*Hope, error) {
	if h.req.Choices.Method != forge.PushIn {
		return nil, nil
	}
	r := h.req
	r.Choices.Method = forge.PinchOut
	return h.prove(&Hope{Code: "hope.pinchOut", Field: "choices.method", Text: string(forge.PinchOut)}, r)
}

// fold doubles the bar upon itself and welds it: twice as thick, half as long.
// The weld's own loss is not in it.
func (h *prover) fold() (*Hope, error) {
	b := h.plan.Bar
	if b.AvailableMm < 2*b.CutLengthMm && b.LeftMm < 0 {
		return nil, nil // there is not steel enough either
	}
	r := h.onFlat(b.WidthMm, 2*b.ThicknessMm)
	r.Bar.LengthMm = b.AvailableMm / 2
	return h.prove(&Hope{Code: "hope.fold", Figures: map[string]float64{"thicknessMm": 2 * b.ThicknessMm, "lengthMm": b.AvailableMm / 2}}, r)
}

// upsetFree is how many thicknesses of free length can be upset before it bends
// away.
const upsetFree = 3.0

// Upset tells how much of the bar would have to be driven together for the
// thickness that is wanted: it bends past three thicknesses of free length, so
// that it is only a way where little is short.
func (h *prover) upset() (*Hope, error) {
	b := h.plan.Bar
	_, t := route.BarThatReaches(h.plan.Feasibility, h.req.Smith, h.req.Choices.Method, b.WidthMm, b.ThicknessMm)
	if t <= b.ThicknessMm {
		return nil, nil
	}
	from, to := 0.0, 0.0
	for _, m := range b.Marks {
		if m.Zone == plan.ZoneBlade {
			from, to = m.FromMm, m.ToMm
		}
	}
	limit := upsetFree * b.ThicknessMm
	hope := &Hope{Code: "hope.upset", Figures: map[string]float64{"thicknessMm": t, "lengthMm": to - from, "limitMm": limit}}
	if to-from > limit {
		return hope, nil
	}
	return h.prove(hope, h.onFlat(b.WidthMm, t))
}

// largest finds the largest figure of the design, below the present one, that
// the bar bears.
func (h *prover) largest(code, field string, now, least float64, set func(*plan.Request, float64)) (*Hope, error) {
	lo, hi := least, now
	good := 0.0
	for range 12 {
		mid := (lo + hi) / 2
		r := h.req
		set(&r, mid)
		p, err := tryPlan(h.ctx, r)
		if err != nil {
			return nil, err
		}
		if p != nil && p.Obstacle().Code == "" {
			good, lo = mid, mid
		} else {
			hi = mid
		}
	}
	if good == 0 {
		return nil, nil
	}
	// plans waver by a hair, so that a tenth less may ask for a little more: the first that does is taken
	good = math.Floor(good*10) / 10
	for try := 0; ; try++ {
		r := h.req
		set(&r, good)
		hope, err := h.prove(&Hope{Code: code, Figures: map[string]float64{"toMm": good, "byMm": now - good}, Field: field, Mm: good}, r)
		if err != nil || hope.Works || try == hairTries {
			return hope, err
		}
		good = math.Round(10*good-1) / 10
	}
}

// hairTries is how many tenths of a millimetre are tried below what just does.
const hairTries = 5

func (h *prover) lower() (*Hope, error) {
	d := h.req.Design
	return h.largest("hope.lower", "design.heightMm", d.HeightMm, d.HeightMm*.4, func(r *plan.Request, mm float64) { r.Design.HeightMm = mm })
}

func (h *prover) thinner() (*Hope, error) {
	d := h.req.Design
	return h.largest("hope.thinner", "design.spineMm", d.SpineMm, math.Max(d.TipMm, d.SpineMm*.5), func(r *plan.Request, mm float64) { r.Design.SpineMm = mm })
}

func (h *prover) shorter() (*Hope, error) {
	if h.plan.Bar.LeftMm >= 0 {
		return nil, nil
	}
	d := h.req.Design
	return h.largest("hope.shorter", "design.lengthMm", d.LengthMm, d.LengthMm*.3, func(r *plan.Request, mm float64) { r.Design.LengthMm = mm })
}

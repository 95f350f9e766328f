package route

import (
	"slices"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
)

// stage is how far an operation brings a cell: no later one goes back behind it,
// in whatever order they are taken.
type stage int

const (
	asItIs stage = iota
	gathered
	squared
	flattened
	preformed
	bevelled
	finished
)

// aim gives every operation its targets in the order they come in.
func (r *Route) aim(ops []*forge.Operation, brings map[*forge.Operation]stage) {
	reached := make([]stage, len(r.Cells))
	for _, op := range ops {
		if brings[op] == asItIs {
			continue
		}
		for i := op.First; i <= op.Last; i++ {
			reached[i] = max(reached[i], brings[op])
			op.Targets = append(op.Targets, r.at(i, reached[i]))
		}
	}
}

// at is the section of a cell at a stage.
func (r *Route) at(i int, s stage) forge.Target {
	switch s {
	case gathered:
		return r.gathered(i)
	case bevelled:
		return r.Cells[i].Bevelled
	case squared:
		return forge.Target{WidthMm: r.Square, ThicknessMm: r.Square, EdgeMm: r.Square, SpineMm: r.Square}
	case flattened:
		return r.Flat[i]
	case preformed:
		return r.Cells[i].Preform
	default:
		return r.Cells[i].Final
	}
}

// inOrder sorts operations as the smith wants them; those that the order does
// not name stay behind all that they came after.
func inOrder(ops []*forge.Operation, order []string) []*forge.Operation {
	if len(order) == 0 {
		return ops
	}
	place := map[string]int{}
	latest := -1
	for _, op := range ops {
		k := slices.Index(order, op.ID)
		latest = max(latest, k)
		if k < 0 {
			k = latest
		}
		place[op.ID] = k
	}
	out := slices.Clone(ops)
	slices.SortStableFunc(out, func(a, b *forge.Operation) int { return place[a.ID] - place[b.ID] })
	return out
}

// Need is what must come before an operation, and why. A need of the school
// tells why the planner has it so; another order is as good.
type Need struct {
	Code   string
	After  forge.Kind
	School plan.First // only where this is forged first; no need of the work itself
}

// tangNeeds are those of the first work behind the ricasso.
var tangNeeds = []Need{
	{Code: "need.pointFixesLength", After: forge.Point, School: plan.PointFirst},
	{Code: "need.tangKnowsWhatIsLeft", After: forge.Corners, School: plan.TangFirst},
	{Code: "need.flatBeforeShoulder", After: forge.BreakDown},
	{Code: "need.weldFirst", After: forge.Weld},
	{Code: "need.rodFirst", After: forge.WeldOn},
	{Code: "need.bitFirst", After: forge.WeldBit},
}

// needs is the graph of needs.
var needs = map[forge.Kind][]Need{
	forge.Weld:      {{Code: "need.straightFirst", After: forge.Straighten}},
	forge.WeldOn:    {{Code: "need.straightFirst", After: forge.Straighten}, {Code: "need.weldFirst", After: forge.Weld}},
	forge.Corners:   {{Code: "need.straightFirst", After: forge.Straighten}, {Code: "need.weldFirst", After: forge.Weld}, {Code: "need.rodFirst", After: forge.WeldOn}, {Code: "need.bitFirst", After: forge.WeldBit}},
	forge.BreakDown: {{Code: "need.cornersBeforeDrawing", After: forge.Corners}, {Code: "need.straightFirst", After: forge.Straighten}, {Code: "need.weldFirst", After: forge.Weld}, {Code: "need.rodFirst", After: forge.WeldOn}, {Code: "need.bitFirst", After: forge.WeldBit}},
	forge.Point: {
		{Code: "need.pointFromWhatIsLeft", After: forge.SetUp, School: plan.TangFirst},
		{Code: "need.cornersBeforePoint", After: forge.Corners},
		{Code: "need.flatBeforePoint", After: forge.BreakDown},
		{Code: "need.weldFirst", After: forge.Weld},
		{Code: "need.rodFirst", After: forge.WeldOn},
		{Code: "need.bitFirst", After: forge.WeldBit},
	},
	forge.SetDown:   tangNeeds,
	forge.DrawTang:  append([]Need{{Code: "need.shoulderBeforeTang", After: forge.SetDown}}, tangNeeds...),
	forge.WidenTang: append([]Need{{Code: "need.shoulderBeforeTang", After: forge.SetDown}}, tangNeeds...),
	forge.SetUp:     {{Code: "need.shoulderBeforeRicasso", After: forge.SetDown}},
	forge.Profile:   {{Code: "need.pointBeforeTaper", After: forge.Point}},
	forge.PreCurve:  {{Code: "need.lineBeforeCurve", After: forge.LineCurve}, {Code: "need.profileBeforeCurve", After: forge.Profile}},
	forge.Slit:      {{Code: "need.straightFirst", After: forge.Straighten}, {Code: "need.weldFirst", After: forge.Weld}},
	forge.Scarf:     {{Code: "need.straightFirst", After: forge.Straighten}, {Code: "need.weldFirst", After: forge.Weld}},
	forge.WeldBit:   {{Code: "need.openBeforeBit", After: forge.Slit}, {Code: "need.openBeforeBit", After: forge.Scarf}},
	forge.Punch:     {{Code: "need.tangBeforePunch", After: forge.DrawTang}, {Code: "need.tangBeforePunch", After: forge.WidenTang}},
	forge.WeldLoop:  {{Code: "need.loopBeforeWeld", After: forge.Loop}},
	forge.LineCurve: {{Code: "need.profileBeforeCurve", After: forge.Profile}},
	forge.FormFlat:  {{Code: "need.flatBeforeForm", After: forge.Planish}},
	forge.Bevel: {
		{Code: "need.preformBeforeBevel", After: forge.Profile},
		{Code: "need.curveBeforeBevel", After: forge.PreCurve},
		{Code: "need.curveBeforeBevel", After: forge.LineCurve},
	},
	forge.Upset:     {{Code: "need.cornersBeforeUpset", After: forge.Corners}},
	forge.Notch:     {{Code: "need.ricassoBeforeNotch", After: forge.SetUp}, {Code: "need.tangBeforeNotch", After: forge.DrawTang}},
	forge.FalseEdge: {{Code: "need.bevelBeforeFalseEdge", After: forge.Bevel}},
	forge.Stamp:     {{Code: "need.flatBeforeStamp", After: forge.Planish}},
	forge.Twist:     {{Code: "need.tangBeforeTwist", After: forge.DrawTang}},
	forge.TangCurve: {{Code: "need.tangBeforeCurve", After: forge.DrawTang}, {Code: "need.tangBeforeCurve", After: forge.WidenTang}, {Code: "need.twistBeforeCurve", After: forge.Twist}},
	forge.Loop:      {{Code: "need.freeEndForLoop", After: forge.CutOff}, {Code: "need.tangBeforeLoop", After: forge.DrawTang}},
	forge.Wrap:      {{Code: "need.tangBeforeWrap", After: forge.DrawTang}, {Code: "need.loopBeforeWrap", After: forge.Loop}, {Code: "need.freeEndForLoop", After: forge.CutOff}},
	forge.Correct:   {{Code: "need.bevelBeforeCorrect", After: forge.Bevel}},
	forge.Planish:   {{Code: "need.straightBeforePlanish", After: forge.Correct}},
	forge.CutOff:    {{Code: "need.barHoldsUntilLast", After: forge.Planish}},
}

// Because is why an operation stands where it stands: the first of its needs that is
// met before it, and the operation that meets it ("" for what comes last anyway).
func Because(ops []*forge.Operation, op *forge.Operation, first plan.First) (n Need, after string, ok bool) {
	if op.Kind == forge.Harden {
		return Need{Code: "need.hardenLast"}, "", true
	}
	for _, n := range needs[op.Kind] {
		if n.School != "" && n.School != first {
			continue
		}
		if k := slices.IndexFunc(ops, func(o *forge.Operation) bool { return o.Kind == n.After }); k >= 0 && k < slices.Index(ops, op) {
			return n, ops[k].ID, true
		}
	}
	return Need{}, "", false
}

// Broken is a need of the work that an order leaves out.
type Broken struct {
	Operation string
	Before    string
	Code      string
}

// BrokenNeeds looks an order over.
func BrokenNeeds(ops []*forge.Operation) (out []Broken) {
	for i, op := range ops {
		if op.Kind == forge.Harden {
			for _, late := range ops[i+1:] {
				out = append(out, Broken{Operation: late.ID, Before: op.ID, Code: "need.nothingHotAfterHardening"})
			}
		}
		for _, n := range needs[op.Kind] {
			late := n.School == "" && slices.ContainsFunc(ops[i:], func(o *forge.Operation) bool { return o.Kind == n.After })
			if late {
				out = append(out, Broken{Operation: op.ID, Before: string(n.After), Code: n.Code})
			}
		}
	}
	return out
}

// RefuseOrder is the error of an order that breaks a need and is not forced.
func (r *Route) RefuseOrder(ops []*forge.Operation) error {
	if r.Req.Choices.Forced {
		return nil
	}
	var errs fact.FieldErrors
	for _, b := range BrokenNeeds(ops) {
		errs = append(errs, fact.FieldError{Field: "choices.order", Code: b.Code})
		if b.Before == string(forge.Harden) {
			break // once is enough
		}
	}
	if errs == nil {
		return nil
	}
	return errs
}

package heats

import (
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
)

// isTreatment tells a thermal cycle or the hardening from an operation of the
// hammer.
func isTreatment(kind string) bool {
	return kind == route.KindNormalise || kind == route.KindAnneal || kind == route.KindSoften || kind == string(forge.Harden)
}

// step is an operation as a step of the plan, without what its heats come to.
func step(r *route.Route, ops []*forge.Operation, op *forge.Operation) plan.Step {
	st := plan.Step{
		ID: op.ID, Kind: string(op.Kind), Zones: r.ZonesIn(op.First, op.Last), Passes: max(1, len(op.Stretches)),
		BecauseCode: "need.first", CautionCodes: cautions(string(op.Kind)), TargetC: op.SoakC,
	}
	if n, after, ok := route.Because(ops, op, r.Req.Choices.ForgedFirst()); ok {
		st.BecauseCode, st.After = n.Code, after
	}
	if op.Kind == forge.Correct && r.TruedEveryHeat() {
		st.BecauseCode = "need.truedEveryHeat"
	}
	if op.Kind == forge.Harden {
		st.Thermal = &plan.Thermal{SoakS: r.Steel.SoakMin * 60}
		st.Thermal.BathLowC, st.Thermal.BathHighC, _ = r.Steel.Quench.BathC()
		if r.Req.Design.FlatBend != nil {
			st.CautionCodes = append(st.CautionCodes, "caution.bentQuench")
		}
		return st
	}
	st.Forging = &plan.Forging{
		Heavy: op.Kind.Heavy() || op.Kind.Trues(),
		Face:  op.Face, Support: string(op.Support), LowC: op.LowC, BendPerMm: op.BendPer, Strokes: op.Strokes,
	}
	if m := op.Machine; m != nil {
		st.Forging.Machine = string(m.Kind)
		if m.Kind != forge.RollingMill {
			st.Forging.Dies = m.Dies
		}
		st.CautionCodes = append(append([]string{}, st.CautionCodes...), machineCaution(m.Kind))
	}
	if op.Kind == forge.BreakDown {
		to := op.Targets[0]
		st.Forging.PreformWidthMm, st.Forging.PreformThicknessMm = to.WidthMm, to.ThicknessMm
	}
	if op.Kind == forge.Twist {
		st.Forging.ExtraMm = r.Req.Design.Tang.TwistMm()
	}
	if op.Kind == forge.PreCurve {
		st.Forging.BendRiseMm = r.PreCurveMm()
	}
	return st
}

// cautions belong to the step where the danger is.
func cautions(kind string) []string {
	switch kind {
	case string(forge.Straighten):
		return []string{"caution.eyesEars", "caution.fire", "caution.springs"}
	case string(forge.Corners):
		return []string{"caution.eyesEars", "caution.fire"}
	case string(forge.SetDown):
		return []string{"caution.easedEdge"}
	case string(forge.Bevel):
		return []string{"caution.sharpFromNow"}
	case string(forge.Notch):
		return []string{"caution.easedEdge"}
	case string(forge.Weld), string(forge.WeldOn), string(forge.WeldBit), string(forge.WeldLoop):
		return []string{"caution.flux", "caution.weldSpits"}
	case string(forge.Twist), string(forge.Loop), string(forge.Wrap), string(forge.Upset), string(forge.FormFlat):
		return []string{"caution.hotLooksCold"}
	case string(forge.Slit), string(forge.Punch):
		return []string{"caution.chisel"}
	case string(forge.Scarf):
		return []string{"caution.easedEdge"}
	case string(forge.Planish):
		return []string{"caution.scaleFlies"}
	case string(forge.CutOff):
		return []string{"caution.hotCut"}
	case string(forge.Harden):
		return []string{"caution.quench", "caution.brittle", "caution.grindCool"}
	case route.KindNormalise, route.KindAnneal, route.KindSoften:
		return []string{"caution.hotLooksCold"}
	}
	return []string{}
}

func machineCaution(k forge.MachineKind) string {
	switch k {
	case forge.Striker:
		return "caution.striker"
	case forge.RollingMill:
		return "caution.rolls"
	}
	return "caution.machine"
}

// steps are the operations in order, the thermal cycles before the hardening or at
// the end.
func steps(r *route.Route, ops []*forge.Operation) (out []plan.Step) {
	cycles := func() {
		for i, c := range route.ThermalCycles(r.Req.Choices, r.Steel) {
			out = append(out, plan.Step{
				ID: route.CycleID(i), Kind: c.Kind, Zones: r.ZonesIn(0, len(r.Cells)-1), TargetC: c.TempC, Passes: 1,
				BecauseCode: "need.cyclesLast", CautionCodes: cautions(c.Kind), Thermal: &plan.Thermal{SoakS: c.HoldS},
			})
		}
	}
	done := false
	for _, op := range ops {
		if op.Kind == forge.Harden {
			cycles()
			done = true
		}
		out = append(out, step(r, ops, op))
	}
	if !done {
		cycles()
	}
	return out
}

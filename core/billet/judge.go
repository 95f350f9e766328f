package billet

import (
	"math"

	"coldember/core/fact"
	"coldember/core/steel"
)

// thinLayerMm is thinner than a grinder leaves standing (judgement).
const thinLayerMm = .02

// judge tells what of a recipe a smith should know.
func (o *Outcome) judge(r *Recipe, last *State) {
	find := func(code string, s fact.Severity, f fact.Figures) {
		o.Findings = append(o.Findings, fact.Warning{Code: code, Severity: s, Figures: f})
	}
	var grades []steel.Grade
	tones, over := map[Tone]bool{}, math.Inf(1)
	for _, s := range o.Shares {
		g, err := steel.Find(s.SteelID)
		if err != nil {
			continue
		}
		grades = append(grades, g)
		tones[s.Tone] = true
		if g.Assumed {
			find("billet.unknown", fact.Warn, nil)
		}
		over = math.Min(over, g.ForgeHighC)
	}
	if r.WeldC > over {
		find("billet.overPartner", fact.Warn, fact.Figures{"weldC": r.WeldC, "highC": over})
	}
	if len(tones) < 2 && r.Pattern != Cable {
		find("billet.noContrast", fact.Warn, nil)
	}
	judgeHardening(grades, find)
	bar := r.bar(last)
	if bar.TooDeep() {
		find("billet.tooDeep", fact.Warn, fact.Figures{"depthMm": r.DepthMm, "mostMm": last.ThicknessMm * mostDepthShare})
	}
	if o.TwistIn > 1 {
		find("billet.twistHeats", fact.Note, fact.Figures{"heats": float64(o.TwistIn)})
	}
	if o.LayerMm < thinLayerMm && !r.Pattern.Filled() {
		find("billet.layersThin", fact.Note, fact.Figures{"layerMm": o.LayerMm})
	}
	if r.Pattern == Twist && (last.WidthMm/last.ThicknessMm > 1.3 || last.ThicknessMm/last.WidthMm > 1.3) {
		find("billet.notSquare", fact.Warn, fact.Figures{"widthMm": last.WidthMm, "thicknessMm": last.ThicknessMm})
	}
	if r.Beside > 1 && r.Pattern != Twist && r.Alternate {
		find("billet.alternate", fact.Note, nil)
	}
	thick := last.ThicknessMm * last.WidthMm
	if r.Pattern.Ends() {
		thick = r.SliceMm * last.WidthMm
	}
	o.judgeEnds(r, last, find)
	o.judgeFill(r, find)
	o.judgeShapes(r, find)
	if r.patterned()/float64(max(1, r.Beside)) > thick {
		find("billet.barThick", fact.Stop, fact.Figures{"widthMm": last.WidthMm, "thicknessMm": last.ThicknessMm})
	}
}

// judgeHardening tells of partners that do not harden together, or not at all.
func judgeHardening(grades []steel.Grade, find func(string, fact.Severity, fact.Figures)) {
	low, high := math.Inf(1), 0.0
	for _, g := range grades {
		if g.AustenitiseC > 0 {
			low, high = math.Min(low, g.AustenitiseC), math.Max(high, g.AustenitiseC)
		}
	}
	if high-low > agreeK {
		find("billet.hardenApart", fact.Warn, fact.Figures{"lowC": low, "highC": high})
	}
	if high == 0 {
		find("billet.noneHardens", fact.Warn, nil)
	}
}

// agreeK is by how much the hardening temperatures of partners may differ (judgement).
const agreeK = 25

// Figures of what goes wrong in a weld or under the hammer (judgement).
const (
	sharpRim  = .5   // of a pit's or a groove's depth to its half width: steeper rims fold in
	unlike    = .12  // by how much stiffer one bar of a join may be
	joinedC   = 1050 // at which they are drawn together
	joinedPer = 10   // strain a second
)

// judgeShapes tells of rims that fold in, and of bars that do not draw alike.
func (o *Outcome) judgeShapes(r *Recipe, find func(string, fact.Severity, fact.Figures)) {
	half := r.HalfMm
	if r.Pattern == Dimple {
		half = r.RadiusMm
	}
	if pits := r.Pattern == Dimple || r.Pattern == Ladder || r.Pattern == Pressed; pits && half > 0 && r.DepthMm > half*sharpRim {
		find("billet.sharpRim", fact.Warn, fact.Figures{"depthMm": r.DepthMm, "limitMm": r.DepthMm / sharpRim})
	}
	if pits := r.Pattern == Dimple || r.Pattern == Ladder || r.Pattern == Pressed; pits && r.PitchMm < 2*half {
		find("billet.pitsMeet", fact.Warn, fact.Figures{"pitchMm": r.PitchMm, "limitMm": 2 * half})
	}
	edge, err := steel.Find(r.EdgeSteelID)
	if err != nil || r.EdgeMm <= 0 {
		return
	}
	mean, shares := 0.0, 0.0
	for _, l := range o.Laid {
		if g, err := steel.Find(l.SteelID); err == nil {
			mean += l.ThicknessMm * stiff(g)
			shares += l.ThicknessMm
		}
	}
	if shares == 0 {
		return
	}
	mean /= shares
	if times := stiff(edge) / mean; times > 1+unlike || times < 1/(1+unlike) {
		find("billet.unequal", fact.Warn, fact.Figures{"times": math.Max(times, 1/times)})
	}
}

// stiff is the flow stress of a steel where bars are drawn together, MPa.
func stiff(g steel.Grade) float64 {
	return g.FlowFactor * steel.NewFlow(g.CarbonPct, joinedC, joinedPer).StressMPa(.2)
}

// wholeSteps refuses, of what is not laid in layers, the steps that only layers have. Errors are *Error.
func (r *Recipe) wholeSteps() error {
	if !r.Pattern.Filled() {
		return nil
	}
	for i, s := range r.Steps {
		if s.Kind == Clean || s.Kind == Restack || s.Kind == Fold {
			return &Error{i, "billet.fillStep", "kind", 0}
		}
	}
	return nil
}

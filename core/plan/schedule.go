package plan

import (
	"math"
	"sort"

	"coldember/core/forge"
	"coldember/core/steel"
)

// Reading is what the calipers should say at a station.
type Reading struct {
	Zone        string  `json:"zone"`
	AtMm        float64 `json:"atMm" doc:"from the point of the piece as it then is"`
	HeightMm    float64 `json:"heightMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	WithinMm    float64 `json:"withinMm,omitempty" doc:"how near the calipers have to be"`
}

// Step is an operation of the plan with what it takes.
type Step struct {
	ID           string     `json:"id"`
	Kind         string     `json:"kind"`
	Face         forge.Face `json:"face,omitempty"`
	Zones        []string   `json:"zones"`
	Heats        float64    `json:"heats" doc:"fractional: what is left of a heat goes to the next operation"`
	Blows        float64    `json:"blows"`
	TimeS        float64    `json:"timeS"`
	StartC       float64    `json:"startC"`
	EndC         float64    `json:"endC"`
	TargetC      float64    `json:"targetC,omitempty" doc:"of a thermal cycle, or of a weld"`
	LowC         float64    `json:"lowC,omitempty" doc:"where it stops, if not where the rest does"`
	ScaleMm3     float64    `json:"scaleMm3"`
	Passes       int        `json:"passes"`
	Readings     []Reading  `json:"readings,omitempty"`
	After        string     `json:"after,omitempty"`
	BecauseCode  string     `json:"becauseCode,omitempty"`
	BendPerMm    float64    `json:"bendPerMm,omitempty"`
	BendRiseMm   float64    `json:"bendRiseMm,omitempty"`
	CautionCodes []string   `json:"cautionCodes"`
	EdgeTurns    int        `json:"edgeTurns,omitempty" doc:"times that it is turned on edge for light taps and back for flat blows"`
	EdgeBlows    float64    `json:"edgeBlows,omitempty" doc:"of the blows, those on edge"`
	BathLowC     float64    `json:"bathLowC,omitempty" doc:"how warm the oil of a quench is kept"`
	BathHighC    float64    `json:"bathHighC,omitempty"`
	SoakS        float64    `json:"soakS,omitempty" doc:"held at heat before the quench"`
	Strokes      float64    `json:"strokes,omitempty" doc:"turns of the wrench, bends or stamps, where it is no work of the hammer's energy"`
	Support      string     `json:"support,omitempty" doc:"under the piece, where not the anvil's face"`
	SpreadNeeded float64    `json:"spreadNeeded,omitempty"`
	SpreadGiven  float64    `json:"spreadGiven,omitempty" doc:"by this face; of operations whose face the smith chooses"`
	Machine      string     `json:"machine,omitempty" doc:"what does it, where not the hand hammer"`
}

// Part is the share of an operation done in one heat.
type Part struct {
	Operation string  `json:"operation"`
	FromShare float64 `json:"fromShare"`
	ToShare   float64 `json:"toShare"`
	Blows     float64 `json:"blows"`
}

// HeatStep is one trip fire → anvil → fire as the smith counts it.
type HeatStep struct {
	Number   int       `json:"number"`
	Parts    []Part    `json:"parts"`
	StartC   float64   `json:"startC"`
	EndC     float64   `json:"endC"`
	FireS    float64   `json:"fireS"`
	CarryS   float64   `json:"carryS"`
	WorkS    float64   `json:"workS"`
	BrushS   float64   `json:"brushS"`
	Blows    int       `json:"blows"`
	FuelG    float64   `json:"fuelG"`
	ScaleMm3 float64   `json:"scaleMm3"`
	ScaleG   float64   `json:"scaleG"`
	HotSoFar float64   `json:"hotSoFarS"`
	Curve    []Moment  `json:"curve" doc:"the coldest worked spot from the fire to the last blow"`
	HotFrom  float64   `json:"hotFromMm"`
	HotTo    float64   `json:"hotToMm"`
	Readings []Reading `json:"readings"`
	Shape    []Station `json:"shape"`
	Rest     bool      `json:"rest,omitempty" doc:"rest the arm before the next heat"`
}

// Moment is a temperature at a time from the fire.
type Moment struct {
	S float64 `json:"s"`
	C float64 `json:"c"`
}

// isTreatment tells a thermal cycle or the hardening from an operation of the
// hammer.
func isTreatment(kind string) bool {
	return kind == kindNormalise || kind == kindAnneal || kind == string(forge.Harden)
}

// leastRest is the least part of a heat worth starting another operation in.
const leastRest = 0.15

// schedule turns the fractional heats of the run into the heats a smith counts:
// what is left of a heat goes to the next operation if it works the same hot
// stretch.
func (r *route) schedule(p *Plan, s *settled) {
	byOp := map[string]*Step{}
	p.Operations = r.steps(s.ops)
	for i := range p.Operations {
		byOp[p.Operations[i].ID] = &p.Operations[i]
	}
	var cur *HeatStep
	left := 0.0
	var before *forge.Heat
	hot := 0.0
	for i := range s.run.Heats {
		h := &s.run.Heats[i]
		step := byOp[h.Operation]
		addTo(step, h)
		cycle := isTreatment(step.Kind)
		todo, from := h.Fraction, h.ShareFrom
		for todo > 1e-9 {
			if cur == nil || cycle || left < math.Min(leastRest, todo) || !r.sameFire(before, h) || byOp[before.Operation].TargetC != step.TargetC {
				p.Heats = append(p.Heats, HeatStep{Number: len(p.Heats) + 1, StartC: h.StartC, FireS: fireOf(s.run.Heats, i, from), CarryS: h.CarryS, BrushS: h.BrushS})
				cur, left = &p.Heats[len(p.Heats)-1], 1
			}
			take := math.Min(left, todo)
			to := from + (h.ShareTo-h.ShareFrom)*take/h.Fraction
			cur.cools(h, take, math.Max(s.run.SoakC(), step.TargetC))
			cur.take(h, take, from, to)
			left -= take
			todo -= take
			from = to
			before = h
			now := r.stateAt(s, i, (from-h.ShareFrom)/(h.ShareTo-h.ShareFrom))
			cur.Shape = shapeOf(r.cells, r.bar.AreaMm2, now)
			cur.Readings = readings(cur.Shape, r.zonesIn(h.First, h.Last))
			for i := range cur.Readings {
				cur.Readings[i].WithinMm = r.req.Smith.Skill.MarksMm()
			}
			cur.HotFrom, cur.HotTo = extent(now, h.First, h.Last)
			r.hotWhereBent(cur, h.First, h.Last)
		}
		if cycle {
			cur = nil
		}
	}
	for i := range p.Heats {
		h := &p.Heats[i]
		blows := 0.0
		for _, part := range h.Parts {
			blows += part.Blows
		}
		h.ScaleG = h.ScaleMm3 * steel.DensityGPerCm3 / 1000
		h.Blows = int(math.Ceil(blows - 1e-6))
		t := h.FireS + h.CarryS + h.WorkS + h.BrushS
		hot += t
		h.HotSoFar = hot
		if kind := byOp[h.Parts[0].Operation].Kind; isTreatment(kind) {
			if kind != string(forge.Harden) {
				p.Totals.Cycles++
			}
			p.Totals.CycleTimeS += t
		} else {
			p.Totals.Heats++
			p.Totals.TimeS += t
			p.Totals.Blows += h.Blows
		}
		p.Totals.FuelG += h.FuelG
	}
	r.rests(p)
	for _, st := range p.Operations {
		if !isTreatment(st.Kind) {
			p.Totals.FractionalHeats += st.Heats
		}
	}
	for i := range p.Operations {
		st := &p.Operations[i]
		if op := find(s.ops, st.ID); op != nil {
			st.Readings = r.targetReadings(op, s)
			if Tooled(op.Kind) {
				st.Support = string(op.Support)
				st.SpreadNeeded, st.SpreadGiven = r.spread(s, op)
			}
		}
	}
}

func find(ops []*forge.Operation, id string) *forge.Operation {
	for _, op := range ops {
		if op.ID == id {
			return op
		}
	}
	return nil
}

func (h *HeatStep) take(rec *forge.Heat, take, from, to float64) {
	k := take / rec.Fraction
	h.WorkS += rec.WorkS * k
	h.FuelG += rec.FuelG * k
	h.ScaleMm3 += rec.ScaleMm3 * k
	if len(h.Parts) == 0 || rec.EndC < h.EndC {
		h.EndC = rec.EndC // the heat ends as cold as its coldest part
	}
	if n := len(h.Parts); n > 0 && h.Parts[n-1].Operation == rec.Operation {
		last := &h.Parts[n-1]
		last.FromShare, last.ToShare, last.Blows = math.Min(last.FromShare, from), math.Max(last.ToShare, to), last.Blows+rec.Blows*k
		return
	}
	h.Parts = append(h.Parts, Part{Operation: rec.Operation, FromShare: from, ToShare: to, Blows: rec.Blows * k})
}

// fireOf is the fire of a heat that begins at a share of record i. Where the
// record was begun in the heat before, its stretch has been hot already: what is
// left of it comes back to heat as fast as the record after it does.
func fireOf(heats []forge.Heat, i int, from float64) float64 {
	h := &heats[i]
	if from > h.ShareFrom && i+1 < len(heats) {
		if next := &heats[i+1]; next.Operation == h.Operation && next.Pass == h.Pass {
			return math.Min(h.FireS, next.FireS)
		}
	}
	return h.FireS
}

// cools adds the cooling of the part of a record that is taken: from the fire
// where the heat is new, and on toward the record's end where it goes on.
func (h *HeatStep) cools(rec *forge.Heat, take, soakC float64) {
	if len(rec.Curve) == 0 {
		return
	}
	lasts := rec.WorkS * take / rec.Fraction
	if len(h.Curve) == 0 {
		h.Curve = []Moment{{0, soakC}}
		for _, m := range rec.Curve {
			if m[0] < lasts {
				h.cooled(h.CarryS+m[0], m[1])
			}
		}
	}
	at := h.CarryS + h.WorkS + lasts
	end := rec.EndC
	if k := sort.Search(len(rec.Curve), func(i int) bool { return rec.Curve[i][0] >= lasts }); h.WorkS == 0 && k < len(rec.Curve) {
		end = rec.Curve[k][1]
	}
	h.cooled(at, end)
}

func (h *HeatStep) cooled(s, c float64) {
	last := h.Curve[len(h.Curve)-1]
	h.Curve = append(h.Curve, Moment{math.Max(last.S, math.Round(s*100)/100), math.Min(last.C, math.Round(c))})
}

func addTo(s *Step, h *forge.Heat) {
	if s.Heats == 0 {
		s.StartC = h.StartC
	}
	s.Heats += h.Fraction
	s.Blows, s.EdgeBlows = s.Blows+h.Blows, s.EdgeBlows+h.EdgeBlows
	s.EndC = h.EndC
	s.TimeS += (h.FireS+h.CarryS+h.BrushS)*h.Fraction + h.WorkS
	s.ScaleMm3 += h.ScaleMm3
}

// sameFire tells whether the stretch of b came to heat with that of a: both lie
// within one hot length.
func (r *route) sameFire(a, b *forge.Heat) bool {
	if a == nil {
		return false
	}
	first, last := min(a.First, b.First), max(a.Last, b.Last)
	l := 0.0
	for i := first; i <= last; i++ {
		l += b.After.Cells[i].LengthMm()
	}
	return l <= r.req.Fire.HotLengthMm*(1+hotSlack)
}

func (r *route) step(ops []*forge.Operation, op *forge.Operation) Step {
	st := Step{
		ID: op.ID, Kind: string(op.Kind), Face: op.Face, Zones: r.zonesIn(op.First, op.Last), Passes: op.Passes,
		BecauseCode: "need.first", CautionCodes: cautions(string(op.Kind)), BendPerMm: op.BendPer,
	}
	if m := r.req.Smith.Machine; m.Does(op.Kind) {
		st.Machine = string(m.Kind)
		st.CautionCodes = append(append([]string{}, st.CautionCodes...), machineCaution(m.Kind))
	}
	if n, ok := because(ops, op, r.req.Choices.first()); ok {
		st.BecauseCode, st.After = n.Code, string(n.After)
	}
	st.Strokes, st.EdgeTurns = op.Strokes, r.edgeTurns(op)
	st.TargetC, st.LowC, st.Support = op.SoakC, op.LowC, string(op.Support)
	if op.Kind == forge.Harden {
		st.SoakS = r.steel.SoakMin * 60
		st.BathLowC, st.BathHighC, _ = r.steel.Quench.BathC()
	}
	if op.Kind == forge.PreCurve {
		st.BendRiseMm = r.bend.RiseMm
	}
	return st
}

func (r *route) zonesIn(first, last int) []string {
	var out []string
	for _, c := range r.cells[first : last+1] {
		if len(out) == 0 || out[len(out)-1] != c.zone {
			out = append(out, c.zone)
		}
	}
	return out
}

// stateAt is the bar part of the way through heat i of the run.
func (r *route) stateAt(s *settled, i int, part float64) forge.Bar {
	after := s.run.Heats[i].After.Clone()
	if part >= 1-1e-9 {
		return after
	}
	for k := range after.Cells {
		from := forge.Cell{WidthMm: r.bar.WidthMm, ThicknessMm: r.bar.ThicknessMm, VolumeMm3: s.start[k], EdgeMm: r.bar.ThicknessMm, SpineMm: r.bar.ThicknessMm}
		if i > 0 {
			from = s.run.Heats[i-1].After.Cells[k]
		}
		c := &after.Cells[k]
		mix := func(a, b float64) float64 { return a + (b-a)*part }
		c.WidthMm, c.ThicknessMm, c.VolumeMm3 = mix(from.WidthMm, c.WidthMm), mix(from.ThicknessMm, c.ThicknessMm), mix(from.VolumeMm3, c.VolumeMm3)
		c.EdgeMm, c.SpineMm = mix(from.EdgeMm, c.EdgeMm), mix(from.SpineMm, c.SpineMm)
		c.CurvePerMm, c.TwistTurns = mix(from.CurvePerMm, c.CurvePerMm), mix(from.TwistTurns, c.TwistTurns)
	}
	return after
}

// extent is where the worked cells lie on the piece as it is.
func extent(b forge.Bar, first, last int) (from, to float64) {
	x := 0.0
	for i := range b.Cells {
		if i == first {
			from = x
		}
		x += b.Cells[i].LengthMm()
		if i == last {
			to = x
		}
	}
	return from, to
}

// hotWhereBent moves the mark of a stretch that is bent to where it lies.
func (r *route) hotWhereBent(h *HeatStep, first, last int) {
	from, to := 0, 0
	for i := range r.cells[:last+1] {
		if to += len(r.cells[i].drawn); i < first {
			from = to
		}
	}
	part := h.Shape[from:to]
	low, high, bent := math.Inf(1), math.Inf(-1), false
	for i := range part {
		low, high, bent = math.Min(low, part[i].XMm), math.Max(high, part[i].XMm), bent || part[i].SpineX != nil
	}
	if bent {
		h.HotFrom, h.HotTo = low, high
	}
}

// targetReadings are the calipers' figures when the operation is done: first,
// middle and last of its cells.
func (r *route) targetReadings(op *forge.Operation, s *settled) []Reading {
	if op.Targets == nil {
		return nil
	}
	last := -1
	for i := range s.run.Heats {
		if s.run.Heats[i].Operation == op.ID {
			last = i
		}
	}
	if last < 0 {
		return nil
	}
	pick := []int{op.First, (op.First + op.Last) / 2, op.Last}
	sort.Ints(pick)
	var out []Reading
	cells := s.run.Heats[last].After.Cells
	x := 0.0
	for i := range cells {
		l := cells[i].LengthMm()
		for _, k := range pick {
			if k == i {
				t := op.Targets[i-op.First]
				out = append(out, Reading{Zone: cells[i].Zone, AtMm: x + l/2, HeightMm: t.WidthMm, ThicknessMm: t.SpineMm})
				break
			}
		}
		x += l
	}
	return out
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
	case string(forge.Weld), string(forge.WeldOn):
		return []string{"caution.flux", "caution.weldSpits"}
	case string(forge.Twist), string(forge.Loop), string(forge.Wrap), string(forge.Upset):
		return []string{"caution.hotLooksCold"}
	case string(forge.Planish):
		return []string{"caution.scaleFlies"}
	case string(forge.CutOff):
		return []string{"caution.hotCut"}
	case string(forge.Harden):
		return []string{"caution.quench", "caution.brittle", "caution.grindCool"}
	case kindNormalise, kindAnneal:
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

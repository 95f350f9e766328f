package plan

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
)

// ToolUse is the smith's own face and support for an operation; empty is the
// planner's.
type ToolUse struct {
	Operation string        `json:"operation"`
	Face      forge.Face    `json:"face,omitempty" enum:"flat,round,peenAcross,peenAlong"`
	Support   forge.Support `json:"support,omitempty" enum:"face,horn,edge,fuller"`
}

// Tooled tells whether the smith chooses face and support for operations of this
// kind: those that move steel with the hammer.
func Tooled(k forge.Kind) bool {
	switch k {
	case forge.BreakDown, forge.Point, forge.DrawTang, forge.Profile:
		return true
	}
	return false
}

// takeTools puts the smith's own tools to the operations.
func (r *route) takeTools(ops []*forge.Operation) {
	for _, op := range ops {
		for _, t := range r.req.Choices.Tools {
			if t.Operation != op.ID || !Tooled(op.Kind) {
				continue
			}
			if t.Face != "" {
				op.Face = t.Face
			}
			op.Support = t.Support
		}
	}
}

// spread of an operation: what its targets need from the piece as it then is,
// and what its face gives on that width. Needed is 0 where the width is to be
// held or narrowed.
func (r *route) spread(s *settled, op *forge.Operation) (needed, given float64) {
	before := r.startBar(s.start)
	for i := range s.run.Heats {
		if s.run.Heats[i].Operation == op.ID {
			break
		}
		before = s.run.Heats[i].After
	}
	var ew, et, width float64
	for i := op.First; i <= op.Last; i++ {
		c, to := &before.Cells[i], op.Targets[i-op.First]
		ew += math.Log(to.WidthMm / c.WidthMm)
		et += math.Log(c.ThicknessMm / to.ThicknessMm)
		width += c.WidthMm / float64(op.Last-op.First+1)
	}
	bite, m := r.req.Smith.BiteMm(op.Face, width), r.req.Smith.Machine
	if m.Does(op.Kind) {
		bite = m.BiteMm
	}
	given, _ = forge.Spread(bite*op.Support.Share(), width)
	if m.Does(op.Kind) && m.Kind == forge.RollingMill {
		given = forge.RollSpread
	}
	if ew > 0 && et > noStrain {
		needed = ew / et
	}
	return needed, given
}

// faceSlack is how far short of the spread that is needed a face may fall:
// diagonal blows and the horn make up for it (judgement).
const faceSlack = 0.03

// warnTools: a face of the smith's own that does not give the width.
func (r *route) warnTools(p *Plan, add adder) {
	for _, t := range r.req.Choices.Tools {
		for _, st := range p.Operations {
			if st.ID == t.Operation && st.SpreadNeeded > st.SpreadGiven+faceSlack {
				add("warn.faceSpread", fact.Warn, fact.Where{Operation: st.ID}, fact.Figures{"needed": st.SpreadNeeded, "given": st.SpreadGiven})
			}
		}
	}
}

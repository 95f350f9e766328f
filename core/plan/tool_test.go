package plan_test

import (
	"testing"

	"coldember/core/forge"
	"coldember/core/plan"

	"github.com/stretchr/testify/assert"
)

func stepOf(p *plan.Plan, id string) plan.Step {
	for _, o := range p.Operations {
		if o.ID == id {
			return o
		}
	}
	return plan.Step{}
}

// TestAnotherFaceShowsWhatItDoes to spread, blows and time; the planner's own
// gives what is needed, and going back to it clears the warning.
func TestAnotherFaceShowsWhatItDoes(t *testing.T) {
	wide := slicer(flat(40, 6, 610))
	base := makePlan(t, wide)
	was := stepOf(base, "profile")
	assert.Positive(t, was.SpreadNeeded)
	assert.Empty(t, warning(base, "warn.faceSpread").Code)

	wide.Choices.Tools = []plan.ToolUse{{Operation: "profile", Face: forge.PeenAcross, Support: forge.OverHorn}}
	p := makePlan(t, wide)
	is := stepOf(p, "profile")
	assert.Equal(t, "horn", is.Support)
	assert.Less(t, is.SpreadGiven, was.SpreadGiven)
	assert.NotEqual(t, was.Blows, is.Blows)
	w := warning(p, "warn.faceSpread")
	assert.Equal(t, "profile", w.Where.Operation)
	assert.InDelta(t, is.SpreadNeeded, w.Figures["needed"], 1e-12)
	assert.Equal(t, "tool.profile", w.Remedy.Field)

	wide.Choices.Tools[0] = plan.ToolUse{Operation: "profile", Face: forge.PeenAlong}
	assert.Empty(t, warning(makePlan(t, wide), "warn.faceSpread").Code, "a face that spreads")
}

func TestToolsThatAreNoneAreRefusedByName(t *testing.T) {
	r := request()
	r.Choices.Tools = []plan.ToolUse{{Operation: "profile", Face: "spoon"}}
	assert.ErrorContains(t, r.Validate(), "choices.tools.profile.face")
}

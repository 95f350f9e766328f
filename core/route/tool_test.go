package route_test

import (
	"testing"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
)

// TestAnotherFaceShowsWhatItDoes to spread, blows and time; the planner's own
// gives what is needed, and going back to it clears the warning.
func TestAnotherFaceShowsWhatItDoes(t *testing.T) {
	wide := plantest.Slicer(plantest.Flat(40, 6, 610))
	base := plantest.Make(t, wide)
	was := plantest.StepOf(base, "profile")
	assert.Positive(t, was.Hammer().SpreadNeeded)
	assert.Empty(t, plantest.Warning(base, "warn.faceSpread").Code)

	wide.Choices.Tools = []plan.ToolUse{{Operation: "profile", Face: forge.PeenAcross, Support: forge.OverHorn}}
	p := plantest.Make(t, wide)
	is := plantest.StepOf(p, "profile")
	assert.Equal(t, "horn", is.Hammer().Support)
	assert.Less(t, is.Hammer().SpreadGiven, was.Hammer().SpreadGiven)
	assert.NotEqual(t, was.Hammer().Blows, is.Hammer().Blows)
	w := plantest.Warning(p, "warn.faceSpread")
	assert.Equal(t, "profile", w.Where.Operation)
	assert.InDelta(t, is.Hammer().SpreadNeeded, w.Figures["needed"], 1e-12)
	assert.Equal(t, "tool.profile", w.Remedy.Field)

	wide.Choices.Tools[0] = plan.ToolUse{Operation: "profile", Face: forge.PeenAlong}
	assert.Empty(t, plantest.Warning(plantest.Make(t, wide), "warn.faceSpread").Code, "a face that spreads")
}

func TestToolsThatAreNoneAreRefusedByName(t *testing.T) {
	r := plantest.Request()
	r.Choices.Tools = []plan.ToolUse{{Operation: "profile", Face: "spoon"}}
	assert.ErrorContains(t, r.Validate(), "choices.tools.profile.face")
}

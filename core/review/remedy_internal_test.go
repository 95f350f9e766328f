package review

import (
	"testing"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
)

// TestAHotterFireIsOnlyPromisedWhereItLasts: a hotter piece cools faster, so that more heat
// gives four fifths of the time that it seems to; a remedy that leaves the heat as short
// as it was would be no remedy.
func TestAHotterFireIsOnlyPromisedWhereItLasts(t *testing.T) {
	r := &route.Route{Req: &plan.Request{}}
	r.Req.Fire.TempC = 1080
	p := &plan.Plan{Steel: steel.Grade{ForgeLowC: 830, ForgeHighC: 1150}}
	short := func(workS float64) *fact.Remedy {
		// from 1030 to 830 °C now; 80 °C more would seem to give 1.4 times the time, and gives 1.32
		return shortRemedy(r, p, fact.Warning{Figures: fact.Figures{"workS": workS, "startC": 1030, "lowC": 830, "soakC": 1050}})
	}
	assert.Nil(t, short(6/1.4+.01), "4.3 s would seem to come to 6 s")
	assert.NotNil(t, short(6/1.32+.01))
}

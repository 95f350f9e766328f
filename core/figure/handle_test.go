package figure_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/plan"

	"github.com/stretchr/testify/assert"
)

// TestThePushIsMeasuredFromTheGrip: the point above the line along the grip is up.
func TestThePushIsMeasuredFromTheGrip(t *testing.T) {
	level := &plan.Push{Point: blade.Node{0, -10}, Front: blade.Node{150, -10}, Butt: blade.Node{250, -10}}
	assert.InDelta(t, 0, figure.PushAngleDeg(level), 1e-9)
	up := &plan.Push{Point: blade.Node{0, 190}, Front: blade.Node{150, -10}, Butt: blade.Node{250, -10}}
	assert.InDelta(t, 45, figure.PushAngleDeg(up), 1e-9, "from the middle of the grip, 200 along and 200 up")
	bent := &plan.Push{Point: blade.Node{0, 0}, Front: blade.Node{100, 0}, Butt: blade.Node{100 + 100, -100}}
	assert.InDelta(t, 18.434949-45, figure.PushAngleDeg(bent), 1e-5, "a grip that falls off behind holds the blade below its line")
}

package heats

import (
	"testing"

	"coldember/core/forge"

	"github.com/stretchr/testify/assert"
)

// TestCalipersAreSetWhereTheStepWorks: where nothing moved there is nothing to read.
func TestCalipersAreSetWhereTheStepWorks(t *testing.T) {
	was := make([]forge.Cell, 20)
	for i := range was {
		was[i] = forge.Cell{WidthMm: 25, ThicknessMm: 5, SpineMm: 5}
	}
	now := append([]forge.Cell(nil), was...)
	for i := 6; i <= 9; i++ {
		now[i].WidthMm, now[i].ThicknessMm = 27, 4.6
	}
	now[15].SpineMm = 4.9                                                                             // outside of what the heat worked
	assert.Equal(t, []int{6, 7, 8, 9}, changedCells(was, now, 2, 12))                                 // of all that it worked
	assert.Equal(t, []int{6, 7, 8}, few(changedCells(was, now, 2, 12)))                               // near both ends and in the middle
	assert.Equal(t, []int{2, 3}, changedCells(was, now, 2, 3), "a step that changes no dimension")    // a twist, a stamp
	assert.Equal(t, []int{15}, few(changedCells(was, now, 13, 19)), "one place is told of only once") // and not three times
}

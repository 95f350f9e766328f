package forge

import (
	"testing"

	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestBothDiesOfAPressChill: the piece lies between two cold dies, and a smith who
// presses has half the time that one die would leave.
func TestBothDiesOfAPressChill(t *testing.T) {
	g, err := steel.Find("1084")
	require.NoError(t, err)
	smith := NewSmith(Steady)
	smith.Machine = NewMachine(Press)
	smith.Machine.ForceKN = 5000 // as much bite as the dies have
	cell := Cell{Zone: "blade", VolumeMm3: 40 * 30 * 20, WidthMm: 30, ThicknessMm: 20, EdgeMm: 20, SpineMm: 20, TempC: 20}
	run, err := NewRun(Setup{Smith: smith, Fire: NewFire(), Steel: g}, Bar{Cells: []Cell{cell}})
	require.NoError(t, err)
	require.NoError(t, run.Do(&Operation{ID: "breakDown", Kind: BreakDown, Face: FlatFace, Targets: []Target{{WidthMm: 32, ThicknessMm: 16, EdgeMm: 16, SpineMm: 16}}}))
	// 20 mm of drawing die on 40 mm of piece, a third of the time, from above and below
	assert.InEpsilon(t, 2*3000./3*20/40, run.contact, .06)
}

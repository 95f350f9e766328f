package forge

import (
	"testing"

	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestBothDiesOfAPressChill: the piece lies between two cold dies for as long as a squeeze
// lasts and turns round, and a smith who presses has less time for it than one who
// strikes.
func TestBothDiesOfAPressChill(t *testing.T) {
	g, err := steel.Find("1084")
	require.NoError(t, err)
	smith := NewSmith(Steady)
	smith.Machine = NewMachine(Press)
	smith.Machine.ForceKN = 5000 // as much bite as the dies have
	cell := Cell{Zone: "blade", VolumeMm3: 40 * 30 * 20, WidthMm: 30, ThicknessMm: 20, EdgeMm: 20, SpineMm: 20, TempC: 20}
	run, err := NewRun(Setup{Smith: smith, Fire: NewFire(), Steel: g}, Bar{Cells: []Cell{cell}})
	require.NoError(t, err)
	require.NoError(t, run.Do(&Operation{ID: "breakDown", Kind: BreakDown, Face: FlatFace, Machine: smith.Machine, Fixed: true, Targets: []Target{{WidthMm: 32, ThicknessMm: 16, EdgeMm: 16, SpineMm: 16}}}))
	// 20 mm of drawing die on 40 mm of piece, from above and below; six millimetres at 50 mm/s
	// and a tenth of a second to turn round, every second and a half
	assert.InEpsilon(t, 2*2000.*(.1+6./50)/1.5*20/40, run.contact, .06)
	quick := *smith.Machine
	quick.SpeedMPerS = .2
	d := run.machine(&Operation{Kind: BreakDown}, &Heat{}, &quick)
	assert.Less(t, d.contact, run.contact, "a faster ram lets go sooner")
}

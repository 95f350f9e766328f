package forge

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestTurningDoesNotMindTheHeats: in however many shares it is done, the centre line
// ends where it should, and the metal stays.
func TestTurningDoesNotMindTheHeats(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 9).Draw(t, "cells")
		turn := Turning{
			Brings: rapid.Bool().Draw(t, "brings"), ToPerMm: rapid.Float64Range(-.2, .2).Draw(t, "to"),
			Turns: rapid.Float64Range(0, 4).Draw(t, "turns"), FromEnd: rapid.Bool().Draw(t, "fromEnd"),
		}
		if !turn.Brings {
			turn.AddPerMm = rapid.Float64Range(-.01, .01).Draw(t, "add")
		}
		cells := make([]Cell, n)
		for i := range cells {
			cells[i] = Cell{VolumeMm3: 100, WidthMm: 5, ThicknessMm: 4, CurvePerMm: .003}
		}
		at := 0.0
		for _, part := range rapid.SliceOfN(rapid.Float64Range(.01, 1), 1, 6).Draw(t, "shares") {
			to := at + (1-at)*part
			turn.carry(cells, at, to, n)
			at = to
		}
		turn.carry(cells, at, 1, n)
		want := .003 + turn.AddPerMm
		if turn.Brings {
			want = turn.ToPerMm
		}
		twist := 0.0
		for i := range cells {
			require.InDelta(t, want, cells[i].CurvePerMm, 1e-9)
			require.InDelta(t, 5, cells[i].LengthMm(), 1e-12)
			twist += cells[i].TwistTurns
		}
		require.InDelta(t, turn.Turns, twist, 1e-9)
	})
}

// TestAnEyeIsTurnedFromItsEnd: half way, the half by the free end is round.
func TestAnEyeIsTurnedFromItsEnd(t *testing.T) {
	cells := make([]Cell, 4)
	turn := Turning{Brings: true, ToPerMm: -.1, FromEnd: true}
	turn.carry(cells, 0, .625, 4)
	assert.InDelta(t, -.1, cells[3].CurvePerMm, 1e-12)
	assert.InDelta(t, -.1, cells[2].CurvePerMm, 1e-12)
	assert.InDelta(t, -.05, cells[1].CurvePerMm, 1e-12)
	assert.Zero(t, cells[0].CurvePerMm)
}

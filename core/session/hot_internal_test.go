package session

import (
	"testing"

	"coldember/core/plan"
	"coldember/core/thermal"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// hotPiece is a piece of 320 mm, 25 high and 5 thick, of which the first so many are at 950 °C.
func hotPiece(hotMm float64) *Course {
	var shape []plan.Station
	for x := 0.0; x <= 320; x += 10 {
		s := plan.Station{XMm: x, SpineY: 25, ThicknessMm: 5, Zone: plan.ZoneBlade, TempC: 20}
		if x <= hotMm {
			s.TempC = 950
		}
		shape = append(shape, s)
	}
	return &Course{Heats: []Heat{{Number: 1, LengthMm: 320, Shape: shape}}}
}

// TestHotSteelIsLonger, cell by cell: 320 mm with 110 of them at 950 °C read some 1.5 mm longer, all of it hot 4 mm.
func TestHotSteelIsLonger(t *testing.T) {
	assert.InDelta(t, 321.5, hotPiece(110).HotAtMm(1, 320), .3)
	assert.InDelta(t, 324.1, hotPiece(320).HotAtMm(1, 320), .1)
	assert.InDelta(t, 320, hotPiece(-1).HotAtMm(1, 320), 1e-9, "cold it is as long as it is")
	assert.InDelta(t, thermal.Hot(55, 950), hotPiece(110).HotAtMm(1, 55), 1e-9)
	assert.InDelta(t, 7, hotPiece(110).HotAtMm(9, 7), 0, "of a heat that is none: as it is told")
	bent := []plan.Station{{XMm: 0, TempC: 950}, {XMm: 100, TempC: 950}, {XMm: 80, TempC: 950}, {XMm: 110, TempC: 950}}
	assert.InDelta(t, thermal.Hot(110, 950), plan.HotX(bent, 110), 1e-9, "bent back, it is no longer for it")
	assert.InDelta(t, thermal.Hot(1, thermal.ExpandMostC), thermal.Hot(1, 3000), 0, "beyond the law as at its end")
}

// TestAHotReadingIsBroughtToCold by the steel at its place, a length by all of the piece; back and forth it is the same.
func TestAHotReadingIsBroughtToCold(t *testing.T) {
	c := hotPiece(110)
	for _, r := range []Reading{{Quantity: "height", Mm: thermal.Hot(25, 950), AtMm: 40}, {Quantity: "height", Mm: 25, AtMm: 300}, {Quantity: Length, Mm: c.HotAtMm(1, 320)}} {
		want := 25.0
		if r.Quantity == Length {
			want = 320
		}
		assert.InDelta(t, want, c.coldOf(&r, 1), 1e-9, r.Quantity)
	}
	assert.InDelta(t, 12, c.coldOf(&Reading{Quantity: Quantity(plan.Rise), Mm: 12}, 1), 0)

	f := &folding{c: c}
	c.Steps = []Step{{ID: "1-1", Heat: 1, Goal: &plan.Goal{Measure: plan.Height, Mm: 25, AtMm: 40, WithinMm: .1}}}
	for hot, within := range map[bool]bool{true: true, false: false} {
		f.s.Told = nil
		read := Event{Kind: Read, Step: "1-1", Reading: &Reading{Quantity: "height", Mm: thermal.Hot(25, 950), AtMm: 40, Hot: hot}}
		f.told(&read, 1)
		require.Len(t, f.s.Told, 1)
		assert.Equal(t, within, f.s.Told[0].Within)
		assert.InDelta(t, thermal.Hot(25, 950), read.Reading.Mm, 0, "what was told stays as it was told")
	}
}

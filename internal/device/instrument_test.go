package device

import (
	"testing"

	"coldember/core/session"

	"github.com/stretchr/testify/assert"
)

// TestACaliperOnHotSteelReadsMore by what the steel is longer, and no more where it is cold; what was read of the hidden piece
// is cold.
func TestACaliperOnHotSteelReadsMore(t *testing.T) {
	i := NewInstrument(session.Caliper, "a", 1, 0)
	w := session.Want{Quantity: "height", Step: "1-1", AtMm: 40, Mm: 25, HotMm: 25.3}
	for p, want := range map[session.Phase]float64{session.OutOf: 25.3, session.InFire: 25.3, session.Away: 25, session.Finished: 25, session.Ready: 25} {
		assert.InDelta(t, want, i.is(&w, p), 1e-9, p)
	}
	i.truth = []session.Event{{Step: "1-1", Reading: &session.Reading{Quantity: "height", Mm: 24, AtMm: 40}}}
	assert.InDelta(t, 24*25.3/25, i.is(&w, session.OutOf), 1e-9)
	w.HotMm = 0
	assert.InDelta(t, 24, i.is(&w, session.OutOf), 1e-9, "of a session frozen before that was told")
}

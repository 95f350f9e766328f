package whatif

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestWhatMakesTheBarLonger: each source of doubt moves the length its own way.
func TestWhatMakesTheBarLonger(t *testing.T) {
	m := &response{forgedMm3: 40000, trimMm: 2, w: 25, t: 5, loss: .1, perWidth: -.001, perThick: -.002}
	tol := Tolerances{WidthMm: .5, ThicknessMm: .2, Loss: .2, Form: .02, Forged: .05}
	usual := m.length(tol, deviates{})
	assert.InDelta(t, 40000/.9/125+2, usual, 1e-9)
	assert.InDelta(t, 40000/(1-.0996)/(25*5.2)+2, m.length(tol, deviates{thick: 1}), 1e-9, "a thicker bar, which burns a little less")
	assert.InDelta(t, 40000/(1-.0995)/(25.5*5)+2, m.length(tol, deviates{width: 1}), 1e-9, "a wider one")
	assert.InDelta(t, 40000*(1+.1/.9*math.Exp(.2))/125+2, m.length(tol, deviates{loss: 1}), 1e-9, "a fire that burns a fifth more")
	assert.InDelta(t, 40000*1.05/.9/125+2, m.length(tol, deviates{forged: 1}), 1e-9, "a blade that is left heavier")
	assert.InDelta(t, 40000/.9/125/1.02+2, m.length(tol, deviates{form: 1}), 1e-9, "a bar with fuller corners")
	assert.Greater(t, m.length(tol, deviates{loss: 100}), usual)
}

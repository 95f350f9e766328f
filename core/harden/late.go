package harden

import "coldember/core/fact"

// Work is shaping that is done on soft steel: before the quench, or where it was softened again.
type Work string

// What is done on soft steel.
const (
	Drilling Work = "drill" // holes, slots and notches of the tang
	Bending  Work = "bend"  // a tang or handle bent to its line
	Brazing  Work = "braze" // soldering or brazing a guard or bolster on
)

// Works lists them.
func Works() []Work { return []Work{Drilling, Bending, Brazing} }

// validateLate refuses work that is to be done after the quench, unless it is wanted all the same.
func (t *Treatment) validateLate(c fact.Check) {
	for _, w := range t.Late {
		fact.OneOf(c, "late", w, Works()...)
	}
	if len(t.Late) > 0 && !t.Forced {
		c.Fail("late", "need.softBeforeHardening", nil)
	}
}

// late warns of work that is wanted after the quench all the same.
func (a *Advice) late(c *Case) {
	for _, w := range c.Treatment.Late {
		a.find("harden.late."+string(w), fact.Warn, fact.Figures{"softC": softenC})
	}
}

// softenC is where a hard tang is softened: dull red, below the critical point (judgement).
const softenC = 650

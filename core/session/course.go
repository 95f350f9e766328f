package session

import (
	"math"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/plan"
)

// CourseVersion is the version of the stored form of a Course.
const CourseVersion = 1

// Course is a plan as it is walked through at the fire: frozen, with the version of the laws
// that made it.
type Course struct {
	Version int     `json:"version"`
	Laws    int     `json:"laws"`
	Steel   string  `json:"steel" doc:"id of the grade"`
	FireC   float64 `json:"fireC"`
	// HoldSPerMm is how long a millimetre of thickness is held at heat.
	HoldSPerMm float64        `json:"holdSPerMm"`
	HotMm      float64        `json:"hotMm" doc:"length that the fire heats"`
	HammerKg   float64        `json:"hammerKg"`
	Tongs      bool           `json:"tongs" doc:"held in tongs, not by the bar itself"`
	FuelKgPerH float64        `json:"fuelKgPerH"`
	StartG     float64        `json:"startG" doc:"of the bar as it is cut"`
	ForgedG    float64        `json:"forgedG"`
	Totals     plan.Totals    `json:"totals"`
	Bar        CourseBar      `json:"bar"`
	Heats      []Heat         `json:"heats"`
	Steps      []Step         `json:"steps"`
	Forged     []plan.Station `json:"forged"`
	// Aim is what the finished knife is to come to.
	Aim Aim `json:"aim"`
	// Treatment is how it is hardened and tempered after.
	Treatment []harden.Step `json:"treatment,omitempty"`
	// Before is the piece as it was measured, where the course goes on from one that was begun.
	Before *Before `json:"before,omitempty"`
}

// Before is a piece that was begun already: its shape, from its point, and the operations that are done.
type Before struct {
	Shape []plan.Station `json:"shape"`
	Done  []string       `json:"done"`
}

// CourseBar is what it begins with.
type CourseBar struct {
	WidthMm     float64     `json:"widthMm"`
	ThicknessMm float64     `json:"thicknessMm"`
	LengthMm    float64     `json:"lengthMm"`
	Marks       []plan.Mark `json:"marks"`
}

// Heat is a trip to the fire as it was planned.
type Heat struct {
	Number   int            `json:"number"`
	FireS    float64        `json:"fireS"`
	CarryS   float64        `json:"carryS"`
	WorkS    float64        `json:"workS"`
	BrushS   float64        `json:"brushS"`
	LimitS   float64        `json:"limitS"`
	SoakC    float64        `json:"soakC" doc:"to wait for"`
	LowC     float64        `json:"lowC" doc:"where it ends"`
	FuelG    float64        `json:"fuelG"`
	ScaleMm3 float64        `json:"scaleMm3"`
	Blows    int            `json:"blows"`
	HotFrom  float64        `json:"hotFromMm"`
	HotTo    float64        `json:"hotToMm"`
	Curve    []plan.Moment  `json:"curve"`
	Slow     plan.Slab      `json:"slow"`
	Cold     plan.Slab      `json:"cold"`
	Held     plan.Slab      `json:"held" doc:"the section that the tongs hold"`
	LengthMm float64        `json:"lengthMm" doc:"of the piece after it, cold"`
	LongHot  float64        `json:"longHotMm,omitempty" doc:"as it reads at the anvil then; 0: no hotter than cold"`
	Shape    []plan.Station `json:"shape"`
	Joined   *plan.Joined   `json:"joined,omitempty"`
	Readings []plan.Reading `json:"readings,omitempty"`
	Rest     bool           `json:"rest,omitempty"`
	First    int            `json:"first" doc:"its first step"`
	Last     int            `json:"last"`
}

// Step is what is done with one purpose in one heat.
type Step struct {
	ID        string     `json:"id" doc:"heat and part: 3.1"`
	Heat      int        `json:"heat"`
	Operation string     `json:"operation"`
	Kind      string     `json:"kind"`
	Face      string     `json:"face,omitempty"`
	Support   string     `json:"support,omitempty"`
	Machine   string     `json:"machine,omitempty"`
	Dies      string     `json:"dies,omitempty"`
	StopMm    float64    `json:"stopMm,omitempty"`
	Zones     []string   `json:"zones"`
	FromMm    float64    `json:"fromMm" doc:"where it is struck"`
	ToMm      float64    `json:"toMm"`
	FromShare float64    `json:"fromShare" doc:"of the whole operation"`
	ToShare   float64    `json:"toShare"`
	Blows     int        `json:"blows"`
	Strokes   bool       `json:"strokes,omitempty" doc:"no blows, but turns, bends or stamps"`
	BeginS    float64    `json:"beginS" doc:"after the piece left the fire"`
	WorkS     float64    `json:"workS"`
	LimitS    float64    `json:"limitS" doc:"too cold for it so long after the piece left the fire"`
	LowC      float64    `json:"lowC"`
	HoldS     float64    `json:"holdS,omitempty"`
	Goal      *plan.Goal `json:"goal,omitempty"`
	Sides     bool       `json:"sides,omitempty" doc:"worked from either side"`
	Cycle     bool       `json:"cycle,omitempty" doc:"no blows: taken to heat and let cool"`
	Cautions  []string   `json:"cautions,omitempty"`
}

// Validate reports what of a stored course no plan could have made.
func (c *Course) Validate() error {
	k := fact.NewCheck()
	if c.Version != CourseVersion {
		k.Fail("version", "field.range", fact.Figures{"lowest": CourseVersion, "highest": CourseVersion})
		return k.Err()
	}
	next := 0
	for i := range c.Heats {
		h := &c.Heats[i]
		ok := h.Number == i+1 && h.First == next && h.Last >= h.First && h.Last < len(c.Steps) && len(h.Curve) > 0 &&
			h.Slow.WidthMm > 0 && h.Slow.ThicknessMm > 0 && h.Cold.WidthMm > 0 && h.Cold.ThicknessMm > 0 && h.SoakC > 0 && h.SoakC < mostC
		for s := h.First; ok && s <= h.Last; s++ {
			ok = c.Steps[s].Heat == h.Number
		}
		if !ok {
			k.Fail("heats", "field.range", fact.Figures{"lowest": 1, "highest": float64(len(c.Heats))})
			return k.Err()
		}
		next = h.Last + 1
	}
	if next != len(c.Steps) {
		k.Fail("steps", "field.range", fact.Figures{"lowest": 0, "highest": float64(next)})
	}
	k.Range("treatment", float64(len(c.Treatment)), 0, mostTreatment)
	k.Range("fireC", c.FireC, 100, mostC)
	return k.Err()
}

// mostTreatment bounds the steps of a treatment.
const mostTreatment = 60

// mostC is hotter than any fire.
const mostC = 1700

// StepAt is the place of a step by its id; −1 where there is none.
func (c *Course) StepAt(id string) int {
	for i := range c.Steps {
		if c.Steps[i].ID == id {
			return i
		}
	}
	return -1
}

// Cycles tells whether a heat is a cycle: taken to heat and let cool, without a blow.
func (c *Course) Cycles(heat int) bool {
	h := c.heat(heat)
	return h != nil && h.First < len(c.Steps) && c.Steps[h.First].Cycle
}

// HeatOf is the heat of a step, or nil.
func (c *Course) HeatOf(step int) *Heat {
	if step < 0 || step >= len(c.Steps) {
		return nil
	}
	return c.heat(c.Steps[step].Heat)
}

func (c *Course) heat(number int) *Heat {
	if number < 1 || number > len(c.Heats) {
		return nil
	}
	return &c.Heats[number-1]
}

// LongestMm is how long the piece ever is.
func (c *Course) LongestMm() float64 {
	l := c.Bar.LengthMm
	for i := range c.Heats {
		l = math.Max(l, c.Heats[i].LengthMm)
	}
	return l
}

// largest is the most that a measure of a caliper comes to, mm.
func (c *Course) largest(q Quantity) float64 {
	height, thick := c.Bar.WidthMm, c.Bar.ThicknessMm
	for i := range c.Heats {
		for k := range c.Heats[i].Shape {
			s := &c.Heats[i].Shape[k]
			height, thick = math.Max(height, s.HeightMm()), math.Max(thick, s.ThicknessMm)
		}
	}
	if q == Quantity(plan.Height) {
		return height
	}
	return thick
}

// PlannedMm is what a measure of the piece is to be at a place after a heat, mm; ok is false
// where the piece has no such place or the measure is none of a section.
func (c *Course) PlannedMm(q Quantity, heat int, atMm float64) (mm float64, ok bool) {
	h := c.heat(heat)
	if h == nil || len(h.Shape) == 0 {
		return 0, false
	}
	best := &h.Shape[0]
	for i := range h.Shape {
		if s := &h.Shape[i]; math.Abs(s.XMm-atMm) < math.Abs(best.XMm-atMm) {
			best = s
		}
	}
	switch q {
	case Quantity(plan.Height):
		return best.HeightMm(), true
	case Quantity(plan.Thickness):
		return best.ThicknessMm, true
	case Quantity(plan.EdgeThickness):
		if best.EdgeMm > 0 {
			return best.EdgeMm, true
		}
		return best.ThicknessMm, true
	case Length:
		return h.LengthMm, true
	}
	return 0, false
}

package steel

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"strings"
)

// DensityGPerCm3 is the density that masses are computed with.
const DensityGPerCm3 = 7.85

// Quench is the class of bath that a grade is hardened in.
type Quench string

// The classes of quench, from the slowest; NoQuench does not harden, and of what is
// not known only a coupon tells.
const (
	NoQuench        Quench = "none"
	ByCoupon        Quench = "coupon"
	MediumOil       Quench = "medium"
	MediumToFast    Quench = "mediumToFast"
	FastOil         Quench = "fast"
	VeryFastOil     Quench = "veryFast"
	VeryFastOrBrine Quench = "veryFastOrBrine"
	WaterOrVeryFast Quench = "waterOrVeryFast"
)

// Quenches lists them.
func Quenches() []Quench {
	return []Quench{NoQuench, ByCoupon, MediumOil, MediumToFast, FastOil, VeryFastOil, VeryFastOrBrine, WaterOrVeryFast}
}

// BathC is how warm the oil is kept, °C: very fast oils work cool, the others run
// off best warmed. ok is false where there is no oil to warm.
func (q Quench) BathC() (lowC, highC float64, ok bool) {
	switch q {
	case MediumOil, MediumToFast, FastOil:
		return 50, 60, true
	case VeryFastOil, VeryFastOrBrine, WaterOrVeryFast:
		return 20, 50, true
	}
	return 0, 0, false
}

// Grade is one steel. Zero AustenitiseC means it is not hardened, or that only
// a coupon can tell; Assumed marks a family's narrowest window standing in for
// a steel that nobody has identified.
type Grade struct {
	ID        string  `json:"id"`
	Name      string  `json:"name"`
	CarbonPct float64 `json:"carbonPct"`
	Composition
	ForgeLowC    float64   `json:"forgeLowC"`
	ForgeHighC   float64   `json:"forgeHighC"`
	NormaliseC   float64   `json:"normaliseC,omitempty"`
	NormaliseMin float64   `json:"normaliseMin,omitempty" doc:"that the first normalising is held, to dissolve carbides"`
	AustenitiseC float64   `json:"austenitiseC,omitempty"`
	SoakMin      float64   `json:"soakMin,omitempty"`
	Quench       Quench    `json:"quench" enum:"none,coupon,medium,mediumToFast,fast,veryFast,veryFastOrBrine,waterOrVeryFast"`
	HRC          []float64 `json:"hrc,omitempty" doc:"as quenched, then after one hour at 200, 230 and 260 °C"`
	FlowFactor   float64   `json:"flowFactor"`
	AirHardensMm float64   `json:"airHardensMm,omitempty" doc:"so thick it still hardens in air, so that air does not normalise it (judgement)"`
	Assumed      bool      `json:"assumed,omitempty"`
	Standard     string    `json:"standard,omitempty" doc:"whose typical composition it is; temperatures are common practice: the maker's sheet comes first"`
}

// Composition is what is alloyed with iron beside carbon, per cent by mass: the middle of
// what the standard allows.
type Composition struct {
	ManganesePct  float64 `json:"manganesePct,omitempty"`
	SiliconPct    float64 `json:"siliconPct,omitempty"`
	NickelPct     float64 `json:"nickelPct,omitempty"`
	ChromiumPct   float64 `json:"chromiumPct,omitempty"`
	MolybdenumPct float64 `json:"molybdenumPct,omitempty"`
	VanadiumPct   float64 `json:"vanadiumPct,omitempty"`
	CopperPct     float64 `json:"copperPct,omitempty"`
}

//go:embed grades.json
var gradesJSON []byte

var grades = mustLoad()

func mustLoad() []Grade {
	var g []Grade
	if err := json.Unmarshal(gradesJSON, &g); err != nil {
		panic(fmt.Sprintf("steel: embedded table: %v", err))
	}
	return g
}

// Grades returns a copy of the table, in its own order.
func Grades() []Grade { return append([]Grade(nil), grades...) }

// UnknownError is returned for an id that the table does not have.
type UnknownError struct{ ID string }

func (e *UnknownError) Error() string { return fmt.Sprintf("steel: no grade %q", e.ID) }

// Find returns the grade of this id, whatever the case, or an *UnknownError.
func Find(id string) (Grade, error) {
	for _, g := range grades {
		if strings.EqualFold(g.ID, strings.TrimSpace(id)) {
			return g, nil
		}
	}
	return Grade{}, &UnknownError{ID: id}
}

// NormalisingC returns the descending normalising temperatures of the grade:
// the table's value, 40 °C less, 70 °C less. Empty for a steel without one.
func (g Grade) NormalisingC() []float64 {
	if g.NormaliseC == 0 {
		return nil
	}
	return []float64{g.NormaliseC, g.NormaliseC - 40, g.NormaliseC - 70}
}

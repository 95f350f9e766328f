package stock

import (
	_ "embed"
	"encoding/json"
	"fmt"
)

// Family is a group of steels that work and harden alike.
type Family struct {
	ID         string  `json:"id"`
	CarbonPct  float64 `json:"carbonPct"`
	ForgeLowC  float64 `json:"forgeLowC"`
	ForgeHighC float64 `json:"forgeHighC"`
	SteelID    string  `json:"steelId" doc:"the grade that stands in for it"`
}

// Result is one outcome of a test, with the share of pieces of each family that
// give it.
type Result struct {
	ID string             `json:"id"`
	P  map[string]float64 `json:"p"`
}

// Test tells families apart. Source says where its figures come from.
type Test struct {
	ID      string   `json:"id"`
	Source  string   `json:"source"`
	Results []Result `json:"results"`
}

// Origin is what a piece was before: its usual form, which families it is
// presumed to be of, what is dangerous about it, and what is done first.
type Origin struct {
	ID      string             `json:"id"`
	Form    Form               `json:"form"`
	Prior   map[string]float64 `json:"prior"`
	Hazards []string           `json:"hazards"`
	Prep    []string           `json:"prep"`
}

// Hazard stops a plan: for good where it refuses, else until it is acknowledged.
type Hazard struct {
	ID     string `json:"id"`
	Refuse bool   `json:"refuse"`
}

//go:embed salvage.json
var salvageJSON []byte

var salvage = func() (t struct {
	Families []Family `json:"families"`
	Tests    []Test   `json:"tests"`
	Origins  []Origin `json:"origins"`
	Hazards  []Hazard `json:"hazards"`
},
) {
	if err := json.Unmarshal(salvageJSON, &t); err != nil {
		panic(fmt.Sprintf("stock: embedded table: %v", err))
	}
	return t
}()

// Families lists the families from soft to hard.
func Families() []Family { return salvage.Families }

// Tests lists the tests that tell them apart.
func Tests() []Test { return salvage.Tests }

// Origins lists what pieces come from.
func Origins() []Origin { return salvage.Origins }

// Hazards lists what is dangerous about pieces.
func Hazards() []Hazard { return salvage.Hazards }

// FindOrigin returns an origin by its id.
func FindOrigin(id string) (Origin, bool) {
	for _, o := range salvage.Origins {
		if o.ID == id {
			return o, true
		}
	}
	return Origin{}, false
}

// PresumedOrigin is what a piece of this form was, where the form alone tells it: a leaf is
// a leaf spring's. Forms in which steel is also sold new tell nothing.
func PresumedOrigin(f Form) (id string, ok bool) {
	id, ok = map[Form]string{
		Ball: "ball", Roller: "roller", TaperedRound: "taperedRoller", Coil: "coilSpring", Leaf: "leafSpring",
		Race: "race", Disc: "disc", Cable: "wireRope", Chain: "chain",
	}[f]
	return id, ok
}

// FindHazard returns a hazard by its id.
func FindHazard(id string) (Hazard, bool) {
	for _, h := range salvage.Hazards {
		if h.ID == id {
			return h, true
		}
	}
	return Hazard{}, false
}

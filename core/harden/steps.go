package harden

import (
	"math"
	"strconv"

	"coldember/core/fact"
)

// Step is one step of hardening and tempering, in the order they are done: sentences by code with
// their figures, and words by the code of the word.
type Step struct {
	ID       string            `json:"id" doc:"soft, soak, quench, straighten, file, toOven, temper-1, cool-1 …"`
	Codes    []string          `json:"codes" doc:"of its sentences"`
	Figures  fact.Figures      `json:"figures,omitempty"`
	Words    map[string]string `json:"words,omitempty" doc:"codes of the words that stand in the sentences"`
	CountS   float64           `json:"countS,omitempty" doc:"it lasts so long from the end of the one before"`
	AlsoS    float64           `json:"alsoS,omitempty" doc:"and the thick part so long"`
	Timer    string            `json:"timer,omitempty" enum:"soak,before,temper" doc:"kind of timer that is wanted for it"`
	Sees     []Sight           `json:"sees" doc:"what is to be noted of it"`
	Cautions []string          `json:"cautions,omitempty"`
}

// Sight is what can be noted of a step.
type Sight string

// What is seen and read.
const (
	SeeTemp  Sight = "temp"  // of the steel or the oven, by its colour or read
	SeeBath  Sight = "bath"  // how warm it was
	SeeTime  Sight = "time"  // how long it took
	SeeWarp  Sight = "warp"  // out of straight
	SeeFile  Sight = "file"  // skates, or bites
	SeeGrain Sight = "grain" // of a coupon, or of a blade that broke
	SeeHard  Sight = "hard"  // read by a tester, HRC
)

// Sights lists them.
func Sights() []Sight { return []Sight{SeeTemp, SeeBath, SeeTime, SeeWarp, SeeFile, SeeGrain, SeeHard} }

// temperColours are the colours of bright steel that was tempered so hot for an hour, °C.
var temperColours = []int{200, 220, 240, 255, 270, 285, 300, 315, 335}

// TemperColour is the nearest of the scale of bright steel tempered for an hour, °C.
func TemperColour(oneHourC float64) int { return nearest(temperColours, oneHourC) }

func nearest(scale []int, c float64) int {
	best := scale[0]
	for _, s := range scale {
		if math.Abs(float64(s)-c) < math.Abs(float64(best)-c) {
			best = s
		}
	}
	return best
}

// heatWord is the word for the colour of hot steel, by its temperature: which it is depends on the
// school of the shop.
func heatWord(tempC float64) string { return "heatColour." + strconv.Itoa(int(math.Round(tempC))) }

// sameCriticalK: critical points nearer than a temperature is printed are said as one.
const sameCriticalK = 5.0

// steps puts the advice in the order in which it is done.
func (a *Advice) steps(c *Case) {
	t := c.Treatment
	add := func(s Step) {
		if s.Sees == nil {
			s.Sees = []Sight{}
		}
		a.Steps = append(a.Steps, s)
	}
	if !a.Known {
		a.couponSteps(c, add)
	}
	if c.Holes && !t.leaves(Drilling) {
		add(Step{ID: "soft", Codes: []string{"treat.drill"}})
	}
	soak := Step{
		ID: "soak", Codes: []string{"treat.heatTo"}, Sees: []Sight{SeeTemp, SeeTime},
		Figures: fact.Figures{"austenitiseC": a.AustenitiseC, "lowC": a.CriticalLowC, "highC": a.CriticalHighC},
		Words:   map[string]string{"colour": heatWord(a.AustenitiseC)},
	}
	if a.SoakS > 0 {
		soak.Codes, soak.Timer = append(soak.Codes, "treat.soak"), "soak"
		soak.Figures["soakS"] = a.SoakS
	}
	if a.CriticalHighC-a.CriticalLowC < sameCriticalK {
		soak.Codes = append(soak.Codes, "treat.criticalAt")
	} else {
		soak.Codes = append(soak.Codes, "treat.critical")
	}
	add(soak)
	quench := Step{
		ID: "quench", Codes: []string{"treat.intoBath"}, CountS: a.InBathS, Sees: []Sight{SeeBath, SeeTime}, Cautions: bathCautions(t.Bath.Class),
		Figures: fact.Figures{"warmC": t.Bath.WarmC, "edgeMm": a.EdgeAtQuenchMm, "inS": a.InBathS, "spineC": a.SpineOutC, "dipMm": t.DipMm, "outC": a.OutC},
		Words:   map[string]string{"bath": "bath." + string(t.Bath.Class)},
	}
	if t.DipMm > 0 {
		quench.Codes = append(quench.Codes, "treat.dipOnly")
	}
	quench.Codes = append(quench.Codes, "treat.inBath")
	add(quench)
	window := Step{ID: "straighten", Codes: []string{"treat.windowNone"}, Sees: []Sight{SeeWarp}, Cautions: []string{"caution.brittle"}}
	if a.WindowEdgeS >= leastWindowS {
		window.Codes, window.CountS, window.AlsoS = []string{"treat.window"}, a.WindowEdgeS, a.WindowSpineS
		window.Figures = fact.Figures{"edgeS": math.Floor(a.WindowEdgeS), "spineS": math.Floor(a.WindowSpineS)}
	}
	if a.clamps() && a.Temper.OvenC > 0 && t.By() != ByTorch {
		window.Codes = append(window.Codes, "treat.clampInTemper")
		if window.Figures == nil {
			window.Figures = fact.Figures{}
		}
		window.Figures["longMm"] = clampMm(c.LengthMm)
	}
	add(window)
	add(Step{ID: "file", Codes: []string{"treat.file"}, Sees: []Sight{SeeFile, SeeHard, SeeGrain}})
	a.temperSteps(t, add)
	for _, w := range t.Late {
		add(Step{ID: "late-" + string(w), Codes: []string{"harden.late." + string(w)}, Figures: fact.Figures{"softC": softenC}})
	}
}

// withinS of the quench a blade is to be tempering.
const withinS = 3600

func (a *Advice) temperSteps(t Treatment, add func(Step)) {
	if a.Temper.OvenC <= 0 {
		add(Step{ID: "temper-1", Codes: []string{"treat.temperCoupon"}, Sees: []Sight{SeeTemp, SeeHard}})
		return
	}
	times := max(1, t.Times)
	add(Step{ID: "toOven", Codes: []string{"treat.withinHour"}, CountS: withinS, Timer: "before"})
	for i := range times {
		if i > 0 {
			add(Step{ID: "cool-" + strconv.Itoa(i), Codes: []string{"treat.coolBetween"}, CountS: CoolMin * 60})
		}
		codes := []string{"treat.temper." + string(t.By())}
		if i == 0 && a.clamps() && t.By() != ByTorch {
			codes = append(codes, "treat.clamped")
		}
		add(Step{
			ID: "temper-" + strconv.Itoa(i+1), Codes: codes, CountS: t.Hours * 3600, Timer: "temper", Sees: []Sight{SeeTemp, SeeTime, SeeHard}, Cautions: temperCautions(t.By()),
			Figures: fact.Figures{"n": float64(i + 1), "times": float64(times), "lastS": t.Hours * 3600, "ovenC": a.Temper.OvenC},
			Words:   map[string]string{"colour": "temperColour." + strconv.Itoa(TemperColour(a.Temper.ColourC))},
		})
	}
}

// bathCautions are the dangers of a bath: oil flashes, water spits and cracks.
func bathCautions(c BathClass) []string {
	switch {
	case c.Oil():
		return []string{"caution.quench"}
	case c.Watery():
		return []string{"caution.waterQuench"}
	}
	return nil
}

func temperCautions(w Way) []string {
	switch w {
	case InOilBath:
		return []string{"caution.hotOil"}
	case ByTorch:
		return []string{"caution.torch"}
	}
	return nil
}

// leaves tells whether work is left until after the quench.
func (t *Treatment) leaves(w Work) bool {
	for _, l := range t.Late {
		if l == w {
			return true
		}
	}
	return false
}

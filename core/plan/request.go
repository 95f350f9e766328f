package plan

import (
	"errors"
	"strconv"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/forge"
	"coldember/core/harden"
	"coldember/core/steel"
	"coldember/core/stock"
)

// SeamMm is where a rod that stays is welded on, behind the shoulder; 0: none.
func (r *Request) SeamMm() float64 {
	if r.Choices.Holding != WeldedRod || r.Forged != nil {
		return 0
	}
	return r.Design.Tang.WeldAtMm
}

// RequestVersion is the version of the shape of Request and Plan; LawsVersion
// changes whenever the same request would be answered with other figures.
const (
	RequestVersion = 1
	LawsVersion    = 11
)

// LossMode tells which loss sizes the bar.
type LossMode string

// ComputedLoss follows the heats; ThumbLoss is the smith's own figure.
const (
	ComputedLoss LossMode = "computed"
	ThumbLoss    LossMode = "thumb"
)

// Sizing is how the bar is measured off.
type Sizing struct {
	LossMode          LossMode `json:"lossMode" enum:"computed,thumb"`
	ThumbLossFraction float64  `json:"thumbLossFraction"`
	TrimMm            float64  `json:"trimMm" doc:"ground or cropped off the bar's end"`
	KerfMm            float64  `json:"kerfMm"`

	// FirstWidthMm and FirstThicknessMm are the flat that a lump is first broken
	// down to; 0 has it found.
	FirstWidthMm     float64 `json:"firstWidthMm,omitempty"`
	FirstThicknessMm float64 `json:"firstThicknessMm,omitempty"`
}

// CutsNothing tells whether the piece of stock goes into the blade whole, as a ball or a
// roller does: nothing is measured off, trimmed or cut off at the end.
func (r *Request) CutsNothing() bool {
	return r.Bar.Form == stock.Ball || r.Bar.Form == stock.Roller || r.SawnOut()
}

// SawnOut tells whether the piece begins as an outline sawn out of a sheet.
func (r *Request) SawnOut() bool { return r.Choices.Start == FromSheet && r.Forged == nil }

// EndsMm are what is ground or cropped off the bar's end and what the cut takes.
func (r *Request) EndsMm() (trimMm, kerfMm float64) {
	if r.CutsNothing() {
		return 0, 0
	}
	return r.Sizing.TrimMm, r.Sizing.KerfMm
}

// Window is a forging window narrower than the grade's: of a steel that is only
// believed, safe for every family that it may still be.
type Window struct {
	LowC  float64 `json:"lowC"`
	HighC float64 `json:"highC"`
}

// Origin is what is known of a piece that was something else before.
type Origin struct {
	ID           string   `json:"id,omitempty"`
	Hazards      []string `json:"hazards,omitempty"`
	Acknowledged []string `json:"acknowledged,omitempty" doc:"hazards the smith has seen to"`
	Window       *Window  `json:"window,omitempty"`
	// Tests are what was tried on the bar, a coupon of it among them.
	Tests []stock.Finding `json:"tests,omitempty"`
}

// mostTests is how many tests a bar may tell of.
const mostTests = 40

// Request is everything a plan is made from.
type Request struct {
	Version    int              `json:"version"`
	Design     blade.Design     `json:"design"`
	Allowances blade.Allowances `json:"allowances"`
	SteelID    string           `json:"steelId"`
	Bar        stock.Item       `json:"bar"`
	Smith      forge.Smith      `json:"smith"`
	Fire       forge.Fire       `json:"fire"`
	Choices    Choices          `json:"choices"`
	Sizing     Sizing           `json:"sizing"`
	Origin     Origin           `json:"origin"`
	Prices     Prices           `json:"prices"`
	Bit        *Bit             `json:"bit,omitempty"`

	// Analysis is what the bar's certificate says of its steel; nil is the grade's usual.
	Analysis *steel.Analysis `json:"analysis,omitempty"`

	// Billet is how the bar was laid and patterned; nil is of one steel.
	Billet *billet.Recipe `json:"billet,omitempty"`

	// Treatment is how the blade is hardened and tempered; nil is as usual for its steel.
	Treatment *harden.Treatment `json:"treatment,omitempty"`

	// Finish is how it is ground, fitted and sharpened; nil is as usual.
	Finish *finish.Choices `json:"finish,omitempty"`

	// Learned is what the shop's book taught of this smith and this forge; nil is the laws alone.
	Learned *Learned `json:"learned,omitempty"`

	// Forged, when given, is the shape to forge instead of the design with its
	// allowances.
	Forged *blade.Blade `json:"-"`
	// Steel, when given, stands in for the grade of SteelID.
	Steel *steel.Grade `json:"-"`
	// CellCount is how finely the piece is simulated (0: the preview's).
	CellCount int `json:"-"`
}

// NewRequest is a request with the defaults of the trade for a design, a bar
// and a hand.
func NewRequest(d blade.Design, steelID string, bar stock.Item, skill forge.Skill) Request {
	return Request{
		Version: RequestVersion, Design: d, Allowances: blade.ThickAndGrind.AllowancesFor(&d), SteelID: steelID, Bar: bar,
		Smith: forge.NewSmith(skill), Fire: forge.NewFire(),
		Choices: Choices{Method: forge.PinchOut, Curve: PreCurveFirst, Holding: WholeBar, Cycles: Descending},
		Sizing:  Sizing{LossMode: ComputedLoss, ThumbLossFraction: .1, TrimMm: 2, KerfMm: 1.5},
	}
}

// InOil tells whether the blade is quenched in oil, as it is where nothing else is said.
func (r *Request) InOil() bool { return r.Treatment == nil || r.Treatment.Bath.Class.Oil() }

// Validate reports every field that cannot be, as fact.FieldErrors.
func (r Request) Validate() error {
	c := fact.NewCheck()
	if r.Forged == nil {
		r.Design.Validate(c.Within("design"))
	}
	r.Allowances.Validate(c.Within("allowances"))
	r.Smith.Validate(c.Within("smith"))
	r.Fire.Validate(c.Within("fire"))
	r.Prices.Validate(c.Within("prices"))
	if r.SteelID == "" {
		c.Fail("steelId", "field.steelMissing", nil)
	} else if _, err := steel.Find(r.SteelID); err != nil {
		c.Fail("steelId", "field.steel", nil)
	}
	ValidateAnalysis(c.Within("analysis"), r.Analysis)
	r.Billet.Validate(c.Within("billet"))
	r.Bit.validate(c)
	r.Learned.validate(c)
	r.Treatment.Validate(c.Within("treatment"))
	r.Finish.Validate(c.Within("finish"))
	validateBar(c.Within("bar"), r.Bar)
	r.Bar.Validate(c.Within("bar"))
	if w := r.Origin.Window; w != nil {
		o := c.Within("origin").Within("window")
		o.Range("lowC", w.LowC, 300, 1400)
		o.Range("highC", w.HighC, 300, 1400)
	}
	tests := c.Within("origin").Within("tests")
	c.Within("origin").Range("tests", float64(len(r.Origin.Tests)), 0, mostTests)
	for i, f := range r.Origin.Tests {
		if !f.Known() {
			tests.Fail(strconv.Itoa(i), "field.choice", nil)
		}
	}
	s := c.Within("sizing")
	fact.OneOf(s, "lossMode", r.Sizing.LossMode, ComputedLoss, ThumbLoss)
	s.Range("thumbLossFraction", r.Sizing.ThumbLossFraction, 0, .6)
	s.Range("trimMm", r.Sizing.TrimMm, 0, 200)
	s.Range("kerfMm", r.Sizing.KerfMm, 0, 20)
	if f := r.Sizing.FirstThicknessMm; f != 0 {
		s.Range("firstThicknessMm", f, 1, 60)
	}
	if f := r.Sizing.FirstWidthMm; f != 0 {
		s.Range("firstWidthMm", f, 3, 200)
	}
	k := c.Within("choices")
	fact.OneOf(k, "method", r.Choices.Method, forge.PinchOut, forge.PushIn)
	fact.OneOf(k, "curve", r.Choices.Curve, PreCurveFirst, CorrectAsYou, LetSweep)
	fact.OneOf(k, "holding", r.Choices.Holding, WholeBar, Tongs, WeldedRod)
	fact.OneOf(k, "cycles", r.Choices.Cycles, Descending, Equal, Once, SlowAnneal)
	fact.OneOf(k, "first", r.Choices.First, PointFirst, TangFirst, "")
	fact.OneOf(k, "even", r.Choices.Even, ForgeLow, Stored, Kiln, "")
	fact.OneOf(k, "notch", r.Choices.Notch, NotchCut, NotchForged, "")
	fact.OneOf(k, "harden", r.Choices.Harden, HardenLater, HardenForged, "")
	fact.OneOf(k, "steelPattern", r.Choices.SteelPattern, NoPattern, LoopsQuarterDeep, StarsNearMiddle, "")
	fact.OneOf(k, "rodWeld", r.Choices.RodWeld, ByArc, InTheFire, "")
	fact.OneOf(k, "start", r.Choices.Start, FromBar, FromSheet, "")
	if r.Choices.Start == FromSheet && !r.Bar.Sheet() {
		k.Fail("start", "start.noSheet", nil)
	}
	if r.Choices.Start == FromSheet && r.Bit != nil {
		k.Fail("start", "start.noBit", nil)
	}
	fact.OneOf(k, "taper", r.Choices.Taper, ForgedTaper, GroundTaper, "")
	for _, t := range r.Choices.Tools {
		own := k.Within("tools").Within(t.Operation)
		fact.OneOf(own, "face", t.Face, append(forge.DrawingFaces(), "")...)
		fact.OneOf(own, "support", t.Support, append(forge.Supports(), "")...)
		fact.OneOf(own, "by", t.By, append(Ways(), "")...)
		fact.OneOf(own, "dies", t.Dies, append(forge.DiesList(), "")...)
	}
	fact.OneOf(k, "corners", r.Choices.Corners, CornersFirst, CornersLeft, "")
	return c.Err()
}

// ValidateAnalysis reports every share of a certificate that no steel for blades has.
func ValidateAnalysis(c fact.Check, a *steel.Analysis) {
	if a == nil {
		return
	}
	of := a.ByElement()
	for name, most := range steel.MostPct() {
		least := 0.0
		if name == "carbonPct" {
			least = .01
		}
		c.Range(name, of[name], least, most)
	}
}

func validateBar(c fact.Check, p stock.Item) {
	switch p.Form {
	case stock.Flat:
		c.Range("widthMm", p.WidthMm, 3, 200)
		c.Range("thicknessMm", p.ThicknessMm, .8, 80)
	case stock.Square:
		c.Range("sideMm", p.SideMm, 3, 100)
	case stock.Round:
		c.Range("diameterMm", p.DiameterMm, 3, 100)
	case stock.Hex, stock.Octagon:
		c.Range("acrossFlatsMm", p.AcrossFlatsMm, 3, 100)
	default:
		validateLump(c, p)
		return
	}
	c.Range("lengthMm", p.LengthMm, 10, 8000)
	validateDead(c, p)
}

// validateLump asks of a piece that is no bar that a bar can come of it.
func validateLump(c fact.Check, p stock.Item) {
	_, err := p.Even()
	var se *stock.Error
	switch {
	case errors.As(err, &se):
		c.Fail(se.Field, se.Code, nil)
	case err != nil:
		c.Fail("form", "field.choice", nil)
	default:
		validateDead(c, p)
	}
}

// validateDead wants something left between the dead stretches.
func validateDead(c fact.Check, p stock.Item) {
	if len(p.Dead) == 0 {
		return
	}
	var se *stock.Error
	if _, err := p.Even(); errors.As(err, &se) {
		c.Fail(se.Field, se.Code, nil)
	}
}

package harden

import (
	"math"

	"coldember/core/fact"
	"coldember/core/steel"
)

// Profile is one station of the finished blade: its thickness at even heights from edge to
// spine, and that of the steel before it is ground for the quench; nil: enough.
type Profile struct {
	XMm         float64
	HeightMm    float64
	ThicknessMm []float64
	IsMm        []float64
}

// Case is a blade that is to be treated.
type Case struct {
	Grade     steel.Grade
	Treatment Treatment
	WantHRC   float64 // usual for its use
	Profiles  []Profile
	LengthMm  float64
	MassG     float64
	FaceMm    float64 // left on each face for grinding after
	AsItIs    bool    // not ground for the quench, or ground and measured already
	Forging   []Hold  // all the heats it was forged in
	Cycles    []Hold  // each of them from below the critical point
	Holes     bool    // drilled or slotted
	HoleAtMm  float64 // the first of them, from the point
	// The corner between shoulder and tang: its radius, 0 where none is said, and where it is.
	CornerMm, CornerAtMm float64
	OneSided             bool // ground on one face: unequal sides
	Layered              bool // of several steels: what is said is of its edge
	Tried                Tried
	LikeID               string // the grade that a certificate makes of a steel nobody knew
}

// LineAt is where hard ends at a station, from the edge up, mm: at most the height.
type LineAt struct {
	XMm      float64 `json:"x"`
	HeightMm float64 `json:"heightMm"`
	HardMm   float64 `json:"hardMm"`
	SureMm   float64 `json:"sureMm" doc:"hard although the steel hardens a third less deep"`
	MostMm   float64 `json:"mostMm" doc:"hard if it hardens a third deeper"`
	MixedMm  float64 `json:"mixedMm" doc:"at least half martensite"`
}

// BathAnswer is what a class of bath would do.
type BathAnswer struct {
	Class       BathClass `json:"class"`
	HardMm      float64   `json:"hardMm" doc:"thickest plate that hardens through"`
	MixedMm     float64   `json:"mixedMm"`
	EdgeHardens bool      `json:"edgeHardens"`
	Whole       bool      `json:"whole" doc:"every section hardens through"`
	Risks       bool      `json:"risks" doc:"cracks are likelier than with what would do"`
}

// GrainStep is the grain after a stage of the work.
type GrainStep struct {
	What   string  `json:"what" enum:"forging,cycle,soak"`
	TempC  float64 `json:"tempC"`
	TimeS  float64 `json:"timeS"`
	Um     float64 `json:"grainUm"`
	Number float64 `json:"grainNumber" doc:"ASTM, ± 1.5"`
}

// Advice is what is said of the treatment of a blade.
type Advice struct {
	Hardens         bool           `json:"hardens" doc:"the grade is one that hardens"`
	Known           bool           `json:"known" doc:"else a coupon comes first"`
	CriticalLowC    float64        `json:"criticalLowC"`
	CriticalHighC   float64        `json:"criticalHighC"`
	AustenitiseC    float64        `json:"austenitiseC"`
	SoakS           float64        `json:"soakS"`
	IdealDiameterMm float64        `json:"idealDiameterMm"`
	MartensiteC     float64        `json:"martensiteC" doc:"where martensite begins, ± 20 °C"`
	Bath            Bath           `json:"bath"`
	EdgeAtQuenchMm  float64        `json:"edgeAtQuenchMm"`
	AdvisedEdgeMm   float64        `json:"advisedEdgeMm"`
	Left            Left           `json:"left"`
	SpineAtQuenchMm float64        `json:"spineAtQuenchMm"`
	HardMm          float64        `json:"hardMm"`
	MixedMm         float64        `json:"mixedMm"`
	Line            []LineAt       `json:"line"`
	Baths           []BathAnswer   `json:"baths"`
	OutC            float64        `json:"outC" doc:"as hot as the edge leaves the bath"`
	SpineOutC       float64        `json:"spineOutC" doc:"and the spine then"`
	InBathS         float64        `json:"inBathS" doc:"until then"`
	WindowEdgeS     float64        `json:"windowEdgeS" doc:"to straighten in still air, 0: none is left"`
	WindowSpineS    float64        `json:"windowSpineS"`
	OilRiseC        float64        `json:"oilRiseC"`
	OilNext         int            `json:"oilNext" doc:"so many blades like it until the oil is too warm; 0: no oil"`
	Temper          Tempered       `json:"temper"`
	WantHRC         float64        `json:"wantHrc"`
	Grain           []GrainStep    `json:"grain"`
	CyclesOwed      int            `json:"cyclesOwed" doc:"beyond those that are planned"`
	Findings        []fact.Warning `json:"findings"`
	Steps           []Step         `json:"steps" doc:"in the order in which they are done"`
	Mends           []Mend         `json:"mends" doc:"what to do when it went another way"`
	spineBelowNose  bool
	airCycles       bool // some of the cycles only harden it, since it cools in air
}

// doubtOfDepth: a thickness that hardens is good to a third.
const doubtOfDepth = 1.0 / 3

// Advise puts the laws together for a blade.
func Advise(c Case) Advice {
	tries := true
	if c.Grade.Assumed {
		c.Grade, tries = couponGrade(c.Grade, c.Tried)
	}
	g, t := c.Grade, c.Treatment
	s := SteelOf(g)
	a := Advice{Hardens: tries && g.AustenitiseC > 0 && g.Quench != steel.NoQuench, Known: !g.Assumed, AustenitiseC: g.AustenitiseC, SoakS: g.SoakMin * 60, Bath: t.Bath, Line: []LineAt{}, Baths: []BathAnswer{}, Findings: []fact.Warning{}, Grain: []GrainStep{}, Steps: []Step{}, Mends: []Mend{}}
	a.CriticalLowC, a.CriticalHighC = CriticalC(s)
	a.grain(&c)
	a.AdvisedEdgeMm = AdvisedEdgeMm(t.Bath.Class, c.LengthMm)
	a.Left = c.left()
	a.EdgeAtQuenchMm = a.Left.EdgeMm
	if n := len(c.Profiles); n > 0 {
		if q := a.Left.of(&c.Profiles[n/2]); len(q) > 0 {
			a.EdgeAtQuenchMm = q[0]
		}
	}
	switch {
	case !tries:
		a.find("harden.couponNo", fact.Stop, nil)
		return a
	case !a.Hardens:
		a.find("harden.none", fact.Warn, nil)
		return a
	case !a.Known:
		a.judgeTried(c.Tried)
	case c.LikeID != "":
		a.Findings = append(a.Findings, fact.Warning{Code: "harden.byCertificate", Severity: fact.Note, Steels: []string{c.LikeID}})
	}
	a.IdealDiameterMm, a.MartensiteC = IdealDiameterMm(s), MartensiteStartC(s)
	a.depth(&c, s)
	a.WantHRC = t.WantHardness
	if a.WantHRC == 0 {
		a.WantHRC = c.WantHRC
	}
	a.Temper = Temper(g, t, a.WantHRC)
	a.warn(&c)
	a.tooLong(&c)
	a.steps(&c)
	a.mends(&c)
	return a
}

// thickestMm of the blade at the quench.
func (c *Case) thickestMm() (mm float64) {
	left := c.left()
	for i := range c.Profiles {
		for _, v := range left.of(&c.Profiles[i]) {
			mm = math.Max(mm, v)
		}
	}
	return mm
}

// airHardens tells whether the blade hardens in air, so that cooling in it is no normalising.
func (c *Case) airHardens() bool {
	return c.Grade.AirHardensMm > 0 && c.thickestMm() <= c.Grade.AirHardensMm
}

func (a *Advice) find(code string, s fact.Severity, f fact.Figures) {
	a.Findings = append(a.Findings, fact.Warning{Code: code, Severity: s, Figures: f})
}

// depth fills in where the blade hardens, and how long it is in the bath and can be straightened.
func (a *Advice) depth(c *Case, s Steel) {
	t := c.Treatment
	thick := func(b Bath) (hard, mixed float64) {
		hard, errHard := CriticalThicknessMm(a.IdealDiameterMm, b.SeverityPerIn, Hard, b.Class.Fluid())
		mixed, errMixed := CriticalThicknessMm(a.IdealDiameterMm, b.SeverityPerIn, Half, b.Class.Fluid())
		if errHard != nil || errMixed != nil {
			return 0, 0
		}
		return hard, mixed
	}
	a.HardMm, a.MixedMm = thick(t.Bath)
	thickest, widest := 0.0, 0.0
	for i := range c.Profiles {
		p := &c.Profiles[i]
		q := a.Left.of(p)
		up := func(limit float64) float64 { return reach(q, p.HeightMm, limit, t.DipMm) }
		a.Line = append(a.Line, LineAt{
			XMm: p.XMm, HeightMm: p.HeightMm, HardMm: up(a.HardMm), SureMm: up(a.HardMm * (1 - doubtOfDepth)), MostMm: up(a.HardMm * (1 + doubtOfDepth)), MixedMm: up(a.MixedMm),
		})
		widest = math.Max(widest, p.HeightMm)
		for _, v := range q {
			thickest = math.Max(thickest, v)
		}
	}
	a.SpineAtQuenchMm = thickest
	for _, class := range BathClasses() {
		hard, mixed := thick(NewBath(class))
		a.Baths = append(a.Baths, BathAnswer{Class: class, HardMm: hard, MixedMm: mixed, EdgeHardens: hard >= a.EdgeAtQuenchMm, Whole: hard >= thickest, Risks: class.Watery()})
	}
	in := bathing{s, &t, a.AustenitiseC, a.EdgeAtQuenchMm, thickest, widest / 3, widest, c.airHardens()}
	out := in.at(t.OutC)
	if t.OutC == 0 {
		out = in.advised()
	}
	a.OutC, a.SpineOutC, a.InBathS, a.WindowEdgeS, a.WindowSpineS = out.edgeC, out.spineC, out.inS, out.windowEdge, out.windowBack
	a.spineBelowNose = out.sound(&in)
	if a.OilRiseC = t.Bath.OilRiseC(c.MassG, a.AustenitiseC); a.OilRiseC > 0 {
		a.OilNext = max(0, int((tooWarmC-t.Bath.WarmC)/a.OilRiseC))
	}
}

// reach is how far up from the edge a section is no thicker than a limit, and in the bath.
func reach(thicknessMm []float64, heightMm, limitMm, dipMm float64) float64 {
	n := len(thicknessMm) - 1
	up := heightMm
	for i, t := range thicknessMm {
		if t <= limitMm {
			continue
		}
		if i == 0 {
			return 0
		}
		was := thicknessMm[i-1]
		up = (float64(i-1) + (limitMm-was)/(t-was)) / float64(n) * heightMm
		break
	}
	if dipMm > 0 {
		up = math.Min(up, dipMm)
	}
	return up
}

// Grain that is owed a cycle: coarser than this number (judgement).
const fineNumber = 8

// grain follows the grain from the hottest heat of forging to the soak before the quench.
func (a *Advice) grain(c *Case) {
	um := BornUm
	add := func(what string, h Hold) {
		if h.TempC > a.CriticalLowC {
			if h.Fresh {
				um = BornUm
			}
			um = GrownUm(um, h.TempC, h.TimeS)
		}
		a.Grain = append(a.Grain, GrainStep{What: what, TempC: h.TempC, TimeS: h.TimeS, Um: um, Number: GrainNumber(um)})
	}
	if len(c.Forging) > 0 {
		hottest := Hold{Fresh: true}
		for _, h := range c.Forging {
			if um = GrownUm(um, h.TempC, h.TimeS); h.TempC >= hottest.TempC {
				hottest.TempC = h.TempC
			}
			hottest.TimeS += h.TimeS
		}
		a.Grain = append(a.Grain, GrainStep{What: "forging", TempC: hottest.TempC, TimeS: hottest.TimeS, Um: um, Number: GrainNumber(um)})
	}
	owed := 0
	if n := GrainNumber(um); len(c.Forging) > 0 && n < fineNumber {
		owed = 1 + int(math.Min(2, math.Floor((fineNumber-n)/2)))
	}
	cycles := 0
	air := c.airHardens()
	for _, h := range c.Cycles {
		if h.Fresh = true; h.TempC > a.CriticalLowC && (!air || h.Slow) {
			cycles++
		}
		add("cycle", h)
	}
	a.CyclesOwed = max(0, owed-cycles)
	a.airCycles = air && cycles < len(c.Cycles)
	if a.AustenitiseC > 0 {
		add("soak", Hold{TempC: a.AustenitiseC, TimeS: math.Max(60, a.SoakS), Fresh: true})
	}
}

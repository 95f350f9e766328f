package billet

import (
	"fmt"
	"math"
	"sort"
	"strconv"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
)

// Recipe is a billet from the stack to the bar that a blade is forged from: the steps, the pattern
// that is worked into it, and what it is evened out to.
type Recipe struct {
	Billet
	WeldC    float64 `json:"weldC" doc:"welding heat"`
	Flux     Flux    `json:"flux" enum:"borax,none,canister"`
	Pattern  Pattern `json:"pattern" enum:"straight,twist,ladder,pressed,dimple,endGrain,mosaic,cable,chain"`
	Turns    float64 `json:"turnsPer100Mm,omitempty"`
	Hand     Hand    `json:"hand,omitempty" enum:"right,left"`
	PitchMm  float64 `json:"pitchMm,omitempty"`
	DepthMm  float64 `json:"depthMm,omitempty"`
	HalfMm   float64 `json:"halfWidthMm,omitempty"`
	RadiusMm float64 `json:"radiusMm,omitempty"`
	SliceMm  float64 `json:"sliceMm,omitempty" doc:"of a bar cut across: how thick its slices are"`
	Fours    int     `json:"fours,omitempty" doc:"of a mosaic: so often four are laid to one"`
	OnCorner bool    `json:"onCorner,omitempty" doc:"it was turned on its corner first"`
	Fill     *Fill   `json:"fill,omitempty" doc:"cable or chain in place of layers"`
	// Beside is how many bars of it lie side by side across the blade, each of the pattern; every
	// second one twisted the other way where Alternate says so. Below them lies the edge bar.
	Beside      int     `json:"beside,omitempty"`
	Alternate   bool    `json:"alternate,omitempty"`
	EdgeSteelID string  `json:"edgeSteelId,omitempty"`
	EdgeMm      float64 `json:"edgeMm,omitempty" doc:"how much of the bar's width the edge bar is"`
	EdgeWay     EdgeWay `json:"edgeWay,omitempty" enum:"below,wrapped,cleft"`
	EdgeThickMm float64 `json:"edgeThickMm,omitempty" doc:"of a wrap, or of a bit in a cleft"`
	// The bar that it is evened out to.
	BarWidthMm     float64           `json:"barWidthMm"`
	BarThicknessMm float64           `json:"barThicknessMm"`
	By             forge.MachineKind `json:"by,omitempty" enum:"striker,powerHammer,press,rollingMill" doc:"what draws it; the hand if not said"`
	Made           bool              `json:"made,omitempty" doc:"it was welded; else it is a plan"`
	// WantLayers were asked for when it was laid out for a bar; 0: it was laid out by hand since.
	WantLayers int `json:"wantLayers,omitempty"`
}

// Flux is what keeps the faces clean at welding heat.
type Flux string

// The ways to keep them clean.
const (
	Borax    Flux = "borax"
	NoFlux   Flux = "none"     // a tight fire, rich
	Canister Flux = "canister" // closed in a can, powder and pieces too
)

// NewRecipe is a usual twisted billet of two steels.
func NewRecipe(plain, bright string) Recipe {
	return Recipe{
		Billet: Billet{
			Stack: []Layer{{plain, 4}, {bright, 1.6}}, Repeats: 6, Cap: []Layer{{plain, 4}}, WidthMm: 40, LengthMm: 120,
			Steps: []Step{{Kind: Clean, PerFaceMm: .15}, {Kind: Weld, Heats: 2}, {Kind: Draw, WidthMm: 18, ThicknessMm: 18}, {Kind: Crop, EndsMm: 16}},
		},
		WeldC: 1200, Flux: Borax, Pattern: Twist, Turns: 6, Hand: Right, BarWidthMm: 30, BarThicknessMm: 6,
	}
}

// Outcome is what a recipe comes to.
type Outcome struct {
	States   []State        `json:"states"`
	LengthMm float64        `json:"lengthMm" doc:"of the bar"`
	MassG    float64        `json:"massG"`
	LaidG    float64        `json:"laidG"`
	Layers   int            `json:"layers"`
	LayerMm  float64        `json:"layerMm" doc:"of a layer in the bar, on the mean"`
	Lost     []Lost         `json:"lost" doc:"what went where"`
	FireS    float64        `json:"fireS" doc:"of the welding heats"`
	FuelG    float64        `json:"fuelG"`
	TwistIn  int            `json:"twistHeats,omitempty" doc:"so many heats to twist it in"`
	Slices   int            `json:"slices,omitempty" doc:"of a bar cut across"`
	PouredMm float64        `json:"pouredMm,omitempty" doc:"of a can with powder: how high it is filled"`
	Shares   []Share        `json:"shares" doc:"of each steel, by volume"`
	Bar      *Bar           `json:"bar,omitempty"`
	Findings []fact.Warning `json:"findings"`
	JoinedG  float64        `json:"joinedG,omitempty" doc:"burnt off as bars and edge are welded to each other"`
	Labour   *Labour        `json:"labour,omitempty" doc:"in the shop, by its first smith"`
	Face     *Etched        `json:"face,omitempty" doc:"of the bar, a quarter of it ground off each face"`
	Join     Join           `json:"-"`
	// Laid are the layers of the bar from its underside, as shares of its thickness.
	Laid []Layer `json:"laid"`
}

// Lost is what one step took.
type Lost struct {
	Step string  `json:"step"`
	G    float64 `json:"massG"`
	BarM float64 `json:"barMm" doc:"of the bar to come"`
}

// Share is how much of the bar a steel is.
type Share struct {
	SteelID string  `json:"steelId"`
	Share   float64 `json:"share"`
	Tone    Tone    `json:"tone" enum:"bright,dark,grey"`
}

// Tone is how a steel comes out of the etch.
type Tone string

// The tones: nickel keeps bright, plain steel turns dark, iron grey.
const (
	Bright Tone = "bright"
	Dark   Tone = "dark"
	Grey   Tone = "grey"
)

// ToneOf is how a grade etches (judgement: one per cent of nickel, or five of chromium, keeps it
// bright; under a fifth of a per cent of carbon it greys).
func ToneOf(g steel.Grade) Tone {
	switch {
	case g.NickelPct >= 1 || g.ChromiumPct >= 5:
		return Bright
	case g.CarbonPct < .2:
		return Grey
	}
	return Dark
}

// Validate reports what of a recipe cannot be, at its field.
func (r *Recipe) Validate(c fact.Check) {
	if r == nil {
		return
	}
	c.Range("weldC", r.WeldC, 1000, 1350)
	fact.OneOf(c, "flux", r.Flux, Borax, NoFlux, Canister)
	fact.OneOf(c, "pattern", r.Pattern, Patterns()...)
	fact.OneOf(c, "hand", r.Hand, "", Right, Left)
	fact.OneOf(c, "by", r.By, append([]forge.MachineKind{""}, forge.MachineKinds()...)...)
	c.Range("barWidthMm", r.BarWidthMm, 3, 200)
	c.Range("barThicknessMm", r.BarThicknessMm, .8, 80)
	c.Range("turnsPer100Mm", r.Turns, 0, 60)
	for name, v := range map[string]float64{"pitchMm": r.PitchMm, "depthMm": r.DepthMm, "halfWidthMm": r.HalfMm, "radiusMm": r.RadiusMm} {
		c.Range(name, v, 0, 200)
	}
	c.Range("widthMm", r.WidthMm, 3, mostMm)
	c.Range("lengthMm", r.LengthMm, 10, mostMm)
	c.Range("repeats", float64(r.Repeats), 0, MostLayers)
	c.Range("wantLayers", float64(r.WantLayers), 0, MostLayers)
	for name, list := range map[string][]Layer{"stack": r.Stack, "cap": r.Cap} {
		for i, l := range list {
			at := c.Within(name).Within(strconv.Itoa(i))
			at.Range("thicknessMm", l.ThicknessMm, .01, 200)
			if _, err := steel.Find(l.SteelID); err != nil {
				at.Fail("steel", "field.steel", nil)
			}
		}
	}
	c.Range("beside", float64(r.Beside), 0, mostBeside)
	c.Range("fours", float64(r.Fours), 0, mostFours)
	least := 0.0
	if r.Pattern.Ends() {
		least = leastSlice
	}
	c.Range("sliceMm", r.SliceMm, least, 200)
	r.Fill.validate(c, r.Pattern)
	r.validateEdge(c)
	if _, err := steel.Find(r.EdgeSteelID); err != nil && r.EdgeMm > 0 {
		c.Fail("edgeSteelId", "field.steel", nil)
	}
	for i := range r.Steps {
		r.Steps[i].validate(c.Within("steps").Within(strconv.Itoa(i)))
	}
	if c.Err() != nil {
		return
	}
	err := r.wholeSteps()
	if err == nil {
		_, err = r.costed(nil).Run()
	}
	if err != nil {
		failAt(c, err)
	}
}

// validate reports every figure of a step that no billet could have.
func (s *Step) validate(c fact.Check) {
	fact.OneOf(c, "kind", s.Kind, Kinds()...)
	for name, x := range map[string]struct{ v, most float64 }{
		"perFaceMm": {s.PerFaceMm, 50}, "lossFraction": {s.LossFraction, .6}, "heats": {float64(s.Heats), 20}, "widthMm": {s.WidthMm, mostMm}, "thicknessMm": {s.ThicknessMm, mostMm},
		"endsMm": {s.EndsMm, mostMm}, "perSideMm": {s.PerSideMm, 100}, "pieces": {float64(s.Pieces), 60}, "kerfMm": {s.KerfMm, 50},
	} {
		c.Range(name, x.v, 0, x.most)
	}
}

func failAt(c fact.Check, err error) {
	e, ok := err.(*Error) //nolint:errorlint // as Run returns it
	if !ok {
		c.Fail("stack", "field.choice", nil)
		return
	}
	field := e.Field
	if e.Step >= 0 {
		field = fmt.Sprintf("steps.%d.%s", e.Step, e.Field)
	}
	c.Fail(field, e.Code, fact.Figures{"limit": e.Limit, "limitMm": e.Limit, "step": float64(e.Step + 1)})
}

// weldings are what the welding heats of each step burn off and take.
type weldings struct {
	loss        map[int]float64
	fireS, fuel float64
}

// costed is the billet with the losses of its welding heats filled in.
func (r *Recipe) costed(w *weldings) *Billet {
	b := r.Billet
	b.Steps = append([]Step{}, r.Steps...)
	r.filled(&b)
	for i := range b.Steps {
		if s := &b.Steps[i]; s.Kind == Weld && s.Heats > 0 {
			s.LossFraction = 0
			if w != nil {
				s.LossFraction = w.loss[i]
			}
		}
	}
	return &b
}

// weld takes the welding heats of the recipe in a fire: the core's own heating and scale, a piece of
// one section, whole.
func (r *Recipe) weld(fire forge.Fire) weldings {
	w := weldings{loss: map[int]float64{}}
	states, err := r.costed(nil).Run()
	if err != nil {
		return w
	}
	g, err := steel.Find(r.Stack[0].SteelID)
	if err != nil {
		return w
	}
	for i := range r.Steps {
		s := &r.Steps[i]
		if s.Kind != Weld || s.Heats <= 0 || i+1 >= len(states) {
			continue
		}
		at := states[i] // before it
		w.loss[i] = r.burn(fire, g, s.Heats, at.VolumeMm3, at.WidthMm, at.ThicknessMm, &w)
	}
	return w
}

// burn is the share of a piece of one section that so many welding heats burn off, whole; what they
// take is added up.
func (r *Recipe) burn(fire forge.Fire, g steel.Grade, heats int, mm3, widthMm, thicknessMm float64, w *weldings) float64 {
	fire = fire.AtLeast(r.WeldC + overWeldC)
	run, err := forge.NewRun(forge.Setup{Smith: forge.NewSmith(forge.Steady), Fire: fire, Steel: g}, forge.Bar{Cells: []forge.Cell{{Zone: "blade", VolumeMm3: mm3, WidthMm: widthMm, ThicknessMm: thicknessMm, EdgeMm: thicknessMm, SpineMm: thicknessMm, TempC: 20}}})
	if err != nil {
		return 0
	}
	lost := 0.0
	for k := range heats {
		if run.Cycle(fmt.Sprintf("weld%d", k), r.WeldC, weldHoldS) != nil {
			break
		}
	}
	for _, h := range run.Heats {
		lost += h.ScaleMm3
		w.fireS += h.FireS
		w.fuel += fire.FuelG(h.FireS)
	}
	if r.Flux == Canister {
		lost = 0 // nothing burns in the can but the can
	}
	return math.Min(.5, lost/mm3)
}

// A weld is held so long at heat once it is there, in a fire so much hotter (judgement).
const (
	weldHoldS = 30
	overWeldC = 60
)

// Out is what a recipe comes to in a fire. Errors are *Error.
func (r *Recipe) Out(fire forge.Fire) (Outcome, error) {
	w := r.weld(fire)
	b := r.costed(&w)
	if err := r.wholeSteps(); err != nil {
		return Outcome{}, err
	}
	states, err := b.Run()
	out := Outcome{States: states, Lost: []Lost{}, Shares: []Share{}, Findings: []fact.Warning{}, Laid: []Layer{}}
	if err != nil {
		return out, err
	}
	last := states[len(states)-1]
	made := last // as the pattern is worked
	out.ends(r, fire, &last, &w)
	out.joined(r, fire, &last, &w)
	out.FireS, out.FuelG, out.Layers = w.fireS, w.fuel, last.Layers
	out.LayerMm = r.BarThicknessMm / float64(max(1, last.Layers))
	for _, s := range states[1:] {
		if s.LostMm3 > 1e-9 {
			out.Lost = append(out.Lost, Lost{s.Step, grams(s.LostMm3), s.LostMm3 / r.patterned()})
		}
	}
	if out.JoinedG > 0 {
		out.Lost = append(out.Lost, Lost{"join", out.JoinedG, out.JoinedG / grams(r.BarWidthMm*r.BarThicknessMm)})
	}
	total := last.ThicknessMm
	sum := map[string]float64{}
	for _, l := range last.Laid {
		out.Laid = append(out.Laid, Layer{l.SteelID, l.ThicknessMm / total})
		id := l.SteelID
		if id == Rim { // the skin of a wire is of its steel
			id = last.Laid[0].SteelID
		}
		sum[id] += l.ThicknessMm / total
	}
	edge := r.edgeMm2() / (r.BarWidthMm * r.BarThicknessMm)
	for id := range sum {
		sum[id] *= 1 - edge
	}
	if edge > 0 {
		sum[r.EdgeSteelID] += edge
	}
	for id, share := range sum {
		g, _ := steel.Find(id)
		out.Shares = append(out.Shares, Share{id, share, ToneOf(g)})
	}
	sort.Slice(out.Shares, func(i, j int) bool { return out.Shares[i].Share > out.Shares[j].Share })
	bar := r.bar(&made)
	bar.LaidWidthMm, bar.LaidThicknessMm = states[0].WidthMm, states[0].ThicknessMm
	out.Bar = &bar
	if bar.Validate() != nil {
		out.Bar = nil
	}
	out.TwistIn = bar.ShearHeats(made.LengthMm) * max(1, r.Beside)
	out.Join = Join{max(1, r.Beside), r.Alternate, r.EdgeSteelID, r.EdgeMm, r.EdgeWay, r.EdgeThickMm}
	out.PouredMm = r.PouredMm()
	out.judge(r, &made)
	out.judgeWish(r)
	return out, nil
}

// bar is the section at which the pattern is worked, and what it is evened out to.
func (r *Recipe) bar(last *State) Bar {
	return Bar{
		Pattern: r.Pattern, WidthMm: last.WidthMm, ThicknessMm: last.ThicknessMm, Layers: 1, TurnsPer100Mm: r.Turns, Hand: r.Hand, PitchMm: r.PitchMm,
		DepthMm: r.DepthMm, HalfWidthMm: r.HalfMm, RadiusMm: r.RadiusMm, SliceMm: r.SliceMm, Fours: r.Fours, OnCorner: r.OnCorner, Fill: r.Fill, FirstShare: last.Laid[0].ThicknessMm / last.ThicknessMm,
		ForgedWidthMm: (r.BarWidthMm - r.belowMm()) / float64(max(1, r.Beside)), ForgedThicknessMm: r.BarThicknessMm,
	}
}

func grams(mm3 float64) float64 { return mm3 * steel.DensityGPerCm3 / 1000 }

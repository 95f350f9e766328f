package finish

import (
	"strconv"

	"coldember/core/blade"
	"coldember/core/fact"
)

// Hold is how a blade is held to the grinder.
type Hold string

// The ways to hold it.
const (
	FreeHand Hold = "free"
	Guided   Hold = "jig"
	Magnet   Hold = "magnet"
)

// Fit is how a hidden tang sits in its handle.
type Fit string

// The fits.
const (
	Burnt Fit = "burnt" // bored, and burnt in with the hot tang
	Filed Fit = "filed" // bored, and opened with rasps
	Core  Fit = "core"  // slotted into two halves of a core, glued into a bored block
)

// Cover is what carries the knife.
type Cover string

// The sheaths.
const (
	NoCover Cover = "none"
	Leather Cover = "leather"
	Thermo  Cover = "thermo" // pressed thermoplastic
)

// Block is a piece of handle material.
type Block struct {
	LengthMm float64 `json:"lengthMm"`
	HeightMm float64 `json:"heightMm"`
	WidthMm  float64 `json:"widthMm"`
}

// UsualBlocks are handle materials that shops begin with, by an id: pairs of scales count once.
func UsualBlocks() map[string]Kept {
	return map[string]Kept{
		"block":  {Material: "hardwood", Count: 1, Block: Block{130, 40, 28}},
		"scales": {Material: "denseWood", Count: 1, Block: Block{130, 40, 9}},
		"long":   {Material: "stabilisedWood", Count: 1, Block: Block{150, 42, 32}},
	}
}

// Kept is handle material on the shelf: so many blocks, or pairs of scales, of one size.
type Kept struct {
	Material blade.Material `json:"material" enum:"hardwood,denseWood,stabilisedWood,barkOrCork,leather,cord,horn,boneOrAntler,laminate,glassLaminate"`
	Count    int            `json:"count"`
	Block
}

// Validate reports every figure that cannot be.
func (k *Kept) Validate(c fact.Check) {
	fact.OneOf(c, "material", k.Material, blade.GripMaterials()...)
	c.Range("count", float64(k.Count), 0, 10000)
	for name, v := range map[string]float64{"lengthMm": k.LengthMm, "heightMm": k.HeightMm, "widthMm": k.WidthMm} {
		c.Range(name, v, 5, 1000)
	}
}

// Prices of what is used up in finishing, in the shop's money; 0 is not counted.
type Prices struct {
	BeltPrice   float64 `json:"beltPrice,omitempty" doc:"of a belt, on the mean"`
	BlockPrice  float64 `json:"blockPrice,omitempty" doc:"of the handle's block or pair of scales, and its fittings"`
	SheathPrice float64 `json:"sheathPrice,omitempty" doc:"of what the sheath takes"`
	MarginShare float64 `json:"marginShare,omitempty" doc:"of the cost, on top of it"`
}

// Choices are how a knife is finished; the zero of any is as usual.
type Choices struct {
	Hold     Hold    `json:"hold,omitempty" enum:"free,jig,magnet"`
	FromGrit int     `json:"fromGrit,omitempty" enum:"36,60,80" doc:"of the first belt; 60 if not said"`
	Worn     bool    `json:"worn,omitempty" doc:"belts are used up: a worn grain scratches a third as deep, and cuts as much slower"`
	Surface  Surface `json:"surface,omitempty" enum:"forged,belt,satin400,etched,satin800,mirror" doc:"belt if not said; etched where there is a pattern"`
	EdgeDeg  float64 `json:"edgeDeg,omitempty" doc:"of the sharpened edge, a side; 0: usual for its use"`
	Fit      Fit     `json:"fit,omitempty" enum:"burnt,filed,core"`
	Block    Block   `json:"block"`
	Cover    Cover   `json:"cover,omitempty" enum:"none,leather,thermo"`
	CoverMm  float64 `json:"coverMm,omitempty" doc:"thickness of leather or sheet; 0: usual"`
	Spacers  int     `json:"spacers,omitempty" doc:"between guard or bolster and the grip"`
	SpacerMm float64 `json:"spacerMm,omitempty" doc:"thickness of each; 0: usual"`
	GlueMin  float64 `json:"glueMin,omitempty" doc:"until the glue cannot be undone; 0: an hour"`
	Prices   Prices  `json:"prices"`

	// What the cold blade was found to be at the grinder.
	Readings []Reading `json:"readings,omitempty"`
	Pits     []Pit     `json:"pits,omitempty"`
	// Was is what it was forged as, where it has become another knife since.
	Was      *Was `json:"was,omitempty"`
	Hardened bool `json:"hardened,omitempty" doc:"it was measured after the quench: what needs heat needs it again"`
	// Ricasso where the guard seats, if it is not even: spine's side and edge's.
	SeatSpineMm float64 `json:"seatSpineMm,omitempty"`
	SeatEdgeMm  float64 `json:"seatEdgeMm,omitempty"`
}

// Was is what a blade was forged as, and where the present one lies in that steel: moved toward
// the point, and up.
type Was struct {
	Design  blade.Design `json:"design"`
	MovedMm float64      `json:"movedMm,omitempty"`
	UpMm    float64      `json:"upMm,omitempty"`
}

// Bounds of lists.
const (
	MostReadings = 60
	MostPits     = 40
)

// Validate reports every figure that cannot be.
func (f *Choices) Validate(c fact.Check) {
	if f == nil {
		return
	}
	fact.OneOf(c, "hold", f.Hold, "", FreeHand, Guided, Magnet)
	if _, ok := beltOf[f.FromGrit]; f.FromGrit != 0 && (!ok || f.FromGrit > 80) {
		c.Fail("fromGrit", "field.choice", nil)
	}
	fact.OneOf(c, "surface", f.Surface, append(Surfaces(), "")...)
	fact.OneOf(c, "fit", f.Fit, "", Burnt, Filed, Core)
	fact.OneOf(c, "cover", f.Cover, "", NoCover, Leather, Thermo)
	optional := func(name string, v, lowest, highest float64) {
		if v != 0 {
			c.Range(name, v, lowest, highest)
		}
	}
	optional("edgeDeg", f.EdgeDeg, 5, 45)
	optional("coverMm", f.CoverMm, 1, 8)
	c.Range("spacers", float64(f.Spacers), 0, 20)
	optional("spacerMm", f.SpacerMm, .2, 20)
	optional("glueMin", f.GlueMin, 1, 2880)
	optional("seatSpineMm", f.SeatSpineMm, .5, 40)
	optional("seatEdgeMm", f.SeatEdgeMm, .5, 40)
	b := c.Within("block")
	for name, v := range map[string]float64{"lengthMm": f.Block.LengthMm, "heightMm": f.Block.HeightMm, "widthMm": f.Block.WidthMm} {
		if v != 0 {
			b.Range(name, v, 5, 1000)
		}
	}
	p := c.Within("prices")
	for name, v := range map[string]float64{"beltPrice": f.Prices.BeltPrice, "blockPrice": f.Prices.BlockPrice, "sheathPrice": f.Prices.SheathPrice} {
		p.Range(name, v, 0, 1e6)
	}
	p.Range("marginShare", f.Prices.MarginShare, 0, 10)
	f.validateFound(c)
}

func (f *Choices) validateFound(c fact.Check) {
	if f.Was != nil {
		at := c.Within("was")
		f.Was.Design.Validate(at.Within("design"))
		at.Range("movedMm", f.Was.MovedMm, -1200, 1200)
		at.Range("upMm", f.Was.UpMm, -200, 200)
	}
	c.Range("readings", float64(len(f.Readings)), 0, MostReadings)
	c.Range("pits", float64(len(f.Pits)), 0, MostPits)
	for i, r := range f.Readings {
		at := c.Within("readings").Within(strconv.Itoa(i))
		// one that was taken off a blade that has become another may lie beyond it
		at.Range("xMm", r.XMm, -1300, 1300)
		at.Range("yMm", r.YMm, -300, 300)
		at.Range("thicknessMm", r.ThicknessMm, .1, 60)
		at.Range("offMm", r.OffMm, -20, 20)
	}
	for i, p := range f.Pits {
		at := c.Within("pits").Within(strconv.Itoa(i))
		at.Range("xMm", p.XMm, -1300, 1300)
		at.Range("yMm", p.YMm, -300, 300)
		at.Range("depthMm", p.DepthMm, .01, 20)
		fact.OneOf(at, "face", p.Face, Front, Back)
	}
}

// Usual values, where nothing is chosen (judgement).
const (
	usualGrit    = 60
	usualGlueMin = 60
	leatherMm    = 3.0
	thermoMm     = 2.0
	spacerMm     = 1.5
)

func (f *Choices) grit() int {
	if f.FromGrit == 0 {
		return usualGrit
	}
	return f.FromGrit
}

func (f *Choices) spacersMm() float64 {
	if f.SpacerMm > 0 {
		return float64(f.Spacers) * f.SpacerMm
	}
	return float64(f.Spacers) * spacerMm
}

func (f *Choices) coverMm() float64 {
	switch {
	case f.CoverMm > 0:
		return f.CoverMm
	case f.Cover == Thermo:
		return thermoMm
	}
	return leatherMm
}

// usualEdgeDeg is the sharpened edge of a use, a side (judgement from common practice).
var usualEdgeDeg = map[blade.Use]float64{
	blade.UseDeep: 15, blade.UseSlicer: 15, blade.UseFillet: 17, blade.UseUtility: 18, blade.UseHook: 18, blade.UseSpoon: 18, blade.UseScribe: 20, blade.UseChisel: 25,
	blade.UseFighter: 20, blade.UseCamp: 22, blade.UseCleaver: 22, blade.UseChopper: 25, blade.UseSickle: 20, blade.UseSword: 22,
}

const otherEdgeDeg = 18

func (f *Choices) edgeDeg(u blade.Use) float64 {
	switch d, ok := usualEdgeDeg[u]; {
	case f.EdgeDeg > 0:
		return f.EdgeDeg
	case ok:
		return d
	}
	return otherEdgeDeg
}

package stock

import (
	"fmt"
	"math"

	"coldember/core/steel"
)

// Form names the shape of a piece of stock.
type Form string

// The forms.
const (
	Flat         Form = "flat"
	Square       Form = "square"
	Round        Form = "round"
	Hex          Form = "hex"
	Octagon      Form = "octagon"
	Ball         Form = "ball"
	Roller       Form = "roller"
	TaperedRound Form = "taperedRound"
	TaperedFlat  Form = "taperedFlat"
	Coil         Form = "coil"
	Leaf         Form = "leaf"
	Cable        Form = "cable"
	Layers       Form = "layers"
	Race         Form = "race"  // a bearing's ring
	Disc         Form = "disc"  // a disc or a share of one
	Chain        Form = "chain" // of round wire
	Tube         Form = "tube"
)

// Bars are the forms that have one section along their length.
func Bars() []Form { return []Form{Flat, Square, Round, Hex, Octagon} }

// Forms lists them all, bars first.
func Forms() []Form {
	return append(Bars(), Ball, Roller, TaperedRound, TaperedFlat, Coil, Leaf, Race, Disc, Cable, Chain, Layers, Tube)
}

// Hole is a round hole through a piece.
type Hole struct {
	DiameterMm float64 `json:"diameterMm"`
	ThroughMm  float64 `json:"throughMm"`
}

// Layer is a run of equal layers in a stack.
type Layer struct {
	Count       int     `json:"count"`
	ThicknessMm float64 `json:"thicknessMm"`
}

// Item is a piece of stock; which dimensions count depends on Form.
type Item struct {
	Form             Form    `json:"form" enum:"flat,square,round,hex,octagon,ball,roller,taperedRound,taperedFlat,coil,leaf,cable,layers,race,disc,chain,tube"`
	WidthMm          float64 `json:"widthMm,omitempty"`
	ThicknessMm      float64 `json:"thicknessMm,omitempty"`
	SideMm           float64 `json:"sideMm,omitempty"`
	DiameterMm       float64 `json:"diameterMm,omitempty"`
	AcrossFlatsMm    float64 `json:"acrossFlatsMm,omitempty"`
	LengthMm         float64 `json:"lengthMm,omitempty"`
	StartDiameterMm  float64 `json:"startDiameterMm,omitempty"`
	EndDiameterMm    float64 `json:"endDiameterMm,omitempty"`
	StartWidthMm     float64 `json:"startWidthMm,omitempty"`
	EndWidthMm       float64 `json:"endWidthMm,omitempty"`
	StartThicknessMm float64 `json:"startThicknessMm,omitempty"`
	EndThicknessMm   float64 `json:"endThicknessMm,omitempty"`
	WireDiameterMm   float64 `json:"wireDiameterMm,omitempty"`
	MeanDiameterMm   float64 `json:"meanDiameterMm,omitempty"`
	PitchMm          float64 `json:"pitchMm,omitempty"`
	Turns            float64 `json:"turns,omitempty"`
	ChordMm          float64 `json:"chordMm,omitempty"`
	RiseMm           float64 `json:"riseMm,omitempty"`
	SolidFraction    float64 `json:"solidFraction,omitempty"`
	OuterDiameterMm  float64 `json:"outerDiameterMm,omitempty"`
	InnerDiameterMm  float64 `json:"innerDiameterMm,omitempty" doc:"of a race; of the hole in a disc"`
	ShareFraction    float64 `json:"shareFraction,omitempty" doc:"of a whole disc"`
	StripWidthMm     float64 `json:"stripWidthMm,omitempty" doc:"of the strip cut from a disc"`
	LinkLengthMm     float64 `json:"linkLengthMm,omitempty" doc:"over all"`
	LinkWidthMm      float64 `json:"linkWidthMm,omitempty" doc:"over all"`
	Links            float64 `json:"links,omitempty"`
	WallMm           float64 `json:"wallMm,omitempty"`
	TeethMm          float64 `json:"teethMm,omitempty" doc:"ground off each face before the fire"`
	BendRadiusMm     float64 `json:"bendRadiusMm,omitempty" doc:"of a curved piece that is otherwise a tapered flat"`
	Layers           []Layer `json:"layers,omitempty"`
	Holes            []Hole  `json:"holes,omitempty"`
	Dead             []Dead  `json:"dead,omitempty"`
}

// Solid is what a piece amounts to. StraightenedLengthMm is zero for forms
// that are straight already or have no length.
type Solid struct {
	VolumeMm3            float64 `json:"volumeMm3"`
	MassG                float64 `json:"massG"`
	StraightenedLengthMm float64 `json:"straightenedLengthMm,omitempty"`
}

// Error names the dimension that is missing or impossible.
type Error struct {
	Code  string
	Field string
}

func (e *Error) Error() string { return fmt.Sprintf("stock: %s (%s)", e.Code, e.Field) }

func need(pairs ...any) error {
	for i := 0; i < len(pairs); i += 2 {
		if v := pairs[i+1].(float64); !(v > 0) || math.IsNaN(v) || math.IsInf(v, 0) {
			return &Error{Code: "stock.dimension", Field: pairs[i].(string)}
		}
	}
	return nil
}

// Solid computes the volume of the piece. It returns an *Error for a missing
// or impossible dimension.
func (p Item) Solid() (Solid, error) {
	v, straight, err := p.volume()
	if err != nil {
		return Solid{}, err
	}
	for i, d := range p.Dead {
		if !(d.FromMm >= 0 && d.ToMm > d.FromMm) {
			return Solid{}, &Error{Code: "stock.dead", Field: "dead." + itoa(i)}
		}
	}
	for _, h := range p.Holes {
		v -= math.Pi / 4 * h.DiameterMm * h.DiameterMm * h.ThroughMm
	}
	if v <= 0 {
		return Solid{}, &Error{Code: "stock.holesExceed", Field: "holes"}
	}
	return Solid{VolumeMm3: v, MassG: v * steel.DensityGPerCm3 / 1000, StraightenedLengthMm: straight}, nil
}

func (p Item) volume() (v, straight float64, err error) {
	switch p.Form {
	case Flat, Square, Round, Hex, Octagon:
		bar, err := p.Bar()
		if err != nil {
			return 0, 0, err
		}
		return bar.AreaMm2 * p.LengthMm, 0, need("lengthMm", p.LengthMm)
	case Ball:
		d := p.DiameterMm
		return math.Pi / 6 * d * d * d, 0, need("diameterMm", d)
	case Roller:
		return circle(p.DiameterMm) * p.LengthMm, 0, need("diameterMm", p.DiameterMm, "lengthMm", p.LengthMm)
	case TaperedRound:
		a, b := p.StartDiameterMm, p.EndDiameterMm
		return math.Pi / 12 * p.LengthMm * (a*a + a*b + b*b), 0, need("startDiameterMm", a, "endDiameterMm", b, "lengthMm", p.LengthMm)
	case TaperedFlat:
		return p.taperedFlat()
	case Coil:
		l := p.Turns * math.Hypot(math.Pi*p.MeanDiameterMm, p.PitchMm)
		return circle(p.WireDiameterMm) * l, l, need("wireDiameterMm", p.WireDiameterMm, "meanDiameterMm", p.MeanDiameterMm, "turns", p.Turns)
	case Leaf:
		return p.leaf()
	case Cable:
		return circle(p.DiameterMm) * p.LengthMm * p.SolidFraction, 0,
			need("diameterMm", p.DiameterMm, "lengthMm", p.LengthMm, "solidFraction", p.SolidFraction)
	case Race:
		return p.race()
	case Disc:
		return p.disc()
	case Chain:
		return p.chain()
	case Tube:
		return p.tube()
	case Layers:
		t := 0.0
		for _, l := range p.Layers {
			t += float64(l.Count) * l.ThicknessMm
		}
		return p.WidthMm * p.LengthMm * t, 0, need("widthMm", p.WidthMm, "lengthMm", p.LengthMm, "layers", t)
	}
	return 0, 0, &Error{Code: "stock.form", Field: "form"}
}

func (p Item) taperedFlat() (v, straight float64, err error) {
	if err := need("startWidthMm", p.StartWidthMm, "endWidthMm", p.EndWidthMm, "startThicknessMm", p.StartThicknessMm, "endThicknessMm", p.EndThicknessMm, "lengthMm", p.LengthMm); err != nil {
		return 0, 0, err
	}
	if 2*p.TeethMm >= math.Min(p.StartThicknessMm, p.EndThicknessMm) {
		return 0, 0, &Error{Code: "stock.teeth", Field: "teethMm"}
	}
	return p.taperedMm3(0), 0, nil
}

func (p Item) race() (v, straight float64, err error) {
	if err := need("outerDiameterMm", p.OuterDiameterMm, "innerDiameterMm", p.InnerDiameterMm, "widthMm", p.WidthMm); err != nil {
		return 0, 0, err
	}
	if p.InnerDiameterMm >= p.OuterDiameterMm {
		return 0, 0, &Error{Code: "stock.innerTooLarge", Field: "innerDiameterMm"}
	}
	return (circle(p.OuterDiameterMm) - circle(p.InnerDiameterMm)) * p.WidthMm, 0, nil
}

func (p Item) tube() (v, straight float64, err error) {
	if err := need("diameterMm", p.DiameterMm, "wallMm", p.WallMm, "lengthMm", p.LengthMm); err != nil {
		return 0, 0, err
	}
	if p.WallMm*2 >= p.DiameterMm {
		return 0, 0, &Error{Code: "stock.wall", Field: "wallMm"}
	}
	return (circle(p.DiameterMm) - circle(p.DiameterMm-2*p.WallMm)) * p.LengthMm, 0, nil
}

func (p Item) disc() (v, straight float64, err error) {
	if err := need("diameterMm", p.DiameterMm, "thicknessMm", p.ThicknessMm, "shareFraction", p.ShareFraction, "stripWidthMm", p.StripWidthMm); err != nil {
		return 0, 0, err
	}
	switch {
	case p.ShareFraction > 1:
		return 0, 0, &Error{Code: "stock.share", Field: "shareFraction"}
	case p.InnerDiameterMm < 0 || p.InnerDiameterMm >= p.DiameterMm:
		return 0, 0, &Error{Code: "stock.innerTooLarge", Field: "innerDiameterMm"}
	case p.StripWidthMm+p.InnerDiameterMm/2 >= p.DiameterMm/2 && (p.InnerDiameterMm > 0 || p.ShareFraction < 1) || p.StripWidthMm >= p.DiameterMm:
		return 0, 0, &Error{Code: "stock.strip", Field: "stripWidthMm"}
	}
	return (circle(p.DiameterMm) - circle(p.InnerDiameterMm)) * p.ThicknessMm * p.ShareFraction, 0, nil
}

func (p Item) chain() (v, straight float64, err error) {
	if err := need("wireDiameterMm", p.WireDiameterMm, "linkLengthMm", p.LinkLengthMm, "linkWidthMm", p.LinkWidthMm, "links", p.Links); err != nil {
		return 0, 0, err
	}
	if p.LinkWidthMm <= 2*p.WireDiameterMm || p.LinkLengthMm < p.LinkWidthMm {
		return 0, 0, &Error{Code: "stock.link", Field: "linkWidthMm"}
	}
	l := p.linkMm()
	return circle(p.WireDiameterMm) * l * p.Links, l * p.Links, nil
}

// leaf is a circular arc measured by its chord and rise at mid-thickness.
func (p Item) leaf() (v, straight float64, err error) {
	if err := need("widthMm", p.WidthMm, "thicknessMm", p.ThicknessMm, "chordMm", p.ChordMm); err != nil {
		return 0, 0, err
	}
	l := p.ChordMm
	if p.RiseMm != 0 {
		if p.RiseMm < 0 || p.RiseMm > p.ChordMm/2 {
			return 0, 0, &Error{Code: "stock.rise", Field: "riseMm"}
		}
		r := (p.ChordMm*p.ChordMm/4 + p.RiseMm*p.RiseMm) / (2 * p.RiseMm)
		l = 2 * r * math.Asin(p.ChordMm/2/r)
	}
	return p.WidthMm * p.ThicknessMm * l, l, nil
}

func circle(d float64) float64 { return math.Pi / 4 * d * d }

// BarSection is the section of a bar and the rectangle it is planned with: the
// flat itself, or for other bars the square of the same area (the faces are
// squared up before anything else).
type BarSection struct {
	AreaMm2     float64
	WidthMm     float64
	ThicknessMm float64
}

// Bar returns the section of a bar form, or an *Error.
func (p Item) Bar() (BarSection, error) {
	square := func(a float64) BarSection {
		return BarSection{AreaMm2: a, WidthMm: math.Sqrt(a), ThicknessMm: math.Sqrt(a)}
	}
	switch p.Form {
	case Flat:
		if err := need("widthMm", p.WidthMm, "thicknessMm", p.ThicknessMm); err != nil {
			return BarSection{}, err
		}
		w, t := math.Max(p.WidthMm, p.ThicknessMm), math.Min(p.WidthMm, p.ThicknessMm)
		return BarSection{AreaMm2: w * t, WidthMm: w, ThicknessMm: t}, nil
	case Square:
		return square(p.SideMm * p.SideMm), need("sideMm", p.SideMm)
	case Round:
		return square(circle(p.DiameterMm)), need("diameterMm", p.DiameterMm)
	case Hex:
		return square(math.Sqrt(3) / 2 * p.AcrossFlatsMm * p.AcrossFlatsMm), need("acrossFlatsMm", p.AcrossFlatsMm)
	case Octagon:
		return square(2 * (math.Sqrt2 - 1) * p.AcrossFlatsMm * p.AcrossFlatsMm), need("acrossFlatsMm", p.AcrossFlatsMm)
	}
	return BarSection{}, &Error{Code: "stock.notABar", Field: "form"}
}

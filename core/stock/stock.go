// Package stock computes the solid volume, mass and straightened length of
// the pieces a blade starts from.
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
)

// Bars are the forms that have one section along their length.
func Bars() []Form { return []Form{Flat, Square, Round, Hex, Octagon} }

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

// Piece is a piece of stock; which dimensions count depends on Form.
type Piece struct {
	Form             Form    `json:"form" enum:"flat,square,round,hex,octagon,ball,roller,taperedRound,taperedFlat,coil,leaf,cable,layers"`
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
	Layers           []Layer `json:"layers,omitempty"`
	Holes            []Hole  `json:"holes,omitempty"`
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
		if v := pairs[i+1].(float64); v <= 0 || math.IsNaN(v) || math.IsInf(v, 0) {
			return &Error{Code: "stock.dimension", Field: pairs[i].(string)}
		}
	}
	return nil
}

// Solid computes the volume of the piece. It returns an *Error for a missing
// or impossible dimension.
func (p Piece) Solid() (Solid, error) {
	v, straight, err := p.volume()
	if err != nil {
		return Solid{}, err
	}
	for _, h := range p.Holes {
		v -= math.Pi / 4 * h.DiameterMm * h.DiameterMm * h.ThroughMm
	}
	if v <= 0 {
		return Solid{}, &Error{Code: "stock.holesExceed", Field: "holes"}
	}
	return Solid{VolumeMm3: v, MassG: v * steel.DensityGPerCm3 / 1000, StraightenedLengthMm: straight}, nil
}

func (p Piece) volume() (v, straight float64, err error) {
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
		w0, w1, t0, t1 := p.StartWidthMm, p.EndWidthMm, p.StartThicknessMm, p.EndThicknessMm
		return p.LengthMm / 6 * (2*w0*t0 + w0*t1 + w1*t0 + 2*w1*t1), 0, need(
			"startWidthMm", w0, "endWidthMm", w1, "startThicknessMm", t0, "endThicknessMm", t1, "lengthMm", p.LengthMm)
	case Coil:
		l := p.Turns * math.Hypot(math.Pi*p.MeanDiameterMm, p.PitchMm)
		return circle(p.WireDiameterMm) * l, l, need("wireDiameterMm", p.WireDiameterMm, "meanDiameterMm", p.MeanDiameterMm, "turns", p.Turns)
	case Leaf:
		return p.leaf()
	case Cable:
		return circle(p.DiameterMm) * p.LengthMm * p.SolidFraction, 0,
			need("diameterMm", p.DiameterMm, "lengthMm", p.LengthMm, "solidFraction", p.SolidFraction)
	case Layers:
		t := 0.0
		for _, l := range p.Layers {
			t += float64(l.Count) * l.ThicknessMm
		}
		return p.WidthMm * p.LengthMm * t, 0, need("widthMm", p.WidthMm, "lengthMm", p.LengthMm, "layers", t)
	}
	return 0, 0, &Error{Code: "stock.form", Field: "form"}
}

// leaf is a circular arc measured by its chord and rise at mid-thickness.
func (p Piece) leaf() (v, straight float64, err error) {
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
func (p Piece) Bar() (BarSection, error) {
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

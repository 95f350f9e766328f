package stock

import (
	"math"
	"sort"
	"strconv"
)

// Dead is a stretch that does not go into a blade, along the straightened piece
// from its start: a hole, a weld, a worn end, a crack, a formed edge, a head, a rib, a thin spot, what was sawn out of it.
type Dead struct {
	FromMm float64 `json:"fromMm"`
	ToMm   float64 `json:"toMm"`
	Why    string  `json:"why" enum:"hole,weld,wear,crack,formedEdge,head,rib,thin,sawn,other"`

	// Across are from one side of a wide piece; a sheet loses only that much of its width.
	FromAcrossMm float64 `json:"fromAcrossMm,omitempty" doc:"from one side of a wide piece"`
	ToAcrossMm   float64 `json:"toAcrossMm,omitempty" doc:"0: the whole width"`
}

// DeadBehind are the dead stretches that are left once so much is off the start of a piece,
// counted from its new start.
func DeadBehind(dead []Dead, offMm float64) (out []Dead) {
	for _, d := range dead {
		if d.ToMm > offMm {
			d.FromMm, d.ToMm = math.Max(0, d.FromMm-offMm), d.ToMm-offMm
			out = append(out, d)
		}
	}
	return out
}

// Whys lists why a stretch may be dead.
func Whys() []string {
	return []string{"hole", "weld", "wear", "crack", "formedEdge", "head", "rib", "thin", "sawn", "other"}
}

// Usual is a piece of the form at a usual size: what a form starts from when it
// is chosen.
func Usual(f Form) Item {
	p := Item{Form: f}
	switch f {
	case Flat:
		p.WidthMm, p.ThicknessMm, p.LengthMm = 30, 6, 500
	case Square:
		p.SideMm, p.LengthMm = 16, 300
	case Round, Tube:
		p.DiameterMm, p.LengthMm, p.WallMm = 16, 300, 2
	case Hex, Octagon:
		p.AcrossFlatsMm, p.LengthMm = 18, 300
	case Ball:
		p.DiameterMm = 40
	case Roller:
		p.DiameterMm, p.LengthMm = 24, 36
	case TaperedRound:
		p.StartDiameterMm, p.EndDiameterMm, p.LengthMm = 30, 24, 40
	case TaperedFlat:
		p.StartWidthMm, p.EndWidthMm, p.StartThicknessMm, p.EndThicknessMm, p.LengthMm = 30, 20, 7, 5, 300
	case Coil:
		p.WireDiameterMm, p.MeanDiameterMm, p.PitchMm, p.Turns = 13, 110, 40, 3
	case Leaf:
		p.WidthMm, p.ThicknessMm, p.ChordMm, p.RiseMm = 60, 8, 600, 70
	case Race:
		p.OuterDiameterMm, p.InnerDiameterMm, p.WidthMm = 110, 90, 24
	case Disc:
		p.DiameterMm, p.ThicknessMm, p.ShareFraction, p.StripWidthMm = 400, 5, 1, 40
	case Cable:
		p.DiameterMm, p.LengthMm, p.SolidFraction = 25, 250, .6
	case Chain:
		p.WireDiameterMm, p.LinkLengthMm, p.LinkWidthMm, p.Links = 14, 80, 48, 1
	case Layers:
		p.WidthMm, p.LengthMm, p.Layers = 40, 120, []Layer{{Count: 7, ThicknessMm: 3}}
	}
	return p
}

// Sold are flats at sizes that they are usually sold at, a metre long: what a blade is forged from where nothing else is said, the broadest last.
func Sold() []Item {
	var out []Item
	for _, s := range [][2]float64{{20, 4}, {25, 5}, {25, 6}, {30, 5}, {30, 6}, {32, 8}, {40, 6}, {40, 8}, {50, 6}, {50, 8}, {60, 8}, {60, 10}} {
		out = append(out, Item{Form: Flat, WidthMm: s[0], ThicknessMm: s[1], LengthMm: 1000})
	}
	return out
}

// Sheet tells whether outlines can be sawn out of a piece: it is even in thickness and wide.
func (p Item) Sheet() bool {
	return p.Form == Flat || p.Form == Leaf || p.Form == TaperedFlat || p.Form == Disc
}

// IsRound tells whether a piece has no corners to break.
func (p Item) IsRound() bool {
	switch p.Form {
	case Round, TaperedRound, Ball, Roller, Coil, Chain:
		return true
	}
	return false
}

// Span is a stretch along a piece.
type Span struct {
	FromMm float64 `json:"fromMm"`
	ToMm   float64 `json:"toMm"`
}

// EvenBar is what a piece comes to once it is straightened, opened and stripped:
// an even section that the forging begins with. LengthMm is that of the longest
// stretch without dead spots, which begins at FromMm.
type EvenBar struct {
	WidthMm      float64 `json:"widthMm"`
	ThicknessMm  float64 `json:"thicknessMm"`
	AreaMm2      float64 `json:"areaMm2"`
	WholeMm      float64 `json:"wholeMm" doc:"length of the whole piece, straightened"`
	FromMm       float64 `json:"fromMm"`
	LengthMm     float64 `json:"lengthMm"`
	BendRadiusMm float64 `json:"bendRadiusMm,omitempty" doc:"that is first taken out; 0: straight"`
	Bar          bool    `json:"bar" doc:"an even bar as it is: no break-down is needed for its form"`
	PrepLossMm3  float64 `json:"prepLossMm3,omitempty" doc:"ground off before the fire, of the whole piece"`
}

// Even returns what the piece comes to. A tapered piece is given its mean
// section. Errors are *Error: a form that no bar comes of (a tube), a missing
// dimension, dead stretches that leave nothing.
func (p Item) Even() (EvenBar, error) {
	solid, err := p.Solid()
	if err != nil {
		return EvenBar{}, err
	}
	if p.Form == Tube {
		return EvenBar{}, &Error{Code: "stock.hollowForm", Field: "form"}
	}
	s, err := p.section(solid)
	if err != nil {
		return EvenBar{}, err
	}
	s.AreaMm2 = s.WidthMm * s.ThicknessMm
	s.LengthMm = s.WholeMm
	best := Span{}
	for _, u := range p.Usable(s.WholeMm) {
		if u.ToMm-u.FromMm > best.ToMm-best.FromMm {
			best = u
		}
	}
	if s.FromMm, s.LengthMm = best.FromMm, best.ToMm-best.FromMm; s.LengthMm <= 0 {
		return EvenBar{}, &Error{Code: "stock.allDead", Field: "dead"}
	}
	return s, nil
}

// StraightenedMm is how long the whole piece is once it is straight, dead stretches and all.
// Errors are *Error.
func (p Item) StraightenedMm() (float64, error) {
	solid, err := p.Solid()
	if err != nil {
		return 0, err
	}
	s, err := p.section(solid)
	return s.WholeMm, err
}

// section is the even section of the whole piece, dead stretches not looked at.
func (p Item) section(solid Solid) (EvenBar, error) {
	square := func(area, length float64) EvenBar {
		return EvenBar{WidthMm: math.Sqrt(area), ThicknessMm: math.Sqrt(area), WholeMm: length}
	}
	switch p.Form {
	case Flat, Square, Round, Hex, Octagon:
		bar, err := p.Bar()
		return EvenBar{WidthMm: bar.WidthMm, ThicknessMm: bar.ThicknessMm, WholeMm: p.LengthMm, Bar: true}, err
	case Ball: // settled to a cube
		side := math.Cbrt(solid.VolumeMm3)
		return square(side*side, side), nil
	case Coil:
		s := square(circle(p.WireDiameterMm), solid.StraightenedLengthMm)
		s.BendRadiusMm = p.MeanDiameterMm / 2
		return s, nil
	case Leaf:
		s := EvenBar{WidthMm: p.WidthMm, ThicknessMm: p.ThicknessMm, WholeMm: solid.StraightenedLengthMm}
		if p.RiseMm > 0 {
			s.BendRadiusMm = (p.ChordMm*p.ChordMm/4 + p.RiseMm*p.RiseMm) / (2 * p.RiseMm)
		}
		return s, nil
	case TaperedFlat:
		return p.strip(), nil
	case Race:
		wall := (p.OuterDiameterMm - p.InnerDiameterMm) / 2
		mean := (p.OuterDiameterMm + p.InnerDiameterMm) / 2
		return EvenBar{
			WidthMm: math.Max(p.WidthMm, wall), ThicknessMm: math.Min(p.WidthMm, wall),
			WholeMm: math.Pi * mean, BendRadiusMm: mean / 2,
		}, nil
	case Disc:
		return p.discStrip(), nil
	case Chain:
		s := square(circle(p.WireDiameterMm), p.linkMm())
		s.BendRadiusMm = (p.LinkWidthMm - p.WireDiameterMm) / 2
		return s, nil
	case Layers:
		t := 0.0
		for _, l := range p.Layers {
			t += float64(l.Count) * l.ThicknessMm
		}
		return EvenBar{WidthMm: math.Max(p.WidthMm, t), ThicknessMm: math.Min(p.WidthMm, t), WholeMm: p.LengthMm}, nil
	}
	return square(solid.VolumeMm3/p.LengthMm, p.LengthMm), nil // roller, cone, cable
}

// strip is a tapered flat, its teeth ground off both faces.
func (p Item) strip() EvenBar {
	w := (p.StartWidthMm + p.EndWidthMm) / 2
	v := p.taperedMm3(0)
	ground := v - p.taperedMm3(p.TeethMm)
	s := EvenBar{WidthMm: w, ThicknessMm: (v - ground) / p.LengthMm / w, WholeMm: p.LengthMm, PrepLossMm3: ground}
	if p.BendRadiusMm > 0 {
		s.BendRadiusMm = p.BendRadiusMm
	}
	return s
}

// taperedMm3 is the volume of a tapered flat with so much ground off each face.
func (p Item) taperedMm3(off float64) float64 {
	w0, w1, t0, t1 := p.StartWidthMm, p.EndWidthMm, p.StartThicknessMm-2*off, p.EndThicknessMm-2*off
	return p.LengthMm / 6 * (2*w0*t0 + w0*t1 + w1*t0 + 2*w1*t1)
}

// discStrip is the strip of the wanted width cut from a disc: across its middle,
// or beside its hole; of half a disc, along the cut.
func (p Item) discStrip() EvenBar {
	r, w := p.DiameterMm/2, p.StripWidthMm
	inner := p.InnerDiameterMm / 2
	far := w / 2 // of the strip's outer edge from the middle
	if inner > 0 || p.ShareFraction < 1 {
		far = inner + w
	}
	chord := 2 * math.Sqrt(math.Max(0, r*r-far*far))
	return EvenBar{WidthMm: math.Max(w, p.ThicknessMm), ThicknessMm: math.Min(w, p.ThicknessMm), WholeMm: chord}
}

// linkMm is the length of the wire of one link: two half circles and two
// straights.
func (p Item) linkMm() float64 {
	return math.Pi*(p.LinkWidthMm-p.WireDiameterMm) + 2*(p.LinkLengthMm-p.LinkWidthMm)
}

// Usable are the stretches between the dead ones, along so much length.
func (p Item) Usable(lengthMm float64) []Span {
	dead := append([]Dead(nil), p.Dead...)
	sort.Slice(dead, func(i, j int) bool { return dead[i].FromMm < dead[j].FromMm })
	var out []Span
	at := 0.0
	for _, d := range dead {
		if d.FromMm > at {
			out = append(out, Span{at, math.Min(d.FromMm, lengthMm)})
		}
		at = math.Max(at, d.ToMm)
	}
	if at < lengthMm {
		out = append(out, Span{at, lengthMm})
	}
	return out
}

// AtVolume is how far along the piece from FromMm so much volume reaches: marks
// on a tapered piece lie closer where it is thick.
func (p Item) AtVolume(s EvenBar, mm3 float64) float64 {
	if p.Form != TaperedFlat && p.Form != TaperedRound {
		return mm3 / s.AreaMm2
	}
	area := func(x float64) float64 {
		u := x / p.LengthMm
		if p.Form == TaperedRound {
			return circle(p.StartDiameterMm + (p.EndDiameterMm-p.StartDiameterMm)*u)
		}
		return (p.StartWidthMm + (p.EndWidthMm-p.StartWidthMm)*u) * (p.StartThicknessMm + (p.EndThicknessMm-p.StartThicknessMm)*u - 2*p.TeethMm)
	}
	volume := func(l float64) float64 { // Simpson: exact for a quadratic area
		return l / 6 * (area(s.FromMm) + 4*area(s.FromMm+l/2) + area(s.FromMm+l))
	}
	lo, hi := 0.0, p.LengthMm
	for range 60 {
		if mid := (lo + hi) / 2; volume(mid) < mm3 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2
}

func itoa(i int) string { return strconv.Itoa(i) }

package blade

import (
	"math"

	"coldember/core/fact"
	"coldember/core/section"
)

// Shape names a preset outline.
type Shape string

// The preset outlines.
const (
	Drop         Shape = "drop"
	StraightBack Shape = "straightBack"
	Sheepsfoot   Shape = "sheepsfoot"
	Spear        Shape = "spear"
	Trailing     Shape = "trailing"
	Broad        Shape = "broad"  // a cleaver: high to the very front
	Hooked       Shape = "hooked" // the edge curves in, the point drops past it
)

// Shapes lists the presets.
func Shapes() []Shape {
	return []Shape{
		Drop, StraightBack, Sheepsfoot, Spear, Trailing, Broad, Hooked,
		Clip, ClipCurved, BrokenBack, Angled, Recurve, Belly, Sweep, Leaf, DoubleLeaf, Sickle, Nosed, Beaked, StraightLong, CurvedLong,
	}
}

// Design is a blade as a smith describes it: a preset outline with its
// proportions, and the figures that matter.
type Design struct {
	Use      Use     `json:"use,omitempty" doc:"what it is for: says which figures are usual"`
	Shape    Shape   `json:"shape" enum:"drop,straightBack,sheepsfoot,spear,trailing,broad,hooked,clip,clipCurved,brokenBack,angled,recurve,belly,sweep,leaf,doubleLeaf,sickle,nosed,beaked,straightLong,curvedLong,own"`
	LengthMm float64 `json:"lengthMm" doc:"point to heel"`
	HeightMm float64 `json:"heightMm" doc:"at the heel"`
	SpineMm  float64 `json:"spineMm" doc:"thickness at the heel"`
	TipMm    float64 `json:"tipMm" doc:"thickness at the point"`
	MidMm    float64 `json:"midMm,omitempty" doc:"thickness half way: more than the mean of both ends is a convex distal taper; 0 runs straight"`
	// TaperNodes make the distal taper by nodes between point and heel, in their
	// order; MidMm is then not looked at.
	TaperNodes []TaperNode `json:"taperNodes,omitempty"`
	Grind      Grind       `json:"grind"`
	Ricasso    Ricasso     `json:"ricasso"`
	ChoilMm    float64     `json:"choilMm,omitempty" doc:"radius of a half-round stop cut into the edge just ahead of the heel"`
	TangKind   TangKind    `json:"tangKind" enum:"hidden,full,partial,rod,wrapped"`
	Tang       Tang        `json:"tang"`
	FlatBend   *FlatBend   `json:"flatBend,omitempty"`
	Handle     *Handle     `json:"handle,omitempty"`

	// Outline is the smith's own, for the shape "own"; it is scaled to length
	// and height.
	Outline *Outline `json:"outline,omitempty"`
}

// Limits of a design: wide enough for anything forged by hand, narrow enough
// to catch a slip of the keyboard.
const (
	minLengthMm, maxLengthMm = 20, 1200
	minHeightMm, maxHeightMm = 5, 160
	minThickMm, maxThickMm   = 0.5, 20
	minEdgeMm                = 0.05
	leastBevel               = 0.1
	mostChoilMm              = 12
	maxWheelMm               = 20000 // a stone or a belt over a long curved platen
)

// Validate reports every field of the design that cannot be.
func (d Design) Validate(c fact.Check) {
	fact.OneOf(c, "shape", d.Shape, append(Shapes(), Own)...)
	d.validateOutline(c)
	if d.Use != "" {
		fact.OneOf(c, "use", d.Use, Uses()...)
	}
	fact.OneOf(c, "tangKind", d.TangKind, TangKinds()...)
	c.Range("lengthMm", d.LengthMm, minLengthMm, maxLengthMm)
	c.Range("heightMm", d.HeightMm, minHeightMm, maxHeightMm)
	c.Range("spineMm", d.SpineMm, minThickMm, math.Min(maxThickMm, math.Max(d.HeightMm, minHeightMm)))
	c.Range("tipMm", d.TipMm, minThickMm, maxThickMm)
	if d.MidMm != 0 {
		c.Range("midMm", d.MidMm, minThickMm, maxThickMm)
	}
	d.validateTaper(c)
	g := c.Within("grind")
	fact.OneOf(g, "kind", d.Grind.Kind, section.Kinds()...)
	fact.OneOf(g, "bevelSide", d.Grind.BevelSide, RightBevel, LeftBevel, "")
	g.Range("edgeMm", d.Grind.EdgeMm, minEdgeMm, math.Max(d.SpineMm, minEdgeMm))
	g.Range("bevelFraction", d.Grind.BevelFraction, leastBevel, 1)
	if d.Grind.PointBevelFraction != 0 {
		g.Range("pointBevelFraction", d.Grind.PointBevelFraction, leastBevel, 1)
	}
	if d.Grind.PointEdgeMm != 0 {
		g.Range("pointEdgeMm", d.Grind.PointEdgeMm, minEdgeMm, math.Max(d.TipMm, minEdgeMm))
	}
	g.Range("plungeMm", d.Grind.PlungeMm, 0, d.LengthMm/2)
	g.Range("swedgeFraction", d.Grind.SwedgeFraction, 0, 0.45)
	g.Range("swedgeLongMm", d.Grind.SwedgeLongMm, 0, d.LengthMm)
	if d.Grind.SwedgeFraction > 0 {
		g.Range("swedgeEdgeMm", d.Grind.SwedgeEdgeMm, 0.1, math.Max(d.SpineMm, 0.1))
	} else {
		g.Range("swedgeEdgeMm", d.Grind.SwedgeEdgeMm, 0, maxThickMm)
	}
	if d.Grind.Kind == section.Hollow {
		g.Range("wheelRadiusMm", d.Grind.WheelRadiusMm, math.Max(15, d.HeightMm*d.Grind.BevelFraction/2), maxWheelMm)
	} else {
		g.Range("wheelRadiusMm", d.Grind.WheelRadiusMm, 0, maxWheelMm)
	}
	if v := d.Grind.Groove; v != nil {
		w := g.Within("groove")
		w.Range("lowFraction", v.LowFraction, 0.05, 0.9)
		w.Range("highFraction", v.HighFraction, math.Min(v.LowFraction+0.05, 0.95), 0.95)
		w.Range("depthMm", v.DepthMm, 0, 6)
		w.Range("faces", v.Faces, 1, 2)
		w.Range("fromMm", v.FromMm, 0, d.LengthMm)
		w.Range("toMm", v.ToMm, 0, d.LengthMm)
		if v.WheelRadiusMm != 0 {
			w.Range("wheelRadiusMm", v.WheelRadiusMm, math.Max(5, (v.HighFraction-v.LowFraction)*d.HeightMm/2), maxWheelMm)
		}
	}
	r := c.Within("ricasso")
	r.Range("lengthMm", d.Ricasso.LengthMm, 2, 150)
	r.Range("heightMm", d.Ricasso.HeightMm, minHeightMm, maxHeightMm)
	r.Range("thicknessMm", d.Ricasso.ThicknessMm, minThickMm, maxThickMm)
	r.Range("riseMm", d.Ricasso.RiseMm, 0, math.Min(mostRiseMm, math.Max(0, d.Ricasso.HeightMm-minHeightMm)))
	c.Range("choilMm", d.ChoilMm, 0, math.Min(mostChoilMm, math.Min(d.LengthMm/4, d.HeightMm/3)))
	r.Range("notchMm", d.Ricasso.NotchMm, 0, math.Min(d.Ricasso.LengthMm/2, d.Ricasso.HeightMm/2))
	d.validateFlatBend(c)
	d.validateTang(c)
	d.validateHandle(c)
}

// BevelSetDeg is the angle between bevel and flat at the heel, to set to platen or jig.
func (d Design) BevelSetDeg() float64 {
	s := section.Section{Kind: d.Grind.Kind, HeightMm: d.HeightMm, SpineMm: d.SpineMm, EdgeMm: d.Grind.EdgeMm, BevelHeightMm: d.Grind.BevelFraction * d.HeightMm}
	deg, _ := s.Set()
	return deg
}

// SetBevel gives the bevel the height at the heel to which it reaches when it is set so to
// platen or jig; lowest and highest are the angles that it can be set to. ok is false, and
// nothing changed, outside of them.
func (d *Design) SetBevel(angleDeg float64) (lowest, highest float64, ok bool) {
	s := section.Section{Kind: d.Grind.Kind, HeightMm: d.HeightMm, SpineMm: d.SpineMm, EdgeMm: d.Grind.EdgeMm}
	lowest, _ = s.Set()
	s.BevelHeightMm = leastBevel * d.HeightMm
	highest, _ = s.Set()
	if s.Kind == section.Diamond || s.Kind == section.Lens || s.Kind == section.Rect || !(angleDeg >= lowest && angleDeg <= highest) {
		return lowest, highest, false
	}
	share := math.Tan(highest*math.Pi/180) * leastBevel / math.Tan(angleDeg*math.Pi/180)
	d.Grind.BevelFraction = math.Max(leastBevel, math.Min(1, share))
	return lowest, highest, true
}

// stationsU are where a preset is sampled, as fractions of the blade length,
// dense at the point where the curves turn.
var stationsU = []float64{0, .004, .012, .027, .05, .08, .12, .17, .23, .3, .38, .47, .57, .68, .8, .9, 1}

// curves gives spine and edge height (fractions of the blade height, spine of
// the heel at 0, edge at −1) of a preset at u, the fraction of the length.
func (s Shape) curves(u float64) (spine, edge float64) {
	// quarter: 0 at the point, rising as a root, 1 from u = b on
	quarter := func(b float64) float64 {
		if u >= b {
			return 1
		}
		v := 1 - u/b
		return math.Sqrt(1 - v*v)
	}
	// fall: 1 at the point, falling softly to 0 at u = b
	fall := func(b float64) float64 {
		if u >= b {
			return 0
		}
		v := 1 - u/b
		return v * v
	}
	switch s {
	case StraightBack:
		return 0, -quarter(0.5)
	case Sheepsfoot:
		return quarter(0.3) - 1, -1
	case Spear:
		q := 0.5 * math.Min(1, quarter(0.6)*0.5+0.5*(1-fall(0.45)))
		return -0.5 + q, -0.5 - q
	case Broad:
		return -0.12 * fall(0.12), -0.12 - 0.84*quarter(0.03) - 0.04*quarter(0.5)
	case Hooked:
		belly := 4 * u * (1 - u)
		return -0.75 * fall(0.75), -0.75 - 0.25*quarter(0.1) + 0.3*belly*(1-fall(0.3))*(1-u)
	case Trailing:
		return 0.28 * fall(0.7), 0.28 - 1.28*quarter(0.62)
	default:
		return -0.42 * fall(0.5), -0.42 - 0.58*quarter(0.42)
	}
}

// Blade builds the finished blade of the design.
func (d Design) Blade() Blade {
	b := Blade{Outline: Outline{Join: Smooth}, Grind: d.Grind, ChoilMm: d.ChoilMm, FlatBend: d.FlatBend}
	if o, ok := d.Shape.drawn(d.LengthMm, d.HeightMm); ok {
		b.Outline = o
	} else if d.Shape == Own && d.Outline != nil {
		b.Outline = d.Outline.scaled(d.LengthMm, d.HeightMm)
	} else {
		for _, u := range stationsU {
			s, e := d.Shape.curves(u)
			b.Outline.Spine = append(b.Outline.Spine, Node{u * d.LengthMm, s * d.HeightMm})
			b.Outline.Edge = append(b.Outline.Edge, Node{u * d.LengthMm, e * d.HeightMm})
		}
	}
	b.Thickness = d.taper()
	r, t := d.Ricasso, d.MadeTang()
	b.Ricasso, b.Tang = &r, &t
	return b
}

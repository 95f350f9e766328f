package billet

import (
	"math"
	"slices"

	"coldember/core/fact"
)

// Pattern is what is done to the bar so that its layers show.
type Pattern string

// The patterns.
const (
	Straight Pattern = "straight"
	Twist    Pattern = "twist"
	Ladder   Pattern = "ladder"
	Pressed  Pattern = "pressed"
	Dimple   Pattern = "dimple"
	EndGrain Pattern = "endGrain" // cut across, the slices laid with their ends as the face
	Mosaic   Pattern = "mosaic"   // four of it laid to one first, each a mirror of its neighbours
	Cable    Pattern = "cable"    // welded wires
	Chain    Pattern = "chain"    // links in a can of powder
)

// Patterns lists them.
func Patterns() []Pattern {
	return []Pattern{Straight, Twist, Ladder, Pressed, Dimple, EndGrain, Mosaic, Cable, Chain}
}

// Hand is which way a bar is twisted.
type Hand string

// The hands: of a right one the material turns from across the bar toward its upper face as one
// goes along it.
const (
	Right Hand = "right"
	Left  Hand = "left"
)

// Bar is a layered bar whose pattern was worked at one section, and which was then forged evenly
// to another.
type Bar struct {
	Pattern       Pattern `json:"pattern" enum:"straight,twist,ladder,pressed,dimple,endGrain,mosaic,cable,chain"`
	WidthMm       float64 `json:"widthMm" doc:"as the pattern was worked"`
	ThicknessMm   float64 `json:"thicknessMm"`
	Layers        float64 `json:"layers"`
	TurnsPer100Mm float64 `json:"turnsPer100Mm,omitempty"`
	Hand          Hand    `json:"hand,omitempty" enum:"right,left" doc:"right if not said"`
	PitchMm       float64 `json:"pitchMm,omitempty" doc:"from groove to groove, or pit to pit"`
	DepthMm       float64 `json:"depthMm,omitempty" doc:"of a groove or pit, from each face"`
	HalfWidthMm   float64 `json:"halfWidthMm,omitempty" doc:"of a groove"`
	RadiusMm      float64 `json:"radiusMm,omitempty" doc:"of a pit"`
	SliceMm       float64 `json:"sliceMm,omitempty" doc:"of a bar cut across: how thick its slices are"`
	Fours         int     `json:"fours,omitempty" doc:"of a mosaic: so often four are laid to one"`
	OnCorner      bool    `json:"onCorner,omitempty" doc:"it was turned on its corner first"`
	Fill          *Fill   `json:"fill,omitempty" doc:"of cable and chain"`
	FirstShare    float64 `json:"firstShare,omitempty" doc:"of cable and chain: how much is wire or link"`
	// LaidWidthMm and LaidThicknessMm are the section of cable and chain as they were laid; that of the bar if not said.
	LaidWidthMm     float64 `json:"laidWidthMm,omitempty"`
	LaidThicknessMm float64 `json:"laidThicknessMm,omitempty"`

	ForgedWidthMm     float64 `json:"forgedWidthMm" doc:"evened out to"`
	ForgedThicknessMm float64 `json:"forgedThicknessMm"`
}

// Point is a place of a face: x along the forged bar, y across from its middle, how deep it lies
// (1: on the skin, 0: in the middle), and on which side (1: above, −1: below).
type Point struct {
	XMm        float64 `json:"xMm"`
	YMm        float64 `json:"yMm"`
	DepthShare float64 `json:"depthShare"`
	Side       float64 `json:"side"`
}

// LayerAt is the layer that shows at a point, 0 to Layers counted from the underside. Whole of it
// is geometry: forging is even, and the middle plane of a grooved bar stays where it was.
func (b *Bar) LayerAt(p Point) float64 {
	x := p.XMm * (b.ForgedWidthMm * b.ForgedThicknessMm) / (b.WidthMm * b.ThicknessMm)
	y := p.YMm * b.WidthMm / b.ForgedWidthMm
	half := b.ThicknessMm / 2
	up := p.DepthShare * half // from the middle plane, on its side
	switch b.Pattern {
	case Twist:
		return b.layer(b.untwisted(x, y, up*p.Side))
	case EndGrain, Mosaic:
		u, v := b.endOf(p)
		if b.Pattern == Mosaic {
			_, v = quartered(u, v, max(1, b.Fours), b.OnCorner)
		}
		return b.layer(v * half)
	case Cable, Chain:
		w, t := b.laidWide(), b.laidHigh()
		return b.filledAt(x*(b.WidthMm*b.ThicknessMm)/(w*t), y*w/b.WidthMm, up*p.Side*t/b.ThicknessMm)
	case Ladder:
		up = p.DepthShare * (half - b.groove(x, p.Side))
	case Pressed:
		up = p.DepthShare * (half - b.DepthMm) * half / (half - b.groove(x, p.Side))
	case Dimple:
		up = p.DepthShare * (half - b.pit(x, y, p.Side))
	}
	return b.layer(up * p.Side)
}

// layer is the layer at a height over the middle plane.
func (b *Bar) layer(z float64) float64 { return (z/b.ThicknessMm + .5) * b.Layers }

// untwisted is the height over the middle plane that a point of the twisted bar had before. The
// skin is squared again by the hammer, so it goes round with the section; the core turns as one.
// A point counts as skin with the square of how far out it lies, of the half sides.
func (b *Bar) untwisted(x, y, z float64) float64 {
	turn := 2 * math.Pi * b.TurnsPer100Mm / 100 * x
	if b.Hand == Left {
		turn = -turn
	}
	u, v := y/(b.WidthMm/2), z/(b.ThicknessMm/2)
	r, a := toDisc(u, v)
	skin := upOfDisc(r, a-turn)
	core := v*math.Cos(turn) - y*math.Sin(turn)/(b.ThicknessMm/2)
	out := math.Max(math.Abs(u), math.Abs(v))
	out *= out
	return math.Max(-1, math.Min(1, out*skin+(1-out)*core)) * b.ThicknessMm / 2
}

// toDisc takes a square of half side 1 to the disc, true to area (the concentric map of Shirley
// and Chiu 1997): radius and angle.
func toDisc(u, v float64) (r, a float64) {
	switch {
	case u == 0 && v == 0:
		return 0, 0
	case math.Abs(u) > math.Abs(v):
		r, a = u, math.Pi/4*(v/u)
	default:
		r, a = v, math.Pi/2-math.Pi/4*(u/v)
	}
	if r < 0 {
		return -r, a + math.Pi
	}
	return r, a
}

// upOfDisc is the height in the square of a point of the disc: the inverse of the same map.
func upOfDisc(r, a float64) float64 {
	a -= 2 * math.Pi * math.Floor(a/(2*math.Pi)+.125) // from −45° round
	switch {
	case a < math.Pi/4:
		return r * a / (math.Pi / 4)
	case a < 3*math.Pi/4:
		return r
	case a < 5*math.Pi/4:
		return r * (math.Pi - a) / (math.Pi / 4)
	default:
		return -r
	}
}

// groove is how deep the ladder's groove is at x on a side; those of the underside lie half a pitch
// on.
func (b *Bar) groove(x, side float64) float64 {
	if b.PitchMm <= 0 || b.HalfWidthMm <= 0 {
		return 0
	}
	if side < 0 {
		x -= b.PitchMm / 2
	}
	off := math.Abs(x - b.PitchMm*math.Round(x/b.PitchMm))
	return parabola(b.DepthMm, off/b.HalfWidthMm)
}

// pit is how deep a dimple is at a place on a side: on a hexagonal net, rows along the bar.
func (b *Bar) pit(x, y, side float64) float64 {
	if b.PitchMm <= 0 || b.RadiusMm <= 0 {
		return 0
	}
	if side < 0 {
		x -= b.PitchMm / 2
	}
	row := b.PitchMm * math.Sqrt(3) / 2
	deepest := 0.0
	near := math.Floor(y / row)
	for k := near; k <= near+1; k++ {
		at := x
		if math.Mod(math.Abs(k), 2) == 1 {
			at -= b.PitchMm / 2
		}
		off := math.Hypot(at-b.PitchMm*math.Round(at/b.PitchMm), y-k*row)
		deepest = math.Max(deepest, parabola(b.DepthMm, off/b.RadiusMm))
	}
	return deepest
}

func parabola(depth, share float64) float64 {
	if share >= 1 {
		return 0
	}
	return depth * (1 - share*share)
}

// A pattern's limits (judgement): deeper than this share of the thickness nothing of it survives
// being forged flat, and more turns in one heat shear the bar.
const (
	mostDepthShare = 1.0 / 3
	mostShear      = 2.5 // surface shear strain a heat, at welding heat
)

// Validate reports what of a bar cannot be, as an *Error of step −1.
func (b *Bar) Validate() error {
	bad := func(field string, limit float64) error { return &Error{-1, "billet.pattern", field, limit} }
	switch {
	case !(b.WidthMm >= 1 && b.WidthMm <= mostMm):
		return bad("widthMm", 1)
	case !(b.ThicknessMm >= .5 && b.ThicknessMm <= mostMm):
		return bad("thicknessMm", .5)
	case !(b.ForgedWidthMm >= 1 && b.ForgedWidthMm <= mostMm):
		return bad("forgedWidthMm", 1)
	case !(b.ForgedThicknessMm >= .3 && b.ForgedThicknessMm <= mostMm):
		return bad("forgedThicknessMm", .3)
	case !(b.Layers >= 1 && b.Layers <= MostLayers):
		return bad("layers", 1)
	case b.DepthMm < 0 || b.DepthMm >= b.ThicknessMm/2:
		return bad("depthMm", b.ThicknessMm/2)
	case !(math.Abs(b.TurnsPer100Mm) <= 60):
		return bad("turnsPer100Mm", 60)
	case b.PitchMm < 0 || b.HalfWidthMm < 0 || b.RadiusMm < 0:
		return bad("pitchMm", 0)
	}
	return b.validateKind(bad)
}

// validateKind looks at what only some patterns have.
func (b *Bar) validateKind(bad func(string, float64) error) error {
	if b.Pattern.Ends() && !(b.SliceMm >= leastSlice && b.SliceMm <= mostMm) {
		return bad("sliceMm", leastSlice)
	}
	if b.Fours < 0 || b.Fours > mostFours {
		return bad("fours", mostFours)
	}
	if b.Pattern.Filled() {
		c := fact.NewCheck()
		if b.Fill.validate(c, b.Pattern); c.Err() != nil || !(b.FirstShare > 0 && b.FirstShare < 1) {
			return bad("fill", 0)
		}
	}
	if !slices.Contains(Patterns(), b.Pattern) {
		return bad("pattern", 0)
	}
	return nil
}

// ShearHeats is how many heats the twist takes so that the skin shears no more than it bears in
// each: surface shear strain is half the section's diagonal times the turn a millimetre.
func (b *Bar) ShearHeats(lengthMm float64) int {
	if b.Pattern != Twist || b.TurnsPer100Mm == 0 || lengthMm <= 0 {
		return 0
	}
	strain := 2 * math.Pi * math.Abs(b.TurnsPer100Mm) / 100 * math.Hypot(b.WidthMm, b.ThicknessMm) / 2
	return int(math.Ceil(strain / mostShear))
}

// TooDeep tells whether grooves or pits go deeper than survives.
func (b *Bar) TooDeep() bool { return b.DepthMm > b.ThicknessMm*mostDepthShare+1e-9 }

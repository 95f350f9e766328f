package plan

import (
	"math"

	"coldember/core/blade"
)

// Station is one station of a drawn piece. x from the point, y over the spine
// of the heel. Where the piece is bent, spine and edge have an x of their own.
type Station struct {
	XMm         float64 `json:"x"`
	SpineY      float64 `json:"s"`
	EdgeY       float64 `json:"e"`
	ThicknessMm float64 `json:"t"`
	EdgeMm      float64 `json:"k,omitempty" doc:"thickness at the edge where it is another"`
	MeanMm      float64 `json:"m,omitempty" doc:"mean thickness of the section, where it is not that of spine and edge"`
	Zone        string  `json:"z" enum:"point,blade,ricasso,tang"`
	TempC       float64 `json:"c,omitempty"`

	SpineX   *float64 `json:"sx,omitempty"`
	EdgeX    *float64 `json:"ex,omitempty"`
	TwistDeg float64  `json:"w,omitempty" doc:"twisted by so much, counted from the ricasso"`
}

// Span is where a zone lies on a drawn piece.
type Span struct {
	Zone   string  `json:"zone" enum:"point,blade,ricasso,tang"`
	FromMm float64 `json:"fromMm"`
	ToMm   float64 `json:"toMm"`
}

// Drawing is the finished blade and the forged shape, ready to be drawn.
type Drawing struct {
	Finished      []Station `json:"finished"`
	Forged        []Station `json:"forged"`
	FinishedZones []Span    `json:"finishedZones"`
	ForgedZones   []Span    `json:"forgedZones"`

	Handle []HandlePart `json:"handle,omitempty"`
	Holes  []DrawnHole  `json:"holes,omitempty"`
	Joined *Joined      `json:"joined,omitempty" doc:"in the forged shape"`
	Push   *Push        `json:"push,omitempty"`
	Bent   *blade.Bent  `json:"bent,omitempty" doc:"a blade bent flatwise, as it is when it is done; all else draws it flat"`
}

// HandlePart is the grip or a fitting, ready to be drawn: its outline in the
// flat view, and its width seen from the spine.
type HandlePart struct {
	What     string         `json:"what" enum:"guard,bolster,grip,pommel"`
	Material blade.Material `json:"material"`
	Outline  []blade.Node   `json:"outline"`
	FromMm   float64        `json:"fromMm"`
	ToMm     float64        `json:"toMm"`
	WidthMm  float64        `json:"widthMm"`
}

// DrawnHole is a hole through the tang.
type DrawnHole struct {
	XMm        float64 `json:"x"`
	YMm        float64 `json:"y"`
	DiameterMm float64 `json:"diameterMm"`
	LongMm     float64 `json:"longMm,omitempty" doc:"length of a slot, its round ends included"`
}

// Joined is what was opened, welded in or punched through a piece by a state of its forging: the
// seam between bit and body (from the edge where the bit ends, to the point), and punched holes.
type Joined struct {
	Seam  []blade.Node `json:"seam,omitempty"`
	Holes []DrawnHole  `json:"holes,omitempty"`
}

// Push is the line along the grip from its butt, through its front, to where
// the point stands against it.
type Push struct {
	Butt  blade.Node `json:"butt"`
	Front blade.Node `json:"front"`
	Point blade.Node `json:"point"`
}

// Spine is the station's point on the spine.
func (s *Station) Spine() (x, y float64) {
	if s.SpineX != nil {
		return *s.SpineX, s.SpineY
	}
	return s.XMm, s.SpineY
}

// Edge is the station's point on the edge.
func (s *Station) Edge() (x, y float64) {
	if s.EdgeX != nil {
		return *s.EdgeX, s.EdgeY
	}
	return s.XMm, s.EdgeY
}

// HeightMm is the height of the section there.
func (s *Station) HeightMm() float64 {
	x0, y0 := s.Spine()
	x1, y1 := s.Edge()
	return math.Hypot(x0-x1, y0-y1)
}

// SectionView is the cross-section of the finished blade at one station, ready
// to be drawn: T is the full thickness at equal steps from edge to spine.
type SectionView struct {
	XMm         float64    `json:"x"`
	HeightMm    float64    `json:"heightMm"`
	T           []float64  `json:"t"`
	BehindMm    [3]float64 `json:"behindMm" doc:"thickness 1, 5 and 10 mm above the edge; the spine's where it is lower"`
	AngleDeg    float64    `json:"angleDeg" doc:"between the faces at the edge, before sharpening"`
	AreaMm2     float64    `json:"areaMm2"`
	FlatwiseMm4 float64    `json:"flatwiseMm4" doc:"second moment against bending flatwise"`
	OneFace     bool       `json:"oneFace,omitempty" doc:"ground on one side: the other face is flat"`
	Front       []float64  `json:"front,omitempty" doc:"where the front face lies, before the mid-plane of the spine, where it is not half of the thickness"`
	SetDeg      float64    `json:"setDeg,omitempty" doc:"to set the bevel to platen or jig: between its chord and the flat, or the mid-plane where both sides are ground"`
	BevelMm     float64    `json:"bevelMm,omitempty" doc:"height from the edge that the bevel then reaches"`
	BackSetDeg  float64    `json:"backSetDeg,omitempty" doc:"the same for a false edge"`
	BackMm      float64    `json:"backMm,omitempty" doc:"its height from the spine"`
}

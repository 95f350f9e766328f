package plan

import (
	"math"

	"coldember/core/fact"
	"coldember/core/steel"
)

// BitKind is how a bit of tool steel is joined to a body of softer steel.
type BitKind string

// In a cleft that is slit into the bar and closed over it; laid along the edge, scarf on scarf;
// or wrapped: the bar folded round it.
const (
	CleftBit   BitKind = "cleft"
	EdgeBit    BitKind = "edge"
	WrappedBit BitKind = "wrapped"
)

// BitKinds lists them.
func BitKinds() []BitKind { return []BitKind{CleftBit, EdgeBit, WrappedBit} }

// Bit is the piece of tool steel that becomes the edge of a blade whose bar is of softer steel.
// It is welded into the end of the bar first of all, and forged with it.
type Bit struct {
	Kind        BitKind `json:"kind" enum:"cleft,edge,wrapped"`
	SteelID     string  `json:"steelId"`
	LengthMm    float64 `json:"lengthMm" doc:"along the bar"`
	WidthMm     float64 `json:"widthMm" doc:"from the edge inward"`
	ThicknessMm float64 `json:"thicknessMm"`
}

// NewBit is a usual bit for a request: two thirds as long as the blade, half as wide as the bar,
// as thick as a third of it.
func NewBit(k BitKind, r *Request, barWidthMm, barThicknessMm float64) *Bit {
	return &Bit{
		Kind: k, SteelID: "1084", LengthMm: math.Round(r.Design.LengthMm * 2 / 3),
		WidthMm: math.Max(5, math.Round(barWidthMm/2)), ThicknessMm: math.Max(2, math.Round(barThicknessMm/3*2)/2),
	}
}

// VolumeMm3 is its own, as it is put in.
func (b *Bit) VolumeMm3() float64 { return b.LengthMm * b.WidthMm * b.ThicknessMm }

func (b *Bit) validate(c fact.Check) {
	if b == nil {
		return
	}
	v := c.Within("bit")
	fact.OneOf(v, "kind", b.Kind, BitKinds()...)
	v.Range("lengthMm", b.LengthMm, 10, 1200)
	v.Range("widthMm", b.WidthMm, 3, 100)
	v.Range("thicknessMm", b.ThicknessMm, 1, 20)
	if b.SteelID == "" {
		v.Fail("steelId", "field.steelMissing", nil)
	} else if g, err := steel.Find(b.SteelID); err != nil {
		v.Fail("steelId", "field.steel", nil)
	} else if g.AustenitiseC <= 0 {
		v.Fail("steelId", "bit.soft", nil)
	}
}

// Joined is the steel that a piece with a bit is worked as: hardened, tempered and cycled as
// the bit, which is its edge, no hotter than both stand, down to where the bit is worked; worked as the stiffer.
// Where there is only the body the work has the body's own window.
func (r *Request) Joined(body steel.Grade) steel.Grade {
	if r.Bit == nil || r.Forged != nil {
		return body
	}
	bit, err := steel.Find(r.Bit.SteelID)
	if err != nil {
		return body // Validate has said so
	}
	bit.ForgeHighC = math.Min(bit.ForgeHighC, body.ForgeHighC)
	bit.FlowFactor = math.Max(bit.FlowFactor, body.FlowFactor)
	return bit
}

// BitPlan is where the tool steel comes to lie.
type BitPlan struct {
	VolumeMm3 float64 `json:"volumeMm3"`
	OnBarMm   float64 `json:"onBarMm" doc:"of the bar's end that is opened for it"`
	ReachMm   float64 `json:"reachMm" doc:"from the point, along the finished blade"`
	DepthMm   float64 `json:"depthMm" doc:"from the edge, two thirds of the way to the heel"`
}

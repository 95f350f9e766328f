package finish

import (
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
)

// Slot is a hole for the tang through a guard or bolster: drilled as a chain, filed to size.
type Slot struct {
	What     string  `json:"what" enum:"guard,bolster,spacer"`
	LengthMm float64 `json:"lengthMm" doc:"along the height of the tang"`
	WidthMm  float64 `json:"widthMm"`
	DrillMm  float64 `json:"drillMm"`
	Holes    int     `json:"holes"`
	PitchMm  float64 `json:"pitchMm" doc:"from hole to hole"`
	// CoverMm is how far the shoulders hide it, above and below: the less of the two.
	CoverMm float64 `json:"coverMm"`
	TopMm   float64 `json:"topMm" doc:"of the slot, below the block's top"`
	// WedgeDeg and ShimMm: the seat of an uneven ricasso.
	WedgeDeg float64       `json:"wedgeDeg,omitempty"`
	ShimMm   float64       `json:"shimMm,omitempty"`
	Fitting  blade.Fitting `json:"fitting"`
}

// Bore is what takes a hidden tang in its handle.
type Bore struct {
	Fit     Fit     `json:"fit" enum:"burnt,filed,core"`
	DepthMm float64 `json:"depthMm" doc:"from the grip's front"`
	DrillMm float64 `json:"drillMm"`
	// Mouth is the slot at the front of the grip; for a core, the slot in its halves.
	MouthHeightMm float64 `json:"mouthHeightMm"`
	MouthWidthMm  float64 `json:"mouthWidthMm"`
	EndHeightMm   float64 `json:"endHeightMm"`
	Holes         int     `json:"holes" doc:"side by side"`
	// AngleDeg is how far the tang's line falls against the grip's.
	AngleDeg float64 `json:"angleDeg"`
	CoreMm   float64 `json:"coreMm,omitempty" doc:"diameter of the bore that a core is glued into"`
	Notches  int     `json:"notches" doc:"in the tang, for the glue to hold by"`
	VentMm   float64 `json:"ventMm" doc:"hole that lets air and glue out at the end"`
	LeastMm  float64 `json:"leastMm" doc:"wall that is left"`
}

// Pin goes through scales and tang.
type Pin struct {
	AtMm       float64 `json:"atMm" doc:"behind the shoulder"`
	OffMm      float64 `json:"offMm" doc:"above the tang's middle"`
	DiameterMm float64 `json:"diameterMm"`
	LengthMm   float64 `json:"lengthMm" doc:"grip there, and a little over at each end"`
	EdgeMm     float64 `json:"edgeMm" doc:"steel or scale that is left between its hole and the nearest edge"`
}

// Scales are the two halves of a grip on a full tang.
type Scales struct {
	LengthMm    float64 `json:"lengthMm"`
	HeightMm    float64 `json:"heightMm"`
	ThicknessMm float64 `json:"thicknessMm" doc:"of each, before shaping"`
	Pins        []Pin   `json:"pins"`
	GlueHoles   int     `json:"glueHoles" doc:"through the tang, for glue to bridge by"`
	TaperDeg    float64 `json:"taperDeg,omitempty" doc:"of the tang's faces: the scales lie at half of it each"`
}

// GripSection is the grip across, at a place: half of its outline, top to bottom.
type GripSection struct {
	AtMm     float64      `json:"atMm" doc:"behind the grip's front"`
	HeightMm float64      `json:"heightMm"`
	WidthMm  float64      `json:"widthMm"`
	Outline  []blade.Node `json:"outline"`
	// Tang in it: height, thickness, and how far its middle lies above the grip's.
	TangHeightMm    float64 `json:"tangHeightMm,omitempty"`
	TangThicknessMm float64 `json:"tangThicknessMm,omitempty"`
	TangUpMm        float64 `json:"tangUpMm,omitempty"`
}

// Handle is how handle and fittings are cut.
type Handle struct {
	Kind     blade.TangKind `json:"kind" enum:"hidden,full,partial,rod,wrapped"`
	Slots    []Slot         `json:"slots"`
	Bore     *Bore          `json:"bore,omitempty"`
	Scales   *Scales        `json:"scales,omitempty"`
	Sections []GripSection  `json:"sections"`
	// Block is the least that the grip, or each of its scales, comes out of.
	Block    Block          `json:"block"`
	GlueMin  float64        `json:"glueMin"`
	Findings []fact.Warning `json:"findings"`
}

// How fittings are cut (judgement from common practice).
const (
	underMm      = .1 // a slot is left so much under, and the fitting driven on
	webMm        = .3 // between holes of a chain
	drillStepMm  = .5
	coverLeastMm = 1.0
	boreOverMm   = 3.0 // deeper than the tang is long
	wallLeastMm  = 3.0
	pinOverMm    = 1.5
	pinEdgeMm    = 3.0
	pinShoulder  = 8.0
	shapeMm      = 1.5 // left on a block all round
	glueEveryMm  = 35.0
	usualPinMm   = 5.0
)

// chain is a chain of holes in a slot, with a web between them and a little left to file all round:
// of the drill, of those that are sold, that leaves the least to file.
func chain(lengthMm, widthMm float64) (drillMm float64, holes int, pitchMm float64) {
	thickest := math.Max(1, math.Floor((widthMm-.2)/drillStepMm)*drillStepMm)
	left := math.Inf(1) // for the file: what the holes leave of the slot
	for d := thickest; d >= math.Max(1, .6*thickest); d -= drillStepMm {
		n, pitch := 1, 0.0
		if run := lengthMm - .2 - d; run > d {
			n = int(math.Floor(run/(d+webMm))) + 1
			pitch = run / float64(n-1)
		}
		if area := lengthMm*widthMm - float64(n)*math.Pi/4*d*d; area < left-1e-9 {
			left, drillMm, holes, pitchMm = area, d, n, pitch
		}
	}
	return drillMm, holes, pitchMm
}

// HandleOf is how handle and fittings of a knife are cut.
func HandleOf(w *Work, leastWallMm float64) Handle {
	d := &w.Design
	out := Handle{Kind: d.TangKind, Slots: []Slot{}, Sections: []GripSection{}, Findings: []fact.Warning{}, GlueMin: w.Choices.GlueMin}
	if out.GlueMin == 0 {
		out.GlueMin = usualGlueMin
	}
	h := d.Handle
	if h == nil || d.TangKind.Bare() {
		return out
	}
	t := d.MadeTang()
	at := 0.0
	grip := d.Grip()
	axis, _ := grip(0)
	for _, f := range []struct {
		what string
		f    blade.Fitting
	}{{"guard", h.Guard}, {"bolster", h.Bolster}} {
		if f.f.LengthMm > 0 {
			out.slot(w, f.what, f.f, &t, at, axis)
			at += f.f.LengthMm
		}
	}
	if mm := w.Choices.spacersMm(); mm > 0 && d.TangKind != blade.FullTang {
		out.slot(w, "spacer", blade.Fitting{LengthMm: mm, HeightMm: h.FrontHeightMm + 2, WidthMm: h.WidthMm + 2, Material: h.Material}, &t, at, axis)
		at += mm
	}
	out.sections(w, &t, at)
	if d.TangKind == blade.FullTang {
		out.scales(w, &t, at)
	} else {
		out.bore(w, &t, at, leastWallMm)
	}
	out.checkBlock(w)
	return out
}

func (o *Handle) find(code string, s fact.Severity, f fact.Figures) {
	o.Findings = append(o.Findings, fact.Warning{Code: code, Severity: s, Figures: f})
}

// slot cuts the hole of a guard or a bolster by the tang where the block begins.
func (o *Handle) slot(w *Work, what string, f blade.Fitting, t *blade.Tang, atMm, axisMm float64) {
	high, thick := t.At(math.Min(atMm, t.LengthMm))
	s := Slot{What: what, Fitting: f, LengthMm: high - underMm, WidthMm: thick - underMm}
	s.DrillMm, s.Holes, s.PitchMm = chain(s.LengthMm, s.WidthMm)
	top := t.TopMm(math.Min(atMm, t.LengthMm)) // below the spine
	s.TopMm = top - (axisMm - f.HeightMm/2)
	if r := &w.Design.Ricasso; what == "guard" || o.Slots == nil {
		s.CoverMm = math.Min(top, r.HeightMm-top-high)
		if w.Design.TangKind != blade.FullTang && s.CoverMm < coverLeastMm {
			o.find("finish.slotShows", fact.Warn, fact.Figures{"coverMm": s.CoverMm, "leastMm": coverLeastMm, "tangMm": high, "ricassoMm": r.HeightMm})
		}
		if a, b := w.Choices.SeatSpineMm, w.Choices.SeatEdgeMm; a > 0 && b > 0 && r.HeightMm > 0 {
			s.ShimMm, s.WedgeDeg = math.Abs(a-b), math.Atan(math.Abs(a-b)/r.HeightMm)*180/math.Pi
		}
	}
	switch {
	case s.TopMm < coverLeastMm || f.HeightMm-s.TopMm-s.LengthMm < coverLeastMm:
		o.find("finish.slotThrough", fact.Stop, fact.Figures{"blockMm": f.HeightMm, "slotMm": s.LengthMm, "needMm": s.LengthMm + 2*coverLeastMm + 2*math.Abs(s.TopMm+s.LengthMm/2-f.HeightMm/2)})
	case f.WidthMm-s.WidthMm < 2*coverLeastMm:
		o.find("finish.slotWide", fact.Stop, fact.Figures{"widthMm": f.WidthMm, "slotMm": s.WidthMm, "needMm": s.WidthMm + 2*coverLeastMm})
	}
	o.Slots = append(o.Slots, s)
}

// bore takes a hidden tang.
func (o *Handle) bore(w *Work, t *blade.Tang, frontMm, wallMm float64) {
	in := t.LengthMm - frontMm
	if in <= 0 {
		o.find("finish.tangShort", fact.Stop, fact.Figures{"tangMm": t.LengthMm, "fittingsMm": frontMm})
		return
	}
	high, thick := t.At(frontMm)
	end, endThick := t.At(t.LengthMm)
	fit := w.Choices.Fit
	if fit == "" {
		fit = Burnt
	}
	b := Bore{Fit: fit, DepthMm: in + boreOverMm, MouthHeightMm: high, MouthWidthMm: thick, EndHeightMm: end, Notches: int(math.Max(2, math.Floor(in/25))), VentMm: 1.5, LeastMm: wallMm}
	if fit != Burnt { // a burnt one is made by the tang itself
		b.MouthHeightMm, b.MouthWidthMm = high+.5, thick+.5
	}
	b.DrillMm = math.Max(2, math.Floor(math.Min(thick, endThick)/drillStepMm)*drillStepMm)
	b.Holes = int(math.Max(1, math.Round(end/(b.DrillMm+webMm))))
	h := w.Design.Handle
	b.AngleDeg = (math.Atan2(t.CentreMm(frontMm)-t.CentreMm(t.LengthMm), in) - math.Atan2(h.ButtDropMm, h.LengthMm)) * 180 / math.Pi
	if fit == Core {
		b.CoreMm = math.Ceil(math.Hypot(high, thick) + 4)
		if least := math.Min(math.Min(h.FrontHeightMm, h.MidHeightMm), math.Min(h.ButtHeightMm, h.WidthMm)) - 2*wallLeastMm; b.CoreMm > least {
			o.find("finish.coreThick", fact.Warn, fact.Figures{"coreMm": b.CoreMm, "mostMm": math.Max(0, least)})
		}
	}
	if wallMm < wallLeastMm {
		o.find("finish.wallThin", severity(wallMm), fact.Figures{"wallMm": wallMm, "leastMm": wallLeastMm})
	}
	if b.DepthMm > h.LengthMm {
		o.find("finish.tangThrough", fact.Note, fact.Figures{"tangMm": in, "gripMm": h.LengthMm})
	}
	o.Bore = &b
	o.Block = Block{h.LengthMm + 2*shapeMm, math.Max(h.FrontHeightMm, math.Max(h.MidHeightMm, h.ButtHeightMm)) + math.Abs(h.ButtDropMm) + 2*shapeMm, h.WidthMm + 2*shapeMm}
}

// severity of a wall: one that is not there cannot be.
func severity(wallMm float64) fact.Severity {
	if wallMm < 0 {
		return fact.Stop
	}
	return fact.Warn
}

// scales lie on a full tang.
func (o *Handle) scales(w *Work, t *blade.Tang, frontMm float64) {
	d, h := &w.Design, w.Design.Handle
	grip := d.Grip()
	highest := 0.0
	for i := range 41 {
		_, high := grip(h.LengthMm * float64(i) / 40)
		highest = math.Max(highest, high)
	}
	thin := math.Min(t.ThicknessAtShoulderMm, t.ThicknessAtEndMm)
	s := Scales{LengthMm: math.Min(h.LengthMm, t.LengthMm-frontMm), HeightMm: highest + 2*shapeMm, ThicknessMm: (h.WidthMm-thin)/2 + 1, Pins: []Pin{}}
	s.TaperDeg = math.Atan((t.ThicknessAtShoulderMm-t.ThicknessAtEndMm)/t.LengthMm) * 180 / math.Pi
	s.GlueHoles = int(math.Max(1, math.Floor(s.LengthMm/glueEveryMm)))
	if (h.WidthMm-math.Max(t.ThicknessAtShoulderMm, t.ThicknessAtEndMm))/2 < wallLeastMm {
		wall := (h.WidthMm - math.Max(t.ThicknessAtShoulderMm, t.ThicknessAtEndMm)) / 2
		o.find("finish.scaleThin", severity(wall), fact.Figures{"wallMm": wall, "leastMm": wallLeastMm})
	}
	for i, hole := range t.Holes {
		if hole.LongMm > hole.DiameterMm {
			continue // a slot that lightens
		}
		p := Pin{AtMm: hole.AtMm, OffMm: hole.OffMm, DiameterMm: hole.DiameterMm, LengthMm: h.WidthMm + pinOverMm}
		p.EdgeMm = t.RimMm(hole)
		s.Pins = append(s.Pins, p)
		n := float64(i + 1)
		switch r := hole.DiameterMm / 2; {
		case p.EdgeMm < pinEdgeMm:
			o.find("finish.pinEdge", pinSeverity(p.EdgeMm), fact.Figures{"hole": n, "edgeMm": p.EdgeMm, "leastMm": pinEdgeMm})
		case hole.AtMm-frontMm-r < pinShoulder:
			o.find("finish.pinFront", fact.Warn, fact.Figures{"hole": n, "fromMm": hole.AtMm - frontMm - r, "leastMm": pinShoulder})
		case t.LengthMm-hole.AtMm-r < pinShoulder:
			o.find("finish.pinEnd", fact.Warn, fact.Figures{"hole": n, "fromMm": t.LengthMm - hole.AtMm - r, "leastMm": pinShoulder})
		}
	}
	if len(s.Pins) == 0 {
		o.find("finish.noPins", fact.Note, fact.Figures{"pinMm": usualPinMm})
	}
	o.Scales = &s
	o.Block = Block{s.LengthMm + 2*shapeMm, s.HeightMm, s.ThicknessMm}
}

func pinSeverity(edgeMm float64) fact.Severity {
	if edgeMm <= 0 {
		return fact.Stop
	}
	return fact.Warn
}

// sections are the grip across: in front, in the middle, at the butt.
func (o *Handle) sections(w *Work, t *blade.Tang, frontMm float64) {
	h := w.Design.Handle
	grip := w.Design.Grip()
	for _, share := range []float64{.02, .5, .98} {
		at := h.LengthMm * share
		axis, high := grip(at)
		s := GripSection{AtMm: at, HeightMm: high, WidthMm: h.WidthMm, Outline: superellipse(high, h.WidthMm)}
		if back := frontMm + at; back < t.LengthMm {
			s.TangHeightMm, s.TangThicknessMm = t.At(back)
			s.TangUpMm = axis - t.TopMm(back) - s.TangHeightMm/2
		}
		o.Sections = append(o.Sections, s)
	}
}

// superellipse is the right half of a grip's section of exponent 3, from its top to its bottom:
// across, and above its middle.
func superellipse(highMm, wideMm float64) (out []blade.Node) {
	const n = 24
	for i := range n + 1 {
		a := math.Pi * (float64(i)/n - .5)
		y := -math.Copysign(math.Pow(math.Abs(math.Sin(a)), 2./3), a)
		x := math.Pow(math.Abs(math.Cos(a)), 2./3)
		out = append(out, blade.Node{x * wideMm / 2, y * highMm / 2})
	}
	return out
}

// checkBlock holds the block there is against what the grip comes out of, any way round.
func (o *Handle) checkBlock(w *Work) {
	b := w.Choices.Block
	if b.LengthMm == 0 && b.HeightMm == 0 && b.WidthMm == 0 {
		return
	}
	if b.LengthMm >= o.Block.LengthMm && (b.HeightMm >= o.Block.HeightMm && b.WidthMm >= o.Block.WidthMm || b.WidthMm >= o.Block.HeightMm && b.HeightMm >= o.Block.WidthMm) {
		return
	}
	o.find("finish.blockSmall", fact.Stop, fact.Figures{"lengthMm": o.Block.LengthMm, "heightMm": o.Block.HeightMm, "widthMm": o.Block.WidthMm})
}

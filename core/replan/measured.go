package replan

import (
	"math"
	"strconv"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/session"
	"coldember/core/steel"

	"gonum.org/v1/gonum/interp"
)

// Place is a reading of the piece: how far from its point as it is now, how high and how thick at the
// spine; what was not read is nought, and is taken as planned.
type Place struct {
	AtMm        float64 `json:"atMm"`
	HeightMm    float64 `json:"heightMm"`
	ThicknessMm float64 `json:"thicknessMm"`
}

// Trust is which to go by where scale and calipers do not agree.
type Trust string

// To be trusted; neither is asked where they agree.
const (
	TrustCalipers Trust = "calipers"
	TrustWeight   Trust = "weight"
)

// Measured is a piece as it was measured.
type Measured struct {
	Stations []Place `json:"stations"`
	LengthMm float64 `json:"lengthMm,omitempty" doc:"of the whole piece; as planned if not said"`
	WeightG  float64 `json:"weightG,omitempty"`
	Trust    Trust   `json:"trust,omitempty" enum:"calipers,weight"`
	Lost     End     `json:"lost,omitempty" enum:"point,tang" doc:"at which end what it is shorter by is gone; its point's if not said"`
	GoodToMm float64 `json:"goodToMm,omitempty" doc:"from its point, how far the blade may be taken from it: to a crack, a weld that did not take, the end of its pattern; all of it if not said"`
}

// End is one of the ends of a piece.
type End string

// Ends of a piece.
const (
	PointEnd End = "point"
	TangEnd  End = "tang"
)

// shift is how far the piece begins behind the planned one.
func (m *Measured) shift(plannedMm float64) float64 {
	if m.LengthMm > 0 && m.LengthMm < plannedMm-sameLengthMm && m.Lost != TangEnd {
		return plannedMm - m.LengthMm
	}
	return 0
}

// Now is the piece as it was planned to be by now.
type Now struct {
	Shape       []plan.Station
	Done        map[string]bool // operations, by id
	InHand      string          // one that was begun
	Share       float64         // of it that is done
	ToComeShare float64         // scale still to come, of the forged volume
	VolumeMm3   float64         // that it was planned to have by now
	WidthMm     float64         // of the bar it is forged from
	ThicknessMm float64
}

// Bounds and tolerances (judgement): of stations; how far scale and calipers may be from each other; how much
// thicker than its bar a piece may have got, upset; and how far beyond a station what it said is believed.
const (
	mostStations  = 60
	weightShare   = .04
	upsetShare    = 1.25
	slackMm       = .3
	believedFor   = 30.0
	slices        = 500
	sameLengthMm  = 1.0
	placedMm      = 1.5 // as near as a place along a blade is told
	mostHighTimes = 3.0
)

// Validate reports what cannot be, at its field. Errors are fact.FieldErrors.
func (m *Measured) Validate(now *Now) error {
	c := fact.NewCheck()
	fact.OneOf(c, "trust", m.Trust, "", TrustCalipers, TrustWeight)
	fact.OneOf(c, "lost", m.Lost, "", PointEnd, TangEnd)
	c.Range("lengthMm", m.LengthMm, 0, 3000)
	c.Range("weightG", m.WeightG, 0, 50_000)
	c.Range("goodToMm", m.GoodToMm, 0, 3000)
	if len(m.Stations) == 0 && m.WeightG == 0 && m.GoodToMm == 0 {
		c.Fail("stations", "replan.none", nil)
	}
	c.Range("stations", float64(len(m.Stations)), 0, mostStations)
	last := math.Inf(-1)
	long := now.Shape[len(now.Shape)-1].XMm
	if m.LengthMm > 0 {
		long = m.LengthMm
	}
	for i, s := range m.Stations {
		at := c.Within("stations").Within(strconv.Itoa(i))
		if s.AtMm <= last {
			at.Fail("atMm", "replan.order", fact.Figures{"limitMm": last})
		}
		last = s.AtMm
		at.Range("atMm", s.AtMm, 0, long)
		if s.HeightMm != 0 {
			at.Range("heightMm", s.HeightMm, .5, mostHighTimes*now.WidthMm)
		}
		if most := upsetShare*now.ThicknessMm + slackMm; s.ThicknessMm > most {
			at.Fail("thicknessMm", "replan.thicker", fact.Figures{"limitMm": most})
		} else if s.ThicknessMm != 0 {
			at.Range("thicknessMm", s.ThicknessMm, .2, most)
		}
	}
	return c.Err()
}

// slice is the piece over a short stretch.
type slice struct {
	station plan.Station
	dx      float64
	mm3     float64
}

// profile is the piece as it is.
type profile struct {
	slices   []slice
	mm3      float64
	caliperG float64 // by the calipers alone
	share    float64 // weight over calipers; 0 without
	goodToMm float64 // a blade may be taken from it; 0 is all of it

	// enough is by how much each cell of the planned piece, zone by zone, seems to fall short of what it becomes.
	enough map[string][]float64
}

// profileOf lays the stations over the planned shape. Where the piece is shorter than planned its point is what is
// missing, since it is measured against marks on its handle's side.
func profileOf(m *Measured, now *Now) profile {
	planned := now.Shape[len(now.Shape)-1].XMm
	long, shift := planned, m.shift(planned)
	if m.LengthMm > 0 {
		long = m.LengthMm
	}
	place := func(x float64) float64 {
		if m.Lost == TangEnd && long < planned {
			return x
		}
		if shift == 0 {
			return x * planned / long
		}
		return x + shift
	}
	was := func(x float64) plan.Station { return between(now.Shape, place(x)) }
	high, thick := ratios(m.Stations, was)
	p := profile{slices: make([]slice, slices), goodToMm: m.GoodToMm}
	dx := long / slices
	for i := range p.slices {
		x := (float64(i) + .5) * dx
		s := was(x)
		h, t := high(x), thick(x)
		s.XMm = x
		mid := (s.SpineY + s.EdgeY) / 2
		half := (s.SpineY - s.EdgeY) / 2 * h
		s.SpineY, s.EdgeY, s.ThicknessMm, s.EdgeMm = mid+half, mid-half, s.ThicknessMm*t, edgeOf(&s)*t
		s.SpineX, s.EdgeX = nil, nil
		p.slices[i] = slice{s, dx, s.HeightMm() * (s.ThicknessMm + s.EdgeMm) / 2 * dx}
		p.mm3 += p.slices[i].mm3
	}
	if now.VolumeMm3 > 0 { // sections are drawn by height, spine and edge alone: what they leave out is in the planned volume
		drawn := 0.0
		for i := range p.slices {
			s := between(now.Shape, (float64(i)+.5)*planned/slices)
			drawn += s.HeightMm() * (s.ThicknessMm + s.EdgeMm) / 2 * planned / slices
		}
		for i := range p.slices {
			p.slices[i].mm3 *= now.VolumeMm3 / drawn
		}
		p.mm3 *= now.VolumeMm3 / drawn
	}
	p.caliperG = p.mm3 * steel.DensityGPerCm3 / 1000
	if m.WeightG > 0 {
		p.share = m.WeightG / p.caliperG
	}
	if m.WeightG > 0 && m.Trust != TrustCalipers {
		p.weigh(m.LengthMm > 0)
	}
	return p
}

// weigh brings the piece to what the scale says: one of known length by its sections, else its end is what is missing,
// or more.
func (p *profile) weigh(long bool) {
	want := p.mm3 * p.share
	if !long && p.share < 1 {
		for p.mm3 > want && len(p.slices) > 2 {
			last := &p.slices[len(p.slices)-1]
			if over := p.mm3 - want; over < last.mm3 {
				last.dx *= 1 - over/last.mm3
				last.mm3 -= over
				p.mm3 = want
				return
			}
			p.mm3 -= last.mm3
			p.slices = p.slices[:len(p.slices)-1]
		}
		return
	}
	if !long {
		last := &p.slices[len(p.slices)-1]
		more := want - p.mm3
		last.dx *= 1 + more/last.mm3
		last.mm3 += more
		p.mm3 = want
		return
	}
	for i := range p.slices {
		p.slices[i].mm3 *= p.share
	}
	p.mm3 = want
}

// differ tells whether scale and calipers are farther apart than either is off, and nobody said which is right. A piece
// that was only weighed has nothing to differ from.
func (p *profile) differ(m *Measured) bool {
	return m.WeightG > 0 && len(m.Stations) > 0 && m.Trust == "" && math.Abs(p.share-1) > weightShare
}

func edgeOf(s *plan.Station) float64 {
	if s.EdgeMm == 0 {
		return s.ThicknessMm
	}
	return s.EdgeMm
}

// between is the shape at a place, straight between its stations.
func between(shape []plan.Station, x float64) plan.Station {
	i := 0
	for i < len(shape)-2 && shape[i+1].XMm < x {
		i++
	}
	a, b := shape[i], shape[min(i+1, len(shape)-1)]
	k := 0.0
	if b.XMm > a.XMm {
		k = math.Max(0, math.Min(1, (x-a.XMm)/(b.XMm-a.XMm)))
	}
	lerp := func(u, v float64) float64 { return u + k*(v-u) }
	out := a
	if k > .5 {
		out.Zone = b.Zone
	}
	// a piece that is bent leans in its drawing: its height is along the section
	mid, half := lerp((a.SpineY+a.EdgeY)/2, (b.SpineY+b.EdgeY)/2), lerp(a.HeightMm(), b.HeightMm())/2
	out.XMm, out.SpineY, out.EdgeY, out.SpineX, out.EdgeX = x, mid+half, mid-half, nil, nil
	out.ThicknessMm, out.EdgeMm = lerp(a.ThicknessMm, b.ThicknessMm), lerp(edgeOf(&a), edgeOf(&b))
	return out
}

// ratios are what was read over what was planned, monotone between the stations (Fritsch and Butland 1984); beyond the
// first and the last it fades out.
func ratios(stations []Place, was func(float64) plan.Station) (high, thick func(float64) float64) {
	one := func(float64) float64 { return 1 }
	if len(stations) == 0 {
		return one, one
	}
	n := len(stations)
	xs, hs, ts := make([]float64, n), make([]float64, n), make([]float64, n)
	for i, s := range stations {
		xs[i] = s.AtMm
		offs := []float64{0}
		if was(s.AtMm-placedMm).Zone != was(s.AtMm+placedMm).Zone { // beside a shoulder it is read on either side
			offs = append(offs, -placedMm, placedMm)
		}
		for k, off := range offs {
			at := was(s.AtMm + off)
			h, t := 1.0, 1.0
			if s.HeightMm > 0 {
				h = s.HeightMm / math.Max(.1, at.HeightMm())
			}
			if s.ThicknessMm > 0 {
				t = s.ThicknessMm / math.Max(.05, at.ThicknessMm)
			}
			if k == 0 || math.Abs(math.Log(h*t)) < math.Abs(math.Log(hs[i]*ts[i])) {
				hs[i], ts[i] = h, t
			}
		}
	}
	fitted := func(ys []float64) func(float64) float64 {
		inner := func(float64) float64 { return ys[0] }
		if n > 1 {
			var f interp.FritschButland
			if f.Fit(xs, ys) == nil {
				inner = f.Predict
			}
		}
		return func(x float64) float64 {
			off := math.Max(0, math.Max(xs[0]-x, x-xs[n-1]))
			return 1 + (inner(math.Max(xs[0], math.Min(xs[n-1], x)))-1)*math.Max(0, 1-off/believedFor)
		}
	}
	return fitted(hs), fitted(ts)
}

// At is the piece of a course as it was planned to be after so many heats, with the steps before this one done.
func At(c *session.Course, heat, step int) Now {
	n := Now{Done: map[string]bool{}, WidthMm: c.Bar.WidthMm, ThicknessMm: c.Bar.ThicknessMm}
	forged := c.ForgedG * 1000 / steel.DensityGPerCm3
	toCome := 0.0
	for i := range c.Heats {
		if h := &c.Heats[i]; h.Number > heat && !c.Cycles(h.Number) {
			toCome += h.ScaleMm3
		}
	}
	n.ToComeShare, n.VolumeMm3 = toCome/forged, forged+toCome
	if heat >= 1 && heat <= len(c.Heats) {
		n.Shape = c.Heats[heat-1].Shape
	}
	if c.Before != nil {
		for _, op := range c.Before.Done {
			n.Done[op] = true
		}
		if len(n.Shape) < 2 {
			n.Shape = c.Before.Shape
		}
	}
	if len(n.Shape) < 2 { // the bar itself
		long := n.VolumeMm3 / (n.WidthMm * n.ThicknessMm)
		n.Shape = []plan.Station{{SpineY: n.WidthMm / 2, EdgeY: -n.WidthMm / 2, ThicknessMm: n.ThicknessMm, Zone: plan.ZoneBlade}, {XMm: long, SpineY: n.WidthMm / 2, EdgeY: -n.WidthMm / 2, ThicknessMm: n.ThicknessMm, Zone: plan.ZoneTang}}
	}
	left := map[string]bool{}
	for i := range c.Steps {
		op := c.Steps[i].Operation
		if i >= step {
			left[op] = true
		}
		n.Done[op] = !left[op]
	}
	if step > 0 && step < len(c.Steps) && c.Steps[step].FromShare > 0 {
		n.InHand, n.Share = c.Steps[step].Operation, c.Steps[step].FromShare
	}
	return n
}

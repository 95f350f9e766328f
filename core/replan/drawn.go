package replan

import (
	"math"
	"sort"

	"coldember/core/plan"
)

// Drawn is a piece as its readings tell it, heat by heat, over how it was planned to be by then: between readings in
// proportion, and as long as its steel then lies. A reading stands for the steel that it was taken on, wherever that comes to lie, until
// another is taken there.
type Drawn struct {
	told []told
	long float64 // share of the length that its sections tell; 0: not measured
}

// told is what a reading says of a place: by how much the size there was off, as a share of the planned one.
type told struct {
	what     plan.Measure
	aheadMm3 float64 // steel between the point and the place
	share    float64
}

// sameSpotMm is how near a reading takes the place of an older one (judgement).
const sameSpotMm = 8.0

// Read takes a reading of a piece that was planned to have this shape then: its place from the point, its size and what that was
// planned to be, mm (0: what the shape is there). What says nothing of a section is passed over.
func (d *Drawn) Read(shape []plan.Station, what plan.Measure, atMm, mm, plannedMm float64) {
	if len(shape) < 2 || mm <= 0 {
		return
	}
	s, share := plan.Station{}, math.Inf(1)
	for _, off := range []float64{0, -placedMm, placedMm} { // beside a shoulder it is read on either side
		at := between(shape, atMm+off)
		planned := map[plan.Measure]float64{plan.Height: at.HeightMm(), plan.Thickness: at.ThicknessMm, plan.EdgeThickness: edgeOf(&at)}[what]
		if planned <= 0 {
			return
		}
		if off == 0 || at.Zone != s.Zone && math.Abs(math.Log(mm/planned)) < math.Abs(math.Log(share)) {
			s, share = at, mm/planned
		}
	}
	if plannedMm > 0 {
		share = mm / plannedMm
	}
	at := told{what, ahead(shape, s.XMm), share}
	spot := sameSpotMm * areaOf(&s)
	kept := []told{at}
	for _, t := range d.told {
		if t.what != what || math.Abs(t.aheadMm3-at.aheadMm3) > spot {
			kept = append(kept, t)
		}
	}
	d.told = kept
}

// Long takes how long the whole piece was that was planned to have this shape then, mm: its stretches are off alike.
func (d *Drawn) Long(shape []plan.Station, mm float64) {
	d.long = 0
	if out := d.Shape(shape); len(out) > 1 && mm > out[0].XMm {
		d.long = (mm - out[0].XMm) / (out[len(out)-1].XMm - out[0].XMm)
	}
}

// Shape is the piece that was planned to have this shape by now, as it is told.
func (d *Drawn) Shape(shape []plan.Station) []plan.Station {
	if len(shape) < 2 || len(d.told) == 0 && d.long == 0 {
		return shape
	}
	shares := func(what plan.Measure) func(float64) float64 {
		var at []Place
		for _, t := range d.told {
			if t.what == what {
				at = append(at, Place{AtMm: placeOf(shape, t.aheadMm3), HeightMm: t.share})
			}
		}
		sort.Slice(at, func(i, k int) bool { return at[i].AtMm < at[k].AtMm })
		xs := at[:0]
		for _, p := range at { // two that came to lie together are one
			if n := len(xs); n > 0 && p.AtMm-xs[n-1].AtMm < 1e-3 {
				xs[n-1].HeightMm = p.HeightMm
				continue
			}
			xs = append(xs, p)
		}
		by, _ := ratios(xs, func(x float64) plan.Station { return plan.Station{XMm: x, SpineY: 1, ThicknessMm: 1} })
		return by
	}
	high, thick := shares(plan.Height), shares(plan.Thickness)
	edge := thick // where nobody read it, it is off as the spine is
	for _, t := range d.told {
		if t.what == plan.EdgeThickness {
			edge = shares(plan.EdgeThickness)
			break
		}
	}
	out := make([]plan.Station, len(shape))
	x, was, long := shape[0].XMm, 0.0, 1.0 // was: planned area over that told, before
	if d.long > 0 {
		long = d.long
	}
	for i := range shape {
		s := shape[i]
		h, t, e := high(s.XMm), thick(s.XMm), edge(s.XMm)
		area := areaOf(&s)
		mid, half := (s.SpineY+s.EdgeY)/2, s.HeightMm()/2*h
		spine := s.ThicknessMm * t
		bevelled := edgeOf(&s) * e
		s.SpineY, s.EdgeY, s.SpineX, s.EdgeX, s.ThicknessMm = mid+half, mid-half, nil, nil, spine
		s.EdgeMm = math.Min(bevelled, spine)
		stretch := area / math.Max(1e-9, areaOf(&s))
		if i > 0 {
			x += (shape[i].XMm - shape[i-1].XMm) * (stretch + was) / 2 * long
		}
		was, s.XMm = stretch, x
		out[i] = s
	}
	return out
}

func areaOf(s *plan.Station) float64 { return s.HeightMm() * (s.ThicknessMm + edgeOf(s)) / 2 }

// ahead is the steel between the point and a place, mm³.
func ahead(shape []plan.Station, atMm float64) (mm3 float64) {
	for i := 1; i < len(shape); i++ {
		a, b := &shape[i-1], &shape[i]
		if b.XMm <= a.XMm {
			continue
		}
		k := math.Min(1, (atMm-a.XMm)/(b.XMm-a.XMm))
		if k <= 0 {
			break
		}
		mm3 += k * (b.XMm - a.XMm) * (areaOf(a)*(2-k) + areaOf(b)*k) / 2
	}
	return mm3
}

// placeOf is where so much steel lies ahead.
func placeOf(shape []plan.Station, mm3 float64) float64 {
	low, high := shape[0].XMm, shape[len(shape)-1].XMm
	for range 50 {
		mid := (low + high) / 2
		if ahead(shape, mid) < mm3 {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2
}

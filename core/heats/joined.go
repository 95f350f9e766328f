package heats

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
)

// doneShare is how much of a punching or welding has to be done in a heat for its result to be
// drawn after it: all but rounding.
const doneShare = 1 - 1e-6

// drawJoined draws into every heat what is opened, welded in or punched through by its end, and
// into the forged shape what the last of them leaves.
func drawJoined(r *route.Route, p *plan.Plan) {
	bit := r.BitPlan()
	var holes []blade.Hole
	for _, h := range r.Req.Design.Tang.Holes {
		if h.Made == blade.Punched {
			holes = append(holes, h)
		}
	}
	if bit == nil && len(holes) == 0 {
		return
	}
	opened, punched := false, 0
	for i := range p.Heats {
		h := &p.Heats[i]
		for _, part := range h.Parts {
			switch k := plan.KindOf(part.Operation); {
			case k == forge.Slit || k == forge.Scarf || k == forge.WeldBit:
				opened = opened || part.ToShare >= doneShare
			case k == forge.Punch && part.ToShare >= doneShare:
				punched = min(len(holes), punched+1)
			}
		}
		j := plan.Joined{}
		if opened && bit != nil {
			j.Seam = seam(r, h.Shape)
		}
		for _, hole := range holes[:punched] {
			j.Holes = append(j.Holes, through(r, h.Shape, hole))
		}
		if len(j.Seam) > 0 || len(j.Holes) > 0 {
			h.Joined, p.Drawing.Joined = &j, &j
		}
	}
}

// station is where in a drawn shape a place of the forged one lies, as an index that may lie
// between two stations.
func station(r *route.Route, forgedMm float64) float64 {
	at := 0
	for i := range r.Cells {
		c := &r.Cells[i]
		if forgedMm > c.ToMm && i < len(r.Cells)-1 {
			at += len(c.Drawn)
			continue
		}
		share := (forgedMm - c.FromMm) / (c.ToMm - c.FromMm)
		for k := 1; k < len(c.Drawn); k++ {
			if a, b := c.Drawn[k-1].Share, c.Drawn[k].Share; share <= b || k == len(c.Drawn)-1 {
				return float64(at+k-1) + math.Max(0, math.Min(1, (share-a)/(b-a)))
			}
		}
		return float64(at)
	}
	return float64(at)
}

// across is a place of a drawn shape, so far from its edge toward its spine.
func across(shape []plan.Station, at, share float64) blade.Node {
	i := min(int(at), len(shape)-1)
	k := min(i+1, len(shape)-1)
	of := func(s *plan.Station) (x, y float64) {
		ex, ey := s.Edge()
		sx, sy := s.Spine()
		return ex + share*(sx-ex), ey + share*(sy-ey)
	}
	x, y := of(&shape[i])
	u, v := of(&shape[k])
	f := at - float64(i)
	return blade.Node{round(x + f*(u-x)), round(y + f*(v-y))}
}

func round(mm float64) float64 { return math.Round(mm*1000) / 1000 }

// seam is where bit and body meet: up from the edge where the bit ends, and on to the point, as
// deep as the share of the bar's width that it took.
func seam(r *route.Route, shape []plan.Station) []blade.Node {
	end := station(r, r.BitEndMm())
	share := math.Min(1, r.Req.Bit.WidthMm/r.Bar.WidthMm)
	out := []blade.Node{across(shape, end, 0), across(shape, end, share)}
	for i := int(math.Ceil(end)) - 1; i >= 0; i-- {
		out = append(out, across(shape, float64(i), share))
	}
	return out
}

// through is a punched hole in a drawn shape.
func through(r *route.Route, shape []plan.Station, h blade.Hole) plan.DrawnHole {
	shoulder := 0.0
	for i := range r.Cells {
		if r.Cells[i].Zone == plan.ZoneTang {
			shoulder = r.Cells[i].FromMm
			break
		}
	}
	n := across(shape, station(r, shoulder+h.AtMm), .5)
	return plan.DrawnHole{XMm: n[0], YMm: round(n[1] + h.OffMm), DiameterMm: h.DiameterMm, LongMm: h.LongMm}
}

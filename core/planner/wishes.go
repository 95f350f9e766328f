package planner

import (
	"math"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/plan"
)

// leastWallMm is what a hollow has to leave between its middles (judgement: a thinner wall flexes and
// burns in grinding. .8–1.5).
const leastWallMm = 1.0

// Wishes are what the faces of a twisted blade can be made to show, and what each takes; where it
// lies deeper than the faces, the hollow that reaches it. None where its bar is not twisted. Errors
// are *blade.Error and *billet.Error.
func Wishes(req *plan.Request, p *plan.Plan) ([]billet.Wish, error) {
	b, ok, err := Etched(req, p, 0, false)
	if err != nil || !ok {
		return []billet.Wish{}, err
	}
	out := b.Wishes(p.Bar.ThicknessMm)
	for i := range out {
		w := &out[i]
		if _, hi, deep := billet.Shown(w.Want); deep && !w.Shows && w.Now > hi {
			w.Hollow = hollowTo(req, b, hi)
		}
	}
	return out, nil
}

// HollowOf is a strip hollowed so deep in both faces of a design.
func HollowOf(d blade.Design, depthMm float64) blade.Design {
	g := blade.NewGroove("strip", d)
	g.DepthMm = depthMm
	d.Grind.Groove = g
	return d
}

// hollowTo is the shallowest hollow whose middle lies at a share of what was forged; nil where it
// would leave too thin a wall, or the blade has a groove already.
func hollowTo(req *plan.Request, b *billet.Blade, share float64) *billet.Hollow {
	if req.Design.Grind.Groove != nil {
		return nil
	}
	at := func(deep float64) (now, wall float64, ok bool) {
		d := HollowOf(req.Design, deep)
		check := fact.NewCheck()
		if d.Validate(check); check.Err() != nil {
			return 0, 0, false
		}
		body, err := blade.New(d.Blade())
		if err != nil {
			return 0, 0, false
		}
		v := *b
		v.Finished = body
		now, _ = v.Depth()
		return now, wallOf(body), true
	}
	lo, hi := 0.0, 0.0
	for deep := .05; deep < req.Design.SpineMm/2; deep += .05 {
		now, wall, ok := at(deep)
		if !ok || wall < leastWallMm {
			return nil
		}
		if now <= share {
			hi = deep
			break
		}
		lo = deep
	}
	if hi == 0 {
		return nil
	}
	for hi-lo > .002 {
		if now, _, ok := at((lo + hi) / 2); ok && now <= share {
			hi = (lo + hi) / 2
		} else {
			lo = (lo + hi) / 2
		}
	}
	hi = math.Ceil(hi*100) / 100
	_, wall, ok := at(hi)
	if !ok || wall < leastWallMm {
		return nil
	}
	return &billet.Hollow{DepthMm: hi, WallMm: wall}
}

// wallOf is the thinnest that the middle of a hollow leaves.
func wallOf(b *blade.Body) float64 {
	least := math.Inf(1)
	const n = 60
	for i := range n {
		s := b.SectionAt(b.LengthMm() * (float64(i) + .5) / n)
		if len(s.Grooves) > 0 {
			least = math.Min(least, s.ThicknessAt((s.Grooves[0].LowMm+s.Grooves[0].HighMm)/2))
		}
	}
	return least
}

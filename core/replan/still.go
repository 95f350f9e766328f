package replan

import (
	"context"
	"errors"
	"math"
	"runtime"
	"sort"
	"sync"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/steel"
)

// Way is what a piece can still become.
type Way struct {
	What       string           `json:"what" enum:"asPlanned,lessGrinding,moved,shorter,lower,thinner,pattern,heal"`
	Name       string           `json:"name,omitempty" doc:"of the other pattern"`
	Design     blade.Design     `json:"design"`
	Allowances blade.Allowances `json:"allowances"`
	Figures    fact.Figures     `json:"figures"`
	GivenUp    float64          `json:"givenUpShare" doc:"of the planned blade, and for what is another knife, a little more"`
	MassG      float64          `json:"massG" doc:"of the finished blade"`
	Heats      int              `json:"heats" doc:"to go"`
	Blows      int              `json:"blows"`
	TimeS      float64          `json:"timeS"`
	SpareG     float64          `json:"spareG" doc:"of the piece that is left over behind it"`
	Forged     []plan.Station   `json:"forged" doc:"what it is forged to"`
	Misses     []Miss           `json:"misses,omitempty" doc:"where it does not come to that within .3 mm, and why: the worst of blade and ricasso"`
}

// Remains is what a measured piece comes to.
type Remains struct {
	MassG     float64        `json:"massG"`
	CaliperG  float64        `json:"caliperG" doc:"by the calipers alone"`
	Share     float64        `json:"weightShare,omitempty" doc:"weight over calipers"`
	Differ    bool           `json:"differ,omitempty" doc:"by more than either is off: which to trust is to be said"`
	NeedG     float64        `json:"needG" doc:"what the planned piece still takes, scale to come with it"`
	Enough    bool           `json:"enough"`
	StopMm    float64        `json:"stopMm" doc:"how long a blade of the planned section there is steel for"`
	Worst     *Short         `json:"worst,omitempty"`
	Heal      *Heal          `json:"heal,omitempty"`
	AsIs      []plan.Station `json:"asIs"`
	AsPlanned []plan.Station `json:"asPlanned"`
	Ways      []Way          `json:"ways"`
}

// Other is a pattern of the library.
type Other struct {
	Name       string
	Design     blade.Design
	Allowances blade.Allowances
}

// How far a piece is changed to save it, and what that costs beside its steel (judgement).
const (
	mostGrinding  = .8
	mostTang      = .4
	mostOff       = .45
	coarseSteps   = 7
	searchSteps   = 5
	grindingCosts = .03
	tangCosts     = .04
	patternCosts  = .15
	healCosts     = .02
	leastFaceMm   = .1
	mostPatterns  = 6
	mostGivenUp   = .6
	upsetFree     = 3.0 // times the thickness that may stand free
)

// asking is one asking.
type asking struct {
	req     plan.Request
	m       *Measured
	now     *Now
	p       profile
	was     blade.Measures
	toCome  float64
	planned *planner.Laid
}

// Still is what the piece of a request can still become, by how little is given up: each way fits what was
// measured everywhere, and is planned from it. Errors are fact.FieldErrors, or the context's.
func Still(ctx context.Context, req plan.Request, m Measured, now Now, others []Other) (*Remains, error) {
	a, out, err := ask(req, m, now)
	if err != nil || out.Differ {
		return out, err
	}
	var found []*candidate
	if c := a.try("asPlanned", req, fact.Figures{}, 0); c != nil {
		found = append(found, c)
	} else {
		found = a.changed()
		found = append(found, a.patterns(ctx, others)...)
		if h := a.healed(out); h != nil {
			found = append(found, h)
		}
	}
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	sort.SliceStable(found, func(i, j int) bool { return found[i].way.GivenUp < found[j].way.GivenUp })
	ways := make([]*Way, len(found))
	errs := make([]error, len(found))
	var wait sync.WaitGroup
	gate := make(chan struct{}, runtime.GOMAXPROCS(0))
	for i, c := range found {
		wait.Go(func() {
			gate <- struct{}{}
			defer func() { <-gate }()
			ways[i], errs[i] = c.plan(ctx, a)
		})
	}
	wait.Wait()
	for i, w := range ways {
		var fields fact.FieldErrors
		if errs[i] != nil && !errors.As(errs[i], &fields) {
			return nil, errs[i]
		}
		if w != nil { // one that this hammer cannot forge is no way
			out.Ways = append(out.Ways, *w)
		}
	}
	return out, nil
}

// Take is the plan of one of the ways, from the piece as it is: its request, and the plan of what is left. ok is
// false where that way is not open (any more).
func Take(ctx context.Context, req plan.Request, m Measured, now Now, others []Other, what, name string) (plan.Request, *plan.Plan, bool, error) {
	a, out, err := ask(req, m, now)
	if err != nil || out.Differ {
		return req, nil, false, err
	}
	var found []*candidate
	switch what {
	case "asPlanned":
		if c := a.try("asPlanned", req, fact.Figures{}, 0); c != nil {
			found = append(found, c)
		}
	case "pattern":
		found = a.patterns(ctx, others)
	case "heal":
		if h := a.healed(out); h != nil {
			found = append(found, h)
		}
	default:
		found = a.changed()
	}
	for _, c := range found {
		if c.way.What != what || c.way.Name != name {
			continue
		}
		p, err := c.laid.GoOn(ctx, c.begun(&now), c.on.done(now.Done, a.asItWas(c.laid)))
		return c.req, p, err == nil, err
	}
	return req, nil, false, nil
}

func ask(req plan.Request, m Measured, now Now) (*asking, *Remains, error) {
	if err := m.Validate(&now); err != nil {
		return nil, nil, err
	}
	laid, err := planner.LayOut(req)
	if err != nil {
		return nil, nil, err
	}
	body, err := blade.New(req.Design.Blade())
	if err != nil {
		return nil, nil, plan.FieldError(err)
	}
	a := &asking{req: req, m: &m, now: &now, p: profileOf(&m, &now), was: body.Measure(), toCome: now.ToComeShare, planned: laid}
	asItWas := profileOf(&Measured{}, &now)
	a.p.calibrate(&asItWas, laid, a.toCome)
	on := a.p.lay(laid, a.toCome)
	out := &Remains{
		MassG: a.p.mm3 * steel.DensityGPerCm3 / 1000, CaliperG: a.p.caliperG, Share: a.p.share, Differ: a.p.differ(&m),
		NeedG: on.needMm3 * steel.DensityGPerCm3 / 1000, Worst: on.worst(), AsPlanned: now.Shape, Ways: []Way{},
	}
	for i := 0; i < len(a.p.slices); i += 4 {
		out.AsIs = append(out.AsIs, a.p.slices[i].station)
	}
	if out.Worst != nil {
		if read := a.leastOf(); read != nil { // what was read says where it went wrong better than what it then lacks
			out.Worst = read
		}
	}
	out.Enough = a.p.mm3 >= on.needMm3*(1-weightShare/2)
	out.StopMm = a.stop()
	if out.Worst != nil {
		h := a.heal(out.Worst, out.Enough)
		out.Heal = &h
	}
	return a, out, nil
}

// candidate is a way that fits, not planned yet.
type candidate struct {
	way  Way
	req  plan.Request
	laid *planner.Laid
	on   laid
}

// try holds a request against the piece; nil where it does not fit.
func (a *asking) try(what string, req plan.Request, f fact.Figures, costs float64) *candidate {
	l, err := planner.LayOut(req)
	if err != nil {
		return nil
	}
	on := a.p.lay(l, a.toCome)
	if len(on.short) > 0 {
		return nil
	}
	body, err := blade.New(req.Design.Blade())
	if err != nil {
		return nil
	}
	m := body.Measure()
	return &candidate{
		way: Way{
			What: what, Design: req.Design, Allowances: req.Allowances, Figures: f, MassG: m.MassG, GivenUp: math.Max(0, 1-m.VolumeMm3/a.was.VolumeMm3) + costs,
			SpareG: (a.p.mm3 - on.needMm3) * steel.DensityGPerCm3 / 1000,
		}, req: req, laid: l, on: on,
	}
}

// asItWas is the piece as it was planned to be, over what is laid out.
func (a *asking) asItWas(l *planner.Laid) *laid {
	p := profileOf(&Measured{}, a.now)
	on := p.laidFrom(l, a.toCome, 0)
	return &on
}

// begun is the piece as it goes on.
func (c *candidate) begun(now *Now) heats.Begun {
	return heats.Begun{Bar: c.on.bar, InHand: now.InHand, Share: now.Share}
}

// plan fills in what a way takes from here.
func (c *candidate) plan(ctx context.Context, a *asking) (*Way, error) {
	p, err := c.laid.GoOn(ctx, c.begun(a.now), c.on.done(a.now.Done, a.asItWas(c.laid)))
	if err != nil {
		return nil, err
	}
	w := c.way
	w.Heats, w.Blows, w.TimeS, w.Forged = p.Totals.Heats, p.Totals.Blows, p.Totals.TimeS, p.Drawing.Forged
	if n := p.Totals.Heats; n > 0 && n <= len(p.Heats) {
		w.Misses = missesOf(p.Heats[n-1].Shape, p.Drawing.Forged)
	}
	return &w, nil
}

// search is the least change, from nothing to most, with which all of it fits; nil where none does.
func (a *asking) search(what string, most float64, change func(f float64) (plan.Request, fact.Figures, float64)) *candidate {
	at := func(f float64) *candidate {
		req, figures, costs := change(f)
		return a.try(what, req, figures, costs)
	}
	for k := 1.0; k <= coarseSteps; k++ {
		best := at(most * k / coarseSteps)
		if best == nil {
			continue
		}
		lo, hi := most*(k-1)/coarseSteps, most*k/coarseSteps
		for range searchSteps {
			mid := (lo + hi) / 2
			if c := at(mid); c != nil {
				best, hi = c, mid
			} else {
				lo = mid
			}
		}
		return best
	}
	return nil
}

// changed are the ways that keep the pattern.
func (a *asking) changed() []*candidate {
	var out []*candidate
	take := func(c *candidate) {
		if c != nil {
			out = append(out, c)
		}
	}
	d := a.req.Design
	with := func(d blade.Design) plan.Request {
		r := a.req
		r.Design = d
		return r
	}
	take(a.search("lessGrinding", mostGrinding, func(f float64) (plan.Request, fact.Figures, float64) {
		r := a.req
		r.Allowances.FaceMm = math.Max(math.Min(leastFaceMm, r.Allowances.FaceMm), r.Allowances.FaceMm*(1-f))
		r.Allowances.OutlineMm *= 1 - f
		return r, fact.Figures{"faceMm": r.Allowances.FaceMm, "outlineMm": r.Allowances.OutlineMm, "wasMm": a.req.Allowances.FaceMm}, grindingCosts * f
	}))
	take(a.search("moved", mostTang, func(f float64) (plan.Request, fact.Figures, float64) {
		by := d.Tang.LengthMm * f
		n := d
		n.Tang.LengthMm -= by
		return with(n), fact.Figures{"byMm": by, "tangMm": n.Tang.LengthMm}, tangCosts * f
	}))
	take(a.search("shorter", mostOff, func(f float64) (plan.Request, fact.Figures, float64) {
		by := d.LengthMm * f
		return with(d.Shorter(by)), fact.Figures{"byMm": by, "lengthMm": d.LengthMm - by}, 0
	}))
	take(a.search("lower", mostOff, func(f float64) (plan.Request, fact.Figures, float64) {
		by := d.HeightMm * f
		return with(d.Lower(by)), fact.Figures{"byMm": by, "heightMm": d.HeightMm - by}, 0
	}))
	take(a.search("thinner", mostOff, func(f float64) (plan.Request, fact.Figures, float64) {
		n := d.Thinner(1 - f)
		return with(n), fact.Figures{"spineMm": n.SpineMm, "wasMm": d.SpineMm}, 0
	}))
	return out
}

// patterns are others of the library that fit this steel now, as large as it still gives them.
func (a *asking) patterns(ctx context.Context, others []Other) []*candidate {
	var out []*candidate
	for _, o := range others {
		if ctx.Err() != nil || len(out) >= mostPatterns {
			break
		}
		if d := &a.req.Design; o.Design.Shape == d.Shape && o.Design.LengthMm == d.LengthMm && o.Design.HeightMm == d.HeightMm {
			continue // what was planned, by its own name
		}
		if o.Design.LengthMm > a.req.Design.LengthMm*1.05 || o.Design.LengthMm < a.req.Design.LengthMm*(1-mostOff) {
			continue
		}
		for _, k := range []float64{1, .9, .8} {
			r := a.req
			r.Design = o.Design.Scaled(k, k, 1)
			r.Design.SpineMm = math.Min(r.Design.SpineMm, a.req.Design.SpineMm)
			c := a.try("pattern", r, fact.Figures{"lengthMm": r.Design.LengthMm, "heightMm": r.Design.HeightMm}, patternCosts)
			if c != nil && c.way.GivenUp > mostGivenUp {
				break // another knife altogether
			}
			if c != nil {
				c.way.Name = o.Name
				out = append(out, c)
				break
			}
		}
	}
	return out
}

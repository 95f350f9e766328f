package whatif

import (
	"context"
	"errors"
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
)

// tryPlan makes a plan where a request that cannot be is an answer too: nil.
func tryPlan(ctx context.Context, req plan.Request) (*plan.Plan, error) {
	p, err := planner.Make(ctx, req)
	var fe fact.FieldErrors
	if errors.As(err, &fe) {
		return nil, nil
	}
	return p, err
}

// Axis says whether one direction of a pattern may be scaled, and how far.
type Axis struct {
	Free    bool    `json:"free"`
	Lowest  float64 `json:"lowestShare"`
	Highest float64 `json:"highestShare"`
}

// Freedom is what may be scaled to use a piece of stock up.
type Freedom struct {
	Length    Axis `json:"length"`
	Height    Axis `json:"height"`
	Thickness Axis `json:"thickness"`
	// Rough answers from plans of few cells, within two in a hundred: enough to
	// put a library in order.
	Rough bool `json:"-"`
}

// AnyWay lets every direction scale alike within what a hand forges.
func AnyWay() Freedom {
	a := Axis{Free: true, Lowest: .3, Highest: 4}
	return Freedom{Length: a, Height: a, Thickness: a}
}

// Validate reports every limit that cannot be.
func (f Freedom) Validate() error {
	c := fact.NewCheck()
	free := false
	for name, a := range map[string]Axis{"length": f.Length, "height": f.Height, "thickness": f.Thickness} {
		if !a.Free {
			continue
		}
		free = true
		w := c.Within(name)
		w.Range("lowestShare", a.Lowest, .05, 20)
		w.Range("highestShare", a.Highest, math.Max(a.Lowest, .05), 20)
	}
	if !free {
		c.Fail("length", "plan.nothingFree", nil)
	}
	return c.Err()
}

// at is the factor of an axis when all are driven by s.
func (a Axis) at(s float64) float64 {
	if !a.Free {
		return 1
	}
	return math.Max(a.Lowest, math.Min(a.Highest, s))
}

// Fit is the largest blade of a pattern that a piece of stock gives.
type Fit struct {
	Length    float64 `json:"lengthShare"`
	Height    float64 `json:"heightShare"`
	Thickness float64 `json:"thicknessShare"`
	// Limit is what stops it from being larger: volume; "heat" where there is a
	// little more of it, but a hair more takes another heat and its scale; the
	// code of the obstacle; or "limits" where every free direction is at its end.
	Limit  string       `json:"limit"`
	Design blade.Design `json:"design"`
	Plan   *plan.Plan   `json:"plan"`
}

// NoFitError says that not even the smallest blade within the limits comes of
// the piece, and why.
type NoFitError struct{ Why fact.Warning }

func (e *NoFitError) Error() string { return "plan: nothing within the limits fits: " + e.Why.Code }

// Precision of the largest blade: halvings with plans of few cells, then with
// whole ones in a margin around what they found.
const (
	coarseCells    = 14
	coarseHalvings = 7
	coarseMargin   = 0.02
	fineHalvings   = 11
)

// trial tries a pattern at sizes, on plans of so many cells (0: whole ones). It
// notes what stood in the way of the last size that did not fit.
type trial struct {
	ctx     context.Context
	req     plan.Request
	freedom Freedom
	cells   int
	limit   fact.Warning
}

// at is the plan of a size; nil where it does not fit.
func (t *trial) at(s float64) (*plan.Plan, error) {
	r := scaled(t.req, t.freedom, s)
	if t.cells > 0 {
		r.CellCount = t.cells
	}
	p, err := tryPlan(t.ctx, r)
	if p == nil || err != nil {
		return nil, err
	}
	if o := p.Obstacle(); o.Code != "" {
		t.limit = o
		return nil, nil
	}
	return p, nil
}

// halve closes in on the largest size that fits between one that does and one that
// does not.
func (t *trial) halve(best *plan.Plan, lo, hi float64, times int) (*plan.Plan, float64, float64, error) {
	for range times {
		if lo == hi {
			break
		}
		mid := (lo + hi) / 2
		p, err := t.at(mid)
		switch {
		case err != nil:
			return nil, lo, hi, err
		case p == nil:
			hi = mid
		default:
			lo, best = mid, p
		}
	}
	return best, lo, hi, nil
}

// span is from the least to the largest factor of the directions that are free.
func (f Freedom) span() (lo, hi float64) {
	lo = math.Inf(1)
	for _, a := range []Axis{f.Length, f.Height, f.Thickness} {
		if a.Free {
			lo, hi = math.Min(lo, a.Lowest), math.Max(hi, a.Highest)
		}
	}
	return lo, hi
}

// Largest scales the pattern of the request, in the directions that are free,
// until it uses the stock up or an obstacle comes: the same sizing as forward,
// asked backward. Errors are fact.FieldErrors, *NoFitError or the context's.
func Largest(ctx context.Context, req plan.Request, f Freedom) (*Fit, error) {
	if err := f.Validate(); err != nil {
		return nil, err
	}
	// coarsely first: a plan of few cells finds the neighbourhood
	t := &trial{ctx: ctx, req: req, freedom: f, cells: coarseCells}
	lo, hi := f.span()
	best, lo, hi, err := descend(t.at, lo, hi)
	if best != nil && err == nil {
		best, lo, hi, err = t.halve(best, lo, hi, coarseHalvings)
	}
	switch {
	case err != nil:
		return nil, err
	case best == nil:
		return nil, t.nothing()
	case f.Rough:
		return fit(req, f, lo, t.limit.Code, best), nil
	}
	return t.finely(lo, hi)
}

// nothing is why no size fits.
func (t *trial) nothing() error {
	if t.limit.Code != "" {
		return &NoFitError{Why: t.limit}
	}
	if _, err := planner.Make(t.ctx, t.req); err != nil {
		return err
	}
	return fact.FieldErrors{{Field: "length", Code: "plan.nothingFits"}}
}

// finely closes in with whole plans, from a little to either side of what the plans
// of few cells found.
func (t *trial) finely(lo, hi float64) (*Fit, error) {
	t.cells = 0
	_, top := t.freedom.span()
	wide := lo
	lo, hi = lo*(1-coarseMargin), math.Min(top, hi*(1+coarseMargin))
	best, err := t.at(hi)
	if err != nil {
		return nil, err
	}
	if best != nil {
		return fit(t.req, t.freedom, hi, "limits", best), nil
	}
	if best, err = t.at(lo); err != nil {
		return nil, err
	}
	for best == nil { // the coarse plan was too hopeful
		if lo /= 1 + coarseMargin; lo < wide/2 {
			return nil, &NoFitError{Why: t.limit}
		}
		if best, err = t.at(lo); err != nil {
			return nil, err
		}
	}
	if best, lo, _, err = t.halve(best, lo, hi, fineHalvings); err != nil {
		return nil, err
	}
	code := t.limit.Code
	if code == "warn.volumeShort" {
		if code = "volume"; best.Bar.AvailableMm-best.Bar.CutLengthMm > usedUp*best.Bar.AvailableMm {
			code = "heat"
		}
	}
	return fit(t.req, t.freedom, lo, code, best), nil
}

// usedUp is the share of a piece that counts as nothing where all of it is used.
const usedUp = 1e-3

// ladderRungs is how many sizes are tried between the limits.
const ladderRungs = 14

// descend finds the largest rung that fits, and the one above it; both are the
// top where that fits.
func descend(try func(float64) (*plan.Plan, error), lo, hi float64) (best *plan.Plan, at, above float64, err error) {
	above = hi
	for i := range ladderRungs + 1 {
		at = hi * math.Pow(lo/hi, float64(i)/ladderRungs)
		if best, err = try(at); best != nil || err != nil {
			return best, at, above, err
		}
		above = at
	}
	return nil, lo, hi, nil
}

func scaled(r plan.Request, f Freedom, s float64) plan.Request {
	r.Design = r.Design.Scaled(f.Length.at(s), f.Height.at(s), f.Thickness.at(s))
	return r
}

func fit(r plan.Request, f Freedom, s float64, limit string, p *plan.Plan) *Fit {
	return &Fit{
		Length: f.Length.at(s), Height: f.Height.at(s), Thickness: f.Thickness.at(s),
		Limit: limit, Design: scaled(r, f, s).Design, Plan: p,
	}
}

// UniformFactor is how much a blade (allowances nought) must be scaled in every
// direction to use up a volume less its loss: volumes go with the cube.
func UniformFactor(bladeMm3, stockMm3, lossFraction float64) (factor, usedMm3 float64) {
	usedMm3 = stockMm3 * (1 - lossFraction)
	return math.Cbrt(usedMm3 / bladeMm3), usedMm3
}

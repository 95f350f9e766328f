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
	// Limit is what stops it from being larger: volume, or the code of the
	// obstacle, or "limits" where every free direction is at its end.
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

// top is the largest factor of an axis.
func (a Axis) top() float64 {
	if !a.Free {
		return 0
	}
	return a.Highest
}

// Largest scales the pattern of the request, in the directions that are free,
// until it uses the stock up or an obstacle comes: the same sizing as forward,
// asked backward. Errors are fact.FieldErrors, *NoFitError or the context's.
func Largest(ctx context.Context, req plan.Request, f Freedom) (*Fit, error) {
	if err := f.Validate(); err != nil {
		return nil, err
	}
	lo, hi := math.Inf(1), 0.0
	for _, a := range []Axis{f.Length, f.Height, f.Thickness} {
		if a.Free {
			lo, hi = math.Min(lo, a.Lowest), math.Max(hi, a.Highest)
		}
	}
	limit := fact.Warning{}
	trial := func(cells int) func(float64) (*plan.Plan, error) {
		return func(s float64) (*plan.Plan, error) {
			r := scaled(req, f, s)
			if cells > 0 {
				r.CellCount = cells
			}
			p, err := tryPlan(ctx, r)
			if p == nil || err != nil {
				return nil, err
			}
			if o := p.Obstacle(); o.Code != "" {
				limit = o
				return nil, nil
			}
			return p, nil
		}
	}
	// coarsely first: a plan of few cells finds the neighbourhood
	best, lo, hi, err := descend(trial(coarseCells), lo, hi)
	for range coarseHalvings {
		if best == nil || err != nil || lo == hi {
			break
		}
		mid := (lo + hi) / 2
		var p *plan.Plan
		if p, err = trial(coarseCells)(mid); p == nil {
			hi = mid
		} else {
			lo, best = mid, p
		}
	}
	top := math.Max(math.Max(f.Length.top(), f.Height.top()), f.Thickness.top())
	switch {
	case err != nil:
		return nil, err
	case best == nil && limit.Code == "":
		_, err := planner.Make(ctx, req)
		if err == nil {
			err = fact.FieldErrors{{Field: "length", Code: "plan.nothingFits"}}
		}
		return nil, err
	case best == nil:
		return nil, &NoFitError{Why: limit}
	}
	if f.Rough {
		return fit(req, f, lo, limit.Code, best), nil
	}
	// then finely, from a little to either side
	fine := trial(0)
	wide := lo
	lo, hi = lo*(1-coarseMargin), math.Min(top, hi*(1+coarseMargin))
	if best, err = fine(hi); err != nil {
		return nil, err
	}
	if best != nil {
		return fit(req, f, hi, "limits", best), nil
	}
	if best, err = fine(lo); err != nil {
		return nil, err
	}
	for best == nil { // the coarse plan was too hopeful
		if lo /= 1 + coarseMargin; lo < wide/2 {
			return nil, &NoFitError{Why: limit}
		}
		if best, err = fine(lo); err != nil {
			return nil, err
		}
	}
	for range fineHalvings {
		mid := (lo + hi) / 2
		p, err := fine(mid)
		switch {
		case err != nil:
			return nil, err
		case p == nil:
			hi = mid
		default:
			lo, best = mid, p
		}
	}
	code := limit.Code
	if code == "warn.volumeShort" {
		code = "volume"
	}
	return fit(req, f, lo, code, best), nil
}

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

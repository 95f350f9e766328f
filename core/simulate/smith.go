package simulate

import (
	"context"
	"math"
	"math/rand/v2"

	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/session"
	"coldember/core/steel"
)

// Smith is a hidden smith at a hidden forge: off from the laws in the same way from piece to piece,
// and a little otherwise in each. Outside one does what no law of learning has in it.
type Smith struct {
	Energy  float64 // of a blow over the law's
	Scale   float64
	Spread  float64
	FireC   float64
	Pace    float64
	Outside Outside
	seed    uint64
}

// Outside is how a smith is outside of what is learned by.
type Outside int

// Within everything that is learned by; a fire that is 60 °C colder than it is said to be; an arm that
// gains a fifth over thirty pieces; faults that nobody marks.
const (
	Within Outside = iota
	ColdFire
	GainingArm
	HiddenFaults
)

// How far smiths are from the laws, and how far a piece is from its smith, as standard deviations of the
// logarithm (judgement: the doubts of the laws, and a third of them).
const (
	armLog, armPieceLog       = .3, .1
	scaleLog, scalePieceLog   = .5, .15
	spreadLog, spreadPieceLog = .12, .04
	paceLog, pacePieceLog     = .12, .05
	fireC, firePieceC         = 12, 5
	coldC                     = 60
	gains                     = .2
	gainsIn                   = 30
	faulty, faultCosts        = .2, .7 // of the pieces, and of a blow's work in them
)

// NewSmith draws one.
func NewSmith(seed uint64, outside Outside) Smith {
	rng := rand.New(rand.NewPCG(seed, 0x5a17))
	off := func(log float64) float64 { return math.Exp(log * rng.NormFloat64()) }
	s := Smith{Energy: off(armLog), Scale: off(scaleLog), Spread: off(spreadLog), FireC: fireC * rng.NormFloat64(), Pace: off(paceLog), Outside: outside, seed: seed}
	if outside == ColdFire {
		s.FireC -= coldC
	}
	return s
}

// Forge is piece number n (from 0) of a smith by a request: as New, with the smith's own figures.
func (s Smith) Forge(ctx context.Context, req plan.Request, n int) (*Piece, error) {
	rng := rand.New(rand.NewPCG(s.seed, 1000+uint64(n)))
	off := func(log float64) float64 { return math.Exp(log * rng.NormFloat64()) }
	grade, err := steel.Find(req.SteelID)
	if err != nil {
		return nil, err
	}
	as := req
	as.Learned = nil
	energy := s.Energy * off(armPieceLog)
	switch s.Outside {
	case GainingArm:
		energy *= 1 + gains*math.Min(1, float64(n)/gainsIn)
	case HiddenFaults:
		if rng.Float64() < faulty {
			energy *= faultCosts
		}
	}
	grade.FlowFactor /= energy
	as.Steel = &grade
	as.Fire.ScaleFactor, as.Smith.SpreadFactor = s.Scale*off(scalePieceLog), s.Spread*off(spreadPieceLog)
	as.Fire.TempC += s.FireC + firePieceC*rng.NormFloat64()
	pace := s.Pace * off(pacePieceLog)
	as.Smith.RatePerS = math.Min(5, math.Max(.2, as.Smith.RatePerS*pace))
	as.Fire.CarryS, as.Fire.BrushS = as.Fire.CarryS/pace, as.Fire.BrushS/pace
	planned, was, err := planner.InOtherHands(ctx, req, as)
	if err != nil {
		return nil, err
	}
	return pieceOf(&req, planned, was, s.seed<<16+uint64(n)), nil
}

// pieceOf is a piece that was planned so and comes to that.
func pieceOf(req *plan.Request, planned, was *plan.Plan, seed uint64) *Piece {
	p := &Piece{Planned: planned, was: was, course: session.Freeze(req, planned, planner.TreatmentSteps(req, planned)), seed: seed, shares: session.Shares(was.Heats)}
	left := planned.Bar.StartMm3
	for i := range was.Heats {
		left -= was.Heats[i].ScaleMm3
		p.massG = append(p.massG, left*steel.DensityGPerCm3/1000)
	}
	return p
}

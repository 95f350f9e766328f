package harden

import (
	"math"

	"coldember/core/steel"
)

// When a blade leaves its bath (judgement, each with the interval that is believed of it).
const (
	// noseC: the spine is to be below it when the blade leaves, or it turns soft in air: fine
	// pearlite forms fastest there. 500–560.
	noseC = 540.0
	// wantWindowS is how long a smith needs to sight along an edge and bend it straight. 10–30.
	wantWindowS = 20.0
	// leastWindowS is no time at all when it is shorter.
	leastWindowS = 1.0
	// usualOutC is where a blade leaves that has no window anyway: all the way to cold is only more
	// stress. 60–260.
	usualOutC = 200.0
	// hottestOutC is as hot as an edge leaves: oil on it flashes above. 300–400.
	hottestOutC = 340.0
	outStepC    = 10.0
)

// leaving is a blade that leaves its bath: its edge and its spine then, the time it was in, and how
// long either can be straightened in air.
type leaving struct {
	edgeC, spineC, inS     float64
	windowEdge, windowBack float64
}

// bathing is a blade in its bath.
type bathing struct {
	s                    Steel
	t                    *Treatment
	fromC                float64
	edgeMm, spineMm      float64
	edgeWideMm, widestMm float64
	air                  bool // it hardens in air, so that no nose has to be passed in the bath
}

// at is the blade once its edge is at edgeC.
func (b *bathing) at(edgeC float64) leaving {
	bath := &b.t.Bath
	s, _ := BathS(bath.SeverityPerIn, bath.Class.Fluid(), b.edgeMm, b.fromC, edgeC, bath.WarmC)
	return b.after(s)
}

// after is the blade after so long in its bath, s.
func (b *bathing) after(inS float64) leaving {
	bath := &b.t.Bath
	l := leaving{inS: inS, edgeC: bathC(bath, b.edgeMm, b.fromC, inS), spineC: b.fromC}
	if b.t.DipMm == 0 { // else it is not in
		l.spineC = bathC(bath, b.spineMm, b.fromC, inS)
	}
	l.windowEdge, _ = StraightenS(b.s, b.edgeWideMm, b.edgeMm, l.edgeC, Half)
	l.windowBack, _ = StraightenS(b.s, b.widestMm, b.spineMm, math.Max(l.edgeC, math.Min(noseC, l.spineC)), Half)
	return l
}

// sound tells whether the spine is below the nose by then; of an edge quench it need not be.
func (l *leaving) sound(b *bathing) bool { return b.air || b.t.DipMm > 0 || l.spineC <= noseC+.5 }

// advised is the coolest, from usualOutC on, that a blade can leave and its edge still be straightened
// for wantWindowS, with its spine below the nose; where there is no such, as soon as the spine is; and
// where that leaves no time either, as is usual.
func (b *bathing) advised() leaving {
	soonest := leaving{edgeC: hottestOutC}
	if b.t.DipMm == 0 && !b.air {
		bath := &b.t.Bath
		noseS, _ := BathS(bath.SeverityPerIn, bath.Class.Fluid(), b.spineMm, b.fromC, noseC, bath.WarmC)
		soonest = b.after(noseS)
	}
	if soonest.edgeC <= usualOutC {
		return soonest
	}
	usual := b.at(usualOutC)
	best := usual
	for c := usualOutC + outStepC; c <= math.Min(hottestOutC, soonest.edgeC) && best.windowEdge < wantWindowS; c += outStepC {
		best = b.at(c)
	}
	if best.windowEdge < wantWindowS && soonest.inS > 0 {
		best = soonest
	}
	if best.windowEdge <= 0 {
		return usual
	}
	return best
}

// bathC is how hot a plate is after timeS in a bath, the same law as BathS the other way round.
func bathC(b *Bath, thicknessMm, fromC, timeS float64) float64 {
	h := 2 * conductivityWPerMK * SeverityAt(b.SeverityPerIn, b.Class.Fluid(), thicknessMm) / mmPerIn * 1000
	tau := steel.DensityGPerCm3 * 1000 * heatJPerKgK * thicknessMm / 2000 / h
	return b.WarmC + (fromC-b.WarmC)*math.Exp(-timeS/tau)
}

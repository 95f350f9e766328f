package plan

import (
	"math"

	"coldember/core/fact"

	"gonum.org/v1/gonum/stat/distuv"
)

// Taught is a factor that the shop's book taught: what was over what the law says.
type Taught struct {
	Factor   float64 `json:"factor"`
	ScaleLog float64 `json:"scaleLog" doc:"spread of the next one, of its logarithm"`
	N        int     `json:"n" doc:"pieces it was learned from"`
	Measured bool    `json:"measured,omitempty" doc:"on purpose, in an hour at the forge"`
}

// Learned are the factors that a plan is made with; a nil one is the law alone. The first four enter the
// engine where their law is, the others only the bands.
type Learned struct {
	Blow   *Taught `json:"blow,omitempty" doc:"useful energy of a blow"`
	Scale  *Taught `json:"scale,omitempty" doc:"depth of scale"`
	Spread *Taught `json:"spread,omitempty" doc:"share that goes into width"`
	Bend   *Taught `json:"bend,omitempty" doc:"rise of the bevels"`
	Heats  *Taught `json:"heats,omitempty"`
	Time   *Taught `json:"time,omitempty"`
	Loss   *Taught `json:"loss,omitempty"`
	Grind  *Taught `json:"grind,omitempty" doc:"time at the grinder"`
	Sand   *Taught `json:"sand,omitempty" doc:"time sanding by hand"`
	Fit    *Taught `json:"fit,omitempty" doc:"time fitting the handle"`
}

// How far a factor may be from the law, and be believed.
const (
	leastFactor = .2
	mostFactor  = 5
)

func (l *Learned) validate(c fact.Check) {
	if l == nil {
		return
	}
	for name, t := range map[string]*Taught{"blow": l.Blow, "scale": l.Scale, "spread": l.Spread, "bend": l.Bend, "heats": l.Heats, "time": l.Time, "loss": l.Loss, "grind": l.Grind, "sand": l.Sand, "fit": l.Fit} {
		if t == nil {
			continue
		}
		at := c.Within("learned").Within(name)
		at.Range("factor", t.Factor, leastFactor, mostFactor)
		at.Range("scaleLog", t.ScaleLog, 0, 3)
		least := 1.0
		if t.Measured {
			least = 0
		}
		at.Range("n", float64(t.N), least, 1e6)
	}
}

func (t *Taught) times(f float64) float64 {
	if f == 0 {
		f = 1
	}
	if t == nil {
		return f
	}
	return f * t.Factor
}

// OfHeats is what was learned of heats, or nil.
func (l *Learned) OfHeats() *Taught {
	if l == nil {
		return nil
	}
	return l.Heats
}

// OfTime is what was learned of the time from the first heat to the last, or nil.
func (l *Learned) OfTime() *Taught {
	if l == nil {
		return nil
	}
	return l.Time
}

// Taught is the request with what was learned put where each law is; after it nothing is left to learn.
// A request that goes by the table alone, or was taught already, is as it was.
func (r Request) Taught() Request {
	l := r.Learned
	r.Learned = nil
	if l == nil || r.Choices.ByTable {
		return r
	}
	r.Smith.EnergyFactor = l.Blow.times(r.Smith.EnergyFactor)
	r.Fire.ScaleFactor = l.Scale.times(r.Fire.ScaleFactor)
	r.Smith.SpreadFactor = l.Spread.times(r.Smith.SpreadFactor)
	r.Smith.BendFactor = l.Bend.times(r.Smith.BendFactor)
	return r
}

// Used is what of the book a plan of the request goes by; nil: nothing.
func (r *Request) Used() *Learned {
	if r.Choices.ByTable {
		return nil
	}
	return r.Learned
}

// TaughtDegrees are those of the variance that a factor is believed to have before any piece.
const TaughtDegrees = 3.0

// Paced is a planned figure as it will really be: its middle, and the band that holds four in five.
type Paced struct {
	Mid  float64 `json:"mid"`
	Low  float64 `json:"low80"`
	High float64 `json:"high80"`
	N    int     `json:"n" doc:"pieces it was learned from"`
}

// Pace is a planned figure with what was learned of it; nil where nothing was.
func (t *Taught) Pace(planned float64) *Paced {
	if t == nil || t.N == 0 {
		return nil
	}
	w := math.Exp(distuv.StudentsT{Sigma: 1, Nu: TaughtDegrees + float64(t.N)}.Quantile(.9) * t.ScaleLog)
	mid := planned * t.Factor
	return &Paced{Mid: mid, Low: mid / w, High: mid * w, N: t.N}
}

// Really is what a plan will really take, by the book.
type Really struct {
	Heats *Paced `json:"heats,omitempty"`
	TimeS *Paced `json:"timeS,omitempty"`
}

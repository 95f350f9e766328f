package stock

import (
	"math"

	"coldember/core/fact"
)

// Finding is a test that was made and what it gave.
type Finding struct {
	Test   string `json:"test"`
	Result string `json:"result"`
}

// Likelihood is a smith's own figure in place of the table's: the share of
// pieces of a family that give a result.
type Likelihood struct {
	Test   string  `json:"test"`
	Result string  `json:"result"`
	Family string  `json:"family"`
	P      float64 `json:"p"`
}

// Share is how much one family is believed.
type Share struct {
	Family string  `json:"family"`
	Prior  float64 `json:"prior"`
	Now    float64 `json:"now"`
}

// StepOf is one finding with what it did: the likelihood of it for each family,
// and the belief after it.
type StepOf struct {
	Finding
	P     map[string]float64 `json:"p"`
	After map[string]float64 `json:"after"`
	// Odd says that the family now believed most gives this result seldom.
	Odd bool `json:"odd"`
}

// Verdict of a belief.
type Verdict string

// The verdicts: Likely names a family; Open has several that are; Contradictory
// has findings that no one family explains.
const (
	Likely        Verdict = "likely"
	Open          Verdict = "open"
	Contradictory Verdict = "contradictory"
)

// Belief is what is known of a steel that nobody has certified.
type Belief struct {
	Shares  []Share  `json:"shares" doc:"most believed first"`
	Steps   []StepOf `json:"steps"`
	Verdict Verdict  `json:"verdict" enum:"likely,open,contradictory"`
	// The window that is safe for every family still likely; LowC ≥ HighC where
	// there is none.
	ForgeLowC  float64 `json:"forgeLowC"`
	ForgeHighC float64 `json:"forgeHighC"`
	SteelID    string  `json:"steelId" doc:"the grade that stands in for it"`
}

// Limits of the verdicts: judgement.
const (
	surelyLikely = 0.80 // of one family
	stillLikely  = 0.05 // and more: its window counts
	oddFinding   = 0.12 // of the winner's pieces give this result
)

// Believe follows the findings, one after the other, by Bayes' rule over the
// families: the prior of the origin, times the likelihood of each result.
// Findings are taken as independent within a family, which they are only nearly.
// own figures replace the table's. Errors are fact.FieldErrors naming a finding
// that is not in the table.
func Believe(origin string, findings []Finding, own []Likelihood) (Belief, error) {
	o, ok := FindOrigin(origin)
	c := fact.NewCheck()
	if !ok {
		c.Fail("origin", "field.choice", nil)
		return Belief{}, c.Err()
	}
	now := map[string]float64{}
	for _, f := range salvage.Families {
		now[f.ID] = o.Prior[f.ID]
	}
	normalise(now)
	b := Belief{Steps: []StepOf{}}
	prior := clone(now)
	for i, f := range findings {
		p := likelihoods(f, own)
		if p == nil {
			c.Within("findings").Fail(itoa(i), "field.choice", nil)
			continue
		}
		for id := range now {
			now[id] *= p[id]
		}
		normalise(now)
		b.Steps = append(b.Steps, StepOf{Finding: f, P: p, After: clone(now)})
	}
	if err := c.Err(); err != nil {
		return Belief{}, err
	}
	b.judge(prior, now)
	return b, nil
}

// likelihoods of a finding, by family; nil for one that the table has not.
func likelihoods(f Finding, own []Likelihood) map[string]float64 {
	for _, t := range salvage.Tests {
		if t.ID != f.Test {
			continue
		}
		for _, r := range t.Results {
			if r.ID != f.Result {
				continue
			}
			p := clone(r.P)
			for _, l := range own {
				if l.Test == f.Test && l.Result == f.Result {
					p[l.Family] = math.Max(.001, math.Min(.999, l.P))
				}
			}
			return p
		}
	}
	return nil
}

// judge orders the shares and says what they come to.
func (b *Belief) judge(prior, now map[string]float64) {
	b.ForgeLowC, b.ForgeHighC = 0, math.Inf(1)
	for _, f := range salvage.Families {
		s := Share{Family: f.ID, Prior: prior[f.ID], Now: now[f.ID]}
		at := len(b.Shares)
		for at > 0 && b.Shares[at-1].Now < s.Now {
			at--
		}
		b.Shares = append(b.Shares[:at], append([]Share{s}, b.Shares[at:]...)...)
		if s.Now >= stillLikely {
			b.ForgeLowC, b.ForgeHighC = math.Max(b.ForgeLowC, f.ForgeLowC), math.Min(b.ForgeHighC, f.ForgeHighC)
		}
	}
	top := b.Shares[0]
	b.Verdict = Open
	if top.Now >= surelyLikely {
		b.Verdict = Likely
	}
	for i := range b.Steps {
		if b.Steps[i].P[top.Family] < oddFinding {
			b.Steps[i].Odd = true
			b.Verdict = Contradictory
		}
	}
	for _, f := range salvage.Families {
		if f.ID == top.Family {
			b.SteelID = f.SteelID
		}
	}
}

func normalise(m map[string]float64) {
	sum := 0.0
	for _, f := range salvage.Families { // in order: the same sum on every run
		sum += m[f.ID]
	}
	for id := range m {
		m[id] /= sum
	}
}

func clone(m map[string]float64) map[string]float64 {
	out := make(map[string]float64, len(m))
	for k, v := range m {
		out[k] = v
	}
	return out
}

// Known tells whether a finding is of a test of the table, with one of its results.
func (f Finding) Known() bool { return likelihoods(f, nil) != nil }

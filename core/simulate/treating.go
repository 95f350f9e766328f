package simulate

import (
	"math"
	"math/rand/v2"
	"strings"

	"coldember/core/harden"
	"coldember/core/session"
)

// How hand and eye differ from what was advised (judgement): one standard deviation.
const (
	eyeC      = 12.0 // colour in the dark
	ovenC     = 6.0
	bathC     = 5.0
	handShare = .15
	warpMm    = .4
	sawGrain  = 9.0 // of a sound coupon, as the eye puts it
	grainEye  = .7
	groundS   = 3 * 86400 // ground in between, some days later
)

// treat tells hardening and tempering as they were gone through, with what was seen: the advice
// as eye, hand and oven keep to it.
func (t *telling) treat() {
	r := rand.New(rand.NewPCG(t.p.seed, 0x7ea7)) //nolint:gosec // a piece of its own, not a secret
	near := func(v, by float64) float64 { return v + by*r.NormFloat64() }
	t.pass(groundS)
	t.say(session.Event{Kind: session.ToHarden})
	for i := range t.p.course.Treatment {
		st := &t.p.course.Treatment[i]
		lasts := math.Max(4, near(st.CountS, handShare*st.CountS))
		if st.ID == "toOven" {
			lasts = math.Min(st.CountS, 1200)
		}
		if st.ID == "soak" {
			lasts = 240 + st.Figures["soakS"]
		}
		t.pass(lasts)
		t.say(session.Event{Kind: session.Treated, Step: st.ID, Seen: seenOf(st, lasts, near)})
	}
}

// seenOf is what was seen of a step; nil where nothing is.
func seenOf(st *harden.Step, lastS float64, near func(v, by float64) float64) *session.Seen {
	tenth := func(v float64) float64 { return math.Round(v*10) / 10 }
	kind, _, _ := strings.Cut(st.ID, "-")
	switch kind {
	case "soak":
		return &session.Seen{TempC: math.Round(near(st.Figures["austenitiseC"], eyeC)), TimeS: math.Round(st.Figures["soakS"])}
	case "quench":
		return &session.Seen{BathC: math.Round(near(st.Figures["warmC"], bathC)), TimeS: math.Round(lastS)}
	case "straighten":
		return &session.Seen{WarpMm: tenth(math.Abs(near(0, warpMm)))}
	case "file":
		return &session.Seen{File: session.Skates, GrainNumber: tenth(near(sawGrain, grainEye))}
	case "temper":
		return &session.Seen{TempC: math.Round(near(st.Figures["ovenC"], ovenC)), TimeS: math.Round(st.Figures["lastS"])}
	}
	return nil
}

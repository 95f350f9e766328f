package listen

import (
	"errors"
	"math"
)

// Kind is what a hit fell on.
type Kind string

// Kinds of hits.
const (
	Heard Kind = "heard" // on an anvil that is not known yet: it is not counted
	Blow  Kind = "blow"  // on the piece
	Tap   Kind = "tap"   // on the bare anvil
	Far   Kind = "far"   // too faint to be of this anvil, or no blow at all: a voice swells where a blow is loudest at once
)

// Hit is something that was struck.
type Hit struct {
	AtS      float64 `json:"atS" doc:"since the ear was opened"`
	Kind     Kind    `json:"kind" enum:"blow,tap,far"`
	LevelDb  float64 `json:"levelDb" doc:"at its loudest, of full scale"`
	BrightDb float64 `json:"brightDb" doc:"its ring over its thud"`
	RingsDb  float64 `json:"ringsDb" doc:"how far its ring has fallen after a short while; little is long"`
	SwellS   float64 `json:"swellS" doc:"from its beginning until it was loudest"`
}

// How it listens: bands (Hz), hop, and what counts as sudden (judgement). Two hits closer than joinS are one: a hammer
// rebounds, and strikes twice.
const (
	lowestHz, highestHz = 260.0, 7000.0
	bandsOf             = 18
	bandQ               = 5
	thudBelowHz         = 1100.0
	ringAboveHz         = 1700.0
	hopS                = .004
	joinS               = .120
	decideS             = .100
	peakS               = .024
	tailFromS           = .060
	floorStepDb         = .10 // a hop, at the most
	floorShare          = .40 // of hops that are below the floor
	settleS             = .6  // before the floor is known
	mostSigma           = 4.0 // that a single band says
	suddenScore         = 3.0
	thudShare           = .9    // of what the thud says by itself
	quietDb             = -86.0 // what is fainter is no sound
	louderDb            = 5.0   // than the last hit is another, however soon
)

// ErrRate says that a sound has too few, or too many, samples a second to hear an anvil in.
var ErrRate = errors.New("listen: 16,000 to 192,000 samples a second are wanted")

// Ear hears hits in a stream of samples. It is not safe for several goroutines at once.
type Ear struct {
	rate     float64
	bands    []band
	hop      int     // samples of a hop
	hopS     float64 // that they last: whole samples seldom last just as long as was wanted
	n        int     // of this hop that were taken
	hops     int     // that are done
	last     int     // hop of the last hit
	lastPeak float64
	open     *open
	anvil    Anvil
	rests    bool  // nothing of what is heard is of a step
	unsure   []Hit // that were heard since it began afresh, of which it may be taught
}

const (
	thud = 0
	ring = 1
)

// band is how loud a band is. An anvil rings in a few narrow ones; a blow is heard in all.
type band struct {
	filters [2]biquad
	part    int // of the thud, or the ring; -1 of none
	sum     float64
	recent  [8]float64 // dB of the last hops, the newest at hops%8
	floor   float64
	sigma   float64 // of two hops of steady noise, dB
}

// rise is the power of both bands so long after a hit began.
type rise struct{ sinceS, power float64 }

// open is a hit that is not decided yet.
type open struct {
	at    int
	under [2]float64 // power that was there before
	peak  [2]float64 // power above that, at its loudest
	tail  float64
	tailN int
	rises []rise // how it came to be as loud
}

// New opens an ear for a sound of so many samples a second, that knows of its anvil what was learned before. Errors are
// ErrRate.
func New(rateHz float64, a Anvil) (*Ear, error) {
	if !(rateHz >= 16_000 && rateHz <= 192_000) {
		return nil, ErrRate
	}
	e := &Ear{rate: rateHz, hop: int(math.Round(hopS * rateHz)), last: -1 << 30, anvil: a.sane()}
	e.hopS = float64(e.hop) / rateHz
	high := math.Min(highestHz, .4*rateHz)
	for i := range bandsOf {
		hz := lowestHz * math.Pow(high/lowestHz, float64(i)/(bandsOf-1))
		b := band{filters: [2]biquad{bandpass(hz, bandQ, rateHz), bandpass(hz, bandQ, rateHz)}, part: -1}
		if hz < thudBelowHz {
			b.part = thud
		} else if hz > ringAboveHz {
			b.part = ring
		}
		// the spread of a mean square of so many independent samples (chi-squared), in decibels
		free := math.Max(1, 2*(.64*hz/bandQ)*2*hopS)
		b.sigma = 10 / math.Ln10 * math.Sqrt(2/free)
		e.bands = append(e.bands, b)
	}
	return e, nil
}

// Anvil is what the ear has learned of its anvil by now.
func (e *Ear) Anvil() Anvil { return e.anvil }

// HeardS is how long it has listened.
func (e *Ear) HeardS() float64 { return float64(e.hops) * e.hopS }

// Hear takes the next samples, of -1 to 1, and answers the hits that were decided meanwhile: each some tenth of a second
// after it fell. What is no number is silence.
func (e *Ear) Hear(samples []float32) []Hit {
	var out []Hit
	for _, s := range samples {
		x := float64(s)
		if !(math.Abs(x) <= 8) {
			x = 0
		}
		for b := range e.bands {
			y := x
			for f := range e.bands[b].filters {
				y = e.bands[b].filters[f].step(y)
			}
			e.bands[b].sum += y * y
		}
		if e.n++; e.n == e.hop {
			if h, ok := e.tick(); ok {
				out = append(out, h)
			}
		}
	}
	return out
}

func db(power float64) float64 { return 10 * math.Log10(power+1e-10) }

func power(db float64) float64 { return math.Pow(10, db/10) }

// tick is the end of a hop.
func (e *Ear) tick() (hit Hit, decided bool) {
	var now, before [2]float64 // power
	score, thuds, low := 0.0, 0.0, 0.0
	for i := range e.bands {
		b := &e.bands[i]
		r, is, was := b.rise(e.hops, math.Max(quietDb, db(b.sum/float64(e.hop))), e.HeardS() < settleS)
		b.sum = 0
		says := math.Max(-1, math.Min(mostSigma, r/b.sigma))
		score += says
		if b.part == thud {
			thuds, low = thuds+says, low+1
		}
		if b.part >= 0 {
			now[b.part] += is
			before[b.part] += was
		}
	}
	score = math.Max(score/math.Sqrt(bandsOf), thuds/math.Sqrt(low)*thudShare) // a hiss hides all but the thud
	at := e.hops
	e.hops++
	e.n = 0
	soon := float64(at-e.last)*e.hopS < joinS
	sudden := score >= suddenScore && e.HeardS() > settleS && (!soon || at > e.last+3 && now[thud]+now[ring] > e.lastPeak*power(louderDb))
	if e.open != nil && (sudden || float64(at-e.open.at)*e.hopS >= decideS) {
		hit, decided = e.decide()
	}
	if sudden {
		e.last, e.lastPeak = at, 0
		e.open = &open{at: at, under: before}
	}
	if e.open != nil {
		e.open.hear(float64(at-e.open.at)*e.hopS, now)
		e.lastPeak = math.Max(e.lastPeak, e.open.peak[thud]+e.open.peak[ring])
	}
	return hit, decided
}

// rise takes how loud a band is in this hop, and answers by how much the last two have risen over what was there a moment
// before, its floor at the least, and the powers of both.
func (b *band) rise(hop int, now float64, settling bool) (riseDb, is, was float64) {
	if hop == 0 {
		b.floor = now
		for k := range b.recent {
			b.recent[k] = now
		}
	}
	for k := 2; k <= 4; k++ { // the last two hops left out: a rise is sudden, but not within one hop
		was += power(b.recent[(hop+8-k)%8]) / 3
	}
	before := math.Max(b.floor, db(was))
	is = power(now)
	riseDb = db((is+power(b.recent[(hop+7)%8]))/2) - before
	b.recent[hop%8] = now
	step := floorStepDb
	if settling {
		step *= 10
	}
	if now > b.floor {
		b.floor += step * floorShare
	} else {
		b.floor -= step * (1 - floorShare)
	}
	return riseDb, is, power(before)
}

func (o *open) hear(sinceS float64, now [2]float64) {
	if sinceS <= peakS {
		for i := range now {
			o.peak[i] = math.Max(o.peak[i], now[i]-o.under[i])
		}
		o.rises = append(o.rises, rise{sinceS, now[thud] + now[ring]})
		return
	}
	if sinceS >= tailFromS {
		o.tail += math.Max(0, now[ring]-o.under[ring])
		o.tailN++
	}
}

// decide says what the hit in hand was.
func (e *Ear) decide() (Hit, bool) {
	o := e.open
	e.open = nil
	r, t := math.Max(o.peak[ring], o.under[ring]*.05), math.Max(o.peak[thud], o.under[thud]*.05)
	h := Hit{AtS: float64(o.at) * e.hopS, LevelDb: db(r + t), BrightDb: db(r) - db(t), RingsDb: usualRingsDb, SwellS: o.swellS()}
	if o.tailN > 2 {
		h.RingsDb = math.Min(mostRingsDb, db(r)-db(math.Max(o.tail/float64(o.tailN), o.under[ring]*.05)))
	}
	if h.Kind = e.anvil.take(&h); !e.rests && h.SwellS <= swellS && len(e.unsure) < mostUnsure {
		e.unsure = append(e.unsure, h)
	}
	return h, true
}

// swelled is the share of its most that a hit has come to when it has swelled: noise adds to either.
const swelled = .7

// swellS is from the beginning until it was as good as loudest.
func (o *open) swellS() float64 {
	most := 0.0
	for _, r := range o.rises {
		most = math.Max(most, r.power)
	}
	for _, r := range o.rises {
		if r.power >= swelled*most {
			return r.sinceS
		}
	}
	return 0
}

package listentest

import (
	"math"
	"math/rand/v2"
)

// Forge is the sound of a smithy made in another way than Smithy is, so that an ear that was tried on the one is judged by
// the other: a blow is a short push into resonators that are two-pole filters, noise is summed of rows that change at
// halving rates, and what else is heard has models of its own.
type Forge struct {
	Rng    *rand.Rand
	RateHz float64
	Out    []float64
	Hits   []Struck

	RingS    float64 // until the ring of the struck piece has died to a thousandth
	Thin     bool    // the piece is thin, and rings itself
	Rebounds float64 // the share of the blows that fall once more
	body     []resonator
}

// resonator is one mode: its frequency, its share of a push, and whether it is of the thud.
type resonator struct {
	hz, share float64
	thud      bool
}

// NewForge is so many seconds of silence at a rate.
func NewForge(seed uint64, seconds, rateHz float64) *Forge {
	f := &Forge{Rng: rand.New(rand.NewPCG(seed, 0xf02e)), RateHz: rateHz, Out: make([]float64, int(seconds*rateHz)), RingS: .4, Rebounds: .6}
	for range 4 {
		f.body = append(f.body, resonator{280 + 600*f.Rng.Float64(), .6 + .4*f.Rng.Float64(), true})
	}
	for range 7 {
		f.body = append(f.body, resonator{1500 + 5000*f.Rng.Float64(), .15 + .25*f.Rng.Float64(), false})
	}
	return f
}

// push strikes: a half sine of so many seconds into every mode, and the scuff of scale.
func (f *Forge) push(into []float64, atS, strength, contactS, ringS, ringShare float64) {
	from, n := int(atS*f.RateHz), int(contactS*f.RateHz)+1
	for _, m := range f.body {
		decayS, share := .03+.03*f.Rng.Float64(), m.share
		if !m.thud {
			decayS, share = ringS*(.5+.5*f.Rng.Float64())/6.9, m.share*ringShare
		}
		r, w := math.Exp(-1/(f.RateHz*decayS)), 2*math.Pi*m.hz/f.RateHz
		a1, a2, gain := 2*r*math.Cos(w), -r*r, share*strength*math.Sin(w)
		y1, y2 := 0.0, 0.0
		for i := 0; i < int((contactS+7*decayS)*f.RateHz) && from+i < len(into); i++ {
			x := 0.0
			if i < n {
				x = math.Pi / 2 * math.Sin(math.Pi*float64(i)/float64(n)) / float64(n)
			}
			y := a1*y1 + a2*y2 + gain*x
			y1, y2 = y, y1
			into[from+i] += y
		}
	}
	scuff := 0.0
	for i := 0; i < int(.02*f.RateHz) && from+i < len(into); i++ {
		scuff = .7*scuff + f.Rng.NormFloat64()
		into[from+i] += .25 * strength * scuff * math.Exp(-float64(i)/(.004*f.RateHz))
	}
}

// Blow is a hammer on hot steel.
func (f *Forge) Blow(atS, strength float64) {
	strength *= math.Pow(10, (f.Rng.Float64()-.5)*4/20)
	share := .35
	if f.Thin {
		share = 1.2
	}
	f.push(f.Out, atS, strength, .0006, f.RingS, share)
	if f.Rng.Float64() < f.Rebounds {
		f.push(f.Out, atS+.05+.05*f.Rng.Float64(), strength*.3, .0006, f.RingS, share)
	}
	f.Hits = append(f.Hits, Struck{AtS: atS})
}

// BlowLevel is how loud a usual blow is by itself.
func (f *Forge) BlowLevel() float64 {
	one := &Forge{Rng: rand.New(rand.NewPCG(1, 2)), RateHz: f.RateHz, Out: make([]float64, int(f.RateHz)), body: f.body, RingS: f.RingS, Thin: f.Thin}
	one.Blow(.2, 1)
	return f.loudest(one.Out)
}

// loudest twentieth of a second of something, as rms over 20 ms.
func (f *Forge) loudest(v []float64) float64 {
	best, w := 0.0, int(f.RateHz/50)
	for i := 0; i+w <= len(v); i += w / 2 {
		best = math.Max(best, RMS(v[i:i+w]))
	}
	return best
}

// Add mixes another sound in so that its loudest twentieth of a second, or its rms, lies so many dB under a blow.
func (f *Forge) Add(v []float64, underDb float64, rms bool) {
	is := f.loudest(v)
	if rms {
		is = RMS(v)
	}
	gain := f.BlowLevel() / is * math.Pow(10, -underDb/20)
	for i := range f.Out {
		f.Out[i] += gain * v[i]
	}
}

// Burner is noise of rows that change at halving rates, with a hiss.
func (f *Forge) Burner() []float64 {
	v, rows := make([]float64, len(f.Out)), [12]float64{}
	for i := range v {
		for k := range rows {
			if i%(1<<k) == 0 {
				rows[k] = f.Rng.NormFloat64()
			}
		}
		sum := .3 * f.Rng.NormFloat64()
		for _, r := range rows {
			sum += r
		}
		v[i] = sum
	}
	return v
}

// Grinder is a motor and its wheel, pressed and let go.
func (f *Forge) Grinder() []float64 {
	v, press, wants := make([]float64, len(f.Out)), 0.0, 0.0
	for i := range v {
		t := float64(i) / f.RateHz
		if i%int(f.RateHz*.7) == 0 {
			wants = 0
			if f.Rng.Float64() < .6 {
				wants = 1
			}
		}
		press += (wants - press) / (.08 * f.RateHz)
		motor := 0.0
		for h := 1.0; h < 9; h++ {
			motor += math.Sin(2*math.Pi*92*h*t*(1-.05*press)) / h
		}
		v[i] = .6*motor + press*f.Rng.NormFloat64()*(1+.4*math.Sin(2*math.Pi*46*t))
	}
	return v
}

// Talk is a saw of a throat through two resonances that move from syllable to syllable.
func (f *Forge) Talk() []float64 {
	v := make([]float64, len(f.Out))
	var y [2][2]float64
	hz, pitch, loud, wants, phase := [2]float64{500, 1500}, 120.0, 0.0, 0.0, 0.0
	next := 0
	for i := range v {
		if i >= next {
			next = i + int(f.RateHz*(.09+.18*f.Rng.Float64()))
			hz, pitch = [2]float64{300 + 500*f.Rng.Float64(), 900 + 1500*f.Rng.Float64()}, 90+70*f.Rng.Float64()
			wants = 0
			if f.Rng.Float64() < .75 {
				wants = .5 + .5*f.Rng.Float64()
			}
		}
		loud += (wants - loud) / (.025 * f.RateHz)
		phase = math.Mod(phase+pitch/f.RateHz, 1)
		x := loud * (2*phase - 1 + .1*f.Rng.NormFloat64())
		for k := range hz {
			w, r := 2*math.Pi*hz[k]/f.RateHz, math.Exp(-math.Pi*90/f.RateHz)
			s := x*(1-r) + 2*r*math.Cos(w)*y[k][0] - r*r*y[k][1]
			y[k][1], y[k][0] = y[k][0], s
			v[i] += s
		}
	}
	return v
}

// Music is plucked strings over a drum, two beats a second.
func (f *Forge) Music() []float64 {
	v := make([]float64, len(f.Out))
	beat := int(f.RateHz / 2)
	for at := 0; at+beat < len(v); at += beat {
		line := make([]float64, int(f.RateHz/(110*math.Pow(2, float64(f.Rng.IntN(20))/12))))
		for i := range line {
			line[i] = f.Rng.NormFloat64()
		}
		for i := 0; i < 2*beat && at+i < len(v); i++ {
			k, l := i%len(line), (i+1)%len(line)
			v[at+i] += .5 * line[k]
			line[k] = .498 * (line[k] + line[l])
		}
		for i := 0; i < beat/2 && at+i < len(v); i++ {
			t := float64(i) / f.RateHz
			v[at+i] += 2 * math.Min(1, t/.004) * math.Exp(-t/.12) * math.Sin(2*math.Pi*(55*t+6*(1-math.Exp(-t/.03))))
		}
	}
	return v
}

// SecondAnvil is another anvil at its own work, .9 to 1.4 blows a second.
func (f *Forge) SecondAnvil() []float64 {
	o := NewForge(f.Rng.Uint64(), float64(len(f.Out))/f.RateHz, f.RateHz)
	for at := .4; at < float64(len(f.Out))/f.RateHz-1; at += .7 + .4*f.Rng.Float64() {
		o.Blow(at, 1)
	}
	return o.Out
}

// Samples are the sound, as an ear takes it, its blows at about −12 dB of full scale.
func (f *Forge) Samples() []float32 {
	gain := .25 / f.BlowLevel()
	v := make([]float32, len(f.Out))
	for i, x := range f.Out {
		v[i] = float32(x * gain)
	}
	return v
}

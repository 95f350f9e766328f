// Package listentest makes the sound of a smithy, by nothing that an ear uses: an anvil that rings in modes of its own, blows
// on hot steel that thud, a roar, a fan, voices, and another hammer across the room.
package listentest

import (
	"encoding/binary"
	"math"
	"math/cmplx"
	"math/rand/v2"
)

// Rate is samples a second.
const Rate = 48000

// Struck is a hit of a synthetic sound.
type Struck struct {
	AtS float64
	Tap bool
}

// Smithy is a synthetic sound of a smithy, made by nothing that the ear uses.
type Smithy struct {
	Rng   *rand.Rand
	Out   []float64
	modes [][3]float64 // Hz, seconds, strength
	Hits  []Struck
}

// New is so many seconds of silence about an anvil drawn from a seed.
func New(seed uint64, seconds float64) *Smithy {
	s := &Smithy{Rng: rand.New(rand.NewPCG(seed, 99)), Out: make([]float64, int(seconds*Rate))}
	for range 6 + s.Rng.IntN(5) {
		s.modes = append(s.modes, [3]float64{1300 * math.Exp(1.6*s.Rng.Float64()), .06 + .3*s.Rng.Float64(), .4 + .6*s.Rng.Float64()})
	}
	return s
}

// Another is so many seconds of silence about the same anvil.
func (s *Smithy) Another(seconds float64) *Smithy {
	return &Smithy{Rng: rand.New(rand.NewPCG(5, 98)), Out: make([]float64, int(seconds*Rate)), modes: s.modes}
}

func (s *Smithy) add(atS, seconds float64, next func() float64) {
	from := int(atS * Rate)
	for i := 0; i < int(seconds*Rate) && from+i < len(s.Out); i++ {
		s.Out[from+i] += next()
	}
}

// ring is the anvil struck: its modes, each with its own decay, damped by what lies on it.
func (s *Smithy) ring(atS, strength, damp float64) {
	for _, m := range s.modes {
		v := cmplx.Rect(strength*m[2]*(.7+.6*s.Rng.Float64()), 2*math.Pi*s.Rng.Float64())
		turn := cmplx.Rect(math.Exp(-1/(Rate*m[1]*damp)), 2*math.Pi*m[0]/Rate)
		s.add(atS, 6*m[1]*damp, func() float64 { v *= turn; return imag(v) })
	}
}

// burst is noise below a frequency that dies away.
func (s *Smithy) burst(atS, strength, decayS, belowHz float64) {
	k, y, a, dies := 1-math.Exp(-2*math.Pi*belowHz/Rate), 0.0, strength, math.Exp(-1/(Rate*decayS))
	s.add(atS, 8*decayS, func() float64 {
		y += k * (s.Rng.NormFloat64() - y)
		a *= dies
		return a * y / math.Sqrt(k)
	})
}

// Tap is a hammer on the bare face.
func (s *Smithy) Tap(atS, strength float64) {
	s.ring(atS, strength, 1)
	s.burst(atS, strength, .001, 9000)
	s.Hits = append(s.Hits, Struck{atS, true})
}

// Blow is a hammer on hot steel, 12 dB under a tap; one in five rebounds, and falls once more.
func (s *Smithy) Blow(atS, strength float64) {
	strength *= math.Pow(10, (s.Rng.Float64()-.5)*4/20) // two dB either way
	s.Dull(atS, strength)
	if s.Rng.Float64() < .2 { // it rebounds, and falls once more
		s.Dull(atS+.05+.06*s.Rng.Float64(), strength*.35)
	}
	s.Hits = append(s.Hits, Struck{atS, false})
}

// Dull is one blow on hot steel by itself.
func (s *Smithy) Dull(atS, strength float64) {
	s.ring(atS, strength*.35, .3)
	s.burst(atS, strength, .012, 1500)
	s.burst(atS, strength*.4, .003, 6000)
}

// Level is the loudest twentieth of a second of something, as rms over 20 ms.
func Level(v []float64) float64 {
	best, w := 0.0, Rate/50
	for i := 0; i+w <= len(v); i += w / 2 {
		sum := 0.0
		for _, x := range v[i : i+w] {
			sum += x * x
		}
		best = math.Max(best, sum/float64(w))
	}
	return math.Sqrt(best)
}

// RMS is how loud something is over all of it.
func RMS(v []float64) float64 {
	sum := 0.0
	for _, x := range v {
		sum += x * x
	}
	return math.Sqrt(sum / float64(len(v)))
}

// Mix adds another sound.
func (s *Smithy) Mix(v []float64, gain float64) {
	for i := range s.Out {
		s.Out[i] += gain * v[i]
	}
}

// Roar is a gas forge: noise that falls by some 4 dB an octave over a hiss, that comes and goes slowly.
func (s *Smithy) Roar() []float64 {
	v := make([]float64, len(s.Out))
	var a, b float64
	swell := 2 * math.Pi * s.Rng.Float64()
	for i := range v {
		w := s.Rng.NormFloat64()
		a += .008 * (w - a)
		b += .12 * (w - b)
		v[i] = (9*a + 1.2*b + .12*w) * (1 + .3*math.Sin(2*math.Pi*.13*float64(i)/Rate+swell))
	}
	return v
}

// Fan hums, and blows.
func (s *Smithy) Fan() []float64 {
	v := make([]float64, len(s.Out))
	y := 0.0
	for i := range v {
		t := float64(i) / Rate
		y += .05 * (s.Rng.NormFloat64() - y)
		v[i] = math.Sin(2*math.Pi*98*t) + .5*math.Sin(2*math.Pi*196*t) + .3*math.Sin(2*math.Pi*784*t) + 2*y
	}
	return v
}

// Speech is syllables of a voice with hisses and pops between them.
func (s *Smithy) Speech() []float64 {
	v := make([]float64, len(s.Out))
	for at := .3; at < float64(len(v))/Rate-1; at += .14 + .2*s.Rng.Float64() {
		f0, long := 95+80*s.Rng.Float64(), .08+.14*s.Rng.Float64()
		hiss := s.Rng.Float64() < .3
		from := int(at * Rate)
		y := 0.0
		var voice, turns []complex128
		for h := 1.0; h < 24; h++ { // two formants
			f := f0 * h
			voice = append(voice, complex((.4+formant(f, 600, 250)+.6*formant(f, 1700, 300))/h, 0))
			turns = append(turns, cmplx.Rect(1, 2*math.Pi*f/Rate))
		}
		for i := 0; i < int(long*Rate) && from+i < len(v); i++ {
			t := float64(i) / Rate
			env := math.Min(1, t/.02) * math.Min(1, (long-t)/.04)
			w := s.Rng.NormFloat64()
			y = .6*y + w
			if hiss {
				v[from+i] += .35 * env * (w - .4*y)
				continue
			}
			for h := range voice {
				v[from+i] += env * imag(voice[h])
				voice[h] *= turns[h]
			}
		}
		if s.Rng.Float64() < .5 && from > 0 { // a pop before it
			for i := 0; i < Rate/200 && from+i < len(v); i++ {
				v[from+i] += .5 * s.Rng.NormFloat64() * math.Exp(-float64(i)/(Rate/900.))
			}
		}
	}
	return v
}

// formant is how much of a voice is at a frequency.
func formant(hz, at, wide float64) float64 {
	d := (hz - at) / wide
	return math.Exp(-d * d)
}

// Other is a second hammer across the room: fainter, dull, and smeared by the walls.
func (s *Smithy) Other(strength float64) []float64 {
	o := &Smithy{Rng: s.Rng, Out: make([]float64, len(s.Out)), modes: [][3]float64{{1750, .2, 1}, {2900, .15, .8}, {4100, .1, .5}}}
	for at := .5; at < float64(len(s.Out))/Rate-1; at += .7 + .4*s.Rng.Float64() {
		o.ring(at, strength, .6)
		o.burst(at, strength, .06, 1200)
	}
	return o.Out
}

// Samples are the sound, as an ear takes it.
func (s *Smithy) Samples(gain float64) []float32 {
	v := make([]float32, len(s.Out))
	for i, x := range s.Out {
		v[i] = float32(x * gain)
	}
	return v
}

// WAV is the sound as a file of 16 bits.
func (s *Smithy) WAV(gain float64) []byte {
	out := []byte("RIFF")
	n := uint32(2 * len(s.Out))
	out = binary.LittleEndian.AppendUint32(out, 36+n)
	out = append(out, "WAVEfmt "...)
	out = binary.LittleEndian.AppendUint32(out, 16)
	for _, v := range []uint16{1, 1} { // linear, one channel
		out = binary.LittleEndian.AppendUint16(out, v)
	}
	out = binary.LittleEndian.AppendUint32(out, Rate)
	out = binary.LittleEndian.AppendUint32(out, 2*Rate)
	out = binary.LittleEndian.AppendUint16(out, 2)
	out = binary.LittleEndian.AppendUint16(out, 16)
	out = append(out, "data"...)
	out = binary.LittleEndian.AppendUint32(out, n)
	for _, x := range s.Out {
		out = binary.LittleEndian.AppendUint16(out, uint16(int16(32767*max(-1, min(1, x*gain))))) //nolint:gosec // within 16 bits
	}
	return out
}

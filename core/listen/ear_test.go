package listen_test

import (
	"math"
	"testing"

	"coldember/core/listen"
	"coldember/core/listen/listentest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// scored is how an ear did.
type scored struct{ blows, found, false, taps, counted int }

func (a *scored) add(b scored) {
	a.blows, a.found, a.false, a.taps, a.counted = a.blows+b.blows, a.found+b.found, a.false+b.false, a.taps+b.taps, a.counted+b.counted
}

// play lets an ear hear a sound in pieces as a page has them, and holds what it counted against what was struck.
func play(t require.TestingT, s *listentest.Smithy) scored {
	gain := .5 / math.Max(listentest.Level(s.Out), 1e-9) * .3
	e, err := listen.New(listentest.Rate, taughtOf(t, s, gain))
	require.NoError(t, err)
	var hits []listen.Hit
	v := s.Samples(gain)
	for i := 0; i < len(v); i += 1024 {
		hits = append(hits, e.Hear(v[i:min(i+1024, len(v))])...)
	}
	var out scored
	used := make([]bool, len(hits))
	for _, h := range s.Hits {
		at := -1
		for i := range hits {
			if !used[i] && math.Abs(hits[i].AtS-h.AtS) < .05 {
				at = i
			}
		}
		if h.Tap {
			out.taps++
		} else {
			out.blows++
		}
		if at < 0 {
			continue
		}
		used[at] = true
		switch {
		case h.Tap && hits[at].Kind == listen.Blow:
			out.counted++
		case !h.Tap && hits[at].Kind == listen.Blow:
			out.found++
		}
	}
	for i := range hits {
		if !used[i] && hits[i].Kind == listen.Blow {
			out.false++
		}
	}
	return out
}

// taughtOf is what an ear knows of the anvil of a sound, as loud as it is there, from a step of fifteen blows.
func taughtOf(t require.TestingT, s *listentest.Smithy, gain float64) listen.Anvil {
	step := s.Another(16)
	for i := range 15 {
		step.Blow(1+float64(i)*.9, 1)
	}
	e, err := listen.New(listentest.Rate, listen.Anvil{})
	require.NoError(t, err)
	e.Hear(step.Samples(gain))
	require.True(t, e.Teach(15))
	return e.Anvil()
}

// session is a sound of blows at a listentest.Rate, taps between some, over a roar that is so much under a blow.
func session(seed uint64, overDb float64, taps bool) *listentest.Smithy {
	s := listentest.New(seed, 45)
	gap := 1 / (.8 + 2.2*s.Rng.Float64())
	at := 2.0
	for at < 43 {
		s.Blow(at, 1)
		if taps && s.Rng.Float64() < .3 && gap > .28 {
			s.Tap(at+gap*.5, 1.6)
		}
		at += gap * (.92 + .16*s.Rng.Float64())
		if s.Rng.Float64() < .04 {
			at += 4 // a heat ends
		}
	}
	one := listentest.New(seed, 1)
	one.Dull(.2, 1)
	blow := listentest.Level(one.Out)
	roar := s.Roar()
	s.Mix(roar, blow/listentest.RMS(roar)*math.Pow(10, -overDb/20))
	return s
}

// noisy is a session with a fan, voices, and a second hammer across the room beside the roar.
func noisy(seed uint64, overDb float64, taps bool, with ...string) *listentest.Smithy {
	s := session(seed, overDb, taps)
	one := listentest.New(seed, 1)
	one.Dull(.2, 1)
	blow := listentest.Level(one.Out)
	// the fan three dB under the roar
	under := math.Pow(10, -overDb/20) * .7
	for _, what := range with {
		switch what {
		case "fan":
			v := s.Fan()
			s.Mix(v, blow/listentest.RMS(v)*under)
		case "speech":
			v := s.Speech()
			s.Mix(v, blow/listentest.RMS(v)*under*.7) // six dB under the roar
		case "other":
			v := s.Other(1)
			s.Mix(v, blow/listentest.Level(v)*math.Pow(10, -14./20))
		}
	}
	return s
}

// TestBlowsAreHeardInASmithy: at 10 dB over the roar 97 in a hundred are found, fewer than two in a hundred are none, and
// taps on the bare anvil, 12 dB louder, are told from them, whatever else is heard.
func TestBlowsAreHeardInASmithy(t *testing.T) {
	for name, with := range map[string][]string{"roar": nil, "fan and voices": {"fan", "speech"}, "a second hammer": {"other"}, "all of it": {"fan", "speech", "other"}} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			var all scored
			for seed := range uint64(4) {
				all.add(play(t, noisy(100+seed, 10, seed != 1, with...)))
			}
			t.Logf("%+v", all)
			assert.GreaterOrEqual(t, float64(all.found), .97*float64(all.blows))
			assert.Less(t, float64(all.false), .02*float64(all.blows))
			assert.LessOrEqual(t, float64(all.counted), .1*float64(all.taps))
			assert.Greater(t, all.taps, 5)
		})
	}
}

// TestItIsHeardAlikeInAnyPieces, at other rates, and learns its anvil from ten blows.
func TestItIsHeardAlikeInAnyPieces(t *testing.T) {
	s := session(7, 14, true)
	v, anvil := s.Samples(.1), taughtOf(t, s, .1)
	whole, err := listen.New(listentest.Rate, anvil)
	require.NoError(t, err)
	want := whole.Hear(v)
	require.Greater(t, len(want), 20)
	pieces, err := listen.New(listentest.Rate, anvil)
	require.NoError(t, err)
	var got []listen.Hit
	for i, n := 0, 1; i < len(v); i, n = i+n, n%777+1 {
		got = append(got, pieces.Hear(v[i:min(i+n, len(v))])...)
	}
	assert.Equal(t, want, got)
	known := whole.Anvil()
	assert.True(t, known.Known())
	again, err := listen.New(listentest.Rate, known)
	require.NoError(t, err)
	first := again.Hear(v[:listentest.Rate*6])
	require.NotEmpty(t, first)
	assert.Equal(t, listen.Blow, first[0].Kind, "what was learned before is known at once")

	half, err := listen.New(listentest.Rate/2, listen.Anvil{})
	require.NoError(t, err)
	slow := make([]float32, len(v)/2)
	for i := range slow {
		slow[i] = (v[2*i] + v[2*i+1]) / 2
	}
	assert.InDelta(t, len(want), len(half.Hear(slow)), 2)
}

// TestWhatIsNoSoundIsSilence: nothing, noise alone, figures that are none, and what a page may claim to have learned.
func TestWhatIsNoSoundIsSilence(t *testing.T) {
	for _, r := range []float64{0, 8000, 1e9, math.NaN()} {
		_, err := listen.New(r, listen.Anvil{})
		require.ErrorIs(t, err, listen.ErrRate)
	}
	nan, inf := float32(math.NaN()), float32(math.Inf(1))
	e, err := listen.New(listentest.Rate, listen.Anvil{Levels: []float64{math.NaN(), 1e300, -20}, Bright: []float64{0, 0, 3}, Rings: []float64{0, 0, 12}})
	require.NoError(t, err)
	assert.Equal(t, listen.Anvil{Levels: []float64{-20}, Bright: []float64{3}, Rings: []float64{12}}, e.Anvil())
	assert.Empty(t, e.Hear(make([]float32, 2*listentest.Rate)))
	for range listentest.Rate {
		assert.Empty(t, e.Hear([]float32{nan, inf, -inf}))
	}
	s := listentest.New(3, 20)
	s.Mix(s.Roar(), .2)
	quiet, err := listen.New(listentest.Rate, listen.Anvil{})
	require.NoError(t, err)
	assert.Empty(t, quiet.Hear(s.Samples(1)), "a forge alone strikes nothing")
}

// TestTwoBlowsWithinAnInstantAreOne: the closest that two are told apart is where they are no rebound.
func TestTwoBlowsWithinAnInstantAreOne(t *testing.T) {
	for _, c := range []struct {
		gapS float64
		want int
	}{{.06, 1}, {.1, 1}, {.16, 2}, {.3, 2}} {
		s := listentest.New(11, 4)
		s.Mix(s.Roar(), .003)
		s.Dull(2, 1)
		s.Dull(2+c.gapS, 1)
		e, err := listen.New(listentest.Rate, listen.Anvil{})
		require.NoError(t, err)
		assert.Len(t, e.Hear(s.Samples(.1)), c.want, "%g s apart", c.gapS)
	}
}

// BenchmarkAtSixDb tells how it does where the forge is nearly as loud as the hammer.
func BenchmarkAtSixDb(b *testing.B) {
	var all scored
	for b.Loop() {
		for seed := range uint64(6) {
			all.add(play(b, noisy(200+seed, 6, true, "fan", "speech", "other")))
		}
	}
	b.ReportMetric(100*float64(all.found)/float64(all.blows), "%found")
	b.ReportMetric(100*float64(all.false)/float64(all.blows), "%false")
	b.ReportMetric(100*float64(all.counted)/float64(all.taps), "%taps-counted")
}

// BenchmarkHear is a second of sound.
func BenchmarkHear(b *testing.B) {
	v := session(7, 14, true).Samples(.1)[:listentest.Rate]
	e, err := listen.New(listentest.Rate, listen.Anvil{})
	require.NoError(b, err)
	b.ReportAllocs()
	for b.Loop() {
		e.Hear(v)
	}
}

// TestBlowsAreCountedFromFirstToLast: taps and what is far are not; the first is told once, the last after every pause.
func TestBlowsAreCountedFromFirstToLast(t *testing.T) {
	var c listen.Count
	blow := func(at float64) listen.Hit { return listen.Hit{AtS: at, Kind: listen.Blow} }
	assert.Empty(t, c.Take([]listen.Hit{{AtS: 1, Kind: listen.Tap}, {AtS: 1.5, Kind: listen.Far}}, 2))
	assert.Equal(t, []listen.Sign{listen.FirstBlow}, c.Take([]listen.Hit{blow(3), blow(3.5)}, 4))
	assert.Empty(t, c.Take(nil, 3.5+listen.PauseS-.1))
	assert.Equal(t, []listen.Sign{listen.LastBlow}, c.Take(nil, 3.5+listen.PauseS))
	assert.Empty(t, c.Take(nil, 20))
	assert.Empty(t, c.Take([]listen.Hit{blow(21)}, 21.2), "it goes on")
	assert.Equal(t, []listen.Sign{listen.LastBlow}, c.Take(nil, 25))
	assert.Equal(t, listen.Count{Blows: 3, FirstS: 3, LastS: 21, Paused: true}, c)
}

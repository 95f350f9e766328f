package listen_test

import (
	"math"
	"testing"

	"coldember/core/listen"
	"coldember/core/listen/listentest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// taught is an ear that was taught by a step of fifteen blows on the anvil of a sound.
func taught(t require.TestingT, like func(seed uint64, seconds float64) *listentest.Forge, seed uint64) listen.Anvil {
	f := like(seed, 16)
	for i := range 15 {
		f.Blow(1+float64(i)*.9, 1)
	}
	f.Add(f.Burner(), 10, true)
	e, err := listen.New(f.RateHz, listen.Anvil{})
	require.NoError(t, err)
	for _, h := range e.Hear(f.Samples()) {
		require.Equal(t, listen.Heard, h.Kind, "untaught it does not count")
	}
	require.True(t, e.Teach(15))
	a := e.Anvil()
	require.True(t, a.Known())
	return a
}

// hears is how an ear that knows its anvil counts a sound.
func hears(t require.TestingT, f *listentest.Forge, a listen.Anvil) (out scored) {
	e, err := listen.New(f.RateHz, a)
	require.NoError(t, err)
	hits := e.Hear(f.Samples())
	used := make([]bool, len(hits))
	for _, h := range f.Hits {
		out.blows++
		for i := range hits {
			if !used[i] && hits[i].Kind == listen.Blow && math.Abs(hits[i].AtS-h.AtS) < .05 {
				used[i] = true
				out.found++
				break
			}
		}
	}
	for i := range hits {
		if !used[i] && hits[i].Kind == listen.Blow {
			out.false++
		}
	}
	return out
}

// among is a sound of so many seconds with a burner 10 dB under a blow, and something else.
func among(f *listentest.Forge, with string) *listentest.Forge {
	f.Add(f.Burner(), 10, true)
	switch with {
	case "grinder":
		f.Add(f.Grinder(), 8, false)
	case "talk":
		f.Add(f.Talk(), 8, false)
	case "music":
		f.Add(f.Music(), 8, false)
	case "second anvil":
		f.Add(f.SecondAnvil(), 12, false)
	}
	return f
}

// heardAmong is how a taught ear counts blows among something, and what it counts in a minute without any.
func heardAmong(t require.TestingT, with string, ringS float64, thin bool, rateHz float64, seed uint64, seconds float64) (all scored, idle int) {
	like := func(s uint64, sec float64) *listentest.Forge {
		f := listentest.NewForge(s, sec, rateHz)
		f.RingS, f.Thin = ringS, thin
		return f
	}
	a := taught(t, like, seed)
	f := like(seed, seconds)
	for at := 1.5; at < seconds-1; at += .5 + .5*f.Rng.Float64() {
		f.Blow(at, 1)
	}
	return hears(t, among(f, with), a), hears(t, among(like(seed+100, 60), with), a).false
}

// TestAnotherSmithyIsHeardAsWell: by sounds that are made in another way, with rebounds in six of ten blows, short rings
// and long ones, a thin piece that rings itself, and what else is heard in a shop.
func TestAnotherSmithyIsHeardAsWell(t *testing.T) {
	for i, c := range []struct {
		with   string
		ringS  float64
		thin   bool
		rateHz float64
	}{{"", .1, false, 16000}, {"", 3, true, 22050}, {"grinder", 1, true, 16000}, {"talk", .4, false, 16000}, {"music", 3, false, 16000}, {"second anvil", .4, true, 16000}} {
		t.Run(c.with, func(t *testing.T) {
			t.Parallel()
			all, idle := heardAmong(t, c.with, c.ringS, c.thin, c.rateHz, uint64(i), 35)
			assert.GreaterOrEqual(t, float64(all.found), .97*float64(all.blows), "%+v", all)
			assert.LessOrEqual(t, float64(all.false), .03*float64(all.blows), "%+v", all)
			assert.LessOrEqual(t, idle, 1, "in a minute without a blow")
		})
	}
}

// TestTheClockIsExact at any rate: two blows so far apart are told so far apart.
func TestTheClockIsExact(t *testing.T) {
	for _, rateHz := range []float64{16000, 22050, 44100, 48000} {
		f := listentest.NewForge(3, 42, rateHz)
		f.Rebounds = 0
		f.Blow(2, 1)
		f.Blow(40, 1)
		e, err := listen.New(rateHz, listen.Anvil{})
		require.NoError(t, err)
		hits := e.Hear(f.Samples())
		require.Len(t, hits, 2)
		assert.InDelta(t, 38, hits[1].AtS-hits[0].AtS, .009, "at %.0f Hz", rateHz)
		assert.InDelta(t, 42, e.HeardS(), .009)
	}
}

// TestOnlyWhatWasConfirmedTeaches: far fewer than were heard, or far more, or a number that no step has.
func TestOnlyWhatWasConfirmedTeaches(t *testing.T) {
	f := listentest.NewForge(4, 14, 16000)
	for i := range 12 {
		f.Blow(1+float64(i), 1)
	}
	e, err := listen.New(16000, listen.Anvil{})
	require.NoError(t, err)
	e.Hear(f.Samples())
	for _, blows := range []int{0, -3, 2, 30, 1_000_000} {
		assert.False(t, e.Teach(blows), "%d", blows)
	}
	known := e.Anvil()
	assert.False(t, known.Known())
	assert.True(t, e.Teach(12))
	known = e.Anvil()
	assert.True(t, known.Known())
	assert.False(t, e.Teach(12), "what taught once is gone")
}

// BenchmarkShop tells how a taught ear does among all that is heard in a shop, by rings and rates.
func BenchmarkShop(b *testing.B) {
	for _, with := range []string{"", "grinder", "talk", "music", "second anvil"} {
		name := with
		if with == "" {
			name = "burner alone"
		}
		b.Run(name, func(b *testing.B) {
			var all scored
			idle, minutes := 0, 0
			for b.Loop() {
				for i, ringS := range []float64{.1, .4, 1, 3} {
					was, wrongly := heardAmong(b, with, ringS, i%2 == 1, []float64{16000, 22050, 44100, 48000}[i], uint64(20+i), 60)
					all.add(was)
					idle, minutes = idle+wrongly, minutes+1
				}
			}
			b.ReportMetric(100*float64(all.found)/float64(all.blows), "%found")
			b.ReportMetric(100*float64(all.false)/float64(all.blows), "%false")
			b.ReportMetric(float64(idle)/float64(minutes), "counted/min-idle")
		})
	}
}

package harden_test

import (
	"fmt"
	"testing"

	"coldember/core/harden"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// blades are so many to be quenched and tempered twice.
func blades(n int, ovenC func(i int) float64) (out []harden.Job) {
	for i := range n {
		out = append(out, harden.Job{ID: fmt.Sprint(i), Tasks: []harden.Task{
			{ID: "quench", Minutes: 20, Hands: true},
			{ID: "temper1", Minutes: 120, OvenC: ovenC(i), WithinMin: 60},
			{ID: "cool", Minutes: 30},
			{ID: "temper2", Minutes: 120, OvenC: ovenC(i)},
		}})
	}
	return out
}

// check holds every rule of a schedule.
func check(t require.TestingT, jobs []harden.Job, ovens []harden.Oven, got []harden.Placed) {
	task := map[string]harden.Task{}
	next := map[string]int{}
	for _, j := range jobs {
		for _, k := range j.Tasks {
			task[j.ID+k.ID] = k
		}
	}
	byJob := map[string][]harden.Placed{}
	for _, p := range got {
		byJob[p.Job] = append(byJob[p.Job], p)
	}
	for _, j := range jobs {
		require.Len(t, byJob[j.ID], len(j.Tasks))
		for _, p := range byJob[j.ID] {
			i := next[j.ID]
			next[j.ID]++
			require.Equal(t, j.Tasks[i].ID, p.Task, "in their order")
			require.InDelta(t, j.Tasks[i].Minutes, p.ToMin-p.FromMin, 1e-6)
			if i > 0 {
				gap := p.FromMin - byJob[j.ID][i-1].ToMin
				require.GreaterOrEqual(t, gap, -1e-6)
				if w := j.Tasks[i].WithinMin; w > 0 {
					require.LessOrEqual(t, gap, w+1e-3, "within the hour")
				}
			}
		}
	}
	for a := range got {
		in := 0
		for b := range got {
			p, q := got[a], got[b]
			ta, tb := task[p.Job+p.Task], task[q.Job+q.Task]
			overlap := p.FromMin < q.ToMin-1e-6 && q.FromMin < p.ToMin-1e-6
			if !overlap {
				continue
			}
			if a != b && ta.Hands && tb.Hands {
				require.Fail(t, "two things in one pair of hands")
			}
			if ta.OvenC > 0 && tb.OvenC > 0 && p.Oven == q.Oven {
				require.Equal(t, ta.OvenC, tb.OvenC, "two settings in one oven")
				in++
			}
		}
		if p := got[a]; task[p.Job+p.Task].OvenC > 0 {
			require.LessOrEqual(t, in, ovens[p.Oven].Holds)
		}
	}
}

// TestNothingCollides whatever the day is made of.
func TestNothingCollides(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var ovens []harden.Oven
		for range rapid.IntRange(1, 3).Draw(t, "ovens") {
			ovens = append(ovens, harden.Oven{Holds: rapid.IntRange(1, 8).Draw(t, "holds")})
		}
		settings := rapid.SliceOfN(rapid.SampledFrom([]float64{180, 200, 210, 230}), 12, 12).Draw(t, "settings")
		jobs := blades(rapid.IntRange(1, 12).Draw(t, "n"), func(i int) float64 { return settings[i] })
		got, err := harden.Schedule(jobs, ovens)
		if err != nil {
			t.Fatal(err)
		}
		check(t, jobs, ovens, got)
	})
}

// TestTwelveOfAKindGoInTogether: loads of one setting are shared, and the day is not twelve times
// as long.
func TestTwelveOfAKindGoInTogether(t *testing.T) {
	ovens := []harden.Oven{{Holds: 4}}
	jobs := blades(12, func(int) float64 { return 200 })
	got, err := harden.Schedule(jobs, ovens)
	require.NoError(t, err)
	check(t, jobs, ovens, got)
	loads, end := map[float64]int{}, 0.0
	for _, p := range got {
		if p.Oven >= 0 {
			loads[p.FromMin]++
		}
		end = max(end, p.ToMin)
	}
	assert.LessOrEqual(t, len(loads), 8)
	assert.Less(t, end, 26*60.0)
}

// TestADayThatCannotBeIsToldSo.
func TestADayThatCannotBeIsToldSo(t *testing.T) {
	_, err := harden.Schedule(blades(1, func(int) float64 { return 200 }), nil)
	var none *harden.NoRoomError
	require.ErrorAs(t, err, &none)
	assert.Equal(t, "temper1", none.Task)
	_, err = harden.Schedule(blades(101, func(int) float64 { return 200 }), []harden.Oven{{Holds: 1}})
	var wrong *harden.RangeError
	require.ErrorAs(t, err, &wrong)
}

// BenchmarkDayOf12 is a day of twelve pieces.
func BenchmarkDayOf12(b *testing.B) {
	jobs := blades(12, func(i int) float64 { return 180 + float64(i%3)*20 })
	for b.Loop() {
		_, err := harden.Schedule(jobs, []harden.Oven{{Holds: 4}})
		require.NoError(b, err)
	}
}

package harden

import "fmt"

// CoolMin is how long a piece cools between two tempers.
const CoolMin = 30

// QuenchMin is what a smith is busy with one blade for, from the fire to the oven's door.
const QuenchMin = 15

// Beside is what of a day is laid out beside hardening and tempering.
type Beside struct {
	CyclesMin []float64 // each cycle, fire and cooling to black
	GlueMin   float64   // gluing up takes the hands GlueHandsMin, and sets so long; 0: none
}

// GlueHandsMin is what gluing a handle up takes, clamps and all.
const GlueHandsMin = 20

// DayOf is the day of one blade as it is advised.
func DayOf(id, name string, a *Advice, t Treatment, b Beside) Job {
	j := Job{ID: id, Name: name}
	for i, m := range b.CyclesMin {
		j.Tasks = append(j.Tasks, Task{ID: fmt.Sprintf("cycle%d", i+1), What: "cycle", Minutes: m, Hands: true})
	}
	j.Tasks = append(j.Tasks, Task{ID: "quench", What: "quench", Minutes: QuenchMin + a.SoakS/60, Hands: true})
	for i := range max(1, t.Times) {
		if i > 0 {
			j.Tasks = append(j.Tasks, Task{ID: fmt.Sprintf("cool%d", i), What: "cool", Minutes: CoolMin})
		}
		temper := Task{ID: fmt.Sprintf("temper%d", i+1), What: "temper", Minutes: t.Hours * 60}
		if t.By() == ByTorch {
			temper.Hands = true
		} else {
			temper.OvenC = a.Temper.OvenC
		}
		if i == 0 {
			temper.WithinMin = 60
		}
		j.Tasks = append(j.Tasks, temper)
	}
	if b.GlueMin > 0 {
		j.Tasks = append(j.Tasks, Task{ID: "glue", What: "glue", Minutes: GlueHandsMin, Hands: true}, Task{ID: "set", What: "set", Minutes: b.GlueMin})
	}
	return j
}

// Quenched is a blade on its way into a tank.
type Quenched struct {
	ID    string
	Bath  Bath
	RiseC float64
}

// Warms is how warm the tank of each blade is when its turn comes, °C, by those that went into the
// same tank before: in a day's quenching it gives next to nothing off. Of what is no oil it is as
// warm as it is kept.
func Warms(all []Quenched) map[string]float64 {
	out, tanks := map[string]float64{}, map[Bath]float64{}
	for _, q := range all {
		out[q.ID] = q.Bath.WarmC + tanks[q.Bath]
		tanks[q.Bath] += q.RiseC
	}
	return out
}

// TooWarm tells whether an oil is too warm for another blade.
func TooWarm(b Bath, warmC float64) bool { return b.Class.Oil() && warmC > tooWarmC }

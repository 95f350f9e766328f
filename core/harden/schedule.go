package harden

import (
	"fmt"
	"math"
	"sort"
)

// Task is a part of the day of one piece, after the one before it.
type Task struct {
	ID      string  `json:"id"`
	What    string  `json:"what"`
	Minutes float64 `json:"minutes"`
	Hands   bool    `json:"hands,omitempty" doc:"takes the smith the whole time"`
	OvenC   float64 `json:"ovenC,omitempty" doc:"in an oven at this setting; 0: in none"`
	// NotBeforeMin: no sooner than so long after the day began, as it was moved by hand.
	NotBeforeMin float64 `json:"notBeforeMin,omitempty"`
	// WithinMin of the end of the one before it has to begin; 0: whenever.
	WithinMin float64 `json:"withinMin,omitempty"`
}

// Job is the day of one piece.
type Job struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Tasks []Task `json:"tasks"`
}

// Placed is a task with its time, minutes from the beginning of the day, and its oven (−1: none).
type Placed struct {
	Job     string  `json:"job"`
	Task    string  `json:"task"`
	FromMin float64 `json:"fromMin"`
	ToMin   float64 `json:"toMin"`
	Oven    int     `json:"oven"`
}

// NoRoomError says which task finds no time in a fortnight, or no oven at all.
type NoRoomError struct{ Job, Task string }

func (e *NoRoomError) Error() string {
	return fmt.Sprintf("harden: no room for %s of %s", e.Task, e.Job)
}

// Bounds of a schedule.
const (
	mostJobs   = 100
	mostTasks  = 20
	mostMin    = 14 * 24 * 60
	mostShifts = 4000
	minSlack   = 1e-6
)

// load is what is in an oven together.
type load struct {
	oven     int
	c        float64
	from, to float64
	count    int
}

// day is what is placed so far.
type day struct {
	ovens []Oven
	hands [][2]float64 // busy, in order
	loads []load
}

// Schedule lays the tasks of pieces out so that hands do one thing at a time and no oven is at
// two settings: piece by piece in their order, each as early as it can be, but that an oven that
// others wait for at the same setting begins as late as the first piece in it allows, so that
// they go in together. Errors are *RangeError and *NoRoomError.
func Schedule(jobs []Job, ovens []Oven) ([]Placed, error) {
	if err := within("jobs", float64(len(jobs)), 0, mostJobs); err != nil {
		return nil, err
	}
	for _, o := range ovens {
		if err := within("holds", float64(o.Holds), 1, 1000); err != nil {
			return nil, err
		}
	}
	for _, j := range jobs {
		if err := within("tasks", float64(len(j.Tasks)), 1, mostTasks); err != nil {
			return nil, err
		}
		for _, t := range j.Tasks {
			if err := within("minutes", t.Minutes, 0, mostMin); err != nil {
				return nil, err
			}
			if err := within("notBeforeMin", t.NotBeforeMin, 0, mostMin); err != nil {
				return nil, err
			}
			if err := within("withinMin", t.WithinMin, 0, mostMin); err != nil {
				return nil, err
			}
		}
	}
	d := &day{ovens: ovens}
	var out []Placed
	for i, j := range jobs {
		placed, err := d.place(j, jobs[i+1:])
		if err != nil {
			return nil, err
		}
		out = append(out, placed...)
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].FromMin < out[b].FromMin })
	return out, nil
}

// place finds times for one piece: where a task would come too late after the one before, that
// one is moved later.
func (d *day) place(j Job, later []Job) ([]Placed, error) {
	least := make([]float64, len(j.Tasks)) // each begins no earlier
	for i := range j.Tasks {
		least[i] = j.Tasks[i].NotBeforeMin
	}
	for range mostShifts {
		placed, at, late := d.try(j, later, least)
		if at < 0 {
			d.keep(j, placed)
			return placed, nil
		}
		if at == 0 || math.IsInf(late, 1) {
			return nil, &NoRoomError{j.ID, j.Tasks[at].ID}
		}
		least[at-1] = placed[at-1].FromMin + math.Max(late, 1)
	}
	return nil, &NoRoomError{j.ID, j.Tasks[0].ID}
}

// try lays the tasks of a piece; at is the one that comes late by so much, −1 where none does.
func (d *day) try(j Job, later []Job, least []float64) (placed []Placed, at int, late float64) {
	end := 0.0
	for i := range j.Tasks {
		t := &j.Tasks[i]
		from, oven := d.earliest(t, math.Max(end, least[i]), end, later)
		if math.IsInf(from, 1) || from > mostMin {
			return placed, i, math.Inf(1)
		}
		if i > 0 && t.WithinMin > 0 && from > end+t.WithinMin+minSlack {
			return placed, i, from - end - t.WithinMin
		}
		end = from + t.Minutes
		placed = append(placed, Placed{Job: j.ID, Task: t.ID, FromMin: from, ToMin: end, Oven: oven})
	}
	return placed, -1, 0
}

// earliest is when a task can begin, no sooner than from; after is the end of the one before.
func (d *day) earliest(t *Task, from, after float64, later []Job) (float64, int) {
	switch {
	case t.OvenC > 0:
		return d.inOven(t, from, after, later)
	case t.Hands:
		for _, b := range d.hands {
			if from+t.Minutes <= b[0]+minSlack {
				break
			}
			from = math.Max(from, b[1])
		}
	}
	return from, -1
}

// inOven joins a load at the same setting that begins in time, or opens one.
func (d *day) inOven(t *Task, from, after float64, later []Job) (float64, int) {
	best, oven := math.Inf(1), -1
	for _, l := range d.loads {
		if l.c == t.OvenC && l.count < d.ovens[l.oven].Holds && l.from >= from-minSlack && math.Abs(l.to-l.from-t.Minutes) < minSlack && l.from < best {
			best, oven = l.from, l.oven
		}
	}
	wish := from
	if t.WithinMin > 0 && waits(t, later) {
		wish = math.Max(from, after+t.WithinMin) // others will come along
	}
	for i := range d.ovens {
		if most := d.ovens[i].MostC; most > 0 && t.OvenC > most {
			continue
		}
		at := d.free(i, wish, t.Minutes)
		if wish > from && at > wish+minSlack {
			at = d.free(i, from, t.Minutes)
		}
		if at < best {
			best, oven = at, i
		}
	}
	return best, oven
}

// waits tells whether any of the pieces to come goes into an oven at the same setting as long.
func waits(t *Task, later []Job) bool {
	for i := range later {
		for _, o := range later[i].Tasks {
			if o.OvenC == t.OvenC && o.Minutes == t.Minutes {
				return true
			}
		}
	}
	return false
}

// free is when an oven is empty for so long, no sooner than from.
func (d *day) free(oven int, from, minutes float64) float64 {
	var busy [][2]float64
	for _, l := range d.loads {
		if l.oven == oven {
			busy = append(busy, [2]float64{l.from, l.to})
		}
	}
	sort.Slice(busy, func(a, b int) bool { return busy[a][0] < busy[b][0] })
	for _, b := range busy {
		if from+minutes <= b[0]+minSlack {
			break
		}
		from = math.Max(from, b[1])
	}
	return from
}

// keep notes what was placed.
func (d *day) keep(j Job, placed []Placed) {
	for i, p := range placed {
		t := &j.Tasks[i]
		switch {
		case t.OvenC > 0:
			joined := false
			for k := range d.loads {
				l := &d.loads[k]
				if l.oven == p.Oven && math.Abs(l.from-p.FromMin) < minSlack && l.c == t.OvenC {
					l.count++
					joined = true
				}
			}
			if !joined {
				d.loads = append(d.loads, load{p.Oven, t.OvenC, p.FromMin, p.ToMin, 1})
			}
		case t.Hands && t.Minutes > 0:
			d.hands = append(d.hands, [2]float64{p.FromMin, p.ToMin})
			sort.Slice(d.hands, func(a, b int) bool { return d.hands[a][0] < d.hands[b][0] })
		}
	}
}

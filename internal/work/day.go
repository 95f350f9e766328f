package work

import (
	"context"
	"errors"
	"time"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/route"
	"coldember/internal/edit"
	"coldember/internal/text"
)

// DayAsked is what a day is laid out of.
type DayAsked struct {
	Pieces  []string // ids, in the order in which they are quenched
	Ovens   []harden.Oven
	Common  bool    // settings that are nearly alike are made one
	Cycles  bool    // the thermal cycles are of the day too
	GlueMin float64 // handles are glued up after, and set so long; 0: none
	Moved   []Moved // by hand
}

// Moved is a task that was moved by hand.
type Moved struct {
	Piece, Task string
	Min         float64 // it begins no sooner after the day began
}

// Day is the hardening and tempering of several pieces in one day.
type Day struct {
	Jobs     []harden.Job
	Placed   []harden.Placed
	Settings map[string]harden.Setting // of each piece
	Oil      []DayOil
	Without  []string // pieces that do not harden, or of which no oven can be said
}

// DayOil is how warm the tank of a piece is when its turn comes.
type DayOil struct {
	Piece string
	WarmC float64
	// TooWarm: it is to cool first, or the next tank is to be taken.
	TooWarm bool
}

// mostOfDay bounds the pieces of a day.
const mostOfDay = 50

// Day lays out the hardening of some pieces so that ovens and hands do not collide. Errors are
// *edit.InvalidError and ErrNotFound.
func (w *Work) Day(ctx context.Context, ask DayAsked) (out Day, err error) {
	out = Day{Jobs: []harden.Job{}, Placed: []harden.Placed{}, Settings: map[string]harden.Setting{}, Oil: []DayOil{}, Without: []string{}}
	if len(ask.Pieces) > mostOfDay {
		return out, edit.One("pieces", "field.tooMany", fact.Figures{"highest": mostOfDay}, "")
	}
	type one struct {
		advice harden.Advice
		t      harden.Treatment
		beside harden.Beside
		name   string
		id     string
	}
	var all []one
	var loads []harden.Load
	var tanks []harden.Quenched
	for _, id := range ask.Pieces {
		p, err := w.Piece(ctx, id)
		if err != nil {
			return out, missing("pieces", err)
		}
		if p.Doc, err = w.OnTheRack(ctx, p.Doc); err != nil {
			return out, err
		}
		made, err := w.Plan(ctx, p.Doc)
		if err != nil {
			return out, err
		}
		a := planner.Treat(&p.Doc.Request, made)
		if !a.Hardens || a.Temper.OvenC <= 0 {
			out.Without = append(out.Without, p.Doc.Name)
			continue
		}
		x := one{a, planner.TreatmentOf(&p.Doc.Request, made), harden.Beside{GlueMin: ask.GlueMin}, p.Doc.Name, p.ID}
		if ask.Cycles {
			x.beside.CyclesMin = cyclesMin(made)
		}
		all = append(all, x)
		loads = append(loads, planner.LoadOf(id, &p.Doc.Request, made))
		tanks = append(tanks, harden.Quenched{ID: id, Bath: a.Bath, RiseC: a.OilRiseC})
	}
	out.Settings = settingsOf(loads, ask.Common)
	warm := harden.Warms(tanks)
	for i := range all {
		x := &all[i]
		x.advice.Temper.OvenC = out.Settings[x.id].OvenC
		j := harden.DayOf(x.id, x.name, &x.advice, x.t, x.beside)
		move(&j, ask.Moved)
		out.Jobs = append(out.Jobs, j)
		if x.advice.Bath.Class.Oil() {
			out.Oil = append(out.Oil, DayOil{x.id, warm[x.id], harden.TooWarm(x.advice.Bath, warm[x.id])})
		}
	}
	out.Placed, err = harden.Schedule(out.Jobs, ask.Ovens)
	if out.Placed == nil {
		out.Placed = []harden.Placed{}
	}
	return out, dayError(err)
}

func dayError(err error) error {
	var none *harden.NoRoomError
	var wrong *harden.RangeError
	switch {
	case errors.As(err, &none):
		return edit.One("ovens", "day.noOven", nil, "")
	case errors.As(err, &wrong):
		return edit.One("ovens", "field.range", fact.Figures{"lowest": wrong.Lowest, "highest": wrong.Highest}, "")
	}
	return err
}

// settingsOf are the common settings, or each one's own.
func settingsOf(loads []harden.Load, common bool) map[string]harden.Setting {
	if common {
		return harden.Common(loads)
	}
	out := map[string]harden.Setting{}
	for i := range loads {
		for id, s := range harden.Common(loads[i : i+1]) {
			out[id] = s
		}
	}
	return out
}

// move lets tasks begin no sooner than they were moved to.
func move(j *harden.Job, moved []Moved) {
	for _, m := range moved {
		for i := range j.Tasks {
			if m.Piece == j.ID && m.Task == j.Tasks[i].ID {
				j.Tasks[i].NotBeforeMin = m.Min
			}
		}
	}
}

// cyclesMin are the thermal cycles of a plan, minutes each.
func cyclesMin(p *plan.Plan) (out []float64) {
	kinds := map[string]string{}
	for i := range p.Operations {
		kinds[p.Operations[i].ID] = p.Operations[i].Kind
	}
	for i := range p.Heats {
		h := &p.Heats[i]
		switch kinds[h.Parts[0].Operation] {
		case route.KindNormalise, route.KindAnneal, route.KindSoften:
			out = append(out, (h.FireS+h.WorkS)/60)
		}
	}
	return out
}

// StartDay begins a timer for every task of a day that something is waited for in, by the
// server's clock; one that is still to come begins when its turn is. Errors are those of Day and
// of StartTimer.
func (w *Work) StartDay(ctx context.Context, ask DayAsked, begin time.Time) ([]Timer, error) {
	d, err := w.Day(ctx, ask)
	if err != nil {
		return nil, err
	}
	what := map[string]harden.Task{}
	for _, j := range d.Jobs {
		for _, t := range j.Tasks {
			what[j.ID+t.ID] = t
		}
	}
	kinds := map[string]TimerKind{"cycle": TimerCycle, "temper": TimerTemper, "set": TimerGlue}
	var out []Timer
	for _, p := range d.Placed {
		t := what[p.Job+p.Task]
		kind, waits := kinds[t.What]
		if !waits || t.Minutes <= 0 {
			continue
		}
		label := text.Say("day.timer."+t.What, text.Figures(map[string]float64{"ovenC": t.OvenC, "n": float64(p.Oven + 1)}, ""))
		out = append(out, Timer{PieceID: p.Job, Kind: kind, Label: label, Seconds: t.Minutes * 60, StartedAt: begin.Add(time.Duration(p.FromMin * float64(time.Minute)))})
	}
	return w.startTimers(ctx, out)
}

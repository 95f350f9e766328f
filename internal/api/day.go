package api

import (
	"context"
	"net/http"
	"time"

	"coldember/core/harden"
	"coldember/internal/export"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Day is the hardening of several pieces, laid out.
type Day struct {
	Jobs    []harden.Job    `json:"jobs"`
	Placed  []harden.Placed `json:"placed"`
	Without []string        `json:"without" doc:"pieces that do not harden, or of which no oven can be said"`
}

// dayIn names pieces in their order, and how much each oven holds.
type dayIn struct {
	Pieces []string  `query:"pieces,explode" doc:"ids, in the order in which they are quenched"`
	Ovens  []int     `query:"ovens,explode" doc:"how many pieces each oven holds"`
	Begin  time.Time `query:"begin" doc:"of the day, for the calendar"`
}

func (in *dayIn) ovens() []harden.Oven {
	out := make([]harden.Oven, len(in.Ovens))
	for i, n := range in.Ovens {
		out[i] = harden.Oven{Holds: n}
	}
	return out
}

func (h *handlers) day(api huma.API) {
	huma.Register(api, op("planDay", http.MethodGet, "/day", "The hardening of several pieces, so that ovens and hands do not collide"),
		func(ctx context.Context, in *dayIn) (*body[Day], error) {
			d, err := h.work.Day(ctx, in.Pieces, in.ovens())
			return answer(ctx, h, Day{d.Jobs, d.Placed, d.Without}, err)
		})
	huma.Register(api, op("dayCalendar", http.MethodGet, "/day.ics", "The same as a calendar"),
		func(ctx context.Context, in *dayIn) (*fileOut, error) {
			d, err := h.work.Day(ctx, in.Pieces, in.ovens())
			if err != nil {
				_, err = answer(ctx, h, d, err)
				return nil, err
			}
			return &fileOut{ContentType: "text/calendar; charset=utf-8", Disposition: download("cold ember", " day.ics"), Body: DayCalendar(&d, in.Begin)}, nil
		})
}

// DayCalendar is a day as a calendar.
func DayCalendar(d *work.Day, begin time.Time) []byte {
	return export.Calendar(appointments(d, begin), time.Now())
}

// appointments are a day's tasks in a calendar; what only cools is left out.
func appointments(d *work.Day, begin time.Time) (out []export.Appointment) {
	names, c := map[string]string{}, map[string]float64{}
	for _, j := range d.Jobs {
		names[j.ID] = j.Name
		for _, t := range j.Tasks {
			c[j.ID+t.ID] = t.OvenC
		}
	}
	at := func(minutes float64) time.Time { return begin.Add(time.Duration(minutes * float64(time.Minute))) }
	for _, p := range d.Placed {
		what := "day.quench"
		if p.Oven >= 0 {
			what = "day.temper"
		} else if p.Task != "quench" {
			continue
		}
		out = append(out, export.Appointment{
			ID: p.Job + "-" + p.Task, Title: names[p.Job] + ": " + text.Say(what, text.Figures(map[string]float64{"ovenC": c[p.Job+p.Task]}, "")), From: at(p.FromMin), To: at(p.ToMin), Alarm: p.Oven >= 0,
		})
	}
	return out
}

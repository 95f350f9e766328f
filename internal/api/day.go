package api

import (
	"context"
	"math"
	"net/http"
	"strconv"
	"strings"
	"time"

	"coldember/core/harden"
	"coldember/internal/edit"
	"coldember/internal/export"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Day is the hardening of several pieces, laid out.
type Day struct {
	Jobs     []harden.Job              `json:"jobs"`
	Placed   []harden.Placed           `json:"placed"`
	Settings map[string]harden.Setting `json:"settings" doc:"what each piece is tempered at, by its id"`
	Oil      []DayOil                  `json:"oil" doc:"how warm the tank of each is when its turn comes"`
	Without  []string                  `json:"without" doc:"pieces that do not harden, or of which no oven can be said"`
}

// DayOil is how warm a tank is for a piece.
type DayOil struct {
	PieceID string  `json:"pieceId"`
	WarmC   float64 `json:"warmC"`
	TooWarm bool    `json:"tooWarm,omitempty"`
}

func dayOf(d work.Day) Day {
	return Day{d.Jobs, d.Placed, d.Settings, each(d.Oil, func(o work.DayOil) DayOil { return DayOil{o.Piece, o.WarmC, o.TooWarm} }), d.Without}
}

// dayIn names pieces in their order, and what there is to temper them in.
type dayIn struct {
	Pieces  []string  `query:"pieces,explode" doc:"ids, in the order in which they are quenched"`
	Ovens   []int     `query:"ovens,explode" doc:"how many pieces each oven holds; none: the ovens of the shop"`
	Begin   time.Time `query:"begin" doc:"of the day, for the calendar and the timers"`
	Common  bool      `query:"common" doc:"settings that are nearly alike are made one"`
	Cycles  bool      `query:"cycles" doc:"thermal cycles are of the day too"`
	GlueMin float64   `query:"glueMin" minimum:"0" maximum:"2880" doc:"handles are glued up after, and set so long; 0: none"`
	Moved   []string  `query:"moved,explode" doc:"tasks moved by hand: piece id, task and minute after the beginning, with colons between"`
}

func (in *dayIn) asked(ctx context.Context, w *work.Work) (work.DayAsked, error) {
	out := work.DayAsked{Pieces: in.Pieces, Common: in.Common, Cycles: in.Cycles, GlueMin: in.GlueMin}
	for _, n := range in.Ovens {
		out.Ovens = append(out.Ovens, harden.Oven{Holds: n})
	}
	if len(in.Ovens) == 0 {
		s, err := w.Shop(ctx)
		if err != nil {
			return out, err
		}
		for _, o := range s.Doc.Ovens {
			out.Ovens = append(out.Ovens, o.Oven)
		}
	}
	for _, m := range in.Moved {
		parts := strings.Split(m, ":")
		if len(parts) != 3 {
			return out, edit.One("moved", "day.moved", nil, m)
		}
		at, err := strconv.ParseFloat(parts[2], 64)
		if err != nil || math.IsNaN(at) {
			return out, edit.One("moved", "day.moved", nil, m)
		}
		out.Moved = append(out.Moved, work.Moved{Piece: parts[0], Task: parts[1], Min: at})
	}
	return out, nil
}

func (h *handlers) day(api huma.API) {
	huma.Register(api, op("planDay", http.MethodGet, "/day", "The hardening of several pieces, so that ovens and hands do not collide"),
		func(ctx context.Context, in *dayIn) (*body[Day], error) {
			ask, err := in.asked(ctx, h.work)
			if err != nil {
				return answer(ctx, h, Day{}, err)
			}
			d, err := h.work.Day(ctx, ask)
			return answer(ctx, h, dayOf(d), err)
		})
	huma.Register(api, op("startDay", http.MethodPost, "/day/timers", "Begin a timer for every part of a day that is waited for"),
		func(ctx context.Context, in *dayIn) (*body[Timers], error) {
			ask, err := in.asked(ctx, h.work)
			if err != nil {
				return answer(ctx, h, Timers{}, err)
			}
			begin := in.Begin
			if begin.IsZero() {
				begin = time.Now()
			}
			t, err := h.work.StartDay(ctx, ask, begin)
			return answer(ctx, h, Timers{Items: each(t, timerOf), NowMs: time.Now().UnixMilli()}, err)
		})
	huma.Register(api, op("dayCalendar", http.MethodGet, "/day.ics", "The same as a calendar"),
		func(ctx context.Context, in *dayIn) (*fileOut, error) {
			ask, err := in.asked(ctx, h.work)
			if err == nil {
				var d work.Day
				if d, err = h.work.Day(ctx, ask); err == nil {
					return &fileOut{ContentType: "text/calendar; charset=utf-8", Disposition: download("cold ember", named("day", ".ics")), Body: DayCalendar(&d, in.Begin)}, nil
				}
			}
			_, err = answer(ctx, h, Day{}, err)
			return nil, err
		})
}

// beginsAt is when a day begins that does not say: at eight in the morning, today.
const beginsAt = 8

// DayBegins is when the day of a moment begins, where nothing is said of it.
func DayBegins(now time.Time) time.Time {
	return time.Date(now.Year(), now.Month(), now.Day(), beginsAt, 0, 0, 0, now.Location())
}

// DayCalendar is a day as a calendar; one that says no begin is today's.
func DayCalendar(d *work.Day, begin time.Time) []byte {
	if begin.IsZero() {
		begin = DayBegins(time.Now())
	}
	return export.Calendar(appointments(d, begin), time.Now())
}

// appointments are a day's tasks in a calendar; what only cools is left out.
func appointments(d *work.Day, begin time.Time) (out []export.Appointment) {
	names, kinds, c := map[string]string{}, map[string]string{}, map[string]float64{}
	for _, j := range d.Jobs {
		names[j.ID] = j.Name
		for _, t := range j.Tasks {
			kinds[j.ID+t.ID], c[j.ID+t.ID] = t.What, t.OvenC
		}
	}
	at := func(minutes float64) time.Time { return begin.Add(time.Duration(minutes * float64(time.Minute))) }
	for _, p := range d.Placed {
		what := "day.task." + kinds[p.Job+p.Task]
		if !text.Has(what) {
			continue
		}
		out = append(out, export.Appointment{
			ID: p.Job + "-" + p.Task, Title: names[p.Job] + ": " + text.Say(what, text.Figures(map[string]float64{"ovenC": c[p.Job+p.Task]}, "")), From: at(p.FromMin), To: at(p.ToMin), Alarm: p.Oven >= 0 || kinds[p.Job+p.Task] == "set",
		})
	}
	return out
}

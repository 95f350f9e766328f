package api

import (
	"context"
	"net/http"
	"time"

	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Timer is something that is waited for.
type Timer struct {
	ID        string    `json:"id"`
	PieceID   string    `json:"pieceId,omitempty"`
	Piece     string    `json:"piece,omitempty" doc:"its name"`
	Kind      string    `json:"kind" enum:"soak,cycle,temper,glue,before,other"`
	Label     string    `json:"label"`
	Seconds   float64   `json:"seconds"`
	StartedAt time.Time `json:"startedAt"`
	DueAt     time.Time `json:"dueAt"`
}

func timerOf(t work.Timer) Timer {
	return Timer{ID: t.ID, PieceID: t.PieceID, Piece: t.Piece, Kind: string(t.Kind), Label: t.Label, Seconds: t.Seconds, StartedAt: t.StartedAt, DueAt: t.DueAt()}
}

// Timers are all that run or have rung.
type Timers struct {
	Items []Timer `json:"items"`
	NowMs int64   `json:"nowMs" doc:"the server's clock, since 1970"`
}

// NewTimer is what a timer is begun with.
type NewTimer struct {
	PieceID string  `json:"pieceId,omitempty"`
	Kind    string  `json:"kind" enum:"soak,cycle,temper,glue,before,other"`
	Label   string  `json:"label"`
	Seconds float64 `json:"seconds"`
}

func (h *handlers) timers(api huma.API) {
	all := func(ctx context.Context) (Timers, error) {
		v, err := h.work.Timers(ctx)
		return Timers{Items: each(v, timerOf), NowMs: time.Now().UnixMilli()}, err
	}
	huma.Register(api, op("listTimers", http.MethodGet, "/timers", "What is waited for: timers that run or have rung"),
		func(ctx context.Context, _ *struct{}) (*body[Timers], error) {
			v, err := all(ctx)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("startTimer", http.MethodPost, "/timers", "Begin a timer now, by the server's clock"),
		func(ctx context.Context, in *body[NewTimer]) (*body[Timer], error) {
			b := in.Body
			t, err := h.work.StartTimer(ctx, work.Timer{PieceID: b.PieceID, Kind: work.TimerKind(b.Kind), Label: b.Label, Seconds: b.Seconds})
			return answer(ctx, h, timerOf(t), err)
		})
	huma.Register(api, op("stopTimer", http.MethodPost, "/timers/{id}/stop", "Stop a timer that runs, or has rung"),
		func(ctx context.Context, in *idIn) (*body[Timers], error) {
			if err := h.work.StopTimer(ctx, in.ID); err != nil {
				return answer(ctx, h, Timers{}, err)
			}
			v, err := all(ctx)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("timersCalendar", http.MethodGet, "/timers.ics", "When timers ring, as a calendar"),
		func(ctx context.Context, _ *struct{}) (*fileOut, error) {
			v, err := h.work.Timers(ctx)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			events := make([]export.Appointment, len(v))
			for i := range v {
				events[i] = export.Appointment{ID: v[i].ID, Title: title(&v[i]), From: v[i].StartedAt, To: v[i].DueAt(), Alarm: true}
			}
			return &fileOut{ContentType: "text/calendar; charset=utf-8", Disposition: download("cold ember", named("timers", ".ics")), Body: export.Calendar(events, time.Now())}, nil
		})
}

// title is a timer in a line.
func title(t *work.Timer) string {
	if t.Piece == "" {
		return t.Label
	}
	return t.Piece + ": " + t.Label
}

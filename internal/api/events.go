package api

import (
	"context"
	"net/http"
	"time"

	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"
)

// Saved tells the page that something was saved, here or in another window.
type Saved struct {
	Kind    string `json:"kind" enum:"piece,pattern,stock,shop,session,timer,access,practised,all" doc:"all: another copy of everything was put back"`
	ID      string `json:"id"`
	Version int    `json:"version"`
}

// Quiet is sent now and then, so that either side notices when the other has gone.
type Quiet struct {
	S int `json:"s" doc:"seconds until the next, at most"`
}

// quietEvery is how often a stream is heard of though nothing happens. Every event
// moves the deadline of writing, which would end a stream otherwise.
const quietEvery = 20 * time.Second

// concerns tells whether an event is of something that a student sees; all others hear of everything.
func (h *handlers) concerns(ctx context.Context, e work.Event) bool {
	if work.ViewerOf(ctx).Role != work.Student {
		return true
	}
	var err error
	switch e.Kind {
	case "piece":
		_, err = h.work.Piece(ctx, e.ID)
	case "session":
		_, err = h.work.Fire(ctx, e.ID)
	case "access", "practised":
		return false
	}
	return err == nil
}

func (h *handlers) events(api huma.API) {
	o := op("events", http.MethodGet, "/events", "What is saved, as it is saved (server-sent events)")
	o.Errors = nil
	sse.Register(api, o, map[string]any{"saved": Saved{}, "quiet": Quiet{}}, func(ctx context.Context, _ *struct{}, send sse.Sender) {
		saved, stop := h.work.Listen()
		defer stop()
		beat := time.NewTicker(quietEvery)
		defer beat.Stop()
		if send.Data(Quiet{S: int(quietEvery.Seconds())}) != nil {
			return
		}
		for {
			var err error
			select {
			case <-ctx.Done():
				return
			case e := <-saved:
				if !h.concerns(ctx, e) {
					continue
				}
				err = send.Data(Saved{Kind: e.Kind, ID: e.ID, Version: e.Version})
			case <-beat.C:
				err = send.Data(Quiet{S: int(quietEvery.Seconds())})
			}
			if err != nil {
				return
			}
		}
	})
}

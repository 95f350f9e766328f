package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"coldember/internal/doc"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Shelf is the view at the anvil on the local network, as the smith's own pages turn it on and off.
type Shelf interface {
	State() ShelfState
	Set(on, keep bool) error
	Pair(kind string) error
}

// ShelfState is how the shelf stands.
type ShelfState struct {
	On          bool     `json:"on"`
	Keep        bool     `json:"keep" doc:"on again at the next start"`
	Addresses   []string `json:"addresses" doc:"where it is reached, the likeliest first"`
	Fingerprint string   `json:"fingerprint,omitempty" doc:"of its certificate: SHA-256"`
	Pairing     *Pairing `json:"pairing,omitempty" doc:"a code that counts now"`
}

// Pairing is a code that counts now.
type Pairing struct {
	Code  string    `json:"code"`
	Kind  string    `json:"kind" enum:"screen,student,teacher" doc:"who is paired by it"`
	Until time.Time `json:"until"`
	Left  int       `json:"left" doc:"tries"`
	Link  string    `json:"link"`
	QR    string    `json:"qr" doc:"the link as a code of squares, SVG"`
}

// ShelfSet is how it is to stand.
type ShelfSet struct {
	On   bool `json:"on"`
	Keep bool `json:"keep"`
}

func (h *handlers) shelfState(err error) (*body[ShelfState], error) {
	if err != nil {
		return nil, problem(http.StatusServiceUnavailable, "shelf.busy", map[string]string{"detail": err.Error()})
	}
	return &body[ShelfState]{h.onNet.State()}, nil
}

func (h *handlers) shelf(api huma.API) {
	none := func() error { return problem(http.StatusNotFound, "shelf.none", nil) }
	huma.Register(api, op("shelfState", http.MethodGet, "/shelf", "How the view at the anvil stands on the local network"),
		func(context.Context, *struct{}) (*body[ShelfState], error) {
			if h.onNet == nil {
				return nil, none()
			}
			return h.shelfState(nil)
		})
	huma.Register(api, op("shelfFires", http.MethodGet, "/shelf/fires", "The pieces that a paired screen may show"),
		func(ctx context.Context, _ *struct{}) (*body[[]ShelfFire], error) {
			v, err := shelfFires(ctx, h.work)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("setShelf", http.MethodPost, "/shelf", "Open the view at the anvil to the local network, or close it"),
		func(_ context.Context, in *body[ShelfSet]) (*body[ShelfState], error) {
			if h.onNet == nil {
				return nil, none()
			}
			return h.shelfState(h.onNet.Set(in.Body.On, in.Body.Keep))
		})
	huma.Register(api, op("pairShelf", http.MethodPost, "/shelf/pairing", "Show a code that pairs one screen, or one person of a class: five minutes, five tries"),
		func(_ context.Context, in *struct {
			Kind string `query:"kind" enum:"screen,student,teacher" default:"screen"`
		},
		) (*body[ShelfState], error) {
			if h.onNet == nil {
				return nil, none()
			}
			if err := h.onNet.Pair(in.Kind); err != nil {
				if errors.Is(err, ErrShelfOff) {
					return nil, problem(http.StatusConflict, "shelf.off", nil)
				}
				return nil, err
			}
			return h.shelfState(nil)
		})
}

// ErrShelfOff says that the shelf has to be on for that.
var ErrShelfOff = errors.New("the shelf is off")

// ShelfFire is a piece at the fire, as a paired screen lists it.
type ShelfFire struct {
	PieceID string `json:"pieceId"`
	Name    string `json:"name"`
	Trips   int    `json:"trips" doc:"heats taken"`
	Heats   int    `json:"heats"`
}

// shelfFires are the pieces that a paired screen may show: each piece's newest session that is not finished.
func shelfFires(ctx context.Context, w *work.Work) ([]ShelfFire, error) {
	out := []ShelfFire{}
	pieces, _, err := w.Pieces(ctx, false)
	if err != nil {
		return out, err
	}
	here := map[string]bool{}
	for _, p := range pieces {
		here[p.ID] = true
	}
	all, err := w.AllFires(ctx)
	for _, e := range all {
		done := e.Completed || e.Hardened
		if !e.Replaced && !done && here[e.PieceID] {
			out = append(out, ShelfFire{PieceID: e.PieceID, Name: e.Name, Trips: e.Trips, Heats: e.Heats})
		}
	}
	return out, err
}

// ShelfSettings are those of the shop that a paired screen may know: how figures are printed, and the tongs.
func ShelfSettings(s work.Settings) Settings {
	d := doc.NewShop()
	d.Units, d.Fraction, d.Temperature, d.Theme, d.Paper, d.Tongs, d.Demo = s.Doc.Units, s.Doc.Fraction, s.Doc.Temperature, s.Doc.Theme, s.Doc.Paper, s.Doc.Tongs, s.Doc.Demo
	return settingsOf(work.Settings{Doc: d, Version: s.Version})
}

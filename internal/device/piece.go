// Package device has small stand-ins for what is outside: a piece of steel that is forged by
// hands of its own, and tells what happens through the calls that a screen at the anvil makes.
package device

import (
	"context"
	"fmt"
	"strings"
	"time"

	"coldember/core/session"
	"coldember/core/simulate"
	"coldember/internal/work"
)

// ErrRefused says that what a simulated piece told was not taken.
type ErrRefused struct{ Events []work.Refusal }

func (e *ErrRefused) Error() string {
	return fmt.Sprintf("device: %d events refused, the first %s", len(e.Events), e.Events[0].ID)
}

// Forge takes a piece of work to the fire and forges it as a hidden piece of steel goes that is
// drawn from a seed; without a beginning it ends now. What it told is answered. Errors are those of the calls, and *ErrRefused.
func Forge(ctx context.Context, w *work.Work, pieceID string, seed uint64, wish simulate.Wish) (work.Fire, []session.Event, error) {
	fire, err := w.TakeToFire(ctx, pieceID, false)
	if err != nil {
		return fire, nil, err
	}
	piece, err := simulate.New(ctx, fire.Doc.Request, seed)
	if err != nil {
		return fire, nil, err
	}
	return told(ctx, w, fire, piece, wish)
}

// ForgeBy is Forge by a hidden smith, of whom it is piece number n.
func ForgeBy(ctx context.Context, w *work.Work, pieceID string, smith simulate.Smith, n int, wish simulate.Wish) (work.Fire, []session.Event, error) {
	fire, err := w.TakeToFire(ctx, pieceID, false)
	if err != nil {
		return fire, nil, err
	}
	piece, err := smith.Forge(ctx, fire.Doc.Request, n)
	if err != nil {
		return fire, nil, err
	}
	return told(ctx, w, fire, piece, wish)
}

func told(ctx context.Context, w *work.Work, fire work.Fire, piece *simulate.Piece, wish simulate.Wish) (work.Fire, []session.Event, error) {
	if !strings.HasPrefix(wish.Device, session.StandIn) {
		wish.Device = session.StandIn + wish.Device
	}
	events := piece.Tell(wish)
	if wish.BeginMs <= 0 { // it ends now
		wish.BeginMs = time.Now().UnixMilli() - events[len(events)-1].AtMs
		events = piece.Tell(wish)
	}
	heard, err := w.Tell(ctx, fire.ID, 0, events) // its clock is that of the session itself
	if err == nil && len(heard.Refused) > 0 {
		err = &ErrRefused{heard.Refused}
	}
	return fire, events, err
}

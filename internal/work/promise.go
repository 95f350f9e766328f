package work

import (
	"context"
	"sort"
	"time"

	"coldember/core/finish"
	"coldember/core/planner"
	"coldember/internal/doc"
)

// Promised is when a knife can be promised and for how much.
type Promised struct {
	Price    float64 // 0: no price is known
	Cost     float64
	AheadMin float64 // of pieces that were begun before it
	Ahead    int
	Days     int
	Day      time.Time // zero where the shop does not say how much it works
}

// mostAhead bounds the pieces that are counted before one.
const mostAhead = 60

// Promise is what a knife costs and when it can be ready, after what is in hand before it: the
// pieces that are older and not finished, each with what is left of it.
func (w *Work) Promise(ctx context.Context, pieceID string) (Promised, error) {
	p, err := w.Piece(ctx, pieceID)
	if err != nil {
		return Promised{}, err
	}
	account, err := w.account(ctx, p.Doc)
	if err != nil {
		return Promised{}, err
	}
	all, _, err := w.Pieces(ctx, false)
	if err != nil {
		return Promised{}, err
	}
	fires, err := w.AllFires(ctx)
	if err != nil {
		return Promised{}, err
	}
	done := map[string]float64{} // share of the whole knife, by piece
	for _, e := range fires {
		done[e.PieceID] = max(done[e.PieceID], doneShare(e))
	}
	out := Promised{Cost: account.Cost, Price: account.Price}
	sort.SliceStable(all, func(i, j int) bool { return all[i].CreatedAt.Before(all[j].CreatedAt) })
	for _, o := range all {
		if o.ID == pieceID || out.Ahead >= mostAhead {
			break
		}
		left := 1 - done[o.ID]
		if left <= 0 {
			continue
		}
		of, err := w.account(ctx, o.Doc)
		if err != nil {
			continue // one that cannot be planned is not in hand
		}
		out.Ahead++
		out.AheadMin += of.Min * left
	}
	shop, err := w.Shop(ctx)
	if err != nil {
		return out, err
	}
	if out.Days = finish.PromiseDays(&account, finish.Queue{AheadMin: out.AheadMin, HoursPerWeek: shop.Doc.HoursPerWeek}); out.Days > 0 {
		out.Day = w.now().AddDate(0, 0, out.Days)
	}
	return out, nil
}

// account is what the knife of a document takes and costs, as Finish says it.
func (w *Work) account(ctx context.Context, d doc.Piece) (finish.Account, error) {
	p, err := w.Plan(ctx, d)
	if err != nil {
		return finish.Account{}, err
	}
	return planner.Account(&d.Request, p)
}

// Of a whole knife, what is done once it is forged, and once it is hardened (judgement).
const (
	forgedShare   = .25
	hardenedShare = .35
)

// doneShare is how much of a knife is done.
func doneShare(e Entry) float64 {
	switch {
	case e.Completed:
		return 1
	case e.Hardened:
		return hardenedShare
	case e.Steps > 0:
		return forgedShare * float64(min(e.Step, e.Steps)) / float64(e.Steps)
	}
	return 0
}

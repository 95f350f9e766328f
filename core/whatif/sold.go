package whatif

import (
	"context"
	"strconv"

	"coldember/core/plan"
	"coldember/core/stock"
)

// OfSold is what a blade takes of a flat as it is sold, of this steel: of those that forge it, the one that comes first by time
// and waste. The error is that of Rank; Feasible is false where none of them does, and Obstacle is that of the broadest.
func OfSold(ctx context.Context, req plan.Request, steelID string) (stock.Item, Ranked, error) {
	sold := stock.Sold()
	list := make([]Candidate, len(sold))
	for i, p := range sold {
		list[i] = Candidate{ID: strconv.Itoa(i), Piece: p, SteelID: steelID, Certain: 1}
	}
	ranked, err := Rank(ctx, req, list)
	if err != nil {
		return stock.Item{}, Ranked{}, err
	}
	best := ranked[0]
	for _, r := range ranked {
		if !best.Feasible && r.ID == list[len(list)-1].ID {
			best = r
		}
	}
	i, err := strconv.Atoi(best.ID)
	if err != nil {
		return stock.Item{}, Ranked{}, err
	}
	return sold[i], best, nil
}

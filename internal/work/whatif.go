package work

import (
	"context"
	"sort"

	"coldember/core/plan"
	"coldember/core/stock"
	"coldember/core/whatif"
	"coldember/internal/doc"
	"coldember/internal/edit"
)

// originOf is what a plan needs to know of a piece of stock that was something
// else before.
func originOf(s Stock) plan.Origin {
	o := plan.Origin{ID: s.Doc.Origin, Hazards: s.Doc.Hazards, Acknowledged: s.Doc.Acknowledged, Tests: s.Doc.Findings}
	if s.Belief != nil {
		o.Window = &plan.Window{LowC: s.Belief.ForgeLowC, HighC: s.Belief.ForgeHighC}
	}
	return o
}

// certainty of a piece's steel, 0–1.
func certainty(s Stock) float64 {
	switch {
	case !s.Doc.Believed:
		return 1
	case s.Belief == nil || s.Belief.Verdict == stock.Contradictory:
		return .3
	}
	return s.Belief.Shares[0].Now
}

// Sure tells how much bar suffices how often for a document.
func (w *Work) Sure(ctx context.Context, d doc.Piece, t *whatif.Tolerances, runs int, seed uint64) (*whatif.Sure, error) {
	if t == nil {
		usual := plan.UsualTolerances(d.Request)
		t = &usual
	}
	s, err := whatif.BeSure(ctx, d.Request, *t, runs, seed)
	return s, edit.Invalid(err)
}

// Within tells between what the totals of a document's plan lie.
func (w *Work) Within(ctx context.Context, d doc.Piece) (*whatif.Within, error) {
	v, err := whatif.BeWithin(ctx, d.Request, whatif.UsualDoubt())
	return v, edit.Invalid(err)
}

// Doubts draws whole plans around a document.
func (w *Work) Doubts(ctx context.Context, d doc.Piece, known []whatif.Sample, from, draws int, seed uint64) (*whatif.Doubtful, error) {
	v, err := whatif.Doubts(ctx, d.Request, whatif.UsualDoubt(), known, from, draws, seed, 0)
	return v, edit.Invalid(err)
}

// Hopes lists the ways out of what the bar of a document cannot bear.
func (w *Work) Hopes(ctx context.Context, d doc.Piece) ([]whatif.Hope, error) {
	h, err := whatif.Hopes(ctx, d.Request)
	return h, edit.Invalid(err)
}

// Costs tells what a millimetre more costs in bar.
func (w *Work) Costs(ctx context.Context, d doc.Piece) ([]whatif.Cost, error) {
	c, err := whatif.Costs(ctx, d.Request)
	return c, edit.Invalid(err)
}

// Largest scales the blade of a document until it uses its stock up.
func (w *Work) Largest(ctx context.Context, d doc.Piece, f whatif.Freedom) (*whatif.Fit, error) {
	fit, err := whatif.Largest(ctx, d.Request, f)
	return fit, edit.Invalid(err)
}

// RankedStock is a piece of the rack with what a blade would take of it.
type RankedStock struct {
	whatif.Ranked
	Stock Stock
}

// RankRack orders the rack for the blade of a document.
func (w *Work) RankRack(ctx context.Context, d doc.Piece) ([]RankedStock, error) {
	rack, _, err := w.Rack(ctx, false)
	if err != nil {
		return nil, err
	}
	byID := map[string]Stock{}
	list := make([]whatif.Candidate, 0, len(rack))
	for _, s := range rack {
		byID[s.ID] = s
		p := s.Doc.Piece
		perG := 0.0
		if s.MassG > 0 {
			perG = s.Doc.Cost / s.MassG
		}
		list = append(list, whatif.Candidate{ID: s.ID, Piece: p, SteelID: s.Doc.SteelID, Origin: originOf(s), Analysis: s.Doc.Analysis, Certain: certainty(s), CostPerG: perG})
	}
	ranked, err := whatif.Rank(ctx, d.Request, list)
	if err != nil {
		return nil, edit.Invalid(err)
	}
	out := make([]RankedStock, len(ranked))
	for i, r := range ranked {
		out[i] = RankedStock{Ranked: r, Stock: byID[r.ID]}
	}
	return out, nil
}

// FittingPattern is a pattern that a piece of stock might become.
type FittingPattern struct {
	Pattern  Pattern
	Feasible bool    // as it is
	Why      string  // the obstacle as it is
	Used     float64 // of the piece, 0–1
	Factor   float64 // uniform, of the largest blade of it; 0: none
	LengthMm float64 // of that blade
	Looked   bool    // in full, not by volume and reach alone
}

// Bounds of what is asked about a piece of stock and the library: so many are looked at
// in full, and so many told.
const (
	fitsPlanned = 10
	fitsScaled  = 8
	fitsTold    = 60
)

// Fits ranks the library on a piece of stock: what comes of it as it is, using the most
// of it first, then what is too large, with the largest that would come of it. All are
// screened by volume and reach; the most promising of either are looked at in full, which
// Looked tells.
func (w *Work) Fits(ctx context.Context, stockID string) ([]FittingPattern, error) {
	s, err := w.StockItem(ctx, stockID)
	if err != nil {
		return nil, err
	}
	patterns, _, err := w.Patterns(ctx, false)
	if err != nil {
		return nil, err
	}
	shop, err := w.Shop(ctx)
	if err != nil {
		return nil, err
	}
	c := whatif.Candidate{ID: s.ID, Piece: s.Doc.Piece, SteelID: s.Doc.SteelID, Origin: originOf(s), Analysis: s.Doc.Analysis, Certain: 1}
	request := func(p Pattern) plan.Request {
		req := patternOn(&p.Doc, &shop.Doc, s.Doc.SteelID, s.Doc.Piece)
		req.Origin, req.Analysis = c.Origin, c.Analysis
		return req
	}
	out := make([]FittingPattern, 0, len(patterns))
	for _, p := range patterns {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		r, err := whatif.Screen(request(p), c)
		if err != nil {
			return nil, edit.Invalid(err)
		}
		f := FittingPattern{Pattern: p}
		f.take(s, r)
		out = append(out, f)
	}
	byUse(out)
	planned, scaled := 0, 0
	for i := range out {
		f := &out[i]
		if f.Feasible && planned < fitsPlanned {
			planned++
			ranked, err := whatif.Rank(ctx, request(f.Pattern), []whatif.Candidate{c})
			if err != nil {
				return nil, edit.Invalid(err)
			}
			f.take(s, ranked[0])
			f.Looked = true
		}
		if s.Refused || f.Feasible || scaled == fitsScaled {
			continue
		}
		scaled, f.Looked = scaled+1, true
		// it does not fit as it is: only smaller is asked about
		if fit, err := whatif.Largest(ctx, request(f.Pattern), smaller()); err == nil {
			f.Factor, f.LengthMm = fit.Length, fit.Design.LengthMm
		} else if ctx.Err() != nil {
			return nil, ctx.Err()
		}
	}
	byUse(out)
	return out[:min(len(out), fitsTold)], nil
}

// take is what was found of a pattern on a piece of stock.
func (f *FittingPattern) take(s Stock, r whatif.Ranked) {
	f.Feasible, f.Why = r.Feasible, r.Obstacle.Code
	if s.Start != nil && s.Start.LengthMm > 0 {
		f.Used = r.CutMm / s.Start.LengthMm
	}
}

// byUse orders what fits by how much of the piece it uses; then what is too large, that
// which was looked at first, and of those that were not the nearest.
func byUse(list []FittingPattern) {
	sort.SliceStable(list, func(i, j int) bool {
		a, b := &list[i], &list[j]
		switch {
		case a.Feasible != b.Feasible:
			return a.Feasible
		case a.Feasible:
			return a.Used > b.Used
		case a.Factor != b.Factor:
			return a.Factor > b.Factor
		case a.Looked != b.Looked:
			return !a.Looked // what is not known before what is known not to be
		}
		return a.Used < b.Used
	})
}

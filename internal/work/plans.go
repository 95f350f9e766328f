package work

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"runtime"
	"sync"

	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/harden"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/steel"
	"coldember/internal/doc"
	"coldember/internal/edit"

	"golang.org/x/sync/errgroup"
)

// planning makes plans: no more at once than there are processors, the rest in the
// order they came. What a save needs has a lane of its own, so that it never waits
// behind previews, and so has what only looks for remedies. The last few plans are remembered: the page asks for the heats of
// the plan that it was just sent, and saves what it just looked at.
type planning struct {
	previews, saves, searches chan struct{}

	mu     sync.Mutex
	known  map[[32]byte]*plan.Plan
	oldest [][32]byte
}

// remembered is how many plans are: a megabyte each, at most.
const remembered = 8

func newPlanning() *planning {
	n := runtime.GOMAXPROCS(0)
	return &planning{previews: make(chan struct{}, n), saves: make(chan struct{}, n), searches: make(chan struct{}, n), known: map[[32]byte]*plan.Plan{}}
}

// make plans a request in a lane. The plan is shared: it is never changed.
func (p *planning) make(ctx context.Context, lane chan struct{}, req plan.Request) (*plan.Plan, error) {
	text, err := json.Marshal(req)
	if err != nil {
		return nil, fmt.Errorf("work: request: %w", err) // a figure that is no number
	}
	key := sha256.Sum256(text)
	p.mu.Lock()
	known := p.known[key]
	p.mu.Unlock()
	if known != nil {
		return known, nil
	}
	select {
	case lane <- struct{}{}:
		defer func() { <-lane }()
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	made, err := planner.Make(ctx, req)
	if err != nil {
		return nil, edit.Invalid(err)
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.known[key] == nil {
		p.oldest = append(p.oldest, key)
	}
	p.known[key] = made
	if len(p.oldest) > remembered {
		delete(p.known, p.oldest[0])
		p.oldest = p.oldest[1:]
	}
	return made, nil
}

// Plan makes the plan of a document. It is shared: nobody may change it.
func (w *Work) Plan(ctx context.Context, d doc.Piece) (*plan.Plan, error) {
	return w.plans.make(ctx, w.plans.previews, d.Request)
}

// unknownSteel tells whether a grade only stands in for a steel that nobody knows.
func unknownSteel(id string) bool {
	g, err := steel.Find(id)
	return err == nil && g.Assumed
}

// OnTheRack is a document with what the rack knows by now of its bar's steel: a certificate, and the
// tests that were made on it since the piece was cut. A bar that is gone from the rack is as it was.
func (w *Work) OnTheRack(ctx context.Context, d doc.Piece) (doc.Piece, error) {
	if !unknownSteel(d.Request.SteelID) || d.StockID == "" {
		return d, nil
	}
	s, err := w.StockItem(ctx, d.StockID)
	if errors.Is(err, ErrNotFound) {
		return d, nil
	}
	if err != nil {
		return d, err
	}
	if d.Request.Origin.Tests = s.Doc.Findings; s.Doc.Analysis != nil {
		d.Request.Analysis = s.Doc.Analysis
	}
	return d, nil
}

// Treatment is what is said of hardening and tempering the blade of a document.
func (w *Work) Treatment(ctx context.Context, d doc.Piece) (harden.Advice, error) {
	d, err := w.OnTheRack(ctx, d)
	if err != nil {
		return harden.Advice{}, err
	}
	p, err := w.Plan(ctx, d)
	if err != nil {
		return harden.Advice{}, err
	}
	return planner.Treat(&d.Request, p), nil
}

// Finish is what is said of grinding, fitting and sharpening the blade of a document.
func (w *Work) Finish(ctx context.Context, d doc.Piece) (planner.Finished, error) {
	d, err := w.OnTheRack(ctx, d)
	if err != nil {
		return planner.Finished{}, err
	}
	p, err := w.Plan(ctx, d)
	if err != nil {
		return planner.Finished{}, err
	}
	out, err := planner.Finish(&d.Request, p)
	if err != nil {
		return out, edit.Invalid(plan.FieldError(err))
	}
	return out, nil
}

// mostOthers is how many patterns of the library are held against the steel of a blade.
const mostOthers = 40

// Still is what the blade of a document can still be, by what was measured of it: patterns of the
// library among them.
func (w *Work) Still(ctx context.Context, d doc.Piece) ([]finish.Way, error) {
	p, err := w.Plan(ctx, d)
	if err != nil {
		return nil, err
	}
	all, _, err := w.Patterns(ctx, false)
	if err != nil {
		return nil, err
	}
	var others []finish.Other
	for _, o := range all {
		if len(others) < mostOthers && o.Doc.Design.TangKind == d.Request.Design.TangKind {
			others = append(others, finish.Other{Name: o.Doc.Name, Design: o.Doc.Design})
		}
	}
	out, err := planner.Still(&d.Request, p, others)
	if err != nil {
		return nil, edit.Invalid(plan.FieldError(err))
	}
	return w.taken(ctx, d, out)
}

// taken leaves those ways that can be taken: each is edited in and planned as the page would.
func (w *Work) taken(ctx context.Context, d doc.Piece, ways []finish.Way) ([]finish.Way, error) {
	works := make([]bool, len(ways))
	all, ctx := errgroup.WithContext(ctx)
	for i := range ways {
		way := &ways[i]
		if way.Heat || way.What == "asPlanned" {
			works[i] = true
			continue
		}
		all.Go(func() error {
			text, err := json.Marshal(edit.Taken{Design: way.Design, Readings: way.Readings, Pits: way.Pits, Was: way.Was})
			if err != nil {
				return err
			}
			_, _, err = w.Preview(ctx, d, []edit.Edit{{Field: "finish.take", Text: string(text)}})
			works[i] = err == nil
			return ctx.Err()
		})
	}
	if err := all.Wait(); err != nil {
		return nil, err
	}
	out := ways[:0]
	for i := range ways {
		if works[i] {
			out = append(out, ways[i])
		}
	}
	return out, nil
}

// DrawSpine is how the heat of a spine tempers the edge of the blade of a document.
func (w *Work) DrawSpine(ctx context.Context, d doc.Piece, hotC float64) (harden.FromSpine, error) {
	p, err := w.Plan(ctx, d)
	if err != nil {
		return harden.FromSpine{}, err
	}
	out, err := planner.DrawSpine(&d.Request, p, hotC)
	if err != nil {
		return out, edit.Invalid(err)
	}
	return out, nil
}

// planToSave is Plan ahead of all previews.
func (w *Work) planToSave(ctx context.Context, d doc.Piece) (*plan.Plan, error) {
	return w.plans.make(ctx, w.plans.saves, d.Request)
}

// Preview applies edits to a document and plans it; nothing is kept.
func (w *Work) Preview(ctx context.Context, d doc.Piece, edits []edit.Edit) (doc.Piece, *plan.Plan, error) {
	next, err := w.edited(ctx, d, edits)
	if err != nil {
		return d, nil, err
	}
	p, err := w.Plan(ctx, next)
	return next, p, err
}

// edited applies edits; a bar taken from the rack (stockId) brings its steel along.
func (w *Work) edited(ctx context.Context, d doc.Piece, edits []edit.Edit) (doc.Piece, error) {
	var plain []edit.Edit
	for _, e := range edits {
		if e.Field != "stockId" {
			plain = append(plain, e)
			continue
		}
		s, err := w.StockItem(ctx, e.Text)
		if err != nil {
			return d, missing("stockId", err)
		}
		if s.Start == nil {
			return d, edit.One("stockId", "field.notABar", nil, "")
		}
		d.StockID, d.Request.Bar, d.Request.SteelID, d.Request.Origin = s.ID, s.Doc.Piece, s.Doc.SteelID, originOf(s)
		d.Request.Analysis, d.Request.Billet = s.Doc.Analysis, s.Doc.Billet
		if s.Doc.Cost > 0 && s.MassG > 0 {
			d.Request.Prices.SteelPrice = s.Doc.Cost / s.MassG * 1000
		}
	}
	out, err := edit.Piece(d, plain)
	if err != nil || same(out.Request, d.Request) && out.Hand == d.Hand {
		return out, err // what is planned as it was goes by what it went by
	}
	return w.taught(ctx, out)
}

func summarise(d doc.Piece, p *plan.Plan) doc.Summary {
	s := doc.Summary{
		CutLengthMm: p.Bar.CutLengthMm, LowMm: p.Bar.LowMm, HighMm: p.Bar.HighMm, Heats: p.Totals.Heats, BladeMm: d.Request.Design.LengthMm,
		MassG: p.Finished.MassG, SteelID: d.Request.SteelID, Shape: string(d.Request.Design.Shape), Sketch: p.Drawing.Finished,
	}
	for _, w := range p.Warnings {
		if w.Severity == fact.Stop {
			s.Stops++
		}
	}
	return s
}

// encodeSummary writes a summary; it is derived, so that it needs no version.
func encodeSummary(s doc.Summary) string {
	b, err := json.Marshal(s)
	if err != nil {
		panic(fmt.Sprintf("work: summary: %v", err)) // plain figures of a plan
	}
	return string(b)
}

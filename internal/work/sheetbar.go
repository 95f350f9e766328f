package work

import (
	"context"
	"errors"
	"runtime"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/core/whatif"
	"coldember/internal/doc"

	"golang.org/x/sync/errgroup"
)

// SheetForge is what forging a part comes to: what is left to forge once it is cut out, or all of it from a bar.
type SheetForge struct {
	Heats int     `json:"heats"`
	FireS float64 `json:"fireS"`
}

// SheetBar is what forging a part whole comes to.
type SheetBar struct {
	SheetForge
	Sold        bool       `json:"sold" doc:"a flat as it is sold, not the bar of the piece"`
	Stock       stock.Item `json:"stock"`
	MassG       float64    `json:"massG"`
	CutLengthMm float64    `json:"cutLengthMm"`
	LowMm       float64    `json:"lowMm"`
	HighMm      float64    `json:"highMm"`
}

// sheetWays remembers what a part takes either way: looking for a bar costs a dozen plans, and a part that is moved on its sheet
// by hand asks every time.
type sheetWays = memo[sheetWay]

type sheetWay struct {
	sawn  *SheetForge
	bar   *SheetBar
	noBar *fact.Warning
}

// patternOn is the request of a pattern by the first smith of the shop.
func patternOn(p *doc.Pattern, shop *doc.Shop, steelID string, bar stock.Item) plan.Request {
	hand := shop.Smiths[0]
	req := plan.NewRequest(p.Design, steelID, bar, hand.Skill)
	req.Allowances, req.Smith, req.Fire = p.Allowances, hand.Smith, shop.Fire
	return req
}

// partWays is what is asked to forge a part; own, of a bar of its own.
type partWays struct {
	req plan.Request
	own bool
}

// ways tells what forging each part takes either way. The error is the context's.
func (w *Work) ways(ctx context.Context, parts []SheetPart, asked []partWays, from *sheet, way doc.SheetWay) error {
	all, ctx := errgroup.WithContext(ctx)
	all.SetLimit(runtime.GOMAXPROCS(0))
	for i, a := range asked {
		all.Go(func() error { return w.partWays(ctx, &parts[i], a.req, a.own, from, way) })
	}
	return all.Wait()
}

// partWays tells what forging a part takes either way: of its own bar or, where it has none, of the flat as it is sold that does it
// best; and, cut out of a sheet, what is then left to forge.
func (w *Work) partWays(ctx context.Context, out *SheetPart, req plan.Request, own bool, from *sheet, way doc.SheetWay) error {
	lo, hi := out.Outline.Bounds()
	cut := req
	cut.SteelID, cut.Forged, cut.Choices.Start = from.steelID, nil, plan.FromSheet
	cut.Bar = stock.Item{Form: stock.Flat, WidthMm: hi[1] - lo[1] + sheetRoomMm, ThicknessMm: from.thickMm, LengthMm: hi[0] - lo[0] + sheetRoomMm}
	found, err := w.sheetWays.get([]any{req, own, cut, way}, func() (v sheetWay, err error) {
		if way == doc.CutToForge {
			if p, no, err := tried(ctx, cut); err != nil {
				return v, err
			} else if no == nil {
				v.sawn = &SheetForge{Heats: p.Totals.Heats, FireS: p.Totals.TimeS}
			}
		}
		if !own {
			bar, best, err := whatif.OfSold(ctx, req, from.steelID)
			if err != nil || !best.Feasible {
				v.noBar = &best.Obstacle
				return v, err
			}
			req.Bar, req.SteelID = bar, from.steelID
		}
		p, no, err := tried(ctx, req)
		if err != nil || no != nil {
			v.noBar = no
			return v, err
		}
		v.bar = &SheetBar{
			SheetForge: SheetForge{Heats: p.Totals.Heats, FireS: p.Totals.TimeS},
			Sold:       !own, Stock: req.Bar, MassG: p.Bar.StartMm3 * steel.DensityGPerCm3 / 1000, CutLengthMm: p.Bar.CutLengthMm, LowMm: p.Bar.LowMm, HighMm: p.Bar.HighMm,
		}
		return v, nil
	})
	out.Sawn, out.Bar, out.NoBar = found.sawn, found.bar, found.noBar
	return err
}

// sheetRoomMm is left around an outline, so that neither its length nor its width is the plan's concern.
const sheetRoomMm = 100

// tried is the plan of a request, or why there is none. The error is the context's.
func tried(ctx context.Context, req plan.Request) (*plan.Plan, *fact.Warning, error) {
	p, err := planner.Make(ctx, req)
	var bad fact.FieldErrors
	if errors.As(err, &bad) {
		return nil, &fact.Warning{Code: bad[0].Code, Severity: fact.Stop, Figures: bad[0].Figures}, nil
	}
	if err != nil {
		return nil, nil, err
	}
	if o := p.Obstacle(); o.Code != "" {
		return p, &o, nil
	}
	return p, nil, nil
}

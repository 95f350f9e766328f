package api

import (
	"context"
	"net/http"

	"coldember/core/stock"
	"coldember/core/whatif"
	"coldember/internal/export"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"
)

// Salvage is the table that beliefs are made by.
type Salvage struct {
	Forms    []stock.Form   `json:"forms"`
	Families []stock.Family `json:"families"`
	Tests    []stock.Test   `json:"tests"`
	Origins  []stock.Origin `json:"origins"`
	Hazards  []stock.Hazard `json:"hazards"`
}

type sureIn struct {
	Doc        Doc                `json:"doc"`
	Tolerances *whatif.Tolerances `json:"tolerances,omitempty"`
	Runs       int                `json:"runs,omitempty" doc:"2000 if not given"`
	Seed       uint64             `json:"seed,omitempty"`
}

type doubtsIn struct {
	Doc   Doc             `json:"doc"`
	Known []whatif.Sample `json:"known" doc:"what earlier calls have drawn"`
	From  int             `json:"from" minimum:"0" doc:"number of the first draw"`
	Draws int             `json:"draws" minimum:"1" maximum:"1000"`
	Seed  uint64          `json:"seed"`
}

type largestIn struct {
	Doc     Doc            `json:"doc"`
	Freedom whatif.Freedom `json:"freedom"`
}

type cutIn struct {
	ID   string `path:"id"`
	Role string `path:"role"`
	Body work.CutTyped
}

type csvIn struct {
	Look bool `query:"look" doc:"only tell what the table would do"`

	RawBody []byte `contentType:"text/csv"`
}

// Imported counts what a table has brought.
type Imported struct {
	Count int `json:"count"`
}

// TableRead is what a table of stock does, or would do, to the rack.
type TableRead struct {
	Taken bool        `json:"taken" doc:"false: only looked at"`
	Added []string    `json:"added" doc:"names of the pieces that are new"`
	Same  int         `json:"same" doc:"pieces that stay as they are"`
	Rows  []RowChange `json:"rows" doc:"pieces that change"`
}

// RowChange is a piece that a table changes.
type RowChange struct {
	Line    int            `json:"line"`
	Name    string         `json:"name"`
	Columns []ColumnChange `json:"columns"`
}

// ColumnChange is one value that becomes another.
type ColumnChange struct {
	Column string `json:"column"`
	Was    string `json:"was"`
	Is     string `json:"is"`
}

func tableRead(all []work.RackChange, taken bool) TableRead {
	out := TableRead{Taken: taken, Added: []string{}, Rows: []RowChange{}}
	for _, c := range all {
		switch {
		case c.ID == "":
			out.Added = append(out.Added, c.Name)
		case len(c.Changes) == 0:
			out.Same++
		default:
			row := RowChange{Line: c.Line, Name: c.Name}
			for _, f := range c.Changes {
				row.Columns = append(row.Columns, ColumnChange(f))
			}
			out.Rows = append(out.Rows, row)
		}
	}
	return out
}

// maxCSV bounds a table of stock.
const maxCSV = 2 << 20

func (h *handlers) stockroom(api huma.API) {
	huma.Register(api, op("getSalvage", http.MethodGet, "/salvage", "Forms, families, tests, origins and hazards of stock"),
		func(context.Context, *struct{}) (*body[Salvage], error) {
			return &body[Salvage]{Salvage{stock.Forms(), stock.Families(), stock.Tests(), stock.Origins(), stock.Hazards()}}, nil
		})
	huma.Register(api, op("planSure", http.MethodPost, "/plan/sure", "How much bar suffices how often"),
		func(ctx context.Context, in *body[sureIn]) (*body[*whatif.Sure], error) {
			runs := in.Body.Runs
			if runs == 0 {
				runs = 2000
			}
			v, err := h.work.Sure(ctx, in.Body.Doc.doc(), in.Body.Tolerances, runs, in.Body.Seed)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("planWithin", http.MethodPost, "/plan/within", "Between what the totals lie in four of five cases"),
		func(ctx context.Context, in *body[Doc]) (*body[*whatif.Within], error) {
			v, err := h.work.Within(ctx, in.Body.doc())
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("planHopes", http.MethodPost, "/plan/hopes", "Ways out of what the bar cannot bear"),
		func(ctx context.Context, in *body[Doc]) (*body[[]whatif.Hope], error) {
			v, err := h.work.Hopes(ctx, in.Body.doc())
			return answer(ctx, h, v, err)
		})
	sse.Register(api, op("planRemedies", http.MethodPost, "/plan/remedies", "What clears the findings of a plan, each as soon as it was planned (server-sent events)"),
		map[string]any{"mended": work.Mended{}}, func(ctx context.Context, in *body[Doc], send sse.Sender) {
			_ = h.work.Remedies(ctx, in.Body.doc(), func(m work.Mended) error { return send.Data(m) }) // what cannot be planned has none
		})
	huma.Register(api, op("planCosts", http.MethodPost, "/plan/costs", "What a millimetre more costs in bar"),
		func(ctx context.Context, in *body[Doc]) (*body[[]whatif.Cost], error) {
			v, err := h.work.Costs(ctx, in.Body.doc())
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("planLargest", http.MethodPost, "/plan/largest", "The largest blade of a pattern from its stock"),
		func(ctx context.Context, in *body[largestIn]) (*body[*Fit], error) {
			v, err := h.work.Largest(ctx, in.Body.Doc.doc(), in.Body.Freedom)
			return answer(ctx, h, fitOf(v), err)
		})
	huma.Register(api, op("rankRack", http.MethodPost, "/plan/rank", "The rack in the order it suits a blade"),
		func(ctx context.Context, in *body[Doc]) (*body[[]RankedStock], error) {
			v, err := h.work.RankRack(ctx, in.Body.doc())
			return answer(ctx, h, each(v, rankedOf), err)
		})
	huma.Register(api, op("planDoubts", http.MethodPost, "/plan/doubts", "Draw whole plans around a document, in parts, for the bands of its totals"),
		func(ctx context.Context, in *body[doubtsIn]) (*body[*whatif.Doubtful], error) {
			v, err := h.work.Doubts(ctx, in.Body.Doc.doc(), in.Body.Known, in.Body.From, in.Body.Draws, in.Body.Seed)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("stockFits", http.MethodGet, "/stock/{id}/fits", "What of the library fits a piece of stock"),
		func(ctx context.Context, in *idIn) (*body[[]FittingPattern], error) {
			v, err := h.work.Fits(ctx, in.ID)
			return answer(ctx, h, each(v, fittingOf), err)
		})
	huma.Register(api, op("makeCutPlan", http.MethodPost, "/cutplan", "Lay pieces of work on the bars of the rack"),
		func(ctx context.Context, in *body[work.CutOrder]) (*body[work.CutPlan], error) {
			v, err := h.work.CutUp(ctx, in.Body)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("takeCutPlan", http.MethodPost, "/cutplan/take", "Book the cuts of a plan on the rack"),
		func(ctx context.Context, in *body[work.CutPlan]) (*body[Imported], error) {
			err := h.work.TakeCuts(ctx, in.Body)
			n := 0
			for _, g := range in.Body.Groups {
				for _, b := range g.Bars {
					n += len(b.Parts)
				}
			}
			return answer(ctx, h, Imported{n}, err)
		})
	huma.Register(api, op("printCutPlan", http.MethodPost, "/cutplan/pdf", "A cut plan to take to the saw"),
		func(ctx context.Context, in *body[work.CutPlan]) (*fileOut, error) { return h.cutSheet(ctx, in.Body) })
	huma.Register(api, op("pieceCuts", http.MethodGet, "/pieces/{id}/cuts", "What a piece takes from the rack"),
		func(ctx context.Context, in *idIn) (*body[[]work.PieceCut], error) {
			v, err := h.work.Cuts(ctx, in.ID)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("setCut", http.MethodPost, "/pieces/{id}/cuts/{role}", "Book a cut, let it go, or make it"),
		func(ctx context.Context, in *cutIn) (*body[[]work.PieceCut], error) {
			v, err := h.work.SetCut(ctx, in.ID, in.Role, in.Body)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("rackTable", http.MethodGet, "/stock.csv", "The rack as CSV"),
		func(ctx context.Context, _ *struct{}) (*fileOut, error) {
			data, err := h.work.RackCSV(ctx)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			return &fileOut{ContentType: "text/csv; charset=utf-8", Disposition: download("cold ember", named("rack", ".csv")), Body: data}, nil
		})
	table := op("importRack", http.MethodPost, "/stock.csv", "Take a CSV of stock into the rack, or nothing of it: lines with the id of a piece change that piece")
	table.MaxBodyBytes = maxCSV
	huma.Register(api, table, func(ctx context.Context, in *csvIn) (*body[TableRead], error) {
		read := h.work.ImportRackCSV
		if in.Look {
			read = h.work.ReadRackTable
		}
		changes, err := read(ctx, in.RawBody)
		return answer(ctx, h, tableRead(changes, !in.Look), err)
	})
}

func (h *handlers) cutSheet(ctx context.Context, p work.CutPlan) (*fileOut, error) {
	shop, err := h.work.Shop(ctx)
	if err != nil {
		return nil, fail(ctx, err, "")
	}
	var bars []export.CutBar
	for _, g := range p.Groups {
		for _, b := range g.Bars {
			bar := export.CutBar{Group: text.Steel(g.SteelID) + " " + export.BarSize(g.Piece, shop.Doc.System()), Name: b.Name, LengthMm: b.LengthMm, RemnantMm: b.RemnantMm}
			for _, part := range b.Parts {
				bar.Parts = append(bar.Parts, export.CutPart{Name: part.Name, FromMm: part.FromMm, LengthMm: part.LengthMm})
			}
			bars = append(bars, bar)
		}
	}
	pdf, err := export.CutSheet(bars, shop.Doc.System(), shop.Doc.Paper)
	if err != nil {
		return nil, fail(ctx, err, shop.Doc.System())
	}
	return &fileOut{ContentType: "application/pdf", Disposition: inline("cold ember", named("cutplan", ".pdf")), Body: pdf}, nil
}

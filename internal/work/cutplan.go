package work

import (
	"context"
	"fmt"
	"math"
	"slices"
	"sort"

	"coldember/core/cutting"
	"coldember/core/fact"
	"coldember/core/stock"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// CutOrder asks for pieces of work to be cut from the rack.
type CutOrder struct {
	Pieces []CutWanted `json:"pieces" maxItems:"100"`
	// StubMm is held at the end of every bar and cannot be cut up.
	StubMm float64 `json:"stubMm"`
	KerfMm float64 `json:"kerfMm"`
	KeepMm float64 `json:"keepMm" doc:"a remnant this long goes back on the rack"`

	// Edits are the three as they were typed, in place of the figures.
	Edits []edit.Edit `json:"edits,omitempty" maxItems:"3"`
}

// CutWanted is a piece of work and how many of it.
type CutWanted struct {
	PieceID string `json:"pieceId"`
	Count   int    `json:"count" minimum:"1" maximum:"100"`
}

// CutPart is one part on a bar.
type CutPart struct {
	PieceID  string  `json:"pieceId"`
	Name     string  `json:"name"`
	Copy     int     `json:"copy" doc:"which of several, from 1"`
	LengthMm float64 `json:"lengthMm"`
	FromMm   float64 `json:"fromMm"`
}

// CutBar is one bar of the rack with the parts on it.
type CutBar struct {
	StockID   string    `json:"stockId"`
	Version   int       `json:"version"`
	Name      string    `json:"name"`
	LengthMm  float64   `json:"lengthMm"`
	Parts     []CutPart `json:"parts"`
	RemnantMm float64   `json:"remnantMm" doc:"with the stub"`
}

// CutGroup is what is cut from bars of one section and steel.
type CutGroup struct {
	SteelID      string     `json:"steelId"`
	Piece        stock.Item `json:"piece" doc:"its section"`
	Bars         []CutBar   `json:"bars"`
	Unplaced     []CutPart  `json:"unplaced"`
	ConsumedMm   float64    `json:"consumedMm"`
	LowerBoundMm float64    `json:"lowerBoundMm"`
	Optimal      bool       `json:"optimal"`
}

// CutPlan is the answer.
type CutPlan struct {
	Order  CutOrder   `json:"order"`
	Groups []CutGroup `json:"groups"`
}

// sectionKey tells bars of one section and steel apart from others.
func sectionKey(p stock.Item, steelID string) string {
	b, err := p.Bar()
	if err != nil {
		return ""
	}
	return fmt.Sprintf("%s %s %.2f %.2f", steelID, p.Form, b.WidthMm, b.ThicknessMm)
}

func (o CutOrder) ranges() fact.Check {
	c := fact.NewCheck()
	c.Range("kerfMm", o.KerfMm, 0, 20)
	c.Range("keepMm", o.KeepMm, 0, 5000)
	c.Range("stubMm", o.StubMm, 0, 500)
	return c
}

func (o CutOrder) validate() error {
	c := o.ranges()
	if len(o.Pieces) == 0 {
		c.Fail("pieces", "cutplan.nothing", nil)
	}
	return edit.Invalid(c.Err())
}

// CutUp lays pieces of work on the bars of the rack, each on bars of its own
// section and steel.
func (w *Work) CutUp(ctx context.Context, o CutOrder) (CutPlan, error) {
	out := CutPlan{Groups: []CutGroup{}}
	if err := edit.Figures(o.Edits, map[string]*float64{"kerfMm": &o.KerfMm, "stubMm": &o.StubMm, "keepMm": &o.KeepMm}); err != nil {
		return out, err
	}
	o.Edits = nil
	out.Order = o
	if err := o.validate(); err != nil {
		return out, err
	}
	groups := map[string]*cutJob{}
	var order []string
	own := map[string]bool{}
	for _, p := range o.Pieces {
		own[p.PieceID] = true
	}
	for _, want := range o.Pieces {
		p, err := w.Piece(ctx, want.PieceID)
		if err != nil {
			return out, missing("pieces", err)
		}
		key := sectionKey(p.Doc.Request.Bar, p.Doc.Request.SteelID)
		if key == "" {
			return out, edit.One("pieces", "cutplan.notABar", nil, p.Doc.Name)
		}
		g := groups[key]
		if g == nil {
			section := p.Doc.Request.Bar
			section.Dead, section.LengthMm = nil, 0
			g = &cutJob{group: CutGroup{SteelID: p.Doc.Request.SteelID, Piece: section, Bars: []CutBar{}, Unplaced: []CutPart{}}}
			groups[key] = g
			order = append(order, key)
		}
		// the kerf of the cut is the layout's, not the plan's own
		_, kerf := p.Doc.Request.EndsMm()
		length := p.Summary.CutLengthMm - kerf
		for i := range max(1, want.Count) {
			g.parts = append(g.parts, CutPart{PieceID: p.ID, Name: p.Doc.Name, Copy: i + 1, LengthMm: math.Ceil(length*10) / 10})
		}
	}
	if err := w.barsFor(ctx, groups, own); err != nil {
		return out, err
	}
	for _, key := range order {
		g := groups[key]
		if err := g.lay(ctx, o); err != nil {
			return out, err
		}
		out.Groups = append(out.Groups, g.group)
	}
	return out, nil
}

// cutJob gathers the parts and bars of one section.
type cutJob struct {
	group CutGroup
	parts []CutPart
	bars  []CutBar // one for each single bar
}

// barsFor finds the bars of the rack for every group, what others have booked
// taken off; what the pieces of this order ask for themselves does not count.
func (w *Work) barsFor(ctx context.Context, groups map[string]*cutJob, own map[string]bool) error {
	return w.store.Read(ctx, func(tx store.Tx) error {
		rack, _, err := rackIn(tx, false)
		if err != nil {
			return err
		}
		open, err := tx.OpenCuts("")
		if err != nil {
			return err
		}
		taken := map[string]float64{}
		for _, c := range open {
			if c.State == CutBooked && !own[c.PieceID] {
				taken[*c.StockID] += c.LengthMm + c.KerfMm
			}
		}
		for _, s := range rack {
			g := groups[sectionKey(s.Doc.Piece, s.Doc.SteelID)]
			if g == nil || !s.Usable {
				continue
			}
			for range s.Doc.Count {
				free := s.Start.LengthMm - taken[s.ID]
				taken[s.ID] = math.Max(0, taken[s.ID]-s.Start.LengthMm)
				if free > 0 {
					g.bars = append(g.bars, CutBar{StockID: s.ID, Version: s.Version, Name: s.Doc.Name, LengthMm: free})
				}
			}
		}
		return nil
	})
}

func (g *cutJob) lay(ctx context.Context, o CutOrder) error {
	job := cutting.Job{KerfMm: o.KerfMm, KeepMm: math.Max(0, o.KeepMm-o.StubMm)}
	for _, b := range g.bars {
		if l := b.LengthMm - o.StubMm; l >= 1 {
			job.Bars = append(job.Bars, cutting.Run{LengthMm: l, Count: 1})
		}
	}
	for _, p := range g.parts {
		job.Parts = append(job.Parts, cutting.Run{LengthMm: p.LengthMm, Count: 1})
	}
	l, err := cutting.Lay(ctx, job)
	if err != nil {
		return edit.Invalid(err)
	}
	sort.SliceStable(g.parts, func(i, j int) bool { return g.parts[i].LengthMm > g.parts[j].LengthMm })
	take := func(length float64) CutPart {
		i := slices.IndexFunc(g.parts, func(p CutPart) bool { return math.Abs(p.LengthMm-length) < 1e-3 })
		p := g.parts[i]
		g.parts = slices.Delete(g.parts, i, i+1)
		return p
	}
	free := slices.Clone(g.bars)
	for _, b := range l.Bars {
		i := slices.IndexFunc(free, func(c CutBar) bool { return math.Abs(c.LengthMm-o.StubMm-b.LengthMm) < 1e-3 })
		bar := free[i]
		free = slices.Delete(free, i, i+1)
		x := 0.0
		for _, length := range b.Parts {
			p := take(length)
			p.FromMm = x
			x += length + o.KerfMm
			bar.Parts = append(bar.Parts, p)
		}
		bar.RemnantMm = b.RemnantMm + o.StubMm
		g.group.Bars = append(g.group.Bars, bar)
	}
	for _, length := range l.Unplaced {
		g.group.Unplaced = append(g.group.Unplaced, take(length))
	}
	g.group.ConsumedMm, g.group.LowerBoundMm, g.group.Optimal = l.ConsumedMm, l.LowerBoundMm, l.Optimal
	return nil
}

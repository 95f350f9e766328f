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
	"coldember/internal/store"
)

// States of a cut.
const (
	CutProposed = "proposed"
	CutBooked   = "booked"
	CutMadeNow  = "made"
)

// leastRemnantMm is the shortest end that goes back on the rack.
const leastRemnantMm = 40

// CutOrder asks for pieces of work to be cut from the rack.
type CutOrder struct {
	Pieces []CutWanted `json:"pieces" maxItems:"100"`
	// StubMm is held at the end of every bar and cannot be cut up.
	StubMm float64 `json:"stubMm"`
	KerfMm float64 `json:"kerfMm"`
	KeepMm float64 `json:"keepMm" doc:"a remnant this long goes back on the rack"`
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
	SteelID      string      `json:"steelId"`
	Piece        stock.Piece `json:"piece" doc:"its section"`
	Bars         []CutBar    `json:"bars"`
	Unplaced     []CutPart   `json:"unplaced"`
	ConsumedMm   float64     `json:"consumedMm"`
	LowerBoundMm float64     `json:"lowerBoundMm"`
	Optimal      bool        `json:"optimal"`
}

// CutPlan is the answer.
type CutPlan struct {
	Order  CutOrder   `json:"order"`
	Groups []CutGroup `json:"groups"`
}

// section tells bars of one section and steel apart from others.
func sectionKey(p stock.Piece, steelID string) string {
	b, err := p.Bar()
	if err != nil {
		return ""
	}
	return fmt.Sprintf("%s %s %.2f %.2f", steelID, p.Form, b.WidthMm, b.ThicknessMm)
}

func (o CutOrder) validate() error {
	c := fact.NewCheck()
	c.Range("kerfMm", o.KerfMm, 0, 20)
	c.Range("keepMm", o.KeepMm, 0, 5000)
	c.Range("stubMm", o.StubMm, 0, 500)
	if len(o.Pieces) == 0 {
		c.Fail("pieces", "cutplan.nothing", nil)
	}
	return invalid(c.Err())
}

// CutUp lays pieces of work on the bars of the rack, each on bars of its own
// section and steel.
func (w *Work) CutUp(ctx context.Context, o CutOrder) (CutPlan, error) {
	out := CutPlan{Order: o, Groups: []CutGroup{}}
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
			return out, &InvalidError{Fields: []FieldProblem{{FieldError: fact.FieldError{Field: "pieces", Code: "cutplan.notABar"}, Text: p.Doc.Name, Offset: -1}}}
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
		length := p.Summary.CutLengthMm - p.Doc.Request.Sizing.KerfMm
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
		rows, err := store.List[store.StockItem](tx, "created_at, id", "archived_at IS NULL")
		if err != nil {
			return err
		}
		for _, row := range rows {
			s, err := stockOf(tx, row)
			if err != nil {
				return err
			}
			g := groups[sectionKey(s.Piece, s.SteelID)]
			if g == nil || !s.Usable {
				continue
			}
			booked, err := store.List[store.Cut](tx, "id", "stock_id = ? AND state = ?", s.ID, CutBooked)
			if err != nil {
				return err
			}
			taken := 0.0
			for _, c := range booked {
				if !own[c.PieceID] {
					taken += c.LengthMm
				}
			}
			for range s.Count {
				free := s.Start.LengthMm - taken
				taken = math.Max(0, taken-s.Start.LengthMm)
				if free > 0 {
					g.bars = append(g.bars, CutBar{StockID: s.ID, Version: s.Version, Name: s.Name, LengthMm: free})
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
		return invalid(err)
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

// TakeCuts books the cuts of a plan on the rack. Every bar must be as the plan
// saw it: where somebody else was first, nothing is booked and *StaleError tells
// which piece of stock it was.
func (w *Work) TakeCuts(ctx context.Context, p CutPlan) error {
	var stale *Stock
	err := w.store.Write(ctx, func(tx store.Tx) error {
		seen := map[string]bool{}
		for _, g := range p.Groups {
			for _, b := range g.Bars {
				if !seen[b.StockID] {
					seen[b.StockID] = true
					ok, err := store.Swap[store.StockItem](tx, b.StockID, b.Version, w.now(), map[string]any{})
					if err != nil {
						return err
					}
					if !ok {
						s, err := stockIn(tx, b.StockID)
						stale = &s
						if err == nil {
							err = errStale{}
						}
						return err
					}
				}
				for _, part := range b.Parts {
					if err := w.book(tx, b.StockID, part); err != nil {
						return err
					}
				}
			}
		}
		return nil
	})
	if stale != nil {
		return &StaleError{Current: *stale}
	}
	return err
}

func (w *Work) book(tx store.Tx, stockID string, p CutPart) error {
	role := "body"
	if p.Copy > 1 {
		role = fmt.Sprintf("body-%d", p.Copy)
	}
	now := w.now()
	return store.Put(tx, &store.Cut{
		ID: p.PieceID + "-" + role, PieceID: p.PieceID, StockID: &stockID, LengthMm: p.LengthMm, Role: role, State: CutBooked, CreatedAt: now, UpdatedAt: now,
	})
}

// PieceCut is what a piece of work takes from the rack.
type PieceCut struct {
	Role     string  `json:"role"`
	State    string  `json:"state" enum:"proposed,booked,made"`
	LengthMm float64 `json:"lengthMm"`
	StockID  string  `json:"stockId,omitempty"`
}

// Cuts of a piece.
func (w *Work) Cuts(ctx context.Context, pieceID string) ([]PieceCut, error) {
	out := []PieceCut{}
	err := w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := store.List[store.Cut](tx, "role", "piece_id = ?", pieceID)
		for _, c := range rows {
			p := PieceCut{Role: c.Role, State: c.State, LengthMm: c.LengthMm}
			if c.StockID != nil {
				p.StockID = *c.StockID
			}
			out = append(out, p)
		}
		return err
	})
	return out, err
}

// SetCut books a proposed cut, lets a booked one go, or makes it: then the bar
// is shorter by it and its kerf, and what is left stays on the rack with its
// history.
func (w *Work) SetCut(ctx context.Context, pieceID, role, state string) ([]PieceCut, error) {
	err := w.store.Write(ctx, func(tx store.Tx) error {
		cut, err := store.Find[store.Cut](tx, "piece_id = ? AND role = ?", pieceID, role)
		if err != nil {
			return err
		}
		switch {
		case cut.State == CutMadeNow:
			return &StateError{Code: "problem.cutMade"}
		case cut.StockID == nil:
			return &StateError{Code: "problem.cutNoStock"}
		}
		s, err := stockIn(tx, *cut.StockID)
		if err != nil {
			return err
		}
		if s.Start == nil {
			return &StateError{Code: "problem.cutNoStock"}
		}
		unbooked := s.Start.LengthMm*float64(s.Count) - s.BookedMm
		if state == CutBooked && cut.State == CutProposed && cut.LengthMm > unbooked+1e-6 {
			return &StateError{Code: "problem.cutTooLong"}
		}
		if state == CutMadeNow {
			if err := w.cutOff(tx, s, &cut); err != nil {
				return err
			}
		}
		cut.State, cut.UpdatedAt = state, w.now()
		return store.Put(tx, &cut)
	})
	if err != nil {
		return nil, err
	}
	return w.Cuts(ctx, pieceID)
}

// cutOff takes a made cut off its piece of stock.
func (w *Work) cutOff(tx store.Tx, s Stock, cut *store.Cut) error {
	row, err := store.Find[store.Piece](tx, "id = ?", cut.PieceID)
	if err != nil {
		return err
	}
	doc, err := decode[Doc](row.Doc)
	if err != nil {
		return err
	}
	if s.Start == nil || cut.LengthMm > s.Start.LengthMm+1e-6 {
		return &StateError{Code: "problem.cutTooLong"}
	}
	now := w.now()
	made := CutMade{PieceID: cut.PieceID, Name: doc.Name, LengthMm: cut.LengthMm, At: now}
	left := s.StockDoc
	left.Count, left.History = 1, append(slices.Clone(s.History), made)
	end := s.Start.FromMm + cut.LengthMm + doc.Request.Sizing.KerfMm
	left.Piece.Dead = nil
	for _, d := range s.Piece.Dead {
		if d.FromMm >= end {
			left.Piece.Dead = append(left.Piece.Dead, stock.Dead{FromMm: d.FromMm - end, ToMm: d.ToMm - end, Why: d.Why})
		}
	}
	left.Piece.LengthMm = s.Start.WholeMm - end
	keep := s.Bar && left.Piece.LengthMm >= leastRemnantMm
	if s.Count > 1 {
		rest := s.StockDoc
		rest.Count--
		if err := w.putStock(tx, s, rest, false); err != nil {
			return err
		}
		if !keep {
			return nil
		}
		left.ParentID = s.ID
		id := newID()
		cut.StockID = &id
		return store.Insert(tx, &store.StockItem{ID: id, Doc: encode(left), Version: 1, CreatedAt: now, UpdatedAt: now})
	}
	return w.putStock(tx, s, left, !keep)
}

// putStock saves a changed piece of stock, off the rack where it is used up.
func (w *Work) putStock(tx store.Tx, s Stock, d StockDoc, gone bool) error {
	set := map[string]any{}
	if gone {
		d = s.StockDoc
		set["archived_at"] = w.now()
	}
	set["doc"] = encode(d)
	ok, err := store.Swap[store.StockItem](tx, s.ID, s.Version, w.now(), set)
	if err == nil && !ok {
		err = errStale{}
	}
	return err
}

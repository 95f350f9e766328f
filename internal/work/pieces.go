package work

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"time"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"
	"coldember/core/whatif"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// Edits of one field within this time are one step of undo; so many steps are
// kept, and of older ones a step a day, later one a month.
const (
	coalesceWithin = 2 * time.Second
	keptEdits      = 300
)

// Piece is a stored piece of work.
type Piece struct {
	ID        string
	Version   int
	Doc       doc.Piece
	Summary   doc.Summary
	CanUndo   bool
	CanRedo   bool
	Archived  bool
	CreatedAt time.Time
	UpdatedAt time.Time
}

// NewPiece is what a new piece asks: what for, what bar, whose hammer and how sure
// a hand. Without StockID, BarForm and Edits (fields of bar and steelId) say
// what the bar is; Edits may change any other field too.
type NewPiece struct {
	Name      string      `json:"name" doc:"the pattern's if empty, counted where there is one of that name"`
	PatternID string      `json:"patternId"`
	StockID   string      `json:"stockId,omitempty"`
	BarForm   stock.Form  `json:"barForm,omitempty"`
	Hand      string      `json:"hand,omitempty" doc:"a smith of the shop; the first if empty"`
	Skill     forge.Skill `json:"skill,omitempty" doc:"the smith's own if empty"`
	Edits     []edit.Edit `json:"edits" maxItems:"200"`
	Fitted    bool        `json:"fitted,omitempty" doc:"as large as the bar makes it, where it is too large as it is"`
}

func pieceOf(row store.PieceRow) (Piece, error) {
	d, err := doc.Decode[doc.Piece](row.Doc)
	p := Piece{
		ID: row.ID, Version: row.Version, Doc: d, CanUndo: row.CanUndo, CanRedo: row.CanRedo,
		Archived: row.ArchivedAt != nil, CreatedAt: row.CreatedAt, UpdatedAt: row.UpdatedAt,
	}
	if json.Unmarshal([]byte(row.Summary), &p.Summary) != nil {
		p.Summary = doc.Summary{} // derived: the next save makes it anew
	}
	return p, err
}

// Unreadable is a row whose document cannot be read: it is set aside, so that the
// rest can be used.
type Unreadable struct {
	ID    string
	Newer bool // written by a newer version of the program
}

func unreadable(id string, err error) (Unreadable, bool) {
	var newer *doc.NewerError
	var broken *doc.BrokenError
	return Unreadable{ID: id, Newer: errors.As(err, &newer)}, newer != nil || errors.As(err, &broken)
}

// Pieces lists the pieces of work that the viewer sees, newest first, and what cannot be read.
func (w *Work) Pieces(ctx context.Context, archived bool) (out []Piece, aside []Unreadable, err error) {
	v := ViewerOf(ctx)
	err = w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Pieces(archived)
		for _, row := range rows {
			p, err := pieceOf(row)
			if u, bad := unreadable(row.ID, err); bad {
				aside = append(aside, u)
				continue
			}
			if v.Sees(&p.Doc) {
				out = append(out, p)
			}
		}
		return err
	})
	if v.Role == Student {
		aside = nil // whose it is cannot be read
	}
	return out, aside, err
}

// Piece reads one that the viewer sees.
func (w *Work) Piece(ctx context.Context, id string) (out Piece, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		row, err := tx.Piece(id)
		if err == nil {
			out, err = pieceOf(row)
		}
		return err
	})
	if err == nil && !ViewerOf(ctx).Sees(&out.Doc) {
		return Piece{}, ErrNotFound
	}
	return out, err
}

// seen is a piece in the version that the caller has seen, or *StaleError; *NotYoursError for one that is another's to change.
func (w *Work) seen(ctx context.Context, id string, version int) (Piece, error) {
	p, err := w.Piece(ctx, id)
	if err == nil && !ViewerOf(ctx).Changes(&p.Doc) {
		return p, &NotYoursError{Owner: p.Doc.Owner}
	}
	if err == nil && p.Version != version {
		err = &StaleError{Current: p}
	}
	return p, err
}

// barSoldMm is how long a bar is whose length is not said.
const barSoldMm = 1000

// StartPiece makes a new piece from the three answers: a pattern's blade, a bar
// and a hand; everything else is the trade's default.
func (w *Work) StartPiece(ctx context.Context, in NewPiece) (Piece, *plan.Plan, error) {
	d, err := w.starting(ctx, in)
	if err != nil {
		return Piece{}, nil, err
	}
	return w.CreatePiece(ctx, d)
}

func (w *Work) starting(ctx context.Context, in NewPiece) (doc.Piece, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return doc.Piece{}, err
	}
	pattern, err := w.Pattern(ctx, in.PatternID)
	if err != nil {
		return doc.Piece{}, missing("patternId", err)
	}
	hand := shop.Doc.Smiths[0]
	for _, h := range shop.Doc.Smiths {
		if h.Name == in.Hand {
			hand = h
		}
	}
	bar := stock.Item{Form: in.BarForm}
	if slices.Contains(stock.Bars(), bar.Form) {
		bar.LengthMm = barSoldMm
	}
	req := plan.NewRequest(pattern.Doc.Design, "", bar, hand.Skill)
	req.Allowances, req.Smith, req.Fire, req.Prices = pattern.Doc.Allowances, hand.Smith, shop.Doc.Fire, shop.Doc.Prices
	edits := in.Edits
	if in.Skill != "" && in.Skill != hand.Skill {
		edits = append([]edit.Edit{{Field: "smith.skill", Text: string(in.Skill)}}, edits...)
	}
	if in.StockID != "" {
		edits = append([]edit.Edit{{Field: "stockId", Text: in.StockID}}, edits...)
	}
	name := strings.TrimSpace(in.Name)
	if name == "" {
		if name, err = w.freePieceName(ctx, pattern.Doc.Name); err != nil {
			return doc.Piece{}, err
		}
	}
	d, err := w.edited(ctx, doc.Piece{Name: name, Hand: hand.Name, Request: req, Picture: pattern.Doc.Picture}, edits)
	if err == nil {
		d, err = w.taught(ctx, d)
	}
	if err != nil || !in.Fitted {
		return d, err
	}
	fit, err := whatif.Largest(ctx, d.Request, smaller())
	if err != nil {
		return d, edit.Invalid(err)
	}
	d.Request.Design = fit.Design
	return d, nil
}

// smaller is the freedom of a blade that is too large as it is.
func smaller() whatif.Freedom {
	axis := whatif.Axis{Free: true, Lowest: .3, Highest: 1}
	return whatif.Freedom{Length: axis, Height: axis, Thickness: axis, Rough: true}
}

// CreatePiece plans a document and keeps it as a new piece.
func (w *Work) CreatePiece(ctx context.Context, d doc.Piece) (Piece, *plan.Plan, error) {
	d = owned(ctx, d)
	if _, err := edit.Piece(d, []edit.Edit{{Field: "name", Text: d.Name}}); err != nil {
		return Piece{}, nil, err
	}
	p, err := w.planToSave(ctx, d)
	if err != nil {
		return Piece{}, nil, err
	}
	now := w.now()
	row := store.Piece{ID: w.newID(), Doc: doc.Encode(d), Summary: encodeSummary(summarise(d, p)), Version: 1, Cursor: 1, CreatedAt: now, UpdatedAt: now}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		if err := tx.AddPiece(row, "start"); err != nil {
			return err
		}
		return w.snapshot(tx, row.ID, d, p)
	})
	if err != nil {
		return Piece{}, nil, err
	}
	w.tell(Event{"piece", row.ID, 1})
	out, err := w.Piece(ctx, row.ID)
	return out, p, err
}

// snapshot keeps the current plan and the cut that it proposes. A frozen plan
// (taken to the fire) is never overwritten, nor a cut that is booked or made.
func (w *Work) snapshot(tx store.Tx, id string, d doc.Piece, p *plan.Plan) error {
	now := w.now()
	kept := doc.Kept{Request: d.Request, Totals: p.Totals}
	if err := tx.KeepPlan(store.Plan{PieceID: id, Laws: p.Laws, Request: doc.Encode(kept), CreatedAt: now}); err != nil {
		return err
	}
	was, ok, err := tx.Cut(id, roleBody)
	if err != nil || ok && was.State != CutProposed {
		return err
	}
	_, kerf := d.Request.EndsMm()
	cut := store.Cut{ID: id + "-" + roleBody, PieceID: id, LengthMm: p.Bar.CutLengthMm - kerf, KerfMm: kerf, Role: roleBody, State: CutProposed, CreatedAt: now, UpdatedAt: now}
	if d.StockID != "" {
		switch _, err := tx.StockItem(d.StockID); {
		case err == nil:
			cut.StockID = &d.StockID
		case !errors.Is(err, ErrNotFound):
			return err
		}
	}
	return tx.PutCut(cut)
}

// SavePiece applies edits to the version the caller saw, plans, and keeps both
// the piece and a step of its history. It returns *StaleError when another save
// came first and *edit.InvalidError for fields that cannot be.
func (w *Work) SavePiece(ctx context.Context, id string, version int, edits []edit.Edit) (Piece, *plan.Plan, error) {
	seen, err := w.seen(ctx, id, version)
	if err != nil {
		return Piece{}, nil, err
	}
	d, err := w.edited(ctx, seen.Doc, edits)
	if err == nil {
		err = w.mayGive(ctx, &seen.Doc, &d)
	}
	if err != nil {
		return Piece{}, nil, err
	}
	fields := make([]string, len(edits)) // several at once are a step of their own
	for i, e := range edits {
		fields[i] = e.Field
	}
	return w.keep(ctx, id, version, d, strings.Join(fields, " "), nil)
}

// keep plans a document and keeps it as the next state of a piece, as one step of its
// history under a label; with goes into the same transaction.
func (w *Work) keep(ctx context.Context, id string, version int, d doc.Piece, label string, with func(store.Tx) error) (Piece, *plan.Plan, error) {
	p, err := w.planToSave(ctx, d)
	if err != nil {
		return Piece{}, nil, err
	}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		if with != nil {
			if err := with(tx); err != nil {
				return err
			}
		}
		return w.step(tx, id, version, d, p, label)
	})
	return w.kept(ctx, id, version+1, p, err)
}

// kept is a piece after it was saved in a version.
func (w *Work) kept(ctx context.Context, id string, version int, p *plan.Plan, err error) (Piece, *plan.Plan, error) {
	if err != nil {
		return Piece{}, nil, staleOr(err, func() (Piece, error) { return w.Piece(ctx, id) })
	}
	w.tell(Event{"piece", id, version})
	out, err := w.Piece(ctx, id)
	return out, p, err
}

// step adds a state to the history of a piece; what had been undone is gone.
func (w *Work) step(tx store.Tx, id string, version int, d doc.Piece, p *plan.Plan, label string) error {
	row, err := tx.Piece(id)
	if err != nil {
		return err
	}
	now, text := w.now(), doc.Encode(d)
	seq := row.Cursor + 1
	switch last, err := tx.PieceEdit(id, row.Cursor); {
	case err == nil:
		if since := now.Sub(last.CreatedAt); label != "" && last.Label == label && since >= 0 && since < coalesceWithin && row.Cursor > 1 {
			seq = row.Cursor
		}
	case !errors.Is(err, ErrNotFound):
		return err
	}
	if err := tx.PutPieceEdit(store.PieceEdit{PieceID: id, Seq: seq, Doc: text, Label: label, CreatedAt: now}, keptEdits); err != nil {
		return err
	}
	if err := swapped(tx.SwapPiece(id, version, now, text, encodeSummary(summarise(d, p)), seq)); err != nil {
		return err
	}
	return w.snapshot(tx, id, d, p)
}

// DuplicatePiece copies a piece under a new name; without one it is counted.
func (w *Work) DuplicatePiece(ctx context.Context, id, name string) (Piece, *plan.Plan, error) {
	p, err := w.Piece(ctx, id)
	if err != nil {
		return Piece{}, nil, err
	}
	d := p.Doc
	if d.Name = name; name == "" {
		if d.Name, err = w.freePieceName(ctx, p.Doc.Name); err != nil {
			return Piece{}, nil, err
		}
	}
	return w.CreatePiece(ctx, d)
}

// ArchivePiece takes a piece off the list, or puts it back. Nothing is deleted.
func (w *Work) ArchivePiece(ctx context.Context, id string, archived bool) (Piece, error) {
	p, err := w.Piece(ctx, id)
	if err == nil && !ViewerOf(ctx).Changes(&p.Doc) {
		err = &NotYoursError{Owner: p.Doc.Owner}
	}
	if err != nil {
		return p, err
	}
	now := w.now()
	err = w.store.Write(ctx, func(tx store.Tx) error {
		return swapped(tx.ArchivePiece(id, p.Version, now, when(archived, now)))
	})
	if err != nil {
		return p, staleOr(err, func() (Piece, error) { return w.Piece(ctx, id) })
	}
	w.tell(Event{"piece", id, p.Version + 1})
	return w.Piece(ctx, id)
}

// when is a time, or none.
func when(yes bool, t time.Time) *time.Time {
	if yes {
		return &t
	}
	return nil
}

package work

import (
	"context"
	"errors"

	"coldember/core/fact"
	"coldember/core/quantity"
	"coldember/core/session"
	"coldember/internal/edit"
)

// FinalTyped is what a finished knife came to, as it is typed.
type FinalTyped struct {
	Texts              map[string]string // massG, balanceMm, warpMm, behindMm, workMin
	File, Cuts, Flexes string
	Text               string
	Units              quantity.System
}

// desk is the device that tells what is noted away from the fire.
const desk = "desk"

// NoteFinished puts into the book what a finished knife came to: into its newest session, or into
// one that is begun for it. Errors are *edit.InvalidError.
func (w *Work) NoteFinished(ctx context.Context, pieceID string, t FinalTyped) error {
	final, err := t.read()
	if err != nil {
		return err
	}
	f, err := w.FireOf(ctx, pieceID)
	if errors.Is(err, ErrNotFound) {
		f, err = w.TakeToFire(ctx, pieceID, false)
	}
	if err != nil {
		return err
	}
	all, err := w.Happened(ctx, f.ID, 0)
	if err != nil {
		return err
	}
	seq, saw := 1, ""
	for _, e := range all {
		saw = e.ID
		if e.Device == desk {
			seq = max(seq, e.Seq+1)
		}
	}
	now := w.now().UnixMilli()
	heard, err := w.Tell(ctx, f.ID, now, []session.Event{{ID: w.newID(), Device: desk, Seq: seq, Saw: saw, AtMs: now, Kind: session.Completed, Final: &final, Text: t.Text}})
	if err != nil {
		return err
	}
	if len(heard.Refused) > 0 {
		return &edit.InvalidError{Fields: heard.Refused[0].Fields}
	}
	return w.believe(ctx, pieceID, final.File)
}

// believe lets the file on a finished edge speak for the piece of stock that it was cut from, where
// its steel is only presumed and was not tried in oil before.
func (w *Work) believe(ctx context.Context, pieceID string, file session.FileTest) error {
	p, err := w.Piece(ctx, pieceID)
	if err != nil || p.Doc.StockID == "" || file == "" || !p.Doc.Request.InOil() {
		return err
	}
	s, err := w.StockItem(ctx, p.Doc.StockID)
	if errors.Is(err, ErrNotFound) {
		return nil // used up, and gone
	}
	if err != nil || !s.Doc.Believed {
		return err
	}
	for _, f := range s.Doc.Findings {
		if f.Test == oilTest {
			return nil
		}
	}
	_, err = w.EditStock(ctx, s.ID, s.Version, []edit.Edit{{Field: "test." + oilTest, Text: string(file)}})
	return err
}

// oilTest is the test of a piece of stock that a hardened knife of it is as good as.
const oilTest = "oilQuench"

// read reads what was typed. Errors are *edit.InvalidError of final.FIELD.
func (t *FinalTyped) read() (session.Final, error) {
	out := session.Final{File: session.FileTest(t.File), Cuts: session.Outcome(t.Cuts), Flexes: session.Outcome(t.Flexes)}
	into := map[string]struct {
		kind quantity.Kind
		to   *float64
	}{
		"massG": {quantity.Mass, &out.MassG}, "balanceMm": {quantity.Length, &out.BalanceMm}, "warpMm": {quantity.Length, &out.WarpMm},
		"behindMm": {quantity.Length, &out.BehindMm}, "workMin": {quantity.Number, &out.WorkMin},
	}
	for field, text := range t.Texts {
		x, ok := into[field]
		if !ok {
			return out, edit.One("final."+field, "field.unknown", nil, field)
		}
		v, err := quantity.Parse(text, x.kind, t.Units)
		var wrong *quantity.ParseError
		if errors.As(err, &wrong) {
			return out, edit.One("final."+field, string(wrong.Code), fact.Figures{}, wrong.Found)
		}
		*x.to = v
	}
	if out == (session.Final{}) && t.Text == "" {
		return out, edit.One("final", "session.finalNothing", nil, "")
	}
	return out, nil
}

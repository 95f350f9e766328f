package work

import (
	"context"
	"errors"
	"maps"
	"math"
	"slices"

	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/quantity"
	"coldember/core/session"
	"coldember/internal/edit"
)

// FinalTyped is what a finished knife came to, as it is typed.
type FinalTyped struct {
	Texts              map[string]string // massG, balanceMm, warpMm, behindMm, workMin
	Took               map[string]string // minutes by the step of finishing
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
	if final.Took, err = w.took(ctx, pieceID, t); err != nil {
		return err
	}
	if final.Empty() && t.Text == "" {
		return edit.One("final", "session.finalNothing", nil, "")
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

// took reads the minutes of steps of finishing, each beside what the table alone estimates for it.
func (w *Work) took(ctx context.Context, pieceID string, t FinalTyped) ([]session.Took, error) {
	if len(t.Took) == 0 {
		return nil, nil
	}
	p, err := w.Piece(ctx, pieceID)
	if err != nil {
		return nil, err
	}
	d := p.Doc
	d.Request.Learned = nil
	f, err := w.Finish(ctx, d)
	if err != nil {
		return nil, err
	}
	var out []session.Took
	for _, step := range slices.Sorted(maps.Keys(t.Took)) {
		at := slices.IndexFunc(f.Steps, func(s finish.Step) bool { return s.ID == step })
		if at < 0 {
			return nil, edit.One("final.took", "final.noStep", nil, step)
		}
		minutes, err := quantity.Parse(t.Took[step], quantity.Number, t.Units)
		var wrong *quantity.ParseError
		if errors.As(err, &wrong) {
			return nil, edit.One("final.took", string(wrong.Code), fact.Figures{}, wrong.Found)
		}
		s := &f.Steps[at]
		out = append(out, session.Took{Step: step, Pace: finish.PaceOf(s), Min: minutes, LawMin: math.Round(s.Minutes*100) / 100})
	}
	return out, nil
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
	return out, nil
}

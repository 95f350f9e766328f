package work

import (
	"context"
	"slices"
	"strings"

	"coldember/core/session"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/text"
)

// Found is a place where somebody wrote a text, or where something went wrong.
type Found struct {
	Kind      string `json:"kind" enum:"note,fault,piece,stock"`
	PieceID   string `json:"pieceId,omitempty"`
	SessionID string `json:"sessionId,omitempty"`
	StockID   string `json:"stockId,omitempty"`
	Name      string `json:"name" doc:"of the piece or the stock"`
	Said      string `json:"said" doc:"the words it was found by"`
	AtMs      int64  `json:"atMs,omitempty"`
}

// mostFound bounds an answer of each kind.
const mostFound = 20

// Find looks for a text in what was written: notes at the fire, of pieces and of stock, and the
// names of what went wrong. The newest come first.
func (w *Work) Find(ctx context.Context, wanted string) ([]Found, error) {
	out := []Found{}
	wanted = strings.TrimSpace(wanted)
	if wanted == "" {
		return out, nil
	}
	if len(wanted) > doc.MostText {
		return nil, edit.One("text", "field.tooLong", map[string]float64{"most": doc.MostText}, "")
	}
	var rows []store.FoundRow
	names := map[string]string{}
	err := w.store.Read(ctx, func(tx store.Tx) (err error) {
		if rows, err = tx.Written(wanted, mostFound); err != nil {
			return err
		}
		for _, r := range rows {
			if r.Kind != "note" || names[r.PieceID] != "" {
				continue
			}
			row, err := tx.Piece(r.PieceID)
			if err != nil {
				return err
			}
			if p, err := doc.Decode[doc.Piece](row.Doc); err == nil {
				names[r.PieceID] = p.Name
			}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		if f, ok := found(r, wanted, names); ok {
			out = append(out, f)
		}
	}
	faults, err := w.faultsCalled(ctx, wanted)
	if err != nil {
		return nil, err
	}
	out = append(out, faults...)
	seen, err := w.visible(ctx)
	if seen != nil {
		out = slices.DeleteFunc(out, func(f Found) bool { return f.PieceID != "" && !seen[f.PieceID] })
	}
	return out, err
}

// found is a row as it is told; ok is false where it cannot be read.
func found(r store.FoundRow, wanted string, names map[string]string) (f Found, ok bool) {
	f = Found{Kind: r.Kind, PieceID: r.PieceID, SessionID: r.SessionID, StockID: r.StockID}
	switch r.Kind {
	case "note":
		e, err := doc.Decode[session.Event](r.Doc)
		f.Name, f.Said, f.AtMs, ok = names[r.PieceID], e.Text, e.AtMs, err == nil
	case "piece":
		p, err := doc.Decode[doc.Piece](r.Doc)
		f.Name, f.Said, ok = p.Name, p.Notes, err == nil
	case "stock":
		s, err := doc.Decode[doc.Stock](r.Doc)
		if f.Name, f.Said, ok = s.Name, s.Notes, err == nil; !strings.Contains(strings.ToLower(s.Notes), strings.ToLower(wanted)) {
			f.Said = s.Place
		}
	}
	return f, ok
}

// faultsCalled are the pieces to which something happened that is called so.
func (w *Work) faultsCalled(ctx context.Context, wanted string) ([]Found, error) {
	called := map[string]string{}
	for _, k := range session.FaultKinds() {
		if words := text.Say("fault."+string(k), nil); strings.Contains(strings.ToLower(words), strings.ToLower(wanted)) {
			called[string(k)] = words
		}
	}
	if len(called) == 0 {
		return nil, nil
	}
	fires, err := w.AllFires(ctx)
	var out []Found
	for _, e := range fires {
		for _, k := range e.Faults {
			if words := called[k]; words != "" && len(out) < mostFound {
				out = append(out, Found{Kind: "fault", PieceID: e.PieceID, SessionID: e.ID, Name: e.Name, Said: words, AtMs: e.LastMs})
			}
		}
	}
	return out, err
}

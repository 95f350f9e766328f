package work

import (
	"fmt"

	"coldember/core/session"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// fireRows adds the rows of what happened to a piece at the fire, every event of it looked at
// as one that is told.
func (p *ArchivedPiece) fireRows(out *store.Whole, seen map[string]bool) error {
	where := "pieces " + p.ID
	frozen := map[int]bool{}
	for _, k := range p.Frozen {
		text, err := looked(where, k.Doc, func(d *doc.Kept) error { return d.Request.Validate() })
		if err != nil {
			return err
		}
		if k.FrozenAt == nil || frozen[k.N] {
			return wrong(fmt.Sprintf("%s, plan %d", where, k.N), nil)
		}
		frozen[k.N] = true
		out.Plans = append(out.Plans, store.Plan{PieceID: p.ID, N: k.N, Laws: k.Laws, Request: text, FrozenAt: k.FrozenAt, CreatedAt: k.CreatedAt})
	}
	for _, s := range p.Sessions {
		if !ids.MatchString(s.ID) || seen["sessions"+s.ID] || !frozen[s.Plan] {
			return wrong(fmt.Sprintf("%s, session %q", where, s.ID), nil)
		}
		seen["sessions"+s.ID] = true
		text, err := looked(where, s.Doc, (*doc.Session).Validate)
		if err != nil {
			return err
		}
		d, err := doc.Decode[doc.Session](text)
		if err != nil {
			return err
		}
		told := map[string]bool{}
		for n, e := range s.Events {
			text, err := looked(where, e.Doc, func(e *session.Event) error {
				if told[e.ID] {
					return edit.One("events."+e.ID, "archive.wrong", nil, "")
				}
				told[e.ID] = true
				return e.Validate(&d.Course)
			})
			if err != nil {
				return err
			}
			is, err := doc.Decode[session.Event](text)
			if err != nil {
				return err
			}
			out.Events = append(out.Events, store.SessionEvent{SessionID: s.ID, ID: is.ID, N: n + 1, Doc: text, HeardAt: e.HeardAt})
		}
		out.Sessions = append(out.Sessions, store.Session{ID: s.ID, PieceID: p.ID, PlanN: s.Plan, Laws: s.Laws, Doc: text, Events: len(s.Events), CreatedAt: s.CreatedAt, UpdatedAt: s.UpdatedAt})
	}
	return nil
}

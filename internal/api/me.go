package api

import (
	"context"
	"net/http"

	"coldember/internal/doc"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Me is who asks.
type Me struct {
	Name string `json:"name" doc:"none of who sits at the machine itself"`
	Role string `json:"role" enum:"smith,teacher,student"`
	// Class is told to all but students.
	Class []string `json:"class,omitempty" doc:"the students by name, to whom a piece of work may be given"`
}

func (h *handlers) me(api huma.API) {
	huma.Register(api, op("me", http.MethodGet, "/me", "Who asks, and what they are in the shop"),
		func(ctx context.Context, _ *struct{}) (*body[Me], error) {
			v := work.ViewerOf(ctx)
			me := Me{Name: v.Name, Role: string(v.Role)}
			var err error
			me.Class, err = h.work.Class(ctx)
			return &body[Me]{me}, fail(ctx, err, "")
		})
}

// ClassSettings are those of the shop that a student may know: all but its money, its copies and what it learned of others.
func ClassSettings(s work.Settings) Settings {
	d := s.Doc
	d.Copies, d.Prices, d.Learned, d.Hours, d.Walk, d.NewsSeen = doc.CopySettings{}, doc.NewShop().Prices, nil, nil, 0, doc.NewestNews
	return settingsOf(work.Settings{Doc: d, Version: s.Version})
}

package work

import (
	"context"

	"coldember/internal/edit"
)

// News are the codes of what is new since the shop was told last.
func (w *Work) News(ctx context.Context) ([]string, error) {
	s, err := w.Shop(ctx)
	return s.Doc.News(), err
}

// Updated is for a file that an older program made: a shop that never changed a setting has
// nothing yet that says what it was told.
func (w *Work) Updated(ctx context.Context) error {
	s, err := w.Shop(ctx)
	if err != nil || s.Version > 0 {
		return err
	}
	_, err = w.EditShop(ctx, 0, []edit.Edit{{Field: "newsSeen", Text: "0"}, {Field: "walk", Text: "0"}})
	return err
}

package work

import (
	"context"

	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/text"
)

// Settings are the shop's, in a version.
type Settings struct {
	Version int
	Doc     doc.Shop
}

// Shop reads the settings; a new database has the defaults.
func (w *Work) Shop(ctx context.Context) (out Settings, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		out, err = settingsIn(tx)
		return err
	})
	return out, err
}

func settingsIn(tx store.Tx) (Settings, error) {
	row, ok, err := tx.Shop()
	if err != nil || !ok {
		return Settings{Doc: doc.NewShop()}, err
	}
	d, err := doc.Decode[doc.Shop](row.Doc)
	return Settings{Version: row.Version, Doc: d}, err
}

// EditShop applies edits to the settings if nobody saved since version.
func (w *Work) EditShop(ctx context.Context, version int, edits []edit.Edit) (Settings, error) {
	s, err := w.Shop(ctx)
	if err != nil {
		return s, err
	}
	if s.Version != version {
		return s, &StaleError{Current: s}
	}
	next, err := edit.Shop(s.Doc, edits)
	for k, c := range next.Learned {
		if c.FromMs < 0 { // forgotten from now on back
			c.FromMs = w.now().UnixMilli()
			next.Learned[k] = c
		}
	}
	if err != nil {
		return s, err
	}
	return w.SaveShop(ctx, version, next)
}

// SaveShop keeps the settings if nobody saved since version.
func (w *Work) SaveShop(ctx context.Context, version int, d doc.Shop) (Settings, error) {
	if err := d.Validate(); err != nil {
		return Settings{}, edit.Invalid(err)
	}
	if err := checkFolder(d.Copies); err != nil {
		return Settings{}, err
	}
	err := w.store.Write(ctx, func(tx store.Tx) error {
		row, _, err := tx.Shop()
		if err != nil {
			return err
		}
		if row.Version != version {
			return errStale
		}
		return tx.PutShop(store.Shop{Doc: doc.Encode(d), Version: version + 1, UpdatedAt: w.now()})
	})
	if err != nil {
		return Settings{}, staleOr(err, func() (Settings, error) { return w.Shop(ctx) })
	}
	w.tell(Event{"shop", "", version + 1})
	if d.Language != text.Language() {
		text.Use(d.Language)
		w.fires.forget() // its names are read anew
	}
	return w.Shop(ctx)
}

// Speak has the program speak the language of this shop, where it has chosen one.
func (w *Work) Speak(ctx context.Context) error {
	s, err := w.Shop(ctx)
	if err == nil && s.Doc.Language != "" {
		text.Use(s.Doc.Language)
	}
	return err
}

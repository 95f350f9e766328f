package work

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"image"
	"time"

	"coldember/core/plan"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// Bounds of a picture.
const (
	MaxPictureBytes = 12 << 20
	maxPicturePx    = 40_000_000
)

// AddPicture keeps a PNG or JPEG and puts it behind the outline of a piece, as
// wide as the blade and level with its middle, until its scale is set.
func (w *Work) AddPicture(ctx context.Context, id string, version int, data []byte) (Piece, *plan.Plan, error) {
	row, err := w.pictureOf(data)
	if err != nil {
		return Piece{}, nil, err
	}
	seen, err := w.seen(ctx, id, version)
	if err != nil {
		return Piece{}, nil, err
	}
	d := doc.Copy(seen.Doc)
	b := d.Request.Design
	scale := b.LengthMm / float64(row.WidthPx)
	d.Picture = &doc.Picture{
		ID: row.ID, WidthPx: row.WidthPx, HeightPx: row.HeightPx, MmPerPx: scale, StrengthShare: .5,
		YMm: (float64(row.HeightPx)*scale - b.HeightMm) / 2,
	}
	return w.keep(ctx, id, version, d, "", func(tx store.Tx) error { return tx.KeepPicture(row) })
}

// KeepPicture keeps a PNG or JPEG by itself, and names it.
func (w *Work) KeepPicture(ctx context.Context, data []byte) (string, error) {
	row, err := w.pictureOf(data)
	if err != nil {
		return "", err
	}
	return row.ID, w.store.Write(ctx, func(tx store.Tx) error { return tx.KeepPicture(row) })
}

// pictureOf looks at a picture and writes it again; it is named by what it shows.
func (w *Work) pictureOf(data []byte) (store.Picture, error) {
	if err := lookAtPicture(data); err != nil {
		return store.Picture{}, err
	}
	data, format, size, err := redrawn(data, false)
	if err != nil {
		return store.Picture{}, edit.One("file", "picture.notImage", nil, "")
	}
	return store.Picture{ID: shownIn(data), Mime: "image/" + format, WidthPx: size.X, HeightPx: size.Y, Data: data, CreatedAt: w.now()}, nil
}

// shownIn names a picture by what it shows.
func shownIn(data []byte) string {
	sum := sha256.Sum256(data)
	return hex.EncodeToString(sum[:12])
}

// lookAtPicture refuses what is no picture, or one that is too large to be opened.
func lookAtPicture(data []byte) error {
	if len(data) > MaxPictureBytes {
		return edit.One("file", "picture.tooLarge", nil, "")
	}
	return openable(data)
}

// openable refuses what is no picture, or one of too many dots, without opening it: a small file can be an immense picture.
func openable(data []byte) error {
	said, _, err := image.DecodeConfig(bytes.NewReader(data))
	switch {
	case err == nil && said.Width*said.Height > maxPicturePx:
		return edit.One("file", "picture.tooLarge", nil, "")
	case err != nil || said.Width < 2 || said.Height < 2:
		return edit.One("file", "picture.notImage", nil, "")
	}
	return nil
}

// ReadPicture opens a PNG or JPEG that is only looked at.
func ReadPicture(data []byte) (image.Image, error) {
	if err := lookAtPicture(data); err != nil {
		return nil, err
	}
	img, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, edit.One("file", "picture.notImage", nil, "")
	}
	return img, nil
}

// PictureData is the bytes of a picture and what they are.
func (w *Work) PictureData(ctx context.Context, id string) (data []byte, mime string, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		row, err := tx.Picture(id)
		data, mime = row.Data, row.Mime
		return err
	})
	return data, mime, err
}

// looseFor is how long a picture may wait for what it is for.
const looseFor = 24 * time.Hour

// Tidy lets go of pictures that nothing refers to any more: no piece, no step of a
// history, no pattern, no session, though they have been here for a day: what they are for may
// still be on its way. It tells how many they were.
func (w *Work) Tidy(ctx context.Context) (gone int, err error) {
	err = w.store.Write(ctx, func(tx store.Tx) error {
		gone, err = tx.RemoveLoosePictures(w.now().Add(-looseFor))
		return err
	})
	return gone, err
}

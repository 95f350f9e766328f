package work

import (
	"bytes"
	"context"
	"errors"
	"image"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/photo"
	"coldember/internal/edit"
)

// ReadPhoto reads a photograph of a blank on its printed sheet; nothing of it is kept. Errors are *edit.InvalidError.
func ReadPhoto(ctx context.Context, data []byte, sheet photo.Sheet) (*photo.Silhouette, error) {
	said, _, err := image.DecodeConfig(bytes.NewReader(data))
	switch {
	case len(data) > MaxPictureBytes || err == nil && said.Width*said.Height > maxPicturePx:
		return nil, edit.One("file", "picture.tooLarge", nil, "")
	case err != nil:
		return nil, edit.One("file", "picture.notImage", nil, "")
	}
	img, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, edit.One("file", "picture.notImage", nil, "")
	}
	out, err := photo.Read(ctx, img, sheet)
	var wrong *photo.Error
	if errors.As(err, &wrong) {
		return nil, edit.One("file", wrong.Code, nil, "")
	}
	return out, err
}

// LaidInside lays the finished blade of a session, or of another design, into the blank of a photograph: where it is
// put, or with seek where most steel is outside it. Errors are *edit.InvalidError, or the context's.
func (w *Work) LaidInside(ctx context.Context, id string, s *photo.Silhouette, l photo.Lie, seek bool, d *blade.Design) (*photo.Inside, error) {
	f, err := w.Fire(ctx, id)
	if err != nil {
		return nil, err
	}
	if d == nil {
		d = &f.Doc.Request.Design
	}
	drawn, err := figure.Sketch(*d)
	if err != nil {
		return nil, edit.Invalid(err)
	}
	outline := make([][2]float64, 0, 2*len(drawn))
	for i := range drawn {
		x, y := drawn[i].Spine()
		outline = append(outline, [2]float64{x, y})
	}
	for i := len(drawn) - 1; i >= 0; i-- {
		x, y := drawn[i].Edge()
		outline = append(outline, [2]float64{x, y})
	}
	if s == nil {
		s = &photo.Silhouette{}
	}
	out, err := s.Lay(ctx, outline, l, seek)
	var wrong *photo.Error
	if errors.As(err, &wrong) {
		return nil, edit.One("silhouette", wrong.Code, nil, "")
	}
	return out, err
}

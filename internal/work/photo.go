package work

import (
	"bytes"
	"errors"
	"image"

	"coldember/core/photo"
	"coldember/internal/edit"
)

// ReadPhoto reads a photograph of a blank on its printed sheet; nothing of it is kept. Errors are *edit.InvalidError.
func ReadPhoto(data []byte, sheet photo.Sheet) (*photo.Silhouette, error) {
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
	out, err := photo.Read(img, sheet)
	var wrong *photo.Error
	if errors.As(err, &wrong) {
		return nil, edit.One("file", wrong.Code, nil, "")
	}
	return out, err
}

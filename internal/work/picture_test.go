package work_test

import (
	"bytes"
	"context"
	"errors"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math"
	"testing"

	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func photo(t *testing.T, w, h int) []byte {
	t.Helper()
	m := image.NewGray(image.Rect(0, 0, w, h))
	m.Set(w/2, h/2, color.White)
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, m))
	return b.Bytes()
}

func TestAPictureLiesBehindTheOutlineAndStaysWithThePattern(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	p := start(t, w)
	raw := photo(t, 400, 100)
	p, _, err := w.AddPicture(ctx, p.ID, p.Version, raw)
	require.NoError(t, err)
	pic := p.Doc.Picture
	require.NotNil(t, pic)
	assert.InDelta(t, p.Doc.Request.Design.LengthMm, 400*pic.MmPerPx, 1e-9, "as wide as the blade at first")
	data, mime, err := w.PictureData(ctx, pic.ID)
	require.NoError(t, err)
	assert.Equal(t, raw, data)
	assert.Equal(t, "image/png", mime)

	// two points 300 px apart are 150 mm apart in truth; the first stays where it is
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "picture.turnDeg", Text: "30"}})
	require.NoError(t, err)
	before := corner(p.Doc.Picture, 50, 20)
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "picture.scale", Text: "50 20; 350 20; 15cm"}})
	require.NoError(t, err)
	assert.InDelta(t, .5, p.Doc.Picture.MmPerPx, 1e-12)
	after := corner(p.Doc.Picture, 50, 20)
	assert.InDelta(t, before[0], after[0], 1e-9)
	assert.InDelta(t, before[1], after[1], 1e-9)

	pattern, err := w.AddPattern(ctx, doc.Pattern{Name: "Traced", Design: p.Doc.Request.Design, Allowances: p.Doc.Request.Allowances, Picture: p.Doc.Picture})
	require.NoError(t, err)
	next, _, err := w.StartPiece(ctx, work.NewPiece{Name: "From it", PatternID: pattern.ID, BarForm: "flat", Edits: []edit.Edit{
		{Field: "bar.widthMm", Text: "25"}, {Field: "bar.thicknessMm", Text: "5"}, {Field: "bar.lengthMm", Text: "500"}, {Field: "steelId", Text: "1084"},
	}})
	require.NoError(t, err)
	assert.Equal(t, p.Doc.Picture, next.Doc.Picture, "it stays with the pattern")

	p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("picture.widthMm", "24cm"))
	require.NoError(t, err)
	assert.InDelta(t, .6, p.Doc.Picture.MmPerPx, 1e-12)
	gone, _, err := w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "picture.remove"}})
	require.NoError(t, err)
	assert.Nil(t, gone.Doc.Picture)
	back, _, err := w.Undo(ctx, gone.ID, gone.Version, -1)
	require.NoError(t, err)
	assert.Equal(t, p.Doc.Picture, back.Doc.Picture, "and can be had back")
}

// corner is where a pixel lies, mm.
func corner(p *doc.Picture, px, py float64) [2]float64 {
	s, c := math.Sincos(p.TurnDeg * math.Pi / 180)
	return [2]float64{p.XMm + p.MmPerPx*(px*c-py*s), p.YMm - p.MmPerPx*(px*s+py*c)}
}

func TestWhatIsNoPictureOrNoScaleIsRefused(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	p := start(t, w)
	var jpg bytes.Buffer
	require.NoError(t, jpeg.Encode(&jpg, image.NewGray(image.Rect(0, 0, 20, 20)), nil))
	for name, c := range map[string]struct {
		data []byte
		code string
	}{
		"text":      {[]byte("not a picture"), "picture.notImage"},
		"empty":     {nil, "picture.notImage"},
		"too small": {photo(t, 1, 1), "picture.notImage"},
		"too heavy": {append(photo(t, 4, 4), make([]byte, work.MaxPictureBytes)...), "picture.tooLarge"},
		"cut off":   {jpg.Bytes()[:10], "picture.notImage"},
	} {
		_, _, err := w.AddPicture(ctx, p.ID, p.Version, c.data)
		assert.Equal(t, c.code, codeOf(t, err), name)
	}
	_, _, err := w.AddPicture(ctx, p.ID, p.Version+7, photo(t, 4, 4))
	var stale *work.StaleError
	require.True(t, errors.As(err, &stale))
	p, _, err = w.AddPicture(ctx, p.ID, p.Version, jpg.Bytes())
	require.NoError(t, err)
	for field, c := range map[string]struct{ text, code string }{
		"picture.scale":         {"1 1; 2 2", "picture.points"},
		"picture.strengthShare": {"400 %", "field.rangePercent"},
		"picture.id":            {"other", "field.unknown"},
		"picture.xMm":           {"far", "quantity.missingNumber"},
	} {
		_, _, err := w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: field, Text: c.text}})
		assert.Equal(t, c.code, codeOf(t, err), field)
	}
	for _, text := range []string{"a b; 9 9; 5mm", "1 1; 1 1; 5mm"} {
		_, _, err := w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "picture.scale", Text: text}})
		assert.Equal(t, "picture.points", codeOf(t, err), text)
	}
	_, _, err = w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "picture.scale", Text: "0 0; 9 9; 9999mm"}})
	assert.Equal(t, "field.rangeLength", codeOf(t, err))
}

func codeOf(t *testing.T, err error) string {
	t.Helper()
	var bad *edit.InvalidError
	require.True(t, errors.As(err, &bad), "%v", err)
	return bad.Fields[0].Code
}

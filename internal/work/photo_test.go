package work_test

import (
	"bytes"
	"context"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"coldember/core/quantity"
	"coldember/internal/demo"
	"coldember/internal/edit"
	"coldember/internal/export"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAPrintedTemplateSquaresAPhotograph: the sheet as another program draws it, a blank laid on it, is read to half a
// millimetre; what is no photograph of a sheet says what is wrong with it.
func TestAPrintedTemplateSquaresAPhotograph(t *testing.T) {
	if _, err := exec.LookPath("pdftoppm"); err != nil {
		t.Skip("pdftoppm of poppler-utils is not here")
	}
	dir := t.TempDir()
	st, err := store.Open(ctx, filepath.Join(dir, "demo.db"), nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	require.NoError(t, demo.Build(ctx, st, time.Now()))
	w := work.New(st, time.Now, work.RandomID)
	all, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	for _, p := range all {
		if p.Doc.Name == demo.Rigging {
			f, err := export.Write(export.Subject{Name: p.Doc.Name, Design: p.Doc.Request.Design, Allowances: p.Doc.Request.Allowances, Piece: &p.Doc.Request}, export.FormatPDF, quantity.Metric, "a4")
			require.NoError(t, err)
			require.NoError(t, os.WriteFile(filepath.Join(dir, "t.pdf"), f.Data, 0o600))
		}
	}
	out, err := exec.Command("pdftoppm", "-png", "-r", "150", "-f", "1", "-l", "1", filepath.Join(dir, "t.pdf"), filepath.Join(dir, "t")).CombinedOutput()
	require.NoError(t, err, string(out))
	pages, err := filepath.Glob(filepath.Join(dir, "t*.png"))
	require.NoError(t, err)
	require.NotEmpty(t, pages)
	data, err := os.ReadFile(pages[0])
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(data))
	require.NoError(t, err)
	perMm := 150 / 25.4
	shot := image.NewRGBA(img.Bounds())
	draw.Draw(shot, shot.Bounds(), img, image.Point{}, draw.Src)
	const long, high = 150.0, 28.0
	for y := range shot.Bounds().Dy() {
		for x := range shot.Bounds().Dx() {
			mmX, mmY := float64(x)/perMm-60, float64(y)/perMm-60
			if mmX > 0 && mmX < long && math.Abs(mmY) < high/2*math.Sqrt(math.Min(1, mmX/30)) {
				shot.Set(x, y, color.Gray{60})
			}
		}
	}
	var laid bytes.Buffer
	require.NoError(t, png.Encode(&laid, shot))
	o, err := work.ReadPhoto(context.Background(), laid.Bytes(), export.PhotoSheet("a4"))
	require.NoError(t, err)
	assert.InDelta(t, long, o.LengthMm, 1)
	assert.Greater(t, o.Seen, .9)
	for _, a := range o.Along {
		if a.Seen && a.XMm > 10 && a.XMm < long-3 {
			assert.InDelta(t, high*math.Sqrt(math.Min(1, a.XMm/30)), a.HeightMm(), .5, "at %g", a.XMm)
		}
	}
	assert.Less(t, o.BowMm, .6)

	var problem *edit.InvalidError
	_, err = work.ReadPhoto(context.Background(), []byte("no picture"), export.PhotoSheet("a4"))
	require.ErrorAs(t, err, &problem)
	assert.Equal(t, "picture.notImage", problem.Fields[0].Code)
	_, err = work.ReadPhoto(context.Background(), data, export.PhotoSheet("a4"))
	require.ErrorAs(t, err, &problem)
	assert.Equal(t, "photo.noBlank", problem.Fields[0].Code)
}

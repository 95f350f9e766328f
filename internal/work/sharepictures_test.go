package work_test

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"math"
	"path"
	"runtime"
	"testing"
	"time"

	"coldember/core/session"
	"coldember/internal/edit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// photograph is a JPEG, coloured and never the same for two seeds.
func photograph(t *testing.T, w, h, seed int) []byte {
	t.Helper()
	m := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			m.Set(x, y, color.RGBA{uint8(x * 255 / w), uint8(y * 255 / h), uint8(seed * 40), 255})
		}
	}
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, m, nil))
	return b.Bytes()
}

// TestPicturesGoAsPNG: a photograph of the log and one behind the outline lie in the file as PNG, dot for dot what is kept; where
// they are taken they are photographs again, and show the same.
func TestPicturesGoAsPNG(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	p, _, err := w.AddPicture(ctx, p.ID, p.Version, photograph(t, 240, 80, 1))
	require.NoError(t, err)
	logged, err := w.KeepPicture(ctx, photograph(t, 120, 90, 2))
	require.NoError(t, err)
	f, err := w.TakeToFire(ctx, p.ID, false)
	require.NoError(t, err)
	events := told("a", 1, session.In, session.Pictured)
	events[1].Picture = logged
	heard, err := w.Tell(ctx, f.ID, time.Now().UnixMilli(), events)
	require.NoError(t, err)
	require.Empty(t, heard.Refused)

	file := shared(t, w, p.ID)
	z, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
	require.NoError(t, err)
	seen := 0
	for _, id := range []string{logged, p.Doc.Picture.ID} {
		data, mime, err := w.PictureData(ctx, id)
		require.NoError(t, err)
		require.Equal(t, "image/jpeg", mime)
		was, err := jpeg.Decode(bytes.NewReader(data))
		require.NoError(t, err)
		r, err := z.Open("pictures/" + id + ".png")
		require.NoError(t, err)
		raw, err := io.ReadAll(r)
		require.NoError(t, err)
		assert.Equal(t, byte(8), raw[24], "bits a colour")
		is, err := png.Decode(bytes.NewReader(raw))
		require.NoError(t, err)
		require.Equal(t, was.Bounds(), is.Bounds())
		assert.Zero(t, apart(was, is), "dot for dot")
	}
	for _, f := range z.File {
		if path.Dir(f.Name) == "pictures" {
			seen++
			assert.Equal(t, ".png", path.Ext(f.Name))
		}
	}
	assert.Equal(t, 2, seen)

	other, _ := fresh(t)
	q, err := other.TakeShared(ctx, file)
	require.NoError(t, err)
	assert.Equal(t, p.Doc.Picture.WidthPx, q.Doc.Picture.WidthPx)
	data, mime, err := other.PictureData(ctx, q.Doc.Picture.ID)
	require.NoError(t, err)
	assert.Equal(t, "image/jpeg", mime)
	is, err := jpeg.Decode(bytes.NewReader(data))
	require.NoError(t, err)
	first, _, err := w.PictureData(ctx, p.Doc.Picture.ID)
	require.NoError(t, err)
	was, err := jpeg.Decode(bytes.NewReader(first))
	require.NoError(t, err)
	assert.Less(t, apart(was, is), 4.0)
	there, err := other.FireOf(ctx, q.ID)
	require.NoError(t, err)
	all, err := other.Happened(ctx, there.ID, 0)
	require.NoError(t, err)
	_, mime, err = other.PictureData(ctx, all[len(all)-1].Picture)
	require.NoError(t, err, "the log names it as it is named there")
	assert.Equal(t, "image/jpeg", mime)
	again := shared(t, other, q.ID)
	_, err = w.TakeShared(ctx, again)
	require.NoError(t, err, "and back")
}

// apart is the mean distance of two pictures, of 255.
func apart(a, b image.Image) float64 {
	sum, n := 0.0, 0.0
	r := a.Bounds()
	for y := r.Min.Y; y < r.Max.Y; y++ {
		for x := r.Min.X; x < r.Max.X; x++ {
			ar, ag, ab, _ := a.At(x, y).RGBA()
			br, bg, bb, _ := b.At(x, y).RGBA()
			for _, c := range [][2]uint32{{ar, br}, {ag, bg}, {ab, bb}} {
				sum, n = sum+math.Abs(float64(c[0]>>8)-float64(c[1]>>8)), n+1
			}
		}
	}
	return sum / n
}

// immense is a small file that says it is a picture of so many dots a side.
func immense(t *testing.T, side uint32) []byte {
	t.Helper()
	raw := photo(t, 4, 4)
	binary.BigEndian.PutUint32(raw[16:], side)
	binary.BigEndian.PutUint32(raw[20:], side)
	binary.BigEndian.PutUint32(raw[29:], crc32.ChecksumIEEE(raw[12:29]))
	said, err := png.DecodeConfig(bytes.NewReader(raw))
	require.NoError(t, err)
	require.Equal(t, int(side), said.Width)
	return raw
}

// TestAnImmensePictureIsNotOpened: neither in a shared piece nor in an archive of a shop.
func TestAnImmensePictureIsNotOpened(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	same := func(s string) string { return s }
	bomb := map[string]string{"pictures/0123456789abcdef01234567.png": string(immense(t, 60_000))}
	piece, shop := resealed(t, shared(t, w, p.ID), same, bomb), resealed(t, packed(t, w), same, bomb)
	var wrong *edit.InvalidError
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	_, err := w.TakeShared(ctx, piece)
	require.ErrorAs(t, err, &wrong)
	_, err = w.Unpack(ctx, shop)
	require.ErrorAs(t, err, &wrong)
	runtime.ReadMemStats(&after)
	assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(1<<30), "bytes: opened, it takes more than three times as many")
}
